//! Level one: the tub stands otherwise than planned. What do you do?

use super::dough::{FRIDGE_C, Lying, Planned, run, stage, state};
use super::{PracticeCase, PracticeChoice};
use crate::draw::Draw;
use crate::fact;
use crate::fact::{Fact, Kelvin, hours, tenth, whole};
use crate::learn::StoodAs;
use crate::learn::likelihood::called;
use crate::rise::{Air, Event, RiseRequest, RiseResult, Stage};

/// The right answer leaves the dough so near to right, ln of its ripeness, and the others are so much farther from it.
const NEAR: f64 = 0.16;
const CLEARLY: f64 = 0.1;
/// A tub is told from the planned one where it differs so much of its rise.
const TELLS: f64 = 0.2;
/// A tub that was to rise less is no place to read from.
const LEAST_WANTED: f64 = 1.3;
/// A warm place, K over the room.
const WARM_PLACE_K: f64 = 6.0;
const WARMEST_C: f64 = 30.0;

/// Something that can be done with the rest of the bulk.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Doing {
    Nothing,
    /// So many hours in the fridge out of the bulk.
    Cool(f64),
    /// The rest of the day in a warm place.
    Warm,
    /// Served so many hours sooner.
    Sooner(f64),
    /// Served so many hours later.
    Later(f64),
}

impl Doing {
    fn says(self) -> Fact {
        match self {
            Doing::Nothing => fact!("practice-do-nothing"),
            Doing::Cool(h) => fact!("practice-do-cool", time = hours(h)),
            Doing::Warm => fact!("practice-do-warm", k = Kelvin(WARM_PLACE_K)),
            Doing::Sooner(h) => fact!("practice-do-sooner", time = hours(h)),
            Doing::Later(h) => fact!("practice-do-later", time = hours(h)),
        }
    }

    /// The dough with it, from `at` hours into its bulk on.
    fn done(self, real: &RiseRequest, at: f64) -> RiseRequest {
        let mut r = real.clone();
        let (bulk, balls) = (r.stages[0].clone(), r.stages[1].clone());
        let rest = bulk.hours - at;
        let part = |h: f64, of: &Stage| Stage {
            hours: h,
            event: Event::None,
            ..of.clone()
        };
        match self {
            Doing::Nothing => {}
            Doing::Cool(h) => {
                let cold = stage(h, Some(bulk.piece_g), Air::Fridge, FRIDGE_C, Event::None);
                r.stages = vec![part(at, &bulk), cold, part(rest - h, &bulk), balls];
            }
            Doing::Warm => {
                let warm = |of: &Stage| of.place_c.map(|c| (c + WARM_PLACE_K).min(WARMEST_C));
                let warmer = |of: Stage| Stage {
                    place_c: warm(&of),
                    ..of
                };
                r.stages = vec![part(at, &bulk), warmer(part(rest, &bulk)), warmer(balls)];
            }
            Doing::Sooner(h) => r.stages[1].hours -= h,
            Doing::Later(h) => r.stages[1].hours += h,
        }
        r
    }
}

fn at_hours(r: &RiseResult, h: f64) -> Option<f64> {
    let after = r.points.iter().position(|p| p.hours >= h)?;
    let (b, a) = (&r.points[after], &r.points[after.saturating_sub(1)]);
    let span = b.hours - a.hours;
    Some(match span > 1e-9 {
        true => a.volume + (b.volume - a.volume) * (h - a.hours) / span,
        false => b.volume,
    })
}

pub(super) fn drawn(draw: &mut Draw) -> Option<PracticeCase> {
    let planned = Planned::drawn(draw, Lying::Room)?;
    let ahead = draw.below(2) == 0;
    let mut real = planned.dough.clone();
    match (draw.below(2), ahead) {
        (0, true) => real.departs.yeast = draw.between(0.35, 0.65),
        (0, false) => real.departs.yeast = -draw.between(0.35, 0.65),
        (_, ahead) => {
            let k = draw.between(3.0, 5.0) * if ahead { 1.0 } else { -1.0 };
            for s in &mut real.stages {
                s.place_c = s.place_c.map(|c| c + k);
            }
        }
    }
    let bulk_h = planned.dough.stages[0].hours;
    let at = (bulk_h * draw.between(0.55, 0.75) * 2.0).round() / 2.0;
    let (book, is) = (run(&planned.dough)?, run(&real)?);
    let (wanted, stands) = (at_hours(&book, at)?, at_hours(&is, at)?);
    // What the eye can see: a tenth of the tub.
    let (wanted, stands) = (tenth(wanted), tenth(stands));
    if wanted < LEAST_WANTED || ((stands - 1.0).max(0.05) / (wanted - 1.0)).ln().abs() < TELLS {
        return None;
    }
    let rest = bulk_h - at;
    let halves = |h: f64| ((h * 2.0).round() / 2.0).max(0.5);
    let mut doings = vec![Doing::Nothing, Doing::Warm];
    doings.extend([0.3, 0.5, 0.8].map(|of| Doing::Cool(halves(of * rest))));
    doings.extend([1.0, 1.5, 2.0, 3.0].map(|h| match ahead {
        true => Doing::Sooner(h),
        false => Doing::Later(h),
    }));
    doings.dedup();
    let mut tried = vec![];
    for d in doings {
        let r = d.done(&real, at);
        if r.check(false).is_ok() {
            let went = run(&r)?;
            let off = state(&went).abs();
            tried.push((d, went, off));
        }
    }
    tried.sort_by(|a, b| a.2.total_cmp(&b.2));
    let best = tried.first().filter(|t| t.2 <= NEAR)?.2;
    // Beside the best one those that nobody would call right, and first what is usually done: nothing.
    let (mut kept, mut worse): (Vec<_>, Vec<_>) = tried.into_iter().partition(|t| t.2 <= best);
    kept.truncate(1);
    worse.retain(|t| t.2 >= best + CLEARLY && called(state(&t.1)) != StoodAs::Right);
    draw.shuffle(&mut worse);
    worse.sort_by_key(|t| t.0 != Doing::Nothing);
    worse.truncate(3);
    if worse.len() < 2 {
        return None;
    }
    kept.extend(worse);
    let (tried, right) = (kept, 0);
    let choices = tried
        .iter()
        .map(|(d, r, _)| PracticeChoice {
            says: d.says(),
            outcome: fact!(
                "practice-stands-so",
                rise = whole(100.0 * r.at_bake.ripeness),
                left = whole(100.0 * r.at_bake.reserve),
                is = called(state(r)).name()
            ),
        })
        .collect();
    Some(PracticeCase {
        story: vec![
            planned.says(),
            fact!(
                "practice-tub-stands",
                at = hours(at),
                stands = stands,
                wanted = wanted
            ),
        ],
        asks: fact!("practice-what-do-you-do"),
        choices,
        right,
        why: match ahead {
            true => fact!("practice-runs-ahead"),
            false => fact!("practice-lags"),
        },
    })
}
