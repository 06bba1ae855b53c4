//! Next time: from the verdicts of the last pizzas and the floor, what to change now.
//!
//! Each change is tried on the plan with the floor as it was read and the time that the judged pizzas really had; those that
//! move base and top the way the verdicts ask come first. Where no single change does, two together are tried, and where
//! those do not either it is said why. How sure it is follows from how many pizzas said the same. Colours of the model are
//! good to ±0.4: what is asked of it here is a direction.

use super::calibrate::counts;
use super::heat::Fineness;
use super::oven::OvenShelf;
use super::plan::FirePlan;
use super::race::Race;
use super::run::{Run, Shade, Verdict};
use crate::fact;
use crate::fact::{Fact, Kelvin, Seconds, Value, tenth};
use serde::{Deserialize, Serialize};

/// What can be done at the oven before the next pizza.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Act {
    /// Let the floor come back.
    Wait,
    /// Bare or rake the floor, or let it cool.
    CoolFloor,
    /// More heat into the floor before the launch.
    HeatFloor,
    /// Bake it as long as was planned: the last ones came out sooner, or stayed longer.
    ToTime,
    /// A stronger flame, or a hotter top.
    MoreFlame,
    /// A weaker flame, or a cooler top.
    LessFlame,
    /// The turn comes sooner.
    TurnSooner,
    /// A shelf higher.
    RaiseShelf,
    /// A shelf lower.
    LowerShelf,
    /// Longer in the oven.
    Longer,
    /// Shorter in the oven.
    Shorter,
    /// Less on it.
    LessTopping,
}

impl Act {
    /// The act, as it is done at this fire.
    pub fn words(self, plan: &FirePlan) -> Fact {
        let fired = plan.oven.kind.is_fired();
        match self {
            Act::Wait if fired => fact!("act-wait-coals"),
            Act::Wait => fact!("act-wait"),
            Act::CoolFloor if fired => fact!("act-rake-back"),
            Act::CoolFloor => fact!("act-cooler", by = Kelvin(20.0)),
            Act::HeatFloor if fired => fact!("act-coals", by = Kelvin(20.0)),
            Act::HeatFloor => fact!("act-hotter", by = Kelvin(20.0)),
            Act::ToTime => fact!("act-planned-time"),
            Act::MoreFlame if fired => fact!("act-flame-up"),
            Act::MoreFlame => fact!("act-more-top"),
            Act::LessFlame if fired => fact!("act-flame-down"),
            Act::LessFlame => fact!("act-less-top"),
            Act::TurnSooner => fact!("act-turn-sooner"),
            Act::RaiseShelf => fact!("act-shelf-up"),
            Act::LowerShelf => fact!("act-shelf-down"),
            Act::Longer => fact!("act-longer"),
            Act::Shorter => fact!("act-sooner"),
            Act::LessTopping => fact!("act-less-topping"),
        }
    }
}

/// How sure a suggestion is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Surety {
    /// One pizza said so.
    Guess,
    /// Two said the same.
    Likely,
    /// Three or more said the same.
    Sure,
}

/// One suggestion: one thing to do, or two together.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct NextTime {
    /// What to do, the first thing first.
    pub acts: Vec<Act>,
    /// The acts in words.
    pub what: Fact,
    /// What the verdicts said.
    pub said: Fact,
    /// What the model expects of the change.
    pub model: Fact,
    /// Change of the base's colour that is looked for.
    pub base_by: f64,
    /// Change of the top's colour that is looked for.
    pub top_by: f64,
    /// How sure that is.
    pub surety: Surety,
}

/// What verdicts that were not right come to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Advice {
    /// What to change, best first, three at most.
    Change(Vec<NextTime>),
    /// Nothing that was tried helps; why, in a sentence.
    NothingHelps(Fact),
}

