// What a change would add, hatched in teal, and take away, hatched in the accent.
import * as THREE from "three";
import { hex, parts } from "../colours.js";
import { emptied, materialOf } from "./disposing.js";
import { ball } from "./lines.js";

const VERTEX = `
  varying vec3 vNormal;
  void main() {
    vNormal = normal;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }`;
const FRAGMENT = `
  uniform vec3 tint;
  uniform vec3 eye;
  uniform float way;
  varying vec3 vNormal;
  void main() {
    float stripe = step(0.5, fract((gl_FragCoord.x + way * gl_FragCoord.y) / 8.0));
    float light = 0.75 + 0.25 * abs(dot(normalize(vNormal), eye));
    gl_FragColor = vec4(tint * light, 0.35 + 0.5 * stripe);
    #include <colorspace_fragment>
  }`;
const NEAR = 16; // pixels from the handle that still take hold of it

// Of pieces that overlap only the nearest is hatched: how near that is, is drawn before.
function nearest(geometry, side, deep) {
  const material = materialOf(`nearest ${side}`, () => new THREE.MeshBasicMaterial({
    colorWrite: false, transparent: true, side, polygonOffset: true, polygonOffsetFactor: -1, polygonOffsetUnits: -1,
  }));
  const body = new THREE.Mesh(geometry, material);
  if (!deep) body.onBeforeRender = (renderer) => renderer.clearDepth(); // what is taken is seen through the model
  body.renderOrder = 3;
  body.frustumCulled = false;
  return body;
}

export class HatchLayer {
  group = new THREE.Group();

  constructor(view) {
    this.view = view;
    this.handle = null;
    view.add(this);
  }

  // added, taken: corners of facets; handle: where the ball is, or null; isAbout: whether in pieces that overlap
  update(added, taken, handle, isAbout = false) {
    emptied(this.group);
    this.handle = handle;
    for (const [corners, colour, way, deep] of [[added, "teal", 1, true], [taken, "accent", -1, false]]) {
      if (!corners?.length) continue;
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
      geometry.computeVertexNormals();
      const material = materialOf(`hatch ${colour}`, () => new THREE.ShaderMaterial({
        vertexShader: VERTEX, fragmentShader: FRAGMENT, transparent: true, depthWrite: false, side: deep ? THREE.FrontSide : THREE.DoubleSide,
        polygonOffset: true, polygonOffsetFactor: -1, polygonOffsetUnits: -1,
        uniforms: { tint: { value: new THREE.Vector3(...parts(colour)) }, eye: this.view.uniforms.eye, way: { value: way } },
      }));
      material.depthTest = deep || isAbout;
      if (isAbout) this.group.add(nearest(geometry, material.side, deep));
      const body = new THREE.Mesh(geometry, material);
      body.renderOrder = 3;
      body.frustumCulled = false;
      this.group.add(body);
    }
    if (handle) {
      const held = ball(Math.max(...this.view.size) * 0.016, "change", hex("ink"));
      held.position.set(...handle);
      held.renderOrder = 5;
      held.frustumCulled = false;
      this.group.add(held);
    }
    this.view.draw();
  }

  // Whether the handle is under a place of the screen.
  holds(clientX, clientY) {
    if (!this.handle) return false;
    const box = this.view.canvas.getBoundingClientRect();
    const [x, y] = this.view.toScreen(this.handle);
    return Math.hypot(x + box.left - clientX, y + box.top - clientY) < NEAR;
  }

  dispose() {
    emptied(this.group);
  }
}
