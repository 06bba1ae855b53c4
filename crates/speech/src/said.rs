//! A value as Fluent carries it.

use fluent_bundle::types::FluentType;
use std::borrow::Cow;
use std::sync::Arc;

/// A value as it is said: in full, short where the sentence has said its unit or day, and exactly where it is a limit.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Said {
    pub full: String,
    /// Where it is not as in full.
    short: Option<String>,
    exact: Option<String>,
}

impl Said {
    pub(crate) fn same(full: String) -> Said {
        Said {
            full,
            ..Said::default()
        }
    }
    pub(crate) fn with_unit(number: String, unit: &str) -> Said {
        Said {
            full: [&number, " ", unit].concat(),
            short: Some(number),
            exact: None,
        }
    }
    pub(crate) fn in_short(self, short: String) -> Said {
        Said {
            short: Some(short),
            ..self
        }
    }
    pub(crate) fn in_exact(self, exact: String) -> Said {
        Said {
            exact: Some(exact),
            ..self
        }
    }
    /// Without its unit or its day.
    pub fn short(&self) -> &str {
        self.short.as_deref().unwrap_or(&self.full)
    }
    /// To the tenth of a degree: what a field takes and what not.
    pub fn exact(&self) -> &str {
        self.exact.as_deref().unwrap_or(&self.full)
    }
}

/// The same for Fluent, which copies what it is given.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Carried(pub(crate) Arc<Said>);

impl FluentType for Carried {
    fn duplicate(&self) -> Box<dyn FluentType + Send> {
        Box::new(self.clone())
    }
    fn as_string(&self, _: &intl_memoizer::IntlLangMemoizer) -> Cow<'static, str> {
        Cow::Owned(self.0.full.clone())
    }
    fn as_string_threadsafe(
        &self,
        _: &intl_memoizer::concurrent::IntlLangMemoizer,
    ) -> Cow<'static, str> {
        Cow::Owned(self.0.full.clone())
    }
}
