//! Ripeness: is the dough ready, and what holds it back? Labels and handling notes follow from it.
//!
//! R = 1 is "ready as intended", 0.9 to 1.5 bakes well. Source: fermentation model, section 7.

use super::request::DoughKind;
use serde::{Deserialize, Serialize};

/// Ripeness at which a dough counts as ready.
pub const READY: f64 = 0.90;
/// Ripeness from which a dough is past its best.
pub const PEAK: f64 = 1.15;
/// Strength left, 0 to 1, under which a dough is slack and may tear.
pub const SLACK: f64 = 0.15;
/// Up to here it bakes well; from twice the intended ripeness on it is far past it, however tolerant the flour.
pub const BAKES_WELL: f64 = 1.5;
/// From so many times the intended rise on a dough is far past.
pub const FAR_PAST: f64 = 2.0;
/// The piece's gas against full rise from which on it fades.
const FADING: f64 = 1.7;

/// What limits the ripeness.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum RipenessPart {
    /// The dough has not made enough gas in all.
    Dose,
    /// The piece holds too little gas since it was shaped.
    Piece,
    /// It has not matured, or not relaxed since shaping.
    Mature,
}

impl RipenessPart {
    /// Stands for "does not limit": preferments need not relax.
    pub(super) const UNLIMITED: f64 = 9.0;
}

/// The three parts of ripeness.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ripeness {
    /// By the gas that this dose was meant to make.
    pub dose: f64,
    /// By the gas in the piece since its last shaping.
    pub piece: f64,
    /// By maturation.
    pub mature: f64,
}

impl Ripeness {
    /// R, the smallest part.
    pub fn whole(&self) -> f64 {
        self.gas().min(self.mature)
    }
    /// The part that yeast can change.
    pub fn gas(&self) -> f64 {
        self.dose.min(self.piece)
    }
    /// Which of them holds it back.
    pub fn limiting(&self) -> RipenessPart {
        if self.mature < self.gas() {
            RipenessPart::Mature
        } else if self.piece < self.dose {
            RipenessPart::Piece
        } else {
            RipenessPart::Dose
        }
    }
}

/// The state of a dough in one word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Label {
    /// Not ready yet.
    Young,
    /// Ready.
    Ready,
    /// At its best.
    Peak,
    /// Past its best, still good.
    Fading,
    /// Past.
    Over,
}

impl Label {
    /// The first match wins. `reserve` is the gluten reserve, `inflation` the piece's gas against full rise, `wanted` the
    /// same with what it would have made with sugar enough: a dough that starves is not a tolerant one.
    pub fn of(kind: DoughKind, r: &Ripeness, reserve: f64, inflation: f64, wanted: f64) -> Label {
        let whole = r.whole();
        // A biga is dry and clumped: it takes more before it is past (calibrated).
        let (over, fading) = match kind {
            DoughKind::Biga => (3.0, 2.2),
            _ => (2.3, FADING),
        };
        if inflation >= over || reserve < -0.20 || r.dose >= 4.2 {
            Label::Over
        } else if whole >= READY && (wanted >= fading || reserve < 0.0 || r.dose >= 3.2) {
            Label::Fading
        } else if whole >= PEAK {
            Label::Peak
        } else if whole >= READY {
            Label::Ready
        } else if reserve < 0.0 {
            Label::Fading
        } else {
            Label::Young
        }
    }
    /// Too late to bake as intended.
    pub fn is_past(self) -> bool {
        matches!(self, Label::Fading | Label::Over)
    }
}

/// How a dough will handle; several may apply.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Handling {
    /// It springs back.
    Elastic,
    /// It spreads by itself.
    Slack,
    /// It sticks.
    Sticky,
    /// It tears.
    Fragile,
    /// Its crust stays pale: little sugar is left.
    PaleCrust,
    /// Its middle runs ahead.
    WarmCore,
    /// It opens well.
    Balanced,
}

