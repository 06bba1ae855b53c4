//! The Dough sheet: a dough is asked for, worked out as one types, and kept as a batch.

pub mod fields;
pub mod reading;
pub mod view;

use crate::App;
use crate::shared::error::Trouble;
use crate::shared::form::Typed;
use crate::shared::kitchen::Here;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use axum::routing::{get, post};
use axum::{Json, Router};
use craft::refusal::FieldError;
use craft::sheet::{SheetRequest, SheetResult, work_out};
use craft::style::StyleKey;
use serde::Serialize;
use std::collections::HashMap;
use store::batch::{self, NewBatch, Origin};
use view::{Form, Shown};

pub fn routes() -> Router<App> {
    Router::new()
        .route("/dough/new", get(new))
        .route(
            "/dough",
            get(|| async { Redirect::to("/dough/new") }).post(keep),
        )
        .route(
            "/dough/look",
            get(|| async { Redirect::to("/dough/new") }).post(look),
        )
        .route("/dough/preview", post(preview))
}

#[derive(Template)]
#[template(path = "rooms/sheet/page.html")]
struct Page {
    frame: Frame,
    form: Form,
    shown: Option<Shown>,
    /// Several things wrong are also said at the top, for those who do not see the fields.
    wrong: u32,
}

#[derive(Template)]
#[template(path = "rooms/sheet/answer.html")]
struct Answer<'a> {
    shown: &'a Option<Shown>,
    wrong: u32,
}

#[derive(Template)]
#[template(path = "rooms/sheet/figures.html")]
struct Figures<'a> {
    shown: &'a Option<Shown>,
}

/// What a live recomputation returns.
#[derive(Serialize)]
struct Preview {
    answer: String,
    /// Absent when something is wrong: the last figures stay, greyed.
    figures: Option<String>,
    strip: Option<String>,
    errors: Vec<FieldError>,
}

/// Reads the form and works the sheet out.
fn worked(typed: &Typed, here: &Here) -> Result<(reading::Sheet, SheetResult), Vec<FieldError>> {
    let sheet = reading::read(typed, here)?;
    let result = work_out(&sheet.request).map_err(reading::at_fields)?;
    Ok((sheet, result))
}

fn render(
    typed: &Typed,
    here: &Here,
    theme: Theme,
    status: StatusCode,
) -> Result<Response, Trouble> {
    let (shown, errors) = match worked(typed, here) {
        Ok((sheet, result)) => (
            Some(Shown::of(&sheet.request, &result, here, false)),
            vec![],
        ),
        Err(errors) => (None, errors),
    };
    let frame = Frame::of(here, theme, Stop::Sheet, "Dough sheet", None, "/dough/new");
    let form = Form::of(typed, &errors, here);
    let html = page(&Page {
        frame,
        form,
        shown,
        wrong: errors.len() as u32,
    })?;
    let status = if errors.is_empty() {
        status
    } else {
        StatusCode::UNPROCESSABLE_ENTITY
    };
    Ok((status, html).into_response())
}

async fn new(
    here: Here,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, Trouble> {
    let style = query
        .get("style")
        .and_then(|s| StyleKey::from_key(s))
        .unwrap_or(StyleKey::HotRound);
    let mut typed = reading::sensible(style, &here);
    for kept in ["name", "serve_date", "serve_time"] {
        if let Some(v) = query.get(kept).filter(|v| !v.is_empty()) {
            typed.set(kept, v.clone());
        }
    }
    render(&typed, &here, theme, StatusCode::OK)
}

/// Works a form out without keeping it; a remedy's button sets its field first.
async fn look(here: Here, theme: Theme, body: Bytes) -> Result<Response, Trouble> {
    let mut typed = Typed::parse(&body);
    if let Some((field, value)) = typed
        .text("set")
        .split_once('=')
        .map(|(f, v)| (f.to_string(), v.to_string()))
    {
        typed.set(&field, value);
    }
    render(&typed, &here, theme, StatusCode::OK)
}

async fn preview(here: Here, body: Bytes) -> Result<Json<Preview>, Trouble> {
    let (shown, errors) = match worked(&Typed::parse(&body), &here) {
        Ok((sheet, result)) => (
            Some(Shown::of(&sheet.request, &result, &here, false)),
            vec![],
        ),
        Err(errors) => (None, errors),
    };
    Ok(Json(Preview {
        answer: Answer {
            shown: &shown,
            wrong: errors.len() as u32,
        }
        .render()?,
        figures: shown
            .is_some()
            .then(|| Figures { shown: &shown }.render())
            .transpose()?,
        strip: shown.as_ref().map(|s| s.strip.clone()),
        errors,
    }))
}

/// Keeps the sheet as a batch. A second save of the same form leads to the batch of the first.
async fn keep(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let mut db = app.db.acquire().await?;
    // Before judging: a form kept a minute ago may by now lack the time that it had.
    if let Ok(key) = uuid::Uuid::parse_str(typed.text("form_key"))
        && let Some(code) = batch::by_form(&mut db, here.id(), key).await?
    {
        return Ok(Redirect::to(&format!("/batches/{code}")).into_response());
    }
    let Ok((sheet, result)) = worked(&typed, &here) else {
        return render(&typed, &here, theme, StatusCode::UNPROCESSABLE_ENTITY);
    };
    let request = SheetRequest {
        now_at: None,
        ..sheet.request
    };
    let new = NewBatch {
        form_key: sheet.form_key,
        name: &sheet.name,
        request: &request,
        result: &result,
        origin: Origin::Maker,
    };
    let code = batch::keep(&mut db, here.id(), &new, here.now).await?;
    Ok(Redirect::to(&format!("/batches/{code}")).into_response())
}
