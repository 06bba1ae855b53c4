//! A box at one moment, read between the points of its run.

use crate::rise::{Label, RisePoint, RiseResult};
use serde::{Deserialize, Serialize};

/// How the balls of a box stand at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BoxMoment {
    /// Rise, 1 is ready as intended.
    pub rise: f64,
    /// Mean of a ball, °C.
    pub dough_c: f64,
    /// Where it lies, °C.
    pub place_c: f64,
    /// Maturation, hours at 20 °C.
    pub matured_h: f64,
    /// Strength left by the book, 1 falling to 0 and below.
    pub reserve: f64,
    /// Its volume as a share of what it can hold.
    pub volume_share: f64,
    /// How it stands.
    pub label: Label,
}

fn of(p: &RisePoint) -> BoxMoment {
    BoxMoment {
        rise: p.ripeness,
        dough_c: p.mean_c,
        place_c: p.place_c,
        matured_h: p.matured_h,
        reserve: p.reserve,
        volume_share: p.volume / p.volume_ceiling.max(1e-6),
        label: p.label,
    }
}

/// How it stands so many hours after mixing; at its ends, as it stands there.
pub(super) fn moment(run: &RiseResult, at_h: f64) -> BoxMoment {
    let all = || run.points.iter().chain(&run.beyond);
    let Some(after) = all().find(|p| p.hours >= at_h) else {
        return of(all().last().unwrap_or(&run.at_bake));
    };
    let before = all().take_while(|p| p.hours < at_h).last();
    let Some(before) = before else {
        return of(after);
    };
    let f = (at_h - before.hours) / (after.hours - before.hours).max(1e-9);
    let (a, b) = (of(before), of(after));
    // Where it was shaped in between, the clock falls: what is nearer counts.
    if b.rise < a.rise - 0.03 {
        return if f < 0.5 { a } else { b };
    }
    let mix = |x: f64, y: f64| x + f * (y - x);
    BoxMoment {
        rise: mix(a.rise, b.rise),
        dough_c: mix(a.dough_c, b.dough_c),
        place_c: b.place_c,
        matured_h: mix(a.matured_h, b.matured_h),
        reserve: mix(a.reserve, b.reserve),
        volume_share: mix(a.volume_share, b.volume_share),
        label: b.label,
    }
}
