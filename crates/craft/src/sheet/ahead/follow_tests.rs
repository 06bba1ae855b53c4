//! What is entered moves what it must, and nothing else: steps that begin and end, preferments, and the laws of all entries.

use super::tests::{Batch, minutes_apart};
use super::*;
use crate::formula::{Preferment, PrefermentKind};
use crate::path::{Place, Spot};
use crate::rise::Air;
use crate::sheet::StepKind::{self, *};
use crate::sheet::hours;
use StepSaid::{Begun, Finished};
use jiff::SignedDuration;
use proptest::prelude::*;

fn with_preferment(kind: PrefermentKind) -> Batch {
    Batch::new(|r| r.formula.preferments = vec![Preferment::usual(kind)])
}

fn due(b: &Batch, a: &Ahead, kind: StepKind) -> Timestamp {
    let number = b.step(kind).number;
    a.due.iter().find(|d| d.number == number).unwrap().at
}

#[test]
fn a_mix_that_is_marked_at_its_end_is_not_a_dough_mixed_early() {
    let on_time = Batch::new(|_| {})
        .said(Mix, Begun, 0)
        .said(Mix, Finished, 45);
    let late = Batch::new(|_| {})
        .said(Mix, Begun, 11)
        .said(Mix, Finished, 56);
    let at = |b: &Batch| b.ahead(b.h(1.0));
    let (a, b) = (at(&on_time), at(&late));
    assert_eq!(a.mixed_at, on_time.planned.mixed_at);
    assert_eq!(minutes_apart(a.mixed_at, b.mixed_at), 11.0);
    assert!(b.window.unwrap().from_at >= a.window.unwrap().from_at);
    // Under way it is not late: it ends when it usually does, and not before now.
    let going = Batch::new(|_| {}).said(Mix, Begun, 11);
    let now = going.step(Mix).at + SignedDuration::from_mins(20);
    let a = going.ahead(now);
    assert_eq!(minutes_apart(going.planned.mixed_at, a.mixed_at), 11.0);
    assert_eq!(
        minutes_apart(going.step(Mix).at, due(&going, &a, Mix)),
        56.0
    );
}

#[test]
fn a_dough_measured_in_the_bowl_is_off_the_mixer_whatever_was_tapped_before() {
    let b = Batch::new(|_| {})
        .said(Mix, Begun, 0)
        .read(-0.1, Measured::Dough { c: 29.0 });
    let a = b.ahead(b.h(-0.05));
    assert!(
        a.replaced
            .iter()
            .any(|r| r.what == ReplacedFigure::DoughOffTheMixer && r.measured == 29.0)
    );
    let done = Batch::new(|_| {})
        .done(Mix, 1)
        .read(0.1, Measured::Dough { c: 29.0 });
    let a = done.ahead(done.h(0.3));
    assert_eq!(
        a.replaced.last().unwrap().what,
        ReplacedFigure::DoughOffTheMixer
    );
}

#[test]
fn steps_of_a_leg_follow_its_begin_and_the_next_leg_waits_for_its_hour() {
    let early = Batch::new(|r| r.formula.bulk_h = 6.0)
        .said(Mix, Begun, -40)
        .said(Mix, Finished, 5);
    let a = early.ahead(early.h(-0.5));
    let moved = minutes_apart(early.planned.mixed_at, a.mixed_at);
    assert_eq!(moved, -40.0);
    for kind in [Rest, Bulk] {
        assert_eq!(
            minutes_apart(early.step(kind).at, due(&early, &a, kind)),
            moved,
            "{kind:?}"
        );
    }
    for kind in [Ball, Temper, LightOven, Bake] {
        assert_eq!(due(&early, &a, kind), early.step(kind).at, "{kind:?}");
    }
}

