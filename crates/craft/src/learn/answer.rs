//! Learning as one question: these batches were logged, this one comes next.
//!
//! Source: learning, sections 7 and 13.

use super::card::Card;
use super::channel::Channel;
use super::fit::{Posterior, used};
use super::observed::{LoggedBatch, NextBatch};
use super::place::DoughPath;
use super::predict::{ChannelKnown, LikelyWindow, OwnDose, Prediction, Uncertain};
use super::teach::{TeachesMost, teaches_most};
use crate::fact;
use crate::refusal::ValidationError;
use crate::rise::NoYeast;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What was logged, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LearnRequest {
    /// At most 500; the latest 40 are used.
    pub batches: Vec<LoggedBatch>,
    /// The batch to predict.
    pub next: NextBatch,
}

/// A personal dose needs so many batches of which it is known how they rose (section 7).
pub const PROVEN_BATCHES: usize = 2;
const MOST_LOGGED: usize = 500;

/// What the log says of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Learned {
    /// The dose as this kitchen needs it; absent where yeast is not what decides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dose: Option<OwnDose>,
    /// Why no dose can be given.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub no_dose: Option<NoYeast>,
    /// ln of the ripeness at the plan's end.
    pub ln_ripeness: Uncertain,
    /// When it is likely to be ready.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<LikelyWindow>,
    /// What is known of the kitchen, channel by channel.
    pub channels: BTreeMap<Channel, ChannelKnown>,
    /// Batch and observation, as places in the request, that do not fit the rest and were hardly counted.
    pub set_aside: Vec<(usize, usize)>,
    /// What one thing noted of this batch would teach most.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub teaches_most: Option<TeachesMost>,
    /// Places in the request of the batches that were used.
    pub used: Vec<usize>,
    /// So many of them say how they rose.
    pub rises: usize,
    /// Whether this kind of dough was logged before.
    pub path_seen: bool,
}

impl Learned {
    /// Whether the personal dose may be used unasked: fewer batches leave it a proposal.
    pub fn is_proven(&self) -> bool {
        self.rises >= PROVEN_BATCHES
    }
}

/// Something seen is believed less than this when it was set aside.
const SET_ASIDE: f64 = 0.3;

/// The hours of what was seen of a batch, one for each, as its card must have them.
pub fn hours_seen(b: &LoggedBatch) -> Vec<f64> {
    b.observed.iter().map(|s| b.hour_of(s)).collect()
}

/// The card of a logged batch: 10 to 30 ms, to be kept as long as its plan and what was seen stay the same.
pub fn card_of(b: &LoggedBatch) -> Card {
    Card::of(&b.dough, &hours_seen(b))
}

/// Learns from a log with the cards of its batches.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn learn_with(r: &LearnRequest, cards: &[Card]) -> Result<Learned, ValidationError> {
    check(r)?;
    let used = used(&r.batches);
    let batches: Vec<LoggedBatch> = used.iter().map(|&i| r.batches[i].clone()).collect();
    let of_used: Vec<&Card> = used.iter().map(|&i| &cards[i]).collect();
    let posterior = Posterior::of(&batches, &of_used);
    let card = Card::of(&r.next.dough, &[]);
    Ok(answer(&r.next, &card, &posterior, &batches, used))
}

/// Learns from a log.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn learn(r: &LearnRequest) -> Result<Learned, ValidationError> {
    check(r)?;
    let cards: Vec<Card> = r.batches.iter().map(card_of).collect();
    learn_with(r, &cards)
}

fn check(r: &LearnRequest) -> Result<(), ValidationError> {
    if r.batches.len() > MOST_LOGGED {
        return Err(ValidationError::one("batches", fact!("log-500")));
    }
    for (i, b) in r.batches.iter().enumerate() {
        b.check().map_err(|e| e.below(&format!("batches[{i}]")))?;
    }
    // The dose may be what is asked for.
    r.next.dough.check(true).map_err(|e| e.below("next.dough"))
}

/// What does not fit the rest, by the places that `used` gives its batches.
pub(crate) fn set_aside(posterior: &Posterior, used: &[usize]) -> Vec<(usize, usize)> {
    posterior
        .sites
        .iter()
        .zip(&posterior.believed)
        .filter(|(_, b)| **b < SET_ASIDE)
        .map(|(s, _)| (used[s.batch], s.observed))
        .collect()
}

pub(crate) fn answer(
    next: &NextBatch,
    card: &Card,
    posterior: &Posterior,
    batches: &[LoggedBatch],
    used: Vec<usize>,
) -> Learned {
    let p = Prediction::of(next, card, posterior);
    let (dose, no_dose) = if next.dough.yeast_percent > 0.0 {
        match p.dose() {
            Ok(d) => (Some(d), None),
            Err(why) => (None, Some(why)),
        }
    } else {
        (None, None)
    };
    let set_aside = set_aside(posterior, &used);
    let path = DoughPath::of(&next.dough);
    let rose = |b: &&LoggedBatch| b.observed.iter().any(|s| s.is_of_the_rise());
    Learned {
        dose,
        no_dose,
        ln_ripeness: p.ripeness(),
        window: p.window(),
        channels: p.channels(),
        set_aside,
        teaches_most: teaches_most(&p, posterior),
        rises: batches.iter().filter(rose).count(),
        path_seen: batches
            .iter()
            .filter(rose)
            .any(|b| DoughPath::of(&b.dough) == path),
        used,
    }
}
