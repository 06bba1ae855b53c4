//! The race: which part is ready first, which burns first, and when to pull.
//!
//! Source: bake model, sections 7 and 8. What the model answers best is base against rim; then the seconds, to about
//! ±20 %; then colours, to ±0.4; weakest are the topping's dryness and the cheese's colour.

use super::bake::{BakeCourse, BakeMoment};
use super::setup::{Aim, BakeRequest};
use crate::fact;
use crate::fact::{Fact, Value};
use crate::refusal::Check;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A part that has to be right.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum RaceItem {
    /// The base.
    Base,
    /// The rim.
    Rim,
    /// The crumb of the middle.
    Crumb,
    /// The topping's water.
    Topping,
    /// The cheese.
    Cheese,
}

impl RaceItem {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            RaceItem::Base => fact!("item-base"),
            RaceItem::Rim => fact!("item-rim"),
            RaceItem::Crumb => fact!("item-crumb"),
            RaceItem::Topping => fact!("item-topping"),
            RaceItem::Cheese => fact!("item-cheese"),
        }
    }
    fn weight(self) -> f64 {
        match self {
            RaceItem::Base | RaceItem::Rim => 1.0,
            RaceItem::Crumb => 2.0,
            RaceItem::Topping => 0.6,
            RaceItem::Cheese => 0.8,
        }
    }
}

/// What counts as right. Data; a kitchen may set its own.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Targets {
    /// Colours.
    pub base: (f64, f64),
    /// Colours of the rim, palest and darkest.
    pub rim: (f64, f64),
    /// The darkest colour of the cheese.
    pub cheese_most: f64,
    /// Share of the topping's water that may go.
    pub loss: (f64, f64),
    /// Where the crumb of the middle is set, °C at sea level.
    pub set_c: f64,
}

impl Aim {
    /// The targets of section 7.
    pub fn targets(self) -> Targets {
        let (base, rim, cheese_most, loss, set_c) = match self {
            Aim::Hot => ((0.6, 2.3), (0.8, 2.5), 1.2, (0.03, 0.30), 75.0),
            Aim::Thin => ((0.7, 2.2), (0.5, 2.3), 1.6, (0.05, 0.45), 85.0),
            Aim::Home => ((0.7, 2.2), (0.7, 2.3), 2.0, (0.08, 0.50), 88.0),
            Aim::Deck => ((1.0, 2.3), (0.9, 2.3), 2.0, (0.08, 0.50), 88.0),
            Aim::Pan => ((1.0, 2.3), (0.8, 2.4), 2.2, (0.10, 0.65), 92.0),
        };
        Targets {
            base,
            rim,
            cheese_most,
            loss,
            set_c,
        }
    }

    /// The bake time that set points are looked for, s (section 12).
    pub fn usual_s(self) -> f64 {
        match self {
            Aim::Hot => 75.0,
            Aim::Thin => 150.0,
            Aim::Home => 420.0,
            Aim::Deck => 270.0,
            Aim::Pan => 900.0,
        }
    }
}

impl Targets {
    /// Refuses what cannot be: colours run from 0 to 3, shares from 0 to 1, and a range has its lower end first.
    pub(crate) fn check_into(&self, prefix: &str, c: &mut Check) {
        for (field, what, (lo, hi), most) in [
            ("base", fact!("f-base-colour"), self.base, 3.0),
            ("rim", fact!("f-rim-colour"), self.rim, 3.0),
            ("loss", fact!("f-topping-loss"), self.loss, 1.0),
        ] {
            let field = format!("{prefix}{field}");
            c.range(&field, what.clone(), lo, 0.01, most, Value::Number);
            c.range(&field, what, hi, lo.max(0.01) + 0.01, most, Value::Number);
        }
        let field = |name: &str| format!("{prefix}{name}");
        c.range(
            &field("cheese_most"),
            fact!("f-the-cheeses-colour"),
            self.cheese_most,
            0.1,
            3.0,
            Value::Number,
        );
        c.range(
            &field("set_c"),
            fact!("f-a-set-crumb"),
            self.set_c,
            60.0,
            98.0,
            Value::Celsius,
        );
    }

    /// The colours to aim at: somewhat below the middle of the range.
    pub fn aims(&self) -> (f64, f64) {
        let aim = |(lo, hi): (f64, f64)| lo + 0.45 * (hi - lo);
        (aim(self.base), aim(self.rim))
    }
}

