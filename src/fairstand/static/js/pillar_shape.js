// A pillar's profile as a solid to look at, and as a drawing with its contact enlarged.
import * as THREE from "three";

const SIDES = 32;

// profile: rows of [z, radius] from the plate up, about the Z axis
export function pillarGeometry(profile) {
  const rows = [[profile[0][0], 0], ...profile, [profile.at(-1)[0], 0]];
  const lathe = new THREE.LatheGeometry(rows.map(([z, r]) => new THREE.Vector2(r, z)), SIDES);
  lathe.rotateX(Math.PI / 2);
  lathe.deleteAttribute("normal");
  const flat = lathe.toNonIndexed();
  flat.computeVertexNormals();
  return flat;
}

const ns = "http://www.w3.org/2000/svg";
const add = (svg, name, attributes, text) => {
  const node = document.createElementNS(ns, name);
  for (const [key, value] of Object.entries(attributes)) node.setAttribute(key, value);
  if (text !== undefined) node.textContent = text;
  svg.append(node);
};

export function drawProfile(svg, pillar) {
  svg.replaceChildren();
  if (!pillar?.profile_mm.length) return;
  const rows = pillar.profile_mm;
  const top = rows.at(-1)[0];
  const widest = Math.max(...rows.map(([, r]) => r));
  const scale = Math.min(205 / top, 38 / widest);
  const [cx, zero] = [42, 226];
  const side = (sign) => rows.map(([z, r]) => `${cx + sign * r * scale} ${zero - z * scale}`);
  add(svg, "path", { d: `M${[...side(-1), ...side(1).reverse()].join("L")}Z`, fill: "#dcebea", stroke: "#17696a", "stroke-width": 1.4 });
  add(svg, "path", { d: `M2 ${zero}H82`, stroke: "#26324c", "stroke-width": 2 });
  const z = zero - pillar.contact_mm[2] * scale;
  add(svg, "path", { d: `M10 ${z}H74`, stroke: "#6b2a61", "stroke-dasharray": "3 2" });
  add(svg, "text", { x: 2, y: zero + 16, "font-size": 12, fill: "#26324c" }, `${pillar.contact_mm[2].toFixed(1)} mm tall`);
  const r = (pillar.size.contact_mm / 2) * 30;
  const shown = Math.min(r, 30);
  add(svg, "circle", { cx, cy: 282, r: shown, fill: "#17696a" });
  add(svg, "text", { x: 2, y: 326, "font-size": 12, fill: "#26324c" }, r > 30 ? "contact" : "contact, 30 : 1");
}
