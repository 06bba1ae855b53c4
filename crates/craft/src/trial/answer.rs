//! What a trial says: what differs beyond chance, how sure that is, and which next trial would tell most.

use super::chance::{SHOWN_BELOW, held_together, share, sign_test, tasters_wanted};
use super::design::TrialDesign;
use super::tasted::{Criterion, Tastings, middle};
use serde::{Deserialize, Serialize};

/// By what two arms were compared.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum ComparedBy {
    /// Which one is liked better.
    Liking,
    /// Which one has more of it.
    Score(Criterion),
}

/// Two arms, compared by one thing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PairFound {
    /// The two, the lower first.
    pub pair: (u8, u8),
    /// By what.
    pub by: ComparedBy,
    /// So many said more, or better, of the first.
    pub for_first: u32,
    /// So many of the second.
    pub for_second: u32,
    /// So many found them the same.
    pub same: u32,
    /// The middle of the differences of their scores, first less second; nothing for liking.
    pub differs_by: Option<f64>,
    /// The share for the first among those who told them apart: the lower edge, the share, the upper edge; 19 of 20 such intervals
    /// hold the true one.
    pub share: (f64, f64, f64),
    /// How often chance alone would do this, 0 to 1, all questions of its kind taken together.
    pub chance: f64,
}

impl PairFound {
    /// Whether it is beyond chance.
    pub fn is_shown(&self) -> bool {
        self.chance < SHOWN_BELOW
    }
    /// The arm that has more, or is liked better; nothing where it is even.
    pub fn ahead(&self) -> Option<u8> {
        match self.for_first.cmp(&self.for_second) {
            std::cmp::Ordering::Greater => Some(self.pair.0),
            std::cmp::Ordering::Less => Some(self.pair.1),
            std::cmp::Ordering::Equal => None,
        }
    }
    fn told_apart(&self) -> u32 {
        self.for_first + self.for_second
    }
}

/// Which next trial would tell most.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum NextTrial {
    /// Nobody has tasted: so many at least, or nothing can be shown.
    Taste {
        /// How many.
        fewest: u8,
    },
    /// The same two again, by so many tasters in all: a lead like this would then be shown four times of five.
    Again {
        /// Which two.
        pair: (u8, u8),
        /// Tasters in all.
        tasters: u32,
    },
    /// The same with a larger step: a difference as small as this one no table can show.
    LargerStep,
    /// Between these two.
    Between {
        /// Which two.
        pair: (u8, u8),
    },
    /// Beyond this one, on its side.
    Beyond {
        /// Which one.
        arm: u8,
    },
    /// The better one against something else: what is varied has no order.
    Another {
        /// Which one.
        arm: u8,
    },
}

/// What a trial says.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TrialAnswer {
    /// Every pair that somebody compared, by liking first, then by each criterion.
    pub found: Vec<PairFound>,
    /// How many said anything.
    pub tasters: u32,
    /// Which next trial would tell most.
    pub next: NextTrial,
    /// The one that is liked better than each other one beyond chance; nothing where none is.
    pub best: Option<u8>,
}

/// The answer of a trial. `order` is the value of what is varied for each arm where it has one, so that there is a between and a
/// beyond.
pub fn answer(trial: &TrialDesign, said: &Tastings, order: Option<&[f64]>) -> TrialAnswer {
    let pairs = trial.pairs();
    let mut liking: Vec<PairFound> = pairs.iter().filter_map(|p| liked(said, *p)).collect();
    hold(&mut liking);
    let mut scores: Vec<PairFound> = <Criterion as crate::keyed::Keyed>::ALL
        .iter()
        .flat_map(|c| pairs.iter().filter_map(|p| scored(said, *p, *c)))
        .collect();
    hold(&mut scores);
    let n = trial.arms.len() as u8;
    let beats = |a: u8, b: u8| {
        liking
            .iter()
            .any(|f| f.pair == (a.min(b), a.max(b)) && f.is_shown() && f.ahead() == Some(a))
    };
    let best = (0..n).find(|&a| (0..n).all(|b| a == b || beats(a, b)));
    let next = next(trial, &liking, best, order);
    liking.extend(scores);
    TrialAnswer {
        found: liking,
        tasters: said.tasters() as u32,
        next,
        best,
    }
}

fn hold(found: &mut [PairFound]) {
    let chances: Vec<f64> = found.iter().map(|f| f.chance).collect();
    for (f, held) in found.iter_mut().zip(held_together(&chances)) {
        f.chance = held;
    }
}

fn compared(pair: (u8, u8), by: ComparedBy, differences: &[f64]) -> Option<PairFound> {
    if differences.is_empty() {
        return None;
    }
    let count = |of: fn(&f64) -> bool| differences.iter().filter(|d| of(d)).count() as u32;
    let (for_first, for_second) = (count(|d| *d > 0.0), count(|d| *d < 0.0));
    Some(PairFound {
        pair,
        by,
        for_first,
        for_second,
        same: count(|d| *d == 0.0),
        differs_by: matches!(by, ComparedBy::Score(_))
            .then(|| middle(differences))
            .flatten(),
        share: share(for_first, for_second),
        chance: sign_test(for_first, for_second),
    })
}

