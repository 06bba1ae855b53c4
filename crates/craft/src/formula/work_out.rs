//! A formula worked out: refused or weighed, and judged last.

use super::dose::Doses;
use super::formula::Formula;
use super::judge;
use super::scales::Scales;
use super::weigh::{FormulaResult, weighed};
use crate::fact;
use crate::fact::Value;
use crate::refusal::{Check, MOST_YEAST_PERCENT, ValidationError};
use serde::{Deserialize, Serialize};

/// A formula to weigh out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FormulaRequest {
    /// What is weighed.
    pub formula: Formula,
    /// What it is weighed on.
    #[serde(default)]
    pub scales: Scales,
    /// In place of what the formula states; without it, doses to be solved weigh nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub doses: Option<Doses>,
}

/// Weighs a formula out.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
///
/// ```
/// use craft::formula::{Formula, FormulaRequest, Ingredient, Scales, formulate};
///
/// let formula = Formula::of_style(craft::style::by_key("hot_round").unwrap());
/// let asked = FormulaRequest { formula, scales: Scales::default(), doses: None };
/// let weighed = formulate(&asked).unwrap();
/// // Six balls of 250 g, 1.5 % for bowl and hands, all of it in rows that add up.
/// assert!((weighed.dough_g - 6.0 * 250.0 * 1.015).abs() < 0.1);
/// let sum: f64 = weighed.rows.iter().map(|r| r.weigh_g).sum();
/// assert!((sum - weighed.weighed_g).abs() < 1e-6);
/// assert_eq!(weighed.weigh_g(Ingredient::Flour), 924.0);
/// ```
pub fn formulate(r: &FormulaRequest) -> Result<FormulaResult, ValidationError> {
    let mut check = Check::new();
    check.within("formula");
    r.formula.check_into(&mut check);
    check.within("scales");
    r.scales.check_into(&mut check);
    check.within("doses");
    let doses = r.doses.clone().unwrap_or_else(|| Doses::stated(&r.formula));
    check.range(
        "dough",
        fact!("f-yeast"),
        doses.dough,
        0.0,
        MOST_YEAST_PERCENT,
        Value::Percent,
    );
    if doses.preferments.len() != r.formula.preferments.len() {
        check.refuse("preferments", fact!("one-dose-each"));
    }
    for d in &doses.preferments {
        check.range(
            "preferments",
            fact!("f-yeast"),
            *d,
            0.0,
            MOST_YEAST_PERCENT,
            Value::Percent,
        );
    }
    check.done()?;
    weigh(&r.formula, &r.scales, &doses)
}

/// Weighs a checked formula out and judges it.
pub(crate) fn weigh(
    f: &Formula,
    scales: &Scales,
    doses: &Doses,
) -> Result<FormulaResult, ValidationError> {
    let mut out = weighed(f, scales, doses)?;
    out.notes = judge::notes(f, scales, &out);
    Ok(out)
}
