//! How lively is this leaven really? One number, fitted to what a maker saw.
//!
//! "It was ready at 18:10", or "the marked tub had grown to 1.6 times at 14:00": the vigour at which the model says the
//! same is found by halving on a logarithmic scale. Source: fermentation model, section 12.1. It tells of the leaven, the
//! thermometer and the maker's eye together; one observation is worth about ×/÷ 1.3.

use super::forecast::{Temperatures, hand_overs, quick_at};
use super::memo::PrefermentRuns;
use super::request::RiseRequest;
use crate::fact;
use crate::fact::{Value, hours};
use crate::reading::GROWN;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// Vigour is looked for within this (section 12.1).
pub const LEAST: f64 = 0.5;
/// No vigour is fitted above it.
pub const MOST: f64 = 2.0;
const HALVINGS: usize = 24;

/// What was seen.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Sign {
    /// It was ready as intended.
    Ready,
    /// The dough in a marked tub stood at so many times its first volume, 1.05 to 4.
    Grown {
        /// Of its first height.
        times: f64,
    },
}

/// What was seen of a dough, and when.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct VigourRequest {
    /// The dough as it was planned.
    pub dough: RiseRequest,
    /// Hours since the end of mixing.
    pub at_h: f64,
    /// What was seen.
    pub sign: Sign,
}

/// The fitted number.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct VigourAnswer {
    /// Times as lively as the request said; the vigour to note is this times the former one.
    pub factor: f64,
    /// The model's figure for the sign before the fit: ripeness, or volume.
    pub foreseen: f64,
    /// What was seen lies beyond half or double vigour; the factor stands at the limit.
    pub at_limit: bool,
}

/// The vigour to note for a leaven that had one and was found so many times as lively: in steps of 0.05, since one
/// observation tells no more, within what is accepted.
pub fn to_note(former: f64, factor: f64) -> f64 {
    ((former * factor).clamp(0.2, 1.5) * 20.0).round() / 20.0
}

/// A dough with all its leavening so many times as lively.
pub(crate) fn enlivened(r: &RiseRequest, factor: f64) -> RiseRequest {
    let mut r = r.clone();
    let scale = |r: &mut RiseRequest| {
        // Vigour only ever stands before the dose: scaling both ways keeps the accepted range of each.
        r.yeast_percent *= factor;
        r.leaven_vigour = (r.leaven_vigour * factor).clamp(0.2, 1.5);
    };
    scale(&mut r);
    for p in &mut r.preferments {
        scale(&mut p.recipe);
    }
    r
}

/// Fits the vigour to a sign.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn fit_vigour(q: &VigourRequest, from: Temperatures) -> Result<VigourAnswer, ValidationError> {
    q.dough.check(true).map_err(|e| e.below("dough"))?;
    let mut c = Check::new();
    c.range(
        "at_h",
        fact!("f-hours-after-mixing"),
        q.at_h,
        0.25,
        336.0,
        hours,
    );
    if let Sign::Grown { times } = q.sign {
        c.range(
            "sign.times",
            fact!("f-the-tub"),
            times,
            *GROWN.start(),
            *GROWN.end(),
            Value::Number,
        );
    }
    c.done()?;
    let want = match q.sign {
        Sign::Ready => 1.0,
        Sign::Grown { times } => times,
    };
    let runs = PrefermentRuns::default();
    let shows = |factor: f64| {
        let r = enlivened(&q.dough, factor);
        let (gas, volume) = quick_at(&r, from, &hand_overs(&r, from, &runs), q.at_h);
        match q.sign {
            Sign::Ready => gas,
            Sign::Grown { .. } => volume,
        }
    };
    let foreseen = shows(1.0);
    let (mut low, mut high) = (LEAST, MOST);
    if shows(low) >= want {
        return Ok(VigourAnswer {
            factor: LEAST,
            foreseen,
            at_limit: true,
        });
    }
    if shows(high) < want {
        return Ok(VigourAnswer {
            factor: MOST,
            foreseen,
            at_limit: true,
        });
    }
    for _ in 0..HALVINGS {
        let mid = (low * high).sqrt();
        if shows(mid) >= want {
            high = mid;
        } else {
            low = mid;
        }
        if high / low < 1.001 {
            break;
        }
    }
    Ok(VigourAnswer {
        factor: high,
        foreseen,
        at_limit: false,
    })
}
