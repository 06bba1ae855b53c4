//! Grams: each cell of the sheet rounded to the scale that weighs it, and sums of what was rounded.

use super::dilution::Dilution;
use super::dose::Doses;
use super::formula::Formula;
use super::parts::{StageParts, parts};
use super::preferment::{LevainBuild, PrefermentKind};
use super::scales::Scales;
use super::size::{MOST_DOUGH_G, Portion};
use crate::fact;
use crate::fact::{Fact, whole};
use crate::flour::{Blend, blend};
use crate::note::Note;
use crate::refusal::ValidationError;
use crate::units::Grams;
use serde::{Deserialize, Serialize};

/// A scale is honest from five of its divisions on: half a division is then a tenth.
pub(super) const HONEST_DIVISIONS: f64 = 5.0;

/// What a row of the sheet weighs out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Ingredient {
    /// A flour.
    Flour,
    /// Water.
    Water,
    /// Salt.
    Salt,
    /// Oil.
    Oil,
    /// Sugar.
    Sugar,
    /// One of the formula's extras.
    Extra,
    /// Yeast.
    Yeast,
}

/// What one stage takes of an ingredient.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WeighedCell {
    /// Before rounding, g.
    pub exact_g: f64,
    /// Rounded to the scale that weighs it.
    pub weigh_g: f64,
    /// Resolution of that scale.
    pub scale_g: f64,
}

/// One ingredient over all stages.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct IngredientRow {
    /// What it is.
    pub ingredient: Ingredient,
    /// What it is called; empty where the ingredient says it.
    #[serde(default = "Fact::nothing")]
    pub name: Fact,
    /// Of all flour.
    pub percent: f64,
    /// Before rounding, g.
    pub exact_g: f64,
    /// The sum of its cells.
    pub weigh_g: f64,
    /// Resolution of the scale that weighs the last cell.
    pub scale_g: f64,
    /// By column; `None` where a stage has none of it.
    #[serde(default)]
    pub cells: Vec<Option<WeighedCell>>,
}

impl IngredientRow {
    /// What it is called: its own name, or the ingredient's.
    pub fn called(&self) -> Fact {
        if !self.name.is_nothing() {
            return self.name.clone();
        }
        match self.ingredient {
            Ingredient::Flour => fact!("flour"),
            Ingredient::Water => fact!("mixitem-water"),
            Ingredient::Salt => fact!("salt"),
            Ingredient::Oil => fact!("oil"),
            Ingredient::Sugar => fact!("sugar"),
            Ingredient::Extra => fact!("what-else"),
            Ingredient::Yeast => fact!("mixitem-yeast"),
        }
    }
}

/// One stage.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct StageColumn {
    /// Absent for the final dough.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<PrefermentKind>,
    /// What it is called.
    pub name: Fact,
    /// Before rounding, g.
    pub exact_g: f64,
    /// The sum of its rounded cells.
    pub weighed_g: f64,
    /// How far rounding puts the yeast off, % of the dose; absent without yeast.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub yeast_off_percent: Option<f64>,
    /// How to weigh a yeast dose that the scale cannot read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dilution: Option<Dilution>,
    /// The smallest number of pieces from which on the dose weighs honestly, where it does not yet.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weighs_from_pieces: Option<u32>,
}

/// The weighed sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FormulaResult {
    /// One for each ingredient, as it is weighed.
    pub rows: Vec<IngredientRow>,
    /// Preferments in their order, the final dough last.
    #[serde(default)]
    pub columns: Vec<StageColumn>,
    /// Sum of all percentages.
    pub sum_percent: f64,
    /// Pieces plus loss.
    pub dough_g: f64,
    /// Sum of the rounded rows: what the bowl really holds.
    pub weighed_g: f64,
    /// Weight of one piece; of the first kind where there are several.
    pub piece_g: f64,
    /// How many pieces it makes.
    pub pieces: u32,
    /// The pieces by kind.
    #[serde(default)]
    pub portions: Vec<Portion>,
    /// All water over all flour, %.
    #[serde(default)]
    pub true_hydration_percent: f64,
    /// As a recipe says it, %.
    #[serde(default)]
    pub nominal_hydration_percent: f64,
    /// What its flours come to together.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub blend: Option<Blend>,
    /// How levains are fed.
    #[serde(default)]
    pub builds: Vec<LevainBuild>,
    /// How to weigh a yeast dose of the final dough that the scale cannot read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dilution: Option<Dilution>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

