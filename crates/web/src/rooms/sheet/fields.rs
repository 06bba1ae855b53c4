//! The number fields of the Dough sheet: what they are called, their units and ranges. Values are typed in
//! the kitchen's units and computed in grams and °C.

use crate::shared::form::Reader;
use crate::shared::kitchen::Here;
use craft::formula::Pieces;
use craft::refusal::plain;
use craft::sheet::SheetRequest;
use craft::style::StyleKey;
use craft::units::{Celsius, Grams, TemperatureUnit};

/// What a field measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Measure {
    Count,
    Percent,
    Weight,
    Temperature,
    Hours,
    Cm,
    PerArea,
    Strength,
}

/// One number field.
pub struct Spec {
    pub name: &'static str,
    pub label: &'static str,
    pub small: &'static str,
    pub measure: Measure,
    pub step: f64,
    pub low: f64,
    pub high: f64,
    pub get: fn(&SheetRequest) -> f64,
}

const fn spec(
    name: &'static str,
    label: &'static str,
    small: &'static str,
    measure: Measure,
    step: f64,
    range: (f64, f64),
    get: fn(&SheetRequest) -> f64,
) -> Spec {
    Spec {
        name,
        label,
        small,
        measure,
        step,
        low: range.0,
        high: range.1,
        get,
    }
}

use Measure::*;

pub const BALLS: [Spec; 2] = [
    spec("count", "Balls", "", Count, 1.0, (1.0, 1000.0), |r| {
        f64::from(r.pieces.count())
    }),
    spec(
        "ball_g",
        "Each",
        "a ball",
        Weight,
        5.0,
        (30.0, 2000.0),
        |r| r.pieces.piece_g(),
    ),
];
pub const TRAYS: [Spec; 4] = [
    spec("count", "Trays", "", Count, 1.0, (1.0, 200.0), |r| {
        f64::from(r.pieces.count())
    }),
    spec("length_cm", "Long", "inside", Cm, 1.0, (8.0, 120.0), |r| {
        tray(r).0
    }),
    spec("width_cm", "Wide", "inside", Cm, 1.0, (8.0, 120.0), |r| {
        tray(r).1
    }),
    spec(
        "dough_g_per_cm2",
        "Thick",
        "dough on it",
        PerArea,
        0.05,
        (0.2, 2.0),
        |r| tray(r).2,
    ),
];
pub const HOURS: [Spec; 3] = [
    spec(
        "bulk_h",
        "Bulk",
        "in the room",
        Hours,
        0.5,
        (0.25, 48.0),
        |r| r.bulk_h,
    ),
    spec(
        "cold_h",
        "Cold",
        "in the fridge",
        Hours,
        1.0,
        (0.0, 168.0),
        |r| r.cold_h,
    ),
    spec(
        "temper_h",
        "Temper",
        "room, to bake",
        Hours,
        0.5,
        (0.5, 24.0),
        |r| r.temper_h,
    ),
];
pub const OF_FLOUR: [Spec; 5] = [
    spec(
        "hydration_percent",
        "Water",
        "",
        Percent,
        0.5,
        (40.0, 130.0),
        |r| r.hydration_percent,
    ),
    spec("salt_percent", "Salt", "", Percent, 0.1, (0.0, 5.0), |r| {
        r.salt_percent
    }),
    spec("oil_percent", "Oil", "", Percent, 0.5, (0.0, 20.0), |r| {
        r.oil_percent
    }),
    spec(
        "sugar_percent",
        "Sugar",
        "",
        Percent,
        0.5,
        (0.0, 20.0),
        |r| r.sugar_percent,
    ),
    spec(
        "flour_w",
        "Flour W",
        "strength",
        Strength,
        10.0,
        (80.0, 450.0),
        |r| r.flour_w,
    ),
];
pub const LOSS: Spec = spec(
    "loss_percent",
    "Loss",
    "bowl, hands",
    Percent,
    0.5,
    (0.0, 10.0),
    |r| r.loss_percent,
);
pub const PLACES: [Spec; 5] = [
    spec("room_c", "Room", "", Temperature, 0.5, (-2.0, 42.0), |r| {
        r.room_c
    }),
    spec(
        "fridge_c",
        "Fridge",
        "measured",
        Temperature,
        0.5,
        (-2.0, 20.0),
        |r| r.fridge_c,
    ),
    spec(
        "target_dough_c",
        "Dough",
        "off the mixer",
        Temperature,
        0.5,
        (5.0, 35.0),
        |r| r.target_dough_c,
    ),
    spec(
        "flour_c",
        "Flour",
        "temperature",
        Temperature,
        0.5,
        (-20.0, 45.0),
        |r| r.flour_c,
    ),
    spec(
        "tap_water_c",
        "Tap",
        "cold water",
        Temperature,
        0.5,
        (0.0, 35.0),
        |r| r.tap_water_c,
    ),
];

fn tray(r: &SheetRequest) -> (f64, f64, f64) {
    match r.pieces {
        Pieces::Trays {
            length_cm,
            width_cm,
            dough_g_per_cm2,
            ..
        } => (length_cm, width_cm, dough_g_per_cm2),
        Pieces::Balls { .. } => (0.0, 0.0, 0.0),
    }
}

impl Spec {
    /// The unit that the kitchen reads.
    pub fn unit(&self, here: &Here) -> &'static str {
        match self.measure {
            Count | Strength => "",
            Percent => "%",
            Weight => here.measures.weight_unit(),
            Temperature => here.measures.degree_unit(),
            Hours => "h",
            Cm => "cm",
            PerArea => "g/cm²",
        }
    }
    /// A value in the kitchen's unit, as the field shows it.
    pub fn shown(&self, value: f64, here: &Here) -> String {
        match self.measure {
            Weight => here.measures.weight_field(value),
            Temperature => here.measures.degrees_field(value),
            _ => plain(value),
        }
    }
    fn computed(&self, typed: f64, here: &Here) -> f64 {
        match self.measure {
            Weight => Grams::from_reading(typed, here.measures.weight).0,
            Temperature => Celsius::from_reading(typed, here.measures.temperature).0,
            _ => typed,
        }
    }
    /// The step of the plus and minus buttons in the kitchen's unit.
    pub fn shown_step(&self, here: &Here) -> f64 {
        match (self.measure, here.measures.temperature) {
            (Temperature, TemperatureUnit::Fahrenheit) => 1.0,
            (Weight, _) if here.measures.weight_unit() == "oz" => 0.25,
            _ => self.step,
        }
    }
    pub fn read(&self, r: &mut Reader, here: &Here) -> f64 {
        let typed = r.number(self.name, self.label);
        let value = self.computed(typed, here);
        // Ranges are said here in the unit that was typed; the core checks them again.
        if value < self.low - 1e-9 || value > self.high + 1e-9 {
            let (low, high) = (self.shown(self.low, here), self.shown(self.high, here));
            let unit = self.unit(here);
            let gap = if unit.is_empty() { "" } else { " " };
            r.refuse(
                self.name,
                format!(
                    "{} {low} to {high}{gap}{unit}; {} is outside.",
                    self.label,
                    plain(typed)
                ),
            );
        }
        value
    }
}

/// All number fields of a style.
pub fn specs(style: StyleKey) -> Vec<&'static Spec> {
    let pieces: &[Spec] = match style.style().pieces {
        Pieces::Balls { .. } => &BALLS,
        Pieces::Trays { .. } => &TRAYS,
    };
    pieces
        .iter()
        .chain(&HOURS)
        .chain(&OF_FLOUR)
        .chain(std::iter::once(&LOSS))
        .chain(&PLACES)
        .collect()
}
