//! Formula: baker's percentages to grams, as the scales can weigh them.
//!
//! Question: how much of everything makes these pieces? Input: pieces, loss and percentages of the flour;
//! output: rows in grams, exact and rounded to the scale that weighs them, with sums that hold: the sheet's
//! total is the sum of the rounded rows. Source: craft notes, section 2. Valid for doughs without preferment.

mod dilution;
mod size;

pub use dilution::Dilution;
pub use size::Pieces;

use crate::leaven::YeastForm;
use crate::note::{Note, by_urgency};
use crate::refusal::{Check, Refused, plain};
use crate::units::Grams;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// From this weight on the kitchen scale is used, below it the fine one, g.
const KITCHEN_SCALE_FROM_G: f64 = 40.0;
/// Rounding a yeast dose by more than this share is worth a dilution.
const COARSE_ROUNDING: f64 = 0.10;
/// Largest dough of one sheet, g: what one person can still divide.
const MOST_DOUGH_G: f64 = 300_000.0;

/// A formula to weigh out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulaRequest {
    pub pieces: Pieces,
    /// Dough that stays on bowl and hands, 0 to 10 % of the pieces.
    #[serde(default)]
    pub loss_percent: f64,
    /// Water, 40 to 130 % of the flour.
    pub hydration_percent: f64,
    /// 0 to 5 %.
    pub salt_percent: f64,
    /// 0 to 20 %.
    #[serde(default)]
    pub oil_percent: f64,
    /// 0 to 20 %.
    #[serde(default)]
    pub sugar_percent: f64,
    /// In its own form, 0 to 6 % in fresh equivalent.
    #[serde(default)]
    pub yeast_percent: f64,
    #[serde(default = "instant")]
    pub yeast_form: YeastForm,
    /// What the kitchen scale resolves, 0.1 to 50 g.
    #[serde(default = "kitchen_scale")]
    pub kitchen_scale_g: f64,
    /// What the fine scale resolves, 0.001 to 5 g.
    #[serde(default = "fine_scale")]
    pub fine_scale_g: f64,
}

fn instant() -> YeastForm {
    YeastForm::Instant
}
fn kitchen_scale() -> f64 {
    1.0
}
fn fine_scale() -> f64 {
    0.1
}

/// What a row of the sheet weighs out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Ingredient {
    Flour,
    Water,
    Salt,
    Oil,
    Sugar,
    Yeast,
}

/// One ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Row {
    pub ingredient: Ingredient,
    /// Of the flour.
    pub percent: f64,
    pub exact_g: f64,
    /// Rounded to the scale that weighs it.
    pub weigh_g: f64,
    /// Resolution of that scale.
    pub scale_g: f64,
}

/// The weighed sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct FormulaResult {
    pub rows: Vec<Row>,
    /// Sum of all percentages.
    pub sum_percent: f64,
    /// Pieces plus loss.
    pub dough_g: f64,
    /// Sum of the rounded rows: what the bowl really holds.
    pub weighed_g: f64,
    /// Weight of one piece.
    pub piece_g: f64,
    pub pieces: u32,
    /// How to weigh a yeast dose that the scale cannot read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dilution: Option<Dilution>,
    pub notes: Vec<Note>,
}

impl FormulaResult {
    /// The row of an ingredient, if the formula has it.
    pub fn row(&self, ingredient: Ingredient) -> Option<&Row> {
        self.rows.iter().find(|r| r.ingredient == ingredient)
    }
    /// Exact grams of an ingredient, 0 where there is none.
    pub fn exact_g(&self, ingredient: Ingredient) -> f64 {
        self.row(ingredient).map_or(0.0, |r| r.exact_g)
    }
}

impl FormulaRequest {
    /// Percentages by ingredient, flour first.
    fn percentages(&self) -> [(Ingredient, f64); 6] {
        [
            (Ingredient::Flour, 100.0),
            (Ingredient::Water, self.hydration_percent),
            (Ingredient::Salt, self.salt_percent),
            (Ingredient::Oil, self.oil_percent),
            (Ingredient::Sugar, self.sugar_percent),
            (Ingredient::Yeast, self.yeast_percent),
        ]
    }

    /// Adds everything that is wrong with this request.
    pub fn check_into(&self, c: &mut Check) {
        self.pieces.check_into(c);
        c.range("loss_percent", "Loss", self.loss_percent, 0.0, 10.0, "%");
        c.percentages(
            self.hydration_percent,
            self.salt_percent,
            self.sugar_percent,
            self.oil_percent,
        );
        c.yeast(self.yeast_form, self.yeast_percent);
        c.range(
            "kitchen_scale_g",
            "Kitchen scale",
            self.kitchen_scale_g,
            0.1,
            50.0,
            "g",
        );
        c.range(
            "fine_scale_g",
            "Fine scale",
            self.fine_scale_g,
            0.001,
            5.0,
            "g",
        );
        let dough = self.pieces.total_g() * (1.0 + self.loss_percent / 100.0);
        if c.is_clean() && dough > MOST_DOUGH_G {
            c.refuse(
                self.pieces.count_field(),
                format!(
                    "One sheet holds up to 300 kg of dough; this is {} kg. Split it.",
                    plain((dough / 1000.0).round())
                ),
            );
        }
    }
}

