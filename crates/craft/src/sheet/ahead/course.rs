//! How a dough really went: the plan's legs with the hours that they took, and what was measured on the way.

use super::places::{Places, from};
use super::timeline::{DueStep, SHORTEST_H, Timeline, h_between};
use super::{AheadRequest, INSIDE, Measured, OFF_THE_MIXER_H, Replaced, ReplacedFigure, before};
use crate::fact;
use crate::fact::Fact;
use crate::path::{LONGEST_H, Leg, Spot};
use crate::refusal::ValidationError;
use crate::rise::vigour::enlivened;
use crate::rise::{Doubts, PrefermentRuns, RiseRequest, Sign, Stage, VigourRequest, fit_vigour};
use crate::sheet::{Block, FridgeKnown, PrefermentPlan, stages, work_out_whole};
use jiff::Timestamp;
use std::sync::Arc;

/// A step so little off its time is on time, min.
pub const ON_TIME_MIN: f64 = 10.0;
/// A place that was measured is known better than one that was not, K.
const MEASURED_OFF_K: f64 = 0.5;
/// Temperatures are said to a tenth, K.
const SHOWN_K: f64 = 0.05;

/// What was measured, when and how much, and what was planned.
type MeasuredAt = (ReplacedFigure, Option<(Timestamp, f64)>, Option<f64>);

/// Legs with their hours, in the order of the clock, and the dough that goes through them.
#[derive(Debug, Clone)]
pub(super) struct DoughCourse {
    pub mixed_at: Timestamp,
    /// When mixing began or begins.
    mix_from: Timestamp,
    /// Whether the dough is in the bowl: then its dose is no question.
    pub in_bowl: bool,
    /// Legs with their real hours up to now and planned ones after.
    pub legs: Vec<Leg>,
    pub replaced: Vec<Replaced>,
    /// When the steps are due that are not done.
    pub due: Vec<DueStep>,
    /// The stages as they went and go on.
    pub blocks: Vec<Block>,
    /// The preferments as they went.
    pub preferments: Vec<PrefermentPlan>,
    /// The dough with its yeast in; its stages are put in anew for each question.
    base: RiseRequest,
    formula: crate::formula::FormulaResult,
    request: crate::sheet::SheetRequest,
    /// What was measured, and when.
    dough: Option<(Timestamp, f64)>,
    /// What was said of room and fridge, from each moment until the next.
    places: Places,
    /// Preferments that were run.
    pub runs: Arc<PrefermentRuns>,
}

impl DoughCourse {
    pub fn of(q: &AheadRequest) -> Result<DoughCourse, ValidationError> {
        // What was kept is in the bowl: no dose is a question any more.
        let mut kept = q.request.clone();
        kept.now_at = None;
        kept.formula = q.planned.weighed(kept.formula);
        let runs = Arc::new(PrefermentRuns::default());
        let (result, base) = work_out_whole(&kept, &runs)?;
        let mut legs = q.request.formula.path();
        let clock = Timeline::of(q, &legs);
        let due = clock.due(&legs);
        timed(&mut legs, &clock, q.request.serve_at);
        let mut c = DoughCourse {
            mixed_at: clock.mixed_at,
            mix_from: clock.mix_from,
            in_bowl: clock.in_bowl,
            legs,
            replaced: vec![],
            due,
            blocks: clock.blocks(),
            preferments: vec![],
            base,
            formula: result.formula,
            request: q.request.clone(),
            dough: None,
            places: Places::of(q),
            runs,
        };
        c.bounded(q, &clock)?;
        for (title, planned, at) in &clock.moved {
            c.note_step(title, *planned, *at);
        }
        let (base, replaced) = (&mut c.base, &mut c.replaced);
        c.preferments = before::as_they_went(q, &clock, &c.places, base, replaced);
        c.read(q);
        Ok(c)
    }

    /// Entries under wrong hours must not make a dough of years: what the model takes of a plan holds here, too.
    fn bounded(&self, q: &AheadRequest, clock: &Timeline) -> Result<(), ValidationError> {
        let preferments = q.request.formula.preferments.len();
        let first = (0..preferments).map(|i| clock.preferment(i).0).min();
        let first = first.unwrap_or(self.mixed_at).min(self.mixed_at);
        let whole = h_between(first, q.request.serve_at);
        let longest = self.legs.iter().map(|l| l.hours).fold(whole, f64::max);
        let sum: f64 = self.legs.iter().map(|l| l.hours).sum();
        if longest > LONGEST_H || sum > LONGEST_H {
            return Err(ValidationError::one("steps", fact!("over-two-weeks")));
        }
        Ok(())
    }

