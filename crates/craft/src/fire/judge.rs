//! Judgements during a service: is it ready yet, and is the last one out before the window closes?

use super::choice::FireChoice;
use super::firing::{FiringRequest, FloorRead, firing};
use super::next_time::{Advice, Surety, next_time};
use super::recover::recovery;
use super::words::band;
use super::{RaceItem, Run};
use crate::fact;
use crate::fact::{Kelvin, Seconds, Value};
use crate::note::{Note, by_urgency};
use crate::reading::FRESH_MIN;
use crate::units::Celsius;
use jiff::Timestamp;

/// From when to when a dough is ready; it has no end where none was in sight.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ready {
    /// From when the dough is ready.
    pub from_at: Timestamp,
    /// Until when; absent where no end is foreseen.
    pub to_at: Option<Timestamp>,
}

/// Notes of a run of so many pieces at a moment;
pub fn service(run: &Run, pieces: u32, window: Ready, now: Timestamp) -> Vec<Note> {
    let mut notes = Vec::new();
    let to_go = run.pizzas.len() < pieces as usize;
    if let (true, Some(last), Some(closes)) = (to_go, run.last_out_at(pieces, now), window.to_at) {
        let why = fact!("pace-so-far", closes = crate::when::quarter(closes));
        notes.push(if last <= closes {
            Note::holds("last_in_time", fact!("last-out-by", at = last), why)
        } else {
            Note::watch(
                "last_too_late",
                fact!("last-out-after-window", at = last),
                why,
            )
        });
    }
    if now < window.from_at {
        notes.push(Note::watch(
            "not_ready_yet",
            fact!("not-ready-yet", from = crate::when::quarter(window.from_at)),
            fact!("not-ready-yet-why"),
        ));
    }
    by_urgency(notes)
}

/// The lowest and the highest that the floor read while a run was baked, °C; a reading shortly before the first counts.
pub fn floor_while_baking(reads: &[FloorRead], run: &Run) -> Option<(f64, f64)> {
    let first = run.pizzas.first()?.in_at;
    let from = first - jiff::SignedDuration::from_secs_f64(60.0 * FRESH_MIN);
    let read = reads.iter().filter(|r| r.at > from).map(|r| r.c);
    read.fold(None, |all, c| match all {
        None => Some((c, c)),
        Some((low, high)) => Some((c.min(low), c.max(high))),
    })
}

/// What the floor read last before a moment, °C, while that still says something of it.
pub fn floor_before(reads: &[FloorRead], at: Timestamp) -> Option<f64> {
    reads
        .iter()
        .filter(|r| (0.0..60.0 * FRESH_MIN).contains(&at.duration_since(r.at).as_secs_f64()))
        .max_by_key(|r| r.at)
        .map(|r| r.c)
}

/// What is known of the oven during a run.
#[derive(Debug, Clone, Copy)]
pub struct OvenSeen<'a> {
    /// Readings of its floor, in the order of the clock.
    pub floors: &'a [FloorRead],
    /// When it was lit or switched on, where that was said.
    pub lit_at: Option<Timestamp>,
    /// The room, °C.
    pub room_c: f64,
}

/// A floor so little above what a pizza leaves behind, in shares of what it takes, was never charged.
const UNCHARGED: f64 = 0.3;
/// A floor under this was not lit, °C.
const COLD_C: f64 = 60.0;
/// Its own usual floor is never too hot for an oven, within this, K.
const USUAL_OFF_K: f64 = 10.0;

