//! The Ledger: finished batches with what was planned, what was measured and what was said.

mod view;

use crate::App;
use crate::rooms::batch::load;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::Router;
use axum::extract::{Query, State};
use axum::response::Html;
use axum::routing::get;
use serde::Deserialize;
use view::View;

/// Batches on one page.
const PER_PAGE: u32 = 20;

pub fn routes() -> Router<App> {
    Router::new().route("/ledger", get(ledger))
}

#[derive(Deserialize)]
struct Which {
    #[serde(default)]
    skip: Option<String>,
}

#[derive(Template)]
#[template(path = "rooms/ledger/page.html")]
struct Page {
    frame: Frame,
    l: View,
}

async fn ledger(
    State(app): State<App>,
    here: Here,
    theme: Theme,
    Query(which): Query<Which>,
) -> Result<Html<String>, Trouble> {
    let skip: u32 = which
        .skip
        .and_then(|s| s.parse().ok())
        .unwrap_or(0)
        .min(100_000);
    let mut told = load::finished(&app, &here, skip, PER_PAGE + 1).await?;
    let older = told.len() > PER_PAGE as usize;
    told.truncate(PER_PAGE as usize);
    let frame = Frame::of(&here, theme, Stop::Ledger, "Ledger", None, "/ledger");
    let l = View::of(&told, &here, (skip, older.then_some(skip + PER_PAGE)));
    page(&Page { frame, l })
}
