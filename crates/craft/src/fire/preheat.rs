//! Preheating: how long until the face and the core of a floor are charged.
//!
//! Source: bake model, section 10 (kinds calibrated to broad practice). The surroundings climb toward an end; the floor
//! follows. Steps of 10 s; nothing is said beyond 4 h.

use super::heat::{EPS_CAVITY, Side, Slab, radiative};
use super::material::Material;
use crate::fact;
use crate::fact::Value;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// How an oven warms its floor.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Warming {
    /// A steel or stone on a rack of a home oven.
    Home,
    /// A masonry dome over a fire.
    Dome,
    /// A gas flame over a stone.
    Gas,
    /// An element under a stone.
    Element,
}

/// Section 10, one row per kind: τ min, h W/m²K, view, end above the setting K.
struct Climb {
    tau_min: f64,
    h: f64,
    view: f64,
    above_k: f64,
}

/// Where everything begins unless a reading says otherwise, °C.
pub const FROM_C: f64 = 20.0;
const STEP_S: f64 = 10.0;
const LONGEST_S: f64 = 4.0 * 3600.0;
/// An element under the floor, W/m².
const ELEMENT_W_M2: f64 = 6000.0;
/// A floor that reached this share of its rise counts as there.
pub const THERE: f64 = 0.95;

impl Warming {
    fn climb(self) -> Climb {
        let (tau_min, h, view, above_k) = match self {
            Warming::Home => (8.0, 8.0, 0.90, 2.0),
            Warming::Dome => (30.0, 10.0, 0.75, 85.0),
            Warming::Gas => (5.0, 18.0, 0.60, 70.0),
            Warming::Element => (15.0, 8.0, 0.90, 0.0),
        };
        Climb {
            tau_min,
            h,
            view,
            above_k,
        }
    }
}

/// One preheat.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PreheatRequest {
    /// How the oven warms up.
    pub warming: Warming,
    /// What its floor is made of.
    pub floor: Material,
    /// 0.5 to 100 mm.
    pub floor_mm: f64,
    /// What it is wanted at, 100 to 550 °C.
    pub set_c: f64,
    /// What it begins at, −10 to 500 °C.
    #[serde(default = "from_c")]
    pub from_c: f64,
    /// How fast this oven climbs against the book, 0.3 to 3: fitted from readings.
    #[serde(default = "one")]
    pub pace: f64,
    /// How far above or below the book its surroundings end, −250 to 250 K: fitted from readings.
    #[serde(default)]
    #[serde(rename = "end_off_c")]
    pub end_off_k: f64,
}

fn from_c() -> f64 {
    FROM_C
}
fn one() -> f64 {
    1.0
}

/// The floor at one moment of the preheat.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Charge {
    /// Seconds after lighting.
    pub t: f64,
    /// Its face, °C.
    pub face_c: f64,
    /// Half way down.
    pub core_c: f64,
    /// Its bottom, °C.
    pub bottom_c: f64,
    /// What surrounds it: flame, dome, air.
    pub around_c: f64,
    /// Heat it holds against what it would at the setting throughout.
    pub charged: f64,
}

/// A preheat as computed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Preheat {
    /// When the face, and when the core is there, s; absent when not within 4 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face_s: Option<f64>,
    /// When the core is there, s; absent when not within 4 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub core_s: Option<f64>,
    /// Every minute.
    pub course: Vec<Charge>,
}

impl PreheatRequest {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.range(
            "floor_mm",
            fact!("f-the-floors-thickness"),
            self.floor_mm,
            0.5,
            100.0,
            Value::Mm,
        );
        c.range(
            "set_c",
            fact!("f-the-floor"),
            self.set_c,
            100.0,
            550.0,
            Value::Celsius,
        );
        c.range(
            "from_c",
            fact!("f-it-begins-at"),
            self.from_c,
            -10.0,
            500.0,
            Value::Celsius,
        );
        c.range(
            "pace",
            fact!("f-the-ovens-pace"),
            self.pace,
            0.3,
            3.0,
            Value::Number,
        );
        c.range(
            "end_off_c",
            fact!("f-the-ovens-end"),
            self.end_off_k,
            -250.0,
            250.0,
            Value::Kelvin,
        );
        c.done()
    }
}

/// Charges a floor for 4 h.
///
/// Errors: what is outside its range.
pub fn preheat(r: &PreheatRequest) -> Result<Preheat, ValidationError> {
    r.check()?;
    Ok(charge(r, LONGEST_S))
}

/// The cells of the floor, from its bottom up, after so long: what a short preheat hands to the bake.
pub(crate) fn cells_after(r: &PreheatRequest, for_s: f64) -> Vec<f64> {
    run(r, for_s).1.t
}

/// As [`preheat`], of a request that was checked, for `for_s`.
pub(crate) fn charge(r: &PreheatRequest, for_s: f64) -> Preheat {
    run(r, for_s).0
}

fn run(r: &PreheatRequest, for_s: f64) -> (Preheat, Slab) {
    let climb = r.warming.climb();
    let eps = r.floor.body().eps;
    let shine = climb.view / (1.0 / eps + 1.0 / EPS_CAVITY - 1.0);
    let end_c = r.set_c + climb.above_k + r.end_off_k;
    let tau_s = climb.tau_min * 60.0 / r.pace;
    let mut slab = Slab::new(r.floor, r.floor_mm, r.from_c);
    let there = FROM_C + THERE * (r.set_c - FROM_C);
    let (mut face_s, mut core_s) = (None, None);
    let full = slab.full(FROM_C, r.set_c);
    let point = |slab: &Slab, t: f64, around_c: f64| Charge {
        t,
        face_c: slab.top_c(),
        core_c: slab.middle_c(),
        bottom_c: slab.bottom_c(),
        around_c,
        charged: slab.charge(FROM_C) / full,
    };
    let mut course = vec![point(&slab, 0.0, r.from_c)];
    let mut i = 0u32;
    while f64::from(i) * STEP_S < for_s {
        i += 1;
        let t = f64::from(i) * STEP_S;
        let around_c = end_c - (end_c - r.from_c) * (-t / tau_s).exp();
        let hr = |surface_c: f64| shine * radiative(around_c, surface_c);
        let top = Side {
            g: hr(slab.top_c()) + climb.h,
            c: around_c,
            w: 0.0,
        };
        let bottom = match r.warming {
            Warming::Home => Side {
                g: hr(slab.bottom_c()) + 0.8 * climb.h,
                c: around_c,
                w: 0.0,
            },
            Warming::Dome => Side {
                g: 1.5,
                c: FROM_C,
                w: 0.0,
            },
            Warming::Gas => Side {
                g: 4.0,
                c: around_c / 2.0,
                w: 0.0,
            },
            Warming::Element => Side {
                g: 0.0,
                c: 0.0,
                w: ELEMENT_W_M2 * ((r.set_c + 5.0 - slab.bottom_c()) / 10.0).clamp(0.0, 1.0),
            },
        };
        slab.step(STEP_S, top, bottom);
        if face_s.is_none() && slab.top_c() >= there {
            face_s = Some(t);
        }
        if core_s.is_none() && slab.middle_c() >= there {
            core_s = Some(t);
        }
        if i.is_multiple_of(6) {
            course.push(point(&slab, t, around_c));
        }
    }
    let done = Preheat {
        face_s,
        core_s,
        course,
    };
    (done, slab)
}
