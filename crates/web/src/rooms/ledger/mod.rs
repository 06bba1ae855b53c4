//! The Ledger: finished batches with what was planned, what was measured and what was said; found again by name, flour, oven,
//! verdict, people and dates, set side by side, and taken out as a table.

mod beside;
mod beside_photos;
mod beside_view;
mod find;
mod late;
mod late_view;
mod taken_out;
pub mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::batch::load;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::paging::Paging;
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::extract::{Query, State};
use axum::response::Html;
use find::{LedgerChoice, LedgerQuery};
use view::LedgerView;

/// Batches on one page.
const PER_PAGE: u32 = 20;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/ledger", ledger)
        .get(LOOK, "/ledger/bakes.csv", taken_out::csv)
        .get(LOOK, "/ledger/side-by-side", beside::show)
        .get(PLAN, "/ledger/late", late::form)
        .post(PLAN, "/ledger/late", late::keep)
}

#[derive(Template)]
#[template(path = "rooms/ledger/page.html")]
struct LedgerPage {
    frame: Frame,
    l: LedgerView,
    paging: Paging,
    asked: LedgerQuery,
    /// So many bakes were just written down later.
    kept: Option<u32>,
    /// Whether anything is looked for, and whether more than words.
    searched: bool,
    filtered: bool,
    choices: Vec<LedgerChoice>,
    csv: String,
    /// Code and name of rows that cannot be read.
    unreadable: Vec<(String, String)>,
}

async fn ledger(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(asked): Query<LedgerQuery>,
) -> Result<Html<String>, AppError> {
    let skip = asked.which.skip();
    let find = asked.find(&here);
    // The whole ledger is counted and paged by its index alone.
    let some = match find.is_all() {
        true => load::finished(&app, &here, skip, PER_PAGE).await?,
        false => load::found(&app, &here, &find, (skip, PER_PAGE)).await?,
    };
    let mut db = app.db.acquire().await?;
    let choices = find::choices(&mut db, &here, &asked).await?;
    drop(db);
    let frame = Frame::of(
        &here,
        theme,
        Stop::Ledger,
        phrase("ledger-ledger"),
        None,
        "/ledger",
    );
    let searched = !find.is_all();
    let l = LedgerView::of(&some.told, &here, (some.in_all, searched), &app.drawn.lines);
    let mut paging = Paging::of("/ledger", skip, PER_PAGE, some.in_all);
    paging.keep(&asked.asked());
    page(&LedgerPage {
        frame,
        l,
        paging,
        searched,
        filtered: searched
            && find
                != store::found::FindBakes {
                    text: find.text.clone(),
                    ..Default::default()
                },
        choices,
        csv: asked.csv(),
        kept: asked.kept.parse().ok(),
        asked,
        unreadable: some.unreadable,
    })
}
