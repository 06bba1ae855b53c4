//! What raises the dough: preferments over their hours, then the dose of the final dough over its own.

use super::stages;
use super::{PrefermentPlan, SheetRequest, SheetYeast, hours, too_near};
use crate::fact;
use crate::fact::{Fact, whole};
use crate::flour::{FlourPart, blend};
use crate::formula::{self, Dose, Doses, FormulaResult};
use crate::mix::WaterResult;
use crate::note::Note;
use crate::refusal::ValidationError;
use crate::rise::{
    Air, Container, DoughKind, DoughShape, Event, Look, NoYeast, PrefermentRuns, RisePreferment,
    RiseRequest, RiseResult, Stage, Temperatures, YeastAnswer, forecast, forecast_with,
    solve_looking,
};
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// A preferment that was run to the hour of its use.
pub(super) struct Raised {
    pub plan: PrefermentPlan,
    pub recipe: RiseRequest,
    /// Hours after its mixing from which to which it is ripe.
    pub ripe_h: Option<(f64, Option<f64>)>,
}

/// Puts how a preferment went into what is said of it.
pub(super) fn went(
    plan: &mut PrefermentPlan,
    recipe: &RiseRequest,
    from_at: Timestamp,
    to_at: Timestamp,
) {
    (plan.from_at, plan.to_at) = (from_at, to_at);
    if let Ok(run) = forecast(recipe, Temperatures::InsideTheDough) {
        stands(plan, &run);
    }
}

/// How it stands when it is used.
fn stands(plan: &mut PrefermentPlan, run: &RiseResult) {
    let end = &run.at_bake;
    plan.ripe = 100.0 * end.ripeness_dose.min(end.ripeness_piece);
    plan.label = end.label;
    plan.clocks = super::clocks(run)
        .into_iter()
        .filter(|p| p.hours <= end.hours + 1e-9)
        .collect();
}

/// The water of a preferment, so that it leaves the bowl as warm as it is wanted: worked by hand, with what the kitchen has.
/// `None` where nothing is poured.
pub(super) fn water_of(r: &SheetRequest, f: &FormulaResult, i: usize) -> Option<WaterResult> {
    let bowl = r.to_mix(f, u16::try_from(i + 1).ok()?)?;
    bowl.poured().ok()
}

/// The temperature of what the preferments bring, weighted by weight: their last place, °C.
pub(super) fn preferments_c(r: &SheetRequest, f: &FormulaResult) -> f64 {
    let list = &r.formula.preferments;
    let whole: f64 = f.columns.iter().take(list.len()).map(|c| c.exact_g).sum();
    if whole <= 0.0 {
        return 0.0;
    }
    list.iter()
        .zip(&f.columns)
        .map(|(p, c)| {
            let last = if p.cold_h > 0.0 {
                r.fridge_c
            } else {
                p.warm_c.unwrap_or(r.room_c)
            };
            c.exact_g * last
        })
        .sum::<f64>()
        / whole
}

/// The water's refusals concern the dough that it is for.
pub(super) fn at_water(refused: ValidationError) -> ValidationError {
    ValidationError(
        refused
            .0
            .into_iter()
            .map(|mut e| {
                if e.field == "target_dough_c" || e.field == "water_g" {
                    e.field = format!(
                        "formula.{}",
                        e.field.replace("water_g", "hydration_percent")
                    );
                }
                e
            })
            .collect(),
    )
}

/// A preferment over its hours; the same recipe was often run a moment ago.
fn ran(recipe: &RiseRequest, runs: &PrefermentRuns) -> Result<RiseResult, ValidationError> {
    let run = || forecast(recipe, Temperatures::InsideTheDough);
    match serde_json::to_string(recipe) {
        Ok(question) => runs.ran.get(question, run),
        Err(_) => run(),
    }
}

/// The dose of a preferment; the same recipe was often asked a moment ago.
fn solved(recipe: &RiseRequest, runs: &PrefermentRuns) -> Result<YeastAnswer, ValidationError> {
    let solve = || solve_looking(recipe, Temperatures::InsideTheDough, Look::ToTheEnd, runs);
    match serde_json::to_string(recipe) {
        Ok(question) => runs.solved.get(question, solve),
        Err(_) => solve(),
    }
}

