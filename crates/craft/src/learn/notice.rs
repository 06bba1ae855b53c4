//! What is noticed of a dough or a pizza, one tap each, and what that says to a diagnosis.
//!
//! Source: learning, section 9; craft notes, section 8. Some are kept and say nothing to the model: a torn disc has more
//! reasons than it knows.

use super::diagnose::BakedAs;
use super::observed::Observed;
use crate::fact;
use crate::fact::Fact;
use crate::fire::{RunSummary, Shade, Verdict};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// Something that was noticed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Notice {
    /// Discs spring back.
    Tight,
    /// The dough spreads by itself.
    Slack,
    /// It sticks.
    Sticky,
    /// It tastes or smells sour.
    Sour,
    /// Discs tear.
    Torn,
    /// The base is pale.
    PaleBelow,
    /// The base is dark.
    DarkBelow,
    /// The top is pale.
    PaleAbove,
    /// The top is dark.
    DarkAbove,
    /// The centre is wet.
    WetCentre,
    /// The rim is flat.
    FlatRim,
    /// Black blisters.
    Blisters,
}

impl Notice {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            Notice::Tight => fact!("notice-tight"),
            Notice::Slack => fact!("notice-slack"),
            Notice::Sticky => fact!("notice-sticky"),
            Notice::Sour => fact!("notice-sour"),
            Notice::Torn => fact!("notice-torn"),
            Notice::PaleBelow => fact!("notice-pale-below"),
            Notice::DarkBelow => fact!("notice-dark-below"),
            Notice::PaleAbove => fact!("notice-pale-above"),
            Notice::DarkAbove => fact!("notice-dark-above"),
            Notice::WetCentre => fact!("notice-wet-centre"),
            Notice::FlatRim => fact!("notice-flat-rim"),
            Notice::Blisters => fact!("notice-blisters"),
        }
    }

    /// Whether it is said of the dough; else of what came out of the oven.
    pub fn is_of_the_dough(self) -> bool {
        matches!(
            self,
            Notice::Tight | Notice::Slack | Notice::Sticky | Notice::Sour | Notice::Torn
        )
    }

    /// What cannot be noticed of the same thing as well.
    pub fn excludes(self) -> &'static [Notice] {
        match self {
            Notice::Tight => &[Notice::Slack],
            Notice::Slack => &[Notice::Tight],
            Notice::PaleBelow => &[Notice::DarkBelow],
            Notice::DarkBelow => &[Notice::PaleBelow],
            Notice::PaleAbove => &[Notice::DarkAbove, Notice::Blisters],
            Notice::DarkAbove => &[Notice::PaleAbove],
            Notice::Blisters => &[Notice::PaleAbove],
            Notice::Sticky | Notice::Sour | Notice::Torn | Notice::WetCentre | Notice::FlatRim => {
                &[]
            }
        }
    }
}

/// What the model is told of a dough of which this was noticed: said, or not said.
pub fn remarks(noticed: &[Notice]) -> [Observed; 3] {
    let any = |of: &[Notice]| of.iter().any(|n| noticed.contains(n));
    [
        Observed::Tight {
            said: any(&[Notice::Tight]),
        },
        Observed::Slack {
            said: any(&[Notice::Slack, Notice::Sticky]),
        },
        Observed::Sour {
            said: any(&[Notice::Sour]),
        },
    ]
}

/// A side of a run's pizzas counts as off when so many of its verdicts say so.
const SIDE_OFF: f64 = 0.25;

/// What most verdicts of a run say of one side: −1 pale, 0 right, 1 dark; nothing where none was given.
fn side_of(shades: &[Shade]) -> Option<i8> {
    if shades.is_empty() {
        return None;
    }
    let count = |shade: Shade| shades.iter().filter(|s| **s == shade).count();
    let (pale, dark) = (count(Shade::Pale), count(Shade::Dark));
    if (pale.max(dark) as f64) < SIDE_OFF * shades.len() as f64 {
        return Some(0);
    }
    Some(if pale > dark { -1 } else { 1 })
}

/// What the model is told of a bake: what was noticed of it, else what its verdicts say; nothing of a side that nobody
/// spoke of.
pub fn baked_as(noticed: &[Notice], verdicts: &[Verdict]) -> BakedAs {
    let has = |n: Notice| noticed.contains(&n);
    let side = |pale: bool, dark: bool, of: fn(&Verdict) -> Shade| match (pale, dark) {
        (true, _) => Some(-1),
        (_, true) => Some(1),
        _ => side_of(&verdicts.iter().map(of).collect::<Vec<_>>()),
    };
    let of_the_bake = !verdicts.is_empty() || noticed.iter().any(|n| !n.is_of_the_dough());
    BakedAs {
        base: side(has(Notice::PaleBelow), has(Notice::DarkBelow), |v| v.base),
        top: side(
            has(Notice::PaleAbove),
            has(Notice::DarkAbove) || has(Notice::Blisters),
            |v| v.top,
        ),
        wet: of_the_bake.then(|| i8::from(has(Notice::WetCentre))),
    }
}

