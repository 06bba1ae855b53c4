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
//! | `formula`, `dose` | what a formula is |
//! | `check` | which ones are refused |
//! | `scales` | which scale weighs what |
//! | `preferment` | poolish, biga, levain, old dough: shares, stages, feeding |
//! | `parts` | what stands where, in % of all flour; nominal and true hydration |
//! | `weigh` | grams on the scales at hand |
//! | `work_out` | all of it: refused or weighed, and judged last |
//! | `dilution` | a dose that no scale reads |
//! | `grams` | a weight typed into the sheet, turned back into percentages |
//! | `judge` | what is unusual, with its remedy |
//! | `diff` | what changed between two formulas |

mod check;
pub mod diff;
mod dilution;
mod dose;
mod extra;
mod flour_notes;
// The folder is about formulas, the file is what one is.
#[allow(clippy::module_inception)]
mod formula;
pub mod grams;
mod judge;
mod parts;
mod preferment;
mod recount;
mod scales;
mod size;
mod way;
mod weigh;
mod work_out;

pub use dilution::{Dilution, Spoon};
pub use dose::{Dose, Doses, Yeast};
pub use extra::{Extra, ExtraKind};
pub use formula::{Formula, HydrationCounts};
pub use judge::spooned;
pub use preferment::{FeedWeighed, LevainBuild, LevainFeed, Preferment, PrefermentKind};
pub use scales::Scales;
pub use size::{
    LooseBalls, Mode, PanGroup, PanShape, Pieces, Portion, disc_cm2, thickness_name, thicknesses,
};
pub use weigh::{FormulaResult, Ingredient, IngredientRow, StageColumn, WeighedCell};
pub(crate) use work_out::weigh;
pub use work_out::{FormulaRequest, formulate};

#[cfg(test)]
pub(crate) mod tests;