/// How many of the last pizzas count.
const LAST: usize = 4;
/// A verdict of pale or dark asks for this much colour.
const WANTED: f64 = 0.6;
/// So much more or less colour of a side that was right is no harm.
const ROOM: f64 = 0.2;
/// Less than this nearer to what is asked for is no help: it would be said as a tenth at best.
const NEARER: f64 = 0.08;
/// A verdict counts as asking for something from this mean on, of −1 to 1.
const ASKS: f64 = 0.2;
/// Pizzas that had so much more or less than the planned time were baked otherwise than planned.
const OFF_TIME: f64 = 0.1;

/// By how much a floor and a dome are changed at once, K.
const FLOOR_K: f64 = 20.0;
const DOME_K: f64 = 25.0;

/// What the last judged pizzas asked for.
struct WantedChange {
    /// −1 too dark to 1 too pale.
    base: f64,
    top: f64,
    /// How many said the same as the newest, of how many.
    same: usize,
    of: usize,
    newest: Verdict,
    /// How long those that said the same were in, s.
    baked_s: f64,
}

fn asked(run: &Run) -> Option<WantedChange> {
    let judged: Vec<_> = run
        .pizzas
        .iter()
        .rev()
        .filter_map(|p| Some((p.verdict?, p.baked_s()?)))
        .take(LAST)
        .collect();
    let (newest, _) = *judged.first()?;
    let sign = |s: Shade| match s {
        Shade::Pale => 1.0,
        Shade::Right => 0.0,
        Shade::Dark => -1.0,
    };
    // The newest counts most.
    let mut weights = 0.0;
    let (mut base, mut top) = (0.0, 0.0);
    for (i, (v, _)) in judged.iter().enumerate() {
        let w = 1.0 / (1.0 + i as f64);
        weights += w;
        base += w * sign(v.base);
        top += w * sign(v.top);
    }
    let same: Vec<f64> = judged
        .iter()
        .take_while(|(v, _)| *v == newest)
        .map(|(_, s)| *s)
        .collect();
    Some(WantedChange {
        base: base / weights,
        top: top / weights,
        same: same.len(),
        of: judged.len(),
        newest,
        baked_s: same.iter().sum::<f64>() / same.len() as f64,
    })
}

/// One way to bake the next one: what is done, the plan with it, and how long it is in.
struct Trial {
    acts: Vec<Act>,
    plan: FirePlan,
    bake_s: f64,
}

/// What to change before the next pizza; `None` where the last ones were right or none was judged.
pub fn next_time(plan: &FirePlan, now: &Race, run: &Run) -> Option<Advice> {
    let asked = asked(run)?;
    if asked.base.abs() < ASKS && asked.top.abs() < ASKS {
        return None;
    }
    let want = (WANTED * asked.base, WANTED * asked.top);
    let surety = match asked.same {
        0 | 1 => Surety::Guess,
        2 => Surety::Likely,
        _ => Surety::Sure,
    };
    let said = fact!(
        "of-the-last",
        same = asked.same,
        of = asked.of,
        verdict = asked.newest.fact()
    );
    // A slip of the finger says nothing about the time.
    let in_s = if counts(asked.baked_s, now.best_s) {
        asked.baked_s
    } else {
        now.best_s
    };
    let from = colours_of(plan, in_s)?;
    // What was right has room: so much more or less of it is right still.
    let miss = |asked: f64, want: f64, by: f64| {
        if asked.abs() < ASKS {
            (by.abs() - ROOM).max(0.0)
        } else {
            want - by
        }
    };
    let cost = |(b, t): (f64, f64)| miss(asked.base, want.0, b).hypot(miss(asked.top, want.1, t));
    // The planned time is right by the plan: it is enough that it goes the way that was asked for.
    let the_way = |asked: f64, by: f64| asked.abs() < ASKS || asked * by > 0.0;
    let back_to_plan = |(t, by): (&Trial, (f64, f64))| {
        t.acts == [Act::ToTime] && the_way(asked.base, by.0) && the_way(asked.top, by.1)
    };
    let still = cost((0.0, 0.0));
    let moved = |trial: &Trial| {
        let (b, t) = colours_of(&trial.plan, trial.bake_s)?;
        Some((b - from.0, t - from.1))
    };
    let singles: Vec<(Trial, (f64, f64))> = candidates(plan, in_s, now.best_s)
        .into_iter()
        .filter_map(|t| moved(&t).map(|by| (t, by)))
        .collect();
    let tried = singles.len();
    let better = |t: &Trial, by: (f64, f64)| cost(by) < still - NEARER || back_to_plan((t, by));
    let mut helpful: Vec<(Trial, (f64, f64))> = Vec::new();
    if singles.iter().any(|(t, by)| better(t, *by)) {
        helpful.extend(singles.into_iter().filter(|(t, by)| better(t, *by)));
    } else {
        let pairs = pairs(plan, in_s)
            .into_iter()
            .filter_map(|t| moved(&t).map(|by| (t, by)));
        helpful.extend(pairs.filter(|(t, by)| better(t, *by)));
        if helpful.is_empty() {
            return Some(Advice::NothingHelps(fact!(
                "nothing-helps-next",
                said = said,
                n = tried
            )));
        }
    }
    // What was planned comes before what would be new.
    let new = |t: &Trial| t.acts != [Act::ToTime];
    helpful.sort_by(|a, b| {
        let by_cost = cost(a.1).total_cmp(&cost(b.1));
        new(&a.0).cmp(&new(&b.0)).then(by_cost)
    });
    Some(Advice::Change(
        helpful
            .into_iter()
            .take(3)
            .map(|(trial, (base_by, top_by))| NextTime {
                what: words_of(&trial, plan, in_s),
                said: said.clone(),
                model: fact!(
                    "model-expects",
                    base = Value::Signed(tenth(base_by)),
                    top = Value::Signed(tenth(top_by))
                ),
                acts: trial.acts,
                base_by,
                top_by,
                surety,
            })
            .collect(),
    ))
}

