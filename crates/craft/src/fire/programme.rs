//! The bake of one piece: when to turn it, when it is done. Styles carry one as data.
//!
//! Source: craft notes, sections 1 and 6; a single turn stands at about 0.7 of the bake (design brief, 19).
//! Seconds from In. Limits: an oven at the style's usual temperatures, one pizza at a time, full recovery.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A cue during the bake.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Turn {
    /// Seconds after In.
    pub at_s: u32,
    /// What to do, in words of the bench.
    pub say: Cue,
}

/// What a cue asks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cue {
    QuarterTurn,
    HalfTurn,
    /// Out of the tray, onto the bare steel.
    OntoSteel,
}

impl Cue {
    pub fn words(self) -> &'static str {
        match self {
            Cue::QuarterTurn => "a quarter turn",
            Cue::HalfTurn => "half way round",
            Cue::OntoSteel => "out of the tray, onto the bare steel",
        }
    }
}

/// The bake of one piece.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct Programme {
    pub turns: Vec<Turn>,
    /// When it is expected to be done, and the usual band around it, s.
    pub out_s: u32,
    pub from_s: u32,
    pub to_s: u32,
    /// From here on it burns, s.
    pub chars_s: u32,
    /// Where the figures come from, in one line.
    pub why: String,
}

impl Programme {
    /// Seconds stand in their order and within two hours.
    pub fn check(&self) -> Result<(), String> {
        let mut last = 0;
        for t in &self.turns {
            if t.at_s <= last || t.at_s >= self.out_s {
                return Err("Turns come one after the other, before Out.".into());
            }
            last = t.at_s;
        }
        let in_order =
            self.from_s <= self.out_s && self.out_s <= self.to_s && self.to_s < self.chars_s;
        if self.from_s < 20 || !in_order || self.chars_s > 7200 || self.turns.len() > 20 {
            return Err("A bake is done after 20 s to 2 h, and chars after that.".into());
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn cues_out_of_order_are_refused() {
        let good = crate::style::first().bake.clone();
        assert!(good.check().is_ok());
        let mut bad = good.clone();
        bad.turns.reverse();
        assert!(bad.check().is_err());
        assert!(
            Programme {
                chars_s: 10,
                ..good
            }
            .check()
            .is_err()
        );
    }
}
