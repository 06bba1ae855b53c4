//! How figures are written: units of the kitchen, grams as scales read them, times, spans.

use craft::formula::{PanShape, Portion, two_digits};
use craft::refusal::plain;
use craft::units::{Celsius, Cm, Grams, LengthUnit, TemperatureUnit, WeightUnit};
use jiff::{SignedDuration, Timestamp, Zoned};

/// The units of a kitchen.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Measures {
    pub temperature: TemperatureUnit,
    pub weight: WeightUnit,
    pub length: LengthUnit,
}

impl Measures {
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
            text.trim_start_matches('-').into()
        } else {
            text
        }
    }
    pub fn degree_unit(&self) -> &'static str {
        match self.temperature {
            TemperatureUnit::Celsius => "°C",
            TemperatureUnit::Fahrenheit => "°F",
        }
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
        match self.weight {
            WeightUnit::Grams => grams(g),
            WeightUnit::Ounces if v < 1.0 => format!("{v:.3}"),
            WeightUnit::Ounces => thousands(&format!("{v:.2}")),
            WeightUnit::Kilograms if g < 40.0 => format!("{v:.4}"),
            WeightUnit::Kilograms | WeightUnit::Pounds => thousands(&format!("{v:.3}")),
        }
    }
    /// "250 g": with its unit.
    pub fn weighed(&self, g: f64) -> String {
        format!("{} {}", self.weight(g), self.weight_unit())
    }
    /// A dose of yeast: to two digits where it is small, as every page says it.
    pub fn dose(&self, g: f64) -> String {
        match self.weight {
            WeightUnit::Grams if g < 10.0 => plain(two_digits(g).parse().unwrap_or(g)),
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
        plain((Grams(g).reads(self.weight) * fine).round() / fine)
    }
    pub fn degrees_field(&self, c: f64) -> String {
        plain((Celsius(c).reads(self.temperature) * 10.0).round() / 10.0)
    }
    pub fn length_field(&self, cm: f64) -> String {
        plain((Cm(cm).reads(self.length) * 10.0).round() / 10.0)
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

/// "6 × 250 g", "2 pans 40 × 30 cm and 3 × 250 g".
pub fn portions(list: &[Portion], m: &Measures) -> String {
    list.iter()
        .map(|p| match p.pan {
            None => format!("{} × {}", p.count, m.weighed(p.piece_g)),
            Some(pan) => {
                let pans = if p.count == 1 { "pan" } else { "pans" };
                let (l, u) = (|cm| m.length_field(cm), m.length_unit());
                match pan {
                    PanShape::Rectangle {
                        length_cm,
                        width_cm,
                    } => format!("{} {pans} {} × {} {u}", p.count, l(length_cm), l(width_cm)),
                    PanShape::Round { diameter_cm } => {
                        format!("{} {pans} {} {u} round", p.count, l(diameter_cm))
                    }
                }
            }
        })
        .collect::<Vec<_>>()
        .join(" and ")
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

/// Baker's percent as a row shows it.
pub fn percent(v: f64) -> String {
    if v >= 1.0 || v == 0.0 {
        format!("{v:.1}")
    } else {
        craft::formula::two_digits(v)
    }
}

/// "19:00".
pub fn hm(t: &Zoned) -> String {
    t.strftime("%H:%M").to_string()
}

/// "Friday"; "Fri 4 Dec" where the weekday could be another.
pub fn day_named(t: &Zoned) -> String {
    let near = craft::when::weekday_is_enough(t, Timestamp::now());
    t.strftime(if near { "%A" } else { "%a %-d %b" })
        .to_string()
}

/// "Fri 19:00"; with the date where that weekday would be another.
pub fn day_hm(t: &Zoned) -> String {
    day_hm_at(t, Timestamp::now())
}

/// "Fri 19:00" beside an axis that has the dates.
pub fn weekday_hm(t: &Zoned) -> String {
    t.strftime("%a %H:%M").to_string()
}

fn day_hm_at(t: &Zoned, now: Timestamp) -> String {
    if craft::when::weekday_is_enough(t, now) {
        weekday_hm(t)
    } else {
        t.strftime("%a %-d %b %H:%M").to_string()
    }
}

/// A forecast span to the quarter hour: "Fri 18:15 to 20:45", with the second day where it is another; "from Fri 18:15"
/// where no end is foreseen.
pub fn from_to(from: &Zoned, to: Option<&Zoned>) -> String {
    let from = quarter(from);
    let to = match to.map(quarter) {
        None => return format!("from {}", day_hm(&from)),
        Some(t) if t.date() == from.date() => hm(&t),
        Some(t) => day_hm(&t),
    };
    format!("{} to {to}", day_hm(&from))
}

/// "Fri 27 Nov".
pub fn day(t: &Zoned) -> String {
    t.strftime("%a %-d %b").to_string()
}

/// A forecast moment to the quarter hour, as precise as the model is.
pub fn quarter(t: &Zoned) -> Zoned {
    craft::when::quarter(t.timestamp()).to_zoned(t.time_zone().clone())
}

/// A span in hours and minutes, each with its unit: days beyond two.
pub fn span(d: SignedDuration) -> Vec<(String, &'static str)> {
    let minutes = (d.as_secs().abs() + 30) / 60;
    let (h, m) = (minutes / 60, minutes % 60);
    if h >= 48 {
        vec![((h / 24).to_string(), "d"), ((h % 24).to_string(), "h")]
    } else {
        vec![(h.to_string(), "h"), (format!("{m:02}"), "m")]
    }
}

/// Whether something is due now, said to the minute.
pub fn is_now(d: SignedDuration) -> bool {
    d.as_secs().abs() < 30
}

/// "1 h 25", "25 min", "3 days".
pub fn span_words(d: SignedDuration) -> String {
    let minutes = (d.as_secs().abs() + 30) / 60;
    let (h, m) = (minutes / 60, minutes % 60);
    match (h, m) {
        (0, 1) => "1 minute".into(),
        (0, m) => format!("{m} minutes"),
        (h, _) if h >= 48 => format!("{} days", (h + 12) / 24),
        (1, 0) => "1 hour".into(),
        (h, 0) => format!("{h} hours"),
        (h, m) => format!("{h} h {m:02}"),
    }
}

/// Seconds as "1:18".
pub fn min_s(s: f64) -> String {
    craft::sheet::min_s(s.round().max(0.0) as u32)
}

/// Small numbers as words at the head of a sentence.
pub fn count_word(n: u32) -> String {
    const WORDS: [&str; 13] = [
        "No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten",
        "Eleven", "Twelve",
    ];
    WORDS
        .get(n as usize)
        .map_or_else(|| n.to_string(), |w| (*w).to_string())
}

#[cfg(test)]
mod tests {
    use super::*;

    const METRIC: Measures = Measures {
        temperature: TemperatureUnit::Celsius,
        weight: WeightUnit::Grams,
        length: LengthUnit::Centimetres,
    };

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
            assert_eq!(METRIC.weight(g), text);
        }
        let imperial = Measures {
            temperature: TemperatureUnit::Fahrenheit,
            weight: WeightUnit::Ounces,
            length: LengthUnit::Inches,
        };
        assert_eq!(imperial.weight(250.0), "8.82");
        assert_eq!(imperial.length_field(30.48), "12");
        assert_eq!(imperial.degrees(23.0, 1), "73.4");
        assert_eq!(METRIC.degrees(-0.04, 1), "0.0");
    }

    #[test]
    fn a_weekday_that_could_be_another_has_its_date() {
        let at = |text: &str| -> Zoned { text.parse().unwrap() };
        let now = at("2026-11-26T12:00[Europe/London]").timestamp();
        let says = |text: &str| day_hm_at(&at(text), now);
        assert_eq!(says("2026-11-27T19:00[Europe/London]"), "Fri 19:00");
        assert_eq!(says("2026-12-03T12:35[Europe/London]"), "Thu 3 Dec 12:35");
        assert_eq!(says("2026-11-19T12:35[Europe/London]"), "Thu 19 Nov 12:35");
    }

    #[test]
    fn a_headline_names_a_day_that_the_weekday_alone_would_not() {
        let today = Timestamp::now().to_zoned(jiff::tz::TimeZone::UTC);
        let in_days = |d: i64| today.checked_add(jiff::Span::new().days(d)).unwrap();
        assert_eq!(
            day_named(&in_days(2)),
            in_days(2).strftime("%A").to_string()
        );
        let week = in_days(7);
        assert_eq!(day_named(&week), week.strftime("%a %-d %b").to_string());
        assert!(is_now(SignedDuration::from_secs(-29)) && !is_now(SignedDuration::from_secs(30)));
    }

    #[test]
    fn spans_in_words() {
        let d = SignedDuration::from_mins;
        assert_eq!(span_words(d(1)), "1 minute");
        assert_eq!(span_words(d(19)), "19 minutes");
        assert_eq!(span_words(d(85)), "1 h 25");
        assert_eq!(span_words(d(120)), "2 hours");
        assert_eq!(span_words(d(-60 * 71)), "3 days");
        assert_eq!(
            span(d(19)),
            [("0".to_string(), "h"), ("19".to_string(), "m")]
        );
    }
}
