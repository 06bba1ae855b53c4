//! Fire: how long it bakes and when it is turned, and what happened in the oven.
//!
//! Bake times come from a table by style for now; the oven model takes its place later.

pub mod judge;
pub mod programme;
pub mod run;

pub use programme::{Programme, Turn};
pub use run::{Pizza, Run, RunSummary, Shade, Tap, TapKind, Verdict};
