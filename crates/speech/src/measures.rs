//! How a kitchen reads weights, temperatures and lengths.

use crate::phrase::fixed;
use crate::texts::Language;
use craft::number::plain;
use craft::number::two_digits;
use craft::units::{
    CM_PER_INCH, Celsius, Cm, GRAMS_PER_OUNCE, Grams, LengthUnit, TemperatureUnit, WeightUnit,
};

/// The units of a kitchen, and how its numbers are written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Measures {
    pub temperature: TemperatureUnit,
    pub weight: WeightUnit,
    pub length: LengthUnit,
    /// How numbers are written.
    pub language: Language,
}

impl Measures {
    /// Grams, °C and cm.
    pub const METRIC: Measures = Measures {
        temperature: TemperatureUnit::Celsius,
        weight: WeightUnit::Grams,
        length: LengthUnit::Centimetres,
        language: Language::English,
    };
    /// Ounces, °F and inches.
    pub const US: Measures = Measures {
        temperature: TemperatureUnit::Fahrenheit,
        weight: WeightUnit::Ounces,
        length: LengthUnit::Inches,
        language: Language::English,
    };

    /// A weight as it is said in a sentence: as many digits as it has in grams; in other units, as their scales read.
    pub fn weight_said(&self, g: f64) -> String {
        let v = Grams(g).reads(self.weight);
        let digits = match self.weight {
            WeightUnit::Grams => return self.number(thousands(&plain(g))),
            WeightUnit::Ounces if v >= 1.0 => 100.0,
            _ => 1000.0,
        };
        self.number(thousands(&plain((v * digits).round() / digits)))
    }
    fn number(&self, written: String) -> String {
        self.language.number(written)
    }

    /// "23.4" in the kitchen's unit.
    pub fn degrees(&self, c: f64, decimals: usize) -> String {
        let v = Celsius(c).reads(self.temperature);
        let text = format!("{v:.decimals$}");
        // −0 would be an odd reading of a fridge.
        if text
            .trim_start_matches('-')
            .chars()
            .all(|c| c == '0' || c == '.')
        {
            self.number(text.trim_start_matches('-').into())
        } else {
            self.number(text)
        }
    }
    pub fn degree_unit(&self) -> &'static str {
        match self.temperature {
            TemperatureUnit::Celsius => "°C",
            TemperatureUnit::Fahrenheit => "°F",
        }
    }
    /// Round readings of the thermometer from `low_c` to `high_c`, every `step_k` or its double in °F, as °C.
    pub fn degree_ticks(&self, low_c: f64, high_c: f64, step_k: f64) -> Vec<f64> {
        let step = match self.temperature {
            TemperatureUnit::Celsius => step_k,
            TemperatureUnit::Fahrenheit => 2.0 * step_k,
        };
        let [low, high] = [low_c, high_c].map(|c| Celsius(c).reads(self.temperature) / step);
        ((low - 1e-9).ceil() as i64..=(high + 1e-9).floor() as i64)
            .map(|n| Celsius::from_reading(n as f64 * step, self.temperature).0)
            .collect()
    }
    pub fn weight_unit(&self) -> &'static str {
        match self.weight {
            WeightUnit::Grams => "g",
            WeightUnit::Ounces => "oz",
            WeightUnit::Kilograms => "kg",
            WeightUnit::Pounds => "lb",
        }
    }
    pub fn length_unit(&self) -> &'static str {
        match self.length {
            LengthUnit::Centimetres => "cm",
            LengthUnit::Inches => "in",
        }
    }
    /// A weight as the scale shows it: 1 g from 40 up, 0.1 below, 0.01 under 1; a kilo to the gram; ounces to two
    /// digits, three below one; pounds to three.
    pub fn weight(&self, g: f64) -> String {
        let v = Grams(g).reads(self.weight);
        self.number(match self.weight {
            WeightUnit::Grams => grams(g),
            WeightUnit::Ounces if v < 1.0 => format!("{v:.3}"),
            WeightUnit::Ounces => thousands(&format!("{v:.2}")),
            WeightUnit::Kilograms if g < 40.0 => format!("{v:.4}"),
            WeightUnit::Kilograms | WeightUnit::Pounds => thousands(&format!("{v:.3}")),
        })
    }
    /// "250 g": with its unit.
    pub fn weighed(&self, g: f64) -> String {
        format!("{} {}", self.weight(g), self.weight_unit())
    }
    /// A dose of yeast: to two digits where it is small, as every page says it.
    pub fn dose(&self, g: f64) -> String {
        match self.weight {
            WeightUnit::Grams if g < 10.0 => self.number(plain(two_digits(g).parse().unwrap_or(g))),
            _ => self.weight(g),
        }
    }
    /// "1.5 g": with its unit.
    pub fn dosed(&self, g: f64) -> String {
        format!("{} {}", self.dose(g), self.weight_unit())
    }
    /// For a field: plain digits.
    pub fn weight_field(&self, g: f64) -> String {
        let fine = match self.weight {
            WeightUnit::Grams => 100.0,
            WeightUnit::Ounces => 100.0,
            WeightUnit::Kilograms | WeightUnit::Pounds => 1000.0,
        };
        self.number(plain((Grams(g).reads(self.weight) * fine).round() / fine))
    }
    pub fn degrees_field(&self, c: f64) -> String {
        self.number(plain(
            (Celsius(c).reads(self.temperature) * 10.0).round() / 10.0,
        ))
    }
    pub fn length_field(&self, cm: f64) -> String {
        self.number(plain((Cm(cm).reads(self.length) * 10.0).round() / 10.0))
    }
}

