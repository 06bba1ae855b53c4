//! Leaven: the forms in which a dough is raised, and what they are worth against each other.
//!
//! Source: craft notes, section 2. Weights in g. A ripe starter is worth what the flour in it ferments, so any
//! hydration converts by its flour; a dried mother gives flavour and acid and is not counted as yeast.

use crate::fact;
use crate::fact::Fact;
use crate::units::Celsius;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// The form in which yeast is bought.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum YeastForm {
    /// Dried, stirred into the flour.
    Instant,
    /// Dried, woken in water.
    ActiveDry,
    /// A moist block.
    Fresh,
}

impl YeastForm {
    /// Grams of fresh yeast that one gram of this form equals (textbook: 1, 1/0.45, 3).
    pub fn fresh_equivalent(self) -> f64 {
        match self {
            YeastForm::Fresh => 1.0,
            YeastForm::ActiveDry => 1.0 / 0.45,
            YeastForm::Instant => 3.0,
        }
    }
    /// Lag before it works at full rate, h at 30 °C (calibrated).
    pub fn lag_h(self) -> f64 {
        match self {
            YeastForm::Fresh => 0.20,
            YeastForm::ActiveDry => 0.45,
            YeastForm::Instant => 0.35,
        }
    }
    /// The name under which a pantry's shelf is asked for it.
    pub fn shelf_name(self) -> &'static str {
        match self {
            YeastForm::Fresh => "Fresh yeast",
            YeastForm::ActiveDry => "Active dry yeast",
            YeastForm::Instant => "Instant yeast",
        }
    }
    /// How it goes into the bowl.
    pub fn handling(self) -> Fact {
        match self {
            YeastForm::Fresh => fact!("yeast-fresh-handling"),
            YeastForm::ActiveDry => fact!(
                "yeast-active-dry-handling",
                c = (Celsius(35.0), Celsius(40.0))
            ),
            YeastForm::Instant => fact!("yeast-instant-handling"),
        }
    }
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            YeastForm::Fresh => fact!("yeast-fresh"),
            YeastForm::ActiveDry => fact!("yeast-active-dry"),
            YeastForm::Instant => fact!("yeast-instant"),
        }
    }
}

/// What raises a dough, in any form.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "form", rename_all = "snake_case", deny_unknown_fields)]
pub enum Raising {
    /// By bought yeast.
    Yeast {
        /// In which form.
        yeast: YeastForm,
    },
    /// Ripe starter; water in % of its flour, 40 to 200.
    Starter {
        /// Water of the starter, % of its flour.
        hydration_percent: f64,
    },
}

/// How long the dough works: a starter counts for less beside long hours, because yeast multiplies meanwhile.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum LeavenWork {
    /// Baked on the day it is mixed.
    SameDay,
    /// Over a night or longer.
    Long,
}

impl LeavenWork {
    /// From this many hours in all a dough counts as long.
    pub fn of_hours(hours: f64) -> LeavenWork {
        if hours > 12.0 {
            LeavenWork::Long
        } else {
            LeavenWork::SameDay
        }
    }
    /// Grams of instant yeast that 100 g of ripe starter with equal flour and water stand for.
    fn instant_per_100_g(self) -> f64 {
        match self {
            LeavenWork::SameDay => 1.0,
            LeavenWork::Long => 0.5,
        }
    }
}

impl Raising {
    /// Grams of fresh yeast that one gram of this stands for.
    fn fresh_equivalent(self, work: LeavenWork) -> f64 {
        match self {
            Raising::Yeast { yeast } => yeast.fresh_equivalent(),
            Raising::Starter { hydration_percent } => {
                let flour_in_100 = 100.0 / (1.0 + hydration_percent / 100.0);
                let instant = work.instant_per_100_g() * flour_in_100 / 50.0;
                instant / 100.0 * YeastForm::Instant.fresh_equivalent()
            }
        }
    }
}

/// So many grams of one form in another; its own inverse.
pub fn convert(grams: f64, from: Raising, to: Raising, work: LeavenWork) -> f64 {
    grams * from.fresh_equivalent(work) / to.fresh_equivalent(work)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::keyed::Keyed;
    use proptest::prelude::*;

    #[test]
    fn a_starter_stands_for_yeast_by_its_flour() {
        let instant = Raising::Yeast {
            yeast: YeastForm::Instant,
        };
        let fresh = Raising::Yeast {
            yeast: YeastForm::Fresh,
        };
        let liquid = Raising::Starter {
            hydration_percent: 100.0,
        };
        let stiff = Raising::Starter {
            hydration_percent: 50.0,
        };
        assert!((convert(100.0, liquid, instant, LeavenWork::SameDay) - 1.0).abs() < 1e-12);
        assert!((convert(100.0, liquid, instant, LeavenWork::Long) - 0.5).abs() < 1e-12);
        assert!((convert(1.0, instant, fresh, LeavenWork::Long) - 3.0).abs() < 1e-12);
        // 75 g stiff holds 50 g flour, as 100 g liquid does.
        assert!((convert(75.0, stiff, liquid, LeavenWork::SameDay) - 100.0).abs() < 1e-9);
        assert_eq!(LeavenWork::of_hours(8.0), LeavenWork::SameDay);
        assert_eq!(LeavenWork::of_hours(30.0), LeavenWork::Long);
    }

    proptest! {
        #[test]
        fn a_conversion_there_and_back_is_the_same(g in 0.01..5000.0f64, h in 40.0..200.0f64, f in 0usize..3, long: bool) {
            let work = if long { LeavenWork::Long } else { LeavenWork::SameDay };
            let (a, b) = (Raising::Yeast { yeast: YeastForm::ALL[f] }, Raising::Starter { hydration_percent: h });
            let back = convert(convert(g, a, b, work), b, a, work);
            prop_assert!((back - g).abs() < 1e-9 * g);
        }
    }

    #[test]
    fn forms_are_worth_what_the_trade_says() {
        // 3 g fresh, 1.35 g active dry and 1 g instant do the same work.
        assert!((1.35 * YeastForm::ActiveDry.fresh_equivalent() - 3.0).abs() < 1e-9);
        assert_eq!(1.0 * YeastForm::Instant.fresh_equivalent(), 3.0);
        for &f in YeastForm::ALL {
            assert_eq!(YeastForm::from_key(f.key()), Some(f));
        }
        assert_eq!(YeastForm::from_key("sourdough"), None);
    }
}
