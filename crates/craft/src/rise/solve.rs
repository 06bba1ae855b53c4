//! How much yeast makes this dough ready at the end of its stages?
//!
//! Source: fermentation model, section 8: R_gas need not grow with yeast for ever, so the first crossing of 1
//! is looked for from little to much, then closed in on.

use super::answer::{NoYeast, RiseResult, YeastAnswer, YeastWarning};
use super::forecast::{Look, Temperatures, foresee, hand_overs, passes, series};
use super::judge;
use super::kinetics::{HandOver, Kinetics};
use super::memo::PrefermentRuns;
use super::request::RiseRequest;
use super::series::{Grid, Series};
use super::watch::quick_hand_overs;
use crate::refusal::ValidationError;

/// Searched doses, % fresh equivalent.
pub const LEAST_FRESH_PERCENT: f64 = 0.002;
/// No dose is looked for above it, % fresh equivalent.
pub const MOST_FRESH_PERCENT: f64 = 3.0;
const GRID_POINTS: usize = 12;
/// Relative closeness of the dose.
const CLOSE: f64 = 1e-4;
/// Below this, % of the form used, no ordinary scale weighs the dose for a household batch.
const TINY_PERCENT: f64 = 0.01;

/// Trials of one dough: everything but the dose stays as it is.
struct Trials<'a> {
    request: &'a RiseRequest,
    handed: Vec<HandOver>,
    from: Temperatures,
    series: Series,
}

impl Trials<'_> {
    fn with_dose(&self, fresh_percent: f64) -> Kinetics {
        let r = RiseRequest {
            yeast_percent: own_form(self.request, fresh_percent),
            ..self.request.clone()
        };
        Kinetics::new(&r, &self.handed)
    }

    /// Gas ripeness at the end of the stages with this dose.
    fn ripeness(&self, fresh_percent: f64) -> f64 {
        let mut gas = 0.0;
        self.with_dose(fresh_percent)
            .run(&self.series, self.series.planned, |_, _, m| {
                gas = m.ripeness.gas()
            });
        gas
    }

    /// Repeats the heat pass with the heat that this dose makes.
    fn warm_with(&mut self, fresh_percent: f64) {
        let k = self.with_dose(fresh_percent);
        let mut heat = Vec::with_capacity(self.series.steps.len());
        k.run(&self.series, self.series.steps.len(), |_, _, m| {
            heat.push(m.heat)
        });
        self.series = series(self.request, &k, self.from, Grid::TRIAL, 0.0, &heat);
    }

    /// The dose at which gas ripeness first reaches 1 between two doses: Illinois on ln R over ln dose.
    fn close_in(&self, low: f64, high: f64) -> f64 {
        let (mut a, mut b) = (low.ln(), high.ln());
        let (mut fa, mut fb) = (self.ripeness(low).ln(), self.ripeness(high).ln());
        let mut side = 0;
        for _ in 0..40 {
            if (b - a).abs() < CLOSE || fa == fb {
                break;
            }
            let x = (a * fb - b * fa) / (fb - fa);
            let fx = self.ripeness(x.exp()).ln();
            if fx.abs() < CLOSE / 10.0 {
                return x.exp();
            }
            if fx < 0.0 {
                (a, fa) = (x, fx);
                if side == -1 {
                    fb /= 2.0;
                }
                side = -1;
            } else {
                (b, fb) = (x, fx);
                if side == 1 {
                    fa /= 2.0;
                }
                side = 1;
            }
        }
        b.exp()
    }

    /// Brackets the first crossing on the grid: Ok((below, at or above)) or Err(best R).
    fn bracket(&self) -> Result<(f64, f64), f64> {
        let ratio = (MOST_FRESH_PERCENT / LEAST_FRESH_PERCENT).powf(1.0 / (GRID_POINTS - 1) as f64);
        let (mut below, mut best) = (LEAST_FRESH_PERCENT, 0.0f64);
        for i in 0..GRID_POINTS {
            let dose = LEAST_FRESH_PERCENT * ratio.powi(i as i32);
            let r = self.ripeness(dose);
            best = best.max(r);
            if r >= 1.0 {
                return Ok((if i == 0 { dose } else { below }, dose));
            }
            below = dose;
        }
        Err(best)
    }
}

fn own_form(r: &RiseRequest, fresh_percent: f64) -> f64 {
    fresh_percent / r.yeast_form.fresh_equivalent() / r.yeast_vigour / r.departs.yeast.exp()
}

