// Mix: times run from the taps' own moments; a tap is kept in this browser until the server has it. What the page says of
// the dough is worked out on the server and comes back drawn.
import { minutes, ready } from "../../js/app.js";
import * as clock from "../../js/clock.js";
import * as queue from "../../js/queue.js";
import { replace } from "../../js/redraw.js";
import { typed, words } from "../../js/words.js";

const root = document.getElementById("mix");
const code = root.dataset.code;
const batch = root.dataset.batch;
const TAPS = `/batches/${code}/mix`;
let state = JSON.parse(root.dataset.state);
const now = clock.now;
const part = (name) => document.getElementById(`mix-${name}`);

/** The taps of this run that the server does not have yet. */
const mine = () => queue.waiting(batch).filter((r) => r.url === TAPS && Number(r.fields.bowl) === state.bowl && Number(r.fields.run) === state.run);

/** The run with what this browser tapped and the server does not know yet. */
function shown() {
  const begun = [...state.begun_ms];
  const given = [...state.minutes];
  for (const r of mine()) {
    const step = Number(r.fields.step);
    if (r.fields.act === "step" && step === begun.length + 1) begun.push(queue.moment(r));
    if (r.fields.act === "more" && given[step - 1] !== undefined) given[step - 1] += Number(r.fields.minutes);
  }
  return { begun, given };
}

/** Minutes and seconds, or hours where it is long. */
const span = (s) => (s < 6000 ? minutes(s) : `${Math.floor(Math.round(s / 60) / 60)} h ${String(Math.round(s / 60) % 60).padStart(2, "0")}`);
const clockOf = (s) => (s < 0 ? `+${span(-s)}` : span(s));
let called = "";

function draw() {
  const { begun, given } = shown();
  const on = begun.length;
  for (const row of root.querySelectorAll("[data-step]")) {
    const n = Number(row.dataset.step);
    row.classList.toggle("done", n < on);
    row.classList.toggle("on", n === on);
    row.classList.toggle("next", n === on + 1);
    if (n === on) row.setAttribute("aria-current", "step");
    else row.removeAttribute("aria-current");
    const time = row.querySelector("[data-time]");
    if (n < on) time.textContent = span((begun[n] - begun[n - 1]) / 1000);
    else if (n > on) time.textContent = span(60 * given[n - 1]);
    else {
      const left = 60 * given[n - 1] - (now() - begun[n - 1]) / 1000;
      time.textContent = clockOf(Math.sign(left) * Math.ceil(Math.abs(left)));
      row.classList.toggle("due", left <= 0);
      const key = `${n}:${given[n - 1]}`;
      if (left <= 0 && called !== key) {
        called = key;
        if (left > -5) sounds();
      }
    }
  }
  const next = part("next");
  if (next) {
    const steps = given.length;
    const form = next.form;
    form.elements.step.value = String(on + 1);
    next.disabled = on > steps;
    const name = root.querySelector(`[data-step="1"] b`)?.textContent ?? "";
    next.textContent = on === 0 ? words("script-begin", { name }) : words(on < steps ? "script-done-next" : on === steps ? "script-done-out" : "script-it-is-out");
    const more = part("more");
    more.disabled = on === 0 || on > steps;
    more.form.elements.step.value = String(on);
  }
}

let muted = localStorage.getItem("slow-rise.mix.muted") === "1";
let audio = null;
const sound = part("sound");
function mute(is) {
  muted = is;
  localStorage.setItem("slow-rise.mix.muted", is ? "1" : "0");
  sound.textContent = words(is ? "script-sound-off" : "script-sound-on");
  sound.setAttribute("aria-pressed", String(!is));
}
sound.addEventListener("click", () => mute(!muted));
mute(muted);
/** Two short notes when a step's time is up; `s` silences them. */
function sounds() {
  if (muted || !window.AudioContext) return;
  audio ??= new AudioContext();
  for (const [i, hz] of [660, 880].entries()) {
    const tone = audio.createOscillator();
    const level = audio.createGain();
    tone.frequency.value = hz;
    level.gain.value = 0.15;
    tone.connect(level).connect(audio.destination);
    tone.start(audio.currentTime + 0.22 * i);
    tone.stop(audio.currentTime + 0.22 * i + 0.16);
  }
}

// A page that has just been opened had no tap yet, however soon the first comes.
let lastTap = -Infinity;
/** Two taps of one hand are no closer, ms. */
const DOUBLE = 500;

