//! What goes into a bowl: grams, temperature, and the heat in it.

use crate::fact;
use crate::fact::Fact;
use crate::mix::balance::{C_DOUGH, C_FLOUR, C_OIL, C_SALT, C_SUGAR, C_WATER, MELTING};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A thing that goes into a bowl, as heat sees it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum BowlPart {
    /// Flour, also from the freezer.
    Flour,
    /// Water of any temperature.
    Water,
    /// Crushed ice at 0 °C.
    Ice,
    /// Salt.
    Salt,
    /// Oil or fat.
    Oil,
    /// Sugar, honey, malt.
    Sugar,
    /// A ripe preferment.
    Preferment,
}

impl BowlPart {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            BowlPart::Flour => fact!("flour"),
            BowlPart::Water => fact!("mixitem-water"),
            BowlPart::Ice => fact!("mixitem-ice"),
            BowlPart::Salt => fact!("salt"),
            BowlPart::Oil => fact!("oil"),
            BowlPart::Sugar => fact!("sugar"),
            BowlPart::Preferment => fact!("mixitem-preferment"),
        }
    }
}

/// One thing that goes in at the start of a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BowlItem {
    /// What it is.
    pub what: BowlPart,
    /// How much, 0 to 300,000 g.
    pub weight_g: f64,
    /// How warm it is, °C; ice is at 0.
    #[serde(default)]
    pub temp_c: f64,
    /// A name, where its temperature is to be found.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// A preferment's own water, % of its flour.
    #[serde(default = "equal_parts", skip_serializing_if = "is_equal_parts")]
    pub hydration_percent: f64,
}

fn equal_parts() -> f64 {
    100.0
}
fn is_equal_parts(v: &f64) -> bool {
    *v == 100.0
}

impl BowlItem {
    /// So much of it, so warm.
    pub fn of(what: BowlPart, weight_g: f64, temp_c: f64) -> BowlItem {
        BowlItem {
            what,
            weight_g,
            temp_c,
            name: None,
            hydration_percent: equal_parts(),
        }
    }
    /// The same under a name.
    pub fn named(mut self, name: &str) -> BowlItem {
        self.name = Some(name.to_owned());
        self
    }
    /// Heat capacity, J/K.
    pub fn capacity(&self) -> f64 {
        self.weight_g
            * match self.what {
                BowlPart::Flour => C_FLOUR,
                BowlPart::Water | BowlPart::Ice => C_WATER,
                BowlPart::Salt => C_SALT,
                BowlPart::Oil => C_OIL,
                BowlPart::Sugar => C_SUGAR,
                BowlPart::Preferment => C_DOUGH,
            }
    }
    /// Heat over liquid water at 0 °C, J.
    pub fn heat(&self) -> f64 {
        match self.what {
            BowlPart::Ice => -MELTING * self.weight_g,
            _ => self.capacity() * self.temp_c,
        }
    }
    /// A temperature that the item can have, °C.
    pub(super) fn range_c(&self) -> (f64, f64) {
        match self.what {
            BowlPart::Flour => (-20.0, 45.0),
            // Water may be asked for at any temperature: what cannot be poured is said, not refused.
            BowlPart::Water => (-500.0, 500.0),
            BowlPart::Preferment => (-2.0, 42.0),
            _ => (-25.0, 45.0),
        }
    }
}

/// What is in the bowl so far.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Contents {
    /// All of it, g.
    pub weight_g: f64,
    /// Heat capacity, J/K.
    pub capacity: f64,
    /// Flour, a preferment's too, g.
    pub flour_g: f64,
    /// Water and ice, a preferment's too, g.
    pub water_g: f64,
    /// Oil, g.
    pub oil_g: f64,
}

impl Contents {
    /// Puts one more thing in.
    pub fn put(&mut self, item: &BowlItem) {
        let g = item.weight_g;
        self.weight_g += g;
        self.capacity += item.capacity();
        match item.what {
            BowlPart::Flour => self.flour_g += g,
            BowlPart::Water | BowlPart::Ice => self.water_g += g,
            BowlPart::Oil => self.oil_g += g,
            BowlPart::Preferment => {
                let h = item.hydration_percent / 100.0;
                self.flour_g += g / (1.0 + h);
                self.water_g += g * h / (1.0 + h);
            }
            BowlPart::Salt | BowlPart::Sugar => {}
        }
    }
    /// Water and half the oil in % of the flour: how slack the dough is under the hook.
    pub fn slackness_percent(&self) -> f64 {
        if self.flour_g <= 0.0 {
            return f64::INFINITY;
        }
        100.0 * (self.water_g + 0.5 * self.oil_g) / self.flour_g
    }
    /// Water in % of the flour.
    pub fn hydration_percent(&self) -> f64 {
        100.0 * self.water_g / self.flour_g.max(1e-9)
    }
}

impl<'a> FromIterator<&'a BowlItem> for Contents {
    fn from_iter<I: IntoIterator<Item = &'a BowlItem>>(items: I) -> Contents {
        let mut all = Contents::default();
        for i in items {
            all.put(i);
        }
        all
    }
}
