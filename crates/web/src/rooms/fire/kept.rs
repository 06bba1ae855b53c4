//! The fire of a batch: kept as part of its plan, its readings, its caution, what its bakes say of the oven.

use super::OpenFire;
use super::form::{self, Read};
use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries;
use crate::batch::next_version::next_version;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::{FormData, NotANumber, number};
use crate::shared::format::day_hm;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, plain, say};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact;
use craft::fact::Fact;
use craft::fire::{FireChoice, of_formula};
use craft::formula::Formula;
use craft::keyed::Keyed;
use craft::reading::Subject;
use craft::refusal::FieldError;
use craft::sheet::{SheetRequest, SheetResult, carry_numbers, work_out};
use store::batch::{self, NewPlan, Replanned};
use store::entry::Seen;
use store::formula::KeptFormula;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/fire", show)
        .post(PLAN, "/batches/{code}/fire", keep)
        .post(PLAN, "/batches/{code}/fire/formula", next_formula)
        .post(TAP, "/batches/{code}/fire/reading", reading)
        .post(TAP, "/batches/{code}/fire/caution", caution)
        .post(
            PLAN,
            "/batches/{code}/fire/calibrate",
            super::calibration::calibrated,
        )
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let open = OpenFire::of(&app, &here, &code, "").await?;
    let work = || {
        let typed = open.typed(&here);
        let extra = open.extra(&here);
        open.render(&typed, &here, theme, StatusCode::OK, &[], extra)
    };
    app.models.at_length(work).await?
}

/// The request of the batch with this fire, and with the dough that it asks for.
fn request(
    told: &BatchRecord,
    open: &OpenFire,
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
    let mut r = SheetRequest::clone(&told.batch.sheet.request);
    r.formula = formula;
    r.now_at = None;
    r.fire = Some(Box::new(fire));
    Ok(r)
}

/// The dough that the form's piece comes from, and whether more than its toppings changed.
fn dough_of(open: &OpenFire, read: &Read) -> (Formula, bool) {
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
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let mut typed = FormData::parse(&body);
    let open = OpenFire::of(&app, &here, &code, "").await?;
    // A switch that is off is not sent.
    for name in ["grill", "fan", "below"] {
        if !typed.has(name) {
            typed.set(name, "");
        }
    }
    let refuse = |typed: &FormData, errors: &[FieldError], status| {
        let mut extra = open.extra(&here);
        extra.plan = typed.text("plan").parse().unwrap_or(extra.plan);
        open.render(typed, &here, theme, status, errors, extra)
    };
    let told = open.batch(&code)?;
    let new = match app
        .models
        .at_length(|| planned(&open, told, &typed, &here))
        .await?
    {
        Ok(new) => new,
        Err((errors, status)) => {
            return app
                .models
                .at_length(|| refuse(&typed, &errors, status))
                .await?;
        }
    };
    let of = typed.text("plan").parse().unwrap_or(u32::MAX);
    let form_key = typed.key("form_key");
    let why = match new.dough_changed {
        true => fact!("plan-fire-dough"),
        false => fact!("plan-fire"),
    };
    // The plan and the formula that it asks for: both, or neither.
    let done = store::act!(app.db, db => {
        let plan = NewPlan {
            of,
            request: &new.request,
            result: &new.result,
            why: &why,
        };
        match batch::replan(db, here.author(), told.batch.id, &plan, here.now).await? {
            Replanned::Done if new.dough_changed => {
                next_version(db, &here, told, (&new.formula, &for_oven(&new.oven)), form_key).await?;
                Ok(Replanned::Done)
            }
            done => Ok(done),
        }
    })?;
    match done {
        Replanned::Done => Ok(Redirect::to(&format!("/batches/{code}/fire")).into_response()),
        Replanned::Stale(_) => {
            let mut extra = open.extra(&here);
            extra.stale = Some(say!(
                "fire-somebody-changed-this-plan-at",
                planned_at = day_hm(&here.local(told.batch.planned_at))
            ));
            let render = || open.render(&typed, &here, theme, StatusCode::CONFLICT, &[], extra);
            app.models.at_length(render).await?
        }
    }
}

/// A plan with its fire, worked out and not kept yet.
struct PlannedFire {
    request: SheetRequest,
    result: SheetResult,
    formula: Formula,
    oven: String,
    dough_changed: bool,
}

