//! Ingredients besides flour, water, salt, oil, sugar and yeast: what each brings of water, sugar and fat.

use crate::fact;
use crate::fact::{Fact, Value};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What it is; water, sugar and fat in it follow.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum ExtraKind {
    /// Diastatic malt flour.
    ActiveMalt,
    /// Malt without enzymes, powder.
    PlainMalt,
    /// Honey.
    Honey,
    /// Malt extract or another syrup.
    Syrup,
    /// Butter.
    Butter,
    /// Lard or another fat without water.
    Fat,
    /// Whole milk.
    Milk,
    /// Milk powder.
    MilkPowder,
    /// Seeds and grains.
    Seeds,
    /// Dried mother powder; its amount is grams per litre of water.
    DriedMother,
    /// Anything else; it weighs, and counts as nothing more.
    Other,
}

/// Shares of the weight: water, sugar that yeast can use, fat (food tables, rounded).
struct Holds {
    water: f64,
    sugar: f64,
    fat: f64,
}

impl ExtraKind {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            ExtraKind::Honey => fact!("honey"),
            ExtraKind::Syrup => fact!("syrup"),
            ExtraKind::ActiveMalt => fact!("malt-active"),
            ExtraKind::PlainMalt => fact!("malt-plain"),
            ExtraKind::MilkPowder => fact!("milk-powder"),
            ExtraKind::Milk => fact!("milk"),
            ExtraKind::Butter => fact!("butter"),
            ExtraKind::Fat => fact!("fat"),
            ExtraKind::Seeds => fact!("seeds"),
            ExtraKind::DriedMother => fact!("dried-mother"),
            ExtraKind::Other => fact!("other-ingredient"),
        }
    }
    fn holds(self) -> Holds {
        let (water, sugar, fat) = match self {
            ExtraKind::Honey => (0.175, 0.80, 0.0),
            ExtraKind::Syrup => (0.23, 0.75, 0.0),
            ExtraKind::ActiveMalt => (0.0, 0.10, 0.0),
            ExtraKind::PlainMalt => (0.0, 0.60, 0.0),
            ExtraKind::Milk => (0.875, 0.0, 0.035),
            ExtraKind::Butter => (0.16, 0.0, 0.82),
            ExtraKind::Fat => (0.0, 0.0, 1.0),
            ExtraKind::MilkPowder
            | ExtraKind::Seeds
            | ExtraKind::DriedMother
            | ExtraKind::Other => (0.0, 0.0, 0.0),
        };
        Holds { water, sugar, fat }
    }
    /// Water in it, 0 to 1.
    pub fn water_share(self) -> f64 {
        self.holds().water
    }
    /// What of it some people cannot bear, as a label names it.
    pub fn allergen(self) -> Option<Fact> {
        match self {
            ExtraKind::Milk | ExtraKind::MilkPowder | ExtraKind::Butter => {
                Some(fact!("allergen-milk"))
            }
            ExtraKind::Seeds => Some(fact!("allergen-seeds")),
            ExtraKind::ActiveMalt | ExtraKind::PlainMalt | ExtraKind::DriedMother => {
                Some(fact!("allergen-gluten"))
            }
            _ => None,
        }
    }
    /// Sugar in it, 0 to 1.
    pub fn sugar_share(self) -> f64 {
        self.holds().sugar
    }
    /// Fat in it, 0 to 1.
    pub fn fat_share(self) -> f64 {
        self.holds().fat
    }
    /// Unit of the amount as it is stated.
    pub fn unit(self) -> &'static str {
        match self {
            ExtraKind::DriedMother => "g/l",
            _ => "%",
        }
    }
    /// The amount as a value of a fact.
    pub fn measure(self) -> fn(f64) -> Value {
        match self {
            ExtraKind::DriedMother => Value::GramsPerLitre,
            _ => Value::Percent,
        }
    }
    /// The most that is accepted, in that unit.
    pub fn most(self) -> f64 {
        match self {
            ExtraKind::DriedMother => 300.0,
            ExtraKind::Milk => 100.0,
            ExtraKind::ActiveMalt => 5.0,
            _ => 40.0,
        }
    }
}

/// One such ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Extra {
    /// What it is.
    pub kind: ExtraKind,
    /// What the maker calls it; the kind's name when empty.
    #[serde(default)]
    pub name: String,
    /// % of the flour; dried mother: g per litre of the water.
    pub amount: f64,
}

impl Extra {
    /// Its name, or the word for its kind.
    pub fn called(&self) -> Fact {
        if self.name.trim().is_empty() {
            self.kind.name()
        } else {
            Fact::as_written(self.name.trim())
        }
    }
    /// % of the flour, with so much poured water.
    pub fn percent(&self, water_percent: f64) -> f64 {
        match self.kind {
            // 1 litre is 1000 g.
            ExtraKind::DriedMother => self.amount * water_percent / 1000.0,
            _ => self.amount,
        }
    }
}
