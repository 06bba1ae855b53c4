//! Bakes side by side: two to four, by the one thing that differs.

use super::beside_view::BesideView;
use crate::App;
use crate::batch::load::{self, codes};
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::extract::{RawQuery, State};
use axum::response::Html;
use craft::sheet::apart::{MOST_SIDE_BY_SIDE, apart};

#[derive(Template)]
#[template(path = "rooms/ledger/beside.html")]
struct BesidePage {
    frame: Frame,
    b: BesideView,
}

pub async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    RawQuery(query): RawQuery,
) -> Result<Html<String>, AppError> {
    let codes = codes(query.as_deref());
    if !(2..=MOST_SIDE_BY_SIDE).contains(&codes.len()) {
        return Err(AppError::Asked(say!(
            "ledger-beside-two-to-four",
            n = codes.len(),
            most = MOST_SIDE_BY_SIDE
        )));
    }
    let mut all = Vec::with_capacity(codes.len());
    for code in &codes {
        all.push(load::told(&app, &here, code).await?);
    }
    let pairs: Vec<_> = all
        .iter()
        .map(|t| (&*t.batch.sheet.request, &*t.batch.sheet.result))
        .collect();
    let mut a = apart(&pairs);
    // By the one thing that differs where it has an order, else by the day.
    let mut order: Vec<usize> = (0..all.len()).collect();
    match a.the_one().and_then(|one| one.numbers()) {
        Some(numbers) => order.sort_by(|&i, &j| numbers[i].total_cmp(&numbers[j])),
        None => order.sort_by_key(|&i| all[i].batch.sheet.request.serve_at),
    }
    let all: Vec<_> = order.iter().map(|&i| all[i].clone()).collect();
    for line in [&mut a.chosen, &mut a.follows, &mut a.stood, &mut a.alike]
        .into_iter()
        .flatten()
    {
        line.values = order.iter().map(|&i| line.values[i].clone()).collect();
    }
    let frame = Frame::of(
        &here,
        theme,
        Stop::Ledger,
        phrase("ledger-beside-title"),
        None,
        "/ledger",
    );
    let b = BesideView::of(&all, &a, &here);
    page(&BesidePage { frame, b })
}
