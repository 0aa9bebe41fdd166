// Supports: the rods that the server gives, all in one drawing; a handle at each contact.
import * as THREE from "three";
import { hex, parts } from "../colours.js";
import { emptied } from "./disposing.js";
import { segments } from "./lines.js";

// Sides of a rod's picture, by how many rods there are: a few are looked at closely.
const SIDES = [[150, 24], [800, 12], [Infinity, 7]];
const NEAR = 8; // pixels from a contact that still take hold of it
const ROOM = 64; // rods that there is room for at first

const VERTEX = `
  attribute vec4 tint;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying float vZ;
  void main() {
    vTint = tint;
    vNormal = normal;
    vZ = position.z;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }`;
const FRAGMENT = `
  uniform vec3 eye;
  uniform float cutZ;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying float vZ;
  void main() {
    #ifdef CUT
    if (vZ > cutZ) discard;
    #endif
    float key = 0.5 + 0.5 * dot(vNormal, vec3(-0.398, -0.597, 0.696));
    gl_FragColor = vec4(vTint.rgb * (0.78 + 0.24 * key + 0.30 * max(dot(vNormal, eye), 0.0)), vTint.a);
    #include <colorspace_fragment>
  }`;
// Handles are of one size on the screen, so that they can be grabbed whatever the contact's own.
const DOT = "if (length(gl_PointCoord - 0.5) > 0.5) discard;";

const sidesOf = (count) => SIDES.find(([most]) => count <= most)[1];

// The corners of all rods in one buffer, for one drawing; a rod that did not change is not sent
// again. (Instances were measured: no faster where the picture is drawn by software.)
class Rods {
  constructor(room, sides) {
    Object.assign(this, { room, sides, corners: 4 * sides + 2, perRod: 12 * sides });
    this.geometry = new THREE.BufferGeometry();
    const attribute = (name, array, size, normalized) => {
      const values = new THREE.BufferAttribute(array, size, normalized).setUsage(THREE.DynamicDrawUsage);
      this.geometry.setAttribute(name, values);
      return values;
    };
    const count = this.corners * room;
    this.parts = [
      attribute("position", new Float32Array(3 * count), 3),
      attribute("normal", new Float32Array(3 * count), 3),
      attribute("tint", new Uint8Array(4 * count), 4, true),
    ];
    // Round the side, then fans over the lower and the upper end.
    const one = [];
    for (let i = 0; i < sides; i++) {
      const j = (i + 1) % sides;
      const [a, b, c, d] = [2 * i, 2 * j, 2 * j + 1, 2 * i + 1];
      one.push(a, b, c, a, c, d, 4 * sides, 2 * sides + j, 2 * sides + i, 4 * sides + 1, 3 * sides + i, 3 * sides + j);
    }
    const index = new Uint32Array(this.perRod * room);
    for (let r = 0; r < room; r++) for (let k = 0; k < one.length; k++) index[one.length * r + k] = one[k] + this.corners * r;
    this.geometry.setIndex(new THREE.BufferAttribute(index, 1));
    this.ring = Array.from({ length: sides }, (_, i) => [Math.cos((2 * Math.PI * i) / sides), Math.sin((2 * Math.PI * i) / sides)]);
  }

  // One rod at its place; tint: four parts of 1.
  write(at, [ax, ay, az, bx, by, bz, ra, rb], tint) {
    const a = new THREE.Vector3(ax, ay, az);
    const b = new THREE.Vector3(bx, by, bz);
    const n = b.clone().sub(a);
    const lean = (ra - rb) / Math.max(n.length(), 1e-6);
    n.normalize();
    const u = (Math.abs(n.z) < 0.9 ? new THREE.Vector3(0, 0, 1) : new THREE.Vector3(1, 0, 0)).cross(n).normalize();
    const v = n.clone().cross(u);
    const { corners, sides } = this;
    const [place, facing, dye] = this.parts.map((part) => part.array);
    let to = corners * at;
    const put = (end, out, r, normal) => {
      place.set([end.x + r * out.x, end.y + r * out.y, end.z + r * out.z], 3 * to);
      facing.set([normal.x, normal.y, normal.z], 3 * to);
      to++;
    };
    const out = this.ring.map(([c, s]) => u.clone().multiplyScalar(c).addScaledVector(v, s));
    for (const o of out) {
      const side = o.clone().addScaledVector(n, lean).normalize();
      put(a, o, ra, side);
      put(b, o, rb, side);
    }
    const down = n.clone().negate();
    for (const o of out) put(a, o, ra, down);
    for (const o of out) put(b, o, rb, n);
    put(a, n, 0, down);
    put(b, n, 0, n);
    const colour = tint.map((part) => Math.round(255 * part));
    for (let c = 0; c < corners; c++) dye.set(colour, 4 * (corners * at + c));
  }

