// The stage: cameras, plate and light, and the layers that stand on it. Knows no rule of printing.
import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { hex } from "../colours.js";
import { CutLayer } from "./cut.js";
import { disposeOf } from "./disposing.js";
import { MeasureLayer } from "./measures.js";
import { ModelLayer } from "./model.js";
import { plateLines } from "./plate.js";
import { SupportLayer } from "./supports.js";
import { TurnedLayer } from "./turned.js";

// Smoothing edges costs a software renderer several times the drawing of a fine mesh: without a
// graphics card only a picture that has been still for so long is smoothed, and a fine mesh is drawn
// with fewer facets as long as it moves.
const MOST_FACETS_SMOOTHED = 150_000;
const STILL_MS = 200;
const SAMPLES = 4;
const NO_CARD = /swiftshader|llvmpipe|softpipe|software|basic render/i;

// Whether drawings are made by the processor.
function lacksCard() {
  const gl = document.createElement("canvas").getContext("webgl2");
  const named = gl?.getExtension("WEBGL_debug_renderer_info");
  const said = gl?.getParameter(named ? named.UNMASKED_RENDERER_WEBGL : gl.RENDERER) ?? "";
  gl?.getExtension("WEBGL_lose_context")?.loseContext();
  return NO_CARD.test(said);
}

