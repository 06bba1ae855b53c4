//! One pizza of a run.

use super::verdict::Verdict;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// One pizza as the taps tell it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Pizza {
    /// Which one, from 1.
    pub number: u32,
    /// Where it lies, from 0: the first free spot when it went in.
    #[serde(default)]
    pub spot: u32,
    /// When it went in.
    pub in_at: Timestamp,
    /// When it was turned, in the order of the clock.
    pub turned_at: Vec<Timestamp>,
    /// When it came out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub out_at: Option<Timestamp>,
    /// What was seen of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub verdict: Option<Verdict>,
    /// Another device tapped In for it, later: the earlier one stands.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub also_in_at: Option<Timestamp>,
}

impl Pizza {
    /// When it was last put in, turned or taken out.
    pub fn last_act(&self) -> Timestamp {
        let turned = self.turned_at.last().copied();
        self.out_at.or(turned).unwrap_or(self.in_at)
    }
    /// Seconds in the oven, once it is out.
    pub fn baked_s(&self) -> Option<f64> {
        self.out_at
            .map(|o| o.duration_since(self.in_at).as_secs_f64())
    }
}
