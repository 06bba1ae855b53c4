//! What a maker judges, read off a card: ripeness, state, tightness, slackness, sourness, the tub.
//!
//! Source: learning, section 2.3. The edges are soft where one limit gives way to another: with hard ones a fit flips
//! for ever between two answers.

use super::card::{CardMoment, Graded, Output};
use super::channel::{CHANNELS, Channel, Offsets};

/// Width of the soft edges.
const SOFT: f64 = 0.05;
/// Ripeness of the piece's gas below which a disc springs back.
const TIGHT_GAS: f64 = 0.75;
/// Reserve at which a dough is slack, and how wide that is.
const SLACK_RESERVE: f64 = 0.10;
const SLACK_WIDTH: f64 = 0.25;
/// Acid at which it tastes sour, how wide that is, and the ripeness at which it smells of alcohol.
const SOUR_ACID: f64 = 0.45;
const SOUR_WIDTH: f64 = 0.25;
const SOUR_DOSE: f64 = 2.6;
/// Ripeness up to which a dough counts as right.
const RIGHT_TO: f64 = 1.5;
/// How much more the tub answers to what the model gets wrong than ripeness does.
const TUB_ON_MODEL: f64 = 1.2;

impl Graded {
    fn zero() -> Graded {
        Graded {
            value: 0.0,
            slope: [0.0; CHANNELS],
        }
    }
    fn plus(mut self, c: Channel, factor: f64, q: &Offsets) -> Graded {
        self.value += factor * q[c.at()];
        self.slope[c.at()] += factor;
        self
    }
    fn shifted(mut self, by: f64) -> Graded {
        self.value += by;
        self
    }
    fn times(mut self, factor: f64) -> Graded {
        self.value *= factor;
        self.slope.iter_mut().for_each(|s| *s *= factor);
        self
    }
    fn smaller(self, other: Graded) -> Graded {
        if other.value < self.value {
            other
        } else {
            self
        }
    }
}

/// The soft smallest of several values, with each one's share of it.
pub(crate) fn soft_smallest<const N: usize>(values: [f64; N]) -> (f64, [f64; N]) {
    let least = values.iter().copied().fold(f64::INFINITY, f64::min);
    let parts = values.map(|v| (-(v - least) / SOFT).exp());
    let sum: f64 = parts.iter().sum();
    (least - SOFT * sum.ln(), parts.map(|p| p / sum))
}

fn soft_min<const N: usize>(parts: [Graded; N]) -> Graded {
    let (value, shares) = soft_smallest(parts.map(|p| p.value));
    let mut out = Graded {
        value,
        ..Graded::zero()
    };
    for (p, share) in parts.iter().zip(shares) {
        for (s, of) in out.slope.iter_mut().zip(p.slope) {
            *s += share * of;
        }
    }
    out
}

fn soft_max<const N: usize>(parts: [Graded; N]) -> Graded {
    soft_min(parts.map(|p| p.times(-1.0))).times(-1.0)
}

impl CardMoment {
    /// ln of the ripeness as this maker counts it: 0 is ready.
    pub fn ripeness(&self, q: &Offsets) -> Graded {
        self.at(q, Output::Gas)
            .plus(Channel::Model, 1.0, q)
            .plus(Channel::Ready, -1.0, q)
    }
    fn matured(&self, q: &Offsets) -> Graded {
        self.at(q, Output::Matured).plus(Channel::Gluten, -1.0, q)
    }
    fn relaxed(&self, q: &Offsets) -> Graded {
        self.at(q, Output::Relaxed).plus(Channel::Relaxing, -1.0, q)
    }
    /// ln of the ripeness by all that holds it back.
    pub fn young(&self, q: &Offsets) -> Graded {
        soft_min([self.ripeness(q), self.matured(q), self.relaxed(q)])
    }
    /// Gluten reserve, 1 falling to 0 and below.
    pub fn reserve(&self, q: &Offsets) -> Graded {
        let left = (-q[Channel::Gluten.at()]).exp();
        let book = self.at(q, Output::Reserve);
        let used = (1.0 - book.value) * left;
        let mut out = book.times(left);
        out.value = 1.0 - used;
        out.slope[Channel::Gluten.at()] += used;
        out
    }
    /// How it stands at opening: 0 ready, below young, large too far by gas or by gluten.
    pub fn state(&self, q: &Offsets) -> Graded {
        let spent = self.reserve(q).times(-2.0).shifted(RIGHT_TO.ln());
        soft_max([self.young(q), spent])
    }
    /// Below 0 a disc springs back.
    pub fn tight(&self, q: &Offsets) -> Graded {
        self.matured(q)
            .smaller(self.relaxed(q))
            .smaller(self.ripeness(q).shifted((1.0 / TIGHT_GAS).ln()))
    }
    /// Below 0 it is slack or sticky.
    pub fn slack(&self, q: &Offsets) -> Graded {
        self.reserve(q)
            .shifted(-SLACK_RESERVE)
            .times(1.0 / SLACK_WIDTH)
    }
    /// Below 0 it is sour or smells of alcohol.
    pub fn sour(&self, q: &Offsets) -> Graded {
        let acid = self
            .at(q, Output::Acid)
            .times(-1.0)
            .shifted(SOUR_ACID)
            .times(1.0 / SOUR_WIDTH);
        let alcohol = self
            .at(q, Output::Dose)
            .times(-1.0)
            .shifted(SOUR_DOSE.ln())
            .plus(Channel::Model, -1.0, q);
        acid.smaller(alcohol)
    }
    /// What a marked tub shows, ln(V − 1).
    pub fn tub(&self, q: &Offsets) -> Graded {
        self.at(q, Output::Grown)
            .plus(Channel::TubBias, 1.0, q)
            .plus(Channel::Model, TUB_ON_MODEL, q)
    }
}

/// What a thermometer shows against the plan, K: how far the place is off, and the thermometer.
pub(crate) fn reading(place: Channel, bias: Channel, q: &Offsets) -> Graded {
    Graded::zero().plus(place, 1.0, q).plus(bias, 1.0, q)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_printed_soft_edges_come_out() {
        let (v, shares) = soft_smallest([0.0, 0.05, 1.0]);
        assert!((v + 0.01566).abs() < 1e-5, "{v}");
        for (got, want) in shares.iter().zip([0.7311, 0.2689, 0.0]) {
            assert!((got - want).abs() < 5e-5);
        }
        let at = |value| Graded {
            value,
            ..Graded::zero()
        };
        let v = soft_max([at(0.0), at(0.05)]).value;
        assert!((v - 0.06566).abs() < 1e-5, "{v}");
    }
}