/// Weighs a formula out.
///
/// Errors: [`Refused`] with the fields outside their ranges.
pub fn formulate(r: &FormulaRequest) -> Result<FormulaResult, Refused> {
    let mut check = Check::new();
    r.check_into(&mut check);
    check.done()?;
    let dough_g = r.pieces.total_g() * (1.0 + r.loss_percent / 100.0);
    let sum_percent: f64 = r.percentages().iter().map(|(_, p)| p).sum();
    let rows: Vec<Row> = r
        .percentages()
        .into_iter()
        .filter(|(i, p)| *p > 0.0 || *i == Ingredient::Flour)
        .map(|(ingredient, percent)| {
            let exact_g = dough_g / sum_percent * percent;
            let scale_g = if exact_g >= KITCHEN_SCALE_FROM_G {
                r.kitchen_scale_g
            } else {
                r.fine_scale_g
            };
            Row {
                ingredient,
                percent,
                exact_g,
                weigh_g: Grams(exact_g).on_scale(scale_g).0,
                scale_g,
            }
        })
        .collect();
    let weighed_g = sum(&rows);
    let dilution = yeast_row(&rows).and_then(|y| needs_dilution(y, &rows));
    let notes = notes(r, &rows, &dilution);
    Ok(FormulaResult {
        sum_percent,
        dough_g,
        weighed_g,
        piece_g: r.pieces.piece_g(),
        pieces: r.pieces.count(),
        dilution,
        notes,
        rows,
    })
}

/// The sum of the rounded rows, free of binary dust.
fn sum(rows: &[Row]) -> f64 {
    (rows.iter().map(|r| r.weigh_g).sum::<f64>() * 1000.0).round() / 1000.0
}

fn yeast_row(rows: &[Row]) -> Option<&Row> {
    rows.iter().find(|r| r.ingredient == Ingredient::Yeast)
}

fn needs_dilution(yeast: &Row, rows: &[Row]) -> Option<Dilution> {
    let water = rows.iter().find(|r| r.ingredient == Ingredient::Water)?;
    // A scale is honest from about five of its divisions on: half a division is then a tenth.
    let coarse = yeast.exact_g < 0.5 * yeast.scale_g / COARSE_ROUNDING;
    if coarse {
        Dilution::of(yeast.exact_g, yeast.scale_g, water.exact_g)
    } else {
        None
    }
}

fn notes(r: &FormulaRequest, rows: &[Row], dilution: &Option<Dilution>) -> Vec<Note> {
    let mut notes = Vec::new();
    if let Some(y) = yeast_row(rows).filter(|y| y.exact_g < 5.0 * y.scale_g) {
        // Half a division either way is the worst that rounding does.
        let off = 50.0 * y.scale_g / y.exact_g;
        let grams = two_digits(y.exact_g);
        let n = Note::watch(
            "yeast_below_scale",
            format!("{grams} g of yeast is too little for this scale"),
            format!(
                "It reads in steps of {} g: the dose may be {:.0} % off.",
                plain(y.scale_g),
                off.min(100.0)
            ),
        );
        notes.push(match dilution {
            Some(d) => n.todo(format!(
                "Stir {} g yeast into {} g water, take {} g of it and pour {} g less water.",
                plain(d.yeast_g),
                plain(d.water_g),
                plain(d.take_g),
                plain(d.less_water_g)
            )),
            None => n.todo("Use a finer scale or a larger batch."),
        });
    }
    if r.salt_percent < 1.8 || r.salt_percent > 3.2 {
        let (word, set) = if r.salt_percent < 1.8 {
            ("little", 1.8)
        } else {
            ("much", 3.2)
        };
        notes.push(
            Note::watch(
                "salt_outside_usual",
                format!("{} % salt is {word}", plain(r.salt_percent)),
                "1.8 to 3.2 % carries flavour, tightens the gluten and steadies the yeast.",
            )
            .remedy(format!("Set {} %", plain(set)), "salt_percent", set),
        );
    }
    by_urgency(notes)
}

/// A small amount to two significant digits: more would be false precision.
pub fn two_digits(value: f64) -> String {
    if value <= 0.0 {
        return "0".into();
    }
    let decimals = (1 - value.log10().floor() as i32).clamp(0, 6) as usize;
    format!("{value:.decimals$}")
}

#[cfg(test)]
mod tests;
