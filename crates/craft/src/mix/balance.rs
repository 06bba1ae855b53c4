//! The heat balance of a bowl: what goes in, how warm it is, and what that comes to.

use super::mixer::Mixer;
use crate::fact;
use crate::fact::{Value, minutes};
use crate::kitchen;
use crate::note::Note;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// Specific heats, kJ/(kg·K): water, flour at 14 % moisture, salt, oil, sugar (mixture rule, textbook).
pub(super) const C_WATER: f64 = 4.18;
pub(super) const C_FLOUR: f64 = 1.95;
pub(super) const C_SALT: f64 = 0.9;
pub(super) const C_OIL: f64 = 2.0;
pub(super) const C_SUGAR: f64 = 1.25;
pub(super) const C_DOUGH: f64 = 3.1;
/// Heat that melting ice takes, kJ/kg.
pub(super) const MELTING: f64 = 334.0;
/// Colder water than this is not to be had without ice, °C.
pub const COLDEST_WATER_C: f64 = 2.0;
/// Hotter water harms the yeast, °C.
pub const HOTTEST_WATER_C: f64 = 40.0;

/// What goes into the bowl and how warm it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct WaterRequest {
    /// Wanted temperature off the mixer, 5 to 35 °C.
    pub target_dough_c: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The flour, °C.
    pub flour_c: f64,
    /// The cold tap, 0 to 35 °C.
    pub tap_water_c: f64,
    /// The flour, g.
    pub flour_g: f64,
    /// All of it, with what goes in at a temperature of its own.
    pub water_g: f64,
    /// Part of the water that has its own temperature: what holds a dissolved dose of yeast.
    #[serde(default)]
    pub aside_g: f64,
    /// The temperature of that part, °C.
    #[serde(default)]
    pub aside_c: f64,
    /// Salt, g.
    #[serde(default)]
    pub salt_g: f64,
    /// Oil, g.
    #[serde(default)]
    pub oil_g: f64,
    /// Sugar, g.
    #[serde(default)]
    pub sugar_g: f64,
    /// Ripe preferments that go in, and how warm they are.
    #[serde(default)]
    pub preferment_g: f64,
    /// How warm they are, °C.
    #[serde(default)]
    pub preferment_c: f64,
    /// How it is mixed.
    pub mixer: Mixer,
    /// Minutes of work; 0 to 60.
    pub mixing_min: f64,
}

/// The water to pour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WaterResult {
    /// What the heat balance asks for, possible or not, °C.
    pub needed_c: f64,
    /// What the base rule asks for: 3 × (target − friction) − room − flour, °C; with a preferment 4 × that, and its
    /// temperature taken off besides.
    pub base_rule_c: f64,
    /// The base itself: 3 (or 4) × (target − friction).
    pub base: f64,
    /// What to pour: `water_g` minus the ice and what stands aside, at this temperature, °C.
    pub pour_c: f64,
    /// Water to pour, g.
    pub pour_g: f64,
    /// Ice to put in, g.
    pub ice_g: f64,
    /// What mixing adds, K.
    pub friction_k: f64,
    /// Dough temperature that this gives, °C (an estimate; a thermometer overrules it).
    pub dough_c: f64,
    /// Whether the wanted temperature is reached.
    pub reached: bool,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

impl WaterRequest {
    pub(super) fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        kitchen::target_dough_into(&mut c, self.target_dough_c);
        kitchen::room_into(&mut c, self.room_c);
        kitchen::flour_into(&mut c, self.flour_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        // With all the flour in a biga nothing but water is left to pour.
        let least = if self.preferment_g > 0.0 { 0.0 } else { 1.0 };
        c.range(
            "flour_g",
            fact!("f-flour"),
            self.flour_g,
            least,
            300_000.0,
            Value::Grams,
        );
        c.range(
            "water_g",
            fact!("f-water"),
            self.water_g,
            least,
            300_000.0,
            Value::Grams,
        );
        c.range(
            "preferment_c",
            fact!("f-preferment"),
            self.preferment_c,
            -2.0,
            42.0,
            Value::Celsius,
        );
        for (field, what, v) in [
            ("salt_g", fact!("f-salt"), self.salt_g),
            ("oil_g", fact!("f-oil"), self.oil_g),
            ("sugar_g", fact!("f-sugar"), self.sugar_g),
            ("preferment_g", fact!("f-preferment"), self.preferment_g),
            ("aside_g", fact!("f-water-aside"), self.aside_g),
        ] {
            c.range(field, what, v, 0.0, 300_000.0, Value::Grams);
        }
        c.range(
            "mixing_min",
            fact!("f-mixing"),
            self.mixing_min,
            0.0,
            60.0,
            minutes,
        );
        c.done()
    }

    /// Heat capacity of what is as warm as the flour, J/K.
    pub(super) fn dry_capacity(&self) -> f64 {
        self.flour_g * C_FLOUR + self.salt_g * C_SALT + self.sugar_g * C_SUGAR
    }
    pub(super) fn capacity(&self) -> f64 {
        self.dry_capacity()
            + self.oil_g * C_OIL
            + self.water_g * C_WATER
            + self.preferment_g * C_DOUGH
    }
    /// Heat in flour, salt, sugar (as warm as the flour) and oil (as warm as the room), J above 0 °C.
    fn heat_without_water(&self) -> f64 {
        self.dry_capacity() * self.flour_c
            + self.oil_g * C_OIL * self.room_c
            + self.preferment_g * C_DOUGH * self.preferment_c
            + (self.water_g - self.poured_g()) * C_WATER * self.aside_c
    }
    /// The water that is poured at a temperature to be found.
    pub(super) fn poured_g(&self) -> f64 {
        (self.water_g - self.aside_g).max(0.0)
    }
    /// Bowl and room left out, one step and all of it at its start.
    pub(super) fn plain_response(&self) -> DoughResponse {
        let capacity = self.capacity();
        let friction_k = self.mixer.friction_k(self.mixing_min);
        DoughResponse {
            poured_g: self.poured_g(),
            at_zero_c: self.heat_without_water() / capacity + friction_k,
            per_water_k: self.poured_g() * C_WATER / capacity,
            per_flour_k: self.dry_capacity() / capacity,
            friction_k,
        }
    }
}

/// How a dough's end answers what is poured: it is linear, whatever bowl, room and steps do on the way.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct DoughResponse {
    /// The water that is poured at a temperature to be found, g.
    pub poured_g: f64,
    /// The end with that water at 0 °C.
    pub at_zero_c: f64,
    /// What a degree of it does.
    pub per_water_k: f64,
    /// What a degree of the flour does.
    pub per_flour_k: f64,
    /// What work adds.
    pub friction_k: f64,
}

impl DoughResponse {
    /// The water's temperature for a dough temperature, possible or not, °C.
    pub(super) fn water_for(&self, target_c: f64) -> f64 {
        (target_c - self.at_zero_c) / self.per_water_k
    }
    /// Dough temperature with the water at `water_c`, `ice_g` of it as ice.
    pub(super) fn dough_with(&self, water_c: f64, ice_g: f64) -> f64 {
        let heat = (self.poured_g - ice_g) * C_WATER * water_c - MELTING * ice_g;
        self.at_zero_c + self.per_water_k * heat / (self.poured_g * C_WATER)
    }
}
