//! Numbers as a language writes them.

use crate::texts::Language;

impl Language {
    /// A number that was written with a point and thousands by commas, as this language writes it.
    ///
    /// ```
    /// use speech::Language;
    /// assert_eq!(Language::English.number("1,588.4".into()), "1,588.4");
    /// assert_eq!(Language::Italian.number("1,588.4".into()), "1.588,4");
    /// ```
    pub fn number(self, written: String) -> String {
        match self {
            Language::English | Language::Long => written,
            Language::Italian if written.contains(['.', ',']) => written
                .chars()
                .map(|c| match c {
                    '.' => ',',
                    ',' => '.',
                    other => other,
                })
                .collect(),
            Language::Italian => written,
        }
    }
}
