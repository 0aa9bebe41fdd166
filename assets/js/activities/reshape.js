// Reshape: small changes of shape, tried live, listed, switched on and off, ordered, looked at before and after.
import Alpine from "alpinejs";
import { cancelWork, follow, getBytes, getJson, postJson } from "../api.js";
import { HatchLayer } from "../scene/hatch.js";
import { TogetherLayer } from "../scene/together.js";
import { stage, start } from "../stage.js";
import { withDigits } from "../numbers.js";
import { register } from "./register.js";

const urls = () => start.urls.reshape;
const grouped = (value) => withDigits(value, 0, value < 10 ? 1 : 0);
const cornersOf = (text) => new Float32Array(Uint8Array.from(atob(text), (c) => c.charCodeAt(0)).buffer);
const kindOf = (key) => start.changes.find((kind) => kind.key === key);
const BEFORE_KEY = "o";
const RESTS_MS = 1200;
const SHOWN_CLEARED = 3;
let hatch, was;

register("reshape", {
  hint(bench) {
    if (!bench.changeTool) return "";
    if (bench.changePlace || bench.changeTried) return "Drag the ball up or down, or type; another click chooses another place";
    return kindOf(bench.changeTool).needs_place ? "Click the place" : "";
  },
  inHand: (bench) => Boolean(bench.changeTool),
  enter(bench) {
    hatch ??= new HatchLayer(stage.view);
    was ??= new TogetherLayer(stage.view);
    bench.watchBefore(true);
    bench.joinWork("find_small", ({ volume_mm3: volume, move_mm: move }) => {
      if (bench.smallWork) return;
      Object.assign(bench, { smallVolume: volume, smallMove: move });
      bench.findSmall();
    });
  },
  leave(bench) {
    bench.endChange();
    bench.showBefore(false);
    bench.watchBefore(false);
  },
  shown(bench) {
    if (bench.smallOf !== bench.state.key) bench.small = null;
    if (bench.changeTool) bench.tryChange();
  },
  grab(bench, x, y, event) {
    if (!bench.changeTool || !hatch?.holds(x, y)) return null;
    const row = bench.changeRows.find((r) => !r.choices.length);
    if (!row) return null;
    const from = row.value;
    const by = (row.unit === "°" ? 0.25 : Math.max(from, 0.5) / 60);
    return {
      follow: (e) => bench.dragChangeSize(row.name, Number(Math.min(Math.max(from - (e.clientY - event.clientY) * by, row.low), row.high).toFixed(2))),
      drop: () => bench.restChange(),
    };
  },
  click(bench, x, y) {
    if (bench.changeTool) bench.changeAt(stage.view.pick(x, y));
  },
  escape: (bench) => bench.endChange(),
  data: {
    changeKinds: start.changes,
    changeTool: "",
    changeKey: "", // of the change that is being changed; empty for a new one
    changePlace: null,
    changePoint: null,
    changeSize: {},
    changeMoving: false,
    changeTurn: 0, // counts those that were begun
    changeBoth: false,
    changeTried: null,
    changeWork: null,
    changeProblem: "",
    changeGain: null,
    changeRefused: false,
    beforeShown: false,
    small: null,
    smallTicked: [],
    smallWork: null,
    smallVolume: 2000,
    smallMove: 20,

    get changeAbout() {
      return kindOf(this.changeTool)?.about ?? "";
    },
    get changeNeedsPlace() {
      return Boolean(kindOf(this.changeTool)?.needs_place) && !this.changePlace && !this.changeKey;
    },
    // As typed, as tried, or as it usually is.
    sizeNow(name) {
      return this.changeSize[name] ?? this.changeTried?.size[name] ?? this.state.usual_sizes[this.changeTool]?.[name];
    },
    firstChoice(kind, name) {
      return kind.dimensions.find((d) => d.key === name).choices[0];
    },
    get changeRows() {
      const kind = kindOf(this.changeTool);
      if (!kind) return [];
      const counts = ({ only_with: [name, choice] }) => !name || (this.sizeNow(name) ?? this.firstChoice(kind, name)) === choice;
      return kind.dimensions.filter(counts).map((d) => ({ ...d, name: d.key, field: `change-${d.key}`, range: `change-${d.key}-range`, value: this.sizeNow(d.key) ?? d.choices[0] ?? d.low,
        top: d.unit === "°" ? d.high : Math.min(d.high, 4 * Math.max(this.sizeNow(d.key) ?? 1, 1)) }));
    },
    get changeBody() {
      const { changeKey: key, changeTool: change, changePlace: place } = this;
      return { ...(key ? { key } : { change }), ...(place ? { places: [place] } : {}), ...(place && this.changeBoth ? { both: true } : {}), size: this.changeSize };
    },
    beginChange(key) {
      const again = this.changeTool === key && !this.changeKey;
      this.endChange();
      if (again) return;
      this.changeTool = key;
      this.changeTurn += 1;
      this.tryChange();
    },
    // A change that was made, with its numbers, to be made otherwise.
    openChange(one) {
      this.endChange();
      this.changeTurn += 1;
      Object.assign(this, { changeTool: one.change, changeKey: one.key, changeSize: { ...one.size }, changePoint: one.places_mm[0] ?? null });
      this.tryChange();
    },
    changeAt(hit) {
      if (!hit) return;
      this.changePlace = { facet: hit.facet, weights: hit.weights };
      this.changePoint = hit.point;
      this.tryChange();
    },
    setChangeSize(name, value) {
      if (typeof value === "number" && !Number.isFinite(value)) return;
      this.changeSize = { ...this.changeSize, [name]: value };
      this.tryChange();
    },
    // While the hand moves, what takes long is only sketched; it is worked out where it rests.
    dragChangeSize(name, value) {
      this.changeMoving = true;
      this.setChangeSize(name, value);
      clearTimeout(this.restTimer);
      this.restTimer = setTimeout(() => this.restChange(), RESTS_MS);
    },
    restChange() {
      clearTimeout(this.restTimer);
      this.changeMoving = false;
      this.tryChange();
    },
    setChangeBoth(on) {
      this.changeBoth = on;
      this.tryChange();
    },
    // The newest is asked for, never a queue of old ones.
    async tryChange() {
      if (!this.changeTool || this.changeNeedsPlace) return;
      this.changeWanted = true;
      if (this.changeAsking) {
        // What is being worked out in the background is for numbers that hold no more.
        this.cancelTried();
        return;
      }
      this.changeAsking = true;
      try {
        while (this.changeWanted && this.changeTool) {
          this.changeWanted = false;
          const of = this.state.key;
          try {
            const tried = await this.askTried({ ...this.changeBody, is_moving: this.changeMoving });
            if (!this.changeTool || this.state.key !== of) continue;
            if (tried) this.showTried(tried);
            else if (!this.changeWanted) this.showNoChange("Stopped; with other numbers it is tried again.");
          } catch (error) {
            this.showNoChange(error.message);
          }
        }
      } finally {
        this.changeAsking = false;
      }
      this.askGain();
    },
    showNoChange(problem) {
      this.changeTried = this.changeGain = null;
      this.changeProblem = problem;
      hatch.update(null, null, null);
    },
    showTried(tried) {
      this.changeTried = tried;
      this.changeProblem = "";
      hatch.update(cornersOf(tried.added), cornersOf(tried.taken), this.changeHandle(tried), tried.is_about);
    },
    // What takes long is worked out in the background; null where that was cancelled.
    async askTried(body) {
      const told = await postJson(urls().try, body);
      if (!told.work) return told;
      this.changeTried = null;
      this.changeProblem = "";
      this.changeWork = told.work;
      try {
        // Meanwhile it is sketched, where that is quick.
        const about = await postJson(urls().try, { ...body, is_moving: true }).catch(() => null);
        if (about?.is_about && this.changeTool && !this.changeWanted) this.showTried(about);
        const ended = await follow(told.work, (w) => (this.changeWork = w));
        if (ended.state === "cancelled") return null;
        if (ended.state !== "done") throw new Error(ended.error);
      } finally {
        this.changeWork = null;
      }
      const found = await postJson(urls().try, body);
      return found.work ? null : found;
    },
    async cancelTried() {
      if (this.changeWork) await cancelWork(this.changeWork).catch((error) => (this.problem = error.message));
    },
    changeHandle(tried) {
      if (this.changePoint) return [...this.changePoint];
      const corners = cornersOf(tried.added || tried.taken);
      return corners.length ? [corners[0], corners[1], corners[2]] : null;
    },
    // The ledger follows when the hand has stopped.
    askGain() {
      clearTimeout(this.gainTimer);
      this.changeGain = null;
      if (!this.changeTried || this.changeTried.is_about) return;
      this.gainTimer = setTimeout(async () => {
        const body = this.changeBody;
        try {
          const gain = await postJson(urls().gain, body);
          if (JSON.stringify(body) === JSON.stringify(this.changeBody) && this.changeTool) this.changeGain = gain;
        } catch {
          this.changeGain = null;
        }
      }, 300);
    },
    get changeCoarse() {
      return this.changeTried?.is_about ? "" : null;
    },
    get changeText() {
      const t = this.changeTried;
      if (!t) return "";
      if (t.is_about) return this.changeWork ? "About so; its numbers come." : "Let go, and its numbers come.";
      const parts = [];
      if (t.added_mm3 > 0.005) parts.push(`${grouped(t.added_mm3)} mm³ added`);
      if (t.taken_mm3 > 0.005) parts.push(`${grouped(t.taken_mm3)} mm³ taken away`);
      return `${parts.join(", ")}; the surface moves by ${t.farthest_mm.toFixed(2)} mm at most.`;
    },
    get gainText() {
      const g = this.changeGain;
      if (this.changeTried?.is_about) return "";
      if (!g) return this.changeTried ? "Looking what the ledger gains …" : "";
      const kinds = new Set([...Object.keys(g.before.kinds), ...Object.keys(g.after.kinds)]);
      const changed = [...kinds].map((k) => [k, g.before.kinds[k] ?? 0, g.after.kinds[k] ?? 0]).filter(([, a, b]) => a !== b).map(([k, a, b]) => `${k} ${a} → ${b}`);
      return `Problems ${g.before.problems} → ${g.after.problems}${changed.length ? `: ${changed.join(", ")}` : ""}.`;
    },
    async takeChange(insist = false) {
      const turn = this.changeTurn;
      const made = await this.edit("reshape", { ...this.changeBody, insist });
      if (turn !== this.changeTurn) return; // another one was begun meanwhile, and stays
      this.changeRefused = !made && !insist;
      if (made) this.endChange();
    },
    // Before the foot is flattened: the points that it would come to rest on, brought level.
    async levelFirst() {
      try {
        const { anchors } = await getJson(urls().low);
        if (await this.edit("level", { anchors })) this.tryChange();
      } catch (error) {
        this.changeProblem = error.message;
      }
    },
    endChange() {
      clearTimeout(this.gainTimer);
      clearTimeout(this.restTimer);
      this.cancelTried();
      Object.assign(this, { changeMoving: false, changeTool: "", changeKey: "", changePlace: null, changePoint: null, changeSize: {}, changeTried: null, changeGain: null, changeProblem: "", changeRefused: false });
      hatch?.update(null, null, null);
    },

    // ---- the list --------------------------------------------------------------------------

    changeSaid(one) {
      const { told } = one;
      if (!one.on) return "off";
      const parts = [];
      if (told.added_mm3 > 0.005) parts.push(`+${grouped(told.added_mm3)} mm³`);
      if (told.taken_mm3 > 0.005) parts.push(`−${grouped(told.taken_mm3)} mm³`);
      parts.push(`moves ${told.farthest_mm.toFixed(1)} mm`);
      return parts.join(", ");
    },
    switchChange(one) {
      return this.edit("reshapes", one.on ? { off: [one.key] } : { on: [one.key] });
    },
    removeChange(key) {
      if (this.changeKey === key) this.endChange();
      return this.edit("reshapes", { remove: [key] });
    },
    moveChange(key, by) {
      const order = this.state.changes.map((c) => c.key);
      const at = order.indexOf(key);
      const to = Math.min(Math.max(at + by, 0), order.length - 1);
      if (to === at) return null;
      order.splice(to, 0, ...order.splice(at, 1));
      return this.edit("reshapes", { order });
    },
    dragChange(event, key) {
      event.dataTransfer.setData("text/plain", key);
      this.changeDragged = key;
    },
    dropChange(key) {
      const order = this.state.changes.map((c) => c.key);
      const by = order.indexOf(key) - order.indexOf(this.changeDragged);
      return this.changeDragged && by ? this.moveChange(this.changeDragged, by) : null;
    },

    // ---- before and after ------------------------------------------------------------------

    watchBefore(on) {
      this.beforeKeys ??= [
        (e) => e.key.toLowerCase() === BEFORE_KEY && !e.repeat && this.letterKeys && !e.ctrlKey && !e.metaKey && !e.target.closest?.("input, select, textarea") && this.showBefore(true),
        (e) => e.key.toLowerCase() === BEFORE_KEY && this.showBefore(false),
      ];
      const act = on ? "addEventListener" : "removeEventListener";
      window[act]("keydown", this.beforeKeys[0]);
      window[act]("keyup", this.beforeKeys[1]);
    },
    async showBefore(on) {
      if (on === this.beforeShown || !was) return;
      this.beforeShown = on;
      if (!on) return was.update([], false);
      try {
        if (this.beforeOf !== this.state.key) {
          this.beforeCorners = new Float32Array(await getBytes(`${urls().before}?v=${this.state.key}`));
          this.beforeOf = this.state.key;
        }
        if (this.beforeShown) was.update([{ corners: Alpine.raw(this.beforeCorners), colour: "sand" }], true);
      } catch (error) {
        this.beforeShown = false;
        this.refused(error);
      }
    },

    // ---- all that is small -----------------------------------------------------------------

    async findSmall() {
      const of = this.state.key;
      this.small = null;
      this.smallTicked = [];
      try {
        const limits = { volume_mm3: this.smallVolume, move_mm: this.smallMove };
        const told = await postJson(urls().small, limits);
        if (!told.work) return this.showSmall(told, of);
        this.smallWork = told.work;
        // Those found so far are shown as they come, and stay however it ends.
        const ended = await follow(told.work, (w) => {
          this.smallWork = w.open ? w : null;
          if (this.state.key === of) this.showSmall(w.result, of);
        });
        if (ended.state === "failed") this.problem = ended.error;
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.smallWork = null;
      }
    },
    showSmall(told, of) {
      if (!told.changes) return;
      const known = this.small?.length ?? 0;
      this.small = told.changes;
      this.smallLarger = told.larger;
      this.smallNotTried = told.not_tried;
      this.smallTicked = [...this.smallTicked.filter((i) => i < known), ...told.changes.map((_, i) => i).slice(known)];
      this.smallOf = of;
    },
    smallLarger: 0,
    smallNotTried: [],
    async cancelSmall() {
      if (this.smallWork) await cancelWork(this.smallWork).catch((error) => (this.problem = error.message));
    },
    isTicked(i) {
      return this.smallTicked.includes(i);
    },
    tickSmall(i) {
      this.smallTicked = this.isTicked(i) ? this.smallTicked.filter((k) => k !== i) : [...this.smallTicked, i];
    },
    get smallText() {
      if (!this.small) return "";
      const more = this.smallLarger ? ` ${this.smallLarger} more are larger than that.` : "";
      if (this.smallWork) return `${this.small.length} found so far.`;
      return this.small.length ? `${this.small.length} found, each checked with those above it made.${more}` : `None was found that clears a problem.${more}`;
    },
    smallRowText({ clears }) {
      const more = clears.length - SHOWN_CLEARED;
      return `clears ${clears.slice(0, SHOWN_CLEARED).join(", ")}${more > 0 ? ` and ${more} more` : ""}`;
    },
    async makeSmall() {
      const edits = this.small.filter((_, i) => this.isTicked(i)).map((one) => ({ kind: "reshape", parameters: { change: one.change, places: one.places, size: one.size } }));
      if (edits.length) await this.edit("several", { edits, what: `${edits.length} small change${edits.length === 1 ? "" : "s"}` });
    },
  },
});
