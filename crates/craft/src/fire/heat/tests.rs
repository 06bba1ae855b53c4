use super::cells::{Cells, Fineness};
use super::column::HeatColumn;
use super::slab::{Side, Slab};
use super::surround::{Sky, Surround};
use crate::fire::material::Material;
use crate::fire::setup::{Aim, Back, BakeRequest, OvenNow, Piece};

/// A dough of room temperature on a floor so mild that nothing boils.
fn mild(floor: Material, floor_c: f64) -> BakeRequest {
    BakeRequest {
        aim: Aim::Hot,
        piece: Piece {
            ball_g: 600.0,
            disc_mm: 250.0,
            rim_mm: 20.0,
            rim_share: 0.3,
            hydration_percent: 62.0,
            salt_percent: 2.5,
            sugar_percent: 0.0,
            malt_percent: 0.0,
            oil_percent: 0.0,
            milk_percent: 0.0,
            maturity: 1.0,
            cold: true,
            dough_c: 10.0,
            sauce_g: 0.0,
            cheese_g: 0.0,
        },
        oven: OvenNow {
            floor,
            floor_mm: 60.0,
            floor_c,
            core_c: None,
            dome_c: 100.0,
            air_c: Some(20.0),
            view: 0.3,
            air_w_m2k: 3.0,
            grill_w_m2: 0.0,
            back: Back::Mass,
            back_w_m2: 0.0,
            back_c: None,
            side: 0.0,
            door_drop_k: 0.0,
            door_s: 90.0,
            floor_factor: 1.0,
            top_factor: 1.0,
        },
        pan: None,
        turns_s: vec![],
        quarter_turns_s: vec![],
        lift_s: None,
        cheese_at_s: 0.0,
        altitude_m: 0.0,
        until_s: 60.0,
    }
}

#[test]
fn two_thick_bodies_meet_at_their_contact_temperature() {
    // Between 10 and 34 °C the dough conducts as when cold, does not spring and does not boil: what is left is the
    // textbook's problem of two bodies, with the interface at the mean of both, weighted by √(k ρ c).
    for floor in [
        Material::Firebrick,
        Material::Cordierite,
        Material::Stainless,
        Material::CarbonSteel,
    ] {
        let r = mild(floor, 34.0);
        let cells = Cells::centre(&r, Fineness::Fine);
        let first = cells.dough;
        let thick = cells.dx[first];
        let heat = cells.dry_j[first] + cells.water[first] * super::cells::CP_WATER;
        let b_dough = (0.40 * heat / thick).sqrt();
        let body = floor.body();
        let b_floor = (body.k * body.rho * body.cp).sqrt();
        let expected = (34.0 * b_floor + 10.0 * b_dough) / (b_floor + b_dough);
        let sky = Sky::of(&r);
        let mut column: HeatColumn<48> = HeatColumn::new(cells, 34.0, 34.0, None, 10.0, 250.0);
        let mut held = Surround {
            dt: 0.01,
            air_c: 20.0,
            contact: 1e6,
            floor_pan: 160.0,
            gain: 1.0,
            cheese_on: false,
            in_pan: false,
        };
        for _ in 0..400 {
            column.step(&sky, &held);
        }
        let skin = column.face.base_c;
        assert!(
            (skin - expected).abs() < 1.0,
            "{floor:?}: {skin:.2} for {expected:.2}"
        );
        // A poor contact keeps the skin colder.
        held.contact = 300.0;
        let mut poor: HeatColumn<48> = HeatColumn::new(
            Cells::centre(&r, Fineness::Fine),
            34.0,
            34.0,
            None,
            10.0,
            250.0,
        );
        for _ in 0..400 {
            poor.step(&sky, &held);
        }
        assert!(poor.face.base_c < skin - 1.0);
    }
}

#[test]
fn a_slab_that_nothing_touches_keeps_its_heat_and_levels_out() {
    let mut slab = Slab::new(Material::Firebrick, 60.0, 20.0);
    let n = slab.t.len();
    for (i, t) in slab.t.iter_mut().enumerate() {
        *t = 20.0 + 400.0 * i as f64 / n as f64;
    }
    let before = slab.charge(20.0);
    let nothing = Side::default();
    for _ in 0..4000 {
        slab.step(10.0, nothing, nothing);
    }
    let after = slab.charge(20.0);
    assert!((after / before - 1.0).abs() < 1e-9, "{after} for {before}");
    assert!(slab.top_c() - slab.bottom_c() < 0.1, "{:?}", slab.t);
}

#[test]
fn heat_in_is_heat_held_where_only_the_bottom_is_heated() {
    let mut slab = Slab::new(Material::Cordierite, 20.0, 20.0);
    let below = Side {
        w: 3000.0,
        ..Side::default()
    };
    for _ in 0..60 {
        slab.step(10.0, Side::default(), below);
    }
    let held = slab.charge(20.0);
    assert!((held / (3000.0 * 600.0) - 1.0).abs() < 1e-9, "{held}");
    assert!(slab.bottom_c() > slab.top_c());
}

#[test]
fn a_dry_skin_in_dry_air_evaporates_nothing() {
    let sky = Sky::of(&mild(Material::Biscuit, 34.0));
    assert_eq!(sky.drying(0.25, 0.0, 90.0), 0.0);
    assert_eq!(
        sky.drying(0.25, 1.0, 20.0),
        0.0,
        "cooler than the dew of the oven's air"
    );
    let (warm, hot) = (sky.drying(0.25, 1.0, 60.0), sky.drying(0.25, 1.0, 90.0));
    assert!(0.0 < warm && warm < hot);
    // Above boiling it is no more than at boiling: the rest is boiling's own.
    assert_eq!(
        sky.drying(0.25, 1.0, 140.0),
        sky.drying(0.25, 1.0, sky.boiling_c)
    );
}
