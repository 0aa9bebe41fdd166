// Tells clicks on the canvas from drags, and drags of what was grabbed from looking around.

const STILL = 4;

export function watch(canvas, view, handlers) {
  let start = null;
  let held = null;
  canvas.addEventListener("pointerdown", (e) => {
    if (e.button !== 0) return;
    start = [e.clientX, e.clientY];
    held = handlers.grab(e.clientX, e.clientY, e);
    if (!held) return;
    view.controls.enabled = false;
    canvas.setPointerCapture(e.pointerId);
  }, { capture: true });
  canvas.addEventListener("pointermove", (e) => {
    if (!held || !start || !moved(e)) return;
    if (held.follow) return held.follow(e);
    const hit = view.pick(e.clientX, e.clientY);
    if (hit) handlers.dragging(held, hit);
  });
  const end = (e) => {
    const from = start;
    const token = held;
    const far = from && moved(e);
    start = held = null;
    view.controls.enabled = true;
    if (!from) return;
    if (token?.drop && (far || !token.clicks)) token.drop();
    else if (token && far) handlers.dropped(token, view.pick(e.clientX, e.clientY));
    else if (!far) handlers.clicked(e.clientX, e.clientY, token, e);
  };
  canvas.addEventListener("pointerup", end);
  canvas.addEventListener("pointercancel", () => {
    if (held?.drop) held.drop();
    else if (held) handlers.dropped(held, null);
    start = held = null;
    view.controls.enabled = true;
  });
  const moved = (e) => Math.hypot(e.clientX - start[0], e.clientY - start[1]) > STILL;
}
