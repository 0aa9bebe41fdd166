// Inspect: the ledger of findings, the threshold, measures, painted sides, bodies.
import Alpine from "alpinejs";
import { follow, getBytes, getJson, postJson } from "../api.js";
import { stage, start } from "../stage.js";
import { register } from "./register.js";
import { grouped } from "../numbers.js";

const pickOf = ({ facet, weights }) => ({ facet, weights });
const CLICKS = {
  span: "Click a wall of the opening", slope: "Click a face", thickness: "Click a wall", diameter: "Click near a round edge",
};

register("inspect", {
  hint(bench) {
    if (bench.painting || bench.dyeing) return bench.paintBy === "fill" ? "Click a face" : "Drag over the model; drag beside it to look around";
    if (bench.measuring === "distance") return bench.places.length ? "Click the second place" : "Click the first place";
    return bench.measuring ? CLICKS[bench.measuring] : "";
  },
  inHand: (bench) => Boolean(bench.painting || bench.dyeing || bench.measuring),
  grab(bench, x, y) {
    if (!(bench.painting || bench.dyeing) || bench.paintBy !== "brush") return null;
    const hit = stage.view.pick(x, y);
    return hit && { stroke: [hit] };
  },
  dragging: (bench, held, hit) => held.stroke.push(hit),
  dropped: (bench, held) => bench.paintStroke(held.stroke),
  click(bench, x, y) {
    const hit = stage.view.pick(x, y);
    if (bench.painting || bench.dyeing) return bench.paintAt(hit);
    if (bench.measuring) return bench.measureAt(hit);
    return bench.choosePatchAt(hit);
  },
  leave: (bench) => bench.endTools(),
  escape: (bench) => bench.endTools(),
  data: {
    painting: "",
    dyeing: "", // "", "none", or the colour that is painted with
    ownDye: "#8a5a83",
    ownDyeName: "",
    showColours: true,
    paintBy: "fill",
    creaseDeg: 30,
    brushMm: 4,
    measuring: "",
    places: [],
    measureKinds: [["distance", "distance"], ["span", "span"], ["slope", "slope"], ["thickness", "wall"], ["diameter", "round edge"]],
    paintSides: [["show", "show side"], ["back", "back side"], ["none", "rub out"]],
    measuresUrl: start.urls.measures,
    bodies: null,
    alone: 0,

    get overhangText() {
      const o = this.findings.overhang;
      return o ? `${grouped(o.area_mm2, 1)} mm² overhang in ${o.patches} patch${o.patches === 1 ? "" : "es"}.` : "";
    },
    get thresholdText() {
      return `${this.threshold}°`;
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
    endTools() {
      this.painting = this.measuring = this.dyeing = "";
      this.places = [];
    },

    // ---- findings ------------------------------------------------------------------------

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
      const url = `${start.urls.patches}?threshold=${this.findings.threshold_deg}&v=${this.state.key}`;
      try {
        const patches = new Uint32Array(await getBytes(url));
        if (this.patchesOf !== key) return;
        this.patches = patches;
        this.showChosenPatch();
      } catch (error) {
        this.refused(error);
      }
    },

    choose(target) {
      const { accept, takeBack, ways, turnTo, forkTo, propSo, propOf, cutSo, cutOf, shapeSo, shapeOf } = target.closest("button")?.dataset ?? {};
      const finding = target.closest("[data-finding]");
      const line = target.closest("[data-open]");
      if (accept) this.accept(accept, target.closest(".finding-actions").querySelector("input").value);
      else if (takeBack) this.takeBack(takeBack);
      else if (ways) this.showWaysOut(ways);
      else if (propOf) this.propSo(propOf, propSo);
      else if (cutOf) this.cutSo(cutOf, cutSo);
      else if (shapeOf) this.shapeSo(shapeOf, shapeSo);
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
      stage.view.showPlace(finding.center_mm, finding.from_below);
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
      stage.view.setChosenFacets(facets);
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
      stage.view.setThreshold(degrees);
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
            stage.tower.setData(findings.tower, this.flags);
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

    choosePatchAt(hit) {
      const patch = hit && this.patches?.[hit.facet];
      const place = patch && this.findings.places.find((p) => p.patches.includes(patch));
      const finding = patch && (this.findings.findings.find((f) => f.patch === patch) ?? this.findings.findings.find((f) => f.id === place?.findings[0]));
      if (finding) {
        this.chosen = finding.id;
        this.markChosen();
        this.setLayer(finding.layer);
      }
    },

    // ---- painted sides -------------------------------------------------------------------

    startPainting(side) {
      this.painting = this.painting === side ? "" : side;
      this.measuring = this.dyeing = "";
    },
    // ---- colours ---------------------------------------------------------------------------

    get dyes() {
      const known = new Set(start.dyes.map((one) => one.rgb));
      return [...start.dyes, ...this.state.palette.filter((one) => !known.has(one.rgb))];
    },
    startDyeing(rgb) {
      this.dyeing = this.dyeing === rgb ? "" : rgb;
      if (this.dyeing) this.painting = this.measuring = "";
    },
    setShowColours(on) {
      this.showColours = on;
      stage.view.setShowColours(on);
    },
    dyeParameters(places) {
      const own = this.dyeing === this.ownDye && this.ownDyeName.trim() ? { name: this.ownDyeName.trim() } : {};
      const how = this.paintBy === "fill" ? { crease_deg: this.creaseDeg } : { brush_mm: this.brushMm };
      return { colour: this.dyeing, places, ...own, ...how };
    },

    paintAt(hit) {
      if (!hit) return;
      if (this.paintBy === "brush") return this.paintStroke([hit]);
      if (this.dyeing) return this.edit("colour", this.dyeParameters([pickOf(hit)]));
      return this.edit("fill", { side: this.painting, at: pickOf(hit), crease_deg: this.creaseDeg });
    },
    // Places closer to each other than a quarter of the brush say nothing more.
    paintStroke(hits) {
      const places = [];
      for (const hit of hits) {
        const last = places.at(-1)?.point;
        if (!last || Math.hypot(...hit.point.map((v, i) => v - last[i])) > this.brushMm / 4) places.push(hit);
      }
      if (this.dyeing) return this.edit("colour", this.dyeParameters(places.map(pickOf)));
      return this.edit("paint", { side: this.painting, places: places.map(pickOf), brush_mm: this.brushMm });
    },

    // ---- measures and bodies -------------------------------------------------------------

    startMeasure(what) {
      this.measuring = this.measuring === what ? "" : what;
      this.painting = this.dyeing = "";
      this.places = [];
    },
    async measureAt(hit) {
      if (!hit) return;
      this.places.push(pickOf(hit));
      if (this.places.length < (this.measuring === "distance" ? 2 : 1)) return;
      const anchors = Alpine.raw(this.places);
      this.places = [];
      await this.edit("measure", { what: this.measuring, anchors });
    },
    // Another part is on the bench, or the same one in another shape.
    forgetBodies() {
      const wasShown = this.bodies !== null;
      this.bodies = this.bodyOfFacet = null;
      this.alone = 0;
      stage.view.model.isHidden = null;
      if (wasShown) this.loadBodies();
    },
    async loadBodies() {
      try {
        this.bodies = this.bodies ?? (await getJson(start.urls.bodies));
        this.bodyOfFacet = this.bodyOfFacet ?? new Uint32Array(await getBytes(this.state.body_of_facet_url));
      } catch (error) {
        this.problem = error.message;
      }
    },
    showAlone(number) {
      this.alone = this.alone === number ? 0 : number;
      const body = Alpine.raw(this.bodyOfFacet);
      stage.view.setHidden(this.alone ? (f) => body[f] !== this.alone : null);
    },
    async separate() {
      try {
        const { work } = await postJson(start.urls.separate);
        const ended = await follow(work, (now) => (this.making = now.open ? now : null));
        if (ended.state === "done") location.href = ended.result.url;
        else if (ended.state !== "cancelled") this.problem = ended.error;
      } catch (error) {
        this.problem = error.message;
      }
    },

    bodyText(body) {
      return `${body.number}: ${body.size_mm.map((v) => v.toFixed(1)).join(" × ")} mm, ${grouped(body.volume_mm3)} mm³`;
    },
    sameText: (group) => `Bodies ${group.join(", ")} have the same shape.`,
    mirroredText: (pair) => `Bodies ${pair.join(" and ")} are mirror images.`,
    measureText: (m) => `${m.kind}: ${m.text}`,
  },
});
