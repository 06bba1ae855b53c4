// Bake: the timer runs from the taps' own times; a tap is kept in this browser until the server has it, and what other
// tablets tap comes by the run's stream.
import { minutes, ready, say } from "../../js/app.js";
import * as clock from "../../js/clock.js";
import * as queue from "../../js/queue.js";
import { cues } from "./cues.js";
import { applied } from "./fold.js";
import { locale, words } from "../../js/words.js";

const root = document.getElementById("bake");
const part = (id) => document.getElementById(id);
const code = root.dataset.code;
const batch = root.dataset.batch;
const piece = root.dataset.piece;
const programme = JSON.parse(root.dataset.programme);
const zone = document.getElementById("now").dataset.zone;
const TAPS = `/batches/${code}/taps`;
/** Two taps of one hand are no closer, ms; the server counts by the same. */
const DOUBLE = 800;

let run = JSON.parse(root.dataset.run);
const now = clock.now;
let undoable = null;
/** The pizza that a verdict is given to later than at once. */
let about = null;

/** The taps of this run that the server does not have yet. */
const mine = () => queue.waiting(batch).filter((r) => r.url === TAPS);
const tapOf = (r) => ({ ...r.fields, pizza: Number(r.fields.pizza), ms: queue.moment(r) });

const shown = () => mine().map(tapOf).reduce(applied, run);

/** Seconds in the oven, and until the next cue of a pizza. */
const seconds = (p) => Math.max(0, (now() - p.in_ms) / 1000);
/** The turn that is next; once it is time for Out, turns that were missed are no matter. */
const turnOf = (p) => (seconds(p) < programme.out_s ? programme.turns[p.turned] : undefined);
const left = (p) => (turnOf(p)?.at_s ?? programme.out_s) - seconds(p);
/** A countdown as it is read at a glance: "49 s", "4:50". */
const countdown = (s) => (s < 100 ? [s, " s,"] : [minutes(s), ","]);
/** The pizza that asks for a hand first. */
const urgent = (state) => [...state.inside].sort((a, b) => left(a) - left(b))[0];

/** Whether a tap comes so soon after another that one hand made both: on the same pizza, or In after In. */
function isDouble(state, kind, number) {
  const soon = (ms) => now() - ms < DOUBLE;
  if (kind === "in") return state.inside.some((p) => soon(p.in_ms));
  if (kind !== "turned" && kind !== "out") return false;
  return state.inside.some((p) => p.number === number && soon(p.acted_ms));
}

function tap(kind, pizza, verdict) {
  const state = shown();
  const judged = about ?? state.last?.number;
  const number = pizza ?? (kind === "in" ? state.next_number : kind === "verdict" ? judged : urgent(state)?.number);
  if (!number || (kind === "in" && state.inside.length >= state.spots)) return;
  if (isDouble(state, kind, number)) return;
  const fields = { kind, pizza: number };
  if (verdict) fields.verdict = verdict;
  if (kind === "out") {
    // Its In still waits: the server can then tell a pizza of this device alone from one that another device put in, too.
    for (const r of mine()) {
      if (r.fields.kind === "in" && Number(r.fields.pizza) === number) queue.change(r, { baked_ms: Math.round(now() - queue.moment(r)) });
    }
  }
  moved = "";
  toAll = "";
  if (kind === "verdict") about = null;
  queue.put({ url: TAPS, batch, fields, what: words(`script-${kind}-of`, { piece: piece.toLowerCase(), number }) });
  undoable = kind === "verdict" || kind === "undone" ? null : { pizza: number, until: performance.now() + 10000, kind };
  sounds.wake();
  draw();
  queue.send();
}

/** A whole pizza that was baked here without a line, under a number that another tablet took meanwhile, gets the next one.
 * That stays said until the next tap. */
