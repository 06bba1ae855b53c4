//! Photos of pizzas: base, rim and crumb, beside the bake log. Never needed; a browser makes them small before it sends them.

use super::log;
use crate::App;
use crate::access::doors::{Doors, LOOK, TAP};
use crate::batch::arrived::ArrivedFile;
use crate::batch::entries;
use crate::batch::photos::{href, last_of};
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::format::day_hm;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::picture;
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use craft::keyed::Keyed;
use craft::people::Right;
use craft::photo::{self, PhotoOf, PhotoRefused};
use serde::Deserialize;
use store::entry::{Observation, SaidEntry, Seen, Standing};
use store::photo::Picture;
use uuid::Uuid;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/photos/{entry}", show)
        .post(TAP, "/batches/{code}/photos", keep)
}

/// A photo in a list.
pub struct PhotoShown {
    pub of: String,
    pub whole: String,
    pub small: String,
    /// What it shows, for whoever does not see it.
    pub alt: String,
    pub at: String,
    pub by: String,
    /// Where it is taken back, and under which key; nothing for whoever may not.
    pub back: Option<(String, Uuid)>,
}

/// The photos of one pizza.
pub struct PizzaPhotos {
    pub head: String,
    pub says: String,
    pub shown: Vec<PhotoShown>,
}

/// A side that is asked for.
pub struct PhotoAsk {
    pub key: &'static str,
    pub name: String,
    pub chosen: bool,
}

/// What was chosen in the form, and what is wrong with it.
#[derive(Default)]
pub struct PhotoTyped {
    pub pizza: Option<u32>,
    pub of: Option<PhotoOf>,
    pub error: Option<String>,
}

pub struct PhotosView {
    pub batch: u64,
    pub key: Uuid,
    /// Pizzas that can be chosen.
    pub pizzas: Vec<(u32, bool)>,
    pub asks: Vec<PhotoAsk>,
    pub rows: Vec<PizzaPhotos>,
    pub may_tap: bool,
    pub error: Option<String>,
    pub longest: u32,
    pub most_sent: usize,
    pub most_chosen: u64,
    /// What a file may have, MB.
    pub most_mb: u64,
    pub piece: &'static str,
}

impl PhotosView {
    pub fn of(told: &BatchRecord, typed: PhotoTyped, here: &RequestKitchen) -> PhotosView {
        let formula = &told.batch.sheet.request.formula;
        let piece = match formula.in_pans() {
            true => phrase("bake-tray"),
            false => phrase("bake-pizza"),
        };
        let last_out = told.run.pizzas.iter().filter(|p| p.out_at.is_some());
        let last_out = last_out.max_by_key(|p| p.out_at).map(|p| p.number);
        let most = told.run.pizzas.iter().map(|p| p.number).max().unwrap_or(0);
        let chosen = typed.pizza.or(last_out).unwrap_or(1);
        let may_tap = here.may(Right::Tap) && told.batch.cancelled_at.is_none();
        let shown = |o: &Observation, pizza: u32, of: PhotoOf| {
            let whole = href(&told.batch.code, o.key);
            PhotoShown {
                of: here.words(&of.name()),
                small: format!("{whole}?small=1"),
                whole,
                alt: say!(
                    "photo-alt",
                    of = here.words(&of.name()),
                    piece = piece,
                    n = pizza
                ),
                at: day_hm(&here.local(o.at)),
                by: here.by(&o.by),
                back: may_tap.then(|| {
                    let at = format!("/batches/{}/entries/{}/back", told.batch.code, o.key);
                    (at, Uuid::new_v4())
                }),
            }
        };
        let mut rows: Vec<(u32, Vec<PhotoShown>)> = vec![];
        for ((pizza, of), o) in last_of(told) {
            match rows.last_mut() {
                Some((n, of_it)) if *n == pizza => of_it.push(shown(o, pizza, of)),
                _ => rows.push((pizza, vec![shown(o, pizza, of)])),
            }
        }
        PhotosView {
            batch: told.batch.id.0,
            key: Uuid::new_v4(),
            pizzas: (1..=told.batch.sheet.result.formula.pieces.max(most))
                .map(|n| (n, n == chosen))
                .collect(),
            asks: PhotoOf::ALL
                .iter()
                .map(|of| PhotoAsk {
                    key: of.key(),
                    name: here.words(&of.name()),
                    chosen: typed.of == Some(*of),
                })
                .collect(),
            rows: rows
                .into_iter()
                .map(|(n, shown)| PizzaPhotos {
                    head: format!("{piece} {n}"),
                    says: log::in_short(told.run.pizzas.iter().find(|p| p.number == n), here),
                    shown,
                })
                .collect(),
            may_tap,
            error: typed.error,
            longest: photo::LONGEST_SIDE,
            most_sent: photo::MOST_SENT,
            most_chosen: photo::MOST_CHOSEN,
            most_mb: photo::MOST_CHOSEN / 1_000_000,
            piece,
        }
    }
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
