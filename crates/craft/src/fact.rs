//! Facts: what the core has to say, as a code with typed values. No sentence is built here; the crate `speech` words a fact
//! for its reader, in a language, with the reader's units, clock and dates.
//!
//! A value is as precise as it is known: whoever states a fact rounds it ([`whole`], [`tenth`]), the reader only converts.

use crate::units::{Celsius, Cm, Grams};
use jiff::Timestamp;
use serde::{Deserialize, Deserializer, Serialize};
use std::borrow::Cow;
use std::collections::BTreeMap;

/// The code of words that were written before there were facts, or by a person: `text` is said as it stands.
pub const AS_WRITTEN: &str = "as-written";

/// Something to say: a stable code, and what is said of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Fact {
    /// The name of the text, as the files of `speech` have it: `fold-of`.
    pub code: Cow<'static, str>,
    /// What the text is filled with, by name.
    pub values: BTreeMap<Cow<'static, str>, Value>,
}

/// A value of a fact, in the unit of its name.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Value {
    /// Nothing is to be said here.
    Nothing,
    /// A name, or a maker's own words.
    Text(String),
    /// A part of the sentence that is worded itself.
    Fact(Box<Fact>),
    /// One after the other.
    Sentences(Vec<Fact>),
    /// Parts of a kind: "a, b and c".
    List(Vec<Value>),
    /// From the first to the last, of one unit.
    Range(Box<Value>, Box<Value>),
    /// A whole number of things.
    Count(i64),
    /// A bare number.
    Number(f64),
    /// A change: "+0.3".
    Signed(f64),
    /// A share, %.
    Percent(f64),
    /// A weight, g.
    Grams(f64),
    /// A heavy weight.
    Kilos(f64),
    /// What a scale that reads in grams shows: said in grams, for it is read off there.
    OnScale(f64),
    /// Dough on a surface, g/cm².
    GramsPerCm2(f64),
    /// What is in a liquid, g/l.
    GramsPerLitre(f64),
    /// A temperature.
    Celsius(f64),
    /// A difference of temperatures.
    Kelvin(f64),
    /// A length, cm.
    Cm(f64),
    /// A thickness, mm.
    Mm(f64),
    /// A volume, l.
    Litres(f64),
    /// A power, W.
    Watts(f64),
    /// Heat through a surface, W/m².
    WattsPerM2(f64),
    /// Heat that the air carries, W/m²K.
    WattsPerM2K(f64),
    /// Fuel, kg/h.
    KgPerHour(f64),
    /// A height, m.
    Metres(f64),
    /// An area, m².
    SquareMetres(f64),
    /// A span of time.
    Seconds(f64),
    /// A moment; the reader's clock says which hour.
    Instant(Timestamp),
}

/// A difference of temperatures, K.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Kelvin(pub f64);
/// A share of a whole, %.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Percent(pub f64);
/// Dough on a surface, g/cm².
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct GramsPerCm2(pub f64);
/// A span, h.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Hours(pub f64);
/// A span, min.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Minutes(pub f64);
/// A span, s.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Seconds(pub f64);
/// A thickness, mm.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Mm(pub f64);
/// A volume, l.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
pub struct Litres(pub f64);

macro_rules! typed {
    ($($type:ident => $value:ident),+ $(,)?) => {
        $(impl From<$type> for Value {
            fn from(v: $type) -> Value {
                Value::$value(v.0)
            }
        })+
    };
}
typed!(Grams => Grams, GramsPerCm2 => GramsPerCm2, Celsius => Celsius, Kelvin => Kelvin, Percent => Percent, Cm => Cm, Mm => Mm,
    Litres => Litres, Seconds => Seconds);

