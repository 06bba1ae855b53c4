//! When to turn in an oven with its fire at one side.
//!
//! Source: bake model, section 9. Colour comes late, so a single half turn belongs at about 0.7 of the bake, not at half.

use super::bake::{BakeParts, follow};
use super::heat::Fineness;
use super::race::Targets;
use super::setup::BakeRequest;

/// The side at the fire alone must stay below this share of its upper limit until the turn.
const CLOSE: f64 = 0.8;

/// The one half turn that makes both sides alike at `bake_s`, s; and, where the side at the fire would be near its
/// limit before that, when to turn instead.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FirstTurn {
    /// When, s after In.
    pub at_s: f64,
    /// It stands sooner than evenness asks.
    pub sooner: bool,
}

/// Finds the single turn by halving; `r` was checked and has its fire at one side.
pub fn first_turn(r: &BakeRequest, targets: &Targets, bake_s: f64) -> FirstTurn {
    let sides = |turn: f64| {
        let mut x = r.clone();
        x.turns_s = vec![turn];
        x.until_s = bake_s.max(10.0);
        let c = follow(&x, Fineness::Draft, BakeParts::Rim, None);
        c.moments.last().map_or((0.0, 0.0), |m| {
            // Two sides: the one that is not the first is the other extreme.
            (m.rim, m.rim_palest + m.rim_darkest - m.rim)
        })
    };
    let (mut lo, mut hi) = (0.2 * bake_s, bake_s);
    for _ in 0..7 {
        let mid = 0.5 * (lo + hi);
        let (near, far) = sides(mid);
        // The longer the first side stands at the fire, the darker it is against the other.
        if near > far { hi = mid } else { lo = mid }
    }
    let at_s = 0.5 * (lo + hi);
    let mut alone = r.clone();
    alone.turns_s = vec![];
    alone.until_s = bake_s.max(10.0);
    let close = follow(&alone, Fineness::Draft, BakeParts::Rim, None)
        .moments
        .iter()
        .find(|m| m.rim > CLOSE * targets.rim.1)
        .map(|m| m.t);
    match close {
        Some(t) if t < at_s => FirstTurn {
            at_s: t,
            sooner: true,
        },
        _ => FirstTurn {
            at_s,
            sooner: false,
        },
    }
}