/// How one part ran.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RaceLane {
    /// What it is of.
    pub item: RaceItem,
    /// First second at which it is ready, and first at which it is too much; absent when not within the time followed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ready_s: Option<f64>,
    /// First second at which it is too much; absent when not within the time followed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spoils_s: Option<f64>,
    /// At the best moment: below, right, above; and by how much of its limit.
    pub verdict: i8,
    /// By how much of its limit it is off at the best moment.
    pub miss: f64,
}

/// When everything is right at once.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BakeWindow {
    /// First second at which all is right.
    pub from_s: f64,
    /// Last second at which all is right.
    pub to_s: f64,
    /// It was still open when the model stopped.
    pub at_least: bool,
}

/// The race of one bake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Race {
    /// One for each item that is there.
    pub lanes: Vec<RaceLane>,
    /// When all is right at once; absent when never.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<BakeWindow>,
    /// When to pull, s.
    pub best_s: f64,
    /// How far from right at that moment: 0 is right.
    pub amiss: f64,
    /// What everyone waits for, and what burns first.
    pub last_ready: RaceItem,
    /// What spoils first; absent when nothing does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first_spoiled: Option<RaceItem>,
    /// From the last ready to the first spoiled, s; absent when nothing spoils or something never gets ready.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slack_s: Option<f64>,
    /// Spotting of the rim, 0 to 100; qualitative.
    pub spots: f64,
    /// How alike both sides of the rim are, 0 to 100.
    pub evenness: f64,
    /// At the best moment.
    pub at: BakeMoment,
}

/// Runs the race over a course.
pub fn race(r: &BakeRequest, course: &BakeCourse, targets: &Targets) -> Option<Race> {
    Runner::of(r, course, targets).race()
}

/// How far each part is on its way at every moment: 0 raw to 1 ready, part by part in the order of the lanes.
pub fn progress(
    r: &BakeRequest,
    course: &BakeCourse,
    targets: &Targets,
) -> Vec<(RaceItem, Vec<f64>)> {
    let runner = Runner::of(r, course, targets);
    let on_way = |item: RaceItem, i: usize| {
        let m = runner.miss(item, i);
        // Misses in temperature end at −2, misses in colour and water at −1.
        let whole = match item {
            RaceItem::Crumb | RaceItem::Cheese => 0.5,
            _ => 1.0,
        };
        (1.0 + whole * m).clamp(0.0, 1.0)
    };
    runner
        .items
        .iter()
        .map(|x| {
            (
                *x,
                (0..course.moments.len()).map(|i| on_way(*x, i)).collect(),
            )
        })
        .collect()
}

/// Where the crumb of a rim is set, °C at sea level.
const RIM_SET_C: f64 = 96.0;
/// So far under the boiling point water in dough still gets, K.
const UNDER_BOILING_K: f64 = 4.0;
/// Starch that cannot get as warm sets in more time: tenfold for this many K (assumed, 50 to 100).
const WAIT_K: f64 = 70.0;
/// Where starch begins to set, °C.
const SETTING_C: f64 = 65.0;

/// How far a crumb is from set, in 20 K, at every record of its coldest place: below 0 not yet. Starch sets by temperature
/// and time: where water boils too low for the target, it waits in proportion to its own time from 65 °C on.
fn set(records: impl Iterator<Item = (f64, f64)>, target_c: f64, free_c: f64) -> Vec<f64> {
    let lim = target_c.min(free_c - UNDER_BOILING_K);
    let gap = target_c - lim;
    let (mut begins, mut reached) = (None, None);
    records
        .map(|(t, c)| {
            if c >= SETTING_C.min(lim) {
                begins.get_or_insert(t);
            }
            if c >= lim {
                reached.get_or_insert(t);
            }
            let mut miss = ((c - lim) / 20.0).min(0.0);
            if gap > 0.0 {
                let done = match (begins, reached) {
                    (Some(g), Some(x)) => {
                        let need = (x - g) * (10f64.powf(gap / WAIT_K) - 1.0);
                        ((t - x) / need.max(1e-9)).clamp(0.0, 1.0)
                    }
                    _ => 0.0,
                };
                miss -= gap / 20.0 * (1.0 - done);
            }
            miss
        })
        .collect()
}

