//! Bake: a timer for the pizza in the oven, its turns, and one tap for what was seen.

mod line;
mod live;
mod log;
mod photos;
mod photos_view;
pub mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries;
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::batch::taps::{self, Tapped};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::Json;
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::{Html, IntoResponse, Redirect, Response};
use craft::fact;
use craft::fire::{Shade, TapKind, Verdict};
use craft::keyed::Keyed;
use serde::{Deserialize, Serialize};
use speech::Judgement;
use store::entry::EntryOutcome;
use view::{BakeView, RunState, Timed};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/bake", nearest)
        .get(LOOK, "/batches/{code}/bake", bake)
        .get(LOOK, "/batches/{code}/bake/beside", beside)
        .get(LOOK, "/batches/{code}/run", live::stream)
        .get(LOOK, "/batches/{code}/bakes", log::show)
        .post(TAP, "/batches/{code}/taps", take)
        .merge(photos::routes())
}

#[derive(Template)]
#[template(path = "rooms/bake/page.html")]
struct BakePage {
    frame: Frame,
    b: BakeView,
}

#[derive(Deserialize)]
struct BakeQuery {
    /// With what the oven model says, too: for a browser without scripts, which would never fetch it.
    #[serde(default)]
    whole: String,
}

/// The batch that is baking, or else the one served next.
async fn nearest(State(app): State<App>, here: RequestKitchen) -> Result<Redirect, AppError> {
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
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    Query(asked): Query<BakeQuery>,
) -> Result<Html<String>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let path = format!("/batches/{code}/bake");
    let goes = app.goes(&told, &here).await?;
    let plan = app.drawn.plans.of(
        vec![told.stands(&here, &told.batch.sheet.result)],
        0,
        || view::BakePlan::of(&told, &here),
    );
    let boxes = app.boxes(&told, &here).await?;
    let mut b = BakeView::of(&told, &goes, boxes.as_deref(), &here, plan);
    if !asked.whole.is_empty() {
        let work = || view::notes(&told, &goes, &here);
        b.notes = here.judgements(&app.models.at_length(work).await?);
    }
    let frame = Frame::of(
        &here,
        theme,
        Stop::Bake,
        &say!("bake-bake-3", code = code),
        Some((&code, told.progress.stand)),
        &path,
    );
    page(&BakePage { frame, b })
}

#[derive(Template)]
#[template(path = "rooms/bake/notes.html")]
struct Notes {
    notes: Vec<Judgement>,
}
#[derive(Template)]
#[template(path = "rooms/bake/beside_balls.html")]
struct Balls {
    balls: Vec<view::Ball>,
    left: u32,
    closed: bool,
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
    here: RequestKitchen,
    Path(code): Path<String>,
) -> Result<Json<Beside>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let goes = app.goes(&told, &here).await?;
    let notes = app
        .models
        .at_length(|| view::notes(&told, &goes, &here))
        .await?;
    let boxes = app.boxes(&told, &here).await?;
    let balls = view::balls(&told, &goes, boxes.as_deref(), &here);
    let notes = Notes {
        notes: here.judgements(&notes),
    };
    let balls = Balls {
        balls,
        left: told.pieces_left(),
        closed: told.is_ended(),
    };
    Ok(Json(Beside {
        notes: notes.render()?,
        balls: balls.render()?,
    }))
}

/// Reads what was tapped from its form; says what is wrong with it.
fn read(typed: &FormData) -> Result<TapKind, String> {
    Ok(match typed.text("kind") {
        "in" => TapKind::In,
        "turned" => TapKind::Turned,
        "out" => TapKind::Out,
        "undone" => TapKind::Undone,
        "verdict" => {
            let (base, top) = typed.text("verdict").split_once('/').unwrap_or_default();
            match (Shade::from_key(base), Shade::from_key(top)) {
                (Some(base), Some(top)) => TapKind::Verdict(Verdict { base, top }),
                _ => return Err(phrase("bake-a-verdict-says-pale-right").into()),
            }
        }
        _ => return Err(phrase("bake-that-is-not-a-tap").into()),
    })
}

/// Keeps a tap. The same key is kept once; a tap that makes no sense is refused with the run as it is.
async fn take(a: Arrived) -> Result<Response, AppError> {
    let (told, here) = (&a.told, &a.here);
    let tapped = match &a.sent {
        Ok(sent) => read(&a.typed).map(|kind| (sent, kind)),
        Err(e) => Err(e.clone()),
    };
    let (sent, kind) = match tapped {
        Ok(t) => t,
        Err(sentence) if a.by_script => {
            let status = StatusCode::UNPROCESSABLE_ENTITY;
            return Ok(answer(told, here, status, Some(sentence)));
        }
        Err(sentence) => return Err(AppError::Asked(sentence)),
    };
    let tap = Tapped {
        kind,
        pizza: a.typed.text("pizza").parse().ok().filter(|n| *n > 0),
        baked_ms: a.typed.text("baked_ms").parse().ok(),
    };
    let (_, kept) = taps::keep(&a.app, here, told, sent, &tap).await?;
    if !a.by_script {
        let back = if a.typed.has("back") {
            entries::back(&a.typed, a.code())
        } else {
            format!("/batches/{}/bake", a.code())
        };
        return Ok(entries::answer(
            kept,
            sent,
            here,
            phrase("bake-this-tap"),
            &back,
        ));
    }
    let refused = match kept {
        EntryOutcome::New | EntryOutcome::Before => None,
        EntryOutcome::Refused(sentence) => Some(sentence),
        EntryOutcome::Other(_) => Some(fact!("tap-other-key")),
        EntryOutcome::NoBatch => Some(fact!("batch-gone")),
    };
    let told = load::told(&a.app, here, a.code()).await?;
    let status = if refused.is_some() {
        StatusCode::CONFLICT
    } else {
        StatusCode::OK
    };
    let refused = refused.map(|why| here.say(&why));
    Ok(answer(&told, here, status, refused))
}

fn answer(
    told: &BatchRecord,
    here: &RequestKitchen,
    status: StatusCode,
    refused: Option<String>,
) -> Response {
    let run = RunState::of(told, refused);
    (status, Json(Timed::of(&run, here.now))).into_response()
}
