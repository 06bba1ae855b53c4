//! Weighing a yeast dose that no scale at hand can read: dissolve more of it, take a part; or by the spoon, where that does
//! not pay.

use crate::fact;
use crate::fact::Fact;
use crate::leaven::YeastForm;
use crate::units::Grams;
use serde::{Deserialize, Serialize};

/// Stir `yeast_g` into `water_g`, take `take_g` of it, pour `less_water_g` less water.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Dilution {
    /// Yeast to stir in, g.
    pub yeast_g: f64,
    /// Water to stir it into, g.
    pub water_g: f64,
    /// Mixture to take, g.
    pub take_g: f64,
    /// Water to leave out of the dough for it, g.
    pub less_water_g: f64,
    /// Yeast that the taken part holds.
    pub holds_g: f64,
    /// Mixture that is left over.
    #[serde(default)]
    pub thrown_g: f64,
}

/// A weighing of ten divisions is off by at most 5 %.
const HONEST_DIVISIONS: f64 = 10.0;
/// Parts of mixture to one of yeast, the strongest first: with less than three parts of water it does not stir smooth.
const PARTS: [f64; 22] = [
    4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 80.0, 100.0, 150.0,
    200.0, 300.0, 400.0, 500.0, 800.0, 1000.0,
];
/// A mixture weaker by this much is still taken for a dose that comes out as near as this.
const WEAKER: f64 = 2.0;
const CLOSE: f64 = 0.02;
/// It pays while no more than a twentieth of the dough's weight is thrown away.
const PAYS_SHARE: f64 = 0.05;

impl Dilution {
    /// The strongest mixture of the smallest amount of yeast in which both weighings are honest and the taken water fits the
    /// recipe's. `None` when even the weakest one would take more water than the recipe has.
    pub fn of(dose_g: f64, scale_g: f64, recipe_water_g: f64) -> Option<Dilution> {
        let yeast_g = Grams(HONEST_DIVISIONS * scale_g).0;
        let mixtures: Vec<Dilution> = PARTS
            .into_iter()
            .filter_map(|parts| Dilution::mixed(dose_g, scale_g, recipe_water_g, yeast_g, parts))
            .collect();
        let strongest = mixtures.first()?;
        // A little weaker is as good where its weighing comes out better.
        let near = |d: &&Dilution| {
            let weaker = (d.water_g + d.yeast_g) / (strongest.water_g + strongest.yeast_g);
            weaker <= WEAKER && (d.holds_g / dose_g - 1.0).abs() <= CLOSE
        };
        Some(*mixtures.iter().find(near).unwrap_or(strongest))
    }

    /// One mixture, where both weighings are honest and its water fits.
    fn mixed(
        dose_g: f64,
        scale_g: f64,
        recipe_water_g: f64,
        yeast_g: f64,
        parts: f64,
    ) -> Option<Dilution> {
        let whole = parts * yeast_g;
        let exact = dose_g * parts;
        let take_g = Grams(exact).on_scale(scale_g).0;
        let share = 1.0 / parts;
        let water = take_g * (1.0 - share);
        let honest = exact >= HONEST_DIVISIONS * scale_g && take_g <= whole;
        (honest && water <= 0.8 * recipe_water_g).then(|| Dilution {
            yeast_g,
            water_g: whole - yeast_g,
            take_g,
            less_water_g: Grams(water).on_scale(scale_g).0,
            holds_g: take_g * share,
            thrown_g: whole - take_g,
        })
    }

    /// Whether what is thrown away is little beside the dough.
    pub fn pays(&self, dough_g: f64) -> bool {
        self.thrown_g <= PAYS_SHARE * dough_g
    }
}

/// A dose by the measuring spoon, level, and within what it may lie.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Spoon {
    /// Quarters of a teaspoon; an eighth is 0.5.
    pub quarters: f64,
    /// The least that it may hold, g.
    pub low_g: f64,
    /// The most that it may hold, g.
    pub high_g: f64,
}

/// A level teaspoon of dry yeast, g, and how far it is off by how it is filled (craft notes: kitchen measures).
const TEASPOON_G: f64 = 3.1;
const SPOON_OFF: f64 = 0.25;

impl Spoon {
    /// The spoon nearest to a dose; `None` for fresh yeast, which is no powder, and where none comes near.
    pub fn of(dose_g: f64, form: YeastForm) -> Option<Spoon> {
        if form == YeastForm::Fresh {
            return None;
        }
        let quarter_g = TEASPOON_G / 4.0;
        let quarters = [0.5, 1.0, 2.0, 3.0, 4.0, 6.0, 8.0];
        let off = |q: &f64| (q * quarter_g / dose_g).ln().abs();
        let q = quarters
            .into_iter()
            .min_by(|a, b| off(a).total_cmp(&off(b)))?;
        (off(&q) <= (1.0 + SPOON_OFF).ln()).then_some(Spoon {
            quarters: q,
            low_g: q * quarter_g * (1.0 - SPOON_OFF),
            high_g: q * quarter_g * (1.0 + SPOON_OFF),
        })
    }
    /// "a level half teaspoon".
    pub fn words(&self) -> Fact {
        match self.quarters {
            q if q < 1.0 => fact!("spoon-eighth"),
            q if q < 2.0 => fact!("spoon-quarter"),
            q if q < 3.0 => fact!("spoon-half"),
            q if q < 4.0 => fact!("spoon-three-quarters"),
            q if q < 6.0 => fact!("spoon-one"),
            q if q < 8.0 => fact!("spoon-one-and-half"),
            _ => fact!("spoon-two"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_mixture_is_as_strong_as_the_scale_allows() {
        // 1.5 g on a scale of 1 g: ten grams in seventy, twelve of it; nothing of a litre.
        let d = Dilution::of(1.5, 1.0, 400.0).unwrap();
        assert_eq!((d.yeast_g, d.water_g, d.take_g), (10.0, 70.0, 12.0));
        assert_eq!((d.holds_g, d.thrown_g), (1.5, 68.0));
        // 0.19 g on a scale of 0.1 g.
        let d = Dilution::of(0.19, 0.1, 400.0).unwrap();
        assert_eq!((d.yeast_g, d.water_g, d.take_g), (1.0, 7.0, 1.5));
        assert!((d.holds_g / 0.19 - 1.0).abs() < 0.02 && d.pays(900.0));
        // It pays for a larger dough only.
        let d = Dilution::of(1.5, 1.0, 400.0).unwrap();
        assert!(!d.pays(900.0) && d.pays(2000.0));
        assert_eq!(Dilution::of(1.5, 1.0, 5.0), None);
    }

    #[test]
    fn a_spoon_says_how_far_it_may_be_off() {
        let s = Spoon::of(1.5, YeastForm::Instant).unwrap();
        assert_eq!(s.words().code, "spoon-half");
        assert!((s.low_g - 1.1625).abs() < 1e-9 && (s.high_g - 1.9375).abs() < 1e-9);
        assert_eq!(Spoon::of(1.5, YeastForm::Fresh), None);
        assert_eq!(Spoon::of(0.1, YeastForm::Instant), None);
    }
}
