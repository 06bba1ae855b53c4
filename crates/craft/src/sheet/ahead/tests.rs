use super::*;
use crate::sheet::tests::friday;
use crate::sheet::{BlockKind, StepKind, hours, work_out};
use crate::style;
use jiff::SignedDuration;

pub(super) struct Batch {
    pub request: SheetRequest,
    pub planned: SheetResult,
    pub happened: Happened,
}

impl Batch {
    pub fn new(change: impl FnOnce(&mut SheetRequest)) -> Batch {
        let request = friday(style::first()).with(change);
        Batch {
            planned: work_out(&request).unwrap(),
            request,
            happened: Happened::default(),
        }
    }
    pub fn h(&self, after_mixing: f64) -> Timestamp {
        self.planned.mixed_at + hours(after_mixing)
    }
    pub fn done(self, kind: StepKind, late_min: i64) -> Batch {
        self.said(kind, StepSaid::Done, late_min)
    }
    pub fn step(&self, kind: StepKind) -> &PlannedStep {
        self.planned.steps.iter().find(|s| s.kind == kind).unwrap()
    }
    /// A word about a step, minutes after it was planned.
    pub fn said(mut self, kind: StepKind, said: StepSaid, late_min: i64) -> Batch {
        let step = self.planned.steps.iter().find(|s| s.kind == kind).unwrap();
        self.happened.steps.push(StepPast {
            number: step.number,
            at: step.at + SignedDuration::from_mins(late_min),
            said,
        });
        self
    }
    pub fn read(mut self, after_mixing: f64, measured: Measured) -> Batch {
        let at = self.h(after_mixing);
        self.happened.readings.push(Reading { at, measured });
        self
    }
    pub fn ahead(&self, now: Timestamp) -> Ahead {
        from_now(&AheadRequest {
            request: &self.request,
            planned: &self.planned,
            happened: &self.happened,
            now,
            places: &[],
            doubts: Doubts::default(),
        })
        .unwrap()
    }
}

pub(super) fn minutes_apart(a: Timestamp, b: Timestamp) -> f64 {
    b.duration_since(a).as_secs_f64() / 60.0
}

/// Everything done as planned up to so many hours after mixing.
pub(super) fn happened_until(sheet: &SheetResult, h: f64) -> Happened {
    let now = sheet.mixed_at + hours(h);
    let done = sheet.steps.iter().filter(|s| s.at <= now);
    Happened {
        steps: done
            .map(|s| StepPast {
                number: s.number,
                at: match s.kind {
                    StepKind::Mix => sheet.mixed_at,
                    _ => s.at,
                },
                said: if s.kind == StepKind::Mix {
                    StepSaid::Finished
                } else {
                    StepSaid::Done
                },
            })
            .collect(),
        ..Happened::default()
    }
}

#[test]
fn when_all_went_as_planned_the_forecast_stays() {
    let b = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .done(StepKind::Ball, 0);
    let a = b.ahead(b.h(3.0));
    assert!(a.replaced.is_empty(), "{:?}", a.replaced);
    assert_eq!(a.blocks, b.planned.blocks);
    let (w, p) = (a.window.unwrap(), b.planned.window.unwrap());
    assert!(minutes_apart(p.from_at, w.from_at).abs() < 6.0);
    assert!((a.rise_at_serve - b.planned.rise_at_serve).abs() < 1.0);
    assert!(a.remedies.is_empty());
    assert_eq!(a.note(&b.request).what.code, "still-fits");
    let sure = a.sure.unwrap();
    assert!(sure.ready.early_at < sure.ready.at && sure.ready.at < sure.ready.late_at);
}

