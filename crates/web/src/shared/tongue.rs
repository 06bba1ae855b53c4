//! The language of the page that is being written: that of who reads it.
//!
//! It hangs on the request and on nothing else; no figure changes with it. The gate says it once for all that answers a
//! request, so that a mark deep in a picture need not be handed it by everybody above.

use axum::extract::Request;
use axum::http::header;
use axum::middleware::Next;
use axum::response::Response;
use craft::keyed::Keyed;
use speech::phrase::{Phrase, fixed};
use speech::{Language, dates};
use std::future::Future;

tokio::task_local! {
    static READ_IN: Language;
}

/// The language of this page; English outside of any.
pub fn language() -> Language {
    READ_IN.try_with(|l| *l).unwrap_or_default()
}

/// Its key, as addresses say it.
pub fn language_key() -> &'static str {
    language().key()
}

/// Answers in the language that the browser asks for, until somebody is known who chose theirs.
pub async fn as_the_browser_says(request: Request, next: Next) -> Response {
    let accepts = request.headers().get(header::ACCEPT_LANGUAGE);
    let accepts = accepts.and_then(|h| h.to_str().ok()).unwrap_or_default();
    // What is longer is no list of languages.
    let guess = Language::of_browser(accepts.get(..200).unwrap_or(accepts));
    answering(guess, next.run(request)).await
}

/// Answers in a language.
pub async fn answering<F: Future>(language: Language, answer: F) -> F::Output {
    READ_IN.scope(language, answer).await
}

/// Words something in a language, where a page goes on after its request: a stream.
pub fn wording<T>(language: Language, word: impl FnOnce() -> T) -> T {
    READ_IN.sync_scope(language, word)
}

/// A text that takes no values.
pub fn phrase(code: &'static str) -> &'static str {
    fixed(language(), code)
}

/// The words of the scripts, as JSON that can stand in a page.
pub fn script_words() -> &'static str {
    speech::phrase::script_words(language())
}

/// A text that takes values: each is handed to it `.with` its name.
pub fn text(code: &'static str) -> Phrase {
    Phrase::new(language(), code)
}

/// A text with its values by their names, as in `say!(code, title = a.title)`.
macro_rules! say {
    ($code:literal $(, $name:ident = $value:expr)* $(,)?) => {
        $crate::shared::tongue::text($code)$(.with(stringify!($name), &$value))*.to_string()
    };
}
pub(crate) use say;

/// A name or a line that ships with the program; what somebody wrote themselves stays as it is.
pub fn shipped(name: &str) -> String {
    speech::phrase::shipped(language(), name)
}

/// A number to so many digits behind the point, or the comma.
pub fn decimal(v: f64, digits: usize) -> String {
    number(format!("{v:.digits$}"))
}

/// A number that was written with a point.
pub fn number(written: String) -> String {
    language().number(written)
}

/// A moment in a form of `strftime`, with days and months by their names here.
pub fn date(t: &jiff::Zoned, form: &str) -> String {
    dates::written(language(), t, form)
}

/// A day without its year: "27 Nov".
pub fn day_of(d: jiff::civil::Date) -> String {
    d.to_zoned(jiff::tz::TimeZone::UTC)
        .map_or_else(|_| d.to_string(), |z| date(&z, "%-d %b"))
}

/// A number as a person writes it: at most three decimals, no trailing zeros.
pub fn plain(v: f64) -> String {
    number(craft::number::plain(v))
}

/// A small amount to two significant digits.
pub fn two_digits(v: f64) -> String {
    number(craft::number::two_digits(v))
}
