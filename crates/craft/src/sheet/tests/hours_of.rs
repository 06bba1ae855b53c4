//! The hours of a plan: steps backward from the serve time, windows, clocks, and serve times that cannot be.

use super::*;

#[test]
fn the_steps_run_backward_from_the_serve_time() {
    let out = work_out(&friday(style("hot_round"))).unwrap();
    let steps: Vec<_> = out
        .steps
        .iter()
        .map(|s| (s.kind, s.at.to_string()))
        .collect();
    let want = [
        (StepKind::Mix, "2026-11-26T12:15:00Z"),
        (StepKind::Rest, "2026-11-26T13:00:00Z"),
        (StepKind::Bulk, "2026-11-26T13:20:00Z"),
        (StepKind::Ball, "2026-11-26T15:00:00Z"),
        (StepKind::Temper, "2026-11-27T15:00:00Z"),
        (StepKind::LightOven, "2026-11-27T17:30:00Z"),
        (StepKind::Bake, "2026-11-27T19:00:00Z"),
    ];
    assert_eq!(steps, want.map(|(k, t)| (k, t.to_string())));
}

#[test]
fn clock_times_follow_the_zone_across_the_change_of_summer_time() {
    // Served on the Sunday on which London's clocks go back: 26 h before 19:00 GMT is 18:00 BST.
    let r = SheetRequest::of_style(style("hot_round"), &kitchen(), at("2026-10-25T19:00:00Z"))
        .with(|r| {
            r.formula.bulk_h = 2.0;
            r.formula.cold_h = 20.0;
            r.formula.temper_h = 4.0;
        });
    let zone = r.zone().unwrap();
    let mixed = work_out(&r).unwrap().mixed_at.to_zoned(zone);
    assert_eq!(mixed.strftime("%H:%M %Z").to_string(), "18:00 BST");
}

#[test]
fn a_serve_time_in_the_past_or_too_near_says_what_would_do() {
    let r = friday(style("hot_round"));
    let past = r.clone().with(|r| {
        r.now_at = Some(at("2026-11-27T20:00:00Z"));
    });
    assert_eq!(
        refusal(&past),
        (
            "serve_at".into(),
            "serve-past(now=2026-11-27T20:00:00Z, serve=2026-11-27T19:00:00Z)".into()
        )
    );
    let late = r.clone().with(|r| {
        r.now_at = Some(at("2026-11-27T07:00:00Z"));
    });
    let (field, message) = refusal(&late);
    assert_eq!(field, "serve_at");
    assert!(
        message.starts_with("begun-before(began=2026-11-26T12:15:00Z, from=2026-11-28T13:45:00Z"),
        "{message}"
    );
    // Eleven hours and a quarter in all.
    assert!(message.contains("time=40500s"), "{message}");
    let near = r.with(|r| {
        r.now_at = Some(at("2026-11-27T18:00:00Z"));
    });
    let (field, message) = refusal(&near);
    assert_eq!(field, "serve_at");
    assert!(message.starts_with("too-near("), "{message}");
}

#[test]
fn the_hours_that_are_offered_instead_do_work() {
    let r = friday(style("hot_round")).with(|r| {
        r.now_at = Some(at("2026-11-27T07:00:00Z"));
    });
    let shorter = r.with(|r| {
        r.formula.bulk_h = 2.0;
        r.formula.cold_h = 0.0;
        r.formula.temper_h = 9.0;
    });
    let out = work_out(&shorter).unwrap();
    assert!(out.fits(shorter.serve_at));
}

#[test]
fn two_points_of_the_clocks_never_stand_at_one_hour() {
    // Two sides of a jump fell into one thousandth of an hour.
    let r = friday(&style::all()[0]).with(|r| {
        r.formula.hydration_percent = 83.65197901737389;
        r.formula.salt_percent = 2.8421419606625378;
        r.formula.flours = vec![FlourPart::only(401.8212067499036)];
        r.room_c = 36.54133249182536;
        r.flour_c = 36.54133249182536;
        r.formula.bulk_h = 12.884681957584293;
        r.formula.cold_h = 44.514448721400065;
        r.formula.temper_h = 9.333335154321977;
    });
    let out = work_out(&r).unwrap();
    assert!(out.clocks.len() > 50);
    assert!(out.clocks.windows(2).all(|p| p[0].hours < p[1].hours));
}

