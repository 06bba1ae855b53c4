//! A dough that was in the bowl before anybody entered it: what is entered for it when it is kept.

use craft::reading::Subject;
use craft::sheet::{Begun, SheetResult};
use store::entry::{NewEntry, Seen};
use uuid::Uuid;

/// Its steps until then, and its temperature off the mixer where that was said, °C.
pub fn already(
    form_key: Uuid,
    (begun, dough_c): &(Begun, Option<f64>),
    result: &SheetResult,
) -> Vec<NewEntry> {
    let steps = begun.past(result).into_iter();
    let steps = steps.map(|p| (p.at, Seen::step(p.number, p.said)));
    let off_the_mixer = dough_c.iter().map(|c| {
        let seen = Seen::Reading {
            subject: Subject::Dough,
            celsius: *c,
        };
        (begun.mixed_at, seen)
    });
    let entries = steps.chain(off_the_mixer).enumerate();
    entries
        .map(|(i, (at, seen))| NewEntry::of_form(form_key, i, at, seen.into()))
        .collect()
}
