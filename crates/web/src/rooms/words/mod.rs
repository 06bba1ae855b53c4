//! Words: what the pages' words mean, how sure the figures are, and what the product leaves to others.

use crate::access::doors::{Asks, Doors};
use crate::shared::error::AppError;
use crate::shared::format::plain_reader;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{self, phrase};
use askama::Template;
use axum::extract::Query;
use axum::response::Html;
use craft::keyed::Keyed;
use speech::Language;
use speech::glossary::GlossaryShelf;
use std::collections::HashMap;

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
async fn words(
    theme: Theme,
    Query(asked): Query<HashMap<String, String>>,
) -> Result<Html<String>, AppError> {
    // The page that leads here says what its reader reads: nobody is looked up for the words.
    let read = asked.get("in").and_then(|key| Language::from_key(key));
    tongue::wording(read.unwrap_or_else(tongue::language), || {
        let mut frame = Frame::bare(theme, Stop::Bench, phrase("page-words"));
        frame.path = "/words".into();
        page(&WordsPage {
            frame,
            shelves: plain_reader().glossary(),
        })
    })
}
