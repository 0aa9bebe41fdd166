// Turn: arcs and knob, the map of every direction, proposals, size and place.
import Alpine from "alpinejs";
import * as THREE from "three";
import { cancelWork, follow, getBytes, postForBytes, postJson } from "../api.js";
import { Arcs } from "../scene/arcs.js";
import { stage, start } from "../stage.js";
import { grouped, withDigits } from "../numbers.js";
import { register } from "./register.js";
import { shadeOf, TurnMap } from "./turn_map.js";

const CALM_MS = 700;
let arcs, map, numbers;
let heldArc = null; // outside the component, which would hand back a wrapping of it

const about = (axis) => (bench, event) => bench.nudge(axis, event.shiftKey ? -1 : 1);

register("turn", {
  hint(bench) {
    if (bench.picking) return "Click the face that shall lie on the plate";
    if (bench.levelling) return bench.places.length ? "Click the second point" : "Click the first of two points";
    return "";
  },
  inHand: (bench) => bench.picking || bench.levelling,
  enter: (bench) => bench.startTurning(),
  leave: (bench) => bench.leaveTurning(),
  shown(bench) {
    bench.changedAt = performance.now();
    if (!bench.turnsStopped) bench.loadTurns(bench.looksByItself());
  },
  grab: (bench, x, y) => (bench.picking || bench.levelling ? null : bench.grabArc(x, y)),
  click(bench, x, y) {
    const hit = stage.view.pick(x, y);
    if (bench.picking) return bench.setFaceDown(hit);
    if (bench.levelling) return bench.levelAt(hit);
    return bench.choosePatchAt(hit);
  },
  hover: (bench, event) => bench.hoverArc(event),
  escape(bench) {
    bench.stopPreview();
    stage.view.markPlaces([]);
    bench.picking = bench.levelling = false;
    bench.places = [];
  },
  keys: { x: about("x"), y: about("y"), z: about("z") },
  data: {
    picking: false,
    ownAxes: false,
    levelling: false,
    lean: { by: 30, toward: 0 },
    live: null,
    turns: null,
    turnsWork: null,
    turnsOf: null, // what is being looked up, while it is
    turnsStopped: "",
    goal: "all",
    hovered: null,
    weights: {},
    keepProportions: true,

    get shownAngles() {
      return this.live?.angles_deg ?? this.state.angles_deg;
    },
    get liveText() {
      if (!this.live) return "";
      const g = this.live.goals;
      return `overhang ${grouped(g.area)} mm² · ${this.live.islands} island${this.live.islands === 1 ? "" : "s"} · height ${this.live.top_mm.toFixed(1)} mm · first layer ${g.start.toFixed(1)} mm across`;
    },
    get goalShown() {
      return this.turns?.goals.find((g) => g.key === this.goal) ?? null;
    },
    get weightRows() {
      return this.turns ? this.turns.goals.slice(1).filter((g) => g.key !== "marks" || this.turns.has_show_side).map((g) => [g.key, g.label]) : [];
    },
    goalNumber(goal, value) {
      if (value === null || value === undefined) return "–";
      const digits = goal.key === "copies" ? 0 : goal.key === "growth" || goal.key === "all" ? 2 : goal.key === "islands" || Math.abs(value) < 10 ? 1 : 0;
      return `${withDigits(value, digits, digits)}${goal.unit === "°" ? "°" : goal.unit ? ` ${goal.unit}` : ""}`;
    },
    get goalEnds() {
      return this.goalShown?.ends ?? ["", ""];
    },
    get goalText() {
      const g = this.goalShown;
      if (!g) return "";
      const here = this.hovered === null ? "" : `${this.goalNumber(g, g.values[this.hovered])} there, `;
      const off = g.estimate === null ? "" : ` Estimate; off by up to ${(100 * g.estimate).toFixed(0)} % where it was measured on this piece.`;
      const now = g.present === null ? "" : `${this.goalNumber(g, g.present)} as it stands`;
      return `${g.measure}${here || now ? ": " : ""}${now ? here : here.replace(", ", "")}${now}.${off}`;
    },
    get standsBest() {
      return this.turns?.proposals[0]?.text === "stay as it is";
    },
    get outsideText() {
      return `Leaves the build volume by ${this.state.outside.join(", ")}.`;
    },
    weightField: (key) => `weight-${key}`,
    usualWeights() {
      this.weights = {};
      return this.loadTurns(true);
    },
    turn(axis, field) {
      const angles = [...this.state.angles_deg];
      angles[axis] = field.valueAsNumber;
      return this.edit("turn", { x_deg: angles[0], y_deg: angles[1], z_deg: angles[2] }, field);
    },
    shade: (t) => `rgb(${shadeOf(t).join(" ")})`,
    sentence: (text) => text.charAt(0).toUpperCase() + text.slice(1),
    proposalNote(p) {
      const parts = [p.angles_deg.map((a) => `${Number(a.toFixed(1))}°`).join(", ")];
      if (p.on_face) parts.push("on a face");
      if (p.broad_deg !== null && p.broad_deg > 1 && p.broad_deg < 89.5) {
        const usual = p.usual_lean && p.broad_deg >= 30 && p.broad_deg <= 45;
        parts.push(`broad face at ${p.broad_deg.toFixed(0)}°${usual ? ", within the usual 30° to 45°" : ""}`);
      }
      parts.push(`${p.minutes.toFixed(0)} min`);
      return parts.join(" · ");
    },

    // ---- arcs ----------------------------------------------------------------------------

    startTurning() {
      const { view } = stage;
      arcs = arcs ?? new Arcs(view);
      view.beforeDraw = (perMm) => arcs.scale(perMm);
      this.placeArcs();
      if (!arcs.isInView()) this.look("home");
      arcs.show(true);
      this.$refs.canvas.arcs = arcs; // for scripts that drive the page
      // The server makes the model ready to be followed before the hand is there.
      postForBytes(start.urls.live, { kind: "turn_by", parameters: { axis: "x", by_deg: 0 } }).catch(() => {});
      if (!this.turnsStopped) this.loadTurns(this.looksByItself());
    },
    looksByItself() {
      return this.state.facets <= start.asked_from_facets;
    },
    leaveTurning() {
      this.picking = this.levelling = false;
      this.places = [];
      this.stopPreview();
      arcs?.show(false);
    },
    placeArcs() {
      if (!arcs) return;
      const frame = this.ownAxes ? new THREE.Quaternion().setFromEuler(new THREE.Euler(...this.state.angles_deg.map((a) => (a * Math.PI) / 180), "ZYX")) : null;
      const [x, y] = this.state.move_mm;
      const middle = [x, y, (this.state.top_mm + this.state.lift_mm) / 2];
      arcs.update(middle, 0.54 * Math.max(...this.state.size_mm), frame);
    },
    toggleOwnAxes() {
      this.ownAxes = !this.ownAxes;
      this.placeArcs();
    },
    hoverArc(e) {
      if (!arcs || this.live) return;
      const name = arcs.pick(e.clientX, e.clientY);
      if (name === arcs.lit) return;
      arcs.light(name);
      this.$refs.canvas.style.cursor = name ? "grab" : "";
    },
    // What takes hold of an arc: follows the pointer, and becomes an edit when it is let go.
    grabArc(x, y) {
      const name = arcs?.pick(x, y);
      if (!name) return null;
      const held = name === "knob" ? this.grabKnob() : this.grabRing(name, x, y);
      heldArc = held;
      // Esc lets go of it without turning anything.
      return {
        follow: (e) => heldArc === held && held.follow(e),
        drop: () => this.dropTurn(heldArc === held ? held.edit() : null),
      };
    },
    grabRing(axis, x, y) {
      const from = arcs.angleAt(axis, x, y);
      let [last, turned, by] = [from, 0, 0];
      return {
        follow: (e) => {
          const now = arcs.angleAt(axis, e.clientX, e.clientY);
          turned += ((now - last + 540) % 360) - 180; // past the half turn it goes on
          last = now;
          by = e.altKey ? Number(turned.toFixed(1)) : 5 * Math.round(turned / 5);
          this.turnLabel(arcs.showAngle(axis, from, by), `${axis.toUpperCase()} ${by > 0 ? "+" : ""}${by}°`);
          this.preview("turn_by", { axis, by_deg: by, own: this.ownAxes });
        },
        edit: () => (by ? ["turn_by", { axis, by_deg: by, own: this.ownAxes }] : null),
      };
    },
    grabKnob() {
      let by = 0;
      let toward = 0;
      return {
        follow: (e) => {
          [by, toward] = arcs.leanAt(e.clientX, e.clientY);
          const step = e.altKey ? 0.1 : 5;
          by = Number((step * Math.round(by / step)).toFixed(1));
          toward = Number((step * Math.round(toward / step)).toFixed(1));
          this.lean = { by, toward };
          this.turnLabel(arcs.showLean(by, toward), `${by}° towards ${(toward + 360) % 360}°`);
          this.preview("lean", { by_deg: by, toward_deg: toward });
        },
        edit: () => (by ? ["lean", { by_deg: by, toward_deg: toward }] : null),
      };
    },
    turnLabel(place, text) {
      let label = this.$refs.pins.querySelector("[data-turn-label]");
      if (!label) {
        label = document.createElement("span");
        label.className = "measured follows";
        label.dataset.turnLabel = "1";
        this.$refs.pins.append(label);
      }
      Object.assign(label, { textContent: text, place }); // put in its place with the next drawing
    },
    releaseArc() {
      heldArc = null;
      arcs?.clearAngle();
      this.$refs.pins.querySelector("[data-turn-label]")?.remove();
    },
    async dropTurn(edit) {
      this.releaseArc();
      if (!edit || !(await this.edit(...edit))) this.stopPreview();
    },
    nudge(axis, by) {
      return this.edit("turn_by", { axis, by_deg: by, own: this.ownAxes });
    },

    // ---- following the hand --------------------------------------------------------------

    // One look at a time; of those asked for meanwhile, the last.
    async preview(kind, parameters) {
      this.wanted = { kind, parameters };
      if (this.previewingTurn) return;
      this.previewingTurn = true;
      try {
        while (this.wanted) {
          const asked = this.wanted;
          this.wanted = null;
          const began = performance.now();
          const bytes = await postForBytes(start.urls.live, asked);
          const length = new Uint32Array(bytes, 0, 1)[0];
          const figures = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 4, length)));
          if (!this.previewingTurn) return;
          this.live = figures;
          stage.view.setTurned(figures, new Float32Array(bytes, 4 + length));
          map?.setPresent(figures.at);
          await stage.view.nextDrawing();
          this.$refs.canvas.dataset.liveMs = String(Math.round(performance.now() - began));
        }
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.previewingTurn = false;
      }
    },
    // Back to the stance as it is.
    stopPreview() {
      this.releaseArc();
      this.wanted = null;
      this.previewingTurn = false;
      if (!this.live) return;
      this.live = null;
      this.shownSlopes = null;
      map?.setPresent(this.turns?.at ?? [0, 0]);
      this.show(this.state).catch((error) => (this.problem = error.message));
    },
    // Called when a state is shown: what was followed is over.
    endPreview() {
      this.wanted = null;
      this.previewingTurn = false;
      if (this.live) this.shownSlopes = null;
      this.live = null;
      stage.view.clearTurned();
      if (this.activity !== "turn" || !arcs) return;
      const seen = arcs.isInView();
      this.placeArcs();
      // What grew out of view is looked at whole; who had come close to a detail stays there.
      if (seen && !arcs.isInView()) stage.view.frame(arcs.middle.toArray(), 2.1 * arcs.radius);
    },

    // ---- faces and points ----------------------------------------------------------------

    async setFaceDown(hit) {
      if (!hit) return;
      this.picking = false;
      await this.edit("face_down", { at: { facet: hit.facet, weights: hit.weights } });
    },
    startPicking(what) {
      this.picking = what === "face" && !this.picking;
      this.levelling = what === "level" && !this.levelling;
      this.places = [];
    },
    async levelAt(hit) {
      if (!hit) return;
      this.places.push({ facet: hit.facet, weights: hit.weights });
      stage.view.markPlaces([...(this.levelPoints ?? []), hit.point]);
      this.levelPoints = [hit.point];
      if (this.places.length < 2) return;
      const anchors = Alpine.raw(this.places);
      this.places = [];
      this.levelPoints = null;
      this.levelling = false;
      stage.view.markPlaces([]);
      await this.edit("level", { anchors });
    },

    // ---- the map and proposals -----------------------------------------------------------

    changedAt: 0,
    // What the map depends on; the present turn, pillars and the rest change only its marks.
    mapOf() {
      const { process, threshold_deg, scale, mirrored, lift_mm, unit, sides_url } = this.state;
      return JSON.stringify([process, threshold_deg, scale, mirrored, lift_mm, unit, sides_url, this.weights]);
    },
    // Shows the map and the proposals; has them worked out where they are not known, if asked to.
    async loadTurns(work) {
      if (this.turnsOf === this.mapOf()) {
        this.turnsAgain = true;
        return;
      }
      if (this.turnsWork) cancelWork(this.turnsWork).catch(() => {}); // for what it was before
      const wanted = (this.turnsOf = this.mapOf());
      const isOver = () => this.turnsOf !== wanted;
      this.turnsStopped = "";
      try {
        do {
          this.turnsAgain = false;
          const body = Object.keys(this.weights).length ? { weights: { ...this.weights } } : {};
          let found = await postJson(start.urls.turns, { ...body, only_if_known: true });
          if (work && !isOver() && !(found.goals && !found.so_far)) {
            // Who goes on changing it is not waited for by work that would be for nothing.
            const calm = this.changedAt + CALM_MS - performance.now();
            if (calm > 0) await new Promise((resolve) => setTimeout(resolve, calm));
            if (!isOver()) found = await postJson(start.urls.turns, { ...body, only_if_known: false });
          }
          if (isOver()) return;
          if (found.work) {
            this.turnsWork = found.work;
            let stage = "";
            const ended = await follow(found.work, (w) => {
              if (this.turnsWork?.id !== w.id) return;
              this.turnsWork = w;
              if (w.open && w.stage !== stage && stage !== (stage = w.stage)) this.showSoFar(body, isOver);
            });
            if (isOver()) return;
            this.turnsWork = null;
            if (ended.state !== "done") {
              this.turnsStopped = ended.state === "cancelled" ? "Looking at every way was cancelled." : ended.error;
              return;
            }
            found = await postJson(start.urls.turns, { ...body, only_if_known: true });
            if (isOver()) return;
          }
          if (found.goals && !found.so_far) await this.showTurns(found);
          else if (!this.turns?.so_far) this.turns = null;
        } while (this.turnsAgain && !isOver());
      } catch (error) {
        // Where the stance has changed meanwhile, the page is about to learn of it and asks again.
        if (!isOver() && error.status !== 409) this.turnsStopped = error.message;
      } finally {
        if (!isOver()) {
          this.turnsWork = null;
          this.turnsOf = null;
        }
      }
    },
    // The map as far as it is known, while the work goes on.
    async showSoFar(body, isOver) {
      try {
        const found = await postJson(start.urls.turns, { ...body, only_if_known: true });
        if (!isOver() && this.turnsWork && found.so_far) await this.showTurns(found);
      } catch {
        // The end of the work says what is wrong.
      }
    },
    // Directions and the goals' numbers there, which stay the same however the piece is turned.
    async numbersOf(found) {
      if (numbers?.url !== found.numbers_url) {
        const all = new Float32Array(await getBytes(found.numbers_url));
        const n = found.directions;
        const byKey = {};
        found.goals.slice(1).forEach(({ key }, i) => (byKey[key] = all.subarray((3 + i) * n, (4 + i) * n)));
        numbers = { url: found.numbers_url, downs: all.subarray(0, 3 * n), byKey };
      }
      return numbers;
    },
    async showTurns(found) {
      const { byKey } = await this.numbersOf(found);
      for (const goal of found.goals) {
        goal.values = byKey[goal.key] ?? Float32Array.from(goal.values, (v) => v ?? NaN);
        const sorted = goal.values.filter(Number.isFinite).sort();
        const at = (part) => sorted[Math.min(Math.floor(part * sorted.length), sorted.length - 1)] ?? 0;
        // A few far ahead of all others, or behind, do not take the shades from the rest.
        goal.range = goal.most ? [at(0.99), at(0.05)] : [at(0.01), at(0.95)];
        const beyond = [goal.range[0] !== at(goal.most ? 1 : 0), goal.range[1] !== at(goal.most ? 0 : 1)];
        const signs = goal.most ? ["≥", "≤"] : ["≤", "≥"];
        goal.ends = goal.range.map((value, i) => `${beyond[i] ? `${signs[i]} ` : ""}${this.goalNumber(goal, value)}`);
      }
      map = map ?? new TurnMap(this.$refs.disc, this.$refs.stands, {
        onMove: (cell) => (cell === null ? this.stopPreview() : ((this.hovered = cell.index), this.preview(...this.turnOf(cell)))),
        onPick: (cell) => this.standOn(...this.turnOf(cell)),
        onHover: (cell) => (this.hovered = cell),
      });
      if (this.discOf !== found.directions) {
        map.setCells(new Uint16Array(await getBytes(found.disc_url)));
        this.discOf = found.directions;
      }
      this.turns = found;
      map.setMarks(found.at, this.marksOf(found));
      this.showGoal(this.goal);
      this.$refs.disc.map = map; // for scripts that drive the page
    },
    // The better ones are drawn over the others.
    marksOf: (found) => found.proposals.map(({ letter, at }) => ({ letter, at })).reverse(),
    turnOf({ index, letter }) {
      const { proposals } = Alpine.raw(this.turns);
      const proposal = proposals.find((p) => p.letter === letter);
      return proposal ? this.turnOfProposal(proposal) : ["stand_on", { down: [...numbers.downs.subarray(3 * index, 3 * index + 3)] }];
    },
    standAs(proposal) {
      return this.standOn(...this.turnOfProposal(proposal));
    },
    turnOfProposal({ angles_deg: [x, y, z] }) {
      return ["turn", { x_deg: x, y_deg: y, z_deg: z }];
    },
    showGoal(key) {
      const goal = this.turns.goals.find((g) => g.key === key) ?? this.turns.goals[0];
      this.goal = goal.key;
      const [best, worst] = goal.range;
      map.setShades(Alpine.raw(goal).values.map((v) => (Number.isFinite(v) ? (v - best) / (worst - best || 1) : 1)));
    },
    mapMark(letter) {
      map?.highlight(letter);
    },
    weightOf(key) {
      return this.weights[key] ?? this.turns?.weights[key] ?? 0;
    },
    setWeight(key, value) {
      if (value >= 0 && value <= 10) this.weights = { ...this.turns.weights, ...this.weights, [key]: value };
      else this.problem = "A weight is a number from 0 to 10.";
    },
    async standOn(...turn) {
      if (!(await this.edit(...turn))) this.stopPreview();
    },
    async cancelTurns() {
      try {
        if (this.turnsWork) await cancelWork(this.turnsWork);
      } catch (error) {
        this.problem = error.message;
      }
    },

    // ---- size and place ------------------------------------------------------------------

    scale(axis, field) {
      const factor = field.valueAsNumber;
      const ratio = factor / this.state.scale[axis];
      const factors = this.state.scale.map((f, i) => (i === axis ? factor : this.keepProportions ? f * ratio : f));
      return this.edit("scale", { x: factors[0], y: factors[1], z: factors[2] }, field);
    },
    moveTo(axis, field) {
      const place = [...this.state.move_mm];
      place[axis] = field.valueAsNumber;
      return this.edit("move", { x_mm: place[0], y_mm: place[1] }, field);
    },
  },
});
