//! What a ranking allows to be said: one cause, a group, or that it cannot be told.
//!
//! Source: learning, section 9.3.

use super::cause::{Cause, CauseGroup, LookNext};
use serde::{Deserialize, Serialize};

/// One cause is named from this share on, if it leads the next by so much.
const NAMED: f64 = 0.35;
const LEADS: f64 = 1.5;
/// A group is named from this share on.
const GROUP_NAMED: f64 = 0.50;
/// A cause with less is never shown.
pub const SHOWN: f64 = 0.10;
/// Where it cannot be told, so many are listed.
const LISTED: usize = 3;

/// A cause with its share.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Ranked {
    pub cause: Cause,
    pub group: CauseGroup,
    pub share: f64,
    /// The level of it that fits best.
    pub level: f64,
    /// It happened, and was noted.
    pub is_known: bool,
}

impl Ranked {
    /// By its prior and the evidence at one level against "ordinary".
    pub fn new(cause: Cause, prior: f64, level: f64) -> Ranked {
        Ranked {
            cause,
            group: cause.group(),
            share: prior,
            level,
            is_known: false,
        }
    }

    /// By the mean evidence over its levels: level, ln Z against "ordinary".
    pub fn over(cause: Cause, prior: f64, tried: impl Iterator<Item = (f64, f64)>) -> Ranked {
        let (mut sum, mut n, mut best) = (0.0, 0.0f64, (0.0, f64::NEG_INFINITY));
        for (level, ln_z) in tried {
            sum += ln_z.exp();
            n += 1.0;
            if ln_z > best.1 {
                best = (level, ln_z);
            }
        }
        Ranked::new(cause, prior * sum / n.max(1.0), best.0)
    }

    /// A deviation that was noted.
    pub fn known(cause: Cause, share: f64, off: f64, raised: bool) -> Ranked {
        Ranked {
            group: if raised {
                CauseGroup::Ahead
            } else {
                CauseGroup::Behind
            },
            is_known: true,
            ..Ranked::new(cause, share, off)
        }
    }

    pub fn normalise(all: &mut [Ranked]) {
        let sum: f64 = all.iter().map(|r| r.share).sum();
        for r in all {
            r.share /= sum.max(f64::MIN_POSITIVE);
        }
    }

    pub fn sort(all: &mut [Ranked]) {
        all.sort_by(|a, b| b.share.total_cmp(&a.share));
    }
}

/// How much may be said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum MayBeSaid {
    /// One cause.
    Cause,
    /// Causes that lead the same way.
    Group,
    /// It cannot be told.
    CannotTell,
}

/// What is said, and of which causes, by their places in the ranking.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Telling {
    pub say: MayBeSaid,
    pub of: Vec<usize>,
    pub ask: Option<LookNext>,
}

/// What a sorted ranking allows to be said.
pub(crate) fn verdict(ranking: &[Ranked]) -> Telling {
    let ordinary = ranking
        .iter()
        .find(|r| r.cause == Cause::Ordinary)
        .map_or(0.0, |r| r.share);
    let causes: Vec<usize> = (0..ranking.len())
        .filter(|&i| ranking[i].cause != Cause::Ordinary)
        .collect();
    let share = |n: usize| causes.get(n).map_or(0.0, |&i| ranking[i].share);
    let ask = most_asked(ranking, &causes);
    if share(0) >= NAMED && share(0) >= LEADS * share(1) && share(0) > ordinary {
        let of = vec![causes[0]];
        return Telling {
            say: MayBeSaid::Cause,
            of,
            ask: ranking[causes[0]].cause.look_next(),
        };
    }
    for group in <CauseGroup as crate::keyed::Keyed>::ALL {
        let members: Vec<usize> = causes
            .iter()
            .copied()
            .filter(|&i| ranking[i].group == *group)
            .collect();
        let sum: f64 = members.iter().map(|&i| ranking[i].share).sum();
        if sum >= GROUP_NAMED {
            let mut of = members;
            of.truncate(2);
            return Telling {
                say: MayBeSaid::Group,
                of,
                ask,
            };
        }
    }
    let mut of = causes;
    of.retain(|&i| ranking[i].share >= SHOWN);
    of.truncate(LISTED);
    Telling {
        say: MayBeSaid::CannotTell,
        of,
        ask,
    }
}

/// The one thing to look at that belongs to the most shares.
fn most_asked(ranking: &[Ranked], causes: &[usize]) -> Option<LookNext> {
    let mut sums: Vec<(LookNext, f64)> = Vec::new();
    for &i in causes {
        let r = &ranking[i];
        if r.is_known {
            continue;
        }
        if let Some(look) = r.cause.look_next() {
            match sums.iter_mut().find(|(l, _)| *l == look) {
                Some((_, sum)) => *sum += r.share,
                None => sums.push((look, r.share)),
            }
        }
    }
    sums.into_iter()
        .max_by(|a, b| a.1.total_cmp(&b.1))
        .map(|(l, _)| l)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ranking(of: &[(Cause, f64)]) -> Vec<Ranked> {
        let mut all: Vec<Ranked> = of.iter().map(|&(c, s)| Ranked::new(c, s, 0.0)).collect();
        Ranked::sort(&mut all);
        all
    }

    #[test]
    fn one_cause_is_named_only_when_it_leads_and_stands_above_chance() {
        let one = ranking(&[
            (Cause::FridgeWarm, 0.5),
            (Cause::Ordinary, 0.3),
            (Cause::FlourWeak, 0.2),
        ]);
        let said = verdict(&one);
        assert_eq!(
            (said.say, said.of, said.ask),
            (MayBeSaid::Cause, vec![0], Some(LookNext::Fridge))
        );
        // Not above chance: three are listed, and what belongs to the most shares is asked for.
        let chance = ranking(&[
            (Cause::Ordinary, 0.45),
            (Cause::FridgeWarm, 0.36),
            (Cause::FlourWeak, 0.19),
        ]);
        let said = verdict(&chance);
        assert_eq!((said.say, said.of.len()), (MayBeSaid::CannotTell, 2));
        // Two that are nearly alike lead the same way: the group is named.
        let group = ranking(&[
            (Cause::FridgeWarm, 0.36),
            (Cause::RoomWarm, 0.34),
            (Cause::Ordinary, 0.3),
        ]);
        assert_eq!(verdict(&group).say, MayBeSaid::Group);
    }
}
