//! The temperature series that drives a run: one entry per time step, with the responses of the dough at
//! that step. Where the temperatures come from (the place itself, or the heat pass) is decided here; the
//! kinetics never ask.
//!
//! Source: fermentation model, section 3.3 for the steps: 1 min for the first 3 h of every stage, then
//! 5 min, the last step of a stage shortened to fit.

use super::recipe::henry;
use super::request::{RiseRequest, Stage};
use super::responses::{ResponseTable, Responses};

/// Step lengths in hours: for the first three hours of a stage and after.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Grid {
    /// Step while temperatures change fast, h.
    pub fine_h: f64,
    /// Step while they rest, h.
    pub coarse_h: f64,
}

impl Grid {
    /// For every answer that is shown: 1 and 5 min.
    pub const STANDARD: Grid = Grid {
        fine_h: 1.0 / 60.0,
        coarse_h: 5.0 / 60.0,
    };
    /// For trials inside a search: 2 and 15 min stay within 0.1 % of the standard (section 9).
    pub const TRIAL: Grid = Grid {
        fine_h: 2.0 / 60.0,
        coarse_h: 15.0 / 60.0,
    };
    /// Nothing happens in a frozen dough.
    const FROZEN: Grid = Grid {
        fine_h: 1.0,
        coarse_h: 1.0,
    };
    const FINE_FOR_H: f64 = 3.0;
}

/// One time step.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeriesStep {
    /// Index into [`Series::stages`].
    pub stage: usize,
    /// Whether the stage begins with this step.
    pub first: bool,
    /// Length, h.
    pub hours: f64,
    /// Time at the end of the step, h since mixing.
    pub end_h: f64,
    /// Averages over the piece at the end of the step.
    pub responses: Responses,
    /// Mean of the piece, °C.
    pub mean_c: f64,
    /// Its core, °C.
    pub core_c: f64,
    /// Its surface, °C.
    pub surface_c: f64,
    /// Where it lies, °C.
    pub place_c: f64,
    /// Gas response in the core.
    pub core_gas: f64,
    /// What dissolves at the mean temperature, mmol per L of water and atm: found once for all trials.
    pub dissolves: f64,
}

/// All steps of a run.
#[derive(Debug, Clone, PartialEq)]
pub struct Series {
    /// The stages of the path.
    pub stages: Vec<Stage>,
    /// Step by step, from the end of mixing.
    pub steps: Vec<SeriesStep>,
    /// Steps up to the end of the plan; those after it prolong the last stage.
    pub planned: usize,
}

/// The empty steps of these stages, with the last one prolonged by `extra_h`.
pub(super) fn schedule(stages: &[Stage], grid: Grid, extra_h: f64) -> (Vec<SeriesStep>, usize) {
    let mut steps = Vec::new();
    let mut before_h = 0.0;
    for (i, stage) in stages.iter().enumerate() {
        let grid = if stage.is_frozen() {
            Grid::FROZEN
        } else {
            grid
        };
        fill(&mut steps, i, before_h, 0.0, stage.hours, grid);
        before_h += stage.hours;
    }
    let planned = steps.len();
    if extra_h > 0.0
        && let Some(last) = stages.last()
    {
        let start = before_h - last.hours;
        fill(
            &mut steps,
            stages.len() - 1,
            start,
            last.hours,
            last.hours + extra_h,
            grid,
        );
    }
    (steps, planned)
}

fn fill(
    steps: &mut Vec<SeriesStep>,
    stage: usize,
    start_h: f64,
    from_h: f64,
    to_h: f64,
    grid: Grid,
) {
    let mut t = from_h;
    while to_h - t > 1e-9 {
        let dt = if t < Grid::FINE_FOR_H - 1e-9 {
            grid.fine_h
        } else {
            grid.coarse_h
        };
        let dt = dt.min(to_h - t);
        steps.push(SeriesStep {
            stage,
            first: t == 0.0,
            hours: dt,
            end_h: start_h + t + dt,
            responses: Responses::default(),
            mean_c: 0.0,
            core_c: 0.0,
            surface_c: 0.0,
            place_c: 0.0,
            core_gas: 0.0,
            dissolves: 0.0,
        });
        t += dt;
    }
}

/// The dough at the temperature of its place, at once: an upper bound of how fast it can follow.
pub fn at_place(r: &RiseRequest, table: &ResponseTable, grid: Grid, extra_h: f64) -> Series {
    let stages = r.lasting_stages();
    let (mut steps, planned) = schedule(&stages, grid, extra_h);
    for step in &mut steps {
        let t = stages[step.stage].place_at(r.start_clock_h + step.end_h);
        (step.mean_c, step.core_c, step.surface_c, step.place_c) = (t, t, t, t);
        step.dissolves = henry(t);
        if stages[step.stage].is_frozen() {
            continue;
        }
        let answers = table.at(t);
        step.responses = answers;
        step.core_gas = answers.gas;
    }
    Series {
        stages,
        steps,
        planned,
    }
}
