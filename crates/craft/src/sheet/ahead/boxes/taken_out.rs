//! When each box leaves the cold: proposed by the short clock, checked with the whole model, gone in rounds.

use super::moment::moment;
use super::runs::BoxRuns;
use crate::rise::responses;
use crate::shape::{BoxService, ColdBox, OutState, rounds_of, stagger_at, tau_h, to_five};
use crate::sheet::ahead::timeline::h_between;
use crate::sheet::hours;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// Rise that a box is to have when its first ball is opened.
const WANT: f64 = 1.0;
/// Rise from which a ball fades.
const FADE: f64 = 1.7;
/// So far off the short clock is mended by one step of the whole model.
const MENDED: f64 = 0.03;

/// When a box leaves the cold.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct OutAt {
    /// To five minutes.
    pub at: Timestamp,
    /// How it fits its hour.
    pub state: OutState,
}

/// Boxes that are in the cold, or will be, with the moment of their first and last ball.
#[derive(Debug, Clone, Copy)]
pub(super) struct InTheCold {
    /// Its place among all boxes.
    pub index: usize,
    pub balls: u32,
    pub use_at: Timestamp,
    pub last_at: Timestamp,
}

/// The rounds of a service.
pub(super) struct Rounds {
    /// By the place among all boxes.
    pub out: Vec<(usize, OutAt)>,
    /// Whether it is worth the walks.
    pub worth_it: bool,
}

/// A moment to five minutes of the clock.
fn on_the_clock(from: Timestamp, min: f64) -> Timestamp {
    let s = from.as_second() as f64 + 60.0 * min;
    let five = 60.0 * to_five(s / 60.0);
    Timestamp::from_second(five as i64).unwrap_or(from)
}

/// Proposes when each of these leaves the cold, in their order of use.
pub(super) fn rounds(runs: &mut BoxRuns, cold: &[InTheCold], pace_s: f64) -> Option<Rounds> {
    let first = cold.first()?;
    let until = cold.iter().map(|c| c.last_at).max()?;
    let base: Vec<_> = cold.iter().map(|c| runs.of(c.index, None, until)).collect();
    // From when on nothing but the cold happens to any of them.
    let begun = cold.iter().filter_map(|c| runs.cold_from(c.index)).max()?;
    let from = runs.now().max(begun);
    let min = |at: Timestamp| 60.0 * h_between(from, at);
    let mixed_at = runs.mixed_at();
    let (cold_c, room_c) = runs.cold_and_room(first.index, from)?;
    let service = BoxService {
        first_use_min: min(first.use_at),
        pace_s,
        cold_c,
        room_c,
        fade: FADE,
        want: WANT,
    };
    let boxes: Vec<(ColdBox, f64)> = cold
        .iter()
        .zip(&base)
        .map(|(c, run)| {
            let (lies, air, g) = runs.lies(c.index, from);
            let at = moment(run, h_between(mixed_at, from));
            let end = moment(run, h_between(mixed_at, c.use_at));
            let warmed = warmed_h(run, mixed_at, from, c.use_at);
            let b = ColdBox {
                balls: c.balls,
                rise: at.rise,
                dough_c: at.dough_c,
                rate_per_h: ((end.rise - at.rise) / warmed.max(1e-6)).max(1e-4),
                tau_h: tau_h(lies, crate::rise::Air::Room, g),
                tau_cold_h: tau_h(lies, air, g),
            };
            (b, min(c.use_at))
        })
        .collect();
    let proposed = stagger_at(&boxes, &service);
    let mut said: Vec<f64> = vec![];
    for ((c, (b, use_min)), t) in cold.iter().zip(&boxes).zip(&proposed.boxes) {
        let mut out_min = t.said_min;
        if t.state == OutState::Ok && out_min > 0.0 {
            // One step along the short clock's own slope.
            let real = runs.rise_at(c.index, from + hours(out_min / 60.0), c.use_at, until);
            let slope = (b.at_use(&service, out_min + 5.0, *use_min).0
                - b.at_use(&service, (out_min - 5.0).max(0.0), *use_min).0)
                / (5.0 + out_min.min(5.0));
            if (real - WANT).abs() > MENDED && slope < -1e-6 {
                let moved = out_min - (real - WANT) / slope;
                out_min = moved.clamp(0.0, (use_min - 60.0).max(0.0));
            }
        }
        said.push(out_min);
    }
    // What is used first is never in the cold longer.
    for i in 1..said.len() {
        said[i] = said[i].max(said[i - 1]);
    }
    // Those of a round go at the first one's time.
    let mut at: Vec<Timestamp> = said.iter().map(|m| on_the_clock(from, *m)).collect();
    let on_clock: Vec<f64> = at.iter().map(|t| min(*t)).collect();
    for round in rounds_of(&on_clock) {
        for i in &round {
            at[*i] = at[round[0]];
        }
    }
    let out = cold
        .iter()
        .zip(&proposed.boxes)
        .zip(at)
        .map(|((c, t), at)| {
            let at = at.max(from);
            (c.index, OutAt { at, state: t.state })
        });
    Some(Rounds {
        out: out.collect(),
        worth_it: proposed.worth_it,
    })
}

