//! A dough made again: as it was first asked for, its doses solved anew for the hours of today, with what was measured last
//! time beside what was planned.

use crate::batch::Told;
use crate::shared::kitchen::Here;
use craft::formula::Formula;
use craft::reading::Subject;
use craft::sheet::SheetRequest;

/// The formula to begin from: a plan that was changed on the way had its dose and its hours fixed by what happened.
pub fn formula(told: &Told, first: Option<SheetRequest>) -> Formula {
    first.map_or_else(|| told.batch.sheet.request.formula.clone(), |r| r.formula)
}

/// What was measured last time, where it was another than planned.
pub fn measured(told: &Told, here: &Here) -> Option<String> {
    let m = here.measures;
    let all: Vec<String> = told
        .other_than_planned(here)
        .into_iter()
        .map(|o| {
            let what = match o.subject {
                Subject::Fridge => "the fridge",
                Subject::Room => "the room",
                _ => "the dough off the mixer",
            };
            let (read, planned) = (m.degrees(o.measured, 1), m.degrees(o.planned, 1));
            format!("{what} {read}° where {planned}° was planned")
        })
        .collect();
    (!all.is_empty()).then(|| {
        format!(
            "Last time {}: {}. The figures below are planned as before; type what you trust more.",
            told.batch.code,
            all.join(", ")
        )
    })
}