impl FormulaResult {
    /// The pieces of which there is most dough: rise and fire are planned for them.
    pub fn main_portion(&self) -> Option<&Portion> {
        let all = |p: &Portion| f64::from(p.count) * p.piece_g;
        self.portions
            .iter()
            .max_by(|a, b| all(a).total_cmp(&all(b)))
    }
    /// The first row of an ingredient, if the formula has it.
    pub fn row(&self, ingredient: Ingredient) -> Option<&IngredientRow> {
        self.rows.iter().find(|r| r.ingredient == ingredient)
    }
    fn of(&self, ingredient: Ingredient) -> impl Iterator<Item = &IngredientRow> {
        self.rows.iter().filter(move |r| r.ingredient == ingredient)
    }
    /// Exact grams of an ingredient in all, 0 where there is none.
    pub fn exact_g(&self, ingredient: Ingredient) -> f64 {
        self.of(ingredient).map(|r| r.exact_g).sum()
    }
    /// Weighed grams of an ingredient in all.
    pub fn weigh_g(&self, ingredient: Ingredient) -> f64 {
        clean(self.of(ingredient).map(|r| r.weigh_g).sum())
    }
    /// Exact grams of an ingredient in one column.
    pub fn exact_in(&self, ingredient: Ingredient, column: usize) -> f64 {
        self.in_column(ingredient, column, |c| c.exact_g)
    }
    /// Weighed grams of an ingredient in one column.
    pub fn weigh_in(&self, ingredient: Ingredient, column: usize) -> f64 {
        clean(self.in_column(ingredient, column, |c| c.weigh_g))
    }
    fn in_column(
        &self,
        ingredient: Ingredient,
        column: usize,
        of: impl Fn(&WeighedCell) -> f64,
    ) -> f64 {
        self.of(ingredient)
            .filter_map(|r| r.cells.get(column)?.as_ref().map(&of))
            .sum()
    }
    /// The column of the final dough.
    pub fn last(&self) -> usize {
        self.columns.len().saturating_sub(1)
    }
    /// Area that is topped, cm² in all.
    pub fn area_cm2(&self) -> f64 {
        self.portions
            .iter()
            .map(|p| f64::from(p.count) * p.area_cm2)
            .sum()
    }
}

/// Free of binary dust.
fn clean(v: f64) -> f64 {
    // The sum of nothing is −0 to the machine.
    (v * 1000.0).round() / 1000.0 + 0.0
}

/// Weighs a checked formula out; what is to be said of it is said later.
pub(super) fn weighed(
    f: &Formula,
    scales: &Scales,
    doses: &Doses,
) -> Result<FormulaResult, ValidationError> {
    let parts = parts(f, doses);
    let sum_percent = parts.sum();
    let dough_g = f.pieces.bowl_g(f.loss_percent, sum_percent);
    too_much(f, dough_g)?;
    let per_percent = dough_g / sum_percent;
    let mut rows: Vec<IngredientRow> = lines(f)
        .into_iter()
        .map(|(ingredient, name, of)| {
            row(ingredient, name, &parts.stages, &*of, per_percent, scales)
        })
        .filter(|r| r.percent > 0.0 || r.ingredient == Ingredient::Flour)
        .collect();
    let mut columns: Vec<StageColumn> = (0..parts.stages.len())
        .map(|i| column(f, i, &rows))
        .collect();
    as_diluted(&mut rows, &mut columns);
    let portions = f
        .pieces
        .portions(dough_g / (1.0 + f.loss_percent / 100.0), f.style.opens_to());
    let builds = f
        .preferments
        .iter()
        .enumerate()
        .filter_map(|(i, p)| {
            let shares = parts.stages[i].flours.iter();
            let flours: Vec<(String, f64)> = f
                .flours
                .iter()
                .map(|x| x.name.clone())
                .zip(shares.copied())
                .collect();
            LevainBuild::of(i, p, columns[i].exact_g, &flours, scales)
        })
        .collect();
    Ok(FormulaResult {
        sum_percent,
        dough_g,
        weighed_g: clean(rows.iter().map(|r| r.weigh_g).sum()),
        piece_g: portions.first().map_or(0.0, |p| p.piece_g),
        pieces: f.pieces.count(),
        portions,
        true_hydration_percent: parts.true_hydration,
        nominal_hydration_percent: parts.nominal_hydration,
        blend: Some(blend(&f.flours)),
        builds,
        dilution: columns.last().and_then(|c| c.dilution),
        columns,
        rows,
        notes: vec![],
    })
}

fn too_much(f: &Formula, dough_g: f64) -> Result<(), ValidationError> {
    if dough_g <= MOST_DOUGH_G {
        return Ok(());
    }
    Err(ValidationError::one(
        f.pieces.count_field(),
        fact!(
            "sheet-300-kg",
            most = Grams(300_000.0),
            weight = Grams(whole(dough_g))
        ),
    ))
}