impl From<Hours> for Value {
    fn from(v: Hours) -> Value {
        // What is far outside stays a number, also in JSON.
        Value::Seconds((v.0 * 3600.0).clamp(f64::MIN, f64::MAX))
    }
}
impl From<Minutes> for Value {
    fn from(v: Minutes) -> Value {
        Value::Seconds((v.0 * 60.0).clamp(f64::MIN, f64::MAX))
    }
}
impl From<f64> for Value {
    fn from(v: f64) -> Value {
        Value::Number(v)
    }
}
impl From<Timestamp> for Value {
    fn from(v: Timestamp) -> Value {
        Value::Instant(v)
    }
}
impl From<Fact> for Value {
    fn from(v: Fact) -> Value {
        Value::Fact(Box::new(v))
    }
}
impl From<String> for Value {
    fn from(v: String) -> Value {
        Value::Text(v)
    }
}
impl From<&str> for Value {
    fn from(v: &str) -> Value {
        Value::Text(v.into())
    }
}
impl<T: Into<Value>> From<Option<T>> for Value {
    fn from(v: Option<T>) -> Value {
        v.map_or(Value::Nothing, Into::into)
    }
}
impl<T: Into<Value>> From<Vec<T>> for Value {
    fn from(v: Vec<T>) -> Value {
        Value::List(v.into_iter().map(Into::into).collect())
    }
}
/// From the first to the last.
impl<T: Into<Value>> From<(T, T)> for Value {
    fn from((a, b): (T, T)) -> Value {
        Value::Range(Box::new(a.into()), Box::new(b.into()))
    }
}
macro_rules! counted {
    ($($type:ty),+) => {
        $(impl From<$type> for Value {
            fn from(v: $type) -> Value {
                Value::Count(i64::try_from(v).unwrap_or(i64::MAX))
            }
        })+
    };
}
counted!(u8, u16, u32, u64, usize, i32, i64);

impl Fact {
    /// A fact by its code and values; [`fact!`](crate::fact!) writes it shorter.
    pub fn of<const N: usize>(code: &'static str, values: [(&'static str, Value); N]) -> Fact {
        Fact {
            code: Cow::Borrowed(code),
            values: values
                .into_iter()
                .map(|(name, v)| (Cow::Borrowed(name), v))
                .collect(),
        }
    }
    /// Words that are said as they stand.
    pub fn as_written(text: impl Into<String>) -> Fact {
        Fact::of(AS_WRITTEN, [("text", Value::Text(text.into()))])
    }
    /// Nothing to say.
    pub fn nothing() -> Fact {
        Fact::as_written("")
    }
    /// Whether there is nothing to say.
    pub fn is_nothing(&self) -> bool {
        self.code == AS_WRITTEN
            && matches!(self.value("text"), Some(Value::Text(t)) if t.is_empty())
    }
    /// The value of that name.
    pub fn value(&self, name: &str) -> Option<&Value> {
        self.values.get(name)
    }
    /// The number behind the value of that name, in the unit of its kind.
    pub fn number(&self, name: &str) -> Option<f64> {
        match self.values.get(name)? {
            Value::Count(n) => Some(*n as f64),
            Value::Number(v)
            | Value::Signed(v)
            | Value::Percent(v)
            | Value::Grams(v)
            | Value::Kilos(v)
            | Value::OnScale(v)
            | Value::GramsPerCm2(v)
            | Value::GramsPerLitre(v)
            | Value::Celsius(v)
            | Value::Kelvin(v)
            | Value::Cm(v)
            | Value::Mm(v)
            | Value::Litres(v)
            | Value::Watts(v)
            | Value::WattsPerM2(v)
            | Value::WattsPerM2K(v)
            | Value::KgPerHour(v)
            | Value::Metres(v)
            | Value::SquareMetres(v)
            | Value::Seconds(v) => Some(*v),
            _ => None,
        }
    }
}

/// States a fact: `fact!("fold-of", n = 1, of = 3)`. Each code is a text of `speech`, and its names are what the text names; a
/// test holds them against each other.
#[macro_export]
macro_rules! fact {
    ($code:literal $(, $name:ident = $value:expr)* $(,)?) => {
        $crate::fact::Fact::of($code, [$((stringify!($name), $crate::fact::Value::from($value))),*])
    };
}

impl Fact {
    /// For logs, files and tests, `fold-of(n=1, of=3)`; what was written stands as it was. A fact is not shown by itself: a page
    /// has it worded.
    pub fn brief(&self) -> String {
        if self.code == AS_WRITTEN
            && let Some(Value::Text(text)) = self.value("text")
        {
            return text.clone();
        }
        let values: Vec<String> = self
            .values
            .iter()
            .map(|(name, v)| format!("{name}={}", v.brief()))
            .collect();
        match values.is_empty() {
            true => self.code.to_string(),
            false => format!("{}({})", self.code, values.join(", ")),
        }
    }
}

