//! A judgement in words.

use crate::reader::Reader;
use craft::note::{Level, Note, Remedy};

/// A judgement as a page shows it.
#[derive(Debug, Clone, PartialEq)]
pub struct Judgement {
    pub code: String,
    pub level: Level,
    pub what: String,
    pub why: String,
    pub todo: Option<String>,
    pub remedy: Option<Button>,
}

/// A change of one field, as its button says it.
#[derive(Debug, Clone, PartialEq)]
pub struct Button {
    pub say: String,
    pub field: String,
    pub value: f64,
}

impl Reader<'_> {
    /// A judgement in words.
    pub fn judgement(&self, n: &Note) -> Judgement {
        Judgement {
            code: n.code.clone(),
            level: n.level,
            what: self.say(&n.what),
            why: self.say(&n.why),
            todo: n.todo.as_ref().map(|t| self.say(t)),
            remedy: n.remedy.as_ref().map(|r: &Remedy| Button {
                say: self.say(&r.say),
                field: r.field.clone(),
                value: r.value,
            }),
        }
    }
    /// Judgements in words, in their order.
    pub fn judgements<'n>(&self, notes: impl IntoIterator<Item = &'n Note>) -> Vec<Judgement> {
        notes.into_iter().map(|n| self.judgement(n)).collect()
    }
}
