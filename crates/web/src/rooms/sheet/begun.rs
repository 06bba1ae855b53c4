//! A dough that was in the bowl before anybody entered it: what is entered for it when it is kept.

use craft::reading::Subject;
use craft::sheet::{Begun, SheetResult, StepKind};
use jiff::Timestamp;
use store::entry::{NewEntry, Seen};
use uuid::Uuid;

/// What happened to a dough before it was entered: its preferments, its mixing, and what came before the cold.
pub fn already(
    form_key: Uuid,
    (begun, dough_c): &(Begun, Option<f64>),
    result: &SheetResult,
) -> Vec<NewEntry> {
    let mut out: Vec<(Timestamp, Seen)> = vec![];
    for s in &result.steps {
        let step_position = s.number;
        match s.kind {
            StepKind::Mix => out.push((begun.mixed_at, Seen::StepFinished { step_position })),
            StepKind::Rest => out.push((begun.mixed_at, Seen::StepDone { step_position })),
            StepKind::LightOven => {}
            _ if s.at < begun.mixed_at || begun.cold_from.is_some_and(|c| s.at <= c) => {
                out.push((s.at, Seen::StepDone { step_position }));
            }
            _ => {}
        }
    }
    let celsius = dough_c.iter().map(|c| Seen::Reading {
        subject: Subject::Dough,
        celsius: *c,
    });
    out.extend(celsius.map(|seen| (begun.mixed_at, seen)));
    let entries = out.into_iter().enumerate();
    entries
        .map(|(i, (at, seen))| NewEntry::of_form(form_key, i, at, seen.into()))
        .collect()
}
