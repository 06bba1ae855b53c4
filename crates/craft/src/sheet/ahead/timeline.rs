//! When things really happened, and when what is still to come is due.
//!
//! Rules: what was entered stands. What belongs to a leg keeps its distance from that leg's begin, so that a dough that was
//! mixed early rests early; a leg that waits for somebody's hands begins when it was planned, and not before now.

use super::AheadRequest;
use crate::fact::Fact;
use crate::path::Leg;
use crate::sheet::progress::{StepState, states};
use crate::sheet::{Block, BlockKind, PlannedStep, SheetResult, StepKind, hours};
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};

/// What departs so little from the plan is on time, s: entries that repeat the plan change no figure.
const SAME_S: i64 = 30;
/// A step stands at a leg's begin when it is planned this near to it, h.
const AT_BEGIN_H: f64 = 0.001;

/// The shortest leg that is run, h.
pub(super) const SHORTEST_H: f64 = 1.0 / 60.0;

pub(super) fn h_between(from: Timestamp, to: Timestamp) -> f64 {
    to.duration_since(from).as_secs_f64() / 3600.0
}

/// When a step is due as it goes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct DueStep {
    /// The step's own number.
    pub number: u16,
    /// When it is due.
    pub at: Timestamp,
}

/// The clock of a batch.
#[derive(Debug, Clone)]
pub(super) struct Timeline<'a> {
    q: &'a AheadRequest<'a>,
    states: Vec<StepState>,
    /// When mixing of the dough begins or began.
    pub mix_from: Timestamp,
    pub mixed_at: Timestamp,
    /// Whether the dough is in the bowl.
    pub in_bowl: bool,
    /// When each leg begins or began.
    pub began: Vec<Timestamp>,
    /// Steps that departed from the plan and moved it.
    pub moved: Vec<(Fact, Timestamp, Timestamp)>,
}

/// The planned moment where the real one is the same to half a minute.
fn snapped(real: Timestamp, planned: Timestamp) -> Timestamp {
    if real.duration_since(planned).abs() <= SignedDuration::from_secs(SAME_S) {
        planned
    } else {
        real
    }
}

/// Whether a step moves the dough on to its next leg.
fn begins_leg(kind: StepKind) -> bool {
    matches!(
        kind,
        StepKind::Ball
            | StepKind::Reball
            | StepKind::Degas
            | StepKind::Cold
            | StepKind::Freeze
            | StepKind::Thaw
            | StepKind::Temper
            | StepKind::Move
            | StepKind::Pan
    )
}

/// When each leg was planned to begin.
fn planned_begins(planned: &SheetResult, legs: &[Leg]) -> Vec<Timestamp> {
    let mut h = 0.0;
    legs.iter()
        .map(|leg| {
            let at = planned.mixed_at + hours(h);
            h += leg.hours;
            at
        })
        .collect()
}

