//! What pages say themselves: a text by its code, as it stands or filled.

use crate::texts::{Language, bundle};
use craft::keyed::Keyed;
use fluent_bundle::{FluentArgs, FluentValue};
use std::collections::HashMap;
use std::fmt;
use std::sync::LazyLock;

static FIXED: LazyLock<Vec<HashMap<String, String>>> =
    LazyLock::new(|| Language::ALL.iter().copied().map(all_fixed).collect());

/// A text that takes no values, in a language; its code where there is none, which a test of this crate rules out.
pub fn fixed(language: Language, code: &'static str) -> &'static str {
    FIXED[language as usize]
        .get(code)
        .map_or(code, String::as_str)
}

fn all_fixed(language: Language) -> HashMap<String, String> {
    let texts = bundle(language);
    let codes = language.codes();
    codes
        .into_iter()
        .filter_map(|code| {
            let pattern = texts.get_message(&code)?.value()?;
            let mut errors = vec![];
            let said = texts
                .format_pattern(pattern, None, &mut errors)
                .into_owned();
            // One that takes values is none of these.
            errors.is_empty().then_some((code, said))
        })
        .collect()
}

impl Language {
    /// Its own name for itself.
    pub fn own_name(self) -> &'static str {
        fixed(self, "names-this-language")
    }
}

/// Texts of pages that scripts say, too.
const SAID_BY_SCRIPTS_TOO: [&str; 7] = [
    "page-dim-for-the-night",
    "page-back-to-day",
    "bake-free",
    "fire-word-pale",
    "fire-word-golden",
    "fire-well-browned",
    "fire-word-charred",
];

/// The texts that scripts say (`script-…`), as JSON: code and text, with `{name}` where a value goes.
pub fn script_words(language: Language) -> &'static str {
    static WORDS: LazyLock<Vec<String>> =
        LazyLock::new(|| Language::ALL.iter().copied().map(all_of_scripts).collect());
    &WORDS[language as usize]
}

fn all_of_scripts(language: Language) -> String {
    let mut all = serde_json::Map::new();
    for (code, text) in language.patterns() {
        let theirs = code.starts_with("script-") || SAID_BY_SCRIPTS_TOO.contains(&code.as_str());
        if theirs {
            all.insert(code, text.into());
        }
    }
    // Nothing in it ends the element that holds it.
    serde_json::Value::Object(all)
        .to_string()
        .replace('<', "\\u003c")
}

/// A name or a line that ships with the program, in a language; what a maker wrote themselves stays as it is.
///
/// ```
/// use speech::{Language, phrase::shipped};
/// assert_eq!(shipped(Language::Italian, "Lean round"), "Tonda magra");
/// assert_eq!(shipped(Language::Italian, "Flour W 300"), "Farina W 300");
/// assert_eq!(shipped(Language::Italian, "Aunt's round"), "Aunt's round");
/// ```
pub fn shipped(language: Language, name: &str) -> String {
    static CODES: LazyLock<HashMap<String, String>> = LazyLock::new(|| {
        let all = Language::English.patterns().into_iter();
        let shipped = all.filter(|(code, _)| code.starts_with("shipped-"));
        shipped.map(|(code, text)| (text, code)).collect()
    });
    if language == Language::English {
        return name.into();
    }
    let said = |name: &str| {
        let code = CODES.get(name)?;
        FIXED[language as usize].get(code).map(String::as_str)
    };
    if let Some(whole) = said(name) {
        return whole.into();
    }
    // A flour that is known by its kind and its strength: "Fine flour W 300".
    match name.split_once(" W ") {
        Some((kind, w)) if w.parse::<f64>().is_ok() => match said(kind) {
            Some(kind) => [kind, " W ", w].concat(),
            None => name.into(),
        },
        _ => name.into(),
    }
}

/// A text with what it is filled with.
pub struct Phrase {
    language: Language,
    code: &'static str,
    values: FluentArgs<'static>,
}

impl Phrase {
    pub fn new(language: Language, code: &'static str) -> Phrase {
        Phrase {
            language,
            code,
            values: FluentArgs::new(),
        }
    }
    /// With a value. A whole number stays one, so that a text may choose its plural.
    pub fn with(mut self, name: &'static str, value: impl fmt::Display) -> Phrase {
        let said = value.to_string();
        let counts = said.len() < 7 && (said == "0" || !said.starts_with('0'));
        let value = match said.parse::<u32>() {
            Ok(n) if counts => FluentValue::from(n),
            _ => FluentValue::from(said),
        };
        self.values.set(name, value);
        self
    }
}

impl fmt::Display for Phrase {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        let texts = bundle(self.language);
        let pattern = texts.get_message(self.code).and_then(|m| m.value());
        match pattern {
            Some(pattern) => {
                let mut errors = vec![];
                f.write_str(&texts.format_pattern(pattern, Some(&self.values), &mut errors))
            }
            None => f.write_str(self.code),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_text_as_it_stands_and_filled() {
        assert_eq!(fixed(Language::English, "and"), "and");
        assert_eq!(fixed(Language::Italian, "and"), "e");
        assert_eq!(fixed(Language::English, "no-such-code"), "no-such-code");
        let one = |n: &str| {
            Phrase::new(Language::English, "pieces-more")
                .with("more", n)
                .to_string()
        };
        assert_eq!(one("no such text"), "pieces-more");
    }
}