fn liked(said: &Tastings, pair: (u8, u8)) -> Option<PairFound> {
    let of = said.liked.iter().filter(|((_, p), _)| *p == pair);
    let differences: Vec<f64> = of
        .map(|(_, arm)| if *arm == pair.0 { 1.0 } else { -1.0 })
        .collect();
    compared(pair, ComparedBy::Liking, &differences)
}

fn scored(said: &Tastings, pair: (u8, u8), of: Criterion) -> Option<PairFound> {
    let firsts = said
        .scores
        .iter()
        .filter(|((_, arm, c), _)| *arm == pair.0 && *c == of);
    let differences: Vec<f64> = firsts
        .filter_map(|((taster, _, _), first)| {
            let second = said.scores.get(&(*taster, pair.1, of))?;
            Some(f64::from(*first) - f64::from(*second))
        })
        .collect();
    compared(pair, ComparedBy::Score(of), &differences)
}

fn next(
    trial: &TrialDesign,
    liking: &[PairFound],
    best: Option<u8>,
    order: Option<&[f64]>,
) -> NextTrial {
    if liking.is_empty() {
        return NextTrial::Taste {
            fewest: trial.fewest_tasters(),
        };
    }
    if let Some(arm) = best {
        let Some(order) = order.filter(|o| o.len() == trial.arms.len()) else {
            return NextTrial::Another { arm };
        };
        let of = |a: u8| order[usize::from(a)];
        let all = 0..trial.arms.len() as u8;
        let (below, above) = (
            all.clone().filter(|a| of(*a) < of(arm)),
            all.filter(|a| of(*a) > of(arm)),
        );
        let below = below.max_by(|a, b| of(*a).total_cmp(&of(*b)));
        let above = above.min_by(|a, b| of(*a).total_cmp(&of(*b)));
        return match (below, above) {
            // The best one has others on both sides: between it and the one that came nearer.
            (Some(b), Some(a)) => {
                let votes = |x: u8| {
                    let f = liking.iter().find(|f| f.pair == (x.min(arm), x.max(arm)));
                    f.map_or(0, |f| {
                        if f.pair.0 == x {
                            f.for_first
                        } else {
                            f.for_second
                        }
                    })
                };
                let near = if votes(a) >= votes(b) { a } else { b };
                NextTrial::Between {
                    pair: (near.min(arm), near.max(arm)),
                }
            }
            _ => NextTrial::Beyond { arm },
        };
    }
    // The pair that fewest more tasters would settle.
    let open = liking
        .iter()
        .filter(|f| !f.is_shown() && f.told_apart() > 0);
    let wanted = open.filter_map(|f| {
        let n = tasters_wanted(f.for_first, f.for_second, trial.pairs().len())?;
        (n > f.told_apart()).then_some((n, f.pair))
    });
    match wanted.min() {
        Some((tasters, pair)) => NextTrial::Again { pair, tasters },
        None => NextTrial::LargerStep,
    }
}

