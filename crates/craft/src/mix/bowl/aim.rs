//! The water, or the flour, that ends at a temperature: the end is linear in what is poured, so two courses solve it.
//!
//! Source: mixing and shaping, section 3.

use super::trace::course;
use super::{BowlPart, FrictionFigures, Mixing};
use crate::fact;
use crate::mix::balance::{COLDEST_WATER_C, HOTTEST_WATER_C};
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// How warm the named parts must be.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Aimed {
    /// Their temperature, possible or not, °C.
    pub at_c: f64,
    /// What one degree of them moves the end by, K.
    pub per_degree_k: f64,
    /// What they weigh together, g.
    pub weight_g: f64,
    /// The end with them as cold as water can be poured, °C.
    pub end_with_coldest_c: f64,
    /// The end with them as warm as yeast bears, °C.
    pub end_with_hottest_c: f64,
}

impl Aimed {
    /// What can be poured of it, °C.
    pub fn poured_c(&self) -> f64 {
        self.at_c.clamp(COLDEST_WATER_C, HOTTEST_WATER_C)
    }
    /// The end with the parts at a temperature, °C.
    pub fn end_c(&self, at_c: f64) -> f64 {
        self.end_with_coldest_c + self.per_degree_k * (at_c - COLDEST_WATER_C)
    }
}

/// How warm the parts of these names must be for the dough to end at `target_c`.
///
/// Errors: [`ValidationError`] where the mixing is none, or where no such part is to come.
pub fn aim(
    mixing: &Mixing,
    names: &[&str],
    target_c: f64,
    figures: Option<&FrictionFigures>,
) -> Result<Aimed, ValidationError> {
    mixing.check()?;
    aim_parts(mixing, names, target_c, figures)
        .ok_or_else(|| ValidationError::one("steps", fact!("mix-nothing-to-pour")))
}

/// The same for a mixing that was checked; none where no such part is to come.
pub fn aim_parts(
    mixing: &Mixing,
    names: &[&str],
    target_c: f64,
    figures: Option<&FrictionFigures>,
) -> Option<Aimed> {
    let weight_g = poured_g(mixing, names);
    if weight_g <= 0.0 {
        return None;
    }
    let end = |at_c: f64| course(&set_parts(mixing, names, at_c), figures, true).end_c;
    let (cold, warm) = (end(0.0), end(1.0));
    let per_degree_k = warm - cold;
    Some(Aimed {
        at_c: (target_c - cold) / per_degree_k,
        per_degree_k,
        weight_g,
        end_with_coldest_c: cold + per_degree_k * COLDEST_WATER_C,
        end_with_hottest_c: cold + per_degree_k * HOTTEST_WATER_C,
    })
}

/// What the parts of these names weigh, g.
fn poured_g(mixing: &Mixing, names: &[&str]) -> f64 {
    let added = mixing.steps.iter().flat_map(|s| &s.add);
    let named = added.filter(|i| i.name.as_deref().is_some_and(|n| names.contains(&n)));
    named
        .filter(|i| i.what != BowlPart::Ice)
        .map(|i| i.weight_g)
        .sum()
}

/// The mixing with the parts of these names at a temperature.
pub(crate) fn set_parts(mixing: &Mixing, names: &[&str], temp_c: f64) -> Mixing {
    let mut m = mixing.clone();
    for i in m.steps.iter_mut().flat_map(|s| &mut s.add) {
        if i.name.as_deref().is_some_and(|n| names.contains(&n)) {
            i.temp_c = temp_c;
        }
    }
    m
}
