// Shape: pieces go into this browser's queue and count at once; the difference to what is wanted is all that is worked out
// here. What the page says of the boxes comes back drawn.
import { ready } from "../../js/app.js";
import * as clock from "../../js/clock.js";
import * as queue from "../../js/queue.js";
import { replace } from "../../js/redraw.js";
import { number, words } from "../../js/words.js";

const root = document.getElementById("shape");
const code = root.dataset.code;
const batch = root.dataset.batch;
const TAPS = `/batches/${code}/shape`;
const BACK = /\/entries\/([^/]+)\/back$/;
let state = JSON.parse(root.dataset.state);
const part = (name) => document.getElementById(`shape-${name}`);
const at = (name) => root.querySelector(`[data-${name}]`);

/** Pieces that this browser made or took back and the server does not know yet. */
function shown() {
  const keys = [...state.keys];
  let { made } = state;
  for (const r of queue.waiting(batch)) {
    if (r.url === TAPS && r.fields.act === "piece") {
      keys.push(r.key);
      made += 1;
    }
    const back = r.url.match(BACK)?.[1];
    if (back && keys.includes(back)) {
      keys.splice(keys.indexOf(back), 1);
      made -= 1;
    }
  }
  return { keys, made, ahead: made - state.made };
}

const typed = () => {
  const text = document.getElementById("piece-g")?.value.trim().replace(",", ".") ?? "";
  const read = Number(text);
  return text !== "" && Number.isFinite(read) && read > 0 ? read * state.unit_g : null;
};
/** Grams in the kitchen's own unit; a tenth of a gram is said where one weighs in grams. */
const rounded = (g, fine = 0) => Number((g / state.unit_g).toFixed(Math.max(state.digits, fine)));
const said = (g, fine = 0) => number(rounded(g, fine));

/** The half angle of a segment that is such a share of a circle. */
function halfAngle(share) {
  let low = 0;
  let high = Math.PI;
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if ((middle - Math.sin(middle) * Math.cos(middle)) / Math.PI < share) low = middle;
    else high = middle;
  }
  return low;
}

/** The piece from above: what is cut off, or what is to be added, in true proportion of the area. */
function cut(g, wanted) {
  const piece = at("piece");
  const off = at("cut");
  if (!piece) return;
  const R = 46;
  const whole = `M${R} 0A${R} ${R} 0 1 1 ${-R} 0A${R} ${R} 0 1 1 ${R} 0z`;
  const by = g === null ? 0 : g - wanted;
  const share = Math.min(0.45, Math.abs(by) / Math.max(g ?? wanted, 1));
  off.classList.toggle("cut-off", by > 0);
  off.classList.toggle("cut-on", by < 0);
  if (share < 0.002) {
    piece.setAttribute("d", whole);
    off.setAttribute("d", "");
    return;
  }
  const half = halfAngle(share);
  const point = (angle, dx = 0) => `${(R * Math.cos(angle) + dx).toFixed(1)} ${(R * Math.sin(angle) - dx).toFixed(1)}`;
  const [a, b] = [-Math.PI / 4 - half, -Math.PI / 4 + half];
  const shift = by > 0 ? 6.4 : 0;
  piece.setAttribute("d", by > 0 ? `M${point(b)}A${R} ${R} 0 1 1 ${point(a)}z` : whole);
  off.setAttribute("d", `M${point(a, shift)}A${R} ${R} 0 0 1 ${point(b, shift)}z`);
}

function draw() {
  const { keys, made, ahead } = shown();
  const input = document.getElementById("piece-g");
  if (!input) return;
  document.getElementById("listen").setAttribute("aria-pressed", String(Boolean(scale)));
  const wanted = state.wanted[ahead] ?? state.wanted.at(-1);
  const into = state.into[ahead] ?? "";
  const full = made >= state.count;
  const g = typed();
  at("nth").textContent = full ? words("script-all-made", { count: state.count }) : words("script-piece-of", { piece: state.piece, number: made + 1, count: state.count });
  at("wanted").textContent = `${said(wanted)} ${state.unit}`;
  at("into").textContent = into;
  input.placeholder = said(wanted);
  input.classList.toggle("long", input.value.length > 3);
  document.getElementById("into").disabled = full;
  const back = document.getElementById("take-back");
  back.disabled = keys.length === 0;
  at("last").textContent = made > 0 ? String(made) : "";
  const by = g === null ? null : g - rounded(wanted) * state.unit_g;
  const isOff = by !== null && Math.abs(by) > state.mark_g + 1e-9;
  document.getElementById("off").classList.toggle("is-off", isOff);
  const word = words(by === null ? "script-wanted" : !isOff ? "script-weighs-right" : by > 0 ? "script-take-off" : "script-add");
  at("off-word").textContent = word;
  at("dev").firstChild.textContent = by === null ? said(wanted) : `${by < 0 ? "+" : by > 0 ? "−" : "±"}${said(Math.abs(by), 1)}`;
  cut(g, wanted);
  const em = root.querySelector("[data-head]");
  if (em && !full && document.activeElement === input && by !== null) em.textContent = isOff ? `${word} ${said(Math.abs(by), 1)} ${state.unit}` : "right";
}

