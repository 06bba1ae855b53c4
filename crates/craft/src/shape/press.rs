//! What a press test tells of a flour: one factor is moved, by how likely the answer was.
//!
//! A finger's opinion is good to a quarter (assumed). Source: mixing and shaping, section 11.

use crate::fact;
use crate::fact::{Fact, Percent};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a finger sees, 1 cm deep.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum PressSign {
    /// It springs back.
    Springs,
    /// It holds.
    Holds,
    /// It flows.
    Flows,
}

impl PressSign {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            PressSign::Springs => fact!("press-springs"),
            PressSign::Holds => fact!("press-holds"),
            PressSign::Flows => fact!("press-flows"),
        }
    }
    /// What the book expects of a ball: how far it relaxed against its cold, and the strength that is left.
    pub fn expected(relaxed: f64, reserve: f64) -> PressSign {
        if relaxed < 1.0 {
            PressSign::Springs
        } else if reserve < FLOWS_AT {
            PressSign::Flows
        } else {
            PressSign::Holds
        }
    }
}

/// A factor on the book, with how sure.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FlourFactor {
    /// The factor, within 0.5 and 2.
    pub factor: f64,
    /// Standard deviation of its logarithm.
    pub sd_ln: f64,
}

/// What press tests say of a flour, in words: how it relaxes, how long its gluten lasts. Shares are said to five percent.
pub fn flour_said(relaxes: &FlourFactor, lasts: &FlourFactor) -> Vec<Fact> {
    let share = |f: f64| Percent(5.0 * (20.0 * (f - 1.0).abs()).round());
    const SEEN: f64 = 0.05;
    let mut out = vec![match relaxes.factor - 1.0 {
        d if d > SEEN => fact!("flour-relaxes-slower", share = share(relaxes.factor)),
        d if d < -SEEN => fact!("flour-relaxes-faster", share = share(relaxes.factor)),
        _ => fact!("flour-relaxes-so"),
    }];
    match lasts.factor - 1.0 {
        d if d > SEEN => out.push(fact!("flour-lasts-longer", share = share(lasts.factor))),
        d if d < -SEEN => out.push(fact!("flour-lasts-shorter", share = share(lasts.factor))),
        _ => {}
    }
    out
}

/// One press test as it bears on a flour.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FlourTest {
    /// What the finger saw.
    pub sign: PressSign,
    /// How far the dough relaxed by the book, against its cold; none where the test says nothing of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub relaxed: Option<f64>,
    /// Hours of gluten used as a share of what there are; none where the test says nothing of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub used: Option<f64>,
}

/// The press tests of one dough, as they were noted for its flour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PressedDough {
    /// The batch's code.
    pub batch: String,
    /// Its tests.
    pub tests: Vec<FlourTest>,
}

/// What press tests of a flour say together: how slow it relaxes, how long its gluten lasts; none before the first.
pub fn flour_of_tests(tests: &[FlourTest]) -> Option<(FlourFactor, FlourFactor)> {
    let all = tests.iter();
    let relax: Vec<RelaxTest> = all
        .clone()
        .filter_map(|t| Some((t.relaxed?, t.sign)))
        .collect();
    let last: Vec<ReserveTest> = all.filter_map(|t| Some((t.used?, t.sign))).collect();
    (!tests.is_empty()).then(|| (relaxes(&relax), reserve_of(&last)))
}

/// A test of how far a dough relaxed: by the book, against its cold; and what was seen.
pub type RelaxTest = (f64, PressSign);
/// A test of the strength that is left: hours of gluten used as a share of what there are; and what was seen.
pub type ReserveTest = (f64, PressSign);

const RELAX_PRIOR: f64 = 0.30;
const FINGER: f64 = 0.25;
const RESERVE_PRIOR: f64 = 0.25;
/// A dough of so little strength flows, give or take.
const FLOWS_AT: f64 = 0.15;
const FLOWS_SD: f64 = 0.12;
const GRID_END: f64 = 1.2;
const GRID_STEP: f64 = 0.02;

fn normal(x: f64) -> f64 {
    0.5 * libm::erfc(-x / std::f64::consts::SQRT_2)
}

/// The middle and the width of a factor's logarithm under a prior and the likelihood of what was seen.
fn posterior(prior_sd: f64, likelihood: impl Fn(f64) -> f64) -> FlourFactor {
    let n = (2.0 * GRID_END / GRID_STEP).round() as i32;
    let (mut whole, mut first, mut second) = (0.0, 0.0, 0.0);
    for i in 0..=n {
        let ln = -GRID_END + f64::from(i) * GRID_STEP;
        let w = (-0.5 * (ln / prior_sd).powi(2)).exp() * likelihood(ln);
        whole += w;
        first += w * ln;
        second += w * ln * ln;
    }
    // What no flour would do says nothing of this one.
    if whole < 1e-60 {
        return FlourFactor {
            factor: 1.0,
            sd_ln: prior_sd,
        };
    }
    let mean = first / whole.max(f64::MIN_POSITIVE);
    let variance = second / whole.max(f64::MIN_POSITIVE) - mean * mean;
    FlourFactor {
        factor: mean.exp().clamp(0.5, 2.0),
        sd_ln: variance.max(0.0).sqrt(),
    }
}

/// How slow a flour relaxes: 1 by the book. What flows says nothing of it.
pub fn relaxes(tests: &[RelaxTest]) -> FlourFactor {
    posterior(RELAX_PRIOR, |ln| {
        let each = tests.iter().map(|(relaxed, sign)| {
            let springs = normal((ln - relaxed.max(1e-6).ln()) / FINGER);
            match sign {
                PressSign::Springs => springs,
                PressSign::Holds => 1.0 - springs,
                PressSign::Flows => 1.0,
            }
        });
        each.product()
    })
}

/// How long a flour's gluten lasts: 1 by the book. What springs says nothing of it.
pub fn reserve_of(tests: &[ReserveTest]) -> FlourFactor {
    posterior(RESERVE_PRIOR, |ln| {
        let each = tests.iter().map(|(used, sign)| {
            let left = 1.0 - used / ln.exp();
            let flows = normal((FLOWS_AT - left) / FLOWS_SD);
            match sign {
                PressSign::Flows => flows,
                PressSign::Holds => 1.0 - flows,
                PressSign::Springs => 1.0,
            }
        });
        each.product()
    })
}
