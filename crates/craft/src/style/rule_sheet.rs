//! The traditional rule sheet for lean rounds of the Naples type, as a check list: which points a plan meets.
//!
//! Source: craft notes, section 1. It proves or disproves, it does not reproach.

use super::Style;
use super::topping::amounts;
use crate::flour::FlourKind;
use crate::formula::{ExtraKind, Formula, FormulaResult};
use crate::refusal::plain;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// One point of the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Point {
    pub what: String,
    pub rule: String,
    pub here: String,
    /// `None` where the formula does not say.
    pub met: Option<bool>,
}

/// Holds a formula against the sheet; `water_c` is the water to pour, where it is known, `bake_s` how long one is in.
pub fn points(f: &Formula, r: &FormulaResult, water_c: Option<f64>, bake_s: u32) -> Vec<Point> {
    let mut out = Vec::new();
    let mut within = |what: &str, low: f64, high: f64, unit: &str, here: Option<f64>| {
        out.push(Point {
            what: what.into(),
            rule: if low == high {
                format!("{} {unit}", plain(low))
            } else {
                format!("{} to {} {unit}", plain(low), plain(high))
            },
            here: here.map_or("not known".into(), |v| {
                format!("{} {unit}", plain((v * 10.0).round() / 10.0))
            }),
            met: here.map(|v| (low - 0.05..=high + 0.05).contains(&v)),
        });
    };
    let blend = r.blend;
    within(
        "Protein of the flour",
        11.0,
        13.5,
        "%",
        blend.and_then(|b| b.protein_percent),
    );
    within("Water to pour", 16.0, 22.0, "°C", water_c);
    within(
        "Dough off the mixer",
        23.0,
        23.0,
        "°C",
        Some(f.target_dough_c),
    );
    within("Ball", 200.0, 280.0, "g", Some(r.piece_g));
    let area = r.portions.first().map_or(0.0, |p| p.area_cm2);
    within(
        "Disc",
        22.0,
        35.0,
        "cm",
        Some((4.0 * area / std::f64::consts::PI).sqrt()),
    );
    // As they lie on this piece, to the gram: what the table of toppings says.
    let on_one = amounts(&f.toppings, &r.portions, bake_s);
    let topping = |word: &str| {
        let found = on_one
            .iter()
            .find(|t| t.name.to_lowercase().contains(word))?;
        found.each_g.first().map(|g| g.round())
    };
    within("Sauce", 60.0, 80.0, "g", topping("sauce"));
    within("Oil on top", 6.0, 8.0, "g", topping("oil"));
    within("Bake", 60.0, 90.0, "s", Some(f64::from(bake_s)));
    out.insert(0, fine_flour(f));
    out.insert(1, only_four(f));
    out.push(wood_fired(&f.style));
    out
}

fn fine_flour(f: &Formula) -> Point {
    let other: Vec<&str> = f
        .flours
        .iter()
        .filter(|x| x.facts.kind != FlourKind::SoftFine && x.share_percent > 0.0)
        .map(|x| x.name.as_str())
        .collect();
    Point {
        what: "Flour".into(),
        rule: "fine soft wheat, 00 or 0".into(),
        here: if other.is_empty() {
            "fine soft wheat".into()
        } else {
            format!("also {}", other.join(", "))
        },
        met: Some(other.is_empty()),
    }
}

fn only_four(f: &Formula) -> Point {
    let mut other: Vec<String> = f
        .extras
        .iter()
        .filter(|e| e.amount > 0.0 && e.kind != ExtraKind::DriedMother)
        .map(|e| e.called().to_lowercase())
        .collect();
    if f.oil_percent > 0.0 {
        other.push("oil".into());
    }
    if f.sugar_percent > 0.0 {
        other.push("sugar".into());
    }
    Point {
        what: "In the dough".into(),
        rule: "flour, water, salt, yeast".into(),
        here: if other.is_empty() {
            "only these".into()
        } else {
            format!("also {}", other.join(", "))
        },
        met: Some(other.is_empty()),
    }
}

fn wood_fired(s: &Style) -> Point {
    let floor = s.oven.floor_c;
    Point {
        what: "Oven".into(),
        rule: "wood-fired, floor 380 to 430 °C".into(),
        here: s.oven.words.clone(),
        met: Some(floor.low >= 380.0 && s.oven.words.to_lowercase().contains("wood")),
    }
}
