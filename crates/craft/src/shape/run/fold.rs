//! Taps folded into one dough that is divided, by the clock.

use super::tap::{BenchFlour, BoxKind, ShapeAct, ShapeRefused, ShapeTap};
use crate::path::Spot;
use crate::shape::{LaidBoxes, PressSign, TrayStand, TrayWork};
use jiff::Timestamp;
use std::collections::BTreeMap;

/// Pieces may weigh together so much more than the whole before one of the weights is wrong.
const OVER_THE_WHOLE: f64 = 1.01;

/// A piece that was made.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PieceMade {
    /// When.
    pub at: Timestamp,
    /// What the scale said, g.
    pub g: Option<f64>,
}

/// What was said of one box.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct BoxTold {
    /// Press tests, in the order of the clock.
    pub pressed: Vec<(Timestamp, PressSign)>,
    /// Places it went to, in the order of the clock.
    pub moved: Vec<(Timestamp, Spot)>,
    /// Whether it stands within a stack.
    pub stacked: bool,
    /// When a skin was seen.
    pub skin: Option<Timestamp>,
    /// When it was balled again, with how much flour, and whether tightly.
    pub reballed: Vec<(Timestamp, BenchFlour, bool)>,
    /// What was done to the dough of a tray, in the order of the clock.
    pub tray: Vec<(Timestamp, TrayWork)>,
}

impl BoxTold {
    /// Whether it went into a freezer at some time: what was frozen and thawed is not foretold.
    pub fn frozen_at(&self) -> Option<Timestamp> {
        let into = self.moved.iter().find(|(_, to)| to.is_frozen());
        into.map(|(at, _)| *at)
    }
}

/// A dough that is divided, as the taps tell it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ShapeRun {
    /// The whole on the scale, as it was read last, g.
    pub whole_g: Option<f64>,
    /// Pieces and their weight, as it was decided.
    pub divided: Option<(u32, f64)>,
    /// How many the plan had then.
    pub divided_of: Option<u32>,
    /// What the balls go into.
    pub boxed: Option<BoxKind>,
    /// In the order of making.
    pub pieces: Vec<PieceMade>,
    /// What was said of each box, by its number from 1.
    pub boxes: BTreeMap<u16, BoxTold>,
}

