//! How sure is the window? What is not known exactly, carried through to its edges.
//!
//! Each doubt (fridge, room, yeast, dough temperature) is put up and down by itself; how far an edge of the window moves
//! is added in squares, early and late apart, since the doubts do not know of each other. Source: fermentation model,
//! sections 10 and 12; the usual doubts are those of its sensitivity table.

use super::answer::Window;
use super::forecast::{HandOver, Temperatures, hand_overs, quick_window};
use super::memo::PrefermentRuns;
use super::request::{Air, RiseRequest};
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// How far off things may be, each side.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Doubts {
    /// The fridge, K.
    #[serde(rename = "fridge_c")]
    pub fridge_k: f64,
    /// The room, K.
    #[serde(rename = "room_c")]
    pub room_k: f64,
    /// % of the dose.
    pub yeast_percent: f64,
    /// The dough off the mixer, K.
    #[serde(rename = "dough_c")]
    pub dough_k: f64,
}

impl Default for Doubts {
    fn default() -> Self {
        Doubts {
            fridge_k: 1.0,
            room_k: 2.0,
            yeast_percent: 20.0,
            dough_k: 1.0,
        }
    }
}

/// An edge of the window: most likely, and the band it lies in, h since mixing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Band {
    /// Most likely, h since mixing.
    pub likely_h: f64,
    /// The early edge of the band, h since mixing.
    pub early_h: f64,
    /// The late edge of the band, h since mixing.
    pub late_h: f64,
}

/// What one doubt does to the moment of readiness.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Weight {
    /// What is not known exactly.
    pub doubt: Doubt,
    /// Hours by which the dough is ready earlier (negative) or later when it is up, and when it is down.
    pub up_h: f64,
    /// Hours by which it is ready earlier (negative) or later when it is down.
    pub down_h: f64,
}

/// What is not known exactly of a dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Doubt {
    /// How cold the fridge is.
    Fridge,
    /// How warm the room is.
    Room,
    /// How lively the yeast is.
    Yeast,
    /// How warm the dough left the mixer.
    Dough,
}

/// The window with its band.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Spread {
    /// When it is ready.
    pub ready: Band,
    /// Absent when the window is open.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub past: Option<Band>,
    /// The doubts by weight, the heaviest first.
    pub weights: Vec<Weight>,
}

fn shifted(r: &RiseRequest, doubt: Doubt, by: f64) -> RiseRequest {
    let mut r = r.clone();
    let warm = |r: &mut RiseRequest, cold: bool| {
        for s in &mut r.stages {
            let is_cold = matches!(s.air, Air::Fridge | Air::Fan);
            if is_cold != cold || s.is_frozen() {
                continue;
            }
            // A place that says itself how far off it may be is believed; no doubt at all stays none.
            let by = match s.place_off_k {
                Some(off) if by != 0.0 => off.copysign(by),
                _ => by,
            };
            s.place_c = s.place_c.map(|c| (c + by).clamp(-2.0, 42.0));
            if let Some(p) = &mut s.place_profile_c {
                for c in p {
                    *c = (*c + by).clamp(-2.0, 42.0);
                }
            }
        }
    };
    match doubt {
        Doubt::Fridge => warm(&mut r, true),
        Doubt::Room => warm(&mut r, false),
        Doubt::Dough => r.dough_c = (r.dough_c + by).clamp(0.0, 40.0),
        Doubt::Yeast => {
            let f = 1.0 + by / 100.0;
            r.yeast_percent *= f;
            r.leaven_fraction = (r.leaven_fraction * f).min(0.6);
        }
    }
    r
}

/// The band of the ready window; `None` when the dough is never ready.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn spread(
    r: &RiseRequest,
    doubts: &Doubts,
    from: Temperatures,
) -> Result<Option<Spread>, ValidationError> {
    r.check(true)?;
    Ok(spread_of(
        r,
        doubts,
        from,
        &hand_overs(r, from, &PrefermentRuns::default()),
    ))
}

pub(crate) fn spread_of(
    r: &RiseRequest,
    doubts: &Doubts,
    from: Temperatures,
    handed: &[HandOver],
) -> Option<Spread> {
    let likely = quick_window(r, from, handed)?;
    let looked_h = likely.looked_to_h;
    let cases = [
        (Doubt::Fridge, doubts.fridge_k),
        (Doubt::Room, doubts.room_k),
        (Doubt::Yeast, doubts.yeast_percent),
        (Doubt::Dough, doubts.dough_k),
    ];
    let (mut ready, mut past) = (Sides::default(), Sides::default());
    let mut weights = Vec::new();
    for (doubt, by) in cases {
        let run = |by: f64| quick_window(&shifted(r, doubt, by), from, handed);
        let moved = |w: &Option<Window>| {
            // Never ready is later than all that was looked at.
            let from_h = w.map_or(looked_h, |w| w.from_h) - likely.from_h;
            let to_h = likely
                .to_h
                .map(|to| w.and_then(|w| w.to_h).unwrap_or(looked_h) - to);
            (from_h, to_h)
        };
        let (up, down) = (moved(&run(by)), moved(&run(-by)));
        for (a, b) in [up, down] {
            ready.add(a);
            past.add(b.unwrap_or(0.0));
        }
        weights.push(Weight {
            doubt,
            up_h: up.0,
            down_h: down.0,
        });
    }
    weights.sort_by(|a, b| {
        let of = |w: &Weight| w.up_h.abs() + w.down_h.abs();
        of(b).total_cmp(&of(a))
    });
    Some(Spread {
        ready: ready.band(likely.from_h),
        past: likely.to_h.map(|h| past.band(h)),
        weights,
    })
}

/// The band of four in five where a kitchen's log says how well ln ripeness is foretold: the window with all gas so much
/// riper, and so much less. Source: learning, section 5.
pub(crate) fn spread_by_log(
    r: &RiseRequest,
    off: f64,
    from: Temperatures,
    handed: &[HandOver],
) -> Option<Spread> {
    let likely = quick_window(r, from, handed)?;
    let run = |by: f64| {
        let mut r = r.clone();
        // More ripeness is less that is asked for.
        r.departs.ripe -= by;
        quick_window(&r, from, handed)
    };
    let (riper, younger) = (run(off), run(-off));
    let from_h = |w: Option<Window>| w.map_or(likely.looked_to_h, |w| w.from_h);
    let to_h = |w: Option<Window>| w.and_then(|w| w.to_h).unwrap_or(likely.looked_to_h);
    Some(Spread {
        ready: Band {
            likely_h: likely.from_h,
            early_h: riper.map_or(likely.from_h, |w| w.from_h).min(likely.from_h),
            late_h: from_h(younger).max(likely.from_h),
        },
        past: likely.to_h.map(|likely_h| Band {
            likely_h,
            early_h: riper
                .map_or(likely_h, |w| w.to_h.unwrap_or(likely_h))
                .min(likely_h),
            late_h: to_h(younger).max(likely_h),
        }),
        weights: vec![],
    })
}

/// Sums of squares to the early and to the late side.
#[derive(Default)]
struct Sides {
    early: f64,
    late: f64,
}

impl Sides {
    fn add(&mut self, moved_h: f64) {
        if moved_h < 0.0 {
            self.early += moved_h * moved_h;
        } else {
            self.late += moved_h * moved_h;
        }
    }
    fn band(&self, likely_h: f64) -> Band {
        Band {
            likely_h,
            early_h: (likely_h - self.early.sqrt()).max(0.0),
            late_h: likely_h + self.late.sqrt(),
        }
    }
}