#[test]
fn a_warm_mixer_moves_the_window_and_a_remedy_brings_it_back() {
    let b = Batch::new(|r| {
        r.formula.bulk_h = 3.0;
        r.formula.cold_h = 0.0;
        r.formula.temper_h = 6.0;
    })
    .done(StepKind::Rest, 0)
    .read(0.1, Measured::Dough { c: 31.0 })
    .read(0.1, Measured::Room { c: 29.0 });
    let a = b.ahead(b.h(0.5));
    assert!(a.window.unwrap().from_at < b.planned.window.unwrap().from_at);
    assert_eq!(a.replaced[0].what, ReplacedFigure::DoughOffTheMixer);
    assert_eq!(a.replaced[0].measured, 31.0);
    assert!(!a.fits(b.request.serve_at));
    let note = a.note(&b.request);
    assert_eq!(
        note.what,
        crate::fact!("past-at-serve", at = b.request.serve_at)
    );
    assert!(note.todo.unwrap().code == "rise-lists");
    let best = a.remedies.first().expect("a remedy");
    assert!(best.margin_h > 0.0, "{best:?}");
    for pair in a.remedies.windows(2) {
        assert!(pair[0].margin_h >= pair[1].margin_h);
    }
    // Taken, it is a plan that the sheet works out to the same window.
    let mut taken = b.request.clone();
    taken.formula.legs = best.change.legs.clone();
    taken.serve_at = best.change.serve_at;
    taken.formula.yeast.dose = crate::formula::Dose::Given {
        percent: b.planned.yeast.percent,
    };
    let plan = work_out(&taken).unwrap();
    assert!(minutes_apart(plan.mixed_at, a.mixed_at).abs() < 1.5);
    let after = Batch {
        request: taken.clone(),
        planned: plan,
        happened: Happened {
            steps: vec![],
            ..b.happened.clone()
        },
    }
    .done(StepKind::Rest, 0);
    let after = after.ahead(b.h(0.5));
    assert!(after.fits(taken.serve_at), "{:?}", after.window);
}

#[test]
fn late_steps_and_a_warm_fridge_are_taken_as_they_were() {
    let on_time = Batch::new(|_| {}).done(StepKind::Rest, 0);
    let late = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .done(StepKind::Ball, 180)
        .read(8.0, Measured::Fridge { c: 8.5 });
    let a = late.ahead(late.h(9.0));
    let b = on_time.ahead(on_time.h(1.0));
    assert!(a.window.unwrap().from_at < b.window.unwrap().from_at);
    let what: Vec<_> = a.replaced.iter().map(|r| &r.what).collect();
    assert!(what.contains(&&ReplacedFigure::Fridge));
    assert!(matches!(what[0], ReplacedFigure::Step { .. }));
    assert!((a.replaced[0].measured - 180.0).abs() < 0.1);
    // The picture's stages are those hours, too: the bulk ends when it was balled, and every stage begins as one ends.
    let goes = late.planned.as_it_goes(&a);
    let (was, is) = (&late.planned.blocks, &goes.blocks);
    let bulk = was.iter().position(|x| x.kind == BlockKind::Bulk).unwrap();
    assert_eq!(
        is[bulk].to_at,
        was[bulk].to_at + SignedDuration::from_mins(180)
    );
    assert!(is.windows(2).all(|x| x[0].to_at == x[1].from_at), "{is:?}");
    assert!(
        is[bulk..]
            .iter()
            .all(|x| goes.clocks_at(x.from_at).is_some())
    );
    // A dough in the room, then in the fridge, was in no place between them.
    let after = goes
        .clocks_at(is[bulk].to_at + SignedDuration::from_secs(30))
        .unwrap();
    assert_eq!(after.place_c, late.request.fridge_c);
}

#[test]
fn a_fridge_that_runs_warm_says_what_turning_it_down_would_do() {
    let warm = |c: f64, then: Option<f64>| {
        let b = Batch::new(|_| {})
            .done(StepKind::Rest, 0)
            .done(StepKind::Ball, 0)
            .read(8.0, Measured::Fridge { c });
        let b = match then {
            Some(c) => b.read(8.5, Measured::Fridge { c }),
            None => b,
        };
        b.ahead(b.h(8.5))
    };
    let note = |a: &Ahead| a.notes.iter().find(|n| n.code == "fridge_warm").cloned();
    let a = warm(9.0, None);
    let said = note(&a).expect("a note");
    // It says what the forecast says once it was turned down.
    let turned = warm(9.0, Some(5.0)).window.unwrap();
    let until = crate::when::quarter(turned.to_at.unwrap());
    assert!(
        said.why.brief().contains(&format!("until(at={until})")),
        "{said:?} against {until}"
    );
    assert!(turned.to_at > a.window.unwrap().to_at);
    // As planned, or turned down already, there is nothing to say.
    assert_eq!(note(&warm(5.0, None)), None);
    assert_eq!(note(&warm(9.0, Some(5.0))), None);
}

