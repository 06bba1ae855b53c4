//! Bake: a timer for the pizza in the oven, its turns, and one tap for what was seen.

mod line;
mod live;
mod log;
mod view;

use crate::App;
use crate::rooms::batch::{entry_key, load, moment};
use crate::shared::error::Trouble;
use crate::shared::form::Typed;
use crate::shared::kitchen::Here;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::long::at_length;
use crate::shared::theme::Theme;
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{Html, IntoResponse, Redirect, Response};
use axum::routing::{get, post};
use axum::{Json, Router};
use craft::fire::{Run, Shade, Tap, TapKind, Verdict};
use craft::note::Note;
use serde::Serialize;
use sqlx::Acquire;
use store::{batch, tap};
use view::{RunState, View};

pub fn routes() -> Router<App> {
    Router::new()
        .route("/bake", get(nearest))
        .route("/batches/{code}/bake", get(bake))
        .route("/batches/{code}/bake/beside", get(beside))
        .route("/batches/{code}/run", get(live::stream))
        .route("/batches/{code}/bakes", get(log::show))
        .route("/batches/{code}/taps", post(take))
}

#[derive(Template)]
#[template(path = "rooms/bake/page.html")]
struct Page {
    frame: Frame,
    b: View,
}

/// The batch that is baking, or else the one served next.
async fn nearest(State(app): State<App>, here: Here) -> Result<Redirect, Trouble> {
    let live = load::live(&app, &here).await?;
    let found = live
        .iter()
        .find(|t| !t.run.pizzas.is_empty() && t.pieces_left() > 0)
        .or_else(|| live.first());
    Ok(Redirect::to(&found.map_or("/".into(), |t| {
        format!("/batches/{}/bake", t.batch.code)
    })))
}

async fn bake(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Html<String>, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let path = format!("/batches/{code}/bake");
    let frame = Frame::of(
        &here,
        theme,
        Stop::Bake,
        &format!("Bake {code}"),
        Some((&code, told.progress.stand)),
        &path,
    );
    page(&Page {
        frame,
        b: View::of(
            &told,
            &crate::rooms::rise::forecast(&told, &here, &Larder::default()),
            &here,
        ),
    })
}

#[derive(Template)]
#[template(path = "rooms/bake/notes.html")]
struct Notes {
    notes: Vec<Note>,
}
#[derive(Template)]
#[template(path = "rooms/bake/beside_balls.html")]
struct Balls {
    balls: Vec<view::Ball>,
    left: u32,
}

/// What stands beside the oven and changes with the run, drawn.
#[derive(Serialize)]
struct Beside {
    notes: String,
    balls: String,
}

/// What the oven asks for before the next one, and the balls that come: the model is run, so that the page does not wait
/// for it.
async fn beside(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Json<Beside>, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let goes = crate::rooms::rise::forecast(&told, &here, &Larder::default());
    let notes = Notes {
        notes: at_length(|| view::notes(&told, &goes, &here)),
    };
    let balls = Balls {
        balls: view::balls(&told, &goes, &here),
        left: told.pieces_left(),
    };
    Ok(Json(Beside {
        notes: notes.render()?,
        balls: balls.render()?,
    }))
}

/// Reads a tap from its form; says what is wrong with it.
fn read(typed: &Typed, run: &Run, here: &Here) -> Result<Tap, String> {
    let kind = match typed.text("kind") {
        "in" => TapKind::In,
        "turned" => TapKind::Turned,
        "out" => TapKind::Out,
        "undone" => TapKind::Undone,
        "verdict" => {
            let (base, top) = typed.text("verdict").split_once('/').unwrap_or_default();
            match (Shade::from_key(base), Shade::from_key(top)) {
                (Some(base), Some(top)) => TapKind::Verdict(Verdict { base, top }),
                _ => return Err("A verdict says pale, right or dark of base and top.".into()),
            }
        }
        _ => return Err("That is not a tap of the bake.".into()),
    };
    let pizza = match typed.text("pizza").parse() {
        Ok(n) if n > 0 => n,
        _ => match kind {
            TapKind::In => run.next_number(),
            TapKind::Verdict(_) => run.last_out().map_or(0, |p| p.number),
            _ => run.current().map_or(0, |p| p.number),
        },
    };
    Ok(Tap {
        pizza,
        at: moment(typed, here),
        kind,
    })
}

/// Keeps a tap. The same key is kept once; a tap that makes no sense is refused with the run as it is.
async fn take(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let told = load::told(&app, &here, &code).await?;
    let id = told.batch.id;
    let key = entry_key(&typed);
    let mut connection = app.db.acquire().await?;
    let mut db = connection.begin().await?;
    // Two tablets on one run enter one after the other.
    batch::lock(&mut db, here.id(), id).await?;
    let mut refused = None;
    if !tap::is_known(&mut db, here.id(), key).await? {
        let kept = tap::of_batch(&mut db, here.id(), id).await?;
        let spots = told.spots();
        match read(&typed, &Run::of(&kept), &here).and_then(|t| {
            Run::admits_moment(told.batch.created_at, t.at)
                .and_then(|()| Run::admits(&kept, &t, spots))
                .map(|()| t)
                .map_err(|e| e.to_string())
        }) {
            Ok(t) => tap::add(&mut db, here.id(), id, key, &t, here.now, false).await?,
            Err(sentence) => refused = Some(sentence),
        }
    }
    db.commit().await?;
    if refused.is_none() {
        app.runs.changed(id);
    }
    let wants_json = headers
        .get(header::ACCEPT)
        .is_some_and(|a| a.as_bytes().starts_with(b"application/json"));
    if wants_json {
        drop(connection);
        let told = load::told(&app, &here, &code).await?;
        let status = if refused.is_some() {
            StatusCode::CONFLICT
        } else {
            StatusCode::OK
        };
        return Ok((status, Json(RunState::of(&told, &here, refused))).into_response());
    }
    match refused {
        Some(sentence) => Err(Trouble::Asked(sentence)),
        None => Ok(Redirect::to(&format!("/batches/{code}/bake")).into_response()),
    }
}
