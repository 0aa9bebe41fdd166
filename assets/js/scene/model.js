// The model: its facets with slopes and painted sides, its creases in ink, the chosen patch in stripes.
import * as THREE from "three";
import { hex } from "../colours.js";
import { disposeOf, kept } from "./disposing.js";
import { prepareToPick } from "./picking.js";
import { Rough } from "./rough.js";

const VERTEX = `
  attribute float slope;
  attribute float side;
  attribute float dye;
  uniform mat3 upright;
  uniform vec3 splitShift;
  varying float vSide;
  varying float vSlope;
  varying float vDye;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    vDye = dye;
    vSlope = slope;
    vSide = side;
    vec4 world = modelMatrix * vec4(position, 1.0);
    vWorld = world.xyz;
    vNormal = normalize(upright * normal);
    world.xyz += splitShift;
    gl_Position = projectionMatrix * viewMatrix * world;
  }`;

const FRAGMENT = `
  uniform float threshold;
  uniform float cutZ;
  uniform bool hideAbove;
  uniform vec3 eye;
  uniform vec3 room;
  uniform vec4 split;
  uniform float splitSide;
  uniform bool showColours;
  varying float vSlope;
  varying float vSide;
  varying float vDye;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    if (vSlope < 0.0 || (hideAbove && vWorld.z > cutZ)) discard;
    // A facet in the plane itself belongs to the side that its material is on.
    if (splitSide * (dot(split.xyz, vWorld) - split.w - 0.001 * dot(split.xyz, vNormal)) < 0.0) discard;
    vec3 n = gl_FrontFacing ? vNormal : -vNormal;
    float key = 0.5 + 0.5 * dot(n, normalize(vec3(-0.4, -0.6, 0.7)));
    float head = max(dot(n, eye), 0.0);
    vec3 own = vec3(0.925, 0.898, 0.843);
    if (showColours && vDye > 0.5) {
      float packed24 = floor(vDye + 0.5) - 1.0;
      own = vec3(floor(packed24 / 65536.0), mod(floor(packed24 / 256.0), 256.0), mod(packed24, 256.0)) / 255.0;
    }
    vec3 colour = own * (0.58 + 0.20 * key + 0.26 * head);
    // Painted sides: dots on what is shown, level lines on what is free to be marked.
    if (vSide > 1.5) colour *= mod(gl_FragCoord.y, 6.0) < 1.5 ? vec3(0.62, 0.68, 0.78) : vec3(0.92, 0.94, 0.98);
    else if (vSide > 0.5) colour *= length(mod(gl_FragCoord.xy, 7.0) - 3.5) < 1.6 ? vec3(0.72, 0.56, 0.24) : vec3(1.0, 0.96, 0.84);
    if (!gl_FrontFacing) colour = vec3(0.62, 0.60, 0.57);
    else if (vSlope < threshold) {
      float deep = 1.0 - clamp(vSlope / threshold, 0.0, 1.0);
      vec3 plum = mix(vec3(0.80, 0.66, 0.78), vec3(0.36, 0.12, 0.33), deep);
      colour = plum * (0.8 + 0.25 * head);
    }
    // What leaves the build volume: brick stripes.
    if (any(greaterThan(abs(vWorld.xy), room.xy / 2.0 + 0.001)) || vWorld.z > room.z + 0.001)
      colour = mod(gl_FragCoord.x - gl_FragCoord.y, 10.0) < 5.0 ? vec3(0.64, 0.16, 0.11) : colour;
    float width = max(fwidth(vWorld.z), 1e-5) * 1.3;
    if (abs(vWorld.z - cutZ) < width) colour = vec3(0.76, 0.25, 0.05);
    gl_FragColor = vec4(colour, 1.0);
    #include <colorspace_fragment>
  }`;

// The chosen patch: stripes laid over its facets.
const STRIPES = `
  uniform float cutZ;
  uniform bool hideAbove;
  varying vec3 vWorld;
  void main() {
    if (hideAbove && vWorld.z > cutZ) discard;
    float stripe = step(0.5, fract((gl_FragCoord.x + gl_FragCoord.y) / 9.0));
    gl_FragColor = vec4(0.76, 0.25, 0.05, 0.45 + 0.4 * stripe);
  }`;

export class ModelLayer {
  group = new THREE.Group();