#[test]
fn a_preferment_is_followed_from_its_own_mixing_to_its_use() {
    let plan = with_preferment(PrefermentKind::Biga);
    let from = plan.planned.preferments[0].from_at;
    let before_mix = |b: &Batch, h: f64| b.planned.preferments[0].from_at + hours(h);
    // As planned: nothing moves.
    let same = with_preferment(PrefermentKind::Biga).done(Preferment, 0);
    let a = same.ahead(before_mix(&same, 10.0));
    assert_eq!(a.preferments, same.planned.preferments);
    assert_eq!(a.window, same.planned.window);
    // Begun two hours late it is younger when it goes in, and the dough is later.
    let late = with_preferment(PrefermentKind::Biga).done(Preferment, 120);
    let b = late.ahead(before_mix(&late, 10.0));
    assert_eq!(minutes_apart(from, b.preferments[0].from_at), 120.0);
    assert!(b.preferments[0].ripe < a.preferments[0].ripe - 1.0);
    assert!(b.rise_at_serve < a.rise_at_serve);
    // What is said of it is of how it goes, not of the plan: a night late it is young.
    let said = |a: &Ahead| {
        let of = |n: &&Note| n.code == "preferment_ripeness";
        a.notes
            .iter()
            .find(of)
            .map(|n| (n.what.clone(), n.why.clone()))
    };
    assert_eq!(said(&a), None);
    let night = with_preferment(PrefermentKind::Biga).done(Preferment, 12 * 60);
    let (what, why) = said(&night.ahead(before_mix(&night, 13.0))).unwrap();
    assert!(
        what.code == "preferment-young" && why.number("time") == Some(6.0 * 3600.0),
        "{what:?} {why:?}"
    );
    // Six degrees warmer than it should be: riper, and the reading stands beside its own plan.
    let warm = with_preferment(PrefermentKind::Biga).done(Preferment, 0);
    let mut warm = warm;
    warm.happened.readings.push(Reading {
        at: before_mix(&warm, 0.2),
        measured: Measured::Dough { c: 26.0 },
    });
    let c = warm.ahead(before_mix(&warm, 10.0));
    assert!(c.preferments[0].ripe > a.preferments[0].ripe + 1.0);
    let said = c.replaced.last().unwrap();
    assert_eq!(
        said.what,
        ReplacedFigure::Preferment {
            name: crate::fact!("biga")
        }
    );
    assert!((said.planned - 18.0).abs() < 1.0, "{said:?}");
    // Used three hours early.
    let early = with_preferment(PrefermentKind::Biga)
        .done(Preferment, 0)
        .said(Mix, Begun, -180)
        .said(Mix, Finished, -155);
    let d = early.ahead(early.h(-2.0));
    assert_eq!(
        minutes_apart(early.planned.preferments[0].to_at, d.preferments[0].to_at),
        -180.0
    );
    assert!(d.preferments[0].ripe < a.preferments[0].ripe);
}

#[test]
fn a_room_that_is_warmer_ripens_a_preferment_that_stands_in_it() {
    let ripe = |c: f64| {
        let mut b = with_preferment(PrefermentKind::Poolish).done(Preferment, 0);
        let at = b.planned.preferments[0].from_at + hours(1.0);
        b.happened.readings.push(Reading {
            at,
            measured: Measured::Room { c },
        });
        b.ahead(at + hours(3.0)).preferments[0].ripe
    };
    assert!(
        ripe(28.0) > ripe(22.0) + 5.0,
        "{} {}",
        ripe(28.0),
        ripe(22.0)
    );
}

#[test]
fn before_it_is_mixed_a_dough_is_offered_another_dose() {
    let mut late = with_preferment(PrefermentKind::Poolish).done(Preferment, 300);
    let from = late.planned.preferments[0].from_at;
    let measured = Measured::Room { c: 14.0 };
    late.happened.readings.push(Reading { at: from, measured });
    let a = late.ahead(from + hours(8.0));
    assert!(!a.fits(late.request.serve_at), "{:?}", a.window);
    let dose = a
        .remedies
        .iter()
        .find(|r| r.code == "other_dose")
        .expect("a dose");
    assert!(dose.change.yeast_percent.unwrap() > late.planned.yeast.percent);
    assert!(dose.margin_h > 0.0);
}

