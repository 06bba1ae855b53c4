//! Speech: facts into words, for one reader.
//!
//! The core states [`Fact`](craft::fact::Fact)s: a code and typed values. A [`Reader`] has a language, units, a clock and a
//! present; [`Reader::say`] words a fact for it. The texts are Fluent files under `texts/`, one folder a language: a second
//! language is a second folder.
//!
//! | module | answers |
//! |---|---|
//! | [`reader`] | a fact in words |
//! | [`measures`] | how a kitchen reads weights, temperatures and lengths |
//! | [`value`] | a single value in words |
//! | [`texts`] | which languages and texts there are |
//! | [`phrase`] | what pages say themselves: a text by its code |
//! | [`dates`] | days and months by their names |
//! | `numbers` | with a point or a comma |
//! | `long` | words two fifths longer, to find the cut ones |
//! | [`note`] | a judgement in words |
//! | [`glossary`] | the words of the pages and what they mean |
//! | [`spoken`] | JSON with each fact's text beside it |

pub mod dates;
pub mod glossary;
mod long;
pub mod measures;
pub mod note;
mod numbers;
pub mod phrase;
pub mod reader;
mod said;
pub mod spoken;
pub mod texts;
pub mod value;

pub use measures::Measures;
pub use note::Judgement;
pub use reader::Reader;
pub use texts::Language;
