//! What was seen of a batch, folded for its pages.

use crate::shared::drawn::Stands;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use craft::fire::Run;
use craft::fire::firing::FloorRead;
use craft::formula::Formula;
use craft::mix::run::MixAct;
use craft::path::Spot;
use craft::reading::Subject;
use craft::rise::Doubts;
use craft::shape::run::{ShapeRun, ShapeTap};
use craft::sheet::ahead::{
    AheadRequest, Happened, Measured, OtherThanPlanned, PowerCut, Reading, off_the_mixer,
    other_than_planned, places_count_from, planned_dough_c,
};
use craft::sheet::progress::{Progress, Stand, done_as_planned, states};
use craft::sheet::{SheetResult, StepKind};
use jiff::Timestamp;
use moka::sync::Cache;
use std::sync::Arc;
use store::batch::{Batch, BatchId, said_of_steps};
use store::entry::{Observation, Seen, Went};

/// A batch with everything that was seen of it.
#[derive(Debug, Clone)]
pub struct BatchRecord {
    pub batch: Batch,
    pub run: Arc<Run>,
    pub progress: Arc<Progress>,
    /// The dough as it was divided.
    pub shape: Arc<ShapeRun>,
    /// What was said of the kitchen's places while this batch lay in them, whichever batch it was entered on.
    pub places: SaidOfPlaces,
}

/// What was tapped at the scale and at the boxes.
fn shape_taps(seen: &[Observation]) -> Vec<ShapeTap> {
    seen.iter().filter_map(Observation::shape_tap).collect()
}

/// What was said of the kitchen's places since a batch began: the end of a row that many batches share.
#[derive(Debug, Clone, Default)]
pub struct SaidOfPlaces {
    pub all: Arc<Vec<Observation>>,
    pub from: usize,
}

impl SaidOfPlaces {
    pub fn as_slice(&self) -> &[Observation] {
        &self.all[self.from..]
    }
}

/// What was tapped and done, folded for a page; it holds until more is entered.
#[derive(Debug, Clone)]
struct Folded {
    plan: u32,
    revision: u64,
    is_finished: bool,
    run: Arc<Run>,
    progress: Arc<Progress>,
    shape: Arc<ShapeRun>,
}

/// So many batches are held at most.
const MOST: u64 = 512;

/// Folds that still hold, by batch.
#[derive(Debug)]
pub struct Folds(Cache<BatchId, Folded>);

impl Default for Folds {
    fn default() -> Self {
        Folds(Cache::new(MOST))
    }
}

impl Folds {
    /// Throws all away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }

    /// A batch with its entries folded.
    pub fn record(&self, batch: Batch) -> BatchRecord {
        let stands = (batch.plan, batch.revision, batch.finished_at.is_some());
        let known = self
            .0
            .get(&batch.id)
            .filter(|f| (f.plan, f.revision, f.is_finished) == stands);
        let folded = known.unwrap_or_else(|| {
            let new = Folded::of(&batch);
            self.0.insert(batch.id, new.clone());
            new
        });
        BatchRecord {
            batch,
            run: folded.run,
            progress: folded.progress,
            shape: folded.shape,
            places: SaidOfPlaces::default(),
        }
    }
}

impl Folded {
    fn of(batch: &Batch) -> Folded {
        let run = Run::of(&batch.entries.taps);
        let is_finished = batch.finished_at.is_some();
        let result = &batch.sheet.result;
        let states = states(&result.steps, &said_of_steps(&batch.entries, result));
        let progress = Progress::of(result, states, !run.pizzas.is_empty(), is_finished);
        let shape = ShapeRun::of(&shape_taps(&batch.entries.seen));
        let shape = shape.under_plan_of(result.formula.pieces);
        Folded {
            plan: batch.plan,
            revision: batch.revision,
            is_finished,
            run: Arc::new(run),
            progress: Arc::new(progress),
            shape: Arc::new(shape),
        }
    }
}

