// Tells clicks on the canvas from drags, and drags of a pillar's contact from looking around.

const STILL = 4;

export function watch(canvas, view, handlers) {
  let start = null;
  let held = null;
  canvas.addEventListener("pointerdown", (e) => {
    if (e.button !== 0) return;
    start = [e.clientX, e.clientY];
    held = handlers.canDrag() ? view.pickPillar(e.clientX, e.clientY) : null;
    if (!held) return;
    view.controls.enabled = false;
    canvas.setPointerCapture(e.pointerId);
  }, { capture: true });
  canvas.addEventListener("pointermove", (e) => {
    if (!held || !start || !moved(e)) return;
    const hit = view.pick(e.clientX, e.clientY);
    if (hit) handlers.dragging(held.key, hit);
  });
  const end = (e) => {
    const from = start;
    const pillar = held;
    const far = from && moved(e);
    start = held = null;
    view.controls.enabled = true;
    if (!from) return;
    if (pillar && far) handlers.dropped(pillar.key, view.pick(e.clientX, e.clientY));
    else if (!far) handlers.clicked(e.clientX, e.clientY, pillar);
  };
  canvas.addEventListener("pointerup", end);
  canvas.addEventListener("pointercancel", () => {
    if (held) handlers.dropped(held.key, null);
    start = held = null;
    view.controls.enabled = true;
  });
  const moved = (e) => Math.hypot(e.clientX - start[0], e.clientY - start[1]) > STILL;
}
