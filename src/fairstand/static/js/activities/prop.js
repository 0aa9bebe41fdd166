// Prop: supports stood by clicking, moved by dragging, changed by typing.
import Alpine from "alpinejs";
import { postJson } from "../api.js";
import { stage, start } from "../stage.js";
import { drawSupport } from "../support_drawing.js";
import { register } from "./register.js";

const pickOf = ({ facet, weights }) => ({ facet, weights });
const made = (hit) => ({ support: "pillar", ends: [pickOf(hit), { plate: null }] });

register("prop", {
  enter: (bench) => bench.drawSupports(),
  leave: () => stage.view.setSupports(stage.view.supports.list, null),
  hint: () => "Click an underside to stand a pillar; drag a contact to move it",
  grab: (bench, x, y) => stage.view.pickSupport(x, y),
  dragging: (bench, held, hit) => bench.previewSupport(held.key, hit),
  dropped: (bench, held, hit) => bench.dropSupport(held.key, hit),
  click: (bench, x, y, held) => bench.propAt(x, y, held),
  keys: {
    Delete: (bench) => bench.removePillar(),
  },
  data: {
    pillarKey: null,

    get chosenPillar() {
      return this.state.pillars.find((p) => p.key === this.pillarKey) ?? null;
    },
    contactText(p) {
      if (p.fit === "lost") return `Was at z = ${p.contact_mm[2].toFixed(2)} mm`;
      return `Contact at z = ${p.contact_mm[2].toFixed(2)} mm, surface at ${p.contact_slope_deg.toFixed(0)}°`;
    },
    fitText: (p) => ({ stands: "stands", lost: "lost" })[p.fit] ?? "cannot stand",

    async propAt(x, y, held) {
      const found = held?.key ? held : stage.view.pickSupport(x, y);
      if (found) return this.choosePillar(found.key, false);
      const hit = stage.view.pick(x, y);
      if (!hit) return;
      const before = new Set(this.state.pillars.map((p) => p.key));
      if (await this.edit("support", made(hit))) {
        const one = this.state.pillars.find((p) => !before.has(p.key));
        if (one) this.choosePillar(one.key, false);
      } else this.showRefused(made(hit));
    },
    // One that is refused is drawn where it would have stood, with the place that is in its way.
    async showRefused(parameters) {
      try {
        const ghost = await postJson(start.urls.preview, parameters);
        if (ghost.fit !== "stands") this.drawSupports(ghost);
      } catch {
        // The sentence about the refusal is on the page already.
      }
    },
    drawSupports(ghost = null) {
      // What is chosen is marked where it can be changed.
      stage.view.setSupports(Alpine.raw(this.state.pillars), this.activity === "prop" ? this.pillarKey : null, ghost);
    },
    choosePillar(key, move = true) {
      this.pillarKey = key;
      this.drawSupports();
      this.drawChosenPillar();
      const pillar = this.chosenPillar;
      if (pillar && move) {
        stage.view.showPlace(pillar.contact_mm, true);
        this.setLayer(this.state.layers_of_pillars[key]);
      }
    },
    drawChosenPillar() {
      drawSupport(this.$refs.profile, Alpine.raw(this.chosenPillar));
    },
    async previewSupport(key, hit) {
      this.dragTo = { key, hit };
      if (this.fitting) return;
      this.fitting = true;
      try {
        while (this.dragTo) {
          const { key: moved, hit: to } = this.dragTo;
          this.dragTo = null;
          const ghost = await postJson(start.urls.preview, { key: moved, ends: made(to).ends });
          if (this.fitting) this.drawSupports(ghost);
        }
      } catch (error) {
        this.problem = error.message;
      } finally {
        this.fitting = false;
      }
    },
    async dropSupport(key, hit) {
      this.dragTo = null;
      this.fitting = false;
      this.pillarKey = key;
      if (!hit) return this.drawSupports();
      await this.edit("support", { key, ends: made(hit).ends });
    },
    resize(name, field) {
      if (this.pillarKey) return this.edit("support", { key: this.pillarKey, size: { [name]: field.valueAsNumber } }, field);
    },
    removePillar() {
      if (this.pillarKey) return this.edit("remove_support", { key: this.pillarKey });
    },
  },
});