/// "Flame down, and leave it in a tenth longer".
fn words_of(trial: &Trial, plan: &FirePlan, in_s: f64) -> Fact {
    let one = |a: &Act| match a {
        Act::ToTime => fact!(
            "act-to-time",
            time = Seconds(trial.bake_s),
            was = Seconds(in_s)
        ),
        a => a.words(plan),
    };
    let mut acts = trial.acts.iter();
    let first = acts.next().map_or(Fact::as_written(""), one);
    acts.fold(first, |all, a| fact!("act-and", all = all, more = one(a)))
}

/// Colours of base and rim at a second.
fn colours_of(plan: &FirePlan, at_s: f64) -> Option<(f64, f64)> {
    let planned = plan.planned_at(Fineness::Draft).ok()?;
    let m = planned.course.near(at_s)?;
    Some((m.base, m.rim))
}

/// What can be done in this oven, each alone. The last ones were in for `in_s`; `best_s` was planned.
fn candidates(plan: &FirePlan, in_s: f64, best_s: f64) -> Vec<Trial> {
    let with = |change: &dyn Fn(&mut FirePlan)| changed(plan, change);
    let one = |act, plan| Trial {
        acts: vec![act],
        plan,
        bake_s: in_s,
    };
    let floor_now = floor_now(plan);
    let set = plan.oven.floor_at(&plan.setting);
    let mut out = Vec::new();
    if (in_s / best_s - 1.0).abs() > OFF_TIME {
        out.push(Trial {
            acts: vec![Act::ToTime],
            plan: plan.clone(),
            bake_s: best_s,
        });
    }
    for (act, stretch) in [(Act::Longer, 1.1), (Act::Shorter, 0.9)] {
        out.push(Trial {
            acts: vec![act],
            plan: plan.clone(),
            bake_s: in_s * stretch,
        });
    }
    let less = |x: &mut FirePlan| {
        x.piece.sauce_g *= 0.75;
        x.piece.cheese_g *= 0.75;
    };
    if plan.piece.sauce_g + plan.piece.cheese_g > 0.0 {
        out.push(one(Act::LessTopping, with(&less)));
    }
    out.push(one(
        Act::CoolFloor,
        with(&|x| x.floor_read_c = Some((floor_now - FLOOR_K).max(60.0))),
    ));
    if floor_now < set - 5.0 {
        out.push(one(
            Act::Wait,
            with(&|x| x.floor_read_c = Some((floor_now + 30.0).min(set))),
        ));
    } else if floor_now + FLOOR_K <= plan.oven.most_c {
        out.push(one(Act::HeatFloor, hotter(plan)));
    }
    if plan.oven.kind == super::oven::OvenKind::Home {
        if plan.setting.grill && plan.setting.shelf != OvenShelf::Top {
            out.push(one(
                Act::RaiseShelf,
                with(&|x| x.setting.shelf = OvenShelf::Top),
            ));
        }
        if plan.setting.grill && plan.setting.shelf == OvenShelf::Top {
            out.push(one(
                Act::LowerShelf,
                with(&|x| x.setting.shelf = OvenShelf::Middle),
            ));
        }
        if !plan.setting.grill && plan.oven.has_grill() {
            out.push(one(Act::MoreFlame, with(&|x| x.setting.grill = true)));
        }
        if plan.setting.grill {
            out.push(one(Act::LessFlame, with(&|x| x.setting.grill = false)));
        }
    } else {
        out.push(one(
            Act::MoreFlame,
            with(&|x| x.setting.dome_c = (x.setting.dome_c + DOME_K).min(x.oven.most_c)),
        ));
        out.push(one(Act::LessFlame, with(&|x| x.setting.dome_c -= DOME_K)));
    }
    if plan.oven.side > 0.0
        && plan.turns.is_none()
        && let Ok(p) = plan.planned_at(Fineness::Draft)
    {
        let mut x = plan.clone();
        let sooner = |mut t: super::programme::Turn| {
            t.at_s = (f64::from(t.at_s) * 0.85).round() as u32;
            t
        };
        x.turns = Some(p.programme.turns.into_iter().map(sooner).collect());
        out.push(one(Act::TurnSooner, x));
    }
    out
}

