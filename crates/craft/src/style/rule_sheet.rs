//! The traditional rule sheet for lean rounds of the Naples type, as a check list: which points a plan meets.
//!
//! Source: craft notes, section 1. It proves or disproves, it does not reproach.

use super::Style;
use super::topping::amounts;
use crate::fact;
use crate::fact::{Fact, Value, tenth};
use crate::flour::FlourKind;
use crate::formula::{ExtraKind, Formula, FormulaResult};
use crate::names;
use crate::units::Celsius;
use serde::{Deserialize, Serialize};

/// One point of the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Point {
    /// What the rule is of.
    pub what: Fact,
    /// What it asks.
    pub rule: Fact,
    /// What stands here.
    pub here: Fact,
    /// `None` where the formula does not say.
    pub met: Option<bool>,
}

/// Holds a formula against the sheet; `water_c` is the water to pour, where it is known, `bake_s` how long one is in.
pub fn points(f: &Formula, r: &FormulaResult, water_c: Option<f64>, bake_s: u32) -> Vec<Point> {
    let mut out = Vec::new();
    let mut within =
        |what: Fact, low: f64, high: f64, unit: fn(f64) -> Value, here: Option<f64>| {
            let range = Value::Range(Box::new(unit(low)), Box::new(unit(high)));
            out.push(Point {
                what,
                rule: fact!("just", value = range),
                here: match here {
                    None => fact!("rule-not-known"),
                    Some(v) => fact!("just", value = unit(tenth(v))),
                },
                met: here.map(|v| (low - 0.05..=high + 0.05).contains(&v)),
            });
        };
    let blend = r.blend;
    within(
        fact!("rule-protein"),
        11.0,
        13.5,
        Value::Percent,
        blend.and_then(|b| b.protein_percent),
    );
    within(fact!("rule-water"), 16.0, 22.0, Value::Celsius, water_c);
    within(
        fact!("rule-dough"),
        23.0,
        23.0,
        Value::Celsius,
        Some(f.target_dough_c),
    );
    within(
        fact!("rule-ball"),
        200.0,
        280.0,
        Value::Grams,
        Some(r.piece_g),
    );
    let area = r.portions.first().map_or(0.0, |p| p.area_cm2);
    within(
        fact!("rule-disc"),
        22.0,
        35.0,
        Value::Cm,
        Some((4.0 * area / std::f64::consts::PI).sqrt()),
    );
    // As they lie on this piece, to the gram: what the table of toppings says.
    let on_one = amounts(&f.toppings, &r.portions, bake_s);
    let topping = |is: fn(&str) -> bool| {
        let found = on_one.iter().find(|t| is(&t.name))?;
        found.each_g.first().map(|g| g.round())
    };
    within(
        fact!("rule-sauce"),
        60.0,
        80.0,
        Value::Grams,
        topping(names::is_sauce),
    );
    within(
        fact!("rule-oil"),
        6.0,
        8.0,
        Value::Grams,
        topping(names::is_oil),
    );
    within(
        fact!("rule-bake"),
        60.0,
        90.0,
        Value::Seconds,
        Some(f64::from(bake_s)),
    );
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
        what: fact!("rule-flour"),
        rule: fact!("rule-fine-wheat"),
        here: if other.is_empty() {
            fact!("rule-fine-wheat-here")
        } else {
            fact!("rule-also", others = other.clone())
        },
        met: Some(other.is_empty()),
    }
}

fn only_four(f: &Formula) -> Point {
    let mut other: Vec<Fact> = f
        .extras
        .iter()
        .filter(|e| e.amount > 0.0 && e.kind != ExtraKind::DriedMother)
        .map(crate::formula::Extra::called)
        .collect();
    if f.oil_percent > 0.0 {
        other.push(fact!("oil"));
    }
    if f.sugar_percent > 0.0 {
        other.push(fact!("sugar"));
    }
    Point {
        what: fact!("rule-in-dough"),
        rule: fact!("rule-only-four"),
        here: if other.is_empty() {
            fact!("rule-only-these")
        } else {
            fact!("rule-also", others = other.clone())
        },
        met: Some(other.is_empty()),
    }
}

fn wood_fired(s: &Style) -> Point {
    let floor = s.oven.floor_c;
    Point {
        what: fact!("rule-oven"),
        rule: fact!("rule-wood-fired", range = (Celsius(380.0), Celsius(430.0))),
        here: fact!(
            "rule-oven-here",
            oven = s.oven.words.as_str(),
            floor = (Celsius(floor.low), Celsius(floor.high))
        ),
        met: Some(floor.low >= 380.0 && names::says_wood(&s.oven.words)),
    }
}
