//! More or fewer pieces of a kept batch: weighed anew while it is not mixed, and afterwards the same dough cut otherwise.

use super::refuse;
use crate::App;
use crate::batch::Told;
use crate::batch::arrived::Arrived;
use crate::batch::forecast::replanned;
use crate::batch::replan::keep;
use crate::shared::error::Trouble;
use axum::Router;
use axum::response::{IntoResponse, Redirect, Response};
use axum::routing::post;
use craft::fire::FireChoice;
use craft::formula::Formula;
use craft::refusal::Refused;
use craft::sheet::{SheetRequest, StepKind};
use store::batch::Replanned;

pub fn routes() -> Router<App> {
    Router::new().route("/batches/{code}/pieces", post(change))
}

/// Whether the dough is cut already: then a number changes nothing of it.
pub fn is_balled(told: &Told) -> bool {
    let steps = &told.batch.sheet.result.steps;
    let shaped = |k| matches!(k, StepKind::Ball | StepKind::Pan);
    told.progress.any(steps, shaped) || !told.run.pizzas.is_empty()
}

/// The request with another number of pieces; the fire of a piece of another size is worked out anew.
fn recounted(told: &Told, n: u32) -> Result<SheetRequest, Refused> {
    let request = &told.batch.sheet.request;
    if !told.is_mixed() {
        return with(request, request.formula.scaled_to(n)?, 1.0);
    }
    let larger = f64::from(request.formula.pieces.count().max(1)) / f64::from(n.max(1));
    with(request, told.as_mixed(request.formula.cut_into(n)?), larger)
}

fn with(r: &SheetRequest, formula: Formula, larger: f64) -> Result<SheetRequest, Refused> {
    let mut out = SheetRequest {
        formula,
        ..r.clone()
    };
    if let Some(f) = r.fire.as_deref().filter(|_| larger != 1.0) {
        let mut plan = f.plan.clone();
        plan.piece.ball_g *= larger;
        // Opened as thin as before.
        plan.piece.disc_mm *= larger.sqrt();
        let fire = FireChoice::of(plan, f.oven_id, f.hands, r.room_c);
        out.fire = Some(Box::new(fire.map_err(|e| {
            let said = e.0.into_iter().map(|e| e.message).collect::<Vec<_>>();
            Refused::one(
                "count",
                format!("The oven does not bake them: {}", said.join(" ")),
            )
        })?));
    }
    Ok(out)
}

async fn change(a: Arrived) -> Result<Response, Trouble> {
    let told = &a.told;
    let Ok(n) = a.typed.text("count").parse::<u32>() else {
        return refuse(
            &a,
            "count",
            "How many pieces: a whole number, such as 8.".into(),
        )
        .await;
    };
    if told.is_ended() || is_balled(told) {
        let message = "They are cut already: what is over stays over.";
        return refuse(&a, "count", message.into()).await;
    }
    let was = told.batch.sheet.result.formula.pieces;
    let work = || {
        let request = recounted(told, n)?;
        let result = replanned(told, &request)?;
        Ok::<_, Refused>((request, result))
    };
    let (request, result) = match a.app.models.at_length(work).await? {
        Ok(x) => x,
        Err(e) => {
            let said: Vec<String> = e.0.into_iter().map(|e| e.message).collect();
            return refuse(&a, "count", said.join(" ")).await;
        }
    };
    let of = a.typed.text("plan").parse().unwrap_or(u32::MAX);
    let why = format!("{n} pieces instead of {was}");
    match keep(&a.app, &a.here, told, of, (&request, &result), &why).await? {
        Replanned::Done => Ok(Redirect::to(&format!("/batches/{}", a.code())).into_response()),
        Replanned::Stale(_) => {
            let message = "Somebody changed this plan a moment ago: look at it as it is now.";
            refuse(&a, "count", message.into()).await
        }
    }
}
