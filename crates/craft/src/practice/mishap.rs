//! Level three: a dough came out wrong. Which mishap fits what was seen?

use super::dough::{Lying, Planned, run, state};
use super::{PracticeCase, PracticeChoice};
use crate::draw::Draw;
use crate::fact;
use crate::fact::{Fact, Kelvin, half, hours};
use crate::learn::diagnose::{Cause, DiagnoseRequest, MayBeSaid, diagnose};
use crate::learn::likelihood::called;
use crate::learn::{Answers, LoggedBatch, Observed, StoodAs};
use crate::rise::{Air, RiseRequest};

/// One case of so many may be one that cannot be told.
const CANNOT_TELL_OF: usize = 4;

/// A mishap, and what it does to a dough.
fn injured(draw: &mut Draw, lying: Lying, r: &mut RiseRequest) -> (Cause, f64) {
    let cold = [Cause::FridgeWarm, Cause::FridgeCold];
    let room = [
        Cause::RoomWarm,
        Cause::RoomCold,
        Cause::DoughWarm,
        Cause::DoughCold,
        Cause::YeastMuch,
        Cause::YeastLittle,
    ];
    let cause = match (lying, draw.below(2)) {
        (Lying::Cold, 0) => draw.one(&cold),
        _ => draw.one(&room),
    };
    let warm = |r: &mut RiseRequest, fridge: bool, k: f64| {
        for s in &mut r.stages {
            if matches!(s.air, Air::Fridge | Air::Fan) == fridge {
                s.place_c = s.place_c.map(|c| c + k);
            }
        }
        k
    };
    let size = match cause {
        Cause::FridgeWarm => warm(r, true, draw.step(2.5, 4.0, 0.5)),
        Cause::FridgeCold => warm(r, true, -draw.step(2.0, 3.0, 0.5)),
        Cause::RoomWarm => warm(r, false, draw.step(3.0, 5.0, 0.5)),
        Cause::RoomCold => warm(r, false, -draw.step(3.0, 5.0, 0.5)),
        Cause::DoughWarm | Cause::DoughCold => {
            let k = draw.step(3.0, 5.0, 0.5) * if cause == Cause::DoughWarm { 1.0 } else { -1.0 };
            r.dough_c += k;
            k
        }
        Cause::YeastMuch => {
            r.departs.yeast += 0.45;
            0.45
        }
        _ => {
            r.departs.yeast -= 0.6;
            -0.6
        }
    };
    (cause, size)
}

pub(super) fn drawn(draw: &mut Draw) -> Option<PracticeCase> {
    let lying = draw.one(&[Lying::Room, Lying::Cold, Lying::Cold]);
    let planned = Planned::drawn(draw, lying)?;
    let mut real = planned.dough.clone();
    let (truth, size) = injured(draw, lying, &mut real);
    let is = called(state(&run(&real)?));
    if is == StoodAs::Right {
        return None;
    }
    let total: f64 = planned.dough.stages.iter().map(|s| s.hours).sum();
    let mut observed = vec![Observed::State {
        at_h: Some(total),
        is,
        answers: Answers::Five,
    }];
    let mut story = vec![
        planned.says(),
        fact!("practice-opened", at = hours(total), is = is.name()),
    ];
    // What was read: as it truly was, half a degree off at most.
    let mut read = |of: &[Cause], look: bool| -> Option<f64> {
        let k = if of.contains(&truth) { size } else { 0.0 };
        let k = half(k + draw.between(-0.5, 0.5));
        look.then_some(k)
    };
    let looks = draw_looks(&mut Draw::of(
        (total * 64.0) as u64 ^ (planned.room_c * 8.0) as u64,
    ));
    let dough = read(&[Cause::DoughWarm, Cause::DoughCold], looks[0]);
    let room = read(&[Cause::RoomWarm, Cause::RoomCold], looks[1]);
    let fridge = read(
        &[Cause::FridgeWarm, Cause::FridgeCold],
        looks[2] && lying == Lying::Cold,
    );
    if let Some(k) = dough {
        observed.push(Observed::Dough { over_planned_k: k });
        story.push(reading(fact!("practice-dough-off-the-mixer"), k));
    }
    if let Some(k) = room {
        observed.push(Observed::Room { over_planned_k: k });
        story.push(reading(fact!("spot-room"), k));
    }
    if let Some(k) = fridge {
        observed.push(Observed::Fridge { over_planned_k: k });
        story.push(reading(fact!("spot-fridge"), k));
    }
    let this = LoggedBatch {
        week: 0.0,
        made_with: Default::default(),
        dough: planned.dough.clone(),
        observed,
        opened_at_h: Some(total),
    };
    let asked = DiagnoseRequest {
        batches: vec![],
        this,
        planned: None,
        bake: None,
        targets: None,
        out_s: None,
        verdict: Default::default(),
    };
    let found = diagnose(&asked).ok()?.dough?;
    let causes: Vec<_> = found
        .ranking
        .iter()
        .filter(|c| c.cause != Cause::Ordinary)
        .take(3)
        .collect();
    let cannot = PracticeChoice {
        says: fact!("practice-cannot-be-told"),
        outcome: match found.say {
            MayBeSaid::CannotTell => fact!("practice-none-stands-out"),
            _ => fact!("practice-one-stands-out"),
        },
    };
    let mut choices: Vec<PracticeChoice> = causes
        .iter()
        .map(|c| PracticeChoice {
            says: c.says(),
            outcome: fact!("practice-share", share = c.share_said()),
        })
        .collect();
    let right = match found.say {
        // What the models say is asked for where it is also what happened.
        MayBeSaid::Cause => {
            let named = &found.ranking[*found.of.first()?];
            (named.cause == truth).then_some(())?;
            causes.iter().position(|c| c.cause == truth)?
        }
        MayBeSaid::CannotTell if draw.below(CANNOT_TELL_OF) == 0 => choices.len(),
        _ => return None,
    };
    choices.push(cannot);
    Some(PracticeCase {
        story,
        asks: fact!("practice-what-fits"),
        choices,
        right,
        why: match found.say {
            MayBeSaid::Cause => fact!("practice-reading-decides"),
            _ => fact!("practice-taps-alone"),
        },
    })
}

/// Whether dough, room and fridge were read.
fn draw_looks(draw: &mut Draw) -> [bool; 3] {
    std::array::from_fn(|_| draw.below(3) > 0)
}

fn reading(of: Fact, k: f64) -> Fact {
    match k {
        k if k.abs() < 0.25 => fact!("practice-read-as-planned", of = of),
        k if k > 0.0 => fact!("practice-read-over", of = of, k = Kelvin(k)),
        k => fact!("practice-read-under", of = of, k = Kelvin(-k)),
    }
}
