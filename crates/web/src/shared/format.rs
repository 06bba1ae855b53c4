//! How figures are written: units of the kitchen, grams as scales read them, times, spans.

use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue;
use crate::shared::tongue::{phrase, say};
use craft::fact::Fact;
use craft::formula::{Formula, PanShape, Portion};
use craft::keyed::Keyed;
use craft::path::Leg;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp, Zoned};
use speech::Reader;
pub use speech::measures::{Measures, thousands};

/// "6 × 250 g", "2 pans 40 × 30 cm and 3 × 250 g".
pub fn portions(list: &[Portion], m: &Measures) -> String {
    list.iter()
        .map(|p| match p.pan {
            None => format!("{} × {}", p.count, m.weighed(p.piece_g)),
            Some(pan) => {
                let pans = say!("page-pans", count = p.count);
                let (l, u) = (|cm| m.length_field(cm), m.length_unit());
                match pan {
                    PanShape::Rectangle {
                        length_cm,
                        width_cm,
                    } => format!("{} {pans} {} × {} {u}", p.count, l(length_cm), l(width_cm)),
                    PanShape::Round { diameter_cm } => {
                        say!(
                            "page-round",
                            count = p.count,
                            pans = pans,
                            diameter_cm = l(diameter_cm),
                            u = u
                        )
                    }
                }
            }
        })
        .collect::<Vec<_>>()
        .join(&[" ", phrase("page-and"), " "].concat())
}

/// Baker's percent as a row shows it.
pub fn percent(v: f64) -> String {
    if v >= 1.0 || v == 0.0 {
        tongue::decimal(v, 1)
    } else {
        tongue::number(craft::number::two_digits(v))
    }
}

/// "19:00".
pub fn hm(t: &Zoned) -> String {
    t.strftime("%H:%M").to_string()
}

/// "Friday"; "Fri 4 Dec" where the weekday could be another.
pub fn day_named(t: &Zoned) -> String {
    let near = craft::when::weekday_is_enough(t, Timestamp::now());
    tongue::date(t, if near { "%A" } else { "%a %-d %b" })
}

/// "Fri 19:00"; with the date where that weekday would be another.
pub fn day_hm(t: &Zoned) -> String {
    day_hm_at(t, Timestamp::now())
}

/// "Fri 19:00" beside an axis that has the dates.
pub fn weekday_hm(t: &Zoned) -> String {
    tongue::date(t, "%a %H:%M")
}

fn day_hm_at(t: &Zoned, now: Timestamp) -> String {
    if craft::when::weekday_is_enough(t, now) {
        weekday_hm(t)
    } else {
        tongue::date(t, "%a %-d %b %H:%M")
    }
}

/// A forecast span to the quarter hour: "Fri 18:15 to 20:45", with the second day where it is another; "from Fri 18:15"
/// where no end is foreseen.
pub fn from_to(from: &Zoned, to: Option<&Zoned>) -> String {
    let from = quarter(from);
    let to = match to.map(quarter) {
        None => return say!("page-from", from = day_hm(&from)),
        Some(t) if t.date() == from.date() => hm(&t),
        Some(t) => day_hm(&t),
    };
    say!("page-to", from = day_hm(&from), to = to)
}

/// "Fri 27 Nov".
pub fn day(t: &Zoned) -> String {
    tongue::date(t, "%a %-d %b")
}

/// A forecast moment to the quarter hour, as precise as the model is.
pub fn quarter(t: &Zoned) -> Zoned {
    craft::when::quarter(t.timestamp()).to_zoned(t.time_zone().clone())
}

/// A span in hours and minutes, each with its unit: days beyond two.
pub fn span(d: SignedDuration) -> Vec<(String, &'static str)> {
    let minutes = (d.as_secs().abs() + 30) / 60;
    let (h, m) = (minutes / 60, minutes % 60);
    if h >= 48 {
        vec![
            ((h / 24).to_string(), phrase("page-unit-day")),
            ((h % 24).to_string(), "h"),
        ]
    } else {
        vec![(h.to_string(), "h"), (format!("{m:02}"), "m")]
    }
}

/// Whether something is due now, said to the minute.
pub fn is_now(d: SignedDuration) -> bool {
    d.as_secs().abs() < 30
}

