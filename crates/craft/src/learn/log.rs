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

    /// How far each batch of the log moved what is known of a channel for `next`: place in the log, and what it adds to the
    /// mean. They sum to the mean.
    pub fn moved(&self, next: &NextBatch, c: Channel) -> Vec<(usize, f64)> {
        let parts = self.posterior.parts(&next.among(), c);
        self.used.iter().copied().zip(parts).collect()
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
