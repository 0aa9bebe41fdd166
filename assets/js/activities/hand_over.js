// Hand over: the checks, and the files that they allow.
import { getJson } from "../api.js";
import { start } from "../stage.js";
import { register } from "./register.js";

register("hand-over", {
  enter: (bench) => bench.offer || bench.loadOffer(),
  shown: (bench) => bench.loadOffer(),
  data: {
    offer: null,
    checkSign: ({ ok, is_doubtful: isDoubtful }) => (ok ? (isDoubtful ? "!" : "✓") : "✗"),
    checkColour: ({ ok, is_doubtful: isDoubtful }) => (ok ? (isDoubtful ? "text-ochre" : "text-teal") : "text-brick"),
    get openText() {
      const { open } = this.offer;
      return `Not so yet: ${open.map((label) => label.toLowerCase()).join(", ")}. The files are as it stands now.`;
    },
    async loadOffer() {
      const key = this.state.key;
      try {
        const offer = await getJson(start.urls.checks);
        if (this.state.key === key) this.offer = offer;
      } catch (error) {
        this.problem = error.message;
      }
    },
  },
});
