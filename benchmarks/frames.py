"""Drawing the bench's picture: on the demo pieces, and with hundreds of pillars, in Chromium."""

from .browser import demo_pages
from .timing import line

# One drawing after another while the eye goes round; each is waited for.
ROUND = """async () => {
  const view = document.querySelector("[data-model]").view;
  view.look(0, 10);
  await view.nextDrawing();
  const gl = view.renderer.getContext();
  const pixel = new Uint8Array(4);
  const took = [];
  for (let step = 1; step <= 40; step++) {
    const start = performance.now();
    view.look(9 * step, 10);
    view.renderer.render(view.scene, view.camera);
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel); // waits for what was drawn
    took.push(performance.now() - start);
    await view.nextDrawing();
  }
  took.sort((a, b) => a - b);
  return [took[20], took[38], view.renderer.info.render.calls];
}"""
# The same pillar many times over, beside each other: what is drawn, not what makes sense.
CROWD = """(count) => {
  const view = document.querySelector("[data-model]").view;
  const list = [];
  for (let n = 0; n < count; n++) {
    const [x, y] = [(n % 25) * 6 - 75, Math.floor(n / 25) * 6 - 60];
    const rods = [[0, 1, 4, 4], [1, 3, 3, 1.1], [3, 20, 1.1, 1.1], [20, 23, 1.1, 0.25]]
      .map(([z0, z1, r0, r1]) => [x, y, z0, x, y, z1, r0, r1]);
    list.push({ key: `${n}`, fit: "stands", contact_mm: [x, y, 23], rods,
      blocked_at_mm: null, has_contact: true });
  }
  view.setSupports(list, [], []);
}"""


def run() -> None:
    """Print the time of a drawing on every demo piece, then with more and more pillars."""
    print("A drawing of the bench's picture (software rendering): median, slowest but one of 40")
    with demo_pages() as found:
        for href, name in found[1] if found else ():
            page = found[0]
            page.goto(href)
            page.wait_for_selector("html[data-ready]")
            _told(page, name)
        for count in (100, 300, 500) if found else ():
            found[0].evaluate(CROWD, count)
            _told(found[0], f"{count} pillars")


def _told(page, name: str) -> None:
    median, slow, calls = page.evaluate(ROUND)
    line(name, f"{median:.0f} ms, {slow:.0f} ms in {calls} calls")
