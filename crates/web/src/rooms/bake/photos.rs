//! Photos of pizzas: base, rim and crumb, beside the bake log. Never needed; a browser makes them small before it sends them.

use super::log;
use super::photos_view::PhotoTyped;
use crate::App;
use crate::access::doors::{Doors, LOOK, TAP};
use crate::batch::arrived::ArrivedFile;
use crate::batch::entries;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::picture;
use crate::shared::theme::Theme;
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use craft::keyed::Keyed;
use craft::photo::{self, PhotoOf, PhotoRefused};
use serde::Deserialize;
use store::entry::{SaidEntry, Seen, Standing};
use store::photo::Picture;
use uuid::Uuid;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/photos/{entry}", show)
        .post(TAP, "/batches/{code}/photos", keep)
}

#[derive(Deserialize)]
struct PhotoQuery {
    #[serde(default)]
    small: String,
}

/// The picture itself. It never changes under its key.
async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    Path((code, entry)): Path<(String, Uuid)>,
    Query(asked): Query<PhotoQuery>,
) -> Result<Response, AppError> {
    let mut c = app.db.acquire().await?;
    let small = !asked.small.is_empty();
    let found = store::photo::by_entry(&mut c, here.id(), &code, entry, small).await?;
    Ok(match found {
        Some(jpeg) => (
            [
                (header::CONTENT_TYPE, "image/jpeg"),
                (header::CACHE_CONTROL, "private, max-age=86400, immutable"),
            ],
            jpeg,
        )
            .into_response(),
        None => StatusCode::NOT_FOUND.into_response(),
    })
}

/// What a form says of its photo, with the photo made small.
async fn read(f: &ArrivedFile) -> Result<Result<(u32, PhotoOf, Picture), PhotoRefused>, AppError> {
    let typed = &f.arrived.typed;
    let Some(of) = PhotoOf::from_key(typed.text("of")) else {
        return Ok(Err(PhotoRefused::OfWhat));
    };
    let Some(bytes) = &f.file else {
        return Ok(Err(PhotoRefused::None));
    };
    let pizza = typed.text("pizza").parse().unwrap_or(0);
    let pieces = f.arrived.told.batch.sheet.result.formula.pieces;
    if let Err(e) = photo::one_more(0, pieces, pizza) {
        return Ok(Err(e));
    }
    let made = f
        .arrived
        .app
        .models
        .at_length(|| picture::kept(bytes))
        .await?;
    Ok(made.map(|p| (pizza, of, p)))
}

/// Keeps a photo. What is wrong with it stands beside the field, with pizza and side as they were chosen.
async fn keep(theme: Theme, f: ArrivedFile) -> Result<Response, AppError> {
    let read = read(&f).await?;
    let a = &f.arrived;
    let here = &a.here;
    let sent = match &a.sent {
        Ok(sent) => sent,
        Err(e) => return Ok(entries::refused(e.clone(), a.by_script)),
    };
    let (pizza, of, picture) = match read {
        Ok(p) => p,
        Err(why) if a.by_script => return Ok(entries::wrong("file", here.say(&why.fact()))),
        Err(why) => {
            let typed = PhotoTyped {
                pizza: a.typed.text("pizza").parse().ok(),
                of: PhotoOf::from_key(a.typed.text("of")),
                error: Some(here.say(&why.fact())),
            };
            let page = log::page_of(&a.told, typed, here, theme)?;
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, page).into_response());
        }
    };
    let said = SaidEntry::Seen(Seen::Photo { pizza, of });
    let pieces = a.told.batch.sheet.result.formula.pieces;
    // A crumb is seen when the dough stands in the ledger already.
    let admits = |s: &Standing| match s.cancelled {
        true => entries::open(s),
        false => photo::one_more(s.photos, pieces, pizza).map_err(|e| e.fact()),
    };
    let kept = entries::keep_with(
        &a.app,
        here,
        &a.told,
        sent,
        (said.clone(), Some(&picture)),
        &admits,
    )
    .await?;
    let back = format!("/batches/{}/bakes#photos", a.code());
    Ok(entries::answer(
        kept,
        sent,
        here,
        &entries::words(&said, here),
        &back,
    ))
}
