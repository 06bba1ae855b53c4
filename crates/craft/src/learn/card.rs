//! The response card of a batch: what each channel does to what was seen of it, so that learning needs no further run.
//!
//! Source: learning, section 2.2. A card hangs on the batch's plan and the hours of interest alone.

use super::channel::{CHANNELS, Channel, Offsets, RUN_CHANNELS};
use super::under::{active, under};
use crate::rise::{RiseRequest, WatchedMoment, watch};
use serde::{Deserialize, Serialize};

/// Outputs per hour of interest; see [`Output`].
pub(crate) const OUTPUTS: usize = 7;
const LEAST_LN: f64 = 1e-4;
const LEAST_GROWN: f64 = 0.03;
/// Beyond so many steps a response goes straight on.
const CURVED_STEPS: f64 = 2.0;

/// What a card keeps of a moment.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Output {
    /// ln of the ripeness by gas.
    Gas,
    /// ln of maturation against what the gluten needs.
    Matured,
    /// ln of rest against what relaxing needs.
    Relaxed,
    /// Gluten reserve.
    Reserve,
    /// ln(V − 1).
    Grown,
    /// Index of acid.
    Acid,
    /// ln of the ripeness by the gas of the dose.
    Dose,
}

/// One hour of interest: value, slope and curvature per channel of a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) struct CardMoment {
    pub hours: f64,
    base: [f64; OUTPUTS],
    slope: [[f64; OUTPUTS]; RUN_CHANNELS],
    curve: [[f64; OUTPUTS]; RUN_CHANNELS],
}

/// The moments of one batch, the plan's end always last.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Card {
    pub(crate) moments: Vec<CardMoment>,
    pub(crate) active: Vec<Channel>,
}

/// A figure and how it moves with each channel.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Graded {
    pub value: f64,
    pub slope: Offsets,
}

/// The seven outputs of a moment between two steps: straight between them, before the logarithm. A moment equal to an
/// event is read before it, since an event acts at the beginning of a step.
pub(crate) fn outputs(moments: &[WatchedMoment], at_h: f64) -> [f64; OUTPUTS] {
    let after = moments
        .iter()
        .position(|m| m.hours >= at_h - 1e-9)
        .unwrap_or(moments.len() - 1);
    let b = &moments[after];
    let a = if after > 0 { &moments[after - 1] } else { b };
    let share = if b.hours > a.hours {
        ((at_h - a.hours) / (b.hours - a.hours)).clamp(0.0, 1.0)
    } else {
        1.0
    };
    let mix = |of: fn(&WatchedMoment) -> f64| of(a) + share * (of(b) - of(a));
    let ln = |v: f64| v.max(LEAST_LN).ln();
    let (dose, piece) = (mix(|m| m.dose), mix(|m| m.piece));
    [
        ln(dose.min(piece)),
        ln(mix(|m| m.matured)),
        ln(mix(|m| m.relaxed)),
        mix(|m| m.reserve),
        (mix(|m| m.volume) - 1.0).max(LEAST_GROWN).ln(),
        mix(|m| m.acid),
        ln(dose),
    ]
}

impl Card {
    /// Runs a checked request once by the book and twice per channel that moves it: 9 to 15 runs.
    pub fn of(r: &RiseRequest, hours: &[f64]) -> Card {
        let mut times: Vec<f64> = hours.to_vec();
        times.push(r.total_hours());
        let last = times.iter().copied().fold(0.0, f64::max);
        let seen = |q: &Offsets| {
            let run = watch(&under(r, q), last);
            times
                .iter()
                .map(|&t| outputs(&run.moments, t))
                .collect::<Vec<_>>()
        };
        let book = seen(&[0.0; CHANNELS]);
        let mut moments: Vec<CardMoment> = times
            .iter()
            .zip(&book)
            .map(|(&hours, &base)| CardMoment {
                hours,
                base,
                slope: [[0.0; OUTPUTS]; RUN_CHANNELS],
                curve: [[0.0; OUTPUTS]; RUN_CHANNELS],
            })
            .collect();
        let active = active(r);
        for &c in &active {
            let step = c.step();
            let mut q = [0.0; CHANNELS];
            q[c.at()] = step;
            let up = seen(&q);
            q[c.at()] = -step;
            let down = seen(&q);
            for ((m, up), down) in moments.iter_mut().zip(&up).zip(&down) {
                for n in 0..OUTPUTS {
                    m.slope[c.at()][n] = (up[n] - down[n]) / (2.0 * step);
                    m.curve[c.at()][n] = (up[n] - 2.0 * m.base[n] + down[n]) / (step * step);
                }
            }
        }
        Card { moments, active }
    }

    /// The moment of the plan's end.
    pub(crate) fn end(&self) -> &CardMoment {
        self.moments.last().expect("a card has its plan's end")
    }
}

impl CardMoment {
    /// An output in a kitchen that differs by `q`.
    pub fn at(&self, q: &Offsets, output: Output) -> Graded {
        let n = output as usize;
        let mut got = Graded {
            value: self.base[n],
            slope: [0.0; CHANNELS],
        };
        for &c in &Channel::ALL[..RUN_CHANNELS] {
            let i = c.at();
            let (s, k) = (self.slope[i][n], self.curve[i][n]);
            let most = CURVED_STEPS * c.step();
            let x = q[i].clamp(-most, most);
            got.value += s * x + 0.5 * k * x * x + (s + k * x) * (q[i] - x);
            got.slope[i] = s + k * x;
        }
        got
    }
}