fn grams(g: f64) -> String {
    if g >= 40.0 {
        thousands(&format!("{g:.0}"))
    } else if g >= 1.0 {
        format!("{g:.1}")
    } else {
        format!("{g:.2}")
    }
}

/// What a number measures, where its units are multiples of one another.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Quantity {
    /// A thickness, mm.
    Mm,
    Cm,
    Metres,
    SquareMetres,
    /// A difference of temperatures, K.
    Kelvin,
    Grams,
    Kilos,
    KgPerHour,
    GramsPerCm2,
    GramsPerLitre,
    Litres,
    /// Money for a kilo.
    PerKg,
}

/// Litres in a US quart, by definition.
const LITRES_PER_QUART: f64 = 0.946352946;

impl Measures {
    /// What a number of that quantity is multiplied by to be read here, and its unit.
    pub fn scale(&self, q: Quantity) -> (f64, &'static str) {
        let inches = self.length == LengthUnit::Inches;
        let pounds = matches!(self.weight, WeightUnit::Ounces | WeightUnit::Pounds);
        let per_pound = 1000.0 / GRAMS_PER_OUNCE / 16.0;
        let pick = |other: bool, theirs, ours| if other { theirs } else { ours };
        match q {
            Quantity::Mm => pick(inches, (0.1 / CM_PER_INCH, "in"), (1.0, "mm")),
            Quantity::Cm => pick(inches, (1.0 / CM_PER_INCH, "in"), (1.0, "cm")),
            Quantity::Metres => pick(inches, (100.0 / CM_PER_INCH / 12.0, "ft"), (1.0, "m")),
            Quantity::SquareMetres => {
                let ft = 100.0 / CM_PER_INCH / 12.0;
                pick(inches, (ft * ft, "sq ft"), (1.0, "m²"))
            }
            Quantity::Kelvin => match self.temperature {
                TemperatureUnit::Celsius => (1.0, "°C"),
                TemperatureUnit::Fahrenheit => (1.8, "°F"),
            },
            Quantity::Grams => (Grams(1.0).reads(self.weight), self.weight_unit()),
            Quantity::Kilos => pick(pounds, (per_pound, "lb"), (1.0, "kg")),
            Quantity::KgPerHour => pick(pounds, (per_pound, "lb/h"), (1.0, "kg/h")),
            Quantity::GramsPerCm2 => {
                let per_inch = CM_PER_INCH * CM_PER_INCH / GRAMS_PER_OUNCE;
                pick(inches, (per_inch, "oz/in²"), (1.0, "g/cm²"))
            }
            Quantity::GramsPerLitre => {
                let per_quart = LITRES_PER_QUART / GRAMS_PER_OUNCE;
                pick(pounds, (per_quart, "oz/qt"), (1.0, "g/l"))
            }
            Quantity::Litres => pick(pounds, (1.0 / LITRES_PER_QUART, "qt"), (1.0, "l")),
            Quantity::PerKg => match pounds {
                true => (1.0 / per_pound, fixed(self.language, "names-per-lb")),
                false => (1.0, fixed(self.language, "names-per-kg")),
            },
        }
    }
    /// A number of that quantity for a field: as many digits as say it.
    pub fn scaled_field(&self, v: f64, q: Quantity) -> String {
        let (by, _) = self.scale(q);
        if by == 1.0 {
            return self.number(plain(v));
        }
        let v = v * by;
        let digits = if v.abs() >= 10.0 { 10.0 } else { 1000.0 };
        self.number(plain((v * digits).round() / digits))
    }
}

/// "1588" as "1,588".
pub fn thousands(digits: &str) -> String {
    let (whole, rest) = digits.split_at(digits.find('.').unwrap_or(digits.len()));
    let mut out = String::new();
    for (i, c) in whole.chars().enumerate() {
        if i > 0 && (whole.len() - i).is_multiple_of(3) && !out.ends_with('-') {
            out.push(',');
        }
        out.push(c);
    }
    out + rest
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn weights_as_scales_read_them() {
        for (g, text) in [
            (1588.0, "1,588"),
            (941.0, "941"),
            (26.4, "26.4"),
            (0.45, "0.45"),
            (40.0, "40"),
            (12345678.0, "12,345,678"),
        ] {
            assert_eq!(Measures::METRIC.weight(g), text);
        }
        let imperial = Measures::US;
        assert_eq!(imperial.weight(250.0), "8.82");
        assert_eq!(imperial.length_field(30.48), "12");
        assert_eq!(imperial.degrees(23.0, 1), "73.4");
        assert_eq!(Measures::METRIC.degrees(-0.04, 1), "0.0");
    }

    #[test]
    fn an_axis_has_round_readings_of_the_readers_thermometer() {
        let read = |m: Measures, low, high, step| -> Vec<String> {
            let ticks = m.degree_ticks(low, high, step);
            ticks.into_iter().map(|c| m.degrees(c, 0)).collect()
        };
        assert_eq!(
            read(Measures::METRIC, 0.0, 350.0, 100.0),
            ["0", "100", "200", "300"]
        );
        assert_eq!(read(Measures::US, 0.0, 350.0, 100.0), ["200", "400", "600"]);
        assert_eq!(read(Measures::US, -20.0, 25.0, 10.0)[0], "0");
    }
}
