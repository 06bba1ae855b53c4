//! How fast the living things in a dough work at a temperature, relative to 30 °C.
//!
//! Question: what is γ(T) of gas, leaven, growth and acid, and Q(T) of maturation? Input °C, output
//! dimensionless. Source: fermentation model, section 4; valid −5 to 46 °C, clipped outside.

use super::departure::Departure;
use std::borrow::Cow;
use std::sync::LazyLock;

/// Coldest and hottest temperature of the table, °C.
pub const LOWEST_C: f64 = -5.0;
/// Above it nothing lives, °C.
pub const HIGHEST_C: f64 = 46.0;
/// Table step, K. Linear interpolation errs by less than 1.6e-4.
const STEP_K: f64 = 0.05;
const ROWS: usize = 1021;

/// Parameters of one response curve: shape minimum °C, steepness 1/K, maximum °C, exponent.
struct Curve {
    t_min: f64,
    c: f64,
    t_max: f64,
    n: f64,
}

// Gas: calibrated to textbook relative rates. Leaven, growth, acid: calibrated or textbook order.
const GAS: Curve = Curve {
    t_min: -6.0,
    c: 0.22,
    t_max: 46.0,
    n: 2.6,
};
const LEAVEN: Curve = Curve {
    t_min: 0.5,
    c: 0.30,
    t_max: 43.0,
    n: 2.0,
};
const GROWTH: Curve = Curve {
    t_min: 2.5,
    c: 0.35,
    t_max: 41.0,
    n: 2.0,
};
const ACID: Curve = Curve {
    t_min: 2.0,
    c: 0.30,
    t_max: 44.0,
    n: 2.0,
};
/// Maturation speeds up by this factor every 10 K (calibrated), 1 at 20 °C.
const MATURATION_Q10: f64 = 1.95;

impl Curve {
    fn raw(&self, t: f64) -> f64 {
        if t <= self.t_min || t >= self.t_max {
            return 0.0;
        }
        (t - self.t_min).powf(self.n) * (1.0 - (self.c * (t - self.t_max)).exp()).powi(2)
    }
    fn relative(&self, t: f64) -> f64 {
        self.raw(t) / self.raw(30.0)
    }
}

/// The five responses at one temperature, or averaged over a piece of dough.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Responses {
    /// Of gas by yeast, 1 at the reference.
    pub gas: f64,
    /// Of gas by a leaven.
    pub leaven: f64,
    /// Of growth.
    pub growth: f64,
    /// Of acid.
    pub acid: f64,
    /// Maturation hours at 20 °C per hour.
    pub maturation: f64,
}

/// The responses computed from their formulas, exact.
pub fn exact(t_c: f64) -> Responses {
    Responses {
        gas: GAS.relative(t_c),
        leaven: LEAVEN.relative(t_c),
        growth: GROWTH.relative(t_c),
        acid: ACID.relative(t_c),
        maturation: MATURATION_Q10.powf((t_c - 20.0) / 10.0),
    }
}

static TABLE: LazyLock<Vec<[f64; 5]>> = LazyLock::new(|| {
    (0..ROWS)
        .map(|i| {
            let r = exact(LOWEST_C + i as f64 * STEP_K);
            [r.gas, r.leaven, r.growth, r.acid, r.maturation]
        })
        .collect()
});

