//! What several flours come to together.

use super::FlourPart;
use crate::rise::ripeness::stickiness_limit;
use serde::{Deserialize, Serialize};

/// A blend, weighted by share.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Blend {
    /// W, 80 to 450.
    pub w: f64,
    /// How far W may be off, because some flour's is guessed from its protein; 0 when all are known.
    pub w_spread: f64,
    /// Absent unless every flour's protein is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub protein_percent: Option<f64>,
    /// Water that it takes, % of it; absent where no flour says it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub absorption_percent: Option<f64>,
    /// Tenacity over extensibility; absent unless every flour's is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pl: Option<f64>,
    /// Whole grain in it, %.
    pub whole_percent: f64,
    /// The wettest that this strength carries without sticking, % water.
    pub carries_percent: f64,
}

/// Blends by share; the shares need not sum to 100.
pub fn blend(parts: &[FlourPart]) -> Blend {
    let whole: f64 = parts.iter().map(|p| p.share_percent).sum();
    let weighted = |v: &dyn Fn(&FlourPart) -> f64| {
        if whole > 0.0 {
            parts.iter().map(|p| p.share_percent * v(p)).sum::<f64>() / whole
        } else {
            0.0
        }
    };
    let known = |v: &dyn Fn(&FlourPart) -> Option<f64>| {
        let all = whole > 0.0
            && parts
                .iter()
                .all(|p| p.share_percent == 0.0 || v(p).is_some());
        all.then(|| weighted(&|p| v(p).unwrap_or(0.0)))
    };
    let w = weighted(&|p| p.facts.strength().w).clamp(80.0, 450.0);
    Blend {
        w,
        w_spread: weighted(&|p| p.facts.strength().spread),
        protein_percent: known(&|p| p.facts.protein_percent),
        absorption_percent: known(&|p| p.facts.absorption_percent),
        pl: known(&|p| p.facts.pl),
        whole_percent: weighted(&|p| p.facts.whole()),
        carries_percent: stickiness_limit(w),
    }
}
