// Fire, live: what is set goes to the server, race, firing and judgement come back drawn. Scrubbing reads the seconds that
// came with the picture; no rule stands here.
import { ready } from "../../js/app.js";
import { asker } from "../../js/ask.js";
import { words } from "../../js/words.js";

const form = document.getElementById("fire");
const part = (id) => document.getElementById(id);

function entries(act) {
  const all = new URLSearchParams(new FormData(form));
  if (act) all.set("act", act);
  return all;
}

const ask = asker({ form, url: "/fire/preview", show, parts: ["first", null], lost: words("script-fire-no-answer") });

function show(got) {
  const active = document.activeElement;
  const back = active?.id && form.contains(active) ? { id: active.id, at: active.selectionStart } : null;
  const open = [...part("desk").querySelectorAll("details")].map((d) => d.open);
  if (got.answer) part("answer").innerHTML = got.answer;
  if (got.picture) part("picture").innerHTML = got.picture;
  const typedReading = part("degrees")?.value;
  if (got.picture && got.desk !== null) {
    part("desk").innerHTML = got.desk;
    [...part("desk").querySelectorAll("details")].forEach((d, i) => (d.open = open[i] ?? false));
    if (typedReading && part("degrees")) part("degrees").value = typedReading;
  }
  form.classList.toggle("stale", !got.picture);
  for (const field of form.querySelectorAll(".nf")) {
    const error = got.errors.find((e) => e.field === field.dataset.field);
    field.classList.toggle("wrong", Boolean(error));
    const line = field.querySelector(".err");
    if (line) line.textContent = error?.message ?? "";
  }
  const wrong = part("wrong");
  wrong.hidden = got.errors.length === 0;
  wrong.replaceChildren(
    ...got.errors.map((e) => {
      const p = document.createElement("p");
      p.className = "err";
      p.textContent = e.message;
      return p;
    }),
  );
  if (back) {
    const again = part(back.id);
    again?.focus();
    if (again?.setSelectionRange && typeof back.at === "number") again.setSelectionRange(back.at, back.at);
  }
  course = null;
}

// Scrubbing: the cut through oven and piece at any second.
let course = null;
const shades = (v) => words(v < 0.5 ? "fire-word-pale" : v < 1.5 ? "fire-word-golden" : v < 2.5 ? "fire-well-browned" : "fire-word-charred");

/** As the server says it: "76 s", "7 min 34 s". */
function bakeTime(s) {
  if (s < 180) return `${s} s`;
  const rest = s % 60;
  return `${Math.floor(s / 60)} min${rest === 0 ? "" : ` ${String(rest).padStart(2, "0")} s`}`;
}

function scrub(second) {
  course ??= JSON.parse(part("cut").dataset.course);
  let i = course.t.findIndex((t) => t >= second);
  if (i < 0) i = course.t.length - 1;
  for (const [key, values] of Object.entries(course.rows)) {
    const text = part("cut").querySelector(`[data-c="${key}"]`);
    if (text) text.textContent = `${values[i]}°`;
    const lines = part("cut").querySelector(`[data-lines="${key}"]`);
    if (lines) {
      const celsius = course.fahrenheit ? ((values[i] - 32) * 5) / 9 : values[i];
      const [x, y, w, h] = lines.dataset.box.split(" ").map(Number);
      const n = Math.round(Math.min(11, Math.max(1, (celsius - 20) / 45)));
      lines.setAttribute("d", Array.from({ length: n }, (_, k) => `M${x} ${(y + (h * (k + 0.5)) / n).toFixed(1)}h${w}`).join(""));
      lines.setAttribute("stroke-width", Math.min(2.6, 0.8 + celsius / 260).toFixed(1));
    }
  }
  for (const mark of part("picture").querySelectorAll("[data-scrub]")) {
    const x = Number(mark.dataset.left) + course.t[i] * Number(mark.dataset.scale);
    mark.setAttribute("d", mark.getAttribute("d").replace(/^M[\d.]+/, `M${x.toFixed(1)}`));
  }
  const at = bakeTime(course.t[i]);
  part("scrub-says").textContent = words("script-fire-at", { at, base: shades(course.base[i]), rim: shades(course.rim[i]), inside: course.rows.crumb[i] });
}

let frame = 0;
form.addEventListener("input", (event) => {
  if (event.target.id === "second") {
    cancelAnimationFrame(frame);
    frame = requestAnimationFrame(() => scrub(Number(event.target.value)));
    return;
  }
  if (event.target.form !== form) return;
  if (event.target.tagName === "SELECT" || event.target.type === "checkbox") return;
  if (event.target.dataset.own !== undefined && !part("own")) {
    const own = Object.assign(document.createElement("input"), { type: "hidden", name: "own", value: "1", id: "own" });
    form.append(own);
  }
  clearTimeout(form.wait);
  form.wait = setTimeout(() => ask(entries()), event.target.dataset.own === undefined ? 120 : 600);
});

form.addEventListener("change", (event) => {
  const field = event.target;
  if (field.form !== form || field.id === "second") return;
  if (field.dataset.reload !== undefined) {
    location.assign(`/fire?style=${encodeURIComponent(field.value)}`);
    return;
  }
  if (field.tagName === "SELECT" || field.type === "checkbox") {
    if (field.dataset.act === "shape") part("own")?.remove();
    ask(entries(field.dataset.act));
  }
});

form.addEventListener("submit", (event) => {
  const button = event.submitter;
  if (button?.name !== "act" || button.form !== form) return;
  event.preventDefault();
  if (button.value === "model") part("own")?.remove();
  ask(entries(button.value));
});

ready();