/// The responses as a table, which is what the simulation reads: the book's, or those of a kitchen whose doughs are
/// livelier or slower in the cold.
#[derive(Debug, Clone)]
pub struct ResponseTable(Cow<'static, [[f64; 5]]>);

impl ResponseTable {
    /// The book's.
    pub fn book() -> ResponseTable {
        ResponseTable(Cow::Borrowed(&TABLE))
    }

    /// With gas of yeast and leaven faster by the factor e^`cold` where it is cold (learning, section 2.1).
    pub(super) fn departing(d: &Departure) -> ResponseTable {
        if d.cold == 0.0 && d.gas_from_k == 0.0 {
            return ResponseTable::book();
        }
        let gas_curve = Curve {
            t_min: GAS.t_min + d.gas_from_k,
            ..GAS
        };
        let rows = TABLE.iter().enumerate().map(|(i, row)| {
            let t_c = LOWEST_C + i as f64 * STEP_K;
            let factor = (d.cold * coldness(t_c)).exp();
            let [book, leaven, growth, acid, maturation] = *row;
            let gas = if d.gas_from_k == 0.0 {
                book
            } else {
                gas_curve.relative(t_c)
            };
            [gas * factor, leaven * factor, growth, acid, maturation]
        });
        ResponseTable(rows.collect())
    }

    /// The responses at a temperature, clipped to −5…46 °C.
    pub fn at(&self, t_c: f64) -> Responses {
        read(&self.0, t_c)
    }
}

/// The book's responses at a temperature, clipped to −5…46 °C.
pub fn at(t_c: f64) -> Responses {
    read(&TABLE, t_c)
}

fn read(table: &[[f64; 5]], t_c: f64) -> Responses {
    let x = (t_c.clamp(LOWEST_C, HIGHEST_C) - LOWEST_C) / STEP_K;
    let i = (x as usize).min(ROWS - 2);
    let f = x - i as f64;
    let (a, b) = (&table[i], &table[i + 1]);
    let mix = |k: usize| a[k] + f * (b[k] - a[k]);
    Responses {
        gas: mix(0),
        leaven: mix(1),
        growth: mix(2),
        acid: mix(3),
        maturation: mix(4),
    }
}

/// How far a temperature counts as cold, 1 to 0 (learning, section 2.1).
pub fn coldness(t_c: f64) -> f64 {
    1.0 / (1.0 + ((t_c - 8.0) / 1.5).exp())
}

/// Whether the table has no row between these two temperatures, so that it is straight from one to the other.
pub fn between_the_same_rows(coldest_c: f64, hottest_c: f64) -> bool {
    let row = |t: f64| ((t.clamp(LOWEST_C, HIGHEST_C) - LOWEST_C) / STEP_K) as usize;
    row(coldest_c) == row(hottest_c)
}

impl Responses {
    /// Adds `weight` times another set: used to average over the shells of a dough.
    pub fn add(&mut self, other: Responses, weight: f64) {
        self.gas += weight * other.gas;
        self.leaven += weight * other.leaven;
        self.growth += weight * other.growth;
        self.acid += weight * other.acid;
        self.maturation += weight * other.maturation;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_kitchen_slow_in_the_cold_is_the_book_s_in_the_room() {
        for (t, w) in [(4.0, 0.9350), (8.0, 0.5), (12.0, 0.0650)] {
            assert!((coldness(t) - w).abs() < 5e-5, "{t}");
        }
        let slow = ResponseTable::departing(&Departure {
            cold: -0.3,
            ..Departure::BOOK
        });
        let (here, book) = (slow.at(4.0), at(4.0));
        assert!((here.gas / book.gas - (-0.3f64 * 0.9350).exp()).abs() < 1e-3);
        assert_eq!(
            (here.growth, here.maturation),
            (book.growth, book.maturation)
        );
        assert!((slow.at(25.0).gas / at(25.0).gas - 1.0).abs() < 1e-4);
    }

    /// The values printed in section 4, four significant digits.
    const PRINTED: [(f64, [f64; 4]); 9] = [
        (2.0, [0.02127, 0.002693, 0.0, 0.0]),
        (4.0, [0.03799, 0.01466, 0.003106, 0.005259]),
        (10.0, [0.1289, 0.1080, 0.07765, 0.08413]),
        (15.0, [0.2609, 0.2516, 0.2156, 0.2221]),
        (20.0, [0.4527, 0.4543, 0.4222, 0.4253]),
        (25.0, [0.7058, 0.7121, 0.6937, 0.6908]),
        (30.0, [1.0, 1.0, 1.0, 1.0]),
        (35.0, [1.236, 1.178, 1.123, 1.246]),
        (40.0, [1.079, 0.6577, 0.1693, 0.9270]),
    ];

    #[test]
    fn the_printed_values_come_out() {
        for (t, want) in PRINTED {
            for (source, r) in [("exact", exact(t)), ("table", at(t))] {
                for (got, want) in [r.gas, r.leaven, r.growth, r.acid].into_iter().zip(want) {
                    assert!(
                        (got - want).abs() <= 6e-4 * want.max(0.01),
                        "{source} at {t} °C: {got} against {want}"
                    );
                }
            }
        }
    }

    #[test]
    fn seventy_two_cold_hours_mature_like_a_day_in_the_room() {
        assert!((72.0 * exact(4.0).maturation - 24.7).abs() < 0.05);
    }

    #[test]
    fn the_table_follows_the_formula() {
        let mut t = LOWEST_C;
        while t < HIGHEST_C {
            let (a, b) = (at(t), exact(t));
            for (a, b) in [
                (a.gas, b.gas),
                (a.leaven, b.leaven),
                (a.growth, b.growth),
                (a.acid, b.acid),
                (a.maturation, b.maturation),
            ] {
                // The spec says 1e-4; just under growth's 41 °C maximum it is 1.5e-4.
                assert!((a - b).abs() < 1.6e-4, "{t}: {a} {b}");
            }
            t += 0.013;
        }
    }
}
