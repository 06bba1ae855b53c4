//! One bake as the model is asked for it: a piece of dough, an oven as it stands, and what is done meanwhile.
//!
//! Ranges and refusals: bake model, section 2. Nothing is clamped silently; every refused field is named.

use super::boiling::boiling_c;
use super::material::Material;
use crate::fact;
use crate::fact::{Fact, Kelvin, Value, tenth};
use crate::refusal::{Check, ValidationError};
use crate::units::Celsius;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a bake aims at: which colours, how dry, how set. Also the shape of the dough (a pan dough is less dense).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Aim {
    /// Short and hot: soft, spotted.
    Hot,
    /// Thin and crisp.
    Thin,
    /// A home oven's round.
    Home,
    /// A large round of a deck oven.
    Deck,
    /// Thick, in an oiled pan.
    Pan,
}

impl Aim {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Aim::Hot => fact!("aim-hot"),
            Aim::Thin => fact!("aim-thin"),
            Aim::Home => fact!("aim-home"),
            Aim::Deck => fact!("aim-deck"),
            Aim::Pan => fact!("aim-pan"),
        }
    }
}

/// The piece that goes in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Piece {
    /// 80 to 2,000 g.
    pub ball_g: f64,
    /// 120 to 600 mm.
    pub disc_mm: f64,
    /// 5 to 50 mm.
    pub rim_mm: f64,
    /// Share of the dough that lies in the rim, 0.05 to 0.6.
    pub rim_share: f64,
    /// Percent of the flour, as everywhere: water 45 to 100, salt to 5, sugar to 12, malt to 3, oil to 15, milk solids to 10.
    pub hydration_percent: f64,
    /// Salt, % of the flour.
    pub salt_percent: f64,
    /// Sugar, % of the flour.
    #[serde(default)]
    pub sugar_percent: f64,
    /// Active malt, % of the flour.
    #[serde(default)]
    pub malt_percent: f64,
    /// Oil, % of the flour.
    #[serde(default)]
    pub oil_percent: f64,
    /// Milk's dry matter, % of the flour.
    #[serde(default)]
    pub milk_percent: f64,
    /// 0 sugars spent, 1 as usual, up to 1.6 rich in what the yeast left.
    pub maturity: f64,
    /// Whether it lay cold; cold dough blisters.
    pub cold: bool,
    /// 0 to 40 °C.
    pub dough_c: f64,
    /// 0 to 600 g each.
    pub sauce_g: f64,
    /// Cheese on it, g.
    pub cheese_g: f64,
}

/// What is under the floor.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Back {
    /// An insulated mass of masonry.
    Mass,
    /// A heating element.
    Element,
    /// The oven's air: a steel or stone on a rack.
    Air,
}

/// The oven at launch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OvenNow {
    /// What its floor is made of.
    pub floor: Material,
    /// 0.5 to 100 mm.
    pub floor_mm: f64,
    /// At the face, 10 to 550 °C.
    pub floor_c: f64,
    /// At the bottom of the floor; as the face when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub core_c: Option<f64>,
    /// What shines on the food, as an effective temperature, 100 to 600 °C.
    pub dome_c: f64,
    /// As the dome when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_c: Option<f64>,
    /// Share of the sky that is hot, 0.3 to 1.
    pub view: f64,
    /// How the air carries heat, 3 to 40 W/m²K.
    pub air_w_m2k: f64,
    /// A glowing element above, at the food, 0 to 20,000 W/m².
    #[serde(default)]
    pub grill_w_m2: f64,
    /// What lies behind the floor.
    pub back: Back,
    /// 0 to 15,000 W/m².
    #[serde(default)]
    pub back_w_m2: f64,
    /// What the element below is set to; as the floor when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_c: Option<f64>,
    /// How much more the side at the fire gets, 0 to 0.6.
    #[serde(default)]
    pub side: f64,
    /// How far the air falls when the door is opened, 0 to 120 K, and how fast it comes back, 20 to 300 s.
    #[serde(default)]
    #[serde(rename = "door_drop_c")]
    pub door_drop_k: f64,
    /// How long the door stands open at the launch, s.
    #[serde(default = "door_s")]
    pub door_s: f64,
    /// This oven's own corrections: contact of floor and dough, and heat from above, against the book, 0.5 to 2.
    #[serde(default = "one")]
    pub floor_factor: f64,
    /// The top gives so many times what the book says.
    #[serde(default = "one")]
    pub top_factor: f64,
}

