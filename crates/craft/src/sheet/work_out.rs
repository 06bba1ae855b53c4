//! How a sheet is worked out: preferments, grams, water, dose, window, steps, judgements.

use super::{
    ByLog, FridgeKnown, PrefermentPlan, ReadyWindow, SheetRequest, SheetResult, Sure, clocks,
    judge, no_fridge, raise, stages, steps, too_near,
};
use crate::formula::{Doses, weigh};
use crate::note::by_urgency;
use crate::refusal::ValidationError;
use crate::rise::{Doubts, PrefermentRuns, RiseRequest, Temperatures, hand_overs};

/// Works a sheet out.
///
/// Errors: [`ValidationError`] with the fields outside their ranges, or with `serve_at` when the time is too short.
///
/// ```
/// use craft::formula::Scales;
/// use craft::sheet::{KitchenUsual, SheetRequest, StepKind, work_out};
///
/// let kitchen = KitchenUsual {
///     time_zone: "Europe/London".into(),
///     altitude_m: 0.0,
///     room_c: 20.0,
///     fridge_c: 4.0,
///     tap_water_c: 12.0,
///     scales: Scales::default(),
/// };
/// let friday = "2026-11-27T19:00:00Z".parse().unwrap();
/// let round = craft::style::by_key("hot_round").unwrap();
/// let sheet = work_out(&SheetRequest::of_style(round, &kitchen, friday)).unwrap();
/// assert!(sheet.window.unwrap().holds(friday));
/// assert_eq!(sheet.steps.first().unwrap().kind, StepKind::Mix);
/// assert_eq!(sheet.steps.last().unwrap().at, friday);
/// ```
pub fn work_out(r: &SheetRequest) -> Result<SheetResult, ValidationError> {
    work_out_with(r, &PrefermentRuns::default())
}

/// The same, with the preferments that were run before: while a maker changes the dough, they stay as they are.
///
/// Errors: as [`work_out`].
pub fn work_out_with(
    r: &SheetRequest,
    runs: &PrefermentRuns,
) -> Result<SheetResult, ValidationError> {
    Ok(by_the_log(r, work_out_whole(r, runs)?, runs).0)
}

/// The same, with the dough as the rise model took it, its yeast in.
pub(crate) fn work_out_whole(
    r: &SheetRequest,
    runs: &PrefermentRuns,
) -> Result<(SheetResult, RiseRequest), ValidationError> {
    r.check()?;
    let zone = r.zone()?;
    no_fridge::refuse(r, runs, |proper| work_out_whole(proper, runs).ok())?;
    let mut doses = Doses::stated(&r.formula);
    let bare = weigh(&r.formula, &r.scales, &doses).map_err(in_formula)?;
    let dough_c = r.water(&bare)?.dough_c;
    let raised = raise::preferments(r, &bare, &mut doses, runs)?;
    let dough = raise::dough(r, &bare, &raised, dough_c.clamp(0.0, 40.0), &zone);
    too_near::refuse(r, &dough, &zone)?;
    let (yeast, rise, alone) = raise::yeast(r, &dough, runs)?;
    doses.dough = yeast.percent;
    let mut formula = weigh(&r.formula, &r.scales, &doses).map_err(in_formula)?;
    // Once more with the yeast in: the water of the steps is the water of the sheet.
    let mut bowl = r.water(&formula)?;
    let mixed_at = r.mixed_at();
    let window = rise.window.map(|w| ReadyWindow::of(&w, mixed_at));
    let mut notes = std::mem::take(&mut formula.notes);
    notes.append(&mut bowl.notes);
    notes.extend(raise::notes(r, &raised, alone));
    notes.extend(crate::style::topping::notes(
        &r.formula.toppings,
        r.programme().out_s,
    ));
    // The second dose takes its part of the dough: what a preferment is poured is of the final weights, too.
    let poured = |(i, p): (usize, raise::Raised)| PrefermentPlan {
        water: raise::water_of(r, &formula, i),
        ..p.plan
    };
    let preferments: Vec<PrefermentPlan> = raised.into_iter().enumerate().map(poured).collect();
    let mut out = SheetResult {
        start_at: r.start_at(),
        mixed_at,
        steps: steps::steps(r, &formula, &bowl, &rise, &preferments),
        blocks: stages::blocks(r),
        window,
        rise_at_serve: 100.0 * rise.at_bake.ripeness,
        reserve_at_serve: 100.0 * rise.at_bake.reserve,
        label_at_serve: rise.at_bake.label,
        by_log: None,
        clocks: clocks(&rise),
        programme: r.programme().clone(),
        preferments,
        notes: vec![],
        formula,
        yeast,
        water: bowl,
    };
    notes.extend(judge::notes(r, &out, &dough, &rise, &zone));
    out.notes = by_urgency(notes);
    let dough = RiseRequest {
        yeast_percent: out.yeast.percent,
        ..dough
    };
    Ok((out, dough))
}

/// Works a sheet out and says how sure its window is; `None` when it is never ready.
///
/// Errors: as [`work_out`].
pub fn work_out_surely(
    r: &SheetRequest,
    doubts: &Doubts,
    runs: &PrefermentRuns,
) -> Result<(SheetResult, Option<Sure>), ValidationError> {
    let (result, dough) = by_the_log(r, work_out_whole(r, runs)?, runs);
    let handed = hand_overs(&dough, Temperatures::InsideTheDough, runs);
    let fridge = FridgeKnown {
        c: r.fridge_c,
        off_k: doubts.fridge_k,
        was_read: false,
    };
    let sure = result
        .window
        .and_then(|w| Sure::asked(r, (&dough, &handed), doubts, &w, fridge));
    Ok((result, sure))
}

/// A plan with what the log says of it, and when the same dough would be ready by the book.
fn by_the_log(
    r: &SheetRequest,
    (mut planned, dough): (SheetResult, RiseRequest),
    runs: &PrefermentRuns,
) -> (SheetResult, RiseRequest) {
    if r.own.is_none() {
        return (planned, dough);
    }
    let handed = hand_overs(&dough, Temperatures::InsideTheDough, runs);
    let mut same = r.by_the_book();
    same.formula = planned.weighed(same.formula);
    let book = || work_out_whole(&same, runs).ok()?.0.window;
    let ran = (&dough, handed.as_slice());
    planned.by_log = ByLog::of(r, ran, planned.mixed_at, planned.window, book);
    // How sure it is stands before what follows from it.
    let mut notes = Vec::from_iter(planned.by_log.and_then(|l| l.note()));
    notes.append(&mut planned.notes);
    planned.notes = by_urgency(notes);
    (planned, dough)
}

/// A refusal of the formula, at its place in the sheet's request.
fn in_formula(refused: ValidationError) -> ValidationError {
    refused.below("formula")
}
