//! What each kind of machine does to a dough. Medium is the figure of the plain balance; slow, fast and the effect of the
//! fill are assumed, the steel follows from its specific heat (textbook, 0.46 J/gK).

use super::Speed;
use crate::mix::Mixer;
use serde::{Deserialize, Serialize};

/// How much more a small batch warms, of the kind's own figure (assumed).
pub const DEFAULT_FILL_EFFECT: f64 = 0.30;
/// The fill at which a mixer's figures are said.
pub(super) const USUAL_FILL: f64 = 0.6;
/// The slackness at which they are said, %.
const USUAL_SLACKNESS: f64 = 62.0;

/// What working adds to a dough: of one mixer at three speeds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FrictionFigures {
    /// What every mix is warmer from its start on, K: heat of wetting, a flour measured wrong.
    pub offset_k: f64,
    /// Slow, K a minute, 60 % full and at 62 % water.
    pub slow: f64,
    /// Medium, K a minute.
    pub medium: f64,
    /// Fast, K a minute.
    pub fast: f64,
    /// How much more a small batch warms.
    pub fill_effect: f64,
}

impl FrictionFigures {
    /// None at all: the bowl and the room alone.
    pub const NONE: FrictionFigures = FrictionFigures {
        offset_k: 0.0,
        slow: 0.0,
        medium: 0.0,
        fast: 0.0,
        fill_effect: 0.0,
    };

    /// The figures of a kind of machine.
    pub fn of(kind: Mixer) -> FrictionFigures {
        let (slow, medium, fast) = match kind {
            Mixer::Hand => (0.0, 0.0, 0.0),
            Mixer::Planetary => (0.25, kind.kelvin_per_min(), 1.0),
            Mixer::Spiral => (0.30, kind.kelvin_per_min(), 1.10),
            Mixer::Fork => (0.25, kind.kelvin_per_min(), 0.55),
            Mixer::FoodProcessor => (3.0, kind.kelvin_per_min(), 6.5),
        };
        FrictionFigures {
            offset_k: 0.0,
            slow,
            medium,
            fast,
            fill_effect: DEFAULT_FILL_EFFECT,
        }
    }
    /// K a minute at a speed; none at rest and by hand.
    pub fn at(&self, speed: Speed) -> f64 {
        match speed {
            Speed::Slow => self.slow,
            Speed::Medium => self.medium,
            Speed::Fast => self.fast,
            Speed::Off | Speed::Hand | Speed::Fold => 0.0,
        }
    }
}

/// Heat that a bowl and its hook take, kJ/K for each kg that the mixer holds.
pub(super) fn bowl_capacity(kind: Mixer) -> f64 {
    match kind {
        Mixer::Hand => 0.15,
        Mixer::Planetary => 0.20,
        Mixer::Spiral | Mixer::Fork => 0.25,
        Mixer::FoodProcessor => 0.50,
    }
}

/// How much more power a stiff dough takes.
pub(super) fn stiffness(slackness_percent: f64) -> f64 {
    (-0.012 * (slackness_percent - USUAL_SLACKNESS))
        .exp()
        .clamp(0.6, 1.4)
}

/// How full a mixer is, within what the model knows.
pub(super) fn fill(weight_g: f64, capacity_kg: f64) -> f64 {
    (weight_g / 1000.0 / capacity_kg).clamp(0.2, 1.1)
}

impl Mixer {
    /// What such a mixer usually holds, kg of dough at 60 % water.
    pub fn usual_capacity_kg(self) -> f64 {
        match self {
            Mixer::Hand => 3.0,
            Mixer::Planetary => 2.5,
            Mixer::Spiral => 15.0,
            Mixer::Fork => 30.0,
            Mixer::FoodProcessor => 1.0,
        }
    }
    /// The most dough of so much water that a mixer of this capacity bears, kg: stiff dough strains it (assumed).
    pub fn bears_kg(self, capacity_kg: f64, hydration_percent: f64) -> f64 {
        match self {
            Mixer::Hand => capacity_kg,
            _ => capacity_kg * (1.0 + 0.02 * (hydration_percent - 60.0)).clamp(0.6, 1.0),
        }
    }
}
