// The plane of a cut: its frame and outline, a ball to move it along its normal, a tip to tilt it.
import * as THREE from "three";
import { hex } from "../colours.js";
import { emptied } from "./disposing.js";
import { ball, ring, segments } from "./lines.js";

const NEAR = 14; // pixels from a handle that still take hold of it
const triples = (flat) => Array.from({ length: flat.length / 3 }, (_, i) => flat.slice(3 * i, 3 * i + 3));

export class SplitLayer {
  constructor(view) {
    this.view = view;
    this.group = new THREE.Group();
    view.add(this);
  }

  // plane: normal, point (its middle) and reach, in mm on the plate; lines: what it cuts, flat; gap in mm
  update(plane, lines = [], gap = 0) {
    emptied(this.group);
    this.plane = plane;
    if (!plane) return;
    const accent = hex("accent");
    const up = new THREE.Vector3(...plane.normal);
    const middle = new THREE.Vector3(...plane.point);
    const frame = ring([[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([x, y]) => [x * plane.reach, y * plane.reach, 0]), accent);
    frame.quaternion.setFromUnitVectors(new THREE.Vector3(0, 0, 1), up);
    frame.position.copy(middle);
    this.group.add(frame);
    for (const flat of lines) {
      this.group.add(ring(triples(flat), accent, { depthTest: false }));
      const apart = ring(triples(flat), accent, { transparent: true, opacity: 0.6 });
      apart.position.copy(up).multiplyScalar(gap);
      this.group.add(apart);
    }
    this.tip = middle.clone().addScaledVector(up, plane.reach * 0.6);
    this.group.add(segments([middle, this.tip], accent, { depthTest: false }));
    for (const [place, size] of [[middle, 0.045], [this.tip, 0.03]]) {
      const handle = ball(plane.reach * size, "cut", accent);
      handle.position.copy(place);
      handle.renderOrder = 4;
      this.group.add(handle);
    }
  }

  // The handle under a place of the screen: "move", "tilt", or null.
  pick(clientX, clientY) {
    if (!this.plane) return null;
    const box = this.view.canvas.getBoundingClientRect();
    const near = (p) => Math.hypot(...this.view.toScreen(p).map((v, i) => v - (i ? clientY - box.top : clientX - box.left))) < NEAR;
    if (near(this.plane.point)) return "move";
    return near(this.tip.toArray()) ? "tilt" : null;
  }

  // How far along the normal a movement on the screen goes, mm; 0 where the normal points at the eye.
  along(dx, dy) {
    const { point, normal } = this.plane;
    const [x0, y0] = this.view.toScreen(point);
    const [x1, y1] = this.view.toScreen(point.map((v, i) => v + normal[i]));
    const long = (x1 - x0) ** 2 + (y1 - y0) ** 2;
    return long < 0.01 ? 0 : (dx * (x1 - x0) + dy * (y1 - y0)) / long;
  }

  dispose() {
    emptied(this.group);
  }
}
