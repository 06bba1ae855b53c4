//! Units: conversion happens here and nowhere else.
//!
//! Everything is computed and stored in grams and degrees Celsius; a kitchen may read and write
//! ounces and degrees Fahrenheit. Conversions are exact inverses up to rounding of the last bit.
use serde::{Deserialize, Serialize};

/// Grams in an avoirdupois ounce, by definition.
pub const GRAMS_PER_OUNCE: f64 = 28.349523125;

/// Dough without gas, g in a cm³ or kg in a litre (textbook).
pub const DOUGH_G_PER_CM3: f64 = 1.10;

/// A weight in grams.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Grams(pub f64);

/// A temperature in degrees Celsius.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Celsius(pub f64);

/// The unit in which a kitchen reads temperatures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum TemperatureUnit {
    /// °C.
    Celsius,
    /// °F.
    Fahrenheit,
}

/// The unit in which a kitchen reads weights.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum WeightUnit {
    /// g.
    Grams,
    /// oz.
    Ounces,
    /// kg.
    Kilograms,
    /// lb.
    Pounds,
}

/// The unit in which a kitchen reads lengths.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum LengthUnit {
    /// cm.
    Centimetres,
    /// in.
    Inches,
}

/// Centimetres in an inch, by definition.
pub const CM_PER_INCH: f64 = 2.54;

/// A length in centimetres.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Cm(pub f64);

impl Cm {
    /// The number on a rule of that unit.
    pub fn reads(self, unit: LengthUnit) -> f64 {
        match unit {
            LengthUnit::Centimetres => self.0,
            LengthUnit::Inches => self.0 / CM_PER_INCH,
        }
    }
    /// The length behind a number read in that unit.
    pub fn from_reading(value: f64, unit: LengthUnit) -> Self {
        match unit {
            LengthUnit::Centimetres => Cm(value),
            LengthUnit::Inches => Cm(value * CM_PER_INCH),
        }
    }
}

impl WeightUnit {
    /// Grams in one.
    pub fn grams(self) -> f64 {
        match self {
            WeightUnit::Grams => 1.0,
            WeightUnit::Ounces => GRAMS_PER_OUNCE,
            WeightUnit::Kilograms => 1000.0,
            WeightUnit::Pounds => 16.0 * GRAMS_PER_OUNCE,
        }
    }
}

/// What a number measures, in the unit that is meant where none is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Meant {
    /// A number of its own.
    Bare,
    /// A share, %.
    Percent,
    /// A span, h.
    Hours,
    /// A weight; bare numbers are of this unit.
    Weight(WeightUnit),
    /// A temperature; bare numbers are of this unit.
    Temperature(TemperatureUnit),
    /// A length; bare numbers are of this unit.
    Length(LengthUnit),
}

impl Meant {
    /// A number and what stands behind it, in %, h, g, °C or cm; `None` for a unit that measures something else.
    ///
    /// ```
    /// use craft::units::{Meant, TemperatureUnit, WeightUnit};
    ///
    /// assert_eq!(Meant::Weight(WeightUnit::Grams).value(25.0, "kg"), Some(25_000.0));
    /// assert_eq!(Meant::Temperature(TemperatureUnit::Celsius).value(212.0, "°F"), Some(100.0));
    /// assert_eq!(Meant::Hours.value(90.0, "min"), Some(1.5));
    /// assert_eq!(Meant::Hours.value(90.0, "kg"), None);
    /// ```
    pub fn value(self, number: f64, said: &str) -> Option<f64> {
        let said = said.trim().to_lowercase();
        let said = said.trim_end_matches('.');
        match self {
            Meant::Bare => said.is_empty().then_some(number),
            Meant::Percent => matches!(said, "" | "%").then_some(number),
            Meant::Hours => match said {
                "" | "h" | "hr" | "hrs" | "hour" | "hours" => Some(number),
                "min" | "mins" | "minute" | "minutes" => Some(number / 60.0),
                "d" | "day" | "days" => Some(number * 24.0),
                _ => None,
            },
            Meant::Weight(usual) => {
                let unit = match said {
                    "" => usual,
                    "g" | "gr" | "gram" | "grams" => WeightUnit::Grams,
                    "kg" | "kilo" | "kilos" => WeightUnit::Kilograms,
                    "oz" | "ounce" | "ounces" => WeightUnit::Ounces,
                    "lb" | "lbs" | "pound" | "pounds" => WeightUnit::Pounds,
                    _ => return None,
                };
                Some(Grams::from_reading(number, unit).0)
            }
            Meant::Temperature(usual) => {
                let unit = match said.trim_start_matches('°').trim() {
                    "" => usual,
                    "c" | "celsius" => TemperatureUnit::Celsius,
                    "f" | "fahrenheit" => TemperatureUnit::Fahrenheit,
                    _ => return None,
                };
                Some(Celsius::from_reading(number, unit).0)
            }
            Meant::Length(usual) => match said {
                "" => Some(Cm::from_reading(number, usual).0),
                "cm" => Some(number),
                "mm" => Some(number / 10.0),
                "in" | "inch" | "inches" | "\"" | "″" => {
                    Some(Cm::from_reading(number, LengthUnit::Inches).0)
                }
                _ => None,
            },
        }
    }
}

