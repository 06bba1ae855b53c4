//! How far a batch has come, from the steps that were marked done.

use super::{PlannedStep, SheetResult, StepKind};
use jiff::Timestamp;

/// Where the dough is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stand {
    Planned,
    /// A preferment stands; the dough is not mixed yet.
    Begun,
    Mixed,
    Bulk,
    /// Balls resting in the room.
    Balled,
    Cold,
    /// In the room or on the trays, on the way to the oven.
    Tempering,
    Baking,
    Finished,
}

/// A batch's progress.
#[derive(Debug, Clone, PartialEq)]
pub struct Progress {
    /// For each step, when it was done.
    pub done_at: Vec<Option<Timestamp>>,
    /// The next step: the first after the last one done.
    pub next: Option<usize>,
    pub stand: Stand,
}

impl Progress {
    /// Folds what was done. `baking` is true once a pizza went in.
    pub fn of(
        sheet: &SheetResult,
        done_at: Vec<Option<Timestamp>>,
        baking: bool,
        finished: bool,
    ) -> Progress {
        // Lighting the oven happens beside the dough: it says nothing about where the dough is, and jumps over no step.
        let of_dough = |i: &usize| sheet.steps[*i].kind != StepKind::LightOven;
        let last = (0..done_at.len())
            .rev()
            .filter(of_dough)
            .find(|i| done_at[*i].is_some());
        let from = last.map_or(0, |i| i + 1);
        let next = (from..sheet.steps.len())
            .find(|i| done_at[*i].is_none())
            .filter(|_| !finished);
        let reached = sheet
            .steps
            .iter()
            .zip(&done_at)
            .rfind(|(s, d)| d.is_some() && s.kind != StepKind::LightOven)
            .map(|(s, _)| s);
        let stand = match reached {
            _ if finished => Stand::Finished,
            _ if baking => Stand::Baking,
            None => Stand::Planned,
            Some(step) => stand(step, sheet),
        };
        Progress {
            done_at,
            next,
            stand,
        }
    }
}

fn stand(step: &PlannedStep, sheet: &SheetResult) -> Stand {
    let has_cold = sheet.steps.iter().any(|s| s.kind == StepKind::Temper);
    match step.kind {
        StepKind::Preferment | StepKind::PrefermentCold => Stand::Begun,
        StepKind::Mix => Stand::Mixed,
        StepKind::Rest | StepKind::Fold | StepKind::Bulk => Stand::Bulk,
        StepKind::Ball if has_cold => Stand::Cold,
        StepKind::Ball => Stand::Balled,
        StepKind::Cold | StepKind::Freeze | StepKind::Thaw => Stand::Cold,
        StepKind::Degas => Stand::Bulk,
        StepKind::Reball if has_cold => Stand::Cold,
        StepKind::Reball | StepKind::Move => Stand::Balled,
        StepKind::Temper | StepKind::Pan | StepKind::LightOven => Stand::Tempering,
        StepKind::Bake => Stand::Baking,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::Scales;
    use crate::sheet::{KitchenUsual, SheetRequest, work_out};

    fn sheet() -> SheetResult {
        let kitchen = KitchenUsual {
            time_zone: "UTC".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Scales::default(),
        };
        work_out(&SheetRequest::of_style(
            crate::style::first(),
            &kitchen,
            "2026-11-27T19:00:00Z".parse().unwrap(),
        ))
        .unwrap()
    }

    fn after(kinds: &[StepKind], baking: bool) -> Progress {
        let s = sheet();
        let done = s
            .steps
            .iter()
            .map(|p| kinds.contains(&p.kind).then_some(p.at))
            .collect();
        Progress::of(&s, done, baking, false)
    }

    #[test]
    fn the_last_step_done_says_where_the_dough_is() {
        use StepKind::*;
        assert_eq!(
            (after(&[], false).stand, after(&[], false).next),
            (Stand::Planned, Some(0))
        );
        assert_eq!(after(&[Mix], false).stand, Stand::Mixed);
        assert_eq!(after(&[Mix, Rest, Bulk, Ball], false).stand, Stand::Cold);
        assert_eq!(
            after(&[Mix, Rest, Bulk, Ball, Temper, LightOven], false).stand,
            Stand::Tempering
        );
        assert_eq!(
            after(&[Mix, Rest, Bulk, Ball, LightOven], false).stand,
            Stand::Cold,
            "an oven lit early"
        );
        assert_eq!(after(&[Mix, Ball], true).stand, Stand::Baking);
    }

    #[test]
    fn an_oven_lit_early_jumps_over_no_step() {
        use StepKind::*;
        let s = sheet();
        let next = |kinds: &[StepKind]| after(kinds, false).next.map(|i| s.steps[i].kind);
        assert_eq!(next(&[LightOven]), Some(s.steps[0].kind));
        assert_eq!(next(&[Mix, Rest, LightOven]), next(&[Mix, Rest]));
        // Once its turn comes, it is not asked for again.
        let to_bake = next(&[Mix, Rest, Bulk, Ball, Temper, LightOven]);
        assert_eq!(to_bake, Some(Bake));
    }

    #[test]
    fn a_step_that_was_jumped_over_is_not_asked_for_again() {
        use StepKind::*;
        let p = after(&[Mix, Ball], false);
        assert_eq!(sheet().steps[p.next.unwrap()].kind, Temper);
    }
}
