// A support from the side that shows it, to scale, with its contact enlarged.
import { colour } from "./colours.js";

const ns = "http://www.w3.org/2000/svg";
const add = (svg, name, attributes, text) => {
  const node = document.createElementNS(ns, name);
  for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, value);
  if (text !== undefined) node.textContent = text;
  svg.append(node);
};

export function drawSupport(svg, support) {
  svg.replaceChildren();
  const rods = support?.rods ?? [];
  if (!rods.length) return;
  // Seen square to the level way from its first end to its last.
  const [fx, fy] = rods[0];
  const [, , , lx, ly] = rods[rods.length - 1];
  const level = Math.hypot(lx - fx, ly - fy);
  const [ux, uy] = level > 1e-6 ? [(lx - fx) / level, (ly - fy) / level] : [1, 0];
  const flat = rods.map(([ax, ay, az, bx, by, bz, ra, rb]) => [(ax - fx) * ux + (ay - fy) * uy, az, (bx - fx) * ux + (by - fy) * uy, bz, ra, rb]);
  const left = Math.min(...flat.map(([a, , b, , ra, rb]) => Math.min(a - ra, b - rb)));
  const right = Math.max(...flat.map(([a, , b, , ra, rb]) => Math.max(a + ra, b + rb)));
  const top = Math.max(...flat.map(([, az, , bz]) => Math.max(az, bz)));
  const scale = Math.min(205 / Math.max(top, 1e-6), 76 / Math.max(right - left, 1e-6));
  const zero = 226;
  const x = (value) => 42 + (value - (left + right) / 2) * scale;
  const y = (value) => zero - value * scale;
  for (const [a, az, b, bz, ra, rb] of flat) {
    const length = Math.hypot(b - a, bz - az) || 1;
    const [nx, nz] = [-(bz - az) / length, (b - a) / length];
    const corners = [[a + nx * ra, az + nz * ra], [b + nx * rb, bz + nz * rb], [b - nx * rb, bz - nz * rb], [a - nx * ra, az - nz * ra]];
    add(svg, "path", {
      d: `M${corners.map(([cx, cz]) => `${x(cx)} ${y(cz)}`).join("L")}Z`,
      fill: colour("teal-pale"), stroke: colour("teal"), "stroke-width": 1.4, "stroke-linejoin": "round",
    });
  }
  add(svg, "path", { d: `M2 ${zero}H82`, stroke: colour("ink"), "stroke-width": 2 });
  if (support.has_contact) {
    add(svg, "path", { d: `M10 ${y(support.contact_mm[2])}H74`, stroke: colour("plum"), "stroke-dasharray": "3 2" });
  }
  add(svg, "text", { x: 2, y: zero + 16, "font-size": 12, fill: colour("ink") }, `${top.toFixed(1)} mm tall`);
  if (!support.size.contact_mm) return;
  const r = (support.size.contact_mm / 2) * 30;
  add(svg, "circle", { cx: 42, cy: 282, r: Math.min(r, 30), fill: colour("teal") });
  add(svg, "text", { x: 2, y: 326, "font-size": 12, fill: colour("ink") }, r > 30 ? "contact" : "contact, 30 : 1");
}
