//! Words: what the pages' words mean, how sure the figures are, and what the product leaves to others.

use crate::access::doors::{Asks, Doors};
use crate::shared::error::AppError;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use askama::Template;
use axum::response::Html;
use jiff::tz::TimeZone;
use speech::glossary::GlossaryShelf;
use speech::{Measures, Reader};
use std::sync::LazyLock;

pub fn routes() -> Doors {
    Doors::new().get(Asks::Nothing, "/words", words)
}

#[derive(Template)]
#[template(path = "rooms/words/page.html")]
struct WordsPage {
    frame: Frame,
    shelves: &'static [GlossaryShelf],
}

/// Also without the database: the words are the same for every kitchen.
static SHELVES: LazyLock<Vec<GlossaryShelf>> =
    LazyLock::new(|| Reader::plain(Measures::METRIC, &TimeZone::UTC).glossary());

async fn words(theme: Theme) -> Result<Html<String>, AppError> {
    let mut frame = Frame::bare(theme, Stop::Bench, "Words");
    frame.path = "/words".into();
    page(&WordsPage {
        frame,
        shelves: &SHELVES,
    })
}
