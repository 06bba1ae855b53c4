//! A form of Rise, worked out: the plan, how sure it is, and for a batch under way the forecast from now on.

use crate::rooms::sheet::acts::Bench;
use crate::rooms::sheet::reading;
use crate::shared::form::Typed;
use crate::shared::kitchen::Here;
use crate::shared::larder::Larder;
use crate::shared::progress::Told;
use craft::formula::Dose;
use craft::refusal::FieldError;
use craft::rise::Doubts;
use craft::sheet::ahead::{Ahead, Asked, from_now};
use craft::sheet::{SheetRequest, SheetResult, Sure, carry_numbers, work_out, work_out_surely};
use store::entry::Went;

/// How far off the kitchen's temperatures may be.
pub fn doubts(bench: &Bench) -> Doubts {
    let rhythm = &bench.here.kitchen.rhythm;
    Doubts {
        fridge_c: rhythm.fridge_off_c,
        room_c: rhythm.room_off_c,
        ..Doubts::default()
    }
}

/// What was worked out.
pub struct Worked {
    pub request: SheetRequest,
    /// The plan, with the forecast from now on in it where the dough is mixed.
    pub sheet: SheetResult,
    pub sure: Option<Sure>,
    pub ahead: Option<Ahead>,
}

pub struct Looked<'a> {
    pub typed: &'a Typed,
    pub told: Option<&'a Told>,
    pub worked: Option<Worked>,
    pub errors: Vec<FieldError>,
}

/// The request of a form. A batch under way is not refused for being late, and keeps the dose that went into it.
pub fn request(
    typed: &Typed,
    bench: &Bench,
    told: Option<&Told>,
) -> Result<SheetRequest, Vec<FieldError>> {
    let mut r = reading::read(typed, bench.here, bench.larder.scales(bench.here))?.request;
    if let Some(t) = told {
        r.now_at = None;
        // The fire is planned on its own page: hours that move leave it as it is.
        r.fire = t.batch.sheet.request.fire.clone();
        if t.is_mixed() {
            r.formula.yeast.dose = match t.batch.sheet.result.yeast.percent {
                p if p > 0.0 => Dose::Given { percent: p },
                _ => Dose::None,
            };
        }
    }
    Ok(r)
}

/// The plan of a batch for a request, its steps numbered as before.
pub fn replanned(told: &Told, r: &SheetRequest) -> Result<SheetResult, Vec<FieldError>> {
    let mut result = work_out(r).map_err(reading::at_fields)?;
    carry_numbers(&told.batch.sheet.result.steps, &mut result.steps);
    Ok(result)
}

/// The forecast of a batch from now on by a plan.
pub fn ahead(
    told: &Told,
    r: &SheetRequest,
    planned: &SheetResult,
    bench: &Bench,
) -> Result<Ahead, Vec<FieldError>> {
    // What is still to do falls into the hours of today.
    let request = SheetRequest {
        life: bench.here.kitchen.rhythm.life.clone(),
        ..r.clone()
    };
    from_now(&Asked {
        request: &request,
        planned,
        happened: &told.happened(),
        // One that was closed before its forecast was kept goes on no further than that.
        now: told.batch.finished_at.unwrap_or(bench.here.now),
        places: &bench.larder.places(),
        doubts: doubts(bench),
    })
    .map_err(reading::at_fields)
}

impl<'a> Looked<'a> {
    pub fn of(
        typed: &'a Typed,
        bench: &Bench,
        told: Option<&'a Told>,
        pressed: &[FieldError],
    ) -> Looked<'a> {
        let mut out = Looked {
            typed,
            told,
            worked: None,
            errors: pressed.to_vec(),
        };
        match worked(typed, bench, told) {
            Ok(w) => out.worked = Some(w),
            Err(e) => out.errors.extend(e),
        }
        out
    }
}

fn worked(typed: &Typed, bench: &Bench, told: Option<&Told>) -> Result<Worked, Vec<FieldError>> {
    let request = request(typed, bench, told)?;
    if let Some(t) = told.filter(|t| t.is_under_way(bench.here.now)) {
        let planned = replanned(t, &request)?;
        let ahead = ahead(t, &request, &planned, bench)?;
        return Ok(Worked {
            sheet: planned.as_it_goes(&ahead),
            sure: ahead.sure.clone(),
            ahead: Some(ahead),
            request,
        });
    }
    let (sheet, sure) = work_out_surely(&request, &doubts(bench)).map_err(reading::at_fields)?;
    Ok(Worked {
        request,
        sheet,
        sure,
        ahead: None,
    })
}

/// A batch as it stands now: its plan, with the forecast from now on in it once anything of it began or should have begun. One that cannot be
/// followed shows its plan.
pub fn forecast(told: &Told, here: &Here, larder: &Larder) -> SheetResult {
    let sheet = &told.batch.sheet;
    if let Some(went) = told.went() {
        return SheetResult {
            mixed_at: went.mixed_at,
            window: went.window,
            rise_at_serve: went.rise_at_serve,
            reserve_at_serve: went.reserve_at_serve,
            label_at_serve: went.label_at_serve,
            clocks: went.clocks.clone(),
            // It is over: nothing is left to judge but its bake.
            notes: vec![],
            ..sheet.result.clone()
        };
    }
    if !told.is_under_way(here.now) {
        return sheet.result.clone();
    }
    let bench = Bench { here, larder };
    match ahead(told, &sheet.request, &sheet.result, &bench) {
        Ok(a) => sheet.result.as_it_goes(&a),
        Err(_) => sheet.result.clone(),
    }
}

/// How a batch went by now, to be kept when it is closed.
pub fn went(told: &Told, here: &Here) -> Went {
    let goes = forecast(told, here, &Larder::default());
    Went {
        mixed_at: goes.mixed_at,
        window: goes.window,
        rise_at_serve: goes.rise_at_serve,
        reserve_at_serve: goes.reserve_at_serve,
        label_at_serve: goes.label_at_serve,
        clocks: goes.clocks,
    }
}
