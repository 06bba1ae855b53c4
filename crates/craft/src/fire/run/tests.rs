//! A run told from its taps.

use super::fold::DOUBLE_S;
use super::*;
use jiff::Timestamp;

fn tap(pizza: u32, second: i64, kind: TapKind) -> Tap {
    Tap {
        pizza,
        at: Timestamp::from_second(1_800_000_000 + second).unwrap(),
        kind,
    }
}

#[test]
fn two_pizzas_and_their_figures() {
    let run = Run::of(&[
        tap(1, 0, TapKind::In),
        tap(1, 28, TapKind::Turned),
        tap(1, 80, TapKind::Out),
        tap(
            1,
            85,
            TapKind::Verdict(Verdict {
                base: Shade::Pale,
                top: Shade::Right,
            }),
        ),
        tap(1, 88, TapKind::Verdict(Verdict::RIGHT)),
        tap(2, 150, TapKind::In),
    ]);
    assert_eq!(run.current().unwrap().number, 2);
    assert_eq!(run.next_number(), 3);
    let s = run.summary();
    assert_eq!((s.out, s.mean_s, s.pace_s), (1, Some(80.0), Some(150.0)));
    assert_eq!(
        (s.judged, s.right),
        (1, 1),
        "a second tap corrects the first"
    );
}

#[test]
fn taps_that_make_no_sense_are_refused() {
    let kept = [
        tap(1, 0, TapKind::In),
        tap(1, 80, TapKind::Out),
        tap(2, 100, TapKind::In),
    ];
    let says = |t: Tap| Run::admits(&kept, &t, 1, false).err();
    assert_eq!(says(tap(3, 5, TapKind::Turned)), Some(TapRefused::NoneIn));
    assert_eq!(says(tap(3, 110, TapKind::In)), Some(TapRefused::StillIn(2)));
    assert_eq!(
        says(tap(2, 90, TapKind::Out)),
        Some(TapRefused::NoneIn),
        "not in yet by then"
    );
    assert_eq!(
        says(tap(1, 85, TapKind::Out)),
        Some(TapRefused::AlreadyOut(1))
    );
    assert_eq!(
        says(tap(1, 60, TapKind::Out)),
        Some(TapRefused::AlreadyOut(1)),
        "two people ended it, the earlier one is told later"
    );
    assert_eq!(
        says(tap(1, 90, TapKind::In)),
        Some(TapRefused::AlreadyOut(1))
    );
    assert_eq!(
        says(tap(9, 90, TapKind::Verdict(Verdict::RIGHT))),
        Some(TapRefused::Unknown(9))
    );
    assert_eq!(
        says(tap(9, 90, TapKind::Undone)),
        Some(TapRefused::NothingToUndo(9))
    );
    assert_eq!(says(tap(2, 130, TapKind::Turned)), None);
    // A turn that was made before another tablet said Out comes late and still counts.
    assert_eq!(says(tap(1, 40, TapKind::Turned)), None);
}

#[test]
fn a_deck_takes_three_at_once_and_each_has_its_spot() {
    let kept = [
        tap(1, 0, TapKind::In),
        tap(2, 20, TapKind::In),
        tap(3, 40, TapKind::In),
        tap(2, 200, TapKind::Out),
        tap(4, 210, TapKind::In),
    ];
    let run = Run::of(&kept);
    let spots: Vec<_> = run.pizzas.iter().map(|p| (p.number, p.spot)).collect();
    assert_eq!(spots, [(1, 0), (2, 1), (3, 2), (4, 1)]);
    assert_eq!(
        Run::admits(&kept, &tap(5, 220, TapKind::In), 3, false),
        Err(TapRefused::Full(3))
    );
    assert_eq!(
        Run::admits(&kept, &tap(5, 220, TapKind::In), 4, false),
        Ok(())
    );
    assert_eq!(
        Run::admits(&kept, &tap(4, 215, TapKind::In), 4, false),
        Err(TapRefused::WentIn(4)),
        "two tablets put in a fourth"
    );
}

#[test]
fn nothing_that_was_kept_is_dropped_by_an_earlier_tap_that_comes_late() {
    // Tablet A had no line: its pizza 1 arrives after B's pizza 2 at the same time.
    let run = Run::of(&[
        tap(2, 10, TapKind::In),
        tap(2, 90, TapKind::Out),
        tap(1, 0, TapKind::In),
        tap(1, 85, TapKind::Out),
    ]);
    assert_eq!(run.summary().out, 2);
}

