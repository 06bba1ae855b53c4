//! From a ball to a disc: grams on a square centimetre, and how thick that is.
//!
//! Thickness takes dough that was pressed flat at 1 g/cm³ (assumed). Source: mixing and shaping, section 11.

use crate::formula::disc_cm2;
use serde::{Deserialize, Serialize};

/// A disc that is opened from a ball.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Disc {
    /// Its area, cm².
    pub area_cm2: f64,
    /// On the whole, g/cm².
    pub g_per_cm2: f64,
    /// In its middle, g/cm².
    pub centre_g_per_cm2: f64,
    /// In its rim, g/cm².
    pub rim_g_per_cm2: f64,
    /// How thick the middle is, mm.
    pub centre_mm: f64,
    /// How thick the rim is, mm.
    pub rim_mm: f64,
}

/// A ball opened to a diameter, with a rim of a width and its share of the dough.
pub fn disc(ball_g: f64, diameter_cm: f64, rim_mm: f64, rim_share: f64) -> Disc {
    let area_cm2 = disc_cm2(diameter_cm);
    let centre = disc_cm2((diameter_cm - 2.0 * rim_mm / 10.0).max(1.0));
    let centre_g_per_cm2 = (1.0 - rim_share) * ball_g / centre;
    let rim_g_per_cm2 = rim_share * ball_g / (area_cm2 - centre).max(1e-9);
    Disc {
        area_cm2,
        g_per_cm2: ball_g / area_cm2,
        centre_g_per_cm2,
        rim_g_per_cm2,
        centre_mm: 10.0 * centre_g_per_cm2,
        rim_mm: 10.0 * rim_g_per_cm2,
    }
}
