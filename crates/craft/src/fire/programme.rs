//! Bake time and turns by style, from a table.
//!
//! Source: craft notes, sections 1 and 6; a single turn stands at about 0.7 of the bake (design brief, 19).
//! Seconds from In. Limits: an oven at the style's usual temperatures, one pizza at a time, full recovery.

use crate::style::StyleKey;
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

/// The programme of a style.
pub fn programme(style: StyleKey) -> Programme {
    let turns = |t: &[(u32, Cue)]| t.iter().map(|&(at_s, say)| Turn { at_s, say }).collect();
    match style {
        StyleKey::HotRound => Programme {
            turns: turns(&[(28, Cue::QuarterTurn), (46, Cue::QuarterTurn), (62, Cue::QuarterTurn)]),
            out_s: 78,
            from_s: 65,
            to_s: 90,
            chars_s: 100,
            why: "Flame at one side: first look at 20 to 30 s, then every 15 to 30 s; floor 380 to 430 °C.".into(),
        },
        StyleKey::HomeRound => Programme {
            turns: turns(&[(250, Cue::HalfTurn)]),
            out_s: 360,
            from_s: 300,
            to_s: 420,
            chars_s: 510,
            why: "Steel at 270 °C under the grill: 3 to 8 min, one turn at 0.7 of the bake.".into(),
        },
        StyleKey::WetTray => Programme {
            turns: turns(&[(480, Cue::HalfTurn), (840, Cue::OntoSteel)]),
            out_s: 990,
            from_s: 900,
            to_s: 1080,
            chars_s: 1260,
            why: "Tray on steel at 290 °C: 14 to 18 min, turned half way, 2 to 3 min bare to crisp.".into(),
        },
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn cues_come_in_order_and_before_out() {
        for key in StyleKey::ALL {
            let p = programme(key);
            let mut last = 0;
            for t in &p.turns {
                assert!(t.at_s > last && t.at_s < p.from_s, "{key:?}");
                last = t.at_s;
            }
            assert!(
                p.from_s < p.out_s && p.out_s < p.to_s && p.to_s < p.chars_s,
                "{key:?}"
            );
        }
    }
}
