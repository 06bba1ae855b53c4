//! A run of pizzas, told from the taps: In, Turned, Out, verdict.
//!
//! Taps are kept as they came and never changed; this folds them into pizzas and figures. A tap that makes
//! no sense (a turn before In, Out twice) is refused before it is kept.

use jiff::Timestamp;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// How dark one side came out.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, JsonSchema,
)]
#[serde(rename_all = "snake_case")]
pub enum Shade {
    Pale,
    Right,
    Dark,
}

impl Shade {
    pub const ALL: [Shade; 3] = [Shade::Pale, Shade::Right, Shade::Dark];
    pub fn key(self) -> &'static str {
        match self {
            Shade::Pale => "pale",
            Shade::Right => "right",
            Shade::Dark => "dark",
        }
    }
    pub fn from_key(key: &str) -> Option<Shade> {
        Shade::ALL.into_iter().find(|s| s.key() == key)
    }
}

/// What was seen: base and top.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Verdict {
    pub base: Shade,
    pub top: Shade,
}

impl Verdict {
    pub const RIGHT: Verdict = Verdict {
        base: Shade::Right,
        top: Shade::Right,
    };

    /// "base pale, top right".
    pub fn words(self) -> String {
        format!("base {}, top {}", self.base.key(), self.top.key())
    }
}

/// What was tapped.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum TapKind {
    In,
    Turned,
    Out,
    Verdict(Verdict),
}

/// One tap, with the pizza it is about and the moment it was made.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Tap {
    pub pizza: u32,
    pub at: Timestamp,
    #[serde(flatten)]
    pub kind: TapKind,
}

/// One pizza as the taps tell it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Pizza {
    pub number: u32,
    pub in_at: Timestamp,
    pub turned_at: Vec<Timestamp>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub out_at: Option<Timestamp>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub verdict: Option<Verdict>,
}

impl Pizza {
    /// Seconds in the oven, once it is out.
    pub fn baked_s(&self) -> Option<f64> {
        self.out_at
            .map(|o| o.duration_since(self.in_at).as_secs_f64())
    }
}

/// The pizzas of a batch.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Run {
    pub pizzas: Vec<Pizza>,
}

/// Why a tap is not kept.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum TapRefused {
    #[error("Pizza {0} is still in the oven. Tap Out first.")]
    StillIn(u32),
    #[error("No pizza is in the oven. Tap In first.")]
    NoneIn,
    #[error("Pizza {0} is already out.")]
    AlreadyOut(u32),
    #[error("Pizza {0} has not been baked yet.")]
    Unknown(u32),
    #[error("That moment lies before pizza {0} went in. Check the clock of this device.")]
    BeforeIn(u32),
}

/// Figures of a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct RunSummary {
    pub out: u32,
    /// Mean bake time of those out, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mean_s: Option<f64>,
    /// Verdicts: rows top pale, right, dark; columns base pale, right, dark.
    pub verdicts: [[u32; 3]; 3],
    pub judged: u32,
    pub right: u32,
    /// Mean time from one In to the next, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace_s: Option<f64>,
}

impl Run {
    /// Folds taps, in the order of their moments, leaving out those that make no sense.
    pub fn of(taps: &[Tap]) -> Run {
        let mut sorted = taps.to_vec();
        sorted.sort_by_key(|t| t.at);
        let mut run = Run::default();
        for tap in &sorted {
            // A refused tap was never kept by the server; an imported one is passed over the same way.
            let _ = run.take(tap);
        }
        run
    }

    /// The pizza in the oven.
    pub fn current(&self) -> Option<&Pizza> {
        self.pizzas.iter().find(|p| p.out_at.is_none())
    }
    /// The last pizza that came out.
    pub fn last_out(&self) -> Option<&Pizza> {
        self.pizzas.iter().rev().find(|p| p.out_at.is_some())
    }
    /// The number of the next pizza to go in.
    pub fn next_number(&self) -> u32 {
        self.pizzas.iter().map(|p| p.number).max().unwrap_or(0) + 1
    }

    /// Adds a tap, or says why it cannot be.
    pub fn take(&mut self, tap: &Tap) -> Result<(), TapRefused> {
        match tap.kind {
            TapKind::In => {
                if let Some(p) = self.current() {
                    return Err(TapRefused::StillIn(p.number));
                }
                if self.pizzas.iter().any(|p| p.number == tap.pizza) {
                    return Err(TapRefused::AlreadyOut(tap.pizza));
                }
                self.pizzas.push(Pizza {
                    number: tap.pizza,
                    in_at: tap.at,
                    turned_at: vec![],
                    out_at: None,
                    verdict: None,
                });
            }
            TapKind::Turned | TapKind::Out => {
                let Some(p) = self.pizzas.iter_mut().find(|p| p.number == tap.pizza) else {
                    return Err(TapRefused::NoneIn);
                };
                if p.out_at.is_some() {
                    return Err(TapRefused::AlreadyOut(p.number));
                }
                if tap.at < p.in_at {
                    return Err(TapRefused::BeforeIn(p.number));
                }
                match tap.kind {
                    TapKind::Out => p.out_at = Some(tap.at),
                    _ => p.turned_at.push(tap.at),
                }
            }
            TapKind::Verdict(v) => {
                let Some(p) = self.pizzas.iter_mut().find(|p| p.number == tap.pizza) else {
                    return Err(TapRefused::Unknown(tap.pizza));
                };
                p.verdict = Some(v);
            }
        }
        Ok(())
    }