let moved = "";
/** What every screen of this run was told; it does not push out what is said of this one. */
let toAll = "";
let shownWords = "";
queue.hooks.refused = (record, json) => {
  if (record.url !== TAPS || !json.pieces) return false;
  run = json;
  const taps = mine();
  const was = Number(record.fields.pizza);
  const whole = taps.some((t) => Number(t.fields.pizza) === was && t.fields.kind === "out");
  if (record.fields.kind !== "in" || record.fields.moved || !whole) return false;
  moved = words("script-baked-elsewhere", { piece, was, next: run.next_number });
  for (const t of taps) if (Number(t.fields.pizza) === was) queue.change(t, { pizza: run.next_number, moved: "1" });
  return true;
};
queue.hooks.kept = (record, json) => {
  if (record.url !== TAPS || record.batch !== batch) return;
  run = json;
  judge();
};
queue.onChange(draw);

// What other tablets tapped; the browser opens the stream again by itself when it was cut.
const stream = new EventSource(`/batches/${code}/run`);
stream.addEventListener("run", (event) => {
  run = JSON.parse(event.data);
  clock.learn(run.now_ms, clock.counter() - 250);
  root.dataset.told = String(Number(root.dataset.told ?? 0) + 1);
  draw();
  judge();
  queue.send();
});
// What every screen on this run shows, such as a pizza that two devices put in.
stream.addEventListener("said", (event) => (toAll = event.data));

// What the oven asks for is worked out on the server, a moment after something changed.
let judging = 0;
function judge() {
  clearTimeout(judging);
  judging = setTimeout(async () => {
    try {
      const answer = await fetch(`/batches/${code}/bake/beside`);
      if (!answer.ok) return;
      const beside = await answer.json();
      part("notes").innerHTML = beside.notes;
      part("balls").innerHTML = beside.balls;
    } catch {
      // Without a line the last judgement stays.
    }
  }, 400);
}

/** What is next for a pizza: seconds left, and the words. */
function cueFor(p) {
  const s = seconds(p);
  const cue = turnOf(p);
  if (cue) {
    const to = Math.ceil(cue.at_s - s);
    const what = cue.quarter ? words("script-turn", { nth: p.turned + 1 }) : cue.short;
    const how = cue.quarter ? words("script-side-to-fire", { side: ((p.turned + 1) % 4) + 1 }) : cue.words;
    return { to, lines: [to > 0 ? [words("script-what-in", { what }) + " ", ...countdown(to)] : [words("script-what-now", { what })], how] };
  }
  const to = Math.ceil(programme.out_s - s);
  if (s >= programme.chars_s) return { to: 0, lines: [[words("script-out-now")], words("script-it-chars")] };
  if (to <= 0) return { to, lines: [[words("script-out-now")], words("script-look-at-base")] };
  return { to, lines: [[`${words("script-out-in")} `, ...countdown(to)], words("script-when-right")] };
}

const called = new Set();
function call(p, cue) {
  const key = `${p.number}:${p.turned}`;
  if (cue.to > 0 || called.has(key)) return;
  called.add(key);
  const name = (run.spots ?? 1) > 1 ? `${piece} ${p.number}: ` : "";
  part("call").textContent = name + cue.lines.map((l) => (Array.isArray(l) ? l.join("") : l)).join(" ");
  sounds.call();
}

function drawCue(state, p) {
  const cue = part("cue");
  if (!p) {
    cue.classList.remove("due");
    if (state.closed) {
      cue.textContent = words("script-run-closed");
      return;
    }
    const waited = state.last ? words("script-waiting", { time: minutes((now() - state.last.out_ms) / 1000) }) : "";
    cue.textContent = state.next_number > state.pieces ? words("script-all-baked") : words("script-is-next", { piece, number: state.next_number, waited });
    return;
  }
  const next = cueFor(p);
  const first = document.createElement("span");
  for (const bit of next.lines[0]) {
    first.append(/^\d/.test(bit) ? Object.assign(document.createElement("b"), { textContent: bit }) : document.createTextNode(bit));
  }
  cue.replaceChildren(first, document.createElement("br"), next.lines[1]);
  cue.classList.toggle("due", next.to <= 5);
}

