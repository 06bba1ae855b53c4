//! Why? What was seen of a batch, and which single mishap explains it: one cause, what leads the same way, or that it cannot
//! be told, with the one thing to look at next.

use super::why_view::{WhyAsked, WhyView};
use crate::App;
use crate::batch::lessons::{logged, of_kitchen};
use crate::batch::load;
use crate::batch::opened::OpenedView;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::say;
use askama::Template;
use axum::extract::{Path, State};
use axum::response::Html;
use craft::learn::diagnose::{DiagnoseRequest, diagnose_with};
use craft::learn::{Card, LoggedBatch, Notice, notice};
use craft::rise::Doubts;
use craft::sheet::ahead::{AheadRequest, as_planned};

#[derive(Template)]
#[template(path = "rooms/lessons/why.html")]
struct WhyPage {
    frame: Frame,
    code: String,
    teaches: bool,
    may_plan: bool,
    entry_key: uuid::Uuid,
    opened: Option<OpenedView>,
    w: WhyView,
}

/// What is asked of the core.
fn asked(told: &BatchRecord, others: Vec<LoggedBatch>) -> Option<DiagnoseRequest> {
    let this = logged(told)?;
    let sheet = &told.batch.sheet;
    let planned = as_planned(&AheadRequest {
        request: &sheet.request,
        planned: &sheet.result,
        happened: &told.happened(),
        now: told.batch.finished_at.unwrap_or(sheet.request.serve_at),
        places: &[],
        doubts: Doubts::default(),
    })
    .ok();
    let noticed: Vec<Notice> = told.noticed().map(|(n, _)| n).collect();
    let verdicts: Vec<_> = told.run.pizzas.iter().filter_map(|p| p.verdict).collect();
    let fire = sheet.request.fire.as_ref();
    let baked: Vec<f64> = told.run.pizzas.iter().filter_map(|p| p.baked_s()).collect();
    let bake = fire
        .filter(|_| !told.run.pizzas.is_empty())
        .and_then(|f| f.plan.planned().ok())
        .map(|p| p.request);
    Some(DiagnoseRequest {
        batches: others,
        this,
        planned,
        targets: fire.map(|f| f.plan.targets()),
        out_s: (!baked.is_empty()).then(|| baked.iter().sum::<f64>() / baked.len() as f64),
        verdict: notice::baked_as(&noticed, &verdicts),
        bake,
    })
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Html<String>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let known = of_kitchen(&app, &here).await?;
    let w = app
        .models
        .at_length(|| {
            let (others, cards): (Vec<LoggedBatch>, Vec<Card>) = known
                .lessons
                .iter()
                .zip(&known.cards)
                .filter(|(l, _)| l.code != code)
                .map(|(l, c)| (l.batch.clone(), c.clone()))
                .unzip();
            let asked = asked(&told, others);
            let found = asked
                .as_ref()
                .and_then(|a| diagnose_with(a, &cards).ok().map(|d| (a, d)));
            WhyView::of(
                found.map(|(request, said)| WhyAsked { request, said }),
                &told,
                &here,
            )
        })
        .await?;
    let path = format!("/batches/{code}/why");
    let frame = Frame::of(
        &here,
        theme,
        Stop::Ledger,
        &say!("learn-why-of", code = code),
        Some((&code, told.progress.stand)),
        &path,
    );
    page(&WhyPage {
        frame,
        teaches: told.teaches(),
        may_plan: here.may(craft::people::Right::Plan),
        entry_key: uuid::Uuid::new_v4(),
        opened: OpenedView::of(&told, &here, path),
        w,
        code,
    })
}
