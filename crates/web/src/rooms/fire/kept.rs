//! The fire of a batch: kept as part of its plan, its readings, its caution, what its bakes say of the oven.

use super::Open;
use super::form::{self, Read};
use crate::App;
use crate::rooms::batch::{enter, told_at};
use crate::shared::error::Trouble;
use crate::shared::form::{NotANumber, Typed, number};
use crate::shared::format::day_hm;
use crate::shared::kitchen::Here;
use crate::shared::progress::Told;
use crate::shared::theme::Theme;
use axum::Router;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use axum::routing::{get, post};
use craft::fire::{FireChoice, of_formula};
use craft::formula::Formula;
use craft::reading::Subject;
use craft::refusal::{FieldError, plain};
use craft::sheet::{SheetRequest, carry_numbers, work_out};
use store::batch::{self, NewPlan, Replanned};
use store::formula::{self, FormulaId, Kept, NewVersion};
use store::observation::Seen;

pub fn routes() -> Router<App> {
    Router::new()
        .route("/batches/{code}/fire", get(show).post(keep))
        .route("/batches/{code}/fire/formula", post(next_formula))
        .route("/batches/{code}/fire/reading", post(reading))
        .route("/batches/{code}/fire/caution", post(caution))
        .route(
            "/batches/{code}/fire/calibrate",
            post(super::calibration::calibrated),
        )
}

async fn show(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let open = Open::of(&app, &here, &code, "").await?;
    let typed = open.typed(&here);
    let extra = open.extra(&here);
    open.render(&typed, &here, theme, StatusCode::OK, &[], extra)
}

/// The request of the batch with this fire, and with the dough that it asks for.
fn request(
    told: &Told,
    open: &Open,
    read: &Read,
    formula: Formula,
) -> Result<SheetRequest, Vec<FieldError>> {
    let fire = FireChoice::of(
        read.plan.clone(),
        read.oven_id,
        read.hands,
        open.dough.room_c,
    )
    .map_err(|e| form::at_fields(e.0))?;
    let mut r = told.batch.sheet.request.clone();
    r.formula = formula;
    r.now_at = None;
    r.fire = Some(Box::new(fire));
    Ok(r)
}

/// The dough that the form's piece comes from, and whether more than its toppings changed.
fn dough_of(open: &Open, read: &Read) -> (Formula, bool) {
    let was = open.dough.piece();
    let now = &read.plan.piece;
    let next = of_formula::changed(&open.dough.formula, &was, now);
    let by = |a: f64, b: f64| (a - b).abs() > 1e-6;
    let dough = by(was.ball_g, now.ball_g)
        || by(was.sugar_percent, now.sugar_percent)
        || by(was.malt_percent, now.malt_percent)
        || by(was.oil_percent, now.oil_percent);
    (next, dough)
}

/// Keeps the fire as part of the plan. A changed dough changes the batch while it is not mixed, and makes the next
/// version of the formula that it came from.
async fn keep(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let mut typed = Typed::parse(&body);
    let open = Open::of(&app, &here, &code, "").await?;
    // A switch that is off is not sent.
    for name in ["grill", "fan", "below"] {
        if !typed.has(name) {
            typed.set(name, "");
        }
    }
    let refuse = |typed: &Typed, errors: &[FieldError], status| {
        let mut extra = open.extra(&here);
        extra.plan = typed.text("plan").parse().unwrap_or(extra.plan);
        open.render(typed, &here, theme, status, errors, extra)
    };
    let read = match form::read(&typed, &open.dough, &open.larder, &here) {
        Ok(r) => r,
        // The page reads the form again and shows the same sentences.
        Err(_) => return refuse(&typed, &[], StatusCode::UNPROCESSABLE_ENTITY),
    };
    let told = open.batch(&code)?;
    let (formula, dough_changed) = dough_of(&open, &read);
    if dough_changed && open.dough.mixed {
        let e = FieldError {
            field: "pressed".into(),
            message: "This dough is mixed: ball, sugar, malt and oil are for the next one. Keep them as a formula, or set them back.".into(),
        };
        return refuse(&typed, &[e], StatusCode::CONFLICT);
    }
    let worked = request(told, &open, &read, formula.clone()).and_then(|r| {
        let mut result = work_out(&r).map_err(|e| form::at_fields(e.0))?;
        carry_numbers(&told.batch.sheet.result.steps, &mut result.steps);
        Ok((r, result))
    });
    let (request, result) = match worked {
        Ok(w) => w,
        Err(e) => return refuse(&typed, &e, StatusCode::UNPROCESSABLE_ENTITY),
    };
    let of = typed.text("plan").parse().unwrap_or(u32::MAX);
    let why = if dough_changed {
        "fire and dough changed"
    } else {
        "fire planned"
    };
    let mut db = app.db.acquire().await?;
    let new = NewPlan {
        of,
        request: &request,
        result: &result,
        why,
    };
    match batch::replan(&mut db, here.id(), told.batch.id, &new, here.now).await? {
        Replanned::Done => {
            if dough_changed {
                version(&mut db, &here, told, &formula, &read).await?;
            }
            Ok(Redirect::to(&format!("/batches/{code}/fire")).into_response())
        }
        Replanned::Stale(_) => {
            drop(db);
            let mut extra = open.extra(&here);
            extra.stale = Some(format!(
                "Somebody changed this plan at {}. Yours stands below and is not kept: keep it now to put it in place of theirs.",
                day_hm(&here.local(told.batch.planned_at))
            ));
            open.render(&typed, &here, theme, StatusCode::CONFLICT, &[], extra)
        }
    }
}