/// A floor that is still being charged: no pizza took its heat away.
fn heating(
    plan: &super::FirePlan,
    seen: &OvenSeen,
    (at, c): (Timestamp, f64),
    band: Value,
    now: Timestamp,
) -> Note {
    let read = Celsius(c);
    if c < COLD_C && seen.lit_at.is_none() {
        return Note::watch(
            "floor_cold",
            fact!("floor-cold", c = read),
            fact!("floor-cold-why", band = band),
        );
    }
    let fired = seen.lit_at.map(|lit| {
        firing(&FiringRequest {
            oven: plan.oven.clone(),
            setting: plan.setting,
            room_c: seen.room_c,
            ready_by: now,
            for_min: None,
            lit_at: Some(lit),
            readings: seen.floors.to_vec(),
        })
    });
    let ready = fired.and_then(|f| f.ready_at).filter(|t| *t > now);
    let what = match ready {
        Some(t) => fact!("floor-heating-ready", c = read, at = t),
        None => fact!("floor-heating", c = read),
    };
    Note::watch(
        "floor_heating",
        what,
        fact!("launch-read-at", band = band, at = at),
    )
}

/// Notes on the fire before the next pizza: the floor as it was read last, what the verdicts ask for, and pizzas that
/// nobody took out. It runs the oven model some ten times.
pub fn at_oven(fire: &FireChoice, run: &Run, seen: &OvenSeen, now: Timestamp) -> Vec<Note> {
    let floor = seen.floors.last().map(|r| (r.at, r.c));
    let mut notes = Vec::new();
    for p in run.forgotten(fire.programme.chars_s, now) {
        notes.push(Note::act(
            "forgotten",
            fact!("forgotten", n = p.number, at = p.in_at),
            fact!("forgotten-why"),
        ));
    }
    let fresh = floor.filter(|(at, _)| now.duration_since(*at).as_secs_f64() < FRESH_MIN * 60.0);
    let mut plan = fire.plan.clone();
    plan.floor_read_c = fresh.map(|f| f.1);
    let Ok(planned) = plan.planned() else {
        return notes;
    };
    if let (Some((at, c)), Some((low, high))) = (fresh, fire.floor_band_c) {
        let (read, band) = (Celsius(c), band((low, high)));
        if c < low {
            let mut full = plan.clone();
            full.floor_read_c = None;
            let back = full
                .planned()
                .ok()
                .map(|p| (recovery(&p.request, p.race.best_s), p.request.oven.floor_c));
            let uncharged = back
                .as_ref()
                .is_some_and(|(b, _)| c < b.exit_c + UNCHARGED * b.drop_k);
            let baked_before = run.pizzas.iter().any(|p| p.in_at < at);
            let wait = back.and_then(|(back, launch_c)| {
                // The same way back as after a pizza: what is missing falls by 63 % in each τ.
                let missing = (launch_c - c).max(1.0);
                let wanted = (launch_c - low).max(5.0);
                back.tau_s.map(|tau| tau * (missing / wanted).ln().max(0.0))
            });
            let back_at = wait
                .filter(|s| *s < 1800.0)
                .map(|s| at + jiff::SignedDuration::from_secs_f64(s.max(30.0)));
            let since = run.pizzas.iter().filter(|p| p.in_at > at).count();
            notes.push(match back_at {
                _ if since == 0 && (uncharged || !baked_before) => {
                    heating(&plan, seen, (at, c), band, now)
                }
                _ if since > 0 => Note::watch(
                    "floor_unread",
                    fact!("floor-unread", c = read, at = at, n = since),
                    fact!("floor-unread-why", band = band),
                ),
                Some(t) if t <= now => Note::holds(
                    "floor_back",
                    fact!("floor-back", at = t),
                    fact!("floor-back-why", c = read, at = at, band = band),
                ),
                _ => Note::watch(
                    "floor_short",
                    match back_at {
                        // Clock times have no seconds: within this minute is said so.
                        Some(t)
                            if t.as_second().div_euclid(60) == now.as_second().div_euclid(60) =>
                        {
                            fact!("floor-wait-moment", c = read)
                        }
                        Some(t) => fact!("floor-wait-to", c = read, at = t),
                        None => fact!("floor-short", c = read, by = Kelvin(low - c)),
                    },
                    fact!(
                        "floor-short-why",
                        band = band,
                        time = later(&planned.race, fire)
                    ),
                ),
            });
        } else if c > high.max(plan.setting.floor_c + USUAL_OFF_K) {
            notes.push(
                Note::watch(
                    "floor_over",
                    fact!("floor-over", c = read, by = Kelvin(c - high)),
                    fact!("floor-over-why", band = band),
                )
                .todo(fact!("floor-over-todo")),
            );
        } else {
            notes.push(Note::holds(
                "floor_right",
                fact!("floor-right", c = read),
                fact!("launch-read-at", band = band, at = at),
            ));
        }
    }
    notes.extend(next_time(&plan, &planned.race, run).and_then(|a| advised(&a)));
    by_urgency(notes)
}

