//! What can be pressed on Rise: another method, a leg longer or shorter or elsewhere, solved for, or laid around a life.

use super::looked;
use crate::batch::record::BatchRecord;
use crate::formula_form::Bench;
use crate::formula_form::reading;
use crate::formula_form::writing::typed_of;
use crate::shared::form::FormData;
use crate::shared::format::day_hm;
use crate::shared::tongue::{phrase, say};
use craft::fact::Fact;
use craft::formula::{Dose, Formula};
use craft::path::{self, Spot};
use craft::refusal::FieldError;
use craft::sheet::life::{FittedPlan, LifeFitRequest, Why, fit_by};
use craft::sheet::{SheetRequest, choose};
use jiff::Timestamp;

/// A plan that fits the life of the kitchen, to be taken or left.
pub struct OfferedPlan {
    pub fitted: FittedPlan,
    pub request: SheetRequest,
}

type Pressed = Result<Vec<OfferedPlan>, Vec<FieldError>>;

/// Does what was pressed to the form. Returns plans to choose from, and what is wrong.
pub fn press(
    typed: &mut FormData,
    bench: &Bench,
    told: Option<&BatchRecord>,
) -> (Vec<OfferedPlan>, Vec<FieldError>) {
    let act = typed.text("act").to_string();
    typed.forget("act");
    if act.is_empty() {
        return (vec![], vec![]);
    }
    match done(&act, typed, bench, told) {
        Ok(plans) => (plans, vec![]),
        Err(e) => (vec![], e),
    }
}

fn done(act: &str, typed: &mut FormData, bench: &Bench, told: Option<&BatchRecord>) -> Pressed {
    let words: Vec<&str> = act.splitn(3, ':').collect();
    let (verb, what) = (words[0], words.get(1).copied().unwrap_or(""));
    let rest = words.get(2).copied().unwrap_or("");
    let anew = ["method", "take", "fit", "solve"].contains(&verb);
    if anew && told.is_some_and(BatchRecord::is_mixed) {
        return Err(vec![FieldError {
            field: "act".into(),
            message: Fact::as_written(phrase("rise-this-dough-is-mixed-its")),
        }]);
    }
    if verb == "method" || verb == "take" {
        // A method chosen in the list stands in its own field.
        let key = if what.is_empty() {
            typed.text("new_method").to_string()
        } else {
            what.to_string()
        };
        let f = reading::formula(typed, bench.here)?;
        if let Some(m) = bench.larder.methods().iter().find(|m| m.key == key) {
            put(typed, &m.applied(&f), bench);
        }
        // Taken out of a comparison, it comes laid around the hours away, as it was shown.
        if verb == "take" && !bench.here.kitchen.rhythm.life.is_empty() {
            let request = looked::request(typed, bench, told)?;
            return Ok(around_life(typed, (bench, told), &request, "0").unwrap_or_default());
        }
        return Ok(vec![]);
    }
    let request = looked::request(typed, bench, told)?;
    let refused = reading::at_fields;
    match verb {
        "leg" => {
            let (i, by): (usize, f64) = numbers(what, rest);
            let path = request.formula.path();
            let Some(leg) = path.get(i) else {
                return Ok(vec![]);
            };
            let h = ((leg.hours + by) * 4.0).round() / 4.0;
            put(typed, &choose::set_leg(&request, i, h.max(0.25)), bench);
        }
        "serve" => {
            let by = within_a_plan(what.parse().unwrap_or(0.0));
            // What is mixed stays mixed: only its last leg can wait.
            let last = request.formula.path().len() - 1;
            if told.is_some_and(BatchRecord::is_mixed) {
                return edge(typed, bench, &request, last, by);
            }
            set_serve(typed, request.serve_at + craft::sheet::hours(by), bench);
        }
        "edge" => {
            let (i, by): (usize, f64) = numbers(what, rest);
            return edge(typed, bench, &request, i, by);
        }
        "spot" => {
            let (i, _): (usize, f64) = numbers(what, "0");
            // A list has its choice in a field of its own.
            let key = if rest.is_empty() {
                typed.text(&format!("spot_{i}")).to_string()
            } else {
                rest.to_string()
            };
            if let Some(spot) = spot_of(&key, bench) {
                let mut path = request.formula.path();
                if let Some(leg) = path.get_mut(i) {
                    leg.spot = spot;
                }
                put(typed, &request.formula.clone().on_path(path), bench);
            }
        }
        "solve" => {
            let solved = match what {
                "yeast" => {
                    let mut r = request.clone();
                    r.formula.yeast.dose = Dose::Solve;
                    r
                }
                "serve" => choose::solve_serve(&request).map_err(refused)?,
                leg => choose::solve_leg(&request, leg.parse().unwrap_or(0)).map_err(refused)?,
            };
            typed.set("solving", what);
            put(typed, &solved.formula, bench);
            set_serve(typed, solved.serve_at, bench);
        }
        "fit" => return around_life(typed, (bench, told), &request, what),
        _ => {}
    }
    Ok(vec![])
}