  // What was written from one rod to another goes to the graphics card.
  send(first, last) {
    for (const part of this.parts) {
      const size = part.itemSize * this.corners;
      part.addUpdateRange(size * first, size * (last - first));
      part.needsUpdate = true;
    }
  }
}

export class SupportLayer {
  group = new THREE.Group();
  list = [];
  chosen = [];

  constructor(uniforms) {
    this.material = new THREE.ShaderMaterial({ vertexShader: VERTEX, fragmentShader: FRAGMENT, uniforms });
    this.rods = new THREE.Mesh(new THREE.BufferGeometry(), this.material);
    this.rods.frustumCulled = false;
    this.slots = new Map(); // key to where its rods lie, and what they were drawn from
    this.#makeRoom(ROOM, SIDES[0][1]);
    const handle = (depthTest) => {
      const material = new THREE.PointsMaterial({ size: 10, sizeAttenuation: false, vertexColors: true, depthTest });
      material.onBeforeCompile = (shader) => {
        shader.fragmentShader = shader.fragmentShader.replace("#include <clipping_planes_fragment>", `${DOT}\n#include <clipping_planes_fragment>`);
      };
      const points = new THREE.Points(new THREE.BufferGeometry(), material);
      points.frustumCulled = false;
      return points;
    };
    this.handles = handle(true);
    this.chosenHandle = handle(false);
    this.crosses = new THREE.Group();
    this.solids = new THREE.Mesh(new THREE.BufferGeometry(), this.material);
    this.wash = new THREE.Mesh(new THREE.BufferGeometry(), new THREE.MeshBasicMaterial({
      color: hex("teal-pale"), side: THREE.DoubleSide, polygonOffset: true, polygonOffsetFactor: -2, polygonOffsetUnits: -4,
    }));
    for (const mesh of [this.solids, this.wash]) mesh.frustumCulled = mesh.visible = false;
    this.group.add(this.rods, this.handles, this.chosenHandle, this.crosses, this.solids, this.wash);
  }

  // list: as the server gives it; chosen: keys; ghosts: those that are only tried, instead of
  // those of their keys
  update(list, chosen = this.chosen, ghosts = []) {
    this.list = list;
    this.chosen = chosen;
    const tried = new Set(ghosts.map((s) => s.key));
    this.shown = tried.size ? [...list.filter((s) => !tried.has(s.key)), ...ghosts] : list;
    this.#drawRods();
    this.#drawHandles();
    emptied(this.crosses);
    const arm = 1.6;
    const cross = this.shown.filter((s) => s.blocked_at_mm).flatMap(({ blocked_at_mm: [x, y, z] }) =>
      [[1, 1], [1, -1]].flatMap(([dx, dz]) => [[x - arm * dx, y, z - arm * dz], [x + arm * dx, y, z + arm * dz]]));
    if (cross.length) this.crosses.add(segments(cross, hex("brick"), { depthTest: false }));
  }

  // What stands besides rods: nine numbers a facet.
  setSolids(corners) {
    this.#fill(this.solids, corners);
    if (!corners?.length) return;
    const tint = new Uint8Array((4 * corners.length) / 3);
    const teal = [...parts("teal"), 1].map((part) => Math.round(255 * part));
    for (let i = 0; i < tint.length; i += 4) tint.set(teal, i);
    this.solids.geometry.setAttribute("tint", new THREE.BufferAttribute(tint, 4, true));
    this.solids.geometry.computeVertexNormals();
  }

  // The undersides that contacts hold.
  setWash(corners) {
    this.#fill(this.wash, corners);
  }

