//! Words: what the pages' words mean, how sure the figures are, and what the product leaves to others.

use crate::access::doors::{Asks, Doors};
use crate::shared::error::AppError;
use crate::shared::format::plain_reader;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::response::Html;
use speech::glossary::GlossaryShelf;

pub fn routes() -> Doors {
    Doors::new().get(Asks::Nothing, "/words", words)
}

#[derive(Template)]
#[template(path = "rooms/words/page.html")]
struct WordsPage {
    frame: Frame,
    shelves: Vec<GlossaryShelf>,
}

/// Also without the database: the words are the same for every kitchen.
async fn words(theme: Theme) -> Result<Html<String>, AppError> {
    let mut frame = Frame::bare(theme, Stop::Bench, phrase("page-words"));
    frame.path = "/words".into();
    page(&WordsPage {
        frame,
        shelves: plain_reader().glossary(),
    })
}
