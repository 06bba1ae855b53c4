//! How a kitchen reads clock and thermometer: judgements name figures that somebody acts on with one in hand.

use crate::units::{Celsius, TemperatureUnit};
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// The clock and the thermometer of a kitchen.
#[derive(Debug, Clone, Copy)]
pub struct Says<'a> {
    pub zone: &'a TimeZone,
    pub unit: TemperatureUnit,
}

impl Says<'_> {
    /// "19:26".
    pub fn hm(&self, t: Timestamp) -> String {
        t.to_zoned(self.zone.clone()).strftime("%H:%M").to_string()
    }
    /// "411°", on this kitchen's thermometer.
    pub fn degrees(&self, c: f64) -> String {
        format!("{:.0}°", Celsius(c).reads(self.unit))
    }
    /// "420 to 460°".
    pub fn band(&self, (low, high): (f64, f64)) -> String {
        format!(
            "{:.0} to {}",
            Celsius(low).reads(self.unit),
            self.degrees(high)
        )
    }
    /// A difference of temperatures, "9°".
    pub fn by(&self, kelvin: f64) -> String {
        let steps = match self.unit {
            TemperatureUnit::Celsius => kelvin,
            TemperatureUnit::Fahrenheit => 1.8 * kelvin,
        };
        format!("{steps:.0}°")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_same_floor_on_two_thermometers() {
        let zone = TimeZone::UTC;
        let says = |unit| Says { zone: &zone, unit };
        let (c, f) = (
            says(TemperatureUnit::Celsius),
            says(TemperatureUnit::Fahrenheit),
        );
        assert_eq!((c.degrees(411.0), c.by(9.0)), ("411°".into(), "9°".into()));
        assert_eq!(
            (f.degrees(411.0), f.by(10.0)),
            ("772°".into(), "18°".into())
        );
        assert_eq!(f.band((420.0, 460.0)), "788 to 860°");
    }
}