fn one() -> f64 {
    1.0
}

fn door_s() -> f64 {
    90.0
}

/// A pan around the dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PanNow {
    /// What it is made of.
    pub material: Material,
    /// 0.3 to 15 mm.
    pub mm: f64,
    /// 0 to 300 °C.
    pub pan_c: f64,
    /// 0 to 80 mm.
    pub wall_mm: f64,
    /// Whether it is oiled.
    pub oiled: bool,
}

/// One bake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BakeRequest {
    /// What kind of bake is looked for.
    pub aim: Aim,
    /// What is baked.
    pub piece: Piece,
    /// The oven at the launch.
    pub oven: OvenNow,
    /// The pan it lies in; none on the floor itself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pan: Option<PanNow>,
    /// Half turns of the rim that stood at the fire, s after In, ascending.
    #[serde(default)]
    pub turns_s: Vec<f64>,
    /// Quarter turns, s after In, ascending.
    #[serde(default)]
    pub quarter_turns_s: Vec<f64>,
    /// Out of the pan, onto the bare floor, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lift_s: Option<f64>,
    /// When the cheese goes on, s.
    #[serde(default)]
    pub cheese_at_s: f64,
    /// Of the kitchen, m.
    #[serde(default)]
    pub altitude_m: f64,
    /// How long it is followed, 10 to 3,600 s.
    #[serde(default = "until_s")]
    pub until_s: f64,
}

fn until_s() -> f64 {
    900.0
}

impl Piece {
    /// Dough per area of the middle and of the rim, kg/m²; and the two areas, m².
    pub fn areal(&self) -> Areal {
        let r = self.disc_mm / 2000.0;
        let inner = r - self.rim_mm / 1000.0;
        let centre_m2 = std::f64::consts::PI * inner * inner;
        let rim_m2 = std::f64::consts::PI * r * r - centre_m2;
        let kg = self.ball_g / 1000.0;
        Areal {
            centre_m2,
            rim_m2,
            centre: kg * (1.0 - self.rim_share) / centre_m2,
            rim: kg * self.rim_share / rim_m2,
            sauce: self.sauce_g / 1000.0 / centre_m2,
            cheese: self.cheese_g / 1000.0 / centre_m2,
        }
    }

    /// Water against everything dry, kg/kg; flour brings 14 % of its own.
    pub fn moisture(&self) -> f64 {
        let dry = self.salt_percent
            + self.sugar_percent
            + self.malt_percent
            + self.oil_percent
            + self.milk_percent;
        (self.hydration_percent / 100.0 + 0.14) / (0.86 + dry / 100.0)
    }

    /// How much faster it browns than a lean dough as usual (section 7; reasoned, not fitted).
    pub fn browning(&self) -> f64 {
        (0.45 + 0.55 * self.maturity)
            * (1.0
                + 0.40 * self.sugar_percent
                + 0.50 * self.malt_percent.min(2.0)
                + 0.04 * self.oil_percent.min(8.0)
                + 0.20 * self.milk_percent)
    }
}

/// Areas, m², and masses per area, kg/m².
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Areal {
    /// The middle, m².
    pub centre_m2: f64,
    /// The rim, m².
    pub rim_m2: f64,
    /// Dough of the middle, kg/m².
    pub centre: f64,
    /// Dough of the rim, kg/m².
    pub rim: f64,
    /// Sauce, kg/m².
    pub sauce: f64,
    /// Cheese, kg/m².
    pub cheese: f64,
}