/// How the sides of a run came out, for whoever looks for it.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum TurnedOut {
    /// No side was off.
    Right,
    /// Bases were pale.
    BasePale,
    /// Bases were dark.
    BaseDark,
    /// Tops were pale.
    TopPale,
    /// Tops were dark.
    TopDark,
    /// Nobody judged.
    Unjudged,
}

impl TurnedOut {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            TurnedOut::Right => fact!("turned-right"),
            TurnedOut::BasePale => fact!("turned-base-pale"),
            TurnedOut::BaseDark => fact!("turned-base-dark"),
            TurnedOut::TopPale => fact!("turned-top-pale"),
            TurnedOut::TopDark => fact!("turned-top-dark"),
            TurnedOut::Unjudged => fact!("turned-unjudged"),
        }
    }
}

/// How the sides of a run came out: by the rule of [`baked_as`], a side is off from a quarter of its verdicts on.
pub fn how_it_turned_out(run: &RunSummary) -> Vec<TurnedOut> {
    if run.judged == 0 {
        return vec![TurnedOut::Unjudged];
    }
    let shades = [Shade::Pale, Shade::Right, Shade::Dark];
    let mut verdicts = vec![];
    for (row, top) in run.verdicts.iter().zip(shades) {
        for (n, base) in row.iter().zip(shades) {
            verdicts.extend(std::iter::repeat_n(Verdict { base, top }, *n as usize));
        }
    }
    let as_baked = baked_as(&[], &verdicts);
    let mut out = vec![];
    out.extend(match as_baked.base {
        Some(-1) => Some(TurnedOut::BasePale),
        Some(1) => Some(TurnedOut::BaseDark),
        _ => None,
    });
    out.extend(match as_baked.top {
        Some(-1) => Some(TurnedOut::TopPale),
        Some(1) => Some(TurnedOut::TopDark),
        _ => None,
    });
    if out.is_empty() {
        out.push(TurnedOut::Right);
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::keyed::Keyed;

    #[test]
    fn a_run_is_found_by_the_sides_that_were_off() {
        let mut run = RunSummary {
            out: 8,
            mean_s: None,
            verdicts: [[0, 0, 0], [2, 6, 0], [0, 0, 0]],
            judged: 8,
            right: 6,
            pace_s: None,
        };
        assert_eq!(how_it_turned_out(&run), [TurnedOut::BasePale]);
        run.verdicts[1][0] = 1;
        assert_eq!(how_it_turned_out(&run), [TurnedOut::Right]);
        run.verdicts[2] = [0, 3, 1];
        assert_eq!(how_it_turned_out(&run), [TurnedOut::TopDark]);
        run.judged = 0;
        assert_eq!(how_it_turned_out(&run), [TurnedOut::Unjudged]);
    }

    #[test]
    fn what_excludes_another_is_excluded_by_it() {
        for &a in Notice::ALL {
            for b in a.excludes() {
                assert!(b.excludes().contains(&a), "{a:?} and {b:?}");
                assert_eq!(a.is_of_the_dough(), b.is_of_the_dough());
            }
        }
    }

    #[test]
    fn a_bake_is_told_by_what_was_noticed_then_by_its_verdicts() {
        let run = |pale: usize, of: usize| -> Vec<Verdict> {
            (0..of)
                .map(|i| Verdict {
                    base: if i < pale { Shade::Pale } else { Shade::Right },
                    top: Shade::Right,
                })
                .collect()
        };
        let base = |noticed: &[Notice], verdicts: &[Verdict]| baked_as(noticed, verdicts).base;
        assert_eq!(base(&[], &run(1, 12)), Some(0));
        assert_eq!(base(&[], &run(3, 12)), Some(-1));
        assert_eq!(base(&[Notice::DarkBelow], &run(3, 12)), Some(1));
        // Nobody said anything: nothing is to be explained, and nothing is called right.
        assert_eq!(baked_as(&[Notice::Slack], &[]), BakedAs::default());
        assert_eq!(baked_as(&[Notice::Blisters], &[]).top, Some(1));
    }
}
