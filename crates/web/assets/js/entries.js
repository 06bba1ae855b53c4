// Forms that enter something: kept in this browser first, then sent. Without a line they wait; the page goes on.
import * as queue from "./queue.js";
import { say } from "./app.js";
import { locale, words } from "./words.js";

const QUICK = 4000;
const box = document.getElementById("held-back");
const zone = document.getElementById("now")?.dataset.zone;

const clockTime = (ms) => new Date(ms).toLocaleTimeString(locale, { hour: "2-digit", minute: "2-digit", timeZone: zone });

/** What a form says, in words. */
function told(form, button) {
  if (form.dataset.what) return form.dataset.what;
  const label = button?.getAttribute("aria-label");
  if (label) return label;
  const named = (name) => form.elements.namedItem(name);
  const subject = named("subject")?.selectedOptions?.[0]?.textContent ?? named("subject")?.value;
  const typed = named("degrees")?.value ?? named("remark")?.value;
  return [subject, typed].filter(Boolean).join(" ");
}

document.addEventListener("submit", async (event) => {
  const form = event.target;
  if (!form.matches("form[data-entry]") || event.defaultPrevented) return;
  event.preventDefault();
  const button = event.submitter;
  const fields = Object.fromEntries(new FormData(form));
  if (button?.name) fields[button.name] = button.value;
  const key = fields.entry_key || queue.newKey();
  delete fields.entry_key;
  if (fields.when === "") delete fields.when;
  const record = queue.put({ url: form.getAttribute("action"), batch: form.dataset.batch, fields, what: told(form, button), key });
  // The next one that this form sends is another entry.
  const hidden = form.querySelector("[name=entry_key]");
  if (hidden) hidden.value = queue.newKey();
  const answer = await Promise.race([queue.send(), new Promise((done) => setTimeout(done, QUICK, null))]);
  const mine = answer?.get(key);
  // Who has gone on to another page meanwhile is not called back.
  if (leaving) return;
  if (mine?.kept) {
    location.assign(back(fields, form));
    return;
  }
  if (mine?.wrong === 422) {
    // Nothing was kept: sent once more as a page, it comes back with its sentence beside the field.
    queue.dismiss(record);
    if (hidden) hidden.value = key;
    if (button?.name) form.append(Object.assign(document.createElement("input"), { type: "hidden", name: button.name, value: button.value }));
    form.submit();
    return;
  }
  if (mine?.wrong === undefined) form.reset();
  if (hidden) hidden.value = queue.newKey();
});

let leaving = false;
addEventListener("beforeunload", () => (leaving = true));
addEventListener("pageshow", () => (leaving = false));

function back(fields, form) {
  const page = form.dataset.back ?? fields.back ?? "";
  // A page that said what was wrong stands under the address that it was sent to.
  return page.startsWith("/") ? page : form.getAttribute("action").split("/").slice(0, 3).join("/");
}

function line(record) {
  const item = document.createElement("li");
  const head = document.createElement("b");
  head.textContent = `${record.what || words("script-an-entry")}, ${clockTime(queue.moment(record))}`;
  item.append(head);
  if (record.refused) {
    const dismiss = Object.assign(document.createElement("button"), { className: "btn sm", textContent: words("script-dismiss") });
    dismiss.setAttribute("aria-label", words("script-dismiss-what", { what: head.textContent }));
    dismiss.addEventListener("click", () => queue.dismiss(record));
    item.append(` ${words("script-was-not-kept")} ${record.refused} `, dismiss);
  }
  return item;
}

/** Opened without a line: as it was last seen. */
const seen = document.documentElement.dataset.lastSeen;
const old = seen ? words("script-no-line", { time: clockTime(Date.parse(seen)) }) : "";

function draw() {
  const waiting = queue.waiting();
  const refused = queue.refused();
  const held = waiting.length > 0 && queue.lost;
  const lines = [];
  if (held) {
    const since = clockTime(Math.min(...waiting.map(queue.moment)));
    const one = waiting.length === 1;
    const where = words(queue.keeps ? "script-in-this-browser" : "script-on-this-page-only");
    lines.push(words(one ? "script-one-waits" : "script-many-wait", { since, many: waiting.length, where }));
  }
  if (held && queue.signedOut) lines.push(words("script-signed-out"));
  if (old) lines.push(old);
  const root = document.documentElement.dataset;
  // What a room says there is its own.
  if (lines.length > 0 || root.told) say(lines.join(" "));
  root.told = lines.length > 0 ? "waiting" : "";
  root.waiting = String(waiting.length);
  document.getElementById("sign-in-again").hidden = !queue.signedOut;
  if (!box) return;
  box.hidden = refused.length === 0 && !(queue.lost && waiting.length > 0);
  box.querySelector("ul").replaceChildren(...refused.map(line), ...(queue.lost ? waiting.map(line) : []));
}

queue.onChange(draw);
draw();
// What waited since an earlier page is not on this one yet: it is shown anew once it is kept, unless somebody types here.
if (queue.waiting().length > 0) {
  queue.send().then((done) => {
    const kept = [...done.values()].some((r) => r.kept);
    const typing = document.activeElement?.matches("input,textarea,select");
    if (kept && !typing && !leaving && document.querySelector("form[data-entry]")) location.reload();
  });
}

if ("serviceWorker" in navigator && isSecureContext) navigator.serviceWorker.register("/sw.js").catch(() => {});