#[test]
fn the_last_tap_is_taken_back_step_by_step() {
    let mut taps = vec![
        tap(1, 0, TapKind::In),
        tap(1, 30, TapKind::Turned),
        tap(1, 80, TapKind::Out),
    ];
    let back = |taps: &mut Vec<Tap>, s: i64| {
        taps.push(tap(1, s, TapKind::Undone));
        Run::of(taps)
    };
    let run = back(&mut taps, 81);
    assert!(run.pizzas[0].out_at.is_none() && run.pizzas[0].turned_at.len() == 1);
    assert!(back(&mut taps, 82).pizzas[0].turned_at.is_empty());
    assert!(back(&mut taps, 83).pizzas.is_empty());
}

#[test]
fn a_run_left_open_over_night_is_noticed() {
    let run = Run::of(&[
        tap(1, 0, TapKind::In),
        tap(1, 80, TapKind::Out),
        tap(2, 100, TapKind::In),
    ]);
    let at = |s: i64| Timestamp::from_second(1_800_000_000 + s).unwrap();
    assert!(run.forgotten(100, at(400)).is_empty());
    let found: Vec<u32> = run
        .forgotten(100, at(36_000))
        .iter()
        .map(|p| p.number)
        .collect();
    assert_eq!(found, [2]);
}

#[test]
fn the_order_of_arrival_does_not_matter() {
    let taps = [
        tap(1, 0, TapKind::In),
        tap(1, 30, TapKind::Turned),
        tap(1, 80, TapKind::Out),
        tap(2, 90, TapKind::In),
    ];
    let mut shuffled = taps;
    shuffled.reverse();
    assert_eq!(Run::of(&taps), Run::of(&shuffled));
}

#[test]
fn of_two_devices_on_one_pizza_the_earlier_in_stands() {
    let kept = [tap(5, 30, TapKind::In)];
    let earlier = tap(5, 20, TapKind::In);
    assert_eq!(Run::admits(&kept, &earlier, 1, false), Ok(()));
    let run = Run::of(&[kept[0], earlier]);
    assert_eq!(run.pizzas.len(), 1);
    assert_eq!(run.pizzas[0].in_at, earlier.at);
    assert_eq!(
        run.pizzas[0].also_in_at,
        Some(kept[0].at),
        "both can be told"
    );
    assert_eq!(
        Run::admits(&kept, &tap(5, 40, TapKind::In), 2, false),
        Err(TapRefused::WentIn(5))
    );
    // Not when another lay there meanwhile.
    let between = [
        tap(4, 22, TapKind::In),
        tap(4, 28, TapKind::Out),
        tap(5, 30, TapKind::In),
    ];
    assert_eq!(
        Run::admits(&between, &earlier, 1, false),
        Err(TapRefused::Full(1))
    );
    assert_eq!(Run::admits(&between, &earlier, 2, false), Ok(()));
}

#[test]
fn a_double_tap_counts_once() {
    let ms = |pizza, ms: i64, kind| Tap {
        pizza,
        at: Timestamp::from_millisecond(1_800_000_000_000 + ms).unwrap(),
        kind,
    };
    let kept = [ms(1, 0, TapKind::In)];
    let says = |t: Tap| Run::admits(&kept, &t, 3, false);
    assert_eq!(says(ms(2, 300, TapKind::In)), Err(TapRefused::Double));
    assert_eq!(says(ms(1, 300, TapKind::Out)), Err(TapRefused::Double));
    assert_eq!(says(ms(1, 790, TapKind::Turned)), Err(TapRefused::Double));
    assert_eq!(says(ms(2, 900, TapKind::In)), Ok(()));
    // Thirty alternating taps in four seconds make no six pizzas.
    let wild: Vec<Tap> = (0..30)
        .map(|i| {
            let kind = if i % 2 == 0 {
                TapKind::In
            } else {
                TapKind::Out
            };
            ms(1 + i / 2, i64::from(i) * 133, kind)
        })
        .collect();
    let run = Run::of(&wild);
    assert!(
        run.pizzas
            .iter()
            .all(|p| p.baked_s().is_none_or(|s| s >= DOUBLE_S))
    );
}

#[test]
fn a_closed_run_takes_verdicts_only() {
    let kept = [tap(1, 0, TapKind::In), tap(1, 80, TapKind::Out)];
    assert_eq!(
        Run::admits(&kept, &tap(2, 100, TapKind::In), 1, true),
        Err(TapRefused::Closed)
    );
    let verdict = tap(1, 5000, TapKind::Verdict(Verdict::RIGHT));
    assert_eq!(Run::admits(&kept, &verdict, 1, true), Ok(()));
}