fn planned(
    open: &OpenFire,
    told: &BatchRecord,
    typed: &FormData,
    here: &RequestKitchen,
) -> Result<PlannedFire, (Vec<FieldError>, StatusCode)> {
    // The page reads the form again and shows the same sentences.
    let read = form::read(typed, &open.dough, &open.larder, here)
        .map_err(|_| (vec![], StatusCode::UNPROCESSABLE_ENTITY))?;
    let (formula, dough_changed) = dough_of(open, &read);
    if dough_changed && open.dough.mixed {
        let e = FieldError {
            field: "pressed".into(),
            message: Fact::as_written(phrase("fire-this-dough-is-mixed-ball")),
        };
        return Err((vec![e], StatusCode::CONFLICT));
    }
    let worked = request(told, open, &read, formula.clone()).and_then(|r| {
        let mut result = work_out(&r).map_err(|e| form::at_fields(e.0))?;
        carry_numbers(&told.batch.sheet.result.steps, &mut result.steps);
        Ok((r, result))
    });
    let (request, result) = worked.map_err(|e| (e, StatusCode::UNPROCESSABLE_ENTITY))?;
    Ok(PlannedFire {
        request,
        result,
        formula,
        oven: read.plan.oven.name,
        dough_changed,
    })
}

fn for_oven(oven: &str) -> String {
    say!("fire-for", oven = oven).chars().take(120).collect()
}

/// Keeps a changed dough for the next time, without touching this batch.
async fn next_formula(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let open = OpenFire::of(&app, &here, &code, "").await?;
    let told = open.batch(&code)?;
    let read = match form::read(&typed, &open.dough, &open.larder, &here) {
        Ok(r) => r,
        // The page reads the form again and shows the same sentences.
        Err(_) => {
            let extra = open.extra(&here);
            let render = || open.render(&typed, &here, theme, StatusCode::OK, &[], extra);
            return app.models.at_length(render).await?;
        }
    };
    let (formula, _) = dough_of(&open, &read);
    let (oven, form_key) = (read.plan.oven.name.as_str(), typed.key("form_key"));
    let kept = store::act!(app.db, db => {
        next_version(db, &here, told, (&formula, &for_oven(oven)), form_key).await
    })?;
    Ok(match kept {
        KeptFormula::Done { of, .. } | KeptFormula::Other { of, .. } => {
            Redirect::to(&format!("/formulas/{}", of.0)).into_response()
        }
        KeptFormula::Stale { .. } => {
            return Err(AppError::Asked(
                phrase("fire-somebody-is-changing-this-formula").into(),
            ));
        }
    })
}

/// A reading of floor or dome; what cannot be is refused with what was probably meant.
async fn reading(a: Arrived) -> Result<Response, AppError> {
    let subject = match a.typed.text("subject") {
        "dome" => Subject::Dome,
        _ => Subject::Floor,
    };
    let unit = a.here.measures.temperature;
    let mut meant = None;
    let read = match number(a.typed.text("degrees")) {
        Err(NotANumber::Empty) => Err(phrase("fire-the-temperature-is-missing").to_string()),
        Err(NotANumber::Text) => Err(phrase("fire-the-temperature-must-be-a").into()),
        Ok(v) => {
            meant = subject.meant(v, unit).map(plain);
            subject
                .take(v, unit)
                .map(|c| c.0)
                .map_err(|e| a.here.say(&e.message))
        }
    };
    let read = read.and_then(|c| match &a.sent {
        Ok(_) => Ok(c),
        Err(e) => Err(e.clone()),
    });
    match read {
        Ok(celsius) => {
            let seen = Seen::Reading { subject, celsius };
            let back = back(&a.typed, a.code());
            a.entered(seen, &back, &entries::open).await
        }
        Err(message) if a.by_script => Ok(entries::wrong("degrees", message)),
        Err(message) => {
            let here = &a.here;
            let open = OpenFire::of(&a.app, here, a.code(), "").await?;
            let mut extra = open.extra(here);
            extra.reading = Some((
                subject.key().into(),
                a.typed.raw("degrees").into(),
                message,
                meant,
            ));
            let render =
                || open.render(&open.typed(here), here, a.theme, StatusCode::OK, &[], extra);
            let mut answer = a.app.models.at_length(render).await??;
            *answer.status_mut() = StatusCode::UNPROCESSABLE_ENTITY;
            Ok(answer)
        }
    }
}

/// The page that a form of the fire came from.
fn back(typed: &FormData, code: &str) -> String {
    let page = match typed.text("back") {
        "bake" => "bake",
        _ => "fire",
    };
    format!("/batches/{code}/{page}")
}

/// The caution was read: once per run is enough.
async fn caution(a: Arrived) -> Result<Response, AppError> {
    let back = back(&a.typed, a.code());
    a.entered(Seen::Cautioned, &back, &entries::open).await
}
