// The server's clock, carried on by a counter that no change of this device's clock can move.
//
// Each exchange with the server measures how far its clock is from the counter; the quickest exchange knows best. So spans
// between this device's entries are its own, whatever its clock says.

const KEPT = "slow-rise.clock";

/** Marks this opening of the page: its counter is of no other. */
export const session = Math.random().toString(36).slice(2);

let offset = null;
let quickest = Infinity;

/** Milliseconds of this page's counter. */
export const counter = () => performance.now();

/** Learns the server's clock from an exchange that took from `from` to `to` on the counter. */
export function learn(serverMs, from, to = counter()) {
  const took = to - from;
  // A clock that was set anew on the server is believed at once.
  const jumped = offset !== null && Math.abs(serverMs - to - offset) > took + 2000;
  if (took > quickest && !jumped) return;
  quickest = took;
  offset = serverMs - (from + to) / 2;
  try {
    localStorage.setItem(KEPT, String(Math.round(serverMs - Date.now())));
  } catch {
    // Without a place to keep it, it holds for this page alone.
  }
}

/** How far the server's clock was from this device's when they last spoke, in any page. */
export function apart() {
  try {
    return Number(localStorage.getItem(KEPT) ?? 0);
  } catch {
    return 0;
  }
}

/** Whether the server's clock is known in this page. */
export const known = () => offset !== null;

/** The server's clock now, as well as it is known. */
export const now = () => (offset === null ? Date.now() + apart() : offset + counter());

/** A moment of this page's counter on the server's clock. */
export const at = (count) => (offset === null ? Date.now() + apart() - (counter() - count) : offset + count);

// The page says when it was written. One that was kept in this browser was written long ago.
const said = document.getElementById("now");
if (said && !document.documentElement.dataset.lastSeen) {
  const page = performance.getEntriesByType("navigation")[0];
  learn(Number(said.dataset.now), page?.requestStart ?? 0, page?.responseEnd || counter());
}
