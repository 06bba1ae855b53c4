//! What was seen of a pizza: base and top, pale, right or dark.

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// How dark one side came out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Shade {
    /// Too pale.
    Pale,
    /// Right.
    Right,
    /// Too dark.
    Dark,
}

impl Shade {
    /// The word for it.
    pub fn name(self) -> Fact {
        match self {
            Shade::Pale => fact!("shade-pale"),
            Shade::Right => fact!("shade-right"),
            Shade::Dark => fact!("shade-dark"),
        }
    }
}

/// What was seen: base and top.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Verdict {
    /// Of the base.
    pub base: Shade,
    /// Of the top.
    pub top: Shade,
}

impl Verdict {
    /// Right on both sides.
    pub const RIGHT: Verdict = Verdict {
        base: Shade::Right,
        top: Shade::Right,
    };

    /// "base pale, top right".
    pub fn fact(self) -> Fact {
        fact!("verdict", base = self.base.name(), top = self.top.name())
    }
}
