//! The weighed sheet as a table: ingredients down, stages across, grams as the scales read them.

use crate::shared::format::{self, Measures};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{decimal, phrase, plain, say};
use craft::formula::grams::Given;
use craft::formula::{FormulaResult, Ingredient, IngredientRow, WeighedCell};
use craft::sheet::{SheetRequest, SheetResult};
use craft::units::WeightUnit;

pub struct TableColumn {
    pub name: String,
    /// "Fri 22:40".
    pub when: String,
}

pub struct CellView {
    /// Empty where the stage has none.
    pub grams: String,
    /// Too small for its scale.
    pub diluted: bool,
}

pub struct RowView {
    pub name: String,
    pub percent: String,
    pub cells: Vec<CellView>,
    pub total: String,
    /// The row's key for typing a weight, and the plain number of its field.
    pub key: String,
    pub field: String,
    pub yeast: bool,
    /// The last flour: a line follows.
    pub rules: bool,
}

/// A preferment as it goes into the dough.
pub struct WholeView {
    pub name: String,
    pub cells: Vec<String>,
}

pub struct BuildLine {
    pub says: String,
}

pub struct FormulaTable {
    pub unit: &'static str,
    pub columns: Vec<TableColumn>,
    /// More than the dough alone.
    pub staged: bool,
    pub rows: Vec<RowView>,
    pub wholes: Vec<WholeView>,
    pub sums: Vec<String>,
    pub sum_percent: String,
    pub weighs: String,
    pub why: String,
    pub builds: Vec<BuildLine>,
    pub hydration: Option<String>,
    pub yeast_off: Option<String>,
}

impl FormulaTable {
    pub fn of(request: &SheetRequest, sheet: &SheetResult, here: &RequestKitchen) -> FormulaTable {
        let (m, r) = (here.measures, &sheet.formula);
        let last = r.last();
        let columns = r
            .columns
            .iter()
            .enumerate()
            .map(|(i, c)| TableColumn {
                name: here.say(&c.name),
                when: if r.columns.len() == 1 {
                    m.weight_unit().into()
                } else {
                    let at = sheet
                        .preferments
                        .get(i)
                        .map_or(sheet.mixed_at, |p| p.from_at);
                    let at = if i == last { request.mix_at() } else { at };
                    // What a fed levain weighs is told by its feeding.
                    let fed = r.builds.iter().any(|b| b.of == i);
                    let at = format::day_hm(&here.local(at));
                    if fed {
                        say!("figures-in-it", at = at)
                    } else {
                        at
                    }
                },
            })
            .collect();
        let flours = r
            .rows
            .iter()
            .filter(|x| x.ingredient == Ingredient::Flour)
            .count();
        FormulaTable {
            unit: m.weight_unit(),
            columns,
            staged: r.columns.len() > 1,
            rows: (0..r.rows.len())
                .map(|i| row(request, r, i, i + 1 == flours, &m))
                .collect(),
            wholes: r.columns[..last]
                .iter()
                .enumerate()
                .map(|(i, c)| WholeView {
                    name: say!("figures-all-of-the", name = here.words(&c.name)),
                    cells: (0..=last)
                        .map(|j| {
                            if j == i || j == last {
                                m.weight(c.weighed_g)
                            } else {
                                String::new()
                            }
                        })
                        .collect(),
                })
                .collect(),
            sums: r
                .columns
                .iter()
                .enumerate()
                .map(|(i, c)| m.weight(if i == last { r.weighed_g } else { c.weighed_g }))
                .collect(),
            sum_percent: decimal(r.sum_percent, 1),
            weighs: m.weight(r.weighed_g),
            why: why(request, r, &m),
            builds: r
                .builds
                .iter()
                .map(|b| {
                    let w = b.weighed();
                    // As the scales weigh it, so that it adds up: what is fed, what goes in, what stays.
                    let goes_in = r.columns.get(b.of).map_or(b.used_g, |c| c.weighed_g);
                    let kept = w.stays_g(goes_in);
                    let keeps = b.kept_back_g + b.spare_g > 0.0;
                    let keep = if keeps {
                        say!("figures-stay-in-the-jar", kept = m.weighed(kept))
                    } else {
                        String::new()
                    };
                    BuildLine {
                        says: say!(
                            "figures-feed-the-ripe-seed-water",
                            name = here.words(&b.name),
                            seed_g = m.weighed(w.seed_g),
                            flour_fact = here.words(&w.flour_fact()),
                            water_g = m.weighed(w.water_g),
                            makes_g = m.weighed(w.makes_g()),
                            goes_in = m.weighed(goes_in),
                            keep = keep
                        ),
                    }
                })
                .collect(),
            hydration: hydration(r),
            yeast_off: yeast_off(r, here),
        }
    }
}