    fn note_step(&mut self, title: &Fact, planned: Timestamp, at: Timestamp) {
        let late_min = h_between(planned, at) * 60.0;
        if late_min.abs() >= ON_TIME_MIN {
            self.replaced.push(Replaced {
                what: ReplacedFigure::Step {
                    title: title.clone(),
                },
                planned: 0.0,
                measured: late_min,
                at,
            });
        }
    }

    /// Readings up to now, the latest of each.
    fn read(&mut self, q: &AheadRequest) {
        let mut all: Vec<_> = q
            .happened
            .readings
            .iter()
            .filter(|r| r.at <= q.now)
            .collect();
        all.sort_by_key(|r| r.at);
        let planned_dough = self.base.dough_c;
        for r in all {
            match r.measured {
                // A preferment, or nothing yet.
                Measured::Dough { .. } if r.at < self.mix_from => {}
                Measured::Dough { c } if h_between(self.mixed_at, r.at) <= OFF_THE_MIXER_H => {
                    self.base.dough_c = c.clamp(0.0, 40.0);
                    self.replaced
                        .retain(|x| x.what != ReplacedFigure::DoughOffTheMixer);
                    self.replaced.push(Replaced {
                        what: ReplacedFigure::DoughOffTheMixer,
                        planned: planned_dough,
                        measured: c,
                        at: r.at,
                    });
                }
                Measured::Dough { c } => self.dough = Some((r.at, c)),
                Measured::Room { .. }
                | Measured::Fridge { .. }
                | Measured::Place { .. }
                | Measured::Grown { .. } => {}
            }
        }
        let planned = [
            (ReplacedFigure::Dough, self.dough, None),
            (
                ReplacedFigure::Room,
                self.places.room.last().copied(),
                Some(self.request.room_c),
            ),
            (
                ReplacedFigure::Fridge,
                self.places.fridge.last().copied(),
                Some(self.request.fridge_c),
            ),
        ];
        let own = self.own_places();
        for (what, read, plan) in planned.into_iter().chain(own) {
            let Some((at, c)) = read else { continue };
            let plan = plan.or_else(|| q.planned.clocks_at(at).map(|p| p.dough_c));
            // What reads as it was planned replaced nothing.
            if let Some(planned) = plan.filter(|p| (p - c).abs() >= SHOWN_K) {
                self.replaced.push(Replaced {
                    what,
                    planned,
                    measured: c,
                    at,
                });
            }
        }
    }

    /// The places of the kitchen's own on the way, each with its latest reading and what was planned.
    fn own_places(&self) -> Vec<MeasuredAt> {
        let mut out: Vec<MeasuredAt> = vec![];
        for leg in &self.legs {
            let Spot::Own(place) = &leg.spot else {
                continue;
            };
            let what = ReplacedFigure::Place {
                name: place.name.clone(),
            };
            let latest = self.places.own.iter().rfind(|(.., n)| *n == place.name);
            if !out.iter().any(|(w, ..)| *w == what) {
                out.push((what, latest.map(|(t, c, _)| (*t, *c)), Some(place.c)));
            }
        }
        out
    }

    /// The latest mark of a tub, since mixing.
    pub fn grown(&self, q: &AheadRequest) -> Option<(Timestamp, f64)> {
        q.happened
            .readings
            .iter()
            .filter(|r| r.at <= q.now && h_between(self.mixed_at, r.at) >= 0.25)
            .filter_map(|r| match r.measured {
                Measured::Grown { times } => Some((r.at, times)),
                _ => None,
            })
            .max_by_key(|(at, _)| *at)
    }

    /// The fridge as it was last read, or as it was planned.
    pub fn fridge_known(&self, q: &AheadRequest) -> FridgeKnown {
        let read = self.places.fridge.iter().rev().find(|(at, _)| *at <= q.now);
        FridgeKnown {
            c: read.map_or(self.request.fridge_c, |(_, c)| *c),
            off_k: self.doubts(q).fridge_k,
            was_read: read.is_some(),
        }
    }

    /// The same dough, had the fridge been read so at that moment.
    pub fn with_fridge(&self, at: Timestamp, c: f64) -> DoughCourse {
        let mut out = self.clone();
        out.places.fridge.push((at, c));
        out
    }

    /// How warm the room is that the dough lies in: as it was last read, or as it was planned, °C.
    pub fn room_now_c(&self, q: &AheadRequest) -> f64 {
        let read = self.places.room.iter().rev().find(|(at, _)| *at <= q.now);
        read.map_or(self.request.room_c, |(_, c)| *c)
    }

