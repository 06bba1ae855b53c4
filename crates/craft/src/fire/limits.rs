//! How long a bake is followed: by the oven and the dough, never by the style alone.
//!
//! Source: revisions of the bake model, B3. It bounds a search and is never shown as a forecast.

use super::heat::{EPS_CAVITY, EPS_FOOD, SIGMA, kelvin};
use super::setup::{Aim, OvenNow, Piece};

/// The bake that the others are measured by: 75 s under 14.7 kW/m² with 3.4 kg of dough on a m².
const MEASURE_S: f64 = 75.0;
const MEASURE_W_M2: f64 = 14_700.0;
const MEASURE_KG_M2: f64 = 3.4;
/// The least that shines on a piece, W/m².
const LEAST_W_M2: f64 = 1500.0;
const LONGEST_S: f64 = 1800.0;
const SHORTEST_S: f64 = 150.0;

/// About how long a piece takes under a dome, s: from the heat that falls on it.
pub fn expected_s(piece: &Piece, oven: &OvenNow, dome_c: f64) -> f64 {
    let e = 1.0 / (1.0 / EPS_FOOD + 1.0 / EPS_CAVITY - 1.0);
    let air_c = oven.air_c.unwrap_or(dome_c);
    let shine = oven.view * e * SIGMA * (kelvin(dome_c).powi(4) - 373.15f64.powi(4));
    let q = (shine + oven.air_w_m2k * (air_c - 100.0) + EPS_FOOD * oven.grill_w_m2).max(LEAST_W_M2);
    let disc_m = piece.disc_mm / 1000.0;
    let kg_m2 = piece.ball_g / 1000.0 / (std::f64::consts::PI / 4.0 * disc_m * disc_m);
    MEASURE_S * (MEASURE_W_M2 / q).powf(1.5) * (kg_m2 / MEASURE_KG_M2).powf(0.7)
}

/// How long a bake is followed, s.
pub fn longest_s(aim: Aim, piece: &Piece, oven: &OvenNow) -> f64 {
    let expected = expected_s(piece, oven, oven.dome_c);
    (2.5 * expected)
        .max(2.0 * aim.usual_s())
        .clamp(SHORTEST_S, LONGEST_S)
}
