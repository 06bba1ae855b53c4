//! How precisely a moment is said: to the quarter hour where it is a forecast, by its weekday where that is enough.

use jiff::{Timestamp, Zoned};

/// A weekday names one day within so many days of today, and no more.
const WEEKDAY_D: i32 = 6;

/// Whether "Thu 14:00" can only be one day, seen from `now`: all hours of a day are said alike.
pub fn weekday_is_enough(t: &Zoned, now: Timestamp) -> bool {
    let today = now.to_zoned(t.time_zone().clone()).date();
    t.date()
        .since(today)
        .is_ok_and(|days| days.get_days().abs() < WEEKDAY_D)
}

/// A forecast moment to the quarter hour, as precise as the model is.
pub fn quarter(t: Timestamp) -> Timestamp {
    Timestamp::from_second((t.as_second() + 450).div_euclid(900) * 900).unwrap_or(t)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn all_hours_of_a_day_are_said_alike() {
        let now: Timestamp = "2026-11-27T08:00:00Z".parse().unwrap();
        let at = |s: &str| -> Zoned { s.parse().unwrap() };
        for (t, enough) in [
            ("2026-11-27T23:00[Europe/London]", true),
            ("2026-12-02T23:59[Europe/London]", true),
            ("2026-12-03T00:01[Europe/London]", false),
            ("2026-12-03T23:59[Europe/London]", false),
            ("2026-11-22T00:01[Europe/London]", true),
            ("2026-11-21T23:59[Europe/London]", false),
            // The day is the kitchen's: in Shanghai it is the 27th from 16:00 UTC of the 26th on.
            ("2026-12-02T01:00[Asia/Shanghai]", true),
        ] {
            assert_eq!(weekday_is_enough(&at(t), now), enough, "{t}");
        }
    }
}
