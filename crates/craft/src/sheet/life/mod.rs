//! Plans that fit a life: hands-on steps stay out of the hours in which nobody is at the bench.
//!
//! Question: which hours of each leg, within its limits, let a maker sleep and work, and are the likeliest to bring the dough
//! ready to the serve time? Hands-on are mixing, feeding, folding, balling and carrying from place to place; the oven is
//! lit when it must be. Source: craft notes, sections 0 and 4.

mod fit;
mod spans;

pub use fit::{FitResult, FittedPlan, InTheWay, LifeFitRequest, OwnOf, fit, fit_by};
pub use spans::{Life, Span, Why, spans, words};

#[cfg(test)]
mod tests;
