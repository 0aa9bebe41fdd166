// The model on its plate. Draws what the server computed; knows no rule of printing.
import * as THREE from "three";
import { MeshBVH } from "three-mesh-bvh";
import { plateLines } from "./plate.js";
import { pillarGeometry } from "./pillar_shape.js";

const INK = 0x26324c;
const TEAL = 0x17696a;
const BRICK = 0xa3291c;
const ACCENT = 0xc2410c;

const VERTEX = `
  attribute float slope;
  attribute float side;
  uniform mat3 upright;
  varying float vSide;
  varying float vSlope;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    vSlope = slope;
    vSide = side;
    vec4 world = modelMatrix * vec4(position, 1.0);
    vWorld = world.xyz;
    vNormal = normalize(upright * normal);
    gl_Position = projectionMatrix * viewMatrix * world;
  }`;

const FRAGMENT = `
  uniform float threshold;
  uniform float cutZ;
  uniform bool hideAbove;
  uniform vec3 eye;
  uniform vec3 room;
  varying float vSlope;
  varying float vSide;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    if (vSlope < 0.0 || (hideAbove && vWorld.z > cutZ)) discard;
    vec3 n = gl_FrontFacing ? vNormal : -vNormal;
    float key = 0.5 + 0.5 * dot(n, normalize(vec3(-0.4, -0.6, 0.7)));
    float head = max(dot(n, eye), 0.0);
    vec3 colour = vec3(0.925, 0.898, 0.843) * (0.58 + 0.20 * key + 0.26 * head);
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

// Smoothing edges costs a software renderer several times the drawing of a fine mesh.
const MOST_FACETS_SMOOTHED = 150_000;

export class View3D {
  constructor(canvas, facetCount, isClosed, onChange) {
    THREE.ColorManagement.enabled = false; // colours go to the screen as they are written
    this.canvas = canvas;
    this.isClosed = isClosed;
    this.onChange = onChange;
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: facetCount < MOST_FACETS_SMOOTHED, preserveDrawingBuffer: true });
    this.renderer.setClearColor(0xfaf6ee);
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
    this.scene = new THREE.Scene();
    this.parallel = new THREE.OrthographicCamera(-1, 1, 1, -1, -5000, 5000);
    this.angled = new THREE.PerspectiveCamera(30, 1, 1, 20000);
    for (const camera of [this.parallel, this.angled]) camera.up.set(0, 0, 1);
    this.camera = this.parallel;
    this.controls = new THREE.OrbitControls(this.camera, canvas);
    this.controls.zoomToCursor = true;
    this.controls.addEventListener("change", () => this.draw());
    this.stand = new THREE.Group();
    this.stand.matrixAutoUpdate = false;
    this.pillars = new THREE.Group();
    this.marks = new THREE.Group();
    this.rules = new THREE.Group();
    this.cutPlane = new THREE.Group();
    this.turned = new THREE.Group();
    this.scene.add(this.stand, this.pillars, this.marks, this.rules, this.cutPlane, this.turned);
    this.uniforms = {
      threshold: { value: 45 },
      cutZ: { value: -1 },
      hideAbove: { value: false },
      eye: { value: new THREE.Vector3() },
      upright: { value: new THREE.Matrix3() }, // turns normals, whatever the scale and mirror
      room: { value: new THREE.Vector3(1e6, 1e6, 1e6) },
    };
    this.size = [100, 100, 100];
    this.top = 100;
    new ResizeObserver(() => this.resize()).observe(canvas);
    this.resize();
  }

  // Facets are given corners of their own, so that each has one normal, slope and patch.
  setMesh(vertices, facets, creases) {
    this.vertices = vertices;
    this.facets = facets;
    const corners = new Float32Array(facets.length * 3);
    for (let i = 0; i < facets.length; i++)
      corners.set(vertices.subarray(3 * facets[i], 3 * facets[i] + 3), 3 * i);
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
    geometry.computeVertexNormals();
    geometry.setAttribute("slope", new THREE.BufferAttribute(new Float32Array(facets.length).fill(999), 1));
    // Indirect: the order of the facets stays the server's.
    geometry.boundsTree = new MeshBVH(geometry, { indirect: true });
    const material = new THREE.ShaderMaterial({
      vertexShader: VERTEX, fragmentShader: FRAGMENT, uniforms: this.uniforms, side: this.isClosed ? THREE.FrontSide : THREE.DoubleSide,
      polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1,
    });
    this.model = new THREE.Mesh(geometry, material);
    const lines = new THREE.BufferGeometry();
    lines.setAttribute("position", new THREE.BufferAttribute(vertices, 3));
    lines.setIndex(new THREE.BufferAttribute(creases, 1));
    const ink = new THREE.LineBasicMaterial({ color: INK, transparent: true, opacity: 0.75 });
    ink.onBeforeCompile = (shader) => {
      shader.uniforms.cutZ = this.uniforms.cutZ;
      shader.uniforms.hideAbove = this.uniforms.hideAbove;
      shader.vertexShader = shader.vertexShader
        .replace("void main() {", "varying float vZ;\nvoid main() { vZ = (modelMatrix * vec4(position, 1.0)).z;");
      shader.fragmentShader = shader.fragmentShader
        .replace("void main() {", "uniform float cutZ; uniform bool hideAbove; varying float vZ;\nvoid main() { if (hideAbove && vZ > cutZ) discard;");
    };
    this.ink = new THREE.LineSegments(lines, ink);
    this.stand.add(this.model, this.ink);
  }

  setState(state) {
    this.stand.matrix.fromArray(state.matrix);
    this.stand.matrixWorldNeedsUpdate = true;
    this.size = state.size_mm;
    this.top = state.top_mm;
    this.uniforms.room.value.set(...state.build_volume_mm);
    const plate = state.build_volume_mm.join();
    if (plate !== this.plateSize) {
      this.plateSize = plate;
      if (this.plate) this.scene.remove(this.plate);
      this.plate = plateLines(...state.build_volume_mm);
      this.scene.add(this.plate);
    }
    this.setPillars(state.pillars);
  }

  setSlopes(values) {
    this.slopes = values;
    const target = this.model.geometry.getAttribute("slope");
    for (let i = 0; i < values.length; i++)
      target.array.fill(this.isHidden?.(i) ? -1 : values[i], 3 * i, 3 * i + 3);
    target.needsUpdate = true;
    this.draw();
  }

  setSides(values) {
    const geometry = this.model.geometry;
    if (!values) geometry.deleteAttribute("side");
    else {
      const corners = new Float32Array(3 * values.length);
      for (let i = 0; i < values.length; i++) if (values[i]) corners.fill(values[i], 3 * i, 3 * i + 3);
      geometry.setAttribute("side", new THREE.BufferAttribute(corners, 1));
    }
    this.draw();
  }

  // Facets within a distance of a place that face about the same way as it does.
  facetsNear(hit, radiusMm) {
    const scale = Math.cbrt(Math.abs(this.stand.matrix.determinant()));
    const inverse = this.model.matrixWorld.clone().invert();
    const ball = new THREE.Sphere(new THREE.Vector3(...hit.point).applyMatrix4(inverse), radiusMm / scale);
    const normals = this.model.geometry.getAttribute("normal");
    const facing = (f) => new THREE.Vector3().fromBufferAttribute(normals, 3 * f);
    const here = facing(hit.facet);
    const near = new THREE.Vector3();
    const found = [hit.facet];
    this.model.geometry.boundsTree.shapecast({
      intersectsBounds: (box) => ball.intersectsBox(box),
      intersectsTriangle: (triangle, f) => {
        triangle.closestPointToPoint(ball.center, near);
        if (near.distanceTo(ball.center) <= ball.radius && facing(f).dot(here) > 0.2) found.push(f);
      },
    });
    return found;
  }

  // A turn that is being followed: where the model stands, its slopes, its lowest points with
  // how long each part waits to be joined, and its first layer. Pillars wait until it is taken.
  setTurned(figures, slopes) {
    this.stand.matrix.fromArray(figures.matrix);
    this.stand.matrixWorldNeedsUpdate = true;
    this.pillars.visible = this.marks.visible = false;
    this.turned.clear();
    for (const flat of figures.first_layer) {
      const points = [];
      for (let i = 0; i < flat.length; i += 2) points.push(new THREE.Vector3(flat[i], flat[i + 1], 0.05));
      this.turned.add(new THREE.LineLoop(new THREE.BufferGeometry().setFromPoints(points), new THREE.LineBasicMaterial({ color: ACCENT, depthTest: false })));
    }
    if (figures.lowest.length) {
      const places = figures.lowest.map((l) => new THREE.Vector3(...l.place));
      const drops = places.flatMap((p) => [p, new THREE.Vector3(p.x, p.y, 0)]);
      this.turned.add(
        new THREE.Points(new THREE.BufferGeometry().setFromPoints(places), new THREE.PointsMaterial({ color: INK, size: 9, sizeAttenuation: false, depthTest: false })),
        new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(drops), new THREE.LineBasicMaterial({ color: INK, transparent: true, opacity: 0.5, depthTest: false })));
    }
    this.setSlopes(slopes);
  }
  clearTurned() {
    this.turned.clear();
    this.pillars.visible = this.marks.visible = true;
  }

  markPlaces(points) {
    this.turned.clear();
    if (points.length)
      this.turned.add(new THREE.Points(
        new THREE.BufferGeometry().setFromPoints(points.map((p) => new THREE.Vector3(...p))),
        new THREE.PointsMaterial({ color: ACCENT, size: 9, sizeAttenuation: false, depthTest: false })));
    this.draw();
  }

  // isHidden: facet to boolean, or null to show everything
  setHidden(isHidden) {
    this.isHidden = isHidden;
    this.ink.visible = !isHidden;
    this.setSlopes(this.slopes);
  }

  // The free cut: its plane as a frame, and what it cuts as lines.
  setPlane(cut) {
    this.cutPlane.clear();
    if (cut) {
      const line = (points, Kind) => new Kind(
        new THREE.BufferGeometry().setFromPoints(points), new THREE.LineBasicMaterial({ color: ACCENT }));
      for (const flat of cut.lines) {
        const points = [];
        for (let i = 0; i < flat.length; i += 3) points.push(new THREE.Vector3(flat[i], flat[i + 1], flat[i + 2]));
        this.cutPlane.add(line(points, THREE.LineLoop));
      }
      const frame = line([[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([x, y]) => new THREE.Vector3(x * cut.reach, y * cut.reach, 0)), THREE.LineLoop);
      frame.quaternion.setFromUnitVectors(new THREE.Vector3(0, 0, 1), new THREE.Vector3(...cut.normal));
      frame.position.set(...cut.origin);
      this.cutPlane.add(frame);
    }
    this.draw();
  }

  setMeasures(list) {
    this.rules.clear();
    for (const measure of list) {
      const points = measure.line_mm.map((p) => new THREE.Vector3(...p));
      const material = new THREE.LineBasicMaterial({ color: ACCENT, depthTest: false });
      this.rules.add(new THREE.Line(new THREE.BufferGeometry().setFromPoints(points), material));
      const dots = new THREE.Points(
        new THREE.BufferGeometry().setFromPoints(points.length > 2 ? points.slice(0, 1) : points),
        new THREE.PointsMaterial({ color: ACCENT, size: 6, sizeAttenuation: false, depthTest: false }));
      this.rules.add(dots);
    }
    this.draw();
  }

  setThreshold(degrees) {
    this.uniforms.threshold.value = degrees - 0.01;
    this.draw();
  }

  setCut(z, hideAbove) {
    this.uniforms.cutZ.value = z;
    this.uniforms.hideAbove.value = hideAbove;
    const side = this.isClosed && !hideAbove ? THREE.FrontSide : THREE.DoubleSide;
    if (this.model && this.model.material.side !== side) {
      this.model.material.side = side;
      this.model.material.needsUpdate = true;
    }
    this.draw();
  }

  // facets: those to lay stripes over
  setChosenFacets(facets) {
    if (this.stripes) {
      this.stand.remove(this.stripes);
      this.stripes.geometry.dispose();
      this.stripes = null;
    }
    if (facets.length && this.model) {
      const all = this.model.geometry.getAttribute("position").array;
      const corners = new Float32Array(9 * facets.length);
      facets.forEach((f, i) => corners.set(all.subarray(9 * f, 9 * f + 9), 9 * i));
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute("position", new THREE.BufferAttribute(corners, 3));
      this.stripes = new THREE.Mesh(geometry, new THREE.ShaderMaterial({
        vertexShader: VERTEX, fragmentShader: STRIPES, uniforms: this.uniforms, transparent: true,
        depthWrite: false, side: THREE.DoubleSide,
      }));
      this.stand.add(this.stripes);
    }
    this.draw();
  }

  setPillars(list, chosen = this.chosenPillar, ghost = null) {
    this.chosenPillar = chosen;
    this.pillarList = list;
    this.pillars.clear();
    this.marks.clear();
    for (const pillar of ghost ? [...list.filter((p) => p.key !== ghost.key), ghost] : list) this.#addPillar(pillar);
    this.draw();
  }

  #addPillar(pillar) {
    const stands = pillar.fit === "stands";
    const [x, y, z] = pillar.contact_mm;
    const isChosen = pillar.key === this.chosenPillar;
    if (pillar.profile_mm.length) {
      const material = new THREE.MeshLambertMaterial({
        color: stands ? TEAL : BRICK, transparent: !stands, opacity: stands ? 1 : 0.35,
        emissive: stands ? TEAL : BRICK, emissiveIntensity: 0.55,
      });
      const body = new THREE.Mesh(pillarGeometry(pillar.profile_mm), material);
      body.position.set(x, y, 0);
      body.userData.key = pillar.key;
      this.pillars.add(body);
      if (isChosen) {
        const edges = new THREE.LineSegments(
          new THREE.EdgesGeometry(body.geometry, 25), new THREE.LineBasicMaterial({ color: ACCENT }));
        edges.position.copy(body.position);
        this.marks.add(edges);
      }
    }
    // A handle at the contact, of a size that can be grabbed whatever the contact's own.
    const handle = new THREE.Mesh(
      new THREE.SphereGeometry(1, 16, 12),
      new THREE.MeshBasicMaterial({ color: isChosen ? ACCENT : stands ? TEAL : BRICK, depthTest: !isChosen }));
    handle.position.set(x, y, z);
    handle.userData = { key: pillar.key, isHandle: true };
    this.pillars.add(handle);
    if (pillar.blocked_at_mm) {
      const at = new THREE.Vector3(...pillar.blocked_at_mm);
      const arm = 1.6;
      const cross = [];
      for (const [dx, dz] of [[1, 1], [1, -1]])
        cross.push(at.clone().add(new THREE.Vector3(-arm * dx, 0, -arm * dz)), at.clone().add(new THREE.Vector3(arm * dx, 0, arm * dz)));
      this.marks.add(new THREE.LineSegments(
        new THREE.BufferGeometry().setFromPoints(cross), new THREE.LineBasicMaterial({ color: BRICK, depthTest: false })));
    }
  }

  setPerspective(on) {
    const from = this.camera;
    this.camera = on ? this.angled : this.parallel;
    const target = this.controls.target;
    const way = from.position.clone().sub(target).normalize();
    if (on) {
      const seen = (this.parallel.top - this.parallel.bottom) / this.parallel.zoom;
      this.camera.position.copy(target).addScaledVector(way, seen / 2 / Math.tan((15 * Math.PI) / 180));
    } else {
      const away = from.position.distanceTo(target);
      const seen = 2 * away * Math.tan((15 * Math.PI) / 180);
      this.camera.zoom = (this.camera.top - this.camera.bottom) / seen;
      this.camera.position.copy(target).addScaledVector(way, 500);
    }
    this.camera.updateProjectionMatrix();
    this.controls.object = this.camera;
    this.controls.update();
    this.draw();
  }

  // azimuth from the front (−Y) towards the right, elevation above the plate, degrees
  look(azimuth, elevation, target = null, span = null) {
    const a = (azimuth * Math.PI) / 180;
    const e = (elevation * Math.PI) / 180;
    const way = new THREE.Vector3(Math.sin(a) * Math.cos(e), -Math.cos(a) * Math.cos(e), Math.sin(e));
    const [x, y] = this.size;
    const reach = span ?? this.top * Math.cos(e) + Math.hypot(x, y) * Math.abs(Math.sin(e));
    const wide = span ?? Math.hypot(x, y);
    const width = this.canvas.clientWidth || 1;
    const height = this.canvas.clientHeight || 1;
    const seen = Math.max(reach, (wide * height) / width) * 1.18;
    this.controls.target.set(...(target ?? [0, 0, this.top / 2]));
    if (this.camera === this.parallel) {
      this.camera.zoom = (this.camera.top - this.camera.bottom) / seen;
      this.camera.position.copy(this.controls.target).addScaledVector(way, 500);
    } else {
      const away = seen / 2 / Math.tan((15 * Math.PI) / 180);
      this.camera.position.copy(this.controls.target).addScaledVector(way, away);
    }
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  // Brings a place into the middle, seen from the side that shows it, without changing the scale.
  showPlace(point, fromBelow) {
    const way = this.camera.position.clone().sub(this.controls.target);
    const away = way.length();
    if (fromBelow && way.z / away > -0.15) {
      const flat = Math.hypot(way.x, way.y) || 1;
      const e = (-28 * Math.PI) / 180;
      way.set((way.x / flat) * Math.cos(e), (way.y / flat) * Math.cos(e), Math.sin(e)).multiplyScalar(away);
      if (flat < 1e-6) way.set(0, -Math.cos(e), Math.sin(e)).multiplyScalar(away);
    }
    this.controls.target.set(...point);
    this.camera.position.copy(this.controls.target).add(way);
    this.controls.update();
    this.draw();
  }

  // From where the eye is, a place in the middle with so many mm around it.
  frame(point, span) {
    const way = this.camera.position.clone().sub(this.controls.target).normalize();
    const azimuth = (Math.atan2(way.x, -way.y) * 180) / Math.PI;
    this.look(azimuth, (Math.asin(way.z) * 180) / Math.PI, point, span);
  }

  ray(clientX, clientY) {
    return this.#ray(clientX, clientY).ray;
  }

  #ray(clientX, clientY) {
    const box = this.canvas.getBoundingClientRect();
    const at = new THREE.Vector2(
      ((clientX - box.left) / box.width) * 2 - 1, 1 - ((clientY - box.top) / box.height) * 2);
    this.camera.updateMatrixWorld();
    const caster = new THREE.Raycaster();
    caster.setFromCamera(at, this.camera);
    return caster;
  }

  // The facet under a place on the screen, with the weights of its corners there.
  pick(clientX, clientY) {
    const caster = this.#ray(clientX, clientY);
    this.stand.updateMatrixWorld(true);
    const inverse = this.model.matrixWorld.clone().invert();
    const ray = caster.ray.clone().applyMatrix4(inverse);
    let hit = null;
    if (this.uniforms.hideAbove.value || this.isHidden) {
      const all = this.model.geometry.boundsTree.raycast(ray, THREE.DoubleSide).sort((a, b) => a.distance - b.distance);
      const top = this.uniforms.hideAbove.value ? this.uniforms.cutZ.value : Infinity;
      hit = all.find((h) => !this.isHidden?.(h.faceIndex) && h.point.clone().applyMatrix4(this.model.matrixWorld).z <= top) ?? null;
    } else hit = this.model.geometry.boundsTree.raycastFirst(ray, THREE.DoubleSide);
    if (!hit) return null;
    const corner = (i) => {
      const v = this.facets[3 * hit.faceIndex + i];
      return new THREE.Vector3(...this.vertices.subarray(3 * v, 3 * v + 3));
    };
    const weights = THREE.Triangle.getBarycoord(hit.point, corner(0), corner(1), corner(2), new THREE.Vector3());
    if (!weights) return null;
    const world = hit.point.clone().applyMatrix4(this.model.matrixWorld);
    return {
      facet: hit.faceIndex, weights: weights.toArray(), point: world.toArray(),
      distance: world.distanceTo(caster.ray.origin),
    };
  }

  pickPillar(clientX, clientY) {
    const caster = this.#ray(clientX, clientY);
    const [hit] = caster.intersectObjects(this.pillars.children, false);
    if (!hit) return null;
    const blocked = this.pick(clientX, clientY);
    if (blocked && !hit.object.userData.isHandle && blocked.distance < hit.distance - 0.05) return null;
    if (blocked && hit.object.userData.isHandle && blocked.distance < hit.distance - 3) return null;
    return hit.object.userData;
  }

  toScreen(point) {
    this.camera.updateMatrixWorld(); // it may have moved since the last drawing
    const p = new THREE.Vector3(...point).project(this.camera);
    return [((p.x + 1) / 2) * this.canvas.clientWidth, ((1 - p.y) / 2) * this.canvas.clientHeight];
  }

  // Screen heights of the plate and of 1 mm, for the tower to be drawn at the same scale.
  heightScale() {
    if (this.camera !== this.parallel) return null;
    const [, y0] = this.toScreen([0, 0, 0]);
    const [, y1] = this.toScreen([0, 0, 1]);
    return { zero: y0, perMm: y0 - y1 };
  }

  resize() {
    const { clientWidth: w, clientHeight: h } = this.canvas;
    if (!w || !h) return;
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.renderer.setSize(w, h, false);
    Object.assign(this.parallel, { left: -w / 2, right: w / 2, top: h / 2, bottom: -h / 2 });
    this.parallel.updateProjectionMatrix();
    this.angled.aspect = w / h;
    this.angled.updateProjectionMatrix();
    this.draw();
  }

  // Settles as soon as the next picture is drawn.
  nextDrawing() {
    this.draw();
    return new Promise((resolve) => (this.waiters = [...(this.waiters ?? []), resolve]));
  }

  // Settles once what was asked to be drawn is on the screen, or after half a second.
  shown() {
    return new Promise((resolve) => {
      requestAnimationFrame(() => requestAnimationFrame(resolve));
      setTimeout(resolve, 500);
    });
  }

  // At most one drawing a frame, however often something changes.
  draw() {
    if (this.waiting) return;
    this.waiting = true;
    requestAnimationFrame(() => {
      this.waiting = false;
      if (!this.model) return;
      const perMm = this.camera === this.parallel ? this.camera.zoom : this.canvas.clientHeight / (2 * Math.tan((15 * Math.PI) / 180) * this.camera.position.distanceTo(this.controls.target));
      for (const child of this.pillars.children) if (child.userData.isHandle) child.scale.setScalar(5 / perMm);
      this.beforeDraw?.(perMm);
      this.camera.getWorldDirection(this.uniforms.eye.value).negate();
      if (!this.lamp) {
        this.lamp = new THREE.DirectionalLight(0xffffff, 2);
        this.scene.add(this.lamp);
      }
      this.lamp.position.copy(this.camera.position);
      this.uniforms.upright.value.getNormalMatrix(this.stand.matrix);
      this.renderer.render(this.scene, this.camera);
      this.drawn = (this.drawn ?? 0) + 1;
      this.onChange();
      for (const resolve of this.waiters?.splice(0) ?? []) resolve();
    });
  }
}
