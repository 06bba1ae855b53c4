//! How a kitchen departs from the book, as far as a run must know it beside its request. Source: learning, section 2.1.

/// What the rates of a run are multiplied by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Departure {
    /// Growth of yeast and leaven, as a factor.
    pub growth: f64,
    /// Gas in the cold, as the logarithm of a factor.
    pub cold: f64,
}

impl Departure {
    /// None.
    pub const BOOK: Departure = Departure {
        growth: 1.0,
        cold: 0.0,
    };
}
