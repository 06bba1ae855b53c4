// Rise, live: an edge is dragged or moved by keys, the server works the plan out anew, picture and figures are put in
// place. What is moved is said as a press; no rule stands here.
import { ready } from "../../js/app.js";
import { asker } from "../../js/ask.js";
import { words } from "../../js/words.js";

const form = document.getElementById("rise");
const part = (id) => document.getElementById(id);

/** The form as it stands, without lists that only count when they are pressed. */
function entries() {
  const all = new URLSearchParams(new FormData(form));
  for (const name of [...all.keys()]) if (name.startsWith("spot_") || name === "new_method" || name === "method_name") all.delete(name);
  return all;
}

const ask = asker({ form, url: "/rise/preview", show, lost: words("script-rise-no-answer") });

function show(got) {
  const active = document.activeElement;
  const edge = active?.dataset?.edge;
  const slim = active?.closest?.(".slim") !== null && active?.closest?.(".slim") !== undefined;
  const pressed = active?.closest?.("#desk") ? { name: active.name, label: active.getAttribute("aria-label"), id: active.id } : null;
  part("answer").innerHTML = got.answer;
  if (got.picture) {
    const open = part("desk").querySelector("details[data-keep]")?.open;
    const scrolled = part("picture").querySelector(".slim")?.scrollLeft ?? 0;
    part("picture").innerHTML = got.picture;
    const box = part("picture").querySelector(".slim");
    if (box) box.scrollLeft = scrolled;
    part("desk").innerHTML = got.desk;
    if (open) part("desk").querySelector("details[data-keep]").open = true;
    part("carried").replaceChildren(
      ...got.fields.map(([name, value]) => {
        const input = document.createElement("input");
        Object.assign(input, { type: "hidden", name, value });
        return input;
      }),
    );
  }
  form.classList.toggle("stale", !got.picture);
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
  if (edge !== undefined) form.querySelector(`${slim ? ".slim" : ".wide"} [data-edge="${edge}"]`)?.focus({ preventScroll: true });
  else if (pressed) {
    const same = [...form.querySelectorAll("#desk button, #desk select")].find((b) => (pressed.id && b.id === pressed.id) || (pressed.label && b.getAttribute("aria-label") === pressed.label));
    same?.focus({ preventScroll: true });
  }
  if (drag) held();
}

function press(act, from = entries()) {
  const all = new URLSearchParams(from);
  all.set("act", act);
  ask(all);
}

// ---- edges: by mouse and touch
let drag = null;
const held = () => form.querySelector(`${drag.box} [data-edge="${drag.edge}"]`)?.classList.add("held");

form.addEventListener("pointerdown", (event) => {
  const handle = event.target.closest(".handle");
  if (!handle || event.button !== 0) return;
  event.preventDefault();
  const svg = handle.ownerSVGElement;
  const scale = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
  const perHour = Number(svg.querySelector("[data-px-per-h]").dataset.pxPerH) / scale;
  drag = { edge: handle.dataset.edge, x: event.clientX, perHour, by: 0, from: entries(), box: handle.closest(".slim") ? ".slim" : ".wide" };
  // The picture is redrawn under the pointer: what stays is its frame.
  part("picture").setPointerCapture(event.pointerId);
  handle.focus({ preventScroll: true });
  held();
});
part("picture").addEventListener("pointermove", (event) => {
  if (!drag) return;
  const by = Math.round(((event.clientX - drag.x) / drag.perHour) * 4) / 4;
  if (by === drag.by) return;
  drag.by = by;
  press(`edge:${drag.edge}:${by}`, drag.from);
});
for (const end of ["pointerup", "pointercancel"]) {
  part("picture").addEventListener(end, () => {
    if (!drag) return;
    for (const h of form.querySelectorAll(".handle.held")) h.classList.remove("held");
    drag = null;
  });
}

// ---- edges: by keys
let pending = 0;
form.addEventListener("keydown", (event) => {
  const handle = event.target.closest?.(".handle");
  if (!handle) {
    if (event.key === "Enter" && event.target.matches("input")) event.preventDefault();
    return;
  }
  const steps = { ArrowLeft: -0.25, ArrowDown: -0.25, ArrowRight: 0.25, ArrowUp: 0.25, PageDown: -1, PageUp: 1 };
  const step = steps[event.key];
  if (step === undefined) return;
  event.preventDefault();
  const by = step * (event.shiftKey ? 4 : 1);
  if (!ask.busy()) {
    pending = 0;
    press(`edge:${handle.dataset.edge}:${by}`);
  } else {
    // Keys that come while an answer is on its way are added up.
    pending += by;
    const edge = handle.dataset.edge;
    const wait = () => {
      if (ask.busy()) return setTimeout(wait, 5);
      if (pending) press(`edge:${edge}:${pending}`);
      pending = 0;
    };
    if (pending === by) wait();
  }
});

form.addEventListener("click", (event) => {
  const b = event.target.closest("button[name=act]");
  if (!b) return;
  event.preventDefault();
  press(b.value);
});
form.addEventListener("change", (event) => {
  const t = event.target;
  if (t.dataset.spot !== undefined) press(`spot:${t.dataset.spot}:${t.value}`);
  else if (t.id === "new_method" && t.value) press(`method:${t.value}`);
});

// A phone shows the hours around the serve time first.
const slim = part("picture").querySelector(".slim");
if (slim) slim.scrollLeft = slim.scrollWidth;
ready();
