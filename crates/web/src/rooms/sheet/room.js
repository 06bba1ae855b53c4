// The Dough sheet, live: what is typed goes to the server, the figures that come back are put in place. A press that
// makes the form another one brings the form back too. Every state can be undone.
import { ready, say } from "../../js/app.js";
import { words } from "../../js/words.js";

const form = document.getElementById("sheet");
const part = (id) => document.getElementById(id);
const KITCHEN = document.body.dataset.kitchen ?? "";
const SESSION = `slow-rise.sheet.${KITCHEN}:${location.pathname}${location.search}`;
const DRAFT = `slow-rise.draft.${document.body.dataset.kitchen ?? ""}`;
const MOST_STATES = 60;
let asked = 0;
let timer = 0;
let travelling = false;

const entries = () => {
  const all = new URLSearchParams(new FormData(form));
  // Weights beside the grams are shown, not asked, until one is typed.
  for (const [name, value] of [...all]) {
    if (name.startsWith("g:") && all.get(name.replace("g:", "g0:")) === value) all.delete(name);
    if (name.startsWith("g0:") && !all.has(name.replace("g0:", "g:"))) all.delete(name);
  }
  return all;
};
/** What counts as a change: not which leaf is open, not the pick lists. */
const content = () => {
  const all = entries();
  for (const name of [...all.keys()]) if (name === "tab" || name === "dose" || name.startsWith("new_") || name.startsWith("g")) all.delete(name);
  return all.toString();
};

// ---- states, for undo and for a reload
const states = { past: [], ahead: [], now: "", full: "", field: "" };

/** Keeps a state; going on typing in one field is one state. */
function remember(field = "") {
  const now = content();
  if (now !== states.now) {
    if (states.now && !(field && field === states.field)) states.past.push(states.full);
    if (states.past.length > MOST_STATES) states.past.shift();
    states.ahead = [];
    states.now = now;
    states.field = field;
  }
  states.full = entries().toString();
  hold();
}

function hold() {
  part("undo").disabled = states.past.length === 0;
  part("redo").disabled = states.ahead.length === 0;
  try {
    sessionStorage.setItem(SESSION, JSON.stringify(states));
    if (states.past.length) localStorage.setItem(DRAFT, JSON.stringify({ at: location.pathname + location.search, full: states.full }));
  } catch {
    // No room to remember in: the sheet works without.
  }
}

async function travel(from, to) {
  if (from.length === 0) return;
  to.push(states.full);
  const full = from.pop();
  travelling = true;
  await load(new URLSearchParams(full));
  travelling = false;
  states.full = full;
  states.now = content();
  states.field = "";
  hold();
}
const undo = () => travel(states.past, states.ahead);
const redo = () => travel(states.ahead, states.past);

/** Shows another state: the form comes from the server, so that rows and leaves are right. */
async function load(all) {
  all.set("want_form", "1");
  await ask(all);
}

// ---- what is wrong
function mark(errors) {
  const boxes = [...form.querySelectorAll("[data-field]")];
  for (const box of boxes) {
    const own = (e) => e.field === box.dataset.field || e.field.replace(/\.amount$/, ".per_litre") === box.dataset.field;
    const found = errors.find(own);
    box.classList.toggle("wrong", Boolean(found));
    const sentence = box.querySelector(":scope > .err, .err");
    if (sentence) sentence.textContent = found ? found.message : "";
    for (const input of box.querySelectorAll("input")) {
      if (found) input.setAttribute("aria-invalid", "true");
      else input.removeAttribute("aria-invalid");
    }
  }
  for (const leaf of form.querySelectorAll(".leaf")) {
    const key = leaf.querySelector("input").value;
    leaf.classList.toggle("has-wrong", errors.some((e) => e.leaf === key));
  }
  const grams = part("grams-error");
  const typed = errors.find((e) => e.field.startsWith("g:"));
  if (grams) grams.textContent = typed ? typed.message : "";
  const hidden = form.querySelector("details.bowl .wrong");
  if (hidden) hidden.closest("details").open = true;
}

// ---- asking
async function ask(all) {
  const mine = ++asked;
  form.classList.add("working");
  clearTimeout(timer);
  try {
    const answer = await fetch(`/dough/preview?k=${KITCHEN}`, { method: "POST", body: all });
    if (!answer.ok) throw new Error(String(answer.status));
    const got = await answer.json();
    if (mine !== asked) return;
    show(got);
    say("");
  } catch {
    if (mine === asked) {
      form.classList.add("stale");
      say(words("script-sheet-no-answer"));
      timer = setTimeout(() => ask(all.has("want_form") || all.has("act") ? all : entries()), 3000);
    }
  } finally {
    if (mine === asked) {
      form.classList.remove("working");
      form.dataset.answered = String(mine);
    }
  }
}

