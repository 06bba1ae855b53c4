//! Pantry: what a kitchen has, what a batch costs, and what must be bought for it.
//!
//! Everything here is a fact that a person entered: bags, prices, scales, pans. A formula takes a copy of what it
//! uses, so that a later change in the pantry changes no formula and no batch. Weights in g, sizes in cm, prices per
//! kg in the kitchen's currency.

mod cost;
mod shopping;
mod stock;

use crate::fact;
use crate::fact::{Fact, Percent, Value};
use crate::keyed::Keyed;
pub use cost::{Cost, CostLine, Price, cost};
pub use shopping::{Need, NeededFor, ShoppingLine, needed, needs, shopping};
pub use stock::{InStock, StockItem};

use crate::fire::{Material, PanNow};
use crate::flour::{FlourFacts, FlourPart};
use crate::formula::PanShape;
use crate::leaven::YeastForm;
use crate::note::Note;
use crate::refusal::{Check, ValidationError};
use crate::shape::run::BoxKind;
use crate::shape::{BoxedBall, FlourTest, PressedDough, ROOMY_GAP_CM};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A bag that stands there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Bag {
    /// When it was bought.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bought_on: Option<Date>,
    /// Until when it is good.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub best_before: Option<Date>,
    /// What is left in it, 0 to 1,000,000 g.
    pub left_g: f64,
}

/// A flour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Flour {
    /// As its owner calls it.
    pub name: String,
    /// What is known of it.
    #[serde(default)]
    pub facts: FlourFacts,
    /// "stone", "roller"; in the maker's words.
    #[serde(default)]
    pub milling: String,
    /// 8 to 18 %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moisture_percent: Option<f64>,
    /// What it may hold besides gluten.
    #[serde(default)]
    pub allergens: String,
    /// Per kg, 0 to 1000.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price_per_kg: Option<f64>,
    /// What there is of it.
    #[serde(default)]
    pub bags: Vec<Bag>,
    /// Press tests of its doughs that were noted, the latest dough last.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pressed: Vec<PressedDough>,
    /// It stands for one of its type until its owner enters their own.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub generic: bool,
}

/// So many doughs' press tests are kept of a flour: it changes with the harvest.
const MOST_PRESSED: usize = 20;

impl Flour {
    /// The flour with the press tests of a dough noted, in place of what was noted of that dough before.
    pub fn noted(mut self, dough: PressedDough) -> Flour {
        self.pressed.retain(|d| d.batch != dough.batch);
        if !dough.tests.is_empty() {
            self.pressed.push(dough);
        }
        let over = self.pressed.len().saturating_sub(MOST_PRESSED);
        self.pressed.drain(..over);
        self
    }
    /// What was noted from the doughs other than this one.
    pub fn tests_beside(&self, batch: &str) -> Vec<FlourTest> {
        let others = self.pressed.iter().filter(|d| d.batch != batch);
        others.flat_map(|d| d.tests.iter().copied()).collect()
    }
}

/// What raises a dough, as it stands in the pantry.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum LeavenForm {
    /// Dried, stirred into the flour.
    Instant,
    /// Dried, woken in water.
    ActiveDry,
    /// A moist block.
    Fresh,
    /// A live starter in its jar.
    Starter,
    /// A starter dried to a powder.
    DriedMother,
}

impl LeavenForm {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            LeavenForm::Fresh => YeastForm::Fresh.name(),
            LeavenForm::ActiveDry => YeastForm::ActiveDry.name(),
            LeavenForm::Instant => YeastForm::Instant.name(),
            LeavenForm::Starter => fact!("starter"),
            LeavenForm::DriedMother => fact!("dried-mother"),
        }
    }
    /// The name under which a need asks the shelf for it.
    pub fn shelf_name(self) -> &'static str {
        match self {
            LeavenForm::Fresh => YeastForm::Fresh.shelf_name(),
            LeavenForm::ActiveDry => YeastForm::ActiveDry.shelf_name(),
            LeavenForm::Instant => YeastForm::Instant.shelf_name(),
            LeavenForm::Starter | LeavenForm::DriedMother => self.key(),
        }
    }
}

/// A leaven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Leaven {
    /// As its owner calls it.
    pub name: String,
    /// What it is.
    pub form: LeavenForm,
    /// A starter's water, 40 to 200 % of its flour.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hydration_percent: Option<f64>,
    /// When it was opened.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opened_on: Option<Date>,
    /// Against a fresh one: 0.2 to 1.5.
    #[serde(default = "one")]
    pub vigour: f64,
    /// What is left of it, g.
    #[serde(default)]
    pub left_g: f64,
    /// For a kilogram, in the kitchen's money.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price_per_kg: Option<f64>,
}

fn one() -> f64 {
    1.0
}

/// A scale.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Scale {
    /// As its owner calls it.
    pub name: String,
    /// 0.001 to 50 g.
    pub reads_g: f64,
    /// The most it carries, 1 to 300,000 g.
    pub carries_g: f64,
}