/// What to change next time, or that nothing helps.
fn advised(advice: &Advice) -> Option<Note> {
    let next = match advice {
        Advice::Change(next) => next,
        Advice::NothingHelps(why) => {
            return Some(Note::watch(
                "next_time_none",
                fact!("nothing-mends"),
                why.clone(),
            ));
        }
    };
    let best = next.first()?;
    let sure = match best.surety {
        Surety::Sure => fact!("surety-sure"),
        Surety::Likely => fact!("surety-likely"),
        Surety::Guess => fact!("surety-guess"),
    };
    let note = Note::watch(
        "next_time",
        fact!("next-one", what = best.what.clone()),
        fact!(
            "next-one-why",
            sure = sure,
            said = best.said.clone(),
            model = best.model.clone()
        ),
    );
    Some(match next.get(1) {
        Some(other) => note.todo(fact!("next-or", what = other.what.clone())),
        None => note,
    })
}

/// How long the base would take on the floor as it is.
fn later(race: &super::Race, fire: &FireChoice) -> Value {
    match race.lane(RaceItem::Base).and_then(|l| l.ready_s) {
        Some(s) => {
            let planned = fire
                .lanes
                .iter()
                .find(|l| l.item == RaceItem::Base)
                .and_then(|l| l.ready_s);
            match planned {
                Some(p) if (s - p).abs() < 1.0 => {
                    fact!("time-as-planned", time = Seconds(s)).into()
                }
                Some(p) => fact!("time-instead-of", time = Seconds(s), planned = Seconds(p)).into(),
                None => Seconds(s).into(),
            }
        }
        None => fact!("longer-than-rest").into(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fire::{Tap, TapKind};
    use crate::formula::Scales;
    use crate::sheet::{KitchenUsual, SheetRequest, hours, work_out};

    #[test]
    fn the_pace_is_held_against_the_window() {
        let kitchen = KitchenUsual {
            time_zone: "UTC".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Scales::default(),
        };
        let serve: Timestamp = "2026-11-27T19:00:00Z".parse().unwrap();
        let sheet = work_out(&SheetRequest::of_style(
            crate::style::first(),
            &kitchen,
            serve,
        ))
        .unwrap();
        let window = sheet.window.unwrap();
        let says = |run: &Run, now| -> Vec<String> {
            let ready = Ready {
                from_at: window.from_at,
                to_at: window.to_at,
            };
            service(run, sheet.formula.pieces, ready, now)
                .into_iter()
                .map(|n| n.code)
                .collect()
        };
        assert_eq!(
            says(&Run::default(), window.from_at - hours(1.0)),
            ["not_ready_yet"]
        );
        assert!(says(&Run::default(), serve).is_empty(), "no pace yet");
        // Two of six, one every so often: three minutes hold, two hours do not.
        let at_pace = |h: f64| {
            let tap = |pizza, at: Timestamp, kind| Tap { pizza, at, kind };
            Run::of(&[
                tap(1, serve, TapKind::In),
                tap(1, serve + hours(0.02), TapKind::Out),
                tap(2, serve + hours(h), TapKind::In),
                tap(2, serve + hours(h + 0.02), TapKind::Out),
            ])
        };
        assert_eq!(says(&at_pace(0.05), serve + hours(0.1)), ["last_in_time"]);
        assert_eq!(says(&at_pace(2.0), serve + hours(2.1)), ["last_too_late"]);
    }
}
