//! An idea of what could still be done: other legs, another hour, another dose. Whether it helps is simulated by others.

use super::AheadRequest;
use super::course::DoughCourse;
use crate::fact::Fact;
use crate::path::Leg;
use crate::rise::Event;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// What a remedy changes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PlanChange {
    /// The legs with their real hours so far and those to come.
    pub legs: Vec<Leg>,
    /// When it is served then.
    pub serve_at: Timestamp,
    /// Another dose of the dough, % of the flour, while it is not in the bowl.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub yeast_percent: Option<f64>,
}

pub(super) struct Idea {
    pub code: &'static str,
    pub say: Fact,
    pub why: Fact,
    pub legs: Vec<Leg>,
    pub serve_at: Timestamp,
    pub yeast_percent: Option<f64>,
}

/// The legs with the one under way cut at now; returns the index of the part that begins now.
pub(super) fn cut_now(q: &AheadRequest, course: &DoughCourse) -> (Vec<Leg>, usize) {
    let (i, gone) = course.leg_at(q.now);
    let mut legs = course.legs.clone();
    if gone < 0.05 || q.now <= course.mixed_at {
        return (legs, i);
    }
    let whole = legs[i].hours;
    // A leg has the folds that were planned, however long it lies.
    let folded = ((gone / legs[i].fold_every_h) as u32).min(legs[i].folds_that_fit());
    let rest = Leg {
        hours: (whole - gone).max(1.0 / 60.0),
        event: Event::None,
        folds: legs[i].folds_that_fit().saturating_sub(folded),
        dusting_percent: 0.0,
        ..legs[i].clone()
    };
    legs[i].hours = gone;
    legs[i].folds = folded;
    legs.insert(i + 1, rest);
    (legs, i + 1)
}

pub(super) fn idea(
    code: &'static str,
    say: Fact,
    why: Fact,
    legs: Vec<Leg>,
    serve_at: Timestamp,
) -> Idea {
    Idea {
        code,
        say,
        why,
        legs,
        serve_at,
        yeast_percent: None,
    }
}
