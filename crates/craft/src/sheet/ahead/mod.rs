//! From now on: what was really measured and done replaces what was planned, and the forecast runs from there.
//!
//! Question: given the plan of a batch and what was seen of it, when is it ready now, and what can still be done? The
//! dough's temperature off the mixer, readings of room and fridge, steps that were late or early and a marked tub's rise
//! take the place of the plan's values from their moment on. Source: fermentation model; craft notes, section 4.

mod before;
mod boxes;
mod course;
mod fridge;
mod idea;
mod logged;
mod part;
mod places;
mod remedy;
mod same;
mod timeline;

pub use super::progress::{StepPast, StepSaid};
use crate::fact;
use crate::fact::{Fact, whole};
pub use boxes::{
    BoxLook, BoxMoment, MOST_BOXES, NextBall, OpenBox, OpensFrom, OutAt, OutRound, ShapeLook,
    ShapeQuestion, TOLERANCE_PERCENT, look_at_boxes,
};
pub use course::ON_TIME_MIN;
pub use idea::PlanChange;
pub use logged::{as_planned, as_run, to_be_made};
pub use part::{PartWay, Parted, part};
pub use places::places_count_from;
pub use remedy::Remedied;
pub use timeline::DueStep;

use super::judge;
use super::{
    Block, ByLog, ClockPoint, PlannedStep, PrefermentPlan, ReadyWindow, SheetRequest, SheetResult,
    Sure,
};
use crate::note::{Level, Note, by_urgency};
use crate::path::Place;
use crate::reading::Subject;
use crate::refusal::ValidationError;
use crate::rise::ripeness::BAKES_WELL;
use crate::rise::{
    Doubts, Label, Look, RiseRequest, RiseResult, Temperatures, foresee, hand_overs,
};
use course::DoughCourse;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use timeline::Timeline;

#[cfg(test)]
mod boxes_tests;
#[cfg(test)]
mod follow_tests;
#[cfg(test)]
mod part_tests;
#[cfg(test)]
mod tests;

/// A reading of the dough so soon after mixing is its temperature off the mixer, h.
pub const OFF_THE_MIXER_H: f64 = 0.75;
const INSIDE: Temperatures = Temperatures::InsideTheDough;

/// What a thermometer or a marked tub said.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Measured {
    /// The dough.
    Dough {
        /// What was read, °C.
        c: f64,
    },
    /// The room.
    Room {
        /// What was read, °C.
        c: f64,
    },
    /// The fridge.
    Fridge {
        /// What was read, °C.
        c: f64,
    },
    /// A place of the kitchen's own, by its name.
    Place {
        /// As its owner calls it.
        name: String,
        /// What was read, °C.
        c: f64,
    },
    /// The dough in its tub stands at so many times its first volume.
    Grown {
        /// Times its first height.
        times: f64,
    },
}

/// Something that was seen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Reading {
    /// When it was read.
    pub at: Timestamp,
    /// What was read.
    pub measured: Measured,
}

/// A fridge that had no power; its door stayed shut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct PowerCut {
    /// When the power went.
    pub from: Timestamp,
    /// When it came back.
    pub until: Timestamp,
}

/// What happened to a batch so far; readings in any order.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Happened {
    /// In the order of entering.
    #[serde(default)]
    pub steps: Vec<StepPast>,
    /// What was measured, in the order of the clock.
    #[serde(default)]
    pub readings: Vec<Reading>,
    /// When the fridge was without power.
    #[serde(default)]
    pub power_cuts: Vec<PowerCut>,
}

/// A value of the plan that a measured one took the place of.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Replaced {
    /// What it is of.
    pub what: ReplacedFigure,
    /// As it was planned, °C or times.
    pub planned: f64,
    /// As it was measured, °C or times.
    pub measured: f64,
    /// When it was measured.
    pub at: Timestamp,
}

