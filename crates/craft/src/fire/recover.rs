//! The floor between two pizzas, and what a row of them does to it.
//!
//! Source: bake model, section 11. Steps of 1 s; several spots of one floor are taken as independent. Throughput hangs
//! on the power under the floor and is the weakest answer here: pages show it as a range.

use super::bake::{BakeParts, follow};
use super::heat::{Fineness, Side, Slab, radiative};
use super::race::Targets;
use super::setup::{Back, BakeRequest};
use serde::{Deserialize, Serialize};

/// Emissivity between a bare floor and its dome.
const EPS_BARE: f64 = 0.85;
/// How hard the cook or the thermostat holds the face at its setting, W/m²K.
const HELD_G: f64 = 1e4;
/// Back to within this of the launch counts as recovered, K.
const NEAR_K: f64 = 15.0;
/// A hand needs this between two pizzas of a spot, s.
pub const HANDS_S: f64 = 15.0;
/// Longest pause that is looked at, s.
pub(super) const LONGEST_GAP_S: f64 = 1500.0;

/// How the floor comes back after one pizza.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Recovery {
    /// The floor before a pizza, °C.
    pub launch_c: f64,
    /// The floor as it comes out, °C.
    pub exit_c: f64,
    /// How far it fell, K.
    #[serde(rename = "drop_c")]
    pub drop_k: f64,
    /// Time to half, and to 63 %, of the way back, s; absent when not within 1 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub half_s: Option<f64>,
    /// Time to 63 % of the way back, s; absent when not within 1 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tau_s: Option<f64>,
    /// Until the floor is within 15 K of the launch, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wait_s: Option<f64>,
}

/// One pizza of a row.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Turned {
    /// The floor before it, °C.
    pub launch_c: f64,
    /// The floor after it, °C.
    pub exit_c: f64,
    /// Colour of its base.
    pub base: f64,
}

/// A bare floor of this oven, from a profile.
pub(crate) struct Bare<'a> {
    r: &'a BakeRequest,
    pub slab: Slab,
}

