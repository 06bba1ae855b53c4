//! Flour: what is known of one, and what a blend of several comes to.
//!
//! Question: how strong is this flour or blend, how much water does it take, how much of it is whole grain?
//! Input: facts from the bag (protein %, W in 1e-4 J, absorption %), shares in %. Output: the same figures for
//! the blend, weighted by share; where only protein is known, W as a guess with its spread. Source: craft notes,
//! section 1. Limits: W of a blend is taken as linear in the shares, which is the trade's working rule.

mod blend;
pub mod substitute;

use crate::fact;
use crate::fact::{Fact, Value};
pub use blend::{Blend, blend};

use crate::refusal::Check;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a flour is milled from and how far.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum FlourKind {
    /// Fine soft-wheat flour, type 00 or 0.
    #[default]
    SoftFine,
    /// Bread flour of hard wheat.
    HardBread,
    /// Type 1 or 2.
    HalfWhite,
    /// Wholemeal wheat.
    Wholemeal,
    /// Durum semolina, twice milled.
    Semolina,
    /// Spelt.
    Spelt,
    /// Rye.
    Rye,
    /// Vital wheat gluten.
    Gluten,
}

impl FlourKind {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            FlourKind::SoftFine => fact!("flour-soft-fine"),
            FlourKind::HardBread => fact!("flour-bread"),
            FlourKind::HalfWhite => fact!("flour-type-1-2"),
            FlourKind::Wholemeal => fact!("flour-wholemeal"),
            FlourKind::Semolina => fact!("flour-semolina"),
            FlourKind::Spelt => fact!("flour-spelt"),
            FlourKind::Rye => fact!("flour-rye"),
            FlourKind::Gluten => fact!("flour-gluten"),
        }
    }
    /// Share of whole grain where the bag does not say, %.
    pub fn usual_whole_percent(self) -> f64 {
        match self {
            FlourKind::Wholemeal => 100.0,
            FlourKind::HalfWhite => 30.0,
            _ => 0.0,
        }
    }
}

/// What a bag says. Everything but the kind may be unknown.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FlourFacts {
    /// What it is milled from.
    #[serde(default)]
    pub kind: FlourKind,
    /// Alveograph W, 80 to 450 (1e-4 J).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub w: Option<f64>,
    /// 5 to 18 %; vital gluten 60 to 90 %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub protein_percent: Option<f64>,
    /// Tenacity over extensibility, 0.2 to 3.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pl: Option<f64>,
    /// Water the mill's test takes, 40 to 90 % (gluten up to 200).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub absorption_percent: Option<f64>,
    /// Whole grain in it, 0 to 100 %; by kind when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub whole_percent: Option<f64>,
}

/// W, with how far it may be off.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Strength {
    /// W, 80 to 450.
    pub w: f64,
    /// 0 where the bag says W.
    pub spread: f64,
}

/// W at 9 % protein and W per point of protein: craft notes, section 1 (W 150 to 420 over 9 to 15 %).
const W_AT_9: f64 = 150.0;
const W_PER_POINT: f64 = (420.0 - 150.0) / (15.0 - 9.0);
/// Two flours of one W may differ by 1.5 points of protein: half of that either way (same source).
const POINTS_EITHER_WAY: f64 = 0.75;
/// Taken where neither is known: the middle of what is sold for pizza, with nearly all of its width.
const UNKNOWN: Strength = Strength {
    w: 265.0,
    spread: 85.0,
};

impl FlourFacts {
    /// A white flour of that W, nothing else known.
    pub fn of_w(w: f64) -> FlourFacts {
        FlourFacts {
            w: Some(w),
            ..FlourFacts::default()
        }
    }
    /// W as the bag says it, or a guess from protein with its spread.
    pub fn strength(&self) -> Strength {
        if let Some(w) = self.w {
            return Strength { w, spread: 0.0 };
        }
        let Some(p) = self.protein_percent else {
            return UNKNOWN;
        };
        let w = W_AT_9 + W_PER_POINT * (p - 9.0);
        let spread = W_PER_POINT * POINTS_EITHER_WAY;
        match self.kind {
            // Gluten lifts a blend by the protein that it brings: the line is followed beyond its end.
            FlourKind::Gluten => Strength { w, spread },
            // Bran and germ carry protein that makes no gluten.
            FlourKind::Rye => Strength { w: 80.0, spread },
            _ => Strength {
                w: w.clamp(80.0, 450.0),
                spread,
            },
        }
    }
    /// Whole grain as a share, 0 to 1: what is said, else what its kind has.
    pub fn whole(&self) -> f64 {
        self.whole_percent
            .unwrap_or(self.kind.usual_whole_percent())
    }

    /// Adds what is wrong with these facts; fields are named below `path`.
    pub fn check_into(&self, c: &mut Check, path: &str) {
        let gluten = self.kind == FlourKind::Gluten;
        let field = |name: &str| {
            if path.is_empty() {
                name.to_string()
            } else {
                format!("{path}.{name}")
            }
        };
        let mut some = |name: &str,
                        what: Fact,
                        v: Option<f64>,
                        low: f64,
                        high: f64,
                        unit: fn(f64) -> Value| {
            if let Some(v) = v {
                c.range(&field(name), what, v, low, high, unit);
            }
        };
        some(
            "w",
            fact!("f-strength-w"),
            self.w,
            80.0,
            450.0,
            Value::Number,
        );
        let (low, high) = if gluten { (60.0, 90.0) } else { (5.0, 18.0) };
        some(
            "protein_percent",
            fact!("f-protein"),
            self.protein_percent,
            low,
            high,
            Value::Percent,
        );
        some("pl", fact!("f-p-l"), self.pl, 0.2, 3.0, Value::Number);
        let most = if gluten { 200.0 } else { 90.0 };
        some(
            "absorption_percent",
            fact!("f-absorption"),
            self.absorption_percent,
            40.0,
            most,
            Value::Percent,
        );
        some(
            "whole_percent",
            fact!("f-whole-grain"),
            self.whole_percent,
            0.0,
            100.0,
            Value::Percent,
        );
    }
}

/// One flour of a formula, with its facts as they were when it was chosen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FlourPart {
    /// As its owner calls it.
    pub name: String,
    /// Of all flour, 0 to 100 %.
    pub share_percent: f64,
    /// What is known of it.
    #[serde(default)]
    pub facts: FlourFacts,
    /// The kitchen's own flour that this is, where it is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pantry: Option<u64>,
}

impl FlourPart {
    /// The only flour of a formula, known by its strength alone.
    pub fn only(w: f64) -> FlourPart {
        FlourPart {
            name: format!("Flour W {}", crate::number::plain(w)),
            share_percent: 100.0,
            facts: FlourFacts::of_w(w),
            pantry: None,
        }
    }
    /// Whether a name is that of [`FlourPart::only`]: no flour that anybody has, but what stands in for one.
    pub fn stands_in(name: &str) -> bool {
        let name = name.trim();
        let mut begins = ["Flour W ", "Farina W "].into_iter();
        let w = begins.find_map(|b| name.strip_prefix(b));
        w.is_some_and(|w| w.parse::<f64>().is_ok())
    }
}

#[cfg(test)]
mod tests;