    /// The course with its yeast as lively as the latest mark of a tub says, and how many times as lively as planned that is.
    pub fn as_seen(q: &AheadRequest) -> Result<(DoughCourse, Option<f64>), ValidationError> {
        let mut course = DoughCourse::of(q)?;
        let Some((at, times)) = course.grown(q) else {
            return Ok((course, None));
        };
        let asked = VigourRequest {
            dough: course.dough(q.request.serve_at),
            at_h: at.duration_since(course.mixed_at).as_secs_f64() / 3600.0,
            sign: Sign::Grown { times },
        };
        let Ok(fit) = fit_vigour(&asked, INSIDE) else {
            return Ok((course, None));
        };
        course.enliven(fit.factor);
        course.replaced.push(Replaced {
            what: ReplacedFigure::Tub,
            planned: fit.foreseen,
            measured: times,
            at,
        });
        Ok((course, Some(fit.factor)))
    }

    pub fn enliven(&mut self, factor: f64) {
        self.base = enlivened(&self.base, factor);
    }

    /// What stays in doubt: a place that was measured is known better, a dough that was measured too.
    pub fn doubts(&self, q: &AheadRequest) -> Doubts {
        let mut d = q.doubts;
        if !self.places.room.is_empty() {
            d.room_k = d.room_k.min(2.0 * MEASURED_OFF_K);
        }
        if !self.places.fridge.is_empty() {
            d.fridge_k = d.fridge_k.min(MEASURED_OFF_K);
        }
        if self
            .replaced
            .iter()
            .any(|r| r.what == ReplacedFigure::DoughOffTheMixer)
        {
            d.dough_k = d.dough_k.min(MEASURED_OFF_K);
        }
        d
    }

    /// The dough through these legs until an hour, with what was measured.
    pub fn dough(&self, serve_at: Timestamp) -> RiseRequest {
        self.dough_through(&self.legs, serve_at)
    }

    /// The dough through other legs; the last one ends at `serve_at`.
    pub fn dough_through(&self, legs: &[Leg], serve_at: Timestamp) -> RiseRequest {
        let mut stages: Vec<(Stage, Spot)> = Vec::new();
        let before: f64 = legs[..legs.len() - 1].iter().map(|l| l.hours).sum();
        for (i, leg) in legs.iter().enumerate() {
            let mut leg = leg.clone();
            if i + 1 == legs.len() {
                let left = h_between(self.mixed_at, serve_at) - before;
                leg.hours = unless_the_same(left, leg.hours);
            }
            let of = stages::leg_stages(&self.request, &self.formula, &leg);
            stages.extend(of.into_iter().map(|s| (s, leg.spot.clone())));
        }
        self.places
            .measured(&mut stages, self.mixed_at, self.request.room_c);
        if let Some((at, c)) = self.dough {
            let i = from(&mut stages, h_between(self.mixed_at, at));
            if let Some((stage, _)) = stages.get_mut(i) {
                stage.starts_at_c = Some(c.clamp(0.0, 40.0));
            }
        }
        let dusting: f64 = legs.iter().map(|l| l.dusting_percent).sum();
        let had: f64 = self
            .request
            .formula
            .legs
            .iter()
            .map(|l| l.dusting_percent)
            .sum();
        let thinner = (1.0 + had / 100.0) / (1.0 + dusting / 100.0);
        RiseRequest {
            stages: stages.into_iter().map(|(s, _)| s).collect(),
            hydration_percent: (self.base.hydration_percent * thinner).clamp(40.0, 130.0),
            ..self.base.clone()
        }
    }

    /// The leg that the dough lies in at an instant, and how long it has.
    pub fn leg_at(&self, at: Timestamp) -> (usize, f64) {
        let mut left = h_between(self.mixed_at, at).max(0.0);
        for (i, leg) in self.legs.iter().enumerate() {
            if left < leg.hours || i + 1 == self.legs.len() {
                return (i, left.min(leg.hours));
            }
            left -= leg.hours;
        }
        (0, 0.0)
    }
}

/// The legs with the hours between their real begins.
fn timed(legs: &mut [Leg], clock: &Timeline, serve_at: Timestamp) {
    let ends = clock.began.iter().skip(1).copied().chain([serve_at]);
    for (leg, (from, to)) in legs.iter_mut().zip(clock.began.iter().zip(ends)) {
        let real = h_between(*from, to);
        leg.hours = unless_the_same(real, leg.hours);
    }
}

/// Whole seconds are all that the clock knows: hours that repeat the plan stay as they were said.
fn unless_the_same(real_h: f64, said_h: f64) -> f64 {
    const CLOCK_H: f64 = 2.0 / 3600.0;
    if (real_h - said_h).abs() > CLOCK_H {
        real_h.max(SHORTEST_H)
    } else {
        said_h
    }
}
