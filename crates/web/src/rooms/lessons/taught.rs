//! What this kitchen has taught: the few sentences that its log allows, from which bakes, how sure, what was set aside; and
//! what that does to the dough that comes next, beside the book.

use super::taught_view::{KitchenTaught, TaughtAsked};
use crate::App;
use crate::batch::lessons::{KitchenLessons, of_kitchen};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::own;
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::body::Bytes;
use axum::extract::State;
use axum::response::{Html, Redirect};
use craft::learn::{Card, NextBatch};
use craft::sheet::SheetRequest;
use craft::sheet::ahead::to_be_made;

#[derive(Template)]
#[template(path = "rooms/lessons/taught.html")]
struct TaughtPage {
    frame: Frame,
    t: KitchenTaught,
}

/// The batch that comes next and is not mixed; else the one that was made last, as if it were made again in a week.
fn comes_next(live: &[BatchRecord], last: Option<BatchRecord>) -> Option<(BatchRecord, bool)> {
    let planned = live
        .iter()
        .filter(|t| !t.is_mixed() && t.batch.cancelled_at.is_none())
        .filter(|t| t.batch.sheet.result.yeast.percent > 0.0)
        .filter(|t| t.batch.sheet.result.window.is_some())
        .min_by_key(|t| t.batch.sheet.request.serve_at);
    match planned {
        Some(t) => Some((t.clone(), true)),
        None => last.map(|t| (t, false)),
    }
}

/// The dough as the log is asked about it, its dose the book's.
fn asked(t: &BatchRecord, is_planned: bool) -> Option<(SheetRequest, NextBatch, Card)> {
    let mut r = SheetRequest::clone(&t.batch.sheet.request);
    if !is_planned {
        r.serve_at = r
            .serve_at
            .checked_add(jiff::SignedDuration::from_hours(7 * 24))
            .ok()?;
    }
    let percent = t.batch.sheet.result.yeast.percent;
    let mut dough = to_be_made(&r, percent).ok()?;
    if r.own.is_some() {
        // It was dosed by an earlier log: the book's own dose is what is compared.
        dough.yeast_percent = craft::learn::book_dose(&dough).unwrap_or(percent);
    }
    let card = Card::of(&dough, &[]);
    let next = own::next(&r, dough);
    Some((r, next, card))
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
) -> Result<Html<String>, AppError> {
    let known: std::sync::Arc<KitchenLessons> = of_kitchen(&app, &here).await?;
    let live = load::live(&app, &here).await?;
    let last = load::finished(&app, &here, 0, 1).await?.told.pop();
    let next = comes_next(&live, last);
    let t = app
        .models
        .at_length(|| {
            let asked = next.as_ref().and_then(|(told, planned)| {
                let (request, next, card) = asked(told, *planned)?;
                Some(TaughtAsked {
                    code: told.batch.code.clone(),
                    is_planned: *planned,
                    flour_g: {
                        let f = &told.batch.sheet.result.formula;
                        100.0 * f.dough_g / f.sum_percent
                    },
                    request,
                    next,
                    card,
                })
            });
            KitchenTaught::of(&known, asked, &here)
        })
        .await?;
    let frame = Frame::of(
        &here,
        theme,
        Stop::Ledger,
        phrase("learn-taught"),
        None,
        "/ledger/taught",
    );
    page(&TaughtPage { frame, t })
}

/// Plans by the book, or by the log again.
pub async fn choose(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let uses_book = match typed.text("use") {
        "book" => true,
        "yours" => false,
        _ => {
            return Err(AppError::Asked(phrase("learn-yours-or-the-book").into()));
        }
    };
    let mut db = app.db.acquire().await?;
    store::kitchen::use_book(&mut db, here.id(), uses_book).await?;
    app.kitchens.forget(here.id());
    Ok(Redirect::to("/ledger/taught"))
}
