// The build plate: a fine grid with millimetre ticks along its edges, and the build volume's corners.
import * as THREE from "three";
import { hex } from "../colours.js";

const segments = (points, color, opacity) =>
  new THREE.LineSegments(
    new THREE.BufferGeometry().setFromPoints(points),
    new THREE.LineBasicMaterial({ color, transparent: true, opacity, depthWrite: false }),
  );

export function plateLines(x, y, z) {
  const group = new THREE.Group();
  const at = (a, b, c = 0) => new THREE.Vector3(a, b, c);
  const grid = [];
  const ticks = [];
  const [hx, hy] = [x / 2, y / 2];
  for (let i = Math.ceil(-hx); i <= hx; i++) {
    if (i % 10 === 0) grid.push(at(i, -hy), at(i, hy));
    ticks.push(at(i, -hy), at(i, -hy - (i % 10 === 0 ? 4 : i % 5 === 0 ? 2.6 : 1.4)));
  }
  for (let i = Math.ceil(-hy); i <= hy; i++) {
    if (i % 10 === 0) grid.push(at(-hx, i), at(hx, i));
    ticks.push(at(-hx, i), at(-hx - (i % 10 === 0 ? 4 : i % 5 === 0 ? 2.6 : 1.4), i));
  }
  const frame = [at(-hx, -hy), at(hx, -hy), at(hx, -hy), at(hx, hy), at(hx, hy), at(-hx, hy), at(-hx, hy), at(-hx, -hy)];
  const posts = [];
  for (const [cx, cy] of [[-hx, -hy], [hx, -hy], [hx, hy], [-hx, hy]]) {
    posts.push(at(cx, cy, z), at(cx, cy, z - 8), at(cx, cy, z), at(cx - Math.sign(cx) * 8, cy, z), at(cx, cy, z), at(cx, cy - Math.sign(cy) * 8, z));
  }
  group.add(
    segments(grid, hex("ink"), 0.13), segments(ticks, hex("ink"), 0.5),
    segments(frame, hex("ink"), 0.7), segments(posts, hex("ink"), 0.35),
  );
  return group;
}
