//! Is there time enough? Refusals of the serve time, each with the nearest way out.

use super::SheetRequest;
use crate::fact;
use crate::refusal::ValidationError;
use crate::rise::{
    Air, Event, NoYeast, RiseRequest, Stage, Temperatures, YeastAnswer, solve_yeast,
};
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// Refuses a serve time in the past, one before which mixing should already have begun, and one that no
/// yeast can meet; says what would do.
pub(super) fn refuse(
    r: &SheetRequest,
    dough: &RiseRequest,
    zone: &TimeZone,
) -> Result<(), ValidationError> {
    let Some(now) = r.now_at else { return Ok(()) };
    let _say = |t: Timestamp| t.to_zoned(zone.clone()).strftime("%a %H:%M").to_string();
    if r.serve_at <= now {
        return Err(ValidationError::one(
            "serve_at",
            fact!("serve-past", serve = r.serve_at, now = now),
        ));
    }
    if r.start_at() >= now {
        return Ok(());
    }
    let lead_h = r.lead_h();
    let left_h = r.serve_at.duration_since(now).as_secs_f64() / 3600.0 - lead_h;
    if !ripens(dough, left_h) {
        let shortest = shortest_h(dough, left_h);
        return Err(ValidationError::one(
            "serve_at",
            fact!(
                "too-near",
                time = fact::hours((shortest * 4.0).ceil() / 4.0),
                from = quarter_up(now + super::hours(shortest + lead_h))
            ),
        ));
    }
    let as_planned = quarter_up(now + super::hours(r.total_h() + lead_h));
    Err(ValidationError::one(
        "serve_at",
        fact!(
            "begun-before",
            began = r.start_at(),
            from = as_planned,
            time = fact::hours((left_h * 4.0).floor() / 4.0)
        ),
    ))
}

/// Why there is no dose, beside the field that decides it.
pub(super) fn no_yeast(reason: NoYeast, ripeness_at_limit: f64) -> ValidationError {
    let at = (100.0 * ripeness_at_limit).round();
    match reason {
        NoYeast::CannotReachEvenAtMax => {
            ValidationError::one("formula.temper_h", fact!("no-yeast-makes-ready", rise = at))
        }
        NoYeast::RipeWithoutAddedYeast => {
            ValidationError::one("formula.bulk_h", fact!("smallest-runs-over", rise = at))
        }
    }
}

/// The shortest hours after mixing in which some dose ripens this dough, all of it in the room; more than
/// `too_short` are needed.
fn shortest_h(dough: &RiseRequest, too_short: f64) -> f64 {
    let (mut low, mut high) = (too_short.max(0.25), 72.0);
    while high - low > 0.2 {
        let mid = 0.5 * (low + high);
        if ripens(dough, mid) {
            high = mid
        } else {
            low = mid
        }
    }
    high
}

/// Whether some dose ripens the dough in `h` hours in the room: a third in bulk, the rest as pieces.
fn ripens(dough: &RiseRequest, h: f64) -> bool {
    let (Some(first), Some(last)) = (dough.stages.first(), dough.stages.last()) else {
        return false;
    };
    if h < 0.25 {
        return false;
    }
    let bulk = Stage {
        hours: h / 3.0,
        event: Event::None,
        ..first.clone()
    };
    let shaped = if last.event == Event::None {
        Event::Ball
    } else {
        last.event
    };
    let pieces = Stage {
        hours: h * 2.0 / 3.0,
        air: Air::Room,
        event: shaped,
        ..last.clone()
    };
    let quick = RiseRequest {
        stages: vec![bulk, pieces],
        ..dough.clone()
    };
    match solve_yeast(&quick, Temperatures::InsideTheDough) {
        Ok(YeastAnswer::Found { forecast, .. }) => forecast.at_bake.ripeness_mature >= 1.0,
        Ok(YeastAnswer::None { reason, .. }) => reason == NoYeast::RipeWithoutAddedYeast,
        Err(_) => false,
    }
}

fn quarter_up(t: Timestamp) -> Timestamp {
    let s = t.as_second();
    Timestamp::from_second(s + (900 - s.rem_euclid(900)) % 900).unwrap_or(t)
}
