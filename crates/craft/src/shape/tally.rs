//! Pieces one by one as they are weighed: which is off, what those that are left come to.
//!
//! Source: mixing and shaping, section 8.

use serde::{Deserialize, Serialize};

/// A piece further off than this is marked, g; on a coarse scale, than two of its steps.
const MARKED_G: f64 = 3.0;

/// The pieces so far.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PieceTally {
    /// What is left of the dough, g.
    pub left_g: f64,
    /// What each of those that are left comes to, g; none when all are made.
    pub next_g: Option<f64>,
    /// That against the wanted weight, %.
    pub next_change_percent: Option<f64>,
    /// Mean of those made, g.
    pub mean_g: f64,
    /// Their standard deviation, g.
    pub sd_g: f64,
    /// The same without what the scale's own step does, g.
    pub sd_without_scale_g: f64,
    /// Pieces that are off by more than one sees on a plate, from 0.
    pub marked: Vec<usize>,
    /// Pieces that want correcting, from 0.
    pub off: Vec<usize>,
    /// All are made and do not sum to the whole: one was not weighed, or the scale drifted.
    pub does_not_sum: bool,
}

/// How far off a piece is marked on a scale of such a step, g.
pub fn mark_g(scale_g: f64) -> f64 {
    MARKED_G.max(2.0 * scale_g)
}

/// Whether a piece is marked: off by more than one sees on a plate.
pub fn is_marked(piece_g: f64, ball_g: f64, scale_g: f64) -> bool {
    (piece_g - ball_g).abs() > mark_g(scale_g) + 1e-9
}

/// The pieces of a dough of `weighed_g` that is to give `count` of `ball_g`, on a scale of such a step, with a tolerance in %.
pub fn tally(
    weighed_g: f64,
    pieces: &[f64],
    ball_g: f64,
    count: u32,
    scale_g: f64,
    tolerance_percent: f64,
) -> PieceTally {
    let k = pieces.len();
    let sum: f64 = pieces.iter().sum();
    let left_g = weighed_g - sum;
    let to_come = f64::from(count) - k as f64;
    let next_g = (to_come > 0.5).then(|| left_g / to_come);
    let mean_g = if k > 0 { sum / k as f64 } else { 0.0 };
    let sd_g = if k > 1 {
        let squares: f64 = pieces.iter().map(|g| (g - mean_g).powi(2)).sum();
        (squares / (k - 1) as f64).sqrt()
    } else {
        0.0
    };
    let beyond = |limit: f64| {
        let each = pieces.iter().enumerate();
        each.filter(|(_, g)| (**g - ball_g).abs() > limit + 1e-9)
            .map(|(i, _)| i)
            .collect()
    };
    let n = f64::from(count);
    PieceTally {
        left_g,
        next_g,
        next_change_percent: next_g.map(|g| 100.0 * (g / ball_g - 1.0)),
        mean_g,
        sd_g,
        sd_without_scale_g: (sd_g * sd_g - scale_g * scale_g / 12.0).max(0.0).sqrt(),
        marked: beyond(mark_g(scale_g)),
        off: beyond(ball_g * tolerance_percent / 100.0),
        does_not_sum: next_g.is_none() && left_g.abs() > (0.005 * weighed_g).max(n * scale_g / 2.0),
    }
}
