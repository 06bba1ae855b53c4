//! What a sheet that was worked out shows, on the Dough sheet, on a batch and on paper: table, judgements, strip, cost.

pub mod paper;
mod shown;
mod table;

pub use shown::{ShownAs, ShownSheet};