impl ShapeRun {
    /// All that was tapped about a batch.
    pub fn of<'a>(taps: impl IntoIterator<Item = &'a ShapeTap>) -> ShapeRun {
        let mut all: Vec<&ShapeTap> = taps.into_iter().collect();
        all.sort_by_key(|t| t.at);
        let mut out = ShapeRun::default();
        for t in all {
            out.fold(t);
        }
        out
    }

    /// One more tap, by the clock.
    pub(crate) fn fold(&mut self, tap: &ShapeTap) {
        let at = tap.at;
        match &tap.act {
            ShapeAct::Whole { g } => self.whole_g = Some(*g),
            ShapeAct::Divided { count, ball_g, of } => {
                (self.divided, self.divided_of) = (Some((*count, *ball_g)), *of);
            }
            ShapeAct::Boxed { into: kind } => self.boxed = Some(kind.clone()),
            ShapeAct::Piece { g } => self.pieces.push(PieceMade { at, g: *g }),
            ShapeAct::Pressed { number, sign } => self.told(*number).pressed.push((at, *sign)),
            ShapeAct::Moved { number, to } => self.told(*number).moved.push((at, to.clone())),
            ShapeAct::Stacked { number, stacked } => self.told(*number).stacked = *stacked,
            ShapeAct::Skin { number } => self.told(*number).skin = Some(at),
            ShapeAct::Reballed {
                number,
                bench,
                tight,
            } => self.told(*number).reballed.push((at, *bench, *tight)),
            ShapeAct::Tray { number, did } => self.told(*number).tray.push((at, *did)),
        }
    }
    fn told(&mut self, number: u16) -> &mut BoxTold {
        self.boxes.entry(number).or_default()
    }

    /// The same under a plan of so many pieces: some may have gone another way since it was decided.
    pub fn under_plan_of(mut self, pieces: u32) -> ShapeRun {
        if let (Some((count, _)), Some(of)) = (&mut self.divided, self.divided_of) {
            *count = (*count + pieces).saturating_sub(of).max(1);
        }
        self
    }
    /// Whether anything was said at all.
    pub fn is_told(&self) -> bool {
        *self != ShapeRun::default()
    }
    /// Weights of the pieces that were weighed, g.
    pub fn weighed(&self) -> Vec<f64> {
        self.pieces.iter().filter_map(|p| p.g).collect()
    }

    /// Whether a tap that arrives now makes sense: `count` pieces are wanted, and lie in `laid`.
    ///
    /// Errors: the reason.
    pub fn admits(&self, act: &ShapeAct, count: u32, laid: &LaidBoxes) -> Result<(), ShapeRefused> {
        let made = self.pieces.len() as u32;
        let sum: f64 = self.weighed().iter().sum();
        match act {
            ShapeAct::Piece { .. } if made >= count => Err(ShapeRefused::AllMade(count)),
            ShapeAct::Piece { g: Some(g) } => match self.whole_g {
                Some(whole) if sum + g > OVER_THE_WHOLE * whole => {
                    Err(ShapeRefused::MoreThanTheWhole((whole - sum).max(0.0)))
                }
                _ => Ok(()),
            },
            ShapeAct::Whole { g } if sum > OVER_THE_WHOLE * g => {
                Err(ShapeRefused::MoreThanTheWhole(*g))
            }
            ShapeAct::Divided { count, .. } if *count < made => {
                Err(ShapeRefused::FewerThanMade(made))
            }
            ShapeAct::Boxed { into: kind } => {
                let other = self.boxed.as_ref() != Some(kind);
                match made > 0 && self.boxed.is_some() && other {
                    true => Err(ShapeRefused::InTheirBoxes),
                    false => Ok(()),
                }
            }
            _ => match act.number() {
                Some(number) => self.admits_of_box(act, number, laid),
                None => Ok(()),
            },
        }
    }

    fn admits_of_box(
        &self,
        act: &ShapeAct,
        number: u16,
        laid: &LaidBoxes,
    ) -> Result<(), ShapeRefused> {
        if number == 0 || usize::from(number) > laid.balls.len() {
            return Err(ShapeRefused::NoSuchBox(number));
        }
        // Pieces that nobody counted lie in their boxes when the step is done: only a box that fills up now can be empty.
        let first = laid.first_of(usize::from(number) - 1);
        if !self.pieces.is_empty() && self.pieces.len() as u32 <= first {
            return Err(ShapeRefused::EmptyBox(number));
        }
        let told = self.boxes.get(&number);
        if let ShapeAct::Moved { to, .. } = act {
            let last = told.and_then(|b| b.moved.last());
            return match last {
                Some((_, there)) if there == to => Err(ShapeRefused::ThereAlready(number)),
                _ => Ok(()),
            };
        }
        if let ShapeAct::Tray { .. } = act {
            // In a box lies one piece only where it is a tray.
            let trays = laid.balls.iter().all(|n| *n == 1);
            let work = told.map_or(&[][..], |b| &b.tray);
            return match TrayStand::of(work).corners_at {
                _ if !trays => Err(ShapeRefused::NoTrays),
                Some(_) => Err(ShapeRefused::AtTheCorners(number)),
                None => Ok(()),
            };
        }
        let frozen = told.is_some_and(|b| b.frozen_at().is_some());
        match act {
            ShapeAct::Pressed { .. } | ShapeAct::Reballed { .. } if frozen => {
                Err(ShapeRefused::Frozen(number))
            }
            _ => Ok(()),
        }
    }
}
