//! The order in which boxes leave the cold and their balls go into the oven.

use super::{BoxLook, ShapeLook};
use crate::sheet::hours;
use jiff::Timestamp;

/// A ball that goes in next.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NextBall {
    /// The box that it lies in.
    pub number: u16,
    /// When its turn comes.
    pub at: Timestamp,
    /// Its rise then, 1 is ready as intended.
    pub rise: f64,
}

/// Boxes that leave the cold together.
#[derive(Debug, Clone, PartialEq)]
pub struct OutRound {
    /// When, to five minutes.
    pub at: Timestamp,
    /// Their numbers.
    pub numbers: Vec<u16>,
}

impl ShapeLook {
    /// Boxes that are still to be used, in their order.
    pub fn in_order(&self) -> Vec<&BoxLook> {
        let mut all: Vec<&BoxLook> = self.boxes.iter().filter(|b| b.order.is_some()).collect();
        all.sort_by_key(|b| b.order);
        all
    }

    /// The next balls at this pace: ripest box first, each with its rise when its turn comes.
    pub fn next_balls(&self, most: usize, pace_s: f64) -> Vec<NextBall> {
        let mut out = vec![];
        for b in self.in_order() {
            // Between its first and its last ball a box rises evenly.
            let more = b.rise_last - b.at_use.rise;
            let last = f64::from(b.left.saturating_sub(1)).max(1.0);
            for i in 0..b.left {
                if out.len() >= most {
                    return out;
                }
                out.push(NextBall {
                    number: b.number,
                    at: b.use_at + hours(f64::from(i) * pace_s / 3600.0),
                    rise: b.at_use.rise + more * f64::from(i) / last,
                });
            }
        }
        out
    }

    /// The rounds in which boxes still have to leave the cold, the earliest first.
    pub fn rounds(&self) -> Vec<OutRound> {
        let mut out: Vec<OutRound> = vec![];
        for b in self.in_order() {
            let Some(o) = b.out else { continue };
            match out.iter_mut().find(|r| r.at == o.at) {
                Some(r) => r.numbers.push(b.number),
                None => out.push(OutRound {
                    at: o.at,
                    numbers: vec![b.number],
                }),
            }
        }
        out.sort_by_key(|r| r.at);
        out
    }

    /// The same where boxes go their own ways: none where one walk is enough and nobody moved a box by itself.
    pub fn own_rounds(&self) -> Vec<OutRound> {
        let apart = self.in_order().iter().any(|b| b.out.is_none());
        match self.worth_it || apart {
            true => self.rounds(),
            false => vec![],
        }
    }
}