/// Which value: temperatures in °C, steps in minutes after the plan, the tub in times its first volume.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum ReplacedFigure {
    /// The dough as it left the mixer.
    DoughOffTheMixer,
    /// The dough on its way.
    Dough,
    /// A preferment, before the dough is mixed.
    Preferment {
        /// What it is called.
        name: Fact,
    },
    /// The room.
    Room,
    /// The fridge.
    Fridge,
    /// A place of the kitchen's own.
    Place {
        /// What it is called.
        name: String,
    },
    /// How high it stands in its tub.
    Tub,
    /// When a step was done.
    Step {
        /// What is done in it.
        title: Fact,
    },
}

/// The forecast from now on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Ahead {
    /// When the dough left the mixer, or will.
    pub mixed_at: Timestamp,
    /// When it is ready; absent when never.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<ReadyWindow>,
    /// How sure that is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sure: Option<Sure>,
    /// At the serve time: 100 is as intended.
    pub rise_at_serve: f64,
    /// Strength left at the serve time, %.
    pub reserve_at_serve: f64,
    /// How it stands at the serve time.
    pub label_at_serve: Label,
    /// What this kitchen's log says of the window, beside the book's; absent where the plan goes by the book.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by_log: Option<ByLog>,
    /// Both clocks, over time.
    pub clocks: Vec<ClockPoint>,
    /// What of the plan gave way to what was measured.
    pub replaced: Vec<Replaced>,
    /// When the steps are due that are not done.
    #[serde(default)]
    pub due: Vec<DueStep>,
    /// The stages as they went and go on.
    #[serde(default)]
    pub blocks: Vec<Block>,
    /// The preferments as they went, or go.
    #[serde(default)]
    pub preferments: Vec<PrefermentPlan>,
    /// Times as lively as planned, where a tub's rise said so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lively: Option<f64>,
    /// Judgements of the forecast and of what is still to do, the gravest first.
    #[serde(default)]
    pub notes: Vec<Note>,
    /// What would put the window to the serve time, the best first; empty when nothing need be done.
    pub remedies: Vec<Remedied>,
}

impl Ahead {
    /// What to say of the serve time as it goes.
    pub fn note(&self, r: &SheetRequest) -> Note {
        let serve = r.serve_at;
        let why = fact!(
            "as-it-goes-why",
            rise = whole(self.rise_at_serve),
            strength = whole(self.reserve_at_serve.max(0.0))
        );
        if self.fits(r.serve_at) && self.rise_at_serve > 100.0 * BAKES_WELL {
            let what = fact!("still-fits-riper", at = serve);
            return Note::watch("as_it_goes", what, why);
        }
        if self.fits(r.serve_at) {
            return Note::holds("as_it_goes", fact!("still-fits", at = serve), why);
        }
        let past = self.label_at_serve.is_past()
            || self
                .window
                .is_some_and(|w| w.to_at.is_some_and(|t| t < r.serve_at));
        let what = if past {
            fact!("past-at-serve", at = serve)
        } else {
            fact!("not-ready-at-serve", at = serve)
        };
        Note::act("as_it_goes", what, why).todo(if self.remedies.is_empty() {
            fact!("nothing-helps")
        } else {
            fact!("rise-lists")
        })
    }
    /// Whether it is ready at that moment, and not far past.
    pub fn fits(&self, serve_at: Timestamp) -> bool {
        super::fits(self.window, serve_at, self.label_at_serve)
    }
}

impl SheetResult {
    /// The steps, those that are still to be done at the hour at which they are due now.
    fn due(&self, due: &[DueStep]) -> Vec<PlannedStep> {
        let mut steps = self.steps.clone();
        for s in &mut steps {
            if let Some(d) = due.iter().find(|d| d.number == s.number) {
                s.at = d.at;
            }
        }
        steps
    }
    /// The plan with the forecast from now on in place of its own.
    pub fn as_it_goes(&self, ahead: &Ahead) -> SheetResult {
        SheetResult {
            mixed_at: ahead.mixed_at,
            window: ahead.window,
            rise_at_serve: ahead.rise_at_serve,
            reserve_at_serve: ahead.reserve_at_serve,
            label_at_serve: ahead.label_at_serve,
            by_log: ahead.by_log,
            clocks: ahead.clocks.clone(),
            preferments: ahead.preferments.clone(),
            steps: self.due(&ahead.due),
            blocks: ahead.blocks.clone(),
            notes: ahead.notes.clone(),
            ..self.clone()
        }
    }
}

