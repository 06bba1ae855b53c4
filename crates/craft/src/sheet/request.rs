//! What is asked of a sheet: a dough wanted at an hour, in a kitchen.

use super::hours;
use super::life::Life;
use crate::fact;
use crate::fact::Value;
use crate::fire::FireChoice;
use crate::fire::programme::Programme;
use crate::formula::{Formula, Scales};
use crate::kitchen;
use crate::learn::OwnKitchen;
use crate::mix::Machine;
use crate::refusal::{Check, ValidationError};
use crate::rise::{Air, Departure};
use crate::style::Style;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};

/// A dough wanted at an hour, in a kitchen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    /// What is made.
    pub formula: Formula,
    /// When the first one is eaten.
    pub serve_at: Timestamp,
    /// The present; without it nothing is said about being too late.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub now_at: Option<Timestamp>,
    /// IANA name of the kitchen's time zone.
    pub time_zone: String,
    /// Of the kitchen, m.
    pub altitude_m: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The fridge, °C.
    pub fridge_c: f64,
    /// The flour, °C.
    pub flour_c: f64,
    /// The cold tap, °C.
    pub tap_water_c: f64,
    /// What it is weighed on.
    #[serde(default)]
    pub scales: Scales,
    /// When nobody is awake or has a hand free; the night when it says nothing.
    #[serde(default, skip_serializing_if = "Life::is_empty")]
    pub life: Life,
    /// How lively the yeast of the dough is against the book's, 0.2 to 1.5; a maker's own correction.
    #[serde(default = "one")]
    pub yeast_vigour: f64,
    /// The same of a starter.
    #[serde(default = "one")]
    pub leaven_vigour: f64,
    /// The fire that was planned for it; by the style's table when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fire: Option<Box<FireChoice>>,
    /// What this kitchen's log says of it; the book alone when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub own: Option<Box<OwnKitchen>>,
    /// The kitchen's own mixer; one of its kind where it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub machine: Option<Box<Machine>>,
}

fn one() -> f64 {
    1.0
}

impl SheetRequest {
    /// A style's sensible values for a kitchen, served at an hour.
    pub fn of_style(style: &Style, kitchen: &KitchenUsual, serve_at: Timestamp) -> SheetRequest {
        SheetRequest::of(Formula::of_style(style), kitchen, serve_at)
    }
    /// The same by the book: what was learned is no part of it, and neither is the present.
    pub(crate) fn by_the_book(&self) -> SheetRequest {
        SheetRequest {
            own: None,
            now_at: None,
            ..self.clone()
        }
    }
    /// A formula in a kitchen, served at an hour.
    pub fn of(formula: Formula, kitchen: &KitchenUsual, serve_at: Timestamp) -> SheetRequest {
        SheetRequest {
            formula,
            serve_at,
            now_at: None,
            time_zone: kitchen.time_zone.clone(),
            altitude_m: kitchen.altitude_m,
            room_c: kitchen.room_c,
            fridge_c: kitchen.fridge_c,
            flour_c: kitchen.room_c,
            tap_water_c: kitchen.tap_water_c,
            scales: kitchen.scales,
            life: Life::default(),
            yeast_vigour: 1.0,
            leaven_vigour: 1.0,
            fire: None,
            own: None,
            machine: None,
        }
    }

    /// The same request, changed.
    pub fn with(mut self, change: impl FnOnce(&mut SheetRequest)) -> SheetRequest {
        change(&mut self);
        self
    }
    /// Hours from the mixer to the serve time.
    pub fn total_h(&self) -> f64 {
        self.formula.total_h()
    }
    /// Hours from the first thing mixed to the dough leaving the mixer.
    pub fn lead_h(&self) -> f64 {
        self.formula.longest_preferment_h() + self.mixing_min() / 60.0
    }
    /// When the dough leaves the mixer.
    pub fn mixed_at(&self) -> Timestamp {
        self.serve_at - hours(self.total_h())
    }
    /// When weighing and mixing of the dough begin.
    pub fn mix_at(&self) -> Timestamp {
        self.mixed_at() - hours(self.mixing_min() / 60.0)
    }
    /// When the first thing is mixed: the longest preferment, or the dough.
    pub fn start_at(&self) -> Timestamp {
        self.mix_at() - hours(self.formula.longest_preferment_h())
    }
    pub(super) fn zone(&self) -> Result<TimeZone, ValidationError> {
        TimeZone::get(&self.time_zone)
            .map_err(|_| ValidationError::one("time_zone", fact!("no-time-zone")))
    }

    pub(super) fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.within("formula");
        self.formula.check_into(&mut c);
        c.within("scales");
        self.scales.check_into(&mut c);
        c.within("");
        c.instant("serve_at", fact!("f-serve-time"), self.serve_at);
        if let Some(now) = self.now_at {
            c.instant("now_at", fact!("f-present"), now);
        }
        kitchen::room_into(&mut c, self.room_c);
        kitchen::fridge_into(&mut c, self.fridge_c);
        c.range(
            "yeast_vigour",
            fact!("f-vigour-of-the-yeast"),
            self.yeast_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        c.range(
            "leaven_vigour",
            fact!("f-vigour-of-the-leaven"),
            self.leaven_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        kitchen::flour_into(&mut c, self.flour_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        kitchen::altitude_into(&mut c, self.altitude_m);
        if let Some(machine) = &self.machine {
            c.within("machine");
            machine.check_into(&mut c);
            c.within("");
        }
        if let Some(own) = &self.own {
            c.within("own");
            own.check_into(&mut c);
            c.within("");
        }
        if let Some(fire) = &self.fire {
            c.within("fire");
            fire.check_into(&mut c);
            c.within("");
        }
        c.done()
    }
    /// A place as it stands by this kitchen's log, where it was planned at `c` °C.
    pub(super) fn place_here_c(&self, air: Air, c: f64) -> f64 {
        self.own.as_ref().map_or(c, |own| own.place_c(air, c))
    }
    /// How this kitchen departs from the book.
    pub(super) fn departs(&self) -> Departure {
        self.own.as_ref().map_or(Departure::BOOK, |own| own.departs)
    }
    /// The bake that was planned: the fire's, or the style's own.
    pub fn programme(&self) -> &Programme {
        self.fire
            .as_ref()
            .map_or(&self.formula.style.bake, |f| &f.programme)
    }
}

/// What a kitchen usually is.
#[derive(Debug, Clone, PartialEq)]
pub struct KitchenUsual {
    /// Its time zone: "Europe/London".
    pub time_zone: String,
    /// How high it lies, m.
    pub altitude_m: f64,
    /// The room, °C.
    pub room_c: f64,
    /// The fridge, °C.
    pub fridge_c: f64,
    /// The cold tap, °C.
    pub tap_water_c: f64,
    /// What is weighed on.
    pub scales: Scales,
}

impl KitchenUsual {
    /// Refuses what no kitchen is.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        if TimeZone::get(&self.time_zone).is_err() {
            c.refuse("time_zone", fact!("no-time-zone"));
        }
        kitchen::altitude_into(&mut c, self.altitude_m);
        kitchen::room_into(&mut c, self.room_c);
        kitchen::fridge_into(&mut c, self.fridge_c);
        kitchen::tap_water_into(&mut c, self.tap_water_c);
        self.scales.check_into(&mut c);
        c.done()
    }
}
