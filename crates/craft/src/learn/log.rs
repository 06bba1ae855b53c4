//! A kitchen's log, fitted once and asked often.
//!
//! Source: learning, sections 4, 5 and 7.

use super::answer::{Learned, answer, set_aside};
use super::card::Card;
use super::channel::Channel;
use super::fit::{Posterior, used};
use super::observed::{LoggedBatch, NextBatch};
use super::own::OwnKitchen;
use super::personal::Personal;
use super::predict::Prediction;

/// How a batch took part in what is known of a channel.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TookPart {
    /// It moved it.
    Moved,
    /// It took part.
    TookPart,
    /// Something of it does not fit the rest and was hardly counted.
    SetAside,
}

/// Shares of the largest part from which on a batch moved a channel, and took part in it.
const MOVED: f64 = 0.3;
const TOOK_PART: f64 = 0.02;

/// A fitted log.
pub struct KitchenLog {
    posterior: Posterior,
    batches: Vec<LoggedBatch>,
    used: Vec<usize>,
}

impl KitchenLog {
    /// Fits checked batches with their cards, one for each: under 30 ms for forty.
    pub fn of(batches: &[LoggedBatch], cards: &[Card]) -> KitchenLog {
        let used = used(batches);
        let of_used: Vec<LoggedBatch> = used.iter().map(|&i| batches[i].clone()).collect();
        let cards: Vec<&Card> = used.iter().map(|&i| &cards[i]).collect();
        KitchenLog {
            posterior: Posterior::of(&of_used, &cards),
            batches: of_used,
            used,
        }
    }

    /// So many of its batches say how they rose.
    pub fn rises(&self) -> usize {
        let rose = |b: &&LoggedBatch| b.observed.iter().any(|s| s.is_of_the_rise());
        self.batches.iter().filter(rose).count()
    }

    /// All that it says of a batch not yet made, whose card has its plan's end alone.
    pub fn says(&self, next: &NextBatch, card: &Card) -> Learned {
        answer(
            next,
            card,
            &self.posterior,
            &self.batches,
            self.used.clone(),
        )
    }

    /// This kitchen for that batch.
    pub fn own(&self, next: &NextBatch, card: &Card) -> OwnKitchen {
        let p = Prediction::of(next, card, &self.posterior);
        OwnKitchen::of(&p, self.rises() as u32)
    }

    /// How each batch of the log took part in what is known of a channel for `next`, by its place in the log; those that
    /// did not are left out.
    pub fn took_part(&self, next: &NextBatch, c: Channel) -> Vec<(usize, TookPart)> {
        let parts = self.posterior.parts(&next.among(), c);
        let most = parts.iter().map(|p| p.abs()).fold(0.0, f64::max);
        let aside = self.set_aside();
        let how = |(i, p): (usize, f64)| {
            let how = if aside.iter().any(|(b, _)| *b == i) {
                TookPart::SetAside
            } else if most > 0.0 && p.abs() >= MOVED * most {
                TookPart::Moved
            } else if most > 0.0 && p.abs() >= TOOK_PART * most {
                TookPart::TookPart
            } else {
                return None;
            };
            Some((i, how))
        };
        self.used
            .iter()
            .copied()
            .zip(parts)
            .filter_map(how)
            .collect()
    }

    /// Batch and observation, as places in the log, that do not fit the rest and were hardly counted.
    pub fn set_aside(&self) -> Vec<(usize, usize)> {
        set_aside(&self.posterior, &self.used)
    }

    /// What a dose is good to, times or divided by, after the first `n` of its batches and for each n up to all of them; the
    /// book's own first. One standard deviation for `next`.
    pub fn good_to_after(
        &self,
        batches: &[LoggedBatch],
        cards: &[Card],
        next: &NextBatch,
        card: &Card,
    ) -> Vec<f64> {
        (0..=self.used.len())
            .map(|n| {
                let some: Vec<LoggedBatch> =
                    self.used[..n].iter().map(|&i| batches[i].clone()).collect();
                let of: Vec<&Card> = self.used[..n].iter().map(|&i| &cards[i]).collect();
                let posterior = Posterior::of(&some, &of);
                Prediction::of(next, card, &posterior).good_to()
            })
            .collect()
    }

    /// The chance, 0 to 1, that a batch with the dose it has is ready and not past at an hour after mixing.
    pub fn chance_met(&self, next: &NextBatch, card: &Card, at_h: f64) -> f64 {
        let p = Prediction::of(next, card, &self.posterior);
        let run = Personal::to(&next.dough, &p.mean, at_h);
        run.chance_met(at_h, p.ripeness().sd)
    }
}
