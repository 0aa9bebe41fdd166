// Supports: the rods that the server gives, all in one drawing; a handle at each contact.
import * as THREE from "three";
import { hex, parts } from "../colours.js";
import { emptied } from "./disposing.js";
import { segments } from "./lines.js";

const SIDES = 24;
const NUMBERS = 12; // of a rod: two ends, two radii, colour, how opaque
const NEAR = 8; // pixels from a contact that still take hold of it
const ROOM = 64; // rods that there is room for at first

// A rod is drawn from a round bar of length and radius 1, with the ends and radii of each.
const VERTEX = `
  attribute vec3 a;
  attribute vec3 b;
  attribute vec2 radii;
  attribute vec4 tint;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    vec3 way = b - a;
    float size = max(length(way), 1e-6);
    vec3 n = way / size;
    vec3 u = normalize(abs(n.z) < 0.9 ? cross(vec3(0.0, 0.0, 1.0), n) : cross(vec3(1.0, 0.0, 0.0), n));
    vec3 v = cross(n, u);
    vec3 out2 = u * position.x + v * position.y;
    vWorld = a + way * position.z + mix(radii.x, radii.y, position.z) * out2;
    vNormal = abs(normal.z) > 0.5 ? n * normal.z : normalize(out2 + n * (radii.x - radii.y) / size);
    vTint = tint;
    gl_Position = projectionMatrix * viewMatrix * vec4(vWorld, 1.0);
  }`;
const FRAGMENT = `
  uniform vec3 eye;
  uniform float cutZ;
  uniform bool hideAbove;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    if (hideAbove && vWorld.z > cutZ) discard;
    float key = 0.5 + 0.5 * dot(vNormal, normalize(vec3(-0.4, -0.6, 0.7)));
    gl_FragColor = vec4(vTint.rgb * (0.78 + 0.24 * key + 0.30 * max(dot(vNormal, eye), 0.0)), vTint.a);
    #include <colorspace_fragment>
  }`;
// Handles are of one size on the screen, so that they can be grabbed whatever the contact's own.
const DOT = "if (length(gl_PointCoord - 0.5) > 0.5) discard;";

function bar() {
  const shape = new THREE.CylinderGeometry(1, 1, 1, SIDES).rotateX(Math.PI / 2).translate(0, 0, 0.5);
  const geometry = new THREE.InstancedBufferGeometry();
  geometry.index = shape.index;
  for (const name of ["position", "normal"]) geometry.setAttribute(name, shape.getAttribute(name));
  return geometry;
}

export class SupportLayer {
  group = new THREE.Group();
  list = [];
  chosen = null;

  constructor(uniforms) {
    this.material = new THREE.ShaderMaterial({ vertexShader: VERTEX, fragmentShader: FRAGMENT, uniforms, transparent: true });
    this.rods = new THREE.Mesh(bar(), this.material);
    this.rods.frustumCulled = false;
    this.slots = new Map(); // key to where its rods lie, and what they were drawn from
    this.#makeRoom(ROOM);
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
    this.group.add(this.rods, this.handles, this.chosenHandle, this.crosses);
  }

  // list: as the server gives it; ghost: one that is only tried, instead of that of its key
  update(list, chosen = this.chosen, ghost = null) {
    this.list = list;
    this.chosen = chosen;
    this.shown = ghost ? [...list.filter((s) => s.key !== ghost.key), ghost] : list;
    this.#drawRods();
    this.#drawHandles();
    emptied(this.crosses);
    const arm = 1.6;
    const cross = this.shown.filter((s) => s.blocked_at_mm).flatMap(({ blocked_at_mm: [x, y, z] }) =>
      [[1, 1], [1, -1]].flatMap(([dx, dz]) => [[x - arm * dx, y, z - arm * dz], [x + arm * dx, y, z + arm * dz]]));
    if (cross.length) this.crosses.add(segments(cross, hex("brick"), { depthTest: false }));
  }

  // The support under a ray, {key, far, isHandle}, or null; toScreen and at: pixels, for handles.
  pick(ray, at, toScreen) {
    let best = null;
    for (const support of this.shown ?? []) {
      const [x, y] = toScreen(support.contact_mm);
      if (Math.hypot(x - at[0], y - at[1]) > NEAR) continue;
      const far = ray.origin.distanceTo(new THREE.Vector3(...support.contact_mm));
      if (!best || support.key === this.chosen || far < best.far) best = { key: support.key, far, isHandle: true };
      if (support.key === this.chosen) break;
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
    const name = support.fit !== "stands" ? "brick" : support.key === this.chosen ? "accent" : "teal";
    return [...parts(name), support.fit === "stands" ? 1 : 0.35];
  }

  // Only the rods of supports that are new or other than before are written.
  #drawRods() {
    const shown = this.shown.filter((s) => s.rods.length);
    const keys = shown.map((s) => `${s.key}:${s.rods.length}`).join();
    const count = shown.reduce((sum, s) => sum + s.rods.length, 0);
    if (keys !== this.keys) this.slots.clear();
    this.keys = keys;
    if (count > this.room) this.#makeRoom(2 * count);
    let at = 0;
    let [first, last] = [Infinity, -1];
    for (const support of shown) {
      const tint = this.#tint(support);
      const drawnFrom = JSON.stringify([support.rods, tint]);
      if (this.slots.get(support.key) !== drawnFrom) {
        this.slots.set(support.key, drawnFrom);
        support.rods.forEach((rod, i) => {
          this.numbers.set(rod, NUMBERS * (at + i));
          this.numbers.set(tint, NUMBERS * (at + i) + 8);
        });
        first = Math.min(first, at);
        last = Math.max(last, at + support.rods.length);
      }
      at += support.rods.length;
    }
    this.rods.geometry.instanceCount = count;
    this.rods.visible = count > 0;
    if (last < 0) return;
    this.buffer.addUpdateRange(NUMBERS * first, NUMBERS * (last - first));
    this.buffer.needsUpdate = true;
  }

  #makeRoom(count) {
    const old = this.rods.geometry;
    this.rods.geometry = bar();
    old.dispose();
    this.room = count;
    this.numbers = new Float32Array(NUMBERS * count);
    this.buffer = new THREE.InstancedInterleavedBuffer(this.numbers, NUMBERS, 1);
    this.buffer.setUsage(THREE.DynamicDrawUsage);
    for (const [name, size, offset] of [["a", 3, 0], ["b", 3, 3], ["radii", 2, 6], ["tint", 4, 8]])
      this.rods.geometry.setAttribute(name, new THREE.InterleavedBufferAttribute(this.buffer, size, offset));
    this.slots.clear();
  }

  #drawHandles() {
    const chosen = this.shown.filter((s) => s.key === this.chosen);
    const others = this.shown.filter((s) => s.key !== this.chosen);
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
