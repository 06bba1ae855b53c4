//! Sheet: from "six balls for Friday 19:00" to grams, yeast, water, steps by the clock, and judgements.
//!
//! It puts the other rooms of this crate in order: formula (grams) → mix (water, dough temperature) → rise
//! (yeast for the hours, ready window) → plan (steps backward from the serve time) → notes. Instants are
//! UTC; the time zone serves only to say clock times and to find the night.

mod judge;
mod plan;
pub mod progress;
mod too_near;

pub use plan::{PlannedStep, StepKind, min_s};

use crate::fire::programme::{Programme, programme};
use crate::formula::{FormulaRequest, FormulaResult, Ingredient, Pieces, formulate};
use crate::leaven::YeastForm;
use crate::mix::{Mixer, WaterRequest, WaterResult, water};
use crate::note::{Note, by_urgency};
use crate::refusal::{Check, Refused};
use crate::rise::{Label, RiseRequest, RiseResult, Temperatures, YeastAnswer, solve_yeast};
use crate::style::StyleKey;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A dough wanted at an hour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    pub style: StyleKey,
    pub pieces: Pieces,
    pub loss_percent: f64,
    pub hydration_percent: f64,
    pub salt_percent: f64,
    pub oil_percent: f64,
    pub sugar_percent: f64,
    pub yeast_form: YeastForm,
    /// Flour strength W (1e-4 J), 80 to 450.
    pub flour_w: f64,
    /// When the first one is eaten.
    pub serve_at: Timestamp,
    /// The present; without it nothing is said about being too late.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub now_at: Option<Timestamp>,
    /// IANA name of the kitchen's time zone.
    pub time_zone: String,
    pub altitude_m: f64,
    pub room_c: f64,
    pub fridge_c: f64,
    pub flour_c: f64,
    pub tap_water_c: f64,
    /// Wanted temperature off the mixer.
    pub target_dough_c: f64,
    pub mixer: Mixer,
    /// Hours in the room before balling or before the fridge, 0.25 to 48.
    pub bulk_h: f64,
    /// Hours in the fridge, 0 to 168.
    pub cold_h: f64,
    /// Hours in the room before the bake, 0.5 to 24.
    pub temper_h: f64,
    pub kitchen_scale_g: f64,
    pub fine_scale_g: f64,
}

/// The solved yeast, % of the flour; good to about ×/÷ 1.6.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct SheetYeast {
    /// In the form that was asked for.
    pub percent: f64,
    pub fresh_equivalent_percent: f64,
}

/// A point of both clocks.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct ClockPoint {
    /// Hours from the end of mixing.
    pub hours: f64,
    /// Rise clock: 100 is ready as intended.
    pub rise: f64,
    /// Gluten reserve, 100 falling to 0.
    pub reserve: f64,
    pub dough_c: f64,
    pub place_c: f64,
}

/// From when to when it is ready.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct ReadyWindow {
    pub from_at: Timestamp,
    /// Absent when it is still ready at the end of the forecast.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_at: Option<Timestamp>,
}

/// A stage as the picture shows it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Block {
    pub kind: BlockKind,
    pub from_at: Timestamp,
    pub to_at: Timestamp,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum BlockKind {
    Mix,
    Bulk,
    Ball,
    Cold,
    Temper,
}

/// Everything a maker needs on one sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct SheetResult {
    pub formula: FormulaResult,
    pub yeast: SheetYeast,
    pub water: WaterResult,
    /// When mixing begins, and when the dough leaves the mixer (hour 0 of the clocks).
    pub start_at: Timestamp,
    pub mixed_at: Timestamp,
    pub steps: Vec<PlannedStep>,
    pub blocks: Vec<Block>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<ReadyWindow>,
    /// At the serve time.
    pub rise_at_serve: f64,
    pub reserve_at_serve: f64,
    pub label_at_serve: Label,
    pub clocks: Vec<ClockPoint>,
    pub programme: Programme,
    pub notes: Vec<Note>,
}

impl SheetResult {
    /// Whether the serve time lies in the ready window.
    pub fn fits(&self, serve_at: Timestamp) -> bool {
        self.window.is_some_and(|w| {
            // The window is a forecast to the quarter hour: its first minutes count.
            serve_at >= w.from_at && w.to_at.is_none_or(|t| serve_at <= t)
        })
    }
    /// Both clocks at an instant, read between the points; `None` before mixing and beyond the forecast.
    pub fn clocks_at(&self, at: Timestamp) -> Option<ClockPoint> {
        let h = at.duration_since(self.mixed_at).as_secs_f64() / 3600.0;
        let i = self.clocks.iter().position(|p| p.hours >= h)?;
        if h < 0.0 {
            return None;
        }
        let b = self.clocks[i];
        let a = if i == 0 { b } else { self.clocks[i - 1] };
        let f = if b.hours > a.hours {
            (h - a.hours) / (b.hours - a.hours)
        } else {
            1.0
        };
        let mix = |x: f64, y: f64| x + f * (y - x);
        Some(ClockPoint {
            hours: h,
            rise: mix(a.rise, b.rise),
            reserve: mix(a.reserve, b.reserve),
            dough_c: mix(a.dough_c, b.dough_c),
            place_c: mix(a.place_c, b.place_c),
        })
    }
}