impl<'a> Bare<'a> {
    pub(crate) fn new(r: &'a BakeRequest, profile: &[f64]) -> Bare<'a> {
        let mut slab = Slab::new(r.oven.floor, r.oven.floor_mm, r.oven.floor_c);
        slab.t.copy_from_slice(profile);
        Bare { r, slab }
    }

    /// One second.
    pub(crate) fn second(&mut self) {
        let o = &self.r.oven;
        let surface_c = self.slab.top_c();
        let bottom_c = self.slab.bottom_c();
        let air_c = o.air_c.unwrap_or(o.dome_c);
        let eps = o.floor.body().eps;
        let sky = |eps: f64, view: f64, extra: f64| {
            let hr = view * eps * radiative(o.dome_c, surface_c);
            let g = hr + o.air_w_m2k;
            Side {
                g,
                c: (hr * o.dome_c + o.air_w_m2k * air_c) / g,
                w: extra,
            }
        };
        match o.back {
            Back::Air => {
                let top = sky(EPS_BARE * eps, 1.0, eps * o.grill_w_m2);
                let hr = 0.9 * eps * radiative(o.dome_c, bottom_c);
                let hc = 0.8 * o.air_w_m2k;
                let bottom = Side {
                    g: hr + hc,
                    c: (hr * o.dome_c + hc * air_c) / (hr + hc),
                    w: eps * o.back_w_m2,
                };
                self.slab.step(1.0, top, bottom);
            }
            Back::Mass | Back::Element => {
                let top = sky(EPS_BARE, o.view, 0.0);
                let bottom = Side {
                    w: if o.back == Back::Element {
                        let set = o.back_c.unwrap_or(o.floor_c);
                        o.back_w_m2 * ((set + 5.0 - bottom_c) / 10.0).clamp(0.0, 1.0)
                    } else {
                        0.0
                    },
                    ..Side::default()
                };
                let before = self.slab.t.clone();
                self.slab.step(1.0, top, bottom);
                if self.slab.top_c() > o.floor_c {
                    // The cook or the thermostat holds it there.
                    self.slab.t.copy_from_slice(&before);
                    let held = Side {
                        g: HELD_G,
                        c: o.floor_c,
                        w: 0.0,
                    };
                    self.slab.step(1.0, held, bottom);
                }
            }
        }
    }

    pub(crate) fn rest(&mut self, seconds: f64) {
        for _ in 0..seconds.round() as u32 {
            self.second();
        }
    }
}

/// How the floor stands after a bake of `t_bake` seconds, cell by cell; the base's colour.
fn after(
    r: &BakeRequest,
    t_bake: f64,
    floor: Option<&[f64]>,
    fineness: Fineness,
) -> (Vec<f64>, f64) {
    let mut short = r.clone();
    short.until_s = t_bake.max(10.0);
    let course = follow(&short, fineness, BakeParts::Centre, floor);
    course
        .moments
        .last()
        .map_or((vec![], 0.0), |m| (m.floor.to_vec(), m.base))
}

/// What one bake takes from the floor and how it comes back. `r` was checked.
pub fn recovery(r: &BakeRequest, t_bake: f64) -> Recovery {
    let (profile, _) = after(r, t_bake, None, Fineness::Usual);
    let launch_c = r.oven.floor_c;
    let mut bare = Bare::new(r, &profile);
    let exit_c = bare.slab.top_c();
    let drop_k = launch_c - exit_c;
    let reach = |share: f64| exit_c + share * drop_k;
    let (mut half_s, mut tau_s, mut wait_s) = (None, None, None);
    let back = launch_c - NEAR_K;
    if exit_c >= back {
        wait_s = Some(0.0);
    }
    for s in 1..=3600 {
        bare.second();
        let t = bare.slab.top_c();
        let now = Some(f64::from(s));
        if half_s.is_none() && t >= reach(0.5) {
            half_s = now;
        }
        if tau_s.is_none() && t >= reach(1.0 - (-1.0f64).exp()) {
            tau_s = now;
        }
        if wait_s.is_none() && t >= back {
            wait_s = now;
        }
        if half_s.is_some() && tau_s.is_some() && wait_s.is_some() {
            break;
        }
    }
    Recovery {
        launch_c,
        exit_c,
        drop_k,
        half_s,
        tau_s,
        wait_s,
    }
}

/// A row of `n` pizzas on one spot with a pause of `gap_s` between them; it ends early where a base comes out below
/// `stop_below`.
pub fn row(
    r: &BakeRequest,
    n: u32,
    t_bake: f64,
    gap_s: f64,
    stop_below: Option<f64>,
) -> Vec<Turned> {
    let mut floor: Option<Vec<f64>> = None;
    let mut out = Vec::new();
    for _ in 0..n {
        let launch_c = floor.as_ref().map_or(r.oven.floor_c, |f| f[f.len() - 1]);
        let (profile, base) = after(r, t_bake, floor.as_deref(), Fineness::Draft);
        let mut bare = Bare::new(r, &profile);
        out.push(Turned {
            launch_c,
            exit_c: bare.slab.top_c(),
            base,
        });
        if stop_below.is_some_and(|b| base < b) {
            break;
        }
        bare.rest(gap_s);
        floor = Some(bare.slab.t);
    }
    out
}

/// The smallest pause of one spot with which the `n`-th base still reaches the style's lower limit, s; `None` where none
/// within 25 min does.
pub fn gap(r: &BakeRequest, targets: &Targets, t_bake: f64, n: u32) -> Option<f64> {
    let right = |g: f64| {
        let all = row(r, n, t_bake, g, Some(targets.base.0));
        all.len() as u32 == n && all.iter().all(|x| x.base >= targets.base.0)
    };
    if right(0.0) {
        return Some(0.0);
    }
    if !right(LONGEST_GAP_S) {
        return None;
    }
    let (mut lo, mut hi) = (0.0, LONGEST_GAP_S);
    for _ in 0..7 {
        let mid = 0.5 * (lo + hi);
        if right(mid) { hi = mid } else { lo = mid }
    }
    Some(hi)
}
