// Prop: supports stood by clicking, moved by dragging, changed by typing, proposed, set out.
import Alpine from "alpinejs";
import { cancelWork, follow, getBytes, getJson, postJson, sendFile, whileBusy } from "../api.js";
import { stage, start } from "../stage.js";
import { drawSupport } from "../support_drawing.js";
import { register } from "./register.js";
import { grouped } from "../numbers.js";

const pickOf = ({ facet, weights }) => ({ facet, weights });
const made = (hit) => ({ support: "pillar", ends: [pickOf(hit), { plate: null }] });
const kindOf = (key) => start.kinds.find((kind) => kind.key === key);
const STEP_MM = 0.5;

const nudge = (dx, dy) => (bench, event) => bench.nudgeChosen(dx * (event.shiftKey ? 10 : 1), dy * (event.shiftKey ? 10 : 1));

register("prop", {
  enter(bench) {
    bench.drawSupports();
    bench.drawChosenPillar();
    bench.loadHeld();
    bench.loadOthers();
    bench.joinWork("find_supports", ({ clear, where, profile, habits }) => {
      if (habits || bench.proposalWork) return;
      bench.asked = { clear, where, profile, habits: "" };
      bench.propose();
    });
  },
  leave(bench) {
    bench.endTool();
    stage.view.setSupports(stage.view.supports.list, [], []);
    stage.view.setWash(null);
  },
  hint: (bench) => bench.toolHint,
  inHand: (bench) => Boolean(bench.tool),
  shown: (bench) => bench.loadHeld(),
  grab(bench, x, y, event) {
    if (event.shiftKey) return bench.startBox(event);
    const found = bench.tool === "pillar" ? stage.view.pickSupport(x, y) : null;
    if (!found || bench.isStand(found.key)) return found && bench.startStand(found, event);
    return found.isHandle ? found : bench.startJoining(found, event);
  },
  dragging: (bench, held, hit) => bench.previewSupport(held.key, hit),
  dropped: (bench, held, hit) => bench.dropSupport(held.key, hit),
  click: (bench, x, y, held, event) => bench.propAt(x, y, held, event),
  escape(bench) {
    bench.endTool();
    bench.chooseNone();
  },
  keys: {
    Delete: (bench) => bench.removeChosen(),
    ArrowLeft: nudge(-STEP_MM, 0), ArrowRight: nudge(STEP_MM, 0), ArrowUp: nudge(0, STEP_MM), ArrowDown: nudge(0, -STEP_MM),
  },
  data: {
    chosenKeys: [],
    tool: "pillar",
    firstEnd: null, // of a strut or tie bar that is being made
    asked: { clear: "risky", where: "plate", profile: "medium", habits: "" },
    proposal: null,
    proposalWork: null,
    leftOut: [], // keys of the proposal that are not wanted
    strength: {},
    spread: { spacing: 5, turn: 0, facet: null, count: null, supports: [] },
    rowCount: 2,

    get chosenPillar() {
      return this.state.pillars.find((p) => p.key === this.pillarKey) ?? null;
    },
    get pillarKey() {
      return this.chosenKeys[0] ?? null;
    },
    get chosenSupports() {
      return this.state.pillars.filter((p) => this.chosenKeys.includes(p.key));
    },
    get chosenTitle() {
      const chosen = this.chosenSupports;
      if (chosen.length === 1) return `Dimensions of ${chosen[0].label} ${chosen[0].key}`;
      return chosen.length ? `Dimensions of ${chosen.length} supports` : "";
    },
    // What can be typed: the dimensions that all chosen have in common.
    get chosenDimensions() {
      const [first, ...others] = this.chosenSupports;
      if (!first) return [];
      return (kindOf(first.kind)?.dimensions ?? []).filter((d) => others.every((o) => d.key in o.size)).map((d) => ({
        ...d, field: `size-${d.key}`, isNumber: !d.choices.length, value: first.size[d.key], unit: d.unit,
      }));
    },
    get toolHint() {
      if (this.tool === "strut") return this.firstEnd ? "Click where it ends: the model, a support, or the plate beside it" : "Click the underside or the support that the strut begins at";
      if (this.tool === "tie_bar") return this.firstEnd ? "Click the other end" : "Click one of the two ends to tie";
      if (this.tool === "face") return "Click the underside that is to be set with contacts";
      if (this.tool === "ring") return "Click the wall of a round hole that lies on its side";
      return "Click an underside to stand a pillar; drag a contact to move it";
    },
    get canBrace() {
      return this.chosenSupports.filter((p) => p.kind === "pillar" || p.kind === "strut").length > 1;
    },
    get canRow() {
      return this.chosenSupports.length === 2 && this.chosenSupports.every((p) => p.kind === "pillar");
    },
    get troubled() {
      const count = this.state.pillars.filter((p) => this.strength[p.key]?.text).length;
      return count ? `${count} bend${count === 1 ? "s" : ""} or ${count === 1 ? "is" : "are"} too weak.` : "";
    },
    get supportSums() {
      const all = Object.values(this.strength);
      if (!all.length) return "";
      const sum = (name) => all.reduce((total, s) => total + s[name], 0);
      const far = all.filter((s) => !s.reached).length;
      const parts = [`${grouped(sum("volume_mm3"))} mm³`, `contacts ${grouped(sum("scar_mm2"), 2)} mm²`];
      if (far) parts.push(`${far} out of the tool’s reach`);
      return parts.join(" · ");
    },
    get proposalText() {
      const p = this.proposal;
      if (!p) return "";
      const one = p.supports.length === 1;
      if (!p.supports.length) return p.unreachable.length ? "No contact was found for what hangs." : "Nothing needs a support.";
      return `${p.supports.length} support${one ? "" : "s"}, ${grouped(p.volume_mm3)} mm³ (plain grid supports ${grouped(p.grid_support_mm3)} mm³), contacts ${grouped(p.contact_area_mm2, 2)} mm². ` +
        `Will fail: ${p.before.will_fail} → ${p.after.will_fail}; risky: ${p.before.risky} → ${p.after.risky}.`;
    },
    get takeText() {
      const count = this.keptProposed.length;
      return `Stand ${count === this.proposal?.supports.length ? "all" : "these"} ${count}`;
    },
    // What is left of a proposal: with what is left out, what rests on it goes too.
    get keptProposed() {
      const out = new Set(this.leftOut);
      return (this.proposal?.supports ?? []).filter((s) => !out.has(s.key) && !s.ends.some((e) => out.has(e.support)));
    },
    percentOf: (work) => (work ? Math.round(100 * work.done) : 0),
    workText: (work) => (work ? `${work.stage} …` : ""),
    contactText(p) {
      if (!p.has_contact) return p.why;
      if (p.fit === "lost") return `Was at z = ${p.contact_mm[2].toFixed(2)} mm`;
      return `Contact at z = ${p.contact_mm[2].toFixed(2)} mm, surface at ${p.contact_slope_deg.toFixed(0)}°`;
    },
    nameText: (p) => `${p.label[0].toUpperCase()}${p.label.slice(1)} ${p.key}`,
    fitText: (p) => ({ stands: "stands", lost: "lost" })[p.fit] ?? "cannot stand",
    isChosen(key) {
      return this.chosenKeys.includes(key) ? "true" : "false";
    },
    strengthText(key) {
      const s = this.strength[key];
      if (!s) return "";
      const parts = s.text ? [s.text] : [];
      if (!s.reached) parts.push("No straight tool of 3 × 60 mm gets to its contact.");
      if (s.on_show) parts.push("It marks the show side.");
      return parts.join(" ");
    },
    canThicken(key) {
      return this.strength[key]?.cure === "thicken";
    },
    thickenText(key) {
      return `Thicken to ${this.strength[key]?.shaft_mm} mm`;
    },
    thicken(key) {
      const shaft = this.strength[key].shaft_mm;
      const one = this.state.pillars.find((p) => p.key === key);
      const foot = Math.max(one.size.foot_mm, shaft);
      return this.edit("support", { key, size: { shaft_mm: shaft, foot_mm: foot, pad_mm: Math.max(one.size.pad_mm, foot) } });
    },

    bends(key) {
      return Boolean(this.strength[key]?.bends);
    },
    braceIt(key) {
      return this.setOut("braces", { keys: key ? [key] : [] }, "braces for what bends");
    },
    get someBend() {
      return Object.values(this.strength).some((s) => s.bends);
    },
    // The bent line of the one that is chosen, drawn larger than it is.
    bentTimes: 0,
    async showBent() {
      this.bentTimes = 0;
      const key = this.pillarKey;
      if (this.chosenKeys.length !== 1 || !this.strength[key]?.bends) return;
      try {
        const found = await postJson(start.urls.set_out, { how: "bent", key });
        if (this.pillarKey !== key || this.activity !== "prop") return;
        this.bentTimes = found.times;
        stage.view.markPlaces(found.places);
      } catch {
        // The list says how much it bends.
      }
    },
    get bentText() {
      return this.bentTimes > 1 ? `Dotted: as it bends, drawn ${this.bentTimes} times as much.` : this.bentTimes ? "Dotted: as it bends." : "";
    },
    get profileNames() {
      return Object.keys(this.state.profiles);
    },
    get canProfile() {
      return this.chosenSupports.length > 0 && this.chosenSupports.every((p) => "foot_mm" in p.size);
    },
    takeProfile(name, field) {
      field.value = "";
      if (!(name in this.state.profiles)) return null; // what stands for nothing chosen
      const [contact_mm, shaft_mm, foot_mm] = this.state.profiles[name];
      const size = (p) => ({ contact_mm, shaft_mm, foot_mm, pad_mm: Math.max(foot_mm, (p.size.pad_mm * foot_mm) / p.size.foot_mm) });
      return this.edit("supports", { supports: this.chosenSupports.map((p) => ({ key: p.key, size: size(p) })), what: `${name} supports` });
    },

    // ---- making ------------------------------------------------------------------------

    setTool(tool) {
      this.endTool();
      this.tool = tool;
    },
    endTool() {
      this.firstEnd = null;
      this.spread = { ...this.spread, facet: null, count: null, supports: [] };
      stage.view.markPlaces([]);
      this.tool = "pillar";
    },
    async propAt(x, y, held, event) {
      const found = held?.key ? held : stage.view.pickSupport(x, y);
      if (this.tool === "strut" || this.tool === "tie_bar") return this.endAt(x, y, found);
      if (this.tool === "face") return this.faceAt(stage.view.pick(x, y));
      if (this.tool === "ring") return this.ringAt(stage.view.pick(x, y));
      if (found) return event?.shiftKey ? this.toggleChosen(found.key) : this.choosePillar(found.key, false);
      const hit = stage.view.pick(x, y);
      if (!hit || event?.shiftKey) return;
      const before = new Set(this.state.pillars.map((p) => p.key));
      if (await this.edit("support", made(hit))) this.chooseNew(before);
      else this.showRefused(made(hit));
    },
    // One end of a strut or a tie bar; with the second one it is made.
    async endAt(x, y, support) {
      const hit = stage.view.pick(x, y);
      const end = support && this.tool === "strut" ? { support: support.key, t: null } : hit ? pickOf(hit) : this.firstEnd ? this.plateAt(x, y) : null;
      if (!end) return;
      if (!this.firstEnd) {
        this.firstEnd = end;
        if (hit) stage.view.markPlaces([hit.point]);
        return;
      }
      const parameters = { support: this.tool, ends: [this.firstEnd, end] };
      const before = new Set(this.state.pillars.map((p) => p.key));
      this.endTool();
      if (await this.edit("support", parameters)) this.chooseNew(before);
      else this.showRefused(parameters);
    },
    plateAt(x, y) {
      const at = stage.view.plateAt(x, y);
      return at ? { plate: at } : null;
    },
    // One that is refused is drawn where it would have stood, with the place that is in its way.
    async showRefused(parameters) {
      try {
        const ghost = await postJson(start.urls.preview, parameters);
        if (ghost.fit === "stands") return;
        this.drawSupports([ghost]);
        this.refusedSupport = ghost.rods.length ? parameters : null;
      } catch {
        // The sentence about the refusal is on the page already.
      }
    },
    refusedSupport: null,
    insist() {
      const parameters = this.refusedSupport;
      this.refusedSupport = null;
      return parameters && this.edit("support", { ...parameters, insist: true });
    },

    // ---- from one support to another -----------------------------------------------------

    // A shaft dragged to another is braced with it; to a place of the model, a strut goes there.
    startJoining(found, event) {
      const from = [event.clientX, event.clientY];
      let to = null;
      return {
        key: found.key, clicks: true,
        follow: (e) => {
          to = [e.clientX, e.clientY];
          const hit = stage.view.pick(...to);
          stage.view.markPlaces(hit ? [hit.point] : []);
        },
        drop: () => {
          stage.view.markPlaces([]);
          if (!to || Math.hypot(to[0] - from[0], to[1] - from[1]) < 5) return;
          const other = stage.view.pickSupport(...to);
          if (other?.key === found.key) return;
          const end = { support: found.key, t: null };
          if (other) return this.join({ support: "brace", ends: [end, { support: other.key, t: null }] });
          const hit = stage.view.pick(...to);
          return hit && this.join({ support: "strut", ends: [pickOf(hit), end] });
        },
      };
    },
    async join(parameters) {
      const before = new Set(this.state.pillars.map((p) => p.key));
      if (await this.edit("support", parameters)) this.chooseNew(before);
      else this.showRefused(parameters);
    },

    // ---- stands of the maker's own -------------------------------------------------------

    isStand(key) {
      return this.state.pillars.find((p) => p.key === key)?.kind === "stand";
    },
    get chosenPlace() {
      const one = this.chosenPillar;
      return one?.kind === "stand" && this.chosenKeys.length === 1 ? one.ends[0].plate ?? [0, 0] : null;
    },
    standAt(axis) {
      return this.chosenPlace ? this.tidy(this.chosenPlace[axis]) : 0;
    },
    setPlace(axis, field) {
      const plate = [...this.chosenPlace];
      plate[axis] = field.valueAsNumber;
      return this.edit("support", { key: this.pillarKey, ends: [{ plate }] }, field);
    },
    async bringStand(input) {
      const file = input.files[0];
      input.value = "";
      if (!file) return;
      this.problem = "";
      const before = new Set(this.state.pillars.map((p) => p.key));
      try {
        const { name, mesh } = await whileBusy(sendFile(start.urls.shape, file, () => {}));
        if (await this.edit("stand", { name, mesh })) this.chooseNew(before);
      } catch (error) {
        this.problem = error.message;
      }
    },
    // Taken hold of at its contact, a stand slides over the plate by as much as the pointer does.
    startStand(found, event) {
      const one = this.state.pillars.find((p) => p.key === found.key);
      const from = stage.view.plateAt(event.clientX, event.clientY);
      const at = one.ends[0].plate ?? [0, 0];
      let plate = null;
      return {
        key: found.key, clicks: true,
        follow: (e) => {
          const to = stage.view.plateAt(e.clientX, e.clientY);
          if (!from || !to) return;
          plate = [at[0] + to[0] - from[0], at[1] + to[1] - from[1]];
          stage.view.markPlaces([[...plate, 0.1]]);
        },
        drop: () => {
          stage.view.markPlaces([]);
          this.chosenKeys = [found.key];
          return plate && this.edit("support", { key: found.key, ends: [{ plate }] });
        },
      };
    },

    // ---- choosing ----------------------------------------------------------------------

    keepChosen(state) {
      const there = new Set(state.pillars.map((p) => p.key));
      this.chosenKeys = this.chosenKeys.filter((key) => there.has(key));
      this.refusedSupport = null;
      if (this.proposal && this.proposal.of !== state.key) this.dropProposal();
      if (state.solids_url !== this.shownSolids) this.loadSolids(state.solids_url);
    },
    async loadSolids(url) {
      this.shownSolids = url;
      const bytes = url ? await getBytes(url).catch(() => null) : null;
      if (this.shownSolids === url) stage.view.setSolids(bytes ? new Float32Array(bytes, 4) : null);
    },
    drawSupports(ghosts = []) {
      const proposed = this.activity === "prop" && this.proposal ? this.proposal.drawn.filter((s) => this.keptProposed.some((w) => w.key === s.key)).map((s) => ({ ...s, proposed: true })) : [];
      // What is chosen is marked where it can be changed.
      stage.view.setSupports(Alpine.raw(this.state.pillars), this.activity === "prop" ? Alpine.raw(this.chosenKeys) : [], [...Alpine.raw(proposed), ...ghosts]);
    },
    chooseKeys(keys) {
      this.chosenKeys = keys;
      if (this.bentTimes) stage.view.markPlaces([]);
      this.showBent();
      this.drawSupports();
      this.drawChosenPillar();
    },
    chooseNew(before) {
      this.chooseKeys(this.state.pillars.filter((p) => !before.has(p.key)).map((p) => p.key));
    },
    chooseNone() {
      this.chooseKeys([]);
    },
    chooseAll() {
      this.chooseKeys(this.state.pillars.map((p) => p.key));
    },
    chooseAlike() {
      const kinds = new Set(this.chosenSupports.map((p) => p.kind));
      this.chooseKeys(this.state.pillars.filter((p) => kinds.has(p.kind)).map((p) => p.key));
    },
    toggleChosen(key) {
      this.chooseKeys(this.chosenKeys.includes(key) ? this.chosenKeys.filter((k) => k !== key) : [...this.chosenKeys, key]);
    },
    clickListed(key, event) {
      if (event.shiftKey || event.ctrlKey || event.metaKey) return this.toggleChosen(key);
      this.choosePillar(key);
    },
    choosePillar(key, move = true) {
      this.chooseKeys([key]);
      const pillar = this.chosenPillar;
      if (pillar && move) {
        stage.view.showPlace(pillar.contact_mm, pillar.has_contact);
        this.setLayer(this.state.layers_of_pillars[key]);
      }
    },
    // A box drawn with Shift chooses all contacts in it that are on the screen.
    startBox(event) {
      const room = stage.view.canvas.getBoundingClientRect();
      const from = [event.clientX, event.clientY];
      const box = this.$refs.box;
      const span = (to) => [Math.min(from[0], to[0]) - room.left, Math.min(from[1], to[1]) - room.top, Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])];
      let last = from;
      return {
        clicks: true,
        follow: (e) => {
          last = [e.clientX, e.clientY];
          const [x, y, w, h] = span(last);
          Object.assign(box.style, { left: `${x}px`, top: `${y}px`, width: `${w}px`, height: `${h}px` });
          box.hidden = false;
        },
        drop: () => {
          box.hidden = true;
          const [x, y, w, h] = span(last);
          const inside = this.state.pillars.filter((p) => {
            const [px, py] = stage.view.toScreen(p.contact_mm);
            return px >= x && px <= x + w && py >= y && py <= y + h;
          });
          this.chooseKeys([...new Set([...this.chosenKeys, ...inside.map((p) => p.key)])]);
        },
      };
    },
    drawChosenPillar() {
      if (this.$refs.profile) drawSupport(this.$refs.profile, Alpine.raw(this.chosenPillar));
    },

    // ---- changing ----------------------------------------------------------------------

    async previewSupport(key, hit) {
      this.dragTo = { key, hit };
      if (this.fitting) return;
      this.fitting = true;
      try {
        while (this.dragTo) {
          const { key: moved, hit: to } = this.dragTo;
          this.dragTo = null;
          const ghost = await postJson(start.urls.preview, { key: moved, ends: this.endsAt(moved, to) });
          if (this.fitting) this.drawSupports([ghost]);
        }
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.fitting = false;
      }
    },
    // The ends of a support with its first one moved.
    endsAt(key, hit) {
      const one = this.state.pillars.find((p) => p.key === key);
      return [pickOf(hit), ...(one?.ends ?? [null, { plate: null }]).slice(1)];
    },
    async dropSupport(key, hit) {
      this.dragTo = null;
      this.fitting = false;
      this.chosenKeys = [key];
      if (!hit) return this.drawSupports();
      await this.edit("support", { key, ends: this.endsAt(key, hit) });
    },
    resize(name, field) {
      const value = field.type === "number" ? field.valueAsNumber : field.value;
      const size = { [name]: value };
      if (this.chosenKeys.length === 1) return this.edit("support", { key: this.pillarKey, size }, field);
      if (this.chosenKeys.length) return this.edit("supports", { supports: this.chosenKeys.map((key) => ({ key, size })), what: `${this.chosenKeys.length} supports` }, field);
    },
    removeChosen() {
      if (this.chosenKeys.length === 1) return this.edit("remove_support", { key: this.pillarKey });
      if (this.chosenKeys.length) return this.edit("supports", { remove: this.chosenKeys, what: `remove ${this.chosenKeys.length} supports` });
    },
    nudgeChosen(dx, dy) {
      if (!this.chosenKeys.length) return this.step(dy > 0 ? 1 : dy < 0 ? -1 : 0);
      return this.edit("supports", { supports: this.chosenKeys.map((key) => ({ key, by_mm: [dx, dy] })), what: "nudge supports" });
    },
    duplicate() {
      const copies = this.chosenSupports.filter((p) => p.kind === "pillar").map((p) => ({ copy_of: p.key, by_mm: [2, 0] }));
      if (copies.length) return this.editMany(copies, "duplicate supports");
    },
    // Makes several and chooses them.
    async editMany(supports, what) {
      const before = new Set(this.state.pillars.map((p) => p.key));
      const done = await this.edit("supports", { supports, what });
      if (done) this.chooseNew(before);
      return done;
    },
    brace() {
      const ends = this.chosenSupports.filter((p) => p.kind === "pillar" || p.kind === "strut").map((p) => ({ support: p.key, t: null }));
      return this.edit("support", { support: "brace", ends });
    },
    raft(ofChosen) {
      const ends = ofChosen ? this.chosenSupports.filter((p) => p.kind === "pillar" || p.kind === "strut").map((p) => ({ support: p.key, t: null })) : [];
      return this.edit("support", { support: "raft", ends });
    },
    brim(lies) {
      return this.edit("support", { support: "brim", ends: [], size: { lies } });
    },
    async setOut(how, more, what) {
      this.problem = "";
      try {
        const found = await postJson(start.urls.set_out, { how, keys: this.chosenKeys, ...more });
        const alone = found.alone.length ? `Nothing on the other side matches ${found.alone.join(", ")}.` : "";
        await this.editMany(found.supports, what);
        if (found.line) stage.view.markPlaces(found.line); // the plane, where it stands on the plate
        if (alone) this.problem = [this.problem, alone].filter(Boolean).join(" ");
      } catch (error) {
        this.problem = error.message;
      }
    },
    row() {
      return this.setOut("row", { count: Math.round(this.rowCount) }, "a row of supports");
    },
    get mirrorAbout() {
      return this.mirrorBy === "found" ? {} : { about_deg: Number(this.mirrorBy) };
    },
    otherSide() {
      return this.setOut("other_side", this.mirrorAbout, "supports on the other side");
    },
    // The plane and the places on the other side, before they are used.
    async lookAtOtherSide() {
      const keys = [...this.chosenKeys];
      const found = await postJson(start.urls.set_out, { how: "other_side", keys, ...this.mirrorAbout }).catch(() => null);
      if (found?.line && keys.join() === this.chosenKeys.join()) stage.view.markPlaces([...found.line, ...found.places]);
    },
    mirrorBy: "found",
    ringAt(hit) {
      this.endTool();
      return hit && this.setOut("ring", { facet: hit.facet }, "contact at the top of a ring");
    },

    // ---- from another stance -------------------------------------------------------------

    others: [],
    carriedFrom: "",
    carried: null,
    async loadOthers() {
      try {
        this.others = (await getJson(start.urls.others)).stances;
      } catch (error) {
        this.problem = error.message;
      }
    },
    async tryCarry(text) {
      this.carriedFrom = text;
      this.carried = null;
      this.problem = "";
      stage.view.markPlaces([]);
      if (!text) return;
      try {
        const found = await postJson(start.urls.set_out, { how: "carry", from: Number(text) });
        if (this.carriedFrom !== text) return;
        this.carried = found;
        stage.view.markPlaces(found.places);
      } catch (error) {
        this.problem = error.message;
      }
    },
    get carriedText() {
      const c = this.carried;
      if (!c) return "";
      const count = (outcome) => c.reports.filter((r) => r.outcome === outcome).length;
      return `${c.said}. ${count("fits")} fit, ${count("moved")} moved, ${count("lost")} lost.`;
    },
    get carriedTold() {
      return (this.carried?.reports ?? []).filter((r) => r.text).map((r) => `${r.key}: ${r.text}`);
    },
    get carryText() {
      const count = this.carried?.supports.length ?? 0;
      return `Stand ${count === 1 ? "it" : `these ${count}`}`;
    },
    async takeCarried() {
      const supports = Alpine.raw(this.carried.supports);
      this.carriedFrom = "";
      this.carried = null;
      stage.view.markPlaces([]);
      await this.editMany(supports, "supports carried over");
    },

    // ---- a face set with contacts --------------------------------------------------------

    faceAt(hit) {
      if (!hit) return;
      this.spread = { ...this.spread, facet: hit.facet };
      return this.trySpread();
    },
    spreadRim: false,
    setRim(on) {
      this.spreadRim = on;
      return this.trySpread();
    },
    setSpread(name, value) {
      if (!Number.isFinite(value)) return;
      this.spread = { ...this.spread, [name]: value };
      return this.trySpread();
    },
    async trySpread() {
      if (this.spread.facet === null) return;
      this.problem = "";
      const { facet, spacing, turn } = this.spread;
      try {
        const found = await postJson(start.urls.set_out, { how: "checkerboard", facet, spacing_mm: spacing, turn_deg: turn, rim: this.spreadRim });
        if (this.spread.facet !== facet || this.spread.spacing !== spacing || this.spread.turn !== turn) return;
        this.spread = { ...this.spread, count: found.supports.length, supports: found.supports };
        stage.view.markPlaces(found.places);
      } catch (error) {
        this.spread = { ...this.spread, count: null, supports: [] };
        stage.view.markPlaces([]);
        this.problem = error.message;
      }
    },
    get spreadText() {
      return `Stand ${this.spread.count} pillar${this.spread.count === 1 ? "" : "s"}`;
    },
    async takeSpread() {
      const supports = this.spread.supports;
      this.endTool();
      await this.editMany(supports, `${supports.length} pillars on a checkerboard`);
    },

    // ---- proposals -----------------------------------------------------------------------

    refusedKey: () => `refused supports ${start.state.mesh_url.split("?")[0]}`,
    get refusedPlaces() {
      return JSON.parse(localStorage.getItem(this.refusedKey()) ?? "[]");
    },
    async propose() {
      const key = this.state.key;
      this.dropProposal();
      this.problem = "";
      try {
        const ask = { ...Alpine.raw(this.asked), refused: this.refusedPlaces };
        let found = await postJson(start.urls.propose, ask);
        if (found.work) {
          this.proposalWork = found.work;
          const ended = await follow(found.work, (w) => (this.proposalWork = w));
          this.proposalWork = null;
          if (this.state.key !== key) return;
          if (ended.state !== "done") {
            if (ended.state !== "cancelled") this.problem = ended.error;
            return;
          }
          found = await postJson(start.urls.propose, ask);
        }
        if (this.state.key !== key || !found.supports) return;
        this.leftOut = [];
        this.proposal = { ...found, of: key };
        this.drawSupports();
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.proposalWork = null;
      }
    },
    async cancelProposing() {
      if (this.proposalWork) await cancelWork(this.proposalWork).catch((error) => (this.problem = error.message));
    },
    dropProposal() {
      this.proposal = null;
      this.leftOut = [];
    },
    closeProposal() {
      this.dropProposal();
      this.drawSupports();
    },
    isWanted(key) {
      return this.keptProposed.some((s) => s.key === key);
    },
    toggleWanted(key) {
      this.leftOut = this.leftOut.includes(key) ? this.leftOut.filter((k) => k !== key) : [...this.leftOut, key];
      this.drawSupports();
    },
    lookAtProposed(key) {
      const one = this.proposal.drawn.find((s) => s.key === key);
      if (one) stage.view.showPlace(one.contact_mm, true);
    },
    lookAtPlace(place) {
      stage.view.showPlace(Alpine.raw(place), true);
    },
    async takeProposal() {
      // What is left out is not proposed again.
      const out = this.proposal.drawn.filter((s) => this.leftOut.includes(s.key)).map((s) => s.contact_mm);
      if (out.length) localStorage.setItem(this.refusedKey(), JSON.stringify([...this.refusedPlaces, ...out].slice(-500)));
      const supports = this.keptProposed.map(({ support, ends, size, why, key }) => ({ name: key, support, ends, size, why }));
      this.dropProposal();
      if (await this.editMany(Alpine.raw(supports), `${supports.length} proposed supports`)) this.chooseNone();
    },
    proposedText(key) {
      const one = this.proposal?.drawn.find((s) => s.key === key);
      return one ? `${one.label}, z = ${one.contact_mm[2].toFixed(1)} mm, ${grouped(one.volume_mm3)} mm³` : "";
    },

    // ---- what is held, what bends --------------------------------------------------------

    async loadHeld() {
      if (this.activity !== "prop" || !this.findings.ready) return;
      const { key, held_url: url } = this.state;
      if (!this.state.pillars.length) {
        this.strength = {};
        return stage.view.setWash(null);
      }
      try {
        const [bytes, strength] = await Promise.all([getBytes(url), getJson(start.urls.strength)]);
        if (this.state.key !== key || this.activity !== "prop") return;
        stage.view.setWash(new Float32Array(bytes, 4));
        this.strength = strength;
        this.showBent(); // of what was chosen before this was known
      } catch (error) {
        this.refused(error);
      }
    },
  },
});
