//! Notes: every judgement the product makes, with its reason.

use crate::fact::Fact;
use serde::{Deserialize, Serialize};

/// How urgent a note is. Ordered: `Act` first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// The plan fails unless something is changed.
    Act,
    /// It may go wrong; keep an eye on it.
    Watch,
    /// It is as it should be.
    Holds,
}

/// A change of one field that answers the note.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Remedy {
    /// What the button says: "Set 0.3 %".
    pub say: Fact,
    /// The request field that it changes.
    pub field: String,
    /// The value it sets, in the field's own unit.
    pub value: f64,
}

/// One judgement: what, why in one line, and what to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Note {
    /// A stable name of the judgement, for programs.
    pub code: String,
    /// How grave it is.
    pub level: Level,
    /// One short sentence.
    pub what: Fact,
    /// The reason in one line.
    pub why: Fact,
    /// What to do, where there is something to do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub todo: Option<Fact>,
    /// A change of one field that does it, where one field is enough.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub remedy: Option<Remedy>,
}

impl Note {
    fn new(level: Level, code: &str, what: impl Into<Fact>, why: impl Into<Fact>) -> Self {
        Note {
            code: code.into(),
            level,
            what: what.into(),
            why: why.into(),
            todo: None,
            remedy: None,
        }
    }
    /// Something must be done.
    pub fn act(code: &str, what: impl Into<Fact>, why: impl Into<Fact>) -> Self {
        Note::new(Level::Act, code, what, why)
    }
    /// Something to keep an eye on.
    pub fn watch(code: &str, what: impl Into<Fact>, why: impl Into<Fact>) -> Self {
        Note::new(Level::Watch, code, what, why)
    }
    /// Something that is as it should be.
    pub fn holds(code: &str, what: impl Into<Fact>, why: impl Into<Fact>) -> Self {
        Note::new(Level::Holds, code, what, why)
    }
    /// Says what to do.
    pub fn todo(mut self, todo: impl Into<Fact>) -> Self {
        self.todo = Some(todo.into());
        self
    }
    /// Says what to do by setting one field.
    pub fn remedy(mut self, say: impl Into<Fact>, field: &str, value: f64) -> Self {
        self.remedy = Some(Remedy {
            say: say.into(),
            field: field.into(),
            value,
        });
        self
    }
}

/// Most urgent first; the order within a level is kept.
pub fn by_urgency(mut notes: Vec<Note>) -> Vec<Note> {
    notes.sort_by_key(|n| n.level);
    notes
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_urgent_comes_first_and_equals_keep_their_order() {
        let notes = vec![
            Note::holds("a", Fact::nothing(), Fact::nothing()),
            Note::watch("b", Fact::nothing(), Fact::nothing()),
            Note::act("c", Fact::nothing(), Fact::nothing()),
            Note::watch("d", Fact::nothing(), Fact::nothing()),
        ];
        let codes: Vec<_> = by_urgency(notes).into_iter().map(|n| n.code).collect();
        assert_eq!(codes, ["c", "b", "d", "a"]);
    }
}