#[test]
fn a_preferment_has_a_target_and_a_water_of_its_own() {
    let warm = Batch::new(|r| {
        let p = Preferment {
            target_c: Some(26.0),
            ..Preferment::usual(PrefermentKind::Biga)
        };
        r.formula.preferments = vec![p];
    });
    let usual = with_preferment(PrefermentKind::Biga);
    let of = |b: &Batch| b.planned.preferments[0].clone();
    let (w, u) = (of(&warm), of(&usual));
    assert_eq!((w.target_c, u.target_c), (Some(26.0), Some(18.0)));
    let water = |p: &PrefermentPlan| p.water.clone().unwrap();
    assert!((water(&w).dough_c - 26.0).abs() < 0.01);
    assert!(water(&w).pour_c > water(&u).pour_c + 10.0);
    assert!(
        warm.step(Preferment)
            .detail
            .brief()
            .contains("aim=aim-for(c=26°C)")
    );
    // The dose is solved for it: warmer needs less.
    assert!(w.yeast_percent < u.yeast_percent);
}

#[test]
fn a_reading_of_a_place_of_ones_own_counts_where_the_dough_lies_and_nowhere_else() {
    let cellar = |name: &str| {
        Spot::Own(Place {
            name: name.into(),
            air: Air::Room,
            c: 14.0,
            profile_c: None,
            off_k: None,
            holds_h: None,
        })
    };
    let plan = |name: &str| {
        Batch::new(|r| {
            let mut legs = r.formula.path();
            legs[1].spot = cellar(name);
            r.formula.legs = legs;
        })
        .said(Mix, Begun, 0)
        .said(Mix, Finished, 45)
    };
    let measured = || Measured::Place {
        name: "Cellar".into(),
        c: 19.0,
    };
    let cool = plan("Cellar");
    let warm = plan("Cellar").read(3.0, measured());
    let elsewhere = plan("Porch").read(3.0, measured());
    let rise = |b: &Batch| b.ahead(b.h(8.0)).rise_at_serve;
    assert!(rise(&warm) > rise(&cool) + 10.0);
    assert_eq!(rise(&elsewhere), rise(&cool));
    let said = warm.ahead(warm.h(8.0)).replaced;
    assert!(
        said.iter().any(|r| r.what
            == ReplacedFigure::Place {
                name: "Cellar".into()
            }
            && r.planned == 14.0),
        "{said:?}"
    );
}

#[test]
fn a_dough_far_past_its_peak_never_fits_and_what_is_said_agrees() {
    let hot = Batch::new(|r| {
        r.formula.flours[0].facts.w = Some(400.0);
        r.formula.cold_h = 24.0;
    })
    .said(Mix, Begun, 0)
    .said(Mix, Finished, 45)
    .done(Ball, 0)
    .read(3.0, Measured::Fridge { c: 16.0 });
    let a = hot.ahead(hot.h(12.0));
    assert!(a.rise_at_serve > 200.0, "{}", a.rise_at_serve);
    assert!(!a.fits(hot.request.serve_at), "{:?}", a.window);
    let goes = hot.planned.as_it_goes(&a);
    assert!(!goes.fits(hot.request.serve_at));
    assert_eq!(goes.notes[0].code, "as_it_goes");
    assert!(
        goes.notes[0].what.code == "past-at-serve",
        "{:?}",
        goes.notes[0]
    );
    assert!(!a.remedies.is_empty());
    // Nothing of the plan's own judgement is left beside it.
    let plan_only = ["serve_fits", "yeast_below_scale", "ice"];
    assert!(
        goes.notes
            .iter()
            .all(|n| !plan_only.contains(&n.code.as_str()))
    );
    // What is said of the flour is said of the dough as it goes.
    for n in goes
        .notes
        .iter()
        .filter(|n| n.code.starts_with("flour_lasts"))
    {
        let said = n.why.number("strength");
        assert_eq!(said, Some(a.reserve_at_serve.round()), "{n:?}");
    }
}

/// Entries about a batch, by how far off each is.
#[derive(Debug, Clone)]
struct Entered {
    mix_min: i64,
    ball_min: i64,
    dough_c: f64,
    room_c: f64,
}

fn entered() -> impl Strategy<Value = Entered> {
    (-30i64..90, -60i64..120, 18.0..30.0f64, 14.0..30.0f64).prop_map(
        |(mix_min, ball_min, dough_c, room_c)| Entered {
            mix_min,
            ball_min,
            dough_c,
            room_c,
        },
    )
}