struct Runner<'a> {
    r: &'a BakeRequest,
    moments: &'a [BakeMoment],
    targets: &'a Targets,
    items: Vec<RaceItem>,
    /// How far the crumb is from set, at every moment: below 0 not yet.
    crumb: Vec<f64>,
}

impl<'a> Runner<'a> {
    fn of(r: &'a BakeRequest, course: &'a BakeCourse, targets: &'a Targets) -> Self {
        let mut items = vec![RaceItem::Base, RaceItem::Rim, RaceItem::Crumb];
        if r.piece.sauce_g + r.piece.cheese_g > 0.0 {
            items.push(RaceItem::Topping);
        }
        if r.piece.cheese_g > 0.0 {
            items.push(RaceItem::Cheese);
        }
        let free = r.boiling_c();
        let times = || course.moments.iter().map(|m| m.t);
        let rim = set(
            times().zip(course.moments.iter().map(|m| m.rim_core_c)),
            RIM_SET_C,
            free,
        );
        let middle = times().zip(course.moments.iter().map(|m| m.middle_c));
        let mut crumb = set(middle, targets.set_c, free);
        // The rim is set once it stays so.
        let mut least = f64::INFINITY;
        for (c, rim) in crumb.iter_mut().zip(rim).rev() {
            least = least.min(rim);
            *c = c.min(least).max(-2.0);
        }
        Runner {
            r,
            moments: &course.moments,
            targets,
            items,
            crumb,
        }
    }

    /// Signed miss of an item at a moment: below 0 not yet, above 0 too much.
    fn miss(&self, item: RaceItem, i: usize) -> f64 {
        let m = &self.moments[i];
        let t = self.targets;
        let between = |v: f64, (lo, hi): (f64, f64)| below(v, lo) + above(v, hi);
        match item {
            RaceItem::Base => between(m.base, t.base),
            RaceItem::Rim => {
                let over = above(m.rim_darkest, t.rim.1);
                if over > 0.0 {
                    over
                } else {
                    below(m.rim_palest, t.rim.0)
                }
            }
            RaceItem::Crumb => self.crumb[i],
            RaceItem::Topping => between(m.loss, t.loss),
            RaceItem::Cheese => {
                if m.cheese_c < 65.0 {
                    ((m.cheese_c - 65.0) / 25.0).max(-2.0)
                } else {
                    above(m.cheese, t.cheese_most)
                }
            }
        }
    }

    fn amiss(&self, i: usize) -> f64 {
        self.items
            .iter()
            .map(|x| x.weight() * self.miss(*x, i).powi(2))
            .sum()
    }

    fn window(&self) -> Option<(usize, usize)> {
        let n = self.moments.len();
        let from = (0..n).find(|i| self.amiss(*i) < 1e-9)?;
        let to = (from..n).take_while(|i| self.amiss(*i) < 1e-9).last()?;
        Some((from, to))
    }

    fn race(&self) -> Option<Race> {
        let n = self.moments.len();
        if n == 0 {
            return None;
        }
        let window = self.window();
        let nearest = |t: f64| {
            (0..n)
                .min_by(|a, b| {
                    let d = |i: usize| (self.moments[i].t - t).abs();
                    d(*a).total_cmp(&d(*b))
                })
                .unwrap_or(0)
        };
        let best = match window {
            Some((a, b)) => {
                let (a, b) = (self.moments[a].t, self.moments[b].t);
                nearest(a + 0.3 * (b - a))
            }
            None => (0..n)
                .min_by(|a, b| self.amiss(*a).total_cmp(&self.amiss(*b)))
                .unwrap_or(0),
        };
        let lanes: Vec<RaceLane> = self.items.iter().map(|x| self.lane(*x, best)).collect();
        let late = |l: &&RaceLane| l.ready_s.unwrap_or(f64::INFINITY);
        let early = |l: &&RaceLane| l.spoils_s.unwrap_or(f64::INFINITY);
        // Of those that tie, the first in the order of the items.
        let last = lanes
            .iter()
            .rev()
            .max_by(|a, b| late(a).total_cmp(&late(b)))?;
        let first = lanes
            .iter()
            .min_by(|a, b| early(a).total_cmp(&early(b)))
            .filter(|l| l.spoils_s.is_some());
        let at = self.moments[best];
        Some(Race {
            last_ready: last.item,
            first_spoiled: first.map(|l| l.item),
            slack_s: match (first.and_then(|l| l.spoils_s), last.ready_s) {
                (Some(s), Some(r)) => Some(s - r),
                _ => None,
            },
            window: window.map(|(a, b)| BakeWindow {
                from_s: self.moments[a].t,
                to_s: self.moments[b].t,
                at_least: b + 1 == n,
            }),
            best_s: at.t,
            amiss: self.amiss(best),
            spots: self.spots(&at),
            evenness: evenness(at.rim_palest, at.rim_darkest),
            at,
            lanes,
        })
    }

