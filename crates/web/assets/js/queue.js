// What was entered, kept in this browser until the server has it: one record for each entry, shared by all tabs. What the
// server refuses stays in sight until somebody dismisses it, and holds nothing else up.
import * as clock from "./clock.js";
import { words } from "./words.js";

const PREFIX = "slow-rise.entry.";
// A file stands under a key of its own: records are read often, files once.
const FILES = "slow-rise.file.";
// So many files are kept when the page is closed: they must leave room for what is tapped.
const MOST_FILES = 8;
const PATIENCE = 2000;
const memory = new Map();
const listeners = new Set();

/** Whether this browser keeps entries when the page is closed. */
export let keeps = true;

function store(key, record) {
  const text = JSON.stringify(record);
  try {
    localStorage.setItem(key, text);
    memory.delete(key);
  } catch {
    keeps = false;
    memory.set(key, text);
  }
}

/** Keeps a file, base64; whether it is still there when the page was closed. */
function storeFile(key, data) {
  try {
    const others = Object.keys(localStorage).filter((k) => k.startsWith(FILES));
    if (others.length < MOST_FILES) {
      localStorage.setItem(FILES + key, data);
      return true;
    }
  } catch {
    // No room, or no storage: it waits on the page.
  }
  memory.set(FILES + key, data);
  return false;
}

function fileOf(key) {
  try {
    return memory.get(FILES + key) ?? localStorage.getItem(FILES + key);
  } catch {
    return undefined;
  }
}

/** Whether something waits that is gone when this page is closed. */
export const isLoose = () => memory.size > 0;

function forget(key) {
  const file = FILES + key;
  memory.delete(key);
  memory.delete(file);
  try {
    localStorage.removeItem(key);
    localStorage.removeItem(file);
  } catch {
    keeps = false;
  }
}

/** All records, the first entered first. */
export function all() {
  const texts = new Map([...memory].filter(([key]) => key.startsWith(PREFIX)));
  try {
    for (let i = 0; i < localStorage.length; i += 1) {
      const key = localStorage.key(i);
      if (key.startsWith(PREFIX)) texts.set(key, localStorage.getItem(key));
    }
  } catch {
    keeps = false;
  }
  const records = [];
  for (const [key, text] of texts) {
    try {
      records.push({ ...JSON.parse(text), stored: key });
    } catch {
      forget(key);
    }
  }
  return records.sort((a, b) => a.wall - b.wall || a.count - b.count);
}

export const waiting = (batch) => all().filter((r) => !r.refused && (batch === undefined || r.batch === batch));
export const refused = () => all().filter((r) => r.refused);

