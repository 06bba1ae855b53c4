//! Toppings: how much for these pizzas, what is in them, and what must be cooked before it goes on.
//!
//! Source: craft notes, section 2 (amounts for a 30 cm disc, scaled by area) and section 9. Allergens name what is
//! usual; the packet decides.

use crate::fact;
use crate::fact::{Fact, Seconds, whole};
use crate::formula::{Portion, disc_cm2};
use crate::note::Note;
use crate::units::{Celsius, Cm, Grams};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// The disc to which amounts refer, cm.
pub const DISC_CM: f64 = 30.0;

/// Whether it must be cooked before it goes on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Cook {
    /// As it is.
    #[default]
    No,
    /// Raw meat and the like: before any bake shorter than 10 min.
    Meat,
    /// Hard vegetables: before any bake shorter than 4 min.
    HardVegetable,
}

impl Cook {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Cook::No => fact!("cook-as-it-is"),
            Cook::Meat => fact!("cook-raw-meat"),
            Cook::HardVegetable => fact!("cook-hard-vegetable"),
        }
    }
    /// Bakes shorter than this leave it raw, s.
    fn needs_s(self) -> u32 {
        match self {
            Cook::No => 0,
            Cook::Meat => 600,
            Cook::HardVegetable => 240,
        }
    }
}

/// One topping of a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct ToppingPart {
    /// What it is called.
    pub name: String,
    /// On a disc of 30 cm, 0 to 500 g.
    pub g_per_disc: f64,
    /// Wet ones and short bakes conflict.
    #[serde(default)]
    pub wet: bool,
    /// Whether it is cooked before.
    #[serde(default)]
    pub cook: Cook,
    /// "milk", "nuts"; what the packet says.
    #[serde(default)]
    pub allergens: String,
    /// Whether it goes on after the bake.
    #[serde(default)]
    pub after_the_bake: bool,
}

/// A topping for the whole batch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ToppingAmount {
    /// What it is called.
    pub name: String,
    /// On one piece of each kind, g, in the order of the portions.
    pub each_g: Vec<f64>,
    /// For all pieces, g.
    pub total_g: f64,
    /// Whether it is cooked before.
    pub cook_first: bool,
    /// Whether it goes on after the bake.
    pub after_the_bake: bool,
    /// What it holds.
    pub allergens: String,
}

/// What goes on one piece, g, as hands weigh it: to the gram, below two to a tenth; what all take is that many times as much.
fn weighed(g: f64) -> f64 {
    if g < 2.0 {
        (g * 10.0).round() / 10.0
    } else {
        g.round()
    }
}

/// Scales toppings by area to the portions.
pub fn amounts(toppings: &[ToppingPart], portions: &[Portion], bake_s: u32) -> Vec<ToppingAmount> {
    let disc = disc_cm2(DISC_CM);
    toppings
        .iter()
        .map(|t| {
            let each_g: Vec<f64> = portions
                .iter()
                .map(|p| weighed(t.g_per_disc * p.area_cm2 / disc))
                .collect();
            ToppingAmount {
                total_g: each_g
                    .iter()
                    .zip(portions)
                    .map(|(g, p)| g * f64::from(p.count))
                    .sum(),
                each_g,
                name: t.name.clone(),
                cook_first: bake_s < t.cook.needs_s(),
                after_the_bake: t.after_the_bake,
                allergens: t.allergens.clone(),
            }
        })
        .collect()
}

/// Allergens of the toppings and of the dough, each named once.
pub fn allergens(toppings: &[ToppingPart], of_dough: &[&str]) -> Vec<String> {
    let mut out: Vec<String> = of_dough.iter().map(|a| a.trim().to_lowercase()).collect();
    for t in toppings {
        out.extend(t.allergens.split(',').map(|a| a.trim().to_lowercase()));
    }
    out.retain(|a| !a.is_empty());
    out.sort();
    out.dedup();
    out
}

/// So much wet topping on a 30 cm disc still bakes off in this time, g (craft notes: sauce up to 90 and cheese
/// up to 100 for a bake of 60 to 90 s; a longer bake carries more).
fn carries_g(bake_s: u32) -> f64 {
    if bake_s <= 120 { 190.0 } else { 260.0 }
}

/// What to say about toppings in this bake.
pub fn notes(toppings: &[ToppingPart], bake_s: u32) -> Vec<Note> {
    let mut out = Vec::new();
    let wet: f64 = toppings
        .iter()
        .filter(|t| t.wet && !t.after_the_bake)
        .map(|t| t.g_per_disc)
        .sum();
    if wet > carries_g(bake_s) {
        out.push(
            Note::watch(
                "toppings_wet",
                fact!("toppings-wet", weight = Grams(whole(wet)), width = Cm(30.0)),
                fact!(
                    "toppings-wet-why",
                    time = Seconds(f64::from(bake_s)),
                    carries = Grams(carries_g(bake_s))
                ),
            )
            .todo(fact!("toppings-wet-todo")),
        );
    }
    let raw: Vec<&str> = toppings
        .iter()
        .filter(|t| !t.after_the_bake && bake_s < t.cook.needs_s())
        .map(|t| t.name.as_str())
        .collect();
    if !raw.is_empty() {
        let _names = raw.join(", ");
        out.push(
            Note::watch(
                "cook_first",
                fact!("cook-first", names = raw),
                fact!("cook-first-why", time = Seconds(f64::from(bake_s))),
            )
            .todo(fact!("cook-first-todo", c = Celsius(5.0))),
        );
    }
    out
}