  // roughly: whether it is also kept with fewer facets, see `asItMoves`
  constructor(uniforms, isClosed, roughly) {
    Object.assign(this, { uniforms, isClosed, roughly, isHidden: null, stripes: null, apart: null });
    this.group.matrixAutoUpdate = false;
    this.matt = kept(new THREE.ShaderMaterial({
      vertexShader: VERTEX, fragmentShader: FRAGMENT, uniforms, side: isClosed ? THREE.FrontSide : THREE.DoubleSide,
      polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1,
    }));
    // What is drawn apart of it: the other side of a cut.
    this.mattApart = kept(this.matt.clone());
    this.mattApart.uniforms = { ...uniforms, splitSide: { value: 1 }, splitShift: { value: new THREE.Vector3() } };
    this.mattApart.side = THREE.DoubleSide;
    this.striped = kept(new THREE.ShaderMaterial({
      vertexShader: VERTEX, fragmentShader: STRIPES, uniforms, transparent: true, depthWrite: false, side: THREE.DoubleSide,
    }));
    this.inked = kept(new THREE.LineBasicMaterial({ color: hex("ink"), transparent: true, opacity: 0.75 }));
    this.inked.onBeforeCompile = (shader) => {
      shader.uniforms.cutZ = uniforms.cutZ;
      shader.uniforms.hideAbove = uniforms.hideAbove;
      shader.vertexShader = shader.vertexShader
        .replace("void main() {", "varying float vZ;\nvoid main() { vZ = (modelMatrix * vec4(position, 1.0)).z;");
      shader.fragmentShader = shader.fragmentShader
        .replace("void main() {", "uniform float cutZ; uniform bool hideAbove; varying float vZ;\nvoid main() { if (hideAbove && vZ > cutZ) discard;");
    };
  }

  // Facets are given corners of their own, so that each has one normal, slope and patch.
  update(vertices, facets, creases) {
    this.dispose();
    this.vertices = vertices;
    this.facets = facets;
    const corners = new Float32Array(facets.length * 3);
    for (let i = 0; i < facets.length; i++) {
      const from = 3 * facets[i];
      corners[3 * i] = vertices[from];
      corners[3 * i + 1] = vertices[from + 1];
      corners[3 * i + 2] = vertices[from + 2];
    }
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
    geometry.computeVertexNormals();
    geometry.setAttribute("slope", new THREE.BufferAttribute(new Float32Array(facets.length).fill(999), 1));
    prepareToPick(geometry);
    this.mesh = new THREE.Mesh(geometry, this.matt);
    const lines = new THREE.BufferGeometry();
    lines.setAttribute("position", new THREE.BufferAttribute(vertices, 3));
    lines.setIndex(new THREE.BufferAttribute(creases, 1));
    this.ink = new THREE.LineSegments(lines, this.inked);
    this.group.add(this.mesh, this.ink);
    if (!this.roughly) return;
    this.rough = new Rough(vertices, facets, geometry, this.matt);
    this.group.add(this.rough.mesh);
  }

  // Drawn with few facets while it moves, without lines and stripes; whether it is.
  asItMoves(moves) {
    const isRough = Boolean(moves && this.rough && !this.apart);
    if (!this.rough) return false;
    this.rough.mesh.visible = isRough;
    this.mesh.visible = !isRough;
    this.ink.visible = !isRough && !this.isHidden && this.uniforms.splitSide.value === 0;
    if (this.stripes) this.stripes.visible = !isRough;
    return isRough;
  }

  // The corners of a facet on the plate, [[x, y, z], …].
  cornersOf(facet) {
    this.group.updateMatrixWorld(true);
    return [0, 1, 2].map((i) => {
      const v = this.facets[3 * facet + i];
      return new THREE.Vector3(...this.vertices.subarray(3 * v, 3 * v + 3)).applyMatrix4(this.mesh.matrixWorld).toArray();
    });
  }

  stand(matrix) {
    this.group.matrix.fromArray(matrix);
    this.group.matrixWorldNeedsUpdate = true;
  }

  setSlopes(values) {
    this.slopes = values;
    const target = this.mesh.geometry.getAttribute("slope");
    for (let i = 0; i < values.length; i++)
      target.array.fill(this.isHidden?.(i) ? -1 : values[i], 3 * i, 3 * i + 3);
    target.needsUpdate = true;
    this.rough?.take("slope");
  }

  setSides(values) {
    this.#setSides(values);
    this.rough?.take("side");
  }