/// Pans of one kind.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Pan {
    /// As its owner calls it.
    pub name: String,
    /// Its shape.
    pub pan: PanShape,
    /// 0.5 to 30 cm.
    pub height_cm: f64,
    /// 1 to 500.
    pub count: u32,
    /// What it is made of, how thick, 0.3 to 15 mm, and whether it is oiled for a bake.
    #[serde(default = "pan_material")]
    pub material: Material,
    /// How thick its bottom is, mm.
    #[serde(default = "pan_mm")]
    pub thick_mm: f64,
    /// Whether it is oiled.
    #[serde(default = "oiled")]
    pub oiled: bool,
}

/// Thin dark steel, oiled: what most pans are.
fn pan_material() -> Material {
    Material::CarbonSteel
}
fn pan_mm() -> f64 {
    1.0
}
fn oiled() -> bool {
    true
}

impl Pan {
    /// As it goes into the oven, from the room.
    pub fn now(&self, room_c: f64) -> PanNow {
        PanNow {
            material: self.material,
            mm: self.thick_mm,
            pan_c: room_c.clamp(0.0, 300.0),
            wall_mm: (10.0 * self.height_cm).clamp(0.0, 80.0),
            oiled: self.oiled,
        }
    }

    /// What it holds to the brim, litres.
    pub fn litres(&self) -> f64 {
        self.pan.area_cm2() * self.height_cm / 1000.0
    }
}

/// Dough boxes and tubs of one kind.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct DoughBox {
    /// As its owner calls it.
    pub name: String,
    /// The shape of its floor.
    pub pan: PanShape,
    /// Inside, cm.
    pub height_cm: f64,
    /// So many there are.
    pub count: u32,
}

/// A ball that boxes are counted by where no dough is spoken of: of so much, this wet, grown so far (craft notes, section 5).
const USUAL_BALL: BoxedBall = BoxedBall {
    ball_g: 250.0,
    volume: 2.0,
    hydration_percent: 62.0,
};
impl DoughBox {
    /// What it holds to the rim, l.
    pub fn litres(&self) -> f64 {
        self.pan.area_cm2() * self.height_cm / 1000.0
    }
    /// What balls of a dough lie in.
    pub fn kind(&self, gap_cm: f64) -> BoxKind {
        let (length_cm, width_cm, round) = match self.pan {
            PanShape::Rectangle {
                length_cm,
                width_cm,
            } => (length_cm, width_cm, false),
            PanShape::Round { diameter_cm } => (diameter_cm, diameter_cm, true),
        };
        BoxKind {
            name: self.name.clone(),
            length_cm,
            width_cm,
            height_cm: self.height_cm,
            round,
            gap_cm,
        }
    }
    /// Usual balls that lie in one with room to spread; at least one.
    pub fn balls(&self) -> u32 {
        self.balls_of(USUAL_BALL)
    }
    /// Balls of a dough that lie in one with room to spread; at least one.
    pub fn balls_of(&self, ball: BoxedBall) -> u32 {
        let space = self.kind(ROOMY_GAP_CM).space(ball);
        space.grid().grid.max(1)
    }
}

/// Anything else that is bought: salt, oil, toppings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Good {
    /// As its owner calls it.
    pub name: String,
    /// For a kilogram, in the kitchen's money.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price_per_kg: Option<f64>,
    /// What is left of it, g.
    #[serde(default)]
    pub left_g: f64,
    /// What it holds.
    #[serde(default)]
    pub allergens: String,
}

const MOST_BAGS: usize = 40;

fn price(c: &mut Check, v: Option<f64>) {
    if let Some(v) = v {
        c.range(
            "price_per_kg",
            fact!("f-price-per-kg"),
            v,
            0.0,
            1000.0,
            Value::Number,
        );
    }
}

/// What is left of something, to a tonne.
fn left(c: &mut Check, left_g: f64) {
    let name = fact!("f-left");
    c.range("left_g", name, left_g, 0.0, 1_000_000.0, Value::Grams);
}

fn words(c: &mut Check, field: &str, text: &str) {
    if text.chars().count() > 200 {
        c.refuse(field, fact!("letters-200"));
    }
}

fn shape(c: &mut Check, pan: PanShape, height_cm: f64, count: u32) {
    match pan {
        PanShape::Rectangle {
            length_cm,
            width_cm,
        } => {
            c.range(
                "length_cm",
                fact!("f-length"),
                length_cm,
                8.0,
                120.0,
                Value::Cm,
            );
            c.range(
                "width_cm",
                fact!("f-width"),
                width_cm,
                8.0,
                120.0,
                Value::Cm,
            );
        }
        PanShape::Round { diameter_cm } => c.range(
            "diameter_cm",
            fact!("f-diameter"),
            diameter_cm,
            8.0,
            120.0,
            Value::Cm,
        ),
    }
    c.range(
        "height_cm",
        fact!("f-height"),
        height_cm,
        0.5,
        60.0,
        Value::Cm,
    );
    c.range(
        "count",
        fact!("f-how-many"),
        f64::from(count),
        1.0,
        500.0,
        Value::Number,
    );
}

