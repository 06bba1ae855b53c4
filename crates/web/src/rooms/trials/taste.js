// The table: a tap is kept in this browser first and sent from there; the page stays where it is.
import { ready } from "../../js/app.js";
import * as queue from "../../js/queue.js";

const form = document.getElementById("table");

/** What a button would say if it were pressed again: the same, or that it is taken back. */
function sets(button) {
  const parts = button.dataset.says.split(":");
  return { group: button.dataset.says.slice(0, button.dataset.says.lastIndexOf(":")), parts };
}

for (const button of form.querySelectorAll("button[name=say]")) {
  // What is on takes back; what it says when it is off is known by its label.
  const value = button.value.endsWith(":") ? `${button.value}${button.textContent.trim()}` : button.value;
  button.dataset.says = value;
}

form.addEventListener("submit", (event) => {
  const button = event.submitter;
  if (button?.name !== "say") return;
  event.preventDefault();
  const on = button.getAttribute("aria-pressed") === "true";
  const { group } = sets(button);
  const say = on ? `${group}:` : button.dataset.says;
  for (const other of form.querySelectorAll("button[name=say]")) {
    if (sets(other).group !== group) continue;
    const now = other === button && !on;
    other.setAttribute("aria-pressed", String(now));
    other.classList.toggle("on", now);
  }
  queue.put({
    url: form.getAttribute("action"),
    batch: form.dataset.trial,
    fields: { taster: form.elements.taster.value, say },
    what: button.getAttribute("aria-label"),
  });
  queue.send();
});
ready();
