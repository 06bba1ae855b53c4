//! The list of trials.

use crate::App;
use crate::shared::error::AppError;
use crate::shared::format::{count_word, day};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::paging::{Paging, Which};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::extract::{Query, State};
use axum::response::Html;
use craft::people::Right;

const PER_PAGE: u32 = 50;

struct TrialLine {
    code: String,
    name: String,
    day: String,
    arms: String,
    by: String,
}

#[derive(Template)]
#[template(path = "rooms/trials/list.html")]
struct TrialsPage {
    frame: Frame,
    head: String,
    rows: Vec<TrialLine>,
    paging: Paging,
    may_plan: bool,
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(which): Query<Which>,
) -> Result<Html<String>, AppError> {
    let skip = which.skip();
    let mut db = app.db.acquire().await?;
    let (all, in_all) = store::trial::list(&mut db, here.id(), (skip, PER_PAGE)).await?;
    drop(db);
    let n = in_all.min(u64::from(u32::MAX)) as u32;
    page(&TrialsPage {
        frame: Frame::of(
            &here,
            theme,
            Stop::Ledger,
            phrase("ledger-trials"),
            None,
            "/trials",
        ),
        head: say!("trial-so-many", n = n, word = count_word(n)),
        rows: all
            .into_iter()
            .map(|t| TrialLine {
                arms: t
                    .trial
                    .arms
                    .iter()
                    .map(|a| here.words(&a.is))
                    .collect::<Vec<_>>()
                    .join(" · "),
                code: t.code,
                name: t.name,
                day: day(&here.local(t.created_at)),
                by: here.by(&t.by),
            })
            .collect(),
        paging: Paging::of("/trials", skip, PER_PAGE, in_all),
        may_plan: here.may(Right::Plan),
    })
}
