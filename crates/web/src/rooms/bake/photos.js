// Photos: made small in this browser, then entered as everything is: kept here first, then sent.
import { ready, say } from "../../js/app.js";
import * as queue from "../../js/queue.js";
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

async function shown() {
  const answer = await fetch(location.pathname, { headers: { accept: "text/html" } });
  if (!answer.ok) return;
  const page = new DOMParser().parseFromString(await answer.text(), "text/html");
  const rows = page.getElementById("photo-rows");
  if (rows) document.getElementById("photo-rows").replaceChildren(...rows.children);
}

/** A file as text, as the queue keeps it. */
function asText(blob) {
  return new Promise((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result.slice(reader.result.indexOf(",") + 1));
    reader.onerror = () => failed(reader.error);
    reader.readAsDataURL(blob);
  });
}

const mine = () => (form ? queue.waiting(form.dataset.batch).filter((r) => r.file) : []);

// Those that came by themselves are shown as they come.
let waited = 0;
queue.onChange(() => {
  const many = mine().length;
  if (many < waited) shown().catch(() => {});
  waited = many;
  tell(many > 0 && queue.lost ? words(queue.isLoose() ? "script-photo-waits-here" : "script-photo-waits", { many }) : "");
});
addEventListener("beforeunload", (event) => {
  if (mine().length > 0 && queue.isLoose()) event.preventDefault();
});

async function send(record) {
  tell(words("script-photo-sending"));
  const done = (await queue.send()).get(record.key);
  if (done?.wrong) {
    wrong(done.sentence);
    queue.dismiss(record);
  }
  if (done) tell("");
}

async function chosen(input) {
  const [file] = input.files;
  if (!file) return;
  wrong("");
  const fields = { pizza: form.elements.pizza.value, of: input.dataset.of };
  const what = input.dataset.what;
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
  const url = form.getAttribute("action");
  await send(queue.put({ url, batch: form.dataset.batch, fields, what, file: await asText(made) }));
}

for (const input of form?.querySelectorAll("input[data-of]") ?? []) input.addEventListener("change", () => chosen(input));
say("");
ready();