/// Solves the yeast of a request for gas ripeness 1 at the end of its stages; its own dose is ignored.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
///
/// ```
/// use craft::rise::{RiseRequest, Temperatures, YeastAnswer, solve_yeast};
///
/// let dough: RiseRequest = serde_json::from_str(
///     r#"{"hydration_percent": 62, "salt_percent": 2.8, "flour_w": 300, "yeast_percent": 0.25, "dough_c": 23,
///         "stages": [
///           {"hours": 2, "piece_g": 1500, "shape": "bulk", "container": "tub", "air": "room", "place_c": 20},
///           {"hours": 24, "piece_g": 250, "shape": "ball", "container": "box", "air": "fridge", "place_c": 4, "event": "ball"},
///           {"hours": 4, "piece_g": 250, "shape": "ball", "container": "box", "air": "room", "place_c": 20}
///         ]}"#,
/// )?;
/// let answer = solve_yeast(&dough, Temperatures::InsideTheDough).unwrap();
/// let YeastAnswer::Found { yeast_percent, forecast, .. } = answer else { panic!("no dose") };
/// // Ripe as intended when its stages end, whatever dose it was asked with.
/// assert!((forecast.at_bake.ripeness - 1.0).abs() < 0.01);
/// assert!((0.1..1.0).contains(&yeast_percent), "{yeast_percent} % instant yeast");
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn solve_yeast(
    request: &RiseRequest,
    from: Temperatures,
) -> Result<YeastAnswer, ValidationError> {
    solve_looking(request, from, Look::Beyond, &PrefermentRuns::default())
}

/// Solves the yeast; the forecast of the answer looks as far as it is asked to.
pub(crate) fn solve_looking(
    request: &RiseRequest,
    from: Temperatures,
    look: Look,
    runs: &PrefermentRuns,
) -> Result<YeastAnswer, ValidationError> {
    let request = &RiseRequest {
        yeast_percent: 0.0,
        ..request.clone()
    };
    request.check(false)?;
    let handed = hand_overs(request, from, runs);
    let (dose, handed) = match dose_of(request, from, handed) {
        Ok(found) => found,
        Err((reason, best)) => return Ok(none(reason, best)),
    };
    let yeast_percent = own_form(request, dose);
    let answered = RiseRequest {
        yeast_percent,
        ..request.clone()
    };
    let forecast = foresee(&answered, from, &handed, look);
    let warnings = warnings(&forecast, yeast_percent);
    Ok(YeastAnswer::Found {
        yeast_percent,
        fresh_equivalent_percent: dose,
        notes: judge::of_warnings(&warnings),
        warnings,
        forecast: Box::new(forecast),
    })
}

/// The dose, % fresh equivalent, at which a checked request without a dose of its own gets ripe at its end; or why
/// none does, with the best that was found.
fn dose_of(
    request: &RiseRequest,
    from: Temperatures,
    handed: Vec<HandOver>,
) -> Result<(f64, Vec<HandOver>), (NoYeast, f64)> {
    let blank = Kinetics::new(request, &handed);
    let mut trials = Trials {
        series: series(request, &blank, from, Grid::TRIAL, 0.0, &[]),
        request,
        handed,
        from,
    };
    let at_least = trials.ripeness(LEAST_FRESH_PERCENT);
    if at_least >= 1.0 {
        return Err((NoYeast::RipeWithoutAddedYeast, at_least));
    }
    let (low, high) = trials
        .bracket()
        .map_err(|best| (NoYeast::CannotReachEvenAtMax, best))?;
    let mut dose = trials.close_in(low, high);
    if from == Temperatures::InsideTheDough {
        for _ in 1..passes(request) {
            trials.warm_with(dose);
            let Some(next) = nearby(&trials, dose) else {
                break;
            };
            let settled = (next / dose - 1.0).abs() < CLOSE;
            dose = next;
            if settled {
                break;
            }
        }
    }
    Ok((dose, trials.handed))
}

/// The dose in the request's own form, %, that makes it ready at its end, its preferments on the grid of trials; its own
/// dose is ignored. Source: learning, section 5.
pub(crate) fn quick_dose(request: &RiseRequest) -> Result<f64, NoYeast> {
    let request = &RiseRequest {
        yeast_percent: 0.0,
        ..request.clone()
    };
    let handed = quick_hand_overs(request);
    dose_of(request, Temperatures::InsideTheDough, handed)
        .map(|(dose, _)| own_form(request, dose))
        .map_err(|(why, _)| why)
}

fn none(reason: NoYeast, ripeness_at_limit: f64) -> YeastAnswer {
    YeastAnswer::None {
        reason,
        ripeness_at_limit,
        notes: judge::of_none(reason, ripeness_at_limit),
    }
}

/// Closes in again around a former dose; falls back to the grid when the crossing has moved far.
fn nearby(trials: &Trials, dose: f64) -> Option<f64> {
    for factor in [1.03, 1.3, 1.7] {
        let (low, high) = (dose / factor, (dose * factor).min(MOST_FRESH_PERCENT));
        if trials.ripeness(low) < 1.0 && trials.ripeness(high) >= 1.0 {
            return Some(trials.close_in(low, high));
        }
    }
    trials
        .bracket()
        .ok()
        .map(|(low, high)| trials.close_in(low, high))
}

fn warnings(f: &RiseResult, yeast_percent: f64) -> Vec<YeastWarning> {
    let rules = [
        (
            f.at_bake.ripeness_mature < 1.0,
            YeastWarning::TooShortToRelaxOrMature,
        ),
        (
            f.at_bake.reserve < 0.0,
            YeastWarning::FlourTooWeakForTheHours,
        ),
        (
            yeast_percent < TINY_PERCENT,
            YeastWarning::DoseTooSmallToWeigh,
        ),
    ];
    rules
        .iter()
        .filter(|(is, _)| *is)
        .map(|(_, w)| *w)
        .collect()
}
