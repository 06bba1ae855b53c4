//! The words of the pages and what each means: the small glossary that every page leads to, and `docs/words.md`.

use crate::reader::Reader;
use craft::fact;
use craft::fact::Fact;
use craft::rise::ripeness::{PEAK, READY, SLACK};

/// A word and what it means.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Word {
    pub word: String,
    pub means: String,
}

/// A shelf of the glossary: words that belong together.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct GlossaryShelf {
    pub title: String,
    pub words: Vec<Word>,
}

impl Reader<'_> {
    /// The glossary, in the order of work.
    pub fn glossary(&self) -> Vec<GlossaryShelf> {
        shelves()
            .into_iter()
            .map(|(title, words)| GlossaryShelf {
                title: self.say(&title),
                words: words
                    .into_iter()
                    .map(|(word, means)| Word {
                        word: self.say(&word),
                        means: self.say(&means),
                    })
                    .collect(),
            })
            .collect()
    }
}

type WordPair = (Fact, Fact);

fn shelves() -> Vec<(Fact, Vec<WordPair>)> {
    vec![
        (fact!("glossary-rooms"), rooms()),
        (fact!("glossary-dough"), dough()),
        (fact!("glossary-hours"), hours()),
        (fact!("glossary-oven"), oven()),
    ]
}

fn rooms() -> Vec<WordPair> {
    vec![
        (fact!("word-bench"), fact!("means-bench")),
        (fact!("word-dough-sheet"), fact!("means-dough-sheet")),
        (fact!("word-formula"), fact!("means-formula")),
        (fact!("word-batch"), fact!("means-batch")),
        (fact!("word-style"), fact!("means-style")),
        (fact!("word-pantry"), fact!("means-pantry")),
        (fact!("word-ledger"), fact!("means-ledger")),
        (fact!("word-holds"), fact!("means-holds")),
    ]
}

fn dough() -> Vec<WordPair> {
    vec![
        (fact!("word-of-flour"), fact!("means-of-flour")),
        (fact!("word-hydration"), fact!("means-hydration")),
        (fact!("word-w"), fact!("means-w")),
        (fact!("word-preferment"), fact!("means-preferment")),
        (fact!("word-seed"), fact!("means-seed")),
        (fact!("word-dilution"), fact!("means-dilution")),
        (fact!("word-off-mixer"), fact!("means-off-mixer")),
        (fact!("word-friction"), fact!("means-friction")),
    ]
}

fn hours() -> Vec<WordPair> {
    vec![
        (
            fact!("word-rise"),
            fact!(
                "means-rise",
                ready = 100.0 * READY,
                peak = 100.0 * PEAK,
                intended = 100.0
            ),
        ),
        (
            fact!("word-strength-left"),
            fact!("means-strength-left", slack = 100.0 * SLACK),
        ),
        (fact!("word-window"), fact!("means-window")),
        (fact!("word-serve"), fact!("means-serve")),
        (fact!("word-bulk"), fact!("means-bulk")),
        (fact!("word-balls"), fact!("means-balls")),
        (fact!("word-cold"), fact!("means-cold")),
        (fact!("word-warm-up"), fact!("means-warm-up")),
        (fact!("word-place"), fact!("means-place")),
        (fact!("word-book"), fact!("means-book")),
        (fact!("word-remedy"), fact!("means-remedy")),
    ]
}

fn oven() -> Vec<WordPair> {
    vec![
        (fact!("word-fire"), fact!("means-fire")),
        (fact!("word-floor"), fact!("means-floor")),
        (fact!("word-dome"), fact!("means-dome")),
        (fact!("word-launch"), fact!("means-launch")),
        (fact!("word-race"), fact!("means-race")),
        (fact!("word-spots"), fact!("means-spots")),
        (fact!("word-run"), fact!("means-run")),
    ]
}
