//! The bake of one piece: when to turn it, when it is done. Styles carry one as data.
//!
//! Source: craft notes, sections 1 and 6; bake model, section 9. Seconds from In. A style carries one for an oven at its
//! usual temperatures; a plan of the fire fills another from the model. The shapes are data (`programmes.json`).

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A cue during the bake.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Turn {
    /// Seconds after In.
    pub at_s: u32,
    /// What to do, in words of the bench.
    pub say: Cue,
}

/// What a cue asks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Cue {
    /// Turn it by a quarter.
    QuarterTurn,
    /// Turn it by half.
    HalfTurn,
    /// Out of the tray, onto the bare steel.
    OntoSteel,
    /// Push it to the back.
    ToTheBack,
    /// Put the cheese on.
    CheeseOn,
    /// Lift it under the flame.
    UnderFlame,
}

impl Cue {
    /// A word or two for the line of the bake.
    pub fn short(self) -> Fact {
        match self {
            Cue::QuarterTurn | Cue::HalfTurn => fact!("cue-short-turn"),
            Cue::OntoSteel => fact!("cue-short-bare"),
            Cue::ToTheBack => fact!("cue-short-back"),
            Cue::CheeseOn => fact!("cue-short-cheese"),
            Cue::UnderFlame => fact!("cue-short-flame"),
        }
    }
    /// What to do, in words.
    pub fn words(self) -> Fact {
        match self {
            Cue::ToTheBack => fact!("cue-back"),
            Cue::CheeseOn => fact!("cue-cheese"),
            Cue::UnderFlame => fact!("cue-under-flame"),
            Cue::QuarterTurn => fact!("cue-quarter"),
            Cue::HalfTurn => fact!("cue-half"),
            Cue::OntoSteel => fact!("cue-onto-steel"),
        }
    }
}

/// The bake of one piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Programme {
    /// What is done on the way, in the order of the clock.
    pub turns: Vec<Turn>,
    /// When it is expected to be done, and the usual band around it, s.
    pub out_s: u32,
    /// First second of the usual band.
    pub from_s: u32,
    /// Last second of the usual band.
    pub to_s: u32,
    /// From here on it burns, s.
    pub chars_s: u32,
    /// Where the figures come from, in one line.
    pub why: Fact,
}

impl Programme {
    /// Seconds stand in their order and within two hours.
    pub fn check(&self) -> Result<(), Fact> {
        let mut last = 0;
        for t in &self.turns {
            if t.at_s <= last || t.at_s >= self.out_s {
                return Err(fact!("turns-before-out"));
            }
            last = t.at_s;
        }
        let in_order =
            self.from_s <= self.out_s && self.out_s <= self.to_s && self.to_s < self.chars_s;
        if self.from_s < 20 || !in_order || self.chars_s > 7200 || self.turns.len() > 20 {
            return Err(fact!("bake-20s-2h"));
        }
        Ok(())
    }
}

/// When a cue of a shape stands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum When {
    /// At a share of the bake.
    Share {
        /// From 0 to 1.
        share: f64,
    },
    /// So long before it is out.
    Last {
        /// Seconds.
        last_s: f64,
    },
}

/// "The last 90 s" are never more than this share of a bake.
const LAST_SHARE: f64 = 0.6;

/// One cue of a shape.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct ShapeCue {
    /// When it is said.
    #[serde(flatten)]
    pub when: When,
    /// What is said.
    pub say: Cue,
}

/// A way to bake, before it has its seconds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Turning {
    /// Its key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// How it goes, in one line.
    pub line: String,
    /// What is done on the way.
    pub cues: Vec<ShapeCue>,
}

static SHAPES: LazyLock<Vec<Turning>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("programmes.json")).expect("programmes.json holds shapes")
});

/// The shapes that ship with the product.
pub fn shapes() -> &'static [Turning] {
    &SHAPES
}
/// The way of turning of that key.
pub fn shape(key: &str) -> Option<&'static Turning> {
    SHAPES.iter().find(|s| s.key == key)
}

impl Turning {
    /// Whether a cue counts back from the end.
    pub(super) fn counts_back(&self) -> bool {
        self.cues
            .iter()
            .any(|c| matches!(c.when, When::Last { .. }))
    }
    /// Its cues in a bake of this length, to the second; those that find no room are left out.
    pub fn turns(&self, out_s: f64) -> Vec<Turn> {
        let mut out: Vec<Turn> = Vec::new();
        for c in &self.cues {
            let at = match c.when {
                When::Share { share } => share * out_s,
                // In a short bake the last part is a share of it: the cue comes all the same.
                When::Last { last_s } => out_s - last_s.min(LAST_SHARE * out_s),
            };
            let at_s = at.round().max(1.0) as u32;
            if f64::from(at_s) < out_s {
                out.push(Turn { at_s, say: c.say });
            }
        }
        out.sort_by_key(|t| t.at_s);
        // Two cues of one second are one after the other.
        for i in 1..out.len() {
            out[i].at_s = out[i].at_s.max(out[i - 1].at_s + 1);
        }
        out.retain(|t| f64::from(t.at_s) < out_s);
        out
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
