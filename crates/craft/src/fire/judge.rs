//! Judgements during a service: is it ready yet, and is the last one out before the window closes?

use super::Run;
use crate::note::{Note, by_urgency};
use crate::sheet::SheetResult;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// Notes of a run at a moment; clock times are said in `zone`.
pub fn service(run: &Run, sheet: &SheetResult, now: Timestamp, zone: &TimeZone) -> Vec<Note> {
    let Some(window) = sheet.window else {
        return vec![];
    };
    let mut notes = Vec::new();
    let pieces = sheet.formula.pieces;
    let to_go = run.pizzas.len() < pieces as usize;
    if let (true, Some(last), Some(closes)) = (to_go, run.last_out_at(pieces, now), window.to_at) {
        let by = last.to_zoned(zone.clone()).strftime("%H:%M").to_string();
        let why = format!(
            "At the pace so far; the window closes {}.",
            quarter(closes, zone, "%H:%M")
        );
        notes.push(if last <= closes {
            Note::holds("last_in_time", format!("Last one out by {by}"), why)
        } else {
            Note::watch(
                "last_too_late",
                format!("Last one out by {by}, after the window"),
                why,
            )
        });
    }
    if now < window.from_at {
        notes.push(Note::watch(
            "not_ready_yet",
            format!("Ready from {}", quarter(window.from_at, zone, "%a %H:%M")),
            "Baked before that, the crumb is tight.",
        ));
    }
    by_urgency(notes)
}

/// To the quarter hour, as precise as the forecast is.
fn quarter(t: Timestamp, zone: &TimeZone, form: &str) -> String {
    let rounded = Timestamp::from_second((t.as_second() + 450).div_euclid(900) * 900).unwrap_or(t);
    rounded.to_zoned(zone.clone()).strftime(form).to_string()
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
            service(run, &sheet, now, &TimeZone::UTC)
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
