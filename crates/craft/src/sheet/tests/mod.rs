mod hours_of;
mod own;
mod preferments;

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

fn refusal(r: &SheetRequest) -> (String, String) {
    let ValidationError(mut errors) = work_out(r).unwrap_err();
    let e = errors.remove(0);
    (e.field, e.message.brief())
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
fn a_strong_flour_in_a_short_dough_is_tight() {
    let r =
        friday(style("same_day_round")).with(|r| r.formula.flours = vec![FlourPart::only(400.0)]);
    assert!(codes(&r).contains(&"flour_too_strong".into()));
    assert!(!codes(&friday(style("same_day_round"))).contains(&"flour_too_strong".into()));
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
