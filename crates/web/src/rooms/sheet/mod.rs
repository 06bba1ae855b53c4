//! The Dough sheet: a formula is asked for, worked out as one types, and kept: in the library, or as a batch.

mod again;
mod begun;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::batch::{lessons, load};
use crate::figures::{ShownAs, ShownSheet, paper};
use crate::formula_form::form::{FormulaForm, leaf_of, opened_from};
use crate::formula_form::{Bench, acts, opened, reading};
use crate::shared::changes::{SaidChange, said_changes};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use again::LastTime;
use askama::Template;
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact::Fact;
use craft::formula::Formula;
use craft::refusal::FieldError;
use craft::sheet::{SheetRequest, SheetResult};
use serde::Serialize;
use std::collections::HashMap;
use std::sync::Arc;
use store::batch::{self, KeptBatch, NewBatch, Origin};
use store::entry::{self, By};
use store::formula::{self, FormulaId, KeptFormula, NewVersion};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/dough/new", new)
        .get(LOOK, "/dough", || async { Redirect::to("/dough/new") })
        .post(PLAN, "/dough", keep)
        .get(LOOK, "/dough/look", || async { Redirect::to("/dough/new") })
        .post(LOOK, "/dough/look", look)
        .post(LOOK, "/dough/preview", preview)
        .post(LOOK, "/dough/print", print)
        .post(PLAN, "/formulas", keep_formula)
}

#[derive(Template)]
#[template(path = "rooms/sheet/page.html")]
struct SheetPage {
    frame: Frame,
    form: FormulaForm,
    shown: Option<ShownSheet>,
    /// Several things wrong are also said at the top, for those who do not see the fields.
    wrong: u32,
    /// A newer version exists than the one this sheet began from.
    /// What is wrong with no field in particular.
    said: Option<String>,
    stale: Option<Stale>,
    last_time: Option<LastTime>,
}

/// What somebody else did meanwhile.
struct Stale {
    id: u64,
    head: u32,
    changes: Vec<SaidChange>,
}

#[derive(Template)]
#[template(path = "rooms/sheet/ask.html")]
struct AskPage<'a> {
    form: &'a FormulaForm,
}

#[derive(Template)]
#[template(path = "rooms/sheet/fit.html")]
struct Fit<'a> {
    form: &'a FormulaForm,
}

#[derive(Template)]
#[template(path = "rooms/sheet/answer.html")]
struct SheetAnswer<'a> {
    shown: &'a Option<ShownSheet>,
    wrong: u32,
}

#[derive(Template)]
#[template(path = "rooms/sheet/figures.html")]
struct Figures<'a> {
    shown: &'a Option<ShownSheet>,
}

/// What a live recomputation returns.
#[derive(Serialize)]
struct SheetPreview {
    answer: String,
    /// Absent when something is wrong: the last figures stay, greyed.
    figures: Option<String>,
    strip: Option<String>,
    /// The form itself, when what was pressed made it another one.
    ask: Option<String>,
    /// What the form says of the blend and of the oven: it follows what is typed.
    blend_line: String,
    fit: String,
    errors: Vec<Wrong>,
}

/// A sentence with its field and the leaf that the field stands on.
#[derive(Serialize)]
struct Wrong {
    field: String,
    leaf: &'static str,
    message: String,
}

/// Reads the form and works the sheet out.
pub fn worked(
    typed: &FormData,
    bench: &Bench,
) -> Result<(reading::SheetForm, Arc<SheetResult>), Vec<FieldError>> {
    let sheet = reading::read(typed, bench.here, bench.larder.tools(bench.here))?;
    let result = bench
        .here
        .worked_out(&sheet.request)
        .map_err(reading::at_fields)?;
    Ok((sheet, result))
}