impl BakeRequest {
    /// Everything that is outside what the model takes.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_piece(&mut c);
        self.oven.check(&mut c);
        if let Some(p) = &self.pan {
            c.within("pan");
            c.range(
                "mm",
                fact!("f-the-pans-thickness"),
                p.mm,
                0.3,
                15.0,
                Value::Mm,
            );
            c.range(
                "pan_c",
                fact!("f-the-pan"),
                p.pan_c,
                0.0,
                300.0,
                Value::Celsius,
            );
            c.range(
                "wall_mm",
                fact!("f-the-pans-wall"),
                p.wall_mm,
                0.0,
                80.0,
                Value::Mm,
            );
        }
        c.within("");
        c.range(
            "altitude_m",
            fact!("f-altitude"),
            self.altitude_m,
            -400.0,
            4500.0,
            Value::Metres,
        );
        c.range(
            "until_s",
            fact!("f-the-bake"),
            self.until_s,
            10.0,
            3600.0,
            Value::Seconds,
        );
        c.range(
            "cheese_at_s",
            fact!("f-cheese-goes-on-after"),
            self.cheese_at_s,
            0.0,
            self.until_s.max(0.0),
            Value::Seconds,
        );
        if let Some(s) = self.lift_s {
            c.range(
                "lift_s",
                fact!("f-out-of-the-pan-after"),
                s,
                0.0,
                self.until_s.max(0.0),
                Value::Seconds,
            );
        }
        for (field, turns) in [
            ("turns_s", &self.turns_s),
            ("quarter_turns_s", &self.quarter_turns_s),
        ] {
            if turns.iter().any(|t| !t.is_finite() || *t <= 0.0)
                || turns.windows(2).any(|w| w[1] <= w[0])
                || turns.len() > 40
            {
                c.refuse(field, fact!("turns-in-order"));
            }
        }
        c.done()
    }

    fn check_piece(&self, c: &mut Check) {
        let p = &self.piece;
        c.within("piece");
        c.range(
            "ball_g",
            fact!("f-the-ball"),
            p.ball_g,
            80.0,
            2000.0,
            Value::Grams,
        );
        c.range(
            "disc_mm",
            fact!("f-the-disc"),
            p.disc_mm,
            120.0,
            600.0,
            Value::Mm,
        );
        c.range("rim_mm", fact!("f-the-rim"), p.rim_mm, 5.0, 50.0, Value::Mm);
        c.range(
            "rim_share",
            fact!("f-the-rims-share-of-the-dough"),
            p.rim_share,
            0.05,
            0.6,
            Value::Number,
        );
        c.range(
            "hydration_percent",
            fact!("f-water"),
            p.hydration_percent,
            45.0,
            100.0,
            Value::Percent,
        );
        c.range(
            "salt_percent",
            fact!("f-salt"),
            p.salt_percent,
            0.0,
            5.0,
            Value::Percent,
        );
        c.range(
            "sugar_percent",
            fact!("f-sugar"),
            p.sugar_percent,
            0.0,
            12.0,
            Value::Percent,
        );
        c.range(
            "malt_percent",
            fact!("f-malt"),
            p.malt_percent,
            0.0,
            3.0,
            Value::Percent,
        );
        c.range(
            "oil_percent",
            fact!("f-oil"),
            p.oil_percent,
            0.0,
            15.0,
            Value::Percent,
        );
        c.range(
            "milk_percent",
            fact!("f-milk-solids"),
            p.milk_percent,
            0.0,
            10.0,
            Value::Percent,
        );
        c.range(
            "maturity",
            fact!("f-sugars-left-against-usual"),
            p.maturity,
            0.0,
            1.6,
            Value::Number,
        );
        c.range(
            "dough_c",
            fact!("f-the-dough"),
            p.dough_c,
            0.0,
            40.0,
            Value::Celsius,
        );
        c.range(
            "sauce_g",
            fact!("f-sauce"),
            p.sauce_g,
            0.0,
            600.0,
            Value::Grams,
        );
        c.range(
            "cheese_g",
            fact!("f-cheese"),
            p.cheese_g,
            0.0,
            600.0,
            Value::Grams,
        );
        if p.rim_mm >= 0.35 * p.disc_mm {
            c.refuse("rim_mm", fact!("rim-too-wide"));
        } else if c.is_clean() {
            let a = p.areal();
            if !(1.0..=20.0).contains(&a.centre) {
                c.refuse(
                    "disc_mm",
                    fact!("middle-carries", density = tenth(a.centre)),
                );
            }
            if !(1.0..=15.0).contains(&a.rim) {
                c.refuse("rim_share", fact!("rim-carries", density = tenth(a.rim)));
            }
        }
    }

    /// What is allowed but outside what anybody checked, in a sentence each.
    pub fn doubts(&self) -> Vec<Fact> {
        let o = &self.oven;
        let mut out = Vec::new();
        if o.floor_c > 480.0 {
            out.push(fact!("floor-outside", c = Celsius(480.0)));
        }
        if o.floor.is_metal() && o.floor_c > 330.0 {
            out.push(fact!("steel-outside", c = Celsius(330.0)));
        }
        if o.dome_c < o.floor_c - 60.0 {
            out.push(fact!("dome-below-floor", by = Kelvin(60.0)));
        }
        if self.cheese_at_s >= self.until_s && self.piece.cheese_g > 0.0 {
            out.push(fact!("cheese-after"));
        }
        out
    }

    /// Where free water boils here, °C.
    pub fn boiling_c(&self) -> f64 {
        boiling_c(self.altitude_m)
    }
}

