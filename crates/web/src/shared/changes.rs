//! What changed between two formulas, in words.

use crate::shared::kitchen::RequestKitchen;
use craft::formula::diff::Difference;

/// A difference in words; empty where there is none of it.
pub struct SaidChange {
    pub what: String,
    pub before: String,
    pub after: String,
}

/// Differences in words.
pub fn said_changes(changes: Vec<Difference>, here: &RequestKitchen) -> Vec<SaidChange> {
    let one = |c: Difference| SaidChange {
        what: here.say(&c.what),
        before: here.words(&c.before),
        after: here.words(&c.after),
    };
    changes.into_iter().map(one).collect()
}
