//! How sure a window is, on the clock, and what to say about it.

use super::{ReadyWindow, SheetRequest, hours};
use crate::note::Note;
use crate::refusal::plain;
use crate::rise::spread::{Band, Doubt, Spread, Weight};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A doubt that moves the window by less says nothing, h.
const WORTH_SAYING_H: f64 = 0.3;

/// An edge of the window: most likely, and the band that it lies in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Likely {
    pub at: Timestamp,
    pub early_at: Timestamp,
    pub late_at: Timestamp,
}

/// How sure the ready window is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Sure {
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
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct FridgeKnown {
    /// As it was planned or last read, °C, and how far off it may be, K.
    pub c: f64,
    pub off_c: f64,
    /// A thermometer said so while this dough was under way.
    pub was_read: bool,
}

impl Sure {
    /// The band around a window: it was found on the coarse grid of trials, and is laid around the exact edges.
    pub(super) fn of(s: &Spread, window: &ReadyWindow, fridge: FridgeKnown) -> Sure {
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
        }
    }

    /// What to say: the band, and the doubt that weighs most. A fridge that nobody measured is asked for.
    pub fn notes(&self, r: &SheetRequest, fridge_measured: bool) -> Vec<Note> {
        let Ok(zone) = r.zone() else { return vec![] };
        let mut out = Vec::new();
        let fridge = self
            .weights
            .iter()
            .find(|w| w.doubt == Doubt::Fridge && w.up_h.abs() >= WORTH_SAYING_H);
        if let Some(w) = fridge {
            let one = |c: f64| plain((c * 10.0).round() / 10.0);
            let at = quarter(self.ready.at + hours(w.up_h), &zone, r.now_at);
            let what = format!(
                "At fridge {}° it is ready {at}",
                one(self.fridge.c + self.fridge.off_c)
            );
            let word = if w.up_h < 0.0 { "sooner" } else { "later" };
            let by = plain((w.up_h.abs() * 4.0).round() / 4.0);
            let why = match self.fridge.was_read {
                true => format!(
                    "{by} h {word} than at the {}° that were read.",
                    one(self.fridge.c)
                ),
                false => format!("{by} h {word} than planned; home fridges run at 4 to 9 °C."),
            };
            let note = Note::watch("fridge_doubt", what.clone(), why.clone());
            out.push(if self.fridge.was_read {
                // Known as well as a thermometer knows it: nothing to do about it.
                Note::holds("fridge_doubt", what, why)
            } else if fridge_measured {
                note.todo("Put a thermometer into the middle of the fridge, in a glass of water.")
            } else {
                note.todo("This fridge was never measured: put a thermometer into it for a night.")
            });
        }
        let (ready, early, late) = (
            quarter(self.ready.at, &zone, r.now_at),
            quarter(self.ready.early_at, &zone, r.now_at),
            quarter(self.ready.late_at, &zone, r.now_at),
        );
        let heaviest = self.weights.first().map_or("", |w| match w.doubt {
            Doubt::Fridge => "the fridge",
            Doubt::Room => "the room",
            Doubt::Yeast => "the yeast",
            Doubt::Dough => "the dough off the mixer",
        });
        out.push(Note::holds(
            "spread",
            format!("Most likely ready {ready}, between {early} and {late}"),
            format!("What is least sure is {heaviest}; a measured value narrows it."),
        ));
        out
    }
}

fn quarter(t: Timestamp, zone: &TimeZone, now: Option<Timestamp>) -> String {
    crate::when::quarter_said(t, zone, now)
}
