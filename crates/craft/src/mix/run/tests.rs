//! A mixing told from its taps.

use super::*;
use crate::mix::{
    BowlItem, BowlPart, BowlStep, Machine, Mixer, Mixing, ReadySign, Speed, programmes, water_part,
};
use jiff::Timestamp;

fn tap(second: i64, act: MixAct) -> MixTap {
    MixTap {
        bowl: 0,
        run: 1,
        at: Timestamp::from_second(1_800_000_000 + second).unwrap(),
        act,
    }
}
fn step(second: i64, step: u16) -> MixTap {
    tap(second, MixAct::Step { step })
}

/// Flour and water slow, a rest, and water with medium.
fn laid() -> Mixing {
    let mut first = BowlStep::plain(Speed::Slow, 4.0);
    first.add = vec![
        BowlItem::of(BowlPart::Flour, 1000.0, 20.0),
        BowlItem::of(BowlPart::Water, 600.0, 20.0).named(&water_part(1)),
    ];
    let mut last = BowlStep::plain(Speed::Medium, 5.0);
    last.add = vec![
        BowlItem::of(BowlPart::Salt, 25.0, 20.0),
        BowlItem::of(BowlPart::Water, 60.0, 20.0).named(&water_part(2)),
    ];
    Mixing {
        kind: Mixer::Spiral,
        capacity_kg: Some(5.0),
        room_c: 20.0,
        bowl_c: None,
        plain: false,
        steps: vec![first, BowlStep::plain(Speed::Off, 10.0), last],
        from: None,
    }
}

#[test]
fn steps_take_as_long_as_they_took() {
    let taps = [
        step(0, 1),
        step(300, 2),
        tap(400, MixAct::Read { c: 22.5 }),
        step(840, 3),
        tap(
            845,
            MixAct::More {
                step: 3,
                minutes: 1.0,
            },
        ),
    ];
    let run = MixRun::of(&taps, 0, 1);
    assert_eq!(run.step_on(3), Some(3));
    let at = |s: i64| Timestamp::from_second(1_800_000_000 + s).unwrap();
    let minutes = |m: &Mixing| m.steps.iter().map(|s| s.minutes).collect::<Vec<_>>();
    assert_eq!(minutes(&run.as_it_goes(&laid(), at(900))), [5.0, 9.0, 6.0]);
    // It goes on until somebody says that it ended.
    assert_eq!(
        minutes(&run.as_it_goes(&laid(), at(840 + 480))),
        [5.0, 9.0, 8.0]
    );
    assert!(run.logged(&laid()).is_none());
    let mut all = taps.to_vec();
    all.push(step(1260, 4));
    let run = MixRun::of(&all, 0, 1);
    assert_eq!(run.ended_at(3), Some(at(1260)));
    let logged = run.logged(&laid()).unwrap();
    assert_eq!(minutes(&logged.mixing), [5.0, 9.0, 7.0]);
    assert!((logged.readings[0].at_min - 400.0 / 60.0).abs() < 1e-9);
}

#[test]
fn what_makes_no_sense_is_refused() {
    let taps = vec![step(0, 1), step(300, 2)];
    let run = MixRun::of(&taps, 0, 1);
    let says = |t: MixTap| run.admits(&t, 3, 2, false).err();
    assert_eq!(says(step(400, 3)), None);
    assert_eq!(
        says(step(400, 2)),
        Some(MixRefused::OnAlready(2)),
        "two people on one run"
    );
    assert_eq!(says(step(400, 4)), Some(MixRefused::OutOfOrder(1)));
    assert_eq!(says(step(200, 3)), Some(MixRefused::BeforeTheLast));
    assert_eq!(
        says(tap(-10, MixAct::Read { c: 20.0 })),
        Some(MixRefused::NotBegun)
    );
    assert_eq!(
        says(tap(350, MixAct::Poured { part: 3, c: None })),
        Some(MixRefused::NoSuchPart(3))
    );
    assert_eq!(
        says(tap(
            350,
            MixAct::More {
                step: 1,
                minutes: 1.0
            }
        )),
        Some(MixRefused::OnAlready(1))
    );
    assert_eq!(
        says(tap(
            350,
            MixAct::More {
                step: 2,
                minutes: 1e9
            }
        )),
        Some(MixRefused::TooLong)
    );
    assert_eq!(
        says(tap(
            350,
            MixAct::More {
                step: 2,
                minutes: f64::NAN
            }
        )),
        Some(MixRefused::TooLong)
    );
    let chosen = MixAct::Chosen {
        programme: Box::new(programmes()[0].clone()),
        machine: Box::new(Machine::usual(Mixer::Hand)),
        machine_id: None,
        runs: 1,
    };
    assert_eq!(says(tap(350, chosen.clone())), Some(MixRefused::Begun));
    assert_eq!(
        run.admits(&step(400, 3), 3, 2, true),
        Err(MixRefused::Closed)
    );
    let new = MixRun::default();
    assert_eq!(new.admits(&tap(0, chosen), 3, 2, false), Ok(()));
    let sign = MixAct::Sign {
        sign: ReadySign::Window,
    };
    assert_eq!(
        new.admits(&tap(0, sign), 3, 2, false),
        Err(MixRefused::NotBegun)
    );
    assert_eq!(new.admits(&step(0, 1), 3, 2, false), Ok(()));
}

#[test]
fn water_that_goes_in_later_than_its_step_splits_it() {
    let taps = [
        step(0, 1),
        step(240, 2),
        step(840, 3),
        tap(
            840 + 120,
            MixAct::Poured {
                part: 2,
                c: Some(4.0),
            },
        ),
    ];
    let run = MixRun::of(&taps, 0, 1);
    let goes = run.as_it_goes(&laid(), taps[3].at);
    let minutes: Vec<f64> = goes.steps.iter().map(|s| s.minutes).collect();
    assert_eq!(minutes, [4.0, 10.0, 2.0, 3.0]);
    assert_eq!(goes.steps[3].add.len(), 1);
    assert_eq!(goes.steps[3].add[0].temp_c, 4.0);
    assert!((goes.contents().weight_g - laid().contents().weight_g).abs() < 1e-9);
    let again = MixAct::Poured { part: 2, c: None };
    assert_eq!(
        run.admits(&tap(999, again), 3, 2, false),
        Err(MixRefused::InAlready(2))
    );
}

#[test]
fn the_order_of_arrival_does_not_matter_and_runs_are_their_own() {
    let mut taps = vec![step(0, 1), tap(60, MixAct::Read { c: 21.0 }), step(300, 2)];
    let mut other = step(900, 1);
    other.run = 2;
    taps.push(other);
    let forward = MixRun::of(&taps, 0, 1);
    taps.reverse();
    assert_eq!(forward, MixRun::of(&taps, 0, 1));
    assert_eq!(forward.begun.len(), 2);
    assert_eq!(MixRun::of(&taps, 0, 2).begun.len(), 1);
    assert_eq!(MixRun::of(&taps, 1, 1), MixRun::default());
}
