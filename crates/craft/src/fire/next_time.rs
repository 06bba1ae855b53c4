//! Next time: from the verdicts of the last pizzas and the floor, what to change now.
//!
//! Each change is tried on the plan with the floor as it was read; those that move base and top the way the verdicts ask
//! come first. How sure it is follows from how many pizzas said the same. Colours of the model are good to ±0.4: what is
//! asked of it here is a direction.

use super::heat::Fineness;
use super::oven::Shelf;
use super::plan::FirePlan;
use super::race::Race;
use super::run::{Run, Shade};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// What can be done at the oven before the next pizza.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Act {
    /// Let the floor come back.
    Wait,
    /// Bare or rake the floor, or let it cool.
    CoolFloor,
    MoreFlame,
    LessFlame,
    TurnSooner,
    RaiseShelf,
    LowerShelf,
    Longer,
    Shorter,
    LessTopping,
}

impl Act {
    pub fn words(self, plan: &FirePlan) -> &'static str {
        let fired = plan.oven.kind.is_fired();
        match self {
            Act::Wait if fired => "Wait two minutes, coals over the floor",
            Act::Wait => "Wait for the floor",
            Act::CoolFloor if fired => "Rake back, let the floor bare",
            Act::CoolFloor => "Floor or setting 20° down",
            Act::MoreFlame if fired => "Lay on, flame up",
            Act::MoreFlame => "More top heat",
            Act::LessFlame if fired => "Flame down",
            Act::LessFlame => "Less top heat",
            Act::TurnSooner => "Turn sooner",
            Act::RaiseShelf => "One shelf up, nearer the grill",
            Act::LowerShelf => "One shelf down",
            Act::Longer => "Leave it in a tenth longer",
            Act::Shorter => "Out a tenth sooner",
            Act::LessTopping => "Less topping",
        }
    }
}

/// How sure a suggestion is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
pub enum Surety {
    /// One pizza said so.
    Guess,
    /// Two said the same.
    Likely,
    /// Three or more said the same.
    Sure,
}

/// One suggestion.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct NextTime {
    pub act: Act,
    pub what: String,
    /// What the verdicts said, and what the model expects of the change.
    pub why: String,
    pub base_by: f64,
    pub top_by: f64,
    pub surety: Surety,
}

/// How many of the last pizzas count.
const LAST: usize = 4;
/// A verdict of pale or dark asks for this much colour.
const WANTED: f64 = 0.6;

/// What the last pizzas asked for: base and top, −1 too dark to 1 too pale, and how many said the same.
fn asked(run: &Run) -> Option<(f64, f64, usize, usize)> {
    let judged: Vec<_> = run
        .pizzas
        .iter()
        .rev()
        .filter_map(|p| p.verdict)
        .take(LAST)
        .collect();
    if judged.is_empty() {
        return None;
    }
    let sign = |s: Shade| match s {
        Shade::Pale => 1.0,
        Shade::Right => 0.0,
        Shade::Dark => -1.0,
    };
    // The newest counts most.
    let mut weights = 0.0;
    let (mut base, mut top) = (0.0, 0.0);
    for (i, v) in judged.iter().enumerate() {
        let w = 1.0 / (1.0 + i as f64);
        weights += w;
        base += w * sign(v.base);
        top += w * sign(v.top);
    }
    let newest = judged[0];
    let same = judged.iter().take_while(|v| **v == newest).count();
    Some((base / weights, top / weights, same, judged.len()))
}

