//! A dough made again: as it was first asked for, its doses solved anew for the hours of today, with what was measured last
//! time beside what was planned.

use crate::batch::BatchRecord;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use craft::formula::Formula;
use craft::reading::Subject;
use craft::sheet::SheetRequest;

/// The formula to begin from: a plan that was changed on the way had its dose and its hours fixed by what happened.
pub fn formula(told: &BatchRecord, first: Option<SheetRequest>) -> Formula {
    first.map_or_else(|| told.batch.sheet.request.formula.clone(), |r| r.formula)
}

/// What was measured last time, where it was another than planned.
pub struct LastTime {
    pub says: String,
    /// Where the same dough is planned with the places as they were measured; `None` when they are, or none was.
    pub take: Option<String>,
}

/// What to say of the last time, and with `measured` the places of the form set as they were read then.
pub fn last_time(
    told: &BatchRecord,
    typed: &mut FormData,
    measured: bool,
    here: &RequestKitchen,
) -> Option<LastTime> {
    let m = here.measures;
    let other = told.other_than_planned(here);
    if other.is_empty() {
        return None;
    }
    let mut places = false;
    let mut all = vec![];
    for o in &other {
        let (what, field) = match o.subject {
            Subject::Fridge => (phrase("sheet-the-fridge"), Some("fridge_c")),
            Subject::Room => (phrase("sheet-the-room"), Some("room_c")),
            _ => (phrase("sheet-the-dough-off-the-mixer"), None),
        };
        places |= field.is_some();
        if let (true, Some(field)) = (measured, field) {
            typed.set(field, m.degrees_field(o.measured));
        }
        let (read, planned) = (m.degrees(o.measured, 1), m.degrees(o.planned, 1));
        all.push(say!(
            "sheet-where-was-planned",
            what = what,
            read = read,
            planned = planned
        ));
    }
    let taken = if measured && places {
        phrase("sheet-the-places-below-are-as")
    } else {
        phrase("sheet-the-figures-below-are-planned")
    };
    let code = &told.batch.code;
    Some(LastTime {
        says: say!(
            "sheet-last-time",
            code = code,
            join = all.join(", "),
            taken = taken
        ),
        take: (places && !measured).then(|| format!("/dough/new?batch={code}&measured=yes")),
    })
}
