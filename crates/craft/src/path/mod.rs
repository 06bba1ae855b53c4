//! The path of a dough: the legs it lies through between mixer and oven, and where.
//!
//! A leg is so many hours as a bulk, as balls or in pans, in one place, with what is done to the dough at its start and
//! the folds during it. Each may stretch between its own limits, which is what plans around a life use. Source: craft
//! notes, section 4.

pub mod day;
pub mod methods;

use crate::fact;
use crate::fact::{Fact, Value, hours};
pub use methods::Method;

use crate::refusal::Check;
use crate::rise::{Air, Container, Event};
use serde::{Deserialize, Serialize};

/// A path has so many legs at most.
pub const MOST_LEGS: usize = 8;
/// No plan is longer, h (fermentation model, section 2).
pub const LONGEST_H: f64 = 336.0;
/// Folds of a bulk are half an hour apart where nothing else is said.
pub const FOLD_EVERY_H: f64 = 0.5;
/// A fridge warmer than this is none, °C.
pub const WARMEST_FRIDGE_C: f64 = 10.0;

/// How the dough lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Lies {
    /// All in one.
    Bulk,
    /// In balls.
    Balls,
    /// In its pans.
    Pans,
}

/// A place of a kitchen, as it was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// As its owner calls it.
    pub name: String,
    /// Still, or moved as in a fridge.
    pub air: Air,
    /// −2 to 42 °C; a freezer −30 to −5.
    pub c: f64,
    /// 24 hourly temperatures from midnight, where it swings with the day.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub profile_c: Option<Vec<f64>>,
    /// How far off that may be, K; by kind of place when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[serde(rename = "off_c")]
    pub off_k: Option<f64>,
    /// A fridge without power: in so many hours its difference to the room falls to a third, 1 to 72; by kind when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub holds_h: Option<f64>,
}

impl Place {
    /// Refuses what is no place for a dough.
    pub fn check_into(&self, c: &mut Check) {
        let (low, high) = match self.air {
            Air::Freezer => (-30.0, -5.0),
            Air::Fridge | Air::Fan => (-2.0, WARMEST_FRIDGE_C),
            Air::Room => (-2.0, 42.0),
        };
        let name = if self.name.trim().is_empty() {
            fact!("the-place")
        } else {
            Fact::as_written(self.name.as_str())
        };
        if self.name.chars().count() > 80 {
            c.refuse("name", fact!("name-80"));
        }
        c.range("c", name.clone(), self.c, low, high, Value::Celsius);
        if let Some(p) = &self.profile_c {
            if p.len() == 24 {
                for v in p {
                    c.range("profile_c", name.clone(), *v, low, high, Value::Celsius);
                }
            } else {
                c.refuse("profile_c", fact!("hourly-24", n = p.len()));
            }
        }
        if let Some(off) = self.off_k {
            c.range(
                "off_c",
                fact!("f-how-far-off"),
                off,
                0.0,
                10.0,
                Value::Kelvin,
            );
        }
        if let Some(h) = self.holds_h {
            c.range("holds_h", fact!("f-holds-its-cold"), h, 1.0, 72.0, hours);
        }
    }
}

/// Where a leg lies: the kitchen's room or fridge as the sheet says them, or a place of its own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Spot {
    /// The kitchen's room.
    Room,
    /// The kitchen's fridge.
    Fridge,
    /// At −18 °C.
    Freezer,
    /// A place of the kitchen's own.
    Own(Place),
}

impl Spot {
    /// What it is called.
    pub fn name(&self) -> Fact {
        match self {
            Spot::Room => fact!("spot-room"),
            Spot::Fridge => fact!("spot-fridge"),
            Spot::Freezer => fact!("spot-freezer"),
            Spot::Own(p) => Fact::as_written(p.name.to_lowercase()),
        }
    }
    /// How its air takes and gives heat.
    pub fn air(&self) -> Air {
        match self {
            Spot::Room => Air::Room,
            Spot::Fridge => Air::Fridge,
            Spot::Freezer => Air::Freezer,
            Spot::Own(p) => p.air,
        }
    }
    /// Cold, but not frozen.
    pub fn is_cold(&self) -> bool {
        matches!(self.air(), Air::Fridge | Air::Fan)
    }
    /// Whether a dough freezes there.
    pub fn is_frozen(&self) -> bool {
        self.air() == Air::Freezer
    }
}