impl SheetRequest {
    /// A style's sensible values for a kitchen, served at an hour.
    pub fn of_style(style: StyleKey, kitchen: &KitchenUsual, serve_at: Timestamp) -> SheetRequest {
        let s = style.style();
        SheetRequest {
            style,
            pieces: s.pieces,
            loss_percent: s.loss_percent,
            hydration_percent: s.hydration_percent,
            salt_percent: s.salt_percent,
            oil_percent: s.oil_percent,
            sugar_percent: s.sugar_percent,
            yeast_form: s.yeast_form,
            flour_w: s.flour_w,
            serve_at,
            now_at: None,
            time_zone: kitchen.time_zone.clone(),
            altitude_m: kitchen.altitude_m,
            room_c: kitchen.room_c,
            fridge_c: kitchen.fridge_c,
            flour_c: kitchen.room_c,
            tap_water_c: kitchen.tap_water_c,
            target_dough_c: s.target_dough_c,
            mixer: Mixer::Hand,
            bulk_h: s.bulk_h,
            cold_h: s.cold_h,
            temper_h: s.temper_h,
            kitchen_scale_g: kitchen.kitchen_scale_g,
            fine_scale_g: kitchen.fine_scale_g,
        }
    }

    /// Minutes from the first weighing to the dough leaving the mixer.
    pub fn mixing_min(&self) -> f64 {
        self.mixer.usual_min().1
    }
    /// Hours from the mixer to the serve time.
    pub fn total_h(&self) -> f64 {
        self.bulk_h + self.cold_h + self.temper_h
    }
    /// When the dough leaves the mixer.
    pub fn mixed_at(&self) -> Timestamp {
        self.serve_at - hours(self.total_h())
    }
    /// When weighing and mixing begin.
    pub fn start_at(&self) -> Timestamp {
        self.mixed_at() - hours(self.mixing_min() / 60.0)
    }
    fn zone(&self) -> Result<TimeZone, Refused> {
        TimeZone::get(&self.time_zone).map_err(|_| {
            Refused::one(
                "time_zone",
                "That is not the name of a time zone, such as Europe/London.",
            )
        })
    }

    fn formula(&self, yeast_percent: f64) -> FormulaRequest {
        FormulaRequest {
            pieces: self.pieces,
            loss_percent: self.loss_percent,
            hydration_percent: self.hydration_percent,
            salt_percent: self.salt_percent,
            oil_percent: self.oil_percent,
            sugar_percent: self.sugar_percent,
            yeast_percent,
            yeast_form: self.yeast_form,
            kitchen_scale_g: self.kitchen_scale_g,
            fine_scale_g: self.fine_scale_g,
        }
    }

    fn check(&self) -> Result<(), Refused> {
        let mut c = Check::new();
        self.formula(0.0).check_into(&mut c);
        c.range("flour_w", "Flour strength W", self.flour_w, 80.0, 450.0, "");
        c.range("room_c", "Room", self.room_c, -2.0, 42.0, "°C");
        c.range("fridge_c", "Fridge", self.fridge_c, -2.0, 20.0, "°C");
        c.range("flour_c", "Flour", self.flour_c, -20.0, 45.0, "°C");
        c.range(
            "tap_water_c",
            "Tap water",
            self.tap_water_c,
            0.0,
            35.0,
            "°C",
        );
        c.range(
            "target_dough_c",
            "Dough off the mixer",
            self.target_dough_c,
            5.0,
            35.0,
            "°C",
        );
        c.range(
            "altitude_m",
            "Altitude",
            self.altitude_m,
            -400.0,
            4500.0,
            "m",
        );
        c.range("bulk_h", "Bulk", self.bulk_h, 0.25, 48.0, "h");
        c.range("cold_h", "Cold", self.cold_h, 0.0, 168.0, "h");
        c.range("temper_h", "Before the bake", self.temper_h, 0.5, 24.0, "h");
        c.done()
    }

    /// The bowl, for the water.
    fn bowl(&self, f: &FormulaResult) -> WaterRequest {
        WaterRequest {
            target_dough_c: self.target_dough_c,
            room_c: self.room_c,
            flour_c: self.flour_c,
            tap_water_c: self.tap_water_c,
            flour_g: f.exact_g(Ingredient::Flour),
            water_g: f.exact_g(Ingredient::Water),
            salt_g: f.exact_g(Ingredient::Salt),
            oil_g: f.exact_g(Ingredient::Oil),
            sugar_g: f.exact_g(Ingredient::Sugar),
            mixer: self.mixer,
            mixing_min: self.mixer.usual_min().0,
        }
    }

