// What the server said of the stance, and the one queue of changes to it. Knows no page.
import { getJson, postJson } from "./api.js";

export class Store {
  // onState is called with every state that is taken over, and whether it was changed elsewhere
  constructor(state, urls, onState) {
    Object.assign(this, { state, urls, onState, queue: Promise.resolve(), catching: null });
  }

  // Runs after every change asked for before; one at a time, so that each builds on the last.
  after(run) {
    const done = this.queue.then(run);
    this.queue = done.catch(() => {});
    return done;
  }

  // Makes a change on the newest revision; gives what was refused, or null.
  change(url, body) {
    return this.after(async () => {
      try {
        const { state } = await postJson(`${url}?findings=later`, { ...body, revision: this.state.revision });
        this.#take(state, false);
        return null;
      } catch (error) {
        if (error.status === 409 && error.body.state) this.#take(error.body.state, true);
        return error;
      }
    });
  }

  edit(kind, parameters) {
    return this.change(this.urls.edits, { kind, parameters });
  }

  // What was asked for belongs to no present state: look what there is now.
  catchUp() {
    this.catching ??= getJson(this.urls.state)
      .then((state) => state.revision !== this.state.revision && this.#take(state, true))
      .finally(() => (this.catching = null));
    return this.catching;
  }

  #take(state, isElsewhere) {
    this.state = state;
    this.onState(state, isElsewhere);
  }
}
