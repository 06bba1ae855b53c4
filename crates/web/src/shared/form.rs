//! Forms: what was typed, kept as it was typed, and read into numbers with a sentence where it cannot be.

use crate::shared::tongue::say;
use craft::fact::Fact;
use craft::refusal::FieldError;
use craft::units::Meant;
use serde::Serialize;
use std::collections::HashMap;
use uuid::Uuid;

/// The fields of a form as they came.
#[derive(Debug, Clone, Default)]
pub struct FormData(HashMap<String, String>);

/// A name may be so long; the database column holds as much.
pub const LONGEST_NAME: usize = 80;

impl FormData {
    /// Reads an urlencoded body; fields beyond [`MOST_FIELDS`] are of no form of ours and are passed over.
    pub fn parse(body: &[u8]) -> FormData {
        FormData(
            form_urlencoded::parse(body)
                .into_owned()
                .take(MOST_FIELDS)
                .collect(),
        )
    }
    pub fn set(&mut self, name: &str, value: impl Into<String>) {
        self.0.insert(name.into(), value.into());
    }
    /// The text of a field without its outer blanks; empty when it was not sent.
    pub fn text(&self, name: &str) -> &str {
        self.0.get(name).map_or("", |v| v.trim())
    }
    /// All fields, by name.
    pub fn into_entries(self) -> Vec<(String, String)> {
        let mut all: Vec<_> = self.0.into_iter().collect();
        all.sort();
        all
    }
    /// All that was typed as one text, without the form's own key: what a form is told by when it comes again.
    pub fn content(&self) -> String {
        let mut all: Vec<_> = self.0.iter().filter(|(k, _)| *k != "form_key").collect();
        all.sort();
        serde_json::to_string(&all).unwrap_or_default()
    }
    /// Whether the field was sent at all.
    pub fn has(&self, name: &str) -> bool {
        self.0.contains_key(name)
    }
    pub fn forget(&mut self, name: &str) {
        self.0.remove(name);
    }
    /// How many rows a list of the form has: `flours[0].name`, `flours[1].name` make two.
    pub fn rows(&self, list: &str) -> usize {
        let mut there = [false; MOST_ROWS];
        for (row, _) in self.0.keys().filter_map(|k| row_of(k, list)) {
            there[row] = true;
        }
        there.iter().take_while(|t| **t).count()
    }
    /// Moves a row of a list one place up; the one before it takes its place.
    pub fn lift_row(&mut self, list: &str, row: usize) {
        if row == 0 || row >= self.rows(list) {
            return;
        }
        let old = std::mem::take(&mut self.0);
        for (k, v) in old {
            let to = match row_of(&k, list) {
                Some((i, rest)) if i == row => Some(format!("{list}[{}]{rest}", i - 1)),
                Some((i, rest)) if i + 1 == row => Some(format!("{list}[{row}]{rest}")),
                _ => None,
            };
            self.0.insert(to.unwrap_or(k), v);
        }
    }
    /// Takes a row out of a list; those after it move up.
    pub fn drop_row(&mut self, list: &str, row: usize) {
        let rows = self.rows(list);
        let old = std::mem::take(&mut self.0);
        for (k, v) in old {
            match row_of(&k, list) {
                Some((i, _)) if i == row && i < rows => {}
                Some((i, rest)) if i > row && i < rows => {
                    self.0.insert(format!("{list}[{}]{rest}", i - 1), v);
                }
                _ => {
                    self.0.insert(k, v);
                }
            }
        }
    }
    /// The names of the fields that begin so.
    pub fn fields_from(&self, prefix: &str) -> impl Iterator<Item = String> {
        self.0
            .keys()
            .filter(move |k| k.starts_with(prefix))
            .cloned()
    }
    /// Forgets all fields of which the name begins so.
    pub fn forget_all(&mut self, prefix: &str) {
        self.0.retain(|k, _| !k.starts_with(prefix));
    }
    /// A key that came with the form; a form without one is sent once.
    pub fn key(&self, name: &str) -> Uuid {
        Uuid::parse_str(self.text(name)).unwrap_or_else(|_| Uuid::new_v4())
    }
    /// Exactly what was typed.
    pub fn raw(&self, name: &str) -> &str {
        self.0.get(name).map_or("", String::as_str)
    }
}

/// No list of a form is longer.
const MOST_ROWS: usize = 64;

/// No form of ours has more fields.
const MOST_FIELDS: usize = 2_000;

