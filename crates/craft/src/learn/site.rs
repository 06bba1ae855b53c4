//! One thing seen of one batch, as the fit reads it: which figure it speaks of, and how likely it is.
//!
//! Source: learning, sections 3 and 9.1.

use super::card::{CardMoment, Graded};
use super::channel::{Channel, Offsets};
use super::likelihood::{self, Likelihood};
use super::observed::{LoggedBatch, Observed};
use super::scalars::reading;
use crate::rise::RiseRequest;

/// How well an hour of readiness, a tub and the thermometers are told.
pub(crate) const READY_SD: f64 = 0.13;
pub(crate) const TUB_SD: f64 = 0.15;
pub(crate) const PLACE_SCALE: f64 = 0.5;
pub(crate) const DOUGH_SCALE: f64 = 0.4;
/// A tub is read to so much, and worse in the cold.
const TUB_READ_TO: f64 = 0.06;
const TUB_IN_THE_COLD: f64 = 4.0;
const TUB_COLD_C: f64 = 10.0;
/// How surely tightness, slackness and sourness are told.
const TIGHT_SD: f64 = 0.25;
const SLACK_SD: f64 = 0.5;
const SOUR_SD: f64 = 0.3;

/// What was seen, of which batch of the log.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Sighting {
    pub batch: usize,
    /// Its place in what was seen of the batch, which is its place on the card.
    pub observed: usize,
    seen: Observed,
    /// For a tub: how well it was read.
    sd: f64,
}

/// The planned temperature of the place at an hour, °C; an hour between two stages belongs to the former.
fn place_at(r: &RiseRequest, at_h: f64) -> f64 {
    let stages = r.lasting_stages();
    let mut before = 0.0;
    for s in &stages {
        before += s.hours;
        if at_h <= before + 1e-9 {
            return s.place_at(r.start_clock_h + at_h);
        }
    }
    stages
        .last()
        .map_or(20.0, |s| s.place_at(r.start_clock_h + at_h))
}

/// How well a tub at `times` its volume is read, as sd of ln(V − 1).
pub(crate) fn tub_sd(times: f64, place_c: f64) -> f64 {
    let read = TUB_READ_TO * times / ((times - 1.0) * TUB_SD);
    let cold = if place_c < TUB_COLD_C {
        TUB_IN_THE_COLD
    } else {
        0.0
    };
    TUB_SD * (1.0 + read * read + cold).sqrt()
}

impl Sighting {
    pub fn of(batch: usize, observed: usize, b: &LoggedBatch) -> Sighting {
        let seen = b.observed[observed];
        let sd = match seen {
            Observed::Tub { at_h, times } => tub_sd(times, place_at(&b.dough, at_h)),
            _ => 0.0,
        };
        Sighting {
            batch,
            observed,
            seen,
            sd,
        }
    }

    /// The figure that it speaks of, and how likely it is in a kitchen that differs by `q`.
    pub fn read(&self, moment: &CardMoment, q: &Offsets) -> (Graded, Likelihood) {
        let with = |f: Graded, of: &dyn Fn(f64) -> Likelihood| (f, of(f.value));
        let place = |c, bias, over, scale| {
            with(reading(c, bias, q), &|f| {
                likelihood::thermometer(over, f, scale)
            })
        };
        match self.seen {
            Observed::State { is, answers, .. } => {
                with(moment.state(q), &|f| likelihood::state(is, answers, f))
            }
            Observed::Ready { .. } => {
                with(moment.young(q), &|f| likelihood::near(0.0, f, READY_SD))
            }
            Observed::Tub { times, .. } => {
                let y = (times - 1.0).ln();
                with(moment.tub(q), &|f| likelihood::near(y, f, self.sd))
            }
            Observed::Fridge { over_planned_k } => place(
                Channel::Fridge,
                Channel::FridgeBias,
                over_planned_k,
                PLACE_SCALE,
            ),
            Observed::Room { over_planned_k } => place(
                Channel::Room,
                Channel::RoomBias,
                over_planned_k,
                PLACE_SCALE,
            ),
            Observed::Dough { over_planned_k } => place(
                Channel::Dough,
                Channel::DoughBias,
                over_planned_k,
                DOUGH_SCALE,
            ),
            Observed::Tight { said } => {
                with(moment.tight(q), &|f| likelihood::said(said, f, TIGHT_SD))
            }
            Observed::Slack { said } => {
                with(moment.slack(q), &|f| likelihood::said(said, f, SLACK_SD))
            }
            Observed::Sour { said } => {
                with(moment.sour(q), &|f| likelihood::said(said, f, SOUR_SD))
            }
        }
    }
}
