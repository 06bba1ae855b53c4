//! Balling again: what bench flour does to the dough, and how long it must rest after it.
//!
//! Source: mixing and shaping, section 12.

use super::open::Relaxing;
use serde::{Deserialize, Serialize};

/// A ball that was balled again.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Reballed {
    /// Its water, % of all its flour.
    pub hydration_percent: f64,
    /// Its salt, % of all its flour.
    pub salt_percent: f64,
    /// Flour that it took up, g.
    pub flour_added_g: f64,
    /// The ball, g.
    pub ball_g: f64,
    /// Until it opens with care, min.
    pub relax_min: f64,
}

/// A ball of such a dough, balled again with so much bench flour in % of its own: 2 gentle, 3 usual, 5 sticky.
///
/// `sum_percent` is the sum of the dough's percentages; `relaxing` says flour, warmth and tightness.
pub fn reball(
    ball_g: f64,
    hydration_percent: f64,
    salt_percent: f64,
    sum_percent: f64,
    bench_percent: f64,
    relaxing: &Relaxing,
) -> Reballed {
    let thinner = 1.0 + bench_percent / 100.0;
    let flour_g = 100.0 * ball_g / sum_percent;
    let flour_added_g = flour_g * bench_percent / 100.0;
    Reballed {
        hydration_percent: hydration_percent / thinner,
        salt_percent: salt_percent / thinner,
        flour_added_g,
        ball_g: ball_g + flour_added_g,
        relax_min: relaxing.steady_min(),
    }
}
