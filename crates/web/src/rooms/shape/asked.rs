//! What a form of Shape says.

use crate::batch::record::BatchRecord;
use crate::shared::form::{FormData, measured, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::phrase;
use craft::fact::Fact;
use craft::keyed::Keyed;
use craft::path::Spot;
use craft::refusal::FieldError;
use craft::shape::run::{BenchFlour, ShapeAct};
use craft::shape::{PressSign, TrayWork};
use craft::units::Meant;

/// The taps that a form means; most are one, all boxes of a round are several.
///
/// Errors: the field and what is wrong with it.
pub fn read(
    typed: &FormData,
    told: &BatchRecord,
    larder: &Larder,
    here: &RequestKitchen,
) -> Result<Vec<ShapeAct>, FieldError> {
    let wrong = |field: &str, says: &str| FieldError {
        field: field.into(),
        message: Fact::as_written(says),
    };
    let unknown = || wrong("act", phrase("shape-that-is-not-a-tap"));
    let boxes = || -> Result<Vec<u16>, FieldError> {
        let each = typed
            .text("box")
            .split(',')
            .map(|n| n.trim().parse::<u16>());
        let all: Result<Vec<u16>, _> = each.collect();
        all.ok()
            .filter(|n| !n.is_empty() && n.len() <= 64)
            .ok_or_else(unknown)
    };
    let one = || boxes().map(|b| b[0]);
    let grams = |name: &str| -> Result<f64, FieldError> {
        let value = measured(typed.text(name), Meant::Weight(here.measures.weight));
        let value = value.ok().filter(|v| v.is_finite());
        value.ok_or_else(|| wrong(name, phrase("shape-type-what-the-scale-says-2")))
    };
    let acts = match typed.text("act") {
        "whole" => vec![ShapeAct::Whole { g: grams("g")? }],
        "piece" => vec![ShapeAct::Piece {
            g: match typed.text("g") {
                "" => None,
                _ => Some(grams("g")?),
            },
        }],
        "divided" => {
            let count = number(typed.text("count"))
                .ok()
                .filter(|n| n.fract() == 0.0 && *n >= 0.0);
            let count = count.ok_or_else(|| wrong("count", phrase("shape-say-how-many-pieces")))?;
            vec![ShapeAct::Divided {
                count: count.min(1e6) as u32,
                ball_g: grams("ball_g")?,
                of: Some(told.batch.sheet.result.formula.pieces),
            }]
        }
        "boxed" => vec![boxed(typed, larder).ok_or_else(unknown)?],
        "pressed" => vec![ShapeAct::Pressed {
            number: one()?,
            sign: PressSign::from_key(typed.text("sign")).ok_or_else(unknown)?,
        }],
        "moved" => {
            let to = spot(typed.text("to"), told, larder).ok_or_else(unknown)?;
            let of = |number| ShapeAct::Moved {
                number,
                to: to.clone(),
            };
            boxes()?.into_iter().map(of).collect()
        }
        "stacked" => vec![ShapeAct::Stacked {
            number: one()?,
            stacked: typed.text("stacked") != "no",
        }],
        "tray" => vec![ShapeAct::Tray {
            number: one()?,
            did: TrayWork::from_key(typed.text("did")).ok_or_else(unknown)?,
        }],
        "skin" => vec![ShapeAct::Skin { number: one()? }],
        "reballed" => vec![ShapeAct::Reballed {
            number: one()?,
            bench: BenchFlour::from_key(typed.text("bench")).unwrap_or(BenchFlour::Usual),
            tight: typed.has("tight"),
        }],
        _ => return Err(unknown()),
    };
    for act in &acts {
        act.check().map_err(|e| e.0[0].clone())?;
    }
    Ok(acts)
}

/// A place by its key: the room, the fridge, the freezer, or one of the pantry's.
fn spot(key: &str, told: &BatchRecord, larder: &Larder) -> Option<Spot> {
    Some(match key {
        "room" => Spot::Room,
        "fridge" => Spot::Fridge,
        "freezer" => Spot::Freezer,
        // Where the plan lets it come to warmth.
        "warm" => warm(told),
        // Where it lay cold.
        "cold" => cold(told),
        own => {
            let id: u64 = own.strip_prefix("own:")?.parse().ok()?;
            let found = larder.0.places.iter().find(|p| p.id == id)?;
            Spot::Own(found.facts.clone())
        }
    })
}

/// Where the plan lets the dough come to warmth before the oven.
pub fn warm(told: &BatchRecord) -> Spot {
    let path = told.batch.sheet.request.formula.path();
    let last = path.last().map(|l| l.spot.clone());
    last.filter(|s| !s.is_cold() && !s.is_frozen())
        .unwrap_or(Spot::Room)
}

/// Where the plan keeps the dough cold.
fn cold(told: &BatchRecord) -> Spot {
    let path = told.batch.sheet.request.formula.path();
    let last = path.iter().rfind(|l| l.spot.is_cold());
    last.map_or(Spot::Fridge, |l| l.spot.clone())
}

/// A box of the pantry with a gap, as `number:gap`.
fn boxed(typed: &FormData, larder: &Larder) -> Option<ShapeAct> {
    let (id, gap) = typed.text("kind").split_once(':')?;
    let gap_cm = number(gap).ok().filter(|g| (0.5..=15.0).contains(g))?;
    let id: u64 = id.parse().ok()?;
    let own = larder.0.boxes.iter().find(|b| b.id == id);
    let kind = match own {
        Some(b) => b.facts.kind(gap_cm),
        None => craft::shape::run::BoxKind {
            gap_cm,
            ..larder.usual_box()
        },
    };
    Some(ShapeAct::Boxed { into: kind })
}
