// Lines, rings and dots of one colour.
import * as THREE from "three";
import { materialOf } from "./disposing.js";

const geometry = (points) => new THREE.BufferGeometry().setFromPoints(points.map((p) => (p.isVector3 ? p : new THREE.Vector3(...p))));
const ink = (color, more) => materialOf(`line ${color} ${JSON.stringify(more)}`, () => new THREE.LineBasicMaterial({ color, ...more }));

export const segments = (points, color, more = {}) => new THREE.LineSegments(geometry(points), ink(color, more));
export const polyline = (points, color, more = {}) => new THREE.Line(geometry(points), ink(color, more));
export const ring = (points, color, more = {}) => new THREE.LineLoop(geometry(points), ink(color, more));
export const dots = (points, color, size) =>
  new THREE.Points(geometry(points), materialOf(`dots ${color} ${size}`, () => new THREE.PointsMaterial({ color, size, sizeAttenuation: false, depthTest: false })));
// A ball to take hold of, seen through everything; name: of its material.
export const ball = (radius, name, color) =>
  new THREE.Mesh(new THREE.SphereGeometry(radius, 20, 14), materialOf(`ball ${name}`, () => new THREE.MeshBasicMaterial({ color, depthTest: false })));