/// A form, worked out as far as it can be, with all that is wrong.
fn looked(
    typed: &FormData,
    bench: &Bench,
    pressed: Vec<FieldError>,
) -> (Option<ShownSheet>, Vec<FieldError>) {
    match worked(typed, bench) {
        Ok((sheet, result)) => {
            let mut shown = ShownSheet::of(&sheet.request, &result, bench.here, ShownAs::Draft)
                .priced(&sheet.request, &result, bench.here, bench.larder);
            shown.grams_error = pressed
                .iter()
                .find(|e| e.field.starts_with("g:"))
                .map(|e| bench.here.say(&e.message));
            (Some(shown), pressed)
        }
        Err(mut errors) => {
            errors.extend(pressed);
            (None, errors)
        }
    }
}

struct SheetDesk<'a> {
    bench: Bench<'a>,
    theme: Theme,
    /// Of a dough that is made again.
    last_time: Option<LastTime>,
}

impl<'a> SheetDesk<'a> {
    fn of(bench: Bench<'a>, theme: Theme) -> SheetDesk<'a> {
        SheetDesk {
            bench,
            theme,
            last_time: None,
        }
    }
    fn render(
        self,
        typed: &FormData,
        status: StatusCode,
        pressed: Vec<FieldError>,
        stale: Option<Stale>,
    ) -> Result<Response, AppError> {
        let (shown, errors) = looked(typed, &self.bench, pressed);
        let path = match opened_from(typed) {
            Some((id, number)) => format!("/dough/new?formula={id}&version={number}"),
            None => "/dough/new".into(),
        };
        let frame = Frame::of(
            self.bench.here,
            self.theme,
            Stop::Sheet,
            phrase("rise-dough-sheet"),
            None,
            &path,
        );
        let form = FormulaForm::of(typed, &errors, &self.bench);
        let html = page(&SheetPage {
            frame,
            form,
            shown,
            wrong: errors.len() as u32,
            said: errors
                .iter()
                .find(|e| e.field == "pressed")
                .map(|e| self.bench.here.say(&e.message)),
            stale,
            last_time: self.last_time,
        })?;
        let status = if errors.is_empty() {
            status
        } else {
            StatusCode::UNPROCESSABLE_ENTITY
        };
        Ok((status, html).into_response())
    }
}

async fn new(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let asked = |name: &str| query.get(name).map_or("", String::as_str);
    let mut last_time = None;
    let mut typed = match asked("formula").parse() {
        Ok(id) => {
            let mut db = app.db.acquire().await?;
            let number = asked("version").parse().ok();
            let v = formula::version(&mut db, here.id(), FormulaId(id), number)
                .await?
                .ok_or_else(|| AppError::NoFormula(id.to_string()))?;
            opened(&v.formula, Some(&v.name), Some((id, v.number)), &here)
        }
        Err(_) if !asked("batch").is_empty() => {
            let told = load::told(&app, &here, asked("batch")).await?;
            let b = &told.batch;
            let mut db = app.db.acquire().await?;
            let first = batch::first_asked(&mut db, here.id(), b.id, &b.code).await?;
            let mut typed = opened(&again::formula(&told, first), Some(&b.name), None, &here);
            let measured = !asked("measured").is_empty();
            last_time = again::last_time(&told, &mut typed, measured, &here);
            typed
        }
        Err(_) => {
            let style = larder.style(asked("style"));
            let style = style.as_ref().unwrap_or(larder.usual_style());
            opened(&Formula::of_style(style), None, None, &here)
        }
    };
    for kept in ["name", "serve_date", "serve_time"] {
        if let Some(v) = query.get(kept).filter(|v| !v.is_empty()) {
            typed.set(kept, v.clone());
        }
    }
    larder.enliven(&mut typed);
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let style = reading::style_of(&typed);
    acts::sensible_oven(&mut typed, &style, &bench);
    let asked = SheetDesk {
        last_time,
        ..SheetDesk::of(bench, theme)
    };
    let render = || asked.render(&typed, StatusCode::OK, vec![], None);
    app.models.at_length(render).await?
}

/// Works a form out without keeping it, after what was pressed.
async fn look(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let mut typed = FormData::parse(&body);
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let work = || {
        let pressed = acts::press(&mut typed, &bench).err().unwrap_or_default();
        SheetDesk::of(bench, theme).render(&typed, StatusCode::OK, pressed, None)
    };
    app.models.at_length(work).await?
}

async fn preview(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Json<SheetPreview>, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    app.models
        .at_length(|| previewed(&here, &larder, &body))
        .await?
}

fn previewed(
    here: &RequestKitchen,
    larder: &Larder,
    body: &[u8],
) -> Result<Json<SheetPreview>, AppError> {
    let mut typed = FormData::parse(body);
    let bench = Bench { here, larder };
    let wants_form = typed.has("want_form");
    typed.forget("want_form");
    let (changed, pressed) = match acts::press(&mut typed, &bench) {
        Ok(changed) => (changed, vec![]),
        Err(e) => (false, e),
    };
    let (shown, errors) = looked(&typed, &bench, pressed);
    let form = FormulaForm::of(&typed, &errors, &bench);
    let ask = (changed || wants_form)
        .then(|| AskPage { form: &form }.render())
        .transpose()?;
    Ok(Json(SheetPreview {
        answer: SheetAnswer {
            shown: &shown,
            wrong: errors.len() as u32,
        }
        .render()?,
        figures: (shown.is_some() && errors.is_empty())
            .then(|| Figures { shown: &shown }.render())
            .transpose()?,
        strip: shown.as_ref().map(|s| s.strip.clone()),
        ask,
        fit: Fit { form: &form }.render()?,
        blend_line: form.blend_line,
        errors: errors
            .into_iter()
            .map(|e| Wrong {
                leaf: leaf_of(&e.field),
                field: e.field,
                message: here.say(&e.message),
            })
            .collect(),
    }))
}

/// Keeps the sheet as a batch. A second save of the same form leads to the batch of the first; another dough under the
/// same form is not kept for it, and the page says so.
async fn keep(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let mut typed = FormData::parse(&body);
    let larder = lessons::larder(&app, &here).await?;
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let Ok((sheet, result)) = app.models.at_length(|| worked(&typed, &bench)).await? else {
        // A form kept a minute ago may by now lack the time that it had.
        if let Some(code) = led(&app, &here, &typed).await? {
            return Ok(Redirect::to(&format!("/batches/{code}")).into_response());
        }
        let asked = SheetDesk::of(bench, theme);
        let render = || asked.render(&typed, StatusCode::UNPROCESSABLE_ENTITY, vec![], None);
        return app.models.at_length(render).await?;
    };
    let request = SheetRequest {
        now_at: None,
        ..sheet.request
    };
    let kept = store::act!(app.db, db => {
        let from = match opened_from(&typed) {
            Some((id, number)) => formula::version(db, here.id(), FormulaId(id), Some(number))
                .await?
                .map(|v| v.id),
            None => None,
        };
        let new = NewBatch {
            form_key: sheet.form_key,
            name: &sheet.name,
            request: &request,
            result: &result,
            origin: Origin::Maker,
            from,
        };
        let kept = batch::keep(db, here.author(), &new, here.now).await?;
        if let (KeptBatch::Done(code), Some(begun)) = (&kept, &sheet.begun)
            && let Some(id) = batch::id_of(db, here.id(), code).await?
        {
            for entry in begun::already(sheet.form_key, begun, &result) {
                entry::write(db, here.author(), id, &entry, here.now, By::Maker, entry::ANY).await?;
            }
        }
        Ok(kept)
    })?;
    let code = match kept {
        KeptBatch::Done(code) => code,
        KeptBatch::Other(code) => {
            typed.set("form_key", uuid::Uuid::new_v4().to_string());
            let other = FieldError {
                field: "pressed".into(),
                message: Fact::as_written(say!("sheet-this-page-was-kept-before", code = code)),
            };
            let asked = SheetDesk::of(bench, theme);
            let render = || asked.render(&typed, StatusCode::CONFLICT, vec![other], None);
            let mut answer = app.models.at_length(render).await??;
            *answer.status_mut() = StatusCode::CONFLICT;
            return Ok(answer);
        }
    };
    Ok(Redirect::to(&format!("/batches/{code}")).into_response())
}

/// The batch that a form was kept as.
async fn led(
    app: &App,
    here: &RequestKitchen,
    typed: &FormData,
) -> Result<Option<String>, AppError> {
    let Ok(key) = uuid::Uuid::parse_str(typed.text("form_key")) else {
        return Ok(None);
    };
    let mut db = app.db.acquire().await?;
    Ok(batch::by_form(&mut db, here.id(), key).await?)
}

/// The sheet on paper; a form that cannot be worked out comes back as it is.
async fn print(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let larder = lessons::larder(&app, &here).await?;
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let work = || match worked(&typed, &bench) {
        Ok((sheet, result)) => paper::page(&sheet.name, None, &sheet.request, &result, &here),
        Err(_) => SheetDesk::of(bench, theme).render(
            &typed,
            StatusCode::UNPROCESSABLE_ENTITY,
            vec![],
            None,
        ),
    };
    app.models.at_length(work).await?
}

/// What was changed, in so many letters.
const LONGEST_WHY: usize = 1000;

/// Keeps the formula in the library: the next version of the one it was opened from, or a new one.
async fn keep_formula(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let larder = lessons::larder(&app, &here).await?;
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let asked = SheetDesk::of(bench, theme);
    let mut r = crate::shared::form::FieldReader::new(&typed);
    let name = r.name("name", phrase("form-a-name"));
    let why = typed.text("why").to_string();
    let letters = why.chars().count();
    if letters > LONGEST_WHY {
        r.refuse(
            "why",
            say!(
                "sheet-up-to-letters-this-has",
                value = LONGEST_WHY,
                letters = letters
            ),
        );
    }
    let mut errors = r.errors;
    let read = reading::formula(&typed, &here);
    let f = match read {
        Ok(f) if errors.is_empty() => f,
        read => {
            if read.is_err() {
                // The page reads the form again and shows the same sentences.
                errors.clear();
            }
            let render = || asked.render(&typed, StatusCode::UNPROCESSABLE_ENTITY, errors, None);
            return app.models.at_length(render).await?;
        }
    };
    let of = opened_from(&typed).filter(|_| typed.text("as_new").is_empty());
    let new = NewVersion {
        form_key: uuid::Uuid::parse_str(typed.text("form_key"))
            .unwrap_or_else(|_| uuid::Uuid::new_v4()),
        name: &name,
        why: &why,
        formula: &f,
        of: of.map(|(id, n)| (FormulaId(id), n)),
        origin: Origin::Maker,
    };
    let kept = store::act!(app.db, db => {
        formula::keep(db, here.author(), &new, here.now).await
    })?;
    let stale = match kept {
        KeptFormula::Done { of, .. } => {
            return Ok(Redirect::to(&format!("/formulas/{}", of.0)).into_response());
        }
        KeptFormula::Other { of, number } => {
            let other = FieldError {
                field: "pressed".into(),
                message: Fact::as_written(say!(
                    "sheet-this-page-was-saved-before",
                    number = number,
                    of = of.0
                )),
            };
            let mut typed = typed.clone();
            typed.set("form_key", uuid::Uuid::new_v4().to_string());
            let render = || asked.render(&typed, StatusCode::CONFLICT, vec![other], None);
            let mut answer = app.models.at_length(render).await??;
            *answer.status_mut() = StatusCode::CONFLICT;
            return Ok(answer);
        }
        KeptFormula::Stale { head } => {
            let id = of.map_or(0, |(id, _)| id);
            let newer = {
                let mut db = app.db.acquire().await?;
                formula::version(&mut db, here.id(), FormulaId(id), None).await?
            };
            Stale {
                id,
                head,
                changes: newer.map_or(vec![], |v| {
                    said_changes(craft::formula::diff::changes(&v.formula, &f), &here)
                }),
            }
        }
    };
    let render = || asked.render(&typed, StatusCode::CONFLICT, vec![], Some(stale));
    app.models.at_length(render).await?
}
