//! The bowl: how warm is the dough while it is worked, minute by minute, and how warm must each part of the water be?
//!
//! | module | answers |
//! |---|---|
//! | `item` | what goes in: grams, temperature, heat |
//! | `kinds` | what each kind of machine does to a dough: K a minute, heat in its steel |
//! | `mixing` | steps, additions and surroundings, and which of them are refused |
//! | `trace` | dough and bowl over the steps |
//! | `aim` | the water, or the flour, that ends at a temperature |
//! | `blend` | how water of a temperature is made of tap, kettle, fridge and ice |
//!
//! One temperature for the dough and one for the bowl; what is poured is in at once; evaporation and hands are left out.
//! Source: mixing and shaping, sections 1 to 3.

mod aim;
mod blend;
mod item;
mod kinds;
mod mixing;
mod trace;

pub(crate) use aim::set_parts;
pub use aim::{Aimed, aim, aim_parts};
pub use blend::{BlendFrom, Blended, Mend, blend, mend};
pub use item::{BowlItem, BowlPart, Contents};
pub use kinds::{DEFAULT_FILL_EFFECT, FrictionFigures};
pub(crate) use mixing::capacity_into;
pub use mixing::{BowlStep, Mixing, Speed, StandingDough};
pub(super) use mixing::{LONGEST_STEP_MIN, MOST_MACHINE_MIN, MOST_STEPS};
pub use trace::{BowlTrace, TracePoint, trace};
pub(crate) use trace::{course, trace_uncapped};
