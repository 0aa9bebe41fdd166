// Parts seen together: both sides of a joint, one pulled off the other, or the other parts on the plate.
import * as THREE from "three";
import { parts } from "../colours.js";
import { emptied, materialOf } from "./disposing.js";

const VERTEX = `
  uniform vec3 shift;
  varying vec3 vNormal;
  void main() {
    vNormal = normal;
    gl_Position = projectionMatrix * viewMatrix * vec4(position + shift, 1.0);
  }`;
const FRAGMENT = `
  uniform vec3 eye;
  uniform vec3 tint;
  varying vec3 vNormal;
  void main() {
    vec3 n = gl_FrontFacing ? vNormal : -vNormal;
    float key = 0.5 + 0.5 * dot(n, vec3(-0.398, -0.597, 0.696));
    gl_FragColor = vec4(tint * (gl_FrontFacing ? 0.62 + 0.20 * key + 0.22 * max(dot(n, eye), 0.0) : 0.6), 1.0);
    #include <colorspace_fragment>
  }`;

export class TogetherLayer {
  group = new THREE.Group();

  constructor(view) {
    this.view = view;
    view.add(this);
  }

  // bodies: [{ corners, colour }]; nothing but them is shown where alone
  update(bodies, alone) {
    emptied(this.group);
    this.view.model.group.visible = !alone;
    this.view.supports.group.visible = !alone;
    for (const [i, { corners, colour }] of bodies.entries()) {
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
      geometry.computeVertexNormals();
      const material = materialOf(`body ${Math.min(i, 1)} ${colour}`, () => new THREE.ShaderMaterial({
        vertexShader: VERTEX, fragmentShader: FRAGMENT, side: THREE.DoubleSide,
        uniforms: { eye: this.view.uniforms.eye, tint: { value: new THREE.Vector3(...parts(colour)) }, shift: { value: new THREE.Vector3() } },
      }));
      material.uniforms.shift.value.set(0, 0, 0);
      const body = new THREE.Mesh(geometry, material);
      body.frustumCulled = false;
      const edges = new THREE.LineSegments(new THREE.EdgesGeometry(geometry, 30), materialOf("edges", () => new THREE.LineBasicMaterial({ color: new THREE.Color(...parts("ink")), transparent: true, opacity: 0.7 })));
      edges.frustumCulled = false;
      this.group.add(body, edges);
    }
    this.view.draw();
  }

  // The first body moved by a vector, mm.
  shift(by) {
    const [body, edges] = this.group.children;
    if (!body) return;
    body.material.uniforms.shift.value.set(...by);
    edges.position.set(...by);
    this.view.draw();
  }

  dispose() {
    emptied(this.group);
  }
}
