// A support's rods from the side, to scale, with its contact enlarged.
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
  if (!support?.rods.length) return;
  const top = Math.max(...support.rods.map((rod) => rod[5]));
  const widest = Math.max(...support.rods.flatMap((rod) => rod.slice(6)));
  const scale = Math.min(205 / top, 38 / widest);
  const [cx, zero] = [42, 226];
  for (const [, , z0, , , z1, r0, r1] of support.rods) {
    const [y0, y1] = [zero - z0 * scale, zero - z1 * scale];
    add(svg, "path", {
      d: `M${cx - r0 * scale} ${y0}L${cx - r1 * scale} ${y1}H${cx + r1 * scale}L${cx + r0 * scale} ${y0}Z`,
      fill: colour("teal-pale"), stroke: colour("teal"), "stroke-width": 1.4, "stroke-linejoin": "round",
    });
  }
  add(svg, "path", { d: `M2 ${zero}H82`, stroke: colour("ink"), "stroke-width": 2 });
  const z = zero - support.contact_mm[2] * scale;
  add(svg, "path", { d: `M10 ${z}H74`, stroke: colour("plum"), "stroke-dasharray": "3 2" });
  add(svg, "text", { x: 2, y: zero + 16, "font-size": 12, fill: colour("ink") }, `${support.contact_mm[2].toFixed(1)} mm tall`);
  const r = (support.size.contact_mm / 2) * 30;
  add(svg, "circle", { cx, cy: 282, r: Math.min(r, 30), fill: colour("teal") });
  add(svg, "text", { x: 2, y: 326, "font-size": 12, fill: colour("ink") }, r > 30 ? "contact" : "contact, 30 : 1");
}
