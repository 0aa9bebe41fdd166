// The cut face drawn flat and to scale, with the zone in which a joint fits and the joints on it.
const NS = "http://www.w3.org/2000/svg";
const CORNERS = { triangle: 3, square: 4, hexagon: 6 };

const made = (name, values, parent) => {
  const node = document.createElementNS(NS, name);
  for (const [key, value] of Object.entries(values)) node.setAttribute(key, value);
  parent?.append(node);
  return node;
};
// Up is up on the page.
const path = (rings) => rings.map((ring) => `M${ring.map(([u, v]) => `${u} ${-v}`).join("L")}Z`).join("");

function outlineOf(joint) {
  const [u, v] = joint.uv;
  const turn = (joint.turn_deg * Math.PI) / 180;
  if (joint.kind === "snap") {
    const [w, t] = [joint.width_mm / 2, joint.thick_mm / 2];
    return [[-t, -w], [t + joint.catch_mm, -w], [t + joint.catch_mm, w], [-t, w]].map(([x, y]) => [
      u + x * Math.cos(turn) - y * Math.sin(turn), v + x * Math.sin(turn) + y * Math.cos(turn)]);
  }
  const n = CORNERS[joint.outline] ?? 48;
  const r = joint.width_mm / 2 / (n > 12 ? 1 : Math.cos(Math.PI / n));
  return Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / n + turn;
    return [u + r * Math.cos(a), v + r * Math.sin(a)];
  });
}

// What is to be drawn once the hand lets go: an answer that comes meanwhile must not take a joint
// out of it.
const waiting = new WeakMap();

// on: place(uv), choose(key), move(key, uv), slide(uv) of the dovetail
export function drawFace(target, face, zone, chosen, on) {
  if (target.querySelector("svg[data-held]")) {
    waiting.set(target, [face, zone, chosen, on]);
    return;
  }
  const [x0, y0, x1, y1] = face.bounds;
  const wide = Math.max(x1 - x0, y1 - y0, 1e-3);
  const pad = 0.08 * wide;
  const svg = made("svg", {
    viewBox: `${x0 - pad} ${-y1 - pad} ${x1 - x0 + 2 * pad} ${y1 - y0 + 2.6 * pad}`, class: "w-full h-full", role: "img",
    "aria-label": `Cut face ${face.key}, ${face.area_mm2.toFixed(0)} mm²`, preserveAspectRatio: "xMidYMid meet",
  });
  const fixed = { "vector-effect": "non-scaling-stroke" };
  made("path", { d: path(face.outline), class: "cut-face", "fill-rule": "evenodd", ...fixed, "data-outline": "" }, svg);
  if (zone.some((ring) => ring.length)) made("path", { d: path(zone), class: "cut-zone", "fill-rule": "evenodd", ...fixed, "data-zone": "" }, svg);
  if (face.dovetail) {
    const { uv: [u, v], width_mm: w, turn_deg: t } = face.dovetail;
    const a = (t * Math.PI) / 180;
    const [ax, ay] = [-Math.sin(a) * 2 * wide, Math.cos(a) * 2 * wide];
    const [bx, by] = [(Math.cos(a) * w) / 2, (Math.sin(a) * w) / 2];
    const [px, py] = [bx + ax, by + ay];
    made("path", { d: path([[[u - px, v - py], [u + bx - ax, v + by - ay], [u + px, v + py], [u - bx + ax, v - by + ay]]]), class: "cut-tail-body", "data-tail": "" }, svg);
    for (const s of [-1, 1])
      made("path", { d: `M${u + s * bx - ax} ${-(v + s * by - ay)}L${u + s * bx + ax} ${-(v + s * by + ay)}`, class: "cut-tail", ...fixed }, svg);
  }
  const nodes = new Map();
  for (const joint of face.joints) {
    const group = made("g", { class: `cut-joint${joint.ok ? "" : " is-out"}${joint.key === chosen ? " is-chosen" : ""}`, "data-joint": joint.key, tabindex: "0", role: "button", "aria-label": `Joint ${joint.key}` }, svg);
    made("path", { d: path([outlineOf(joint)]), ...fixed }, group);
    const text = made("text", { x: joint.uv[0], y: -joint.uv[1], "font-size": 0.045 * wide, "text-anchor": "middle", "dominant-baseline": "central" }, group);
    text.textContent = joint.key;
    group.addEventListener("keydown", (e) => (e.key === "Enter" || e.key === " ") && (e.preventDefault(), on.choose(joint.key)));
    nodes.set(joint.key, group);
  }
  const mm = 10 ** Math.floor(Math.log10(wide / 2));
  made("path", { d: `M${x0} ${-y0 + 0.9 * pad}H${x0 + mm}`, class: "cut-scale", ...fixed }, svg);
  const text = made("text", { x: x0 + mm + 0.02 * wide, y: -y0 + 0.9 * pad, "font-size": 0.04 * wide, "dominant-baseline": "central" }, svg);
  text.textContent = `${mm} mm`;
  const at = (e) => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return [Number(p.x.toFixed(3)), Number((-p.y).toFixed(3))];
  };
  let held = null;
  svg.addEventListener("pointerdown", (e) => {
    const key = e.target.closest?.("[data-joint]")?.dataset.joint;
    const tail = key ? null : e.target.closest?.("[data-tail]");
    held = { key, tail, from: at(e), x: e.clientX, y: e.clientY };
    if (key || tail) svg.setPointerCapture(e.pointerId);
    svg.toggleAttribute("data-held", true);
  });
  const letGo = () => {
    held = null;
    svg.removeAttribute("data-held");
    const next = waiting.get(target);
    waiting.delete(target);
    if (next) drawFace(target, ...next);
  };
  for (const end of ["pointercancel", "pointerleave"]) svg.addEventListener(end, () => held && letGo());
  svg.addEventListener("pointermove", (e) => {
    if (!held?.key && !held?.tail) return;
    const [u, v] = at(e);
    (held.tail ?? nodes.get(held.key)).setAttribute("transform", `translate(${u - held.from[0]} ${-(v - held.from[1])})`);
  });
  svg.addEventListener("pointerup", (e) => {
    if (!held) return;
    const { key, tail, from, x, y } = held;
    letGo();
    const far = Math.hypot(e.clientX - x, e.clientY - y) > 4;
    if (tail && far) return on.slide(at(e).map((w, i) => w - from[i] + face.dovetail.uv[i]));
    if (!key) return far ? null : on.place(at(e));
    if (!far) return on.choose(key);
    const joint = face.joints.find((j) => j.key === key);
    return on.move(key, at(e).map((w, i) => w - from[i] + joint.uv[i]));
  });
  target.replaceChildren(svg);
}
