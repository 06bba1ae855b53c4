//! A fridge that is too warm to be one: refused, with the hour by which the dough would be over.

use super::{SheetRequest, SheetResult};
use crate::fact;
use crate::path::{Spot, WARMEST_FRIDGE_C};
use crate::refusal::ValidationError;
use crate::rise::{PrefermentRuns, RiseRequest, Temperatures, forecast_with};
use crate::units::Celsius;

/// A fridge as it should be, for the dose that the dough would have had, °C.
const PROPER_C: f64 = 6.0;

/// Refuses such a fridge; `worked_out` says how the same dough goes in a proper one.
pub(super) fn refuse(
    r: &SheetRequest,
    runs: &PrefermentRuns,
    worked_out: impl Fn(&SheetRequest) -> Option<(SheetResult, RiseRequest)>,
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
    let over = worked_out(&proper).and_then(|(out, mut dough)| {
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