/** A random key; randomUUID is missing where the page came over plain http from another machine. */
export function newKey() {
  const b = crypto.getRandomValues(new Uint8Array(16));
  b[6] = (b[6] & 0x0f) | 0x40;
  b[8] = (b[8] & 0x3f) | 0x80;
  const h = [...b].map((v) => v.toString(16).padStart(2, "0")).join("");
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-${h.slice(12, 16)}-${h.slice(16, 20)}-${h.slice(20)}`;
}

/** Keeps an entry: where it goes, its fields, what it says in words, and its file (base64) if it has one. Returns its record. */
export function put({ url, batch, fields, what, file, key = newKey() }) {
  const kitchen = document.body.dataset.kitchen ?? "";
  const count = clock.counter();
  const record = { key, kitchen, batch, url, fields, what, session: clock.session, count, wall: Date.now(), at: clock.known() ? clock.at(count) : null };
  record.stored = `${PREFIX}${kitchen}.${batch}.${key}`;
  if (file) record.file = "photo.jpg";
  if (!file || storeFile(record.stored, file)) store(record.stored, record);
  // Without its file it says nothing: both go with the page.
  else memory.set(record.stored, JSON.stringify(record));
  tell();
  return record;
}

/** Changes a record that waits. */
export function change(record, fields) {
  store(record.stored, { ...record, fields: { ...record.fields, ...fields } });
}

export function dismiss(record) {
  forget(record.stored);
  tell();
}

/** When it was entered, on the server's clock as it is known by now. */
export function moment(record) {
  if (record.session === clock.session) return clock.at(record.count);
  return record.at ?? record.wall + clock.apart();
}

/** Calls `f` whenever something was entered, kept, refused or dismissed, here or in another tab. */
export function onChange(f) {
  listeners.add(f);
}
function tell() {
  for (const f of listeners) f();
}
addEventListener("storage", (event) => {
  if (!event.key || event.key.startsWith(PREFIX)) tell();
});

/** Asked before a refusal is shown: `true` when a page made something else of it. */
export const hooks = { refused: null, kept: null };

function body(record) {
  const iso = (ms) => new Date(Math.round(ms)).toISOString();
  const all = { ...record.fields, entry_key: record.key, batch_id: record.batch, device_at: iso(record.wall) };
  if (!all.when) Object.assign(all, { at: iso(moment(record)), sent_at: iso(clock.now()) });
  if (!record.file) return new URLSearchParams(all);
  const parts = new FormData();
  for (const [name, value] of Object.entries(all)) parts.set(name, value);
  const bytes = Uint8Array.from(atob(fileOf(record.stored) ?? ""), (c) => c.charCodeAt(0));
  parts.set("file", new Blob([bytes], { type: "image/jpeg" }), record.file);
  return parts;
}

/** The address with the kitchen that the entry is of: somebody may have gone into another one meanwhile. */
const addressed = (record) => (record.kitchen ? `${record.url}${record.url.includes("?") ? "&" : "?"}k=${record.kitchen}` : record.url);

async function sendOne(record) {
  const from = clock.counter();
  const answer = await fetch(addressed(record), { method: "POST", headers: { accept: "application/json" }, body: body(record) });
  const json = await answer.json().catch(() => ({}));
  if (json.now_ms) clock.learn(json.now_ms, from);
  if (answer.ok && !answer.redirected) {
    forget(record.stored);
    hooks.kept?.(record, json);
    return { kept: true, json };
  }
  // Too many just now, or the database is away: it may come again.
  signedOut = answer.status === 401;
  if (answer.status >= 500 || [401, 408, 429].includes(answer.status)) throw new Error(String(answer.status));
  const sentence = json.refused ?? json.errors?.[0]?.message ?? words("script-not-taken", { status: answer.status });
  if (hooks.refused?.(record, json)) return { again: true };
  if (record.asked) {
    // Whoever typed it still looks at it: the page says what is wrong beside the field.
    forget(record.stored);
    return { wrong: answer.status, sentence, json };
  }
  store(record.stored, { ...record, refused: sentence });
  return { wrong: answer.status, sentence, json };
}

let sending = null;
let later = 0;

async function sendAll(results) {
  const here = document.body.dataset.kitchen;
  // Those of another kitchen wait for its own pages, and hold up nothing here.
  const due = () => waiting().find((r) => !here || !r.kitchen || r.kitchen === here);
  for (let next = due(); next; next = due()) {
    const done = await sendOne(next);
    if (!done.again) results.set(next.key, done);
    tell();
  }
}

/** Sends what waits, one after the other and one tab at a time; tries again by itself. Returns what became of each. */
export async function send() {
  clearTimeout(later);
  if (sending) return sending;
  const results = new Map();
  const work = () => sendAll(results);
  sending = (async () => {
    try {
      if (navigator.locks) await navigator.locks.request("slow-rise.queue", work);
      else await work();
      lost = false;
    } catch {
      lost = true;
      later = setTimeout(send, PATIENCE);
    } finally {
      sending = null;
      tell();
    }
    return results;
  })();
  return sending;
}

/** Whether the server asks who it is: what waits goes on after signing in. */
export let signedOut = false;

/** Whether the last attempt found no line. */
export let lost = false;

addEventListener("online", send);
