// The Dough sheet, live: what is typed goes to the server, the figures that come back are put in place.
import { ready, say } from "../../js/app.js";

const form = document.getElementById("sheet");
const part = (id) => document.getElementById(id);
const KEEP = "slow-rise.sheet";
let asked = 0;
let timer = 0;

const entries = () => new URLSearchParams(new FormData(form));

/** Marks the fields that the server refused and clears the others. */
function mark(errors) {
  for (const box of form.querySelectorAll("[data-field]")) {
    const found = errors.find((e) => e.field === box.dataset.field);
    box.classList.toggle("wrong", Boolean(found));
    const sentence = box.querySelector(".err");
    if (sentence) sentence.textContent = found ? found.message : "";
    for (const input of box.querySelectorAll("input")) {
      if (found) input.setAttribute("aria-invalid", "true");
      else input.removeAttribute("aria-invalid");
    }
  }
  const hidden = form.querySelector("details.bowl");
  if (hidden?.querySelector(".wrong")) hidden.open = true;
}

async function recompute() {
  const mine = ++asked;
  form.classList.add("working");
  try {
    const answer = await fetch("/dough/preview", { method: "POST", body: entries() });
    if (!answer.ok) throw new Error(String(answer.status));
    const got = await answer.json();
    if (mine !== asked) return;
    part("answer").innerHTML = got.answer;
    if (got.figures) {
      const open = form.querySelector("details.more")?.open;
      part("figures").innerHTML = got.figures;
      part("strip").innerHTML = got.strip;
      const more = form.querySelector("details.more");
      if (more && open) more.open = true;
    }
    form.classList.toggle("stale", !got.figures);
    mark(got.errors);
    say("");
  } catch {
    if (mine === asked) {
      form.classList.add("stale");
      say("No answer from the server. What you typed stays here; the figures follow when it is back.");
      timer = setTimeout(recompute, 3000);
    }
  } finally {
    if (mine === asked) {
      form.classList.remove("working");
      form.dataset.answered = String(mine);
    }
  }
}

function later() {
  clearTimeout(timer);
  sessionStorage.setItem(KEEP, entries().toString());
  timer = setTimeout(recompute, 120);
}

form.addEventListener("input", later);
form.addEventListener("change", later);
form.addEventListener("click", (event) => {
  // A remedy sets its field here instead of sending the whole form.
  const remedy = event.target.closest("button[name=set]");
  if (remedy) {
    event.preventDefault();
    const [field, value] = remedy.value.split("=");
    const input = form.elements[field];
    input.value = value;
    later();
    input.focus();
  }
  const style = event.target.closest("a[data-style]");
  if (style) {
    // The day and hour stay when another style is chosen.
    const kept = new URLSearchParams({ style: style.dataset.style, serve_date: form.serve_date.value, serve_time: form.serve_time.value });
    style.href = `/dough/new?${kept}`;
    sessionStorage.removeItem(KEEP);
  }
});
form.addEventListener("submit", () => sessionStorage.removeItem(KEEP));

// A reload in the middle of typing brings back what was typed, if it is the same style.
const kept = new URLSearchParams(sessionStorage.getItem(KEEP) ?? "");
const reloaded = performance.getEntriesByType("navigation")[0]?.type === "reload";
if (reloaded && kept.get("style") === form.elements.style.value) {
  for (const [name, value] of kept) if (form.elements[name]) form.elements[name].value = value;
  recompute();
}
ready();