/// Runs the preferments; doses that are to be solved are put into `doses`.
pub(super) fn preferments(
    r: &SheetRequest,
    f: &FormulaResult,
    doses: &mut Doses,
    runs: &PrefermentRuns,
) -> Result<Vec<Raised>, ValidationError> {
    let mut out = Vec::new();
    for (i, p) in r.formula.preferments.iter().enumerate() {
        let water = water_of(r, f, i);
        let mut recipe = recipe(r, p, f.columns[i].exact_g);
        if let Some(w) = &water {
            recipe.dough_c = w.dough_c.clamp(0.0, 40.0);
        }
        let path = |field: &str| format!("formula.preferments[{i}].{field}");
        let run = match p.yeast.dose {
            // It ends when it goes into the dough: nobody asks how it would go on.
            Dose::Solve => match solved(&recipe, runs)? {
                YeastAnswer::Found {
                    yeast_percent,
                    forecast,
                    ..
                } => {
                    recipe.yeast_percent = yeast_percent;
                    *forecast
                }
                YeastAnswer::None { reason, .. } => {
                    return Err(ValidationError::one(path("warm_h"), no_dose(p, reason)));
                }
            },
            Dose::None | Dose::Given { .. } => {
                recipe.yeast_percent = doses.preferments[i];
                ran(&recipe, runs).map_err(|_| {
                    ValidationError::one(path("yeast"), fact!("nothing-raises", name = p.called()))
                })?
            }
        };
        doses.preferments[i] = recipe.yeast_percent;
        let to_at = r.mix_at();
        let mut plan = PrefermentPlan {
            name: p.called(),
            from_at: to_at - hours(p.hours()),
            to_at,
            yeast_percent: recipe.yeast_percent,
            ripe: 0.0,
            label: run.at_bake.label,
            target_c: Some(p.target(r.room_c)),
            water,
            clocks: vec![],
        };
        stands(&mut plan, &run);
        out.push(Raised {
            plan,
            ripe_h: run.window.map(|w| (w.from_h, w.to_h)),
            recipe,
        });
    }
    Ok(out)
}

fn no_dose(p: &formula::Preferment, reason: NoYeast) -> Fact {
    match reason {
        NoYeast::CannotReachEvenAtMax => {
            fact!(
                "no-yeast-ripens",
                name = p.called(),
                time = fact::hours(p.hours())
            )
        }
        NoYeast::RipeWithoutAddedYeast => {
            fact!(
                "smallest-overruns",
                name = p.called(),
                time = fact::hours(p.hours())
            )
        }
    }
}

/// A tub's weight in steps of 5 %: it only sets how fast the tub takes the temperature of its place, and a run that was
/// made before serves again while the dough changes a little.
fn in_steps(weight_g: f64) -> f64 {
    let step = 1.05f64.ln();
    ((weight_g.ln() / step).round() * step)
        .exp()
        .clamp(20.0, 20_000.0)
}

/// A preferment as the rise model takes it.
fn recipe(r: &SheetRequest, p: &formula::Preferment, weight_g: f64) -> RiseRequest {
    let own: Vec<FlourPart> = r
        .formula
        .flours
        .iter()
        .enumerate()
        .map(|(i, f)| FlourPart {
            share_percent: p.flours.get(i).copied().unwrap_or(f.share_percent),
            ..f.clone()
        })
        .collect();
    let flour = blend(&own);
    let warm_c = p.warm_c.unwrap_or(r.room_c);
    let tub = |hours: f64, air: Air, place_c: f64| Stage {
        hours,
        piece_g: in_steps(weight_g.clamp(20.0, 20_000.0)),
        shape: DoughShape::Bulk,
        thickness_mm: None,
        container: Container::Tub,
        air,
        place_c: Some(r.place_here_c(air, place_c)),
        place_profile_c: None,
        place_off_k: None,
        starts_at_c: None,
        event: Event::None,
    };
    let stages = [
        tub(p.warm_h, Air::Room, warm_c),
        tub(p.cold_h, Air::Fridge, r.fridge_c),
    ];
    RiseRequest {
        kind: p.rises_as(),
        hydration_percent: p.hydration_percent,
        salt_percent: p.salt_percent,
        sugar_percent: 0.0,
        oil_percent: 0.0,
        whole_grain_percent: flour.whole_percent,
        flour_w: flour.w,
        yeast_percent: 0.0,
        yeast_form: p.yeast.form,
        yeast_vigour: r.yeast_vigour,
        leaven_fraction: p.seed_share().min(0.6),
        leaven_vigour: r.leaven_vigour,
        preferments: vec![],
        dough_c: warm_c.clamp(0.0, 40.0),
        altitude_m: r.altitude_m,
        target_volume: None,
        start_clock_h: 8.0,
        stages: stages.into_iter().filter(|s| s.hours > 0.0).collect(),
        departs: r.departs().of_preferment(),
    }
}

/// The dough for the rise model, leaving the mixer at `dough_c`.
pub(super) fn dough(
    r: &SheetRequest,
    f: &FormulaResult,
    raised: &[Raised],
    dough_c: f64,
    zone: &TimeZone,
) -> RiseRequest {
    let local = r.mixed_at().to_zoned(zone.clone());
    let x = &r.formula;
    let flour = blend(&x.flours);
    let dusting: f64 = x.legs.iter().map(|l| l.dusting_percent).sum();
    RiseRequest {
        kind: Default::default(),
        hydration_percent: (f.true_hydration_percent / (1.0 + dusting / 100.0)).clamp(40.0, 130.0),
        salt_percent: x.salt_percent,
        sugar_percent: x.sugars_percent().min(20.0),
        oil_percent: x.fats_percent().min(20.0),
        whole_grain_percent: flour.whole_percent,
        flour_w: flour.w,
        yeast_percent: 0.0,
        yeast_form: x.yeast.form,
        yeast_vigour: r.yeast_vigour,
        leaven_fraction: 0.0,
        leaven_vigour: r.leaven_vigour,
        preferments: x
            .preferments
            .iter()
            .zip(raised)
            .map(|(p, done)| RisePreferment {
                flour_fraction: p.flour_percent / 100.0,
                recipe: done.recipe.clone(),
            })
            .collect(),
        dough_c: (dough_c + r.own.as_ref().map_or(0.0, |own| own.dough_k)).clamp(0.0, 40.0),
        altitude_m: r.altitude_m,
        target_volume: Some(x.style.target_volume),
        start_clock_h: f64::from(local.hour()) + f64::from(local.minute()) / 60.0,
        stages: stages::stages(r, f),
        departs: r.departs(),
    }
}

