//! How a batch ends: closed into the ledger, cancelled when it was never mixed, and taken up again.

use super::load;
use crate::App;
use crate::shared::entries;
use crate::shared::error::Trouble;
use crate::shared::form::Typed;
use crate::shared::kitchen::Here;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::progress::Told;
use crate::shared::theme::Theme;
use askama::Template;
use axum::Router;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Response};
use axum::routing::post;
use store::entry::{Seen, Standing};
use uuid::Uuid;

pub fn routes() -> Router<App> {
    Router::new()
        .route("/batches/{code}/finish", post(close))
        .route("/batches/{code}/cancel", post(cancel))
        .route("/batches/{code}/reopen", post(reopen))
}

#[derive(Template)]
#[template(path = "rooms/batch/close.html")]
struct Ask {
    frame: Frame,
    code: String,
    name: String,
    open: Vec<String>,
    key: String,
    /// It was never mixed: cancelling is what is meant.
    never_mixed: bool,
    cancel_key: String,
}

/// What is still open when somebody closes a batch, a sentence each.
fn still_open(told: &Told) -> Vec<String> {
    let mut out = vec![];
    if !told.is_mixed() && told.run.pizzas.is_empty() {
        out.push(
            "Nothing says that it was mixed: closed, it stands in the ledger as a bake.".into(),
        );
        return out;
    }
    for p in told.run.inside() {
        out.push(format!("Pizza {} is still in the oven.", p.number));
    }
    let left = told.pieces_left();
    if left > 0 {
        let of = told.batch.sheet.result.formula.pieces;
        out.push(format!("{left} of {of} did not go in."));
    }
    let judged = told.run.summary().judged;
    if !told.run.pizzas.is_empty() && judged == 0 {
        out.push(
            "No verdict was given: what the oven should change next time cannot be said.".into(),
        );
    }
    out
}

/// The batch is done: it leaves the Bench and stands in the ledger. When something is open it asks once.
async fn close(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let sent = match entries::sent(&typed, &headers, &told, &here) {
        Ok(s) => s,
        Err(e) => return Ok(entries::refused(e, false)),
    };
    let open = still_open(&told);
    if !open.is_empty() && typed.text("sure").is_empty() && told.batch.finished_at.is_none() {
        let frame = Frame::of(
            &here,
            theme,
            Stop::Sheet,
            &format!("Close {code}"),
            Some((&code, told.progress.stand)),
            &format!("/batches/{code}"),
        );
        let html = page(&Ask {
            frame,
            code: code.clone(),
            name: told.batch.name.clone(),
            open,
            key: sent.key.to_string(),
            never_mixed: !told.is_mixed() && told.run.pizzas.is_empty(),
            cancel_key: Uuid::new_v4().to_string(),
        })?;
        return Ok((StatusCode::OK, html).into_response());
    }
    let went = app
        .models
        .at_length(|| crate::rooms::rise::went(&told, &here))
        .await?;
    let went = Some(Box::new(went));
    let admits = |s: &Standing| match (s.finished, s.cancelled) {
        (_, true) => Err("This batch was cancelled. Take it up again first.".to_string()),
        (true, _) => Err("This batch is closed already.".into()),
        _ => Ok(()),
    };
    let kept = entries::keep(&app, &here, &told, &sent, Seen::Closed { went }, &admits).await?;
    Ok(entries::answer(
        kept,
        &sent,
        &here,
        "the batch closed",
        "/ledger",
    ))
}

/// It was never mixed: it leaves the Bench, and no bake.
async fn cancel(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let sent = match entries::sent(&typed, &headers, &told, &here) {
        Ok(s) => s,
        Err(e) => return Ok(entries::refused(e, false)),
    };
    if told.is_mixed() || !told.run.pizzas.is_empty() {
        return Ok(entries::refused(
            "This dough was mixed: close it into the ledger, so that what was measured is not lost."
                .into(),
            sent.by_script,
        ));
    }
    let kept = entries::keep(&app, &here, &told, &sent, Seen::Cancelled, &entries::open).await?;
    let back = format!("/batches/{code}");
    Ok(entries::answer(
        kept,
        &sent,
        &here,
        "the batch cancelled",
        &back,
    ))
}

/// A batch that was closed or cancelled goes on after all.
async fn reopen(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let sent = match entries::sent(&typed, &headers, &told, &here) {
        Ok(s) => s,
        Err(e) => return Ok(entries::refused(e, false)),
    };
    let admits = |s: &Standing| match (s.finished, s.cancelled) {
        (false, false) => Err("This batch is under way.".to_string()),
        _ => Ok(()),
    };
    let kept = entries::keep(&app, &here, &told, &sent, Seen::Reopened, &admits).await?;
    let back = format!("/batches/{code}");
    Ok(entries::answer(
        kept,
        &sent,
        &here,
        "the batch reopened",
        &back,
    ))
}
