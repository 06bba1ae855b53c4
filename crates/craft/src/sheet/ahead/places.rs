//! The places that a dough lay in, as they were measured: a reading holds from its moment until the next, and a fridge without
//! power drifts toward the room.
//!
//! Source: product notes. The drift is that of a closed box that holds its cold for a while: its difference to the room falls to
//! a third (1/e) in `HOLDS_H`, and comes back three times as fast once it cools again (assumed).

use super::timeline::{SHORTEST_H, h_between};
use super::{AheadRequest, Measured, PowerCut};
use crate::path::Spot;
use crate::rise::{Air, Event, Stage};
use jiff::Timestamp;

/// So long a closed household fridge holds its cold, h.
pub const HOLDS_H: f64 = 6.0;
/// A walk-in, with its fan and its mass.
pub const WALK_IN_HOLDS_H: f64 = 12.0;
/// It cools down so many times as fast as it warmed.
const BACK: f64 = 3.0;
/// A drift is run in so many steps at most, of half an hour at least.
const STEPS: f64 = 16.0;
const STEP_H: f64 = 0.5;
/// No cut is longer, h: what lay so long without power is as warm as the room.
const LONGEST_CUT_H: f64 = 72.0;

/// So long before a dough begins a reading of a place may be old, h.
const BEFORE_H: f64 = 24.0;

/// From when on what was read of a place counts for a dough: a day before it begins, and not before it was planned, for the
/// plan says how warm the places were thought to be then.
pub fn places_count_from(begins: Timestamp, planned_at: Timestamp) -> Timestamp {
    (begins - crate::sheet::hours(BEFORE_H)).max(planned_at.min(begins))
}

/// What was said of the kitchen's room and fridge, in the order of the clock.
#[derive(Debug, Clone, Default)]
pub(super) struct Places {
    pub room: Vec<(Timestamp, f64)>,
    pub fridge: Vec<(Timestamp, f64)>,
    /// Places of the kitchen's own, each reading with its name.
    pub own: Vec<(Timestamp, f64, String)>,
    cuts: Vec<PowerCut>,
}

impl Places {
    /// Readings and cuts up to now.
    pub fn of(q: &AheadRequest) -> Places {
        let mut out = Places::default();
        for r in q.happened.readings.iter().filter(|r| r.at <= q.now) {
            match &r.measured {
                Measured::Room { c } => out.room.push((r.at, *c)),
                Measured::Fridge { c } => out.fridge.push((r.at, *c)),
                Measured::Place { name, c } => out.own.push((r.at, *c, name.clone())),
                _ => {}
            }
        }
        out.room.sort_by_key(|(at, _)| *at);
        out.fridge.sort_by_key(|(at, _)| *at);
        out.own.sort_by_key(|(at, ..)| *at);
        let cuts = q
            .happened
            .power_cuts
            .iter()
            .filter(|c| c.from <= q.now && c.until > c.from);
        out.cuts = cuts.copied().collect();
        out.cuts.sort_by_key(|c| c.from);
        out
    }

    /// Puts what was measured into the stages of a dough that was mixed then.
    pub fn measured(&self, stages: &mut Vec<(Stage, Spot)>, mixed_at: Timestamp, room_c: f64) {
        let mut hold = |at: Timestamp, c: f64, there: &dyn Fn(&Spot) -> bool| {
            for i in from_there(stages, h_between(mixed_at, at), c, there)..stages.len() {
                if there(&stages[i].1) {
                    stages[i].0.place_c = Some(c);
                    stages[i].0.place_profile_c = None;
                }
            }
        };
        for (at, c) in &self.room {
            hold(*at, *c, &|spot| *spot == Spot::Room);
        }
        for (at, c) in &self.fridge {
            hold(*at, *c, &|spot| *spot == Spot::Fridge);
        }
        for (at, c, name) in &self.own {
            hold(
                *at,
                *c,
                &|spot| matches!(spot, Spot::Own(p) if p.name == *name),
            );
        }
        for cut in &self.cuts {
            self.drift(cut, stages, mixed_at, room_c);
        }
    }

    /// The room at a moment.
    fn room_at(&self, at: Timestamp, usual: f64) -> f64 {
        self.room
            .iter()
            .rev()
            .find(|(t, _)| *t <= at)
            .map_or(usual, |(_, c)| *c)
    }

