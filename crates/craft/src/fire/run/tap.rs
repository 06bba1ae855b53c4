//! Taps as they are kept, and why one is refused.

use super::verdict::Verdict;
use crate::fact;
use crate::fact::Fact;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// What was tapped.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum TapKind {
    /// It went in.
    In,
    /// It was turned.
    Turned,
    /// It came out.
    Out,
    /// What was seen of it.
    Verdict(Verdict),
    /// Takes back the last In, turn or Out of that pizza.
    Undone,
}

/// One tap, with the pizza it is about and the moment it was made.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Tap {
    /// Which one, from 1.
    pub pizza: u32,
    /// When.
    pub at: Timestamp,
    /// What was tapped.
    #[serde(flatten)]
    pub kind: TapKind,
}

/// Why a tap is not kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TapRefused {
    /// This one is still in.
    StillIn(u32),
    /// So many spots, all taken.
    Full(u32),
    /// On another device.
    WentIn(u32),
    /// There is nothing of this one to take back.
    NothingToUndo(u32),
    /// None is in.
    NoneIn,
    /// This one is out already.
    AlreadyOut(u32),
    /// There is no such one.
    Unknown(u32),
    /// That would be before this one went in.
    BeforeIn(u32),
    /// Two within a second.
    Double,
    /// The batch is closed.
    Closed,
}

impl TapRefused {
    /// What to say, with the number of the pizza.
    pub fn fact(&self) -> Fact {
        match self {
            TapRefused::StillIn(n) => fact!("tap-still-in", n = *n),
            TapRefused::Full(n) => fact!("tap-full", n = *n),
            TapRefused::WentIn(n) => fact!("tap-went-in", n = *n),
            TapRefused::NothingToUndo(n) => fact!("tap-nothing-to-undo", n = *n),
            TapRefused::NoneIn => fact!("tap-none-in"),
            TapRefused::AlreadyOut(n) => fact!("tap-already-out", n = *n),
            TapRefused::Unknown(n) => fact!("tap-unknown", n = *n),
            TapRefused::BeforeIn(n) => fact!("tap-before-in", n = *n),
            TapRefused::Double => fact!("tap-double"),
            TapRefused::Closed => fact!("tap-closed"),
        }
    }
}
