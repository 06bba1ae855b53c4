//! How water of a temperature is made of what a kitchen has: tap, kettle, fridge, ice.
//!
//! Source: mixing and shaping, section 3 (heat balances of water and ice, textbook).

use crate::mix::balance::{C_WATER, COLDEST_WATER_C, HOTTEST_WATER_C, MELTING};
use serde::{Deserialize, Serialize};

/// More of the water than this is never ice.
const MOST_ICE: f64 = 0.6;

/// What a kitchen has to make water of.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BlendFrom {
    /// The tap, °C.
    pub tap_c: f64,
    /// The kettle, °C; none where there is none.
    #[serde(default)]
    pub kettle_c: Option<f64>,
    /// Water from the fridge, °C; none where there is none.
    #[serde(default)]
    pub fridge_c: Option<f64>,
    /// Whether crushed ice goes into the bowl: a machine takes it, hands do not.
    pub ice_in_bowl: bool,
}

/// Water of a temperature: what to put together.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Blended {
    /// What it comes to, °C: what was asked, or the nearest that can be had.
    pub at_c: f64,
    /// From the tap, g.
    pub tap_g: f64,
    /// From the kettle, g.
    pub kettle_g: f64,
    /// From the fridge, g.
    pub fridge_g: f64,
    /// Ice stirred into the water until it has melted, g.
    pub ice_in_tap_g: f64,
    /// Crushed ice into the bowl, g.
    pub ice_g: f64,
    /// What the water is poured at, °C: with ice in the bowl, warmer than what it comes to.
    pub pour_c: f64,
    /// Whether it comes to what was asked.
    pub reached: bool,
}

/// What to put together for `weight_g` of water at `at_c`.
///
/// ```
/// use craft::mix::{BlendFrom, blend};
///
/// let kitchen = BlendFrom { tap_c: 14.0, kettle_c: Some(96.0), fridge_c: None, ice_in_bowl: true };
/// let b = blend(620.0, 23.5, &kitchen);
/// assert!((b.kettle_g + b.tap_g - 620.0).abs() < 1e-9 && b.reached);
/// assert_eq!(b.kettle_g.round(), 72.0);
/// ```
pub fn blend(weight_g: f64, at_c: f64, from: &BlendFrom) -> Blended {
    let m = weight_g;
    let tap = from.tap_c;
    let asked = at_c;
    let mut out = Blended {
        at_c,
        pour_c: at_c,
        reached: true,
        ..Blended::default()
    };
    if asked > HOTTEST_WATER_C {
        (out.at_c, out.pour_c, out.reached) = (HOTTEST_WATER_C, HOTTEST_WATER_C, false);
    } else if asked < COLDEST_WATER_C && !from.ice_in_bowl {
        // By hand nothing melts the ice: as cold as water comes.
        (out.at_c, out.pour_c, out.reached) = (COLDEST_WATER_C, COLDEST_WATER_C, false);
    }
    let x = out.at_c;
    if x >= tap {
        match from.kettle_c {
            Some(kettle) if kettle > x => {
                out.kettle_g = m * (x - tap) / (kettle - tap);
                out.tap_g = m - out.kettle_g;
            }
            // Without a kettle the warm tap is run until it has that temperature.
            _ => out.tap_g = m,
        }
    } else if let Some(fridge) = from.fridge_c.filter(|&f| f <= x && f < tap) {
        out.fridge_g = m * (tap - x) / (tap - fridge);
        out.tap_g = m - out.fridge_g;
    } else if x >= COLDEST_WATER_C {
        out.ice_in_tap_g = m * C_WATER * (tap - x) / (C_WATER * tap + MELTING);
        out.tap_g = m - out.ice_in_tap_g;
    } else {
        let pour = tap.max(COLDEST_WATER_C);
        let ice = m * C_WATER * (pour - x) / (C_WATER * pour + MELTING);
        out.ice_g = ice.min(MOST_ICE * m);
        out.tap_g = m - out.ice_g;
        out.pour_c = pour;
        if ice > out.ice_g {
            out.reached = false;
            out.at_c = pour - out.ice_g * (C_WATER * pour + MELTING) / (m * C_WATER);
        }
    }
    out
}

/// What mends water that was measured too cold or too warm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Mend {
    /// It is right within a tenth of a degree.
    Right,
    /// Take so much out and put it back from the kettle, g.
    FromKettle(f64),
    /// Take so much out and put it back cold, g, at °C.
    FromCold(f64, f64),
    /// Take so much out and put ice in its place, g.
    WithIce(f64),
    /// Nothing at hand warms it: run the warm tap.
    FromWarmTap,
}

/// What mends `weight_g` of water that was to be `wanted_c` and measures `measured_c`.
pub fn mend(weight_g: f64, wanted_c: f64, measured_c: f64, from: &BlendFrom) -> Mend {
    let (m, x, y) = (weight_g, wanted_c, measured_c);
    if (x - y).abs() < 0.1 {
        return Mend::Right;
    }
    if y < x {
        return match from.kettle_c {
            Some(kettle) if kettle > x => Mend::FromKettle(m * (x - y) / (kettle - y)),
            _ => Mend::FromWarmTap,
        };
    }
    let cold = [from.fridge_c, Some(from.tap_c)];
    let cold = cold.into_iter().flatten().filter(|&c| c < x);
    match cold.reduce(f64::min) {
        Some(cold) => Mend::FromCold(m * (y - x) / (y - cold), cold),
        None => Mend::WithIce(m * C_WATER * (y - x) / (C_WATER * y + MELTING)),
    }
}
