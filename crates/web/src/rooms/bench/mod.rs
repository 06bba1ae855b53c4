//! The Bench: every live batch on one ribbon of time, and what is next.

pub(crate) mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::batch::load;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::paging::{Paging, Which};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::extract::{Query, State};
use axum::response::Html;
use view::BenchView;

pub fn routes() -> Doors {
    Doors::new().get(LOOK, "/", bench)
}

#[derive(Template)]
#[template(path = "rooms/bench/page.html")]
struct BenchPage {
    frame: Frame,
    b: BenchView,
    paging: Paging,
    /// Code and name of rows that cannot be read.
    unreadable: Vec<(String, String)>,
}

/// Batches on one page: a ribbon that can still be read.
const PER_PAGE: u32 = 60;

async fn bench(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(which): Query<Which>,
) -> Result<Html<String>, AppError> {
    let skip = which.skip();
    let some = load::some_live(&app, &here, skip, PER_PAGE).await?;
    let paging = Paging::of("/", skip, PER_PAGE, some.in_all);
    let unreadable = some.unreadable;
    let mut live = Vec::with_capacity(some.told.len());
    let mut boxes = Vec::with_capacity(some.told.len());
    for told in some.told {
        let goes = app.goes(&told, &here).await?;
        boxes.push(app.boxes(&told, &here).await?);
        live.push(told.following(&goes));
    }
    let frame = Frame::of(&here, theme, Stop::Bench, phrase("page-bench"), None, "/");
    page(&BenchPage {
        frame,
        b: BenchView::of(&live, &boxes, &here, &app.drawn.boards),
        paging,
        unreadable,
    })
}