function drawLine(p, s) {
  for (const track of root.querySelectorAll("[data-track]")) {
    const from = Number(track.dataset.left);
    const x = from + Math.min(s, programme.chars_s * 1.15) * Number(track.dataset.scale);
    track.setAttribute("d", `M${from} 44H${x.toFixed(1)}`);
    track.ownerSVGElement.querySelector("[data-needle]").setAttribute("transform", `translate(${x.toFixed(1)} 0)`);
  }
  for (const stop of root.querySelectorAll("[data-stop]")) {
    const key = stop.dataset.stop;
    const turn = key.startsWith("turn-") ? Number(key.slice(5)) : -1;
    stop.classList.toggle("passed", Boolean(p) && (key === "in" || (turn >= 0 && turn < p.turned)));
  }
  for (const bar of root.querySelectorAll("[data-bar]")) {
    const fill = bar.querySelector("[data-fill]");
    fill.setAttribute("width", (Number(fill.dataset.fill) * Math.min(1, s / Number(bar.dataset.bar))).toFixed(2));
  }
}

function drawPlan(p) {
  const turned = p?.turned ?? 0;
  const sides = root.querySelectorAll("[data-side]");
  const order = sides.length === 4 ? ["left", "bottom", "right", "top"] : ["left", "right"];
  for (const text of sides) text.textContent = ((turned + order.indexOf(text.dataset.side)) % order.length) + 1;
  // What was at the fire moves on to the top, then right, then bottom.
  ["top", "right", "bottom"].forEach((key, i) => root.querySelector(`[data-arc=${key}]`)?.classList.toggle("done", turned > i));
}

function drawLanes(state, first) {
  for (const lane of root.querySelectorAll("[data-lane]")) {
    const p = state.inside.find((x) => x.spot === Number(lane.dataset.lane));
    lane.classList.toggle("free", !p);
    lane.querySelector("[data-lane-name]").textContent = p ? `${piece} ${p.number}` : words("bake-free");
    lane.querySelector("[data-lane-time]").textContent = p ? minutes(seconds(p)) : "";
    const cue = p ? cueFor(p) : null;
    lane.querySelector("[data-lane-cue]").textContent = cue ? cue.lines[0].join("").replace(/,$/, "") : "";
    lane.classList.toggle("due", Boolean(cue) && cue.to <= 5);
    // The gold button is the next act of the one that asks first.
    const expected = p && p === first ? (turnOf(p) ? "turned" : "out") : "";
    for (const act of lane.querySelectorAll("[data-lane-act]")) {
      act.disabled = !p;
      act.classList.toggle("go", act.dataset.laneAct === expected);
    }
    for (const field of lane.querySelectorAll("[data-lane-pizza]")) field.value = p?.number ?? "";
  }
}

/** Which pizza the verdict is about, and those that were not judged yet. */
function drawJudging(state) {
  const late = about !== null;
  const small = late ? words("script-what-did-you-see") : words("script-what-do-you-see", { time: minutes(state.last?.baked_s ?? 0) });
  part("last-head").textContent = state.last ? `${piece} ${about ?? state.last.number}` : words("script-no-verdict-yet");
  part("last-small").textContent = state.last ? small : words("script-asked-after-out");
  const open = state.unjudged.filter((n) => n !== state.last?.number || late).slice(0, 6);
  const key = `${open.join()}:${about}`;
  const row = part("unjudged");
  if (row.dataset.key === key) return;
  row.dataset.key = key;
  row.hidden = open.length === 0;
  const buttons = open.map((n) => {
    const b = Object.assign(document.createElement("button"), { type: "button", className: "btn sm", textContent: String(n) });
    b.setAttribute("aria-label", words("script-judge", { piece: piece.toLowerCase(), number: n }));
    b.setAttribute("aria-pressed", String(n === about));
    b.addEventListener("click", () => {
      about = n === about ? null : n;
      draw();
    });
    return b;
  });
  row.replaceChildren(`${words("script-not-judged")} `, ...buttons);
}

