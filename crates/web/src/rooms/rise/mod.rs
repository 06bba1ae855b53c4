//! Rise: both clocks over the hours, the legs that can be moved, the window against the serve time; for a dough that is
//! thought of, and for a batch under way with what was really measured.

mod acts;
mod compare;
mod looked;
mod under_way;
mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::batch::lessons;
use crate::batch::record::BatchRecord;
use crate::formula_form::Bench;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::form::SaidError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::formula::Formula;
use craft::path::Method;
use craft::refusal::FieldError;
use looked::LookedAhead;
use serde::Serialize;
use std::collections::HashMap;
use store::pantry::{self, At, Put};
use view::RiseView;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/rise", new)
        .post(LOOK, "/rise", look)
        .post(LOOK, "/rise/preview", preview)
        .post(PLAN, "/rise/methods", keep_method)
        .get(LOOK, "/rise/methods/{id}", by_own_method)
        .merge(compare::routes())
        .merge(under_way::routes())
}

#[derive(Template)]
#[template(path = "rooms/rise/page.html")]
pub struct RisePage {
    frame: Frame,
    v: RiseView,
    /// Everything that the form carries.
    fields: Vec<(String, String)>,
    /// The batch, and where its plan is kept.
    batch: Option<String>,
    stale: Option<String>,
    fit: Option<under_way::FitView>,
}

#[derive(Template)]
#[template(path = "rooms/rise/answer.html")]
struct RiseAnswer<'a> {
    v: &'a RiseView,
}
#[derive(Template)]
#[template(path = "rooms/rise/picture.html")]
struct RisePictures<'a> {
    v: &'a RiseView,
}
#[derive(Template)]
#[template(path = "rooms/rise/desk.html")]
struct RiseDesk<'a> {
    v: &'a RiseView,
    batch: &'a Option<String>,
}

/// What a live recomputation returns.
#[derive(Serialize)]
struct RisePreview {
    answer: String,
    /// Absent when something is wrong: the last picture stays, greyed.
    picture: Option<String>,
    desk: Option<String>,
    fields: Vec<(String, String)>,
    errors: Vec<SaidError>,
}

/// The fields of a form as hidden ones, without what was pressed.
fn carried(typed: &FormData) -> Vec<(String, String)> {
    let pressed = ["act", "set", "tab", "want_form", "dose"];
    typed
        .clone()
        .into_entries()
        .into_iter()
        .filter(|(n, _)| {
            !pressed.contains(&n.as_str()) && !n.starts_with("g:") && !n.starts_with("g0:")
        })
        .collect()
}

/// Renders the page for a form; `told` is the batch that it plans.
pub(super) fn render(
    typed: &FormData,
    bench: &Bench,
    theme: Theme,
    told: Option<&BatchRecord>,
    extra: RiseExtra,
) -> Result<Response, AppError> {
    let looked = LookedAhead::of(typed, bench, told, &extra.pressed);
    let wrong = !looked.errors.is_empty();
    let v = RiseView::of(&looked, bench, extra.plans);
    let code = told.map(|t| t.batch.code.clone());
    let path = match &code {
        Some(c) => format!("/batches/{c}/rise"),
        None => "/rise".into(),
    };
    let open = told.map(|t| (t.batch.code.as_str(), t.progress.stand));
    let html = page(&RisePage {
        frame: Frame::of(
            bench.here,
            theme,
            Stop::Rise,
            phrase("batch-rise"),
            open,
            &path,
        ),
        v,
        fields: carried(typed),
        batch: code,
        stale: extra.stale,
        fit: extra.fit,
    })?;
    let status = if wrong {
        StatusCode::UNPROCESSABLE_ENTITY
    } else {
        extra.status
    };
    Ok((status, html).into_response())
}

/// What else a page says.
pub(super) struct RiseExtra {
    pub status: StatusCode,
    pub pressed: Vec<FieldError>,
    pub plans: Vec<acts::OfferedPlan>,
    pub stale: Option<String>,
    pub fit: Option<under_way::FitView>,
}

impl Default for RiseExtra {
    fn default() -> Self {
        RiseExtra {
            status: StatusCode::OK,
            pressed: vec![],
            plans: vec![],
            stale: None,
            fit: None,
        }
    }
}

/// The batch that a form plans, where it names one.
pub(super) async fn told_of(
    app: &App,
    here: &RequestKitchen,
    typed: &FormData,
) -> Result<Option<BatchRecord>, AppError> {
    let code = typed.text("batch");
    if code.is_empty() {
        return Ok(None);
    }
    Ok(Some(crate::batch::load::told(app, here, code).await?))
}

