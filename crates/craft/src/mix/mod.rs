//! Mix: how warm must the water be so that the dough leaves the mixer at the wanted temperature?
//!
//! Input: amounts (g), temperatures (°C) of flour, tap and room, the way of mixing. Output: water
//! temperature by heat balance, the base rule beside it, ice where the water would be below 2 °C, and a way
//! out above 40 °C. Source: fermentation model, section 2.1; craft notes, section 3. Limits: the bowl's own
//! heat and losses to the room during mixing are inside the friction figure; show it as an estimate.

mod at_work;
mod balance;
mod bowl;
mod extremes;
mod friction;
mod gluten;
mod judge;
mod look;
mod mixer;
mod own;
mod programmes;
pub mod run;
mod water;
mod worked;

pub use at_work::{MixLook, MixQuestion, NextWater, RIGHT_K};
pub use balance::{COLDEST_WATER_C, HOTTEST_WATER_C, WaterRequest, WaterResult};
pub use bowl::*;
pub use friction::{
    BadReading, Friction, HowSure, LoggedMix, MIXES_TO_BELIEVE, MOST_MIXES, MixReading,
    learn_friction, sure_of_end,
};
pub use gluten::{
    Development, GlutenWork, ObservedSign, OverMixed, ReadySign, UsualMinutes, development,
    usual_minutes, usually_seen,
};
pub use look::look;
pub use mixer::Mixer;
pub use own::{OwnProgramme, OwnStep, StepWork};
pub use programmes::{
    DoughToMix, MixHazard, MixProgramme, MixRecipe, MixShares, PrefermentIn, ProgrammeFit,
    ProgrammeFits, ProgrammeStep, fitting, programmes, water_part,
};
pub use water::{water, water_worked};
pub use worked::{Machine, WorkedIn, preferment_programmes, usual_programme, water_parts};

#[cfg(test)]
mod tests;
