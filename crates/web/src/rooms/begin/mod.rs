//! The first start: five short leaves, with the first plan growing beside them. The form holds all that was said, so that every
//! leaf can be skipped, gone back to, or sent without a script.

mod keep;
mod leaves;
mod picture;
mod said;
mod view;

use crate::App;
use crate::access::asker::Asker;
use crate::access::doors::{Asks, Doors};
use crate::access::gate::{self, BEGIN, SIGN_IN};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{self, phrase};
use askama::Template;
use axum::body::Bytes;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{Html, IntoResponse, Redirect, Response};
use craft::begin::first_plan;
use craft::fact::Fact;
use craft::keyed::Keyed;
use craft::refusal::FieldError;
use craft::units::TemperatureUnit;
use jiff::Timestamp;
use leaves::Leaf;
use said::BeginSaid;
use speech::Language;
use std::sync::Arc;
use tower_sessions::Session;
use view::BeginView;

pub fn routes() -> Doors {
    Doors::new()
        .get(Asks::Nothing, BEGIN, show)
        .post(Asks::Nothing, BEGIN, turn)
        .post(Asks::Nothing, "/begin/look", look)
        .post(Asks::Nothing, "/begin/keep", keep)
}

#[derive(Template)]
#[template(path = "rooms/begin/page.html")]
struct BeginPage {
    frame: Frame,
    b: BeginView,
}

/// What of the page a tap redraws.
#[derive(Template)]
#[template(path = "rooms/begin/leaf.html")]
struct BeginPart {
    b: BeginView,
}

/// Who begins.
enum Beginner {
    /// The first one of all.
    First,
    /// Somebody who is here already: another kitchen.
    Known(Arc<Asker>),
}

/// Who may begin a kitchen: the first one of all, or a person who is let in.
async fn beginner(app: &App, session: &Session) -> Result<Result<Beginner, Response>, AppError> {
    if !app.somebody_is_there().await {
        return Ok(Ok(Beginner::First));
    }
    let asker = gate::who(app, Some(session), None, Timestamp::now()).await?;
    Ok(match asker {
        Some(a) if a.person.is_some() => Ok(Beginner::Known(a)),
        Some(_) => Err(Redirect::to("/").into_response()),
        None => Err(Redirect::to(&format!("{SIGN_IN}?back={BEGIN}")).into_response()),
    })
}

/// What a browser says of its reader: who writes American English reads ounces and °F.
fn reads_us(headers: &HeaderMap) -> bool {
    let first = headers.get(header::ACCEPT_LANGUAGE);
    let first = first.and_then(|v| v.to_str().ok()).unwrap_or("");
    first.starts_with("en-US")
}

async fn show(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    headers: HeaderMap,
) -> Result<Response, AppError> {
    let who = match beginner(&app, &session).await? {
        Ok(who) => who,
        Err(elsewhere) => return Ok(elsewhere),
    };
    let mut typed = FormData::default();
    let mut us = reads_us(&headers);
    if let Beginner::Known(a) = &who {
        typed.set("name", &a.whom.name);
        // Whoever has a kitchen reads in its units.
        if let Some(place) = &a.place {
            let here = RequestKitchen::for_asker(&app, place.kitchen, a, Timestamp::now()).await?;
            us = here.measures.temperature == TemperatureUnit::Fahrenheit;
        }
    }
    typed.set("language", tongue::language().key());
    typed.set("units", if us { "us" } else { "metric" });
    let read = reads(&who, &typed);
    let page = shown(&app, (theme, &who), &typed, Leaf::You, &[], StatusCode::OK);
    tongue::answering(read, page).await
}

/// The language that whoever begins reads: the first one chose it on the first leaf, or has their browser's.
fn reads(who: &Beginner, typed: &FormData) -> Language {
    match who {
        Beginner::Known(asker) => asker.reads(),
        Beginner::First => {
            Language::from_key(typed.text("language")).unwrap_or_else(tongue::language)
        }
    }
}

/// Works the first plan out and shows a leaf beside it.
async fn viewed(
    app: &App,
    who: &Beginner,
    typed: &FormData,
    leaf: Leaf,
    errors: &[FieldError],
) -> Result<BeginView, AppError> {
    let now = Timestamp::now();
    let said = BeginSaid::read(typed);
    let needs_password = app.signs_in && matches!(who, Beginner::First);
    let first = matches!(who, Beginner::First);
    let work = || {
        let plan = first_plan(&said.beginning, said.oven_name(), now);
        BeginView::of(&said, leaf, plan, errors, (needs_password, first), now)
    };
    app.models.at_length(work).await
}

async fn shown(
    app: &App,
    (theme, who): (Theme, &Beginner),
    typed: &FormData,
    leaf: Leaf,
    errors: &[FieldError],
    status: StatusCode,
) -> Result<Response, AppError> {
    let b = viewed(app, who, typed, leaf, errors).await?;
    let frame = Frame::entrance(theme, phrase("batch-begin-2"));
    Ok((status, page(&BeginPage { frame, b })?).into_response())
}

/// Turns to another leaf.
async fn turn(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    body: Bytes,
) -> Result<Response, AppError> {
    let who = match beginner(&app, &session).await? {
        Ok(who) => who,
        Err(elsewhere) => return Ok(elsewhere),
    };
    let typed = FormData::parse(&body);
    tongue::answering(reads(&who, &typed), async {
        let leaf = Leaf::of(&typed);
        let errors = said::wrong_on(&typed, leaf, app.signs_in && matches!(who, Beginner::First));
        // What is wrong on a leaf is said there, before the next one.
        let (to, status) = match errors.is_empty() || typed.text("go") != "next" {
            true => (leaf.turned(typed.text("go")), StatusCode::OK),
            false => (leaf, StatusCode::UNPROCESSABLE_ENTITY),
        };
        shown(&app, (theme, &who), &typed, to, &errors, status).await
    })
    .await
}

/// The same leaf after a tap, as a part of its page.
async fn look(State(app): State<App>, session: Session, body: Bytes) -> Result<Response, AppError> {
    let who = match beginner(&app, &session).await? {
        Ok(who) => who,
        Err(elsewhere) => return Ok(elsewhere),
    };
    let typed = FormData::parse(&body);
    tongue::answering(reads(&who, &typed), async {
        let b = viewed(&app, &who, &typed, Leaf::of(&typed), &[]).await?;
        Ok(Html(BeginPart { b }.render()?).into_response())
    })
    .await
}

/// Keeps the kitchen, and the plan where it is wanted.
async fn keep(
    State(app): State<App>,
    theme: Theme,
    (session, headers): (Session, HeaderMap),
    body: Bytes,
) -> Result<Response, AppError> {
    let who = match beginner(&app, &session).await? {
        Ok(who) => who,
        Err(elsewhere) => return Ok(elsewhere),
    };
    let typed = FormData::parse(&body);
    tongue::answering(reads(&who, &typed), async {
        match keep::kept(&app, &who, &typed, (&session, &headers)).await? {
            Ok(path) => Ok(Redirect::to(&path).into_response()),
            Err((leaf, errors)) => {
                let status = StatusCode::UNPROCESSABLE_ENTITY;
                shown(&app, (theme, &who), &typed, leaf, &errors, status).await
            }
        }
    })
    .await
}

/// A sentence of this room beside a field.
fn wrong(field: &str, sentence: &str) -> FieldError {
    FieldError {
        field: field.into(),
        message: Fact::as_written(sentence),
    }
}
