//! How a kitchen departs from the book: what a run must know of it beside places and temperatures, which stand in the request.
//!
//! Source: learning, sections 1.1, 2.1 and 2.3. All are logarithms of factors, 0 by the book.

use serde::{Deserialize, Serialize};

/// The departures of one dough.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Departure {
    /// How lively commercial yeast is.
    pub yeast: f64,
    /// How lively a leaven is.
    pub leaven: f64,
    /// Growth of yeast and leaven.
    pub growth: f64,
    /// Gas in the cold.
    pub cold: f64,
    /// How long the gluten lasts.
    pub gluten: f64,
    /// How long a shaped piece takes to relax.
    pub relaxing: f64,
    /// The ripeness at which it is ready as this maker sees it.
    pub ripe: f64,
    /// Gas lost through the skin. Nothing that a maker taps tells it: learning leaves it as it is.
    #[serde(skip)]
    pub(crate) skin: f64,
    /// By how much the coldest temperature at which yeast makes gas is higher, K. The same holds for it.
    #[serde(skip)]
    pub(crate) gas_from_k: f64,
}

impl Departure {
    /// None.
    pub const BOOK: Departure = Departure {
        yeast: 0.0,
        leaven: 0.0,
        growth: 0.0,
        cold: 0.0,
        gluten: 0.0,
        relaxing: 0.0,
        ripe: 0.0,
        skin: 0.0,
        gas_from_k: 0.0,
    };

    /// Whether it is the book's.
    pub fn is_book(&self) -> bool {
        *self == Departure::BOOK
    }

    /// That of a preferment: what is ready is said of the dough alone.
    pub fn of_preferment(&self) -> Departure {
        Departure { ripe: 0.0, ..*self }
    }

    /// What is wrong with it: a factor beyond e³ is no kitchen's.
    pub(crate) fn is_sound(&self) -> bool {
        [
            self.yeast,
            self.leaven,
            self.growth,
            self.cold,
            self.gluten,
            self.relaxing,
            self.ripe,
        ]
        .iter()
        .all(|v| v.is_finite() && v.abs() <= 3.0)
    }
}
