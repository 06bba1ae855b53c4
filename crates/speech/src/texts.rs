//! The texts: Fluent files, compiled in, one folder for each language.

use crate::long::longer;
use craft::keyed::Keyed;
use fluent_bundle::concurrent::FluentBundle;
use fluent_bundle::{FluentArgs, FluentResource, FluentValue};
use fluent_syntax::ast::{Entry, Expression, InlineExpression, Pattern, PatternElement};
use fluent_syntax::parser::parse;
use std::sync::LazyLock;
use strum::{EnumString, IntoStaticStr, VariantArray};
use unic_langid::LanguageIdentifier;

use crate::said::{Carried, Said};

/// A language that there are texts in, with its code as its key.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Hash, Default, EnumString, IntoStaticStr, VariantArray,
)]
pub enum Language {
    #[default]
    #[strum(serialize = "en")]
    English,
    #[strum(serialize = "it")]
    Italian,
    /// English made longer by two fifths: nobody reads it, cut words show in it.
    #[strum(serialize = "long")]
    Long,
}

impl Language {
    /// Those that people choose from.
    pub const READ: [Language; 2] = [Language::English, Language::Italian];

    /// How a document says it: "it".
    pub fn tag(self) -> &'static str {
        match self {
            Language::English | Language::Long => "en",
            Language::Italian => "it",
        }
    }
    fn identifier(self) -> LanguageIdentifier {
        let code = match self {
            Language::English | Language::Long => "en-GB",
            Language::Italian => "it",
        };
        code.parse().unwrap_or_default()
    }
    /// Its files: name and content.
    pub fn files(self) -> &'static [(&'static str, &'static str)] {
        match self {
            Language::English | Language::Long => ENGLISH,
            Language::Italian => ITALIAN,
        }
    }
    /// The codes of all its texts.
    pub(crate) fn codes(self) -> Vec<String> {
        let mut codes = vec![];
        for (_, text) in self.files() {
            let read = parse(*text).unwrap_or_else(|(read, _)| read);
            codes.extend(read.body.into_iter().filter_map(|e| match e {
                Entry::Message(m) => Some(m.id.name.to_string()),
                _ => None,
            }));
        }
        codes
    }
    /// Its texts as they stand, with `{name}` where a value goes; a choice between texts is left out.
    pub(crate) fn patterns(self) -> Vec<(String, String)> {
        let mut out = vec![];
        for (_, text) in self.files() {
            let read = parse(self.spelled(text)).unwrap_or_else(|(read, _)| read);
            for entry in read.body {
                if let Entry::Message(m) = entry
                    && let Some(text) = m.value.as_ref().and_then(as_it_stands)
                {
                    out.push((m.id.name, text));
                }
            }
        }
        out
    }
    /// A file as it is read: as it stands, or made longer.
    fn spelled(self, text: &str) -> String {
        match self {
            Language::Long => longer(text),
            _ => text.into(),
        }
    }
    /// The language that a reader would rather have, by what their browser says of it; English where it says nothing
    /// that is spoken here.
    ///
    /// ```
    /// use speech::Language;
    /// assert_eq!(Language::of_browser("it-IT,it;q=0.9,en;q=0.8"), Language::Italian);
    /// assert_eq!(Language::of_browser("de, en;q=0.7, it;q=0.3"), Language::English);
    /// assert_eq!(Language::of_browser(""), Language::English);
    /// ```
    pub fn of_browser(accepts: &str) -> Language {
        let asked = fluent_langneg::accepted_languages::parse(accepts);
        let primary = |id: &LanguageIdentifier| Language::from_key(id.language.as_str());
        asked
            .iter()
            .filter_map(|id| id.to_string().parse().ok())
            .find_map(|id| primary(&id).filter(|l| Language::READ.contains(l)))
            .unwrap_or_default()
    }
}

macro_rules! files {
    ($static:ident, $folder:literal: $($name:literal),+ $(,)?) => {
        static $static: &[(&str, &str)] =
            &[$(($name, include_str!(concat!("../texts/", $folder, "/", $name, ".ftl")))),+];
    };
}

macro_rules! languages {
    ($($name:literal),+ $(,)?) => {
        files!(ENGLISH, "en": $($name),+);
        files!(ITALIAN, "it": $($name),+);
    };
}

languages!(
    "common",
    "names",
    "refusals",
    "words",
    "steps",
    "sheet",
    "formula",
    "fire",
    "kitchen",
    "mix",
    "shape",
    "people",
    "begin",
    "learn",
    "trial",
    "practice",
    "glossary",
    "pages/access",
    "pages/api",
    "pages/bake",
    "pages/batch",
    "pages/begin",
    "pages/bench",
    "pages/entrance",
    "pages/figures",
    "pages/fire",
    "pages/form",
    "pages/labels",
    "pages/learn",
    "pages/trial",
    "pages/ledger",
    "pages/library",
    "pages/mix",
    "pages/page",
    "pages/pantry",
    "pages/people",
    "pages/practice",
    "pages/rise",
    "pages/scale",
    "pages/script",
    "pages/shape",
    "pages/sheet",
    "pages/shipped",
    "pages/takeaway",
    "pages/words"
);

pub(crate) type Bundle = FluentBundle<FluentResource>;

/// The texts of a language, parsed once.
pub(crate) fn bundle(language: Language) -> &'static Bundle {
    static BUNDLES: LazyLock<Vec<Bundle>> =
        LazyLock::new(|| Language::ALL.iter().copied().map(parsed).collect());
    &BUNDLES[language as usize]
}

/// What does not parse is passed over here; a test of this crate reads every file.
fn parsed(language: Language) -> Bundle {
    let mut bundle = FluentBundle::new_concurrent(vec![language.identifier()]);
    // Marks around values would be copied along with a figure.
    bundle.set_use_isolating(false);
    let _ = bundle.add_function("SHORT", short);
    let _ = bundle.add_function("EXACT", exact);
    for (_, text) in language.files() {
        let resource = FluentResource::try_new(language.spelled(text)).unwrap_or_else(|(r, _)| r);
        let _ = bundle.add_resource(resource);
    }
    bundle
}

fn as_it_stands(pattern: &Pattern<String>) -> Option<String> {
    let mut out = String::new();
    for element in &pattern.elements {
        match element {
            PatternElement::TextElement { value } => out.push_str(value),
            PatternElement::Placeable {
                expression: Expression::Inline(InlineExpression::VariableReference { id }),
            } => out.extend(["{", &id.name, "}"]),
            PatternElement::Placeable {
                expression: Expression::Inline(InlineExpression::StringLiteral { value }),
            } => out.push_str(value),
            PatternElement::Placeable { .. } => return None,
        }
    }
    Some(out)
}

/// `SHORT($x)`: without its unit, or without its day, where the sentence has said it: "411°", "19:00".
fn short<'a>(positional: &[FluentValue<'a>], _: &FluentArgs) -> FluentValue<'a> {
    part(positional, Said::short)
}

/// `EXACT($x)`: to the tenth of a degree, where it is a limit.
fn exact<'a>(positional: &[FluentValue<'a>], _: &FluentArgs) -> FluentValue<'a> {
    part(positional, Said::exact)
}

fn part<'a>(positional: &[FluentValue<'a>], of: fn(&Said) -> &str) -> FluentValue<'a> {
    match positional.first() {
        Some(FluentValue::Custom(c)) => match c.as_any().downcast_ref::<Carried>() {
            Some(said) => FluentValue::from(of(&said.0).to_string()),
            None => FluentValue::Error,
        },
        Some(other) => other.clone(),
        None => FluentValue::Error,
    }
}
