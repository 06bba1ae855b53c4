//! A mixer's own friction, learned from the temperatures of the doughs that it mixed.
//!
//! The course of a mixing is linear in five figures: an offset from its start, K a minute at three speeds, and what a small
//! batch adds. Readings correct a prior of the kind; one mix moves them together, so that ten readings of one afternoon are
//! not ten mixes; a reading that does not fit loses its weight. Source: mixing and shaping, section 4. Calibrated on simulated
//! mixers: the 80 % interval holds the truth in 73 to 83 %.

use super::bowl::trace_uncapped;
use super::{BowlTrace, FrictionFigures, Mixer, Mixing, Speed};
use crate::fact;
use crate::fact::{Fact, Kelvin};
use nalgebra::{DMatrix, DVector};
use serde::{Deserialize, Serialize};

/// A thermometer in a dough, K.
const READING_K: f64 = 0.30;
/// How far a mix begins off what its parts say, K.
const START_K: f64 = 0.70;
/// How much the friction differs from mix to mix, as a share.
const MIX_TO_MIX: f64 = 0.12;
/// Prior: the offset, K; each speed as a share of its kind's, and how much they go together; the effect of the fill.
const PRIOR_OFFSET_K: f64 = 0.8;
const PRIOR_SPEED: f64 = 0.35;
const SPEEDS_TOGETHER: f64 = 0.6;
const PRIOR_FILL: f64 = 0.20;
/// Heavy tails: a reading 3 K off counts little.
const TAIL: f64 = 4.0;
const ROUNDS: usize = 20;
/// A reading of less weight does not fit.
const DOUBTFUL_BELOW: f64 = 0.2;
/// The last so many mixes count.
pub const MOST_MIXES: usize = 30;
/// What was poured is mixed in after so long, min: no reading before.
const MIXED_IN_MIN: f64 = 1.5;
/// So many logged mixes lift the cap of friction.
pub const MIXES_TO_BELIEVE: usize = 3;

/// What a thermometer in the dough said.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct MixReading {
    /// Minutes from the first step.
    pub at_min: f64,
    /// The dough, °C.
    pub dough_c: f64,
}

/// A mixing as it went, with its readings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LoggedMix {
    /// Steps and additions as they were.
    pub mixing: Mixing,
    /// In the order of the clock.
    pub readings: Vec<MixReading>,
}

/// A reading that does not fit the others.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BadReading {
    /// Which mix, from 0.
    pub mix: usize,
    /// Which of its readings, from 0.
    pub reading: usize,
    /// What weight it has left, 0 to 1.
    pub weight: f64,
}

/// How sure a speed's figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum HowSure {
    /// By its kind.
    Guess,
    /// From some mixes.
    Fair,
    /// It is known.
    Known,
}

/// What is known of a mixer's friction.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Friction {
    /// The figures: K a minute 60 % full and at 62 % water.
    pub figures: FrictionFigures,
    /// The standard deviation of each.
    pub sd: FrictionFigures,
    /// Their covariance, in the order offset, slow, medium, fast, fill; by hand the offset alone.
    pub covariance: Vec<Vec<f64>>,
    /// Mixes that it was learned from.
    pub mixes: usize,
    /// The least weight of any reading; 1 without readings.
    pub smallest_weight: f64,
    /// Readings that do not fit.
    pub doubtful: Vec<BadReading>,
}

impl Friction {
    /// What is known of a mixer before it is used.
    pub fn prior(kind: Mixer) -> Friction {
        learn_friction(kind, &[])
    }
    /// How sure a speed's figure is.
    pub fn how_sure(&self, speed: Speed) -> HowSure {
        let mean = self.figures.at(speed);
        let share = if mean > 0.0 {
            self.sd.at(speed) / mean
        } else {
            f64::INFINITY
        };
        if share > 0.25 {
            HowSure::Guess
        } else if share > 0.12 {
            HowSure::Fair
        } else {
            HowSure::Known
        }
    }
}

impl Friction {
    /// What it adds at a speed, with how sure: "0.63 ± 0.07 K a minute on medium".
    pub fn adds(&self, speed: Speed) -> Fact {
        let two = |v: f64| Kelvin((v * 100.0).round() / 100.0);
        fact!(
            "mixer-adds",
            k = two(self.figures.at(speed)),
            sd = two(self.sd.at(speed)),
            speed = speed.name()
        )
    }
    /// How sure that is, in words.
    pub fn sureness(&self, speed: Speed) -> Fact {
        match self.how_sure(speed) {
            HowSure::Guess if self.mixes == 0 => fact!("mixer-sure-guess"),
            HowSure::Guess => fact!("mixer-sure-still-guess", n = self.mixes),
            HowSure::Fair => fact!("mixer-sure-fair", n = self.mixes),
            HowSure::Known => fact!("mixer-sure-known", n = self.mixes),
        }
    }
}