#[test]
fn a_step_in_the_night_is_named() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.cold_h = 34.0;
    });
    let out = work_out(&r).unwrap();
    let note = out
        .notes
        .iter()
        .find(|n| n.code == "step_at_night")
        .unwrap();
    assert_eq!(
        note.what.brief(),
        "step-away(at=2026-11-26T02:15:00Z, more=and-more(n=1), step=step-mix)"
    );
    assert_eq!(note.why.code, "away-night");
    // A kitchen with hours of its own: those rule, and the night in the book says nothing.
    let life = |quiet: &str, busy: &str| crate::sheet::life::Life {
        quiet: crate::sheet::life::spans(quiet).unwrap(),
        busy: crate::sheet::life::spans(busy).unwrap(),
    };
    let own = r.clone().with(|r| r.life = life("", "Mon-Fri 09:00-17:00"));
    let said = work_out(&own).unwrap().notes;
    let busy = said.iter().find(|n| n.code == "step_at_night");
    let why = busy.map(|n| n.why.brief());
    assert_eq!(why, Some("away-busy(span=Mon-Fri 09:00-17:00)".to_string()));
    let never = r.with(|r| r.life = life("Sun 03:00-04:00", ""));
    let said = work_out(&never).unwrap().notes;
    assert!(said.iter().all(|n| n.code != "step_at_night"));
    assert!(!codes(&friday(style("hot_round"))).contains(&"step_at_night".into()));
}

#[test]
fn a_short_time_after_balling_is_said_to_be_too_short_to_relax() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.flours = vec![FlourPart::only(420.0)];
        r.formula.bulk_h = 6.0;
        r.formula.cold_h = 0.0;
        r.formula.temper_h = 0.75;
    });
    let out = work_out(&r).unwrap();
    let note = &out.notes[0];
    assert_eq!(
        (note.level, note.code.as_str()),
        (crate::note::Level::Act, "too_short_to_relax")
    );
    // Shorter still, the gas since balling cannot come either: then it is said at the hours.
    let (field, message) = refusal(&r.with(|r| {
        r.formula.temper_h = 0.5;
    }));
    assert_eq!(field, "formula.temper_h");
    assert!(message.starts_with("no-yeast-makes-ready("), "{message}");
}

#[test]
fn the_clocks_are_read_between_their_points() {
    let out = work_out(&friday(style("hot_round"))).unwrap();
    let serve = out.clocks_at(at("2026-11-27T19:00:00Z")).unwrap();
    assert!((serve.rise - out.rise_at_serve).abs() < 0.1);
    let mut last = -1.0;
    for minute in 0..60 * 30 {
        let p = out
            .clocks_at(out.mixed_at + hours(f64::from(minute) / 60.0))
            .unwrap();
        assert!(p.reserve <= 100.0 && p.hours > last);
        last = p.hours;
    }
    assert!(out.clocks_at(out.mixed_at - hours(1.0)).is_none());
    assert!(out.clocks_at(out.mixed_at + hours(1000.0)).is_none());
}

#[test]
fn a_fridge_of_fourteen_degrees_is_no_fridge_and_says_when_the_dough_would_be_over() {
    let e = work_out(&friday(style::first()).with(|r| r.fridge_c = 14.0)).unwrap_err();
    assert_eq!(e.0[0].field, "fridge_c");
    let m = &e.0[0].message;
    assert!(
        m.code == "no-fridge" && m.brief().contains("over=over-by(at="),
        "{m:?}"
    );
    // Where nothing lies in it, its warmth is nobody's business.
    let same_day = friday(style::first()).with(|r| {
        r.fridge_c = 14.0;
        r.formula.cold_h = 0.0;
    });
    assert!(work_out(&same_day).is_ok());
}

#[test]
fn a_band_surrounds_the_moment_of_readiness_and_asks_for_the_fridge() {
    let r = friday(style::first()).with(|r| r.formula.cold_h = 44.0);
    let doubts = crate::rise::Doubts::default();
    let (out, sure) =
        work_out_surely(&r, &doubts, &crate::rise::PrefermentRuns::default()).unwrap();
    let sure = sure.unwrap();
    let from = out.window.unwrap().from_at;
    assert!((sure.ready.at.duration_since(from)).as_secs().abs() < 600);
    assert!(sure.ready.early_at < sure.ready.at && sure.ready.at < sure.ready.late_at);
    let notes = sure.notes(false);
    assert_eq!(notes[0].code, "fridge_doubt");
    assert!(notes[0].todo.as_ref().unwrap().code == "fridge-doubt-measure");
    assert!(notes[1].what.code == "spread");
}

#[test]
fn steps_of_a_changed_plan_keep_their_numbers() {
    let before = work_out(&friday(style::by_key("wet_tray").unwrap()))
        .unwrap()
        .steps;
    let mut after = work_out(&friday(style::by_key("wet_tray").unwrap()).with(|r| {
        r.formula.bulk_h = 1.0;
        r.formula.cold_h = 30.0;
    }))
    .unwrap()
    .steps;
    carry_numbers(&before, &mut after);
    let mut seen: Vec<u16> = Vec::new();
    for s in &after {
        assert!(!seen.contains(&s.number), "{} twice", s.number);
        seen.push(s.number);
    }
    for kind in [StepKind::Mix, StepKind::Cold, StepKind::Pan, StepKind::Bake] {
        let number = |list: &[PlannedStep]| list.iter().find(|s| s.kind == kind).unwrap().number;
        assert_eq!(number(&before), number(&after), "{kind:?}");
    }
}
