//! The photos of a batch, folded from its entries.

use super::record::BatchRecord;
use craft::photo::PhotoOf;
use std::collections::BTreeMap;
use store::entry::{Observation, Seen};
use uuid::Uuid;

/// The photo of each side of each pizza that counts: the last that was not taken back.
pub fn last_of(told: &BatchRecord) -> BTreeMap<(u32, PhotoOf), &Observation> {
    let mut out = BTreeMap::new();
    for o in told.seen() {
        if let Seen::Photo { pizza, of } = o.seen {
            out.insert((pizza, of), o);
        }
    }
    out
}

/// The latest photo of a side, of whichever pizza, and of which.
pub fn latest(told: &BatchRecord, side: PhotoOf) -> Option<(u32, &Observation)> {
    last_of(told)
        .into_iter()
        .filter(|((_, of), _)| *of == side)
        .map(|((pizza, _), o)| (pizza, o))
        .max_by_key(|(_, o)| (o.at, o.id))
}

/// Where a photo is found.
pub fn href(code: &str, entry: Uuid) -> String {
    format!("/batches/{code}/photos/{entry}")
}
