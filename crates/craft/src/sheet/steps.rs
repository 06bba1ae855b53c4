//! The steps of a sheet by the clock, backward from the serve time.

use super::how::{self, place};
use super::{PrefermentPlan, SheetRequest, hours};
use crate::fact;
use crate::fact::{Fact, Minutes, whole};
use crate::formula::FormulaResult;
use crate::mix::WaterResult;
use crate::path::{Leg, Lies, Spot};
use crate::rise::{Event, RiseResult};
use crate::units::Celsius;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Rest after mixing, h; it is the first part of the bulk.
const REST_H: f64 = 1.0 / 3.0;

/// What a step is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum StepKind {
    /// A preferment is mixed, or a levain fed.
    Preferment,
    /// A preferment goes into the fridge.
    PrefermentCold,
    /// The dough is mixed.
    Mix,
    /// It rests after mixing.
    Rest,
    /// It is folded.
    Fold,
    /// It goes on in one.
    Bulk,
    /// It is divided and balled.
    Ball,
    /// It is balled once more.
    Reball,
    /// It is pressed flat.
    Degas,
    /// It goes into the fridge.
    Cold,
    /// It goes into the freezer.
    Freeze,
    /// It goes from the freezer into the fridge.
    Thaw,
    /// On to another place of the same warmth.
    Move,
    /// It goes into its pans.
    Pan,
    /// The oven is lit.
    LightOven,
    /// It comes out of the cold.
    Temper,
    /// It is baked.
    Bake,
}

impl StepKind {
    /// The step as a call across the kitchen: "Ball Halt round".
    pub fn call(self, name: &str) -> Fact {
        match self {
            StepKind::Preferment => fact!("call-preferment", name = name),
            StepKind::PrefermentCold => fact!("call-preferment-cold", name = name),
            StepKind::Mix => fact!("call-mix", name = name),
            StepKind::Rest => fact!("call-rest", name = name),
            StepKind::Fold => fact!("call-fold", name = name),
            StepKind::Bulk => fact!("call-bulk", name = name),
            StepKind::Ball => fact!("call-ball", name = name),
            StepKind::Reball => fact!("call-reball", name = name),
            StepKind::Degas => fact!("call-degas", name = name),
            StepKind::Cold => fact!("call-cold", name = name),
            StepKind::Freeze => fact!("call-freeze", name = name),
            StepKind::Thaw => fact!("call-thaw", name = name),
            StepKind::Move => fact!("call-move", name = name),
            StepKind::Pan => fact!("call-pan", name = name),
            StepKind::LightOven => fact!("call-light-oven", name = name),
            StepKind::Temper => fact!("call-temper", name = name),
            StepKind::Bake => fact!("call-bake", name = name),
        }
    }
}

/// One step of the plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PlannedStep {
    /// What it is known by: it stays with the step when the plan changes.
    #[serde(default)]
    pub number: u16,
    /// What it is.
    pub kind: StepKind,
    /// When.
    pub at: Timestamp,
    /// What to do: "Divide and ball".
    pub title: Fact,
    /// How, with its figures.
    pub detail: Fact,
    /// Minutes of work at this moment.
    pub hands_on_min: f64,
}

/// Work at a moment that is longer than this begins and ends, min.
const LONG_WORK_MIN: f64 = 15.0;

impl PlannedStep {
    /// Whether it begins and ends: mixing, and balling of many pieces. Other work is of a moment.
    pub fn has_length(&self) -> bool {
        match self.kind {
            StepKind::Mix => true,
            StepKind::Ball | StepKind::Reball => self.hands_on_min > LONG_WORK_MIN,
            _ => false,
        }
    }
}

/// The steps as they are found: kind, hours after mixing, what, how, minutes of work.
struct StepPlan {
    mixed_at: Timestamp,
    steps: Vec<PlannedStep>,
}

impl StepPlan {
    fn add(&mut self, kind: StepKind, h: f64, title: Fact, detail: Fact, hands_on_min: f64) {
        self.steps.push(PlannedStep {
            number: 0,
            kind,
            at: self.mixed_at + hours(h),
            title,
            detail,
            hands_on_min,
        });
    }
}

