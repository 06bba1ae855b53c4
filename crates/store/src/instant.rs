//! Instants: UTC in the database (`DATETIME(3)` read by chrono), jiff everywhere else. Only here they meet.

use chrono::{DateTime, NaiveDateTime};
use jiff::Timestamp;

/// For the database, to the millisecond.
pub(crate) fn to_row(t: Timestamp) -> NaiveDateTime {
    DateTime::from_timestamp_millis(t.as_millisecond())
        .unwrap_or_default()
        .naive_utc()
}

/// From the database.
pub(crate) fn from_row(t: NaiveDateTime) -> Timestamp {
    Timestamp::from_millisecond(t.and_utc().timestamp_millis()).unwrap_or(Timestamp::UNIX_EPOCH)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_instant_comes_back_to_the_millisecond() {
        let t: Timestamp = "2026-11-27T19:00:00.123Z".parse().unwrap();
        assert_eq!(from_row(to_row(t)), t);
    }
}