impl Value {
    fn brief(&self) -> String {
        let all = |list: &[Value]| list.iter().map(Value::brief).collect::<Vec<_>>().join("; ");
        let of = |v: &f64, unit: &str| format!("{}{unit}", crate::number::plain(*v));
        match self {
            Value::Nothing => String::new(),
            Value::Text(t) => t.clone(),
            Value::Fact(x) => x.brief(),
            Value::Sentences(list) => list.iter().map(Fact::brief).collect::<Vec<_>>().join(" "),
            Value::List(list) => all(list),
            Value::Range(a, b) => format!("{}..{}", a.brief(), b.brief()),
            Value::Count(n) => n.to_string(),
            Value::Number(v) => of(v, ""),
            Value::Signed(v) => format!("{v:+}"),
            Value::Percent(v) => of(v, "%"),
            Value::Grams(v) | Value::OnScale(v) => of(v, "g"),
            Value::Kilos(v) => of(v, "kg"),
            Value::GramsPerCm2(v) => of(v, "g/cm²"),
            Value::GramsPerLitre(v) => of(v, "g/l"),
            Value::Celsius(v) => of(v, "°C"),
            Value::Kelvin(v) => of(v, "K"),
            Value::Cm(v) => of(v, "cm"),
            Value::Mm(v) => of(v, "mm"),
            Value::Metres(v) => of(v, "m"),
            Value::SquareMetres(v) => of(v, "m²"),
            Value::Litres(v) => of(v, "l"),
            Value::Watts(v) => of(v, "W"),
            Value::WattsPerM2(v) => of(v, "W/m²"),
            Value::WattsPerM2K(v) => of(v, "W/m²K"),
            Value::KgPerHour(v) => of(v, "kg/h"),
            Value::Seconds(v) => of(v, "s"),
            Value::Instant(t) => t.to_string(),
        }
    }
}

/// Rows kept before there were facts hold sentences: they are lifted to words that are said as they stand.
impl<'de> Deserialize<'de> for Fact {
    fn deserialize<D: Deserializer<'de>>(d: D) -> Result<Fact, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Kept {
            Written(String),
            Fact {
                code: String,
                #[serde(default)]
                values: BTreeMap<String, Value>,
            },
        }
        Ok(match Kept::deserialize(d)? {
            Kept::Written(text) => Fact::as_written(text),
            Kept::Fact { code, values } => Fact {
                code: Cow::Owned(code),
                values: values
                    .into_iter()
                    .map(|(name, v)| (Cow::Owned(name), v))
                    .collect(),
            },
        })
    }
}

/// A span of so many hours.
pub fn hours(h: f64) -> Value {
    Hours(h).into()
}
/// A span of so many minutes.
pub fn minutes(min: f64) -> Value {
    Minutes(min).into()
}
/// To the whole number.
pub fn whole(v: f64) -> f64 {
    v.round() + 0.0
}
/// To the tenth.
pub fn tenth(v: f64) -> f64 {
    (v * 10.0).round() / 10.0 + 0.0
}
/// To the half.
pub fn half(v: f64) -> f64 {
    (v * 2.0).round() / 2.0 + 0.0
}
/// Hours as people say them: to the quarter, from a day on whole.
pub fn spoken_h(h: f64) -> f64 {
    if h >= 24.0 {
        whole(h)
    } else {
        (h * 4.0).round() / 4.0 + 0.0
    }
}
/// A weight as a sentence says it: grams from 40 up, tenths below, two digits under one.
pub fn weighed(g: f64) -> Grams {
    Grams(if g >= 40.0 {
        whole(g)
    } else if g >= 1.0 {
        tenth(g)
    } else {
        two_digits(g)
    })
}
/// To two digits, as a small dose is weighed.
pub fn two_digits(v: f64) -> f64 {
    crate::number::two_digits(v).parse().unwrap_or(v)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_fact_comes_back_as_it_was_kept() {
        let at: Timestamp = "2026-11-27T18:00:00Z".parse().unwrap();
        let fact = fact!(
            "a-code",
            grams = Grams(250.0),
            band = (Celsius(420.0), Celsius(460.0)),
            names = vec![fact!("one"), fact!("two", n = 2)],
            at = at,
            none = None::<f64>,
        );
        let json = serde_json::to_string(&fact).unwrap();
        assert_eq!(serde_json::from_str::<Fact>(&json).unwrap(), fact);
        assert_eq!(
            fact.brief(),
            "a-code(at=2026-11-27T18:00:00Z, band=420°C..460°C, grams=250g, names=one; two(n=2), none=)"
        );
    }

    #[test]
    fn what_was_kept_as_a_sentence_is_said_as_it_stands() {
        let fact: Fact = serde_json::from_str("\"Lift and turn once round.\"").unwrap();
        assert_eq!(fact, Fact::as_written("Lift and turn once round."));
        assert_eq!(fact.brief(), "Lift and turn once round.");
    }

    #[test]
    fn no_rounding_ends_at_minus_nought() {
        for v in [whole(-0.2), tenth(-0.04), half(-0.1)] {
            assert!(v.is_sign_positive(), "{v}");
        }
    }
}
