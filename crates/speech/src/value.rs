//! A value in words: its number in the reader's unit, its moment on the reader's clock.

use crate::dates;
use crate::measures::Quantity;
use crate::phrase::shipped;
use crate::reader::Reader;
use crate::said::Carried;
pub use crate::said::Said;
use craft::fact::Value;
use craft::number::plain;
use craft::units::TemperatureUnit;
use fluent_bundle::FluentValue;
use jiff::Timestamp;
use std::sync::Arc;

impl Reader<'_> {
    /// A value as Fluent takes it: counts stay numbers, so that a text may choose its plural.
    pub(crate) fn argument<'v>(&self, v: &'v Value) -> FluentValue<'v> {
        match v {
            Value::Count(n) => FluentValue::from(*n),
            Value::Nothing => FluentValue::from(""),
            Value::Text(t) => FluentValue::from(shipped(self.measures.language, t)),
            Value::Fact(f) => FluentValue::from(self.words(f)),
            other => FluentValue::Custom(Box::new(Carried(Arc::new(self.said(other))))),
        }
    }

    /// A value in words.
    pub fn said(&self, v: &Value) -> Said {
        match v {
            Value::Nothing => Said::default(),
            Value::Text(t) => Said::same(shipped(self.measures.language, t)),
            Value::Fact(f) => Said::same(self.words(f)),
            Value::Count(n) => Said::same(n.to_string()),
            Value::Number(v) => Said::same(self.number(plain(*v))),
            Value::Signed(v) => Said::same(self.number(format!("{v:+.1}"))),
            Value::Percent(v) => Said::with_unit(self.number(plain(*v)), "%"),
            Value::OnScale(g) => Said::with_unit(self.number(plain(*g)), "g"),
            Value::Grams(g) => {
                Said::with_unit(self.measures.weight_said(*g), self.measures.weight_unit())
            }
            Value::Kilos(v) => self.scaled(*v, Quantity::Kilos, 1),
            Value::GramsPerCm2(v) => self.scaled(*v, Quantity::GramsPerCm2, 3),
            Value::GramsPerLitre(v) => self.scaled(*v, Quantity::GramsPerLitre, 2),
            Value::Celsius(c) => self.degrees(*c, true),
            Value::Kelvin(k) => self.degrees(*k, false),
            Value::Cm(v) => self.scaled(*v, Quantity::Cm, 1),
            Value::Mm(v) => self.scaled(*v, Quantity::Mm, 2),
            Value::Litres(v) => self.scaled(*v, Quantity::Litres, 1),
            Value::Watts(v) => Said::with_unit(self.number(plain(*v)), "W"),
            Value::WattsPerM2(v) => Said::with_unit(self.number(plain(*v)), "W/m²"),
            Value::WattsPerM2K(v) => Said::with_unit(self.number(plain(*v)), "W/m²K"),
            Value::KgPerHour(v) => self.scaled(*v, Quantity::KgPerHour, 1),
            Value::Metres(v) => self.scaled(*v, Quantity::Metres, 0),
            Value::SquareMetres(v) => self.scaled(*v, Quantity::SquareMetres, 1),
            Value::Seconds(s) => Said::same(span(*s)),
            Value::Instant(t) => self.moment(*t),
            Value::List(list) => Said::same(self.list(list)),
            Value::Sentences(list) => {
                let said: Vec<String> = list.iter().map(|f| self.say(f)).collect();
                Said::same(said.join(" "))
            }
            Value::Range(a, b) => self.range(a, b),
        }
    }

    /// A number as the reader's language writes it.
    fn number(&self, written: String) -> String {
        self.measures.language.number(written)
    }

    /// So many digits at most, no trailing nought and no minus before nothing.
    fn rounded(&self, v: f64, digits: usize) -> String {
        let tens = 10f64.powi(digits as i32);
        self.number(plain((v * tens).round() / tens + 0.0))
    }

    /// As it is known in our unit; to so many digits where the reader has another.
    fn scaled(&self, v: f64, q: Quantity, digits: usize) -> Said {
        match self.measures.scale(q) {
            (1.0, unit) => Said::with_unit(self.number(plain(v)), unit),
            (by, unit) => Said::with_unit(self.rounded(v * by, digits), unit),
        }
    }

    /// A temperature, or a difference of them: to the tenth where it is known so.
    fn degrees(&self, c: f64, absolute: bool) -> Said {
        let number = match self.measures.temperature {
            TemperatureUnit::Celsius => self.number(plain(c)),
            TemperatureUnit::Fahrenheit => {
                let f = 1.8 * c + if absolute { 32.0 } else { 0.0 };
                let fine = c.fract().abs() > 1e-9 && f.abs() < 100.0;
                self.rounded(f, usize::from(fine))
            }
        };
        // Short, as beside an oven: to the degree.
        let short = match self.measures.temperature {
            TemperatureUnit::Celsius => c,
            TemperatureUnit::Fahrenheit => 1.8 * c + if absolute { 32.0 } else { 0.0 },
        };
        let unit = self.measures.degree_unit();
        Said::same([&number, " ", unit].concat())
            .in_short(self.rounded(short, 0) + "°")
            .in_exact([&self.rounded(short, 1), " ", unit].concat())
    }

    /// "Fri 19:00", with the date where another week has that weekday, too; short "19:00".
    fn moment(&self, t: Timestamp) -> Said {
        let at = t.to_zoned(self.zone.clone());
        let near = self
            .now
            .is_none_or(|now| craft::when::weekday_is_enough(&at, now));
        let form = if near { "%a %H:%M" } else { "%a %-d %b %H:%M" };
        Said::same(dates::written(self.measures.language, &at, form))
            .in_short(at.strftime("%H:%M").to_string())
    }

    /// "a, b and c".
    pub(crate) fn list(&self, list: &[Value]) -> String {
        let words: Vec<String> = list
            .iter()
            .map(|v| self.said(v).full)
            .filter(|w| !w.is_empty())
            .collect();
        match words.as_slice() {
            [] => String::new(),
            [one] => one.clone(),
            [first @ .., last] => {
                let and = self.text("and", &[]);
                format!("{} {and} {last}", first.join(", "))
            }
        }
    }

    /// "420 to 460 °C"; a span that begins and ends at one figure is that figure.
    fn range(&self, a: &Value, b: &Value) -> Said {
        let (from, to) = (self.said(a), self.said(b));
        if from == to {
            return to;
        }
        let word = self.text("to", &[]);
        // The unit stands once, behind the last.
        match (a, b) {
            (Value::Celsius(_) | Value::Kelvin(_), _) => {
                let bare = |s: &str| s.split(' ').next().unwrap_or_default().to_string();
                let short = from.short().trim_end_matches('°');
                Said::same(format!("{} {word} {}", bare(&from.full), to.full))
                    .in_short(format!("{short} {word} {}", to.short()))
                    .in_exact(format!("{} {word} {}", bare(from.exact()), to.exact()))
            }
            (Value::Seconds(x), Value::Seconds(y)) if *y < 180.0 => {
                Said::same(format!("{x:.0} {word} {y:.0} s"))
            }
            (Value::Seconds(x), Value::Seconds(y)) => {
                let from = shared_unit(*x, *y).unwrap_or(from.full);
                Said::same(format!("{from} {word} {}", to.full))
            }
            (Value::Instant(x), Value::Instant(y)) => {
                let day = |t: &Timestamp| t.to_zoned(self.zone.clone()).date();
                let until = if day(x) == day(y) {
                    to.short()
                } else {
                    &to.full
                };
                Said::same(format!("{} {word} {until}", from.full))
                    .in_short(format!("{} {word} {until}", from.short()))
            }
            _ => Said::same(format!("{} {word} {}", from.short(), to.full)).in_short(format!(
                "{} {word} {}",
                from.short(),
                to.short()
            )),
        }
    }
}

