//! Takeaway: a batch as JSON, and its steps as a calendar.

use crate::App;
use crate::rooms::batch::load;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use crate::shared::progress::Told;
use axum::Router;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use chrono::DateTime;
use craft::fire::{Pizza, RunSummary};
use craft::sheet::{SheetRequest, SheetResult};
use icalendar::{Alarm, Calendar, Component, Event, EventLike, Trigger};
use jiff::Timestamp;
use serde::Serialize;
use store::observation::Observation;

/// Version of the batch format; `docs/formats.md` says what each holds.
const BATCH_FORMAT: u32 = 2;

pub fn routes() -> Router<App> {
    Router::new()
        .route("/batches/{code}/batch.json", get(json))
        .route("/batches/{code}/schedule.ics", get(calendar))
}

#[derive(Serialize)]
struct Taken<'a> {
    format: &'static str,
    version: u32,
    kitchen: &'a str,
    code: &'a str,
    name: &'a str,
    created_at: Timestamp,
    #[serde(skip_serializing_if = "Option::is_none")]
    finished_at: Option<Timestamp>,
    asked: &'a SheetRequest,
    worked_out: &'a SheetResult,
    observations: &'a [Observation],
    pizzas: &'a [Pizza],
    run: RunSummary,
}

fn attachment(body: Vec<u8>, kind: &'static str, name: String) -> Response {
    let disposition = format!("attachment; filename=\"{name}\"");
    (
        [
            (header::CONTENT_TYPE, kind.to_string()),
            (header::CONTENT_DISPOSITION, disposition),
        ],
        body,
    )
        .into_response()
}

async fn json(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let taken = Taken {
        format: "slow-rise-batch",
        version: BATCH_FORMAT,
        kitchen: &here.kitchen.name,
        code: &told.batch.code,
        name: &told.batch.name,
        created_at: told.batch.created_at,
        finished_at: told.batch.finished_at,
        asked: &told.batch.sheet.request,
        worked_out: &told.batch.sheet.result,
        observations: &told.batch.entries.seen,
        pizzas: &told.run.pizzas,
        run: told.run.summary(),
    };
    let body = serde_json::to_vec_pretty(&taken)
        .map_err(|e| store::StoreError::Unreadable(e.to_string()))?;
    Ok(attachment(body, "application/json", format!("{code}.json")))
}

async fn calendar(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    Ok(attachment(
        schedule(&told, &here).into_bytes(),
        "text/calendar; charset=utf-8",
        format!("{code}.ics"),
    ))
}

/// The steps as events, in UTC: a calendar shows them at the right local time across a change of summer time.
fn schedule(told: &Told, here: &Here) -> String {
    let utc = |t: Timestamp| DateTime::from_timestamp(t.as_second(), 0).unwrap_or_default();
    let batch = &told.batch;
    let mut calendar = Calendar::empty();
    for (name, value) in [
        ("VERSION", "2.0"),
        ("PRODID", "-//Slow Rise//Batch schedule//EN"),
        ("CALSCALE", "GREGORIAN"),
    ] {
        calendar.append_property((name, value));
    }
    calendar.name(&format!("{} {}", batch.code, batch.name));
    calendar.timezone(here.kitchen.usual.time_zone.as_str());
    for (i, step) in batch.sheet.result.steps.iter().enumerate() {
        let minutes = step.hands_on_min.max(5.0) as i64;
        let mut event = Event::new();
        event
            .uid(&format!(
                "{}-{}-{i}@{}.slow-rise",
                batch.code,
                batch.id.0,
                here.id().0
            ))
            .timestamp(utc(batch.created_at))
            .sequence(0)
            .starts(utc(step.at))
            .ends(utc(step.at) + chrono::Duration::minutes(minutes))
            .summary(&format!("{}: {}", batch.code, step.title))
            .description(&format!("{}. {}", batch.name, step.detail))
            .alarm(Alarm::display(
                &step.title,
                Trigger::before_start(chrono::Duration::minutes(10)),
            ));
        calendar.push(event.done());
    }
    calendar.done().to_string()
}
