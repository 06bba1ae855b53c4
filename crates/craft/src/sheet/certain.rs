//! How sure a window is, on the clock, and what to say about it.

use super::{ReadyWindow, SheetRequest, hours};
use crate::fact;
use crate::fact::{Fact, tenth};
use crate::learn::FOUR_FIFTHS;
use crate::learn::taught::chance;
use crate::note::Note;
use crate::rise::spread::{Band, Doubt, Spread, Weight, spread_by_log, spread_of};
use crate::rise::{Doubts, HandOver, RiseRequest, Temperatures};
use crate::units::Celsius;
use crate::when::quarter;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// A doubt that moves the window by less says nothing, h.
const WORTH_SAYING_H: f64 = 0.3;

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

/// How sure the ready window is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Sure {
    /// When it is ready.
    pub ready: Likely,
    /// Absent when the window is open.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub past: Option<Likely>,
    /// What the doubts do to the moment of readiness, the heaviest first.
    pub weights: Vec<Weight>,
    /// The fridge that was reckoned with.
    pub fridge: FridgeKnown,
    /// So many bakes of this kitchen say so, and the band holds four of five; absent where doubts alone do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_bakes: Option<u32>,
    /// The chance, 0 to 1, that it is ready and not past when it is served, as those bakes know it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chance: Option<f64>,
    /// When the same dough would be ready by the book.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub book: Option<ReadyWindow>,
}

/// What is known of the fridge.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FridgeKnown {
    /// As it was planned or last read, °C, and how far off it may be, K.
    pub c: f64,
    /// How far off it may be, K.
    #[serde(rename = "off_c")]
    pub off_k: f64,
    /// A thermometer said so while this dough was under way.
    pub was_read: bool,
}

impl Sure {
    /// The band around a window: it was found on the coarse grid of trials, and is laid around the exact edges.
    fn of(s: &Spread, window: &ReadyWindow, fridge: FridgeKnown) -> Sure {
        let around = |b: &Band, at: Timestamp| Likely {
            at,
            early_at: at - hours(b.likely_h - b.early_h),
            late_at: at + hours(b.late_h - b.likely_h),
        };
        Sure {
            ready: around(&s.ready, window.from_at),
            past: s.past.as_ref().zip(window.to_at).map(|(b, t)| around(b, t)),
            weights: s.weights.clone(),
            fridge,
            from_bakes: None,
            chance: None,
            book: None,
        }
    }

    /// How sure the window of a dough is: by this kitchen's log where the request has one, else by the doubts.
    pub(super) fn asked(
        r: &SheetRequest,
        dough: &RiseRequest,
        doubts: &Doubts,
        handed: &[HandOver],
        window: &ReadyWindow,
        fridge: FridgeKnown,
    ) -> Option<Sure> {
        let inside = Temperatures::InsideTheDough;
        let sure = |s: &Spread| Sure::of(s, window, fridge);
        match &r.own {
            Some(own) => spread_by_log(dough, FOUR_FIFTHS * own.sd, inside, handed).map(|s| Sure {
                from_bakes: Some(own.bakes),
                ..sure(&s)
            }),
            None => spread_of(dough, doubts, inside, handed).map(|s| sure(&s)),
        }
    }

    /// Why the band is what the log says, with the book's window beside it where the dough is still a plan.
    fn by_log(&self, bakes: u32) -> Fact {
        let Some(p) = self.chance else {
            return fact!("spread-by-log", n = bakes);
        };
        let met = chance(p);
        match self
            .book
            .map(|w| (quarter(w.from_at), w.to_at.map(quarter)))
        {
            None => fact!("spread-by-log-met", n = bakes, met = met),
            Some((from, None)) => {
                fact!("spread-by-log-book-from", n = bakes, met = met, from = from)
            }
            Some((from, Some(to))) => {
                fact!(
                    "spread-by-log-book",
                    n = bakes,
                    met = met,
                    from = from,
                    to = to
                )
            }
        }
    }

    /// What to say: the band, and the doubt that weighs most. A fridge that nobody measured is asked for.
    pub fn notes(&self, _r: &SheetRequest, fridge_measured: bool) -> Vec<Note> {
        let mut out = Vec::new();
        let fridge = self
            .weights
            .iter()
            .find(|w| w.doubt == Doubt::Fridge && w.up_h.abs() >= WORTH_SAYING_H);
        if let Some(w) = fridge {
            let at = quarter(self.ready.at + hours(w.up_h));
            let what = fact!(
                "fridge-doubt",
                c = Celsius(tenth(self.fridge.c + self.fridge.off_k)),
                at = at
            );
            let time = fact::hours((w.up_h.abs() * 4.0).round() / 4.0);
            let by = if w.up_h < 0.0 {
                fact!("sooner-by", time = time)
            } else {
                fact!("later-by", time = time)
            };
            let why = match self.fridge.was_read {
                true => fact!(
                    "fridge-doubt-read",
                    by = by,
                    c = Celsius(tenth(self.fridge.c))
                ),
                false => fact!(
                    "fridge-doubt-planned",
                    by = by,
                    range = (Celsius(4.0), Celsius(9.0))
                ),
            };
            let note = Note::watch("fridge_doubt", what.clone(), why.clone());
            out.push(if self.fridge.was_read {
                // Known as well as a thermometer knows it: nothing to do about it.
                Note::holds("fridge_doubt", what, why)
            } else if fridge_measured {
                note.todo(fact!("fridge-doubt-todo"))
            } else {
                note.todo(fact!("fridge-doubt-measure"))
            });
        }
        let (ready, early, late) = (
            quarter(self.ready.at),
            quarter(self.ready.early_at),
            quarter(self.ready.late_at),
        );
        if let Some(bakes) = self.from_bakes {
            let what = fact!("spread", ready = ready, early = early, late = late);
            out.push(Note::holds("spread", what, self.by_log(bakes)));
            return out;
        }
        let heaviest = self.weights.first().map(|w| match w.doubt {
            Doubt::Fridge => fact!("doubt-fridge"),
            Doubt::Room => fact!("doubt-room"),
            Doubt::Yeast => fact!("doubt-yeast"),
            Doubt::Dough => fact!("doubt-dough"),
        });
        out.push(Note::holds(
            "spread",
            fact!("spread", ready = ready, early = early, late = late),
            fact!("spread-why", doubt = heaviest),
        ));
        out
    }
}
