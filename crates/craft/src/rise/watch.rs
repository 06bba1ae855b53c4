//! A run as learning reads it: every quantity that a maker's eye judges, step by step, in a kitchen that may depart from
//! the book. Source: learning, sections 2.1 and 2.2.

use super::forecast::{
    HandOver, PASSES_SMALL, Temperatures, Trace, preferment_of, prolongation_h, trace_on,
};
use super::kinetics::{Kinetics, MATURE_SHARE};
use super::request::{DoughKind, RiseRequest};
use super::series::Grid;

/// One moment of a run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct WatchedMoment {
    /// Hours since the end of mixing.
    pub hours: f64,
    /// Ripeness by the gas of the dose.
    pub dose: f64,
    /// Ripeness by the gas in the piece.
    pub piece: f64,
    /// Maturation against what the gluten needs.
    pub matured: f64,
    /// Rest since the last shaping against what relaxing needs.
    pub relaxed: f64,
    /// Gluten reserve, 1 falling to 0 and below.
    pub reserve: f64,
    /// Against just mixed.
    pub volume: f64,
    /// Index of acid.
    pub acid: f64,
    /// The piece's gas against full rise, and the same with what it wanted.
    pub inflation: f64,
    /// See `inflation`.
    pub wanted: f64,
    /// Sugar that yeast can take, mmol per kg flour.
    pub sugar: f64,
    /// Sugar still bound, mmol per kg flour.
    pub bound_sugar: f64,
}

/// A whole run, with the time of its last shaping.
pub(crate) struct Watch {
    /// What it is.
    pub kind: DoughKind,
    /// Step by step.
    pub moments: Vec<WatchedMoment>,
    /// Hours at which it was last shaped; 0 when it never was.
    pub shaped_h: f64,
}

fn run(r: &RiseRequest, k: &Kinetics, extra_h: f64) -> Trace {
    trace_on(
        r,
        k,
        Temperatures::InsideTheDough,
        Grid::TRIAL,
        PASSES_SMALL,
        extra_h,
    )
}

/// The preferments of a request, each run to its end on the grid of trials.
pub(crate) fn quick_hand_overs(r: &RiseRequest) -> Vec<HandOver> {
    r.preferments
        .iter()
        .map(|p| {
            let recipe = preferment_of(r, p);
            let k = Kinetics::new(&recipe, &[]);
            let mut t = run(&recipe, &k, 0.0);
            let (end, last) = t
                .seen
                .pop()
                .expect("a checked request lasts at least a step");
            k.hand_over(&recipe, p.flour_fraction, end, last)
        })
        .collect()
}

/// Runs a request to `until_h` or its end, whichever is later.
pub(crate) fn watch(r: &RiseRequest, until_h: f64) -> Watch {
    let k = Kinetics::new(r, &quick_hand_overs(r));
    let trace = run(r, &k, (until_h - r.total_hours()).max(0.0));
    let steps = &trace.series.steps;
    let moments = steps
        .iter()
        .zip(&trace.seen)
        .map(|(step, (s, m))| WatchedMoment {
            hours: step.end_h,
            dose: m.ripeness.dose,
            piece: m.ripeness.piece,
            matured: s.matured_h / (MATURE_SHARE * k.recipe.capacity_h(s.folds)),
            relaxed: s.matured_since_shaping_h / k.recipe.relax_h,
            reserve: m.reserve,
            volume: m.volume,
            acid: s.acid,
            inflation: s.piece / k.recipe.c_dose,
            wanted: (s.piece + s.starved) / k.recipe.c_dose,
            sugar: s.sugar,
            bound_sugar: s.bound_sugar,
        })
        .collect();
    let shaped = steps
        .iter()
        .rfind(|s| s.first && trace.series.stages[s.stage].event.shapes());
    Watch {
        kind: r.kind,
        moments,
        shaped_h: shaped.map_or(0.0, |s| s.end_h - s.hours),
    }
}

/// How far a window is looked for beyond the plan's end, h.
pub(crate) fn looks_beyond_h(r: &RiseRequest) -> f64 {
    r.lasting_stages().last().map_or(0.0, prolongation_h)
}
