//! What the Bake page shows until the server answers is what the server then says: the script's fold of a run against the
//! core's, over runs by chance.

use crate::maker::Bench;
use anyhow::Result;
use craft::fire::run::{Run, Shade, Tap, TapKind, Verdict};
use craft::keyed::Keyed;
use jiff::{SignedDuration, Timestamp};
use serde_json::{Value, json};

/// A row of numbers by chance, the same each time.
struct Chance(u64);

impl Chance {
    fn below(&mut self, n: u64) -> u64 {
        self.0 = self
            .0
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % n
    }
}

const SPOTS: u32 = 3;

/// What the page shows of a run, by the core.
fn shown(run: &Run) -> Value {
    let last = run.last_out();
    let verdict = |v: Verdict| format!("{}/{}", v.base.key(), v.top.key());
    json!({
        "inside": run.inside().map(|p| json!({
            "number": p.number,
            "spot": p.spot,
            "in_ms": p.in_at.as_millisecond(),
            "acted_ms": p.last_act().as_millisecond(),
            "turned": p.turned_at.len(),
        })).collect::<Vec<_>>(),
        "next_number": run.next_number(),
        "last": last.map(|p| json!({
            "number": p.number,
            "out_ms": p.out_at.map(|t| t.as_millisecond()),
            "verdict": p.verdict.map(verdict),
        })),
        "out": run.summary().out,
        "unjudged": run.unjudged(),
    })
}

/// A run by chance: taps that the core admits, in the order of the clock, and what is shown after each.
fn by_chance(chance: &mut Chance, length: usize) -> Vec<Value> {
    let mut at: Timestamp = "2026-11-27T18:00:00Z".parse().expect("an instant");
    let mut taps: Vec<Tap> = vec![];
    let mut out = vec![];
    for _ in 0..length {
        at += SignedDuration::from_millis(1_000 + chance.below(40_000) as i64);
        let run = Run::of(&taps);
        let known = run.next_number();
        let pizza = 1 + chance.below(u64::from(known)) as u32;
        let shade = |n: u64| Shade::ALL[n as usize];
        let kind = match chance.below(9) {
            0..=2 => TapKind::In,
            3 | 4 => TapKind::Turned,
            5 | 6 => TapKind::Out,
            7 => TapKind::Undone,
            _ => TapKind::Verdict(Verdict {
                base: shade(chance.below(3)),
                top: shade(chance.below(3)),
            }),
        };
        // A hand puts in the next one.
        let pizza = if kind == TapKind::In { known } else { pizza };
        let tap = Tap { pizza, at, kind };
        if Run::admits(&taps, &tap, SPOTS, false).is_err() {
            continue;
        }
        // A verdict is of one that is out.
        let is_out = run.pizza(pizza).is_some_and(|p| p.out_at.is_some());
        if matches!(kind, TapKind::Verdict(_)) && !is_out {
            continue;
        }
        taps.push(tap);
        let (word, verdict) = match kind {
            TapKind::In => ("in", None),
            TapKind::Turned => ("turned", None),
            TapKind::Out => ("out", None),
            TapKind::Undone => ("undone", None),
            TapKind::Verdict(v) => ("verdict", Some(format!("{}/{}", v.base.key(), v.top.key()))),
        };
        out.push(json!({
            "tap": {"kind": word, "pizza": pizza, "ms": at.as_millisecond(), "verdict": verdict},
            "then": shown(&Run::of(&taps)),
        }));
    }
    out
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_is_shown_before_the_answer_is_what_the_answer_says() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("HR").await?;
    b.go(&format!("{batch}/bake")).await?;
    let mut chance = Chance(20_261_127);
    let runs: Vec<Vec<Value>> = (0..200).map(|_| by_chance(&mut chance, 60)).collect();
    let taps: usize = runs.iter().map(Vec::len).sum();
    assert!(taps > 4_000, "{taps} taps say little");
    let js = format!(
        "const {{ applied }} = await import(new URL('fold.js', document.querySelector('script[src*=\"bake/room.js\"]').src));
         const runs = {};
         const seen = (s) => JSON.stringify({{ inside: s.inside.map((p) => [p.number, p.spot, p.in_ms, p.acted_ms, p.turned]), next: s.next_number,
           last: s.last && [s.last.number, s.last.out_ms, s.last.verdict ?? null], out: s.out, unjudged: s.unjudged }});
         const none = {{ inside: [], next_number: 1, last: null, out: 0, unjudged: [] }};
         for (const run of runs) {{
           let state = none;
           for (const [i, step] of run.entries()) {{
             state = applied(state, step.tap);
             if (seen(state) !== seen(step.then)) return [JSON.stringify(run.slice(Math.max(0, i - 6), i + 1).map((s) => s.tap)), seen(state), seen(step.then)];
           }}
         }}
         return null",
        serde_json::to_string(&runs)?
    );
    let differs = b.script(&js).await?;
    assert!(differs.is_null(), "{differs:#}");
    b.close().await
}
