//! About: what the figures mean, how sure they are, and what the product leaves to others.

use crate::App;
use crate::shared::error::AppError;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::Router;
use axum::response::Html;
use axum::routing::get;

pub fn routes() -> Router<App> {
    Router::new().route("/about", get(about))
}

#[derive(Template)]
#[template(path = "rooms/about/page.html")]
struct Page {
    frame: Frame,
}

async fn about(theme: Theme) -> Result<Html<String>, AppError> {
    let mut frame = Frame::bare(theme, Stop::Bench, "What the figures mean");
    frame.path = "/about".into();
    page(&Page { frame })
}
