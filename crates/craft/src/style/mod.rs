//! Styles as data: what a maker of this style starts from, and what is usual.
//!
//! Source: craft notes, sections 1, 2, 4 and 6; the table is `styles.json`. A style never forbids: outside its
//! usual range there is a note. Makers copy a style and make it theirs; a formula carries the whole style that it
//! was made in, so that a later change of the style changes nothing that was made before.

pub mod bake;
pub mod oven_fit;
pub mod rule_sheet;
pub mod topping;

pub use bake::StyleBake;

use crate::fact;
use crate::fact::{Value, minutes};
use crate::fire::programme::Programme;
use crate::formula::{Dose, Extra, Pieces, Preferment};
use crate::leaven::YeastForm;
use crate::refusal::Check;
use crate::units::Celsius;
use serde::{Deserialize, Deserializer, Serialize};
use std::sync::LazyLock;
use topping::ToppingPart;

/// An inclusive range of what is usual.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(from = "(f64, f64)", into = "(f64, f64)")]
#[cfg_attr(feature = "schema", schemars(with = "(f64, f64)"))]
pub struct Usual {
    /// From.
    pub low: f64,
    /// To.
    pub high: f64,
}

impl From<(f64, f64)> for Usual {
    fn from((low, high): (f64, f64)) -> Self {
        Usual { low, high }
    }
}
impl From<Usual> for (f64, f64) {
    fn from(u: Usual) -> Self {
        (u.low, u.high)
    }
}

impl Usual {
    /// Whether a value lies in it.
    pub fn holds(self, v: f64) -> bool {
        (self.low - 1e-9..=self.high + 1e-9).contains(&v)
    }
    /// Half way between.
    pub fn middle(self) -> f64 {
        0.5 * (self.low + self.high)
    }
}

/// What is usual in a style: percentages of the flour, balls in g, discs in cm, thickness in g/cm².
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct UsualIn {
    /// Water, % of the flour.
    pub hydration: Usual,
    /// Salt, % of the flour.
    pub salt: Usual,
    /// Oil, % of the flour.
    pub oil: Usual,
    /// Sugar, % of the flour.
    pub sugar: Usual,
    /// Active malt.
    pub malt: Usual,
    /// A ball, g.
    pub ball_g: Usual,
    /// Across, cm.
    pub disc_cm: Usual,
    /// Dough on its surface, g/cm².
    pub g_per_cm2: Usual,
}

/// The oven that a style is baked in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct StyleOven {
    /// What it is; its degrees stand beside it.
    #[serde(deserialize_with = "without_degrees")]
    pub words: String,
    /// °C.
    pub floor_c: Usual,
    /// Dome, flame or upper heat, °C.
    pub dome_c: Usual,
    /// Until it is charged, 5 to 240 min.
    pub preheat_min: f64,
}

/// Styles kept before had their degrees in the words, as Celsius: they stand in the figures.
fn without_degrees<'de, D: serde::Deserializer<'de>>(d: D) -> Result<String, D::Error> {
    let words = String::deserialize(d)?;
    Ok(match words.rsplit_once(", ") {
        Some((kind, degrees)) if degrees.ends_with("°C") => kind.to_string(),
        _ => words,
    })
}

/// When basil goes on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Basil {
    /// It goes on before.
    BeforeTheBake,
    /// It goes on after.
    AfterTheBake,
}

/// What a style is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Style {
    /// Its name for programs.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// What it is, in one line.
    pub line: String,
    /// What is made of it, and how much.
    pub pieces: Pieces,
    /// What stays in bowl and hands, % of the dough.
    pub loss_percent: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
    /// Salt, % of the flour.
    pub salt_percent: f64,
    /// Oil, % of the flour.
    #[serde(default)]
    pub oil_percent: f64,
    /// Sugar, % of the flour.
    #[serde(default)]
    pub sugar_percent: f64,
    /// What else is in the dough.
    #[serde(default)]
    pub extras: Vec<Extra>,
    /// What is mixed before it.
    #[serde(default)]
    pub preferments: Vec<Preferment>,
    /// The form of its yeast.
    pub yeast_form: YeastForm,
    /// How much yeast.
    #[serde(default)]
    pub dose: Dose,
    /// W that suits it.
    pub flour_w: f64,
    /// Volume at the bake against just mixed (spec section 7).
    pub target_volume: f64,
    /// How warm it leaves the mixer, °C.
    pub target_dough_c: f64,
    /// Hours: bulk in the room, then cold, then in the room until the bake.
    pub bulk_h: f64,
    /// In the fridge, h.
    pub cold_h: f64,
    /// Warming up before the bake, h.
    pub temper_h: f64,
    /// Folds in the bulk, half an hour apart.
    pub folds: u32,
    /// How its oven stands.
    pub oven: StyleOven,
    /// How it is baked where no fire is planned.
    pub bake: Programme,
    /// How its pieces are shaped for the oven; judged by the oven when absent.
    #[serde(default, rename = "bakes", skip_serializing_if = "Option::is_none")]
    pub bakes_as: Option<StyleBake>,
    /// Within which its figures usually lie.
    pub usual: UsualIn,
    /// What goes on it.
    #[serde(default)]
    pub toppings: Vec<ToppingPart>,
    /// When its basil goes on.
    pub basil: Basil,
    /// Whether the traditional rule sheet is of interest.
    #[serde(default)]
    pub rule_sheet: bool,
}