/// So far beyond ready a box must be at its use before it is carried back, and so much must that give.
const TOO_RIPE: f64 = 1.25;
const WORTH_BACK: f64 = 0.10;
/// Less time in the cold does nothing to a ball, h.
const SHORTEST_BACK_H: f64 = 0.5;

/// Boxes in the room that would be too ripe at their use: back into the cold now, and out again at that moment. Not for a dough
/// that never was cold.
pub(super) fn back_again(
    runs: &mut BoxRuns,
    warm: &[InTheCold],
    pace_s: f64,
) -> Vec<(usize, OutAt)> {
    let (now, mixed_at) = (runs.now(), runs.mixed_at());
    let Some(until) = warm.iter().map(|w| w.last_at).max() else {
        return vec![];
    };
    let mut ripe = vec![];
    for w in warm {
        let as_it_lies = moment(
            &runs.of(w.index, None, until),
            h_between(mixed_at, w.use_at),
        )
        .rise;
        if as_it_lies > TOO_RIPE && runs.was_cold(w.index) {
            ripe.push((w, as_it_lies));
        }
    }
    let boxes: Vec<usize> = ripe.iter().map(|(w, _)| w.index).collect();
    if boxes.is_empty() {
        return vec![];
    }
    let mut back = runs.put_back(&boxes);
    let cold: Vec<InTheCold> = ripe.iter().map(|(w, _)| **w).collect();
    let Some(found) = rounds(&mut back, &cold, pace_s) else {
        return vec![];
    };
    let mut gives = |(index, out): &(usize, OutAt)| {
        let (w, as_it_lies) = ripe.iter().find(|(w, _)| w.index == *index)?;
        let then = back.rise_at(*index, out.at, w.use_at, until);
        let long = h_between(now, out.at) >= SHORTEST_BACK_H;
        (long && as_it_lies - then >= WORTH_BACK).then_some((*index, *out))
    };
    found.out.iter().filter_map(&mut gives).collect()
}

/// Hours at the warmth that gas is counted by, along a run.
fn warmed_h(
    run: &crate::rise::RiseResult,
    mixed_at: Timestamp,
    from: Timestamp,
    to: Timestamp,
) -> f64 {
    const STEP_H: f64 = 0.1;
    let (a, b) = (h_between(mixed_at, from), h_between(mixed_at, to));
    let n = ((b - a) / STEP_H).ceil().clamp(1.0, 2000.0);
    let step = (b - a) / n;
    let each = (0..n as usize).map(|i| {
        let at = a + (i as f64 + 0.5) * step;
        responses::at(moment(run, at).dough_c).gas * step
    });
    each.sum()
}
