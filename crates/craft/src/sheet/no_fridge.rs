//! A fridge that is too warm to be one: refused, with the hour by which the dough would be over.

use super::{SheetRequest, work_out_whole};
use crate::fact;
use crate::path::{Spot, WARMEST_FRIDGE_C};
use crate::refusal::ValidationError;
use crate::rise::{PrefermentRuns, Temperatures, forecast_with};
use crate::units::Celsius;
use jiff::tz::TimeZone;

/// A fridge as it should be, for the dose that the dough would have had, °C.
const PROPER_C: f64 = 6.0;

pub(super) fn refuse(
    r: &SheetRequest,
    _zone: &TimeZone,
    runs: &PrefermentRuns,
) -> Result<(), ValidationError> {
    let path = r.formula.path();
    if r.fridge_c <= WARMEST_FRIDGE_C || !path.iter().any(|l| l.spot == Spot::Fridge) {
        return Ok(());
    }
    let proper = SheetRequest {
        fridge_c: PROPER_C,
        now_at: None,
        ..r.clone()
    };
    let over = work_out_whole(&proper, runs)
        .ok()
        .and_then(|(out, mut dough)| {
            for s in &mut dough.stages {
                if matches!(s.air, crate::rise::Air::Fridge) && s.place_c == Some(PROPER_C) {
                    s.place_c = Some(r.fridge_c);
                }
            }
            let rise = forecast_with(&dough, Temperatures::InsideTheDough, runs).ok()?;
            // The moment at which it would be past its peak, as balls or already in its tub.
            let p = rise
                .points
                .iter()
                .chain(&rise.beyond)
                .find(|p| p.label.is_past())?;
            Some(out.mixed_at + super::hours(p.hours))
        });
    let when = over.map(|t| fact!("over-by", at = t));
    Err(ValidationError::one(
        "fridge_c",
        fact!("no-fridge", c = Celsius(r.fridge_c), over = when),
    ))
}
