//! Rise: when is this dough ready, and how much yeast does that take?
//!
//! | module | answers |
//! |---|---|
//! | [`request`] | what a dough and its stages are, and which inputs are refused |
//! | [`responses`] | how fast yeast, leaven, acid and gluten work at a temperature |
//! | [`recipe`] | what follows from the recipe alone: gas needed, gluten capacity, solubility |
//! | [`series`], [`heat`] | the temperatures that drive a run: of the place, or inside the dough |
//! | [`kinetics`] | the two clocks, step by step |
//! | `answer` | what is answered |
//! | `memo` | runs that were made before |
//! | [`ripeness`] | R, its limiting part, labels, handling |
//! | [`forecast`] | a whole run with its ready window |
//! | [`solve`] | the yeast for a bake time |
//! | [`lengths`] | the length of one stage for the yeast that is in |
//! | [`spread`] | how sure the window is |
//! | [`vigour`] | how lively a leaven really is |
//! | `departure` | how a kitchen departs from the book |
//! | `watch` | a run as learning reads it |
//! | `judge` | what to say about either |

mod answer;
mod departure;
pub mod forecast;
pub mod heat;
mod judge;
pub mod kinetics;
pub mod lengths;
mod memo;
pub mod recipe;
pub mod request;
pub mod responses;
pub mod ripeness;
pub mod series;
pub mod solve;
pub mod spread;
pub mod vigour;
mod watch;

pub use answer::{
    NoYeast, PrefermentEnd, RisePoint, RiseResult, Shuts, Window, YeastAnswer, YeastWarning,
};
pub use departure::Departure;
pub(crate) use forecast::{HandOver, Look, forecast_with, foresee, hand_overs, quick_window};
pub use forecast::{Temperatures, forecast};
pub use lengths::{HoursAnswer, HoursRequest, solve_hours};
pub use memo::PrefermentRuns;
pub use request::{
    Air, Container, DoughKind, DoughShape, Event, RisePreferment, RiseRequest, Stage,
};
pub use ripeness::{Handling, Label, RipenessPart};
pub use solve::solve_yeast;
pub(crate) use solve::{quick_dose, solve_looking};
pub use spread::{Band, Doubt, Doubts, Spread, spread};
pub use vigour::{Sign, VigourAnswer, VigourRequest, fit_vigour};
pub(crate) use watch::{Watch, WatchedMoment, looks_beyond_h, watch};

#[cfg(test)]
mod tests;