/// What is asked: the plan, what happened, the present, and the kitchen's other places.
#[derive(Debug, Clone)]
pub struct AheadRequest<'a> {
    /// What was asked of the plan.
    pub request: &'a SheetRequest,
    /// The plan.
    pub planned: &'a SheetResult,
    /// What was done and measured.
    pub happened: &'a Happened,
    /// The present.
    pub now: Timestamp,
    /// Where else a dough may lie here.
    pub places: &'a [Place],
    /// How far off the kitchen's temperatures may be.
    pub doubts: Doubts,
}

/// The forecast from now on, with what can still be done.
///
/// Errors: [`ValidationError`] as [`super::work_out`]; a plan that was kept is not refused again.
pub fn from_now(q: &AheadRequest) -> Result<Ahead, ValidationError> {
    let (course, lively) = DoughCourse::as_seen(q)?;
    let dough = course.dough(q.request.serve_at);
    let handed = hand_overs(&dough, INSIDE, &course.runs);
    let rise = foresee(&dough, INSIDE, &handed, Look::Beyond);
    let mixed_at = course.mixed_at;
    let window = rise.window.map(|w| ReadyWindow::of(&w, mixed_at));
    let ran = (&dough, handed.as_slice());
    let by_log = ByLog::of(q.request, ran, mixed_at, window, || window_by_the_book(q));
    let sure = window.and_then(|w| {
        let fridge = course.fridge_known(q);
        Sure::asked(q.request, ran, &course.doubts(q), &w, fridge)
    });
    let remedies = remedy::remedies(q, &course, window, &rise, &handed);
    let warm_fridge = fridge::warm_fridge(q, &course, window, &handed);
    let mut out = Ahead {
        mixed_at,
        window,
        sure,
        rise_at_serve: 100.0 * rise.at_bake.ripeness,
        reserve_at_serve: 100.0 * rise.at_bake.reserve,
        label_at_serve: rise.at_bake.label,
        by_log,
        clocks: super::clocks(&rise),
        replaced: course.replaced,
        due: course.due,
        blocks: course.blocks,
        preferments: course.preferments,
        lively,
        notes: vec![],
        remedies,
    };
    // How sure it is stands before what follows from it.
    out.notes = Vec::from_iter(by_log.and_then(|l| l.note()));
    let judged = judgements(q, &out, (&dough, &rise), course.in_bowl);
    out.notes.extend(judged);
    out.notes.extend(warm_fridge);
    out.notes = by_urgency(out.notes);
    Ok(out)
}

/// When the same dough, as it was weighed and went so far, would be ready by the book.
fn window_by_the_book(q: &AheadRequest) -> Option<ReadyWindow> {
    let request = q.request.by_the_book();
    let book = AheadRequest {
        request: &request,
        ..q.clone()
    };
    let (course, _) = DoughCourse::as_seen(&book).ok()?;
    let dough = course.dough(request.serve_at);
    let handed = hand_overs(&dough, INSIDE, &course.runs);
    let rise = foresee(&dough, INSIDE, &handed, Look::Beyond);
    rise.window.map(|w| ReadyWindow::of(&w, course.mixed_at))
}

