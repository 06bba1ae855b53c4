// The Bench moves with the clock: once a minute the page is asked for again and its main part put in place.
import { ready, say } from "../../js/app.js";
import { drawn } from "../../js/redraw.js";
import { words } from "../../js/words.js";

async function refresh() {
  // Not while someone is about to press a button.
  if (document.hidden || document.activeElement?.closest("form")) return;
  try {
    const answer = await fetch("/", { headers: { accept: "text/html" } });
    if (!answer.ok) throw new Error(String(answer.status));
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    const main = document.getElementById("main");
    drawn(main, () => main.replaceChildren(...page.getElementById("main").childNodes));
    say("");
  } catch {
    say(words("script-bench-no-answer"));
  }
}

setInterval(refresh, 60_000);
document.addEventListener("visibilitychange", refresh);
ready();
