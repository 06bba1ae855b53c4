//! What a sheet answers: grams, water, steps, clocks, judgements.

use super::{ByLog, PlannedStep, ReadyWindow, fits};
use crate::fact::Fact;
use crate::fire::programme::Programme;
use crate::formula::{Dose, Formula, FormulaResult};
use crate::mix::WaterResult;
use crate::note::Note;
use crate::rise::{Label, RisePoint, RiseResult};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

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
    /// What this kitchen's log says of the window, beside the book's; absent where the plan goes by the book.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by_log: Option<ByLog>,
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
    /// A formula with every dose as this plan has it weighed: what is in the bowl, and in the tubs before it, is no question any more.
    pub fn weighed(&self, formula: Formula) -> Formula {
        let mut out = formula.in_the_bowl(self.yeast.percent);
        for (p, made) in out.preferments.iter_mut().zip(&self.preferments) {
            if p.yeast.dose == Dose::Solve && made.yeast_percent > 0.0 {
                p.yeast.dose = Dose::Given {
                    percent: made.yeast_percent,
                };
            }
        }
        out
    }
    /// Both clocks at an instant, read between the points; `None` before mixing and beyond the forecast.
    pub fn clocks_at(&self, at: Timestamp) -> Option<ClockPoint> {
        between(&self.clocks, self.mixed_at, at)
    }
}

/// Clocks that began at an instant, read between their points at another.
pub(crate) fn between(clocks: &[ClockPoint], from: Timestamp, at: Timestamp) -> Option<ClockPoint> {
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

/// The curves at a hundred points or two, and half a day beyond at most: enough for a picture, and straight between them to a
/// point of the rise clock.
pub(crate) fn clocks(rise: &RiseResult) -> Vec<ClockPoint> {
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
    let mut points: Vec<ClockPoint> = all
        .iter()
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
        .collect();
    // Two sides of a jump within four seconds are one moment in these digits: what was so until then stands.
    points.dedup_by(|later, kept| later.hours <= kept.hours);
    points
}

/// Kept with every batch: digits that no picture shows are left out.
fn rounded(value: f64, per_one: f64) -> f64 {
    (value * per_one).round() / per_one
}
