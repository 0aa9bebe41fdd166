// Lines, rings and dots of one colour.
import * as THREE from "three";

const geometry = (points) => new THREE.BufferGeometry().setFromPoints(points.map((p) => (p.isVector3 ? p : new THREE.Vector3(...p))));
const ink = (color, more) => new THREE.LineBasicMaterial({ color, ...more });

export const segments = (points, color, more = {}) => new THREE.LineSegments(geometry(points), ink(color, more));
export const polyline = (points, color, more = {}) => new THREE.Line(geometry(points), ink(color, more));
export const ring = (points, color, more = {}) => new THREE.LineLoop(geometry(points), ink(color, more));
export const dots = (points, color, size) =>
  new THREE.Points(geometry(points), new THREE.PointsMaterial({ color, size, sizeAttenuation: false, depthTest: false }));
