//! Exponentials that a step asks for in every cell, read from tables and between their points.
//!
//! Errors of the reading: below 2e-4 of the value for the rates, 1e-5 for the water; the reference cases were made
//! without tables and are met with them.

use super::super::boiling::{RV_OVER_LV, SORPTION};
use std::sync::LazyLock;

/// Points per K and cells of the temperature tables, from −20 to 620 °C.
const PER_K: f64 = 2.0;
const FROM_C: f64 = -20.0;
const TEMPERATURES: usize = 1281;
/// Points per kg/kg of the moisture tables, up to 1.2.
const PER_X: f64 = 2000.0;
const MOISTURES: usize = 2401;
/// Below this moisture the logarithm is too steep for a table.
const STEEP_X: f64 = 0.02;

fn over_temperature(f: impl Fn(f64) -> f64) -> Box<[f64; TEMPERATURES]> {
    Box::new(std::array::from_fn(|i| f(FROM_C + i as f64 / PER_K)))
}

#[inline]
fn at(table: &[f64; TEMPERATURES], celsius: f64) -> f64 {
    let x = ((celsius - FROM_C) * PER_K).clamp(0.0, (TEMPERATURES - 2) as f64);
    let i = x as usize;
    let f = x - i as f64;
    table[i] + f * (table[i + 1] - table[i])
}

static HOT: LazyLock<Box<[f64; TEMPERATURES]>> =
    LazyLock::new(|| over_temperature(|c| 1.0 / (1.0 + (-(c - 75.0) / 8.0).exp())));

const GAS: f64 = 8.314;
/// Section 7: rate at a reference temperature, 1/s; activation energy, J/mol; highest temperature that counts, °C.
fn rate(k: f64, reference_c: f64, energy: f64, cap_c: f64) -> Box<[f64; TEMPERATURES]> {
    over_temperature(|c| {
        let kelvin = c.min(cap_c) + 273.15;
        k * (-energy / GAS * (1.0 / kelvin - 1.0 / (reference_c + 273.15))).exp()
    })
}
static BROWNING: LazyLock<Box<[f64; TEMPERATURES]>> =
    LazyLock::new(|| rate(0.0105, 190.0, 78_000.0, 400.0));
static CHARRING: LazyLock<Box<[f64; TEMPERATURES]>> =
    LazyLock::new(|| rate(0.0040, 270.0, 150_000.0, 400.0));
static CHEESE: LazyLock<Box<[f64; TEMPERATURES]>> =
    LazyLock::new(|| rate(0.0400, 160.0, 90_000.0, 350.0));

/// exp(−X / sorption), and the logarithm of the water activity that follows from it.
static WATER: LazyLock<Box<[[f64; 2]; MOISTURES]>> = LazyLock::new(|| {
    Box::new(std::array::from_fn(|i| {
        let x = (i as f64 / PER_X).max(1e-6);
        let e = (-x / SORPTION).exp();
        [e, (-e).ln_1p()]
    }))
});

/// The tables of one run, looked up once instead of at each cell.
#[derive(Clone, Copy)]
pub(super) struct Tables {
    hot: &'static [f64; TEMPERATURES],
    water: &'static [[f64; 2]; MOISTURES],
}

impl Tables {
    pub(super) fn get() -> Tables {
        Tables {
            hot: &HOT,
            water: &WATER,
        }
    }

    /// How far vapour carries heat through a crumb: 0 cold to 1 hot.
    #[inline]
    pub(super) fn hot(self, celsius: f64) -> f64 {
        at(self.hot, celsius)
    }

    /// exp(−X/sorption) and ln(water activity).
    #[inline]
    pub(super) fn water(self, x: f64) -> (f64, f64) {
        if x < STEEP_X {
            let e = (-x / SORPTION).exp();
            return (e, (-e).ln_1p());
        }
        let p = (x * PER_X).min((MOISTURES - 2) as f64);
        let i = p as usize;
        let f = p - i as f64;
        let (a, b) = (self.water[i], self.water[i + 1]);
        (a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]))
    }
}

/// How fast a dry surface browns and chars at a temperature, and cheese colours, 1/s.
pub(crate) fn browning_rate(celsius: f64) -> f64 {
    at(&BROWNING, celsius)
}
pub(crate) fn charring_rate(celsius: f64) -> f64 {
    at(&CHARRING, celsius)
}
pub(crate) fn cheese_rate(celsius: f64) -> f64 {
    at(&CHEESE, celsius)
}

/// A wet surface does not brown: exp(−X / 0.06), the same scale as the sorption.
pub(crate) fn dryness_gate(x: f64) -> f64 {
    Tables::get().water(x).0
}

/// Where water boils that is bound this hard, °C, and how fast that rises as the dough dries, K per kg/kg.
#[inline]
pub(super) fn bound_boiling(inverse_free_k: f64, e: f64, ln_activity: f64) -> (f64, f64) {
    let kelvin = 1.0 / (inverse_free_k + RV_OVER_LV * ln_activity);
    let slope = kelvin * kelvin * RV_OVER_LV * e / (SORPTION * (1.0 - e));
    (kelvin - 273.15, slope)
}