#[test]
fn balls_that_come_out_of_the_freezer_too_ripe_come_out_later() {
    let b = Batch::new(|r| {
        let method = crate::path::methods::by_key("freeze_thaw").expect("a method");
        r.formula = method.applied(&r.formula);
    })
    .done(StepKind::Rest, 0)
    .done(StepKind::Ball, 0);
    let frozen_at = b
        .planned
        .steps
        .iter()
        .find(|s| s.kind == StepKind::Ball)
        .unwrap()
        .at;
    let mixed_at = b.planned.mixed_at;
    let after = |h: f64| frozen_at.duration_since(mixed_at).as_secs_f64() / 3600.0 + h;
    let b = b.read(after(1.0), Measured::Fridge { c: 11.0 });
    let a = b.ahead(b.h(after(2.0)));
    assert!(!a.fits(b.request.serve_at), "{:?}", a.window);
    let thaw = a
        .remedies
        .iter()
        .find(|r| r.code == "other_thaw")
        .expect("a shorter thaw");
    assert!(thaw.say.code == "freezer-out-later");
    let frozen = |legs: &[crate::path::Leg]| -> f64 {
        legs.iter()
            .filter(|l| l.spot.is_frozen())
            .map(|l| l.hours)
            .sum()
    };
    assert!(frozen(&thaw.change.legs) > frozen(&b.request.formula.path()) + 0.4);
    assert!(thaw.margin_h > crate::sheet::margin_h(a.window, b.request.serve_at));
}

#[test]
fn a_step_that_is_overdue_moves_with_the_clock() {
    let b = Batch::new(|_| {}).done(StepKind::Rest, 0);
    let a = b.ahead(b.h(8.0));
    assert!(a.rise_at_serve > b.planned.rise_at_serve + 5.0);
}

#[test]
fn a_marked_tub_tells_how_lively_the_yeast_is() {
    let slow = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .read(2.0, Measured::Grown { times: 1.05 });
    let fast = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .read(2.0, Measured::Grown { times: 1.4 });
    let (s, f) = (slow.ahead(slow.h(2.0)), fast.ahead(fast.h(2.0)));
    assert!(f.lively.unwrap() > s.lively.unwrap());
    assert!(f.rise_at_serve > s.rise_at_serve);
}

#[test]
fn a_dough_that_is_not_mixed_is_not_told_to_be_baked() {
    // Weak flour over two days: its gluten is spent, and no dose mends that.
    let b = Batch::new(|r| {
        r.formula = r.formula.clone().on_flour_w(150.0);
        r.formula.cold_h = 60.0;
    })
    .read(-3.0, Measured::Fridge { c: 6.0 });
    let a = b.ahead(b.h(-2.0));
    let note = a.notes.iter().find(|n| n.code == "as_it_goes").unwrap();
    assert_eq!(note.level, crate::note::Level::Act);
    assert!(a.remedies.is_empty(), "{:?}", a.remedies);
    assert!(
        note.todo
            .as_ref()
            .is_some_and(|t| t.code == "not-mixed-todo")
    );
}

#[test]
fn a_reading_of_a_place_counts_from_a_day_before_and_not_from_before_the_plan() {
    let begins: Timestamp = "2026-11-27T12:00:00Z".parse().unwrap();
    let at = |h: f64| begins + hours(h);
    assert_eq!(places_count_from(begins, at(-100.0)), at(-24.0));
    assert_eq!(places_count_from(begins, at(-3.0)), at(-3.0));
    // Entered when it was begun already: all that was read since counts.
    assert_eq!(places_count_from(begins, at(5.0)), begins);
}

#[test]
fn readings_of_the_future_change_nothing() {
    let b = Batch::new(|_| {}).done(StepKind::Rest, 0);
    let with = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .read(9.0, Measured::Fridge { c: 9.0 });
    assert_eq!(b.ahead(b.h(3.0)), with.ahead(with.h(3.0)));
}

#[test]
fn a_dough_that_is_too_young_is_offered_warmth_or_time() {
    let b = Batch::new(|_| {})
        .done(StepKind::Rest, 0)
        .done(StepKind::Ball, 0)
        .read(0.1, Measured::Dough { c: 15.0 })
        .read(3.0, Measured::Fridge { c: 2.0 })
        .read(3.0, Measured::Room { c: 15.0 });
    let a = b.ahead(b.h(24.0));
    assert!(!a.fits(b.request.serve_at));
    let codes: Vec<_> = a.remedies.iter().map(|r| r.code.as_str()).collect();
    assert!(
        codes.contains(&"other_temper") || codes.contains(&"warmer_place"),
        "{codes:?}"
    );
    assert!(a.remedies[0].margin_h > 0.0);
}

