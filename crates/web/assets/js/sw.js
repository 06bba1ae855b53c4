// Opens the Bench, a batch, its mix and its bake without a line, as they were last seen. Nothing else is kept here but the files
// that ship with the program.

const PAGES = "slow-rise.pages";
const FILES = "slow-rise.files";
const MOST_PAGES = 40;
const SLOW = 6000;
const KEPT_AT = "x-kept-at";
/** Whose page it is: the server says so of each. */
const WHOSE = "x-whose";
const WHOSE_AT = "/x-whose";

const isPage = (path) => path === "/" || /^\/batches\/[A-Z]{2}-\d+(\/bake|\/mix|\/shape)?$/.test(path);
const isFile = (path) => path.startsWith("/assets/");

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

/** Keeps a page with the moment at which it was seen. */
async function keep(request, answer) {
  // Pages of one kitchen, for one reader: whoever comes next finds none of them.
  const whose = answer.headers.get(WHOSE) ?? "";
  const before = await (await caches.open(PAGES)).match(WHOSE_AT);
  if (before && (await before.text()) !== whose) await caches.delete(PAGES);
  const cache = await caches.open(PAGES);
  await cache.put(WHOSE_AT, new Response(whose));
  const headers = new Headers(answer.headers);
  headers.set(KEPT_AT, new Date().toISOString());
  await cache.put(request.url, new Response(await answer.blob(), { headers }));
  const all = await cache.keys();
  for (const old of all.slice(1, Math.max(0, all.length - MOST_PAGES))) await cache.delete(old);
}

/** The page as it was last seen, marked as such. */
async function lastSeen(request) {
  const cache = await caches.open(PAGES);
  const kept = await cache.match(request.url);
  if (!kept) return Response.error();
  const text = await kept.text();
  const marked = text.replace("<html ", `<html data-last-seen="${kept.headers.get(KEPT_AT)}" `);
  return new Response(marked, { headers: kept.headers });
}

async function page(event) {
  const { request } = event;
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(SLOW) });
    // Who is sent to sign in is nobody now: what was kept is another's.
    if (answer.redirected && new URL(answer.url).pathname === "/sign-in") event.waitUntil(caches.delete(PAGES));
    if (answer.ok && answer.type === "basic" && !answer.redirected) event.waitUntil(keep(request, answer.clone()).catch(() => {}));
    // A server whose database is away says so; it is no reason to show an old page instead.
    return answer;
  } catch {
    return lastSeen(request);
  }
}

async function file(event) {
  const { request } = event;
  const cache = await caches.open(FILES);
  const kept = await cache.match(request.url);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok && answer.headers.get("cache-control")?.includes("immutable")) {
    const copy = answer.clone();
    event.waitUntil(
      (async () => {
        await cache.put(request.url, copy);
        // Files of a program before this one.
        const tag = new URL(request.url).pathname.split("/")[2];
        for (const old of await cache.keys()) {
          if (new URL(old.url).pathname.split("/")[2] !== tag) await cache.delete(old);
        }
      })().catch(() => {}),
    );
  }
  return answer;
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== "GET" || url.origin !== self.location.origin) return;
  if (request.mode === "navigate" && isPage(url.pathname) && url.search === "") event.respondWith(page(event));
  else if (isFile(url.pathname)) event.respondWith(file(event));
});
