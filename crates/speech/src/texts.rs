//! The texts: Fluent files, compiled in, one folder for each language.

use craft::keyed::Keyed;
use fluent_bundle::concurrent::FluentBundle;
use fluent_bundle::{FluentArgs, FluentResource, FluentValue};
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
}

impl Language {
    fn identifier(self) -> LanguageIdentifier {
        match self {
            Language::English => "en-GB".parse().unwrap_or_default(),
        }
    }
    /// Its files: name and content.
    pub fn files(self) -> &'static [(&'static str, &'static str)] {
        match self {
            Language::English => &ENGLISH,
        }
    }
}

macro_rules! files {
    ($folder:literal: $($name:literal),+ $(,)?) => {
        [$(($name, include_str!(concat!("../texts/", $folder, "/", $name, ".ftl")))),+]
    };
}

static ENGLISH: [(&str, &str); 13] = files!("en": "common", "refusals", "words", "steps", "sheet", "formula", "fire", "kitchen", "mix", "shape", "people", "begin", "glossary");

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
        let resource = FluentResource::try_new((*text).to_string()).unwrap_or_else(|(r, _)| r);
        let _ = bundle.add_resource(resource);
    }
    bundle
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
