//! Water by the heat balance, and what stands at its limits.

use super::mixer::MOST_FRICTION_K;
use super::*;
use crate::keyed::Keyed;
use proptest::prelude::*;

fn summer() -> WaterRequest {
    WaterRequest {
        target_dough_c: 23.0,
        room_c: 21.0,
        flour_c: 20.0,
        tap_water_c: 14.0,
        flour_g: 1000.0,
        water_g: 620.0,
        aside_g: 0.0,
        aside_c: 0.0,
        salt_g: 20.0,
        oil_g: 0.0,
        sugar_g: 0.0,
        preferment_g: 0.0,
        preferment_c: 0.0,
        mixer: Mixer::Hand,
        mixing_min: 12.0,
    }
}

#[test]
fn a_hand_mixed_dough_worked_by_hand() {
    // Capacity 1.95 × 1000 + 0.9 × 20 + 4.18 × 620 = 4559.6 J/K; dry part 1968 J/K at 20 °C.
    // (23 − 1) × 4559.6 − 1968 × 20 = 60951.2; / 2591.6 = 23.52 °C.
    let w = water(&summer()).unwrap();
    assert!((w.needed_c - 23.5188).abs() < 1e-3, "{}", w.needed_c);
    assert!((w.base - 66.0).abs() < 1e-12);
    assert!((w.base_rule_c - 25.0).abs() < 1e-12);
    assert_eq!((w.ice_g, w.reached), (0.0, true));
}

#[test]
fn ice_closes_the_balance_in_a_hot_kitchen() {
    let r = WaterRequest {
        flour_c: 36.0,
        room_c: 36.0,
        tap_water_c: 22.0,
        mixer: Mixer::Spiral,
        mixing_min: 10.0,
        ..summer()
    };
    let w = water(&r).unwrap();
    assert!(w.needed_c < COLDEST_WATER_C && w.ice_g > 0.0);
    assert!((r.plain_response().dough_with(w.pour_c, w.ice_g) - 23.0).abs() < 1e-9);
    assert!((w.pour_g + w.ice_g - 620.0).abs() < 1e-9);
    assert_eq!(w.notes[0].code, "ice");
}

#[test]
fn more_ice_than_melts_is_refused_with_a_way_out() {
    let r = WaterRequest {
        target_dough_c: 8.0,
        flour_c: 42.0,
        room_c: 38.0,
        tap_water_c: 28.0,
        mixer: Mixer::FoodProcessor,
        mixing_min: 3.0,
        ..summer()
    };
    let w = water(&r).unwrap();
    assert!(!w.reached && w.dough_c > 8.0);
    assert_eq!(w.notes[0].code, "too_warm_for_ice");
    assert!(w.notes[0].todo.is_some());
}

#[test]
fn hot_water_is_refused_and_the_named_flour_temperature_works() {
    let cold = WaterRequest {
        target_dough_c: 26.0,
        flour_c: 2.0,
        room_c: 8.0,
        ..summer()
    };
    let w = water(&cold).unwrap();
    assert_eq!((w.pour_c, w.reached), (HOTTEST_WATER_C, false));
    assert_eq!(w.notes[0].code, "water_too_hot");
    let missing = (26.0 - w.dough_c) * cold.capacity();
    let warmed = WaterRequest {
        flour_c: 2.0 + missing / cold.dry_capacity(),
        ..cold
    };
    assert!((water(&warmed).unwrap().needed_c - HOTTEST_WATER_C).abs() < 1e-9);
}

#[test]
fn water_colder_than_the_tap_names_the_ice_that_makes_it() {
    let r = WaterRequest {
        tap_water_c: 28.0,
        flour_c: 26.0,
        room_c: 27.0,
        ..summer()
    };
    let w = water(&r).unwrap();
    assert!((COLDEST_WATER_C..28.0).contains(&w.needed_c) && w.ice_g == 0.0);
    assert_eq!(w.notes[0].code, "colder_than_tap");
    // The ice named in the note closes the same balance with tap water.
    let todo = w.notes[0].todo.as_ref().unwrap();
    let ice = todo.number("ice").unwrap();
    assert!(
        (r.plain_response().dough_with(28.0, ice) - 23.0).abs() < 0.1,
        "{ice}"
    );
}

#[test]
fn a_warm_dough_is_watched() {
    let w = water(&WaterRequest {
        target_dough_c: 29.0,
        flour_c: 24.0,
        ..summer()
    })
    .unwrap();
    assert!(w.notes.iter().any(|n| n.code == "dough_warm"));
}

#[test]
fn every_way_of_mixing_has_a_key_that_leads_back() {
    for &m in Mixer::ALL {
        assert_eq!(Mixer::from_key(m.key()), Some(m));
        assert!(m.friction_k(m.usual_min()) <= MOST_FRICTION_K);
    }
    assert_eq!(Mixer::from_key("spoon"), None);
}

#[test]
fn friction_is_capped() {
    assert_eq!(Mixer::FoodProcessor.friction_k(60.0), 12.0);
    assert_eq!(Mixer::Hand.friction_k(60.0), 1.0);
}

#[test]
fn water_that_holds_the_yeast_counts_at_its_own_temperature() {
    let all = summer();
    let aside = WaterRequest {
        aside_g: 150.0,
        aside_c: 20.0,
        ..all
    };
    let (a, b) = (water(&all).unwrap(), water(&aside).unwrap());
    assert!((b.pour_g - 470.0).abs() < 1e-9);
    // 150 g at 20 °C and the rest a little warmer bring the same heat.
    let mixed = (150.0 * 20.0 + 470.0 * b.pour_c) / 620.0;
    assert!((mixed - a.pour_c).abs() < 1e-9 && b.pour_c > a.pour_c);
}

proptest! {
    #[test]
    fn what_is_poured_gives_the_dough_that_is_said(
        target in 5.0..35.0f64, room in -2.0..42.0f64, flour in -20.0..45.0f64, tap in 0.0..35.0f64,
        flour_g in 100.0..50_000.0f64, water_share in 0.4..1.3f64, min in 0.0..30.0f64, m in 0usize..5,
    ) {
        let r = WaterRequest { target_dough_c: target, room_c: room, flour_c: flour, tap_water_c: tap,
            flour_g, water_g: flour_g * water_share, mixer: Mixer::ALL[m], mixing_min: min, ..summer() };
        let w = water(&r).unwrap();
        prop_assert!((r.plain_response().dough_with(w.pour_c, w.ice_g) - w.dough_c).abs() < 1e-6);
        prop_assert!(w.reached == ((w.dough_c - target).abs() < 1e-6));
        prop_assert!((COLDEST_WATER_C - 1e-9..=HOTTEST_WATER_C + 1e-9).contains(&w.pour_c));
        prop_assert!(w.ice_g >= 0.0 && w.ice_g <= 0.6 * r.water_g + 1e-9);
    }

    #[test]
    fn a_warmer_target_never_asks_for_colder_water(target in 5.0..34.0f64, flour in 0.0..40.0f64) {
        let r = WaterRequest { target_dough_c: target, flour_c: flour, ..summer() };
        let warmer = WaterRequest { target_dough_c: target + 1.0, ..r };
        prop_assert!(water(&warmer).unwrap().needed_c > water(&r).unwrap().needed_c);
    }
}
