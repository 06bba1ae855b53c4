//! Doughs side by side: what was chosen otherwise, what merely follows from that, what nobody chose, and what is alike.
//!
//! Question: by which one thing do these doughs differ? Two that differ in one thing are a trial; two that differ in four are two
//! doughs, and no comparison says which of the four did it. Source: craft notes, section 8.

use super::{SheetRequest, SheetResult};
use crate::fact;
use crate::fact::{Fact, Percent, Value, tenth, two_digits, whole};
use crate::formula::Dose;
use crate::formula::diff::{changes, pieces};
use crate::units::Celsius;
use serde::{Deserialize, Serialize};

/// So many doughs are set side by side at most.
pub const MOST_SIDE_BY_SIDE: usize = 4;
/// Places that differ by less stood alike, K: a fridge's own swing.
const ALIKE_K: f64 = 0.5;

/// One line of doughs side by side: what it is of, and the value of each dough in their order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct DoughsBeside {
    /// What it is of.
    pub what: Fact,
    /// Of each dough.
    pub values: Vec<Fact>,
}

impl DoughsBeside {
    /// The number of each value, where all are numbers of one kind.
    pub fn numbers(&self) -> Option<Vec<f64>> {
        self.values.iter().map(|v| v.number("value")).collect()
    }
}

/// What doughs differ in, and what not.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Apart {
    /// What was chosen otherwise.
    pub chosen: Vec<DoughsBeside>,
    /// What follows from that: a solved dose, the water's temperature.
    pub follows: Vec<DoughsBeside>,
    /// What nobody chose: how warm room and fridge stood.
    pub stood: Vec<DoughsBeside>,
    /// What is the same in all, a value for each.
    pub alike: Vec<DoughsBeside>,
}

impl Apart {
    /// The one thing that differs, where it is one.
    pub fn the_one(&self) -> Option<&DoughsBeside> {
        match self.chosen.as_slice() {
            [one] => Some(one),
            _ => None,
        }
    }
}

/// Sets doughs side by side, two to [`MOST_SIDE_BY_SIDE`]; fewer differ in nothing.
pub fn apart(doughs: &[(&SheetRequest, &SheetResult)]) -> Apart {
    let mut out = Apart::default();
    let Some(((first, _), others)) = doughs.split_first() else {
        return out;
    };
    // What any of them has otherwise than the first, with the first's own value.
    let each: Vec<_> = others
        .iter()
        .map(|(r, _)| changes(&first.formula, &r.formula))
        .collect();
    for d in each.iter().flatten() {
        if out.chosen.iter().any(|b| b.what == d.what) {
            continue;
        }
        let of = |list: &Vec<crate::formula::diff::Difference>| {
            let found = list.iter().find(|x| x.what == d.what);
            found.map_or_else(|| d.before.clone(), |x| x.after.clone())
        };
        let values = std::iter::once(d.before.clone()).chain(each.iter().map(of));
        out.chosen.push(DoughsBeside {
            what: d.what.clone(),
            values: values.collect(),
        });
    }
    let mut put =
        |what: Fact, values: Vec<Fact>, otherwise: fn(&mut Apart) -> &mut Vec<DoughsBeside>| {
            let same = values.windows(2).all(|w| w[0] == w[1]);
            let list = if same {
                &mut out.alike
            } else {
                otherwise(&mut out)
            };
            list.push(DoughsBeside { what, values });
        };
    let all = |of: &dyn Fn(&SheetRequest, &SheetResult) -> Fact| -> Vec<Fact> {
        doughs.iter().map(|(r, s)| of(r, s)).collect()
    };
    put(fact!("apart-oven"), all(&|r, _| oven(r)), |a| &mut a.chosen);
    put(
        fact!("apart-yeast"),
        all(&|_, s| fact!("just", value = Percent(two_digits(s.yeast.percent)))),
        |a| &mut a.follows,
    );
    put(
        fact!("apart-water"),
        all(&|_, s| fact!("just", value = Celsius(whole(s.water.pour_c)))),
        |a| &mut a.follows,
    );
    stood(&mut out, fact!("apart-room"), doughs, |r| r.room_c);
    stood(&mut out, fact!("apart-fridge"), doughs, |r| r.fridge_c);
    // A dose that a maker typed is chosen, and stands among what was; one that is solved follows.
    let typed =
        |(r, _): &(&SheetRequest, &SheetResult)| matches!(r.formula.yeast.dose, Dose::Given { .. });
    if doughs.iter().all(typed) {
        out.follows.retain(|b| b.what != fact!("apart-yeast"));
    }
    let f = &first.formula;
    let flours: Vec<Value> = f
        .flours
        .iter()
        .map(|p| {
            let share = Percent(tenth(p.share_percent));
            fact!("apart-flour", share = share, name = p.name.as_str()).into()
        })
        .collect();
    let percent = |v: f64| fact!("just", value = Percent(tenth(v)));
    let usual: [(Fact, Fact, bool); 5] = [
        (
            fact!("apart-flours"),
            fact!("just", value = Value::List(flours)),
            doughs.iter().all(|(r, _)| r.formula.flours == f.flours),
        ),
        (
            fact!("f-water"),
            percent(f.hydration_percent),
            doughs
                .iter()
                .all(|(r, _)| r.formula.hydration_percent == f.hydration_percent),
        ),
        (
            fact!("f-salt"),
            percent(f.salt_percent),
            doughs
                .iter()
                .all(|(r, _)| r.formula.salt_percent == f.salt_percent),
        ),
        (
            fact!("diff-size"),
            pieces(&f.pieces),
            doughs.iter().all(|(r, _)| r.formula.pieces == f.pieces),
        ),
        (
            fact!("f-dough-off-the-mixer"),
            fact!("just", value = Celsius(tenth(f.target_dough_c))),
            doughs
                .iter()
                .all(|(r, _)| r.formula.target_dough_c == f.target_dough_c),
        ),
    ];
    let same = usual.into_iter().filter(|(_, _, same)| *same);
    let lines = same.map(|(what, value, _)| DoughsBeside {
        what,
        values: vec![value; doughs.len()],
    });
    out.alike.splice(0..0, lines);
    out
}

