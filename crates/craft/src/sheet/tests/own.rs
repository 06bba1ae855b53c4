//! A plan by this kitchen's log: its dose, its window beside the book's, and how likely it is met.

use super::*;
use crate::formula::{Preferment, PrefermentKind};
use crate::learn::{Answers, Card, KitchenLog, LoggedBatch, NextBatch, Observed, StoodAs, card_of};
use crate::rise::{Doubts, PrefermentRuns};
use crate::sheet::ahead::{AheadRequest, Happened, as_planned, as_run, from_now, to_be_made};

/// Six bakes of a kitchen whose doughs run ahead.
fn log(r: &SheetRequest, percent: f64) -> KitchenLog {
    let dough = to_be_made(r, percent).unwrap();
    let opened = dough.total_hours();
    let bake = |week: u32| LoggedBatch {
        week: f64::from(week),
        made_with: Default::default(),
        dough: dough.clone(),
        observed: vec![
            Observed::State {
                at_h: Some(opened),
                is: StoodAs::Over,
                answers: Answers::Five,
            },
            Observed::Fridge {
                over_planned_k: 2.0,
            },
        ],
        opened_at_h: Some(opened),
    };
    let batches: Vec<LoggedBatch> = (0..6).map(bake).collect();
    let cards: Vec<Card> = batches.iter().map(card_of).collect();
    KitchenLog::of(&batches, &cards)
}

fn next(r: &SheetRequest, percent: f64) -> (NextBatch, Card) {
    let dough = to_be_made(r, percent).unwrap();
    let card = Card::of(&dough, &[]);
    let next = NextBatch {
        week: 6.0,
        made_with: Default::default(),
        dough,
    };
    (next, card)
}

#[test]
fn sheet_and_log_say_one_chance_and_the_book_stands_beside() {
    let mut r = friday(style("hot_round"));
    let book = work_out(&r).unwrap();
    assert_eq!(book.by_log, None, "the book knows of no kitchen");
    let log = log(&r, book.yeast.percent);
    let (asked, card) = next(&r, book.yeast.percent);
    r.own = Some(Box::new(log.own(&asked, &card)));
    let (own, sure) = work_out_surely(&r, &Doubts::default(), &PrefermentRuns::default()).unwrap();
    assert_eq!(sure, None, "the log says it");
    let log_says = own.by_log.unwrap();
    let (chance, ready) = (log_says.chance, log_says.ready.unwrap());
    // A livelier kitchen takes less, and the same dough would be ready later by the book.
    assert!(own.yeast.percent < 0.9 * book.yeast.percent);
    let [here, by_the_book] = [ready.at, log_says.book.unwrap().from_at];
    assert!(
        by_the_book > here + hours(1.0),
        "{here} against {by_the_book}"
    );
    let good = log.own(&asked, &card).good_to.unwrap();
    assert!((1.05..1.6).contains(&good), "{good}");
    assert_eq!((ready.at, log_says.bakes), (own.window.unwrap().from_at, 6));
    assert!(ready.early_at < ready.at && ready.at < ready.late_at);
    // It is a judgement of the sheet, and stands there once.
    let said = own.notes.iter().filter(|n| n.code == "spread");
    assert_eq!(said.count(), 1);
    // As the log itself says it, for the dose that it gave.
    let (made, card) = next(&r, own.yeast.percent);
    let met = log.chance_met(&made, &card, made.dough.total_hours());
    assert!((met - chance).abs() < 0.03, "{met} against {chance}");
    assert!(chance > 0.4 && chance < 0.98, "{chance}");
    // An hour that is too early is met less.
    r.formula.yeast.dose = Dose::Given {
        percent: 0.5 * own.yeast.percent,
    };
    assert!(work_out(&r).unwrap().by_log.unwrap().chance < 0.5 * chance);
}

/// A biga, planned by a log of a kitchen whose doughs run ahead.
fn biga_by_the_log() -> (SheetRequest, SheetResult) {
    let mut r = friday(style("hot_round"));
    r.formula.preferments = vec![Preferment::usual(PrefermentKind::Biga)];
    let book = work_out(&r).unwrap();
    let log = log(&r, book.yeast.percent);
    let (asked, card) = next(&r, book.yeast.percent);
    r.own = Some(Box::new(log.own(&asked, &card)));
    let own = work_out(&r).unwrap();
    let [here, there] = [&own, &book].map(|s| s.preferments[0].yeast_percent);
    assert!(here < 0.99 * there, "{here} against {there}");
    (r, own)
}

#[test]
fn a_bake_teaches_by_the_dose_that_its_biga_was_given() {
    let (request, planned) = biga_by_the_log();
    let happened = Happened::default();
    let q = AheadRequest {
        request: &request,
        planned: &planned,
        happened: &happened,
        now: planned.start_at,
        places: &[],
        doubts: Doubts::default(),
    };
    let given = planned.preferments[0].yeast_percent;
    for dough in [as_planned(&q).unwrap(), as_run(&q).unwrap().0] {
        let learned = dough.preferments[0].recipe.yeast_percent;
        assert!((learned / given - 1.0).abs() < 1e-9, "{learned} of {given}");
    }
    // The book beside the forecast is of the same grams, too, and what goes as planned is said as in the plan.
    let goes = from_now(&q).unwrap();
    let [then, planned] = [goes.by_log, planned.by_log].map(|l| l.unwrap().book.unwrap());
    let apart = then.from_at.duration_since(planned.from_at);
    assert!(apart.as_mins().abs() < 6, "{then:?} against {planned:?}");
}
