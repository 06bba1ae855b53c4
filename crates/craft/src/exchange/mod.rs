//! Exchange: formulas as files, out and in.
//!
//! | module | answers |
//! |---|---|
//! | `own` | the product's own JSON: everything, exactly |
//! | `bakes` | bakes that are written down afterwards, and a ledger for a spreadsheet |
//! | `csv` | the weighed sheet for a spreadsheet |
//! | `recipe_ld` | schema.org Recipe as JSON-LD: what other programs read; read back through [`crate::paste`] |

pub mod bakes;
mod csv;
pub mod late_seen;
mod own;
mod recipe_ld;

pub use csv::sheet_as_csv;
pub use own::{FORMAT, FormulaFile, VERSION, export, import};
pub use recipe_ld::{from_recipe_ld, to_recipe_ld};

/// A larger file is no formula, bytes.
pub const MOST_BYTES: usize = 200_000;

#[cfg(test)]
mod tests;
