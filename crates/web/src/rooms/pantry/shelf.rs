//! A shelf: how one kind of thing is entered. Its fields by name, and the way from facts to a form and back.

use crate::shared::form::{FieldReader, FormData};
use crate::shared::kitchen::RequestKitchen;
use craft::refusal::ValidationError;
use store::pantry::{Everything, Facts};

/// How a field is entered.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Input {
    Text,
    /// Several lines, as of a file that is pasted.
    Lines,
    Number,
    Date,
    Choice,
}

/// One field.
#[derive(Debug, Clone)]
pub struct Entry {
    pub name: String,
    pub label: String,
    pub small: String,
    pub unit: String,
    pub input: Input,
    pub choices: Vec<(String, String)>,
    /// For those who have measured it: behind "more".
    pub expert: bool,
}

impl Entry {
    /// The same, behind "more".
    pub fn expert(self) -> Entry {
        Entry {
            expert: true,
            ..self
        }
    }
}

fn entry(name: &str, label: &str, small: &str, unit: &str, input: Input) -> Entry {
    Entry {
        name: name.into(),
        label: label.into(),
        small: small.into(),
        unit: unit.into(),
        input,
        choices: vec![],
        expert: false,
    }
}

pub fn text(name: &str, label: &'static str, small: &str) -> Entry {
    entry(name, label, small, "", Input::Text)
}
pub fn lines(name: &str, label: &'static str, small: &str) -> Entry {
    entry(name, label, small, "", Input::Lines)
}
pub fn figure(name: &str, label: &str, small: &str, unit: &str) -> Entry {
    entry(name, label, small, unit, Input::Number)
}
pub fn date(name: &str, label: &'static str) -> Entry {
    entry(name, label, "", "", Input::Date)
}
pub fn choice<N: Into<String>>(
    name: &str,
    label: &'static str,
    choices: impl IntoIterator<Item = (&'static str, N)>,
) -> Entry {
    Entry {
        choices: choices
            .into_iter()
            .map(|(k, n)| (k.to_string(), n.into()))
            .collect(),
        ..entry(name, label, "", "", Input::Choice)
    }
}

/// Something that can be entered.
pub trait Shelf: Facts + Clone {
    const PATH: &'static str;
    const TITLE: &'static str;
    /// What it is used for, in one line.
    const WHY: &'static str;
    /// The name of its list, where it has one.
    const ROWS: &'static str = "none";
    /// What the list is called, what one of it is called, and what is said of an empty one.
    const ROWS_SAID: [&'static str; 3] = ["", "", ""];
    /// Whether the order of the list counts.
    const IN_ORDER: bool = false;

    fn entries(here: &RequestKitchen) -> Vec<Entry>;
    fn row_entries(_: &RequestKitchen) -> Vec<Entry> {
        vec![]
    }
    fn row_names() -> &'static [&'static str] {
        &[]
    }
    /// What a new one starts from.
    fn fresh() -> Self;
    fn write(&self, typed: &mut FormData, here: &RequestKitchen);
    /// `before` is what it was, for what the form does not hold.
    fn read(r: &mut FieldReader, here: &RequestKitchen, before: Option<&Self>) -> Self;
    fn checked(&self) -> Result<(), ValidationError>;
    /// Which item this new one takes the place of: one that stood for it.
    fn replaces(&self, _all: &Everything) -> Option<u64> {
        None
    }
    /// As it is after so much was taken since it was counted, g.
    fn after_use(&self, _taken_g: f64) -> Self {
        self.clone()
    }
}