function show(got) {
  const focus = document.activeElement?.id;
  const open = new Set([...form.querySelectorAll("details[data-keep][open]")].map((d) => d.dataset.keep));
  part("answer").innerHTML = got.answer;
  if (got.ask) {
    // The leaf that was opened while the answer was on its way stays open.
    const tab = form.querySelector("input[name=tab]:checked")?.value;
    part("ask").innerHTML = got.ask;
    const same = form.querySelector(`input[name=tab][value="${tab}"]`);
    if (same) same.checked = true;
  } else {
    part("fit").outerHTML = got.fit;
    if (got.blend_line) part("blend-line").textContent = got.blend_line;
  }
  if (got.figures) {
    part("figures").innerHTML = got.figures;
    part("strip").innerHTML = got.strip;
    for (const d of form.querySelectorAll("details[data-keep]")) d.open = open.has(d.dataset.keep);
    inView();
  }
  form.classList.toggle("stale", !got.figures);
  mark(got.errors);
  leaf();
  if (focus && document.activeElement?.id !== focus) part(focus)?.focus({ preventScroll: true });
  if (got.ask && !travelling) remember();
}

function later(field) {
  clearTimeout(timer);
  remember(field);
  timer = setTimeout(() => ask(entries()), 120);
}

/** A press: what it does is decided by the server. */
function press(name, value) {
  const all = entries();
  all.set(name, value);
  ask(all);
}

// ---- leaves, and the stage in view on a phone
function leaf() {
  const open = form.querySelector("input[name=tab]:checked")?.value ?? "dough";
  for (const page of form.querySelectorAll(".page-leaf")) page.classList.toggle("open", page.dataset.leaf === open);
}

let column = -1;
function inView() {
  const table = form.querySelector("table.staged");
  const buttons = [...form.querySelectorAll(".stage-switch button")];
  if (!table || buttons.length === 0) return;
  const at = column >= 0 && column < buttons.length ? column : buttons.length - 1;
  buttons.forEach((b, i) => b.setAttribute("aria-pressed", String(i === at)));
  table.dataset.view = String(at);
}

form.addEventListener("input", (event) => {
  const name = event.target.name ?? "";
  if (name === "tab") leaf();
  else if (!name.startsWith("g:") && !name.startsWith("new_") && !event.target.closest("[data-reshape]")) later(name);
});
form.addEventListener("change", (event) => {
  const t = event.target;
  if (t.name === "tab") return remember();
  if (t.name?.startsWith("g:")) return ask(entries());
  if (t.dataset.act === "style") return press("act", `style:${t.value}`);
  if (t.name?.startsWith("new_")) return;
  if (t.matches("[data-reshape]")) {
    remember();
    return load(entries());
  }
  later(t.name);
});
form.addEventListener("click", (event) => {
  const b = event.target.closest("button");
  if (!b) return;
  if (b.name === "set" || b.name === "act") {
    event.preventDefault();
    press(b.name, b.value);
  } else if (b.id === "undo") undo();
  else if (b.id === "redo") redo();
  else if (b.id === "take-draft") takeDraft();
  else if (b.dataset.column) {
    column = Number(b.dataset.column);
    inView();
  }
});
form.addEventListener("keydown", (event) => {
  // Enter in a weight or a figure to find works it out; it does not keep the plan.
  if (event.key === "Enter" && event.target.matches("input")) {
    event.preventDefault();
    event.target.dispatchEvent(new Event("change", { bubbles: true }));
  }
});
document.addEventListener("keydown", (event) => {
  const away = !event.target.closest("input,textarea,select") && !event.altKey;
  if (event.key.toLowerCase() === "z" && (event.ctrlKey || event.metaKey) && !event.target.closest("textarea")) {
    event.preventDefault();
    if (event.shiftKey) redo();
    else undo();
  } else if (away && !event.ctrlKey && !event.metaKey && event.key.toLowerCase() === "u") {
    if (event.shiftKey) redo();
    else undo();
  }
});
form.addEventListener("submit", (event) => {
  const to = event.submitter?.getAttribute("formaction") ?? "/dough";
  if (to === "/dough" || to === "/formulas") {
    sessionStorage.removeItem(SESSION);
    localStorage.removeItem(DRAFT);
  }
});

// ---- unsaved work
async function takeDraft() {
  const draft = JSON.parse(localStorage.getItem(DRAFT) ?? "null");
  if (!draft) return;
  part("draft").hidden = true;
  remember();
  await load(new URLSearchParams(draft.full));
}

function begin() {
  const reloaded = performance.getEntriesByType("navigation")[0]?.type === "reload";
  const held = JSON.parse(sessionStorage.getItem(SESSION) ?? "null");
  if (held && reloaded && held.full) {
    Object.assign(states, held);
    part("undo").disabled = states.past.length === 0;
    part("redo").disabled = states.ahead.length === 0;
    return load(new URLSearchParams(held.full));
  }
  sessionStorage.removeItem(SESSION);
  states.now = content();
  states.full = entries().toString();
  if (localStorage.getItem(DRAFT)) part("draft").hidden = false;
}

leaf();
inView();
await begin();
ready();