#[test]
fn a_reading_of_a_place_holds_until_the_next_and_not_only_the_last_counts() {
    // In the fridge from the second hour on; nine degrees for six hours of the night, then four again.
    let mixed = |b: Batch| b.done(StepKind::Rest, 0).done(StepKind::Ball, 0);
    let steady = mixed(Batch::new(|_| {})).read(3.0, Measured::Fridge { c: 4.0 });
    let warm = mixed(Batch::new(|_| {}))
        .read(3.0, Measured::Fridge { c: 4.0 })
        .read(8.0, Measured::Fridge { c: 9.0 })
        .read(14.0, Measured::Fridge { c: 4.0 });
    let warmer = mixed(Batch::new(|_| {}))
        .read(3.0, Measured::Fridge { c: 4.0 })
        .read(8.0, Measured::Fridge { c: 9.0 });
    let rise = |b: &Batch| b.ahead(b.h(15.0)).rise_at_serve;
    assert!(
        rise(&warm) > rise(&steady) + 1.0,
        "{} {}",
        rise(&warm),
        rise(&steady)
    );
    assert!(
        rise(&warmer) > rise(&warm) + 1.0,
        "{} {}",
        rise(&warmer),
        rise(&warm)
    );
}

#[test]
fn a_fridge_without_power_drifts_and_one_that_was_read_is_known_again() {
    let cut = |hours_long: f64| {
        let mut b = Batch::new(|_| {})
            .done(StepKind::Rest, 0)
            .done(StepKind::Ball, 0);
        b.happened.power_cuts.push(PowerCut {
            from: b.h(6.0),
            until: b.h(6.0 + hours_long),
        });
        b
    };
    let rise = |b: &Batch| b.ahead(b.h(20.0)).rise_at_serve;
    let none = rise(
        &Batch::new(|_| {})
            .done(StepKind::Rest, 0)
            .done(StepKind::Ball, 0),
    );
    let (short, long) = (rise(&cut(1.0)), rise(&cut(8.0)));
    assert!(none < short && short < long, "{none} {short} {long}");
    // Somebody looked after two hours: the rest of the drift is not guessed.
    let read = cut(8.0).read(8.0, Measured::Fridge { c: 5.0 });
    assert!(rise(&read) < long);
    // A dough on the bench has no fridge to fail it.
    let warm_path = |b: &mut SheetRequest| b.formula.cold_h = 0.0;
    let mut room = Batch::new(warm_path).done(StepKind::Rest, 0);
    let before = rise(&room);
    room.happened.power_cuts.push(PowerCut {
        from: room.h(1.0),
        until: room.h(4.0),
    });
    assert_eq!(rise(&room), before);
}

#[test]
fn an_entry_under_a_wrong_year_makes_no_dough_of_years() {
    let mut b = Batch::new(|_| {});
    let rest = b
        .planned
        .steps
        .iter()
        .find(|s| s.kind == StepKind::Rest)
        .unwrap();
    b.happened.steps.push(StepPast {
        number: rest.number,
        at: "0001-01-01T00:00:00Z".parse().unwrap(),
        said: StepSaid::Done,
    });
    let asked = |b: &Batch| {
        from_now(&AheadRequest {
            request: &b.request,
            planned: &b.planned,
            happened: &b.happened,
            now: b.h(3.0),
            places: &[],
            doubts: Doubts::default(),
        })
    };
    assert!(asked(&b).is_err());
    b.happened.steps.clear();
    assert!(asked(&b).is_ok());
}

#[test]
fn a_leg_that_is_cut_by_a_remedy_has_the_folds_that_were_planned() {
    use crate::formula::Formula;
    let b = Batch::new(|r| {
        r.formula.bulk_h = 8.0;
        r.formula.cold_h = 0.0;
    });
    let folds = |f: &Formula| f.path().iter().map(|l| l.folds_that_fit()).sum::<u32>();
    let planned = folds(&b.request.formula);
    let b = b
        .done(StepKind::Rest, 0)
        .read(2.0, Measured::Room { c: 30.0 });
    for r in b.ahead(b.h(5.0)).remedies {
        let changed = b.request.formula.clone().on_path(r.change.legs);
        assert!(
            folds(&changed) <= planned,
            "{}: {}",
            r.code,
            folds(&changed)
        );
    }
}

