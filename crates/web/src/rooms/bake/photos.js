// Photos: made small in this browser, then sent. One that could not be sent waits on this page and is sent by itself.
import { ready, say } from "../../js/app.js";
import * as clock from "../../js/clock.js";
import { newKey } from "../../js/queue.js";
import { words } from "../../js/words.js";

const form = document.getElementById("photo-form");
const AGAIN = 5000;

function wrong(sentence) {
  document.getElementById("photo-error").textContent = sentence;
}
function tell(sentence) {
  document.getElementById("photo-says").textContent = sentence;
}

/** The picture as JPEG with few enough pixels and bytes; `null` for a file that no browser can show. */
async function small(file) {
  const picture = await createImageBitmap(file, { imageOrientation: "from-image" }).catch(() => null);
  if (!picture) return null;
  let longest = Number(form.dataset.longest);
  for (let quality = 0.86; ; ) {
    const by = Math.min(1, longest / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.max(1, Math.round(picture.width * by));
    canvas.height = Math.max(1, Math.round(picture.height * by));
    const on = canvas.getContext("2d");
    // What can be seen through stands on white.
    on.fillStyle = "white";
    on.fillRect(0, 0, canvas.width, canvas.height);
    on.drawImage(picture, 0, 0, canvas.width, canvas.height);
    const made = await new Promise((done) => canvas.toBlob(done, "image/jpeg", quality));
    if (!made) return null;
    if (made.size <= Number(form.dataset.most)) return made;
    if (quality > 0.6) quality -= 0.1;
    else longest *= 0.8;
  }
}

const waiting = [];
let sending = false;

async function sendOne(one) {
  const body = new FormData();
  for (const [name, value] of Object.entries(one.fields)) body.set(name, value);
  body.set("sent_at", new Date(clock.now()).toISOString());
  body.set("file", one.made, "photo.jpg");
  const answer = await fetch(form.getAttribute("action"), { method: "POST", headers: { accept: "application/json" }, body });
  if (answer.status >= 500 || [401, 408, 429].includes(answer.status)) throw new Error(String(answer.status));
  const json = await answer.json().catch(() => ({}));
  if (!answer.ok) wrong(json.refused ?? json.errors?.[0]?.message ?? words("script-not-taken", { status: answer.status }));
}

async function shown() {
  const answer = await fetch(location.pathname, { headers: { accept: "text/html" } });
  if (!answer.ok) return;
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  const rows = page.getElementById("photo-rows");
  if (rows) document.getElementById("photo-rows").replaceChildren(...rows.children);
}

async function send() {
  if (sending) return;
  sending = true;
  try {
    while (waiting.length > 0) {
      tell(words("script-photo-sending"));
      await sendOne(waiting[0]);
      waiting.shift();
      await shown().catch(() => {});
    }
    tell("");
  } catch {
    tell(words("script-photo-waits", { many: waiting.length }));
    setTimeout(send, AGAIN);
  } finally {
    sending = false;
  }
}
addEventListener("online", send);
addEventListener("beforeunload", (event) => {
  if (waiting.length > 0) event.preventDefault();
});

async function chosen(input) {
  const [file] = input.files;
  if (!file) return;
  wrong("");
  const fields = {
    entry_key: newKey(),
    batch_id: form.dataset.batch,
    pizza: form.elements.pizza.value,
    of: input.dataset.of,
    at: new Date(clock.now()).toISOString(),
  };
  const mb = file.size / 1e6;
  if (file.size > Number(form.dataset.chosen)) {
    input.value = "";
    wrong(words("script-photo-too-large", { mb: Math.round(mb), most: form.dataset.mb }));
    return;
  }
  tell(words("script-photo-made-small"));
  const made = await small(file);
  // The same file may be chosen again.
  input.value = "";
  tell("");
  if (!made) {
    wrong(words("script-photo-no-picture"));
    return;
  }
  waiting.push({ fields, made });
  await send();
}

for (const input of form?.querySelectorAll("input[data-of]") ?? []) input.addEventListener("change", () => chosen(input));
say("");
ready();
