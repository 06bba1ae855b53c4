//! When the balls of a box open, how they are opened, and what press tests say of the flour.

use super::ShapeQuestion;
use super::moment::{BoxMoment, moment};
use super::runs::{BoxRuns, OpeningDough};
use super::way::{BoxLegs, BoxWay};
use crate::rise::RiseResult;
use crate::rise::kinetics::MATURE_SHARE;
use crate::rise::recipe::RELAX_H;
use crate::shape::{
    FlourFactor, FlourTest, HowOpened, OPENS_C, OpenHow, OpenNow, PressSign, Relaxing,
    cold_stiffness, how_to_open, minutes_until_open, tau_h,
};
use crate::sheet::ahead::timeline::h_between;
use crate::sheet::hours;
use jiff::{SignedDuration, Timestamp};
use std::sync::Arc;

/// Below so much strength by the book a ball that holds says that the gluten lasts.
const HOLDS_SAYS_BELOW: f64 = 0.25;
/// After it sprang back, a ball is left alone for so long at least, min.
const AGAIN_MIN: i64 = 10;
/// Tight balling relaxes slower by so much.
const TIGHT: f64 = 1.3;

/// From when a ball opens.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OpensFrom {
    /// With care; none within 12 h.
    pub with_care: Option<Timestamp>,
    /// Easily.
    pub easily: Option<Timestamp>,
}

/// How the balls of a box open.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OpenBox {
    /// From when, as it lies.
    pub from: OpensFrom,
    /// How, now; in a tray it is dimpled instead of waited for.
    pub now: HowOpened,
    /// How, when its first ball is used.
    pub at_use: HowOpened,
    /// What a finger would see now, by what is known of the flour.
    pub expected: PressSign,
    /// It opens, but is too cold for it to go well.
    pub too_cold: bool,
    /// The last press test, and when.
    pub pressed: Option<(Timestamp, PressSign)>,
}

/// A box and what bears on opening it.
pub(super) struct BoxOpening<'a> {
    pub way: &'a BoxWay,
    pub legs: &'a BoxLegs,
    pub run: &'a RiseResult,
    pub mixed_at: Timestamp,
    pub dough: OpeningDough,
    pub flour: Option<(FlourFactor, FlourFactor)>,
    pub ball_g: f64,
    pub in_pans: bool,
}

impl BoxOpening<'_> {
    fn at(&self, t: Timestamp) -> BoxMoment {
        moment(self.run, h_between(self.mixed_at, t))
    }
    fn kappa(&self) -> f64 {
        self.flour.map_or(1.0, |(relaxes, _)| relaxes.factor)
    }
    /// How far it relaxed, without the cold: by maturing, and by resting since it was shaped.
    fn relaxed(&self, t: Timestamp) -> f64 {
        let (ripe, rested) = relaxed_by(self.run, self.dough.w, self.rested_h(t), &self.at(t));
        ripe.min(rested / (self.kappa() * self.tight(t)))
    }
    /// Hours at 20 °C since it was shaped.
    fn rested_h(&self, t: Timestamp) -> f64 {
        let shaped = self.at(self.legs.shaped_at(t) + hours(1.0 / 60.0));
        (self.at(t).matured_h - shaped.matured_h).max(0.0)
    }
    fn tight(&self, t: Timestamp) -> f64 {
        let last = self.way.told.reballed.iter().rfind(|(at, ..)| *at <= t);
        match last {
            Some((_, _, true)) => TIGHT,
            _ => 1.0,
        }
    }
    fn reserve(&self, m: &BoxMoment) -> f64 {
        let lasts = self.flour.map_or(1.0, |(_, lasts)| lasts.factor);
        1.0 - (1.0 - m.reserve) / lasts
    }
    fn how(&self, t: Timestamp) -> HowOpened {
        let m = self.at(t);
        let how = how_to_open(&OpenNow {
            reserve: self.reserve(&m),
            relaxed: self.relaxed(t),
            dough_c: m.dough_c,
            hydration_percent: self.dough.hydration_percent,
            w: self.dough.w,
            volume_share: m.volume_share,
            balled_again: !self.way.told.reballed.is_empty(),
        });
        match self.in_pans {
            // Oiled fingers instead of flour, and the whole tray at last.
            true => HowOpened {
                size: 1.0,
                bench_flour_g: 0.0,
                ..how
            },
            false => how,
        }
    }
}

