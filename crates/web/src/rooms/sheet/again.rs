//! A dough made again: as it was first asked for, its doses solved anew for the hours of today, with what was measured last
//! time beside what was planned.

use crate::batch::Told;
use crate::shared::kitchen::Here;
use craft::formula::Formula;
use craft::sheet::SheetRequest;
use craft::sheet::ahead::Measured;

/// A difference worth telling, K.
const WORTH_C: f64 = 0.5;

/// The formula to begin from: a plan that was changed on the way had its dose and its hours fixed by what happened.
pub fn formula(told: &Told, first: Option<SheetRequest>) -> Formula {
    first.map_or_else(|| told.batch.sheet.request.formula.clone(), |r| r.formula)
}

/// What was measured last time, where it was another than planned.
pub fn measured(told: &Told, here: &Here) -> Option<String> {
    let request = &told.batch.sheet.request;
    let readings = told.happened().readings;
    let m = here.measures;
    let mean = |of: &dyn Fn(&Measured) -> Option<f64>| {
        let all: Vec<f64> = readings.iter().filter_map(|r| of(&r.measured)).collect();
        (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
    };
    let fridge = mean(&|x| match x {
        Measured::Fridge { c } => Some(*c),
        _ => None,
    });
    let room = mean(&|x| match x {
        Measured::Room { c } => Some(*c),
        _ => None,
    });
    let other = |read: &f64, planned: f64| (read - planned).abs() >= WORTH_C;
    let said = |what: &str, read: f64, planned: f64| {
        let (read, planned) = (m.degrees(read, 1), m.degrees(planned, 1));
        format!("{what} {read}° where {planned}° was planned")
    };
    let mut all = vec![];
    if let Some(c) = fridge.filter(|c| other(c, request.fridge_c)) {
        all.push(said("the fridge", c, request.fridge_c));
    }
    if let Some(c) = room.filter(|c| other(c, request.room_c)) {
        all.push(said("the room", c, request.room_c));
    }
    let target = request.formula.target_dough_c;
    if let Some(c) = told.off_the_mixer().filter(|c| other(c, target)) {
        all.push(said("the dough off the mixer", c, target));
    }
    (!all.is_empty()).then(|| {
        format!(
            "Last time {}: {}. The figures below are planned as before; type what you trust more.",
            told.batch.code,
            all.join(", ")
        )
    })
}
