//! A form of Rise, worked out: the plan, how sure it is, and for a batch under way the forecast from now on.

use crate::batch::BatchRecord;
use crate::batch::forecast::{ahead, doubts, replanned};
use crate::formula_form::Bench;
use crate::formula_form::reading;
use crate::shared::form::FormData;
use craft::refusal::FieldError;
use craft::sheet::ahead::Ahead;
use craft::sheet::{SheetRequest, SheetResult, Sure};

/// What was worked out.
pub struct Worked {
    pub request: SheetRequest,
    /// The plan, with the forecast from now on in it where the dough is mixed.
    pub sheet: SheetResult,
    pub sure: Option<Sure>,
    pub ahead: Option<Ahead>,
}

pub struct LookedAhead<'a> {
    pub typed: &'a FormData,
    pub told: Option<&'a BatchRecord>,
    pub worked: Option<Worked>,
    pub errors: Vec<FieldError>,
}

/// The request of a form. A batch under way is not refused for being late, and keeps the dose that went into it.
pub fn request(
    typed: &FormData,
    bench: &Bench,
    told: Option<&BatchRecord>,
) -> Result<SheetRequest, Vec<FieldError>> {
    let mut r = reading::read(typed, bench.here, bench.larder.tools(bench.here))?.request;
    if let Some(t) = told {
        r.now_at = None;
        // As it was planned: what is learned later changes nothing that was made before.
        r.own = t.batch.sheet.request.own.clone();
        // The fire is planned on its own page: hours that move leave it as it is.
        r.fire = t.batch.sheet.request.fire.clone();
        if t.is_mixed() {
            r.formula = t.as_mixed(r.formula);
            r = r.begun_as(&t.batch.sheet.request);
        }
    }
    Ok(r)
}

impl<'a> LookedAhead<'a> {
    pub fn of(
        typed: &'a FormData,
        bench: &Bench,
        told: Option<&'a BatchRecord>,
        pressed: &[FieldError],
    ) -> LookedAhead<'a> {
        let mut out = LookedAhead {
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

fn worked(
    typed: &FormData,
    bench: &Bench,
    told: Option<&BatchRecord>,
) -> Result<Worked, Vec<FieldError>> {
    let request = request(typed, bench, told)?;
    if let Some(t) = told.filter(|t| t.is_under_way(bench.here.now)) {
        let planned = replanned(t, &request).map_err(reading::at_fields)?;
        let places = bench.larder.places();
        let ahead =
            ahead(t, &request, &planned, bench.here, &places).map_err(reading::at_fields)?;
        return Ok(Worked {
            sheet: planned.as_it_goes(&ahead),
            sure: ahead.sure.clone(),
            ahead: Some(ahead),
            request,
        });
    }
    let (sheet, sure) = bench
        .here
        .worked_out_surely(&request, &doubts(bench.here))
        .map_err(reading::at_fields)?;
    Ok(Worked {
        request,
        sheet,
        sure,
        ahead: None,
    })
}
