//! The ready window on the clock: from when to when a dough is ready, and whether an hour lies in it.

use crate::rise::{Label, RipenessPart, Shuts, Window};
use crate::when::quarter;
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};

/// A span of hours as exact time.
pub fn hours(h: f64) -> SignedDuration {
    SignedDuration::from_secs_f64((h * 3600.0).round())
}

/// From when to when it is ready.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ReadyWindow {
    /// From when it is ready.
    pub from_at: Timestamp,
    /// Absent when it is still ready at the end of the forecast.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_at: Option<Timestamp>,
    /// What held it back until then, and what ends it; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opens_by: Option<RipenessPart>,
    /// What ends it; absent in batches of before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shuts_by: Option<Shuts>,
}

impl ReadyWindow {
    /// The model's window on the clock: it shuts at the label's end, or where the dough is far past what was intended.
    pub(crate) fn of(w: &Window, mixed_at: Timestamp) -> ReadyWindow {
        let far_first = w.far_h.is_some_and(|far| w.to_h.is_none_or(|to| far < to));
        let to_h = if far_first { w.far_h } else { w.to_h };
        ReadyWindow {
            from_at: mixed_at + hours(w.from_h),
            to_at: to_h.map(|h| mixed_at + hours(h)),
            opens_by: Some(w.opens_by),
            shuts_by: to_h.map(|_| if far_first { Shuts::Gas } else { w.shuts_by }),
        }
    }
    /// Whether an hour lies in it. It is known, and said, to the quarter hour: an hour that is said to lie in it does.
    pub fn holds(&self, at: Timestamp) -> bool {
        let from = self.from_at.min(quarter(self.from_at));
        at >= from && self.to_at.is_none_or(|t| at <= t.max(quarter(t)))
    }
}

/// Whether a dough is ready at its serve time: the hour lies in the window, and the label there is not past.
pub(crate) fn fits(window: Option<ReadyWindow>, serve_at: Timestamp, label: Label) -> bool {
    window.is_some_and(|w| w.holds(serve_at)) && !label.is_past()
}

/// Hours from the serve time to the nearer edge of the window: negative outside, at most `OPEN_H` where it is open.
pub(crate) fn margin_h(window: Option<ReadyWindow>, serve_at: Timestamp) -> f64 {
    /// A window that does not shut counts as so much room.
    const OPEN_H: f64 = 12.0;
    let Some(w) = window else { return -24.0 };
    let after = serve_at.duration_since(w.from_at).as_secs_f64() / 3600.0;
    let before = w.to_at.map_or(OPEN_H, |t| {
        t.duration_since(serve_at).as_secs_f64() / 3600.0
    });
    after.min(before).min(OPEN_H)
}
