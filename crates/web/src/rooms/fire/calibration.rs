//! What the bakes of an oven say of it: two factors, shown first, noted in the pantry only when that is pressed.

use super::OpenFire;
use crate::App;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, plain, say};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fire::calibrate::{Calibration, Logged, calibrate, counts};
use craft::fire::judge::floor_before;
use store::pantry::{self, At, Put};

/// What the bakes of an oven say of it, to be taken or left.
pub struct CalibrationView {
    pub says: String,
    pub changes: String,
    pub can_keep: bool,
    /// It would be kept in an oven of one's own.
    pub may_copy: bool,
}

/// The judged bakes of an oven, over the batches that were planned with it, the earliest first.
fn logged(
    all: &[BatchRecord],
    oven_id: Option<u64>,
    oven_key: &str,
) -> Vec<(Logged, craft::fire::race::Targets)> {
    let mut out = Vec::new();
    for told in all {
        let Some(fire) = told.batch.sheet.request.fire.as_deref() else {
            continue;
        };
        let same = match oven_id {
            Some(id) => fire.oven_id == Some(id),
            None => fire.oven_id.is_none() && fire.plan.oven.key == oven_key,
        };
        if !same {
            continue;
        }
        let mut plan = fire.plan.clone();
        (plan.oven.floor_factor, plan.oven.top_factor) = (1.0, 1.0);
        let reads = told.floor_reads();
        for p in &told.run.pizzas {
            let (Some(verdict), Some(baked_s)) = (p.verdict, p.baked_s()) else {
                continue;
            };
            plan.floor_read_c = floor_before(&reads, p.in_at);
            if let Ok(planned) = plan.planned()
                && counts(baked_s, f64::from(planned.programme.out_s))
            {
                out.push((
                    Logged {
                        request: planned.request,
                        baked_s,
                        verdict,
                    },
                    plan.targets(),
                ));
            }
        }
    }
    out
}

/// What the bakes say of this oven; kept in the pantry only when that is pressed.
pub async fn calibrated(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let open = OpenFire::of(&app, &here, &code, "").await?;
    let told = open.batch(&code)?;
    let mut extra = open.extra(&here);
    let form = open.typed(&here);
    let Some(fire) = told.batch.sheet.request.fire.as_deref() else {
        extra.done = Some(phrase("fire-keep-the-fire-first-then").into());
        let render = || open.render(&form, &here, theme, StatusCode::OK, &[], extra);
        return app.models.at_length(render).await?;
    };
    let mut all = crate::batch::load::finished(&app, &here, 0, 12).await?.told;
    all.reverse();
    all.extend(crate::batch::load::live(&app, &here).await?);
    let bakes = app
        .models
        .at_length(|| logged(&all, fire.oven_id, &fire.plan.oven.key))
        .await?;
    let targets = fire.plan.targets();
    // Verdicts of another kind of bake aim at other colours.
    let bakes: Vec<Logged> = bakes
        .into_iter()
        .filter(|(_, t)| *t == targets)
        .map(|(b, _)| b)
        .collect();
    let many = bakes.len();
    let Some(c) = app.models.at_length(|| calibrate(&bakes, &targets)).await? else {
        extra.done = Some(say!("fire-judged-bakes-in-this-oven", many = many));
        let render = || open.render(&form, &here, theme, StatusCode::OK, &[], extra);
        return app.models.at_length(render).await?;
    };
    let own = open
        .larder
        .0
        .ovens
        .iter()
        .find(|o| Some(o.id) == fire.oven_id);
    if !typed.text("keep").is_empty()
        && c.is_better()
        && let Some(o) = own
    {
        let mut facts = o.facts.clone();
        (facts.floor_factor, facts.top_factor) = (c.floor_factor, c.top_factor);
        let mut db = app.db.acquire().await?;
        return match pantry::put(
            &mut db,
            here.id(),
            At::Row {
                id: o.id,
                revision: o.revision,
            },
            &facts,
            here.now,
        )
        .await?
        {
            Put::Done(id) | Put::Other(id) => {
                Ok(Redirect::to(&format!("/pantry/ovens/{id}")).into_response())
            }
            Put::Stale(_) => {
                extra.done = Some(phrase("fire-somebody-changed-that-oven-meanwhile").into());
                let render = || open.render(&form, &here, theme, StatusCode::CONFLICT, &[], extra);
                app.models.at_length(render).await?
            }
        };
    }
    extra.calibration = Some(said(&c, own.is_some()));
    let render = || open.render(&form, &here, theme, StatusCode::OK, &[], extra);
    app.models.at_length(render).await?
}

fn said(c: &Calibration, own: bool) -> CalibrationView {
    let changes = if c.is_better() {
        say!(
            "fire-the-model-then-meets-of",
            met_after = c.met_after,
            bakes = 2 * c.bakes,
            met_before = c.met_before
        )
    } else {
        say!(
            "fire-that-would-meet-of-verdicts",
            met_after = c.met_after,
            bakes = 2 * c.bakes,
            met_before = c.met_before
        )
    };
    CalibrationView {
        says: say!(
            "fire-judged-bakes-floor-top-against",
            bakes = c.bakes,
            floor_factor = plain(c.floor_factor),
            top_factor = plain(c.top_factor)
        ),
        changes,
        can_keep: own && c.is_better(),
        may_copy: !own && c.is_better(),
    }
}