impl BatchRecord {
    /// What its pictures hang on, besides the minute; `goes` is what they show.
    pub fn stands(&self, here: &RequestKitchen, goes: &SheetResult) -> Stands {
        Stands {
            kitchen: (here.id(), here.kitchen.revision),
            batch: self.batch.id,
            plan: self.batch.plan,
            revision: self.batch.revision,
            places: self.batch.places,
            goes: (
                goes.mixed_at,
                goes.window.map(|w| (w.from_at, w.to_at)),
                goes.rise_at_serve.to_bits(),
                goes.reserve_at_serve.to_bits(),
            ),
        }
    }
    /// Whether the dough is in the bowl: from then on its dose is no question.
    pub fn is_mixed(&self) -> bool {
        self.progress.is_mixed(&self.batch.sheet.result.steps)
    }
    /// Whether there was a dough at all: by its steps, by what was baked of it, or by its place in the ledger.
    pub fn was_mixed(&self) -> bool {
        self.is_mixed() || !self.run.pizzas.is_empty() || self.batch.finished_at.is_some()
    }
    /// A formula whose doses are no question any more: what was planned is in the bowl.
    pub fn as_mixed(&self, formula: Formula) -> Formula {
        self.batch.sheet.result.weighed(formula)
    }
    /// Closed or cancelled: nothing of it is to come.
    pub fn is_ended(&self) -> bool {
        self.batch.finished_at.is_some() || self.batch.cancelled_at.is_some()
    }
    /// Whether it goes its own way: something of it was begun or should have been by now, or a place was read that it will lie in.
    pub fn is_under_way(&self, now: Timestamp) -> bool {
        let begun = self.progress.steps.iter().any(|s| s.is_touched());
        begun
            || self.batch.sheet.result.start_at < now
            || !self.places.as_slice().is_empty()
            || self.seen().any(|o| o.seen.place().is_some())
    }

    /// From when on what was read of a place counts.
    pub fn places_count_from(&self) -> Timestamp {
        places_count_from(self.batch.sheet.result.start_at, self.batch.created_at)
    }

    /// How a closed batch went, as it was known when it was closed.
    pub fn went(&self) -> Option<&Went> {
        self.batch.finished_at?;
        self.seen().rev().find_map(|o| match &o.seen {
            Seen::Closed { went } => went.as_deref(),
            _ => None,
        })
    }

    /// What happened so far, as the forecast takes it.
    pub fn happened(&self) -> Happened {
        // Readings of a place count for every batch in it, whichever they were entered on.
        let own: std::collections::HashSet<_> = self.seen().map(|o| o.key).collect();
        let elsewhere = self
            .places
            .as_slice()
            .iter()
            .filter(|o| !own.contains(&o.key));
        let mut readings = vec![];
        let mut power_cuts = vec![];
        for o in self.seen().chain(elsewhere) {
            let measured = match &o.seen {
                Seen::Reading { subject, celsius } => match subject {
                    Subject::Dough => Measured::Dough { c: *celsius },
                    Subject::Room => Measured::Room { c: *celsius },
                    Subject::Fridge => Measured::Fridge { c: *celsius },
                    Subject::Water | Subject::Floor | Subject::Dome => continue,
                },
                Seen::PlaceRead { name, celsius } => Measured::Place {
                    name: name.clone(),
                    c: *celsius,
                },
                // What was read at the mixer is of the dough like any other reading of it.
                Seen::Mix {
                    bowl: 0,
                    act: MixAct::Read { c },
                    ..
                } => Measured::Dough { c: *c },
                Seen::Grown { times } => Measured::Grown { times: *times },
                Seen::PowerCut { until } => {
                    let until = *until;
                    power_cuts.push(PowerCut { from: o.at, until });
                    continue;
                }
                _ => continue,
            };
            readings.push(Reading { at: o.at, measured });
        }
        let planned = &self.batch.sheet.result;
        let said = said_of_steps(&self.batch.entries, planned);
        let steps = match self.batch.finished_at {
            // Closed without a word about its steps: it went as planned, as far as anybody knows.
            Some(closed) if said.is_empty() => done_as_planned(&planned.steps, closed),
            _ => said,
        };
        Happened {
            steps,
            readings,
            power_cuts,
        }
    }

    /// What is asked of it as it went, up to a moment.
    fn as_asked<T>(&self, now: Timestamp, of: impl Fn(&AheadRequest) -> T) -> T {
        let sheet = &self.batch.sheet;
        of(&AheadRequest {
            request: &sheet.request,
            planned: &sheet.result,
            happened: &self.happened(),
            now: self.batch.finished_at.unwrap_or(now),
            places: &[],
            doubts: Doubts::default(),
        })
    }
    /// The dough's temperature off the mixer, °C, as the forecast takes it.
    pub fn off_the_mixer(&self, now: Timestamp) -> Option<f64> {
        self.as_asked(now, off_the_mixer)
    }
    /// What was planned for the dough at a moment, °C.
    pub fn planned_dough_c(&self, at: Timestamp, now: Timestamp) -> Option<f64> {
        self.as_asked(now, |q| planned_dough_c(q, at))
    }
    /// What was measured otherwise than planned, for whoever makes it again.
    pub fn other_than_planned(&self, here: &RequestKitchen) -> Vec<OtherThanPlanned> {
        self.as_asked(here.now, other_than_planned)
    }

