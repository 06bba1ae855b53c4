//! Weighing a yeast dose that no scale at hand can read: dissolve more of it, take a part.

use crate::units::Grams;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// Stir `yeast_g` into `water_g`, take `take_g` of it, pour `less_water_g` less water.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Dilution {
    pub yeast_g: f64,
    pub water_g: f64,
    pub take_g: f64,
    pub less_water_g: f64,
    /// Yeast that the taken part holds.
    pub holds_g: f64,
}

/// A weighing of ten divisions is off by at most 5 %.
const HONEST_DIVISIONS: f64 = 10.0;

impl Dilution {
    /// The first mixture in which both weighings are honest and the taken water fits the recipe's.
    /// `None` when even the weakest one would take more water than the recipe has.
    pub fn of(dose_g: f64, scale_g: f64, recipe_water_g: f64) -> Option<Dilution> {
        let yeast_g = Grams((HONEST_DIVISIONS * scale_g).max(1.0)).0;
        [100.0, 200.0, 500.0, 1000.0].into_iter().find_map(|parts| {
            let whole = parts * yeast_g;
            let exact = dose_g / yeast_g * whole;
            let take_g = Grams(exact).on_scale(scale_g).0;
            let share = yeast_g / whole;
            let water = take_g * (1.0 - share);
            let honest = exact >= HONEST_DIVISIONS * scale_g && exact <= whole;
            (honest && water <= 0.8 * recipe_water_g).then(|| Dilution {
                yeast_g,
                water_g: whole - yeast_g,
                take_g,
                less_water_g: Grams(water).on_scale(scale_g).0,
                holds_g: take_g * share,
            })
        })
    }
}