#[test]
fn a_warmer_dough_that_still_fits_is_offered_the_way_back_to_the_same_dough() {
    let r = friday(crate::style::first());
    let sheet = work_out(&r).unwrap();
    let ask = |c: f64| {
        let happened = Happened {
            readings: vec![Reading {
                at: sheet.mixed_at,
                measured: Measured::Dough { c },
            }],
            ..happened_until(&sheet, 0.2)
        };
        from_now(&AheadRequest {
            request: &r,
            planned: &sheet,
            happened: &happened,
            now: sheet.mixed_at + hours(0.3),
            places: &[],
            doubts: Doubts::default(),
        })
        .unwrap()
    };
    let target = r.formula.target_dough_c;
    let as_planned = ask(target);
    assert!(as_planned.remedies.is_empty(), "{:?}", as_planned.remedies);
    let bulk = |a: &Ahead| {
        a.remedies
            .iter()
            .find(|x| x.code == "same_dough")
            .map(|x| x.change.legs[0].hours)
    };
    let planned_h = r.formula.path()[0].hours;
    let (warm, cold) = (ask(target + 2.0), ask(target - 2.0));
    assert!(
        warm.fits(r.serve_at) && cold.fits(r.serve_at),
        "they still fit"
    );
    let (less, more) = (bulk(&warm).unwrap(), bulk(&cold).unwrap());
    assert!(less < planned_h - 0.2, "{less} of {planned_h}");
    assert!(more > planned_h + 0.2, "{more} of {planned_h}");
    // Nobody waits for it, and it comes out nearer to the plan than it would.
    for a in [&warm, &cold] {
        let x = a.remedies.iter().find(|x| x.code == "same_dough").unwrap();
        assert_eq!(x.change.serve_at, r.serve_at);
        let whole = |legs: &[crate::path::Leg]| legs.iter().map(|l| l.hours).sum::<f64>();
        assert!((whole(&x.change.legs) - whole(&r.formula.path())).abs() < 0.01);
        let mut taken = r.clone();
        taken.formula = taken
            .formula
            .clone()
            .on_path(x.change.legs.clone())
            .in_the_bowl(sheet.yeast.percent);
        taken.formula.target_dough_c = if a.mixed_at == warm.mixed_at && std::ptr::eq(a, &warm) {
            target + 2.0
        } else {
            target - 2.0
        };
        let then = work_out(&taken).unwrap().rise_at_serve;
        assert!(
            (then - sheet.rise_at_serve).abs() < (a.rise_at_serve - sheet.rise_at_serve).abs(),
            "{then} and {} for {}",
            a.rise_at_serve,
            sheet.rise_at_serve
        );
    }
}

#[test]
fn nothing_is_begun_that_would_not_be_over_when_they_sit_down() {
    let r = friday(crate::style::first());
    let sheet = work_out(&r).unwrap();
    let happened = Happened {
        readings: vec![Reading {
            at: r.serve_at - hours(5.0),
            measured: Measured::Room { c: 38.0 },
        }],
        ..happened_until(&sheet, r.total_h() - 0.3)
    };
    let at = |before_h: f64| {
        from_now(&AheadRequest {
            request: &r,
            planned: &sheet,
            happened: &happened,
            now: r.serve_at - hours(before_h),
            places: &[],
            doubts: Doubts::default(),
        })
        .unwrap()
    };
    assert!(!at(4.0).remedies.is_empty(), "a van at 38° has remedies");
    let cooler = at(4.0)
        .remedies
        .into_iter()
        .find(|x| x.code == "cooler_place")
        .expect("a cooler place helps in a van at 38°");
    // Cooler than where it lies is the room that was planned, not four degrees under the van.
    assert_eq!(cooler.say.number("c"), Some(r.room_c));
    assert!(at(0.2).remedies.iter().all(|x| x.code == "other_serve"));
}

#[test]
fn a_fridge_that_was_read_is_doubted_from_its_reading_and_asks_for_no_thermometer() {
    let r = friday(crate::style::first());
    let sheet = work_out(&r).unwrap();
    let cold_h = r.formula.path()[0].hours + 4.0;
    let ask = |read: Option<f64>| {
        let mut happened = happened_until(&sheet, cold_h);
        happened.readings.extend(read.map(|c| Reading {
            at: sheet.mixed_at + hours(cold_h - 1.0),
            measured: Measured::Fridge { c },
        }));
        let ahead = from_now(&AheadRequest {
            request: &r,
            planned: &sheet,
            happened: &happened,
            now: sheet.mixed_at + hours(cold_h),
            places: &[],
            doubts: Doubts::default(),
        })
        .unwrap();
        ahead.sure.unwrap()
    };
    let (planned, read) = (ask(None), ask(Some(7.5)));
    assert_eq!(
        (planned.fridge.c, planned.fridge.was_read),
        (r.fridge_c, false)
    );
    assert_eq!((read.fridge.c, read.fridge.was_read), (7.5, true));
    assert!(read.fridge.off_k < planned.fridge.off_k);
    let doubt = |s: &Sure| {
        let notes = s.notes(false);
        notes.into_iter().find(|n| n.code == "fridge_doubt")
    };
    assert!(
        doubt(&planned).is_some_and(|n| n.todo.is_some_and(|t| t.code == "fridge-doubt-measure"))
    );
    let n = doubt(&read).unwrap();
    assert!(n.what.number("c") == Some(8.0), "{n:?}");
    assert!(n.todo.is_none() && n.why.number("c") == Some(7.5), "{n:?}");
}
