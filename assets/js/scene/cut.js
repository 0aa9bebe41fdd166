// The free cut: its plane as a frame, and what it cuts as lines.
import * as THREE from "three";
import { hex } from "../colours.js";
import { emptied } from "./disposing.js";
import { ring } from "./lines.js";

const triples = (flat) => Array.from({ length: flat.length / 3 }, (_, i) => flat.slice(3 * i, 3 * i + 3));

export class CutLayer {
  group = new THREE.Group();

  // cut: what the server says of it, or null
  update(cut) {
    emptied(this.group);
    if (!cut) return;
    for (const flat of cut.lines) this.group.add(ring(triples(flat), hex("accent")));
    const frame = ring([[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([x, y]) => [x * cut.reach, y * cut.reach, 0]), hex("accent"));
    frame.quaternion.setFromUnitVectors(new THREE.Vector3(0, 0, 1), new THREE.Vector3(...cut.normal));
    frame.position.set(...cut.origin);
    this.group.add(frame);
  }

  dispose() {
    emptied(this.group);
  }
}
