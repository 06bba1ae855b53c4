//! Takeaway: a batch as JSON, and steps as a calendar.

mod calendar;

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::batch::load;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use craft::fire::{Pizza, RunSummary};
use craft::sheet::{SheetRequest, SheetResult};
use jiff::Timestamp;
use serde::Serialize;
use store::entry::Observation;

/// Version of the batch format; `docs/formats.md` says what each holds.
const BATCH_FORMAT: u32 = 2;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/batch.json", json)
        .merge(calendar::routes())
}

#[derive(Serialize)]
struct BatchFile<'a> {
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

/// A batch whole, with all that was entered about it.
pub async fn json(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let taken = BatchFile {
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
    let unreadable = |e: serde_json::Error| store::StoreError::Unreadable(e.to_string());
    let mut taken = serde_json::to_value(&taken).map_err(unreadable)?;
    // Each fact with its text beside it, for whoever reads the file without this program.
    here.reader().spoken(&mut taken);
    let body = serde_json::to_vec_pretty(&taken).map_err(unreadable)?;
    Ok(attachment(body, "application/json", format!("{code}.json")))
}
