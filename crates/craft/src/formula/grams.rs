//! A weight typed into the sheet, turned back into the formula.
//!
//! What is typed is what will stand there: the size stays as it was said (so many balls of so many grams), and
//! the percentage becomes the one that gives this weight in that dough. A flour's weight changes how much dough
//! there is instead. The inverse of `weigh`, without its rounding.

use super::dose::{Dose, Doses};
use super::formula::Formula;
use super::parts::parts;
use super::size::Pieces;
use super::weigh::{FormulaResult, Ingredient};
use crate::fact;
use crate::refusal::ValidationError;
use crate::units::Grams;

/// No single ingredient is more of the bowl than this.
const MOST_OF_BOWL: f64 = 0.9;

/// A row that can be given by weight.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Given {
    /// The flour of that row.
    Flour(usize),
    /// The water.
    Water,
    /// The salt.
    Salt,
    /// The oil.
    Oil,
    /// The sugar.
    Sugar,
    /// The extra of that row.
    Extra(usize),
    /// The dose of the final dough.
    Yeast,
    /// The whole bowl.
    Dough,
}

impl Given {
    /// What a row is, by its place in the result.
    pub fn of_row(result: &FormulaResult, row: usize) -> Option<Given> {
        let r = result.rows.get(row)?;
        let nth = result.rows[..row]
            .iter()
            .filter(|x| x.ingredient == r.ingredient)
            .count();
        Some(match r.ingredient {
            Ingredient::Flour => Given::Flour(nth),
            Ingredient::Water => Given::Water,
            Ingredient::Salt => Given::Salt,
            Ingredient::Oil => Given::Oil,
            Ingredient::Sugar => Given::Sugar,
            Ingredient::Extra => Given::Extra(nth),
            Ingredient::Yeast => Given::Yeast,
        })
    }
    /// Its key: `water`, `flour-0`.
    pub fn key(self) -> String {
        match self {
            Given::Flour(i) => format!("flour.{i}"),
            Given::Water => "water".into(),
            Given::Salt => "salt".into(),
            Given::Oil => "oil".into(),
            Given::Sugar => "sugar".into(),
            Given::Extra(i) => format!("extra.{i}"),
            Given::Yeast => "yeast".into(),
            Given::Dough => "dough".into(),
        }
    }
    /// What that key stands for; `None` for a key of none.
    pub fn from_key(key: &str) -> Option<Given> {
        let nth = |prefix: &str| key.strip_prefix(prefix).and_then(|n| n.parse().ok());
        match key {
            "water" => Some(Given::Water),
            "salt" => Some(Given::Salt),
            "oil" => Some(Given::Oil),
            "sugar" => Some(Given::Sugar),
            "yeast" => Some(Given::Yeast),
            "dough" => Some(Given::Dough),
            _ => nth("flour.")
                .map(Given::Flour)
                .or_else(|| nth("extra.").map(Given::Extra)),
        }
    }
}

/// The formula in which `what` weighs `grams`, all stages together. `doses` are the ones in force.
///
/// Errors: [`ValidationError`] when no percentage gives that weight.
pub fn given(
    f: &Formula,
    doses: &Doses,
    what: Given,
    grams: f64,
) -> Result<Formula, ValidationError> {
    if !grams.is_finite() || grams < 0.0 {
        return Err(ValidationError::one(what.key(), fact!("weight-from-0")));
    }
    let sum = parts(f, doses).sum();
    let bowl = f.pieces.bowl_g(f.loss_percent, sum);
    let flour_g = bowl / sum * 100.0;
    let mut out = f.clone();
    match what {
        Given::Dough => {
            out.pieces = Pieces::Total {
                count: f.pieces.count(),
                dough_g: grams,
            };
        }
        Given::Flour(i) => {
            if i >= f.flours.len() {
                return Err(ValidationError::one(what.key(), fact!("no-such-flour")));
            }
            let weights: Vec<f64> = f
                .flours
                .iter()
                .enumerate()
                .map(|(n, x)| {
                    if n == i {
                        grams
                    } else {
                        x.share_percent / 100.0 * flour_g
                    }
                })
                .collect();
            let whole: f64 = weights.iter().sum();
            if whole <= 0.0 {
                return Err(ValidationError::one(what.key(), fact!("needs-flour")));
            }
            for (x, g) in out.flours.iter_mut().zip(&weights) {
                x.share_percent = g / whole * 100.0;
            }
            out.pieces = Pieces::Flour {
                count: f.pieces.count(),
                flour_g: whole,
            };
        }
        _ if grams >= bowl * MOST_OF_BOWL && !matches!(f.pieces, Pieces::Flour { .. }) => {
            let bowl = bowl.round();
            return Err(ValidationError::one(
                what.key(),
                fact!("whole-dough-weighs", weight = Grams(bowl)),
            ));
        }
        _ => set(&mut out, what, stated_for(f, doses, what, grams, flour_g)),
    }
    Ok(out)
}

/// What the formula states for it, in its own terms.
fn stated(f: &Formula, doses: &Doses, what: Given) -> f64 {
    match what {
        Given::Water => f.hydration_percent,
        Given::Salt => f.salt_percent,
        Given::Oil => f.oil_percent,
        Given::Sugar => f.sugar_percent,
        Given::Extra(i) => f.extras.get(i).map_or(0.0, |e| e.amount),
        Given::Yeast => doses.dough,
        Given::Flour(_) | Given::Dough => 0.0,
    }
}

fn set(f: &mut Formula, what: Given, v: f64) {
    match what {
        Given::Water => f.hydration_percent = v,
        Given::Salt => f.salt_percent = v,
        Given::Oil => f.oil_percent = v,
        Given::Sugar => f.sugar_percent = v,
        Given::Extra(i) => {
            if let Some(e) = f.extras.get_mut(i) {
                e.amount = v;
            }
        }
        Given::Yeast => {
            f.yeast.dose = Dose::Given {
                percent: v.max(0.0),
            }
        }
        Given::Flour(_) | Given::Dough => {}
    }
}

/// The stated value at which `what` weighs `grams`. Weight over stated value is a gentle curve (hidden water and
/// doses by the litre bend it): secant steps settle it.
fn stated_for(f: &Formula, doses: &Doses, what: Given, grams: f64, flour_g: f64) -> f64 {
    let weighs = |v: f64| {
        let mut probe = f.clone();
        set(&mut probe, what, v);
        let with = Doses {
            dough: if what == Given::Yeast { v } else { doses.dough },
            preferments: doses.preferments.clone(),
        };
        let p = parts(&probe, &with);
        let sum = p.sum();
        probe.pieces.bowl_g(f.loss_percent, sum) * p.total(|p| of(p, what)) / sum
    };
    let mut a = stated(f, doses, what);
    let mut ga = weighs(a);
    let mut b = a + (grams - ga) / flour_g * 100.0;
    for _ in 0..40 {
        let gb = weighs(b);
        if (gb - grams).abs() < 1e-9 || gb == ga {
            break;
        }
        let next = b + (grams - gb) * (b - a) / (gb - ga);
        (a, ga, b) = (b, gb, next);
    }
    b
}

fn of(p: &super::parts::StageParts, what: Given) -> f64 {
    match what {
        Given::Water => p.water,
        Given::Salt => p.salt,
        Given::Oil => p.oil,
        Given::Sugar => p.sugar,
        Given::Extra(i) => p.extras.get(i).copied().unwrap_or(0.0),
        Given::Yeast => p.yeast,
        Given::Flour(_) | Given::Dough => 0.0,
    }
}