/// What the handling notes are judged from, at the planned bake.
#[derive(Debug, Clone, Copy)]
pub struct AtBake {
    /// Ripeness by maturation.
    pub mature: f64,
    /// Gluten reserve, 1 falling to 0 and below.
    pub reserve: f64,
    /// Water over flour.
    pub hydration: f64,
    /// W of its blend.
    pub flour_w: f64,
    /// Index of acid.
    pub acid: f64,
    /// Volume against just mixed.
    pub volume: f64,
    /// Volume above which cells break.
    pub ceiling: f64,
    /// Sugar that yeast can take, mmol per kg flour.
    pub sugar: f64,
    /// Sugar still bound, mmol per kg flour.
    pub bound_sugar: f64,
    /// Gas made in the core against the mean.
    pub core_ratio: f64,
}

/// The wettest a flour carries without sticking, % water.
pub fn stickiness_limit(flour_w: f64) -> f64 {
    64.0 + 0.06 * (flour_w - 200.0)
}

/// Handling notes of section 7.1; `Balanced` when none applies.
pub fn handling(b: &AtBake) -> Vec<Handling> {
    let rules = [
        (b.mature < 1.0, Handling::Elastic),
        (b.reserve < SLACK, Handling::Slack),
        (
            b.hydration > stickiness_limit(b.flour_w) || b.reserve < 0.05 || b.acid > 0.5,
            Handling::Sticky,
        ),
        (b.volume > 0.85 * b.ceiling, Handling::Fragile),
        (b.sugar < 15.0 && b.bound_sugar < 100.0, Handling::PaleCrust),
        (b.core_ratio > 1.25, Handling::WarmCore),
    ];
    let found: Vec<Handling> = rules
        .iter()
        .filter(|(is, _)| *is)
        .map(|(_, h)| *h)
        .collect();
    if found.is_empty() {
        vec![Handling::Balanced]
    } else {
        found
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_label_takes_the_first_rule_that_matches() {
        let r = |dose, piece, mature| Ripeness {
            dose,
            piece,
            mature,
        };
        let of = |x: Ripeness, reserve: f64, gas: f64| {
            Label::of(DoughKind::Dough, &x, reserve, gas, gas)
        };
        assert_eq!(of(r(0.5, 0.5, 2.0), 0.5, 0.5), Label::Young);
        assert_eq!(of(r(0.95, 1.2, 2.0), 0.5, 0.9), Label::Ready);
        assert_eq!(of(r(1.3, 1.2, 2.0), 0.5, 0.9), Label::Peak);
        assert_eq!(of(r(1.3, 1.2, 2.0), 0.5, 1.7), Label::Fading);
        assert_eq!(of(r(1.3, 1.2, 2.0), -0.1, 0.9), Label::Fading);
        assert_eq!(of(r(0.3, 1.2, 2.0), -0.1, 0.9), Label::Fading);
        assert_eq!(of(r(0.3, 0.2, 2.0), -0.21, 0.9), Label::Over);
        assert_eq!(of(r(4.2, 1.2, 2.0), 0.5, 0.9), Label::Over);
        // Short of sugar it fades by what it wanted, and is over by what it made.
        let starved =
            |wanted: f64| Label::of(DoughKind::Dough, &r(1.3, 1.2, 2.0), 0.5, 0.9, wanted);
        assert_eq!((starved(1.6), starved(2.5)), (Label::Peak, Label::Fading));
        // A biga takes more.
        let biga = |gas: f64| Label::of(DoughKind::Biga, &r(1.5, 1.5, 9.0), 0.5, gas, gas);
        assert_eq!(
            (biga(2.1), biga(2.3), biga(3.0)),
            (Label::Peak, Label::Fading, Label::Over)
        );
    }

    #[test]
    fn ripeness_is_its_smallest_part_and_says_which() {
        let r = Ripeness {
            dose: 1.0,
            piece: 0.8,
            mature: 2.0,
        };
        assert_eq!(
            (r.whole(), r.gas(), r.limiting()),
            (0.8, 0.8, RipenessPart::Piece)
        );
        let r = Ripeness {
            dose: 1.0,
            piece: 1.8,
            mature: 0.4,
        };
        assert_eq!(
            (r.whole(), r.gas(), r.limiting()),
            (0.4, 1.0, RipenessPart::Mature)
        );
    }
}
