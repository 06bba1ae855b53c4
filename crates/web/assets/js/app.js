// Shared by all rooms: the clock, the lamp, steppers, keys, the strip that tells of a lost connection.
import { locale, number, typed, words } from "./words.js";

document.documentElement.classList.add("js-on");

/** Marks the page as working: its scripts have run. */
export function ready() {
  document.documentElement.dataset.ready = "1";
}

/** Seconds as "1:18". */
export function minutes(seconds) {
  const s = Math.max(0, Math.floor(seconds));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
}

/** Says something under the line; an empty text takes it away. */
export function say(text) {
  const strip = document.getElementById("connection");
  strip.textContent = text;
  strip.hidden = text === "";
}

// The clock runs on the server's time in the kitchen's zone.
const clock = document.getElementById("now");
if (clock) {
  const ahead = Number(clock.dataset.now) - Date.now();
  const zone = clock.dataset.zone;
  const time = new Intl.DateTimeFormat(locale, { hour: "2-digit", minute: "2-digit", timeZone: zone });
  const day = new Intl.DateTimeFormat(locale, { weekday: "short", day: "numeric", month: "long", timeZone: zone });
  setInterval(() => {
    const at = new Date(Date.now() + ahead);
    clock.querySelector("b").textContent = time.format(at);
    clock.querySelector("span").textContent = day.format(at).replace(",", "");
  }, 1000);
}

// The lamp changes at once; the cookie tells the server for the next page.
document.getElementById("lamp")?.addEventListener("click", (event) => {
  event.preventDefault();
  const root = document.documentElement;
  const theme = root.dataset.theme === "night" ? "day" : "night";
  root.dataset.theme = theme;
  document.cookie = `theme=${theme}; Path=/; Max-Age=31536000; SameSite=Lax`;
  event.currentTarget.setAttribute("aria-label", words(theme === "day" ? "page-dim-for-the-night" : "page-back-to-day"));
});

/** Adds to a number field; the result keeps the decimals of the step. */
function step(input, by) {
  const now = typed(input.value);
  if (!Number.isFinite(now)) return;
  const decimals = Math.max(decimalsOf(by), decimalsOf(now));
  input.value = number(Number((now + by).toFixed(decimals)));
  input.dispatchEvent(new Event("input", { bubbles: true }));
}

const decimalsOf = (n) => (String(n).split(".")[1] ?? "").length;

// Plus and minus: one tap one step; held down it repeats, faster after a second.
let held = 0;
document.addEventListener("pointerdown", (event) => {
  const button = event.target.closest("button[data-step]");
  if (!button || event.button !== 0) return;
  const input = document.getElementById(button.dataset.for);
  const by = Number(button.dataset.step);
  const began = Date.now();
  step(input, by);
  const again = () => {
    step(input, by);
    held = setTimeout(again, Date.now() - began > 1000 ? 60 : 180);
  };
  held = setTimeout(again, 450);
});
for (const end of ["pointerup", "pointercancel", "pointerleave", "blur"]) addEventListener(end, () => clearTimeout(held), true);
document.addEventListener("click", (event) => {
  // A click without a pointer came from the keyboard or from assistive technology.
  const button = event.target.closest("button[data-step]");
  if (button && event.detail === 0) step(document.getElementById(button.dataset.for), Number(button.dataset.step));
});

// What the words mean opens over the page, so that nothing typed is left behind; without the server the link leads there.
document.getElementById("words-link")?.addEventListener("click", async (event) => {
  if (event.ctrlKey || event.metaKey || event.shiftKey) return;
  event.preventDefault();
  const dialog = document.getElementById("words");
  const into = dialog.querySelector(".glossary");
  if (!into.hasChildNodes()) {
    try {
      const answer = await fetch(event.currentTarget?.href ?? "/words");
      const page = new DOMParser().parseFromString(await answer.text(), "text/html");
      into.replaceChildren(...page.getElementById("glossary").children);
    } catch {
      say(words("script-words-need-server"));
      return;
    }
  }
  dialog.showModal();
});
document.getElementById("keys-link")?.addEventListener("click", () => document.getElementById("keys").showModal());

document.addEventListener("keydown", (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const field = event.target.closest("input,textarea,select");
  if (field?.dataset.stepBy && (event.key === "ArrowUp" || event.key === "ArrowDown" || event.key === "+")) {
    event.preventDefault();
    const by = Number(field.dataset.stepBy) * (event.shiftKey && event.key !== "+" ? 10 : 1);
    step(field, event.key === "ArrowDown" ? -by : by);
    return;
  }
  if (field) return;
  const stop = (nth) => document.querySelector(`.stops a[data-nth="${nth}"]`);
  if (event.key === "b") stop(0)?.click();
  else if (event.key >= "1" && event.key <= "7") stop(event.key)?.click();
  else if (event.key === "n") document.getElementById("lamp")?.click();
  else if (event.key === "w") document.getElementById("words-link")?.click();
  else if (event.key === "?") document.getElementById("keys").showModal();
  else if (event.key === "Enter" && event.target === document.body) document.querySelector("main .btn.go:not(:disabled)")?.click();
});

// Rooms with a script of their own say themselves when they are ready.
if (!document.querySelector("script[type=module][src*='/rooms/']")) ready();
