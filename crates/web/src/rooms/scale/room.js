// A scale that plays: it says what lies on it, first on its way and then at rest.
import { ready } from "../../js/app.js";
import { typed } from "../../js/words.js";

const shown = document.getElementById("reads");
const input = document.getElementById("scale-g");
let g = 0;

async function say(now, still) {
  g = now;
  shown.textContent = String(Math.round(g * 10) / 10);
  try {
    await fetch("/api/v1/scale", { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ g, still }) });
  } catch {
    // Nobody listens without a line; the pan goes on.
  }
}

async function put(to) {
  await say((g + to) / 2, false);
  await say(to, true);
}

document.getElementById("scale").addEventListener("submit", (event) => {
  event.preventDefault();
  const to = typed(input.value);
  if (Number.isFinite(to)) put(to);
});
for (const button of document.querySelectorAll("[data-by]")) {
  button.addEventListener("click", () => {
    const by = Number(button.dataset.by);
    put(by === 0 ? 0 : g + by);
  });
}
ready();