    /// When the last of `pieces` is out if the pace so far goes on; `None` before there is a pace.
    pub fn last_out_at(&self, pieces: u32, now: Timestamp) -> Option<Timestamp> {
        let s = self.summary();
        let pace = s.pace_s?;
        let begun = self.pizzas.len() as u32;
        let last_in = self.pizzas.last()?.in_at;
        let baked = s.mean_s.unwrap_or(pace);
        let to_go = f64::from(pieces.saturating_sub(begun));
        let planned = last_in + jiff::SignedDuration::from_secs_f64(to_go * pace + baked);
        // A pause moves everything that has not gone in yet.
        let overdue = if to_go > 0.0 {
            now + jiff::SignedDuration::from_secs_f64((to_go - 1.0) * pace + baked)
        } else {
            now
        };
        Some(planned.max(overdue))
    }

    /// Figures of the run so far.
    pub fn summary(&self) -> RunSummary {
        let times: Vec<f64> = self.pizzas.iter().filter_map(Pizza::baked_s).collect();
        let mut verdicts = [[0; 3]; 3];
        let mut judged = 0;
        for v in self.pizzas.iter().filter_map(|p| p.verdict) {
            verdicts[v.top as usize][v.base as usize] += 1;
            judged += 1;
        }
        let pace_s = match (self.pizzas.first(), self.pizzas.last()) {
            (Some(a), Some(b)) if self.pizzas.len() > 1 => {
                Some(b.in_at.duration_since(a.in_at).as_secs_f64() / (self.pizzas.len() - 1) as f64)
            }
            _ => None,
        };
        RunSummary {
            out: times.len() as u32,
            mean_s: (!times.is_empty()).then(|| times.iter().sum::<f64>() / times.len() as f64),
            right: verdicts[1][1],
            verdicts,
            judged,
            pace_s,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn tap(pizza: u32, second: i64, kind: TapKind) -> Tap {
        Tap {
            pizza,
            at: Timestamp::from_second(1_800_000_000 + second).unwrap(),
            kind,
        }
    }

    #[test]
    fn two_pizzas_and_their_figures() {
        let run = Run::of(&[
            tap(1, 0, TapKind::In),
            tap(1, 28, TapKind::Turned),
            tap(1, 80, TapKind::Out),
            tap(
                1,
                85,
                TapKind::Verdict(Verdict {
                    base: Shade::Pale,
                    top: Shade::Right,
                }),
            ),
            tap(1, 88, TapKind::Verdict(Verdict::RIGHT)),
            tap(2, 150, TapKind::In),
        ]);
        assert_eq!(run.current().unwrap().number, 2);
        assert_eq!(run.next_number(), 3);
        let s = run.summary();
        assert_eq!((s.out, s.mean_s, s.pace_s), (1, Some(80.0), Some(150.0)));
        assert_eq!(
            (s.judged, s.right),
            (1, 1),
            "a second tap corrects the first"
        );
    }

    #[test]
    fn taps_that_make_no_sense_are_refused() {
        let mut run = Run::default();
        assert_eq!(
            run.take(&tap(1, 0, TapKind::Turned)),
            Err(TapRefused::NoneIn)
        );
        run.take(&tap(1, 0, TapKind::In)).unwrap();
        assert_eq!(
            run.take(&tap(2, 5, TapKind::In)),
            Err(TapRefused::StillIn(1))
        );
        assert_eq!(
            run.take(&tap(1, -5, TapKind::Out)),
            Err(TapRefused::BeforeIn(1))
        );
        run.take(&tap(1, 80, TapKind::Out)).unwrap();
        assert_eq!(
            run.take(&tap(1, 81, TapKind::Out)),
            Err(TapRefused::AlreadyOut(1))
        );
        assert_eq!(
            run.take(&tap(1, 82, TapKind::In)),
            Err(TapRefused::AlreadyOut(1))
        );
        assert_eq!(
            run.take(&tap(9, 82, TapKind::Verdict(Verdict::RIGHT))),
            Err(TapRefused::Unknown(9))
        );
    }

    #[test]
    fn the_order_of_arrival_does_not_matter() {
        let taps = [
            tap(1, 0, TapKind::In),
            tap(1, 30, TapKind::Turned),
            tap(1, 80, TapKind::Out),
            tap(2, 90, TapKind::In),
        ];
        let mut shuffled = taps;
        shuffled.reverse();
        assert_eq!(Run::of(&taps), Run::of(&shuffled));
    }
}