function draw() {
  const state = shown();
  const p = urgent(state);
  const s = p ? seconds(p) : 0;
  part("timer").textContent = minutes(s);
  part("timer").classList.toggle("idle", !p);
  part("place").textContent = p
    ? words("script-of-in-at", { piece, number: p.number, all: state.pieces, time: new Date(p.in_ms).toLocaleTimeString(locale, { timeZone: zone }) })
    : words(state.next_number > state.pieces ? "script-of-is-out" : "script-of-is-next", { piece, number: Math.min(state.next_number, state.pieces), all: state.pieces });
  if (state.closed && !p) part("place").textContent = words("script-of-out", { out: state.out, all: state.pieces });
  drawCue(state, p);
  drawLine(p, s);
  drawPlan(p);
  drawLanes(state, p);
  for (const each of state.inside) call(each, cueFor(each));
  root.toggleAttribute("data-soon", state.inside.some((x) => now() - x.acted_ms < DOUBLE));
  const full = state.inside.length >= state.spots;
  const expected = !p ? "tap-in" : turnOf(p) ? "tap-turned" : "tap-out";
  for (const id of ["tap-in", "tap-turned", "tap-out"]) part(id).classList.toggle("go", id === expected);
  part("tap-in").disabled = full || state.closed;
  part("tap-turned").disabled = !p;
  part("tap-out").disabled = !p;
  part("left").textContent = Math.max(0, state.pieces - (state.next_number - 1));
  const judged = state.judged > 0 ? words("script-of-right", { right: state.right, judged: state.judged }) : "";
  part("count").textContent = words("script-count-out", { out: state.out }) + judged + (state.pace ? words("script-one-every", { pace: state.pace }) : "");
  drawJudging(state);
  for (const cell of root.querySelectorAll("#verdict button")) {
    cell.disabled = !state.last;
    if (!cell.classList.contains("vc")) continue;
    const chosen = about === null && state.last?.verdict === cell.value;
    cell.classList.toggle("chosen", chosen);
    cell.setAttribute("aria-pressed", String(chosen));
  }
  part("undo").hidden = !undoable || performance.now() > undoable.until;
  sounds.awake(state.inside.length > 0);
  const sentence = [moved, toAll].filter(Boolean).join(" ");
  const strip = part("connection");
  // What the queue says there stays; what was said here gives way to more of it.
  if (sentence && (strip.hidden || (strip.textContent === shownWords && sentence !== shownWords))) {
    say(sentence);
    shownWords = sentence;
  }
}

const sounds = cues({ button: part("sound"), remark: part("awake") });

root.addEventListener("submit", (event) => {
  const button = event.submitter;
  const pizza = Number(button?.form?.querySelector("[data-lane-pizza]")?.value) || undefined;
  if (button?.name === "kind") {
    event.preventDefault();
    tap(button.value, pizza);
  } else if (button?.name === "verdict") {
    event.preventDefault();
    tap("verdict", undefined, button.value);
  }
});

function takeBack() {
  if (!undoable || performance.now() > undoable.until) return;
  tap("undone", undoable.pizza);
}
part("undo").addEventListener("click", takeBack);
part("night")?.addEventListener("click", (event) => {
  if (document.documentElement.dataset.theme !== "night") part("lamp").click();
  event.currentTarget.hidden = true;
});
if (document.documentElement.dataset.theme === "night") part("night")?.setAttribute("hidden", "");

document.addEventListener("keydown", (event) => {
  if (event.target.closest("input,textarea,select") || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === " " && !event.target.closest("button,a,summary")) {
    event.preventDefault();
    tap(shown().inside.length ? "out" : "in");
  } else if (event.key === "i") tap("in");
  else if (event.key === "t") tap("turned");
  else if (event.key === "o") tap("out");
  else if (event.key === "u") takeBack();
  else if (event.key === "m") part("sound").click();
  else {
    const cell = root.querySelector(`[data-key="${CSS.escape(event.key)}"]`);
    if (cell && !cell.disabled) tap("verdict", undefined, cell.value);
  }
});

setInterval(draw, 200);
draw();
queue.send();
judge();
ready();
