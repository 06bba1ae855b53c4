//! Fire: what the oven does to a piece, how it is charged, and what happened in it.
//!
//! Source: bake model. Times in seconds after In, temperatures in °C, lengths in mm, heat in W/m².

pub mod bake;
mod boiling;
pub mod calibrate;
pub mod caution;
pub mod choice;
pub mod firing;
mod heat;
pub mod judge;
pub mod limits;
pub mod material;
pub mod next_time;
pub mod of_formula;
pub mod oven;
pub mod overview;
pub mod plan;
pub mod preheat;
pub mod programme;
pub mod race;
pub mod reckon;
pub mod recover;
pub mod remedy;
pub mod run;
pub mod service;
pub mod set_points;
pub mod setup;
pub mod turning;
pub mod words;
pub mod work;

pub use bake::{BakeCourse, BakeMoment, bake, bake_finely};
pub use boiling::boiling_c;
pub use choice::FireChoice;
pub use heat::Fineness;
pub use material::Material;
pub use oven::{Fuel, Oven, OvenKind, OvenShelf, Setting};
pub use plan::{FirePlan, PlannedBake};
pub use programme::{Programme, Turn};
pub use race::{Race, RaceItem, RaceLane, Targets, race};
pub use run::{Pizza, Run, RunSummary, Shade, Tap, TapKind, Verdict};
pub use setup::{Aim, Back, BakeRequest, OvenNow, PanNow, Piece};
