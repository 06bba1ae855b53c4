//! Why did this dough stand as it did? Every mishap shifts one channel; what was seen says which shift it fits.
//!
//! Source: learning, section 9.1.

use super::cause::Cause;
use super::evidence::ln_evidence;
use super::verdict::Ranked;
use crate::learn::card::{Card, CardMoment};
use crate::learn::channel::{Channel, Offsets};
use crate::learn::fit::Covariance;
use crate::learn::observed::{LoggedBatch, Observed};
use crate::learn::site::Sighting;
use crate::rise::RiseRequest;

struct Mishap {
    cause: Cause,
    prior: f64,
    channel: Channel,
    levels: &'static [f64],
}

const fn mishap(cause: Cause, prior: f64, channel: Channel, levels: &'static [f64]) -> Mishap {
    Mishap {
        cause,
        prior,
        channel,
        levels,
    }
}

const MISHAPS: &[Mishap] = &[
    mishap(Cause::FridgeWarm, 0.06, Channel::Fridge, &[2.0, 3.5, 5.0]),
    mishap(Cause::FridgeCold, 0.03, Channel::Fridge, &[-2.0, -3.5]),
    mishap(Cause::RoomWarm, 0.05, Channel::Room, &[2.5, 4.0, 6.0]),
    mishap(Cause::RoomCold, 0.05, Channel::Room, &[-2.5, -4.0, -6.0]),
    mishap(Cause::YeastMuch, 0.05, Channel::Yeast, &[0.3, 0.45, 0.7]),
    mishap(
        Cause::YeastLittle,
        0.06,
        Channel::Yeast,
        &[-0.3, -0.55, -0.9],
    ),
    mishap(Cause::LevStrong, 0.04, Channel::Leaven, &[0.4, 0.7]),
    mishap(Cause::LevWeak, 0.06, Channel::Leaven, &[-0.4, -0.8]),
    mishap(Cause::DoughWarm, 0.05, Channel::Dough, &[3.0, 4.5, 6.0]),
    mishap(Cause::DoughCold, 0.04, Channel::Dough, &[-3.0, -4.5, -6.0]),
    mishap(
        Cause::FlourWeak,
        0.06,
        Channel::Gluten,
        &[-0.35, -0.6, -0.9],
    ),
    mishap(Cause::FlourStrong, 0.02, Channel::Gluten, &[0.4, 0.7]),
    mishap(Cause::BalledLate, 0.05, Channel::Relaxing, &[0.4, 0.8]),
];

/// Opened later or earlier than noted, h; asked only where the hour was not noted.
const OFF_NOTE: [(Cause, f64, &[f64]); 2] = [
    (Cause::Late, 0.04, &[1.0, 2.0, 3.5]),
    (Cause::Early, 0.04, &[-1.0, -2.0]),
];
pub(super) const ORDINARY: f64 = 0.40;
/// Opened so far off the plan it is a deviation of its own, h.
const OFF_PLAN_H: f64 = 0.75;
/// A dose or a stage that differs by less is as planned.
const SAME: f64 = 1e-6;

/// What the sites of a diagnosis are: states, readings and remarks.
fn counts(seen: &Observed) -> bool {
    !matches!(seen, Observed::Ready { .. } | Observed::Tub { .. })
}

/// Whether there is anything to explain.
pub(super) fn has_symptoms(b: &LoggedBatch) -> bool {
    use crate::learn::observed::StoodAs;
    b.observed.iter().any(|s| match s {
        Observed::State { is, .. } => *is != StoodAs::Right,
        Observed::Tight { said } | Observed::Slack { said } | Observed::Sour { said } => *said,
        _ => false,
    })
}

/// A batch with the card of the hours that a diagnosis asks about.
pub(super) struct Case<'a> {
    batch: &'a LoggedBatch,
    sites: Vec<Sighting>,
    card: Card,
    shifts: Vec<f64>,
}

/// Hours by which the notes may be off, as noted first.
fn shifts(b: &LoggedBatch) -> Vec<f64> {
    let mut all = vec![0.0];
    if b.opened_at_h.is_none() {
        all.extend(OFF_NOTE.iter().flat_map(|(_, _, by)| by.iter().copied()));
    } else if off_plan(b) != 0.0 {
        // Last: as if it had been opened when the plan said.
        all.push(-off_plan(b));
    }
    all
}

/// How far off the plan it was opened, h; 0 where that is no deviation.
fn off_plan(b: &LoggedBatch) -> f64 {
    let off = b.opened_h() - b.dough.total_hours();
    if off.abs() > OFF_PLAN_H { off } else { 0.0 }
}

