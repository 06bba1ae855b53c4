// A part of a page that came back drawn goes into its place.

// A finger that is down keeps what it is on: a button that is drawn anew under it would swallow the tap.
let held = false;
const waiting = new Map();
function release() {
  held = false;
  const all = [...waiting.values()];
  waiting.clear();
  for (const draw of all) draw();
}
addEventListener("pointerdown", () => (held = true), true);
// After the click that the lifting makes.
for (const end of ["pointerup", "pointercancel"]) addEventListener(end, () => setTimeout(release), true);
addEventListener("blur", (event) => event.target === window && release());

/** Draws something, once no finger is on the page; of the same thing the latest. */
export function drawn(what, draw) {
  if (held) waiting.set(what, draw);
  else draw();
}

/** Puts a part in place, once no finger is on the page. */
export function replace(box, html) {
  drawn(box, () => put(box, html));
}

/** Puts a part in place; a field that is being typed into keeps its text and its focus, what was open stays open. */
function put(box, html) {
  const typing = box.contains(document.activeElement) ? document.activeElement : null;
  const kept = [...box.querySelectorAll("input:not([type=hidden])")].filter((i) => i.id && i.value !== i.defaultValue).map((i) => [i.id, i.value]);
  const said = [...box.querySelectorAll(".err")].map((e) => [e.id, e.textContent]).filter(([id, text]) => id && text);
  const open = [...box.querySelectorAll("details")].map((d) => d.open);
  box.innerHTML = html;
  for (const [id, value] of kept) if (document.getElementById(id)) document.getElementById(id).value = value;
  for (const [id, text] of said) if (document.getElementById(id)) document.getElementById(id).textContent = text;
  box.querySelectorAll("details").forEach((d, i) => (d.open = open[i] ?? d.open));
  if (typing) (typing.id ? document.getElementById(typing.id) : box.querySelector(`[value="${CSS.escape(typing.value ?? "")}"]`))?.focus();
}
