// A fine mesh with far fewer facets, to be drawn while it moves: its corners drawn together in cells.
import * as THREE from "three";

// Cells along the longest side.
const ACROSS = 64;

// Facets that are left, as corners [x, y, z, …], and which each of them was before.
function drawnTogether(vertices, facets) {
  const low = [Infinity, Infinity, Infinity], high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < vertices.length; i++) {
    const axis = i % 3;
    if (vertices[i] < low[axis]) low[axis] = vertices[i];
    if (vertices[i] > high[axis]) high[axis] = vertices[i];
  }
  const size = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2], 1e-9) / ACROSS;
  const [nx, ny, nz] = [0, 1, 2].map((axis) => Math.floor((high[axis] - low[axis]) / size) + 1);
  const first = new Int32Array(nx * ny * nz).fill(-1); // the first corner in each cell stands for all
  const stands = new Int32Array(vertices.length / 3);
  for (let v = 0; v < stands.length; v++) {
    const [i, j, k] = [0, 1, 2].map((axis) => Math.floor((vertices[3 * v + axis] - low[axis]) / size));
    const cell = i + nx * (j + ny * k);
    if (first[cell] < 0) first[cell] = v;
    stands[v] = first[cell];
  }
  const corners = [], source = [];
  for (let f = 0; 3 * f < facets.length; f++) {
    const own = [stands[facets[3 * f]], stands[facets[3 * f + 1]], stands[facets[3 * f + 2]]];
    if (own[0] === own[1] || own[1] === own[2] || own[2] === own[0]) continue;
    source.push(f);
    for (const v of own) corners.push(vertices[3 * v], vertices[3 * v + 1], vertices[3 * v + 2]);
  }
  return { corners: new Float32Array(corners), source: Int32Array.from(source) };
}

export class Rough {
  constructor(vertices, facets, of, material) {
    const { corners, source } = drawnTogether(vertices, facets);
    Object.assign(this, { source, of });
    this.geometry = new THREE.BufferGeometry();
    this.geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
    for (const name of ["normal", "slope"]) this.take(name);
    this.mesh = new THREE.Mesh(this.geometry, material);
    this.mesh.visible = false;
  }

  // What each facet says, as the one that it was says it.
  take(name) {
    const from = this.of.getAttribute(name);
    if (!from) return this.geometry.deleteAttribute(name);
    const wide = 3 * from.itemSize;
    const values = new Float32Array(this.source.length * wide);
    this.source.forEach((f, i) => values.set(from.array.subarray(wide * f, wide * f + wide), wide * i));
    return this.geometry.setAttribute(name, new THREE.BufferAttribute(values, from.itemSize));
  }
}
