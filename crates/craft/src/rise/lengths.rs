//! How long may one stage last, with the yeast as it is? From it follow the latest and the earliest start.
//!
//! Source: fermentation model, section 8: 14 geometric lengths from 0.25 to 96 h, the first crossing of gas ripeness 1,
//! then closed in on. R can fall with a longer bulk, so a plain bisection would lie. The serve time stands fixed: the
//! clock hour of mixing moves with the length.

use super::answer::RiseResult;
use super::forecast::{HandOver, Look, Temperatures, foresee, hand_overs, quick_end};
use super::memo::PrefermentRuns;
use super::request::RiseRequest;
use super::ripeness::Label;
use crate::fact;
use crate::note::Note;
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// Searched lengths, h.
const SHORTEST_H: f64 = 0.25;
const LONGEST_H: f64 = 96.0;
const GRID_POINTS: i32 = 14;
/// Closeness of a length, h: half a minute.
const CLOSE_H: f64 = 0.01;
/// No plan is longer (section 2), h.
const LONGEST_PLAN_H: f64 = 336.0;

/// The length of one stage, all else given.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct HoursRequest {
    /// The dough, with its dose and path.
    pub dough: RiseRequest,
    /// Which of the stages, from 0.
    pub stage: usize,
}

/// The answer: from the shortest to the longest length, or an honest no.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "outcome", rename_all = "snake_case")]
pub enum HoursAnswer {
    /// Hours after which it is ready when it is wanted.
    Found {
        /// The shortest length at which the dough is ready: the latest start.
        hours: f64,
        /// The longest at which it is not yet past its peak: the earliest start. Absent when it holds beyond 96 h.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        longest_hours: Option<f64>,
        /// How the dough goes with them.
        forecast: Box<RiseResult>,
    },
    /// No hours do.
    None {
        /// The best gas ripeness that any length reached, and that length.
        best_ripeness: f64,
        /// The hours that come nearest.
        best_hours: f64,
        /// Why, as judgements.
        notes: Vec<Note>,
    },
}

struct Lengths<'a> {
    request: &'a HoursRequest,
    handed: Vec<HandOver>,
    from: Temperatures,
}

impl Lengths<'_> {
    fn with(&self, hours: f64) -> RiseRequest {
        let mut r = self.request.dough.clone();
        let more = hours - r.stages[self.request.stage].hours;
        r.stages[self.request.stage].hours = hours;
        r.start_clock_h = (r.start_clock_h - more).rem_euclid(24.0);
        r
    }
    fn end(&self, hours: f64) -> (f64, Label) {
        quick_end(&self.with(hours), self.from, &self.handed)
    }
    /// The lengths of the search that make a plan that is allowed.
    fn grid(&self) -> Vec<f64> {
        let others =
            self.request.dough.total_hours() - self.request.dough.stages[self.request.stage].hours;
        let ratio = (LONGEST_H / SHORTEST_H).powf(1.0 / f64::from(GRID_POINTS - 1));
        (0..GRID_POINTS)
            .map(|i| SHORTEST_H * ratio.powi(i))
            .filter(|h| h + others <= LONGEST_PLAN_H)
            .collect()
    }
}

/// Solves the length of one stage for gas ripeness 1 at the end.
///
/// Errors: [`ValidationError`] with the fields outside their ranges, or `stage` when there is no such stage.
pub fn solve_hours(
    request: &HoursRequest,
    from: Temperatures,
) -> Result<HoursAnswer, ValidationError> {
    let Some(stage) = request.dough.stages.get(request.stage) else {
        return Err(ValidationError::one("stage", fact!("no-such-stage")));
    };
    if stage.is_frozen() {
        return Err(ValidationError::one("stage", fact!("frozen-never-ripens")));
    }
    // The length is what is looked for: whatever stands there need not be in range.
    let asked = HoursRequest {
        dough: RiseRequest {
            stages: request
                .dough
                .stages
                .iter()
                .enumerate()
                .map(|(i, s)| super::Stage {
                    hours: if i == request.stage { 1.0 } else { s.hours },
                    ..s.clone()
                })
                .collect(),
            ..request.dough.clone()
        },
        stage: request.stage,
    };
    asked.dough.check(true).map_err(|e| e.below("dough"))?;
    let lengths = Lengths {
        handed: hand_overs(&asked.dough, from, &PrefermentRuns::default()),
        request: &asked,
        from,
    };
    let grid = lengths.grid();
    let mut best = (0.0f64, SHORTEST_H);
    let mut crossing = None;
    for (i, h) in grid.iter().enumerate() {
        let (r, _) = lengths.end(*h);
        if r > best.0 {
            best = (r, *h);
        }
        if r >= 1.0 {
            crossing = Some(i);
            break;
        }
    }
    let Some(i) = crossing else {
        return Ok(HoursAnswer::None {
            best_ripeness: best.0,
            best_hours: best.1,
            notes: vec![super::judge::of_no_length(best.0, best.1)],
        });
    };
    let hours = if i == 0 {
        grid[0]
    } else {
        halve(grid[i - 1], grid[i], |h| lengths.end(h).0 >= 1.0)
    };
    let longest_hours = longest(&lengths, hours, &grid[i..]);
    let forecast = foresee(&lengths.with(hours), from, &lengths.handed, Look::Beyond);
    Ok(HoursAnswer::Found {
        hours,
        longest_hours,
        forecast: Box::new(forecast),
    })
}

/// From the crossing on, the length at which the label turns to past its peak.
fn longest(lengths: &Lengths, hours: f64, grid: &[f64]) -> Option<f64> {
    let past = |h: f64| lengths.end(h).1.is_past();
    if past(hours) {
        return Some(hours);
    }
    let mut before = hours;
    for &h in grid.iter().filter(|h| **h > hours) {
        if past(h) {
            return Some(halve(before, h, past));
        }
        before = h;
    }
    None
}

/// The first length at which something holds, between one where it does not and one where it does.
fn halve(mut low: f64, mut high: f64, holds: impl Fn(f64) -> bool) -> f64 {
    while high - low > CLOSE_H {
        let mid = 0.5 * (low + high);
        if holds(mid) {
            high = mid;
        } else {
            low = mid;
        }
    }
    high
}
