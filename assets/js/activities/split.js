// Split: a plane to cut along, the parts it leaves, joints on the cut face, and where to cut.
import Alpine from "alpinejs";
import { cancelWork, follow, getBytes, getJson, postJson } from "../api.js";
import { SplitLayer } from "../scene/split.js";
import { TogetherLayer } from "../scene/together.js";
import { stage, start } from "../stage.js";
import { grouped } from "../numbers.js";
import { register } from "./register.js";
import { drawFace } from "./cut_face.js";

const urls = () => start.urls.split;
const unit = (v) => v.map((x) => x / Math.hypot(...v));
const dot = (a, b) => a.reduce((sum, x, i) => sum + x * b[i], 0);
const rad = Math.PI / 180;
const NUDGE_MM = 0.5;
let layer, together;

const nudge = (by) => (bench, event) => bench.cutTool && bench.setCutField("offset", bench.cutAt.offset + by * (event.shiftKey ? 10 : 1));

register("split", {
  hint(bench) {
    if (bench.cutTool === "flat") return "Click a face: the cut lies along it";
    if (bench.cutTool === "crease") return "Click beside an edge: the cut lies along its loop of creases";
    if (bench.pair) return "Drag the slider to pull the sides apart";
    if (bench.cutTool === "three") return `Click three points of the cut (${bench.cutPoints.length} of 3)`;
    return bench.cutTool ? "Drag the ball to move the cut, the tip to tilt it; the tip points to part a" : "";
  },
  inHand: (bench) => Boolean(bench.cutTool),
  enter(bench) {
    layer ??= new SplitLayer(stage.view);
    together ??= new TogetherLayer(stage.view);
    bench.showCutPlane();
    bench.joinWork("find_cuts", (fit) => {
      if (bench.cutsWork) return;
      bench.cutsFit = fit;
      bench.loadCuts(false);
    });
  },
  leave(bench) {
    bench.endCut();
    bench.closeFace();
    bench.endTogether();
  },
  shown(bench) {
    if (bench.pair) bench.showPair(bench.pair.cut);
    else if (bench.othersShown) bench.showOthers(true);
    bench.loadCuts(true);
    if (bench.cutTool) bench.tryCut();
    if (bench.cutFace) bench.openFace(bench.cutFace.key);
  },
  grab(bench, x, y, event) {
    const handle = bench.cutTool ? layer?.pick(x, y) : null;
    if (!handle) return null;
    const from = { x: event.clientX, y: event.clientY, ...bench.cutAt };
    return {
      follow: (e) => bench.dragCut(handle, from, e.clientX - from.x, e.clientY - from.y),
      drop: () => bench.tryCut(),
    };
  },
  click(bench, x, y) {
    const hit = stage.view.pick(x, y);
    if (bench.cutTool === "flat") return bench.cutAlong(hit);
    if (bench.cutTool === "three") return bench.cutThrough(hit);
    if (bench.cutTool === "crease") return bench.cutAlongCrease(hit);
    return null;
  },
  escape(bench) {
    if (bench.pair || bench.othersShown) return bench.endTogether();
    bench.endCut();
    return bench.closeFace();
  },
  keys: { PageUp: nudge(NUDGE_MM), PageDown: nudge(-NUDGE_MM) },
  data: {
    cutTool: "", // "", "plane", "flat", "three", "crease"
    cutMoved: "", // key of the cut that is moved, where it is none that is new
    pair: null,
    pairApart: 0,
    othersShown: false,
    cutAt: { tilt: 0, toward: 0, offset: 10 },
    cutKerf: 0,
    cutOf: "this", // or "all"
    cutKeep: "both",
    cutLoose: "stay",
    cutGap: 8,
    cutPoints: [],
    cutTried: null,
    cutFace: null,
    jointKey: "",
    joint: { kind: "peg", outline: "round", width_mm: 5, depth_a_mm: 5, depth_b_mm: 5, turn_deg: 0, taper_deg: 0, clearance_mm: null, bevel_mm: 0.4, on: "b", thick_mm: 1.5, catch_mm: 0.6 },
    jointCount: 2,
    zone: [],
    zoneText: "",
    cuts: null,
    cutsWork: null,
    cutsFit: false,

    get severalParts() {
      return this.state.parts.length > 1;
    },
    async showPart(key) {
      if (key !== this.state.part) await this.change(urls().part, { part: key });
    },

    // ---- the plane -----------------------------------------------------------------------

    get cutNormal() {
      const { tilt, toward } = this.cutAt;
      const across = Math.sin(tilt * rad);
      return [across * Math.cos(toward * rad), across * Math.sin(toward * rad), Math.cos(tilt * rad)];
    },
    get cutRows() {
      const reach = Math.hypot(...this.state.size_mm);
      const label = this.cutAt.tilt === 0 ? "height" : "along its normal";
      return [
        { name: "offset", label, unit: "mm", low: -reach, high: reach + this.state.top_mm, step: 0.1 },
        { name: "tilt", label: "tilt from level", unit: "°", low: 0, high: 180, step: 1 },
        { name: "toward", label: "tilted towards", unit: "°", low: -180, high: 180, step: 1 },
      ].map((row) => ({ ...row, field: `cut-${row.name}` }));
    },
    get cutMiddle() {
      const n = this.cutNormal;
      const middle = [0, 0, this.state.top_mm / 2];
      const by = this.cutAt.offset - dot(n, middle);
      return middle.map((v, i) => v + by * n[i]);
    },
    get cutBody() {
      return { plate_normal: this.cutNormal, plate_point: this.cutMiddle, kerf_mm: this.cutKerf };
    },
    beginCut(tool) {
      if (!this.cutTool) this.cutAt = { tilt: 0, toward: 0, offset: this.layerHeightAt };
      this.cutTool = tool;
      this.cutPoints = [];
      this.closeFace();
      this.tryCut();
    },
    get layerHeightAt() {
      const z = this.layer * this.state.layer_height_mm;
      return z > 0.02 * this.state.top_mm ? Number(z.toFixed(3)) : Number((this.state.top_mm / 2).toFixed(2));
    },
    levelCut() {
      this.cutAt = { tilt: 0, toward: 0, offset: this.layerHeightAt };
      this.cutTool ||= "plane";
      this.tryCut();
    },
    setCutField(name, value) {
      if (!Number.isFinite(value)) return;
      this.cutAt[name] = value;
      this.tryCut();
    },
    setKerf(value) {
      if (!Number.isFinite(value)) return;
      this.cutKerf = value;
      this.tryCut();
    },
    setGap(value) {
      this.cutGap = value;
      this.showCutPlane();
    },
    dragCut(handle, from, dx, dy) {
      if (handle === "move") this.cutAt.offset = Number((from.offset + layer.along(dx, dy)).toFixed(2));
      else {
        this.cutAt.tilt = Math.min(Math.max(from.tilt - dy / 2, 0), 180);
        this.cutAt.toward = Number((((from.toward + dx / 2 + 540) % 360) - 180).toFixed(1));
        if (this.cutAt.tilt < 2) this.cutAt.tilt = 0; // snaps to level
      }
      this.tryCut();
    },
    cutPlane(normal, point) {
      let n = unit(normal);
      if (n[2] < -1e-9) n = n.map((v) => -v);
      const tilt = Math.acos(Math.min(Math.max(n[2], -1), 1)) / rad;
      this.cutAt = { tilt: tilt < 1e-4 ? 0 : tilt, toward: tilt < 1e-4 ? 0 : Math.atan2(n[1], n[0]) / rad, offset: dot(n, point) };
      this.cutTool = "plane";
      this.tryCut();
    },
    cutAlong(hit) {
      if (!hit) return;
      const [a, b, c] = stage.view.model.cornersOf(hit.facet);
      const u = b.map((v, i) => v - a[i]);
      const v = c.map((x, i) => x - a[i]);
      this.cutPlane([u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]], a);
    },
    cutThrough(hit) {
      if (!hit) return;
      this.cutPoints.push(hit.point);
      stage.view.markPlaces(this.cutPoints.map((p) => [...p]));
      if (this.cutPoints.length < 3) return;
      const [a, b, c] = this.cutPoints.splice(0);
      stage.view.markPlaces([]);
      const u = b.map((v, i) => v - a[i]);
      const v = c.map((x, i) => x - a[i]);
      const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
      if (Math.hypot(...n) < 1e-6) {
        this.problem = "The three points lie on one line; choose others.";
        return;
      }
      this.cutPlane(n, a);
    },
    async cutAlongCrease(hit) {
      if (!hit) return;
      try {
        const plane = await postJson(urls().crease, { place_mm: hit.point, facet: hit.facet });
        this.cutPlane(plane.normal, plane.point);
      } catch (error) {
        this.problem = error.message;
      }
    },
    // To the other side of the plane of symmetry; there it can be taken as well.
    async mirrorCut() {
      try {
        const plane = await postJson(urls().mirror, this.cutBody);
        this.cutPlane(plane.normal, plane.point);
      } catch (error) {
        this.problem = error.message;
      }
    },
    // A cut that was made, to be dragged again; its joints go with it.
    dragAgain(cut) {
      this.closeFace();
      this.endTogether();
      this.endCut();
      this.cutMoved = cut.key;
      Object.assign(this, { cutKerf: cut.kerf_mm, cutKeep: cut.keep, cutLoose: cut.loose });
      this.cutFlipped = cut.plane.normal[2] < -1e-9;
      this.cutPlane(cut.plane.normal, cut.plane.point);
    },
    showCutPlane() {
      if (!layer) return;
      if (!this.cutTool) {
        layer.update(null);
        stage.view.setSplit(null);
        return;
      }
      const reach = 0.62 * Math.max(...this.state.size_mm);
      const lines = this.cutTried ? Alpine.raw(this.cutTried).lines : [];
      layer.update({ normal: this.cutNormal, point: this.cutMiddle, reach }, lines, this.cutGap);
      if (this.cutMoved) stage.view.setSplit(null);
      else stage.view.setSplit({ normal: this.cutNormal, offset: this.cutAt.offset }, this.cutGap);
    },
    // The newest plane is asked for, never a queue of old ones; the picture follows at once.
    async tryCut() {
      this.showCutPlane();
      this.cutWanted = true;
      if (this.cutAsking) return;
      this.cutAsking = true;
      try {
        while (this.cutWanted && this.cutTool) {
          this.cutWanted = false;
          const tried = await postJson(urls().try, { ...this.cutBody, ...(this.cutMoved ? { key: this.cutMoved } : {}) });
          if (this.cutTool) this.cutTried = tried;
          this.problem = "";
          this.showCutPlane();
        }
      } catch (error) {
        this.cutTried = null;
        this.problem = error.message;
      } finally {
        this.cutAsking = false;
      }
    },
    get cutText() {
      return this.cutTried ? `${grouped(this.cutTried.area_mm2, 1)} mm² cut face` : "";
    },
    cutSideText(side) {
      const hangs = `overhang ${grouped(side.overhang_on_cut_mm2)} mm² on its cut, ${grouped(side.overhang_as_it_is_mm2)} mm² as it is`;
      return `${grouped(side.volume_mm3)} mm³; ${hangs}`;
    },
    get canCut() {
      return this.cutOf === "all" && this.severalParts && !this.cutMoved ? Boolean(this.cutTried) : Boolean(this.cutTried?.sides.every((s) => s.bodies > 0));
    },
    async takeCut() {
      const body = { ...this.cutBody, keep: this.cutKeep, loose: this.cutLoose };
      if (this.cutMoved) {
        body.key = this.cutMoved;
        if (this.cutFlipped) body.plate_normal = body.plate_normal.map((v) => -v); // a stays a
      } else if (this.cutOf === "all" && this.severalParts) body.part = this.state.part.split(".")[0];
      const at = this.cutAt;
      const made = await this.edit("cut", body);
      if (made && this.cutAt === at) this.endCut(); // one begun meanwhile stays open
    },
    endCut() {
      this.cutTool = this.cutMoved = "";
      this.cutTried = null;
      this.cutPoints = [];
      stage.view.markPlaces([]);
      this.showCutPlane();
    },
    partText: (part) => `${grouped(part.volume_mm3)} mm³`,
    cutSaid(cut) {
      const more = [cut.seam ? `seam “${cut.seam}”` : "", cut.joints ? `${cut.joints} joint${cut.joints === 1 ? "" : "s"}` : "", cut.dovetail ? "dovetail" : "", cut.kerf_mm ? `kerf ${cut.kerf_mm} mm` : ""];
      return [`of the ${cut.of}`, ...more.filter(Boolean)].join(", ");
    },
    // Along its normal, towards part a; its joints go with it.
    async moveCut(key, field) {
      const by = field.valueAsNumber;
      if (!Number.isFinite(by) || by === 0) return;
      await this.edit("cut", { key, by_mm: by }, field);
      field.value = 0;
    },
    nameSeam(key, field) {
      return this.edit("cut", { key, seam: field.value }, field);
    },
    async unCut(key) {
      this.closeFace();
      await this.edit("uncut", { key });
    },
    // The face that the part on the bench was cut at, down on the plate.
    async lieOnCut(key) {
      const face = await this.askFace(key);
      if (face) await this.edit("stand_on", { down: face.down });
    },

    // ---- parts seen together ---------------------------------------------------------------

    async showPair(key) {
      try {
        this.endCut();
        const pair = await getJson(`${urls().pair}?cut=${encodeURIComponent(key)}`);
        const bytes = await getBytes(pair.url);
        const [a, b] = new Uint32Array(bytes, 0, 2);
        const again = this.pair?.cut === key;
        this.othersShown = false;
        this.pair = pair;
        this.pairApart = again ? Math.min(this.pairApart, pair.reach_mm) : pair.reach_mm;
        together.update([{ corners: new Float32Array(bytes, 8, 9 * a), colour: "sand" }, { corners: new Float32Array(bytes, 8 + 36 * a, 9 * b), colour: "teal-pale" }], true);
        this.pullApart(this.pairApart);
      } catch (error) {
        this.endTogether();
        this.problem = error.message;
      }
    },
    pullApart(by) {
      this.pairApart = by;
      together.shift(this.pair.way.map((v) => v * by));
    },
    get pairText() {
      return `${this.pairApart.toFixed(1)} mm`;
    },
    get pairReach() {
      return this.pair ? 1.5 * this.pair.reach_mm : 1;
    },
    async showOthers(on) {
      this.endTogether();
      if (!on) return;
      try {
        this.othersShown = true;
        const corners = new Float32Array(await getBytes(`${urls().others}?v=${this.state.key}`));
        if (this.othersShown) together.update([{ corners, colour: "sand" }], false);
      } catch (error) {
        this.othersShown = false;
        this.refused(error);
      }
    },
    endTogether() {
      if (this.pair || this.othersShown) together.update([], false);
      this.pair = null;
      this.othersShown = false;
    },
    get assemblyUrl() {
      return this.severalParts ? `${urls().assembly}?of=${this.state.key}` : "";
    },

    // ---- the cut face and its joints -------------------------------------------------------

    async askFace(key) {
      try {
        return await getJson(`${urls().face}?cut=${encodeURIComponent(key)}`);
      } catch (error) {
        this.problem = error.message;
        return null;
      }
    },
    async openFace(key) {
      this.endCut();
      const face = await this.askFace(key);
      if (!face) return this.closeFace();
      const fresh = this.cutFace?.key !== key;
      this.cutFace = face;
      this.sectionOpen = true;
      if (fresh) {
        this.jointKey = "";
        Object.assign(this.joint, { clearance_mm: face.clearance_mm, width_mm: face.width_mm });
      }
      this.drawCutFace();
      await this.tryJoint();
    },
    closeFace() {
      this.cutFace = null;
      this.jointKey = "";
      this.zone = [];
    },
    get chosenJoint() {
      return this.cutFace?.joints.find((j) => j.key === this.jointKey) ?? null;
    },
    get jointSaid() {
      return this.chosenJoint ?? this.joint;
    },
    get jointRows() {
      const j = this.jointSaid;
      const of = (name, label, unit, step) => ({ name, label, unit, step, value: j[name], field: `joint-${name}` });
      const both = j.kind === "dowel";
      return [
        of("width_mm", j.kind === "snap" ? "breadth" : "width", "mm", 0.5),
        ...(both || j.on === "b" ? [of("depth_a_mm", "depth into a", "mm", 0.5)] : []),
        ...(both || j.on === "a" ? [of("depth_b_mm", "depth into b", "mm", 0.5)] : []),
        ...(j.kind === "snap" ? [of("thick_mm", "thickness", "mm", 0.1), of("catch_mm", "catch", "mm", 0.1)] : [of("taper_deg", "taper", "°", 1), of("bevel_mm", "bevelled mouth", "mm", 0.1)]),
        of("turn_deg", "turned by", "°", 5),
        of("clearance_mm", "clearance per side", "mm", 0.05),
      ];
    },
    get jointTitle() {
      return this.chosenJoint ? `Joint ${this.jointKey}` : "New joint";
    },
    plainJoint(j) {
      const known = ["kind", "outline", "width_mm", "depth_a_mm", "depth_b_mm", "turn_deg", "taper_deg", "clearance_mm", "bevel_mm", "on", "thick_mm", "catch_mm"];
      return Object.fromEntries(known.filter((k) => j[k] !== null && j[k] !== undefined).map((k) => [k, j[k]]));
    },
    async setJoint(name, value, field) {
      if (typeof value === "number" && !Number.isFinite(value)) return;
      if (this.chosenJoint) await this.edit("joints", { cut: this.cutFace.key, joints: [{ key: this.jointKey, [name]: value }] }, field);
      else {
        this.joint[name] = value;
        await this.tryJoint();
      }
    },
    async tryJoint() {
      if (!this.cutFace) return;
      try {
        const told = await postJson(urls().joint, { cut: this.cutFace.key, joint: this.plainJoint(this.jointSaid) });
        this.zone = told.zone;
        this.zoneText = told.zone_mm2 > 0 ? `A joint like this fits in the shaded zone, ${grouped(told.zone_mm2)} mm².` : "A joint like this fits nowhere on this face; try a smaller one.";
        this.drawCutFace();
      } catch (error) {
        this.problem = error.message;
      }
    },
    drawCutFace() {
      if (!this.cutFace) return;
      drawFace(this.$refs.face, Alpine.raw(this.cutFace), Alpine.raw(this.zone), this.jointKey, {
        place: (uv) => this.placeJoint(uv),
        choose: (key) => this.chooseJoint(key),
        slide: (uv) => this.setTailAt(uv),
        move: (key, uv) => this.edit("joints", { cut: this.cutFace.key, joints: [{ key, uv }] }),
      });
    },
    chooseJoint(key) {
      this.jointKey = this.jointKey === key ? "" : key;
      this.drawCutFace();
      this.tryJoint();
    },
    placeJoint(uv, insist = false) {
      this.lastUv = uv;
      return this.edit("joints", { cut: this.cutFace.key, joints: [{ uv, ...this.plainJoint(this.joint), insist }] }).then((made) => {
        this.refusedJoint = !made;
      });
    },
    refusedJoint: false,
    insistOnJoint() {
      return this.placeJoint(this.lastUv, true);
    },
    async placeJoints() {
      try {
        const told = await postJson(urls().places, { cut: this.cutFace.key, count: this.jointCount, joint: this.plainJoint(this.joint) });
        if (told.joints.length) await this.edit("joints", { cut: this.cutFace.key, joints: told.joints });
        if (told.note) this.problem = told.note;
      } catch (error) {
        this.problem = error.message;
      }
    },
    removeJoint() {
      const key = this.jointKey;
      this.jointKey = "";
      return this.edit("joints", { cut: this.cutFace.key, remove: [key] });
    },
    setDovetail(on) {
      const [x0, y0, x1, y1] = this.cutFace.bounds;
      const long = x1 - x0 > y1 - y0;
      const width = Math.max(2, Number((0.3 * Math.min(x1 - x0, y1 - y0)).toFixed(1)));
      const tail = on ? { uv: [(x0 + x1) / 2, (y0 + y1) / 2], width_mm: width, depth_mm: width / 2, turn_deg: long ? -90 : 0, clearance_mm: this.cutFace.clearance_mm } : null;
      return this.edit("cut", { key: this.cutFace.key, dovetail: tail });
    },
    get tailRows() {
      const tail = this.cutFace?.dovetail;
      if (!tail) return [];
      const of = (name, label, unit, step) => ({ name, label, unit, step, value: tail[name], field: `tail-${name}` });
      return [
        of("width_mm", "width at the cut", "mm", 0.5), of("depth_mm", "depth", "mm", 0.5), of("flank_deg", "flanks lean", "°", 1),
        of("turn_deg", "slides towards", "°", 5), of("taper_deg", "taper along it", "°", 0.5), of("clearance_mm", "clearance per side", "mm", 0.05),
      ];
    },
    setTailAt(uv) {
      const { width_mm, depth_mm, flank_deg, turn_deg, taper_deg, clearance_mm } = this.cutFace.dovetail;
      return this.edit("cut", { key: this.cutFace.key, dovetail: { uv, width_mm, depth_mm, flank_deg, turn_deg, taper_deg, clearance_mm } });
    },
    setTail(name, value, field) {
      if (!Number.isFinite(value)) return null;
      const { at, width_mm, depth_mm, flank_deg, turn_deg, taper_deg, clearance_mm } = this.cutFace.dovetail;
      return this.edit("cut", { key: this.cutFace.key, dovetail: { at, width_mm, depth_mm, flank_deg, turn_deg, taper_deg, clearance_mm, [name]: value } }, field);
    },

    // ---- where to cut ----------------------------------------------------------------------

    async loadCuts(onlyIfKnown) {
      if (onlyIfKnown && !this.cuts) return;
      const of = this.state.key;
      this.cuts = onlyIfKnown && this.cutsOf === of ? this.cuts : null;
      if (onlyIfKnown) return;
      try {
        let told = await postJson(urls().propose, { fit: this.cutsFit });
        if (told.work) {
          this.cutsWork = told.work;
          const ended = await follow(told.work, (w) => (this.cutsWork = w));
          this.cutsWork = null;
          if (ended.state !== "done") {
            if (ended.state !== "cancelled") this.problem = ended.error;
            return;
          }
          if (this.state.key !== of) return;
          told = await postJson(urls().propose, { fit: this.cutsFit });
        }
        this.cuts = told.cuts ?? null;
        this.cutsOf = of;
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.cutsWork = null;
      }
    },
    async cancelCuts() {
      if (this.cutsWork) await cancelWork(this.cutsWork).catch((error) => (this.problem = error.message));
    },
    cutPartText(part) {
      return `${grouped(part.volume_mm3)} mm³, supports ${grouped(part.support_mm3)} mm³${part.fits ? "" : ", does not fit"}`;
    },
    lookAtCut(one) {
      this.closeFace();
      this.cutPlane(one.planes[0].normal, one.planes[0].point);
    },
    // Along all its planes; every part is then stood as it was judged.
    async takeProposedCut(one) {
      if (!(await this.edit("several", { edits: Alpine.raw(one.edits), what: "cut as proposed" }))) return;
      this.endCut();
    },
  },
});
