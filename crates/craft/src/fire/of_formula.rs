//! From a dough to a fire: the piece that its formula makes, and the oven that its style wants.

use super::material::Material;
use super::oven::{Oven, Setting};
use super::plan::FirePlan;
use super::setup::{Aim, PanNow, Piece};
use crate::formula::{ExtraKind, Formula, PanShape, Portion};
use crate::style::Style;
use crate::style::topping::{DISC_CM, ToppingPart};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// How a style's pieces are shaped for the oven and what they aim at.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct StyleBake {
    pub aim: Aim,
    /// 5 to 50 mm.
    pub rim_mm: f64,
    /// Share of the dough that lies in the rim, 0.05 to 0.6.
    pub rim_share: f64,
}

/// What a kitchen's pans are made of where nobody said: thin dark steel, oiled.
pub fn usual_pan(wall_mm: f64) -> PanNow {
    PanNow {
        material: Material::CarbonSteel,
        mm: 1.0,
        pan_c: 22.0,
        wall_mm: wall_mm.clamp(0.0, 80.0),
        oiled: true,
    }
}

/// Largest piece that the model takes; larger ones are computed as a part of the same thickness.
const MOST_G: f64 = 2000.0;
const MOST_MM: f64 = 600.0;

impl Style {
    /// Its bake; a style of a kitchen's own that says nothing is judged by its oven and its pieces.
    pub fn bakes(&self) -> StyleBake {
        if let Some(b) = self.bakes_as {
            return b;
        }
        let (aim, rim_mm, rim_share) = if self.pieces.in_pans(false) {
            (Aim::Pan, 12.0, 0.15)
        } else if self.oven.floor_c.middle() >= 370.0 {
            (Aim::Hot, 20.0, 0.30)
        } else if self.oven.words.to_lowercase().contains("home") {
            (Aim::Home, 15.0, 0.20)
        } else {
            (Aim::Deck, 20.0, 0.22)
        };
        StyleBake {
            aim,
            rim_mm,
            rim_share,
        }
    }
}

/// Sauce and cheese on one piece of this area, g: what goes on before the bake.
pub fn toppings(list: &[ToppingPart], area_cm2: f64) -> (f64, f64) {
    let scale = area_cm2 / crate::formula::disc_cm2(DISC_CM);
    let (mut sauce, mut cheese) = (0.0, 0.0);
    for t in list.iter().filter(|t| !t.after_the_bake) {
        let name = t.name.to_lowercase();
        let is_cheese = t.allergens.to_lowercase().contains("milk")
            || name.contains("cheese")
            || name.contains("mozzarella");
        if is_cheese {
            cheese += t.g_per_disc * scale;
        } else if t.wet {
            sauce += t.g_per_disc * scale;
        }
    }
    (sauce.round().min(600.0), cheese.round().min(600.0))
}

/// The piece of a formula as it goes in; `portion` is the kind that most of them are.
pub fn piece(f: &Formula, portion: &Portion, room_c: f64) -> Piece {
    let bakes = f.style.bakes();
    let disc_mm = 10.0 * 2.0 * (portion.area_cm2 / std::f64::consts::PI).sqrt();
    let part = (MOST_G / portion.piece_g)
        .min((MOST_MM / disc_mm).powi(2))
        .min(1.0);
    let (sauce_g, cheese_g) = toppings(&f.toppings, part * portion.area_cm2);
    let extra = |kind: ExtraKind| -> f64 {
        f.extras
            .iter()
            .filter(|e| e.kind == kind)
            .map(|e| e.amount)
            .sum()
    };
    Piece {
        ball_g: part * portion.piece_g,
        disc_mm: disc_mm * part.sqrt(),
        rim_mm: bakes.rim_mm,
        rim_share: bakes.rim_share,
        hydration_percent: f.hydration_percent,
        salt_percent: f.salt_percent,
        sugar_percent: f.sugars_percent(),
        malt_percent: extra(ExtraKind::ActiveMalt),
        oil_percent: f.fats_percent(),
        // Milk is an eighth solids.
        milk_percent: extra(ExtraKind::MilkPowder) + 0.125 * extra(ExtraKind::Milk),
        maturity: 1.0,
        cold: f.path().iter().any(|l| l.spot.is_cold()),
        dough_c: room_c.clamp(0.0, 40.0),
        sauce_g,
        cheese_g,
    }
}

/// A fire for a formula in an oven at a setting; in a pan where the piece lies in one.
pub fn plan(
    f: &Formula,
    portion: &Portion,
    oven: &Oven,
    setting: Setting,
    pan: Option<PanNow>,
    (room_c, altitude_m): (f64, f64),
) -> FirePlan {
    let in_pan = portion.pan.is_some();
    FirePlan {
        aim: if in_pan {
            Aim::Pan
        } else {
            f.style.bakes().aim
        },
        piece: piece(f, portion, room_c),
        oven: oven.clone(),
        setting,
        pan: in_pan.then(|| pan.unwrap_or(usual_pan(wall_of(portion.pan)))),
        shape: if f.double_bake {
            Some("double".into())
        } else {
            None
        },
        turns: None,
        floor_read_c: None,
        altitude_m,
    }
}

/// A round pan is taken for a deep one.
fn wall_of(pan: Option<PanShape>) -> f64 {
    match pan {
        Some(PanShape::Round { .. }) => 50.0,
        _ => 25.0,
    }
}
