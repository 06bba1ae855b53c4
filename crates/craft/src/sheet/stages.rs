//! The stages of a sheet: as the rise model takes them, and as the picture draws them.

use super::{Block, BlockKind, SheetRequest, hours};
use crate::formula::FormulaResult;
use crate::path::{Leg, Lies, Spot};
use crate::rise::{Air, DoughShape, Event, Stage};

/// A freezer, °C.
const FREEZER_C: f64 = -18.0;
/// A tub carries so much dough that one person lifts it, g.
const TUB_G: f64 = 20_000.0;

/// Tubs that the dough needs.
pub(super) fn tubs(dough_g: f64) -> f64 {
    (dough_g / TUB_G).ceil().max(1.0)
}

/// The air of a spot, its temperature in this kitchen (°C), and its day where it swings.
pub(super) fn air_of(r: &SheetRequest, spot: &Spot) -> (Air, f64, Option<Vec<f64>>) {
    match spot {
        Spot::Room => (Air::Room, r.room_c, None),
        Spot::Fridge => (Air::Fridge, r.fridge_c, None),
        Spot::Freezer => (Air::Freezer, FREEZER_C, None),
        Spot::Own(p) => (p.air, p.c, p.profile_c.clone()),
    }
}

/// A leg as the rise model takes it: one stage, or several with folds between.
pub(super) fn leg_stages(r: &SheetRequest, f: &FormulaResult, leg: &Leg) -> Vec<Stage> {
    let portion = f.main_portion().expect("a weighed formula has pieces");
    let (shape, piece_g, thickness_mm) = match leg.lies {
        Lies::Bulk => {
            let g = leg.tub_g.unwrap_or(f.dough_g);
            (DoughShape::Bulk, g / tubs(g), None)
        }
        Lies::Balls => (DoughShape::Ball, portion.piece_g, None),
        Lies::Pans => (
            DoughShape::Slab,
            portion.piece_g,
            Some(portion.thickness_mm().clamp(4.0, 150.0)),
        ),
    };
    let (air, c, place_profile_c) = air_of(r, &leg.spot);
    // What the log says of this kitchen's places.
    let c = r.place_here_c(air, c);
    let place_profile_c: Option<Vec<f64>> =
        place_profile_c.map(|day| day.into_iter().map(|c| r.place_here_c(air, c)).collect());
    let stage = |hours: f64, event: Event| Stage {
        hours,
        piece_g: piece_g.clamp(20.0, 60_000.0),
        shape,
        thickness_mm,
        container: leg.container(),
        air,
        place_c: Some(c),
        place_profile_c: place_profile_c.clone(),
        place_off_k: match &leg.spot {
            Spot::Own(p) => p.off_k,
            _ => None,
        },
        starts_at_c: None,
        event,
    };
    let folds = leg.folds_that_fit();
    let every = leg.fold_every_h;
    let first = if folds > 0 { every } else { leg.hours };
    let mut out = vec![stage(first, leg.event)];
    for i in 1..=folds {
        let rest = leg.hours - f64::from(i) * every;
        out.push(stage(if i == folds { rest } else { every }, Event::Fold));
    }
    out
}

/// The stages of the sheet, as the rise model takes them.
pub(super) fn stages(r: &SheetRequest, f: &FormulaResult) -> Vec<Stage> {
    r.formula
        .path()
        .iter()
        .flat_map(|leg| leg_stages(r, f, leg))
        .collect()
}

/// How a leg is drawn. After the cold, the room brings it back to warmth.
fn block_kind(legs: &[Leg], i: usize) -> BlockKind {
    let leg = &legs[i];
    let after_cold = i > 0 && (legs[i - 1].spot.is_cold() || legs[i - 1].spot.is_frozen());
    match leg.lies {
        _ if leg.spot.is_frozen() => BlockKind::Frozen,
        _ if leg.spot.is_cold() => BlockKind::Cold,
        Lies::Pans => BlockKind::Temper,
        Lies::Bulk => BlockKind::Bulk,
        Lies::Balls if after_cold && leg.event != Event::Ball => BlockKind::Temper,
        Lies::Balls => BlockKind::Ball,
    }
}

/// The blocks of the picture.
pub(super) fn blocks(r: &SheetRequest) -> Vec<Block> {
    let mixed = r.mixed_at();
    let mut out = vec![];
    if r.start_at() < r.mix_at() {
        out.push(Block {
            kind: BlockKind::Preferment,
            from_at: r.start_at(),
            to_at: r.mix_at(),
            leg: None,
        });
    }
    out.push(Block {
        kind: BlockKind::Mix,
        from_at: r.mix_at(),
        to_at: mixed,
        leg: None,
    });
    let legs = r.formula.path();
    let mut h = 0.0;
    for (i, leg) in legs.iter().enumerate() {
        out.push(Block {
            kind: block_kind(&legs, i),
            from_at: mixed + hours(h),
            to_at: mixed + hours(h + leg.hours),
            leg: Some(i),
        });
        h += leg.hours;
    }
    out
}
