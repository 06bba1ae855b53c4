//! A run of pizzas, told from the taps: In, Turned, Out, verdict.
//!
//! Taps are kept as they came and never changed; this folds them into pizzas and figures, by the clock. A tap that makes
//! no sense when it arrives (a turn before In, Out twice) is refused before it is kept; what was kept is never dropped
//! because a tablet without a line brings an earlier tap late.

mod fold;
mod pizza;
mod summary;
mod tap;
mod verdict;

pub use fold::Run;
pub use pizza::Pizza;
pub use summary::{RunSummary, most_often_off};
pub use tap::{Tap, TapKind, TapRefused};
pub use verdict::{Shade, Verdict};

#[cfg(test)]
mod tests;
