// A run as this browser shows it until the server answers: each tap put onto the state before it. What the server folds
// (craft::fire::run) is the truth; a test holds this one against it.

/** Those in the oven, with one of them changed. */
const change = (state, p, to) => ({ ...state, inside: state.inside.map((x) => (x === p ? { ...x, ...to } : x)) });

/** Those that came out, as far as this browser knows them, with the last one shown. */
function came(state, outs, by) {
  return { ...state, outs, last: outs[outs.length - 1] ?? null, out: state.out + by };
}

function goesIn(state, tap) {
  const taken = state.inside.map((p) => p.spot);
  let spot = 0;
  while (taken.includes(spot)) spot += 1;
  const p = { number: tap.pizza, spot, in_ms: tap.ms, acted_ms: tap.ms, turned: 0 };
  return { ...state, inside: [...state.inside, p], next_number: tap.pizza + 1 };
}

function comesOut(state, p, tap) {
  const out = { number: p.number, baked_s: (tap.ms - p.in_ms) / 1000, out_ms: tap.ms, verdict: null, was: p };
  const inside = state.inside.filter((x) => x !== p);
  const outs = [...(state.outs ?? (state.last ? [state.last] : [])), out];
  return { ...came(state, outs, 1), inside, unjudged: [p.number, ...state.unjudged] };
}

/** What was said of a pizza last is taken back: its Out, a turn, or its In. */
function takenBack(state, tap) {
  const p = state.inside.find((x) => x.number === tap.pizza);
  const outs = state.outs ?? [];
  const out = outs.find((x) => x.number === tap.pizza);
  if (!p && out?.was) {
    const inside = [...state.inside, out.was].sort((a, b) => a.in_ms - b.in_ms);
    const unjudged = state.unjudged.filter((n) => n !== tap.pizza);
    return { ...came(state, outs.filter((x) => x !== out), -1), inside, unjudged };
  }
  if (!p) return state;
  if (p.turned > 0) {
    const past = [...(p.past ?? [p.in_ms])];
    return change(state, p, { turned: p.turned - 1, acted_ms: past.pop(), past });
  }
  // Its number is the next one again, unless others went in after it.
  const undone = [...(state.undone ?? []), p.number];
  let next = state.next_number;
  while (undone.includes(next - 1)) next -= 1;
  return { ...state, inside: state.inside.filter((x) => x !== p), next_number: next, undone: undone.filter((n) => n < next) };
}

function judged(state, tap) {
  const unjudged = state.unjudged.filter((n) => n !== tap.pizza);
  const of = (x) => (x?.number === tap.pizza ? { ...x, verdict: tap.verdict } : x);
  return { ...state, last: of(state.last), outs: state.outs?.map(of), unjudged };
}

/** The state after a tap; the server's answer replaces it as soon as it comes. */
export function applied(state, tap) {
  const p = state.inside.find((x) => x.number === tap.pizza);
  if (tap.kind === "in") return p || tap.pizza < state.next_number ? state : goesIn(state, tap);
  if (tap.kind === "turned" && p) return change(state, p, { turned: p.turned + 1, acted_ms: tap.ms, past: [...(p.past ?? []), p.acted_ms] });
  if (tap.kind === "out" && p) return comesOut(state, p, tap);
  if (tap.kind === "verdict") return judged(state, tap);
  if (tap.kind === "undone") return takenBack(state, tap);
  return state;
}
