//! How a dough is worked, and how that warms it.

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Friction is capped here, K (assumed).
pub(super) const MOST_FRICTION_K: f64 = 12.0;

/// How the dough is worked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Mixer {
    /// By hand.
    Hand,
    /// A hook that goes round in a standing bowl.
    Planetary,
    /// A spiral in a turning bowl.
    Spiral,
    /// A fork in a turning bowl.
    Fork,
    /// A blade.
    FoodProcessor,
}

impl Mixer {
    /// Heating by friction, K per minute; by hand it is 1 K in all (assumed).
    pub(super) fn kelvin_per_min(self) -> f64 {
        match self {
            Mixer::Hand => 0.0,
            Mixer::Planetary => 0.6,
            Mixer::Spiral => 0.7,
            Mixer::Fork => 0.4,
            Mixer::FoodProcessor => 5.0,
        }
    }
    /// Heating of the dough by so many minutes of work, K.
    pub fn friction_k(self, minutes: f64) -> f64 {
        match self {
            Mixer::Hand => 1.0,
            _ => (self.kelvin_per_min() * minutes).min(MOST_FRICTION_K),
        }
    }
    /// Usual minutes of work.
    pub fn usual_min(self) -> f64 {
        match self {
            Mixer::Hand => 12.0,
            Mixer::Planetary | Mixer::Spiral => 10.0,
            Mixer::Fork => 14.0,
            Mixer::FoodProcessor => 1.2,
        }
    }
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Mixer::Hand => fact!("mixer-hand"),
            Mixer::Planetary => fact!("mixer-stand"),
            Mixer::Spiral => fact!("mixer-spiral"),
            Mixer::Fork => fact!("mixer-fork"),
            Mixer::FoodProcessor => fact!("mixer-processor"),
        }
    }
}