/// True beside nominal, where they differ.
fn hydration(r: &FormulaResult) -> Option<String> {
    let (t, n) = (r.true_hydration_percent, r.nominal_hydration_percent);
    ((t - n).abs() >= 0.05).then(|| {
        say!(
            "figures-true-hydration-nominal-starter-old",
            t = decimal(t, 1),
            n = decimal(n, 1)
        )
    })
}

/// What rounding to the scale does to the yeast.
fn yeast_off(r: &FormulaResult, here: &RequestKitchen) -> Option<String> {
    let worst = r
        .columns
        .iter()
        .filter(|c| c.dilution.is_none())
        .filter_map(|c| Some((c, c.yeast_off_percent?)))
        .max_by(|a, b| a.1.abs().total_cmp(&b.1.abs()))?;
    (worst.1.abs() >= 1.0).then(|| {
        let of = if r.columns.len() > 1 {
            [
                " ",
                &say!("figures-in", name = here.words(&worst.0.name)),
                "",
            ]
            .concat()
        } else {
            String::new()
        };
        let word = if worst.1 > 0.0 {
            phrase("figures-word-more")
        } else {
            phrase("figures-word-less")
        };
        say!(
            "figures-rounding-puts-yeast-than-computed",
            worst = decimal(worst.1.abs(), 0),
            value = word,
            of = of
        )
    })
}

fn row(request: &SheetRequest, r: &FormulaResult, i: usize, rules: bool, m: &Measures) -> RowView {
    let x = &r.rows[i];
    let yeast = x.ingredient == Ingredient::Yeast;
    let cell = |j: usize, c: &Option<WeighedCell>| {
        let diluted = yeast && r.columns.get(j).is_some_and(|c| c.dilution.is_some());
        CellView {
            grams: match c {
                None => String::new(),
                Some(c) if yeast => m.dose(c.weigh_g),
                Some(c) => m.weight(c.weigh_g),
            },
            diluted,
        }
    };
    RowView {
        name: name(request, x),
        percent: format::percent(x.percent),
        cells: x
            .cells
            .iter()
            .enumerate()
            .map(|(j, c)| cell(j, c))
            .collect(),
        total: if yeast {
            m.dose(x.weigh_g)
        } else {
            m.weight(x.weigh_g)
        },
        key: Given::of_row(r, i).map_or(String::new(), Given::key),
        field: if yeast && m.weight == WeightUnit::Grams {
            m.dose(x.weigh_g)
        } else {
            m.weight_field(x.weigh_g)
        },
        yeast,
        rules,
    }
}

/// What a row is called.
pub fn name(request: &SheetRequest, x: &IngredientRow) -> String {
    match x.ingredient {
        Ingredient::Flour | Ingredient::Extra => format::named(&x.name),
        Ingredient::Water => phrase("mix-water").into(),
        Ingredient::Salt => phrase("figures-salt").into(),
        Ingredient::Oil => phrase("figures-oil").into(),
        Ingredient::Sugar => phrase("figures-sugar").into(),
        Ingredient::Yeast => format::named(&request.formula.yeast.form.name()),
    }
}

/// Where the weight comes from, in one line.
fn why(request: &SheetRequest, r: &FormulaResult, m: &Measures) -> String {
    say!(
        "figures-and-for-bowl-and-hands",
        portions = format::portions(&r.portions, m),
        loss_percent = plain(request.formula.loss_percent),
        sum_percent = m.weighed(r.dough_g / r.sum_percent)
    )
}
