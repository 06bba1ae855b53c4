//! A dough that is in the bowl already: its hours follow from when it left the mixer and when it went into the cold.

use super::progress::{StepPast, StepSaid};
use super::{PlannedStep, SheetRequest, SheetResult, StepKind, hours};
use crate::fact;
use crate::fact::{Fact, Hours};
use crate::formula::Dose;
use crate::path::{LONGEST_H, Leg};
use crate::refusal::ValidationError;
use jiff::Timestamp;

/// What happened before anybody entered it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Begun {
    /// When it left the mixer.
    pub mixed_at: Timestamp,
    /// When it went into the cold, where it did.
    pub cold_from: Option<Timestamp>,
}

/// The shortest leg that a plan has, h.
const SHORTEST_H: f64 = 0.25;

fn h(from: Timestamp, to: Timestamp) -> f64 {
    to.duration_since(from).as_secs_f64() / 3600.0
}

impl Begun {
    /// The request with the hours that are left: what came before the cold as it was, the last stage as it was asked, and the
    /// cold (or the longest stage) takes the rest until serving.
    ///
    /// Errors: moments that cannot be, a dose that nobody said, hours that do not fit between mixing and serving.
    pub fn plan(&self, r: &SheetRequest) -> Result<SheetRequest, ValidationError> {
        let refuse = |field: &str, message: Fact| Err(ValidationError::one(field, message));
        let now = r.now_at.unwrap_or(r.serve_at);
        if self.mixed_at > now {
            return refuse("begun_at", fact!("begun-later-than-now"));
        }
        let whole = h(self.mixed_at, r.serve_at);
        if !(2.0 * SHORTEST_H..=LONGEST_H).contains(&whole) {
            let message = fact!("begun-too-old", hours = Hours(whole.round()));
            return refuse("begun_at", message);
        }
        if r.formula.yeast.dose == Dose::Solve {
            let message = fact!("begun-say-yeast");
            return refuse("formula.yeast", message);
        }
        let mut legs = r.formula.path();
        let cold = legs.iter().position(|l| l.spot.is_cold());
        if let Some(from) = self.cold_from {
            let Some(k) = cold.filter(|k| *k > 0) else {
                return refuse("begun_cold_at", fact!("begun-no-cold"));
            };
            if from > now || from < self.mixed_at + hours(SHORTEST_H) {
                return refuse("begun_cold_at", fact!("begun-cold-when"));
            }
            let before: f64 = legs[..k].iter().map(|l| l.hours).sum();
            let stretch = h(self.mixed_at, from) / before;
            for leg in &mut legs[..k] {
                leg.hours *= stretch;
            }
        }
        let takes = cold.unwrap_or_else(|| longest(&legs));
        let others: f64 = legs.iter().map(|l| l.hours).sum::<f64>() - legs[takes].hours;
        let left = whole - others;
        if left < SHORTEST_H {
            let message = fact!(
                "begun-hours",
                whole = fact::hours(fact::spoken_h(whole)),
                others = fact::hours(fact::spoken_h(others))
            );
            return refuse("begun_at", message);
        }
        legs[takes].hours = left;
        for leg in &mut legs {
            // What happened lies where it lies, whatever the usual limits of a stage.
            leg.least_h = leg.least_h.min(leg.hours);
            leg.most_h = leg.most_h.max(leg.hours);
        }
        Ok(SheetRequest {
            formula: r.formula.clone().on_path(legs),
            now_at: None,
            ..r.clone()
        })
    }

    /// What was done of the plan before anybody entered it: its preferments, its mixing, and what came before the cold.
    pub fn past(&self, planned: &SheetResult) -> Vec<StepPast> {
        let done = |s: &PlannedStep| {
            let (at, said) = match s.kind {
                StepKind::Mix => (self.mixed_at, StepSaid::Finished),
                StepKind::Rest => (self.mixed_at, StepSaid::Done),
                StepKind::LightOven => return None,
                _ if s.at < self.mixed_at || self.cold_from.is_some_and(|c| s.at <= c) => {
                    (s.at, StepSaid::Done)
                }
                _ => return None,
            };
            Some(StepPast {
                number: s.number,
                at,
                said,
            })
        };
        planned.steps.iter().filter_map(done).collect()
    }
}

fn longest(legs: &[Leg]) -> usize {
    let by = |i: &usize| legs[*i].hours;
    (0..legs.len())
        .max_by(|a, b| by(a).total_cmp(&by(b)))
        .unwrap_or(0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sheet::tests::friday;
    use crate::sheet::work_out;
    use crate::style;

    #[test]
    fn a_dough_in_the_fridge_since_a_quarter_past_eight_is_planned_from_there() {
        let r = friday(style::first()).with(|r| {
            r.formula.yeast.dose = Dose::Given { percent: 0.2 };
            r.now_at = Some(r.serve_at - hours(10.0));
        });
        let mixed_at = r.serve_at - hours(23.0);
        let begun = Begun {
            mixed_at,
            cold_from: Some(mixed_at + hours(0.75)),
        };
        let p = begun.plan(&r).unwrap();
        let legs = p.formula.path();
        assert!((legs[0].hours - 0.75).abs() < 1e-9);
        assert_eq!(
            legs.last().unwrap().hours,
            r.formula.path().last().unwrap().hours
        );
        let out = work_out(&p).unwrap();
        assert_eq!(out.mixed_at, mixed_at);
        assert_eq!(out.yeast.percent, 0.2);
        // Without the second word its bulk is as it was planned.
        let bare = Begun {
            cold_from: None,
            ..begun
        };
        assert_eq!(
            bare.plan(&r).unwrap().formula.path()[0].hours,
            r.formula.path()[0].hours
        );
    }

    #[test]
    fn what_cannot_be_is_said_beside_its_field() {
        let r = friday(style::first()).with(|r| {
            r.formula.yeast.dose = Dose::Given { percent: 0.2 };
            r.now_at = Some(r.serve_at - hours(10.0));
        });
        let field = |r: &SheetRequest, b: Begun| b.plan(r).unwrap_err().0[0].field.clone();
        let at = |before: f64| Begun {
            mixed_at: r.serve_at - hours(before),
            cold_from: None,
        };
        assert_eq!(field(&r, at(9.0)), "begun_at", "later than now");
        assert_eq!(field(&r, at(400.0)), "begun_at", "too old");
        let near = r.clone().with(|r| r.now_at = Some(r.serve_at - hours(1.0)));
        assert_eq!(field(&near, at(2.0)), "begun_at", "no room for the stages");
        let solve = r.clone().with(|r| r.formula.yeast.dose = Dose::Solve);
        assert_eq!(field(&solve, at(23.0)), "formula.yeast");
        let wrong = Begun {
            cold_from: Some(r.serve_at - hours(24.0)),
            ..at(23.0)
        };
        assert_eq!(field(&r, wrong), "begun_cold_at");
    }
}
