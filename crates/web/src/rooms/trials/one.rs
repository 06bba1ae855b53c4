//! The page of a trial: what is compared, what was held equal, what the table said, and what that shows.

use super::one_view::TrialView;
use crate::App;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::extract::{Path, State};
use axum::response::Html;

#[derive(Template)]
#[template(path = "rooms/trials/one.html")]
struct TrialPage {
    frame: Frame,
    t: TrialView,
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Html<String>, AppError> {
    let told = super::told(&app, &here, &code).await?;
    let path = format!("/trials/{}", told.kept.code);
    page(&TrialPage {
        frame: Frame::of(&here, theme, Stop::Ledger, &told.kept.name, None, &path),
        t: TrialView::of(&told, &here),
    })
}
