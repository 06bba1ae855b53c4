//! How sure a window is, on the clock, and what to say about it.

use super::by_log::{Likely, SPREAD, around};
use super::{ReadyWindow, SheetRequest, hours};
use crate::fact;
use crate::fact::tenth;
use crate::note::Note;
use crate::rise::spread::{Doubt, Weight, spread_of};
use crate::rise::{Doubts, HandOver, RiseRequest, Temperatures};
use crate::units::Celsius;
use crate::when::quarter;
use serde::{Deserialize, Serialize};

/// A doubt that moves the window by less says nothing, h.
const WORTH_SAYING_H: f64 = 0.3;

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
    /// How sure the window of a dough is by what is not known of its kitchen; `None` where a log says it ([`super::ByLog`]).
    pub(super) fn asked(
        r: &SheetRequest,
        (dough, handed): (&RiseRequest, &[HandOver]),
        doubts: &Doubts,
        window: &ReadyWindow,
        fridge: FridgeKnown,
    ) -> Option<Sure> {
        if r.own.is_some() {
            return None;
        }
        let s = spread_of(dough, doubts, Temperatures::InsideTheDough, handed)?;
        Some(Sure {
            ready: around(&s.ready, window.from_at),
            past: s.past.as_ref().zip(window.to_at).map(|(b, t)| around(b, t)),
            weights: s.weights,
            fridge,
        })
    }

    /// What to say: the band, and the doubt that weighs most. A fridge that nobody measured is asked for.
    pub fn notes(&self, fridge_measured: bool) -> Vec<Note> {
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
        let heaviest = self.weights.first().map(|w| match w.doubt {
            Doubt::Fridge => fact!("doubt-fridge"),
            Doubt::Room => fact!("doubt-room"),
            Doubt::Yeast => fact!("doubt-yeast"),
            Doubt::Dough => fact!("doubt-dough"),
        });
        out.push(Note::holds(
            SPREAD,
            self.ready.said(),
            fact!("spread-why", doubt = heaviest),
        ));
        out
    }
}
