// One question at a time to the server: of those that come while one is asked, the last is asked after it.
import { say } from "./app.js";

/** An answer may come in `parts`, each asked for by its name, `null` for all of it. Returns `ask(entries)`, with `ask.busy()` while an answer is on its way. The form says what goes on: `working`, `stale`, `data-answered`, `data-took`. */
export function asker({ form, url, show, lost, parts = [null] }) {
  let asked = 0;
  let running = false;
  let next = null;
  /** One part of the answer; the whole where there are no parts. */
  async function answered(all, part) {
    const body = new URLSearchParams(all);
    if (part) body.set(part, "1");
    let answer = await fetch(url, { method: "POST", body });
    // The models have more to do than they can: come again, a few times.
    for (let tries = 0; answer.status === 503 && tries < 4; tries += 1) {
      await new Promise((done) => setTimeout(done, 1000));
      answer = await fetch(url, { method: "POST", body });
    }
    if (!answer.ok) throw new Error(String(answer.status));
    return answer.json();
  }
  async function ask(all) {
    if (running) {
      next = all;
      return;
    }
    running = true;
    const mine = ++asked;
    form.classList.add("working");
    try {
      const began = performance.now();
      for (const part of parts) {
        // What was asked meanwhile is newer than the rest of this answer.
        if (next) break;
        show(await answered(all, part));
        form.dataset.took = (performance.now() - began).toFixed(1);
      }
      say("");
    } catch {
      form.classList.add("stale");
      say(lost);
    } finally {
      running = false;
      form.dataset.answered = String(mine);
      form.classList.remove("working");
      if (next) {
        const then = next;
        next = null;
        ask(then);
      }
    }
  }
  ask.busy = () => running;
  return ask;
}