fn unit(j: usize) -> FrictionFigures {
    let mut t = [0.0; 5];
    t[j] = 1.0;
    of_array(&t)
}
fn of_array(t: &[f64]) -> FrictionFigures {
    let at = |i: usize| t.get(i).copied().unwrap_or(0.0);
    FrictionFigures {
        offset_k: at(0),
        slow: at(1),
        medium: at(2),
        fast: at(3),
        fill_effect: at(4),
    }
}
fn to_vector(f: &FrictionFigures, n: usize) -> DVector<f64> {
    let all = [f.offset_k, f.slow, f.medium, f.fast, f.fill_effect];
    DVector::from_iterator(n, all.into_iter().take(n))
}

/// How many figures are learned: by hand, the offset alone.
fn figures_of(kind: Mixer) -> usize {
    if kind == Mixer::Hand { 1 } else { 5 }
}

/// The covariance before any mix.
fn prior_covariance(kind: Mixer) -> DMatrix<f64> {
    let n = figures_of(kind);
    let of_kind = to_vector(&FrictionFigures::of(kind), n);
    DMatrix::from_fn(n, n, |i, j| match (i, j) {
        (0, 0) => PRIOR_OFFSET_K * PRIOR_OFFSET_K,
        (4, 4) => PRIOR_FILL * PRIOR_FILL,
        (1..=3, 1..=3) => {
            let together = if i == j { 1.0 } else { SPEEDS_TOGETHER };
            together * PRIOR_SPEED * of_kind[i] * PRIOR_SPEED * of_kind[j]
        }
        _ => 0.0,
    })
}

/// One mix, seen as linear in the figures.
struct Linear {
    /// Which reading each row is.
    rows: Vec<usize>,
    x: DMatrix<f64>,
    z: DVector<f64>,
    /// What the offset does, and what friction as expected does.
    shared: DMatrix<f64>,
    weight: DVector<f64>,
}

impl Linear {
    fn of(mix: &LoggedMix, n: usize) -> Option<Linear> {
        let of_kind = FrictionFigures::of(mix.mixing.kind);
        let nothing = trace_uncapped(&mix.mixing, &FrictionFigures::NONE);
        let responses: Vec<BowlTrace> = (0..n)
            .map(|j| trace_uncapped(&mix.mixing, &unit(j)))
            .collect();
        let usable = |r: &MixReading| is_mixed_in(&mix.mixing, r.at_min);
        let mut rows = vec![];
        let (mut x, mut z) = (vec![], vec![]);
        for (i, r) in mix.readings.iter().enumerate() {
            let Some(base) = nothing.at(r.at_min).filter(|_| usable(r)) else {
                continue;
            };
            rows.push(i);
            z.push(r.dough_c - base);
            x.extend(
                responses
                    .iter()
                    .map(|t| t.at(r.at_min).unwrap_or(base) - base),
            );
        }
        if rows.is_empty() {
            return None;
        }
        let x = DMatrix::from_row_slice(rows.len(), n, &x);
        let mut as_expected = to_vector(&of_kind, n);
        as_expected[0] = 0.0;
        let mut shared = DMatrix::zeros(rows.len(), 2);
        shared.set_column(0, &(x.column(0) * START_K));
        shared.set_column(1, &(&x * as_expected * MIX_TO_MIX));
        Some(Linear {
            weight: DVector::from_element(rows.len(), 1.0),
            z: DVector::from_vec(z),
            rows,
            x,
            shared,
        })
    }

    /// The inverse of the covariance of its readings.
    fn precision(&self) -> DMatrix<f64> {
        let own = self.weight.map(|w| READING_K * READING_K / w);
        let v = DMatrix::from_diagonal(&own) + &self.shared * self.shared.transpose();
        inverse(v)
    }

    /// Weighs readings anew by what is left of them beside figures and what the mix shares.
    fn weigh(&mut self, theta: &DVector<f64>) {
        let e = &self.z - &self.x * theta;
        let of_mix = &self.shared * (self.shared.transpose() * (self.precision() * &e));
        let own = e - of_mix;
        self.weight = own.map(|k| ((TAIL + 1.0) / (TAIL + (k / READING_K).powi(2))).min(1.0));
    }
}