    /// When its oven was lit or switched on, where that was said.
    pub fn lit_at(&self) -> Option<Timestamp> {
        let steps = &self.batch.sheet.result.steps;
        let i = steps.iter().position(|s| s.kind == StepKind::LightOven)?;
        self.progress.steps[i].happened()
    }

    /// What the floor of its oven read, in the order of the clock.
    pub fn floor_reads(&self) -> Vec<FloorRead> {
        let read = |o: &Observation| match o.seen {
            Seen::Reading {
                subject: Subject::Floor,
                celsius,
            } => Some(FloorRead {
                at: o.at,
                c: celsius,
            }),
            _ => None,
        };
        self.seen().filter_map(read).collect()
    }

    /// How many the oven takes at once.
    pub fn spots(&self) -> u32 {
        let fire = self.batch.sheet.request.fire.as_ref();
        fire.map_or(1, |f| f.plan.oven.spots.max(1))
    }

    /// Everything seen, in the order of the clock.
    pub fn seen(&self) -> std::slice::Iter<'_, Observation> {
        self.batch.entries.seen.iter()
    }
    /// The latest reading of a subject.
    pub fn reading(&self, subject: Subject) -> Option<(Timestamp, f64)> {
        self.seen().rev().find_map(|o| match o.seen {
            Seen::Reading {
                subject: s,
                celsius,
            } if s == subject => Some((o.at, celsius)),
            _ => None,
        })
    }
    /// Where the dough lies: "fridge 4.8°", as it was read last on whichever batch, or as it was planned.
    fn place(&self, degrees: impl Fn(f64) -> String) -> String {
        let request = &self.batch.sheet.request;
        let path = request.formula.path();
        let leg = self.progress.leg.and_then(|i| path.get(i));
        let (name, planned, of) = match leg.map(|l| &l.spot) {
            None | Some(Spot::Room) => (
                phrase("batch-place-room"),
                request.room_c,
                Some(Subject::Room),
            ),
            Some(Spot::Fridge) => (
                phrase("batch-place-fridge"),
                request.fridge_c,
                Some(Subject::Fridge),
            ),
            Some(Spot::Freezer) => return phrase("batch-place-freezer").into(),
            Some(Spot::Own(p)) => (p.name.as_str(), p.c, None),
        };
        let all = self.seen().chain(self.places.as_slice());
        let read = all.filter_map(|o| match &o.seen {
            Seen::Reading { subject, celsius } if Some(*subject) == of => Some((o.at, *celsius)),
            Seen::PlaceRead { name: n, celsius } if of.is_none() && n == name => {
                Some((o.at, *celsius))
            }
            _ => None,
        });
        let c = read.max_by_key(|(at, _)| *at).map_or(planned, |(_, c)| c);
        format!("{} {}°", name.to_lowercase(), degrees(c))
    }
    pub fn remarks(&self) -> impl Iterator<Item = (&Timestamp, &str)> {
        self.seen().filter_map(|o| match &o.seen {
            Seen::Remark { remark } => Some((&o.at, remark.as_str())),
            _ => None,
        })
    }
    /// Pieces that there are: as it was divided, or as it was planned.
    pub fn pieces(&self) -> u32 {
        let planned = self.batch.sheet.result.formula.pieces;
        self.shape.divided.map_or(planned, |(count, _)| count)
    }
    pub fn pieces_left(&self) -> u32 {
        self.pieces().saturating_sub(self.run.pizzas.len() as u32)
    }

    /// "10 of 18 out".
    pub fn out_words(&self) -> String {
        say!(
            "batch-of-out",
            out = self.run.summary().out,
            pieces = self.pieces()
        )
    }

    /// Where the dough is, in words, with the measured or usual temperature of the place.
    pub fn state(&self, degrees: impl Fn(f64) -> String) -> String {
        let place = || self.place(&degrees);
        match self.progress.stand {
            Stand::Planned => phrase("batch-planned-state").into(),
            Stand::Begun => phrase("batch-preferment-stands").into(),
            Stand::Mixing => phrase("batch-in-the-mixer").into(),
            Stand::Mixed => phrase("batch-mixed-resting").into(),
            Stand::Bulk => say!("batch-in-bulk", place = place()),
            Stand::Balled => say!("batch-balls", place = place()),
            Stand::Cold => say!("batch-cold", place = place()),
            Stand::Tempering => say!("batch-warming-up", place = place()),
            Stand::Baking => say!("batch-baking", out_words = self.out_words()),
            Stand::Finished => "finished".into(),
        }
    }
}
