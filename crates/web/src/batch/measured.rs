//! What was measured, as it is kept: of a place that the kitchen named, of a marked tub.

use crate::shared::form::one_line;
use crate::shared::tongue::phrase;
use craft::reading::GROWN;
use store::entry::Seen;

/// A place's name may be so long; the database column holds as much.
const LONGEST_PLACE: usize = 80;

/// A place of the kitchen's own, read at a temperature.
///
/// Errors: a sentence for a name that is none.
pub fn place(name: &str, celsius: f64) -> Result<Seen, String> {
    let name = one_line(name);
    if name.is_empty() || name.chars().count() > LONGEST_PLACE {
        return Err(phrase("batch-choose-what-you-measured").into());
    }
    Ok(Seen::PlaceRead { name, celsius })
}

/// A tub that stands at so many times its first volume.
///
/// Errors: a sentence for what no tub shows.
pub fn grown(times: f64) -> Result<Seen, String> {
    match GROWN.contains(&times) {
        true => Ok(Seen::Grown { times }),
        false => Err(phrase("batch-how-many-times-its-first").into()),
    }
}
