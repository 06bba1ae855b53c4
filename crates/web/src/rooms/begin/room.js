// The first start: every choice redraws the leaf and the plan beside it. Nothing is worked out here.
import { ready } from "../../js/app.js";
import { replace } from "../../js/redraw.js";
import { number, typed } from "../../js/words.js";

const form = document.getElementById("begin");
/** An answer that did not come is asked for again after so long, ms. */
const AGAIN = 1500;
let asked = 0;

/** Asks for the leaf as it is after a tap; the last answer counts. */
async function look() {
  asked += 1;
  const mine = asked;
  form.dataset.asked = String(mine);
  const answer = await fetch("/begin/look", { method: "POST", body: new URLSearchParams(new FormData(form)) }).catch(() => null);
  if (mine !== asked) return;
  if (!answer?.ok) {
    // Busy, or a line that was lost for a moment: the plan beside it must not stay an older one.
    setTimeout(() => mine === asked && look(), AGAIN);
    return;
  }
  const html = await answer.text();
  if (mine !== asked) return;
  // Choices are drawn as the server has them; what is being typed stays.
  replace(form, html);
  form.dataset.looked = String(mine);
}

form.addEventListener("change", (event) => {
  if (event.target.type !== "password") look();
});
form.addEventListener("click", (event) => {
  const step = event.target.closest("[data-dial]");
  if (!step) return;
  const input = step.parentElement.querySelector("input");
  const now = typed(input.value);
  if (Number.isFinite(now)) input.value = number(now + Number(step.dataset.dial));
  look();
});

// The clock that the browser goes by, unless somebody typed another.
const zone = form.querySelector("[data-zone-guess]");
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
if (zone && own && zone.value === zone.defaultValue && zone.value !== own) {
  zone.value = own;
  look();
}
ready();
