mod own;

use super::*;
use crate::flour::FlourPart;
use crate::formula::Ingredient;
use crate::formula::Scales;
use crate::formula::{Dose, Pieces, Preferment, PrefermentKind};
use crate::mix::Mixer;
use crate::refusal::ValidationError;
use crate::rise::{DoughShape, Event};
use crate::style;
use crate::style::Style;
use jiff::Timestamp;
use proptest::prelude::*;

fn style(key: &str) -> &'static Style {
    style::by_key(key).unwrap()
}

fn kitchen() -> KitchenUsual {
    KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 180.0,
        room_c: 20.0,
        fridge_c: 5.0,
        tap_water_c: 11.0,
        scales: Scales::default(),
    }
}

fn at(text: &str) -> Timestamp {
    text.parse().unwrap()
}

/// Six balls for Friday 19:00 (in winter, so London is UTC).
pub(super) fn friday(style: &Style) -> SheetRequest {
    SheetRequest::of_style(style, &kitchen(), at("2026-11-27T19:00:00Z"))
}

#[test]
fn each_style_as_it_starts_is_ready_at_its_serve_time() {
    for style in style::all() {
        let r = friday(style);
        let out = work_out(&r).unwrap();
        assert!(out.fits(r.serve_at), "{} {:?}", style.key, out.window);
        assert!(
            (out.rise_at_serve - 100.0).abs()
                < if r.formula.yeast.dose == Dose::Solve {
                    1.0
                } else {
                    15.0
                },
            "{} {}",
            style.key,
            out.rise_at_serve
        );
        assert!(
            out.notes.iter().all(|n| n.level != crate::note::Level::Act),
            "{} {:#?}",
            style.key,
            out.notes
        );
        let f = &out.formula;
        let dose = 100.0 * f.exact_in(Ingredient::Yeast, f.last()) / f.exact_g(Ingredient::Flour);
        assert!((dose - out.yeast.percent).abs() < 1e-9);
    }
}

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
fn the_steps_say_the_same_grams_as_the_sheet() {
    for style in style::all() {
        let out = work_out(&friday(style)).unwrap();
        let weigh = |i| out.formula.weigh_in(i, out.formula.last());
        let said = format!(
            "weight={}g, what=flour); water-at(c={}°C, weight={}g)",
            weigh(Ingredient::Flour),
            out.water.pour_c.round(),
            weigh(Ingredient::Water)
        );
        let mix = out.steps.iter().find(|s| s.kind == StepKind::Mix).unwrap();
        let how = mix.detail.brief();
        assert!(how.contains(&said), "{said} in {how}");
    }
}

#[test]
fn a_tray_is_folded_panned_and_modelled_as_a_slab() {
    let r = friday(style("wet_tray"));
    let kinds: Vec<_> = work_out(&r).unwrap().steps.iter().map(|s| s.kind).collect();
    assert_eq!(kinds.iter().filter(|k| **k == StepKind::Fold).count(), 2);
    assert!(kinds.contains(&StepKind::Pan) && !kinds.contains(&StepKind::Ball));
    let stages = stages::stages(&r, &work_out(&r).unwrap().formula);
    let last = stages.last().unwrap();
    assert_eq!((last.shape, last.event), (DoughShape::Slab, Event::Pan));
    let total: f64 = stages.iter().map(|s| s.hours).sum();
    assert!((total - r.total_h()).abs() < 1e-9);
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

fn refusal(r: &SheetRequest) -> (String, String) {
    let ValidationError(mut errors) = work_out(r).unwrap_err();
    let e = errors.remove(0);
    (e.field, e.message.brief())
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
fn a_weak_flour_is_named_with_one_that_lasts() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.flours = vec![FlourPart::only(180.0)];
        r.formula.bulk_h = 16.0;
        r.formula.cold_h = 0.0;
        r.formula.temper_h = 8.0;
    });
    let out = work_out(&r).unwrap();
    let note = out
        .notes
        .iter()
        .find(|n| n.code == "flour_too_weak")
        .expect("a note on the flour");
    let strong = r.with(|r| {
        r.formula.flours = vec![FlourPart::only(note.remedy.as_ref().unwrap().value)];
    });
    let out = work_out(&strong).unwrap();
    assert!(out.reserve_at_serve >= 14.0, "{}", out.reserve_at_serve);
    assert!(out.notes.iter().any(|n| n.code == "flour_lasts"));
}

