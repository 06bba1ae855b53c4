//! The hours of a week in which a maker is not at the bench.

use crate::fact;
use crate::fact::Fact;
use jiff::civil::Weekday;
use jiff::{Timestamp, tz::TimeZone};
use serde::{Deserialize, Serialize};

const DAYS: [&str; 7] = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const DAY_MIN: u16 = 24 * 60;
/// So many spans on one line at most.
const MOST: usize = 14;

/// A span of some days, minutes from midnight; it runs past midnight when it ends before it begins.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Span {
    /// Monday first: the days on which it begins.
    pub days: [bool; 7],
    /// First minute, from midnight.
    pub from_min: u16,
    /// The minute it ends, from midnight.
    pub to_min: u16,
}

/// The quiet and the busy hours of a kitchen.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Life {
    /// Nobody is awake.
    #[serde(default)]
    pub quiet: Vec<Span>,
    /// Nobody has a hand free.
    #[serde(default)]
    pub busy: Vec<Span>,
}

/// Which hours are in the way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Why {
    /// Nobody is up.
    Quiet,
    /// Nobody is free.
    Busy,
}

impl Span {
    fn holds(&self, day: usize, minute: u16) -> bool {
        if self.from_min < self.to_min {
            return self.days[day] && (self.from_min..self.to_min).contains(&minute);
        }
        let yesterday = (day + 6) % 7;
        (self.days[day] && minute >= self.from_min)
            || (self.days[yesterday] && minute < self.to_min)
    }
}

impl Life {
    /// Whether no hour is kept free.
    pub fn is_empty(&self) -> bool {
        self.quiet.is_empty() && self.busy.is_empty()
    }
    /// Whether nobody is at the bench at an instant, and why.
    pub fn away(&self, at: Timestamp, zone: &TimeZone) -> Option<(Why, &Span)> {
        let local = at.to_zoned(zone.clone());
        let day = match local.weekday() {
            Weekday::Monday => 0,
            Weekday::Tuesday => 1,
            Weekday::Wednesday => 2,
            Weekday::Thursday => 3,
            Weekday::Friday => 4,
            Weekday::Saturday => 5,
            Weekday::Sunday => 6,
        };
        let minute = local.hour() as u16 * 60 + local.minute() as u16;
        let quiet = self.quiet.iter().map(|s| (Why::Quiet, s));
        let busy = self.busy.iter().map(|s| (Why::Busy, s));
        quiet.chain(busy).find(|(_, s)| s.holds(day, minute))
    }
}

fn clock(text: &str) -> Option<u16> {
    let text = text.trim().replace('.', ":");
    let (h, m) = text.split_once(':').unwrap_or((&text, "0"));
    let (h, m): (u16, u16) = (h.parse().ok()?, m.parse().ok()?);
    (h <= 24 && m < 60 && h * 60 + m <= DAY_MIN).then_some(h * 60 + m)
}

/// Names of days as makers write them: from Monday, in English, French, German, Italian and Spanish, by their beginnings.
const DAYS_READ: [&[&str]; 7] = [
    &["mon", "lun", "mo"],
    &["tue", "mar", "die", "di"],
    &["wed", "mer", "mit", "mie", "mi"],
    &["thu", "gio", "jeu", "jue", "don", "do"],
    &["fri", "ven", "fre", "vie", "fr"],
    &["sat", "sab", "sam", "sa"],
    &["sun", "dom", "dim", "son", "so"],
];

fn day(text: &str) -> Option<usize> {
    let plain = |c: char| match c {
        'é' | 'è' => 'e',
        'á' | 'à' => 'a',
        'ì' => 'i',
        c => c,
    };
    let said: String = text.trim().to_lowercase().chars().map(plain).collect();
    let short: String = said.trim_end_matches('.').chars().take(3).collect();
    DAYS_READ
        .iter()
        .position(|names| names.contains(&short.as_str()))
}

/// Reads "22:30-06:30" or "Mon-Fri 08:00-16:30, Sat 10:00-12:00"; an empty text is no span.
///
/// Errors: a sentence that says how such hours are written.
pub fn spans(text: &str) -> Result<Vec<Span>, Fact> {
    let text = text.replace(['–', '—'], "-");
    let mut out = Vec::new();
    for part in text
        .split([',', ';'])
        .map(str::trim)
        .filter(|p| !p.is_empty())
    {
        out.push(span(part).ok_or_else(|| fact!("span-not-understood", part = part))?);
    }
    if out.len() > MOST {
        return Err(fact!("spans-at-most", most = MOST));
    }
    Ok(out)
}

fn span(part: &str) -> Option<Span> {
    let first_digit = part.find(|c: char| c.is_ascii_digit())?;
    let (days, hours) = part.split_at(first_digit);
    let (from, to) = hours.split_once('-')?;
    let (from_min, to_min) = (clock(from)?, clock(to)?);
    if from_min == to_min {
        return None;
    }
    let mut on = [days.trim().is_empty(); 7];
    for group in days.split_whitespace() {
        match group.split_once('-') {
            Some((a, b)) => {
                let (a, b) = (day(a)?, day(b)?);
                let mut d = a;
                loop {
                    on[d] = true;
                    if d == b {
                        break;
                    }
                    d = (d + 1) % 7;
                }
            }
            None => on[day(group)?] = true,
        }
    }
    Some(Span {
        days: on,
        from_min,
        to_min,
    })
}

/// Spans as they are typed.
pub fn words(list: &[Span]) -> String {
    list.iter().map(one).collect::<Vec<_>>().join(", ")
}

fn one(s: &Span) -> String {
    let hm = |m: u16| format!("{:02}:{:02}", m / 60, m % 60);
    let hours = format!("{}-{}", hm(s.from_min), hm(s.to_min));
    if s.days.iter().all(|d| *d) {
        return hours;
    }
    let days: Vec<&str> = DAYS
        .iter()
        .zip(s.days)
        .filter(|(_, on)| *on)
        .map(|(d, _)| *d)
        .collect();
    let in_row = s
        .days
        .iter()
        .skip_while(|d| !**d)
        .take_while(|d| **d)
        .count()
        == days.len();
    match days.as_slice() {
        [a, .., b] if in_row && days.len() > 2 => format!("{a}-{b} {hours}"),
        _ => format!("{} {hours}", days.join(" ")),
    }
}
