//! When a ball opens, and how it is opened now.
//!
//! Source: mixing and shaping, section 11: relaxing as in the rise model, cold dough stiffer (assumed), the ways from practice.

use super::tray::TRAY_RESTS_MIN;
use crate::fact;
use crate::fact::{Fact, Minutes};
use crate::rise::kinetics::MATURE_SHARE;
use crate::rise::recipe::RELAX_H;
use crate::rise::responses;
use crate::rise::ripeness::stickiness_limit;
use crate::units::{Cm, Grams};
use serde::{Deserialize, Serialize};

/// Cold dough is stiffer below, °C, by so much a degree.
const STIFF_BELOW_C: f64 = 18.0;
const STIFFER: f64 = 0.04;
/// Acid speeds maturation by so much.
const ACID_ON_MATURATION: f64 = 0.8;
/// Beyond so many minutes it does not open.
const LONGEST_MIN: u32 = 720;

/// How much stiffer a dough is for its cold.
pub fn cold_stiffness(dough_c: f64) -> f64 {
    1.0 + STIFFER * (STIFF_BELOW_C - dough_c).max(0.0)
}

/// A ball that relaxes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Relaxing {
    /// Hours at 20 °C since it was shaped.
    pub shaped_h: f64,
    /// Hours of maturation so far against what the gluten lasts, where they are known.
    #[serde(default)]
    pub matured: Option<(f64, f64)>,
    /// Strength of the flour, W.
    pub w: f64,
    /// The ball, °C.
    pub dough_c: f64,
    /// Where it lies, °C.
    pub place_c: f64,
    /// How fast it follows, h.
    pub tau_h: f64,
    /// How fast the recipe matures.
    pub f_mature: f64,
    /// How slow this flour relaxes, as a factor on the book.
    pub kappa: f64,
    /// 1; tight balling 1.3, gentle 0.8.
    pub tight: f64,
    /// Acid index.
    pub acid: f64,
}

impl Relaxing {
    /// Hours at 20 °C that it takes.
    fn needed_h(&self) -> f64 {
        RELAX_H * self.kappa * self.tight * self.w / 300.0
    }
    /// Minutes at the warmth that it has, from the moment of shaping on.
    pub(super) fn steady_min(&self) -> f64 {
        let speed = responses::exact(self.dough_c).maturation * self.f_mature;
        60.0 * self.needed_h() * cold_stiffness(self.dough_c) / speed
    }
}

/// From when a ball opens: with care, and easily.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Opening {
    /// Minutes until it opens with care; none within 12 h.
    pub with_care_min: Option<f64>,
    /// Minutes until it opens easily.
    pub easily_min: Option<f64>,
}

/// How many minutes until a ball opens where it lies.
pub fn minutes_until_open(r: &Relaxing) -> Opening {
    let (mut shaped, mut dough_c) = (r.shaped_h, r.dough_c);
    let mut matured = r.matured;
    let mut out = Opening {
        with_care_min: None,
        easily_min: None,
    };
    let step = (-1.0 / 60.0 / r.tau_h.max(1e-6)).exp();
    for minute in 0..=LONGEST_MIN {
        let relaxed = shaped / r.needed_h();
        let ripe = matured.map_or(f64::INFINITY, |(m, cap)| m / (MATURE_SHARE * cap));
        let ratio = relaxed.min(ripe) / cold_stiffness(dough_c);
        let at = Some(f64::from(minute));
        if ratio >= 1.0 && out.with_care_min.is_none() {
            out.with_care_min = at;
        }
        if ratio >= 2.0 {
            out.easily_min = at;
            break;
        }
        let middle = r.place_c + (dough_c - r.place_c) * step.sqrt();
        let grown =
            responses::at(middle).maturation * r.f_mature * (1.0 + ACID_ON_MATURATION * r.acid)
                / 60.0;
        shaped += grown;
        matured = matured.map(|(m, cap)| (m + grown, cap));
        dough_c = r.place_c + (dough_c - r.place_c) * step;
    }
    out
}

/// How a ball is opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum OpenHow {
    /// Ball it again gently, or put it into a tray.
    Reball,
    /// Not yet.
    Wait,
    /// Press it only, and bake at once.
    PressOnly,
    /// Press, rest five minutes, press again.
    PressRestPress,
    /// Press, then lift it over the hands once.
    PressThenLift,
    /// Stretch it on the table.
    TableStretch,
    /// Press, then over the knuckles.
    Knuckles,
}