/// The steps, in the order of the clock.
pub(super) fn steps(
    r: &SheetRequest,
    f: &FormulaResult,
    water: &WaterResult,
    rise: &RiseResult,
    preferments: &[PrefermentPlan],
) -> Vec<PlannedStep> {
    let mut plan = StepPlan {
        mixed_at: r.mixed_at(),
        steps: vec![],
    };
    of_preferments(r, f, preferments, &mut plan);
    plan.add(
        StepKind::Mix,
        -r.mixing_min() / 60.0,
        fact!("step-mix"),
        how::mix(r, f, water),
        r.mixing_min(),
    );
    let legs = r.formula.path();
    let rest = REST_H.min(legs[0].hours / 2.0);
    plan.add(
        StepKind::Rest,
        0.0,
        fact!("step-rest"),
        fact!("step-rest-how", time = Minutes(whole(rest * 60.0))),
        1.0,
    );
    let mut h = 0.0;
    for (i, leg) in legs.iter().enumerate() {
        begin_leg(r, f, &legs, i, h, &mut plan);
        let folds = leg.folds_that_fit();
        for n in 1..=folds {
            let title = if folds == 1 {
                fact!("step-fold")
            } else {
                fact!("step-fold-of", n = n, of = folds)
            };
            let at = h + f64::from(n) * leg.fold_every_h;
            plan.add(StepKind::Fold, at, title, fact!("step-fold-how"), 3.0);
        }
        if i == 0 && leg.lies == Lies::Bulk && !leg.spot.is_cold() {
            let after = if folds > 0 {
                f64::from(folds) * leg.fold_every_h + 0.05
            } else {
                rest
            };
            plan.add(
                StepKind::Bulk,
                after,
                fact!("step-tub"),
                how::tub(r, f, rise),
                3.0,
            );
        }
        h += leg.hours;
    }
    of_fire(r, f, &mut plan);
    let mut out = plan.steps;
    out.sort_by_key(|s| s.at);
    for (i, step) in out.iter_mut().enumerate() {
        step.number = i as u16;
    }
    out
}

fn of_preferments(
    r: &SheetRequest,
    f: &FormulaResult,
    preferments: &[PrefermentPlan],
    plan: &mut StepPlan,
) {
    for (i, p) in r.formula.preferments.iter().enumerate() {
        let start = -r.mixing_min() / 60.0 - p.hours();
        let title = match p.feed {
            Some(_) => fact!("step-feed", name = p.called()),
            None => fact!("step-mix-preferment", name = p.called()),
        };
        let detail = how::preferment(r, f, i, preferments.get(i));
        plan.add(StepKind::Preferment, start, title, detail, 10.0);
        if p.cold_h > 0.0 && p.warm_h > 0.0 {
            plan.add(
                StepKind::PrefermentCold,
                start + p.warm_h,
                fact!("step-preferment-cold", name = p.called()),
                how::preferment_cold(r, p),
                2.0,
            );
        }
    }
}

fn of_fire(r: &SheetRequest, f: &FormulaResult, plan: &mut StepPlan) {
    let x = &r.formula;
    let (how, preheat_min) = match &r.fire {
        Some(f) => {
            let time = Minutes(whole(f.preheat_min));
            let oven = f.plan.oven.name.as_str();
            (
                fact!("step-light-how", oven = oven, time = time),
                f.preheat_min,
            )
        }
        None => {
            let o = &x.style.oven;
            let floor = (Celsius(o.floor_c.low), Celsius(o.floor_c.high));
            let time = Minutes(whole(o.preheat_min));
            let how = fact!(
                "step-light-style-how",
                oven = o.words.as_str(),
                floor = floor,
                time = time
            );
            (how, o.preheat_min)
        }
    };
    let total = r.total_h();
    let title = match &r.fire {
        Some(f) if !f.plan.oven.kind.is_fired() => fact!("step-switch-on"),
        _ => fact!("step-light"),
    };
    plan.add(
        StepKind::LightOven,
        total - preheat_min / 60.0,
        title,
        how,
        10.0,
    );
    plan.add(
        StepKind::Bake,
        total,
        fact!("step-bake"),
        how::bake(r, f),
        0.0,
    );
}

