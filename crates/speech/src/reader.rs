//! A fact in the words of one reader.

use crate::measures::Measures;
use crate::phrase::shipped;
use crate::texts::bundle;
use craft::fact::{AS_WRITTEN, Fact, Value};
use fluent_bundle::FluentArgs;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// Who reads: in which language and units, in which zone, and when.
#[derive(Debug, Clone, Copy)]
pub struct Reader<'a> {
    pub measures: Measures,
    pub zone: &'a TimeZone,
    /// The present, from which a weekday is enough or not; without one it always is.
    pub now: Option<Timestamp>,
}

impl<'a> Reader<'a> {
    /// A reader without a present.
    pub fn plain(measures: Measures, zone: &'a TimeZone) -> Reader<'a> {
        Reader {
            measures,
            zone,
            now: None,
        }
    }

    /// A fact as a sentence, or as a heading: it begins with a capital.
    ///
    /// ```
    /// use craft::fact;
    /// use craft::units::Celsius;
    /// use jiff::tz::TimeZone;
    /// use speech::{Measures, Reader};
    ///
    /// let fact = fact!("outside-range", what = fact!("f-the-room"), range = (Celsius(0.0), Celsius(45.0)), value = Celsius(60.0));
    /// let said = |m| Reader::plain(m, &TimeZone::UTC).say(&fact);
    /// assert_eq!(said(Measures::METRIC), "The room 0 to 45 °C; 60 °C is outside.");
    /// assert_eq!(said(Measures::US), "The room 32 to 113 °F; 140 °F is outside.");
    /// ```
    pub fn say(&self, fact: &Fact) -> String {
        if let (AS_WRITTEN, Some(Value::Text(text))) = (fact.code.as_ref(), fact.value("text")) {
            return shipped(self.measures.language, text);
        }
        capital(self.words(fact))
    }

    /// A fact as a part of a sentence.
    pub fn words(&self, fact: &Fact) -> String {
        if let (AS_WRITTEN, Some(Value::Text(text))) = (fact.code.as_ref(), fact.value("text")) {
            return shipped(self.measures.language, text);
        }
        let mut args = FluentArgs::with_capacity(fact.values.len());
        for (name, v) in &fact.values {
            args.set(name.as_ref(), self.argument(v));
        }
        self.filled(&fact.code, Some(&args))
            // A code of another program: better its name than nothing.
            .unwrap_or_else(|| fact.brief())
    }

    /// A text by its code, filled with texts.
    pub fn text(&self, code: &str, values: &[(&str, &str)]) -> String {
        let mut args = FluentArgs::with_capacity(values.len());
        for (name, v) in values {
            args.set(*name, *v);
        }
        self.filled(code, Some(&args))
            .unwrap_or_else(|| code.into())
    }

    fn filled(&self, code: &str, args: Option<&FluentArgs>) -> Option<String> {
        let texts = bundle(self.measures.language);
        let pattern = texts.get_message(code)?.value()?;
        let mut errors = vec![];
        Some(
            texts
                .format_pattern(pattern, args, &mut errors)
                .into_owned(),
        )
    }
}

/// With a capital at its beginning.
pub fn capital(text: String) -> String {
    match text.chars().next() {
        Some(c) if c.is_lowercase() => {
            let rest = &text[c.len_utf8()..];
            c.to_uppercase().chain(rest.chars()).collect()
        }
        _ => text,
    }
}
