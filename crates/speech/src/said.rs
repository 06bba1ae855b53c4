//! A value as Fluent carries it.

use fluent_bundle::types::FluentType;
use std::borrow::Cow;

/// A value as it is said: in full, short where the sentence has said its unit or day, and exactly where it is a limit.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Said {
    pub full: String,
    pub short: String,
    /// To the tenth of a degree: what a field takes and what not.
    pub exact: String,
}

impl Said {
    pub(crate) fn same(text: String) -> Said {
        Said {
            short: text.clone(),
            exact: text.clone(),
            full: text,
        }
    }
    pub(crate) fn with_unit(number: String, unit: &str) -> Said {
        let full = format!("{number} {unit}");
        Said {
            exact: full.clone(),
            full,
            short: number,
        }
    }
}

impl FluentType for Said {
    fn duplicate(&self) -> Box<dyn FluentType + Send> {
        Box::new(self.clone())
    }
    fn as_string(&self, _: &intl_memoizer::IntlLangMemoizer) -> Cow<'static, str> {
        Cow::Owned(self.full.clone())
    }
    fn as_string_threadsafe(
        &self,
        _: &intl_memoizer::concurrent::IntlLangMemoizer,
    ) -> Cow<'static, str> {
        Cow::Owned(self.full.clone())
    }
}