/// The values that the next trial would have, from those of this one; nothing where none follow. `best` is its best arm.
pub fn next_values(next: NextTrial, best: Option<u8>, order: &[f64]) -> Option<Vec<f64>> {
    let of = |a: u8| order.get(usize::from(a)).copied();
    let tidy = |v: f64| (v * 10.0).round() / 10.0;
    match next {
        NextTrial::Taste { .. } | NextTrial::Another { .. } => None,
        NextTrial::Again { pair, .. } => Some(vec![of(pair.0)?, of(pair.1)?]),
        NextTrial::Between { pair } => {
            let (a, b) = (of(pair.0)?, of(pair.1)?);
            Some(vec![best.and_then(of).unwrap_or(a), tidy(0.5 * (a + b))])
        }
        NextTrial::Beyond { arm } => {
            let at = of(arm)?;
            let near = order
                .iter()
                .filter(|v| **v != at)
                .min_by(|a, b| (*a - at).abs().total_cmp(&(*b - at).abs()))?;
            Some(vec![at, tidy((at + (at - near)).max(0.0))])
        }
        NextTrial::LargerStep => {
            let (low, high) = order
                .iter()
                .fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), v| {
                    (l.min(*v), h.max(*v))
                });
            let half = 0.5 * (high - low);
            Some(vec![tidy((low - half).max(0.0)), tidy(high + half)])
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::design::TrialArm;
    use super::super::tasted::Tasted;
    use super::*;
    use crate::fact::Fact;

    fn trial(arms: usize) -> TrialDesign {
        TrialDesign {
            arms: (0..arms)
                .map(|i| TrialArm {
                    batch: format!("TT-{i:02}"),
                    is: Fact::as_written(format!("{i}")),
                })
                .collect(),
            tasters: 12,
        }
    }
    fn likes(pair: (u8, u8), votes: &[u8]) -> Vec<Tasted> {
        let of = |(i, arm): (usize, &u8)| Tasted::Preferred {
            taster: i as u8 + 1,
            pair,
            arm: Some(*arm),
        };
        votes.iter().enumerate().map(of).collect()
    }

    #[test]
    fn eight_of_eight_is_shown_and_five_of_eight_is_not() {
        let t = trial(2);
        let a = answer(
            &t,
            &Tastings::of(likes((0, 1), &[1; 8])),
            Some(&[24.0, 40.0]),
        );
        assert_eq!((a.best, a.tasters), (Some(1), 8));
        assert!(a.found[0].is_shown());
        assert_eq!(a.next, NextTrial::Beyond { arm: 1 });
        let a = answer(
            &t,
            &Tastings::of(likes((0, 1), &[1, 1, 1, 1, 1, 0, 0, 0])),
            None,
        );
        assert_eq!(a.best, None);
        assert!(!a.found[0].is_shown());
        assert!(
            matches!(a.next, NextTrial::Again { .. } | NextTrial::LargerStep),
            "{:?}",
            a.next
        );
    }

    #[test]
    fn a_best_one_in_the_middle_asks_for_a_finer_step() {
        let mut said = likes((0, 1), &[1; 8]);
        said.extend(likes((1, 2), &[1; 10]));
        let a = answer(&trial(3), &Tastings::of(said), Some(&[24.0, 40.0, 64.0]));
        assert_eq!(a.best, Some(1));
        assert!(matches!(a.next, NextTrial::Between { .. }), "{:?}", a.next);
    }

    #[test]
    fn the_next_trial_has_values_on_the_side_that_it_names() {
        let order = [24.0, 40.0, 64.0];
        let beyond = NextTrial::Beyond { arm: 2 };
        assert_eq!(next_values(beyond, Some(2), &order), Some(vec![64.0, 88.0]));
        let between = NextTrial::Between { pair: (1, 2) };
        assert_eq!(
            next_values(between, Some(1), &order),
            Some(vec![40.0, 52.0])
        );
        assert_eq!(
            next_values(NextTrial::LargerStep, None, &order),
            Some(vec![4.0, 84.0])
        );
        assert_eq!(
            next_values(NextTrial::Taste { fewest: 6 }, None, &order),
            None
        );
    }

    #[test]
    fn nobody_tasted_says_how_many_it_takes() {
        let a = answer(&trial(2), &Tastings::default(), None);
        assert_eq!(a.next, NextTrial::Taste { fewest: 6 });
        assert!(a.found.is_empty() && a.best.is_none());
    }

    #[test]
    fn scores_are_compared_within_each_taster() {
        // One taster scores all high, another all low; both find more chew in the second.
        let mut said = vec![];
        for (taster, base) in [(1, 1u8), (2, 3), (3, 2), (4, 4)] {
            for arm in 0..2u8 {
                let score = Some(base + arm);
                said.push(Tasted::Scored {
                    taster,
                    arm,
                    of: Criterion::Chew,
                    score,
                });
            }
        }
        let a = answer(&trial(2), &Tastings::of(said), None);
        let f = &a.found[0];
        assert_eq!(
            (f.for_first, f.for_second, f.differs_by),
            (0, 4, Some(-1.0))
        );
        // Four who agree can show nothing.
        assert!(!f.is_shown());
    }

    #[test]
    fn a_table_that_guesses_is_seldom_given_a_winner() {
        // 400 tables of twelve who toss a coin over three pairs and seven criteria: what is called shown stays below its limit.
        let mut state = 7u64;
        let mut toss = || {
            state = state
                .wrapping_mul(6364136223846793005)
                .wrapping_add(1442695040888963407);
            (state >> 33) % 5
        };
        let (mut winners, mut differs) = (0, 0);
        for _ in 0..400 {
            let mut said = vec![];
            for taster in 1..=12u8 {
                for pair in [(0u8, 1u8), (0, 2), (1, 2)] {
                    let arm = Some(if toss() % 2 == 0 { pair.0 } else { pair.1 });
                    said.push(Tasted::Preferred { taster, pair, arm });
                }
                for &of in <Criterion as crate::keyed::Keyed>::ALL {
                    for arm in 0..3u8 {
                        let score = Some(toss() as u8 + 1);
                        said.push(Tasted::Scored {
                            taster,
                            arm,
                            of,
                            score,
                        });
                    }
                }
            }
            let a = answer(&trial(3), &Tastings::of(said), None);
            let shown = |f: &PairFound| f.is_shown();
            winners += u32::from(a.best.is_some());
            differs += u32::from(a.found.iter().any(shown));
        }
        // Two kinds of question, each held to one in twenty.
        assert!(winners <= 8, "{winners} of 400");
        assert!(differs <= 40, "{differs} of 400");
    }
}