/// The row of a list that a field is of, and what follows `list[row]` in its name.
fn row_of<'a>(field: &'a str, list: &str) -> Option<(usize, &'a str)> {
    let (row, rest) = field
        .strip_prefix(list)?
        .strip_prefix('[')?
        .split_once(']')?;
    // As it is written by us: no sign, no leading zeros.
    let plain = row == "0" || !row.starts_with('0') && row.chars().all(|c| c.is_ascii_digit());
    let row: usize = row.parse().ok().filter(|r| *r < MOST_ROWS && plain)?;
    Some((row, rest))
}

/// A field and what is wrong with it, in words.
#[derive(Debug, Clone, PartialEq, Serialize, schemars::JsonSchema)]
pub struct SaidError {
    /// The field, as it is spelled in the request; empty where it is all of it.
    pub field: String,
    /// One plain sentence.
    pub message: String,
}

/// Reads fields and collects what is wrong.
pub struct FieldReader<'a> {
    pub typed: &'a FormData,
    pub errors: Vec<FieldError>,
}

impl<'a> FieldReader<'a> {
    pub fn new(typed: &'a FormData) -> Self {
        FieldReader {
            typed,
            errors: vec![],
        }
    }
    pub fn refuse(&mut self, field: &str, message: impl Into<String>) {
        self.errors.push(FieldError {
            field: field.into(),
            message: Fact::as_written(message),
        });
    }
    /// Refuses with a fact of the core.
    pub fn refuse_as(&mut self, field: &str, message: Fact) {
        self.errors.push(FieldError {
            field: field.into(),
            message,
        });
    }
    /// A number; decimal point and decimal comma are both read. NaN stands in for one that was refused.
    pub fn number(&mut self, field: &str, what: &str) -> f64 {
        match number(self.typed.text(field)) {
            Ok(v) => v,
            Err(NotANumber::Empty) => {
                self.refuse(field, say!("page-is-missing", what = what));
                f64::NAN
            }
            Err(NotANumber::Text) => {
                self.refuse(field, say!("page-must-be-a-number-such", what = what));
                f64::NAN
            }
        }
    }
    /// A number in the unit that is meant, or with another unit behind it; in %, h, g, °C or cm. NaN stands in for one that
    /// was refused.
    pub fn measured(&mut self, field: &str, what: &str, meant: Meant) -> f64 {
        match measured(self.typed.text(field), meant) {
            Ok(v) => v,
            // The same two sentences as for a number without a unit.
            Err(_) => self.number(field, what),
        }
    }
    /// A whole number of things.
    pub fn count(&mut self, field: &str, what: &str) -> u32 {
        let v = self.number(field, what);
        if v.is_nan() {
            return 0;
        }
        if v.fract() != 0.0 || !(0.0..=1e9).contains(&v) {
            self.refuse(field, say!("page-must-be-a-whole-number", what = what));
            return 0;
        }
        v as u32
    }
    /// A name that is there and not too long: one line, without marks that turn the direction of reading.
    pub fn name(&mut self, field: &str, what: &str) -> String {
        let text = one_line(self.typed.text(field));
        let length = text.chars().count();
        if text.is_empty() {
            self.refuse(field, say!("page-is-missing", what = what));
        } else if length > LONGEST_NAME {
            self.refuse(
                field,
                say!(
                    "page-holds-up-to-letters-this",
                    what = what,
                    value = LONGEST_NAME,
                    length = length
                ),
            );
        }
        text
    }
}

