// Bake: the timer runs from the taps' own times; a tap is kept in this browser until the server has it.
import { minutes, ready, say } from "../../js/app.js";

const root = document.getElementById("bake");
const part = (id) => document.getElementById(id);
const code = root.dataset.code;
const piece = root.dataset.piece;
const programme = JSON.parse(root.dataset.programme);
const KEEP = `slow-rise.taps.${code}`;

let run = JSON.parse(root.dataset.run);
// The server's clock rules: a tablet may run minutes off.
let ahead = run.now_ms - Date.now();
const now = () => Date.now() + ahead;
let waiting = JSON.parse(localStorage.getItem(KEEP) ?? "[]");
let sending = false;
let called = "";

/** Shows a tap at once; the server's answer replaces this as soon as it comes. */
function applied(state, tap) {
  const at = Date.parse(tap.at);
  if (tap.kind === "in") return { ...state, current: { number: tap.pizza, in_ms: at, turned: 0 }, next_number: tap.pizza + 1 };
  if (tap.kind === "turned" && state.current) return { ...state, current: { ...state.current, turned: state.current.turned + 1 } };
  if (tap.kind === "out" && state.current) {
    const last = { number: tap.pizza, baked_s: (at - state.current.in_ms) / 1000, out_ms: at, verdict: null };
    return { ...state, current: null, last, out: state.out + 1 };
  }
  if (tap.kind === "verdict" && state.last?.number === tap.pizza) return { ...state, last: { ...state.last, verdict: tap.verdict } };
  return state;
}

const shown = () => waiting.reduce(applied, run);

function keep() {
  localStorage.setItem(KEEP, JSON.stringify(waiting));
}

function tap(kind, verdict) {
  const state = shown();
  const pizza = kind === "in" ? state.next_number : kind === "verdict" ? state.last?.number : state.current?.number;
  if (!pizza || (kind === "in" && state.current)) return;
  const taken = { entry_key: newKey(), kind, pizza, at: new Date(now()).toISOString() };
  if (verdict) taken.verdict = verdict;
  waiting.push(taken);
  keep();
  draw();
  send();
}

