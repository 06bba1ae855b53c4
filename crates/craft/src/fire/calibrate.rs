//! An oven's own correction: two factors, fitted from its logged bakes and always reversible.
//!
//! The contact of floor and dough moves bases, the heat from above moves rims; each is looked for alone, since columns do
//! not exchange heat. A verdict says an interval of colour, not a number: pale lies under the style's lower limit, dark over
//! its upper one. The book's value is held with a doubt of a quarter, so that one bake moves little.

use super::bake::{BakeParts, follow};
use super::heat::Fineness;
use super::oven::FACTORS;
use super::race::Targets;
use super::run::{Shade, Verdict};
use super::setup::BakeRequest;
use serde::{Deserialize, Serialize};

/// A bake that was made and judged.
#[derive(Debug, Clone, PartialEq)]
pub struct Logged {
    /// The oven as it stood, with factors of 1.
    pub request: BakeRequest,
    /// How long it was in, s.
    pub baked_s: f64,
    /// What was seen of it.
    pub verdict: Verdict,
}

/// What the bakes say of an oven.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Calibration {
    /// The floor gives so many times what the book says.
    pub floor_factor: f64,
    /// The top gives so many times what the book says.
    pub top_factor: f64,
    /// So many bakes were asked.
    pub bakes: u32,
    /// How many verdicts the model met before, and meets with the factors; base and top count apart.
    pub met_before: u32,
    /// Verdicts that the model meets with the factors.
    pub met_after: u32,
    /// How far colours lie outside of what was said, root of the mean square over both sides.
    pub off_before: f64,
    /// How far colours lie outside with the factors.
    pub off_after: f64,
}

impl Calibration {
    /// Whether the factors do better than the book: they meet no verdict less, and more of them, or come clearly nearer.
    pub fn is_better(&self) -> bool {
        let all_met = self.met_before == 2 * self.bakes;
        self.met_after > self.met_before
            || (self.met_after == self.met_before
                && !all_met
                && self.off_after < NEARER * self.off_before)
    }
}

/// How sure the book is, as the logarithm of a factor; what a colour amiss weighs.
const DOUBT: f64 = 0.25;
const AMISS: f64 = 0.3;
/// Clearly nearer: at most this share of what was amiss.
const NEARER: f64 = 0.9;
/// Bakes that are looked at, the latest.
const MOST: usize = 24;
/// Fewer than this say nothing.
pub const FEWEST: usize = 3;

/// A bake so short against its plan was a slip of the finger, share.
const SLIP: f64 = 0.25;

/// Whether a bake says anything of its oven: one under a quarter of its planned time was a slip.
pub fn counts(baked_s: f64, planned_s: f64) -> bool {
    baked_s >= SLIP * planned_s
}

/// How far a colour lies outside of what a verdict says.
fn amiss(v: f64, shade: Shade, (lo, hi): (f64, f64)) -> f64 {
    match shade {
        Shade::Pale => (v - lo).max(0.0),
        Shade::Dark => (hi - v).max(0.0),
        Shade::Right => (lo - v).max(v - hi).max(0.0),
    }
}

/// Fits both factors; `None` with fewer than three judged bakes.
pub fn calibrate(bakes: &[Logged], targets: &Targets) -> Option<Calibration> {
    if bakes.len() < FEWEST {
        return None;
    }
    let bakes = &bakes[bakes.len().saturating_sub(MOST)..];
    let colour = |b: &Logged, factor: f64, part: BakeParts| {
        let mut r = b.request.clone();
        r.oven.side = 0.0;
        r.until_s = b.baked_s.clamp(10.0, 3600.0);
        match part {
            BakeParts::Rim => r.oven.top_factor = factor,
            _ => r.oven.floor_factor = factor,
        }
        follow(&r, Fineness::Draft, part, None)
            .moments
            .last()
            .map_or(0.0, |m| {
                if part == BakeParts::Rim {
                    m.rim
                } else {
                    m.base
                }
            })
    };
    let miss = |b: &Logged, factor: f64, part: BakeParts| {
        let v = colour(b, factor, part);
        match part {
            BakeParts::Rim => amiss(v, b.verdict.top, targets.rim),
            _ => amiss(v, b.verdict.base, targets.base),
        }
    };
    let fit = |part: BakeParts| {
        let cost = |ln: f64| {
            let of_bakes: f64 = bakes
                .iter()
                .map(|b| (miss(b, ln.exp(), part) / AMISS).powi(2))
                .sum();
            of_bakes + (ln / DOUBT).powi(2)
        };
        // From half to double in steps of 8 %, then between the neighbours of the best.
        let mut best = (cost(0.0), 0.0f64);
        for i in -8i32..=8 {
            let ln = 0.085 * f64::from(i);
            let c = cost(ln);
            if c < best.0 - 1e-9 {
                best = (c, ln);
            }
        }
        for step in [0.04, 0.02, 0.01] {
            for ln in [best.1 - step, best.1 + step] {
                if ln < FACTORS.0.ln() || ln > FACTORS.1.ln() {
                    continue;
                }
                let c = cost(ln);
                if c < best.0 - 1e-9 {
                    best = (c, ln);
                }
            }
        }
        (best.1.exp() * 100.0).round() / 100.0
    };
    let (floor_factor, top_factor) = (fit(BakeParts::Centre), fit(BakeParts::Rim));
    let met = |floor: f64, top: f64| {
        bakes
            .iter()
            .map(|b| {
                u32::from(miss(b, floor, BakeParts::Centre) < 0.05)
                    + u32::from(miss(b, top, BakeParts::Rim) < 0.05)
            })
            .sum()
    };
    let off = |floor: f64, top: f64| {
        let squares: f64 = bakes
            .iter()
            .map(|b| {
                miss(b, floor, BakeParts::Centre).powi(2) + miss(b, top, BakeParts::Rim).powi(2)
            })
            .sum();
        (squares / (2 * bakes.len()) as f64).sqrt()
    };
    Some(Calibration {
        floor_factor,
        top_factor,
        bakes: bakes.len() as u32,
        met_before: met(1.0, 1.0),
        met_after: met(floor_factor, top_factor),
        off_before: off(1.0, 1.0),
        off_after: off(floor_factor, top_factor),
    })
}