/// What is done when a leg begins, so many hours after mixing.
fn begin_leg(
    r: &SheetRequest,
    f: &FormulaResult,
    legs: &[Leg],
    i: usize,
    h: f64,
    plan: &mut StepPlan,
) {
    let leg = &legs[i];
    let stay = fact::hours(fact::spoken_h(leg.hours));
    let min = (f64::from(f.pieces) * 0.75).clamp(5.0, 120.0);
    match leg.event {
        Event::Ball => plan.add(
            StepKind::Ball,
            h,
            fact!("step-ball"),
            fact!(
                "step-ball-how",
                pieces = how::divided(f),
                goes = how::boxed(r, leg)
            ),
            min,
        ),
        Event::Reball => plan.add(
            StepKind::Reball,
            h,
            fact!("step-ball-again"),
            fact!("step-ball-again-how", goes = how::boxed(r, leg)),
            min,
        ),
        Event::Degas => plan.add(
            StepKind::Degas,
            h,
            fact!("step-press"),
            fact!(
                "step-press-how",
                time = stay.clone(),
                place = place(r, &leg.spot)
            ),
            4.0,
        ),
        Event::Pan => plan.add(
            StepKind::Pan,
            h,
            fact!("step-pan"),
            fact!(
                "step-pan-how",
                n = f.pieces,
                pieces = how::divided(f),
                time = stay.clone(),
                place = place(r, &leg.spot)
            ),
            10.0,
        ),
        Event::Fold => plan.add(
            StepKind::Fold,
            h,
            fact!("step-fold"),
            fact!("step-fold-how"),
            3.0,
        ),
        Event::None => {}
    }
    if !leg.event.shapes() || leg.event == Event::Degas {
        moved(r, legs, i, h, plan);
    }
}

/// Where a leg lies elsewhere than the one before it, the dough is carried there.
fn moved(r: &SheetRequest, legs: &[Leg], i: usize, h: f64, plan: &mut StepPlan) {
    let leg = &legs[i];
    let before = (i > 0).then(|| &legs[i - 1]);
    let (cold, frozen) = (leg.spot.is_cold(), leg.spot.is_frozen());
    let was_cold = before.is_some_and(|b| b.spot.is_cold());
    let was_frozen = before.is_some_and(|b| b.spot.is_frozen());
    let moved = before.is_none_or(|b| b.spot != leg.spot);
    let in_tub = leg.lies == Lies::Bulk;
    let thing = if in_tub {
        fact!("the-tub")
    } else {
        fact!("the-boxes")
    };
    let time = fact::hours(fact::spoken_h(leg.hours));
    let lids_on = |time| fact!("step-lids-on", time = time, place = place(r, &leg.spot));
    if frozen && moved {
        let title = fact!("step-freeze", thing = thing);
        plan.add(StepKind::Freeze, h, title, fact!("step-freeze-how"), 3.0);
    } else if was_frozen {
        plan.add(
            StepKind::Thaw,
            h,
            fact!("step-out-of-freezer"),
            lids_on(time),
            3.0,
        );
    } else if cold && !was_cold && (i > 0 || in_tub) {
        let title = match leg.spot {
            Spot::Fridge => fact!("step-fridge", thing = thing),
            _ => fact!("step-cold", thing = thing),
        };
        let detail = if in_tub {
            fact!("step-lid-on", time = time, place = place(r, &leg.spot))
        } else {
            lids_on(time)
        };
        // A dough that goes straight into the cold rests first, as the first part of its leg.
        let at = if i == 0 {
            REST_H.min(leg.hours / 2.0)
        } else {
            h
        };
        plan.add(StepKind::Cold, at, title, detail, 2.0);
    } else if !cold && was_cold {
        plan.add(
            StepKind::Temper,
            h,
            fact!("step-out-of-fridge"),
            lids_on(time),
            3.0,
        );
    } else if i > 0 && moved {
        plan.add(
            StepKind::Move,
            h,
            fact!("step-move", thing = thing),
            fact!("step-move-how", time = time, place = place(r, &leg.spot)),
            2.0,
        );
    }
}

/// Steps of a changed plan keep the numbers that they had: what was marked done stays done. New ones get new numbers.
pub fn carry_numbers(before: &[PlannedStep], after: &mut [PlannedStep]) {
    let mut next = before.iter().map(|s| s.number + 1).max().unwrap_or(0);
    let mut taken: Vec<u16> = Vec::new();
    for step in after {
        let same = before
            .iter()
            .find(|b| b.kind == step.kind && !taken.contains(&b.number));
        step.number = match same {
            Some(b) => b.number,
            None => {
                next += 1;
                next - 1
            }
        };
        taken.push(step.number);
    }
}