impl OpenHow {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            OpenHow::Reball => fact!("open-reball"),
            OpenHow::Wait => fact!("open-wait"),
            OpenHow::PressOnly => fact!("open-press-only"),
            OpenHow::PressRestPress => fact!("open-press-rest"),
            OpenHow::PressThenLift => fact!("open-press-lift"),
            OpenHow::TableStretch => fact!("open-table"),
            OpenHow::Knuckles => fact!("open-knuckles"),
        }
    }
}

/// A ball as it is to be opened.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OpenNow {
    /// Strength left, 1 to below 0.
    pub reserve: f64,
    /// How far it relaxed: 1 opens, without the cold.
    pub relaxed: f64,
    /// The ball, °C.
    pub dough_c: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
    /// Strength of the flour, W.
    pub w: f64,
    /// Its volume as a share of what it can hold.
    pub volume_share: f64,
    /// It was balled again already.
    #[serde(default)]
    pub balled_again: bool,
}

/// How to open it now.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct HowOpened {
    /// How.
    pub how: OpenHow,
    /// As a share of the planned diameter; 0 where it is not opened yet.
    pub size: f64,
    /// Bench flour for one ball, g; most of it is shaken off.
    pub bench_flour_g: f64,
}

/// Opened to this share of its width and wider, a pizza bakes as it was planned.
const BAKES_AS_PLANNED: f64 = 0.95;

impl HowOpened {
    /// Whether it is opened so narrow that it bakes otherwise than planned.
    pub fn bakes_otherwise(&self) -> bool {
        self.size > 0.0 && self.size < BAKES_AS_PLANNED
    }
    /// How wide it is opened of a planned disc, to half a centimetre.
    pub fn wide_cm(&self, disc_cm: f64) -> f64 {
        (2.0 * self.size * disc_cm).round() / 2.0
    }
    /// What to say of a ball that opens to such a disc.
    pub fn fact(&self, disc_cm: f64) -> Fact {
        match self.how {
            OpenHow::Wait => self.how.name(),
            how => fact!(
                "open-to",
                how = how.name(),
                wide = Cm(self.wide_cm(disc_cm)),
                flour = Grams(self.bench_flour_g)
            ),
        }
    }
    /// What to say of a dough in its tray.
    pub fn in_tray(&self) -> Fact {
        let (from, to) = TRAY_RESTS_MIN;
        match self.how {
            OpenHow::Wait | OpenHow::PressRestPress => {
                let time = (Minutes(from as f64), Minutes(to as f64));
                fact!("open-tray-wait", time = time)
            }
            _ => fact!("open-tray-now"),
        }
    }
}

/// The way for this ball now: the first that holds.
pub fn how_to_open(b: &OpenNow) -> HowOpened {
    let limit = stickiness_limit(b.w);
    let (g, v) = (b.reserve, b.volume_share);
    let (how, mut size, mut flour): (OpenHow, f64, f64) =
        if !b.balled_again && (g < -0.20 || v >= 1.0) {
            (OpenHow::Reball, 0.75, 14.0)
        } else if b.relaxed < 0.7 {
            (OpenHow::Wait, 0.0, 6.0)
        } else if g < 0.0 || v > 0.92 {
            (OpenHow::PressOnly, 0.85, 13.0)
        } else if g < 0.15 || v > 0.85 {
            (OpenHow::PressOnly, 0.90, 11.0)
        } else if b.relaxed < 1.0 {
            (OpenHow::PressRestPress, 0.90, 6.0)
        } else if b.dough_c < super::stagger::OPENS_C {
            (OpenHow::PressRestPress, 0.92, 6.0)
        } else if b.hydration_percent > limit {
            (OpenHow::PressThenLift, 0.97, 11.0)
        } else if b.w >= 320.0 && g > 0.5 && b.relaxed < 1.6 {
            (OpenHow::TableStretch, 1.0, 7.0)
        } else {
            (OpenHow::Knuckles, 1.0, 7.0)
        };
    if b.dough_c > 27.0 {
        flour += 2.0;
        size = size.min(0.95);
    }
    if b.hydration_percent > limit + 4.0 {
        flour += 2.0;
    }
    HowOpened {
        how,
        size,
        bench_flour_g: flour,
    }
}
