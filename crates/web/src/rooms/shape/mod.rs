//! Shape: the dough on the scale, pieces one by one into their boxes, the press test, and when each box leaves the cold.

mod asked;
mod learned;
mod lying;
mod opening;
mod options;
mod picture;
mod view;
mod words;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::boxes::boxes_now;
use crate::batch::entries::{self, Sent};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::Json;
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::{Html, IntoResponse, Redirect, Response};
use craft::refusal::FieldError;
use craft::shape::run::{ShapeAct, ShapeRun};
use craft::shape::{Loss, learn_loss};
use craft::sheet::ahead::ShapeLook;
use craft::sheet::dividing;
use craft::sheet::progress::Stand;
use serde::{Deserialize, Serialize};
use store::entry::{EntryOutcome, Seen, Standing};
use view::{ShapeState, ShapeView};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/shape", nearest)
        .get(LOOK, "/batches/{code}/shape", show)
        .post(TAP, "/batches/{code}/shape", take)
        .get(LOOK, "/batches/{code}/shape/now", now)
        .post(PLAN, "/batches/{code}/shape/flour", learned::note_flour)
        .post(PLAN, "/batches/{code}/shape/loss", learned::keep_loss)
}

#[derive(Template)]
#[template(path = "rooms/shape/page.html")]
struct ShapePage {
    frame: Frame,
    b: ShapeView,
}

macro_rules! parts {
    ($($name:ident => $path:literal),+ $(,)?) => {$(
        #[derive(Template)]
        #[template(path = $path)]
        struct $name<'a> {
            b: &'a ShapeView,
        }
    )+};
}
parts!(ShapeHead => "rooms/shape/head.html", ShapeScale => "rooms/shape/scale.html", ShapePress => "rooms/shape/press.html",
    ShapeBoxes => "rooms/shape/boxes.html", ShapeJudged => "rooms/shape/judged.html");

#[derive(Deserialize)]
struct ShapeQuery {
    /// The box that is pressed.
    #[serde(rename = "box")]
    number: Option<u16>,
}

/// The batch that is divided next, or that lies in its boxes.
async fn nearest(State(app): State<App>, here: RequestKitchen) -> Result<Redirect, AppError> {
    let live = load::live(&app, &here).await?;
    let serve = |t: &&BatchRecord| t.batch.sheet.request.serve_at;
    let to_shape =
        |t: &&BatchRecord| (Stand::Mixing..=Stand::Tempering).contains(&t.progress.stand);
    let found = live.iter().filter(to_shape).min_by_key(serve);
    let found = found.or_else(|| live.first());
    Ok(Redirect::to(&found.map_or("/".into(), |t| {
        format!("/batches/{}/shape", t.batch.code)
    })))
}

/// So many doughs are looked at for what stays in a bowl.
const MOST_WEIGHED: u32 = 40;

/// The mixer that a dough was mixed in: its number in the pantry, none by hand.
fn mixer_of(told: &BatchRecord) -> Option<u64> {
    use craft::mix::run::{MixRun, MixTap};
    let taps: Vec<MixTap> = told.seen().filter_map(|o| o.mix_tap()).collect();
    MixRun::of(&taps, 0, 1).chosen.and_then(|c| c.machine_id)
}

/// What usually stays on bowl and hands, from the doughs of the same mixer that were weighed whole; this one is not among them.
async fn usual_loss(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
) -> Result<Loss, AppError> {
    let mut db = app.db.acquire().await?;
    let codes = store::entry::codes_on_the_scale(&mut db, here.id(), MOST_WEIGHED).await?;
    drop(db);
    let mixer = mixer_of(told);
    let mut weighed = vec![];
    for code in codes.iter().filter(|c| **c != told.batch.code) {
        let other = load::told(app, here, code).await?;
        if mixer_of(&other) == mixer
            && let Some(g) = other.shape.whole_g
        {
            weighed.push((other.batch.sheet.result.formula.dough_g, g));
        }
    }
    Ok(learn_loss(&weighed))
}

/// The boxes as they are now, with what usually stays in the bowl.
async fn looked(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    larder: &Larder,
) -> Result<(ShapeLook, Loss), AppError> {
    let loss = usual_loss(app, here, told).await?;
    let work = || boxes_now(told, here, larder, loss);
    let look = app.models.at_length(work).await?;
    let look = look.map_err(|e| AppError::Asked(here.say_all(&e.0)))?;
    Ok((look, loss))
}

async fn viewed(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    number: Option<u16>,
) -> Result<ShapeView, AppError> {
    let larder = Larder::of(app, here).await?;
    let (look, loss) = looked(app, here, told, &larder).await?;
    let mut b = ShapeView::of(told, &look, &larder, here, loss, number);
    let pressed = &look.boxes[usize::from(b.press.number) - 1];
    let how = &pressed.opens.now;
    if let Some((planned_s, so_s)) = app.bakes_opened_to(told, how).await? {
        b.press.bakes = opening::bakes(planned_s, so_s);
    }
    Ok(b)
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    Query(q): Query<ShapeQuery>,
) -> Result<Html<String>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let b = viewed(&app, &here, &told, q.number).await?;
    shown(&told, &here, theme, b)
}

