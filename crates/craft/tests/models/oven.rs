//! Pieces, ovens and plans that the tests at the fire share.

use craft::fire::of_formula;
use craft::fire::oven::{self, Oven};
use craft::fire::{Aim, Back, BakeRequest, FirePlan, Material, OvenNow, Piece, bake};
use craft::formula::{Formula, FormulaRequest, Scales, formulate};
use craft::style;

pub fn piece() -> Piece {
    Piece {
        ball_g: 250.0,
        disc_mm: 300.0,
        rim_mm: 20.0,
        rim_share: 0.3,
        hydration_percent: 65.0,
        salt_percent: 2.8,
        sugar_percent: 0.0,
        malt_percent: 0.0,
        oil_percent: 0.0,
        milk_percent: 0.0,
        maturity: 1.0,
        cold: true,
        dough_c: 22.0,
        sauce_g: 80.0,
        cheese_g: 80.0,
    }
}

/// A fired floor of a material at a temperature.
pub fn on(floor: Material, floor_mm: f64, floor_c: f64, until_s: f64) -> BakeRequest {
    BakeRequest {
        aim: Aim::Hot,
        piece: piece(),
        oven: OvenNow {
            floor,
            floor_mm,
            floor_c,
            core_c: None,
            dome_c: 450.0,
            air_c: None,
            view: 0.85,
            air_w_m2k: 10.0,
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
        until_s,
    }
}

pub fn oven_of(key: &str) -> Oven {
    oven::all().iter().find(|o| o.key == key).unwrap().clone()
}

/// A style's piece in an oven at its usual setting.
pub fn plan(style_key: &str, oven_key: &str) -> FirePlan {
    let f = Formula::of_style(style::by_key(style_key).unwrap());
    let result = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Scales::default(),
        doses: None,
    })
    .unwrap();
    let o = oven_of(oven_key);
    let s = o.usual();
    of_formula::plan(&f, &result.portions[0], &o, s, None, (21.0, 0.0))
}

pub fn base_at_end(r: &BakeRequest) -> f64 {
    bake(r).unwrap().moments.last().unwrap().base
}
