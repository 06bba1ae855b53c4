//! Heat through floor, pan, dough and topping: one column of cells, stepped through time.
//!
//! Source: bake model, sections 1, 3, 5 and 6. Implicit Euler, coefficients of the step before; per area (J/m²K,
//! kg/m²), temperatures in °C. The columns of a bake (middle, rim, far rim) exchange nothing.

mod cells;
mod column;
mod slab;
mod surround;
mod table;

pub(crate) use cells::Cells;
pub use cells::Fineness;
pub(crate) use column::HeatColumn;
pub(crate) use slab::{Side, Slab, at_depth};
pub(crate) use surround::{EPS_CAVITY, EPS_FOOD, SIGMA, Sky, Surround, kelvin, radiative};
pub(crate) use table::{browning_rate, charring_rate, cheese_rate, dryness_gate};

#[cfg(test)]
mod tests;
