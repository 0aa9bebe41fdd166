// The comparison: follows what is still being worked out, prints, and changes what is compared.
import { cancelWork, follow, postJson } from "./api.js";

document.querySelector("[data-do=print]").addEventListener("click", () => window.print());

document.querySelector("[data-choose]").addEventListener("change", (e) => {
  const chosen = [...e.currentTarget.querySelectorAll("input:checked")].map((box) => box.value);
  if (chosen.length) location.search = `?stances=${chosen.join(",")}`;
  else e.target.checked = true;
});

const waiting = document.querySelector("[data-waiting]");
if (waiting) {
  let current = null;
  waiting.querySelector("[data-do=cancel]").addEventListener("click", () => current && cancelWork(current));
  const urls = waiting.dataset.waiting.trim().split(/\s+/);
  (async () => {
    for (const [number, url] of urls.entries()) {
      const { work } = await postJson(url);
      current = work;
      const ended = await follow(work, (w) => {
        waiting.querySelector("[data-stage]").textContent = w.stage;
        waiting.querySelector(".bar span").style.width = `${(100 * (number + w.done)) / urls.length}%`;
      });
      if (ended.state !== "done") throw new Error(ended.state === "cancelled" ? "Cancelled; the others are shown." : ended.error);
    }
    location.reload();
  })().catch((error) => (waiting.querySelector("[data-stage]").textContent = error.message));
}
