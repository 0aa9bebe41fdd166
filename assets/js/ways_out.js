// Ways out of a finding: looked for in the background, told in its place of the ledger.
import { follow, postJson } from "./api.js";
import { start } from "./stage.js";

export const waysOut = {
  waysProps: {},
  waysCuts: {},
  waysShapes: {},
  async showWaysOut(id) {
    const room = () => this.$refs.ledger.querySelector(`[data-ways-for="${CSS.escape(id)}"]`);
    const say = (text) => room() && (room().textContent = text);
    const key = this.state.key;
    this.waysOf = key;
    say("Looking for ways out …");
    try {
      let found = await postJson(start.urls.ways, { finding: id });
      if (found.work) {
        this.waysWork = found.work;
        const ended = await follow(found.work, (w) => say(`${w.stage}, ${Math.round(100 * w.done)} % …`));
        this.waysWork = null;
        if (ended.state !== "done") return say(ended.state === "cancelled" ? "Cancelled." : ended.error);
        if (this.state.key !== key) return;
        found = await postJson(start.urls.ways, { finding: id });
      }
      if (room() && found.html) room().innerHTML = found.html;
      this.waysCuts = { ...this.waysCuts, [id]: found.cuts };
      this.waysShapes = { ...this.waysShapes, [id]: found.shapes };
      this.waysProps = { ...this.waysProps, [id]: found.props };
    } catch (error) {
      say(error.message);
    }
  },
  propSo(id, index) {
    const supports = (this.waysProps[id]?.[Number(index)] ?? []).map(({ key, ...rest }) => ({ name: key, ...rest }));
    return supports.length && this.edit("supports", { supports, what: `prop ${id}` });
  },
  shapeSo(id, index) {
    const way = this.waysShapes[id]?.[Number(index)];
    return way && this.edit("reshape", way);
  },
  cutSo(id, index) {
    const way = this.waysCuts[id]?.[Number(index)];
    return way && this.takeProposedCut(way);
  },
  turnTo(text) {
    const [x, y, z] = text.split(",").map(Number);
    return this.edit("turn", { x_deg: x, y_deg: y, z_deg: z });
  },
};
