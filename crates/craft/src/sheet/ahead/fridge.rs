//! A fridge that runs warmer than was planned: what it would do for the dough to turn it down now.
//!
//! Source: craft notes, section 4 (home fridges run at 4 to 9 °C); reckoned like every remedy, in the place where it would be done.

use super::course::DoughCourse;
use super::idea::cut_now;
use super::{AheadRequest, INSIDE};
use crate::fact;
use crate::note::Note;
use crate::path::Spot;
use crate::rise::kinetics::HandOver;
use crate::rise::{Look, foresee};
use crate::sheet::ReadyWindow;
use crate::units::Celsius;
use crate::when::quarter;
use jiff::SignedDuration;

/// A fridge is said to run warm from so much above its plan on, K.
const WARM_K: f64 = 1.0;
/// With less time than this to lie there it helps no more, h.
const LEAST_H: f64 = 1.0;
/// A window that moves less is the same, min.
const WORTH_MIN: i64 = 15;

/// What to say of a fridge that was read warmer than planned, while the dough still has hours to lie in it.
pub(super) fn warm_fridge(
    q: &AheadRequest,
    course: &DoughCourse,
    window: Option<ReadyWindow>,
    handed: &[HandOver],
) -> Option<Note> {
    let (known, planned) = (course.fridge_known(q), q.request.fridge_c);
    if !known.was_read || known.c < planned + WARM_K || q.now >= q.request.serve_at {
        return None;
    }
    let (legs, i) = cut_now(q, course);
    let to_lie = legs[i..].iter().filter(|l| l.spot == Spot::Fridge);
    if to_lie.map(|l| l.hours).sum::<f64>() < LEAST_H {
        return None;
    }
    let dough = course.with_fridge(q.now, planned).dough(q.request.serve_at);
    dough.check(true).ok()?;
    let then = foresee(&dough, INSIDE, handed, Look::Beyond).window?;
    let then = ReadyWindow::of(&then, course.mixed_at);
    let apart = |a: jiff::Timestamp, b: jiff::Timestamp| {
        a.duration_since(b).abs() >= SignedDuration::from_mins(WORTH_MIN)
    };
    let moved = window.is_none_or(|w| {
        apart(w.from_at, then.from_at)
            || match (w.to_at, then.to_at) {
                (Some(a), Some(b)) => apart(a, b),
                (a, b) => a != b,
            }
    });
    if !moved {
        return None;
    }
    let until = then.to_at.map(|t| fact!("until", at = quarter(t)));
    Some(
        Note::watch(
            "fridge_warm",
            fact!(
                "fridge-warm",
                c = Celsius(known.c),
                planned = Celsius(planned)
            ),
            fact!(
                "fridge-warm-why",
                c = Celsius(planned),
                from = quarter(then.from_at),
                until = until
            ),
        )
        .todo(fact!("fridge-warm-todo")),
    )
}