fn stood(
    out: &mut Apart,
    what: Fact,
    doughs: &[(&SheetRequest, &SheetResult)],
    of: fn(&SheetRequest) -> f64,
) {
    let all: Vec<f64> = doughs.iter().map(|(r, _)| of(r)).collect();
    let (low, high) = all
        .iter()
        .fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), c| {
            (l.min(*c), h.max(*c))
        });
    if high - low >= ALIKE_K {
        out.stood.push(DoughsBeside {
            what,
            values: all
                .iter()
                .map(|c| fact!("just", value = Celsius(tenth(*c))))
                .collect(),
        });
    }
}

/// The oven of a dough, as it was set.
fn oven(r: &SheetRequest) -> Fact {
    match &r.fire {
        Some(f) => fact!(
            "apart-oven-set",
            name = f.plan.oven.name.as_str(),
            floor = Celsius(whole(f.plan.setting.floor_c)),
            dome = Celsius(whole(f.plan.setting.dome_c))
        ),
        None => fact!("apart-oven-by-style"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sheet::tests::friday;
    use crate::sheet::work_out;

    fn worked(change: impl Fn(&mut SheetRequest)) -> (SheetRequest, SheetResult) {
        let mut r = friday(crate::style::by_key("hot_round").unwrap());
        change(&mut r);
        let s = work_out(&r).unwrap();
        (r, s)
    }
    fn beside(all: &[(SheetRequest, SheetResult)]) -> Apart {
        let refs: Vec<_> = all.iter().map(|(r, s)| (r, s)).collect();
        apart(&refs)
    }

    #[test]
    fn hours_in_the_cold_differ_and_the_dose_follows() {
        let all = [24.0, 40.0, 64.0].map(|h| worked(|r| r.formula.cold_h = h));
        let a = beside(&all);
        let one = a.the_one().expect("one thing differs");
        assert_eq!(
            one.numbers(),
            Some([24.0, 40.0, 64.0].map(|h| h * 3600.0).to_vec())
        );
        assert!(a.follows.iter().any(|b| b.what == fact!("apart-yeast")));
        assert!(a.alike.iter().any(|b| b.what == fact!("f-water")));
        assert!(a.stood.is_empty());
    }

    #[test]
    fn two_things_that_differ_are_no_trial() {
        let all = [
            worked(|_| {}),
            worked(|r| {
                r.formula.hydration_percent += 4.0;
                r.formula.salt_percent = 2.0;
            }),
        ];
        let a = beside(&all);
        assert_eq!(a.chosen.len(), 2);
        assert_eq!(a.the_one(), None);
        assert!(a.alike.iter().all(|b| b.what != fact!("f-water")));
    }

    #[test]
    fn a_warmer_fridge_was_not_chosen() {
        let all = [worked(|_| {}), worked(|r| r.fridge_c += 2.0)];
        let a = beside(&all);
        assert!(a.chosen.is_empty(), "{:?}", a.chosen);
        assert_eq!(a.stood.len(), 1);
    }

    #[test]
    fn one_dough_differs_in_nothing() {
        let a = beside(&[worked(|_| {})]);
        assert!(a.chosen.is_empty() && a.follows.is_empty() && a.stood.is_empty());
        assert_eq!(apart(&[]), Apart::default());
    }
}
