//! The leaves of the first start, in their order.

use crate::shared::form::FormData;
use crate::shared::tongue::phrase;
use craft::keyed::Keyed;
use strum::{EnumString, IntoStaticStr, VariantArray};

#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, EnumString, IntoStaticStr, VariantArray,
)]
#[strum(serialize_all = "snake_case")]
pub enum Leaf {
    You,
    BakesIn,
    Has,
    Hours,
    Likes,
    Plan,
}

impl Leaf {
    /// The leaf that a form stands on.
    pub fn of(typed: &FormData) -> Leaf {
        Leaf::from_key(typed.text("leaf")).unwrap_or(Leaf::You)
    }
    pub fn name(self) -> &'static str {
        match self {
            Leaf::You => phrase("begin-you"),
            Leaf::BakesIn => phrase("begin-what-you-bake-in"),
            Leaf::Has => phrase("begin-what-you-have"),
            Leaf::Hours => phrase("begin-your-hours"),
            Leaf::Likes => phrase("begin-what-you-like"),
            Leaf::Plan => phrase("begin-first-plan"),
        }
    }
    /// The leaf that a button leads to: the next one, the one before, or one by its key.
    pub fn turned(self, go: &str) -> Leaf {
        let at = self as usize;
        let to = match go {
            "next" | "skip" => at + 1,
            "back" => at.saturating_sub(1),
            key => Leaf::from_key(key).map_or(at, |l| l as usize),
        };
        *Leaf::ALL.get(to).unwrap_or(&Leaf::Plan)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn leaves_turn_both_ways_and_end_at_the_plan() {
        assert_eq!(Leaf::You.turned("back"), Leaf::You);
        assert_eq!(Leaf::You.turned("next"), Leaf::BakesIn);
        assert_eq!(Leaf::Likes.turned("skip"), Leaf::Plan);
        assert_eq!(Leaf::Plan.turned("next"), Leaf::Plan);
        assert_eq!(Leaf::Plan.turned("hours"), Leaf::Hours);
        assert_eq!(Leaf::Hours.turned("nonsense"), Leaf::Hours);
    }
}