    /// One cut: the fridges warm toward the room while it lasts, and cool again after it. What was read meanwhile holds.
    fn drift(
        &self,
        cut: &PowerCut,
        stages: &mut Vec<(Stage, Spot)>,
        mixed_at: Timestamp,
        usual: f64,
    ) {
        // A dough that lies in no fridge has none to fail it.
        if !stages.iter().any(|(_, spot)| holds(spot).is_some()) {
            return;
        }
        let (a, b) = (
            h_between(mixed_at, cut.from),
            h_between(mixed_at, cut.until),
        );
        let b = b.min(a + LONGEST_CUT_H);
        let room_c = self.room_at(cut.from, usual);
        // Known again: the next reading of the fridge, or of a place of one's own.
        let known = self
            .fridge
            .iter()
            .map(|(t, _)| t)
            .chain(self.own.iter().map(|(t, ..)| t))
            .map(|t| h_between(mixed_at, *t))
            .find(|h| *h > a)
            .unwrap_or(f64::INFINITY);
        let end = (b + 3.0 * WALK_IN_HOLDS_H / BACK).min(known);
        let step = ((end - a) / STEPS).max(STEP_H);
        let mut t = a;
        while t < end {
            from(stages, t);
            t += step;
        }
        from(stages, b.min(end));
        from(stages, end);
        let mut began = 0.0;
        for (stage, spot) in stages.iter_mut() {
            let (from_h, to_h) = (began, began + stage.hours);
            began = to_h;
            let Some(holds_h) = holds(spot) else { continue };
            if from_h < a - SHORTEST_H || from_h >= end - SHORTEST_H {
                continue;
            }
            let set = stage.place_c.unwrap_or(usual);
            let mid = (from_h + to_h.min(end)) / 2.0;
            let warmed = |h: f64| room_c + (set - room_c) * (-h.max(0.0) / holds_h).exp();
            let c = if mid <= b {
                warmed(mid - a)
            } else {
                set + (warmed(b - a) - set) * (-(mid - b) * BACK / holds_h).exp()
            };
            stage.place_c = Some(c);
            stage.place_profile_c = None;
        }
    }
}

/// How long a place holds its cold without power; `None` for one that needs none.
fn holds(spot: &Spot) -> Option<f64> {
    match spot {
        Spot::Fridge => Some(HOLDS_H),
        Spot::Own(p) if p.air == Air::Fridge => Some(p.holds_h.unwrap_or(HOLDS_H)),
        Spot::Own(p) if p.air == Air::Fan => Some(p.holds_h.unwrap_or(WALK_IN_HOLDS_H)),
        _ => None,
    }
}

/// The stage from which on a reading of a place counts. What lies elsewhere then, or in a place as warm as it was thought,
/// is not cut: a reading that says nothing new changes no figure.
fn from_there(
    stages: &mut Vec<(Stage, Spot)>,
    at_h: f64,
    c: f64,
    there: &dyn Fn(&Spot) -> bool,
) -> usize {
    let mut began = 0.0;
    for i in 0..stages.len() {
        let (stage, spot) = &stages[i];
        if at_h < began + stage.hours - SHORTEST_H {
            let new = stage.place_c != Some(c) || stage.place_profile_c.is_some();
            return if there(spot) && new {
                from(stages, at_h)
            } else {
                i + usize::from(at_h > began + SHORTEST_H)
            };
        }
        began += stage.hours;
    }
    stages.len()
}

/// The stage that begins at an hour after mixing; one that is under way then is cut in two.
pub(super) fn from(stages: &mut Vec<(Stage, Spot)>, at_h: f64) -> usize {
    let mut began = 0.0;
    for i in 0..stages.len() {
        let whole = stages[i].0.hours;
        if at_h <= began + SHORTEST_H {
            return i;
        }
        if at_h < began + whole - SHORTEST_H {
            let (first, spot) = stages[i].clone();
            let rest = Stage {
                hours: began + whole - at_h,
                event: Event::None,
                starts_at_c: None,
                ..first
            };
            stages[i].0.hours = at_h - began;
            stages.insert(i + 1, (rest, spot));
            return i + 1;
        }
        began += whole;
    }
    stages.len()
}
