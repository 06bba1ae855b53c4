//! What an entry says, and how it stands in its row: a kind, and facts as JSON.

use crate::{Result, StoreError};
use craft::fire::{Tap, TapKind};
use craft::keyed::Keyed;
use craft::learn::{Notice, StoodAs};
use craft::mix::run::{MixAct, MixTap};
use craft::photo::PhotoOf;
use craft::reading::Subject;
use craft::shape::run::{ShapeAct, ShapeTap};
use craft::sheet::progress::StepSaid;
use craft::sheet::{ClockPoint, ReadyWindow};
use craft::trial::Tasted;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use uuid::Uuid;

/// What was seen or done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Seen {
    StepDone {
        step_position: u16,
    },
    StepUndone {
        step_position: u16,
    },
    /// Work that takes its time began, and ended.
    StepBegun {
        step_position: u16,
    },
    StepFinished {
        step_position: u16,
    },
    /// It was left out.
    StepSkipped {
        step_position: u16,
    },
    Reading {
        subject: Subject,
        celsius: f64,
    },
    /// A place of the kitchen's own: cellar, porch, walk-in.
    PlaceRead {
        name: String,
        celsius: f64,
    },
    /// The dough in a marked tub stands at so many times its first volume.
    Grown {
        times: f64,
    },
    Remark {
        remark: String,
    },
    /// How the dough stood when it was opened.
    Stood {
        is: StoodAs,
    },
    /// The dough was ready then.
    Ready,
    /// Something seen of the dough, or of a pizza.
    Noticed {
        what: Notice,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pizza: Option<u32>,
    },
    /// Whether this batch is learned from.
    Lessons {
        learn: bool,
    },
    /// What somebody at a trial's table said of this batch: the key of the trial.
    Tasted {
        trial: Uuid,
        #[serde(flatten)]
        tasted: Tasted,
    },
    /// A photo of a pizza; the picture lies under the entry's key.
    Photo {
        pizza: u32,
        of: PhotoOf,
    },
    /// The caution of the fire was read and acknowledged.
    Cautioned,
    /// The fridge had no power until then; its door stayed shut.
    PowerCut {
        until: Timestamp,
    },
    /// A tap at the bowl: 0 the dough, else the preferment of that number; which run of it.
    Mix {
        bowl: u16,
        run: u16,
        #[serde(flatten)]
        act: MixAct,
    },
    /// A tap at the scale or at a box of balls.
    Shape {
        #[serde(flatten)]
        act: ShapeAct,
    },
    /// An entry was wrong: it counts no longer.
    TakenBack {
        entry: Uuid,
    },
    /// It is done and stands in the ledger, with its forecast as it was last known.
    Closed {
        #[serde(default, skip_serializing_if = "Option::is_none")]
        went: Option<Box<Went>>,
    },
    /// It was never mixed.
    Cancelled,
    /// It goes on after all.
    Reopened,
}

impl Seen {
    /// What is said of a step.
    pub fn step(step_position: u16, said: StepSaid) -> Seen {
        match said {
            StepSaid::Begun => Seen::StepBegun { step_position },
            StepSaid::Done => Seen::StepDone { step_position },
            StepSaid::Finished => Seen::StepFinished { step_position },
            StepSaid::LeftOut => Seen::StepSkipped { step_position },
            StepSaid::Undone => Seen::StepUndone { step_position },
        }
    }
    /// What it says of a step, and of which.
    pub fn of_step(&self) -> Option<(u16, StepSaid)> {
        Some(match *self {
            Seen::StepBegun { step_position } => (step_position, StepSaid::Begun),
            Seen::StepDone { step_position } => (step_position, StepSaid::Done),
            Seen::StepFinished { step_position } => (step_position, StepSaid::Finished),
            Seen::StepSkipped { step_position } => (step_position, StepSaid::LeftOut),
            Seen::StepUndone { step_position } => (step_position, StepSaid::Undone),
            _ => return None,
        })
    }
    /// Whether it may change what was taken of the pantry.
    fn moves_stock(&self) -> bool {
        self.of_step().is_some()
            || matches!(
                self,
                Seen::Mix {
                    act: MixAct::Step { .. },
                    ..
                } | Seen::Shape { .. }
                    | Seen::Closed { .. }
                    | Seen::Cancelled
                    | Seen::Reopened
                    | Seen::TakenBack { .. }
            )
    }
    /// Whether it may change by what its batch is found.
    fn moves_words(&self) -> bool {
        matches!(
            self,
            Seen::Remark { .. } | Seen::Closed { .. } | Seen::TakenBack { .. }
        )
    }
    /// Whether it may be taken back; steps are undone and batches reopened instead.
    pub fn may_be_taken_back(&self) -> bool {
        matches!(
            self,
            Seen::Reading { .. }
                | Seen::PlaceRead { .. }
                | Seen::Grown { .. }
                | Seen::Remark { .. }
                | Seen::Stood { .. }
                | Seen::Ready
                | Seen::Noticed { .. }
                | Seen::Photo { .. }
                | Seen::PowerCut { .. }
                | Seen::Mix { .. }
                | Seen::Shape { .. }
        )
    }
}

