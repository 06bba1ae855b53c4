//! The figures of a run, and of several.

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};

/// Figures of a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RunSummary {
    /// So many came out.
    pub out: u32,
    /// Mean bake time of those out, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mean_s: Option<f64>,
    /// Verdicts: rows top pale, right, dark; columns base pale, right, dark.
    pub verdicts: [[u32; 3]; 3],
    /// So many were judged.
    pub judged: u32,
    /// So many were right on both sides.
    pub right: u32,
    /// Mean time from one In to the next, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace_s: Option<f64>,
}

/// What the verdicts of several runs say is off most often, in words, and how often; `None` where nothing was.
pub fn most_often_off(all: &[RunSummary]) -> Option<(Fact, u32)> {
    let sum = |f: fn(&RunSummary) -> u32| all.iter().map(f).sum::<u32>();
    [
        (
            fact!("off-base-pale"),
            sum(|s| s.verdicts.iter().map(|r| r[0]).sum()),
        ),
        (
            fact!("off-base-dark"),
            sum(|s| s.verdicts.iter().map(|r| r[2]).sum()),
        ),
        (fact!("off-top-pale"), sum(|s| s.verdicts[0].iter().sum())),
        (fact!("off-top-dark"), sum(|s| s.verdicts[2].iter().sum())),
    ]
    .into_iter()
    .filter(|(_, n)| *n > 0)
    .reduce(|worst, x| if x.1 > worst.1 { x } else { worst })
}
