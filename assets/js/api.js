// Talks to the server: JSON both ways, and one sentence when something is refused.

// What the server refused: the sentence, the status, and what else it said.
export class Refused extends Error {
  constructor(message, status = 0, body = {}) {
    super(message);
    this.status = status;
    this.body = body;
  }
}

const token = () => document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1] ?? "";

async function answer(response) {
  const isJson = response.headers.get("Content-Type")?.includes("application/json");
  const body = isJson ? await response.json() : null;
  if (response.ok) return body;
  throw new Refused(body?.error ?? "The server did not answer as expected; reload the page.", response.status, body ?? {});
}

// The page says while something is under way, for assistive tools and for scripts that drive it.
let underWay = 0;
function busy(by) {
  underWay += by;
  document.documentElement.toggleAttribute("data-busy", underWay > 0);
}

// Keeps the page busy until a promise is settled.
export async function whileBusy(promise) {
  busy(1);
  try {
    return await promise;
  } finally {
    setTimeout(() => busy(-1), 30);
  }
}

async function ask(url, options) {
  try {
    return await fetch(url, options);
  } catch {
    throw new Refused("The server does not answer. Is Fair Stand still running?");
  }
}

// Where a shape is worked out first, the same is asked again when that is done.
async function askUntilMade(url, options) {
  for (;;) {
    const response = await ask(url, options);
    if (response.status !== 202) return response;
    const { again, work } = await response.clone().json();
    begun();
    if (!again) return response;
    const ended = await follow(work, (now) => makingNow(now));
    makingNow(null);
    if (ended.state === "cancelled") throw new Refused("Stopped; nothing was changed.");
    if (ended.state !== "done") throw new Refused(ended.error);
  }
}

// The line of the header looks what runs.
const begun = () => window.dispatchEvent(new Event("work"));
// What the page waits for before it is answered, or null.
const makingNow = (work) => window.dispatchEvent(new CustomEvent("making", { detail: work?.open ? work : null }));

// Busy until the answer is read to its end; what follows from it is under way before that ends.
const asked = (url, options, read) => whileBusy(askUntilMade(url, options).then(read));

async function bytes(response) {
  if (!response.ok) await answer(response);
  return response.arrayBuffer();
}

async function text(response) {
  if (!response.ok) throw new Refused(await response.text(), response.status);
  return response.text();
}

const posted = (body) => ({
  method: "POST",
  headers: { Accept: "application/json", "Content-Type": "application/json", "X-CSRFToken": token() },
  body: JSON.stringify(body),
});

export const getJson = (url) => asked(url, { headers: { Accept: "application/json" } }, answer);

export const postJson = (url, body = {}) => asked(url, posted(body), answer);

export const getBytes = (url) => asked(url, { headers: { Accept: "application/octet-stream, application/json" } }, bytes);

export const postForBytes = (url, body) => asked(url, posted(body), bytes);

export const getText = (url) => asked(url, undefined, text);

// Sends a file and reports how much has gone out; fetch cannot do that.
export function sendFile(url, file, onProgress) {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", url);
    request.setRequestHeader("X-CSRFToken", token());
    request.setRequestHeader("Accept", "application/json");
    request.responseType = "json";
    request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    request.onload = () =>
      request.status < 300
        ? resolve(request.response)
        : reject(new Refused(request.response?.error ?? "The file was refused."));
    request.onerror = () => reject(new Refused("The server does not answer. Is Fair Stand still running?"));
    const form = new FormData();
    form.append("file", file);
    request.send(form);
  });
}

// Follows background work until it ends; calls back at each look.
// work: its record, as the server gave it.
export async function follow(work, onLook) {
  // Often at first, for what is quick; a picture that is drawn in software pays for every look.
  const leave = () => navigator.sendBeacon(work.let_go_url, form());
  window.addEventListener("pagehide", leave);
  try {
    for (let pause = 120; ; pause = Math.min(pause * 1.4, 500)) {
      const now = await getJson(work.url);
      onLook(now);
      if (!now.open) return now;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  } finally {
    window.removeEventListener("pagehide", leave);
    begun();
  }
}

// What a page says that is gone before it is answered.
function form() {
  const made = new FormData();
  made.append("csrfmiddlewaretoken", token());
  return made;
}

export const cancelWork = (work) => postJson(work.cancel_url);
