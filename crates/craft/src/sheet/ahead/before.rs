//! Preferments as they really went: begun early or late, chilled, warmer or colder than planned, used when the dough is mixed.

use super::Measured;
use super::places::{Places, from};
use super::timeline::{SHORTEST_H, Timeline, h_between};
use super::{AheadRequest, OFF_THE_MIXER_H, Replaced, ReplacedFigure};
use crate::path::{Place, Spot};
use crate::rise::{Air, RiseRequest, Stage};
use crate::sheet::PrefermentPlan;
use crate::sheet::raise::went;
use jiff::Timestamp;

/// Puts what happened into the recipes of a dough's preferments.
pub(super) fn as_they_went(
    q: &AheadRequest,
    clock: &Timeline,
    places: &Places,
    dough: &mut RiseRequest,
    replaced: &mut Vec<Replaced>,
) -> Vec<PrefermentPlan> {
    let list = &q.request.formula.preferments;
    let spans: Vec<_> = (0..list.len()).map(|i| clock.preferment(i)).collect();
    let mut out = q.planned.preferments.clone();
    for (i, preferment) in dough.preferments.iter_mut().enumerate() {
        let recipe = &mut preferment.recipe;
        let planned = recipe.clone();
        let (began, cold) = spans[i];
        let mut stages = timed(q, i, recipe, clock, (began, cold));
        places.measured(&mut stages, began, q.request.room_c);
        let mut read = vec![];
        for r in q.happened.readings.iter().filter(|r| r.at <= q.now) {
            if let Measured::Dough { c } = r.measured
                && mine(q, &spans, clock, r.at) == Some(i)
            {
                read.push((r.at, c));
            }
        }
        read.sort_by_key(|(at, _)| *at);
        let name = list[i].called();
        for (at, c) in read {
            let foreseen = out.get(i).and_then(|p| p.clock_at(at)).map(|p| p.dough_c);
            let into = h_between(began, at);
            if into <= OFF_THE_MIXER_H {
                recipe.dough_c = c.clamp(0.0, 40.0);
            } else {
                let stage = from(&mut stages, into);
                if let Some((stage, _)) = stages.get_mut(stage) {
                    stage.starts_at_c = Some(c.clamp(0.0, 40.0));
                }
            }
            let what = ReplacedFigure::Preferment { name: name.clone() };
            replaced.retain(|r| r.what != what);
            replaced.push(Replaced {
                what,
                planned: foreseen.unwrap_or(planned.dough_c),
                measured: c,
                at,
            });
        }
        recipe.stages = stages.into_iter().map(|(s, _)| s).collect();
        if let Some(plan) = out.get_mut(i)
            && *recipe != planned
        {
            went(plan, recipe, began, clock.mix_from);
        }
    }
    out
}

/// The stages of a preferment with their real hours, each with where it stood.
fn timed(
    q: &AheadRequest,
    i: usize,
    recipe: &RiseRequest,
    clock: &Timeline,
    (began, cold): (Timestamp, Option<Timestamp>),
) -> Vec<(Stage, Spot)> {
    let p = &q.request.formula.preferments[i];
    let as_planned = q
        .planned
        .preferments
        .get(i)
        .is_some_and(|x| x.from_at == began && x.to_at == clock.mix_from);
    let end = clock.mix_from.max(began);
    let until = cold.unwrap_or(end).min(end);
    let hours = |air: Air| match air {
        Air::Fridge => h_between(until, end),
        _ => h_between(began, until),
    };
    let planned_cold = began + crate::sheet::hours(p.warm_h);
    let as_planned = as_planned && cold.is_none_or(|c| c == planned_cold || p.warm_h <= 0.0);
    let mut out = vec![];
    for stage in &recipe.stages {
        let spot = match (stage.air, p.warm_c) {
            (Air::Fridge, _) => Spot::Fridge,
            (_, None) => Spot::Room,
            // A place of its own: what is read of the room says nothing of it.
            (air, Some(c)) => Spot::Own(Place {
                name: String::new(),
                air,
                c,
                profile_c: None,
                off_k: None,
                holds_h: None,
            }),
        };
        let mut stage = stage.clone();
        if !as_planned {
            stage.hours = hours(stage.air).max(SHORTEST_H);
        }
        out.push((stage, spot));
    }
    out
}

/// The preferment that a reading of dough was taken in: the largest one that stood then.
fn mine(
    q: &AheadRequest,
    spans: &[(Timestamp, Option<Timestamp>)],
    clock: &Timeline,
    at: Timestamp,
) -> Option<usize> {
    (0..spans.len())
        .filter(|i| spans[*i].0 <= at && at < clock.mix_from)
        .max_by(|a, b| {
            let of = |i: &usize| q.planned.formula.columns.get(*i).map_or(0.0, |c| c.exact_g);
            of(a).total_cmp(&of(b))
        })
}
