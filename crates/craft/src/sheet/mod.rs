//! Sheet: from "six balls for Friday 19:00" to grams, yeast, water, steps by the clock, and judgements.
//!
//! It puts the other rooms of this crate in order: formula (grams) → mix (water, dough temperature) → raise
//! (yeast of preferments and dough for their hours, ready window) → plan (steps backward from the serve time) → notes. Instants are
//! UTC; the time zone serves only to say clock times and to find the night.

pub mod ahead;
mod begun;
pub mod certain;
pub mod choose;
mod how;
mod judge;
pub mod life;
mod mixed_by;
mod no_fridge;
pub mod progress;
mod raise;
mod recount;
mod stages;
mod steps;
pub mod stock;
mod too_near;

use crate::fact;
use crate::fact::{Fact, Value};
use crate::kitchen;
pub use begun::Begun;
pub use certain::{FridgeKnown, Likely, Sure};
pub use judge::is_of_hours;
pub use mixed_by::{BowlToMix, WeighLine};
pub use steps::{PlannedStep, StepKind, carry_numbers};

use crate::fire::FireChoice;
use crate::fire::programme::Programme;
use crate::formula::{Doses, Formula, FormulaResult, Scales, weigh};
use crate::mix::{Machine, WaterResult};
use crate::note::{Note, by_urgency};
use crate::refusal::{Check, ValidationError};
use crate::rise::spread::spread_of;
use crate::rise::{
    Doubts, Label, PrefermentRuns, RipenessPart, RisePoint, RiseRequest, RiseResult, Shuts,
    Temperatures, Window, hand_overs,
};
use crate::style::Style;
use crate::when::quarter;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};
use life::Life;
use serde::{Deserialize, Serialize};

/// A dough wanted at an hour, in a kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    /// What is made.
    pub formula: Formula,
    /// When the first one is eaten.
    pub serve_at: Timestamp,
    /// The present; without it nothing is said about being too late.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub now_at: Option<Timestamp>,
    /// IANA name of the kitchen's time zone.
    pub time_zone: String,
    /// Of the kitchen, m.
    pub altitude_m: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The fridge, °C.
    pub fridge_c: f64,
    /// The flour, °C.
    pub flour_c: f64,
    /// The cold tap, °C.
    pub tap_water_c: f64,
    /// What it is weighed on.
    #[serde(default)]
    pub scales: Scales,
    /// When nobody is awake or has a hand free; the night when it says nothing.
    #[serde(default, skip_serializing_if = "Life::is_empty")]
    pub life: Life,
    /// How lively the yeast of the dough is against the book's, 0.2 to 1.5; a maker's own correction.
    #[serde(default = "one")]
    pub yeast_vigour: f64,
    /// The same of a starter.
    #[serde(default = "one")]
    pub leaven_vigour: f64,
    /// The fire that was planned for it; by the style's table when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fire: Option<Box<FireChoice>>,
    /// The kitchen's own mixer; one of its kind where it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub machine: Option<Box<Machine>>,
}

fn one() -> f64 {
    1.0
}

/// The solved yeast, % of the flour; good to about ×/÷ 1.6.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SheetYeast {
    /// In the form that was asked for; what the final dough takes.
    pub percent: f64,
    /// As fresh yeast, % of the flour.
    pub fresh_equivalent_percent: f64,
}

/// How a preferment stands when the dough is mixed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PrefermentPlan {
    /// What it is called.
    pub name: Fact,
    /// When it is mixed or fed, and when it goes into the dough.
    pub from_at: Timestamp,
    /// When it goes into the dough.
    pub to_at: Timestamp,
    /// Yeast on its own flour, %, in its own form.
    pub yeast_percent: f64,
    /// Ripeness when it is used: 100 is as intended.
    pub ripe: f64,
    /// How it stands then.
    pub label: Label,
    /// How warm it should leave the bowl, °C, and the water for that; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub target_c: Option<f64>,
    /// The water for that; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water: Option<WaterResult>,
    /// Its clocks, from its own mixing to its use.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub clocks: Vec<ClockPoint>,
}

impl PrefermentPlan {
    /// Its clocks at an instant; `None` outside its hours.
    pub fn clock_at(&self, at: Timestamp) -> Option<ClockPoint> {
        between(&self.clocks, self.from_at, at)
    }
}

