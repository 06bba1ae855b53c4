//! A batch as it was really run, for learning: its hours as they were, its temperatures as they were planned.
//!
//! A reading says how far a place was off the plan; written over it, too, it would count twice. Source: learning, section 1.

use super::course::DoughCourse;
use super::{AheadRequest, Happened};
use crate::refusal::ValidationError;
use crate::rise::{PrefermentRuns, RiseRequest};
use crate::sheet::{SheetRequest, work_out_whole};
use jiff::Timestamp;

/// The dough as it was run, and when it left the mixer.
///
/// Errors: what was entered stretches it beyond what is followed.
pub fn as_run(q: &AheadRequest) -> Result<(RiseRequest, Timestamp), ValidationError> {
    let course = DoughCourse::of(&AheadRequest {
        request: &q.request.by_the_book(),
        happened: &Happened {
            steps: q.happened.steps.clone(),
            ..Happened::default()
        },
        ..q.clone()
    })?;
    Ok((course.dough(q.request.serve_at), course.mixed_at))
}

/// The dough as it was planned, its dose as it was weighed.
///
/// Errors: a plan that is none any more.
pub fn as_planned(q: &AheadRequest) -> Result<RiseRequest, ValidationError> {
    let mut r = q.request.by_the_book();
    r.formula = q.planned.weighed(r.formula);
    Ok(work_out_whole(&r, &PrefermentRuns::default())?.1)
}

/// The dough of a plan that is not kept yet, with its dose in: what a log is asked about.
///
/// Errors: what is outside its range.
pub fn to_be_made(r: &SheetRequest, yeast_percent: f64) -> Result<RiseRequest, ValidationError> {
    let mut r = r.by_the_book();
    r.formula = r.formula.in_the_bowl(yeast_percent);
    Ok(work_out_whole(&r, &PrefermentRuns::default())?.1)
}