  #fill(mesh, corners) {
    mesh.geometry.dispose();
    mesh.geometry = new THREE.BufferGeometry();
    mesh.visible = Boolean(corners?.length);
    if (mesh.visible) mesh.geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
  }

  // Cut open at the layer, or whole; what is never cut is drawn without looking.
  setOpen(isOpen) {
    if (Boolean(this.material.defines.CUT) === isOpen) return;
    if (isOpen) this.material.defines.CUT = 1;
    else delete this.material.defines.CUT;
    this.material.needsUpdate = true;
  }

  // The support under a ray, {key, far, isHandle}, or null; toScreen and at: pixels, for handles.
  pick(ray, at, toScreen) {
    let best = null;
    for (const support of this.shown ?? []) {
      if (!support.has_contact) continue;
      const [x, y] = toScreen(support.contact_mm);
      if (Math.hypot(x - at[0], y - at[1]) > NEAR) continue;
      const far = ray.origin.distanceTo(new THREE.Vector3(...support.contact_mm));
      const isChosen = this.chosen.includes(support.key);
      if (!best || isChosen || far < best.far) best = { key: support.key, far, isHandle: true };
      if (isChosen) break;
    }
    if (best) return best;
    const [on, along] = [new THREE.Vector3(), new THREE.Vector3()];
    for (const support of this.shown ?? [])
      for (const [ax, ay, az, bx, by, bz, ra, rb] of support.rods) {
        const [a, b] = [new THREE.Vector3(ax, ay, az), new THREE.Vector3(bx, by, bz)];
        const apart = Math.sqrt(ray.distanceSqToSegment(a, b, on, along));
        const t = a.distanceTo(along) / (a.distanceTo(b) || 1);
        if (apart > ra + t * (rb - ra)) continue;
        const far = ray.origin.distanceTo(on);
        if (!best || far < best.far) best = { key: support.key, far, isHandle: false };
      }
    return best;
  }

  #tint(support) {
    // One that is only proposed stands between the colour of those that stand and paper.
    if (support.proposed) return [...parts("teal").map((part, i) => (part + parts("teal-pale")[i]) / 2), 1];
    const name = support.fit !== "stands" ? "brick" : this.chosen.includes(support.key) ? "accent" : "teal";
    return [...parts(name), support.fit !== "stands" ? 0.35 : 1];
  }

  // Only the rods of supports that are new or other than before are written.
  #drawRods() {
    const shown = this.shown.filter((s) => s.rods.length);
    const keys = shown.map((s) => `${s.key}:${s.rods.length}`).join();
    const count = shown.reduce((sum, s) => sum + s.rods.length, 0);
    if (keys !== this.keys) this.slots.clear();
    this.keys = keys;
    if (count > this.bars.room || sidesOf(count) !== this.bars.sides) this.#makeRoom(Math.max(2 * count, ROOM), sidesOf(count));
    let at = 0;
    let [first, last] = [Infinity, -1];
    for (const support of shown) {
      const tint = this.#tint(support);
      const drawnFrom = JSON.stringify([support.rods, tint]);
      if (this.slots.get(support.key) !== drawnFrom) {
        this.slots.set(support.key, drawnFrom);
        support.rods.forEach((rod, i) => this.bars.write(at + i, rod, tint));
        first = Math.min(first, at);
        last = Math.max(last, at + support.rods.length);
      }
      at += support.rods.length;
    }
    this.rods.geometry.setDrawRange(0, this.bars.perRod * count);
    this.rods.visible = count > 0;
    this.material.transparent = shown.some((s) => s.fit !== "stands");
    if (last >= 0) this.bars.send(first, last);
  }

  #makeRoom(count, sides) {
    this.rods.geometry.dispose();
    this.bars = new Rods(count, sides);
    this.rods.geometry = this.bars.geometry;
    this.slots.clear();
  }

  #drawHandles() {
    const touching = this.shown.filter((s) => s.has_contact);
    const chosen = touching.filter((s) => this.chosen.includes(s.key));
    const others = touching.filter((s) => !this.chosen.includes(s.key));
    for (const [points, list] of [[this.handles, others], [this.chosenHandle, chosen]]) {
      const geometry = points.geometry;
      const place = new Float32Array(list.flatMap((s) => s.contact_mm));
      const tint = new Float32Array(list.flatMap((s) => this.#tint(s).slice(0, 3)));
      if (geometry.getAttribute("position")?.array.length === place.length) {
        for (const [name, values] of [["position", place], ["color", tint]]) {
          geometry.getAttribute(name).array.set(values);
          geometry.getAttribute(name).needsUpdate = true;
        }
      } else {
        geometry.dispose();
        points.geometry = new THREE.BufferGeometry()
          .setAttribute("position", new THREE.BufferAttribute(place, 3))
          .setAttribute("color", new THREE.BufferAttribute(tint, 3));
      }
      points.visible = list.length > 0;
    }
  }

  dispose() {
    emptied(this.group);
  }
}
