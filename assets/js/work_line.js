// What runs and waits, in the header of every page: how far, stop, go there; and what has ended.
// By itself, not through api.js: that a page looks what runs does not make it busy.
const OPEN_MS = 1000;
const IDLE_MS = 15000;
const SEEN = "work seen";
const line = document.querySelector("[data-work-line]");
const token = () => document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1] ?? document.querySelector("[name=csrfmiddlewaretoken]")?.value ?? "";
const percent = (work) => `${Math.round(work.done * 100)} %`;
const WORDS = { done: "done", failed: "ended early" };
let timer = 0;

function element(name, text = "", fields = {}) {
  return Object.assign(document.createElement(name), { textContent: text }, fields);
}

async function looked(url) {
  const answer = await fetch(url, { headers: { Accept: "application/json" } });
  if (!answer.ok) throw new Error(answer.status);
  return answer.json();
}

async function stop(work) {
  await fetch(work.cancel_url, { method: "POST", headers: { Accept: "application/json", "X-CSRFToken": token() } }).catch(() => null);
  look();
}

function button(work) {
  const made = element("button", "Stop", { type: "button", className: "btn" });
  made.setAttribute("aria-label", `Stop: ${work.title}`);
  made.dataset.stop = work.id;
  made.addEventListener("click", () => stop(work));
  return made;
}

function row(work) {
  const made = element("p", "", { className: "work-row" });
  made.dataset.work = work.id;
  const title = work.go ? element("a", work.title, { href: work.go, className: "underline" }) : element("span", work.title);
  const said = work.open ? (work.state === "waiting" ? "waits for its turn" : `${work.stage}, ${percent(work)}`) : work.error || WORDS[work.state];
  made.append(title, element("span", said, { className: work.error ? "text-brick" : "quiet" }));
  if (work.open) made.append(button(work));
  return made;
}

function show({ open, ended }) {
  const seen = new Set(JSON.parse(localStorage.getItem(SEEN) ?? "[]"));
  const details = line.querySelector("details");
  if (details.open) localStorage.setItem(SEEN, JSON.stringify(ended.map((work) => work.id)));
  const fresh = ended.filter((work) => !seen.has(work.id));
  line.hidden = !open.length && !fresh.length && !details.open;
  const runs = open.find((work) => work.state === "running") ?? open[0];
  const more = open.length - 1;
  const failed = fresh.filter((work) => work.state === "failed").length;
  line.querySelector("[data-work-text]").textContent = runs
    ? `${runs.title} · ${runs.state === "waiting" ? "waits" : percent(runs)}${more ? ` · ${more} more` : ""}`
    : failed ? `${failed} ended early` : `${fresh.length || ended.length} done`;
  line.classList.toggle("has-failed", failed > 0 && !runs);
  line.querySelector(".work-bar").hidden = !runs;
  line.querySelector(".work-bar > span").style.width = runs ? percent(runs).replace(" ", "") : "0";
  const halt = line.querySelector("[data-work-stop]");
  halt.hidden = !runs;
  halt.setAttribute("aria-label", runs ? `Stop: ${runs.title}` : "Stop");
  halt.onclick = () => runs && stop(runs);
  line.querySelector(".work-list").replaceChildren(...open.map(row), ...ended.map(row));
  return open.length > 0;
}

async function look() {
  clearTimeout(timer);
  let pause = IDLE_MS;
  try {
    if (!document.hidden && show(await looked(line.dataset.url))) pause = OPEN_MS;
  } catch {
    pause = IDLE_MS;
  }
  clearTimeout(timer);
  timer = setTimeout(look, pause);
}

// A page that waits for work before it can be shown at all.
async function waitFor(main) {
  for (;;) {
    const work = await looked(main.dataset.madeFirst).catch(() => null);
    if (work && !work.open && work.state === "done") return location.reload();
    if (work) {
      main.querySelector("[data-stage]").textContent = work.open ? work.stage : work.error || "Stopped. Reload the page to begin again.";
      main.querySelector(".work-bar > span").style.width = `${work.done * 100}%`;
      if (!work.open) return;
    }
    await new Promise((resolve) => setTimeout(resolve, 400));
  }
}

if (line) {
  look();
  // Told by the page when it has begun something.
  window.addEventListener("work", () => {
    clearTimeout(timer);
    timer = setTimeout(look, 250);
  });
  document.addEventListener("visibilitychange", () => document.hidden || look());
  line.querySelector("details").addEventListener("toggle", look);
  document.addEventListener("click", (event) => line.contains(event.target) || line.querySelector("details").removeAttribute("open"));
}
const waiting = document.querySelector("[data-made-first]");
if (waiting) waitFor(waiting);
