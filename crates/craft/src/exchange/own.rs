//! The product's own file of a formula: versioned JSON, exact both ways. Described in docs/formats.md.

use super::MOST_BYTES;
use crate::fact;
use crate::fact::Fact;
use crate::formula::Formula;
use crate::refusal::{FieldError, ValidationError};
use serde::{Deserialize, Serialize};

/// What the file calls itself.
pub const FORMAT: &str = "slow-rise-formula";
/// The version that is written, and the only one that is read so far.
pub const VERSION: u32 = 1;

/// A formula with its name, as a file holds it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FormulaFile {
    /// What kind of file it is: [`FORMAT`].
    pub format: String,
    /// Of the format, from 1.
    pub version: u32,
    /// Of the formula.
    pub name: String,
    /// What was changed last, and why.
    #[serde(default)]
    pub why: String,
    /// The formula itself.
    pub formula: Formula,
}

impl FormulaFile {
    /// A file for a formula, in the newest version of the format.
    pub fn new(name: &str, why: &str, formula: Formula) -> FormulaFile {
        FormulaFile {
            format: FORMAT.into(),
            version: VERSION,
            name: name.into(),
            why: why.into(),
            formula,
        }
    }
}

/// Writes a file.
pub fn export(kept: &FormulaFile) -> String {
    // A formula is plain data with string keys and finite numbers: it always writes.
    serde_json::to_string_pretty(kept).unwrap_or_default()
}

/// Only what tells whether the rest can be read.
#[derive(Deserialize)]
struct FormulaHead {
    #[serde(default)]
    format: Option<String>,
    #[serde(default)]
    version: Option<serde_json::Value>,
}

/// Reads a file.
///
/// Errors: [`ValidationError`] with the field (or `file`) and a sentence; nothing of a broken file is used.
pub fn import(bytes: &[u8]) -> Result<FormulaFile, ValidationError> {
    let refuse = |sentence: Fact| Err(ValidationError::one("file", sentence));
    if bytes.len() > MOST_BYTES {
        return refuse(fact!(
            "file-too-large",
            kb = bytes.len() / 1000,
            most = MOST_BYTES / 1000
        ));
    }
    let head: FormulaHead = match serde_json::from_slice(bytes) {
        Ok(h) => h,
        Err(e) => {
            return refuse(fact!(
                "file-not-formula",
                line = e.line(),
                column = e.column()
            ));
        }
    };
    if head.format.as_deref() != Some(FORMAT) {
        return refuse(fact!("file-no-format", format = FORMAT));
    }
    let version = head.version.unwrap_or_default();
    if version != serde_json::json!(VERSION) {
        let said: String = version.to_string().chars().take(20).collect();
        return refuse(fact!("file-other-version", said = said, version = VERSION));
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let kept: FormulaFile = serde_path_to_error::deserialize(&mut reader).map_err(|e| {
        let inner = e.inner();
        let what: String = inner.to_string().chars().take(160).collect();
        ValidationError(vec![FieldError {
            field: e.path().to_string(),
            message: fact!("line-of-file", line = inner.line(), what = what),
        }])
    })?;
    let letters = kept.name.chars().count();
    if kept.name.trim().is_empty() || letters > 80 {
        return Err(ValidationError::one(
            "name",
            fact!("file-name", letters = letters),
        ));
    }
    if kept.why.chars().count() > 1000 {
        return Err(ValidationError::one("why", fact!("file-why")));
    }
    kept.formula.check().map_err(|r| r.below("formula"))?;
    Ok(kept)
}