    /// The dough for the rise model, leaving the mixer at `dough_c`.
    fn dough(&self, dough_g: f64, dough_c: f64, zone: &TimeZone) -> RiseRequest {
        let local = self.mixed_at().to_zoned(zone.clone());
        RiseRequest {
            kind: Default::default(),
            hydration_percent: self.hydration_percent,
            salt_percent: self.salt_percent,
            sugar_percent: self.sugar_percent,
            oil_percent: self.oil_percent,
            whole_grain_percent: 0.0,
            flour_w: self.flour_w,
            yeast_percent: 0.0,
            yeast_form: self.yeast_form,
            yeast_vigour: 1.0,
            leaven_fraction: 0.0,
            leaven_vigour: 1.0,
            preferments: vec![],
            dough_c,
            altitude_m: self.altitude_m,
            target_volume: Some(self.style.style().target_volume),
            start_clock_h: f64::from(local.hour()) + f64::from(local.minute()) / 60.0,
            stages: plan::stages(self, dough_g),
        }
    }
}

/// What a kitchen usually is.
#[derive(Debug, Clone, PartialEq)]
pub struct KitchenUsual {
    pub time_zone: String,
    pub altitude_m: f64,
    pub room_c: f64,
    pub fridge_c: f64,
    pub tap_water_c: f64,
    pub kitchen_scale_g: f64,
    pub fine_scale_g: f64,
}

/// A span of hours as exact time.
pub fn hours(h: f64) -> SignedDuration {
    SignedDuration::from_secs_f64((h * 3600.0).round())
}

/// Works a sheet out.
///
/// Errors: [`Refused`] with the fields outside their ranges, or with `serve_at` when the time is too short.
pub fn work_out(r: &SheetRequest) -> Result<SheetResult, Refused> {
    r.check()?;
    let zone = r.zone()?;
    let bare = formulate(&r.formula(0.0))?;
    let dough_c = water(&r.bowl(&bare))?.dough_c;
    let dough = r.dough(bare.dough_g, dough_c.clamp(0.0, 40.0), &zone);
    too_near::refuse(r, &dough, &zone)?;
    let answer = solve_yeast(&dough, Temperatures::InsideTheDough)?;
    let (yeast, rise) = match answer {
        YeastAnswer::Found {
            yeast_percent,
            fresh_equivalent_percent,
            forecast,
            ..
        } => (
            SheetYeast {
                percent: yeast_percent,
                fresh_equivalent_percent,
            },
            *forecast,
        ),
        YeastAnswer::None {
            reason,
            ripeness_at_limit,
            ..
        } => {
            return Err(too_near::no_yeast(reason, ripeness_at_limit));
        }
    };
    let mut formula = formulate(&r.formula(yeast.percent))?;
    // Once more with the yeast in: the water of the steps is the water of the sheet.
    let mut bowl = water(&r.bowl(&formula))?;
    let mixed_at = r.mixed_at();
    let window = rise.window.map(|w| ReadyWindow {
        from_at: mixed_at + hours(w.from_h),
        to_at: w.to_h.map(|h| mixed_at + hours(h)),
    });
    let mut notes = std::mem::take(&mut formula.notes);
    notes.append(&mut bowl.notes);
    let mut out = SheetResult {
        start_at: r.start_at(),
        mixed_at,
        steps: plan::steps(r, &formula, &bowl, &rise),
        blocks: plan::blocks(r),
        window,
        rise_at_serve: 100.0 * rise.at_bake.ripeness,
        reserve_at_serve: 100.0 * rise.at_bake.reserve,
        label_at_serve: rise.at_bake.label,
        clocks: clocks(&rise),
        programme: programme(r.style),
        notes: vec![],
        formula,
        yeast,
        water: bowl,
    };
    notes.extend(judge::notes(r, &out, &dough, &rise, &zone));
    out.notes = by_urgency(notes);
    Ok(out)
}

/// The curves at about a hundred points, and one day beyond at most: enough for a picture.
fn clocks(rise: &RiseResult) -> Vec<ClockPoint> {
    let end = rise.at_bake.hours + 12.0;
    let all: Vec<_> = rise
        .points
        .iter()
        .chain(&rise.beyond)
        .filter(|p| p.hours <= end)
        .collect();
    let every = (all.len() / 120).max(1);
    all.iter()
        .enumerate()
        .filter(|(i, p)| i % every == 0 || *i + 1 == all.len() || p.hours == rise.at_bake.hours)
        .map(|(_, p)| ClockPoint {
            hours: rounded(p.hours, 1000.0),
            rise: rounded(100.0 * p.ripeness, 100.0),
            reserve: rounded(100.0 * p.reserve, 100.0),
            dough_c: rounded(p.mean_c, 100.0),
            place_c: rounded(p.place_c, 100.0),
        })
        .collect()
}

/// Kept with every batch: digits that no picture shows are left out.
fn rounded(value: f64, per_one: f64) -> f64 {
    (value * per_one).round() / per_one
}

#[cfg(test)]
mod tests;
