//! A mixing as it went: told from the taps of whoever stands at the bowl.
//!
//! Taps are entries like any other: kept as they came, folded by the clock. What makes no sense when it arrives is refused
//! before it is kept; a wrong one is taken back by another entry.

mod fold;
mod tap;

pub use fold::{BowlReading, MixChoice, MixRun, WaterIn};
pub use tap::{MixAct, MixInput, MixRefused, MixTap, MixTrouble};

#[cfg(test)]
mod tests;