#[test]
fn sugar_under_a_hot_dome_is_watched_and_taken_back_by_one_tap() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.sugar_percent = 2.0;
    });
    let out = work_out(&r).unwrap();
    let remedy = out
        .notes
        .iter()
        .find(|n| n.code == "sugar_unusual")
        .unwrap()
        .remedy
        .clone()
        .unwrap();
    assert_eq!(
        (remedy.field.as_str(), remedy.value),
        ("sugar_percent", 0.0)
    );
}

#[test]
fn nonsense_names_every_field() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.hydration_percent = 340.0;
        r.formula.salt_percent = -1.0;
        r.formula.bulk_h = f64::NAN;
    });
    let ValidationError(errors) = work_out(&r).unwrap_err();
    let fields: Vec<_> = errors.iter().map(|e| e.field.as_str()).collect();
    assert_eq!(
        fields,
        [
            "formula.hydration_percent",
            "formula.salt_percent",
            "formula.bulk_h"
        ]
    );
    let r = friday(style("hot_round")).with(|r| {
        r.time_zone = "Nowhere/Else".into();
    });
    assert_eq!(refusal(&r).0, "time_zone");
}

#[test]
fn the_same_request_gives_the_same_bytes() {
    let r = friday(style("home_round"));
    let json = || serde_json::to_string(&work_out(&r).unwrap()).unwrap();
    assert_eq!(json(), json());
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    // From eight cold hours on: the first ones cool the balls, which then ferment less while they temper.
    #[test]
    fn longer_cold_never_takes_more_yeast(cold in 8.0..60.0f64, more in 1.0..24.0f64, room in 16.0..28.0f64) {
        let r = friday(style("hot_round")).with(|r| { r.formula.cold_h = cold; r.room_c = room; });
        let longer = r.clone().with(|r| { r.formula.cold_h = cold + more; });
        if let (Ok(a), Ok(b)) = (work_out(&r), work_out(&longer)) {
            prop_assert!(b.yeast.percent <= a.yeast.percent * 1.002, "{} then {}", a.yeast.percent, b.yeast.percent);
        }
    }

    #[test]
    fn longer_in_the_room_never_takes_more_yeast(temper in 2.0..8.0f64, more in 0.5..4.0f64, room in 16.0..28.0f64) {
        let r = friday(style("hot_round")).with(|r| { r.formula.cold_h = 0.0; r.formula.temper_h = temper; r.room_c = room; });
        let longer = r.clone().with(|r| { r.formula.temper_h = temper + more; });
        if let (Ok(a), Ok(b)) = (work_out(&r), work_out(&longer)) {
            prop_assert!(b.yeast.percent <= a.yeast.percent * 1.002, "{} then {}", a.yeast.percent, b.yeast.percent);
        }
    }

    #[test]
    fn any_sheet_is_refused_or_holds_together(
        water in 30.0..140.0f64, salt in -1.0..6.0f64, w in 60.0..470.0f64, room in -5.0..45.0f64,
        bulk in 0.0..20.0f64, cold in 0.0..100.0f64, temper in 0.0..12.0f64, style in 0usize..15,
    ) {
        let r = friday(&style::all()[style]).with(|r| { r.formula.hydration_percent = water; r.formula.salt_percent = salt; r.formula.flours = vec![FlourPart::only(w)]; r.room_c = room; r.flour_c = room; r.formula.bulk_h = bulk; r.formula.cold_h = cold; r.formula.temper_h = temper; });
        if let Ok(out) = work_out(&r) {
            prop_assert!(out.steps.windows(2).all(|s| s[0].at <= s[1].at));
            prop_assert_eq!(out.steps.last().unwrap().at, r.serve_at);
            prop_assert!(out.clocks.windows(2).all(|p| p[0].hours < p[1].hours));
            prop_assert!(out.clocks.iter().all(|p| p.rise.is_finite() && p.reserve.is_finite()));
            let exact: f64 = out.formula.rows.iter().map(|r| r.exact_g).sum();
            prop_assert!((exact - out.formula.dough_g).abs() < 1e-6 * exact);
        }
    }
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

fn codes(r: &SheetRequest) -> Vec<String> {
    work_out(r)
        .unwrap()
        .notes
        .into_iter()
        .map(|n| n.code)
        .collect()
}

#[test]
fn what_is_unusual_for_the_style_is_said_with_its_remedy() {
    let hot = friday(style("hot_round"));
    assert!(
        codes(&hot.clone().with(|r| {
            r.formula.oil_percent = 3.0;
        }))
        .contains(&"oil_unusual".into())
    );
    assert!(
        codes(&hot.clone().with(|r| {
            r.formula.hydration_percent = 55.0;
        }))
        .contains(&"water_unusual".into())
    );
    assert!(
        codes(&hot.clone().with(|r| {
            r.formula.salt_percent = 1.0;
        }))
        .contains(&"salt_outside_usual".into())
    );
    let wet = hot.clone().with(|r| {
        r.formula.hydration_percent = 75.0;
        r.formula.flours = vec![FlourPart::only(240.0)];
    });
    let out = work_out(&wet).unwrap();
    let note = out
        .notes
        .iter()
        .find(|n| n.code == "wetter_than_flour")
        .unwrap();
    assert_eq!(
        note.remedy.as_ref().unwrap().value,
        66.0,
        "64 + 0.06 × (240 − 200)"
    );
    // A home round wants what a hot one must not have.
    let home = friday(style("home_round"));
    assert!(
        codes(&home.with(|r| {
            r.formula.sugar_percent = 0.0;
        }))
        .contains(&"sugar_unusual".into())
    );
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
fn a_large_bulk_runs_ahead_in_the_middle() {
    let r = friday(style("wet_tray")).with(|r| {
        r.formula.pieces = Pieces::trays(24, 40.0, 30.0, 0.65);
    });
    assert!(codes(&r).contains(&"warm_core".into()));
    assert!(!codes(&friday(style("wet_tray"))).contains(&"warm_core".into()));
}

#[test]
fn water_notes_reach_the_sheet() {
    let hot_day = friday(style("hot_round")).with(|r| {
        r.room_c = 33.0;
        r.flour_c = 34.0;
        r.tap_water_c = 24.0;
        r.formula.mixer = Mixer::Spiral;
        r.formula.target_dough_c = 21.0;
    });
    let out = work_out(&hot_day).unwrap();
    assert!(out.water.ice_g > 0.0);
    assert!(out.notes.iter().any(|n| n.code == "ice"));
    let how = out.steps[0].detail.brief();
    assert!(how.contains("water-and-ice"), "{how}");
    let cold_day = friday(style("hot_round")).with(|r| {
        r.room_c = 4.0;
        r.flour_c = 0.0;
        r.formula.target_dough_c = 27.0;
    });
    let out = work_out(&cold_day).unwrap();
    assert_eq!(out.notes[0].code, "water_too_hot");
    assert!(
        out.water.dough_c < 27.0 && (out.clocks[0].dough_c - out.water.dough_c).abs() < 0.5,
        "the clocks start from what the bowl gives"
    );
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
fn a_heavy_dough_is_split_into_tubs_that_one_person_lifts() {
    let r = friday(style("hot_round")).with(|r| {
        r.formula.pieces = Pieces::Balls {
            count: 200,
            ball_g: 260.0,
        };
    });
    let stages = stages::stages(&r, &work_out(&r).unwrap().formula);
    assert!((stages[0].piece_g - 52_780.0 / 3.0).abs() < 1e-6);
    let out = work_out(&r).unwrap();
    let tub = out.steps.iter().find(|s| s.kind == StepKind::Bulk).unwrap();
    assert_eq!(tub.detail.number("n"), Some(3.0));
}

#[test]
fn the_first_cold_hour_cools_the_balls_and_takes_a_little_more_yeast() {
    let warm = friday(style("hot_round")).with(|r| {
        r.formula.cold_h = 0.0;
        r.room_c = 16.0;
    });
    let cooled = warm.clone().with(|r| {
        r.formula.cold_h = 1.0;
    });
    let of = |r: &SheetRequest| work_out(r).unwrap().yeast.percent;
    assert!(of(&cooled) > of(&warm));
}

#[test]
fn a_poolish_is_mixed_before_and_a_second_dose_is_solved() {
    let r = friday(style("poolish_round"));
    let out = work_out(&r).unwrap();
    let p = &out.preferments[0];
    assert!(
        (p.ripe - 100.0).abs() < 1.0,
        "solved to be ripe: {}",
        p.ripe
    );
    assert_eq!(p.to_at, r.mix_at());
    assert_eq!(p.from_at, r.start_at());
    assert_eq!(out.steps[0].kind, StepKind::Preferment);
    assert_eq!(out.steps[0].at, p.from_at);
    assert_eq!(out.blocks[0].kind, BlockKind::Preferment);
    let yeast = out.formula.row(Ingredient::Yeast).unwrap();
    assert!(yeast.cells[0].is_some());
    // Its own dose on its own flour, weighed as a share of all flour.
    let own =
        out.formula.exact_in(Ingredient::Yeast, 0) / out.formula.exact_in(Ingredient::Flour, 0);
    assert!((100.0 * own - p.yeast_percent).abs() < 1e-9);
    assert!(out.fits(r.serve_at));
    // Without its poolish the dough wants more yeast.
    let plain = r.clone().with(|r| r.formula.preferments.clear());
    assert!(work_out(&plain).unwrap().yeast.percent > out.yeast.percent);
}

#[test]
fn a_levain_alone_raises_and_a_young_one_is_said_with_its_hours() {
    let r = friday(style("levain_round"));
    let out = work_out(&r).unwrap();
    assert_eq!(out.yeast.percent, 0.0);
    assert!(out.formula.row(Ingredient::Yeast).is_none());
    assert!(out.steps[0].title.brief() == "step-feed(name=levain)");
    let young = r.clone().with(|r| r.formula.preferments[0].warm_h = 1.5);
    let note = work_out(&young)
        .unwrap()
        .notes
        .into_iter()
        .find(|n| n.code == "preferment_ripeness")
        .expect("a young levain is said");
    let better = note.remedy.expect("with hours that do");
    let ripe = young.with(|r| r.formula.preferments[0].warm_h = better.value);
    assert!(
        work_out(&ripe)
            .unwrap()
            .notes
            .iter()
            .all(|n| n.code != "preferment_ripeness")
    );
}

#[test]
fn a_dose_may_be_given_and_nothing_at_all_is_refused() {
    let solved = work_out(&friday(style("hot_round"))).unwrap().yeast.percent;
    let given = friday(style("hot_round")).with(|r| {
        r.formula.yeast.dose = Dose::Given {
            percent: 2.0 * solved,
        }
    });
    let out = work_out(&given).unwrap();
    assert_eq!(out.yeast.percent, 2.0 * solved);
    assert!(out.rise_at_serve > 105.0, "{}", out.rise_at_serve);
    let none = friday(style("hot_round")).with(|r| r.formula.yeast.dose = Dose::None);
    assert_eq!(refusal(&none).0, "formula.yeast_percent");
}

#[test]
fn a_preferment_that_cannot_ripen_is_refused_at_its_hours() {
    let r = friday(style("poolish_round")).with(|r| {
        r.formula.preferments[0].warm_h = 0.5;
        r.formula.preferments[0].warm_c = Some(4.0);
    });
    let (field, message) = refusal(&r);
    assert_eq!(field, "formula.preferments[0].warm_h");
    assert!(
        message.starts_with("no-yeast-ripens(name=poolish"),
        "{message}"
    );
}

#[test]
fn a_biga_of_all_the_flour_leaves_its_water_to_pour_and_three_preferments_go_together() {
    let r = friday(style("big_rim")).with(|r| {
        r.formula.preferments = [
            (PrefermentKind::Biga, 40.0),
            (PrefermentKind::Poolish, 20.0),
            (PrefermentKind::Levain, 10.0),
        ]
        .map(|(k, share)| Preferment {
            flour_percent: share,
            ..Preferment::usual(k)
        })
        .to_vec();
    });
    let out = work_out(&r).unwrap();
    assert_eq!(out.formula.columns.len(), 4);
    assert_eq!(
        out.steps
            .iter()
            .filter(|s| s.kind == StepKind::Preferment)
            .count(),
        3
    );
    let whole = r.with(|r| {
        r.formula.preferments = vec![Preferment {
            flour_percent: 100.0,
            hydration_percent: 60.0,
            ..Preferment::usual(PrefermentKind::Biga)
        }];
    });
    let out = work_out(&whole).unwrap();
    assert_eq!(out.formula.exact_in(Ingredient::Flour, 1), 0.0);
    assert!(out.formula.exact_in(Ingredient::Water, 1) > 0.0);
}

#[test]
fn a_strong_flour_in_a_short_dough_is_tight() {
    let r =
        friday(style("same_day_round")).with(|r| r.formula.flours = vec![FlourPart::only(400.0)]);
    assert!(codes(&r).contains(&"flour_too_strong".into()));
    assert!(!codes(&friday(style("same_day_round"))).contains(&"flour_too_strong".into()));
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

#[test]
fn what_a_preferment_is_poured_is_its_water_in_the_table() {
    use crate::formula::Ingredient;
    for (style, count) in [("poolish_round", 40), ("big_rim", 6), ("poolish_round", 4)] {
        let mut r = friday(style::by_key(style).unwrap());
        r.formula = r.formula.scaled_to(count).unwrap();
        let s = work_out(&r).unwrap();
        for (i, p) in s.preferments.iter().enumerate() {
            let w = p.water.as_ref().unwrap();
            let aside = s.formula.columns[i]
                .dilution
                .map_or(0.0, |d| d.less_water_g);
            let of_table = s.formula.weigh_in(Ingredient::Water, i);
            let poured = w.pour_g + w.ice_g + aside;
            assert!(
                (poured - of_table).abs() <= 0.5,
                "{style} {count}: {poured} for {of_table}"
            );
        }
    }
}

#[test]
fn a_preferment_that_is_past_says_of_what() {
    let why = |c: f64| {
        let mut r = friday(style::by_key("poolish_round").unwrap());
        (r.room_c, r.flour_c) = (c, c);
        let s = work_out(&r).unwrap();
        let note = s
            .notes
            .iter()
            .find(|n| n.code == "preferment_ripeness")
            .cloned();
        note.map(|n| (n.what, n.why))
    };
    assert_eq!(why(20.0), None);
    let (what, why) = why(31.0).unwrap();
    assert_eq!(what.code, "preferment-past");
    // At 100 of 100 its clock is no reason.
    assert_eq!(why.brief(), "preferment-gluten-spent(time=43200s)");
}

#[test]
fn a_kitchen_is_refused_what_no_kitchen_is_by_the_ranges_of_its_sheets() {
    let usual = crate::sheet::KitchenUsual {
        time_zone: "Europe/Nowhere".into(),
        altitude_m: 9000.0,
        room_c: 43.0,
        fridge_c: 21.0,
        tap_water_c: 36.0,
        scales: Scales {
            kitchen_scale_g: 0.0,
            ..Scales::default()
        },
    };
    let refused: Vec<String> = usual
        .check()
        .unwrap_err()
        .0
        .into_iter()
        .map(|e| e.field)
        .collect();
    let all = [
        "time_zone",
        "altitude_m",
        "room_c",
        "fridge_c",
        "tap_water_c",
        "kitchen_scale_g",
    ];
    assert_eq!(refused, all);
}
