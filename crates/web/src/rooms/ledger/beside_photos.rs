//! The photos of bakes that stand side by side: a row for each side of which one of them has any.

use crate::batch::photos::{href, latest};
use crate::batch::record::BatchRecord;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::say;
use craft::keyed::Keyed;
use craft::photo::PhotoOf;

/// A photo in its column, with what it shows.
pub struct BesideShot {
    pub whole: String,
    pub small: String,
    pub alt: String,
}

/// The latest photo of a side, of each bake that has one.
pub struct BesidePhotos {
    pub name: String,
    pub cells: Vec<Option<BesideShot>>,
}

/// The sides of which one of them has a photo.
pub fn photos(all: &[BatchRecord], here: &RequestKitchen) -> Vec<BesidePhotos> {
    let row = |of: PhotoOf| {
        let name = here.words(&of.name());
        let shot = |t: &BatchRecord| {
            let (n, o) = latest(t, of)?;
            let whole = href(&t.batch.code, o.key);
            Some(BesideShot {
                small: format!("{whole}?small=1"),
                alt: say!("ledger-beside-photo", of = name, n = n, code = t.batch.code),
                whole,
            })
        };
        let cells: Vec<_> = all.iter().map(shot).collect();
        cells
            .iter()
            .any(Option::is_some)
            .then_some(BesidePhotos { name, cells })
    };
    PhotoOf::ALL.iter().filter_map(|of| row(*of)).collect()
}