/// What is said of a dough as it goes.
fn judgements(
    q: &AheadRequest,
    ahead: &Ahead,
    ran: (&RiseRequest, &RiseResult),
    in_bowl: bool,
) -> Vec<Note> {
    let goes = SheetResult {
        notes: q.planned.notes.clone(),
        ..q.planned.as_it_goes(ahead)
    };
    let open: Vec<PlannedStep> = goes
        .steps
        .iter()
        .filter(|s| ahead.due.iter().any(|d| d.number == s.number))
        .cloned()
        .collect();
    let mut note = ahead.note(q.request);
    if !in_bowl && note.level == Level::Act && ahead.remedies.is_empty() {
        note = note.todo(fact!("not-mixed-todo"));
    }
    let mut notes = vec![note];
    notes.extend(judge::as_it_goes(q.request, &goes, ran, &open, in_bowl));
    by_urgency(notes)
}

/// The dough's temperature off the mixer, °C: the last reading of it between the begin of its mixing and the tub.
pub fn off_the_mixer(q: &AheadRequest) -> Option<f64> {
    let clock = Timeline::of(q, &q.request.formula.path());
    let until = clock.mixed_at + super::hours(OFF_THE_MIXER_H);
    let read = q.happened.readings.iter().filter_map(|r| match r.measured {
        Measured::Dough { c } if (clock.mix_from..=until).contains(&r.at) => Some((r.at, c)),
        _ => None,
    });
    read.max_by_key(|(at, _)| *at).map(|(_, c)| c)
}

/// What was planned for a reading of the dough at a moment, °C: a preferment before the dough is mixed, the dough off the
/// mixer, or the dough on its way.
pub fn planned_dough_c(q: &AheadRequest, at: Timestamp) -> Option<f64> {
    let clock = Timeline::of(q, &q.request.formula.path());
    if at < clock.mix_from {
        let mut preferments = q.planned.preferments.iter();
        return preferments.find_map(|p| p.clock_at(at)).map(|p| p.dough_c);
    }
    if at <= clock.mixed_at + super::hours(OFF_THE_MIXER_H) {
        return Some(q.planned.water.dough_c);
    }
    q.planned.clocks_at(at).map(|p| p.dough_c)
}

/// A temperature that was measured otherwise than it was planned, °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OtherThanPlanned {
    /// What was measured.
    pub subject: Subject,
    /// As it was planned, °C.
    pub planned: f64,
    /// As it was measured, °C.
    pub measured: f64,
}

/// A difference that is worth telling whoever makes the dough again, K.
const WORTH_TELLING_K: f64 = 0.5;

/// What to tell whoever makes this dough again: fridge and room as they were read on the whole, the dough off the mixer.
pub fn other_than_planned(q: &AheadRequest) -> Vec<OtherThanPlanned> {
    let mean = |of: &dyn Fn(&Measured) -> Option<f64>| {
        let read = q.happened.readings.iter();
        let all: Vec<f64> = read.filter_map(|r| of(&r.measured)).collect();
        (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
    };
    let fridge = mean(&|m| match m {
        Measured::Fridge { c } => Some(*c),
        _ => None,
    });
    let room = mean(&|m| match m {
        Measured::Room { c } => Some(*c),
        _ => None,
    });
    let r = q.request;
    let of = |subject, planned: f64, read: Option<f64>| {
        let measured = read.filter(|m| (m - planned).abs() >= WORTH_TELLING_K)?;
        Some(OtherThanPlanned {
            subject,
            planned,
            measured,
        })
    };
    [
        of(Subject::Fridge, r.fridge_c, fridge),
        of(Subject::Room, r.room_c, room),
        of(Subject::Dough, r.formula.target_dough_c, off_the_mixer(q)),
    ]
    .into_iter()
    .flatten()
    .collect()
}

/// The dough of a batch as it really went, for a fit of its leaven.
///
/// Errors: as [`from_now`].
pub fn as_it_went(q: &AheadRequest) -> Result<(RiseRequest, Timestamp), ValidationError> {
    let course = DoughCourse::of(q)?;
    Ok((course.dough(q.request.serve_at), course.mixed_at))
}
