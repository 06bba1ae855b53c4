//! What follows from the recipe alone and stays constant during a run: how fast this dough gasses and
//! matures, how much its gluten can take, how much gas it needs.
//!
//! Source: fermentation model, sections 1, 5, 6.4 and 7. CO2 in mmol per kg of flour, pressure in atm.

use super::request::{DoughKind, RiseRequest};
use crate::units::DOUGH_G_PER_CM3;

/// Gas constant, L·atm/(mol·K).
pub const R_GAS: f64 = 0.082057;
/// 0 °C in kelvin.
pub const KELVIN: f64 = 273.15;
/// Share of air in just-mixed dough (assumed).
pub const AIR_SHARE: f64 = 0.08;
/// Temperature at which ripeness is counted, °C.
const REFERENCE_C: f64 = 25.0;
/// Salt on water, %, at which yeast works half as fast (calibrated).
const SALT_HALF: f64 = 9.5;
/// Gluten capacity at W 300, hours at 20 °C, and its exponent (calibrated).
const CAPACITY_H: f64 = 26.0;
const CAPACITY_EXPONENT: f64 = 2.63;
/// Below this W the gluten's hours fall more slowly, as same-day practice with weak flour says (calibrated).
const WEAK_W: f64 = 250.0;
const WEAK_EXPONENT: f64 = 1.2;
/// Hours to relax at W 300 and 20 °C (calibrated).
pub(crate) const RELAX_H: f64 = 0.75;
/// Share of the full inflation that must come after the last shaping (calibrated).
const PIECE_SHARE: f64 = 0.70;

/// The constants of one dough.
#[derive(Debug, Clone, PartialEq)]
pub struct Recipe {
    /// What it is.
    pub kind: DoughKind,
    /// Water over flour.
    pub hydration: f64,
    /// Whole grain as a share, 0 to 1.
    pub whole: f64,
    /// W of its blend.
    pub flour_w: f64,
    /// kg dough per kg flour.
    pub mass_ratio: f64,
    /// Specific heat, kJ/(kg·K).
    pub specific_heat: f64,
    /// What salt leaves of the yeast's work.
    pub f_salt: f64,
    /// Factor of gas for flour and water.
    pub f_gas: f64,
    /// Maturation rate factor.
    pub f_mature: f64,
    /// Pressure, atm.
    pub pressure: f64,
    /// Volume of just-mixed dough, L per kg flour.
    pub v0: f64,
    /// Air in the gas cells, mmol per kg flour.
    pub air: f64,
    /// CO2 that ripens this dough in all, mmol per kg flour.
    pub c_dose: f64,
    /// CO2 that the piece needs since its last shaping.
    pub c_piece: f64,
    /// How long a shaped piece takes to relax, hours at 20 °C.
    pub relax_h: f64,
    /// How long its gluten lasts against the book.
    pub gluten: f64,
}

/// Gluten capacity against W 300.
fn strength(w: f64) -> f64 {
    if w < WEAK_W {
        (WEAK_W / 300.0).powf(CAPACITY_EXPONENT) * (w / WEAK_W).powf(WEAK_EXPONENT)
    } else {
        (w / 300.0).powf(CAPACITY_EXPONENT)
    }
}

/// A stiff biga gasses more slowly: dry clumps, yeast unevenly spread, slow diffusion (assumed).
fn stiffness(r: &RiseRequest) -> f64 {
    match r.kind {
        DoughKind::Biga => (0.80 + 0.02 * (r.hydration_percent - 50.0)).clamp(0.80, 1.0),
        _ => 1.0,
    }
}

/// Air pressure at an altitude, atm.
pub fn pressure_at(altitude_m: f64) -> f64 {
    (1.0 - 2.25577e-5 * altitude_m).powf(5.25588)
}

/// Solubility of CO2 in water, mmol/(L·atm).
pub fn henry(t_c: f64) -> f64 {
    34.0 * (2400.0 * (1.0 / (t_c + KELVIN) - 1.0 / 298.15)).exp()
}

