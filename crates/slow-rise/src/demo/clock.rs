//! The clock of the demo kitchen: whenever it is started, its bench stands in the afternoon, and its doughs are served between
//! ten in the morning and ten at night.

use super::minutes;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// Where Larchfold Halt may lie: the first place where it is afternoon is taken.
const ZONES: [&str; 13] = [
    "Europe/London",
    "Europe/Athens",
    "Asia/Dubai",
    "Asia/Dhaka",
    "Asia/Shanghai",
    "Australia/Brisbane",
    "Pacific/Auckland",
    "Pacific/Honolulu",
    "America/Los_Angeles",
    "America/Chicago",
    "America/Halifax",
    "America/Noronha",
    "Atlantic/Azores",
];

/// A zone where it is between two and five.
pub(super) fn zone(now: Timestamp) -> &'static str {
    let afternoon = |name: &&&str| {
        TimeZone::get(name).is_ok_and(|z| (14..17).contains(&now.to_zoned(z).hour()))
    };
    ZONES.iter().find(afternoon).copied().unwrap_or(ZONES[0])
}

/// The nearest moment to this one that is served at a good hour: as it is between eleven and nine, else seven in the evening
/// of the same day.
pub(super) fn served(t: Timestamp, time_zone: &str) -> Timestamp {
    let Ok(zone) = TimeZone::get(time_zone) else {
        return t;
    };
    let local = t.to_zoned(zone);
    if (11..21).contains(&local.hour()) {
        return t;
    }
    let evening = local
        .with()
        .hour(19)
        .minute(0)
        .second(0)
        .subsec_nanosecond(0)
        .build();
    evening.map_or(t + minutes(0.0), |z| z.timestamp())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn whenever_it_is_started_it_is_afternoon_there() {
        for day in ["2026-01-15", "2026-07-15"] {
            for half_hour in 0..48 {
                let start: Timestamp = format!("{day}T00:00:00Z").parse().unwrap();
                let now = start + minutes(30.0 * f64::from(half_hour));
                let there = now.to_zoned(TimeZone::get(zone(now)).unwrap());
                assert!((14..17).contains(&there.hour()), "{now}: {there}");
                let evening = served(now + minutes(600.0), zone(now));
                let local = evening.to_zoned(TimeZone::get(zone(now)).unwrap());
                assert!((11..21).contains(&local.hour()), "{local}");
            }
        }
    }
}
