// The strip of a piece's stances.
import { getJson, postJson, whileBusy } from "./api.js";
import { stage, start } from "./stage.js";
import { grouped } from "./numbers.js";

export const stancesStrip = {
  stances: start.strip.stances,
  away: start.strip.away,
  stripUndo: start.strip.undo,
  stripRedo: start.strip.redo,
  stripRevision: start.strip.revision,
  naming: null,
  picked: [],

  get compareUrl() {
    return this.picked.length > 1 ? `${start.urls.compare}?stances=${this.picked.join(",")}` : start.urls.compare;
  },
  get presentName() {
    return this.stances.find((s) => s.present)?.name;
  },
  compareText: (s) => `Compare ${s.name}`,
  goText: (s) => `Go to ${s.name}`,
  awayText: (s) => `${s.name}, ${s.edits} edit${s.edits === 1 ? "" : "s"}`,
  get isFirst() {
    return this.stances[0]?.present;
  },
  get isLast() {
    return this.stances.at(-1)?.present;
  },
  // Brings the present stance into view whenever its figures change.
  inView(s, element) {
    if (s.present && this.figures) this.$nextTick(() => element.scrollIntoView({ block: "nearest", inline: "nearest" }));
  },
  nameIt(s, field) {
    if (this.naming === s.id) this.$nextTick(() => field.select());
  },
  stripText(f) {
    const parts = [`supports ${grouped(f.support_mm3)} mm³`, `${f.minutes.toFixed(0)} min`];
    if (f.scar_mm2) parts.push(`marks ${grouped(f.scar_mm2)} mm²`);
    parts.push(`${f.islands} island${f.islands === 1 ? "" : "s"}`);
    return parts.join(" · ");
  },
  pick(id, on) {
    this.picked = on ? [...this.picked, id] : this.picked.filter((other) => other !== id);
  },
  async refreshStrip() {
    this.showStrip(await getJson(start.urls.strip));
  },
  showStrip(told) {
    this.stances = told.stances;
    this.away = told.away;
    this.stripUndo = told.undo;
    this.stripRedo = told.redo;
    this.stripRevision = told.revision;
  },
  // A change of the strip; where another stance is to be looked at then, the page goes there.
  strip(what, body = {}) {
    return this.changeStrip(start.urls[what], body);
  },
  async changeStrip(url, body = {}) {
    try {
      const told = await stage.store.after(() => whileBusy(postJson(url, { ...body, strip_revision: this.stripRevision })));
      if (told.go !== start.urls.page) {
        document.documentElement.toggleAttribute("data-leaving", true);
        location.href = told.go;
        return;
      }
      this.showStrip(told);
    } catch (error) {
      this.problem = error.message;
      if (error.status === 409 && error.body.strip) this.showStrip(error.body.strip);
    }
  },
  async readStance(field) {
    const [file] = field.files;
    if (file) await this.strip("take_in", { text: await file.text() });
    field.value = "";
  },
  rename(stance, name) {
    this.naming = null;
    if (name.trim() && name.trim() !== stance.name) return this.strip("rename", { name });
  },
  forkTurned(angles) {
    const [x, y, z] = angles;
    return this.strip("fork", { edits: [{ kind: "turn", parameters: { x_deg: x, y_deg: y, z_deg: z } }] });
  },
};
