// The bench: holds what the server said of the stance and passes it to the drawings.
import Alpine from "alpinejs";
import { cancelWork, follow, getBytes, getJson, postJson, whileBusy } from "./api.js";
import { watch } from "./gestures.js";
import { drawProfile } from "./pillar_shape.js";
import { Section } from "./section.js";
import { Tower } from "./tower.js";
import { stancesStrip, turning } from "./turning.js";
import { View3D } from "./view3d.js";

const VIEWS = { home: [28, 14], front: [0, 0], left: [-90, 0], above: [0, 89.9], below: [20, -32] };
const start = JSON.parse(document.getElementById("start").textContent);
// Drawings live outside Alpine's reactive data: three.js objects must not be proxied.
let view, tower, section;

// Several parts as one component; unlike spreading, this keeps getters alive.
const mixed = (...parts) => Object.defineProperties({}, Object.assign({}, ...parts.map(Object.getOwnPropertyDescriptors)));

Alpine.data("bench", () => mixed(turning, stancesStrip, {
  activities: ["Inspect", "Turn", "Prop", "Compare", "Hand over"],
  activity: "Inspect",
  state: start.state,
  findings: { ready: false, error: "", findings: [], places: [], overhang: null },
  threshold: start.state.threshold_deg,
  layer: 0,
  chosen: null,
  pillarKey: null,
  picking: false,
  hideAbove: false,
  sectionOpen: false,
  letterKeys: localStorage.getItem("letter keys") !== "off",
  perspective: false,
  loading: "Loading the model …",
  problem: "",
  work: null,
  stopped: "",
  offer: null,
  playing: null,
  drawingUrl: start.state.drawing_url,
  bodies: null,
  alone: 0,
  freeCut: false,
  plane: { turn: 0, tilt: 90, offset: 0 },
  painting: "",
  paintBy: "fill",
  creaseDeg: 30,
  brushMm: 4,
  measuring: "",
  places: [],
  measureKinds: [["distance", "distance"], ["span", "span"], ["slope", "slope"], ["thickness", "wall"], ["diameter", "round edge"]],
  measuresUrl: start.urls.measures,
  towerBy: "area_mm2",
  sectionUrl: start.urls.section,
  layersUrl: start.urls.layers,

  get sizeText() {
    return this.state.size_mm.map((v) => v.toFixed(2)).join(" × ") + " mm";
  },
  get overhangText() {
    const o = this.findings.overhang;
    return o ? `${o.area_mm2.toFixed(1)} mm² overhang in ${o.patches} patch${o.patches === 1 ? "" : "es"}.` : "";
  },
  get figures() {
    const count = (n, word) => `${n} ${word}${n === 1 ? "" : "s"}`;
    const parts = [`height ${this.state.top_mm.toFixed(1)} mm`];
    if (this.findings.ready) {
      parts.push(`${this.findings.tower.count} layers`, `overhang ${this.findings.overhang.area_mm2.toFixed(0)} mm²`,
        count(this.findings.findings.filter((f) => f.kind === "island").length, "island"),
        count(this.findings.problems, "problem"));
    }
    parts.push(count(this.state.pillars.length, "pillar"));
    if (this.findings.ready) {
      const { grid_support_mm3: grid, time_s: time, scar_mm2: scar } = this.findings.estimate;
      parts.push(`supports ${grid.toFixed(0)} mm³`, `${(time / 60).toFixed(0)} min`);
      if (scar) parts.push(`marks ${scar.toFixed(0)} mm²`);
    }
    return parts.map((part) => part.replaceAll(" ", "\u00a0")).join(" · ");
  },
  get hint() {
    if (this.picking) return "Click the face that shall lie on the plate";
    if (this.levelling) return this.places.length ? "Click the second point" : "Click the first of two points";
    if (this.painting) return this.paintBy === "fill" ? "Click a face" : "Drag over the model; drag beside it to look around";
    if (this.measuring === "distance") return this.places.length ? "Click the second place" : "Click the first place";
    if (this.measuring) return { span: "Click a wall of the opening", slope: "Click a face", thickness: "Click a wall", diameter: "Click near a round edge" }[this.measuring];
    if (this.activity === "Prop") return "Click an underside to stand a pillar; drag a contact to move it";
    return "";
  },
  get chosenPillar() {
    return this.state.pillars.find((p) => p.key === this.pillarKey) ?? null;
  },
  get slopeLine() {
    const [x, y] = this.onArc(64);
    return `M8 46L${x} ${y}`;
  },
  get slopeArc() {
    const [x, y] = this.onArc(24);
    return `M32 46A24 24 0 0 0 ${x} ${y}`;
  },
  get slopeText() {
    const a = (this.threshold * Math.PI) / 360;
    return [8 + 30 * Math.cos(a), 48 - 28 * Math.sin(a)];
  },
  onArc(r) {
    const a = (this.threshold * Math.PI) / 180;
    const reach = Math.min(r, 42 / Math.max(Math.sin(a), 1e-6));
    return [8 + reach * Math.cos(a), 46 - reach * Math.sin(a)];
  },
  tidy: (value) => Number(Number(value).toFixed(4)),

  async init() {
    view = new View3D(this.$refs.canvas, start.state.facets, start.state.is_closed, () => this.drawn());
    this.$refs.canvas.view = view; // for scripts that drive the page: canvas.view.toScreen([x, y, z])
    tower = new Tower(this.$refs.tower, (k) => this.setLayer(k), (id) => this.choosePlace(id));
    section = new Section(this.$refs.section, (error) => this.refused(error));
    watch(this.$refs.canvas, view, {
      grab: (x, y) => this.grab(x, y),
      dragging: (held, hit) => (held.key ? this.previewPillar(held.key, hit) : held.stroke.push(hit)),
      dropped: (held, hit) => (held.key ? this.dropPillar(held.key, hit) : this.paintStroke(held.stroke)),
      clicked: (x, y, pillar) => this.clicked(x, y, pillar),
    });
    this.$refs.canvas.addEventListener("pointermove", (e) => e.buttons || this.hoverArc(e));
    // What is typed but not taken yet is undone by the field itself.
    window.addEventListener("input", (e) => e.target.dataset && (e.target.dataset.typed = "1"));
    window.addEventListener("change", (e) => e.target.dataset && delete e.target.dataset.typed);
    window.addEventListener("error", () => (this.problem = "Something went wrong on this page; reload it."));
    try {
      const [mesh, creases] = await Promise.all([getBytes(start.urls.mesh), getBytes(start.urls.creases)]);
      const [n, m] = new Uint32Array(mesh, 0, 2);
      view.setMesh(new Float32Array(mesh, 8, 3 * n), new Uint32Array(mesh, 8 + 12 * n, 3 * m), new Uint32Array(creases));
      this.loading = "";
      await this.show(this.state);
      this.look("home");
      document.documentElement.dataset.ready = "1";
    } catch (error) {
      this.loading = error.message;
    }
  },

  // ---- what the server says ------------------------------------------------------------

  async show(state) {
    if (state.process !== this.state.process) this.weights = {}; // each process has its own
    this.state = state;
    this.threshold = state.threshold_deg;
    this.offer = null;
    this.endPreview();
    if (!state.pillars.some((p) => p.key === this.pillarKey)) this.pillarKey = null;
    view.setState(Alpine.raw(state));
    view.setPillars(Alpine.raw(state.pillars), this.pillarKey);
    view.setThreshold(this.threshold);
    view.setMeasures(Alpine.raw(state.measures));
    this.drawChosenPillar();
    try {
      await this.showDetails(state);
    } catch (error) {
      this.refused(error);
    }
  },
  async showDetails(state) {
    if (state.slopes_url !== this.shownSlopes) {
      const slopes = new Float32Array(await getBytes(state.slopes_url));
      if (this.state.slopes_url !== state.slopes_url) return;
      this.shownSlopes = state.slopes_url;
      view.setSlopes(slopes);
    }
    if (state.sides_url !== this.shownSides) {
      this.shownSides = state.sides_url;
      view.setSides(state.sides_url ? new Uint32Array(await getBytes(state.sides_url)) : null);
    }
    await view.shown(); // the picture first: findings and drawing would take its time
    if (this.state.key !== state.key) return; // another change has come since
    await this.showFindings(await getJson(start.urls.findings));
    this.drawingUrl = this.state.drawing_url;
    if (this.activity === "Hand over") this.loadOffer();
    if (this.activity === "Turn" && !this.turnsStopped) this.loadTurns(this.looksByItself());
    if (this.findings.ready) await this.refreshStrip();
  },

  // What does not belong to the present state any more was changed elsewhere: catch up.
  async refused(error) {
    if (error.status !== 409) this.problem = error.message;
    else if (!this.catchingUp) {
      this.catchingUp = true;
      try {
        const state = await getJson(start.urls.state);
        if (state.revision === this.state.revision) return;
        this.problem = "This was changed in another window; the page shows it as it is now.";
        await this.show(state);
      } catch (again) {
        this.problem = again.message;
      } finally {
        this.catchingUp = false;
      }
    }
  },

  async showFindings(findings) {
    if (findings.key !== this.state.key) return this.refused({ status: 409 });
    this.findings = { findings: [], places: [], ...findings };
    this.fillLedger(findings.ledger_html ?? "");
    this.stopped = "";
    if (!findings.ready) {
      tower.setData(null, []);
      tower.draw();
      section.clear();
      this.pinsFor([]);
      if (!findings.error) await this.slice();
      return;
    }
    tower.setData(findings.tower, this.flags);
    this.pinsFor(this.flags.slice(0, 60));
    if (!findings.findings.some((f) => f.id === this.chosen)) this.chosen = null;
    this.markChosen();
    this.setLayer(this.layer, true);
    if (this.freeCut) this.showPlane();
    this.drawn();
    this.loadPatches();
  },

  // The ledger anew; a note that is being typed stays as it is, with its cursor.
  fillLedger(html) {
    const ledger = this.$refs.ledger;
    const typed = [...ledger.querySelectorAll("[data-note]")].filter((n) => n.value).map((n) => [n.dataset.note, n.value]);
    const at = ledger.contains(document.activeElement) ? document.activeElement : null;
    const field = at?.dataset.note;
    const range = field ? [at.selectionStart, at.selectionEnd] : null;
    const told = [...ledger.querySelectorAll("[data-ways-for]")].filter((n) => n.innerHTML).map((n) => [n.dataset.waysFor, n.innerHTML]);
    const scroll = ledger.closest("aside")?.scrollTop;
    ledger.innerHTML = html;
    for (const [id, value] of typed) {
      const note = ledger.querySelector(`[data-note="${id}"]`);
      if (note) note.value = value;
    }
    if (this.waysOf === this.state.key)
      for (const [id, value] of told) {
        const place = ledger.querySelector(`[data-ways-for="${id}"]`);
        if (place) place.innerHTML = value;
      }
    this.markChosen(false);
    const note = field && ledger.querySelector(`[data-note="${field}"]`);
    if (note) {
      note.focus({ preventScroll: true });
      note.setSelectionRange(...range);
    }
    if (scroll !== undefined) ledger.closest("aside").scrollTop = scroll;
  },
  // What is flagged in the picture and pinned to the tower: the places.
  get flags() {
    return this.findings.places.filter((p) => !p.accepted);
  },

  async loadPatches() {
    const key = `${this.state.key}@${this.findings.threshold_deg}`;
    if (this.patchesOf === key) return;
    this.patchesOf = key;
    const url = `${start.urls.state.replace("state/", "patches.bin")}?threshold=${this.findings.threshold_deg}&v=${this.state.key}`;
    try {
      const patches = new Uint32Array(await getBytes(url));
      if (this.patchesOf !== key) return;
      this.patches = patches;
      this.showChosenPatch();
    } catch (error) {
      this.refused(error);
    }
  },

  async slice() {
    if (this.slicing === this.state.key) return;
    const key = (this.slicing = this.state.key);
    this.stopped = "";
    try {
      const { work } = await postJson(start.urls.slice);
      this.work = { id: work, stage: "Waiting for its turn", done: 0 };
      const ended = await follow(work, (w) => this.work?.id === w.id && (this.work = w));
      if (this.state.key !== key) return;
      if (ended.state === "done") await this.showFindings(await getJson(start.urls.findings));
      else this.stopped = ended.state === "cancelled" ? "Slicing was cancelled." : ended.error;
    } catch (error) {
      this.problem = error.message;
    } finally {
      if (this.slicing === key) {
        this.slicing = null;
        this.work = null;
      }
    }
  },

  async cancelWork() {
    try {
      if (this.work) await cancelWork(this.work.id);
    } catch (error) {
      this.problem = error.message;
    }
  },

  // Changes are sent one after another, so that each builds on the one before.
  change(url, body, field) {
    const run = async () => {
      try {
        this.problem = "";
        const { state } = await postJson(`${url}?findings=later`, { ...body, revision: this.state.revision });
        field?.removeAttribute("aria-invalid");
        // What changed is drawn at once; its findings follow.
        whileBusy(this.show(state)).catch((error) => (this.problem = error.message));
        return true;
      } catch (error) {
        this.problem = error.message;
        if (error.status === 409 && error.body.state) {
          whileBusy(this.show(error.body.state)).catch((e) => (this.problem = e.message));
          return false;
        }
        field?.setAttribute("aria-invalid", "true");
        view.setPillars(Alpine.raw(this.state.pillars), this.pillarKey);
        this.threshold = this.state.threshold_deg;
        return false;
      }
    };
    this.queue = (this.queue ?? Promise.resolve()).then(run);
    return this.queue;
  },
  edit(kind, parameters, field) {
    return this.change(start.urls.edits, { kind, parameters }, field);
  },
  undo() {
    return this.change(start.urls.undo);
  },
  redo() {
    return this.change(start.urls.redo);
  },

  // ---- looking -------------------------------------------------------------------------

  look(name) {
    view.look(...VIEWS[name]);
  },
  // Close enough to see the chosen finding's own size.
  frameSelection() {
    const finding = this.findings.findings.find((f) => f.id === this.chosen);
    if (finding) view.frame(finding.center_mm, Math.max(8, Math.hypot(...this.state.size_mm) / 4));
  },
  togglePerspective() {
    this.perspective = !this.perspective;
    view.setPerspective(this.perspective);
  },
  toggleHide() {
    this.hideAbove = !this.hideAbove;
    this.showCut();
  },
  showCut() {
    view.setCut((this.layer + 0.5) * this.state.layer_height_mm, this.hideAbove);
  },
  setLayer(k, force = false) {
    const last = (this.findings.tower?.count ?? 1) - 1;
    const layer = Math.min(Math.max(Math.round(k) || 0, 0), Math.max(last, 0));
    if (layer === this.layer && !force) return;
    this.layer = layer;
    tower.setLayer(layer);
    this.showCut();
    if (this.freeCut) return;
    if (this.findings.ready && last >= 0)
      section.show(`${start.urls.section}${layer}/?v=${this.state.view_key}`);
  },
  step(by) {
    this.setLayer(this.layer + by);
  },
  // From the bottom up, once; again from the bottom when it has reached the top.
  play() {
    if (this.playing) {
      clearInterval(this.playing);
      this.playing = null;
      return;
    }
    const last = (this.findings.tower?.count ?? 1) - 1;
    if (this.layer >= last) this.setLayer(0);
    this.playing = setInterval(() => {
      this.step(1);
      if (this.layer >= (this.findings.tower?.count ?? 1) - 1) this.play();
    }, 60);
  },
  measureTower(by) {
    this.towerBy = by;
    tower.setMeasure(by);
  },
  drawn() {
    const scale = view.heightScale();
    tower.setScale(scale && scale.perMm > 0.55 * view.camera.zoom ? scale : null);
    for (const pin of this.$refs.pins.children) {
      const [x, y] = view.toScreen(pin.place);
      pin.style.translate = `${x}px ${y}px`;
      pin.hidden = (this.live !== null && !pin.dataset.turnLabel) || (this.hideAbove && pin.place[2] > (this.layer + 1) * this.state.layer_height_mm);
    }
  },
  pinsFor(places) {
    const labels = this.state.measures.filter((m) => m.value !== null).map((m) => {
      const label = document.createElement("span");
      const place = m.line_mm.length > 2 ? m.line_mm[0] : m.line_mm[0].map((_, i) => m.line_mm.reduce((sum, p) => sum + p[i], 0) / m.line_mm.length);
      Object.assign(label, { className: "measured", textContent: `${m.value.toFixed(m.unit === "°" ? 1 : 2)} ${m.unit}`, place });
      return label;
    });
    this.$refs.pins.replaceChildren(
      ...labels,
      ...places.map((f) => {
        const pin = document.createElement("button");
        Object.assign(pin, { className: "pin", textContent: f.number, title: f.title, place: f.center_mm, tabIndex: -1 });
        pin.dataset.pin = f.id;
        pin.addEventListener("click", () => this.choosePlace(f.id));
        return pin;
      }),
    );
  },

  // ---- findings ------------------------------------------------------------------------

  choose(target) {
    const { accept, takeBack, ways, turnTo, forkTo } = target.closest("button")?.dataset ?? {};
    const finding = target.closest("[data-finding]");
    const line = target.closest("[data-open]");
    if (accept) this.accept(accept, target.closest(".finding-actions").querySelector("input").value);
    else if (takeBack) this.takeBack(takeBack);
    else if (ways) this.showWaysOut(ways);
    else if (turnTo) this.turnTo(turnTo);
    else if (forkTo) this.forkTurned(forkTo.split(",").map(Number));
    else if (line) this.choosePlace(line.dataset.open);
    else if (finding) this.chooseFinding(finding.dataset.finding);
  },
  // A place by its worst finding; again on an open one closes it.
  choosePlace(id) {
    const place = this.findings.places.find((p) => p.id === id);
    const worst = place ? place.findings[0] : id;
    if (this.placeOf(this.chosen) === id) {
      this.chosen = null;
      this.markChosen();
    } else this.chooseFinding(worst);
  },
  placeOf(finding) {
    return finding && (this.findings.places.find((p) => p.findings.includes(finding))?.id ?? finding);
  },
  accept(id, note) {
    const finding = this.findings.findings.find((f) => f.id === id);
    return this.edit("accept", { finding: finding.kind, place: finding.place, note, burden: finding.burden, said_then: finding.short });
  },
  takeBack(id) {
    const finding = this.findings.findings.find((f) => f.id === id);
    return this.edit("take_back", { finding: finding.kind, place: finding.place });
  },
  chooseFinding(id) {
    const finding = this.findings.findings.find((f) => f.id === id);
    if (!finding) return;
    this.chosen = id;
    this.markChosen();
    this.setLayer(finding.layer);
    view.showPlace(finding.center_mm, finding.from_below);
  },
  markChosen(scroll = true) {
    const open = this.placeOf(this.chosen);
    for (const node of document.querySelectorAll("[data-place]")) {
      const isOpen = node.dataset.place === open;
      node.querySelector("[data-open]").setAttribute("aria-expanded", String(isOpen));
      node.querySelector(".place-body").hidden = !isOpen;
    }
    for (const node of document.querySelectorAll("[data-finding], .pin")) {
      const isChosen = node.dataset.pin ? node.dataset.pin === open : node.dataset.finding === this.chosen;
      node.setAttribute("aria-current", String(isChosen));
      if (scroll && isChosen && node.dataset.finding) {
        node.closest("[data-place]").querySelector("[data-open]").scrollIntoView({ block: "nearest" });
        node.scrollIntoView({ block: "nearest" });
      }
    }
    this.showChosenPatch();
  },
  showChosenPatch() {
    const finding = this.findings.findings.find((f) => f.id === this.chosen);
    const place = this.findings.places.find((p) => p.findings.includes(this.chosen));
    const patches = new Set(finding?.patch ? [finding.patch] : (place?.patches ?? []));
    const facets = [];
    if (patches.size) this.patches?.forEach((p, f) => patches.has(p) && facets.push(f));
    view.setChosenFacets(facets);
  },
  nextFinding(by) {
    const listed = this.findings.places.flatMap((p) => p.findings);
    const list = [...listed.map((id) => this.findings.findings.find((f) => f.id === id)),
      ...this.findings.findings.filter((f) => !listed.includes(f.id))];
    if (!list.length) return;
    const at = list.findIndex((f) => f.id === this.chosen);
    this.chooseFinding(list[(at + by + list.length + (at < 0 && by < 0 ? 1 : 0)) % list.length].id);
  },
  previewThreshold(degrees) {
    if (!(degrees >= 1 && degrees <= 89)) return;
    this.threshold = degrees;
    view.setThreshold(degrees);
    this.previewing = this.previewing ?? this.fetchPreview();
  },
  async fetchPreview() {
    try {
      let shown;
      do {
        shown = this.threshold;
        const findings = await getJson(`${start.urls.findings}?threshold=${shown}`);
        if (findings.ready && this.threshold !== this.state.threshold_deg) {
          this.findings = { findings: [], places: [], ...findings };
          this.fillLedger(findings.ledger_html);
          tower.setData(findings.tower, this.flags);
          this.markChosen();
        }
      } while (shown !== this.threshold);
    } catch (error) {
      this.problem = error.message;
    } finally {
      this.previewing = null;
    }
  },
  async commitThreshold() {
    const wanted = this.threshold;
    if (wanted === this.state.threshold_deg) return;
    await this.edit("threshold", { threshold_deg: wanted });
  },

  // ---- turn ----------------------------------------------------------------------------

  turn(axis, field) {
    const angles = [...this.state.angles_deg];
    angles[axis] = field.valueAsNumber;
    return this.edit("turn", { x_deg: angles[0], y_deg: angles[1], z_deg: angles[2] }, field);
  },

  // ---- pillars -------------------------------------------------------------------------

  async clicked(x, y, pillar) {
    if (this.picking) {
      const hit = view.pick(x, y);
      if (!hit) return;
      this.picking = false;
      return this.edit("face_down", { facet: hit.facet });
    }
    if (this.levelling) return this.levelAt(view.pick(x, y));
    if (this.painting) return this.paintAt(view.pick(x, y));
    if (this.measuring) return this.measureAt(view.pick(x, y));
    if (this.activity === "Prop") {
      const found = pillar?.key ? pillar : view.pickPillar(x, y);
      if (found) return this.choosePillar(found.key, false);
      const hit = view.pick(x, y);
      if (!hit) return;
      const before = new Set(this.state.pillars.map((p) => p.key));
      if (await this.edit("pillar", { facet: hit.facet, weights: hit.weights })) {
        const made = this.state.pillars.find((p) => !before.has(p.key));
        if (made) this.choosePillar(made.key, false);
      } else this.showRefused({ facet: hit.facet, weights: hit.weights });
      return;
    }
    const hit = view.pick(x, y);
    const patch = hit && this.patches?.[hit.facet];
    const place = patch && this.findings.places.find((p) => p.patches.includes(patch));
    const finding = patch && (this.findings.findings.find((f) => f.patch === patch) ?? this.findings.findings.find((f) => f.id === place?.findings[0]));
    if (finding) {
      this.chosen = finding.id;
      this.markChosen();
      this.setLayer(finding.layer);
    }
  },
  // A refused pillar is drawn where it would have stood, with the place that is in its way.
  async showRefused(parameters) {
    try {
      const ghost = await postJson(start.urls.preview, parameters);
      if (ghost.fit !== "stands") view.setPillars(Alpine.raw(this.state.pillars), this.pillarKey, ghost);
    } catch {
      // The sentence about the refusal is on the page already.
    }
  },
  choosePillar(key, move = true) {
    this.pillarKey = key;
    view.setPillars(Alpine.raw(this.state.pillars), key);
    const pillar = this.chosenPillar;
    this.drawChosenPillar();
    if (pillar && move) {
      view.showPlace(pillar.contact_mm, true);
      this.setLayer(this.state.layers_of_pillars[key]);
    }
  },
  drawChosenPillar() {
    drawProfile(this.$refs.profile, Alpine.raw(this.chosenPillar));
  },
  async previewPillar(key, hit) {
    this.dragTo = { key, hit };
    if (this.fitting) return;
    this.fitting = true;
    try {
      while (this.dragTo) {
        const { key: moved, hit: to } = this.dragTo;
        this.dragTo = null;
        const ghost = await postJson(start.urls.preview, { key: moved, facet: to.facet, weights: to.weights });
        if (this.fitting) view.setPillars(Alpine.raw(this.state.pillars), moved, ghost);
      }
    } catch (error) {
      this.problem = error.message;
    } finally {
      this.fitting = false;
    }
  },
  async dropPillar(key, hit) {
    this.dragTo = null;
    this.fitting = false;
    this.pillarKey = key;
    if (!hit) return view.setPillars(Alpine.raw(this.state.pillars), key);
    await this.edit("pillar", { key, facet: hit.facet, weights: hit.weights });
  },
  resize(name, field) {
    if (this.pillarKey) return this.edit("pillar", { key: this.pillarKey, size: { [name]: field.valueAsNumber } }, field);
  },
  removePillar() {
    if (this.pillarKey) return this.edit("remove_pillar", { key: this.pillarKey });
  },

  // ---- the free cut --------------------------------------------------------------------

  planeFields() {
    const reach = Math.hypot(...this.state.size_mm) / 2;
    return [["turn", "turn", -180, 180, "°"], ["tilt", "tilt", 0, 180, "°"], ["offset", "move", -reach, reach, "mm"]];
  },
  toggleFreeCut() {
    this.freeCut = !this.freeCut;
    if (this.freeCut) return this.showPlane();
    view.setPlane(null);
    this.setLayer(this.layer, true);
  },
  setPlane(name, value) {
    if (!Number.isFinite(value)) return;
    this.plane[name] = value;
    this.planeWanted = true;
    this.showPlane();
  },
  async showPlane() {
    this.planeWanted = true;
    if (this.cutting) return;
    this.cutting = true;
    try {
      while (this.planeWanted) {
        this.planeWanted = false;
        const { turn, tilt, offset } = this.plane;
        const cut = await getJson(`${start.urls.plane}?turn=${turn}&tilt=${tilt}&offset=${offset}`);
        if (!this.freeCut) return;
        section.clear();
        this.$refs.section.innerHTML = cut.html;
        view.setPlane(cut);
      }
    } catch (error) {
      this.problem = error.message;
    } finally {
      this.cutting = false;
    }
  },

  // ---- painted sides -------------------------------------------------------------------

  startPainting(side) {
    this.painting = this.painting === side ? "" : side;
    this.measuring = "";
  },
  grab(x, y) {
    if (this.activity === "Prop") return view.pickPillar(x, y);
    if (this.activity === "Turn" && !this.picking && !this.levelling) return this.grabArc(x, y);
    if (!this.painting || this.paintBy !== "brush") return null;
    const hit = view.pick(x, y);
    return hit && { stroke: [hit] };
  },
  paintAt(hit) {
    if (!hit) return;
    if (this.paintBy === "brush") return this.paintStroke([hit]);
    return this.edit("fill", { side: this.painting, facet: hit.facet, crease_deg: this.creaseDeg });
  },
  paintStroke(hits) {
    const touched = new Set();
    for (const hit of hits) for (const f of view.facetsNear(hit, this.brushMm / 2)) touched.add(f);
    const runs = [];
    for (const f of [...touched].sort((a, b) => a - b)) {
      const last = runs.at(-1);
      if (last && last[0] + last[1] === f) last[1]++;
      else runs.push([f, 1]);
    }
    return this.edit("paint", { side: this.painting, facets: runs });
  },

  // ---- measures and bodies -------------------------------------------------------------

  startMeasure(what) {
    this.measuring = this.measuring === what ? "" : what;
    this.painting = "";
    this.places = [];
  },
  async measureAt(hit) {
    if (!hit) return;
    this.places.push({ facet: hit.facet, weights: hit.weights });
    if (this.places.length < (this.measuring === "distance" ? 2 : 1)) return;
    const anchors = Alpine.raw(this.places);
    this.places = [];
    await this.edit("measure", { what: this.measuring, anchors });
  },
  async loadBodies() {
    try {
      this.bodies = this.bodies ?? (await getJson(start.urls.bodies));
      this.bodyOfFacet = this.bodyOfFacet ?? new Uint32Array(await getBytes(start.urls.body_of_facet));
    } catch (error) {
      this.problem = error.message;
    }
  },
  showAlone(number) {
    this.alone = this.alone === number ? 0 : number;
    const body = Alpine.raw(this.bodyOfFacet);
    view.setHidden(this.alone ? (f) => body[f] !== this.alone : null);
  },
  async separate() {
    try {
      const { url } = await postJson(start.urls.separate);
      location.href = url;
    } catch (error) {
      this.problem = error.message;
    }
  },

  // ---- hand over -----------------------------------------------------------------------

  async loadOffer() {
    const key = this.state.key;
    try {
      const offer = await getJson(start.urls.checks);
      if (this.state.key === key) this.offer = offer;
    } catch (error) {
      this.problem = error.message;
    }
  },

  setActivity(name) {
    if (name === "Compare") return (location.href = this.compareUrl);
    if (this.activity === "Turn" && name !== "Turn") this.leaveTurning();
    this.activity = name;
    if (name === "Turn") this.startTurning();
    this.picking = this.levelling = false;
    this.measuring = this.painting = "";
    if (name === "Hand over" && !this.offer) this.loadOffer();
  },

  tabId: (name) => `tab-${name.toLowerCase().replace(" ", "-")}`,
  // Along the tabs, as tabs are used: what is come to is shown, but Compare, which is another page.
  tabBy(by) {
    const tabs = this.activities.filter((name) => name !== "Compare");
    const at = Math.min(Math.max(tabs.indexOf(this.activity) + by, 0), tabs.length - 1);
    this.setActivity(tabs[at]);
    document.getElementById(this.tabId(tabs[at])).focus();
  },
  setLetterKeys(on) {
    this.letterKeys = on;
    localStorage.setItem("letter keys", on ? "on" : "off");
  },

  key(event) {
    const typing = event.target.closest?.("input, select, textarea, dialog");
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key.toLowerCase() === "z" && !(typing && (typing.type === "text" || typing.dataset.typed))) {
      event.preventDefault();
      return event.shiftKey ? this.redo() : this.undo();
    }
    if (typing || command || event.altKey || (!this.letterKeys && event.key.length === 1)) return;
    const acts = {
      "?": () => this.$refs.keys.showModal(),
      ArrowUp: () => this.step(1), ArrowDown: () => this.step(-1),
      PageUp: () => this.step(20), PageDown: () => this.step(-20),
      n: () => this.nextFinding(1), p: () => this.nextFinding(-1),
      b: () => this.look("below"), f: () => this.look("front"), l: () => this.look("left"),
      a: () => this.look("above"), w: () => this.look("home"), h: () => this.toggleHide(), m: () => this.play(), s: () => this.frameSelection(),
      Delete: () => this.activity === "Prop" && this.removePillar(),
      x: () => this.activity === "Turn" && this.nudge("x", event.shiftKey ? -1 : 1),
      y: () => this.activity === "Turn" && this.nudge("y", event.shiftKey ? -1 : 1),
      z: () => this.activity === "Turn" && this.nudge("z", event.shiftKey ? -1 : 1),
      Escape: () => (this.stopPreview(), view.markPlaces([]), (this.picking = this.levelling = false), (this.painting = ""), (this.measuring = ""), (this.places = [])),
    };
    const act = acts[event.key] ?? acts[event.key.toLowerCase()];
    const activity = this.activities[Number(event.key) - 1];
    if (activity) this.setActivity(activity);
    else if (act) {
      event.preventDefault();
      act();
    }
  },
}));

Alpine.start();