/// What to change before the next pizza, best first; nothing where the last ones were right or none was judged.
pub fn next_time(plan: &FirePlan, now: &Race, run: &Run) -> Vec<NextTime> {
    let Some((base, top, same, of)) = asked(run) else {
        return vec![];
    };
    if base.abs() < 0.2 && top.abs() < 0.2 {
        return vec![];
    }
    let want = (WANTED * base, WANTED * top);
    let surety = match same {
        0 | 1 => Surety::Guess,
        2 => Surety::Likely,
        _ => Surety::Sure,
    };
    let said = format!(
        "{} of the last {of}: {}.",
        same,
        run.pizzas
            .iter()
            .rev()
            .find_map(|p| p.verdict)
            .map_or(String::new(), |v| v.words())
    );
    let cost = |b: f64, t: f64| ((want.0 - b).powi(2) + (want.1 - t).powi(2)).sqrt();
    let mut out: Vec<(f64, NextTime)> = candidates(plan)
        .into_iter()
        .filter_map(|(act, x, stretch)| {
            let (b, t) = colours_of(&x, now.best_s * stretch)?;
            let (base_by, top_by) = (b - now.at.base, t - now.at.rim);
            let left = cost(base_by, top_by);
            (left < cost(0.0, 0.0) - 0.03).then(|| {
                let next = NextTime {
                    act,
                    what: act.words(plan).into(),
                    why: format!("{said} The model expects base {base_by:+.1}, top {top_by:+.1}."),
                    base_by,
                    top_by,
                    surety,
                };
                (left, next)
            })
        })
        .collect();
    out.sort_by(|a, b| a.0.total_cmp(&b.0));
    out.into_iter().map(|(_, n)| n).take(3).collect()
}

/// Colours of base and rim at a second.
fn colours_of(plan: &FirePlan, at_s: f64) -> Option<(f64, f64)> {
    let planned = plan.planned_at(Fineness::Draft).ok()?;
    let m = planned.course.near(at_s)?;
    Some((m.base, m.rim))
}

/// What can be done in this oven: the plan with it, and how much longer it bakes.
fn candidates(plan: &FirePlan) -> Vec<(Act, FirePlan, f64)> {
    let with = |change: &dyn Fn(&mut FirePlan)| {
        let mut x = plan.clone();
        change(&mut x);
        x.setting.floor_c = x.oven.floor_at(&x.setting);
        x
    };
    let floor_now = plan
        .floor_read_c
        .unwrap_or(plan.oven.floor_at(&plan.setting));
    let set = plan.oven.floor_at(&plan.setting);
    let mut out = vec![
        (Act::Longer, plan.clone(), 1.1),
        (Act::Shorter, plan.clone(), 0.9),
        (
            Act::LessTopping,
            with(&|x| {
                x.piece.sauce_g *= 0.75;
                x.piece.cheese_g *= 0.75;
            }),
            1.0,
        ),
        (
            Act::CoolFloor,
            with(&|x| x.floor_read_c = Some((floor_now - 20.0).max(60.0))),
            1.0,
        ),
    ];
    if floor_now < set - 5.0 {
        out.push((
            Act::Wait,
            with(&|x| x.floor_read_c = Some((floor_now + 30.0).min(set))),
            1.0,
        ));
    }
    if plan.oven.kind == super::oven::OvenKind::Home {
        if plan.setting.grill && plan.setting.shelf != Shelf::Top {
            out.push((
                Act::RaiseShelf,
                with(&|x| x.setting.shelf = Shelf::Top),
                1.0,
            ));
        }
        if plan.setting.grill && plan.setting.shelf == Shelf::Top {
            out.push((
                Act::LowerShelf,
                with(&|x| x.setting.shelf = Shelf::Middle),
                1.0,
            ));
        }
        if !plan.setting.grill && plan.oven.has_grill() {
            out.push((Act::MoreFlame, with(&|x| x.setting.grill = true), 1.0));
        }
    } else {
        out.push((Act::MoreFlame, with(&|x| x.setting.dome_c += 25.0), 1.0));
        out.push((Act::LessFlame, with(&|x| x.setting.dome_c -= 25.0), 1.0));
    }
    if plan.oven.side > 0.0 && plan.turns.is_none() {
        let mut x = plan.clone();
        if let Ok(p) = plan.planned_at(Fineness::Draft) {
            let sooner = |mut t: super::programme::Turn| {
                t.at_s = (f64::from(t.at_s) * 0.85).round() as u32;
                t
            };
            x.turns = Some(p.programme.turns.into_iter().map(sooner).collect());
            out.push((Act::TurnSooner, x, 1.0));
        }
    }
    out
}
