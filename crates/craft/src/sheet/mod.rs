//! Sheet: from "six balls for Friday 19:00" to grams, yeast, water, steps by the clock, and judgements.
//!
//! It puts the other rooms of this crate in order: formula (grams) → mix (water, dough temperature) → raise
//! (yeast of preferments and dough for their hours, ready window) → plan (steps backward from the serve time) → notes. Instants are
//! UTC; the time zone serves only to say clock times and to find the night.

pub mod ahead;
mod answer;
pub mod apart;
mod begun;
mod by_log;
pub mod certain;
pub mod choose;
mod dividing;
mod from_boxes;
mod how;
mod judge;
pub mod life;
mod mixed_by;
mod no_fridge;
pub mod progress;
mod raise;
mod recount;
mod request;
mod stages;
mod steps;
pub mod stock;
mod too_near;
mod window;
mod work_out;

pub(crate) use answer::clocks;
pub use answer::*;
pub use begun::Begun;
pub(crate) use by_log::chance;
pub use by_log::{ByLog, Likely};
pub use certain::{FridgeKnown, Sure};
pub use dividing::{Dividing, dividing};
pub use from_boxes::FromTheBoxes;
pub use judge::is_of_hours;
pub use mixed_by::{BowlToMix, OwnBase, WeighLine};
pub use request::{KitchenUsual, SheetRequest};
pub use steps::{PlannedStep, StepKind, carry_numbers};
pub use window::{ReadyWindow, hours};
pub(crate) use window::{fits, margin_h};
pub(crate) use work_out::work_out_whole;
pub use work_out::{work_out, work_out_surely, work_out_with};

#[cfg(test)]
mod tests;