/// A point of both clocks.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ClockPoint {
    /// Hours from the end of mixing.
    pub hours: f64,
    /// Rise clock: 100 is ready as intended.
    pub rise: f64,
    /// Gluten reserve, 100 falling to 0.
    pub reserve: f64,
    /// The dough's mean, °C.
    pub dough_c: f64,
    /// Where it lies, °C.
    pub place_c: f64,
}

/// From when to when it is ready.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ReadyWindow {
    /// From when it is ready.
    pub from_at: Timestamp,
    /// Absent when it is still ready at the end of the forecast.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_at: Option<Timestamp>,
    /// What held it back until then, and what ends it; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opens_by: Option<RipenessPart>,
    /// What ends it; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shuts_by: Option<Shuts>,
}

impl ReadyWindow {
    /// The model's window on the clock: it shuts at the label's end, or where the dough is far past what was intended.
    pub(crate) fn of(w: &Window, mixed_at: Timestamp) -> ReadyWindow {
        let far_first = w.far_h.is_some_and(|far| w.to_h.is_none_or(|to| far < to));
        let to_h = if far_first { w.far_h } else { w.to_h };
        ReadyWindow {
            from_at: mixed_at + hours(w.from_h),
            to_at: to_h.map(|h| mixed_at + hours(h)),
            opens_by: Some(w.opens_by),
            shuts_by: to_h.map(|_| if far_first { Shuts::Gas } else { w.shuts_by }),
        }
    }
    /// Whether an hour lies in it. It is known, and said, to the quarter hour: an hour that is said to lie in it does.
    pub fn holds(&self, at: Timestamp) -> bool {
        let from = self.from_at.min(quarter(self.from_at));
        at >= from && self.to_at.is_none_or(|t| at <= t.max(quarter(t)))
    }
}

/// A stage as the picture shows it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Block {
    /// What goes on.
    pub kind: BlockKind,
    /// From when.
    pub from_at: Timestamp,
    /// Until when.
    pub to_at: Timestamp,
    /// Which leg of the path it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub leg: Option<usize>,
}

/// What goes on for a while, as the strip draws it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum BlockKind {
    /// A preferment ripens.
    Preferment,
    /// Mixing.
    Mix,
    /// All in one, warm.
    Bulk,
    /// Balling.
    Ball,
    /// In the cold.
    Cold,
    /// Frozen.
    Frozen,
    /// Warming up.
    Temper,
}

/// Everything a maker needs on one sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SheetResult {
    /// What to weigh.
    pub formula: FormulaResult,
    /// How much yeast.
    pub yeast: SheetYeast,
    /// When each preferment is mixed and used.
    #[serde(default)]
    pub preferments: Vec<PrefermentPlan>,
    /// How warm the water is poured.
    pub water: WaterResult,
    /// When the first thing is mixed, and when the dough leaves the mixer (hour 0 of the clocks).
    pub start_at: Timestamp,
    /// When the dough leaves the mixer: hour 0 of the clocks.
    pub mixed_at: Timestamp,
    /// What to do, in the order of the clock.
    pub steps: Vec<PlannedStep>,
    /// What goes on between.
    pub blocks: Vec<Block>,
    /// When it is ready; absent when never.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<ReadyWindow>,
    /// At the serve time.
    pub rise_at_serve: f64,
    /// Strength left at the serve time, %.
    pub reserve_at_serve: f64,
    /// How it stands at the serve time.
    pub label_at_serve: Label,
    /// Both clocks, over time.
    pub clocks: Vec<ClockPoint>,
    /// How it is baked.
    pub programme: Programme,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

impl SheetResult {
    /// Whether it is ready, and not past it, at a serve time.
    pub fn fits(&self, serve_at: Timestamp) -> bool {
        fits(self.window, serve_at, self.label_at_serve)
    }
    /// Both clocks at an instant, read between the points; `None` before mixing and beyond the forecast.
    pub fn clocks_at(&self, at: Timestamp) -> Option<ClockPoint> {
        between(&self.clocks, self.mixed_at, at)
    }
}