fn batch(e: &Entered, bulk_h: f64) -> Batch {
    Batch::new(|r| r.formula.bulk_h = bulk_h)
        .said(Mix, Begun, e.mix_min)
        .said(Mix, Finished, e.mix_min + 25)
        .done(Ball, e.ball_min)
        .read(
            e.mix_min as f64 / 60.0 + 0.1,
            Measured::Dough { c: e.dough_c },
        )
        .read(0.5, Measured::Room { c: e.room_c })
}

fn ready(b: &Batch) -> Option<Timestamp> {
    b.ahead(b.h(6.0)).window.map(|w| w.from_at)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(12))]

    #[test]
    fn entries_that_repeat_the_plan_change_no_figure(bulk_h in 2.0..6.0f64) {
        let b = Batch::new(|r| r.formula.bulk_h = bulk_h);
        let numbers: Vec<StepKind> = b.planned.steps.iter().map(|s| s.kind).collect();
        let repeated = numbers
            .into_iter()
            .filter(|k| !matches!(k, LightOven | Bake | Temper))
            .fold(Batch::new(|r| r.formula.bulk_h = bulk_h), |b, k| b.said(k, StepSaid::Begun, 0).said(k, Finished, if k == Mix { 45 } else { 0 }));
        let a = repeated.ahead(repeated.h(bulk_h + 1.0));
        prop_assert_eq!(a.window, b.planned.window);
        prop_assert_eq!(a.rise_at_serve, b.planned.rise_at_serve);
        prop_assert_eq!(&a.clocks, &b.planned.clocks);
        prop_assert_eq!(&a.blocks, &b.planned.blocks);
        prop_assert!(a.replaced.is_empty());
    }

    #[test]
    fn later_mixing_never_makes_it_ready_earlier(e in entered(), later in 5i64..40, bulk_h in 3.0..6.0f64) {
        let late = Entered { mix_min: e.mix_min + later, ..e.clone() };
        let (a, b) = (batch(&e, bulk_h), batch(&late, bulk_h));
        if let (Some(a), Some(b)) = (ready(&a), ready(&b)) {
            prop_assert!(minutes_apart(a, b) > -6.0, "{} min", minutes_apart(a, b));
        }
    }

    #[test]
    fn a_warmer_dough_or_place_is_never_ready_later(e in entered(), by in 1.0..5.0f64) {
        let dough = Entered { dough_c: e.dough_c + by, ..e.clone() };
        let room = Entered { room_c: e.room_c + by, ..e.clone() };
        let cool = ready(&batch(&e, 4.0));
        for warm in [dough, room] {
            if let (Some(cool), Some(warm)) = (cool, ready(&batch(&warm, 4.0))) {
                prop_assert!(minutes_apart(cool, warm) < 6.0, "{} min", minutes_apart(cool, warm));
            }
        }
    }

    #[test]
    fn only_the_times_of_entries_count_not_the_order_of_entering(e in entered(), seed in 0usize..24) {
        let b = batch(&e, 4.0);
        let mut other = batch(&e, 4.0);
        other.happened.readings.reverse();
        let n = other.happened.steps.len();
        other.happened.steps.rotate_left(seed % n);
        prop_assert_eq!(b.ahead(b.h(6.0)), other.ahead(other.h(6.0)));
    }

    #[test]
    fn what_is_still_to_come_never_moves_what_is_past(e in entered(), longer in 0.5..3.0f64) {
        // The same dough, its cold stage an hour or more longer: mixing and balling stay where they were.
        let b = batch(&e, 4.0);
        let mut longer_plan = b.request.clone();
        longer_plan.formula.cold_h += longer;
        longer_plan.serve_at += hours(longer);
        let planned = crate::sheet::work_out(&longer_plan).unwrap();
        let other = Batch { request: longer_plan, planned, happened: b.happened.clone() };
        let (x, y) = (b.ahead(b.h(6.0)), other.ahead(b.h(6.0)));
        prop_assert_eq!(x.mixed_at, y.mixed_at);
        let past = |a: &Ahead| a.clocks.iter().filter(|p| p.hours < 3.0).map(|p| (p.hours, p.rise.round())).filter(|p| p.0 == 0.0).collect::<Vec<_>>();
        prop_assert_eq!(past(&x), past(&y));
    }
}
