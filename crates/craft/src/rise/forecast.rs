//! A whole run: heat and kinetics in turn, the points of its curves, the ready window, the handling notes.
//!
//! Question: how does this dough rise and mature over its stages, and from when to when is it ready?
//! Source: fermentation model, sections 6.5, 7.1 and 11.

use super::answer::{PrefermentEnd, RisePoint, RiseResult, Shuts, Window};
use super::heat;
use super::judge;
pub(crate) use super::kinetics::HandOver;
use super::kinetics::{Kinetics, RiseMoment, State};
use super::memo::PrefermentRuns;
use super::request::{RisePreferment, RiseRequest, Stage};
use super::ripeness::{AtBake, FAR_PAST, Label, READY, handling};
use super::series::{Grid, Series, at_place};
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// Heat and kinetics are iterated this often; two suffice below 5 kg (section 9).
const PASSES: usize = 3;
pub(super) const PASSES_SMALL: usize = 2;
const SMALL_G: f64 = 5000.0;

/// Where the dough's temperature comes from.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Temperatures {
    /// Conduction inside the piece, with its container and the air.
    #[default]
    InsideTheDough,
    /// The dough is at once as warm as its place.
    OfThePlace,
}

/// How far a forecast looks beyond the last stage: longer in the cold.
pub(super) fn prolongation_h(last: &Stage) -> f64 {
    if last.mean_place_c() > 10.0 {
        24.0
    } else {
        120.0
    }
}

/// Passes that the heat of fermentation needs to settle.
pub(super) fn passes(r: &RiseRequest) -> usize {
    let heaviest = r.stages.iter().map(|s| s.piece_g).fold(0.0, f64::max);
    if heaviest < SMALL_G {
        PASSES_SMALL
    } else {
        PASSES
    }
}

/// The temperature series of a dough, given the heat of a former pass.
pub(super) fn series(
    r: &RiseRequest,
    k: &Kinetics,
    from: Temperatures,
    grid: Grid,
    extra_h: f64,
    heat: &[f64],
) -> Series {
    match from {
        Temperatures::InsideTheDough => heat::inside(r, &k.recipe, &k.table, grid, extra_h, heat),
        Temperatures::OfThePlace => at_place(r, &k.table, grid, extra_h),
    }
}

/// A run with everything that was seen on the way.
pub(super) struct Trace {
    pub(super) series: Series,
    pub(super) seen: Vec<(State, RiseMoment)>,
}

fn trace(r: &RiseRequest, k: &Kinetics, from: Temperatures, passes: usize, extra_h: f64) -> Trace {
    trace_on(r, k, from, Grid::STANDARD, passes, extra_h)
}

pub(super) fn trace_on(
    r: &RiseRequest,
    k: &Kinetics,
    from: Temperatures,
    grid: Grid,
    passes: usize,
    extra_h: f64,
) -> Trace {
    let mut heat = Vec::new();
    for pass in 0..passes {
        let series = series(r, k, from, grid, extra_h, &heat);
        let steps = series.steps.len();
        if pass + 1 < passes && from == Temperatures::InsideTheDough {
            heat.clear();
            k.run(&series, steps, |_, _, m| heat.push(m.heat));
        } else {
            let mut seen = Vec::with_capacity(steps);
            k.run(&series, steps, |_, s, m| seen.push((s.clone(), m)));
            return Trace { series, seen };
        }
    }
    unreachable!("the last pass returns")
}

/// Runs the preferments of a request, each to its end, at the altitude of the dough.
pub(crate) fn hand_overs(
    r: &RiseRequest,
    from: Temperatures,
    runs: &PrefermentRuns,
) -> Vec<HandOver> {
    r.preferments
        .iter()
        .map(|p| {
            let recipe = preferment_of(r, p);
            let run = || hand_over(&recipe, p.flour_fraction, from);
            let question = serde_json::to_string(&(&recipe, p.flour_fraction, from));
            match question {
                Ok(q) => runs
                    .ends
                    .get(q, || Ok::<_, std::convert::Infallible>(run()))
                    .unwrap_or_else(|never| match never {}),
                Err(_) => run(),
            }
        })
        .collect()
}

/// A preferment as it goes at the altitude and in the kitchen of its dough.
pub(super) fn preferment_of(r: &RiseRequest, p: &RisePreferment) -> RiseRequest {
    RiseRequest {
        altitude_m: r.altitude_m,
        departs: r.departs.of_preferment(),
        ..p.recipe.clone()
    }
}

fn hand_over(recipe: &RiseRequest, flour_fraction: f64, from: Temperatures) -> HandOver {
    let k = Kinetics::new(recipe, &[]);
    let mut t = trace(recipe, &k, from, PASSES, 0.0);
    let (end, last) = t
        .seen
        .pop()
        .expect("a checked request lasts at least a step");
    k.hand_over(recipe, flour_fraction, end, last)
}

