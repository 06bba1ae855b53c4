//! The first start: what a newcomer says of oven, things, hours and likes, and the first plan that follows from it.

mod bakes_in;
mod first;
mod oven;
mod shelves;
mod told;

pub use bakes_in::BakesIn;
pub use first::{FirstPlan, first_plan};
pub use oven::{OvenAtLaunch, oven_seen};
pub use shelves::{generic_flours, replaced, shelf_goods};
pub use told::{Beginning, FridgeTold, ScalesTold};
