//! What a kitchen's log says of a window: how wide it is known, how likely it is met, and the book's window beside it.

use super::{ReadyWindow, SheetRequest, hours};
use crate::fact;
use crate::fact::Fact;
use crate::learn::taught;
use crate::learn::{FOUR_FIFTHS, chance_met};
use crate::note::Note;
use crate::rise::spread::{Band, spread_by_log};
use crate::rise::{HandOver, RiseRequest, Temperatures};
use crate::when::quarter;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// An edge of the window: most likely, and the band that it lies in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Likely {
    /// Most likely.
    pub at: Timestamp,
    /// The early edge of the band.
    pub early_at: Timestamp,
    /// The late edge of the band.
    pub late_at: Timestamp,
}

/// The code of the note on how sure a window is.
pub(super) const SPREAD: &str = "spread";

impl Likely {
    /// "Ready from till, most likely at".
    pub(super) fn said(&self) -> Fact {
        let [ready, early, late] = [self.at, self.early_at, self.late_at].map(quarter);
        fact!("spread", band = (early, late), ready = ready)
    }
}

/// What this kitchen's log says of when a dough is ready.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ByLog {
    /// So many bakes of this kitchen say so.
    pub bakes: u32,
    /// The chance, 0 to 1, that it is ready and not past when it is served.
    pub chance: f64,
    /// When it is ready, and the band that holds four of five; absent when never.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ready: Option<Likely>,
    /// When it is past; absent when the window is open, or never opens.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub past: Option<Likely>,
    /// When the same dough would be ready by the book; absent when never, or where the book has no plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub book: Option<ReadyWindow>,
}

/// A band that was found on the coarse grid of trials, laid around the exact edge.
pub(super) fn around(b: &Band, at: Timestamp) -> Likely {
    Likely {
        at,
        early_at: at - hours(b.likely_h - b.early_h),
        late_at: at + hours(b.late_h - b.likely_h),
    }
}

impl ByLog {
    /// Of a dough as it goes in this kitchen; `None` where the request goes by the book, which knows of no kitchen.
    pub(super) fn of(
        r: &SheetRequest,
        (dough, handed): (&RiseRequest, &[HandOver]),
        mixed_at: Timestamp,
        window: Option<ReadyWindow>,
        book: impl FnOnce() -> Option<ReadyWindow>,
    ) -> Option<ByLog> {
        let own = r.own.as_ref()?;
        let off = FOUR_FIFTHS * own.sd;
        let spread = spread_by_log(dough, off, Temperatures::InsideTheDough, handed);
        let banded = window.zip(spread);
        Some(ByLog {
            bakes: own.bakes,
            chance: chance(r, dough, mixed_at)?,
            ready: banded.as_ref().map(|(w, s)| around(&s.ready, w.from_at)),
            past: banded
                .as_ref()
                .and_then(|(w, s)| Some(around(s.past.as_ref()?, w.to_at?))),
            book: book(),
        })
    }

    /// What to say of the window: the band that the log puts around it, how likely it is met, and the book's; `None` when never ready.
    pub(super) fn note(&self) -> Option<Note> {
        let what = self.ready?.said();
        Some(Note::holds(SPREAD, what, self.why()))
    }
    fn why(&self) -> Fact {
        let (n, met) = (self.bakes, taught::chance(self.chance));
        let book = self
            .book
            .map(|w| (quarter(w.from_at), w.to_at.map(quarter)));
        match book {
            None => fact!("spread-by-log-met", n = n, met = met),
            Some((from, None)) => fact!("spread-by-log-book-from", n = n, met = met, from = from),
            Some((from, Some(to))) => {
                fact!("spread-by-log-book", n = n, met = met, from = from, to = to)
            }
        }
    }
}

/// The chance, 0 to 1, that a dough, run as it goes in this kitchen, is met at its serve time; `None` where no log knows how sure that is.
pub(crate) fn chance(r: &SheetRequest, dough: &RiseRequest, mixed_at: Timestamp) -> Option<f64> {
    let own = r.own.as_ref()?;
    let at_h = r.serve_at.duration_since(mixed_at).as_secs_f64() / 3600.0;
    Some(chance_met(dough, at_h.max(0.0), own.sd))
}