/// Ratios to what it takes: hours matured against those that ripen, hours rested against those that relax, by the book.
fn relaxed_by(run: &RiseResult, w: f64, rested_h: f64, m: &BoxMoment) -> (f64, f64) {
    let ripe = m.matured_h / (MATURE_SHARE * run.gluten_capacity_h).max(1e-6);
    (ripe, rested_h / (RELAX_H * w / 300.0))
}

/// When the balls of a box open, and how.
pub(super) fn open_box(b: &BoxOpening, now: Timestamp, use_at: Timestamp) -> OpenBox {
    let from = b.way.balled_at.max(now);
    let m = b.at(from);
    let (spot, container) = b.legs.lies_at(from);
    let opening = minutes_until_open(&Relaxing {
        shaped_h: b.rested_h(from),
        matured: Some((m.matured_h, b.run.gluten_capacity_h)),
        w: b.dough.w,
        dough_c: m.dough_c,
        place_c: m.place_c,
        tau_h: tau_h(container, spot.air(), b.ball_g),
        f_mature: b.dough.f_mature,
        kappa: b.kappa(),
        tight: b.tight(from),
        acid: 0.0,
    });
    let at = |min: Option<f64>| min.map(|m| from + hours(m / 60.0));
    let pressed = b.way.told.pressed.last().copied();
    let mut with_care = at(opening.with_care_min);
    if let Some((t, PressSign::Springs)) = pressed {
        let again = t + SignedDuration::from_mins(AGAIN_MIN);
        with_care = with_care.map(|c| c.max(again));
    }
    OpenBox {
        from: OpensFrom {
            with_care,
            easily: at(opening.easily_min),
        },
        now: b.how(now),
        at_use: b.how(use_at.max(now)),
        expected: PressSign::expected(
            b.relaxed(now) / cold_stiffness(b.at(now).dough_c),
            b.reserve(&b.at(now)),
        ),
        too_cold: b.at(now).dough_c < OPENS_C,
        pressed,
    }
}

impl OpenBox {
    /// Whether it opens at a moment, whatever the way: a finger that saw it spring back a moment ago is believed.
    pub fn opens_at(&self, now: Timestamp) -> bool {
        let from = self.from.with_care;
        self.now.how != OpenHow::Wait && from.is_some_and(|t| t <= now)
    }
}

/// The press tests of a dough, as each bears on its flour.
pub(super) fn tests_of(
    q: &ShapeQuestion,
    runs: &BoxRuns,
    ways: &[BoxWay],
    base: &[Arc<RiseResult>],
    mixed_at: Timestamp,
) -> Vec<FlourTest> {
    let dough = runs.dough(q.ahead.request.serve_at);
    let mut out = vec![];
    for (i, way) in ways.iter().enumerate() {
        let legs = runs.legs(i, None, q.ahead.now.max(way.balled_at));
        let b = BoxOpening {
            way,
            legs: &legs,
            run: &base[i],
            mixed_at,
            dough,
            flour: None,
            ball_g: 250.0,
            in_pans: false,
        };
        for (at, sign) in &way.told.pressed {
            let m = b.at(*at);
            let (ripe, rested) = relaxed_by(&base[i], dough.w, b.rested_h(*at), &m);
            let rested = rested / b.tight(*at);
            let relaxes = *sign != PressSign::Flows && rested < ripe;
            let says = *sign == PressSign::Flows
                || *sign == PressSign::Holds && m.reserve < HOLDS_SAYS_BELOW;
            out.push(FlourTest {
                sign: *sign,
                relaxed: relaxes.then(|| rested / cold_stiffness(m.dough_c)),
                used: says.then_some(1.0 - m.reserve),
            });
        }
    }
    out
}