/// Whether the preferments raise it without a second dose.
pub(super) type Alone = bool;

/// The dose of the final dough with its forecast.
pub(super) fn yeast(
    r: &SheetRequest,
    dough: &RiseRequest,
    runs: &PrefermentRuns,
) -> Result<(SheetYeast, RiseResult, Alone), ValidationError> {
    let of = |percent: f64| SheetYeast {
        percent,
        fresh_equivalent_percent: percent * r.formula.yeast.form.fresh_equivalent(),
    };
    let with = |percent: f64| {
        let given = RiseRequest {
            yeast_percent: percent,
            ..dough.clone()
        };
        forecast_with(&given, Temperatures::InsideTheDough, runs).map_err(|e| {
            if e.0.iter().any(|e| e.field == "yeast_percent") {
                e.below("formula")
            } else {
                e
            }
        })
    };
    match r.formula.yeast.dose {
        Dose::Given { percent } => Ok((of(percent), with(percent)?, false)),
        Dose::None => Ok((of(0.0), with(0.0)?, false)),
        Dose::Solve => {
            match solve_looking(dough, Temperatures::InsideTheDough, Look::Beyond, runs)? {
                YeastAnswer::Found {
                    yeast_percent,
                    fresh_equivalent_percent,
                    forecast,
                    ..
                } => {
                    let yeast = SheetYeast {
                        percent: yeast_percent,
                        fresh_equivalent_percent,
                    };
                    Ok((yeast, *forecast, false))
                }
                YeastAnswer::None {
                    reason: NoYeast::RipeWithoutAddedYeast,
                    ..
                } if !dough.preferments.is_empty() => Ok((of(0.0), with(0.0)?, true)),
                YeastAnswer::None {
                    reason,
                    ripeness_at_limit,
                    ..
                } => Err(too_near::no_yeast(reason, ripeness_at_limit)),
            }
        }
    }
}

/// Ripe enough, and not past it, of 100.
const RIPE: (f64, f64) = (85.0, 130.0);

/// What to say of a preferment that is not ripe when it goes in, and whether it is past it; `None` for one that is right.
pub(super) fn ripeness(p: &formula::Preferment, plan: &PrefermentPlan) -> Option<(Note, bool)> {
    let ripe = plan.ripe;
    let tolerant = p.rises_as() == DoughKind::Biga;
    let past = (ripe > RIPE.1 && !tolerant) || plan.label.is_past();
    if ripe >= RIPE.0 && !past {
        return None;
    }
    let lasted = plan.to_at.duration_since(plan.from_at).as_secs_f64() / 3600.0;
    let h = fact::hours(fact::spoken_h(lasted));
    let why = if tolerant && past {
        // A biga goes far past 100 and is right: only its label is said.
        fact!("biga-past-why", time = h)
    } else if past && ripe <= RIPE.1 {
        // It has the gas that was wanted; what holds it, or feeds it, is used up.
        let reserve = plan.clocks.last().map_or(0.0, |c| c.reserve);
        if reserve <= 0.0 {
            fact!("preferment-gluten-spent", time = h)
        } else {
            fact!("preferment-sugar-spent", time = h)
        }
    } else {
        fact!("preferment-at-why", rise = whole(ripe), time = h)
    };
    let what = if past {
        fact!("preferment-past", name = p.called())
    } else {
        fact!("preferment-young", name = p.called())
    };
    Some((Note::watch("preferment_ripeness", what, why), past))
}

/// What to say about preferments when they are used.
pub(super) fn notes(r: &SheetRequest, raised: &[Raised], alone: Alone) -> Vec<Note> {
    let mut out = Vec::new();
    for (i, (p, done)) in r.formula.preferments.iter().zip(raised).enumerate() {
        let Some((note, _)) = ripeness(p, &done.plan) else {
            continue;
        };
        // Soon after its first ripe moment, on the quarter hour; only warm hours are moved.
        let better = done
            .ripe_h
            .filter(|_| p.cold_h == 0.0)
            .map(|(from, _)| ((from + 0.2) * 4.0).ceil() / 4.0);
        out.push(match better.filter(|h| (0.5..=48.0).contains(h)) {
            Some(h) => note.remedy(
                fact!("set-hours", time = fact::hours(h)),
                &format!("preferments[{i}].warm_h"),
                h,
            ),
            None => note.todo(fact!("preferment-todo")),
        });
    }
    if alone {
        out.push(Note::holds(
            "raised_alone",
            fact!("raised-alone"),
            fact!("raised-alone-why"),
        ));
    }
    out
}