/// One leg.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Leg {
    /// As what it lies there.
    pub lies: Lies,
    /// Where.
    pub spot: Spot,
    /// 0.25 to 240 h.
    pub hours: f64,
    /// The limits within which it may stretch, h.
    pub least_h: f64,
    /// The longest that it may be, h.
    pub most_h: f64,
    /// What is done to the dough at its start.
    #[serde(default)]
    pub event: Event,
    /// Folds during it, 0 to 12, so far apart.
    #[serde(default)]
    pub folds: u32,
    /// Folded every so many hours; 0 for never.
    #[serde(default = "usual_fold")]
    pub fold_every_h: f64,
    /// Flour that the bench adds at its start, 0 to 10 % of the flour: it takes some points off the water.
    #[serde(default, skip_serializing_if = "is_none")]
    pub dusting_percent: f64,
    /// What it lies in; a tub, boxes or the open pan when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub container: Option<Container>,
    /// What lay in the tub, g, where it was more than this dough is: pieces that were parted from it since.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tub_g: Option<f64>,
}

fn is_none(v: &f64) -> bool {
    *v == 0.0
}
fn usual_fold() -> f64 {
    FOLD_EVERY_H
}

impl Leg {
    /// A leg of that length, with usual bounds and container.
    pub fn of(lies: Lies, spot: Spot, hours: f64, event: Event) -> Leg {
        // A leg that nobody gave limits stretches by half and to double.
        Leg {
            lies,
            spot,
            hours,
            least_h: (hours * 0.5).max(0.25),
            most_h: (hours * 2.0).min(240.0),
            event,
            folds: 0,
            fold_every_h: FOLD_EVERY_H,
            dusting_percent: 0.0,
            container: None,
            tub_g: None,
        }
    }
    /// Folds that find room in it, with as long a rest after the last.
    pub fn folds_that_fit(&self) -> u32 {
        let fit = (self.hours / self.fold_every_h - 1.0 + 1e-9)
            .floor()
            .max(0.0) as u32;
        self.folds.min(fit)
    }
    /// What it lies in.
    pub fn container(&self) -> Container {
        self.container.unwrap_or(match self.lies {
            Lies::Bulk => Container::Tub,
            Lies::Balls => Container::Box,
            Lies::Pans => Container::Open,
        })
    }
    /// The word for the leg.
    pub fn word(&self) -> Fact {
        match (&self.spot, self.lies) {
            (s, _) if s.is_frozen() => fact!("leg-frozen"),
            (s, Lies::Bulk) if s.is_cold() => fact!("leg-cold-bulk"),
            (s, _) if s.is_cold() => fact!("leg-cold"),
            (_, Lies::Bulk) => fact!("leg-bulk"),
            (_, Lies::Balls) => fact!("leg-balls"),
            (_, Lies::Pans) => fact!("leg-pans"),
        }
    }
    pub(crate) fn check_into(&self, c: &mut Check, i: usize) {
        let at = |f: &str| format!("legs[{i}].{f}");
        c.range(&at("hours"), self.word(), self.hours, 0.25, 240.0, hours);
        c.range(
            &at("least_h"),
            fact!("f-shortest"),
            self.least_h,
            0.25,
            240.0,
            hours,
        );
        c.range(
            &at("most_h"),
            fact!("f-longest"),
            self.most_h,
            0.25,
            240.0,
            hours,
        );
        c.range(
            &at("fold_every_h"),
            fact!("f-folds-every"),
            self.fold_every_h,
            0.25,
            72.0,
            hours,
        );
        let dust = self.dusting_percent;
        c.range(
            &at("dusting_percent"),
            fact!("f-flour-of-the-bench"),
            dust,
            0.0,
            10.0,
            Value::Percent,
        );
        if self.folds > 12 {
            c.refuse(&at("folds"), fact!("folds-12"));
        }
        if self.least_h > self.most_h {
            c.refuse(&at("least_h"), fact!("shortest-longer"));
        }
        if let Spot::Own(p) = &self.spot {
            let mut own = Check::new();
            p.check_into(&mut own);
            for e in own.done().err().map_or(vec![], |e| e.0) {
                c.refuse(&at(&format!("spot.{}", e.field)), e.message);
            }
        }
    }
}

#[cfg(test)]
mod tests;