impl<'a> Case<'a> {
    pub fn of(batch: &'a LoggedBatch) -> Case<'a> {
        let sites: Vec<Sighting> = (0..batch.observed.len())
            .filter(|&n| counts(&batch.observed[n]))
            .map(|n| Sighting::of(0, n, batch))
            .collect();
        let shifts = shifts(batch);
        let hours: Vec<f64> = shifts
            .iter()
            .flat_map(|by| {
                sites
                    .iter()
                    .map(move |s| (batch.hour_of(&batch.observed[s.observed]) + by).max(0.0))
            })
            .collect();
        Case {
            batch,
            card: Card::of(&batch.dough, &hours),
            sites,
            shifts,
        }
    }

    fn shifted(&self, shift: usize) -> Vec<(Sighting, &CardMoment)> {
        let from = shift * self.sites.len();
        self.sites
            .iter()
            .enumerate()
            .map(|(i, s)| (*s, &self.card.moments[from + i]))
            .collect()
    }

    /// The hour at which it was opened, as the card has it.
    pub fn opened(&self) -> Option<&CardMoment> {
        let i = self
            .sites
            .iter()
            .position(|s| !self.batch.observed[s.observed].is_reading())?;
        Some(&self.card.moments[i])
    }

    /// How likely each thing seen is where offsets stand at `q`: place in what was seen, chance.
    pub fn chances(&self, q: &Offsets) -> Vec<(usize, f64)> {
        self.shifted(0)
            .iter()
            .filter(|(s, _)| !self.batch.observed[s.observed].is_reading())
            .map(|(s, m)| (s.observed, s.read(m, q).1.ln.exp()))
            .collect()
    }

    /// All causes by their share. `p` and `s` are what all other batches say of this one.
    pub fn ranked(
        &self,
        planned: Option<&RiseRequest>,
        p: &Offsets,
        s: &Covariance,
    ) -> Vec<Ranked> {
        let as_noted = self.shifted(0);
        let ordinary = ln_evidence(&as_noted, p, s);
        let mut found: Vec<Ranked> = vec![Ranked::new(Cause::Ordinary, ORDINARY, 0.0)];
        for m in MISHAPS {
            let needs_run = m.channel.step() > 0.0;
            if needs_run && !self.card.active.contains(&m.channel) {
                continue;
            }
            let tried = m.levels.iter().map(|&level| {
                let mut p = *p;
                p[m.channel.at()] += level;
                (level, ln_evidence(&as_noted, &p, s) - ordinary)
            });
            found.push(Ranked::over(m.cause, m.prior, tried));
        }
        if self.batch.opened_at_h.is_none() {
            for (cause, prior, levels) in OFF_NOTE {
                let tried = levels.iter().map(|&by| {
                    let at = self.shifts.iter().position(|s| *s == by).unwrap_or(0);
                    (by, ln_evidence(&self.shifted(at), p, s) - ordinary)
                });
                found.push(Ranked::over(cause, prior, tried));
            }
        }
        Ranked::normalise(&mut found);
        self.credit(&mut found, planned, p, s, ordinary);
        Ranked::sort(&mut found);
        found
    }

    /// Moves of "ordinary" what a known deviation explains, the largest first.
    fn credit(
        &self,
        found: &mut Vec<Ranked>,
        planned: Option<&RiseRequest>,
        p: &Offsets,
        s: &Covariance,
        actual: f64,
    ) {
        let end_y = |m: &CardMoment| m.ripeness(p).value;
        let y = self.opened().map_or(0.0, end_y);
        // Cause, how far off, credit, and whether it raised ripeness.
        let mut known: Vec<(Cause, f64, f64, bool)> = Vec::new();
        let off = off_plan(self.batch);
        if off != 0.0 && self.batch.opened_at_h.is_some() {
            let restored = self.shifted(self.shifts.len() - 1);
            let z = ln_evidence(&restored, p, s);
            let was = restored.first().map_or(y, |(_, m)| end_y(m));
            let cause = if off > 0.0 { Cause::Late } else { Cause::Early };
            known.push((cause, off, actual - z, y > was));
        }
        if let Some(planned) = planned {
            for (cause, off, restored) in restorations(self.batch, planned) {
                let case = Case::of(&restored);
                let z = ln_evidence(&case.shifted(0), p, s);
                let was = case.opened().map_or(0.0, end_y);
                known.push((cause, off, actual - z, y > was));
            }
        }
        known.sort_by(|a, b| b.2.total_cmp(&a.2));
        for (cause, off, credit, raised) in known {
            let part = 1.0 - (-credit.max(0.0)).exp();
            let Some(ordinary) = found.iter_mut().find(|r| r.cause == Cause::Ordinary) else {
                return;
            };
            let moved = ordinary.share * part;
            ordinary.share -= moved;
            found.push(Ranked::known(cause, moved, off, raised));
        }
    }
}

/// The batch as it would have been with the planned stages, and with the planned dose: cause, how far off, batch.
fn restorations(b: &LoggedBatch, planned: &RiseRequest) -> Vec<(Cause, f64, LoggedBatch)> {
    let mut all = Vec::new();
    let longer = b.dough.total_hours() - planned.total_hours();
    let as_long = b.dough.stages.len() == planned.stages.len()
        && b.dough
            .stages
            .iter()
            .zip(&planned.stages)
            .all(|(a, p)| (a.hours - p.hours).abs() < SAME);
    if !as_long {
        let mut restored = b.clone();
        restored.dough.stages = planned.stages.clone();
        // What was seen at opening would have been seen by so much earlier.
        restored.opened_at_h = Some((b.opened_h() - longer).max(0.0));
        for seen in &mut restored.observed {
            if let Observed::State { at_h, .. } = seen {
                *at_h = None;
            }
        }
        all.push((Cause::Stages, longer, restored));
    }
    let dose = (b.dough.yeast_percent / planned.yeast_percent.max(1e-9)).ln();
    if planned.yeast_percent > 0.0 && dose.abs() > SAME {
        let mut restored = b.clone();
        restored.dough.yeast_percent = planned.yeast_percent;
        all.push((Cause::Dose, dose, restored));
    }
    all
}

/// The shift of a cause's best level.
pub(super) fn shift_of(cause: Cause, level: f64, p: &Offsets) -> Offsets {
    let mut q = *p;
    if let Some(m) = MISHAPS.iter().find(|m| m.cause == cause) {
        q[m.channel.at()] += level;
    }
    q
}
