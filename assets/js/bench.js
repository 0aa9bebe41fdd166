// The bench: shows what the server says of the stance, and hands clicks to the activity.
import Alpine from "alpinejs";
import { activityOf, everyActivity, mixed } from "./activities/index.js";
import { cancelWork, follow, getBytes, getJson, postJson, whileBusy } from "./api.js";
import { watch } from "./gestures.js";
import { View3D } from "./scene/view3d.js";
import { Section } from "./section.js";
import { stage, start } from "./stage.js";
import { Store } from "./store.js";
import { stancesStrip } from "./strip.js";
import { Tower } from "./tower.js";
import { waysOut } from "./ways_out.js";
import { grouped } from "./numbers.js";

const VIEWS = { home: [28, 14], front: [0, 0], left: [-90, 0], above: [0, 89.9], below: [20, -32] };
// So long at most is a fine mesh that opens drawn with few facets, where there is no graphics card.
const ROUGHLY_MS = 6000;
let view, tower, section, store;

Alpine.data("bench", () => mixed(...everyActivity().map((a) => a.data ?? {}), waysOut, stancesStrip, {
  activities: start.activities,
  activity: start.activities[0].key,
  // What a column holds is made when it is come to for the first time.
  opened: [start.activities[0].key],
  state: start.state,
  findings: { ready: false, error: "", findings: [], places: [], overhang: null },
  threshold: start.state.threshold_deg,
  layer: 0,
  chosen: null,
  hideAbove: false,
  sectionOpen: false,
  columnOpen: true,
  letterKeys: localStorage.getItem("letter keys") !== "off",
  perspective: false,
  loading: "Loading the model …",
  problem: "",
  work: null,
  making: null, // what an edit waits for
  stopped: "",
  playing: null,
  drawingUrl: start.state.drawing_url,
  freeCut: false,
  plane: { turn: 0, tilt: 90, offset: 0 },
  towerBy: "area_mm2",
  layersUrl: start.urls.layers,

  get layerHeightText() {
    return `layers of ${this.tidy(this.state.layer_height_mm)} mm`;
  },
  get sizeText() {
    return this.state.size_mm.map((v) => v.toFixed(2)).join(" × ") + " mm";
  },
  get figures() {
    const count = (n, word) => `${n} ${word}${n === 1 ? "" : "s"}`;
    const parts = [`height ${this.state.top_mm.toFixed(1)} mm`];
    if (this.findings.ready) {
      parts.push(`${this.findings.tower.count} layers`, `overhang ${grouped(this.findings.overhang.area_mm2)} mm²`,
        count(this.findings.findings.filter((f) => f.kind === "island").length, "island"),
        count(this.findings.problems, "problem"));
    }
    parts.push(count(this.state.pillars.length, this.state.pillars.every((p) => p.kind === "pillar") ? "pillar" : "support"));
    if (this.findings.ready) {
      const { grid_support_mm3: grid, time_s: time, scar_mm2: scar } = this.findings.estimate;
      parts.push(`supports ${grouped(grid)} mm³`, `${(time / 60).toFixed(0)} min`);
      if (scar) parts.push(`marks ${grouped(scar)} mm²`);
    }
    return parts.map((part) => part.replaceAll(" ", "\u00a0")).join(" · ");
  },
  get hint() {
    return activityOf(this.activity).hint?.(this) ?? "";
  },
  // A click goes to the tool that is in hand, not to a flag that stands there.
  get toolInHand() {
    return Boolean(activityOf(this.activity).inHand?.(this));
  },
  get undoText() {
    return this.state.undo ? `Undo: ${this.state.undo} (Ctrl+Z)` : "Nothing to undo";
  },
  get redoText() {
    return this.state.redo ? `Redo: ${this.state.redo} (Ctrl+Shift+Z)` : "Nothing to redo";
  },
  get stripUndoText() {
    return `Undo: ${this.stripUndo}`;
  },
  get stripRedoText() {
    return `Redo: ${this.stripRedo}`;
  },
  get layerUrl() {
    return `${start.urls.section}${this.layer}.svg`;
  },
  barOf: (work) => ({ width: `${(work ? work.done : 0) * 100}%` }),
  dyed: (rgb) => ({ background: rgb }),
  // What is being typed stays, whatever an answer brings meanwhile.
  // As text: a number would be written anew each time, and what is selected to be typed over lost.
  // Where another comes while the field waits to be typed in, typing replaces that one.
  typedOr(field, value) {
    if (field.dataset.typed) return field.value;
    const text = String(value ?? "");
    if (document.activeElement === field && field.value !== text) queueMicrotask(() => field.select());
    return text;
  },
  tidy: (value) => Number(Number(value).toFixed(4)),

  async init() {
    view = stage.view = new View3D(this.$refs.canvas, start.state.facets, start.state.is_closed, () => this.drawn());
    this.$refs.canvas.view = view; // for scripts that drive the page: canvas.view.toScreen([x, y, z])
    tower = stage.tower = new Tower(this.$refs.tower, (k) => this.setLayer(k), (id) => this.choosePlace(id));
    section = stage.section = new Section(this.$refs.section, (error) => this.refused(error));
    store = stage.store = new Store(start.state, start.urls, (state, isElsewhere) => this.taken(state, isElsewhere));
    const doing = () => activityOf(this.activity);
    watch(this.$refs.canvas, view, {
      grab: (x, y, event) => doing().grab?.(this, x, y, event) ?? null,
      dragging: (held, hit) => doing().dragging?.(this, held, hit),
      dropped: (held, hit) => doing().dropped?.(this, held, hit),
      clicked: (x, y, held, event) => doing().click?.(this, x, y, held, event),
    });
    this.$refs.canvas.addEventListener("pointermove", (e) => e.buttons || doing().hover?.(this, e));
    // What is typed but not taken yet is undone by the field itself.
    window.addEventListener("input", (e) => e.target.dataset && (e.target.dataset.typed = "1"));
    window.addEventListener("change", (e) => e.target.dataset && delete e.target.dataset.typed);
    window.addEventListener("making", (e) => (this.making = e.detail));
    window.addEventListener("error", () => (this.problem = "Something went wrong on this page; reload it."));
    try {
      view.roughlyFor(ROUGHLY_MS);
      await this.loadMesh(start.state);
      this.loading = "";
      // Before anything is waited for: where the maker looks meanwhile stays.
      view.setState(Alpine.raw(start.state));
      this.look("home");
      await this.show(this.state);
      document.documentElement.dataset.ready = "1";
    } catch (error) {
      this.loading = error.message;
    }
  },

  // ---- what the server says ------------------------------------------------------------

  async loadMesh(state) {
    if (this.shownMesh === state.mesh_url) return;
    const [mesh, creases] = await Promise.all([getBytes(state.mesh_url), getBytes(state.creases_url)]);
    if (this.state.mesh_url !== state.mesh_url) return;
    if (this.shownMesh) this.forgetBodies();
    const [n, m] = new Uint32Array(mesh, 0, 2);
    view.setMesh(new Float32Array(mesh, 8, 3 * n), new Uint32Array(mesh, 8 + 12 * n, 3 * m), new Uint32Array(creases));
    this.shownMesh = state.mesh_url;
    this.shownSlopes = this.shownSides = this.shownColours = null;
  },

  // A state that the store has taken over; what changed is drawn at once, its findings follow.
  taken(state, isElsewhere) {
    if (isElsewhere) this.problem = "This was changed in another window; the page shows it as it is now.";
    whileBusy(this.show(state)).catch((error) => (this.problem = error.message));
  },

  async show(state) {
    if (state.process !== this.state.process) this.weights = {}; // each process has its own
    const isAnother = state.part !== this.state.part;
    this.state = state;
    this.threshold = state.threshold_deg;
    this.offer = null;
    this.endPreview();
    if (state.note) this.problem = state.note;
    this.keepChosen(state);
    view.setState(Alpine.raw(state));
    if (isAnother) view.frame(null, null); // a plug and what it closes are not of one size
    this.drawSupports();
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
    await this.loadMesh(state);
    if (this.state.mesh_url !== state.mesh_url) return;
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
    if (state.colours_url !== this.shownColours) {
      this.shownColours = state.colours_url;
      view.setColours(state.colours_url ? new Uint32Array(await getBytes(state.colours_url)) : null);
    }
    await view.shown(); // the picture first: findings and drawing would take its time
    if (this.state.key !== state.key) return; // another change has come since
    await this.showFindings(await getJson(start.urls.findings));
    this.drawingUrl = this.state.drawing_url;
    activityOf(this.activity).shown?.(this);
    if (this.findings.ready) await this.refreshStrip();
  },

  // What does not belong to the present state any more was changed elsewhere: catch up.
  async refused(error) {
    if (error.status !== 409) this.problem = error.message;
    else await store.catchUp().catch((again) => (this.problem = again.message));
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
    this.loadPatches().finally(() => view.roughlyFor(0));
  },

  async slice() {
    if (this.slicing === this.state.key) return;
    const key = (this.slicing = this.state.key);
    this.stopped = "";
    try {
      const { work } = await postJson(start.urls.slice);
      this.work = work;
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

  // Work that was begun before the page was loaded is followed again.
  async joinWork(kind, follow) {
    try {
      const { open } = await getJson(start.urls.work);
      const work = open.find((one) => one.kind === kind && one.go === start.urls.page);
      if (work) follow(...work.asked);
    } catch (error) {
      this.problem = error.message;
    }
  },
  get makingText() {
    return this.making ? `${this.making.title}: ${this.making.stage}` : "";
  },
  async cancelMaking() {
    if (this.making) await cancelWork(this.making).catch((error) => (this.problem = error.message));
  },

  async cancelWork() {
    try {
      if (this.work) await cancelWork(this.work);
    } catch (error) {
      this.problem = error.message;
    }
  },

  // Makes a change; whether it was made. A field that was refused is marked.
  async change(url, body, field) {
    this.problem = "";
    const refused = await store.change(url, body);
    if (!refused) {
      field?.removeAttribute("aria-invalid");
      return true;
    }
    this.problem = refused.message;
    if (refused.status === 409) return false;
    field?.setAttribute("aria-invalid", "true");
    this.drawSupports();
    this.threshold = this.state.threshold_deg;
    return false;
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
    // Until the findings of a change are there, layers are counted as they were before it.
    if (this.findings.ready && last >= 0 && this.findings.key === this.state.key)
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
      pin.hidden = this.pair !== null || (this.changeTool && !pin.classList.contains("measured")) || (this.live !== null && !pin.dataset.turnLabel) || (this.hideAbove && pin.place[2] > (this.layer + 1) * this.state.layer_height_mm);
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

  // ---- the free cut --------------------------------------------------------------------

  planeFields() {
    const reach = Math.hypot(...this.state.size_mm) / 2;
    const row = (name, label, low, high, unit) => ({
      name, label, low, high, unit, field: `plane-${name}`, range: `plane-${name}-range`, said: `${label} of the cut`, typed: `${label} of the cut, typed`,
    });
    return [row("turn", "turn", -180, 180, "°"), row("tilt", "tilt", 0, 180, "°"), row("offset", "move", -reach, reach, "mm")];
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

  // ---- activities ----------------------------------------------------------------------

  setActivity(key) {
    const next = activityOf(key);
    if (next.goesTo) return (location.href = next.goesTo(this));
    if (key === this.activity) return;
    activityOf(this.activity).leave?.(this);
    // Each activity's column is where it was left.
    const column = this.$refs.column;
    this.scrolled = { ...this.scrolled, [this.activity]: column.scrollTop };
    this.activity = key;
    const isMade = this.opened.includes(key);
    if (!isMade) this.opened = [...this.opened, key];
    else next.enter?.(this);
    this.$nextTick(() => {
      column.scrollTop = this.scrolled[key] ?? 0;
      if (!isMade && this.activity === key) next.enter?.(this);
    });
  },
  // Along the tabs, as tabs are used: what is come to is shown, but not what is another page.
  tabBy(by) {
    const tabs = this.activities.map((a) => a.key).filter((key) => !activityOf(key).goesTo);
    const at = Math.min(Math.max(tabs.indexOf(this.activity) + by, 0), tabs.length - 1);
    this.setActivity(tabs[at]);
    document.getElementById(`tab-${tabs[at]}`).focus();
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
    const doing = activityOf(this.activity);
    const acts = {
      "?": () => this.$refs.keys.showModal(),
      ArrowUp: () => this.step(1), ArrowDown: () => this.step(-1),
      PageUp: () => this.step(20), PageDown: () => this.step(-20),
      n: () => this.nextFinding(1), p: () => this.nextFinding(-1),
      b: () => this.look("below"), f: () => this.look("front"), l: () => this.look("left"),
      a: () => this.look("above"), w: () => this.look("home"), h: () => this.toggleHide(), m: () => this.play(), s: () => this.frameSelection(),
      Escape: () => doing.escape?.(this),
    };
    const named = (list) => list?.[event.key] ?? list?.[event.key.toLowerCase()];
    const act = named(acts);
    const own = named(doing.keys);
    const activity = this.activities[Number(event.key) - 1];
    if (activity) return this.setActivity(activity.key);
    if (!act && !own) return;
    event.preventDefault();
    if (own) own(this, event);
    else act();
  },
}));

Alpine.start();
