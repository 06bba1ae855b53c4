//! What the log says of a batch not yet made: its dose, when it will be ready, how sure that is.
//!
//! Source: learning, sections 5 and 7.

use super::card::Card;
use super::channel::{Channel, Offsets};
use super::fit::{Covariance, Posterior, Whose};
use super::observed::NextBatch;
use super::personal::{Personal, dose};
use super::place::Among;
use crate::rise::NoYeast;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Student's t with eight degrees of freedom: the multiplier of the band that holds four of five.
pub(crate) const FOUR_FIFTHS: f64 = 1.397;
/// A dose is tried so much up, ln, to see what it does.
const NUDGE: f64 = 0.1;

/// A figure and how sure it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Uncertain {
    /// The expected value.
    pub mean: f64,
    /// Its standard deviation.
    pub sd: f64,
}

/// What is known of a channel of this kitchen.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct ChannelKnown {
    /// The expected offset.
    pub mean: f64,
    /// Its standard deviation.
    pub sd: f64,
    /// The same before anything was logged.
    pub prior_sd: f64,
}

/// A channel is spoken of only when it is known so much better than before, and stands so many deviations off (section 7).
const KNOWN_SHARE: f64 = 0.75;

impl ChannelKnown {
    /// Whether it may be said: it is known better than before, and stands clear of the book.
    pub fn may_be_said(&self) -> bool {
        self.sd <= KNOWN_SHARE * self.prior_sd && self.mean.abs() >= self.sd
    }
}

/// When a batch is likely to be ready, h since mixing. Bands hold four of five.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LikelyWindow {
    /// From when it is ready.
    pub from_h: f64,
    /// Early and late edge of that; the late one is absent when it lies beyond what was looked at.
    pub likely_h: (f64, Option<f64>),
    /// Until when it bakes well; absent when beyond what was looked at.
    pub to_h: Option<f64>,
    /// Early and late edge of that.
    pub to_likely_h: (Option<f64>, Option<f64>),
    /// Until when it was looked.
    pub looked_to_h: f64,
}

/// A dose as this kitchen needs it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct OwnDose {
    /// Times the book's.
    pub factor: f64,
    /// The band of that factor which holds four of five.
    pub likely_factor: (f64, f64),
    /// % of the flour in the form that is used.
    pub percent: f64,
    /// The book's own, %.
    pub book_percent: f64,
    /// Good to times or divided by this: one standard deviation.
    pub good_to: f64,
    /// What the book's own dose is good to here, before anything was logged.
    pub book_good_to: f64,
}

/// What the log says of one batch.
pub(crate) struct Prediction<'a> {
    pub next: &'a NextBatch,
    pub card: &'a Card,
    pub posterior: &'a Posterior,
    pub mean: Offsets,
    /// Of what will happen this time.
    pub of_batch: Covariance,
    /// Of the kitchen.
    pub of_kitchen: Covariance,
}

impl<'a> Prediction<'a> {
    /// Of a batch that is not in the log; its card's last moment is its plan's end.
    pub fn of(next: &'a NextBatch, card: &'a Card, posterior: &'a Posterior) -> Prediction<'a> {
        Prediction::among(next, card, posterior, &next.among(), None)
    }

    fn among(
        next: &'a NextBatch,
        card: &'a Card,
        posterior: &'a Posterior,
        among: &Among,
        logged: Option<usize>,
    ) -> Prediction<'a> {
        let whose = Whose { among, logged };
        Prediction {
            next,
            card,
            posterior,
            mean: posterior.mean(among, logged),
            of_batch: posterior.covariance(&whose, &whose, true),
            of_kitchen: posterior.covariance(
                &Whose {
                    among,
                    logged: None,
                },
                &Whose {
                    among,
                    logged: None,
                },
                false,
            ),
        }
    }

    /// ln of the ripeness at the plan's end, this batch's own scatter included.
    pub fn ripeness(&self) -> Uncertain {
        let y = self.card.end().ripeness(&self.mean);
        Uncertain {
            mean: y.value,
            sd: self.of_batch.sd(&y.slope),
        }
    }

    /// Slope of ln ripeness at the plan's end.
    pub fn slope(&self) -> Offsets {
        self.card.end().ripeness(&self.mean).slope
    }

    /// How much ln ripeness moves per ln of the dose.
    fn per_dose(&self) -> f64 {
        let end = self.next.dough.total_hours();
        let at = |by: f64| {
            let mut r = self.next.dough.clone();
            r.yeast_percent *= by.exp();
            Personal::to(&r, &self.mean, end).ripeness_at(end).ln()
        };
        (at(NUDGE) - at(-NUDGE)) / (2.0 * NUDGE)
    }

    /// What its dose is good to, times or divided by: one standard deviation of ln dose.
    pub fn good_to(&self) -> f64 {
        (self.of_kitchen.sd(&self.slope()) / self.per_dose().max(0.1)).exp()
    }

    /// The dose that makes it ready at its end here, beside the book's. An empty log leaves the book's to the last digit.
    pub fn dose(&self) -> Result<OwnDose, NoYeast> {
        let r = &self.next.dough;
        let book = dose(r, &super::fit::NOTHING)?;
        let own = if self.posterior.sites.is_empty() {
            book
        } else {
            dose(r, &self.mean)?
        };
        let slope = self.slope();
        let e = self.per_dose().max(0.1);
        let good = self.of_kitchen.sd(&slope) / e;
        let factor = own / book;
        let prior = Posterior::empty();
        let before = Prediction::of(self.next, self.card, &prior);
        Ok(OwnDose {
            factor,
            likely_factor: (
                factor * (-FOUR_FIFTHS * good).exp(),
                factor * (FOUR_FIFTHS * good).exp(),
            ),
            percent: own,
            book_percent: book,
            good_to: good.exp(),
            book_good_to: (before.of_kitchen.sd(&before.slope()) / e).exp(),
        })
    }

    /// When it is likely to be ready with the dose that it has.
    pub fn window(&self) -> Option<LikelyWindow> {
        let run = Personal::beyond(&self.next.dough, &self.mean);
        window_of(&run, self.ripeness().sd)
    }

    /// What is known of each channel of the kitchen.
    pub fn channels(&self) -> BTreeMap<Channel, ChannelKnown> {
        let among = self.next.among();
        let whose = Whose {
            among: &among,
            logged: None,
        };
        let prior = Posterior::empty().covariance(&whose, &whose, false);
        Channel::ALL
            .iter()
            .map(|&c| {
                let known = ChannelKnown {
                    mean: self.mean[c.at()],
                    sd: self.of_kitchen.sd_of(c),
                    prior_sd: prior.sd_of(c),
                };
                (c, known)
            })
            .collect()
    }
}

/// The window of a run and its bands, where ln ripeness is known to `sd`.
pub(crate) fn window_of(run: &Personal, sd: f64) -> Option<LikelyWindow> {
    let off = FOUR_FIFTHS * sd;
    let from_h = run.opens_h(0.0)?;
    if run.is_past_at_once() {
        return None;
    }
    let to_h = run.shuts_h(0.0);
    Some(LikelyWindow {
        from_h,
        likely_h: (run.opens_h(off).unwrap_or(from_h), run.opens_h(-off)),
        to_h,
        to_likely_h: (run.shuts_h(off), run.shuts_h(-off)),
        looked_to_h: run.looked_h(),
    })
}