async function tap(form, button) {
  const fields = Object.fromEntries(new FormData(form));
  delete fields.entry_key;
  if (button?.name) fields[button.name] = button.value;
  if (fields.act === "step" || fields.act === "more") {
    if (performance.now() - lastTap < DOUBLE) return;
    lastTap = performance.now();
    root.dataset.fresh = "";
    setTimeout(() => delete root.dataset.fresh, DOUBLE);
  }
  const wrong = form.querySelector(".err");
  if (wrong) wrong.textContent = "";
  form.classList.remove("wrong");
  const record = queue.put({ url: TAPS, batch, fields, what: form.dataset.what });
  record.asked = fields.act === "read" || fields.act === "poured" || fields.act === "measured";
  draw();
  const answer = (await queue.send())?.get(record.key);
  if (answer?.kept) {
    for (const input of form.querySelectorAll("input:not([type=hidden])")) if (fields.act === "read" || fields.act === "poured") input.value = "";
  } else if (answer?.wrong && record.asked) {
    queue.dismiss(record);
    form.classList.add("wrong");
    if (wrong) wrong.textContent = answer.sentence;
  }
  draw();
}

root.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("form[data-tap]")) return;
  event.preventDefault();
  tap(form, event.submitter);
});

// What was measured goes off when its field is left, or a moment after the last step of it.
const measuring = new Map();
async function measured(row) {
  const input = row.querySelector("input");
  const what = row.dataset.what;
  if (input.value === input.defaultValue || input.value.trim() === "") return;
  const record = queue.put({ url: TAPS, batch, fields: { act: "measured", bowl: state.bowl, run: state.run, what, c: input.value }, what: row.querySelector("label").firstChild.textContent });
  input.defaultValue = input.value;
  const answer = (await queue.send())?.get(record.key);
  const wrong = answer?.wrong;
  row.classList.toggle("wrong", Boolean(wrong));
  row.querySelector(".err").textContent = wrong ? answer.sentence : "";
  if (wrong) queue.dismiss(queue.refused().find((r) => r.key === record.key) ?? record);
}
for (const row of root.querySelectorAll("[data-what].nf")) {
  const input = row.querySelector("input");
  const soon = (ms) => {
    clearTimeout(measuring.get(row));
    measuring.set(row, setTimeout(() => measured(row), ms));
  };
  input.addEventListener("change", () => soon(0));
  for (const button of row.querySelectorAll("[data-by]")) {
    button.addEventListener("click", () => {
      const by = Number(button.dataset.by) * 0.5;
      const value = typed(input.value);
      if (!Number.isFinite(value)) return;
      input.value = String(Math.round((value + by) * 10) / 10);
      soon(600);
    });
  }
}
part("measured")?.addEventListener("submit", (event) => {
  event.preventDefault();
  for (const row of root.querySelectorAll("[data-what].nf")) measured(row);
});
document.getElementById("way")?.addEventListener("change", (event) => event.target.form.requestSubmit());

queue.hooks.kept = (record, json) => {
  if (record.url === TAPS && record.batch === batch) look();
};
queue.onChange(draw);

let looking = 0;
/** Fetches what the run is now: what is typed meanwhile stays. */
function look() {
  clearTimeout(looking);
  looking = setTimeout(async () => {
    try {
      const answer = await fetch(`${TAPS}/now?bowl=${state.bowl}&run=${state.run}`);
      if (!answer.ok) return;
      const json = await answer.json();
      const over = state.begun_ms.length > 0 !== json.state.begun_ms.length > 0;
      state = json.state;
      clock.learn(state.now_ms, clock.counter() - 100);
      if (over) {
        // What is measured before belongs to a run that has not begun.
        for (const gone of root.querySelectorAll(".mix-fields,.mix-ways")) gone.hidden = state.begun_ms.length > 0;
      }
      for (const name of ["head", "water", "weigh", "seen", "steps", "course", "judged"]) replace(part(name), json[name]);
      root.dataset.told = String(Number(root.dataset.told ?? 0) + 1);
      draw();
    } catch {
      // Without a line the last look stays.
    }
  }, 60);
}

// What other tablets tapped.
const stream = new EventSource(`/batches/${code}/run`);
stream.addEventListener("run", (event) => {
  const run = JSON.parse(event.data);
  clock.learn(run.now_ms, clock.counter() - 250);
  if (run.revision !== undefined && run.revision !== state.revision) look();
  queue.send();
});

document.addEventListener("keydown", (event) => {
  if (event.target.closest("input,textarea,select") || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === " " && !event.target.closest("button,a,summary")) {
    event.preventDefault();
    part("next")?.click();
  } else if (event.key === "m") part("more")?.click();
  else if (event.key === "t") document.getElementById("degrees")?.focus();
  else if (event.key === "s") mute(!muted);
});

let shownWhile = 0;
setInterval(() => {
  draw();
  // While it works, what is said of the dough moves on by itself.
  shownWhile += 1;
  if (shownWhile % 100 === 0 && state.begun_ms.length > 0 && state.begun_ms.length <= state.minutes.length) look();
}, 200);
draw();
queue.send();
ready();
