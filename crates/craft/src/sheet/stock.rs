//! What a batch takes of the pantry, and since when: reserved by its plan, taken once it is mixed.
//!
//! What goes into preferments is taken when the first of them is mixed, the rest of the dough when it goes into the mixer,
//! toppings when the batch is closed. A closed batch has taken everything, whether its steps were marked or not; one that was
//! given up has taken what was mixed of it, and reserves nothing.

use super::progress::{Progress, StepPast, states};
use super::{SheetRequest, SheetResult, StepKind};
use crate::pantry::{Need, NeededFor, needed};
use crate::style::topping::amounts;
use jiff::Timestamp;

/// So much of something, and since when it is gone; reserved while it is not.
#[derive(Debug, Clone, PartialEq)]
pub struct TakenStock {
    /// What is taken.
    pub need: Need,
    /// When; absent while it is only reserved.
    pub at: Option<Timestamp>,
}

/// How a batch stands, for its stock.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Ended {
    /// When it was closed.
    pub closed_at: Option<Timestamp>,
    /// Whether it was given up.
    pub cancelled: bool,
}

/// What a batch takes, from its plan and what was said of its steps.
pub fn taken(
    r: &SheetRequest,
    sheet: &SheetResult,
    said: &[StepPast],
    ended: Ended,
) -> Vec<TakenStock> {
    let p = Progress::of(
        sheet,
        states(&sheet.steps, said),
        false,
        ended.closed_at.is_some(),
    );
    let of_dough = |kind| {
        !matches!(
            kind,
            StepKind::Preferment | StepKind::PrefermentCold | StepKind::LightOven
        )
    };
    // Whoever marks a later step has mixed before, marked or not.
    let first = |of: &dyn Fn(StepKind) -> bool| {
        sheet
            .steps
            .iter()
            .zip(&p.steps)
            .filter(|(s, t)| of(s.kind) && !t.left_out)
            .filter_map(|(_, t)| t.begun.or(t.done))
            .min()
    };
    let mixed = first(&of_dough);
    let preferred = first(&|k| k == StepKind::Preferment).or(mixed);
    let toppings = amounts(
        &r.formula.toppings,
        &sheet.formula.portions,
        r.programme().out_s,
    );
    needed(&r.formula, &sheet.formula, &toppings)
        .into_iter()
        .map(|(need, what_for)| {
            let at = match what_for {
                NeededFor::Preferment => preferred,
                NeededFor::Dough => mixed,
                NeededFor::Topping => None,
            };
            TakenStock {
                need,
                at: at.or(ended.closed_at),
            }
        })
        .filter(|t| t.at.is_some() || !ended.cancelled)
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::{Preferment, PrefermentKind, Scales};
    use crate::sheet::progress::StepSaid;
    use crate::sheet::{KitchenUsual, work_out};

    fn planned() -> (SheetRequest, SheetResult) {
        let kitchen = KitchenUsual {
            time_zone: "UTC".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Scales::default(),
        };
        let mut r = SheetRequest::of_style(
            crate::style::first(),
            &kitchen,
            "2026-11-27T19:00:00Z".parse().unwrap(),
        );
        r.formula.preferments = vec![Preferment::usual(PrefermentKind::Poolish)];
        let sheet = work_out(&r).unwrap();
        (r, sheet)
    }

    fn grams(all: &[TakenStock], gone: bool) -> f64 {
        all.iter()
            .filter(|t| t.at.is_some() == gone)
            .map(|t| t.need.grams)
            .sum()
    }

    #[test]
    fn a_plan_reserves_and_mixing_takes_stage_by_stage() {
        let (r, sheet) = planned();
        let said = |kinds: &[StepKind]| -> Vec<StepPast> {
            let of = |s: &&crate::sheet::PlannedStep| kinds.contains(&s.kind);
            let past = |s: &crate::sheet::PlannedStep| StepPast {
                number: s.number,
                at: s.at,
                said: StepSaid::Begun,
            };
            sheet.steps.iter().filter(of).map(past).collect()
        };
        let open = Ended::default();
        let after = |kinds: &[StepKind], ended| taken(&r, &sheet, &said(kinds), ended);
        let planned = after(&[], open);
        let all = grams(&planned, false);
        assert_eq!(grams(&planned, true), 0.0);
        // What it takes is what its list of needs says, whoever adds it up.
        let toppings = amounts(
            &r.formula.toppings,
            &sheet.formula.portions,
            r.programme().out_s,
        );
        let needs: f64 = crate::pantry::needs(&r.formula, &sheet.formula, &toppings)
            .iter()
            .map(|n| n.grams)
            .sum();
        assert!((all - needs).abs() < 1e-6, "{all} {needs}");
        let poolish = after(&[StepKind::Preferment], open);
        let of_poolish = grams(&poolish, true);
        assert!(of_poolish > 0.0 && of_poolish < 0.5 * all);
        let mixed = after(&[StepKind::Preferment, StepKind::Mix], open);
        let toppings: f64 = planned
            .iter()
            .filter(|t| t.need.is_topping)
            .map(|t| t.need.grams)
            .sum();
        assert!((grams(&mixed, false) - toppings).abs() < 1e-6);
        // Only a later step was marked: it was mixed all the same.
        let balled = after(&[StepKind::Ball], open);
        assert_eq!(grams(&balled, true), grams(&mixed, true));
        let closed = Ended {
            closed_at: Some(r.serve_at),
            cancelled: false,
        };
        assert_eq!(grams(&after(&[], closed), false), 0.0);
        assert!((grams(&after(&[], closed), true) - all).abs() < 1e-6);
        // Given up before it was mixed: nothing is gone and nothing is kept for it.
        let given_up = Ended {
            closed_at: None,
            cancelled: true,
        };
        assert!(after(&[], given_up).is_empty());
        let half = after(&[StepKind::Preferment], given_up);
        assert!((grams(&half, true) - of_poolish).abs() < 1e-6 && grams(&half, false) == 0.0);
    }
}