/// A covariance is positive: its inverse exists.
fn inverse(m: DMatrix<f64>) -> DMatrix<f64> {
    let n = m.nrows();
    match m.cholesky() {
        Some(c) => c.inverse(),
        None => DMatrix::zeros(n, n),
    }
}

/// Whether a reading is of a dough in which what was poured last is mixed in.
pub(super) fn is_mixed_in(mixing: &Mixing, at_min: f64) -> bool {
    let mut begin = 0.0;
    for s in &mixing.steps {
        let since = at_min - begin;
        if !s.add.is_empty() && since > 1e-9 && since < MIXED_IN_MIN - 1e-9 {
            return false;
        }
        begin += s.minutes;
    }
    true
}

/// What so many logged mixes of one mixer teach about its friction; with none, what its kind says.
///
/// The order of the mixes does not matter; only the last thirty that are handed in count.
pub fn learn_friction(kind: Mixer, mixes: &[LoggedMix]) -> Friction {
    let n = figures_of(kind);
    let skipped = mixes.len().saturating_sub(MOST_MIXES);
    let mut all: Vec<(usize, Linear)> = mixes
        .iter()
        .enumerate()
        .skip(skipped)
        .filter_map(|(i, m)| Some((i, Linear::of(m, n)?)))
        .collect();
    let prior = prior_covariance(kind);
    let prior_precision = inverse(prior.clone());
    let mut expected = to_vector(&FrictionFigures::of(kind), n);
    expected[0] = 0.0;
    let from_prior = &prior_precision * &expected;
    let (mut theta, mut covariance) = (expected, prior);
    if !all.is_empty() {
        for _ in 0..ROUNDS {
            let mut precision = prior_precision.clone();
            let mut right = from_prior.clone();
            for (_, m) in &all {
                let weighed = m.x.transpose() * m.precision();
                precision += &weighed * &m.x;
                right += weighed * &m.z;
            }
            covariance = inverse(precision);
            theta = &covariance * right;
            for (_, m) in &mut all {
                m.weigh(&theta);
            }
        }
    }
    let weights = all.iter().flat_map(|(i, m)| {
        let each = m.rows.iter().zip(m.weight.iter());
        each.map(|(&reading, &weight)| BadReading {
            mix: *i,
            reading,
            weight,
        })
    });
    let weights: Vec<BadReading> = weights.collect();
    Friction {
        figures: of_array(theta.as_slice()),
        sd: of_array(covariance.diagonal().map(f64::sqrt).as_slice()),
        covariance: covariance
            .row_iter()
            .map(|r| r.iter().copied().collect())
            .collect(),
        mixes: all.len(),
        smallest_weight: weights.iter().map(|b| b.weight).fold(1.0, f64::min),
        doubtful: weights
            .into_iter()
            .filter(|b| b.weight < DOUBTFUL_BELOW)
            .collect(),
    }
}

/// How sure the end of a mixing is, K: one standard deviation, of the figures, of its start and of what differs from mix to mix.
///
/// A mixing that goes on from a reading does so with the reading's own doubt in place of the start's.
pub fn sure_of_end(mixing: &Mixing, friction: &Friction) -> f64 {
    let n = friction.covariance.len();
    let end = |f: &FrictionFigures| trace_uncapped(mixing, f).end_c;
    let base = end(&FrictionFigures::NONE);
    let mut x = DVector::from_iterator(n, (0..n).map(|j| end(&unit(j)) - base));
    let mut of_start = START_K * x[0];
    if let Some(from) = &mixing.from {
        // The offset was in the reading; what a degree of the reading does at the end is what its doubt does.
        x[0] = 0.0;
        let mut warmer = mixing.clone();
        warmer.from = Some(super::StandingDough {
            dough_c: from.dough_c + 1.0,
            ..from.clone()
        });
        of_start = READING_K * (trace_uncapped(&warmer, &FrictionFigures::NONE).end_c - base);
    }
    let mut without_offset = to_vector(&friction.figures, n);
    without_offset[0] = 0.0;
    let heat_k = (&x.transpose() * without_offset)[(0, 0)];
    let of_figures = {
        let c = DMatrix::from_fn(n, n, |i, j| friction.covariance[i][j]);
        (&x.transpose() * c * &x)[(0, 0)]
    };
    (of_figures + of_start * of_start + (MIX_TO_MIX * heat_k).powi(2)).sqrt()
}