export class View3D {
  constructor(canvas, facetCount, isClosed, onChange) {
    THREE.ColorManagement.enabled = false; // colours go to the screen as they are written
    this.canvas = canvas;
    this.onChange = onChange;
    const smooth = facetCount < MOST_FACETS_SMOOTHED;
    const isSlow = lacksCard();
    this.smoothsLater = smooth && isSlow;
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: smooth && !this.smoothsLater, preserveDrawingBuffer: true });
    this.renderer.setClearColor(hex("paper"));
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
    this.scene = new THREE.Scene();
    this.parallel = new THREE.OrthographicCamera(-1, 1, 1, -1, -5000, 5000);
    this.angled = new THREE.PerspectiveCamera(30, 1, 1, 20000);
    for (const camera of [this.parallel, this.angled]) camera.up.set(0, 0, 1);
    this.camera = this.parallel;
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.zoomToCursor = true;
    this.controls.addEventListener("change", () => this.draw());
    this.uniforms = {
      threshold: { value: 45 },
      cutZ: { value: -1 },
      hideAbove: { value: false },
      eye: { value: new THREE.Vector3() },
      upright: { value: new THREE.Matrix3() }, // turns normals, whatever the scale and mirror
      room: { value: new THREE.Vector3(1e6, 1e6, 1e6) },
      split: { value: new THREE.Vector4() },
      splitSide: { value: 0 }, // which side of it is drawn; 0 for both
      showColours: { value: true },
      splitShift: { value: new THREE.Vector3() },
    };
    this.model = new ModelLayer(this.uniforms, isClosed, !smooth && isSlow);
    this.supports = new SupportLayer(this.uniforms);
    this.measures = new MeasureLayer();
    this.cut = new CutLayer();
    this.turned = new TurnedLayer();
    this.layers = [this.model, this.supports, this.measures, this.cut, this.turned];
    for (const layer of this.layers) this.scene.add(layer.group);
    this.size = [100, 100, 100];
    this.top = 100;
    new ResizeObserver(() => this.resize()).observe(canvas);
    this.resize();
  }

  // A layer more, with the face of the others: group, update, dispose.
  add(layer) {
    this.layers.push(layer);
    this.scene.add(layer.group);
    return layer;
  }

  // ---- what is shown -------------------------------------------------------------------

  setMesh(vertices, facets, creases) {
    this.model.update(vertices, facets, creases);
    this.draw();
  }

  setState(state) {
    this.model.stand(state.matrix);
    this.size = state.size_mm;
    this.top = state.top_mm;
    this.uniforms.room.value.set(...state.build_volume_mm);
    const plate = state.build_volume_mm.join();
    if (plate !== this.plateSize) {
      this.plateSize = plate;
      if (this.plate) {
        this.scene.remove(this.plate);
        disposeOf(this.plate);
      }
      this.plate = plateLines(...state.build_volume_mm);
      this.scene.add(this.plate);
    }
    this.draw();
  }

  setSupports(list, chosen, ghosts) {
    this.supports.update(list, chosen, ghosts);
    this.draw();
  }

  setSolids(corners) {
    this.supports.setSolids(corners);
    this.draw();
  }

  setWash(corners) {
    this.supports.setWash(corners);
    this.draw();
  }

  setSlopes(values) {
    this.model.setSlopes(values);
    this.draw();
  }

  setSides(values) {
    this.model.setSides(values);
    this.draw();
  }

  setColours(values) {
    this.model.setColours(values);
    this.draw();
  }

  setShowColours(on) {
    this.uniforms.showColours.value = on;
    this.draw();
  }

  setHidden(isHidden) {
    this.model.setHidden(isHidden);
    this.draw();
  }

  setChosenFacets(facets) {
    this.model.setChosen(facets);
    this.draw();
  }

  setMeasures(list) {
    this.measures.update(list);
    this.draw();
  }

  setPlane(cut) {
    this.cut.update(cut);
    this.draw();
  }

  setSplit(plane, gap) {
    this.model.setSplit(plane, gap);
    this.draw();
  }

  // A turn that is being followed; supports and measures wait until it is taken.
  setTurned(figures, slopes) {
    this.model.stand(figures.matrix);
    this.supports.group.visible = this.measures.group.visible = false;
    this.turned.update(figures);
    this.setSlopes(slopes);
  }
  clearTurned() {
    this.turned.dispose();
    this.supports.group.visible = this.measures.group.visible = true;
  }

  markPlaces(points) {
    this.turned.mark(points);
    this.draw();
  }

  setThreshold(degrees) {
    this.uniforms.threshold.value = degrees - 0.01;
    this.draw();
  }

  setCut(z, hideAbove) {
    this.uniforms.cutZ.value = z;
    this.uniforms.hideAbove.value = hideAbove;
    this.model.setOpen(hideAbove || this.uniforms.splitSide.value !== 0);
    this.supports.setOpen(hideAbove);
    this.draw();
  }

  // ---- looking -------------------------------------------------------------------------

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

  // From where the eye is, a place in the middle with so many mm around it; null for all there is.
  frame(point, span) {
    const way = this.camera.position.clone().sub(this.controls.target).normalize();
    const azimuth = (Math.atan2(way.x, -way.y) * 180) / Math.PI;
    this.look(azimuth, (Math.asin(way.z) * 180) / Math.PI, point, span);
  }

  // ---- pointing ------------------------------------------------------------------------

  ray(clientX, clientY) {
    const box = this.canvas.getBoundingClientRect();
    const at = new THREE.Vector2(
      ((clientX - box.left) / box.width) * 2 - 1, 1 - ((clientY - box.top) / box.height) * 2);
    this.camera.updateMatrixWorld();
    const caster = new THREE.Raycaster();
    caster.setFromCamera(at, this.camera);
    return caster.ray;
  }

  // The facet under a place on the screen, with the weights of its corners there.
  pick(clientX, clientY) {
    return this.model.pick(this.ray(clientX, clientY));
  }

  // The support under a place on the screen that the model does not hide.
  pickSupport(clientX, clientY) {
    const box = this.canvas.getBoundingClientRect();
    const ray = this.ray(clientX, clientY);
    const hit = this.supports.pick(ray, [clientX - box.left, clientY - box.top], (p) => this.toScreen(p));
    if (!hit) return null;
    const before = this.model.pick(ray);
    if (before && before.distance < hit.far - (hit.isHandle ? 3 : 0.05)) return null;
    return hit;
  }

  // The place of the plate under a place on the screen, [x, y], or null.
  plateAt(clientX, clientY) {
    const at = this.ray(clientX, clientY).intersectPlane(new THREE.Plane(new THREE.Vector3(0, 0, 1), 0), new THREE.Vector3());
    return at ? [at.x, at.y] : null;
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

  // A fine mesh is drawn with few facets meanwhile, where there is no graphics card; 0: no longer.
  roughlyFor(ms) {
    const was = this.roughUntil > performance.now();
    this.roughUntil = performance.now() + ms;
    if (was && !ms) this.draw();
  }

  // Nothing better is to come.
  #seen() {
    clearTimeout(this.stillAfter);
    this.canvas.removeAttribute("data-coarse");
  }

  #onceStill(draw, ms = STILL_MS) {
    this.canvas.toggleAttribute("data-coarse", true);
    this.stillAfter = setTimeout(() => {
      draw();
      this.#seen();
    }, ms);
  }

  // Whether anything stands elsewhere than in the last picture, or is seen from elsewhere.
  #hasMoved() {
    const now = [this.camera.matrixWorld, this.camera.projectionMatrix, this.model.group.matrix].flatMap((m) => m.elements);
    const before = this.lastSeen;
    this.lastSeen = now;
    return !before || now.some((v, i) => v !== before[i]);
  }

  #drawWhole() {
    if (!this.model.mesh) return;
    this.model.asItMoves(false);
    this.renderer.render(this.scene, this.camera);
  }

  // The same picture by way of one with several samples a pixel.
  #drawSmoothed() {
    const size = this.renderer.getDrawingBufferSize(new THREE.Vector2());
    if (!size.x || !size.y) return;
    if (!this.samples) {
      this.samples = new THREE.WebGLRenderTarget(size.x, size.y, { samples: SAMPLES });
      const material = new THREE.MeshBasicMaterial({ map: this.samples.texture, depthTest: false, depthWrite: false });
      this.flat = new THREE.Scene();
      this.flat.add(new THREE.Mesh(new THREE.PlaneGeometry(2, 2), material));
      this.facing = new THREE.OrthographicCamera(-1, 1, 1, -1, -1, 1);
    }
    this.samples.setSize(size.x, size.y);
    this.renderer.setRenderTarget(this.samples);
    this.renderer.render(this.scene, this.camera);
    this.renderer.setRenderTarget(null);
    this.renderer.render(this.flat, this.facing);
  }

  // At most one drawing a frame, however often something changes.
  draw() {
    if (this.waiting) return;
    this.waiting = true;
    requestAnimationFrame(() => {
      this.waiting = false;
      if (!this.model.mesh) return;
      const perMm = this.camera === this.parallel ? this.camera.zoom : this.canvas.clientHeight / (2 * Math.tan((15 * Math.PI) / 180) * this.camera.position.distanceTo(this.controls.target));
      this.beforeDraw?.(perMm);
      this.camera.getWorldDirection(this.uniforms.eye.value).negate();
      this.uniforms.upright.value.getNormalMatrix(this.model.group.matrix);
      const more = (this.roughUntil ?? 0) - performance.now();
      const isRough = this.model.asItMoves(this.#hasMoved() || more > 0);
      this.renderer.render(this.scene, this.camera);
      this.#seen();
      if (isRough) this.#onceStill(() => this.#drawWhole(), Math.max(STILL_MS, more));
      else if (this.smoothsLater && window.devicePixelRatio >= 1) this.#onceStill(() => this.#drawSmoothed());
      this.drawn = (this.drawn ?? 0) + 1;
      this.onChange();
      for (const resolve of this.waiters?.splice(0) ?? []) resolve();
    });
  }
}
