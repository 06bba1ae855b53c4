// Cues that are heard and felt besides being seen, and a screen that stays awake while a pizza is in. Each can be missing
// in a browser; what is seen is always there.
import { words } from "../../js/words.js";

const MUTED = "slow-rise.muted";

/** Two notes; `button` silences them, `remark` says whether the screen stays awake. */
export function cues({ button, remark }) {
  let muted = localStorage.getItem(MUTED) === "1";
  let audio = null;
  let lock = null;
  let wanted = false;

  function show() {
    button.textContent = words(muted ? "script-sound-off" : "script-sound-on");
    button.setAttribute("aria-pressed", String(!muted));
  }

  function note(hertz, from) {
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    tone.frequency.value = hertz;
    loud.gain.setValueAtTime(0.0001, audio.currentTime + from);
    loud.gain.exponentialRampToValueAtTime(0.35, audio.currentTime + from + 0.03);
    loud.gain.exponentialRampToValueAtTime(0.0001, audio.currentTime + from + 0.32);
    tone.connect(loud).connect(audio.destination);
    tone.start(audio.currentTime + from);
    tone.stop(audio.currentTime + from + 0.35);
  }

  async function hold() {
    if (!("wakeLock" in navigator)) {
      remark.textContent = words("script-browser-may-sleep");
      return;
    }
    try {
      lock = await navigator.wakeLock.request("screen");
      lock.addEventListener("release", () => (lock = null));
      remark.textContent = words("script-screen-awake");
    } catch {
      remark.textContent = words("script-screen-may-sleep");
    }
  }

  button.addEventListener("click", () => {
    muted = !muted;
    localStorage.setItem(MUTED, muted ? "1" : "0");
    show();
  });
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState === "visible" && wanted && !lock) hold();
  });
  show();

  return {
    /** A browser lets sound begin only after a tap. */
    wake() {
      if (!muted) audio ??= "AudioContext" in window ? new AudioContext() : null;
      audio?.resume?.();
    },
    call() {
      // A browser refuses this on a page that nobody touched yet.
      if (navigator.userActivation?.hasBeenActive !== false) navigator.vibrate?.([140, 70, 140]);
      if (muted || !audio) return;
      note(660, 0);
      note(880, 0.24);
    },
    awake(on) {
      if (on === wanted) return;
      wanted = on;
      if (on) hold();
      else {
        lock?.release();
        remark.textContent = "";
      }
    },
  };
}