/// A dose that goes in dissolved is weighed as what its part of the mixture holds: one figure on every page.
fn as_diluted(rows: &mut [IngredientRow], columns: &mut [StageColumn]) {
    for row in rows
        .iter_mut()
        .filter(|r| r.ingredient == Ingredient::Yeast)
    {
        for (cell, column) in row.cells.iter_mut().zip(columns.iter_mut()) {
            if let (Some(c), Some(_)) = (cell, column.dilution) {
                let shown: f64 = crate::number::two_digits(c.exact_g)
                    .parse()
                    .unwrap_or(c.exact_g);
                column.weighed_g = clean(column.weighed_g - c.weigh_g + shown);
                c.weigh_g = shown;
            }
        }
        row.weigh_g = clean(row.cells.iter().flatten().map(|c| c.weigh_g).sum());
    }
}

type Of = Box<dyn Fn(&StageParts) -> f64>;

/// The rows in the order of the sheet: flours, water, salt, oil, sugar, extras, yeast.
fn lines(f: &Formula) -> Vec<(Ingredient, Fact, Of)> {
    let mut out: Vec<(Ingredient, Fact, Of)> = Vec::new();
    for (i, part) in f.flours.iter().enumerate() {
        out.push((
            Ingredient::Flour,
            Fact::as_written(part.name.as_str()),
            Box::new(move |p| p.flours[i]),
        ));
    }
    out.push((Ingredient::Water, Fact::nothing(), Box::new(|p| p.water)));
    out.push((Ingredient::Salt, Fact::nothing(), Box::new(|p| p.salt)));
    out.push((Ingredient::Oil, Fact::nothing(), Box::new(|p| p.oil)));
    out.push((Ingredient::Sugar, Fact::nothing(), Box::new(|p| p.sugar)));
    for (i, e) in f.extras.iter().enumerate() {
        out.push((
            Ingredient::Extra,
            e.called(),
            Box::new(move |p| p.extras[i]),
        ));
    }
    out.push((Ingredient::Yeast, Fact::nothing(), Box::new(|p| p.yeast)));
    out
}

fn row(
    ingredient: Ingredient,
    name: Fact,
    stages: &[StageParts],
    of: &dyn Fn(&StageParts) -> f64,
    per_percent: f64,
    scales: &Scales,
) -> IngredientRow {
    let cells: Vec<Option<WeighedCell>> = stages
        .iter()
        .map(|p| {
            let exact_g = per_percent * of(p);
            (exact_g > 0.0).then(|| {
                let scale_g = scales.for_g(exact_g);
                WeighedCell {
                    exact_g,
                    weigh_g: Grams(exact_g).on_scale(scale_g).0,
                    scale_g,
                }
            })
        })
        .collect();
    let all = || cells.iter().flatten();
    IngredientRow {
        ingredient,
        name,
        percent: stages.iter().map(of).sum(),
        exact_g: all().map(|c| c.exact_g).sum(),
        weigh_g: clean(all().map(|c| c.weigh_g).sum()),
        scale_g: all().last().map_or(scales.kitchen_scale_g, |c| c.scale_g),
        cells,
    }
}

fn column(f: &Formula, i: usize, rows: &[IngredientRow]) -> StageColumn {
    let cell = |r: &IngredientRow| r.cells.get(i).copied().flatten();
    let all = || rows.iter().filter_map(cell);
    let one = |ingredient| {
        rows.iter()
            .filter(move |r| r.ingredient == ingredient)
            .filter_map(cell)
    };
    let yeast = one(Ingredient::Yeast).next();
    let water: f64 = one(Ingredient::Water).map(|c| c.exact_g).sum();
    let preferment = f.preferments.get(i);
    StageColumn {
        kind: preferment.map(|p| p.kind),
        name: preferment.map_or(fact!("dough"), |p| p.called()),
        exact_g: all().map(|c| c.exact_g).sum(),
        weighed_g: clean(all().map(|c| c.weigh_g).sum()),
        yeast_off_percent: yeast.map(|y| 100.0 * (y.weigh_g - y.exact_g) / y.exact_g),
        dilution: yeast
            .filter(|y| y.exact_g < HONEST_DIVISIONS * y.scale_g)
            .and_then(|y| Dilution::of(y.exact_g, y.scale_g, water)),
        weighs_from_pieces: yeast
            .map(|y| HONEST_DIVISIONS * y.scale_g / y.exact_g)
            .filter(|larger| *larger > 1.0)
            .map(|larger| (f64::from(f.pieces.count()) * larger).ceil() as u32),
    }
}