/// Forecasts a dough over its stages and beyond.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
///
/// ```
/// use craft::rise::{RiseRequest, Temperatures, forecast};
///
/// let dough: RiseRequest = serde_json::from_str(
///     r#"{"hydration_percent": 62, "salt_percent": 2.8, "flour_w": 300, "yeast_percent": 0.25, "dough_c": 23,
///         "stages": [
///           {"hours": 2, "piece_g": 1500, "shape": "bulk", "container": "tub", "air": "room", "place_c": 20},
///           {"hours": 24, "piece_g": 250, "shape": "ball", "container": "box", "air": "fridge", "place_c": 4, "event": "ball"},
///           {"hours": 4, "piece_g": 250, "shape": "ball", "container": "box", "air": "room", "place_c": 20}
///         ]}"#,
/// )?;
/// let rise = forecast(&dough, Temperatures::InsideTheDough).unwrap();
/// let window = rise.window.expect("it gets ready");
/// assert!(window.from_h < window.to_h.unwrap());
/// // A colder fridge never makes it ready sooner.
/// let mut colder = dough.clone();
/// colder.stages[1].place_c = Some(2.0);
/// let later = forecast(&colder, Temperatures::InsideTheDough).unwrap();
/// assert!(later.window.is_none_or(|w| w.from_h >= window.from_h));
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn forecast(r: &RiseRequest, from: Temperatures) -> Result<RiseResult, ValidationError> {
    forecast_with(r, from, &PrefermentRuns::default())
}

/// The same, with the preferments that were run before.
pub(crate) fn forecast_with(
    r: &RiseRequest,
    from: Temperatures,
    runs: &PrefermentRuns,
) -> Result<RiseResult, ValidationError> {
    r.check(true)?;
    Ok(foresee(r, from, &hand_overs(r, from, runs), Look::Beyond))
}

/// How far a forecast looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Look {
    /// To the end of the stages: enough to know how ripe it is there.
    ToTheEnd,
    /// Beyond, with the last stage prolonged: for the ready window.
    Beyond,
}

/// Forecasts a checked request whose preferments were run before.
pub(crate) fn foresee(
    r: &RiseRequest,
    from: Temperatures,
    handed: &[HandOver],
    look: Look,
) -> RiseResult {
    let k = Kinetics::new(r, handed);
    let stages = r.lasting_stages();
    let last_stage = stages
        .last()
        .expect("a checked request has a lasting stage");
    let extra_h = match look {
        Look::ToTheEnd => 0.0,
        Look::Beyond => prolongation_h(last_stage),
    };
    let t = trace(r, &k, from, passes(r), extra_h);
    let planned = t.series.planned;
    let points: Vec<RisePoint> = (0..t.seen.len()).map(|i| t.point(&k, i)).collect();
    let at_bake = points[planned - 1];
    let core_ratio = t.core_ratio(planned);
    let (end, moment) = &t.seen[planned - 1];
    let handling = handling(&AtBake {
        mature: moment.ripeness.mature,
        reserve: moment.reserve,
        hydration: r.hydration_percent,
        flour_w: r.flour_w,
        acid: end.acid,
        volume: moment.volume,
        ceiling: moment.ceiling,
        sugar: end.sugar,
        bound_sugar: end.bound_sugar,
        core_ratio,
    });
    let mut result = RiseResult {
        window: window(&t),
        points: thinned(&points[..planned]),
        beyond: thinned(&points[planned..]),
        at_bake,
        handling,
        core_ratio,
        gas_needed_mmol: k.recipe.c_dose,
        gas_needed_in_piece_mmol: k.recipe.c_piece,
        gluten_capacity_h: k.recipe.capacity_h(end.folds),
        preferments: handed.iter().map(preferment_end).collect(),
        notes: vec![],
    };
    result.notes = judge::of_forecast(&result);
    result
}

/// Passes of a trial: the heat of small pieces moves nothing that a trial could show.
fn trial_passes(r: &RiseRequest) -> usize {
    passes(r) - 1
}

/// The gas ripeness and the label at the end of a checked request, on the grid of trials.
pub(super) fn quick_end(r: &RiseRequest, from: Temperatures, handed: &[HandOver]) -> (f64, Label) {
    let k = Kinetics::new(r, handed);
    let t = trace_on(r, &k, from, Grid::TRIAL, passes(r), 0.0);
    t.seen
        .last()
        .map_or((0.0, Label::Young), |(_, m)| (m.ripeness.gas(), m.label))
}

/// The ready window of a checked request, on the grid of trials.
pub(crate) fn quick_window(
    r: &RiseRequest,
    from: Temperatures,
    handed: &[HandOver],
) -> Option<Window> {
    let k = Kinetics::new(r, handed);
    let extra_h = prolongation_h(r.lasting_stages().last()?);
    window(&trace_on(
        r,
        &k,
        from,
        Grid::TRIAL,
        trial_passes(r),
        extra_h,
    ))
}

