//! How a kitchen departs from the book, as far as a run must know it beside its request. Source: learning, section 2.1.

/// What the rates of a run are multiplied by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Departure {
    /// Growth of yeast and leaven, as a factor.
    pub growth: f64,
    /// Gas in the cold, as the logarithm of a factor.
    pub cold: f64,
    /// Gas lost through the skin, as a factor. Nothing that a maker taps tells it: learning leaves it as it is.
    pub skin: f64,
    /// By how much the coldest temperature at which yeast makes gas is higher, K. The same holds for it.
    pub gas_from_k: f64,
}

impl Departure {
    /// None.
    pub const BOOK: Departure = Departure {
        growth: 1.0,
        cold: 0.0,
        skin: 1.0,
        gas_from_k: 0.0,
    };
}