impl<'a> Timeline<'a> {
    pub fn of(q: &'a AheadRequest<'a>, legs: &[Leg]) -> Timeline<'a> {
        let mut t = Timeline {
            q,
            states: states(&q.planned.steps, &q.happened.steps),
            mix_from: q.planned.mixed_at,
            mixed_at: q.planned.mixed_at,
            in_bowl: false,
            began: vec![],
            moved: vec![],
        };
        t.mix();
        t.legs(legs);
        t
    }

    fn steps(&self) -> impl Iterator<Item = (&'a PlannedStep, &StepState)> {
        self.q.planned.steps.iter().zip(&self.states)
    }
    fn step(&self, kind: StepKind) -> Option<(&'a PlannedStep, StepState)> {
        self.steps()
            .find(|(s, _)| s.kind == kind)
            .map(|(s, t)| (s, *t))
    }
    fn note(&mut self, step: &PlannedStep, planned: Timestamp, at: Timestamp) {
        if planned != at {
            self.moved.push((step.title.clone(), planned, at));
        }
    }

    /// When mixing began and the dough left the mixer.
    fn mix(&mut self) {
        let q = self.q;
        // As long as the plan keeps for it, whatever it would be given today.
        let planned = q.planned.mixed_at;
        let kept = self
            .step(StepKind::Mix)
            .map(|(s, _)| planned.duration_since(s.at));
        let mixing = kept.unwrap_or(hours(q.request.mixing_min() / 60.0));
        let rested = self.step(StepKind::Rest).and_then(|(_, t)| t.happened());
        let (mut from, mut end) = (None, None);
        if let Some((step, t)) = self.step(StepKind::Mix) {
            from = t.begun;
            end = match t.happened() {
                Some(at) if t.ended || t.begun.is_some() => Some(at),
                // Only marked: who taps at the first weighing is still to mix; who taps late has mixed.
                Some(at) if at < step.at + mixing / 2 => rested.or(Some(at + mixing)),
                Some(at) => rested.or(Some(at)),
                // In the mixer: done when it usually is, and not before now.
                None => t.under_way().map(|b| (b + mixing).max(q.now)),
            };
        }
        let end = end.or(rested);
        self.in_bowl = end.is_some();
        // Nothing of it happened: as planned, or from now on.
        let at = end.unwrap_or_else(|| planned.max(q.now.min(q.request.serve_at)));
        self.mixed_at = snapped(at, planned);
        let from = from.unwrap_or(self.mixed_at - mixing);
        self.mix_from = snapped(from, planned - mixing).min(self.mixed_at);
        if let Some((step, _)) = self.step(StepKind::Mix).filter(|_| self.in_bowl) {
            self.note(step, planned, self.mixed_at);
        }
    }

    /// When each leg begins: real where its step was begun or done, else as planned, never before now.
    fn legs(&mut self, legs: &[Leg]) {
        let q = self.q;
        let planned = planned_begins(q.planned, legs);
        self.began = vec![self.mixed_at];
        for at in planned.iter().skip(1) {
            let step = self
                .steps()
                .find(|(s, _)| begins_leg(s.kind) && h_between(s.at, *at).abs() < AT_BEGIN_H)
                .map(|(s, t)| (s, *t));
            let real = step.and_then(|(s, t)| t.begun.or(t.happened()).map(|r| (s, r)));
            let t = match real {
                Some((s, real)) => {
                    let real = snapped(real, *at);
                    self.note(s, *at, real);
                    real
                }
                None if step.is_some() => (*at).max(q.now.min(q.request.serve_at)),
                None => *at,
            };
            let before = self.began.last().copied().unwrap_or(t);
            self.began.push(t.max(before));
        }
    }

    /// The step that mixes a preferment of the formula, or that chills it. Steps of several at one moment stand in the
    /// order of the formula.
    fn preferment_step(&self, i: usize, kind: StepKind) -> Option<(&'a PlannedStep, StepState)> {
        let at = |j: usize| {
            let p = &self.q.request.formula.preferments[j];
            let plan = self.q.planned.preferments.get(j)?;
            match kind {
                StepKind::PrefermentCold if p.cold_h <= 0.0 || p.warm_h <= 0.0 => None,
                StepKind::PrefermentCold => Some(plan.from_at + hours(p.warm_h)),
                _ => Some(plan.from_at),
            }
        };
        let mine = at(i)?;
        let before = (0..i).filter(|j| at(*j) == Some(mine)).count();
        self.steps()
            .filter(|(s, _)| s.kind == kind && h_between(s.at, mine).abs() < AT_BEGIN_H)
            .nth(before)
            .map(|(s, t)| (s, *t))
    }

    /// What nobody has done yet: as planned, and not before now; of a dough in the bowl nothing waits any more.
    fn waits(&self, at: Timestamp) -> Timestamp {
        if self.in_bowl {
            at
        } else {
            at.max(self.q.now.min(self.mix_from))
        }
    }

    /// The begin of a preferment and of its cold, by its place in the formula.
    pub fn preferment(&self, i: usize) -> (Timestamp, Option<Timestamp>) {
        let (p, planned) = (
            &self.q.request.formula.preferments[i],
            self.q.planned.preferments.get(i),
        );
        let planned = planned.map_or(self.mix_from - hours(p.hours()), |x| x.from_at);
        let real = |kind| {
            let (step, state) = self.preferment_step(i, kind)?;
            Some(snapped(state.happened()?, step.at))
        };
        let began = real(StepKind::Preferment).unwrap_or_else(|| self.waits(planned));
        let cold = match (p.warm_h > 0.0, p.cold_h > 0.0) {
            (_, false) => None,
            (false, true) => Some(began),
            (true, true) => {
                let due = || self.waits(began + hours(p.warm_h));
                Some(
                    real(StepKind::PrefermentCold)
                        .unwrap_or_else(due)
                        .max(began),
                )
            }
        };
        (began, cold)
    }

    /// The stages of the picture as they went and go on; the last one ends as planned, when it is served.
    pub fn blocks(&self) -> Vec<Block> {
        let q = self.q;
        let first = (0..q.request.formula.preferments.len())
            .map(|i| self.preferment(i).0)
            .min();
        let moved = |b: &Block| {
            let (from, to) = match (b.leg, b.kind) {
                (Some(i), _) => {
                    let next = self.began.get(i + 1).copied();
                    let from = self.began.get(i).copied().unwrap_or(b.from_at);
                    (from, next.unwrap_or(b.to_at))
                }
                (None, BlockKind::Preferment) => (first.unwrap_or(b.from_at), self.mix_from),
                (None, _) => (self.mix_from, self.mixed_at),
            };
            Block {
                from_at: from,
                to_at: to.max(from),
                ..*b
            }
        };
        q.planned.blocks.iter().map(moved).collect()
    }

    /// When every step is due that is not done.
    pub fn due(&self, legs: &[Leg]) -> Vec<DueStep> {
        let planned = planned_begins(self.q.planned, legs);
        let chills: Vec<(u16, Timestamp)> = (0..self.q.planned.preferments.len())
            .filter_map(|i| {
                let (step, _) = self.preferment_step(i, StepKind::PrefermentCold)?;
                let warm = hours(self.q.request.formula.preferments[i].warm_h);
                Some((step.number, self.preferment(i).0 + warm))
            })
            .collect();
        let mut out = vec![];
        for (s, t) in self.steps() {
            let chill = chills.iter().find(|c| c.0 == s.number).map(|c| c.1);
            if t.done.is_some() {
                continue;
            }
            let at = match (t.under_way(), s.kind) {
                (Some(begun), _) => begun + hours(s.hands_on_min / 60.0),
                (_, StepKind::Rest) => self.mixed_at,
                (_, StepKind::PrefermentCold) => chill.unwrap_or(s.at),
                (_, StepKind::Fold | StepKind::Bulk | StepKind::Cold) => {
                    // It keeps its distance from the begin of the leg that it lies in; the leg's own begin is by the clock.
                    let i = planned
                        .iter()
                        .rposition(|b| h_between(*b, s.at) > -AT_BEGIN_H)
                        .unwrap_or(0);
                    let into = s.at.duration_since(planned[i]);
                    if i > 0 && h_between(planned[i], s.at) < AT_BEGIN_H {
                        s.at
                    } else {
                        self.began[i] + into
                    }
                }
                _ => s.at,
            };
            out.push(DueStep {
                number: s.number,
                at,
            });
        }
        out
    }
}
