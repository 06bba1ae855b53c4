//! Photos of a pizza: which side each shows, how large it is kept, how many of one batch.
//!
//! Question: what may a kitchen keep of what a camera saw? Pictures are made small in the browser; the limits are the product's own: at the longest
//! side of a tablet's screen a crumb can be judged, and a batch with all its photos stays a few MB.

use crate::entry;
use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a photo shows.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Hash,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum PhotoOf {
    /// The underside.
    Base,
    /// The edge, from above or the side.
    Rim,
    /// A cut through it.
    Crumb,
}

impl PhotoOf {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            PhotoOf::Base => fact!("photo-base"),
            PhotoOf::Rim => fact!("photo-rim"),
            PhotoOf::Crumb => fact!("photo-crumb"),
        }
    }
}

/// The longer side of a kept photo, pixels.
pub const LONGEST_SIDE: u32 = 1280;
/// The longer side of the small one that lists show, pixels.
pub const SMALL_SIDE: u32 = 320;
/// What is sent may be so large, bytes; a browser makes it so.
pub const MOST_SENT: usize = 240 * 1000;
/// A side of what is sent may have so many pixels: a small file can hold a huge picture.
pub const MOST_SENT_SIDE: u32 = 8_000;
/// A file that is chosen may be so large, bytes: a browser on a phone has little memory to open it in.
pub const MOST_CHOSEN: u64 = 40_000_000;
/// Photos of one batch, those taken back with them.
pub const MOST_OF_BATCH: usize = 200;

/// Why a photo is not kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PhotoRefused {
    /// Nothing was chosen.
    None,
    /// It is no picture that can be read.
    NoPicture,
    /// So many bytes are too many to send.
    TooLarge,
    /// There are so many of this batch.
    TooMany,
    /// It does not say of which side it is.
    OfWhat,
    /// The batch has so many pizzas, and this is none of them.
    NoSuchPizza(u32),
}

impl PhotoRefused {
    /// What to say of it.
    pub fn fact(self) -> Fact {
        match self {
            PhotoRefused::None => fact!("photo-none"),
            PhotoRefused::NoPicture => fact!("photo-no-picture"),
            PhotoRefused::TooLarge => fact!("photo-too-large", kb = MOST_SENT / 1000),
            PhotoRefused::TooMany => fact!("photo-too-many", n = MOST_OF_BATCH),
            PhotoRefused::OfWhat => fact!("photo-of-what"),
            PhotoRefused::NoSuchPizza(pieces) => fact!("photo-no-such-pizza", n = pieces),
        }
    }
}

/// Whether one more photo fits beside so many of a batch, of this pizza of so many pieces.
///
/// Errors: the reason, in a sentence.
pub fn one_more(photos: usize, pieces: u32, pizza: u32) -> Result<(), PhotoRefused> {
    entry::of_a_run(pizza, pieces).map_err(|_| PhotoRefused::NoSuchPizza(pieces))?;
    match photos >= MOST_OF_BATCH {
        true => Err(PhotoRefused::TooMany),
        false => Ok(()),
    }
}

/// How large a picture is drawn so that its longer side is `longest`, pixels; one that is smaller stays as it is.
///
/// ```
/// assert_eq!(craft::photo::fit((4000, 3000), 1280), (1280, 960));
/// assert_eq!(craft::photo::fit((600, 800), 1280), (600, 800));
/// ```
pub fn fit((width, height): (u32, u32), longest: u32) -> (u32, u32) {
    let long = width.max(height);
    if long <= longest {
        return (width.max(1), height.max(1));
    }
    let scaled = |side: u32| {
        let s = f64::from(side) * f64::from(longest) / f64::from(long);
        (s.round() as u32).max(1)
    };
    (scaled(width), scaled(height))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_batch_keeps_so_many_photos_of_pizzas_that_it_can_have() {
        assert_eq!(one_more(0, 6, 6), Ok(()));
        assert_eq!(one_more(0, 6, 0), Err(PhotoRefused::NoSuchPizza(6)));
        assert_eq!(one_more(0, 6, 999), Err(PhotoRefused::NoSuchPizza(6)));
        assert_eq!(one_more(MOST_OF_BATCH - 1, 6, 1), Ok(()));
        assert_eq!(one_more(MOST_OF_BATCH, 6, 1), Err(PhotoRefused::TooMany));
    }

    proptest! {
        #[test]
        fn a_picture_keeps_its_shape_and_fits(w in 1u32..9_000, h in 1u32..9_000, to in 1u32..2_000) {
            let (x, y) = fit((w, h), to);
            prop_assert!(x >= 1 && y >= 1 && x.max(y) <= to.max(w.max(h).min(to)));
            // Within a pixel of the same shape.
            let off = f64::from(x) * f64::from(h) - f64::from(y) * f64::from(w);
            prop_assert!(off.abs() <= f64::from(w.max(h)) + 1.0 || x == 1 || y == 1, "{x}×{y} of {w}×{h}");
        }
    }
}