impl Flour {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        self.facts.check_into(&mut c, "");
        words(&mut c, "milling", &self.milling);
        words(&mut c, "allergens", &self.allergens);
        if let Some(m) = self.moisture_percent {
            c.range(
                "moisture_percent",
                fact!("f-moisture"),
                m,
                8.0,
                18.0,
                Value::Percent,
            );
        }
        price(&mut c, self.price_per_kg);
        if self.bags.len() > MOST_BAGS {
            c.refuse("bags", fact!("bags-at-most", most = MOST_BAGS));
        }
        for (i, b) in self.bags.iter().enumerate() {
            c.range(
                &format!("bags[{i}].left_g"),
                fact!("f-left-in-the-bag"),
                b.left_g,
                0.0,
                1_000_000.0,
                Value::Grams,
            );
        }
        c.done()
    }
    /// What is in its bags, g.
    pub fn left_g(&self) -> f64 {
        self.bags.iter().map(|b| b.left_g).sum()
    }
    /// The bag to use first: the one that keeps least.
    pub fn next_bag(&self) -> Option<&Bag> {
        self.bags
            .iter()
            .filter(|b| b.left_g > 0.0)
            .min_by_key(|b| b.best_before.unwrap_or(Date::MAX))
    }
    /// As a part of a formula.
    pub fn part(&self, id: u64, share_percent: f64) -> FlourPart {
        FlourPart {
            name: self.name.clone(),
            share_percent,
            facts: self.facts,
            pantry: Some(id),
        }
    }
}

impl Leaven {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        c.range(
            "vigour",
            fact!("f-vigour"),
            self.vigour,
            0.2,
            1.5,
            Value::Number,
        );
        left(&mut c, self.left_g);
        price(&mut c, self.price_per_kg);
        match (self.form, self.hydration_percent) {
            (LeavenForm::Starter, None) => c.refuse(
                "hydration_percent",
                fact!("say-starter-wet", range = (Percent(40.0), Percent(200.0))),
            ),
            (_, Some(h)) => c.range(
                "hydration_percent",
                fact!("f-water-in-the-starter"),
                h,
                40.0,
                200.0,
                Value::Percent,
            ),
            _ => {}
        }
        c.done()
    }
}

impl Scale {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        c.range(
            "reads_g",
            fact!("f-it-reads-to"),
            self.reads_g,
            0.001,
            50.0,
            Value::Grams,
        );
        c.range(
            "carries_g",
            fact!("f-it-carries"),
            self.carries_g,
            1.0,
            300_000.0,
            Value::Grams,
        );
        c.done()
    }
}

/// The scales for large and for fine weights out of those there are: the one that carries most, and the finest.
pub fn scales_of(list: &[Scale], usual: crate::formula::Scales) -> crate::formula::Scales {
    let large = list
        .iter()
        .max_by(|a, b| a.carries_g.total_cmp(&b.carries_g));
    let fine = list.iter().min_by(|a, b| a.reads_g.total_cmp(&b.reads_g));
    crate::formula::Scales {
        kitchen_scale_g: large.map_or(usual.kitchen_scale_g, |s| s.reads_g.clamp(0.1, 50.0)),
        fine_scale_g: fine.map_or(usual.fine_scale_g, |s| Some(s.reads_g.clamp(0.001, 5.0))),
        ..usual
    }
}

impl Pan {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        shape(&mut c, self.pan, self.height_cm, self.count);
        c.range(
            "thick_mm",
            fact!("f-the-pans-thickness"),
            self.thick_mm,
            0.3,
            15.0,
            Value::Mm,
        );
        c.done()
    }
}

impl DoughBox {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        shape(&mut c, self.pan, self.height_cm, self.count);
        c.done()
    }
}

impl Good {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        price(&mut c, self.price_per_kg);
        left(&mut c, self.left_g);
        words(&mut c, "allergens", &self.allergens);
        c.done()
    }
}

/// Whether so many balls find room in the kitchen's boxes, by the one that holds most; nothing without boxes.
pub fn boxes_for(balls: u32, ball: BoxedBall, boxes: &[DoughBox]) -> Option<Note> {
    let of = |b: &DoughBox| b.balls_of(ball);
    let b = boxes.iter().max_by_key(|b| of(b))?;
    let (each, have) = (of(b), b.count);
    let need = balls.div_ceil(each);
    let what = fact!(
        "boxes-needed",
        balls = balls,
        need = need,
        have = have,
        name = b.name.as_str()
    );
    let why = fact!("boxes-needed-why", n = each);
    Some(if need > have {
        Note::watch("boxes", what, why).todo(fact!("boxes-needed-todo"))
    } else {
        Note::holds("boxes", what, why)
    })
}

#[cfg(test)]
mod tests;
