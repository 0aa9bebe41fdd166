// The library page: bring files in, delete and bring back.
import Alpine from "alpinejs";
import { cancelWork, follow, postJson, sendFile } from "./api.js";

Alpine.data("library", () => ({
  over: false,
  busy: "",
  done: 0,
  problem: "",
  removed: null,
  work: null,
  made: [],

  init() {
    this.made = this.$refs.made.dataset.made.split(",").filter(Boolean).map(Number);
  },
  get percent() {
    return `${Math.round(this.done * 100)} %`;
  },
  get bar() {
    return { width: `${this.done * 100}%` };
  },
  get madeText() {
    return `${this.made.length} bodies are pieces of their own now.`;
  },
  get removedText() {
    return this.removed ? `“${this.removed.name}” is deleted.` : "";
  },
  get canCancel() {
    return this.work !== null;
  },

  chosen(event) {
    const [file] = event.target.files;
    event.target.value = "";
    if (file) this.bringIn(file);
  },

  dropped(event) {
    this.over = false;
    const [file] = event.dataTransfer.files;
    if (file) this.bringIn(file);
    else this.problem = "That was no file; drag in a mesh file.";
  },

  async bringIn(file) {
    if (this.busy) return;
    this.problem = "";
    const limit = Number(this.$root.dataset.limitMb);
    if (file.size > limit * 1e6) {
      this.problem = `“${file.name}” is ${Math.round(file.size / 1e6)} MB; at most ${limit} MB are read.`;
      return;
    }
    this.busy = `Sending ${file.name}`;
    this.done = 0;
    try {
      const answer = await sendFile(this.$root.dataset.upload, file, (part) => {
        this.done = part;
        if (part === 1) this.busy = `Opening ${file.name}`;
      });
      let url = answer.url;
      if (answer.work) {
        this.work = answer.work;
        const ended = await follow(answer.work, (work) => {
          this.busy = `${work.title}: ${work.stage}`;
          this.done = work.done;
        });
        if (ended.state === "cancelled") return;
        if (ended.state !== "done") throw new Error(ended.error);
        url = ended.result.url;
      }
      location.href = url;
    } catch (error) {
      this.problem = error.message;
    } finally {
      this.busy = "";
      this.work = null;
    }
  },

  async cancel() {
    if (this.work) await cancelWork(this.work);
  },

  async remove(id, button) {
    try {
      const { name } = await postJson(button.dataset.url);
      const card = this.$refs.cards.querySelector(`[data-piece="${id}"]`);
      card.hidden = true;
      this.removed = { name, back: button.dataset.back, card };
    } catch (error) {
      this.problem = error.message;
    }
  },

  // Bodies that were just made pieces of their own go again, all at once.
  async undoMade() {
    try {
      await postJson(this.$root.dataset.deleteMany, { pieces: [...this.made] });
      location.href = location.pathname;
    } catch (error) {
      this.problem = error.message;
    }
  },

  async back(url) {
    try {
      await postJson(url);
      location.reload();
    } catch (error) {
      this.problem = error.message;
    }
  },

  async bringBack() {
    try {
      await postJson(this.removed.back);
      this.removed.card.hidden = false;
      this.removed = null;
    } catch (error) {
      this.problem = error.message;
    }
  },
}));

Alpine.start();