/// Whether a dough is ready at its serve time: the hour lies in the window, and the label there is not past.
fn fits(window: Option<ReadyWindow>, serve_at: Timestamp, label: Label) -> bool {
    window.is_some_and(|w| w.holds(serve_at)) && !label.is_past()
}

/// Hours from the serve time to the nearer edge of the window: negative outside, at most `OPEN_H` where it is open.
fn margin_h(window: Option<ReadyWindow>, serve_at: Timestamp) -> f64 {
    /// A window that does not shut counts as so much room.
    const OPEN_H: f64 = 12.0;
    let Some(w) = window else { return -24.0 };
    let after = serve_at.duration_since(w.from_at).as_secs_f64() / 3600.0;
    let before = w.to_at.map_or(OPEN_H, |t| {
        t.duration_since(serve_at).as_secs_f64() / 3600.0
    });
    after.min(before).min(OPEN_H)
}

/// Clocks that began at an instant, read between their points at another.
fn between(clocks: &[ClockPoint], from: Timestamp, at: Timestamp) -> Option<ClockPoint> {
    let h = at.duration_since(from).as_secs_f64() / 3600.0;
    let i = clocks.iter().position(|p| p.hours >= h)?;
    if h < 0.0 {
        return None;
    }
    let b = clocks[i];
    let a = if i == 0 { b } else { clocks[i - 1] };
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
        // A dough lies in one place or in another, never between them: what a point says was so since the one before.
        place_c: b.place_c,
    })
}

impl SheetRequest {
    /// A style's sensible values for a kitchen, served at an hour.
    pub fn of_style(style: &Style, kitchen: &KitchenUsual, serve_at: Timestamp) -> SheetRequest {
        SheetRequest::of(Formula::of_style(style), kitchen, serve_at)
    }
    /// A formula in a kitchen, served at an hour.
    pub fn of(formula: Formula, kitchen: &KitchenUsual, serve_at: Timestamp) -> SheetRequest {
        SheetRequest {
            formula,
            serve_at,
            now_at: None,
            time_zone: kitchen.time_zone.clone(),
            altitude_m: kitchen.altitude_m,
            room_c: kitchen.room_c,
            fridge_c: kitchen.fridge_c,
            flour_c: kitchen.room_c,
            tap_water_c: kitchen.tap_water_c,
            scales: kitchen.scales,
            life: Life::default(),
            yeast_vigour: 1.0,
            leaven_vigour: 1.0,
            fire: None,
            machine: None,
        }
    }

    /// The same request, changed.
    pub fn with(mut self, change: impl FnOnce(&mut SheetRequest)) -> SheetRequest {
        change(&mut self);
        self
    }
    /// Hours from the mixer to the serve time.
    pub fn total_h(&self) -> f64 {
        self.formula.total_h()
    }
    /// Hours from the first thing mixed to the dough leaving the mixer.
    pub fn lead_h(&self) -> f64 {
        self.formula.longest_preferment_h() + self.mixing_min() / 60.0
    }
    /// When the dough leaves the mixer.
    pub fn mixed_at(&self) -> Timestamp {
        self.serve_at - hours(self.total_h())
    }
    /// When weighing and mixing of the dough begin.
    pub fn mix_at(&self) -> Timestamp {
        self.mixed_at() - hours(self.mixing_min() / 60.0)
    }
    /// When the first thing is mixed: the longest preferment, or the dough.
    pub fn start_at(&self) -> Timestamp {
        self.mix_at() - hours(self.formula.longest_preferment_h())
    }
    fn zone(&self) -> Result<TimeZone, ValidationError> {
        TimeZone::get(&self.time_zone)
            .map_err(|_| ValidationError::one("time_zone", fact!("no-time-zone")))
    }

    fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.within("formula");
        self.formula.check_into(&mut c);
        c.within("scales");
        self.scales.check_into(&mut c);
        c.within("");
        c.instant("serve_at", fact!("f-serve-time"), self.serve_at);
        if let Some(now) = self.now_at {
            c.instant("now_at", fact!("f-present"), now);
        }
        kitchen::room_into(&mut c, self.room_c);
        kitchen::fridge_into(&mut c, self.fridge_c);
        c.range(
            "yeast_vigour",
            fact!("f-vigour-of-the-yeast"),
            self.yeast_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        c.range(
            "leaven_vigour",
            fact!("f-vigour-of-the-leaven"),
            self.leaven_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        kitchen::flour_into(&mut c, self.flour_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        kitchen::altitude_into(&mut c, self.altitude_m);
        if let Some(machine) = &self.machine {
            c.within("machine");
            machine.check_into(&mut c);
            c.within("");
        }
        if let Some(fire) = &self.fire {
            c.within("fire");
            fire.check_into(&mut c);
            c.within("");
        }
        c.done()
    }
    /// The bake that was planned: the fire's, or the style's own.
    pub fn programme(&self) -> &Programme {
        self.fire
            .as_ref()
            .map_or(&self.formula.style.bake, |f| &f.programme)
    }
}

/// What a kitchen usually is.
#[derive(Debug, Clone, PartialEq)]
pub struct KitchenUsual {
    /// Its time zone: "Europe/London".
    pub time_zone: String,
    /// How high it lies, m.
    pub altitude_m: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The fridge, °C.
    pub fridge_c: f64,
    /// The cold tap, °C.
    pub tap_water_c: f64,
    /// What is weighed on.
    pub scales: Scales,
}

impl KitchenUsual {
    /// Refuses what no kitchen is.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        if TimeZone::get(&self.time_zone).is_err() {
            c.refuse("time_zone", fact!("no-time-zone"));
        }
        kitchen::altitude_into(&mut c, self.altitude_m);
        kitchen::room_into(&mut c, self.room_c);
        kitchen::fridge_into(&mut c, self.fridge_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        self.scales.check_into(&mut c);
        c.done()
    }
}

/// A span of hours as exact time.
pub fn hours(h: f64) -> SignedDuration {
    SignedDuration::from_secs_f64((h * 3600.0).round())
}

/// Works a sheet out.
///
/// Errors: [`ValidationError`] with the fields outside their ranges, or with `serve_at` when the time is too short.
///
/// ```
/// use craft::formula::Scales;
/// use craft::sheet::{KitchenUsual, SheetRequest, StepKind, work_out};
///
/// let kitchen = KitchenUsual {
///     time_zone: "Europe/London".into(),
///     altitude_m: 0.0,
///     room_c: 20.0,
///     fridge_c: 4.0,
///     tap_water_c: 12.0,
///     scales: Scales::default(),
/// };
/// let friday = "2026-11-27T19:00:00Z".parse().unwrap();
/// let round = craft::style::by_key("hot_round").unwrap();
/// let sheet = work_out(&SheetRequest::of_style(round, &kitchen, friday)).unwrap();
/// assert!(sheet.window.unwrap().holds(friday));
/// assert_eq!(sheet.steps.first().unwrap().kind, StepKind::Mix);
/// assert_eq!(sheet.steps.last().unwrap().at, friday);
/// ```
pub fn work_out(r: &SheetRequest) -> Result<SheetResult, ValidationError> {
    work_out_with(r, &PrefermentRuns::default())
}

/// The same, with the preferments that were run before: while a maker changes the dough, they stay as they are.
///
/// Errors: as [`work_out`].
pub fn work_out_with(
    r: &SheetRequest,
    runs: &PrefermentRuns,
) -> Result<SheetResult, ValidationError> {
    Ok(work_out_whole(r, runs)?.0)
}

/// The same, with the dough as the rise model took it, its yeast in.
pub(crate) fn work_out_whole(
    r: &SheetRequest,
    runs: &PrefermentRuns,
) -> Result<(SheetResult, RiseRequest), ValidationError> {
    r.check()?;
    let zone = r.zone()?;
    no_fridge::refuse(r, &zone, runs)?;
    let mut doses = Doses::stated(&r.formula);
    let bare = weigh(&r.formula, &r.scales, &doses).map_err(in_formula)?;
    let dough_c = r.water(&bare)?.dough_c;
    let raised = raise::preferments(r, &bare, &mut doses, runs)?;
    let dough = raise::dough(r, &bare, &raised, dough_c.clamp(0.0, 40.0), &zone);
    too_near::refuse(r, &dough, &zone)?;
    let (yeast, rise, alone) = raise::yeast(r, &dough, runs)?;
    doses.dough = yeast.percent;
    let mut formula = weigh(&r.formula, &r.scales, &doses).map_err(in_formula)?;
    // Once more with the yeast in: the water of the steps is the water of the sheet.
    let mut bowl = r.water(&formula)?;
    let mixed_at = r.mixed_at();
    let window = rise.window.map(|w| ReadyWindow::of(&w, mixed_at));
    let mut notes = std::mem::take(&mut formula.notes);
    notes.append(&mut bowl.notes);
    notes.extend(raise::notes(r, &raised, alone));
    notes.extend(crate::style::topping::notes(
        &r.formula.toppings,
        r.programme().out_s,
    ));
    // The second dose takes its part of the dough: what a preferment is poured is of the final weights, too.
    let poured = |(i, p): (usize, raise::Raised)| PrefermentPlan {
        water: raise::water_of(r, &formula, i),
        ..p.plan
    };
    let preferments: Vec<PrefermentPlan> = raised.into_iter().enumerate().map(poured).collect();
    let mut out = SheetResult {
        start_at: r.start_at(),
        mixed_at,
        steps: steps::steps(r, &formula, &bowl, &rise, &preferments),
        blocks: stages::blocks(r),
        window,
        rise_at_serve: 100.0 * rise.at_bake.ripeness,
        reserve_at_serve: 100.0 * rise.at_bake.reserve,
        label_at_serve: rise.at_bake.label,
        clocks: clocks(&rise),
        programme: r.programme().clone(),
        preferments,
        notes: vec![],
        formula,
        yeast,
        water: bowl,
    };
    notes.extend(judge::notes(r, &out, &dough, &rise, &zone));
    out.notes = by_urgency(notes);
    let dough = RiseRequest {
        yeast_percent: out.yeast.percent,
        ..dough
    };
    Ok((out, dough))
}

/// Works a sheet out and says how sure its window is; `None` when it is never ready.
///
/// Errors: as [`work_out`].
pub fn work_out_surely(
    r: &SheetRequest,
    doubts: &Doubts,
    runs: &PrefermentRuns,
) -> Result<(SheetResult, Option<Sure>), ValidationError> {
    let (result, dough) = work_out_whole(r, runs)?;
    let handed = hand_overs(&dough, Temperatures::InsideTheDough, runs);
    let sure = spread_of(&dough, doubts, Temperatures::InsideTheDough, &handed)
        .zip(result.window)
        .map(|(s, w)| {
            let fridge = FridgeKnown {
                c: r.fridge_c,
                off_k: doubts.fridge_k,
                was_read: false,
            };
            Sure::of(&s, &w, fridge)
        });
    Ok((result, sure))
}

/// A refusal of the formula, at its place in the sheet's request.
fn in_formula(refused: ValidationError) -> ValidationError {
    refused.below("formula")
}

/// The curves at a hundred points or two, and half a day beyond at most: enough for a picture, and straight between them to a
/// point of the rise clock.
fn clocks(rise: &RiseResult) -> Vec<ClockPoint> {
    let end = rise.at_bake.hours + 12.0;
    let all: Vec<_> = rise
        .points
        .iter()
        .chain(&rise.beyond)
        .filter(|p| p.hours <= end)
        .collect();
    let apart = end / 120.0;
    /// Where the rise clock runs, as it does once a ball has relaxed, points lie closer.
    const RUNS: f64 = 0.04;
    let (mut last, mut last_rise) = (f64::NEG_INFINITY, 0.0);
    // Where a leg begins the place jumps, and with the shaping the rise clock falls: both sides of it are kept.
    let jumps = |a: &RisePoint, b: &RisePoint| {
        (a.place_c - b.place_c).abs() > 0.8 || b.ripeness < a.ripeness - 0.03
    };
    let at_jump = |i: usize| {
        (i > 0 && jumps(all[i - 1], all[i])) || (i + 1 < all.len() && jumps(all[i], all[i + 1]))
    };
    all.iter()
        .enumerate()
        .filter(|(i, p)| {
            let runs = (p.ripeness - last_rise).abs() >= RUNS;
            let due = runs || p.hours - last >= apart - 1e-9;
            if due {
                (last, last_rise) = (p.hours, p.ripeness);
            }
            due || *i + 1 == all.len() || p.hours == rise.at_bake.hours || at_jump(*i)
        })
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