/// A dome from here on burns sugar before the base is done, °C.
const SCORCHING_DOME_C: f64 = 380.0;

static ALL: LazyLock<Vec<Style>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("styles.json")).expect("styles.json holds styles")
});

/// The styles that ship with the product.
pub fn all() -> &'static [Style] {
    &ALL
}

/// A style that ships with the product, by its key.
///
/// ```
/// let round = craft::style::by_key("hot_round").unwrap();
/// assert_eq!(round.name, "Lean round");
/// assert!(craft::style::by_key("square_round").is_none());
/// ```
pub fn by_key(key: &str) -> Option<&'static Style> {
    ALL.iter().find(|s| s.key == key)
}

/// The style that a new dough starts with.
pub fn first() -> &'static Style {
    &ALL[0]
}

impl Style {
    /// Whether it bakes under a dome or flame that burns sugar.
    pub fn scorching(&self) -> bool {
        self.oven.dome_c.low >= SCORCHING_DOME_C
    }
    /// Whether it is baked in pans.
    pub fn in_pans(&self) -> bool {
        matches!(self.pieces, Pieces::Pans { .. })
    }
    /// Thickness to which a ball of this style opens, g/cm².
    pub fn opens_to(&self) -> f64 {
        self.usual.g_per_cm2.middle().clamp(0.2, 2.0)
    }

    /// Adds what is wrong with a style that came from outside.
    pub fn check_into(&self, c: &mut Check) {
        let letters = self.name.chars().count();
        if letters == 0 || letters > 80 || self.key.len() > 64 || self.line.chars().count() > 200 {
            c.refuse("style.name", fact!("style-name-80"));
        }
        c.range(
            "style.target_volume",
            fact!("f-volume-at-the-bake"),
            self.target_volume,
            1.4,
            3.5,
            Value::Number,
        );
        c.range(
            "style.oven.preheat_min",
            fact!("f-preheat"),
            self.oven.preheat_min,
            5.0,
            240.0,
            minutes,
        );
        c.range(
            "style.flour_w",
            fact!("f-flour-strength-w"),
            self.flour_w,
            80.0,
            450.0,
            Value::Number,
        );
        c.range(
            "style.folds",
            fact!("f-folds"),
            f64::from(self.folds),
            0.0,
            12.0,
            Value::Number,
        );
        if let Some(b) = &self.bakes_as {
            b.check_into(c);
        }
        let u = &self.usual;
        for (field, r, low, high) in [
            ("hydration", u.hydration, 30.0, 130.0),
            ("salt", u.salt, 0.0, 5.0),
            ("oil", u.oil, 0.0, 20.0),
            ("sugar", u.sugar, 0.0, 20.0),
            ("malt", u.malt, 0.0, 5.0),
            ("ball_g", u.ball_g, 30.0, 5000.0),
            ("disc_cm", u.disc_cm, 8.0, 120.0),
            ("g_per_cm2", u.g_per_cm2, 0.2, 2.0),
        ] {
            if !(low..=high).contains(&r.low) || !(r.low..=high).contains(&r.high) {
                c.refuse(
                    &format!("style.usual.{field}"),
                    fact!("style-range", low = low, high = high),
                );
            }
        }
        for (field, r) in [("floor_c", self.oven.floor_c), ("dome_c", self.oven.dome_c)] {
            if !(100.0..=600.0).contains(&r.low) || !(r.low..=600.0).contains(&r.high) {
                c.refuse(
                    &format!("style.oven.{field}"),
                    fact!("style-oven-range", range = (Celsius(100.0), Celsius(600.0))),
                );
            }
        }
        if let Err(sentence) = self.bake.check() {
            c.refuse("style.bake", sentence);
        }
    }
}

/// A style by its key, or all of it; for the schema.
#[cfg(feature = "schema")]
#[derive(schemars::JsonSchema)]
#[schemars(untagged)]
#[allow(dead_code)]
pub enum NamedOrWhole {
    /// By its key.
    Named(String),
    /// With all that it is.
    Whole(Box<Style>),
}

/// Reads a style that is given by its key or in full.
pub fn named_or_whole<'de, D: Deserializer<'de>>(d: D) -> Result<Style, D::Error> {
    struct Either;
    impl<'de> serde::de::Visitor<'de> for Either {
        type Value = Style;
        fn expecting(&self, f: &mut std::fmt::Formatter) -> std::fmt::Result {
            f.write_str("the key of a style, or all of its fields")
        }
        fn visit_str<E: serde::de::Error>(self, key: &str) -> Result<Style, E> {
            by_key(key).cloned().ok_or_else(|| {
                let known: Vec<_> = all().iter().map(|s| s.key.as_str()).collect();
                E::custom(format!(
                    "no style {key:.40}; known are {}",
                    known.join(", ")
                ))
            })
        }
        fn visit_map<A: serde::de::MapAccess<'de>>(self, map: A) -> Result<Style, A::Error> {
            Style::deserialize(serde::de::value::MapAccessDeserializer::new(map))
        }
    }
    d.deserialize_any(Either)
}

#[cfg(test)]
mod tests;
