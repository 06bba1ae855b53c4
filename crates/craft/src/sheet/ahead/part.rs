//! A dough that is parted: some of its pieces go another way, into the freezer or to another hour.
//!
//! Both parts are the same dough: what happened so far happened to both. From now on each has legs of its own.

use super::AheadRequest;
use super::course::DoughCourse;
use super::idea::cut_now;
use crate::fact;
use crate::path::{LONGEST_H, Leg, Lies, Spot};
use crate::refusal::ValidationError;
use crate::rise::Event;
use crate::sheet::{SheetRequest, hours};
use jiff::Timestamp;

/// Where some of the pieces go.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PartWay {
    /// Frozen now, thawed and tempered for another day.
    Freezer,
    /// On as they lie, for another hour.
    Apart,
}

/// Least time in a freezer that is worth it; thawing in the fridge, usually and at least; out of it before the oven, h
/// (craft notes, section 4: a day in the fridge, then some hours out).
const LEAST_FROZEN_H: f64 = 6.0;
const THAW_H: f64 = 24.0;
const LEAST_THAW_H: f64 = 18.0;
const TEMPER_H: f64 = 4.0;

/// The two requests of a parted dough.
#[derive(Debug, Clone, PartialEq)]
pub struct Parted {
    /// What stays.
    pub rest: SheetRequest,
    /// What goes the other way.
    pub part: SheetRequest,
}

/// Parts `n` pieces of a dough that is in the bowl from the others, to be served at `serve_at`.
///
/// Errors: at `part_count` or `part_serve`, what cannot be: a dough that is not mixed yet, all of it or none, an hour that the
/// way does not reach.
pub fn part(
    q: &AheadRequest,
    n: u32,
    way: PartWay,
    serve_at: Timestamp,
) -> Result<Parted, ValidationError> {
    let all = q.request.formula.pieces.count();
    let course = DoughCourse::of(q)?;
    if !course.in_bowl {
        return Err(ValidationError::one("part_count", fact!("part-not-mixed")));
    }
    if n == 0 || n >= all {
        let most = all.saturating_sub(1);
        let message = match most {
            0 => fact!("part-one"),
            _ => fact!("part-range", most = most, all = all),
        };
        return Err(ValidationError::one("part_count", message));
    }
    let whole_h = whole_h(&course, serve_at)?;
    // Until now all lay in one tub: a smaller one would have been another dough.
    let whole_g = q.planned.formula.dough_g;
    let in_one_tub = |legs: &mut [Leg]| {
        for leg in legs.iter_mut().filter(|l| l.lies == Lies::Bulk) {
            leg.tub_g.get_or_insert(whole_g);
        }
    };
    let mut stays = q.request.formula.path();
    let (begun, _) = course.leg_at(q.now);
    in_one_tub(&mut stays[..=begun]);
    let (mut legs, i) = cut_now(q, &course);
    in_one_tub(&mut legs[..i]);
    let legs = match way {
        PartWay::Freezer => frozen(&legs, i, whole_h)?,
        PartWay::Apart => apart(&legs, i, q.request.serve_at, serve_at)?,
    };
    let of = |n: u32| -> Result<SheetRequest, ValidationError> {
        let formula = q.planned.weighed(q.request.formula.scaled_to(n)?);
        let mut out = q.request.of_formula(formula);
        out.now_at = None;
        Ok(out)
    };
    let mut rest = of(all - n)?;
    rest.formula = rest.formula.on_path(stays);
    let mut part = of(n)?;
    part.serve_at = serve_at;
    part.formula = part.formula.on_path(legs);
    Ok(Parted { rest, part })
}

/// Hours from mixing to serving.
fn whole_h(course: &DoughCourse, serve_at: Timestamp) -> Result<f64, ValidationError> {
    let h = serve_at.duration_since(course.mixed_at).as_secs_f64() / 3600.0;
    if h > LONGEST_H {
        return Err(ValidationError::one(
            "part_serve",
            fact!("part-too-late", days = (LONGEST_H / 24.0).round() as u32),
        ));
    }
    Ok(h)
}

/// Into the freezer now, a day in the fridge, some hours out.
fn frozen(legs: &[Leg], i: usize, whole_h: f64) -> Result<Vec<Leg>, ValidationError> {
    let mut out = legs[..i].to_vec();
    let gone_h: f64 = out.iter().map(|l| l.hours).sum();
    let left_h = whole_h - gone_h;
    let thaw_h = (left_h - LEAST_FROZEN_H - TEMPER_H).clamp(LEAST_THAW_H, THAW_H);
    let frozen_h = left_h - thaw_h - TEMPER_H;
    if frozen_h < LEAST_FROZEN_H {
        let least = LEAST_FROZEN_H + LEAST_THAW_H + TEMPER_H;
        return Err(ValidationError::one(
            "part_serve",
            fact!(
                "part-freezing",
                temper = fact::hours(TEMPER_H),
                least = fact::hours(least)
            ),
        ));
    }
    // What is still a dough in its tub is balled first.
    let (lies, event) = match legs[i].lies {
        Lies::Bulk => (Lies::Balls, Event::Ball),
        lies => (lies, Event::None),
    };
    out.push(Leg::of(lies, Spot::Freezer, frozen_h, event));
    out.push(Leg::of(lies, Spot::Fridge, thaw_h, Event::None));
    out.push(Leg::of(lies, Spot::Room, TEMPER_H, Event::None));
    Ok(out)
}

/// On as they lie; the cold that is still to come, or else the last leg, takes what is sooner or later.
fn apart(
    legs: &[Leg],
    i: usize,
    was: Timestamp,
    serve_at: Timestamp,
) -> Result<Vec<Leg>, ValidationError> {
    let mut out = legs.to_vec();
    let by = serve_at.duration_since(was).as_secs_f64() / 3600.0;
    let takes = (i..out.len())
        .rev()
        .find(|k| out[*k].spot.is_cold())
        .unwrap_or(out.len() - 1);
    out[takes].hours += by;
    if out[takes].hours < 1.0 / 60.0 {
        let soonest = was - hours(out[takes].hours - by - 1.0 / 60.0);
        let short = soonest.duration_since(serve_at).as_secs_f64() / 3600.0;
        return Err(ValidationError::one(
            "part_serve",
            fact!("part-short", time = fact::hours((short * 4.0).ceil() / 4.0)),
        ));
    }
    Ok(out)
}