impl Recipe {
    /// The dough of a request as the equations need it.
    pub fn of(r: &RiseRequest) -> Recipe {
        let (w, s, o, u) = (
            r.hydration_percent / 100.0,
            r.salt_percent / 100.0,
            r.oil_percent / 100.0,
            r.sugar_percent / 100.0,
        );
        let mass_ratio = 1.0 + w + s + o + u;
        let specific_heat = (4.18 * w + 1.95 + 0.9 * s + 2.0 * o + 1.25 * u) / mass_ratio;
        let salt_on_water = 100.0 * r.salt_percent / r.hydration_percent;
        let f_salt = 1.0 / (1.0 + (salt_on_water / SALT_HALF).powi(2));
        let sugar_on_water = 100.0 * r.sugar_percent / r.hydration_percent;
        let f_sugar = (1.0 + 0.02 * r.sugar_percent.min(3.0))
            * (-0.028 * (sugar_on_water - 8.0).max(0.0)).exp();
        let f_hydration = (1.0 + 0.008 * (r.hydration_percent - 62.0)).clamp(0.75, 1.15);
        let pressure = pressure_at(r.altitude_m);
        let v0 = mass_ratio / DOUGH_G_PER_CM3;
        let target = r.target_volume.unwrap_or(r.kind.target_volume());
        let fill = |volume: f64| {
            pressure
                * (henry(REFERENCE_C) * w
                    + 1000.0 * (volume - 1.0) * v0 / (R_GAS * (REFERENCE_C + KELVIN)))
        };
        // What this maker calls ready: all of the gas, since shaping too, is counted against it.
        let ripe = r.departs.ripe.exp();
        let c_dose = ripe * fill(target);
        Recipe {
            kind: r.kind,
            hydration: r.hydration_percent,
            whole: r.whole_grain_percent,
            flour_w: r.flour_w,
            mass_ratio,
            specific_heat,
            f_salt,
            f_gas: f_salt * f_sugar * f_hydration * stiffness(r),
            f_mature: (0.010 * (r.hydration_percent - 62.0) - 0.08 * (r.salt_percent - 2.0)).exp(),
            pressure,
            v0,
            air: 1000.0 * AIR_SHARE * v0 * pressure / (R_GAS * (r.dough_c + KELVIN)),
            c_dose,
            c_piece: match r.kind {
                DoughKind::Dough => ripe * fill(1.0 + PIECE_SHARE * (target - 1.0)),
                _ => c_dose,
            },
            relax_h: RELAX_H * r.flour_w / 300.0 * r.departs.relaxing.exp(),
            gluten: r.departs.gluten.exp(),
        }
    }

    /// How long the gluten lasts, hours at 20 °C, after so many folds.
    pub fn capacity_h(&self, folds: u32) -> f64 {
        CAPACITY_H
            * self.gluten
            * strength(self.flour_w)
            * (1.0 - 0.5 * self.whole / 100.0)
            * (1.0 + 0.03 * f64::from(folds.min(4)))
    }

    /// The weakest flour W that keeps `reserve` (0 to 1) after `matured_h` hours at 20 °C.
    pub fn w_needed(&self, matured_h: f64, reserve: f64, folds: u32) -> f64 {
        let capacity = matured_h / (1.0 - reserve);
        let share = capacity / (self.capacity_h(folds) / strength(self.flour_w));
        let weak = strength(WEAK_W);
        if share < weak {
            WEAK_W * (share / weak).powf(1.0 / WEAK_EXPONENT)
        } else {
            300.0 * share.powf(1.0 / CAPACITY_EXPONENT)
        }
    }

    /// CO2 that is free in the gas cells out of `held` mmol (free and dissolved) at `t_c`.
    ///
    /// The cells hold air and CO2 at the outside pressure, the CO2 in equilibrium with the water.
    pub fn free_gas(&self, held: f64, t_c: f64) -> f64 {
        self.free_of(held, henry(t_c))
    }

    /// The same where the solubility at that temperature is known, mmol/(L·atm).
    pub fn free_of(&self, held: f64, solubility: f64) -> f64 {
        let dissolvable = solubility * self.hydration / 100.0 * self.pressure;
        let b = held - self.air - dissolvable;
        let root = (b * b + 4.0 * held * self.air).sqrt();
        // For b far below zero the sum would cancel; the conjugate form keeps its digits.
        if b < 0.0 {
            2.0 * held * self.air / (root - b)
        } else {
            0.5 * (b + root)
        }
    }