fn shown(
    told: &BatchRecord,
    here: &RequestKitchen,
    theme: Theme,
    b: ShapeView,
) -> Result<Html<String>, AppError> {
    let code = &told.batch.code;
    let frame = Frame::of(
        here,
        theme,
        Stop::Shape,
        &say!("shape-shape", code = code),
        Some((code, told.progress.stand)),
        &format!("/batches/{code}/shape"),
    );
    page(&ShapePage { frame, b })
}

/// The parts of the page that change, drawn.
#[derive(Serialize)]
struct ShapeNow {
    state: ShapeState,
    head: String,
    scale: String,
    press: String,
    boxes: String,
    judged: String,
}

async fn now(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    Query(q): Query<ShapeQuery>,
) -> Result<Json<ShapeNow>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let b = viewed(&app, &here, &told, q.number).await?;
    Ok(Json(ShapeNow {
        head: ShapeHead { b: &b }.render()?,
        scale: ShapeScale { b: &b }.render()?,
        press: ShapePress { b: &b }.render()?,
        boxes: ShapeBoxes { b: &b }.render()?,
        judged: ShapeJudged { b: &b }.render()?,
        state: b.state,
    }))
}

/// Keeps a tap. The same key is kept once; one that makes no sense is refused.
async fn take(a: Arrived) -> Result<Response, AppError> {
    let larder = Larder::of(&a.app, &a.here).await?;
    let sent = match &a.sent {
        Ok(sent) => *sent,
        Err(e) => return Ok(entries::refused(e.clone(), a.by_script)),
    };
    let acts = match asked::read(&a.typed, &a.told, &larder, &a.here) {
        Ok(acts) => acts,
        Err(e) => return wrong(&a, e).await,
    };
    // What lies in boxes keeps them, whatever the pantry says later.
    let first = matches!(
        acts.first(),
        Some(ShapeAct::Piece { .. } | ShapeAct::Moved { .. })
    );
    let mut kept = EntryOutcome::New;
    if first && a.told.shape.boxed.is_none() && !a.told.batch.sheet.request.formula.in_pans() {
        let kind = larder.usual_box();
        kept = keep(&a, &larder, &sent.nth(1), ShapeAct::Boxed { into: kind }).await?;
    }
    if let EntryOutcome::Refused(_) = kept {
        return Ok(answered(&a, kept, &sent, phrase("bake-this-tap")));
    }
    let mut words = String::new();
    for (n, act) in acts.into_iter().enumerate() {
        let sent = if n == 0 { sent } else { sent.nth(n + 1) };
        if n == 0 {
            words = a.here.words(&act.fact());
        }
        let done = keep(&a, &larder, &sent, act).await?;
        if n == 0 || matches!(done, EntryOutcome::Refused(_)) {
            kept = done;
        }
    }
    Ok(answered(&a, kept, &sent, &words))
}

async fn keep(
    a: &Arrived,
    larder: &Larder,
    sent: &Sent,
    act: ShapeAct,
) -> Result<EntryOutcome, AppError> {
    let sheet = &a.told.batch.sheet;
    let in_pans = sheet.request.formula.in_pans();
    let usual = larder.usual_box();
    let said = act.clone();
    let admits = |s: &Standing| {
        entries::open(s)?;
        let run = ShapeRun::of(&s.shape).under_plan_of(sheet.result.formula.pieces);
        let d = dividing(&sheet.result, in_pans, &run, &usual);
        if let ShapeAct::Whole { g } = said {
            d.weighs(sheet.result.formula.dough_g, g)
                .map_err(|e| e.0[0].message.clone())?;
        }
        let made = run.pieces.len();
        if let (ShapeAct::Piece { g: Some(g) }, true) = (&said, made < d.count as usize) {
            d.piece(made, *g).map_err(|e| e.0[0].message.clone())?;
        }
        run.admits(&said, d.count, &d.laid).map_err(|e| e.fact())
    };
    a.keep(sent, Seen::Shape { act }, &admits).await
}

fn answered(a: &Arrived, kept: EntryOutcome, sent: &Sent, words: &str) -> Response {
    let number = a.typed.text("box").parse::<u16>().ok();
    let pressed = number.filter(|_| a.typed.text("act") == "pressed");
    let back = match (pressed, a.typed.has("back")) {
        (_, true) => entries::back(&a.typed, a.code()),
        (Some(n), _) => format!("/batches/{}/shape?box={n}", a.code()),
        _ => format!("/batches/{}/shape", a.code()),
    };
    entries::answer(kept, sent, &a.here, words, &back)
}

/// A number that cannot be: for a script a sentence, else the page with what was typed and the sentence beside it.
async fn wrong(a: &Arrived, error: FieldError) -> Result<Response, AppError> {
    let sentence = a.here.say(&error.message);
    if a.by_script {
        return Ok(entries::wrong(&error.field, sentence));
    }
    let mut b = viewed(&a.app, &a.here, &a.told, None).await?;
    match a.typed.text("act") {
        "whole" => (b.whole_typed, b.whole_error) = (a.typed.raw("g").into(), Some(sentence)),
        "piece" => (b.piece_typed, b.piece_error) = (a.typed.raw("g").into(), Some(sentence)),
        "divided" => {
            b.count_typed = a.typed.raw("count").into();
            b.ball_g = a.typed.raw("ball_g").into();
            b.other_error = Some(sentence);
        }
        _ => b.other_error = Some(sentence),
    }
    let html = shown(&a.told, &a.here, a.theme, b)?;
    Ok((StatusCode::UNPROCESSABLE_ENTITY, html).into_response())
}