/// How a dough went, as it was last known from what was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Went {
    pub mixed_at: Timestamp,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<ReadyWindow>,
    pub rise_at_serve: f64,
    pub reserve_at_serve: f64,
    pub label_at_serve: craft::rise::Label,
    pub clocks: Vec<ClockPoint>,
}

/// Something that was seen, when it was, and under which key.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Observation {
    #[serde(skip)]
    pub id: u64,
    #[serde(rename = "entry")]
    pub key: Uuid,
    pub at: Timestamp,
    #[serde(flatten)]
    pub seen: Seen,
    /// Who entered it; empty where nobody is known.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub by: String,
}

impl Observation {
    /// The tap at the bowl that it is, where it is one.
    pub fn mix_tap(&self) -> Option<MixTap> {
        match &self.seen {
            Seen::Mix { bowl, run, act } => Some(MixTap {
                bowl: *bowl,
                run: *run,
                at: self.at,
                act: act.clone(),
            }),
            _ => None,
        }
    }
    /// The tap at the scale or at a box that it is, where it is one.
    pub fn shape_tap(&self) -> Option<ShapeTap> {
        match &self.seen {
            Seen::Shape { act } => Some(ShapeTap {
                at: self.at,
                act: act.clone(),
            }),
            _ => None,
        }
    }
}

/// What an entry says.
#[derive(Debug, Clone, PartialEq)]
pub enum SaidEntry {
    Seen(Seen),
    /// A tap at the oven about a pizza.
    Tapped {
        pizza: u32,
        kind: TapKind,
    },
}

impl SaidEntry {
    /// Whether it may change what was taken of the pantry.
    pub(super) fn moves_stock(&self) -> bool {
        matches!(self, SaidEntry::Seen(s) if s.moves_stock())
    }
    /// Whether it may change by what its batch is found, once it stands in the ledger. Of one under way that is written when it is
    /// closed: a service must not wait for it at every tap.
    pub(super) fn moves_words(&self, finished: bool) -> bool {
        match self {
            SaidEntry::Seen(s) => s.moves_words(),
            SaidEntry::Tapped { .. } => finished,
        }
    }
}

impl From<Seen> for SaidEntry {
    fn from(seen: Seen) -> SaidEntry {
        SaidEntry::Seen(seen)
    }
}

impl From<Tap> for SaidEntry {
    fn from(t: Tap) -> SaidEntry {
        SaidEntry::Tapped {
            pizza: t.pizza,
            kind: t.kind,
        }
    }
}

/// What stands as the place of a tap at the bowl: they are found by it.
pub(super) const AT_THE_BOWL: &str = "mixer";
/// The same of a dough that was weighed whole.
pub(super) const ON_THE_SCALE: &str = "scale";

/// The kinds that are taps.
const TAPS: [&str; 5] = ["in", "turned", "out", "verdict", "undone"];

impl Seen {
    /// The place of the kitchen that was read, where one was.
    pub fn place(&self) -> Option<&'static str> {
        match self {
            Seen::Reading {
                subject: s @ (Subject::Room | Subject::Fridge),
                ..
            } => Some(s.key()),
            Seen::PlaceRead { .. } => Some(super::OWN_PLACE),
            Seen::PowerCut { .. } => Some(Subject::Fridge.key()),
            _ => None,
        }
    }
}