/** A random key; randomUUID is missing where the page came over plain http from another machine. */
function newKey() {
  const b = crypto.getRandomValues(new Uint8Array(16));
  b[6] = (b[6] & 0x0f) | 0x40;
  b[8] = (b[8] & 0x3f) | 0x80;
  const h = [...b].map((v) => v.toString(16).padStart(2, "0")).join("");
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-${h.slice(12, 16)}-${h.slice(16, 20)}-${h.slice(20)}`;
}

async function send() {
  if (sending || waiting.length === 0) return;
  sending = true;
  try {
    while (waiting.length > 0) {
      const answer = await fetch(`/batches/${code}/taps`, {
        method: "POST",
        headers: { accept: "application/json" },
        body: new URLSearchParams(waiting[0]),
      });
      // 409: it makes no sense any more (another tablet was first); keep the server's run.
      if (!answer.ok && answer.status !== 409) throw new Error(String(answer.status));
      run = await answer.json();
      ahead = run.now_ms - Date.now();
      waiting.shift();
      keep();
      say(run.refused ?? "");
    }
  } catch {
    const since = new Date(waiting[0].at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
    say(`Not saved since ${since}. Timers go on. Will send by itself.`);
    setTimeout(send, 2000);
  } finally {
    sending = false;
    draw();
  }
}

function cueFor(state, seconds) {
  const next = programme.turns[state.current.turned];
  if (next) {
    const left = Math.ceil(next.at_s - seconds);
    const what = next.quarter ? `Turn ${state.current.turned + 1}` : next.words === "half way round" ? "Turn" : "Onto steel";
    const side = next.quarter ? `side ${((state.current.turned + 1) % 4) + 1} to the fire` : next.words;
    return { left, lines: [left > 0 ? [`${what} in `, left, " s,"] : [`${what} now,`], side] };
  }
  const left = Math.ceil(programme.out_s - seconds);
  if (seconds >= programme.chars_s) return { left: 0, lines: [["Out now,"], "it chars"] };
  if (left <= 0) return { left, lines: [["Out now,"], `look at base and rim`] };
  return { left, lines: [["Out in ", left, " s,"], "when base and rim are right"] };
}

function drawCue(state, seconds) {
  const cue = part("cue");
  if (!state.current) {
    cue.classList.remove("due");
    const waited = state.last ? `, waiting ${minutes((now() - state.last.out_ms) / 1000)}` : "";
    cue.textContent = state.next_number > state.pieces ? "All are baked. Close into the ledger." : `${piece} ${state.next_number} is next${waited}.`;
    return;
  }
  const { left, lines } = cueFor(state, seconds);
  const first = document.createElement("span");
  for (const bit of lines[0]) {
    const node = typeof bit === "number" ? Object.assign(document.createElement("b"), { textContent: bit }) : document.createTextNode(bit);
    first.append(node);
  }
  cue.replaceChildren(first, document.createElement("br"), lines[1]);
  cue.classList.toggle("due", left <= 5);
  const text = cue.textContent;
  if (left <= 0 && called !== `${state.current.number}:${state.current.turned}`) {
    called = `${state.current.number}:${state.current.turned}`;
    part("call").textContent = text;
  }
}

function drawLine(state, seconds) {
  for (const track of root.querySelectorAll("[data-track]")) {
    const left = Number(track.dataset.left);
    const x = left + Math.min(seconds, programme.chars_s * 1.15) * Number(track.dataset.scale);
    track.setAttribute("d", `M${left} 44H${x.toFixed(1)}`);
    track.ownerSVGElement.querySelector("[data-needle]").setAttribute("transform", `translate(${x.toFixed(1)} 0)`);
  }
  for (const stop of root.querySelectorAll("[data-stop]")) {
    const key = stop.dataset.stop;
    const turn = key.startsWith("turn-") ? Number(key.slice(5)) : -1;
    stop.classList.toggle("passed", Boolean(state.current) && (key === "in" || (turn >= 0 && turn < state.current.turned)));
  }
}

function drawPlan(state) {
  const turned = state.current?.turned ?? 0;
  const sides = root.querySelectorAll("[data-side]");
  const order = sides.length === 4 ? ["left", "bottom", "right", "top"] : ["left", "right"];
  for (const text of sides) text.textContent = ((turned + order.indexOf(text.dataset.side)) % order.length) + 1;
  // What was at the fire moves on to the top, then right, then bottom.
  ["top", "right", "bottom"].forEach((key, i) => root.querySelector(`[data-arc=${key}]`)?.classList.toggle("done", turned > i));
}

function draw() {
  const state = shown();
  const seconds = state.current ? Math.max(0, (now() - state.current.in_ms) / 1000) : 0;
  part("timer").textContent = minutes(seconds);
  part("timer").classList.toggle("idle", !state.current);
  part("place").textContent = state.current
    ? `${piece} ${state.current.number} of ${state.pieces}, in at ${new Date(state.current.in_ms).toLocaleTimeString("en-GB", { timeZone: document.getElementById("now").dataset.zone })}`
    : `${piece} ${Math.min(state.next_number, state.pieces)} of ${state.pieces}${state.next_number > state.pieces ? " is out" : " is next"}`;
  drawCue(state, seconds);
  drawLine(state, seconds);
  drawPlan(state);
  const expected = !state.current ? "tap-in" : state.current.turned < programme.turns.length ? "tap-turned" : "tap-out";
  for (const id of ["tap-in", "tap-turned", "tap-out"]) part(id).classList.toggle("go", id === expected);
  part("tap-in").disabled = Boolean(state.current);
  part("tap-turned").disabled = !state.current;
  part("tap-out").disabled = !state.current;
  part("left").textContent = Math.max(0, state.pieces - (state.next_number - 1));
  const judged = state.judged > 0 ? `, ${state.right} of ${state.judged} right` : "";
  part("count").textContent = `${state.out} out${judged}${state.pace ? `, one every ${state.pace}` : ""}`;
  part("last-head").textContent = state.last ? `${piece} ${state.last.number}` : "No verdict yet";
  part("last-small").textContent = state.last ? `out at ${minutes(state.last.baked_s)}. What do you see?` : "what you see is asked after Out";
  for (const cell of root.querySelectorAll("#verdict button")) {
    cell.disabled = !state.last;
    if (!cell.classList.contains("vc")) continue;
    const chosen = state.last?.verdict === cell.value;
    cell.classList.toggle("chosen", chosen);
    cell.setAttribute("aria-pressed", String(chosen));
  }
}

root.addEventListener("submit", (event) => {
  const button = event.submitter;
  if (button?.name === "kind") {
    event.preventDefault();
    tap(button.value);
  } else if (button?.name === "verdict") {
    event.preventDefault();
    tap("verdict", button.value);
  }
});

document.addEventListener("keydown", (event) => {
  if (event.target.closest("input,textarea,select") || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === " " && !event.target.closest("button,a,summary")) {
    event.preventDefault();
    tap(shown().current ? "out" : "in");
  } else if (event.key === "t") tap("turned");
  else if (event.key === "o") tap("out");
  else {
    const cell = root.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
    if (cell && !cell.disabled) tap("verdict", cell.value);
  }
});

addEventListener("online", send);
setInterval(draw, 200);
draw();
send();
ready();
