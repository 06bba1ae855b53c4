//! A dough in its tray or pan: oil, then out to the corners in as many stretches as it takes, with a rest under the lid between.
//!
//! Source: mixing and shaping, section 11. The film of oil is assumed: what covers floor and wall and leaves no pool.

use crate::fact;
use crate::fact::Fact;
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A tray's dough that does not go further rests for so long under its lid: from, to, min.
pub const TRAY_RESTS_MIN: (i64, i64) = (15, 20);
/// Oil on a tray, mm, and its density, g/cm³ (assumed; textbook).
const FILM_MM: f64 = 0.15;
const OIL_G_PER_CM3: f64 = 0.92;

/// What is done to a dough in its tray.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum TrayWork {
    /// The tray is oiled.
    Oiled,
    /// Stretched as far as it goes.
    Stretched,
    /// It reaches the corners.
    Corners,
}

impl TrayWork {
    /// What is said of a tray.
    pub fn name(self) -> Fact {
        match self {
            TrayWork::Oiled => fact!("tray-oiled"),
            TrayWork::Stretched => fact!("tray-stretched"),
            TrayWork::Corners => fact!("tray-corners"),
        }
    }
}

/// Where the dough of one tray stands.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct TrayStand {
    /// Whether the tray is oiled.
    pub oiled: bool,
    /// So often it was stretched.
    pub stretched: usize,
    /// It rests under its lid: go on from, and until.
    pub rests: Option<(Timestamp, Timestamp)>,
    /// When it reached the corners.
    pub corners_at: Option<Timestamp>,
}

impl TrayStand {
    /// The stand after what was done, in the order of the clock.
    pub fn of(work: &[(Timestamp, TrayWork)]) -> TrayStand {
        let mut out = TrayStand::default();
        for (at, did) in work {
            match did {
                TrayWork::Oiled => out.oiled = true,
                TrayWork::Stretched => {
                    let after = |min| *at + SignedDuration::from_mins(min);
                    out.stretched += 1;
                    out.rests = Some((after(TRAY_RESTS_MIN.0), after(TRAY_RESTS_MIN.1)));
                }
                TrayWork::Corners => {
                    out.rests = None;
                    out.corners_at = out.corners_at.or(Some(*at));
                }
            }
        }
        out
    }
}

/// Oil for a tray of such an area, g: floor and wall.
pub fn tray_oil_g(area_cm2: f64) -> f64 {
    FILM_MM / 10.0 * area_cm2 * OIL_G_PER_CM3
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_tray_rests_after_each_stretch_until_it_reaches_the_corners() {
        let at = |min: i64| Timestamp::UNIX_EPOCH + SignedDuration::from_mins(min);
        let mut work = vec![(at(0), TrayWork::Oiled), (at(5), TrayWork::Stretched)];
        let s = TrayStand::of(&work);
        assert!(s.oiled && s.corners_at.is_none());
        assert_eq!(s.rests, Some((at(20), at(25))));
        work.push((at(22), TrayWork::Stretched));
        assert_eq!(TrayStand::of(&work).rests, Some((at(37), at(42))));
        work.push((at(40), TrayWork::Corners));
        let s = TrayStand::of(&work);
        assert_eq!(
            (s.rests, s.stretched, s.corners_at),
            (None, 2, Some(at(40)))
        );
    }

    #[test]
    fn oil_goes_with_the_area() {
        let home = tray_oil_g(26.0 * 36.0);
        // About a spoon for a home tray; twice the area takes twice the oil.
        assert!((12.0..=14.0).contains(&home), "{home}");
        assert!((tray_oil_g(2.0 * 26.0 * 36.0) - 2.0 * home).abs() < 1e-9);
    }
}