/// The next version of the formula that a batch was made from, or a new formula where it was made from none.
async fn version(
    db: &mut store::MySqlConnection,
    here: &Here,
    told: &Told,
    formula: &Formula,
    read: &Read,
) -> Result<(u64, u32), Trouble> {
    let from = batch::made_from(db, here.id(), told.batch.id).await?;
    let why = format!("for {}", read.plan.oven.name);
    let why: String = why.chars().take(120).collect();
    let (name, of) = match &from {
        Some((id, _, name)) => {
            let head = formula::version(db, here.id(), FormulaId(*id), None).await?;
            (name.clone(), head.map(|h| (FormulaId(*id), h.number)))
        }
        None => (told.batch.name.clone(), None),
    };
    let new = NewVersion {
        form_key: uuid::Uuid::new_v4(),
        name: &name,
        why: &why,
        formula,
        of,
        origin: batch::Origin::Maker,
    };
    match formula::keep(db, here.id(), &new, here.now).await? {
        Kept::Done { of, number } => Ok((of.0, number)),
        // Somebody made one in the same moment: this one goes after it.
        Kept::Stale { head } => {
            let again = NewVersion {
                of: of.map(|(id, _)| (id, head)),
                ..new
            };
            match formula::keep(db, here.id(), &again, here.now).await? {
                Kept::Done { of, number } => Ok((of.0, number)),
                Kept::Stale { .. } => Err(Trouble::Asked(
                    "Somebody is changing this formula just now: try again.".into(),
                )),
            }
        }
    }
}

/// Keeps a changed dough for the next time, without touching this batch.
async fn next_formula(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let open = Open::of(&app, &here, &code, "").await?;
    let told = open.batch(&code)?;
    let read = match form::read(&typed, &open.dough, &open.larder, &here) {
        Ok(r) => r,
        // The page reads the form again and shows the same sentences.
        Err(_) => {
            let extra = open.extra(&here);
            return open.render(&typed, &here, theme, StatusCode::OK, &[], extra);
        }
    };
    let (formula, _) = dough_of(&open, &read);
    let mut db = app.db.acquire().await?;
    let (id, _) = version(&mut db, &here, told, &formula, &read).await?;
    Ok(Redirect::to(&format!("/formulas/{id}")).into_response())
}

/// A reading of floor or dome; what cannot be is refused with what was probably meant.
async fn reading(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, Trouble> {
    let typed = Typed::parse(&body);
    let open = Open::of(&app, &here, &code, "").await?;
    let told = open.batch(&code)?;
    let subject = match typed.text("subject") {
        "dome" => Subject::Dome,
        _ => Subject::Floor,
    };
    let unit = here.measures.temperature;
    let mut meant = None;
    let read = match (number(typed.text("degrees")), told_at(&typed, &here)) {
        (_, Err(message)) => Err(message),
        (Err(NotANumber::Empty), _) => Err("The temperature is missing.".into()),
        (Err(NotANumber::Text), _) => Err("The temperature must be a number, such as 415.".into()),
        (Ok(v), Ok(_)) => {
            meant = subject.meant(v, unit).map(plain);
            subject.take(v, unit).map(|c| c.0).map_err(|e| e.message)
        }
    };
    match read {
        Ok(celsius) => {
            let seen = Seen::Reading { subject, celsius };
            enter(&app, &here, told, &typed, seen).await?;
            let back = match typed.text("back") {
                "bake" => "bake",
                _ => "fire",
            };
            Ok(Redirect::to(&format!("/batches/{code}/{back}")).into_response())
        }
        Err(message) => {
            let mut extra = open.extra(&here);
            extra.reading = Some((
                subject.key().into(),
                typed.raw("degrees").into(),
                message,
                meant,
            ));
            let mut answer =
                open.render(&open.typed(&here), &here, theme, StatusCode::OK, &[], extra)?;
            *answer.status_mut() = StatusCode::UNPROCESSABLE_ENTITY;
            Ok(answer)
        }
    }
}

/// The caution was read: once per run is enough.
async fn caution(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Redirect, Trouble> {
    let typed = Typed::parse(&body);
    let told = crate::rooms::batch::load::told(&app, &here, &code).await?;
    enter(&app, &here, &told, &typed, Seen::Cautioned).await?;
    let back = if typed.text("back") == "fire" {
        "fire"
    } else {
        "bake"
    };
    Ok(Redirect::to(&format!("/batches/{code}/{back}")))
}
