//! What a table said, tap by tap: of each arm so much of this and that, and of two the one that is liked better.

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A score is 1 to this.
pub const MOST_SCORE: u8 = 5;

/// What is scored. Each is an amount, not a merit: how much of it there is.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Hash,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Criterion {
    /// How much the dough sticks.
    Stickiness,
    /// How far a disc springs back.
    SpringBack,
    /// How far it stretches before it tears.
    Stretch,
    /// How dark it is.
    Browning,
    /// How open the crumb is.
    Crumb,
    /// How much there is to chew.
    Chew,
    /// How full it tastes.
    Taste,
}

impl Criterion {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Criterion::Stickiness => fact!("criterion-stickiness"),
            Criterion::SpringBack => fact!("criterion-spring-back"),
            Criterion::Stretch => fact!("criterion-stretch"),
            Criterion::Browning => fact!("criterion-browning"),
            Criterion::Crumb => fact!("criterion-crumb"),
            Criterion::Chew => fact!("criterion-chew"),
            Criterion::Taste => fact!("criterion-taste"),
        }
    }
    /// What the least and the most of it is called.
    pub fn ends(self) -> [Fact; 2] {
        match self {
            Criterion::Stickiness => [fact!("criterion-dry"), fact!("criterion-sticks")],
            Criterion::SpringBack => [fact!("criterion-stays"), fact!("criterion-springs")],
            Criterion::Stretch => [fact!("criterion-tears"), fact!("criterion-stretches")],
            Criterion::Browning => [fact!("criterion-pale"), fact!("criterion-dark")],
            Criterion::Crumb => [fact!("criterion-close"), fact!("criterion-open")],
            Criterion::Chew => [fact!("criterion-tender"), fact!("criterion-chewy")],
            Criterion::Taste => [fact!("criterion-plain"), fact!("criterion-full")],
        }
    }
    /// Whether it is judged with the hands at the bench, before the bake.
    pub fn is_of_the_bench(self) -> bool {
        matches!(
            self,
            Criterion::Stickiness | Criterion::SpringBack | Criterion::Stretch
        )
    }
}

/// One tap of a taster. The last one of its kind counts; nothing takes it back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "said", rename_all = "snake_case")]
pub enum Tasted {
    /// So much of it.
    Scored {
        /// From 1.
        taster: u8,
        /// From 0.
        arm: u8,
        /// Of what.
        of: Criterion,
        /// 1 to 5; nothing takes it back.
        score: Option<u8>,
    },
    /// Of two arms the one that is liked better.
    Preferred {
        /// From 1.
        taster: u8,
        /// Of which two, the lower first.
        pair: (u8, u8),
        /// Which; nothing where both are liked alike, or it is taken back.
        arm: Option<u8>,
    },
}

impl Tasted {
    /// Whether it can be said in a trial of so many arms and tasters.
    pub fn fits(&self, arms: u8, tasters: u8) -> bool {
        let sits = |t: u8| (1..=tasters).contains(&t);
        match *self {
            Tasted::Scored {
                taster, arm, score, ..
            } => sits(taster) && arm < arms && score.is_none_or(|s| (1..=MOST_SCORE).contains(&s)),
            Tasted::Preferred {
                taster,
                pair: (a, b),
                arm,
            } => sits(taster) && a < b && b < arms && arm.is_none_or(|x| x == a || x == b),
        }
    }
}

/// All that a table said.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Tastings {
    /// By taster, arm and criterion.
    pub scores: BTreeMap<(u8, u8, Criterion), u8>,
    /// By taster and pair: the arm that is liked better.
    pub liked: BTreeMap<(u8, (u8, u8)), u8>,
}

impl Tastings {
    /// Folds taps in their order.
    pub fn of(taps: impl IntoIterator<Item = Tasted>) -> Tastings {
        let mut out = Tastings::default();
        for tap in taps {
            match tap {
                Tasted::Scored {
                    taster,
                    arm,
                    of,
                    score,
                } => match score {
                    Some(s) => out.scores.insert((taster, arm, of), s),
                    None => out.scores.remove(&(taster, arm, of)),
                },
                Tasted::Preferred { taster, pair, arm } => match arm {
                    Some(a) => out.liked.insert((taster, pair), a),
                    None => out.liked.remove(&(taster, pair)),
                },
            };
        }
        out
    }
    /// The middle of the scores of an arm, 1 to 5; nothing where nobody scored it.
    pub fn middle_score(&self, arm: u8, of: Criterion) -> Option<f64> {
        let all = self
            .scores
            .iter()
            .filter(|((_, a, c), _)| *a == arm && *c == of);
        middle(&all.map(|(_, s)| f64::from(*s)).collect::<Vec<_>>())
    }
    /// How many have said anything.
    pub fn tasters(&self) -> usize {
        let scored = self.scores.keys().map(|k| k.0);
        let all: std::collections::BTreeSet<u8> =
            scored.chain(self.liked.keys().map(|k| k.0)).collect();
        all.len()
    }
}

/// The middle one, or halfway between the two middle ones.
pub(super) fn middle(all: &[f64]) -> Option<f64> {
    let mut all = all.to_vec();
    all.sort_by(f64::total_cmp);
    let n = all.len();
    (n > 0).then(|| 0.5 * (all[(n - 1) / 2] + all[n / 2]))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_last_tap_counts_and_nothing_takes_back() {
        let score = |score| Tasted::Scored {
            taster: 1,
            arm: 0,
            of: Criterion::Chew,
            score,
        };
        let liked = |arm| Tasted::Preferred {
            taster: 2,
            pair: (0, 1),
            arm,
        };
        let t = Tastings::of([score(Some(2)), score(Some(4)), liked(Some(1))]);
        assert_eq!(t.scores[&(1, 0, Criterion::Chew)], 4);
        assert_eq!(t.tasters(), 2);
        let t = Tastings::of([score(Some(2)), score(None), liked(Some(1)), liked(None)]);
        assert_eq!(t, Tastings::default());
    }

    #[test]
    fn the_middle_of_scores_is_a_score_or_halfway_between_two() {
        let t = Tastings::of(
            [(1, 2), (2, 5), (3, 3), (4, 4)].map(|(taster, s)| Tasted::Scored {
                taster,
                arm: 1,
                of: Criterion::Taste,
                score: Some(s),
            }),
        );
        assert_eq!(t.middle_score(1, Criterion::Taste), Some(3.5));
        assert_eq!(t.middle_score(0, Criterion::Taste), None);
        assert_eq!(middle(&[1.0, 9.0, 2.0]), Some(2.0));
    }

    #[test]
    fn what_no_table_can_say_is_refused() {
        let score = |taster, arm, s| Tasted::Scored {
            taster,
            arm,
            of: Criterion::Taste,
            score: Some(s),
        };
        assert!(score(1, 1, 5).fits(2, 6));
        for wrong in [
            score(0, 0, 3),
            score(7, 0, 3),
            score(1, 2, 3),
            score(1, 0, 0),
            score(1, 0, 6),
        ] {
            assert!(!wrong.fits(2, 6), "{wrong:?}");
        }
        let liked = |pair, arm| Tasted::Preferred {
            taster: 1,
            pair,
            arm,
        };
        assert!(liked((0, 1), Some(1)).fits(2, 6) && liked((0, 1), None).fits(2, 6));
        for wrong in [
            liked((1, 0), None),
            liked((0, 0), None),
            liked((0, 2), None),
            liked((0, 1), Some(2)),
        ] {
            assert!(!wrong.fits(2, 6), "{wrong:?}");
        }
    }
}