// A page that has just been opened had no piece yet, however soon the first comes.
let lastPiece = -Infinity;
const DOUBLE = 500;
async function tap(form, button) {
  const fields = Object.fromEntries(new FormData(form));
  delete fields.entry_key;
  if (button?.name) fields[button.name] = button.value;
  // Two pieces so soon after each other are one finger; a piece soon after another choice is a piece.
  if (fields.act === "piece") {
    if (performance.now() - lastPiece < DOUBLE) return;
    lastPiece = performance.now();
    root.dataset.fresh = "";
    setTimeout(() => delete root.dataset.fresh, DOUBLE);
  }
  const wrong = form.querySelector(".err");
  if (wrong) wrong.textContent = "";
  const record = queue.put({ url: TAPS, batch, fields, what: form.dataset.what });
  record.asked = true;
  const input = form.querySelector("input:not([type=hidden])");
  const before = input?.value;
  if (fields.act === "piece") input.value = "";
  draw();
  const answer = (await queue.send())?.get(record.key);
  if (answer?.wrong) {
    queue.dismiss(record);
    if (wrong) wrong.textContent = answer.sentence;
    if (input && input.value === "") input.value = before;
  } else if (answer?.kept && fields.act === "whole") input.value = "";
  draw();
}

/** The last piece is taken back: an entry of its own. */
async function takeBack() {
  const { keys } = shown();
  const key = keys.at(-1);
  if (!key) return;
  queue.put({ url: `/batches/${code}/entries/${key}/back`, batch, fields: { back: TAPS }, what: words("script-piece-back") });
  draw();
  await queue.send();
}

// A scale that reports what lies on it: its reading stands where one types, and the hand only says "into the box".
let scale = null;
function listen(is) {
  localStorage.setItem("slow-rise.shape.listens", is ? "1" : "0");
  if (is && !scale) {
    scale = new EventSource("/scale/stream");
    scale.addEventListener("read", (event) => {
      const { g, still } = JSON.parse(event.data);
      const input = document.getElementById("piece-g");
      if (!input) return;
      root.classList.toggle("settling", !still);
      input.value = g > 0 ? said(g, 1) : "";
      draw();
    });
  } else if (!is) {
    scale?.close();
    scale = null;
  }
  draw();
}

root.addEventListener("submit", (event) => {
  const form = event.target;
  if (form.matches("[data-back-piece]")) {
    event.preventDefault();
    takeBack();
    return;
  }
  if (!form.matches("form[data-tap]")) return;
  event.preventDefault();
  tap(form, event.submitter);
});
root.addEventListener("input", (event) => {
  if (event.target.id === "piece-g") draw();
});
root.addEventListener("click", (event) => {
  const button = event.target.closest("button");
  if (button?.id === "take-back") takeBack();
  if (button?.id === "listen") listen(!scale);
  if (button?.id === "type-it") {
    const input = document.getElementById("piece-g");
    input.focus();
    input.select();
  }
});

queue.hooks.kept = (record) => {
  if (record.batch === batch && (record.url === TAPS || BACK.test(record.url))) look();
};
queue.onChange(draw);

let looking = 0;
function look() {
  clearTimeout(looking);
  looking = setTimeout(async () => {
    try {
      const answer = await fetch(`${TAPS}/now?box=${state.number}`);
      if (!answer.ok) return;
      const json = await answer.json();
      state = json.state;
      clock.learn(state.now_ms, clock.counter() - 100);
      for (const name of ["head", "scale", "press", "boxes", "judged"]) replace(part(name), json[name]);
      root.dataset.told = String(Number(root.dataset.told ?? 0) + 1);
      draw();
    } catch {
      // Without a line the last look stays.
    }
  }, 60);
}

const stream = new EventSource(`/batches/${code}/run`);
stream.addEventListener("run", (event) => {
  const run = JSON.parse(event.data);
  clock.learn(run.now_ms, clock.counter() - 250);
  if (run.revision !== undefined && run.revision !== state.revision) look();
  queue.send();
});

document.addEventListener("keydown", (event) => {
  if (event.target.closest("input,textarea,select") || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "g") {
    event.preventDefault();
    document.getElementById("piece-g")?.focus();
  } else if (event.key === "z") takeBack();
  else if (["1", "2", "3"].includes(event.key)) root.querySelectorAll(".press:not(:disabled)")[Number(event.key) - 1]?.click();
});

// Minutes move what is said of the boxes.
setInterval(() => look(), 60000);
if (localStorage.getItem("slow-rise.shape.listens") === "1") listen(true);
draw();
queue.send();
ready();
