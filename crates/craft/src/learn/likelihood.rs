//! How likely what was said is, given what it is said of: value, slope and weight.
//!
//! Weights are those of expectation and maximisation: always positive, so that a step of the fit always exists and leads
//! upward, and what does not fit the rest loses its weight instead of dragging the kitchen. Source: learning, section 3
//! and 9.1.

use super::observed::{Answers, StoodAs};
use crate::keyed::Keyed;
use std::f64::consts::{PI, SQRT_2};

/// Cuts between the five states of a dough, as ripeness, and how surely a maker tells them, ln.
const CUTS: [f64; 4] = [0.65, 0.87, 1.5, 2.2];

/// What a dough of this state is called by somebody who never slips: ln of its ripeness, or how far its gluten is past it.
pub fn called(state: f64) -> StoodAs {
    let past = CUTS.iter().filter(|c| state >= c.ln()).count();
    StoodAs::ALL[past]
}
const STATE_SD: f64 = 0.18;
/// Share of slips: of a state, and of an hour or a tub.
const STATE_SLIPS: f64 = 0.04;
const BROAD: f64 = 0.06;
const BROAD_SD: f64 = 1.0;
/// Degrees of freedom of a thermometer.
const READING_DF: f64 = 4.0;
/// A remark is made without reason, and at most with one.
const SAID_ANYHOW: f64 = 0.03;
const SAID_MORE: f64 = 0.72;
const LEAST_WEIGHT: f64 = 1e-6;

/// Log-likelihood with its slope and weight.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Likelihood {
    pub ln: f64,
    pub slope: f64,
    pub weight: f64,
    /// How much of it is believed, 0 to 1: 0 for a slip.
    pub believed: f64,
}

fn density(x: f64) -> f64 {
    (-0.5 * x * x).exp() / (2.0 * PI).sqrt()
}
/// The standard normal below `x`.
pub(crate) fn below(x: f64) -> f64 {
    0.5 * libm::erfc(-x / SQRT_2)
}

/// Limits of an answer on the state's scale, ln, and how many answers there were.
fn limits(is: StoodAs, answers: Answers) -> (f64, f64, f64) {
    let cut = |i: usize| CUTS[i].ln();
    let (none, all) = (f64::NEG_INFINITY, f64::INFINITY);
    match answers {
        Answers::Five => {
            let k = is as usize;
            let low = if k == 0 { none } else { cut(k - 1) };
            let high = if k == 4 { all } else { cut(k) };
            (low, high, 5.0)
        }
        Answers::Three => match is {
            StoodAs::MuchUnder | StoodAs::Under => (none, cut(1), 3.0),
            StoodAs::Right => (cut(1), cut(2), 3.0),
            StoodAs::Over | StoodAs::MuchOver => (cut(2), all, 3.0),
        },
    }
}

/// Chance of a state without slips, with first and second derivative of its logarithm.
fn probit(low: f64, high: f64, f: f64) -> (f64, f64, f64) {
    let (a, b) = ((low - f) / STATE_SD, (high - f) / STATE_SD);
    // From the upper tails where both lie above, else two numbers near 1 are taken from each other.
    let p = if a > 0.0 {
        below(-a) - below(-b)
    } else {
        below(b) - below(a)
    };
    if p < 1e-12 {
        return (p.max(0.0), 0.0, 0.0);
    }
    let tail = |x: f64| if x.is_finite() { x * density(x) } else { 0.0 };
    let first = -(density(b) - density(a)) / STATE_SD / p;
    let second = -(tail(b) - tail(a)) / (STATE_SD * STATE_SD) / p - first * first;
    (p, first, second)
}

/// The state of a dough at opening.
pub(crate) fn state(is: StoodAs, answers: Answers, f: f64) -> Likelihood {
    let (low, high, n) = limits(is, answers);
    let (p0, first, second) = probit(low, high, f);
    let meant = (1.0 - STATE_SLIPS) * p0;
    let p = meant + STATE_SLIPS / n;
    let r = meant / p;
    Likelihood {
        ln: p.ln(),
        slope: r * first,
        weight: (-r * second).max(LEAST_WEIGHT),
        believed: r,
    }
}

/// What a state tells on average of `f`: its expected information (section 6).
pub(crate) fn state_information(answers: Answers, f: f64) -> f64 {
    let told: &[StoodAs] = match answers {
        Answers::Five => StoodAs::ALL,
        Answers::Three => &[StoodAs::Under, StoodAs::Right, StoodAs::Over],
    };
    told.iter()
        .map(|&is| {
            let (low, high, _) = limits(is, answers);
            let (p, first, _) = probit(low, high, f);
            p * first * first
        })
        .sum::<f64>()
        * (1.0 - STATE_SLIPS)
}

/// A figure seen at `y` where `f` is true: near it, or a slip from anywhere.
pub(crate) fn near(y: f64, f: f64, sd: f64) -> Likelihood {
    let core = (1.0 - BROAD) * density((y - f) / sd) / sd;
    let broad = BROAD * density((y - f) / BROAD_SD) / BROAD_SD;
    let z = core / (core + broad).max(f64::MIN_POSITIVE);
    let weight = z / (sd * sd) + (1.0 - z) / (BROAD_SD * BROAD_SD);
    Likelihood {
        ln: (core + broad).max(f64::MIN_POSITIVE).ln(),
        slope: weight * (y - f),
        weight,
        believed: z,
    }
}

/// What such a figure tells on average.
pub(crate) fn near_information(sd: f64) -> f64 {
    (1.0 - BROAD) / (sd * sd)
}

/// A thermometer's reading `y` where `f` is true.
pub(crate) fn thermometer(y: f64, f: f64, scale: f64) -> Likelihood {
    let nu = READING_DF;
    let r = y - f;
    let x = (r / scale).powi(2);
    let weight = (nu + 1.0) / (nu + x) / (scale * scale);
    // Γ(5/2)/(Γ(2)·√(4π)) = 3/8 for four degrees of freedom.
    Likelihood {
        ln: (0.375 / scale).ln() - 0.5 * (nu + 1.0) * (x / nu).ln_1p(),
        slope: weight * r,
        weight,
        believed: nu / (nu + x),
    }
}

/// What a reading tells on average.
pub(crate) fn thermometer_information(scale: f64) -> f64 {
    (READING_DF + 1.0) / ((READING_DF + 3.0) * scale * scale)
}

/// The chance that a remark is made where `f` says how far from it the dough is.
pub(crate) fn chance_said(f: f64, sd: f64) -> f64 {
    SAID_ANYHOW + SAID_MORE * below(-f / sd)
}

/// A remark that was made, or not.
pub(crate) fn said(is: bool, f: f64, sd: f64) -> Likelihood {
    let ln = |f: f64| {
        let p = chance_said(f, sd);
        if is { p.ln() } else { (1.0 - p).ln() }
    };
    const H: f64 = 1e-3;
    let (up, here, down) = (ln(f + H), ln(f), ln(f - H));
    let slope = (up - down) / (2.0 * H);
    let curve = (up - 2.0 * here + down) / (H * H);
    Likelihood {
        ln: here,
        slope,
        weight: (-curve).max(slope * slope / 4.0).max(LEAST_WEIGHT),
        believed: 1.0,
    }
}
