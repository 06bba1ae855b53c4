//! Formula: baker's percentages to grams, as the scales can weigh them, stage by stage.
//!
//! Question: how much of everything, in the preferments and in the dough, makes these pieces? Input: pieces,
//! flours with shares, percentages of all flour wherever it is, preferments, yeast doses, scales. Output: rows of
//! ingredients by columns of stages, exact and rounded to the scale that weighs them, with sums that hold: every
//! total is the sum of its rounded cells. Source: craft notes, sections 1 and 2.
//!
//! | module | answers |
//! |---|---|
//! | `size` | how much dough, from balls, discs, pans, a total or the flour at hand |
//! | `ask` | what a formula is, and which ones are refused |
//! | `preferment` | poolish, biga, levain, old dough: shares, stages, feeding |
//! | `parts` | what stands where, in % of all flour; nominal and true hydration |
//! | `weigh` | grams on the scales at hand |
//! | `dilution` | a dose that no scale reads |
//! | `grams` | a weight typed into the sheet, turned back into percentages |
//! | `judge` | what is unusual, with its remedy |
//! | `diff` | what changed between two formulas |

mod ask;
pub mod diff;
mod dilution;
mod extra;
mod flour_notes;
pub mod grams;
mod judge;
mod parts;
mod preferment;
mod recount;
mod size;
mod weigh;

pub use ask::{Dose, Formula, HydrationCounts, Yeast};
pub use dilution::{Dilution, Spoon};
pub use extra::{Extra, ExtraKind};
pub use judge::spooned;
pub use preferment::{Build, Feed, FeedWeighed, Preferment, PrefermentKind};
pub use size::{
    LooseBalls, Mode, PanGroup, PanShape, Pieces, Portion, THICKNESSES, disc_cm2, thickness_name,
};
pub(crate) use weigh::grams as spoken;
pub(crate) use weigh::weigh;
pub use weigh::{
    Cell, Column, Doses, FormulaRequest, FormulaResult, Ingredient, Row, Scales, formulate,
};

/// A small amount to two significant digits: more would be false precision.
pub fn two_digits(value: f64) -> String {
    if value <= 0.0 {
        return "0".into();
    }
    let decimals = (1 - value.log10().floor() as i32).clamp(0, 6) as usize;
    format!("{value:.decimals$}")
}

#[cfg(test)]
pub(crate) mod tests;
