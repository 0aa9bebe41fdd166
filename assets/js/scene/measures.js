// Measures taken: their lines and the dots where they were pointed out.
import * as THREE from "three";
import { hex } from "../colours.js";
import { emptied } from "./disposing.js";
import { dots, polyline } from "./lines.js";

export class MeasureLayer {
  group = new THREE.Group();

  update(list) {
    emptied(this.group);
    for (const { line_mm: line } of list) {
      if (!line.length) continue;
      this.group.add(polyline(line, hex("accent"), { depthTest: false }), dots(line.length > 2 ? line.slice(0, 1) : line, hex("accent"), 6));
    }
  }

  dispose() {
    emptied(this.group);
  }
}
