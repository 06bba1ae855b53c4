//! Readings: what a thermometer may say of a dough, a place or an oven floor, and what it cannot.

use crate::fact;
use crate::fact::{Fact, Value};
use crate::refusal::FieldError;
use crate::units::{Celsius, TemperatureUnit};
use serde::{Deserialize, Serialize};
use std::ops::RangeInclusive;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A reading says something of now for so long, min: of a floor for the next pizza, of a place on the Bench.
pub const FRESH_MIN: f64 = 15.0;

/// A marked tub can be read at so many times its first volume: less is no growth yet, and no dough grows more.
pub const GROWN: RangeInclusive<f64> = 1.05..=4.0;

/// What a temperature was read of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Subject {
    /// The dough.
    Dough,
    /// The room.
    Room,
    /// The fridge.
    Fridge,
    /// The water that is poured.
    Water,
    /// The oven's floor.
    Floor,
    /// The oven's dome.
    Dome,
}

impl Subject {
    /// The word for it.
    pub fn name(self) -> Fact {
        match self {
            Subject::Dough => fact!("reading-dough"),
            Subject::Room => fact!("reading-room"),
            Subject::Fridge => fact!("reading-fridge"),
            Subject::Water => fact!("reading-water"),
            Subject::Floor => fact!("reading-floor"),
            Subject::Dome => fact!("reading-dome"),
        }
    }
    /// Temperatures that can be, °C.
    fn range_c(self) -> (f64, f64) {
        match self {
            Subject::Dough => (-5.0, 46.0),
            Subject::Room => (-25.0, 55.0),
            Subject::Fridge => (-10.0, 25.0),
            Subject::Water => (0.0, 100.0),
            Subject::Floor => (-20.0, 650.0),
            Subject::Dome => (-20.0, 750.0),
        }
    }

    /// What was meant when a number fits only in the other unit: the reading in this one, to a degree.
    pub fn meant(self, value: f64, unit: TemperatureUnit) -> Option<f64> {
        let other = match unit {
            TemperatureUnit::Celsius => TemperatureUnit::Fahrenheit,
            TemperatureUnit::Fahrenheit => TemperatureUnit::Celsius,
        };
        let (low, high) = self.range_c();
        let fits = |c: f64| (low..=high).contains(&c);
        let meant = Celsius::from_reading(value, other);
        let wrong_here = !fits(Celsius::from_reading(value, unit).0);
        (value.is_finite() && wrong_here && fits(meant.0)).then(|| meant.reads(unit).round())
    }

    /// Takes a number read in a unit; refuses what cannot be, and offers the other unit where that fits.
    pub fn take(self, value: f64, unit: TemperatureUnit) -> Result<Celsius, FieldError> {
        taken(self.name(), self.range_c(), value, unit)
    }
}

/// Takes a number read in a unit of something that can be so warm; refuses what cannot be, and offers the other unit where
/// that fits.
pub(crate) fn taken(
    name: Fact,
    (low, high): (f64, f64),
    value: f64,
    unit: TemperatureUnit,
) -> Result<Celsius, FieldError> {
    let fits = |c: Celsius| (low..=high).contains(&c.0);
    let read = Celsius::from_reading(value, unit);
    if value.is_finite() && fits(read) {
        return Ok(read);
    }
    let other = match unit {
        TemperatureUnit::Celsius => TemperatureUnit::Fahrenheit,
        TemperatureUnit::Fahrenheit => TemperatureUnit::Celsius,
    };
    let meant = Celsius::from_reading(value, other);
    let range = Value::Range(
        Box::new(Value::Celsius(low)),
        Box::new(Value::Celsius(high)),
    );
    let refused = |message: Fact| {
        Err(FieldError {
            field: "degrees".into(),
            message,
        })
    };
    if !value.is_finite() {
        return refused(fact!("must-be-a-number", what = name));
    }
    if !fits(meant) {
        let read = Celsius(fact::tenth(read.0));
        return refused(fact!(
            "outside-range",
            what = name,
            range = range,
            value = read
        ));
    }
    let (what, meant) = (name, Celsius(fact::tenth(meant.0)));
    refused(match other {
        TemperatureUnit::Fahrenheit => fact!(
            "reading-in-fahrenheit",
            what = what,
            range = range,
            read = value,
            meant = meant
        ),
        TemperatureUnit::Celsius => fact!(
            "reading-in-celsius",
            what = what,
            range = range,
            read = value,
            meant = meant
        ),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_cannot_be_is_refused_and_the_other_unit_offered() {
        let c = TemperatureUnit::Celsius;
        assert_eq!(Subject::Dough.take(23.4, c), Ok(Celsius(23.4)));
        assert_eq!(
            Subject::Dough.take(75.0, c).unwrap_err().message.brief(),
            "reading-in-fahrenheit(meant=23.9°C, range=-5°C..46°C, read=75, what=reading-dough)"
        );
        assert_eq!(
            Subject::Floor.take(1200.0, c).unwrap_err().message.brief(),
            "reading-in-fahrenheit(meant=648.9°C, range=-20°C..650°C, read=1200, what=reading-floor)"
        );
        assert_eq!(
            Subject::Floor.take(-40.0, c).unwrap_err().message.brief(),
            "outside-range(range=-20°C..650°C, value=-40°C, what=reading-floor)"
        );
        assert_eq!(Subject::Floor.meant(750.0, c), Some(399.0));
        assert_eq!(Subject::Floor.meant(420.0, c), None);
        assert_eq!(Subject::Floor.meant(-400.0, c), None);
        assert!(Subject::Room.take(f64::NAN, c).is_err());
        assert_eq!(
            Subject::Room
                .take(68.0, TemperatureUnit::Fahrenheit)
                .unwrap()
                .0
                .round(),
            20.0
        );
    }
}
