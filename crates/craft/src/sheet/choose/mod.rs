//! What to solve for: the length of a leg, or the serve time, with the yeast as it is; and methods side by side.

use super::life::{Life, LifeFitRequest, fit};
use super::{SheetRequest, SheetResult, hours, stages, work_out, work_out_whole};
use crate::fact;
use crate::fact::whole;
use crate::formula::Dose;
use crate::path::Method;
use crate::refusal::ValidationError;
use crate::rise::{HoursAnswer, HoursRequest, PrefermentRuns, Temperatures, solve_hours};
use serde::{Deserialize, Serialize};

/// A request with the yeast that it has now as a stated dose.
pub fn with_yeast_as_it_is(r: &SheetRequest) -> Result<SheetRequest, ValidationError> {
    let now = SheetRequest {
        now_at: None,
        ..r.clone()
    };
    let (result, _) = work_out_whole(&now, &PrefermentRuns::default())?;
    let mut out = r.clone();
    out.formula.yeast.dose = match result.yeast.percent {
        p if p > 0.0 => Dose::Given { percent: p },
        _ => Dose::None,
    };
    Ok(out)
}

/// Limits of a leg's length for the yeast as it is, h.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LegHours {
    /// From this length on it is ready: the latest start.
    pub shortest_h: f64,
    /// To this length it is not past its peak; absent where it holds beyond 96 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub longest_h: Option<f64>,
}

/// How long one leg may last with the yeast as it is, the serve time standing.
///
/// Errors: [`ValidationError`] with the leg's hours when no length makes the dough ready.
pub fn leg_hours(r: &SheetRequest, leg: usize) -> Result<LegHours, ValidationError> {
    let given = with_yeast_as_it_is(r)?;
    let now = SheetRequest {
        now_at: None,
        ..given.clone()
    };
    let (result, dough) = work_out_whole(&now, &PrefermentRuns::default())?;
    let legs = given.formula.path();
    let Some(asked) = legs.get(leg) else {
        return Err(ValidationError::one("formula.legs", fact!("no-such-leg")));
    };
    // A leg with folds is several stages: its last one stretches.
    let stages_of = |l| stages::leg_stages(&given, &result.formula, l);
    let before: usize = legs[..leg].iter().map(|l| stages_of(l).len()).sum();
    let own = stages_of(asked);
    let stage = before + own.len() - 1;
    let folded_h: f64 = own[..own.len() - 1].iter().map(|s| s.hours).sum();
    let asked = HoursRequest { dough, stage };
    match solve_hours(&asked, Temperatures::InsideTheDough)? {
        HoursAnswer::Found {
            hours,
            longest_hours,
            ..
        } => Ok(LegHours {
            shortest_h: folded_h + hours,
            longest_h: longest_hours.map(|h| folded_h + h),
        }),
        HoursAnswer::None {
            best_ripeness,
            best_hours,
            ..
        } => Err(ValidationError::one(
            format!("formula.legs[{leg}].hours"),
            fact!(
                "no-length-of-leg",
                rise = whole(100.0 * best_ripeness),
                time = fact::hours(fact::spoken_h(best_hours))
            ),
        )),
    }
}

/// Puts the shortest length that ripens it into a leg, on the quarter hour; the serve time stands.
pub fn solve_leg(r: &SheetRequest, leg: usize) -> Result<SheetRequest, ValidationError> {
    let h = leg_hours(r, leg)?;
    let mut out = with_yeast_as_it_is(r)?;
    out.formula = set_leg(&out, leg, (h.shortest_h * 4.0).round() / 4.0);
    Ok(out)
}

/// Keeps the hour of mixing and the yeast, and moves the serve time to where the dough is ready.
pub fn solve_serve(r: &SheetRequest) -> Result<SheetRequest, ValidationError> {
    let mixed_at = r.mixed_at();
    let last = r.formula.path().len() - 1;
    let mut out = solve_leg(r, last)?;
    out.serve_at = mixed_at + hours(out.total_h());
    Ok(out)
}

/// A formula with one leg of another length.
pub fn set_leg(r: &SheetRequest, leg: usize, hours: f64) -> crate::formula::Formula {
    let mut legs = r.formula.path();
    if let Some(l) = legs.get_mut(leg) {
        l.hours = hours;
    }
    r.formula.clone().on_path(legs)
}

/// One method for a dough.
#[derive(Debug, Clone, PartialEq)]
pub struct ComparedMethod {
    /// The method.
    pub method: Method,
    /// The dough made by it.
    pub request: SheetRequest,
    /// What comes of it, or why it cannot be.
    pub outcome: Result<SheetResult, ValidationError>,
    /// Whether its hands-on steps keep clear of the hours away.
    pub fits_life: bool,
}

/// The same dough by several methods, each fitted into the life of the kitchen where that can be.
pub fn compare(r: &SheetRequest, methods: &[Method], life: &Life) -> Vec<ComparedMethod> {
    methods
        .iter()
        .map(|m| {
            let mut request = r.clone();
            request.formula = m.applied(&r.formula);
            let fitted = fit(&LifeFitRequest {
                request: request.clone(),
                life: life.clone(),
            });
            let mut fits_life = false;
            if let Ok(found) = fitted
                && let Some(best) = found.plans.into_iter().next()
            {
                request.formula.legs = vec![];
                for (p, h) in request
                    .formula
                    .preferments
                    .iter_mut()
                    .zip(&best.preferment_warm_h)
                {
                    p.warm_h = *h;
                }
                request.formula = request.formula.clone().on_path(best.legs);
                fits_life = true;
            }
            ComparedMethod {
                outcome: work_out(&request),
                method: m.clone(),
                request,
                fits_life,
            }
        })
        .collect()
}

#[cfg(test)]
mod tests;
