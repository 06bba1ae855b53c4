//! Entries: when something may have happened, and how much may be entered about one batch.
//!
//! Question: can this have happened then? A clock that is wrong, a finger on the wrong year or a program gone wild must not
//! stretch a dough over years. Times are the server's; limits are the product's own.

use crate::fact;
use crate::fact::Fact;
use jiff::{SignedDuration, Timestamp};

/// Nothing about a batch happened longer before its planned begin, days.
pub const EARLIEST_DAYS: i64 = 14;
/// A clock may be ahead of the server's by so much, s.
pub const AHEAD_S: i64 = 5;
/// Entries of a batch, taps apart.
pub const MOST_SEEN: usize = 2_000;
/// Pizzas beyond those planned that a run may count.
pub const SPARE_PIZZAS: u32 = 50;
/// Taps for each pizza: in, turns, out, verdicts, and what is taken back.
const TAPS_EACH: usize = 16;

/// Why an entry cannot be.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum EntryRefused {
    /// It is still to come.
    ToCome,
    /// Weeks before the batch was to begin.
    LongBefore,
    /// No power cut is so.
    NoCut,
    /// So much was entered of this batch that no more is taken.
    TooMany,
    /// So many taps.
    TooManyTaps(usize),
    /// So many there are.
    NoSuchPizza(u32),
}

impl EntryRefused {
    /// What to say of an entry at a moment.
    pub fn fact(&self, at: Timestamp) -> Fact {
        match self {
            EntryRefused::ToCome => fact!("entry-to-come", at = at),
            EntryRefused::LongBefore => fact!("entry-long-before", at = at),
            EntryRefused::NoCut => fact!("entry-no-cut"),
            EntryRefused::TooMany => fact!("entry-too-many", n = MOST_SEEN),
            EntryRefused::TooManyTaps(n) => fact!("entry-too-many-taps", n = *n),
            EntryRefused::NoSuchPizza(n) => fact!("entry-no-such-pizza", n = *n),
        }
    }
}

/// Whether something about a batch that was to begin at `start_at` can have happened at `at`, by a clock that says `now`.
///
/// Errors: the reason, in a sentence.
pub fn moment(start_at: Timestamp, now: Timestamp, at: Timestamp) -> Result<(), EntryRefused> {
    if at > now + SignedDuration::from_secs(AHEAD_S) {
        return Err(EntryRefused::ToCome);
    }
    // Who plans a dough for next month may note today what was bought for it.
    let earliest = start_at.min(now) - SignedDuration::from_hours(24 * EARLIEST_DAYS);
    if at < earliest {
        return Err(EntryRefused::LongBefore);
    }
    Ok(())
}

/// The longest power cut that is told as one, h.
const LONGEST_CUT_H: i64 = 72;

/// Whether a fridge can have been without power from then until then.
pub fn power_cut(from: Timestamp, until: Timestamp, now: Timestamp) -> Result<(), EntryRefused> {
    let long = until.duration_since(from);
    let to_come = until > now + SignedDuration::from_secs(60);
    if long <= SignedDuration::ZERO || long > SignedDuration::from_hours(LONGEST_CUT_H) || to_come {
        return Err(EntryRefused::NoCut);
    }
    Ok(())
}

/// Whether one more entry fits among so many.
pub fn one_more(entries: usize) -> Result<(), EntryRefused> {
    if entries >= MOST_SEEN {
        return Err(EntryRefused::TooMany);
    }
    Ok(())
}

/// Whether a run of so many pieces can have this pizza; how many it can have.
pub fn of_a_run(pizza: u32, pieces: u32) -> Result<u32, EntryRefused> {
    let last = pieces.saturating_add(SPARE_PIZZAS);
    match pizza == 0 || pizza > last {
        true => Err(EntryRefused::NoSuchPizza(last)),
        false => Ok(last),
    }
}

/// Whether one more tap about this pizza fits into a run of so many pieces that holds so many taps.
pub fn one_more_tap(pieces: u32, pizza: u32, taps: usize) -> Result<(), EntryRefused> {
    let last = of_a_run(pizza, pieces)?;
    let most = TAPS_EACH * last as usize;
    if taps >= most {
        return Err(EntryRefused::TooManyTaps(most));
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(text: &str) -> Timestamp {
        text.parse().unwrap()
    }

    #[test]
    fn what_is_to_come_and_what_is_long_past_is_refused() {
        let (start, now) = (at("2026-11-26T08:00:00Z"), at("2026-11-27T19:00:00Z"));
        let says = |t: &str| moment(start, now, at(t)).err();
        assert_eq!(says("2026-11-27T19:00:04Z"), None);
        assert_eq!(says("2026-11-27T19:00:06Z"), Some(EntryRefused::ToCome));
        assert_eq!(says("2026-11-12T08:00:00Z"), None);
        assert_eq!(says("2026-11-12T07:59:59Z"), Some(EntryRefused::LongBefore));
        assert_eq!(says("0001-01-01T00:00:00Z"), Some(EntryRefused::LongBefore));
        // A plan for next month: today is not too early.
        assert_eq!(moment(at("2026-12-24T08:00:00Z"), now, now), Ok(()));
    }

    #[test]
    fn pizzas_and_entries_are_counted() {
        assert_eq!(one_more_tap(18, 68, 0), Ok(()));
        assert_eq!(
            one_more_tap(18, 69, 0),
            Err(EntryRefused::NoSuchPizza(68)),
            "eighteen and fifty to spare"
        );
        assert!(one_more_tap(18, u32::MAX, 0).is_err());
        assert!(one_more_tap(u32::MAX, u32::MAX, 0).is_ok());
        assert!(one_more_tap(18, 1, 16 * 68).is_err());
        assert!(one_more(MOST_SEEN).is_err());
    }
}
