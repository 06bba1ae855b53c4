//! What is tapped at the scale and at the boxes tells the plan's own steps.

use super::progress::{StepPast, StepSaid};
use super::{PlannedStep, SheetResult, StepKind, dividing};
use crate::shape::run::{ShapeAct, ShapeRun, ShapeTap};
use std::collections::BTreeSet;

/// The first piece begins the balling and the last one ends it; the first box that leaves the cold begins the warming up and
/// the last one ends it.
#[derive(Debug, Default)]
pub struct FromTheBoxes {
    run: ShapeRun,
    warm: BTreeSet<u16>,
}

impl FromTheBoxes {
    /// What the next tap says, in the order of entering.
    pub fn says(&mut self, planned: &SheetResult, tap: &ShapeTap) -> Option<StepPast> {
        self.run.fold(tap);
        let kinds: &[StepKind] = match &tap.act {
            ShapeAct::Piece { .. } => &[StepKind::Ball, StepKind::Pan],
            ShapeAct::Moved { .. } => &[StepKind::Temper],
            _ => return None,
        };
        let step = planned.steps.iter().find(|s| kinds.contains(&s.kind))?;
        let said = match &tap.act {
            ShapeAct::Moved { number, to } => self.moved(planned, step, *number, to.is_cold())?,
            _ => {
                let count = self.run.divided.map_or(planned.formula.pieces, |(n, _)| n);
                match self.run.pieces.len() as u32 {
                    made if made == count => StepSaid::Finished,
                    1 => StepSaid::Begun,
                    _ => return None,
                }
            }
        };
        let (number, at) = (step.number, tap.at);
        Some(StepPast { number, at, said })
    }

    /// Of boxes that were in the cold: one that leaves it begins the warming up.
    fn moved(
        &mut self,
        planned: &SheetResult,
        temper: &PlannedStep,
        number: u16,
        into_the_cold: bool,
    ) -> Option<StepSaid> {
        let before = self.warm.len();
        let boxes = self.run.boxed.as_ref().map(|kind| {
            let d = dividing(planned, false, &self.run, kind);
            d.laid.balls.len()
        });
        if into_the_cold {
            // One goes back: the warming up is not over after all.
            let was_over = boxes.is_some_and(|n| before >= n);
            return (self.warm.remove(&number) && was_over).then_some(StepSaid::Undone);
        }
        // Long before the plan's own hour a move is a move.
        let told = self.run.boxes.get(&number)?;
        let (at, _) = told.moved.last()?;
        if *at < temper.at - super::hours(6.0) {
            return None;
        }
        self.warm.insert(number);
        match (before, boxes) {
            (_, Some(n)) if self.warm.len() >= n => Some(StepSaid::Finished),
            (0, _) => Some(StepSaid::Begun),
            _ => None,
        }
    }
}