    fn lane(&self, item: RaceItem, best: usize) -> RaceLane {
        let n = self.moments.len();
        let first = |ok: &dyn Fn(f64) -> bool| {
            (0..n)
                .find(|i| ok(self.miss(item, *i)))
                .map(|i| self.moments[i].t)
        };
        let miss = self.miss(item, best);
        RaceLane {
            item,
            ready_s: first(&|m| m >= 0.0),
            spoils_s: first(&|m| m > 0.0),
            verdict: if miss > 0.0 {
                1
            } else if miss < 0.0 {
                -1
            } else {
                0
            },
            miss,
        }
    }

    /// High flux on a cold, blistered dough chars thin skins before the rest dries; the model resolves no blisters.
    fn spots(&self, best: &BakeMoment) -> f64 {
        let over: Vec<f64> = self
            .moments
            .iter()
            .take_while(|m| m.t <= best.t.min(60.0))
            .map(|m| m.into_rim / 1000.0)
            .collect();
        let q = over.iter().sum::<f64>() / over.len().max(1) as f64;
        let cold = if self.r.piece.cold { 1.0 } else { 0.6 };
        100.0 * ((q - 5.0) / 9.0).clamp(0.0, 1.0) * cold * (best.rim / 0.8).clamp(0.0, 1.0)
    }
}

fn below(v: f64, lo: f64) -> f64 {
    if v < lo { (v - lo) / lo } else { 0.0 }
}
fn above(v: f64, hi: f64) -> f64 {
    if v > hi { (v - hi) / hi } else { 0.0 }
}

/// How alike two sides are, 0 to 100 (section 9).
pub fn evenness(a: f64, b: f64) -> f64 {
    100.0 * (1.0 - ((a - b).abs() / (0.5 * (a + b)).max(0.8)).min(1.0))
}

impl Race {
    /// The lane of an item, where it is there.
    pub fn lane(&self, item: RaceItem) -> Option<&RaceLane> {
        self.lanes.iter().find(|l| l.item == item)
    }
    /// From the first to the last part that gets ready, s: how level the race is.
    pub fn spread_s(&self) -> Option<f64> {
        spread_s(&self.lanes)
    }
}

/// From the first to the last of these that gets ready, s; `None` while one never does.
pub fn spread_s(lanes: &[RaceLane]) -> Option<f64> {
    let mut first = f64::INFINITY;
    let mut last = 0.0f64;
    for l in lanes {
        // A melted cheese waits for everything: the spread is about what colours and sets.
        if matches!(l.item, RaceItem::Cheese) {
            continue;
        }
        let s = l.ready_s?;
        first = first.min(s);
        last = last.max(s);
    }
    (last >= first).then_some(last - first)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fire::boiling_c;

    #[test]
    fn a_crumb_that_cannot_get_as_hot_waits_in_proportion_to_its_own_time() {
        let free = boiling_c(4500.0);
        let record = |t: f64| (t, (22.0 + 0.6 * t).min(84.2));
        let at = |target: f64, t: f64| {
            let all = set((1..=130).map(|s| record(f64::from(s))), target, free);
            all[t as usize - 1]
        };
        for (t, theirs) in [
            (50.0, -2.2),
            (90.0, -1.0),
            (98.0, -0.7669),
            (105.0, -0.4523),
            (110.0, -0.2275),
            (115.0, -0.0028),
            (116.0, 0.0),
        ] {
            assert!((at(96.0, t) - theirs).abs() < 0.002, "{t}: {}", at(96.0, t));
        }
        for (t, theirs) in [(80.0, -0.25), (88.0, -0.01), (89.0, 0.0)] {
            assert!((at(75.0, t) - theirs).abs() < 0.002, "{t}: {}", at(75.0, t));
        }
        // At sea level only the temperature counts.
        assert_eq!(set([(1.0, 96.0)].into_iter(), 96.0, 100.0), vec![0.0]);
    }
}
