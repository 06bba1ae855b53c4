//! How a batch ends: closed into the ledger, cancelled when it was never mixed, and taken up again.

use crate::access::doors::{Doors, PLAN, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries;
use crate::batch::forecast::went;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::response::{IntoResponse, Response};
use craft::fact;
use store::entry::{Seen, Standing};
use uuid::Uuid;

pub fn routes() -> Doors {
    Doors::new()
        .post(TAP, "/batches/{code}/finish", close)
        .post(PLAN, "/batches/{code}/cancel", cancel)
        .post(PLAN, "/batches/{code}/reopen", reopen)
}

#[derive(Template)]
#[template(path = "rooms/batch/close.html")]
struct ClosePage {
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
fn still_open(told: &BatchRecord) -> Vec<String> {
    let mut out = vec![];
    if !begun(told) {
        out.push(phrase("batch-nothing-says-that-it-was").into());
        return out;
    }
    for p in told.run.inside() {
        out.push(say!("batch-pizza-is-still-in-the", number = p.number));
    }
    let left = told.pieces_left();
    if left > 0 {
        let of = told.pieces();
        out.push(say!("batch-of-did-not-go-in", left = left, of = of));
    }
    let judged = told.run.summary().judged;
    if !told.run.pizzas.is_empty() && judged == 0 {
        out.push(phrase("batch-no-verdict-was-given-what").into());
    }
    out
}

/// The batch is done: it leaves the Bench and stands in the ledger. When something is open it asks once.
async fn close(a: Arrived) -> Result<Response, AppError> {
    let told = &a.told;
    let open = still_open(told);
    if !open.is_empty() && a.typed.text("sure").is_empty() && told.batch.finished_at.is_none() {
        return ask(&a, open);
    }
    let went = a.app.models.at_length(|| went(told, &a.here)).await?;
    let went = Some(Box::new(went));
    let admits = |s: &Standing| match (s.finished, s.cancelled) {
        (true, _) => Err(fact!("batch-closed-already")),
        _ => entries::open(s),
    };
    a.entered(Seen::Closed { went }, "/ledger", &admits).await
}

fn ask(a: &Arrived, open: Vec<String>) -> Result<Response, AppError> {
    let (told, code) = (&a.told, a.code());
    let frame = Frame::of(
        &a.here,
        a.theme,
        Stop::Sheet,
        &say!("batch-close-2", code = code),
        Some((code, told.progress.stand)),
        &format!("/batches/{code}"),
    );
    let html = page(&ClosePage {
        frame,
        code: code.to_string(),
        name: told.batch.name.clone(),
        open,
        key: a.typed.key("entry_key").to_string(),
        never_mixed: !begun(told),
        cancel_key: Uuid::new_v4().to_string(),
    })?;
    Ok(html.into_response())
}

/// Whether anything of it happened: then it is closed, not cancelled.
pub fn begun(told: &BatchRecord) -> bool {
    told.is_mixed() || !told.run.pizzas.is_empty()
}

/// It was never mixed: it leaves the Bench, and no bake.
async fn cancel(a: Arrived) -> Result<Response, AppError> {
    if begun(&a.told) {
        return Ok(entries::refused(
            phrase("batch-this-dough-was-mixed-close").into(),
            a.by_script,
        ));
    }
    let back = format!("/batches/{}", a.code());
    a.entered(Seen::Cancelled, &back, &entries::open).await
}

/// A batch that was closed or cancelled goes on after all.
async fn reopen(a: Arrived) -> Result<Response, AppError> {
    let admits = |s: &Standing| match (s.finished, s.cancelled) {
        (false, false) => Err(fact!("batch-under-way")),
        _ => Ok(()),
    };
    let back = format!("/batches/{}", a.code());
    a.entered(Seen::Reopened, &back, &admits).await
}