async fn new(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let asked = |name: &str| query.get(name).map_or("", String::as_str);
    let style = larder.style(asked("style"));
    let formula = Formula::of_style(style.as_ref().unwrap_or(larder.usual_style()));
    let methods = larder.methods();
    let formula = match methods.iter().find(|m| m.key == asked("method")) {
        Some(m) => m.applied(&formula),
        None => formula,
    };
    app.models
        .at_length(|| draft(&formula, &here, &larder, theme))
        .await?
}

fn draft(
    formula: &Formula,
    here: &RequestKitchen,
    larder: &Larder,
    theme: Theme,
) -> Result<Response, AppError> {
    let mut typed = crate::formula_form::opened(formula, None, None, here);
    larder.enliven(&mut typed);
    let bench = Bench { here, larder };
    render(&typed, &bench, theme, None, RiseExtra::default())
}

async fn by_own_method(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let own = larder.0.methods.iter().find(|m| m.id == id);
    let method =
        own.ok_or_else(|| AppError::Asked(phrase("rise-there-is-no-such-method").into()))?;
    let formula = method
        .facts
        .applied(&Formula::of_style(larder.usual_style()));
    app.models
        .at_length(|| draft(&formula, &here, &larder, theme))
        .await?
}

async fn look(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let mut typed = FormData::parse(&body);
    let told = told_of(&app, &here, &typed).await?;
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let work = || {
        let (plans, pressed) = acts::press(&mut typed, &bench, told.as_ref());
        let extra = RiseExtra {
            pressed,
            plans,
            ..RiseExtra::default()
        };
        render(&typed, &bench, theme, told.as_ref(), extra)
    };
    app.models.at_length(work).await?
}

async fn preview(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Json<RisePreview>, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let typed = FormData::parse(&body);
    let told = told_of(&app, &here, &typed).await?;
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    app.models
        .at_length(|| previewed(typed, &bench, told))
        .await?
}

fn previewed(
    mut typed: FormData,
    bench: &Bench,
    told: Option<BatchRecord>,
) -> Result<Json<RisePreview>, AppError> {
    let (plans, pressed) = acts::press(&mut typed, bench, told.as_ref());
    let looked = LookedAhead::of(&typed, bench, told.as_ref(), &pressed);
    let whole = looked.worked.is_some();
    let v = RiseView::of(&looked, bench, plans);
    Ok(Json(RisePreview {
        answer: RiseAnswer { v: &v }.render()?,
        picture: whole.then(|| RisePictures { v: &v }.render()).transpose()?,
        desk: whole
            .then(|| {
                RiseDesk {
                    v: &v,
                    batch: &told.as_ref().map(|t| t.batch.code.clone()),
                }
                .render()
            })
            .transpose()?,
        fields: carried(&typed),
        errors: bench.here.said(&looked.errors),
    }))
}

/// Keeps the legs of a form as a method of the kitchen's own.
async fn keep_method(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let larder = lessons::larder(&app, &here).await?;
    let typed = FormData::parse(&body);
    let bench = Bench {
        here: &here,
        larder: &larder,
    };
    let formula = match crate::formula_form::reading::formula(&typed, &here) {
        Ok(f) => f,
        Err(pressed) => {
            let extra = RiseExtra {
                pressed,
                ..RiseExtra::default()
            };
            let render = || render(&typed, &bench, theme, None, extra);
            return app.models.at_length(render).await?;
        }
    };
    let name = crate::shared::form::one_line(typed.text("method_name"));
    let form_key = typed.key("form_key");
    // Of the form's key and the name, so that what is sent twice is the same method, and another name another one.
    let key = uuid::Uuid::new_v5(&form_key, name.as_bytes());
    let at = At::New(key);
    let key = format!("own-{}", key.simple());
    let method = Method::of(&formula, key, name);
    if let Err(refused) = method.check() {
        let pressed = refused
            .0
            .into_iter()
            .map(|e| FieldError {
                field: "method_name".into(),
                message: e.message,
            })
            .collect();
        let extra = RiseExtra {
            pressed,
            ..RiseExtra::default()
        };
        let render = || render(&typed, &bench, theme, None, extra);
        return app.models.at_length(render).await?;
    }
    let mut db = app.db.acquire().await?;
    match pantry::put(&mut db, here.id(), at, &method, here.now).await? {
        Put::Done(id) | Put::Other(id) => {
            Ok(Redirect::to(&format!("/rise/methods/{id}")).into_response())
        }
        Put::Stale(_) => Ok(Redirect::to("/pantry").into_response()),
    }
}
