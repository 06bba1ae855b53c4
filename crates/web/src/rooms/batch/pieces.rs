//! More or fewer pieces of a kept batch: weighed anew while it is not mixed, and afterwards the same dough cut otherwise.

use super::refuse;
use crate::access::doors::{Doors, PLAN};
use crate::batch::BatchRecord;
use crate::batch::arrived::Arrived;
use crate::batch::forecast::replanned;
use crate::batch::replan::keep;
use crate::shared::error::AppError;
use crate::shared::form::{NotANumber, measured};
use crate::shared::tongue::phrase;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact;
use craft::fact::{Fact, weighed};
use craft::formula::Pieces;
use craft::refusal::ValidationError;
use craft::sheet::StepKind;
use craft::units::Meant;
use store::batch::Replanned;

pub fn routes() -> Doors {
    Doors::new().post(PLAN, "/batches/{code}/pieces", change)
}

/// Whether the dough is cut already: then a number changes nothing of it.
pub fn is_balled(told: &BatchRecord) -> bool {
    let steps = &told.batch.sheet.result.steps;
    let shaped = |k| matches!(k, StepKind::Ball | StepKind::Pan);
    told.progress.any(steps, shaped) || !told.run.pizzas.is_empty()
}

/// What was changed: "15 pieces instead of 16", "of 300 g instead of 260 g"; none where nothing was.
fn why(was: &Pieces, is: &Pieces, sized: bool) -> Option<Fact> {
    let weight = match (was, is) {
        // Of a dough in the bowl the weight follows from the number.
        (Pieces::Balls { ball_g: a, .. }, Pieces::Balls { ball_g: b, .. }) if sized && a != b => {
            Some(fact!("plan-weight", g = weighed(*b), was = weighed(*a)))
        }
        _ => None,
    };
    let number = (was.count() != is.count())
        .then(|| fact!("plan-pieces", n = is.count(), was = was.count()));
    match (number, weight) {
        (Some(number), Some(weight)) => Some(fact!("plan-both", number = number, weight = weight)),
        (one, other) => one.or(other),
    }
}

async fn change(a: Arrived) -> Result<Response, AppError> {
    let told = &a.told;
    let was = told.batch.sheet.request.formula.pieces.clone();
    let Ok(n) = a.typed.text("count").parse::<u32>() else {
        return refuse(
            &a,
            "count",
            phrase("batch-how-many-pieces-a-whole-2").into(),
        )
        .await;
    };
    // Empty, not asked for, or as it was shown: they stay as heavy as they are.
    let m = a.here.measures;
    let each = a.typed.text("each");
    let shown = |ball_g: f64| m.weight_field(ball_g) == each;
    let each_g = match measured(each, Meant::Weight(m.weight)) {
        Ok(_) if matches!(was, Pieces::Balls { ball_g, .. } if shown(ball_g)) => None,
        Ok(g) => Some(g),
        Err(NotANumber::Empty) => None,
        Err(NotANumber::Text) => {
            let message = phrase("batch-the-weight-of-one-must");
            return refuse(&a, "count", message.into()).await;
        }
    };
    if told.is_ended() || is_balled(told) {
        let message = phrase("batch-they-are-cut-already-what");
        return refuse(&a, "count", message.into()).await;
    }
    let work = || {
        let mixed = told
            .is_mixed()
            .then_some(told.batch.sheet.result.yeast.percent);
        let request = told.batch.sheet.request.recounted(n, each_g, mixed)?;
        let result = replanned(told, &request)?;
        Ok::<_, ValidationError>((request, result))
    };
    let (request, result) = match a.app.models.at_length(work).await? {
        Ok(x) => x,
        Err(e) => {
            return refuse(&a, "count", a.here.say_all(&e.0)).await;
        }
    };
    let of = a.typed.text("plan").parse().unwrap_or(u32::MAX);
    let Some(why) = why(&was, &request.formula.pieces, each_g.is_some()) else {
        // Nothing was changed: no plan is written anew.
        return Ok(Redirect::to(&format!("/batches/{}", a.code())).into_response());
    };
    match keep(&a.app, &a.here, told, of, (&request, &result), &why).await? {
        Replanned::Done => Ok(Redirect::to(&format!("/batches/{}", a.code())).into_response()),
        Replanned::Stale(_) => {
            let message = phrase("batch-somebody-changed-this-plan-a");
            refuse(&a, "count", message.into()).await
        }
    }
}