impl SaidEntry {
    /// The place of the kitchen that it is said of, where it is said of one.
    pub(super) fn place(&self) -> Option<&'static str> {
        match self {
            // Whether it was of a place, the entry that it takes back knows.
            SaidEntry::Seen(Seen::TakenBack { .. }) => Some("taken back"),
            SaidEntry::Seen(Seen::Mix { .. }) => Some(AT_THE_BOWL),
            SaidEntry::Seen(Seen::Shape {
                act: ShapeAct::Whole { .. },
            }) => Some(ON_THE_SCALE),
            SaidEntry::Seen(seen) => seen.place(),
            SaidEntry::Tapped { .. } => None,
        }
    }

    /// Its kind, and its facts as JSON.
    pub(super) fn to_row(&self) -> Result<(String, String)> {
        let value = match self {
            SaidEntry::Seen(seen) => serde_json::to_value(seen),
            SaidEntry::Tapped { kind, .. } => serde_json::to_value(kind),
        };
        let unreadable = |e: serde_json::Error| StoreError::Unreadable(e.to_string());
        let Value::Object(mut facts) = value.map_err(unreadable)? else {
            return Err(StoreError::Unreadable("an entry without facts".into()));
        };
        if let SaidEntry::Tapped { pizza, .. } = self {
            facts.insert("pizza".into(), (*pizza).into());
        }
        match facts.remove("kind") {
            Some(Value::String(kind)) => Ok((kind, Value::Object(facts).to_string())),
            _ => Err(StoreError::Unreadable("an entry without a kind".into())),
        }
    }

    /// From its row; `None` for a kind or facts that this program does not know.
    pub(super) fn from_row(kind: &str, facts: &str) -> Option<SaidEntry> {
        let mut all: Map<String, Value> = serde_json::from_str(facts).ok()?;
        let pizza = all.get("pizza").and_then(Value::as_u64);
        all.insert("kind".into(), kind.into());
        if TAPS.contains(&kind) {
            return Some(SaidEntry::Tapped {
                pizza: u32::try_from(pizza?).ok()?,
                kind: serde_json::from_value(Value::Object(all)).ok()?,
            });
        }
        serde_json::from_value(Value::Object(all))
            .ok()
            .map(SaidEntry::Seen)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use craft::fire::Verdict;

    #[test]
    fn every_kind_comes_back_from_its_row_and_unknown_ones_are_passed_over() {
        let at: Timestamp = "2026-11-27T19:00:00Z".parse().unwrap();
        let all: Vec<SaidEntry> = vec![
            Seen::StepDone { step_position: 3 }.into(),
            Seen::StepUndone { step_position: 3 }.into(),
            Seen::StepBegun { step_position: 3 }.into(),
            Seen::StepFinished { step_position: 3 }.into(),
            Seen::StepSkipped { step_position: 3 }.into(),
            Seen::Reading {
                subject: Subject::Dough,
                celsius: 23.4,
            }
            .into(),
            Seen::PlaceRead {
                name: "Cellar, “low” è".into(),
                celsius: 11.5,
            }
            .into(),
            Seen::Grown { times: 1.6 }.into(),
            Seen::Remark {
                remark: "“slack”, è così\n2".into(),
            }
            .into(),
            Seen::Stood {
                is: StoodAs::MuchUnder,
            }
            .into(),
            Seen::Ready.into(),
            Seen::Noticed {
                what: Notice::PaleBelow,
                pizza: Some(4),
            }
            .into(),
            Seen::Noticed {
                what: Notice::Slack,
                pizza: None,
            }
            .into(),
            Seen::Lessons { learn: false }.into(),
            Seen::Cautioned.into(),
            Seen::Tasted {
                trial: Uuid::new_v4(),
                tasted: Tasted::Scored {
                    taster: 3,
                    arm: 1,
                    of: craft::trial::Criterion::Chew,
                    score: Some(4),
                },
            }
            .into(),
            Seen::Tasted {
                trial: Uuid::new_v4(),
                tasted: Tasted::Preferred {
                    taster: 3,
                    pair: (0, 2),
                    arm: None,
                },
            }
            .into(),
            Seen::Photo {
                pizza: 3,
                of: PhotoOf::Crumb,
            }
            .into(),
            Seen::PowerCut { until: at }.into(),
            Seen::TakenBack {
                entry: Uuid::new_v4(),
            }
            .into(),
            Seen::Mix {
                bowl: 0,
                run: 2,
                act: MixAct::Step { step: 3 },
            }
            .into(),
            Seen::Mix {
                bowl: 1,
                run: 1,
                act: MixAct::Chosen {
                    programme: Box::new(craft::mix::programmes()[3].clone()),
                    machine: Box::new(craft::mix::Machine::usual(craft::mix::Mixer::Spiral)),
                    machine_id: Some(7),
                    runs: 2,
                },
            }
            .into(),
            Seen::Mix {
                bowl: 0,
                run: 1,
                act: MixAct::Poured {
                    part: 2,
                    c: Some(4.5),
                },
            }
            .into(),
            Seen::Shape {
                act: ShapeAct::Piece { g: Some(262.0) },
            }
            .into(),
            Seen::Shape {
                act: ShapeAct::Boxed {
                    into: craft::shape::run::BoxKind {
                        name: "Grey box".into(),
                        length_cm: 60.0,
                        width_cm: 40.0,
                        height_cm: 7.0,
                        round: false,
                        gap_cm: 7.0,
                    },
                },
            }
            .into(),
            Seen::Shape {
                act: ShapeAct::Moved {
                    number: 2,
                    to: craft::path::Spot::Fridge,
                },
            }
            .into(),
            Seen::Closed { went: None }.into(),
            Seen::Cancelled.into(),
            Seen::Reopened.into(),
            SaidEntry::Tapped {
                pizza: 7,
                kind: TapKind::Verdict(Verdict::RIGHT),
            },
            SaidEntry::Tapped {
                pizza: 7,
                kind: TapKind::In,
            },
        ];
        for said in all {
            let (kind, facts) = said.to_row().unwrap();
            assert!(kind.len() <= 24, "{kind}");
            assert_eq!(SaidEntry::from_row(&kind, &facts), Some(said));
        }
        assert_eq!(SaidEntry::from_row("opened", "{\"jar\":2}"), None);
        assert_eq!(
            SaidEntry::from_row("reading", "{\"subject\":\"moon\"}"),
            None
        );
        assert_eq!(SaidEntry::from_row("reading", "nonsense"), None);
    }
}