impl Celsius {
    /// The number on a thermometer of that unit.
    pub fn reads(self, unit: TemperatureUnit) -> f64 {
        match unit {
            TemperatureUnit::Celsius => self.0,
            TemperatureUnit::Fahrenheit => self.0 * 1.8 + 32.0,
        }
    }
    /// The temperature behind a number read in that unit.
    pub fn from_reading(value: f64, unit: TemperatureUnit) -> Self {
        match unit {
            TemperatureUnit::Celsius => Celsius(value),
            TemperatureUnit::Fahrenheit => Celsius((value - 32.0) / 1.8),
        }
    }
}

impl Grams {
    /// The number on a scale of that unit.
    pub fn reads(self, unit: WeightUnit) -> f64 {
        self.0 / unit.grams()
    }
    /// The weight behind a number read in that unit.
    pub fn from_reading(value: f64, unit: WeightUnit) -> Self {
        Grams(value * unit.grams())
    }
    /// The nearest weight that a scale of this resolution (g) can show.
    pub fn on_scale(self, resolution_g: f64) -> Grams {
        // Counting whole divisions and dividing by the inverse keeps 0.1 g steps exact decimals.
        let per_gram = (1.0 / resolution_g).round();
        if per_gram >= 1.0 && (per_gram * resolution_g - 1.0).abs() < 1e-9 {
            Grams((self.0 * per_gram).round() / per_gram)
        } else {
            Grams((self.0 / resolution_g).round() * resolution_g)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn known_points() {
        assert_eq!(Celsius(0.0).reads(TemperatureUnit::Fahrenheit), 32.0);
        assert_eq!(
            Celsius::from_reading(212.0, TemperatureUnit::Fahrenheit).0,
            100.0
        );
        assert_eq!(Grams(0.44).on_scale(0.1).0, 0.4);
        assert_eq!(Grams(941.4).on_scale(1.0).0, 941.0);
        assert_eq!(Grams(7.0).on_scale(5.0).0, 5.0);
    }

    proptest! {
        #[test]
        fn reading_back_is_the_same_value(v in -200.0..1000.0f64) {
            let c = Celsius(v).reads(TemperatureUnit::Fahrenheit);
            prop_assert!((Celsius::from_reading(c, TemperatureUnit::Fahrenheit).0 - v).abs() < 1e-9);
            for unit in [WeightUnit::Ounces, WeightUnit::Pounds, WeightUnit::Kilograms] {
                let g = Grams(v).reads(unit);
                prop_assert!((Grams::from_reading(g, unit).0 - v).abs() < 1e-9);
            }
            let l = Cm(v).reads(LengthUnit::Inches);
            prop_assert!((Cm::from_reading(l, LengthUnit::Inches).0 - v).abs() < 1e-9);
        }
    }
}