/// Moves the edge after a leg: the next leg gives what this one takes; after the last one it is the serve time.
fn edge(typed: &mut FormData, bench: &Bench, request: &SheetRequest, i: usize, by: f64) -> Pressed {
    let mut path = request.formula.path();
    if i >= path.len() || !by.is_finite() {
        return Ok(vec![]);
    }
    let by = within_a_plan(by);
    let quarter = |h: f64| (h * 4.0).round() / 4.0;
    let last = i + 1 == path.len();
    let room = if last {
        f64::INFINITY
    } else {
        path[i + 1].hours - 0.25
    };
    let by = quarter(by.min(room).max(0.25 - path[i].hours));
    path[i].hours += by;
    if last {
        set_serve(typed, request.serve_at + craft::sheet::hours(by), bench);
    } else {
        path[i + 1].hours -= by;
    }
    put(typed, &request.formula.clone().on_path(path), bench);
    Ok(vec![])
}

/// No plan is longer than two weeks: what is pressed moves nothing further.
fn within_a_plan(by_h: f64) -> f64 {
    if by_h.is_finite() {
        by_h.clamp(-path::LONGEST_H, path::LONGEST_H)
    } else {
        0.0
    }
}

fn numbers(what: &str, rest: &str) -> (usize, f64) {
    (
        what.parse().unwrap_or(usize::MAX),
        rest.parse().unwrap_or(0.0),
    )
}

/// A place by its key: the room, the fridge, the freezer, or one of the pantry.
fn spot_of(key: &str, bench: &Bench) -> Option<Spot> {
    match key {
        "room" => Some(Spot::Room),
        "fridge" => Some(Spot::Fridge),
        "freezer" => Some(Spot::Freezer),
        _ => {
            let id: u64 = key.parse().ok()?;
            let place = bench.larder.0.places.iter().find(|p| p.id == id)?;
            Some(Spot::Own(place.facts.clone()))
        }
    }
}

/// Puts a formula into the form; what is not of the formula stays.
fn put(typed: &mut FormData, f: &Formula, bench: &Bench) {
    reading::put(typed, f, bench.here);
}

fn set_serve(typed: &mut FormData, at: Timestamp, bench: &Bench) {
    let local = bench.here.local(at);
    typed.set("serve_date", local.date().to_string());
    typed.set("serve_time", local.strftime("%H:%M").to_string());
}

/// Lays the plan around the quiet and the busy hours; `which` takes one of the plans.
fn around_life(
    typed: &mut FormData,
    (bench, told): (&Bench, Option<&BatchRecord>),
    request: &SheetRequest,
    which: &str,
) -> Pressed {
    let life = &bench.here.kitchen.rhythm.life;
    if life.is_empty() {
        return Err(vec![FieldError {
            field: "fit".into(),
            message: Fact::as_written(phrase("rise-this-kitchen-has-no-quiet")),
        }]);
    }
    let asked = LifeFitRequest {
        request: request.clone(),
        life: life.clone(),
    };
    // A batch keeps what was known when it was planned.
    let kept = request.own.as_deref().copied();
    let own = |r: &SheetRequest| match told {
        Some(_) => kept,
        None => bench.larder.own_for(r, bench.here),
    };
    let found = fit_by(&asked, &own).map_err(reading::at_fields)?;
    if found.plans.is_empty() {
        let message = match found.in_the_way {
            Some(w) => {
                say!(
                    "rise-nothing-fits-at-falls-into",
                    step = bench.here.words(&w.step),
                    at = day_hm(&bench.here.local(w.at)),
                    rest = if w.why == Why::Quiet {
                        phrase("rise-word-quiet")
                    } else {
                        phrase("rise-word-busy")
                    },
                    span = w.span
                )
            }
            None => phrase("rise-there-is-no-time-left").into(),
        };
        return Err(vec![FieldError {
            field: "fit".into(),
            message: Fact::as_written(message),
        }]);
    }
    let plans: Vec<OfferedPlan> = found
        .plans
        .into_iter()
        .map(|fitted| {
            let mut r = request.clone();
            for (p, h) in r
                .formula
                .preferments
                .iter_mut()
                .zip(&fitted.preferment_warm_h)
            {
                p.warm_h = *h;
            }
            r.formula = r.formula.clone().on_path(fitted.legs.clone());
            OfferedPlan { fitted, request: r }
        })
        .collect();
    let take: usize = which.parse().unwrap_or(0);
    if let Some(p) = plans.get(take) {
        put(typed, &p.request.formula, bench);
    }
    Ok(plans)
}

/// A request as a form of Rise for a batch: what it was kept with.
pub fn of_batch(told: &BatchRecord, bench: &Bench) -> FormData {
    let mut typed = typed_of(&told.batch.sheet.request, bench.here);
    typed.set("name", &told.batch.name);
    typed.set("batch", &told.batch.code);
    typed.set("plan", told.batch.plan.to_string());
    typed
}
