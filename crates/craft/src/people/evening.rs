//! An evening: what is served in one night belongs together, also past midnight.

use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};

/// At this hour of the clock one evening ends and the next may begin.
const TURNS_H: i64 = 4;

/// The evening to which a moment belongs, by the day on which it began.
pub fn evening_of(at: Timestamp, zone: &TimeZone) -> Date {
    let turned = SignedDuration::from_hours(TURNS_H);
    let before = at.checked_sub(turned).unwrap_or(at);
    before.to_zoned(zone.clone()).date()
}

/// From when until when an evening lasts; `None` at the ends of the calendar.
///
/// ```
/// use craft::people::{evening, evening_of};
/// use jiff::tz::TimeZone;
///
/// let late = "2026-11-29T01:30:00Z".parse().unwrap();
/// let day = evening_of(late, &TimeZone::UTC);
/// assert_eq!(day.to_string(), "2026-11-28");
/// let (from, to) = evening(day, &TimeZone::UTC).unwrap();
/// assert!(from <= late && late < to);
/// ```
pub fn evening(day: Date, zone: &TimeZone) -> Option<(Timestamp, Timestamp)> {
    let turn = |day: Date| {
        let at = day.at(TURNS_H as i8, 0, 0, 0).to_zoned(zone.clone());
        at.ok().map(|z| z.timestamp())
    };
    Some((turn(day)?, turn(day.tomorrow().ok()?)?))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_moment_is_of_one_evening_and_lies_in_it() {
        // Where the clock jumps, too.
        let zone = TimeZone::get("Europe/London").unwrap();
        let first: Timestamp = "2026-03-27T00:10:00Z".parse().unwrap();
        for h in 0..24 * 6 {
            let at = first + SignedDuration::from_hours(h);
            let (from, to) = evening(evening_of(at, &zone), &zone).unwrap();
            assert!(from - SignedDuration::from_hours(1) <= at, "{at}");
            assert!(at < to + SignedDuration::from_hours(1), "{at}");
        }
        let of = |t: &str| evening_of(t.parse().unwrap(), &zone).to_string();
        assert_eq!(of("2026-11-28T18:00:00Z"), "2026-11-28");
        assert_eq!(of("2026-11-29T03:59:00Z"), "2026-11-28");
        assert_eq!(of("2026-11-29T04:00:00Z"), "2026-11-29");
    }
}