impl OvenNow {
    /// Ranges of an oven's state.
    pub fn check(&self, c: &mut Check) {
        c.within("oven");
        c.range(
            "floor_mm",
            fact!("f-the-floors-thickness"),
            self.floor_mm,
            0.5,
            100.0,
            Value::Mm,
        );
        c.range(
            "floor_c",
            fact!("f-the-floor"),
            self.floor_c,
            10.0,
            550.0,
            Value::Celsius,
        );
        if let Some(t) = self.core_c {
            c.range(
                "core_c",
                fact!("f-the-bottom-of-the-floor"),
                t,
                10.0,
                550.0,
                Value::Celsius,
            );
        }
        c.range(
            "dome_c",
            fact!("f-the-dome"),
            self.dome_c,
            100.0,
            600.0,
            Value::Celsius,
        );
        if let Some(t) = self.air_c {
            c.range(
                "air_c",
                fact!("f-the-ovens-air"),
                t,
                20.0,
                600.0,
                Value::Celsius,
            );
        }
        around_into(c, (self.view, self.air_w_m2k, self.side), self.door_drop_k);
        c.range(
            "grill_w_m2",
            fact!("f-the-grill-at-the-food"),
            self.grill_w_m2,
            0.0,
            20_000.0,
            Value::WattsPerM2,
        );
        c.range(
            "back_w_m2",
            fact!("f-the-element-below"),
            self.back_w_m2,
            0.0,
            15_000.0,
            Value::WattsPerM2,
        );
        if let Some(t) = self.back_c {
            c.range(
                "back_c",
                fact!("f-the-elements-setting"),
                t,
                10.0,
                600.0,
                Value::Celsius,
            );
        }
        c.range(
            "door_s",
            fact!("f-the-airs-recovery"),
            self.door_s,
            20.0,
            300.0,
            Value::Seconds,
        );
    }
}

/// What surrounds a pizza: the share of hot roof over it, the heat that the air carries, how much more comes from one side; and
/// how far that air falls at the door.
pub(super) fn around_into(
    c: &mut Check,
    (view, air_w_m2k, side): (f64, f64, f64),
    door_drop_k: f64,
) {
    c.range("view", fact!("f-hot-roof"), view, 0.3, 1.0, Value::Number);
    let name = fact!("f-heat-carried-by-the-air");
    c.range("air_w_m2k", name, air_w_m2k, 3.0, 40.0, Value::WattsPerM2K);
    let name = fact!("f-more-heat-on-one-side");
    c.range("side", name, side, 0.0, 0.6, Value::Number);
    let name = fact!("f-the-fall-of-the-air-at-the-door");
    c.range("door_drop_c", name, door_drop_k, 0.0, 120.0, Value::Kelvin);
}
