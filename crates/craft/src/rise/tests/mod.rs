use super::recipe::Recipe;
use super::request::tests::{ball, bulk, plain_dough};
use super::*;
use crate::note::Level;
use proptest::prelude::*;

fn at_bake(r: &RiseRequest) -> RisePoint {
    forecast(r, Temperatures::InsideTheDough).unwrap().at_bake
}

fn dose(r: &RiseRequest) -> Option<f64> {
    match solve_yeast(r, Temperatures::InsideTheDough).unwrap() {
        YeastAnswer::Found { yeast_percent, .. } => Some(yeast_percent),
        YeastAnswer::None { .. } => None,
    }
}

fn dough(hours: f64, place_c: f64) -> RiseRequest {
    RiseRequest {
        stages: vec![bulk(hours / 4.0, place_c), ball(hours * 0.75, place_c)],
        ..plain_dough()
    }
}

#[test]
fn the_solved_dose_is_ready_at_the_bake() {
    for hours in [4.0, 9.0, 24.0] {
        let r = dough(hours, 21.0);
        let yeast_percent = dose(&r).unwrap();
        let p = at_bake(&RiseRequest { yeast_percent, ..r });
        assert!(
            (p.ripeness_dose.min(p.ripeness_piece) - 1.0).abs() < 0.002,
            "{hours} h: {p:?}"
        );
    }
}

#[test]
fn both_answers_of_no_say_which_way_to_go() {
    let too_short = solve_yeast(&dough(1.0, 12.0), Temperatures::InsideTheDough).unwrap();
    let YeastAnswer::None { reason, notes, .. } = too_short else {
        panic!("{too_short:?}")
    };
    assert_eq!(reason, NoYeast::CannotReachEvenAtMax);
    assert_eq!(
        (notes[0].level, notes[0].todo.as_deref()),
        (Level::Act, Some("More hours or a warmer place."))
    );
    let leaven = RiseRequest {
        leaven_fraction: 0.3,
        ..dough(14.0, 26.0)
    };
    let too_much = solve_yeast(&leaven, Temperatures::InsideTheDough).unwrap();
    let YeastAnswer::None { reason, .. } = too_much else {
        panic!("{too_much:?}")
    };
    assert_eq!(reason, NoYeast::RipeWithoutAddedYeast);
}

#[test]
fn a_weak_flour_is_warned_of_and_has_no_window() {
    let r = RiseRequest {
        flour_w: 180.0,
        ..dough(24.0, 21.0)
    };
    let YeastAnswer::Found {
        warnings,
        notes,
        forecast,
        ..
    } = solve_yeast(&r, Temperatures::InsideTheDough).unwrap()
    else {
        panic!("a dose exists")
    };
    assert!(warnings.contains(&YeastWarning::FlourTooWeakForTheHours));
    assert!(notes.iter().any(|n| n.code == "flour_too_weak"));
    assert!(forecast.window.is_none() && forecast.notes[0].code == "no_window");
}

#[test]
fn every_forecast_carries_a_judgement() {
    for (hours, level) in [(3.0, Level::Watch), (9.5, Level::Holds), (23.0, Level::Act)] {
        let f = forecast(
            &RiseRequest {
                yeast_percent: 0.14,
                ..dough(hours, 22.0)
            },
            Temperatures::InsideTheDough,
        )
        .unwrap();
        assert_eq!(f.notes[0].level, level, "{hours} h: {:#?}", f.notes);
    }
}

#[test]
fn a_dough_as_warm_as_its_place_needs_no_heat_pass() {
    let r = RiseRequest {
        dough_c: 22.0,
        ..dough(8.0, 22.0)
    };
    let (inside, of_place) = (
        forecast(&r, Temperatures::InsideTheDough).unwrap(),
        forecast(&r, Temperatures::OfThePlace).unwrap(),
    );
    // What is left between them is the heat of fermentation: some tenths of a degree.
    assert!((inside.at_bake.mean_c - 22.0).abs() < 0.5);
    assert!((inside.at_bake.ripeness / of_place.at_bake.ripeness - 1.0).abs() < 0.03);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn free_gas_is_never_more_than_all_gas(held in 0.0..400.0f64, t in -5.0..46.0f64, water in 40.0..130.0f64, alt in -400.0..4500.0f64) {
        let r = Recipe::of(&RiseRequest { hydration_percent: water, altitude_m: alt, ..plain_dough() });
        let free = r.free_gas(held, t);
        prop_assert!((0.0..=held + 1e-9).contains(&free), "{free} of {held}");
        prop_assert!(r.volume(free, t) > 0.85);
    }

    #[test]
    fn a_warmer_room_never_rises_slower(place in 8.0..30.0f64, hours in 3.0..16.0f64) {
        let (cool, warm) = (at_bake(&dough(hours, place)), at_bake(&dough(hours, place + 2.0)));
        prop_assert!(warm.gas_made_mmol >= cool.gas_made_mmol);
        prop_assert!(warm.matured_h >= cool.matured_h);
    }

    #[test]
    fn more_salt_never_ferments_faster(salt in 0.0..4.5f64, hours in 3.0..16.0f64) {
        let of = |salt_percent| at_bake(&RiseRequest { salt_percent, ..dough(hours, 21.0) }).gas_made_mmol;
        prop_assert!(of(salt + 0.5) <= of(salt));
    }

    #[test]
    fn a_stronger_flour_never_has_less_reserve(w in 80.0..420.0f64, hours in 3.0..30.0f64) {
        let of = |flour_w| at_bake(&RiseRequest { flour_w, ..dough(hours, 21.0) });
        let (weak, strong) = (of(w), of(w + 30.0));
        prop_assert!(strong.reserve > weak.reserve);
        prop_assert!((strong.gas_made_mmol - weak.gas_made_mmol).abs() < 1e-9, "strength does not move the gas");
    }

    #[test]
    fn a_mountain_never_takes_more_yeast(alt in 0.0..3500.0f64, hours in 6.0..20.0f64) {
        let of = |altitude_m| dose(&RiseRequest { altitude_m, ..dough(hours, 21.0) });
        if let (Some(low), Some(high)) = (of(alt), of(alt + 500.0)) {
            prop_assert!(high < low, "{high} at {} m, {low} at {alt} m", alt + 500.0);
        }
    }

    #[test]
    fn any_dough_is_refused_or_stays_within_bounds(
        water in 30.0..140.0f64, salt in -0.5..5.5f64, sugar in -1.0..22.0f64, w in 60.0..470.0f64, yeast in 0.0..2.5f64,
        t0 in -2.0..42.0f64, place in -4.0..44.0f64, hours in 0.1..60.0f64, grams in 10.0..30_000.0f64,
    ) {
        let mut r = dough(hours, place);
        for s in &mut r.stages {
            s.piece_g = grams;
        }
        let r = RiseRequest { hydration_percent: water, salt_percent: salt, sugar_percent: sugar, flour_w: w, yeast_percent: yeast, dough_c: t0, ..r };
        if let Ok(f) = forecast(&r, Temperatures::InsideTheDough) {
            for p in f.points.iter().chain(&f.beyond) {
                prop_assert!(p.ripeness.is_finite() && p.ripeness >= 0.0);
                prop_assert!(p.free_sugar_mmol >= 0.0 && (0.0..=1.0).contains(&p.acid));
                prop_assert!(p.volume > 0.5 && p.volume < 12.0, "{}", p.volume);
                prop_assert!(p.core_c > -5.0 && p.core_c < 60.0);
            }
            if let Some(w) = f.window {
                prop_assert!(w.to_h.is_none_or(|to| to > w.from_h));
            }
        }
    }
}
