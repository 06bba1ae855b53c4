//! The Ledger: finished batches with what was planned, what was measured and what was said.

pub mod view;

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
use view::LedgerView;

/// Batches on one page.
const PER_PAGE: u32 = 20;

pub fn routes() -> Doors {
    Doors::new().get(LOOK, "/ledger", ledger)
}

#[derive(Template)]
#[template(path = "rooms/ledger/page.html")]
struct LedgerPage {
    frame: Frame,
    l: LedgerView,
    paging: Paging,
    /// Code and name of rows that cannot be read.
    unreadable: Vec<(String, String)>,
}

async fn ledger(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(which): Query<Which>,
) -> Result<Html<String>, AppError> {
    let skip = which.skip();
    let some = load::finished(&app, &here, skip, PER_PAGE).await?;
    let frame = Frame::of(
        &here,
        theme,
        Stop::Ledger,
        phrase("ledger-ledger"),
        None,
        "/ledger",
    );
    let l = LedgerView::of(&some.told, &here, some.in_all, &app.drawn.lines);
    page(&LedgerPage {
        frame,
        l,
        paging: Paging::of("/ledger", skip, PER_PAGE, some.in_all),
        unreadable: some.unreadable,
    })
}
