//! A dough that is divided, as it went: told from the taps of whoever stands at the scale and at the boxes.
//!
//! Taps are entries like any other: kept as they came, folded by the clock. A piece that was wrong is taken back by another entry.

mod fold;
mod tap;

pub use fold::{BoxTold, PieceMade, ShapeRun};
pub use tap::{BenchFlour, BoxKind, ShapeAct, ShapeRefused, ShapeTap};

#[cfg(test)]
mod tests;