/// Two things together that pull base and top apart: heat from above with time, heat from below with time.
fn pairs(plan: &FirePlan, in_s: f64) -> Vec<Trial> {
    let flame = |by: f64| {
        changed(plan, &|x| {
            if x.oven.kind == super::oven::OvenKind::Home {
                x.setting.grill = by > 0.0 && x.oven.has_grill();
            } else {
                x.setting.dome_c = (x.setting.dome_c + by).min(x.oven.most_c);
            }
        })
    };
    let cooler = changed(plan, &|x| {
        x.floor_read_c = Some((floor_now(plan) - FLOOR_K).max(60.0));
    });
    let mut out = Vec::new();
    let mut two = |a, b, plan: &FirePlan, stretch: f64| {
        out.push(Trial {
            acts: vec![a, b],
            plan: plan.clone(),
            bake_s: in_s * stretch,
        });
    };
    two(Act::LessFlame, Act::Longer, &flame(-DOME_K), 1.1);
    two(Act::MoreFlame, Act::Shorter, &flame(DOME_K), 0.9);
    two(Act::CoolFloor, Act::Longer, &cooler, 1.1);
    if floor_now(plan) + FLOOR_K <= plan.oven.most_c {
        two(Act::HeatFloor, Act::Shorter, &hotter(plan), 0.9);
    }
    out
}

fn changed(plan: &FirePlan, change: &dyn Fn(&mut FirePlan)) -> FirePlan {
    let mut x = plan.clone();
    change(&mut x);
    x.setting.floor_c = x.oven.floor_at(&x.setting);
    x
}

/// The floor as it was read, or as it is set.
fn floor_now(plan: &FirePlan) -> f64 {
    plan.floor_read_c
        .unwrap_or(plan.oven.floor_at(&plan.setting))
}

/// The same oven with its floor, and where they are one its setting, so much hotter.
fn hotter(plan: &FirePlan) -> FirePlan {
    let floor = floor_now(plan) + FLOOR_K;
    changed(plan, &|x| {
        if x.oven.kind.has_one_setting() {
            x.setting.dome_c = (x.setting.dome_c + FLOOR_K).min(x.oven.most_c);
        }
        x.floor_read_c = Some(floor);
    })
}