/// Gas ripeness and volume of a checked request so many hours after mixing, the last stage prolonged where it must be.
pub(super) fn quick_at(
    r: &RiseRequest,
    from: Temperatures,
    handed: &[HandOver],
    at_h: f64,
) -> (f64, f64) {
    let k = Kinetics::new(r, handed);
    let extra_h = (at_h - r.total_hours()).max(0.0);
    let t = trace_on(r, &k, from, Grid::TRIAL, trial_passes(r), extra_h);
    let i = t
        .series
        .steps
        .iter()
        .position(|s| s.end_h >= at_h - 1e-6)
        .unwrap_or(t.seen.len().saturating_sub(1));
    let (_, m) = &t.seen[i];
    (m.ripeness.gas(), m.volume)
}

impl Trace {
    fn point(&self, k: &Kinetics, i: usize) -> RisePoint {
        let (step, (s, m)) = (&self.series.steps[i], &self.seen[i]);
        RisePoint {
            hours: step.end_h,
            core_c: step.core_c,
            mean_c: step.mean_c,
            surface_c: step.surface_c,
            place_c: step.place_c,
            yeast_fresh_percent: s.yeast + s.leaven,
            gas_made_mmol: s.made,
            volume: m.volume,
            volume_ceiling: m.ceiling,
            ripeness: m.ripeness.whole(),
            ripeness_dose: m.ripeness.dose,
            ripeness_piece: m.ripeness.piece,
            ripeness_mature: m.ripeness.mature,
            limiting: m.ripeness.limiting(),
            matured_h: s.matured_h,
            reserve: m.reserve,
            acid: s.acid,
            free_sugar_mmol: s.sugar,
            inflation: s.piece / k.recipe.c_dose,
            label: m.label,
        }
    }

    /// How far the core's gas runs ahead of the mean's.
    fn core_ratio(&self, steps: usize) -> f64 {
        let (mut core, mut mean) = (0.0, 0.0);
        for s in &self.series.steps[..steps] {
            core += s.core_gas * s.hours;
            mean += s.responses.gas * s.hours;
        }
        if mean > 0.0 { core / mean } else { 1.0 }
    }
}

/// Section 7.1: from the last shaping on, the first step that is ready to the first that is past it.
fn window(t: &Trace) -> Option<Window> {
    let shaped = t
        .series
        .steps
        .iter()
        .rposition(|s| s.first && t.series.stages[s.stage].event.shapes())
        .unwrap_or(0);
    let from = (shaped..t.seen.len()).find(|&i| t.seen[i].1.ripeness.whole() >= READY)?;
    if t.seen[from].1.label.is_past() {
        return None;
    }
    let to = (from..t.seen.len()).find(|&i| t.seen[i].1.label.is_past());
    // The step before was still held back by something; at the very first there is none.
    let opens_by = t.seen[from.saturating_sub(1).max(shaped)]
        .1
        .ripeness
        .limiting();
    let shuts_by = match to {
        Some(i) if t.seen[i].1.reserve < 0.0 => Shuts::Gluten,
        Some(i) if t.seen[i].1.is_starved => Shuts::Sugar,
        _ => Shuts::Gas,
    };
    let far = (from..t.seen.len()).find(|&i| t.seen[i].1.ripeness.whole() >= FAR_PAST);
    Some(Window {
        far_h: far.map(|i| t.series.steps[i].end_h),
        opens_by,
        shuts_by,
        from_h: t.series.steps[from].end_h,
        to_h: to.map(|i| t.series.steps[i].end_h),
        looked_to_h: t.series.steps.last().map_or(0.0, |s| s.end_h),
    })
}

/// The first point at or after each ten-minute mark, and always the last point.
fn thinned(points: &[RisePoint]) -> Vec<RisePoint> {
    let mark = |p: &RisePoint| (p.hours * 6.0 + 1e-6).floor();
    let mut kept: Vec<RisePoint> = Vec::new();
    for (i, p) in points.iter().enumerate() {
        let due = kept.last().is_none_or(|l| mark(p) > mark(l));
        if due || i + 1 == points.len() {
            kept.push(*p);
        }
    }
    kept
}

fn preferment_end(h: &HandOver) -> PrefermentEnd {
    PrefermentEnd {
        kind: h.kind,
        ripeness: h.gas_ripeness,
        yeast_fresh_percent: h.end.yeast,
        leaven_fresh_percent: h.end.leaven,
        acid: h.end.acid,
        matured_h: h.end.matured_h,
        free_sugar_mmol: h.end.sugar,
        bound_sugar_mmol: h.end.bound_sugar,
        dissolved_mmol: h.dissolved,
        volume: h.volume,
    }
}