/// The first of two spans without its unit, where both have the same single one: "60 to 100 s", "4 to 6 min".
fn shared_unit(a: f64, b: f64) -> Option<String> {
    let (a, b) = (span(a), span(b));
    let (number, unit) = a.split_once(' ')?;
    let (_, other) = b.split_once(' ')?;
    (unit == other && !unit.contains(' ')).then(|| number.to_string())
}

/// A span as people say it: "76 s", "7 min 34 s", "45 min", "2 h 05", "24 h".
pub fn span(s: f64) -> String {
    let s = s.round().max(0.0) as u64;
    let (min, sec) = (s / 60, s % 60);
    match (min / 60, min % 60) {
        _ if s > 0 && s < 180 && s != 120 => format!("{s} s"),
        (0, min) if sec == 0 => format!("{min} min"),
        (0, min) => format!("{min} min {sec:02} s"),
        (h, 0) => format!("{h} h"),
        (h, min) => format!("{h} h {min:02}"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::Measures;
    use craft::fact::{GramsPerCm2, Hours, Kelvin, Minutes, Seconds};
    use craft::units::{Celsius, Cm, Grams};
    use jiff::tz::TimeZone;

    fn said(measures: Measures, v: impl Into<Value>) -> String {
        let zone = TimeZone::UTC;
        let reader = Reader::plain(measures, &zone);
        reader.said(&v.into()).full
    }

    #[test]
    fn values_in_two_kitchens() {
        for (v, metric, imperial) in [
            (Value::from(Celsius(23.0)), "23 °C", "73 °F"),
            (Value::from(Celsius(4.5)), "4.5 °C", "40.1 °F"),
            (Value::from(Celsius(-18.0)), "-18 °C", "0 °F"),
            (Value::from(Kelvin(10.0)), "10 °C", "18 °F"),
            (
                Value::from((Celsius(420.0), Celsius(460.0))),
                "420 to 460 °C",
                "788 to 860 °F",
            ),
            (Value::from(Grams(250.0)), "250 g", "8.82 oz"),
            (Value::from(Grams(0.0)), "0 g", "0 oz"),
            (Value::from(Cm(30.0)), "30 cm", "11.8 in"),
            (Value::from(GramsPerCm2(0.4)), "0.4 g/cm²", "0.091 oz/in²"),
            (Value::OnScale(1.5), "1.5 g", "1.5 g"),
        ] {
            assert_eq!(said(Measures::METRIC, v.clone()), metric);
            assert_eq!(said(Measures::US, v), imperial);
        }
    }

    #[test]
    fn spans_as_people_say_them() {
        for (v, words) in [
            (Value::from(Seconds(50.0)), "50 s"),
            (Value::from(Seconds(120.0)), "2 min"),
            (Value::from(Seconds(0.0)), "0 min"),
            (Value::from(Seconds(454.0)), "7 min 34 s"),
            (Value::from(Minutes(45.0)), "45 min"),
            (Value::from(Hours(0.75)), "45 min"),
            (Value::from(Hours(2.0 + 5.0 / 60.0)), "2 h 05"),
            (Value::from(Hours(72.0)), "72 h"),
            (Value::from((Seconds(60.0), Seconds(100.0))), "60 to 100 s"),
            (Value::from((Seconds(70.0), Seconds(100.0))), "70 to 100 s"),
            (Value::from((Minutes(4.0), Minutes(6.0))), "4 to 6 min"),
        ] {
            assert_eq!(said(Measures::METRIC, v), words);
        }
    }

    #[test]
    fn moments_of_one_day_name_it_once() {
        let at = |s: &str| -> Timestamp { s.parse().unwrap() };
        let (a, b, c) = (
            at("2026-11-27T18:15:00Z"),
            at("2026-11-27T20:45:00Z"),
            at("2026-11-28T00:30:00Z"),
        );
        assert_eq!(said(Measures::METRIC, (a, b)), "Fri 18:15 to 20:45");
        assert_eq!(said(Measures::METRIC, (a, c)), "Fri 18:15 to Sat 00:30");
        let zone = TimeZone::UTC;
        let mut reader = Reader::plain(Measures::METRIC, &zone);
        reader.now = Some(at("2026-11-20T08:00:00Z"));
        assert_eq!(reader.said(&Value::Instant(a)).full, "Fri 27 Nov 18:15");
    }
}