  #setSides(values) {
    const geometry = this.mesh.geometry;
    if (!values) return geometry.deleteAttribute("side");
    const corners = new Float32Array(3 * values.length);
    for (let i = 0; i < values.length; i++) if (values[i]) corners.fill(values[i], 3 * i, 3 * i + 3);
    const old = geometry.getAttribute("side");
    if (old?.array.length === corners.length) {
      old.array.set(corners);
      old.needsUpdate = true;
    } else geometry.setAttribute("side", new THREE.BufferAttribute(corners, 1));
  }

  // values: 0, or 1 + red · 65536 + green · 256 + blue, for every facet; null for none
  setColours(values) {
    const geometry = this.mesh.geometry;
    if (values) {
      const corners = new Float32Array(3 * values.length);
      for (let i = 0; i < values.length; i++) if (values[i]) corners.fill(values[i], 3 * i, 3 * i + 3);
      geometry.setAttribute("dye", new THREE.BufferAttribute(corners, 1));
    } else geometry.deleteAttribute("dye");
    this.rough?.take("dye");
  }

  // isHidden: facet to boolean, or null to show everything
  setHidden(isHidden) {
    this.isHidden = isHidden;
    this.ink.visible = !isHidden;
    this.setSlopes(this.slopes);
  }

  // A cut that is only tried: what lies beyond its plane is drawn apart. plane: normal and offset
  // on the plate, or null; gap in mm.
  setSplit(plane, gap) {
    if (this.apart && (!plane || !this.mesh)) {
      this.group.remove(this.apart);
      this.apart = null;
    }
    this.uniforms.splitSide.value = plane ? -1 : 0;
    if (!this.mesh) return;
    this.ink.visible = !this.isHidden && !plane;
    this.setOpen(Boolean(plane) || this.uniforms.hideAbove.value);
    if (!plane) return;
    const { normal, offset } = plane;
    this.uniforms.split.value.set(...normal, offset);
    if (!this.apart) {
      this.apart = new THREE.Mesh(this.mesh.geometry, this.mattApart);
      this.group.add(this.apart);
    }
    this.apart.material.uniforms.splitShift.value.set(...normal).multiplyScalar(gap);
  }

  // Cut open, the inside is seen.
  setOpen(isOpen) {
    const side = this.isClosed && !isOpen ? THREE.FrontSide : THREE.DoubleSide;
    if (!this.mesh || this.mesh.material.side === side) return;
    this.mesh.material.side = side;
    this.mesh.material.needsUpdate = true;
  }

  // facets: those to lay stripes over
  setChosen(facets) {
    if (this.stripes) {
      this.group.remove(this.stripes);
      disposeOf(this.stripes);
      this.stripes = null;
    }
    if (!facets.length || !this.mesh) return;
    const all = this.mesh.geometry.getAttribute("position").array;
    const corners = new Float32Array(9 * facets.length);
    facets.forEach((f, i) => corners.set(all.subarray(9 * f, 9 * f + 9), 9 * i));
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
    this.stripes = new THREE.Mesh(geometry, this.striped);
    this.group.add(this.stripes);
  }

  // What a ray of the model's own meets, facet by facet, while the tree is being made.
  #everyHit(ray) {
    const at = this.mesh.geometry.attributes.position;
    const [a, b, c, point] = [0, 1, 2, 3].map(() => new THREE.Vector3());
    const hits = [];
    for (let f = 0; 3 * f < at.count; f++) {
      a.fromBufferAttribute(at, 3 * f);
      b.fromBufferAttribute(at, 3 * f + 1);
      c.fromBufferAttribute(at, 3 * f + 2);
      if (ray.intersectTriangle(a, b, c, false, point)) hits.push({ faceIndex: f, point: point.clone(), distance: point.distanceTo(ray.origin) });
    }
    return hits;
  }

  // The facet under a ray of the scene, with the weights of its corners there.
  pick(ray) {
    this.group.updateMatrixWorld(true);
    const world = this.mesh.matrixWorld;
    const own = ray.clone().applyMatrix4(world.clone().invert());
    const tree = this.mesh.geometry.boundsTree;
    let hit = null;
    if (this.uniforms.hideAbove.value || this.isHidden || !tree) {
      const all = (tree ? tree.raycast(own, THREE.DoubleSide) : this.#everyHit(own)).sort((a, b) => a.distance - b.distance);
      const top = this.uniforms.hideAbove.value ? this.uniforms.cutZ.value : Infinity;
      hit = all.find((h) => !this.isHidden?.(h.faceIndex) && h.point.clone().applyMatrix4(world).z <= top) ?? null;
    } else hit = tree.raycastFirst(own, THREE.DoubleSide);
    if (!hit) return null;
    const corner = (i) => {
      const v = this.facets[3 * hit.faceIndex + i];
      return new THREE.Vector3(...this.vertices.subarray(3 * v, 3 * v + 3));
    };
    const weights = THREE.Triangle.getBarycoord(hit.point, corner(0), corner(1), corner(2), new THREE.Vector3());
    if (!weights) return null;
    const point = hit.point.clone().applyMatrix4(world);
    return { facet: hit.faceIndex, weights: weights.toArray(), point: point.toArray(), distance: point.distanceTo(ray.origin) };
  }

  dispose() {
    this.setSplit(null);
    for (const part of [this.mesh, this.ink, this.stripes, this.rough?.mesh]) {
      if (!part) continue;
      this.group.remove(part);
      disposeOf(part);
    }
    this.stripes = this.rough = null;
  }
}
