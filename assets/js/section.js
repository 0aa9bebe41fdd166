// Shows the section of a layer: asks for the newest wanted one, never for a queue of old ones.
import { getText } from "./api.js";

export class Section {
  constructor(target, onProblem) {
    Object.assign(this, { target, onProblem, kept: new Map(), wanted: null, busy: false });
  }

  // url must name everything that the section depends on
  show(url) {
    this.wanted = url;
    const known = this.kept.get(url);
    if (known !== undefined) this.target.innerHTML = known;
    else if (!this.busy) this.#fetch();
  }

  clear() {
    this.wanted = null;
    this.target.replaceChildren();
  }

  async #fetch() {
    this.busy = true;
    try {
      while (this.wanted && !this.kept.has(this.wanted)) {
        const url = this.wanted;
        const html = await getText(url);
        this.kept.set(url, html);
        if (this.kept.size > 400) this.kept.delete(this.kept.keys().next().value);
        if (this.wanted) this.target.innerHTML = html;
      }
    } catch (error) {
      this.onProblem(error);
    } finally {
      this.busy = false;
    }
  }
}
