//! Days and months by their names in a language.

use crate::phrase::fixed;
use crate::texts::Language;
use jiff::Zoned;
use jiff::civil::Weekday;

/// A moment in a form of `strftime`, with the weekday (`%a`, `%A`) and the month (`%b`, `%B`) in the language.
///
/// ```
/// use speech::{Language, dates::written};
/// let t = jiff::civil::date(2026, 11, 27).at(19, 0, 0, 0).in_tz("UTC").unwrap();
/// assert_eq!(written(Language::English, &t, "%a %-d %B %H:%M"), "Fri 27 November 19:00");
/// assert_eq!(written(Language::Italian, &t, "%a %-d %B %H:%M"), "ven 27 novembre 19:00");
/// ```
pub fn written(language: Language, t: &Zoned, form: &str) -> String {
    if language == Language::English {
        return t.strftime(form).to_string();
    }
    let weekday = t.weekday().to_monday_zero_offset() as usize;
    let month = (t.month() - 1) as usize;
    let mut named = form.to_string();
    for (sign, code, nth) in [
        ("%A", "names-weekdays", weekday),
        ("%a", "names-weekdays-short", weekday),
        ("%B", "names-months", month),
        ("%b", "names-months-short", month),
    ] {
        if named.contains(sign) {
            named = named.replace(sign, nth_of(language, code, nth));
        }
    }
    t.strftime(&named).to_string()
}

/// "Monday".
pub fn weekday(language: Language, day: Weekday) -> &'static str {
    nth_of(
        language,
        "names-weekdays",
        day.to_monday_zero_offset() as usize,
    )
}

fn nth_of(language: Language, code: &'static str, nth: usize) -> &'static str {
    fixed(language, code)
        .split(' ')
        .nth(nth)
        .unwrap_or_default()
}