/// "1 h 25", "25 min", "3 days".
pub fn span_words(d: SignedDuration) -> String {
    let minutes = (d.as_secs().abs() + 30) / 60;
    let (h, m) = (minutes / 60, minutes % 60);
    match (h, m) {
        (0, 1) => phrase("page-1-minute").into(),
        (0, m) => say!("page-minutes", value = m),
        (h, _) if h >= 48 => say!("page-days", h = (h + 12) / 24),
        (1, 0) => phrase("page-1-hour").into(),
        (h, 0) => say!("page-hours", h = h),
        (h, m) => format!("{h} h {m:02}"),
    }
}

/// ". Serve 19:00 fits.": whether the serve time lies in the window.
pub fn serve_fits(fits: bool, serve: &str) -> String {
    if fits {
        say!("page-serve-fits", serve = serve)
    } else {
        say!("page-serve-misses", serve = serve)
    }
}

/// Seconds as "1:18".
pub fn min_s(s: f64) -> String {
    let s = s.round().max(0.0) as u32;
    format!("{}:{:02}", s / 60, s % 60)
}

/// Each variant of an enum by its key, with its name as a heading.
pub fn by_name<T: Keyed>(name: fn(T) -> Fact) -> impl Iterator<Item = (&'static str, String)> {
    T::ALL.iter().map(move |v| (v.key(), named(&name(*v))))
}

/// A name without units, at the beginning of a line.
pub fn named(fact: &Fact) -> String {
    plain_reader().say(fact)
}

/// A name without units, within a sentence.
pub fn word(fact: &Fact) -> String {
    plain_reader().words(fact)
}

/// How long a dough lies in each stage: "3 h + 24 h cold + 4 h".
pub fn path_hours(f: &Formula, here: &RequestKitchen) -> String {
    let said: Vec<String> = f.path_hours().iter().map(|h| here.words(h)).collect();
    said.join(" + ")
}

/// A stage with its hours: "bulk 3 h".
pub fn leg_hours(leg: &Leg, here: &RequestKitchen) -> String {
    let h = craft::fact::spoken_h(leg.hours);
    let time = here.reader().said(&craft::fact::hours(h)).full;
    format!("{} {time}", here.words(&leg.word()))
}

/// Small numbers as words at the head of a sentence.
pub fn count_word(n: u32) -> String {
    const WORDS: [&str; 13] = [
        "begin-no",
        "page-one",
        "page-two",
        "page-three",
        "page-four",
        "page-five",
        "page-six",
        "page-seven",
        "page-eight",
        "page-nine",
        "page-ten",
        "page-eleven",
        "page-twelve",
    ];
    WORDS
        .get(n as usize)
        .map_or_else(|| n.to_string(), |w| phrase(w).to_string())
}

/// Who reads here, of what has no units.
pub fn plain_reader() -> Reader<'static> {
    const UTC: &TimeZone = &TimeZone::UTC;
    let measures = Measures {
        language: tongue::language(),
        ..Measures::METRIC
    };
    Reader::plain(measures, UTC)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_weekday_that_could_be_another_has_its_date() {
        let at = |text: &str| -> Zoned { text.parse().unwrap() };
        let now = at("2026-11-26T12:00[Europe/London]").timestamp();
        let says = |text: &str| day_hm_at(&at(text), now);
        assert_eq!(says("2026-11-27T19:00[Europe/London]"), "Fri 19:00");
        assert_eq!(says("2026-12-03T12:35[Europe/London]"), "Thu 3 Dec 12:35");
        assert_eq!(says("2026-11-19T12:35[Europe/London]"), "Thu 19 Nov 12:35");
    }

    #[test]
    fn a_headline_names_a_day_that_the_weekday_alone_would_not() {
        let today = Timestamp::now().to_zoned(jiff::tz::TimeZone::UTC);
        let in_days = |d: i64| today.checked_add(jiff::Span::new().days(d)).unwrap();
        assert_eq!(
            day_named(&in_days(2)),
            in_days(2).strftime("%A").to_string()
        );
        let week = in_days(7);
        assert_eq!(day_named(&week), week.strftime("%a %-d %b").to_string());
        assert!(is_now(SignedDuration::from_secs(-29)) && !is_now(SignedDuration::from_secs(30)));
    }

    #[test]
    fn spans_in_words() {
        let d = SignedDuration::from_mins;
        assert_eq!(span_words(d(1)), "1 minute");
        assert_eq!(span_words(d(19)), "19 minutes");
        assert_eq!(span_words(d(85)), "1 h 25");
        assert_eq!(span_words(d(120)), "2 hours");
        assert_eq!(span_words(d(-60 * 71)), "3 days");
        assert_eq!(
            span(d(19)),
            [("0".to_string(), "h"), ("19".to_string(), "m")]
        );
    }
}
