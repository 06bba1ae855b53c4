//! The batch page: the sheet as it was kept, its steps, what was measured and said.

pub mod load;
mod view;

use crate::App;
use crate::shared::error::Trouble;
use crate::shared::form::{NotANumber, Typed, number};
use crate::shared::format::day_hm;
use crate::shared::kitchen::Here;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::progress::Told;
use crate::shared::theme::{Theme, own_path};
use askama::Template;
use axum::Router;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use axum::routing::{get, post};
use craft::reading::Subject;
use craft::refusal::FieldError;
use store::batch;
use store::observation::{self, Observation, Seen};
use uuid::Uuid;
use view::View;

/// What a marked tub is called among the subjects.
pub const TUB: &str = "tub";
/// A remark may be so long; the database column holds as much.
const LONGEST_REMARK: usize = 2000;

pub fn routes() -> Router<App> {
    Router::new()
        .route("/batches/{code}", get(show))
        .route("/batches/{code}/print", get(print))
        .route("/batches/{code}/steps/{position}", post(step))
        .route("/batches/{code}/readings", post(reading))
        .route("/batches/{code}/remarks", post(remark))
        .route("/batches/{code}/finish", post(finish))
}

#[derive(Template)]
#[template(path = "rooms/batch/page.html")]
struct Page {
    frame: Frame,
    v: crate::rooms::sheet::view::Shown,
    b: View,
}

fn render(
    told: &Told,
    here: &Here,
    theme: Theme,
    typed: &Typed,
    errors: &[FieldError],
) -> Result<Response, Trouble> {
    render_with(told, here, theme, typed, errors, &[])
}

/// The page, with the plans that were left.
fn render_with(
    told: &Told,
    here: &Here,
    theme: Theme,
    typed: &Typed,
    errors: &[FieldError],
    left: &[(jiff::Timestamp, String)],
) -> Result<Response, Trouble> {
    let code = &told.batch.code;
    let path = format!("/batches/{code}");
    let title = format!("{code} {}", told.batch.name);
    let frame = Frame::of(
        here,
        theme,
        Stop::Sheet,
        &title,
        Some((code, told.progress.stand)),
        &path,
    );
    // The strip and the answer show how it goes; the log stays beside what was planned.
    let goes = crate::rooms::rise::forecast(told, here, &Larder::default());
    let v = crate::rooms::sheet::view::Shown::of(
        &told.batch.sheet.request,
        &goes,
        here,
        crate::rooms::sheet::view::As::Batch,
    );
    let mut b = View::of(told, &goes, here, typed, errors);
    b.left = left
        .iter()
        .map(|(t, why)| (day_hm(&here.local(*t)), why.clone()))
        .collect();
    let status = if errors.is_empty() {
        StatusCode::OK
    } else {
        StatusCode::UNPROCESSABLE_ENTITY
    };
    Ok((status, page(&Page { frame, v, b })?).into_response())
}

async fn show(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let left = if told.batch.plan > 0 {
        let mut db = app.db.acquire().await?;
        batch::left_plans(&mut db, here.id(), told.batch.id).await?
    } else {
        vec![]
    };
    render_with(&told, &here, theme, &Typed::default(), &[], &left)
}

async fn print(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let sheet = &told.batch.sheet;
    crate::rooms::sheet::paper::page(
        &told.batch.name,
        Some(&told.batch.code),
        &sheet.request,
        &sheet.result,
        &here,
    )
}

/// The key of an entry: a form sent twice is written once.
pub fn entry_key(typed: &Typed) -> Uuid {
    Uuid::parse_str(typed.text("entry_key")).unwrap_or_else(|_| Uuid::new_v4())
}

/// When it happened: the moment that the device says, unless it lies ahead of the server's clock.
pub fn moment(typed: &Typed, here: &Here) -> jiff::Timestamp {
    match typed.text("at").parse::<jiff::Timestamp>() {
        Ok(at) if at <= here.now + jiff::SignedDuration::from_secs(5) => at,
        _ => here.now,
    }
}

/// When it happened, where a maker says so: a day and a time on the kitchen's clock.
///
/// Errors: a sentence, for a time that cannot be read or is still to come.
pub fn told_at(typed: &Typed, here: &Here) -> Result<Option<jiff::Timestamp>, String> {
    let text = typed.text("when");
    if text.is_empty() {
        return Ok(None);
    }
    let at = text
        .parse::<jiff::civil::DateTime>()
        .ok()
        .and_then(|d| d.to_zoned(here.zone.clone()).ok())
        .map(|z| z.timestamp())
        .ok_or("Say when: a day and a time, such as 2026-11-27 14:30.")?;
    let said = day_hm(&here.local(at));
    if at > here.now + jiff::SignedDuration::from_secs(60) {
        return Err(format!(
            "{said} is still to come: log it when it has happened."
        ));
    }
    if here.now.duration_since(at).as_hours() > 24 * 21 {
        return Err(format!("{said} is more than three weeks ago."));
    }
    Ok(Some(at))
}

