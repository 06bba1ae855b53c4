//! Back to the same dough: one that left the mixer warmer or cooler than planned, or lies in another room, and still fits,
//! is as ripe as planned at the serve time when its bulk is shorter or longer, and the stage after it takes the difference.

use super::course::DoughCourse;
use super::idea::Idea;
use super::{AheadRequest, INSIDE};
use crate::fact;
use crate::fact::Minutes;
use crate::path::Lies;
use crate::rise::kinetics::HandOver;
use crate::rise::{Look, foresee};

/// Less than this off is the same bulk, h.
const WORTH_H: f64 = 1.0 / 6.0;
/// A bulk is not prolonged by more, h.
const MOST_LONGER_H: f64 = 8.0;
/// No leg is shorter after it, h.
const SHORTEST_H: f64 = 0.25;
/// Halvings of the search: eight hours to some two minutes.
const HALVINGS: u32 = 8;

/// The bulk with which it is as ripe as planned when it is served; `None` where that is the planned one, or no longer to be
/// chosen.
pub(super) fn same_dough(
    q: &AheadRequest,
    course: &DoughCourse,
    handed: &[HandOver],
) -> Option<Idea> {
    if !course.in_bowl || course.legs.len() < 2 {
        return None;
    }
    let (i, _) = course.leg_at(q.now);
    let bulk: f64 = course
        .legs
        .iter()
        .take_while(|l| l.lies == Lies::Bulk)
        .map(|l| l.hours)
        .sum();
    let last = course
        .legs
        .iter()
        .take_while(|l| l.lies == Lies::Bulk)
        .count()
        .checked_sub(1)?;
    // A bulk in the cold has its hours from the clock, not from the eye.
    if i > last || last + 1 >= course.legs.len() || course.legs[last].spot.is_cold() {
        return None;
    }
    let wanted = q.planned.rise_at_serve;
    let with = |by: f64| {
        let mut legs = course.legs.clone();
        legs[last].hours += by;
        legs[last + 1].hours -= by;
        legs
    };
    let ripe = |by: f64| -> Option<f64> {
        let dough = course.dough_through(&with(by), q.request.serve_at);
        dough.check(true).ok()?;
        Some(
            100.0
                * foresee(&dough, INSIDE, handed, Look::ToTheEnd)
                    .at_bake
                    .ripeness,
        )
    };
    let now_h = q.now.duration_since(course.mixed_at).as_secs_f64() / 3600.0;
    let next = &course.legs[last + 1];
    // A longer bulk is a riper dough: between the soonest end and the latest.
    let soonest = (now_h - bulk).max(SHORTEST_H - course.legs[last].hours);
    let (mut low, mut high) = (soonest, MOST_LONGER_H.min(next.hours - SHORTEST_H));
    if low >= high || ripe(low)? > wanted || ripe(high)? < wanted {
        return None;
    }
    for _ in 0..HALVINGS {
        let mid = 0.5 * (low + high);
        if ripe(mid)? < wanted {
            low = mid;
        } else {
            high = mid;
        }
    }
    let by = 0.5 * (low + high);
    if by.abs() < WORTH_H {
        return None;
    }
    let time = Minutes((by.abs() * 12.0).round() * 5.0);
    Some(Idea {
        code: "same_dough",
        say: if by < 0.0 {
            fact!("same-dough-less", time = time)
        } else {
            fact!("same-dough-more", time = time)
        },
        why: fact!("same-dough-why", leg = next.word()),
        legs: with(by),
        serve_at: q.request.serve_at,
        yeast_percent: None,
    })
}
