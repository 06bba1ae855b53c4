//! When water boils in a dough: lower with altitude, higher as the dough dries.
//!
//! Source: bake model, section 3. Valid from −400 to 4,500 m.

/// Gas constant of water vapour over heat of vaporisation, 1/K.
pub(crate) const RV_OVER_LV: f64 = 461.5 / LV;
/// Heat of vaporisation, J/kg.
pub(crate) const LV: f64 = 2.26e6;
/// How fast bound water binds harder as a dough dries, kg/kg.
pub(crate) const SORPTION: f64 = 0.06;

/// Air pressure at an altitude in m, Pa.
pub fn pressure_pa(altitude_m: f64) -> f64 {
    101_325.0 * (1.0 - 2.25577e-5 * altitude_m).powf(5.25588)
}

/// Where free water boils at an altitude in m, °C.
pub fn boiling_c(altitude_m: f64) -> f64 {
    1.0 / (1.0 / 373.15 - RV_OVER_LV * (pressure_pa(altitude_m) / 101_325.0).ln()) - 273.15
}