    /// Volume against just mixed, with `free` mmol of CO2 in the cells at `t_c`.
    pub fn volume(&self, free: f64, t_c: f64) -> f64 {
        ((1.0 - AIR_SHARE) * self.v0
            + (free + self.air) * R_GAS * (t_c + KELVIN) / (1000.0 * self.pressure))
            / self.v0
    }

    /// Volume above which cells break, at a gluten reserve `g` (calibrated and assumed).
    pub fn volume_ceiling(&self, g: f64) -> f64 {
        let water = (1.0 - 0.010 * (self.hydration - 65.0)).clamp(0.3, 1.15);
        1.0 + 2.4 * water * (1.0 - 0.4 * self.whole / 100.0) / (1.0 + (-(g + 0.15) / 0.12).exp())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::rise::request::tests::plain_dough;

    fn close(got: f64, want: f64, tolerance: f64) {
        assert!((got - want).abs() <= tolerance, "{got} against {want}");
    }

    #[test]
    fn the_printed_constants_come_out() {
        let r = Recipe::of(&plain_dough());
        close(r.mass_ratio, 1.640, 1e-9);
        close(r.specific_heat, 2.7802, 5e-5);
        close(r.f_salt, 0.89662, 5e-6);
        close(r.capacity_h(0), 26.00, 1e-9);
        close(r.air, 4.8916, 5e-5);
        close(r.c_dose, 97.255, 5e-4);
        close(r.c_piece, 74.402, 5e-4);
        let high = Recipe::of(&RiseRequest {
            altitude_m: 1500.0,
            ..plain_dough()
        });
        close(high.pressure, 0.834503, 5e-7);
        close(high.c_dose, 81.159, 5e-4);
    }

    #[test]
    fn printed_preferment_targets_and_salt_factors() {
        let of = |kind, water, salt| {
            Recipe::of(&RiseRequest {
                kind,
                hydration_percent: water,
                salt_percent: salt,
                ..plain_dough()
            })
        };
        close(of(DoughKind::Poolish, 100.0, 0.0).c_dose, 82.306, 5e-4);
        close(of(DoughKind::Biga, 48.0, 0.0).c_dose, 120.81, 5e-3);
        close(of(DoughKind::Levain, 100.0, 0.0).c_dose, 119.46, 5e-3);
        for (salt, factor) in [(1.0, 0.972), (2.0, 0.897), (3.0, 0.794), (4.0, 0.684)] {
            close(of(DoughKind::Dough, 62.0, salt).f_salt, factor, 5e-4);
        }
        for (w, hours) in [
            (80.0, 4.101),
            (120.0, 6.671),
            (180.0, 10.852),
            (200.0, 12.315),
            (220.0, 13.807),
            (250.0, 16.096),
            (300.0, 26.0),
            (330.0, 33.4),
            (390.0, 51.8),
        ] {
            let r = Recipe::of(&RiseRequest {
                flour_w: w,
                ..plain_dough()
            });
            close(r.capacity_h(0), hours, 0.05);
        }
    }

    #[test]
    fn printed_solubility_gas_and_volume() {
        for (t, h) in [(4.0, 62.57), (20.0, 39.00), (25.0, 34.00), (30.0, 29.77)] {
            close(henry(t), h, 5e-3);
        }
        let r = Recipe::of(&plain_dough());
        for (held, free, volume) in [
            (5.0, 1.108, 1.0184),
            (20.0, 7.346, 1.1208),
            (50.0, 31.735, 1.5210),
            (95.0, 75.207, 2.2344),
        ] {
            let n = r.free_gas(held, 25.0);
            close(n, free, 5e-4);
            close(r.volume(n, 25.0), volume, 5e-5);
        }
    }

    #[test]
    fn the_flour_that_is_needed_is_just_strong_enough() {
        let r = Recipe::of(&plain_dough());
        let w = r.w_needed(22.1, 0.15, 0);
        let strong = Recipe { flour_w: w, ..r };
        close(1.0 - 22.1 / strong.capacity_h(0), 0.15, 1e-9);
    }
}
