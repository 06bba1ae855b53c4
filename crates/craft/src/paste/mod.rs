//! Paste: a recipe as text, read into a formula to check beside it.
//!
//! Question: what does this recipe weigh, and what are its true percentages? Input: free text or lines, English or
//! Italian, in grams, kilos, ounces, pounds, litres, cups, spoons, fractions, ranges. Output: every line with what
//! was read from it (or that nothing was), and a formula. Nothing is dropped silently. Volumes become weights by
//! stated densities and are marked rough. Limits: it knows the words of `words`; what it does not know it shows.
//!
//! | module | answers |
//! |---|---|
//! | `amount` | "1 1/2 cups", "2-3 g", "¾ tsp" |
//! | `words` | which ingredient a phrase names |
//! | `line` | the items of a line |
//! | `compose` | the formula of all items |

mod amount;
mod compose;
mod line;
mod words;

use crate::fact;
use crate::fact::{Fact, Value};
pub use words::PastedKind;

use crate::formula::Formula;
use crate::refusal::ValidationError;
use crate::style::Style;
use serde::{Deserialize, Serialize};

/// A text longer than this is not a recipe.
pub const MOST_LETTERS: usize = 20_000;
/// More lines than any recipe has.
const MOST_LINES: usize = 400;

/// The part of the recipe that a line belongs to.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Section {
    /// The dough itself.
    #[default]
    Dough,
    /// A poolish.
    Poolish,
    /// A biga.
    Biga,
    /// A levain.
    Levain,
    /// Another preferment.
    Preferment,
    /// What goes on it.
    Topping,
}

/// One ingredient that was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PastedItem {
    /// Under which heading it stood.
    pub section: Section,
    /// What it is.
    pub what: PastedKind,
    /// The words that named it.
    pub name: String,
    /// Grams; of a recipe in percentages, percent of the flour.
    pub grams: f64,
    /// Whether `grams` is a percentage.
    pub is_percent: bool,
    /// From a volume, a range or a pinch.
    pub rough: bool,
    /// How the weight was found: "1.5 cups × 240 ml × 0.53 g/ml".
    pub how: String,
    /// W, where the words say it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub w: Option<f64>,
}

/// What became of a line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Status {
    /// Read.
    Read,
    /// Read, but from a volume, a range or a pinch.
    Rough,
    /// A heading.
    Heading,
    /// How to do it; nothing to weigh.
    Method,
    /// Something to weigh, perhaps, that was not understood.
    Unread,
    /// Nothing stands there.
    Blank,
}

/// One line of the text.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Line {
    /// As it was pasted.
    pub text: String,
    /// How well it was understood.
    pub status: Status,
    /// What was read of it.
    pub items: Vec<PastedItem>,
    /// Parts that name something to weigh and were not read: "1 egg", "a drizzle of oil".
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub unread: Vec<String>,
    /// Hours in the fridge that it speaks of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cold_h: Option<f64>,
}

/// How many pieces the text speaks of, and how heavy.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Makes {
    /// So many pieces, where it says so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<u32>,
    /// How heavy one is, g, where it says so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub piece_g: Option<f64>,
}

/// A recipe as it was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Pasted {
    /// Line by line.
    pub lines: Vec<Line>,
    /// What it makes.
    pub makes: Makes,
    /// To check beside the text before it is kept.
    pub formula: Formula,
    /// What the reader should look at, in sentences.
    pub doubts: Vec<Fact>,
}

/// A recipe to read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PasteRequest {
    /// Up to 20,000 letters.
    pub text: String,
    /// What the text does not say is taken from here.
    #[serde(deserialize_with = "crate::style::named_or_whole")]
    #[cfg_attr(feature = "schema", schemars(with = "crate::style::NamedOrWhole"))]
    pub style: Style,
}

/// Reads the lines of a text; never fails, whatever the text.
pub fn read_lines(text: &str) -> (Vec<Line>, Makes) {
    let mut reader = line::RecipeReader::default();
    let lines = text
        .lines()
        .take(MOST_LINES)
        .map(|l| reader.line(l))
        .collect();
    (lines, reader.makes)
}

/// Reads a recipe.
///
/// Errors: [`ValidationError`] at `text` when there is no flour in it, or what it says makes no dough.
///
/// ```
/// use craft::paste::{PasteRequest, read};
///
/// let text = "500 g strong flour\n325 g water\n10 g salt\n2 g instant yeast\nMakes 3 balls of 270 g";
/// let style = craft::style::by_key("home_round").unwrap().clone();
/// let pasted = read(&PasteRequest { text: text.into(), style }).unwrap();
/// assert_eq!(pasted.formula.hydration_percent, 65.0);
/// assert_eq!(pasted.makes.count, Some(3));
/// ```
pub fn read(r: &PasteRequest) -> Result<Pasted, ValidationError> {
    let letters = r.text.chars().count();
    if letters > MOST_LETTERS {
        return Err(ValidationError::one(
            "text",
            fact!("paste-too-long", most = 20_000, letters = letters),
        ));
    }
    if r.text.trim().is_empty() {
        return Err(ValidationError::one("text", fact!("paste-empty")));
    }
    let (lines, makes) = read_lines(&r.text);
    let (formula, doubts) = compose::formula(&lines, makes, &r.style)?;
    formula.check().map_err(|ValidationError(errors)| {
        let said: Vec<Fact> = errors.into_iter().map(|e| e.message).collect();
        ValidationError::one(
            "text",
            fact!("makes-no-dough", why = Value::Sentences(said)),
        )
    })?;
    Ok(Pasted {
        lines,
        makes,
        formula,
        doubts,
    })
}

#[cfg(test)]
mod tests;
