// Protractor arcs around the model: drag one to turn about its axis, or the knob on top to lean.
import * as THREE from "three";
import { hex } from "../colours.js";
import { emptied, materialOf } from "./disposing.js";
import { ball } from "./lines.js";

const INK = hex("ink");
const ACCENT = hex("accent");
const AXES = ["x", "y", "z"];
const NEAR = 9; // pixels from an arc that still take hold of it
const SEGMENTS = 144;

// name: of its material, since each ring lights up by itself
const line = (points, name, color, opacity = 1) =>
  new THREE.LineSegments(
    new THREE.BufferGeometry().setFromPoints(points),
    materialOf(`arc ${name} ${opacity}`, () => new THREE.LineBasicMaterial({ color, transparent: opacity < 1, opacity, depthTest: false })),
  );

export class Arcs {
  constructor(view) {
    this.view = view;
    this.group = new THREE.Group();
    this.rings = new THREE.Group();
    this.wedge = new THREE.Group();
    this.group.add(this.rings, this.wedge);
    this.rings.visible = false;
    view.add(this);
    this.frame = new THREE.Quaternion();
  }

  // radius and middle in mm; frame: rotation of the axes, null for the plate's
  update(middle, radius, frame) {
    this.middle = new THREE.Vector3(...middle);
    this.radius = radius;
    this.frame = frame ?? new THREE.Quaternion();
    emptied(this.rings);
    AXES.forEach((axis, i) => this.rings.add(this.#ring(axis, i)));
    const knob = new THREE.Group();
    knob.add(line([this.middle, this.middle.clone().add(new THREE.Vector3(0, 0, radius))], "knob", INK, 0.5));
    this.knob = ball(1, "knob", INK);
    this.knob.position.copy(this.middle).add(new THREE.Vector3(0, 0, radius));
    this.knob.renderOrder = 3;
    knob.add(this.knob);
    this.rings.add(knob);
    this.light(this.lit);
  }

  show(on) {
    this.rings.visible = on;
    if (!on) emptied(this.wedge);
    this.view.draw();
  }

  // Whether all of the arcs can be seen and taken hold of.
  isInView() {
    const { clientWidth: w, clientHeight: h } = this.view.canvas;
    return AXES.every((_, i) => [0, 90, 180, 270].every((d) => {
      const [x, y] = this.view.toScreen(this.#point(i, d).toArray());
      return x > 0 && y > 0 && x < w && y < h;
    }));
  }

  // Two directions across an axis, so that the angle runs with the right hand about it.
  #across(i) {
    const unit = [0, 1, 2].map((k) => new THREE.Vector3(k === 0 ? 1 : 0, k === 1 ? 1 : 0, k === 2 ? 1 : 0).applyQuaternion(this.frame));
    return [unit[(i + 1) % 3], unit[(i + 2) % 3], unit[i]];
  }

  #point(i, degrees, radius = this.radius) {
    const [u, v] = this.#across(i);
    const a = (degrees * Math.PI) / 180;
    return this.middle.clone().addScaledVector(u, radius * Math.cos(a)).addScaledVector(v, radius * Math.sin(a));
  }

  #ring(axis, i) {
    const ring = new THREE.Group();
    ring.userData.axis = axis;
    const round = [];
    for (let s = 0; s < SEGMENTS; s++) round.push(this.#point(i, (s * 360) / SEGMENTS), this.#point(i, ((s + 1) * 360) / SEGMENTS));
    const ticks = [];
    for (let d = 0; d < 360; d += 5)
      ticks.push(this.#point(i, d), this.#point(i, d, this.radius * (d % 45 === 0 ? 0.93 : d % 15 === 0 ? 0.96 : 0.98)));
    ring.add(line(round, axis, INK, 0.75), line(ticks, axis, INK, 0.55));
    return ring;
  }

  // The arc or knob under a place of the screen: "x", "y", "z", "knob", or null.
  pick(clientX, clientY) {
    if (!this.rings.visible || !this.middle) return null;
    const box = this.view.canvas.getBoundingClientRect();
    const [x, y] = [clientX - box.left, clientY - box.top];
    const [kx, ky] = this.view.toScreen(this.knob.position.toArray());
    if (Math.hypot(kx - x, ky - y) < 13) return "knob";
    let best = null;
    AXES.forEach((axis, i) => {
      let [px, py] = this.view.toScreen(this.#point(i, 0).toArray());
      for (let s = 1; s <= 72; s++) {
        const [qx, qy] = this.view.toScreen(this.#point(i, s * 5).toArray());
        const [ux, uy] = [qx - px, qy - py];
        const t = Math.min(Math.max(((x - px) * ux + (y - py) * uy) / (ux * ux + uy * uy || 1), 0), 1);
        const far = Math.hypot(px + t * ux - x, py + t * uy - y);
        if (far < NEAR && (!best || far < best.far)) best = { axis, far };
        [px, py] = [qx, qy];
      }
    });
    return best?.axis ?? null;
  }

  light(name) {
    this.lit = name;
    for (const ring of this.rings.children) {
      const on = ring.userData.axis ? ring.userData.axis === name : name === "knob";
      for (const part of ring.children) part.material.color.setHex(on ? ACCENT : INK);
    }
    this.view.draw();
  }

  // Degrees about an axis at a place of the screen; arcs seen edge-on are read along the screen.
  angleAt(axis, clientX, clientY) {
    const i = AXES.indexOf(axis);
    const [u, v, n] = this.#across(i);
    const ray = this.view.ray(clientX, clientY);
    if (Math.abs(ray.direction.dot(n)) > 0.18) {
      const at = ray.intersectPlane(new THREE.Plane().setFromNormalAndCoplanarPoint(n, this.middle), new THREE.Vector3())
        ?? ray.closestPointToPoint(this.middle, new THREE.Vector3());
      const from = at.sub(this.middle);
      return (Math.atan2(from.dot(v), from.dot(u)) * 180) / Math.PI;
    }
    const at = ray.closestPointToPoint(this.middle, new THREE.Vector3()).sub(this.middle);
    const right = new THREE.Vector3().crossVectors(n, ray.direction).normalize();
    return (-at.dot(right) / this.radius) * 90;
  }

  // How far the knob leans when it is taken to a place of the screen: [by, toward] in degrees.
  leanAt(clientX, clientY) {
    const ray = this.view.ray(clientX, clientY);
    const ball = new THREE.Sphere(this.middle, this.radius);
    const at = ray.intersectSphere(ball, new THREE.Vector3()) ?? ray.closestPointToPoint(this.middle, new THREE.Vector3());
    const way = at.sub(this.middle).normalize();
    return [(Math.acos(Math.min(Math.max(way.z, -1), 1)) * 180) / Math.PI, (Math.atan2(way.y, way.x) * 180) / Math.PI];
  }

  // The angle turned so far, as a fan on its arc; drawn with the model that follows.
  showAngle(axis, from, by) {
    emptied(this.wedge);
    this.#showOnly(axis);
    const i = AXES.indexOf(axis);
    const steps = Math.max(Math.ceil(Math.abs(by) / 3), 1);
    const points = [];
    for (let s = 0; s < steps; s++)
      points.push(this.#point(i, from + (by * s) / steps, 0.9 * this.radius), this.#point(i, from + (by * (s + 1)) / steps, 0.9 * this.radius));
    for (const end of [from, from + by]) points.push(this.middle, this.#point(i, end));
    this.wedge.add(line(points, "turned", ACCENT));
    return this.#point(i, from + by, 1.06 * this.radius).toArray();
  }

  showLean(by, toward) {
    emptied(this.wedge);
    this.#showOnly("knob");
    const point = (degrees) => {
      const [a, b] = [(degrees * Math.PI) / 180, (toward * Math.PI) / 180];
      return this.middle.clone().add(new THREE.Vector3(Math.sin(a) * Math.cos(b), Math.sin(a) * Math.sin(b), Math.cos(a)).multiplyScalar(this.radius));
    };
    const steps = Math.max(Math.ceil(by / 3), 1);
    const points = [this.middle, point(0), this.middle, point(by)];
    for (let s = 0; s < steps; s++) points.push(point((by * s) / steps), point((by * (s + 1)) / steps));
    this.wedge.add(line(points, "turned", ACCENT));
    return point(by).toArray();
  }

  clearAngle() {
    emptied(this.wedge);
    this.#showOnly(null);
    this.view.draw();
  }

  // While one is held the others would only be in the way.
  #showOnly(name) {
    for (const part of this.rings.children) part.visible = name === null || (part.userData.axis ?? "knob") === name;
  }

  dispose() {
    emptied(this.rings);
    emptied(this.wedge);
  }

  // Keeps the knob a good size to take hold of.
  scale(perMm) {
    if (this.knob) this.knob.scale.setScalar(6 / perMm);
  }
}