/// A name as it is kept: controls become blanks, marks that turn or hide letters go, blanks are single.
pub fn one_line(text: &str) -> String {
    let turns = |c: char| matches!(c, '\u{200b}'..='\u{200f}' | '\u{202a}'..='\u{202e}' | '\u{2060}'..='\u{2069}' | '\u{feff}' | '\u{61c}');
    let spoken: String = text
        .chars()
        .filter(|c| !turns(*c))
        .map(|c| {
            if c.is_control() || c == '\u{2028}' || c == '\u{2029}' {
                ' '
            } else {
                c
            }
        })
        .collect();
    spoken.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[derive(Debug, PartialEq, Eq)]
pub enum NotANumber {
    Empty,
    Text,
}

/// "64.5", "64,5", " 1 200 ": a number as makers type it.
pub fn number(text: &str) -> Result<f64, NotANumber> {
    let text: String = text
        .chars()
        .filter(|c| !c.is_whitespace() && *c != '\u{202f}')
        .map(|c| match c {
            ',' => '.',
            '−' => '-',
            c => c,
        })
        .collect();
    if text.is_empty() {
        return Err(NotANumber::Empty);
    }
    // Rust would also read "inf", "nan" and "1e999".
    if !text
        .chars()
        .all(|c| c.is_ascii_digit() || matches!(c, '.' | '-' | '+'))
    {
        return Err(NotANumber::Text);
    }
    text.parse()
        .ok()
        .filter(|v: &f64| v.is_finite())
        .ok_or(NotANumber::Text)
}

/// "64.5", "25 kg", "72 °F", "9 oz", "10 in": a number as makers type it, in %, h, g, °C or cm.
pub fn measured(text: &str, meant: Meant) -> Result<f64, NotANumber> {
    let text = text.trim();
    let number_ends = text
        .find(|c: char| c.is_alphabetic() || matches!(c, '°' | '%' | '"' | '″'))
        .unwrap_or(text.len());
    let (digits, said) = text.split_at(number_ends);
    let number = match number(digits) {
        Err(NotANumber::Empty) if !said.is_empty() => Err(NotANumber::Text),
        n => n,
    }?;
    meant.value(number, said).ok_or(NotANumber::Text)
}

#[cfg(test)]
mod tests {
    use super::*;
    use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};

    #[test]
    fn a_unit_that_is_typed_is_understood() {
        let weight = Meant::Weight(WeightUnit::Grams);
        assert_eq!(measured("25 kg", weight), Ok(25_000.0));
        assert_eq!(measured("1 200", weight), Ok(1200.0));
        assert_eq!(measured("0,5kg", weight), Ok(500.0));
        let warm = Meant::Temperature(TemperatureUnit::Celsius);
        assert_eq!(measured("212 F", warm), Ok(100.0));
        assert_eq!(measured("24°", warm), Ok(24.0));
        assert_eq!(
            measured("10 in", Meant::Length(LengthUnit::Centimetres)),
            Ok(25.4)
        );
        assert_eq!(measured("64 %", Meant::Percent), Ok(64.0));
        for bad in ["25 kg kg", "kg", "25 km", "6 balls"] {
            assert_eq!(measured(bad, weight), Err(NotANumber::Text), "{bad}");
        }
        assert_eq!(measured(" ", weight), Err(NotANumber::Empty));
    }

    #[test]
    fn numbers_as_makers_type_them() {
        for (text, v) in [
            ("64.5", 64.5),
            ("64,5", 64.5),
            (" 1 200 ", 1200.0),
            ("-3", -3.0),
            ("−3", -3.0),
            ("+2", 2.0),
        ] {
            assert_eq!(number(text), Ok(v), "{text}");
        }
        for bad in ["abc", "1,2,3", "nan", "inf", "1e5", "6 balls", "--1"] {
            assert_eq!(number(bad), Err(NotANumber::Text), "{bad}");
        }
        assert_eq!(number("  "), Err(NotANumber::Empty));
    }

    #[test]
    fn rows_are_counted_and_dropped() {
        let mut t = FormData::parse(b"a[0].x=0&a[1].x=1&a[2].x=2&a[2].y=22&ab[0].x=9");
        assert_eq!(t.rows("a"), 3);
        t.drop_row("a", 1);
        assert_eq!(
            (t.rows("a"), t.text("a[1].x"), t.text("a[1].y")),
            (2, "2", "22")
        );
        assert_eq!(t.text("ab[0].x"), "9");
        t.forget_all("a[");
        assert_eq!((t.rows("a"), t.rows("ab")), (0, 1));
    }

    #[test]
    fn names_are_one_line_and_hide_nothing() {
        assert_eq!(
            one_line("Halt\r\nBEGIN:VEVENT\tround"),
            "Halt BEGIN:VEVENT round"
        );
        assert_eq!(one_line("  abc\u{202e}txt\u{200b} 🍕 é "), "abctxt 🍕 é");
        assert_eq!(one_line("\u{0}\u{7f}\u{2028}"), "");
    }

    #[test]
    fn rows_that_are_none_count_nothing_and_fields_have_an_end() {
        let t = FormData::parse(
            b"a[00].x=0&a[+0].x=1&a[1].x=1&a[99999999999999999999].x=9&a[-1].x=2&a[].x=3",
        );
        assert_eq!(t.rows("a"), 0);
        let junk: String = (0..5000).map(|i| format!("k{i}=v&")).collect();
        assert_eq!(
            FormData::parse(junk.as_bytes()).into_entries().len(),
            MOST_FIELDS
        );
    }

    #[test]
    fn a_form_keeps_what_was_typed_and_says_what_is_wrong() {
        let typed = FormData::parse(b"water=64%2C5&salt=abc&balls=2.5&name=+");
        let mut r = FieldReader::new(&typed);
        assert_eq!(r.number("water", "Water"), 64.5);
        assert!(r.number("salt", "Salt").is_nan());
        assert_eq!(r.count("balls", "Balls"), 0);
        r.name("name", "Name");
        let fields: Vec<_> = r.errors.iter().map(|e| e.field.as_str()).collect();
        assert_eq!(fields, ["salt", "balls", "name"]);
        assert_eq!(typed.raw("salt"), "abc");
    }
}
