//! Runs of pizzas by chance: whatever is tapped, in whatever order it arrives, the run stays one that can be.

use craft::fire::{Run, Shade, Tap, TapKind, Verdict};
use craft::keyed::Keyed;
use jiff::{SignedDuration, Timestamp};
use proptest::prelude::*;

fn at(second: u32) -> Timestamp {
    Timestamp::from_second(1_800_000_000).unwrap() + SignedDuration::from_secs(i64::from(second))
}

/// A tap of a hurried bench: any pizza of eight, any kind, within twenty minutes.
fn tap() -> impl Strategy<Value = Tap> {
    let shade = || prop::sample::select(Shade::ALL.to_vec());
    let verdict =
        (shade(), shade()).prop_map(|(base, top)| TapKind::Verdict(Verdict { base, top }));
    let kind = prop_oneof![
        4 => Just(TapKind::In),
        3 => Just(TapKind::Turned),
        4 => Just(TapKind::Out),
        1 => Just(TapKind::Undone),
        2 => verdict,
    ];
    (1u32..=8, 0u32..1200, kind).prop_map(|(pizza, s, kind)| Tap {
        pizza,
        at: at(s),
        kind,
    })
}

/// What the server keeps of taps that arrive one after the other.
fn kept(taps: &[Tap], spots: u32) -> Vec<Tap> {
    let mut out: Vec<Tap> = Vec::new();
    for t in taps {
        if Run::admits(&out, t, spots, false).is_ok() {
            out.push(*t);
        }
    }
    out
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn whatever_arrives_the_run_can_be(taps in prop::collection::vec(tap(), 0..60), spots in 1u32..4) {
        let kept = kept(&taps, spots);
        let run = Run::of(&kept);
        let mut numbers: Vec<u32> = run.pizzas.iter().map(|p| p.number).collect();
        numbers.sort_unstable();
        numbers.dedup();
        prop_assert_eq!(numbers.len(), run.pizzas.len(), "each number once");
        for p in &run.pizzas {
            prop_assert!(p.out_at.is_none_or(|o| o >= p.in_at));
            prop_assert!(p.turned_at.iter().all(|t| *t >= p.in_at && p.out_at.is_none_or(|o| *t <= o)));
        }
        let s = run.summary();
        prop_assert_eq!(s.out as usize, run.pizzas.iter().filter(|p| p.out_at.is_some()).count());
        prop_assert!(s.right <= s.judged && s.judged as usize <= run.pizzas.len());
        prop_assert!(run.next_number() > numbers.last().copied().unwrap_or(0));
        // What was kept is folded the same, whatever order it is read in; moments that are the same have no order.
        let mut moments: Vec<Timestamp> = kept.iter().map(|t| t.at).collect();
        moments.sort_unstable();
        if moments.windows(2).all(|w| w[0] < w[1]) {
            let mut backward = kept.clone();
            backward.reverse();
            prop_assert_eq!(Run::of(&backward), run);
        }
    }

    #[test]
    fn on_one_spot_no_two_pizzas_lie_at_once(taps in prop::collection::vec(tap(), 0..80)) {
        // By the clock, as one tablet with a line sends them.
        let mut taps = taps;
        taps.sort_by_key(|t| t.at);
        taps.retain(|t| t.kind != TapKind::Undone);
        let run = Run::of(&kept(&taps, 1));
        let mut all = run.pizzas.clone();
        all.sort_by_key(|p| p.in_at);
        for w in all.windows(2) {
            prop_assert!(w[0].out_at.is_some_and(|o| o <= w[1].in_at), "{:?}", w);
        }
    }
}