/// Keeps what was seen, at the moment that was told or tapped.
pub async fn enter(
    app: &App,
    here: &Here,
    told: &Told,
    typed: &Typed,
    seen: Seen,
) -> Result<(), Trouble> {
    let mut db = app.db.acquire().await?;
    let at = match told_at(typed, here) {
        Ok(Some(at)) => at,
        _ => moment(typed, here),
    };
    let o = Observation { id: 0, at, seen };
    observation::add(
        &mut db,
        here.id(),
        told.batch.id,
        entry_key(typed),
        &o,
        here.now,
        false,
    )
    .await?;
    Ok(())
}

fn back(typed: &Typed, code: &str) -> Response {
    let path = typed.text("back");
    let to = if path.is_empty() {
        format!("/batches/{code}")
    } else {
        own_path(path).to_string()
    };
    Redirect::to(&to).into_response()
}

async fn step(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path((code, position)): Path<(String, u16)>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let steps = &told.batch.sheet.result.steps;
    if !steps.iter().any(|s| s.number == position) {
        return Err(Trouble::Asked(format!(
            "{code} has no step {}.",
            position + 1
        )));
    }
    if let Err(message) = told_at(&typed, &here) {
        let e = FieldError {
            field: "step".into(),
            message,
        };
        return render(&told, &here, theme, &typed, &[e]);
    }
    let seen = match typed.text("do") {
        "skip" => Seen::StepSkipped {
            step_position: position,
        },
        "undo" => Seen::StepUndone {
            step_position: position,
        },
        _ => Seen::StepDone {
            step_position: position,
        },
    };
    enter(&app, &here, &told, &typed, seen).await?;
    Ok(back(&typed, &code))
}

async fn reading(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let wrong = |field: &str, message: &str| FieldError {
        field: field.into(),
        message: message.into(),
    };
    if let Err(message) = told_at(&typed, &here) {
        return render(&told, &here, theme, &typed, &[wrong("when", &message)]);
    }
    if typed.text("subject") == TUB {
        return match number(typed.text("degrees")) {
            Ok(times) if (1.05..=4.0).contains(&times) => {
                enter(&app, &here, &told, &typed, Seen::Grown { times }).await?;
                Ok(back(&typed, &code))
            }
            _ => {
                let e = wrong(
                    "degrees",
                    "How many times its first height: 1.05 to 4, such as 1.6.",
                );
                render(&told, &here, theme, &typed, &[e])
            }
        };
    }
    let read = match (
        Subject::from_key(typed.text("subject")),
        number(typed.text("degrees")),
    ) {
        (None, _) => Err(wrong("subject", "Choose what you measured.")),
        (_, Err(NotANumber::Empty)) => Err(wrong("degrees", "The temperature is missing.")),
        (_, Err(NotANumber::Text)) => Err(wrong(
            "degrees",
            "The temperature must be a number, such as 23.5 or 23,5.",
        )),
        (Some(subject), Ok(value)) => subject
            .take(value, here.measures.temperature)
            .map(|c| (subject, c)),
    };
    match read {
        Ok((subject, c)) => {
            enter(
                &app,
                &here,
                &told,
                &typed,
                Seen::Reading {
                    subject,
                    celsius: c.0,
                },
            )
            .await?;
            Ok(back(&typed, &code))
        }
        Err(e) => render(&told, &here, theme, &typed, &[e]),
    }
}

async fn remark(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let text = typed.text("remark").to_string();
    let length = text.chars().count();
    let message = if text.is_empty() {
        Some("Write something first.".to_string())
    } else if length > LONGEST_REMARK {
        Some(format!(
            "A remark holds up to {LONGEST_REMARK} letters; this has {length}."
        ))
    } else {
        None
    };
    if let Some(message) = message {
        return render(
            &told,
            &here,
            theme,
            &typed,
            &[FieldError {
                field: "remark".into(),
                message,
            }],
        );
    }
    enter(&app, &here, &told, &typed, Seen::Remark { remark: text }).await?;
    Ok(back(&typed, &code))
}

/// The batch is done: it leaves the Bench and stands in the Ledger.
async fn finish(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    if let Some(p) = told.run.current() {
        return Err(Trouble::Asked(format!(
            "Pizza {} is still in the oven. Tap Out first.",
            p.number
        )));
    }
    let mut db = app.db.acquire().await?;
    batch::finish(&mut db, here.id(), told.batch.id, here.now, false).await?;
    Ok(Redirect::to("/ledger").into_response())
}
