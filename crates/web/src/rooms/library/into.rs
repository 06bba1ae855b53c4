//! A formula into another of one's kitchens, as its first version there.

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::shared::error::{AppError, ErrorSaid};
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::people::Right;
use store::batch::Origin;
use store::formula::{self, FormulaId, KeptFormula, NewVersion};
use store::people::person::{self, Belonging};
use store::{Author, KitchenId};

pub fn routes() -> Doors {
    // Whoever may look here may take it where they may plan.
    Doors::new().post(LOOK, "/formulas/{id}/into", take)
}

/// The other kitchens in which whoever asks makes formulas.
pub async fn kitchens(app: &App, here: &RequestKitchen) -> Result<Vec<Belonging>, AppError> {
    let Some(me) = here.asker.person else {
        return Ok(vec![]);
    };
    let mut db = app.db.acquire().await?;
    let mut all = person::kitchens(&mut db, me).await?;
    all.retain(|b| b.kitchen != here.id() && b.role.may(Right::Plan));
    Ok(all)
}

async fn take(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let asked = typed.text("kitchen").parse().ok().map(KitchenId);
    let all = kitchens(&app, &here).await?;
    let Some(there) = all.iter().find(|b| Some(b.kitchen) == asked) else {
        return Ok(ErrorSaid::new(
            phrase("library-not-into-that-kitchen"),
            phrase("library-choose-a-kitchen-in-which"),
        )
        .with(StatusCode::UNPROCESSABLE_ENTITY));
    };
    let form_key = typed.key("form_key");
    let author = Author::of(there.kitchen, &here.asker.whom);
    let kept = store::act!(app.db, db => {
        match formula::version(db, here.id(), FormulaId(id), None).await? {
            None => Ok(None),
            Some(v) => {
                let from = &here.kitchen.name;
                let new = NewVersion {
                    form_key,
                    name: &v.name,
                    why: &say!("library-from-another-kitchen", kitchen = from, number = v.number),
                    formula: &v.formula,
                    of: None,
                    origin: Origin::Maker,
                };
                formula::keep(db, author, &new, here.now).await.map(Some)
            }
        }
    })?;
    match kept.ok_or_else(|| AppError::NoFormula(id.to_string()))? {
        KeptFormula::Done { .. } | KeptFormula::Other { .. } => {
            let to = format!("/formulas/{id}?into={}", there.kitchen.0);
            Ok(Redirect::to(&to).into_response())
        }
        KeptFormula::Stale { .. } => Ok(Redirect::to(&format!("/formulas/{id}")).into_response()),
    }
}
