//! Which one thing seen of the next batch would teach most of the one after it.
//!
//! Source: learning, section 6. Nothing is named that narrows the window of readiness by less than a tenth and half an hour.

use super::card::Graded;
use super::channel::Channel;
use super::fit::{Posterior, Whose};
use super::likelihood::{near_information, state_information, thermometer_information};
use super::observed::{Answers, NextBatch};
use super::personal::Personal;
use super::predict::{FOUR_FIFTHS, Prediction};
use super::scalars::reading;
use super::site::{DOUGH_SCALE, PLACE_SCALE, READY_SD};
use crate::keyed::Keyed;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Something that can be seen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Lesson {
    /// How the dough stands at opening.
    State,
    /// The hour at which it is ready.
    Ready,
    /// A thermometer in the fridge.
    Fridge,
    /// A thermometer in the room.
    Room,
    /// A probe in the dough off the mixer.
    Dough,
}

/// What would teach most.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TeachesMost {
    /// What to note.
    pub kind: Lesson,
    /// By so much the band of readiness of the batch after it narrows, h.
    pub narrows_h: f64,
}

/// It must narrow the band by this share, and by so many hours.
const WORTH_SHARE: f64 = 0.10;
const WORTH_H: f64 = 0.5;

/// What a lesson speaks of, and how much it tells of that.
fn told(p: &Prediction, lesson: Lesson) -> (Graded, f64) {
    let (end, q) = (p.card.end(), &p.mean);
    match lesson {
        Lesson::State => {
            let f = end.state(q);
            (f, state_information(Answers::Five, f.value))
        }
        Lesson::Ready => (end.young(q), near_information(READY_SD)),
        Lesson::Fridge => (
            reading(Channel::Fridge, Channel::FridgeBias, q),
            thermometer_information(PLACE_SCALE),
        ),
        Lesson::Room => (
            reading(Channel::Room, Channel::RoomBias, q),
            thermometer_information(PLACE_SCALE),
        ),
        Lesson::Dough => (
            reading(Channel::Dough, Channel::DoughBias, q),
            thermometer_information(DOUGH_SCALE),
        ),
    }
}

/// The deviation of ln ripeness of the same plan a week later, now and after each lesson of `p`.
pub(crate) fn worth(p: &Prediction, posterior: &Posterior) -> (f64, Vec<(Lesson, f64)>) {
    let later_next = NextBatch {
        week: p.next.week + 1.0,
        ..p.next.clone()
    };
    let later = Prediction::of(&later_next, p.card, posterior);
    let (among, later_among) = (p.next.among(), later_next.among());
    let whose = |among| Whose {
        among,
        logged: None,
    };
    let across = posterior.covariance(&whose(&later_among), &whose(&among), false);
    let g = later.slope();
    let v = later.of_batch.between(&g, &g);
    let after = Lesson::ALL
        .iter()
        .map(|&lesson| {
            let (f, information) = told(p, lesson);
            let a = f.slope;
            let spread = p.of_batch.between(&a, &a) + 1.0 / information.max(1e-12);
            let shared = across.between(&g, &a);
            (lesson, (v - shared * shared / spread).max(0.0).sqrt())
        })
        .collect();
    (v.sqrt(), after)
}

/// The deviation of the same batch after a reading that is taken before it is mixed.
fn at_once(p: &Prediction, lesson: Lesson) -> Option<f64> {
    if !matches!(lesson, Lesson::Fridge | Lesson::Room) {
        return None;
    }
    let (f, information) = told(p, lesson);
    let g = p.slope();
    let spread = p.of_batch.between(&f.slope, &f.slope) + 1.0 / information;
    let shared = p.of_batch.between(&g, &f.slope);
    Some(
        (p.of_batch.between(&g, &g) - shared * shared / spread)
            .max(0.0)
            .sqrt(),
    )
}

/// The one thing to note of this batch, if any is worth it.
pub(crate) fn teaches_most(p: &Prediction, posterior: &Posterior) -> Option<TeachesMost> {
    let run = Personal::beyond(&p.next.dough, &p.mean);
    let width = |sd: f64| {
        let off = FOUR_FIFTHS * sd;
        Some(run.opens_h(-off)? - run.opens_h(off)?)
    };
    let (now, after) = worth(p, posterior);
    let mut best: Option<TeachesMost> = None;
    for (kind, sd) in after {
        let later = width(now).zip(width(sd));
        let same = at_once(p, kind).and_then(|sd| width(p.ripeness().sd).zip(width(sd)));
        for (wide, narrow) in [later, same].into_iter().flatten() {
            let narrows_h = wide - narrow;
            if narrows_h >= WORTH_SHARE * wide
                && narrows_h >= WORTH_H
                && best.is_none_or(|b| narrows_h > b.narrows_h)
            {
                best = Some(TeachesMost { kind, narrows_h });
            }
        }
    }
    best
}
