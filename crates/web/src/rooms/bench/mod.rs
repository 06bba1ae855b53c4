//! The Bench: every live batch on one ribbon of time, and what is next.

mod view;

use crate::App;
use crate::rooms::batch::load;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::Router;
use axum::extract::State;
use axum::response::Html;
use axum::routing::get;
use view::View;

pub fn routes() -> Router<App> {
    Router::new().route("/", get(bench))
}

#[derive(Template)]
#[template(path = "rooms/bench/page.html")]
struct Page {
    frame: Frame,
    b: View,
}

async fn bench(State(app): State<App>, here: Here, theme: Theme) -> Result<Html<String>, Trouble> {
    let live = load::live(&app, &here).await?;
    let live: Vec<_> = live
        .into_iter()
        .map(|t| t.as_it_goes(&app, &here))
        .collect();
    let frame = Frame::of(&here, theme, Stop::Bench, "Bench", None, "/");
    page(&Page {
        frame,
        b: View::of(&live, &here),
    })
}
