//! What happens in a hidden kitchen, and what its maker writes down of it.

use super::chance::Chance;
use super::kitchen::{Hidden, Truth, Variant};
use super::school::School;
use crate::keyed::Keyed;
use crate::learn::channel::Channel;
use crate::learn::observed::{Answers, LoggedBatch, Observed, StoodAs};
use crate::learn::place::MadeWith;
use crate::rise::ripeness::READY;
use crate::rise::{RiseRequest, Watch, WatchedMoment, quick_dose, watch};

/// Hard edges between the states, ln.
const CUTS: [f64; 4] = [0.65, 0.87, 1.5, 2.2];

pub(super) struct Lived {
    pub run: Watch,
    pub truth: Truth,
}

impl Lived {
    /// Runs a plan in truth, as far beyond its end as anything is asked.
    pub fn of(r: &RiseRequest, truth: Truth) -> Lived {
        Lived {
            run: watch(&truth.request(r), r.total_hours() + 12.0),
            truth,
        }
    }
    pub fn at(&self, h: f64) -> &WatchedMoment {
        let m = &self.run.moments;
        m.iter()
            .find(|m| m.hours >= h - 1e-9)
            .unwrap_or(&m[m.len() - 1])
    }
    /// ln of the ripeness by gas, as this maker counts it.
    pub fn ripeness(&self, m: &WatchedMoment) -> f64 {
        m.dose.min(m.piece).max(1e-4).ln() - self.truth.of(Channel::Ready)
    }
    fn young(&self, m: &WatchedMoment) -> f64 {
        self.ripeness(m)
            .min(m.matured.max(1e-4).ln() - self.truth.of(Channel::Gluten))
            .min(m.relaxed.max(1e-4).ln() - self.truth.of(Channel::Relaxing))
    }
    fn reserve(&self, m: &WatchedMoment) -> f64 {
        1.0 - (1.0 - m.reserve) * (-self.truth.of(Channel::Gluten)).exp()
    }
    pub fn state(&self, m: &WatchedMoment, ignores_gluten: bool) -> f64 {
        let young = self.young(m);
        if ignores_gluten {
            young
        } else {
            young.max(1.5f64.ln() - 2.0 * self.reserve(m))
        }
    }
    /// How far it is from tight, slack and sour; below 0 it is.
    pub fn handling(&self, m: &WatchedMoment) -> (f64, f64, f64) {
        let gluten = self.truth.of(Channel::Gluten);
        let tight = (m.matured.max(1e-4).ln() - gluten)
            .min(m.relaxed.max(1e-4).ln() - self.truth.of(Channel::Relaxing))
            .min(self.ripeness(m) + (1.0f64 / 0.75).ln());
        let slack = (self.reserve(m) - 0.10) / 0.25;
        let sour = ((0.45 - m.acid) / 0.25).min(2.6f64.ln() - m.dose.max(1e-4).ln());
        (tight, slack, sour)
    }
    pub fn since_shaping(&self) -> impl Iterator<Item = &WatchedMoment> {
        self.run
            .moments
            .iter()
            .filter(|m| m.hours > self.run.shaped_h + 1e-9)
    }
    /// The hour at which ripeness passes "ready".
    pub fn ready_h(&self) -> Option<f64> {
        self.since_shaping()
            .find(|m| self.ripeness(m) >= READY.ln())
            .map(|m| m.hours)
    }
}

pub(super) fn opening(f: f64) -> StoodAs {
    StoodAs::ALL[CUTS.iter().filter(|c| f >= c.ln()).count()]
}

/// The true dose of this kitchen without the scatter of a batch, % in the form used.
pub(super) fn true_dose(r: &RiseRequest, truth: &Truth) -> Option<f64> {
    let mut request = truth.request(r);
    request.departs.ripe = truth.of(Channel::Ready);
    quick_dose(&request).ok()
}

pub(super) fn made_with(r: &RiseRequest) -> MadeWith {
    let one = || Some("one".to_string());
    MadeWith {
        tin: one(),
        leaven: one(),
        fridge: one(),
        room: one(),
        mixer: one(),
        flour: Some(format!("W{}", r.flour_w)),
    }
}

/// A bake, with what is written down of it.
pub(super) fn bake(
    h: &Hidden,
    school: School,
    plan: RiseRequest,
    week: f64,
    c: &mut Chance,
) -> LoggedBatch {
    let lived = Lived::of(&plan, h.truth(school, Some(c)));
    let end = plan.total_hours();
    let opened = (end + c.normal(0.5)).max(lived.run.shaped_h + 0.1);
    let wrong = |c: &mut Chance| h.variant == Variant::Heavy && c.one_in(0.08);
    let mut observed = Vec::new();
    let [state, ready, dough, fridge, room, tub] = h.habits;
    if c.one_in(state) {
        let f = lived.state(lived.at(opened), h.ignores_gluten) + c.normal(0.12);
        let is = if wrong(c) {
            StoodAs::ALL[c.below(5)]
        } else {
            opening(f)
        };
        observed.push(Observed::State {
            at_h: Some(opened),
            is,
            answers: Answers::Five,
        });
    }
    if c.one_in(ready) {
        let level = c.normal(0.10);
        let when = lived.since_shaping().find(|m| lived.young(m) >= level);
        if let Some(m) = when.filter(|m| m.hours <= opened + 0.5) {
            let mut at_h = m.hours;
            if wrong(c) {
                at_h += c.normal(3.0);
            }
            observed.push(Observed::Ready {
                at_h: ((at_h * 4.0).round() / 4.0).max(0.25),
            });
        }
    }
    let has = |air: fn(&crate::rise::Stage) -> bool| plan.stages.iter().any(air);
    let q = &lived.truth.q;
    let [fridge_bias, room_bias, probe_bias, tub_bias] = h.biases;
    if c.one_in(dough) {
        let k = q[Channel::Dough.at()] + probe_bias + c.normal(0.4);
        observed.push(Observed::Dough {
            over_planned_k: k.clamp(-15.0, 15.0),
        });
    }
    if c.one_in(fridge) && has(|s| s.air == crate::rise::Air::Fridge) {
        let k = q[Channel::Fridge.at()] + fridge_bias + c.normal(0.5);
        observed.push(Observed::Fridge {
            over_planned_k: ((k * 2.0).round() / 2.0).clamp(-15.0, 15.0),
        });
    }
    if c.one_in(room) && has(|s| s.air == crate::rise::Air::Room) {
        let k = q[Channel::Room.at()] + room_bias + c.normal(0.5);
        observed.push(Observed::Room {
            over_planned_k: k.round().clamp(-15.0, 15.0),
        });
    }
    if c.one_in(tub) && lived.run.shaped_h > 0.5 {
        let at_h = lived.run.shaped_h * c.between(0.8, 1.0);
        let grown = (lived.at(at_h).volume - 1.0).max(0.03).ln() + tub_bias + c.normal(0.12);
        let times = ((1.0 + grown.exp()) * 10.0).round() / 10.0;
        if (1.05..=4.0).contains(&times) {
            observed.push(Observed::Tub { at_h, times });
        }
    }
    LoggedBatch {
        week,
        made_with: made_with(&plan),
        dough: plan,
        observed,
        opened_at_h: Some(opened),
    }
}
