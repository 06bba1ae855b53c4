//! Leaven: the forms of commercial yeast and what they are worth against each other.

use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// The form in which yeast is bought.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum YeastForm {
    Fresh,
    ActiveDry,
    Instant,
}

impl YeastForm {
    pub const ALL: [YeastForm; 3] = [YeastForm::Instant, YeastForm::ActiveDry, YeastForm::Fresh];

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
    /// The key used in JSON and in forms.
    pub fn key(self) -> &'static str {
        match self {
            YeastForm::Fresh => "fresh",
            YeastForm::ActiveDry => "active_dry",
            YeastForm::Instant => "instant",
        }
    }
    pub fn from_key(key: &str) -> Option<YeastForm> {
        YeastForm::ALL.into_iter().find(|f| f.key() == key)
    }
    /// How a maker says it on a sheet.
    pub fn name(self) -> &'static str {
        match self {
            YeastForm::Fresh => "Fresh yeast",
            YeastForm::ActiveDry => "Active dry yeast",
            YeastForm::Instant => "Instant yeast",
        }
    }
    /// How it goes into the bowl.
    pub fn handling(self) -> &'static str {
        match self {
            YeastForm::Fresh => "crumble it into the water",
            YeastForm::ActiveDry => "wet it in a little water of 35 to 40 °C first",
            YeastForm::Instant => "it may go in dry with the flour",
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn forms_are_worth_what_the_trade_says() {
        // 3 g fresh, 1.35 g active dry and 1 g instant do the same work.
        assert!((1.35 * YeastForm::ActiveDry.fresh_equivalent() - 3.0).abs() < 1e-9);
        assert_eq!(1.0 * YeastForm::Instant.fresh_equivalent(), 3.0);
        for f in YeastForm::ALL {
            assert_eq!(YeastForm::from_key(f.key()), Some(f));
        }
        assert_eq!(YeastForm::from_key("sourdough"), None);
    }
}
