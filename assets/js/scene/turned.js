// A turn that is being followed: lowest points with their drops, and the first layer; places marked.
import * as THREE from "three";
import { hex } from "../colours.js";
import { emptied } from "./disposing.js";
import { dots, ring, segments } from "./lines.js";

const pairs = (flat, z) => Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i], flat[2 * i + 1], z]);

export class TurnedLayer {
  group = new THREE.Group();

  update(figures) {
    emptied(this.group);
    for (const flat of figures.first_layer) this.group.add(ring(pairs(flat, 0.05), hex("accent"), { depthTest: false }));
    if (!figures.lowest.length) return;
    const places = figures.lowest.map((l) => l.place);
    const drops = places.flatMap(([x, y, z]) => [[x, y, z], [x, y, 0]]);
    this.group.add(dots(places, hex("ink"), 9), segments(drops, hex("ink"), { transparent: true, opacity: 0.5, depthTest: false }));
  }

  mark(points) {
    emptied(this.group);
    if (points.length) this.group.add(dots(points, hex("accent"), 9));
  }

  dispose() {
    emptied(this.group);
  }
}
