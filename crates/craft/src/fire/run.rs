//! A run of pizzas, told from the taps: In, Turned, Out, verdict.
//!
//! Taps are kept as they came and never changed; this folds them into pizzas and figures, by the clock. A tap that makes
//! no sense when it arrives (a turn before In, Out twice) is refused before it is kept; what was kept is never dropped
//! because a tablet without a line brings an earlier tap late.

use crate::fact;
use crate::fact::Fact;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// How dark one side came out.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Shade {
    /// Too pale.
    Pale,
    /// Right.
    Right,
    /// Too dark.
    Dark,
}

impl Shade {
    /// The word for it.
    pub fn name(self) -> Fact {
        match self {
            Shade::Pale => fact!("shade-pale"),
            Shade::Right => fact!("shade-right"),
            Shade::Dark => fact!("shade-dark"),
        }
    }
}

/// What was seen: base and top.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Verdict {
    /// Of the base.
    pub base: Shade,
    /// Of the top.
    pub top: Shade,
}

impl Verdict {
    /// Right on both sides.
    pub const RIGHT: Verdict = Verdict {
        base: Shade::Right,
        top: Shade::Right,
    };

    /// "base pale, top right".
    pub fn fact(self) -> Fact {
        fact!("verdict", base = self.base.name(), top = self.top.name())
    }
}

/// What was tapped.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum TapKind {
    /// It went in.
    In,
    /// It was turned.
    Turned,
    /// It came out.
    Out,
    /// What was seen of it.
    Verdict(Verdict),
    /// Takes back the last In, turn or Out of that pizza.
    Undone,
}

/// One tap, with the pizza it is about and the moment it was made.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Tap {
    /// Which one, from 1.
    pub pizza: u32,
    /// When.
    pub at: Timestamp,
    /// What was tapped.
    #[serde(flatten)]
    pub kind: TapKind,
}

/// One pizza as the taps tell it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Pizza {
    /// Which one, from 1.
    pub number: u32,
    /// Where it lies, from 0: the first free spot when it went in.
    #[serde(default)]
    pub spot: u32,
    /// When it went in.
    pub in_at: Timestamp,
    /// When it was turned, in the order of the clock.
    pub turned_at: Vec<Timestamp>,
    /// When it came out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub out_at: Option<Timestamp>,
    /// What was seen of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub verdict: Option<Verdict>,
    /// Another device tapped In for it, later: the earlier one stands.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub also_in_at: Option<Timestamp>,
}

/// Two taps of one hand are no closer than this, s.
const DOUBLE_S: f64 = 0.8;

impl Pizza {
    /// When it was last put in, turned or taken out.
    pub fn last_act(&self) -> Timestamp {
        let turned = self.turned_at.last().copied();
        self.out_at.or(turned).unwrap_or(self.in_at)
    }
    /// Seconds in the oven, once it is out.
    pub fn baked_s(&self) -> Option<f64> {
        self.out_at
            .map(|o| o.duration_since(self.in_at).as_secs_f64())
    }
}

/// The pizzas of a batch.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Run {
    /// In the order in which they went in.
    pub pizzas: Vec<Pizza>,
}

/// Why a tap is not kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TapRefused {
    /// This one is still in.
    StillIn(u32),
    /// So many spots, all taken.
    Full(u32),
    /// On another device.
    WentIn(u32),
    /// There is nothing of this one to take back.
    NothingToUndo(u32),
    /// None is in.
    NoneIn,
    /// This one is out already.
    AlreadyOut(u32),
    /// There is no such one.
    Unknown(u32),
    /// That would be before this one went in.
    BeforeIn(u32),
    /// Two within a second.
    Double,
    /// The batch is closed.
    Closed,
}

impl TapRefused {
    /// What to say, with the number of the pizza.
    pub fn fact(&self) -> Fact {
        match self {
            TapRefused::StillIn(n) => fact!("tap-still-in", n = *n),
            TapRefused::Full(n) => fact!("tap-full", n = *n),
            TapRefused::WentIn(n) => fact!("tap-went-in", n = *n),
            TapRefused::NothingToUndo(n) => fact!("tap-nothing-to-undo", n = *n),
            TapRefused::NoneIn => fact!("tap-none-in"),
            TapRefused::AlreadyOut(n) => fact!("tap-already-out", n = *n),
            TapRefused::Unknown(n) => fact!("tap-unknown", n = *n),
            TapRefused::BeforeIn(n) => fact!("tap-before-in", n = *n),
            TapRefused::Double => fact!("tap-double"),
            TapRefused::Closed => fact!("tap-closed"),
        }
    }
}

/// Figures of a run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RunSummary {
    /// So many came out.
    pub out: u32,
    /// Mean bake time of those out, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mean_s: Option<f64>,
    /// Verdicts: rows top pale, right, dark; columns base pale, right, dark.
    pub verdicts: [[u32; 3]; 3],
    /// So many were judged.
    pub judged: u32,
    /// So many were right on both sides.
    pub right: u32,
    /// Mean time from one In to the next, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pace_s: Option<f64>,
}

/// What the verdicts of several runs say is off most often, in words, and how often; `None` where nothing was.
pub fn most_often_off(all: &[RunSummary]) -> Option<(Fact, u32)> {
    let sum = |f: fn(&RunSummary) -> u32| all.iter().map(f).sum::<u32>();
    [
        (
            fact!("off-base-pale"),
            sum(|s| s.verdicts.iter().map(|r| r[0]).sum()),
        ),
        (
            fact!("off-base-dark"),
            sum(|s| s.verdicts.iter().map(|r| r[2]).sum()),
        ),
        (fact!("off-top-pale"), sum(|s| s.verdicts[0].iter().sum())),
        (fact!("off-top-dark"), sum(|s| s.verdicts[2].iter().sum())),
    ]
    .into_iter()
    .filter(|(_, n)| *n > 0)
    .reduce(|worst, x| if x.1 > worst.1 { x } else { worst })
}

/// Whether two moments are so close that one hand made both by mistake.
fn is_double(a: Timestamp, b: Timestamp) -> bool {
    b.duration_since(a).as_secs_f64().abs() < DOUBLE_S
}

/// Whether a pizza can have gone in earlier than was said: the spots were not all taken by others meanwhile.
fn fits_earlier(taps: &[Tap], tap: &Tap, spots: u32) -> Result<(), TapRefused> {
    let mut all = taps.to_vec();
    all.push(*tap);
    let run = Run::of(&all);
    let at_once = |at: Timestamp| {
        let lay = |p: &&Pizza| p.in_at <= at && p.out_at.is_none_or(|o| o > at);
        run.pizzas.iter().filter(lay).count() as u32
    };
    if run.pizzas.iter().any(|p| at_once(p.in_at) > spots.max(1)) {
        return Err(TapRefused::Full(spots.max(1)));
    }
    Ok(())
}

impl Run {
    /// Folds taps, in the order of their moments, leaving out those that make no sense.
    ///
    /// ```
    /// use craft::fire::{Run, Tap, TapKind};
    ///
    /// let tap = |pizza, at: &str, kind| Tap { pizza, at: at.parse().unwrap(), kind };
    /// let run = Run::of(&[
    ///     tap(1, "2026-11-27T19:00:00Z", TapKind::In),
    ///     tap(1, "2026-11-27T19:01:18Z", TapKind::Out),
    ///     // A second Out of the same pizza says nothing.
    ///     tap(1, "2026-11-27T19:02:00Z", TapKind::Out),
    /// ]);
    /// assert_eq!(run.pizzas[0].baked_s(), Some(78.0));
    /// ```
    pub fn of(taps: &[Tap]) -> Run {
        let mut sorted = taps.to_vec();
        sorted.sort_by_key(|t| t.at);
        let mut run = Run::default();
        for tap in &sorted {
            // A refused tap was never kept by the server; an imported one is passed over the same way.
            let _ = run.fold(tap);
        }
        run
    }

    /// Whether a tap that arrives now makes sense among those that are kept: with it in its place by the clock, in an
    /// oven of so many spots.
    ///
    /// A run that is closed takes nothing but verdicts.
    ///
    /// Errors: the reason, in a sentence.
    pub fn admits(taps: &[Tap], tap: &Tap, spots: u32, closed: bool) -> Result<(), TapRefused> {
        if closed && !matches!(tap.kind, TapKind::Verdict(_)) {
            return Err(TapRefused::Closed);
        }
        let earlier: Vec<Tap> = taps.iter().filter(|t| t.at <= tap.at).copied().collect();
        let mut run = Run::of(&earlier);
        if tap.kind == TapKind::In {
            let inside: Vec<u32> = run.inside().map(|p| p.number).collect();
            match inside.as_slice() {
                [only] if spots <= 1 => return Err(TapRefused::StillIn(*only)),
                full if full.len() as u32 >= spots.max(1) => return Err(TapRefused::Full(spots)),
                _ => {}
            }
            if let Some(p) = Run::of(taps).pizza(tap.pizza) {
                // Two devices put in the same pizza: the earlier In stands, whichever came first.
                if tap.at < p.in_at && !is_double(p.in_at, tap.at) {
                    return fits_earlier(taps, tap, spots);
                }
                return Err(if is_double(p.in_at, tap.at) {
                    TapRefused::Double
                } else if p.out_at.is_some() {
                    TapRefused::AlreadyOut(p.number)
                } else {
                    TapRefused::WentIn(p.number)
                });
            }
        }
        // What another tablet said later of the same pizza counts, too: it is out only once.
        if tap.kind == TapKind::Out
            && Run::of(taps)
                .pizza(tap.pizza)
                .is_some_and(|p| p.out_at.is_some())
        {
            return Err(TapRefused::AlreadyOut(tap.pizza));
        }
        run.fold(tap)
    }

    /// The pizza of that number.
    pub fn pizza(&self, number: u32) -> Option<&Pizza> {
        self.pizzas.iter().find(|p| p.number == number)
    }
    /// The pizzas in the oven, the first one in first.
    pub fn inside(&self) -> impl Iterator<Item = &Pizza> {
        self.pizzas.iter().filter(|p| p.out_at.is_none())
    }
    /// The pizza that went in first of those in the oven.
    pub fn current(&self) -> Option<&Pizza> {
        self.inside().next()
    }
    /// The last pizza that came out.
    pub fn last_out(&self) -> Option<&Pizza> {
        self.pizzas
            .iter()
            .filter(|p| p.out_at.is_some())
            .max_by_key(|p| p.out_at)
    }
    /// Those that are out and were not judged, the latest first.
    pub fn unjudged(&self) -> Vec<u32> {
        let mut out: Vec<&Pizza> = self.pizzas.iter().collect();
        out.retain(|p| p.out_at.is_some() && p.verdict.is_none());
        out.sort_by_key(|p| std::cmp::Reverse(p.out_at));
        out.into_iter().map(|p| p.number).collect()
    }
    /// The number of the next pizza to go in.
    pub fn next_number(&self) -> u32 {
        self.pizzas.iter().map(|p| p.number).max().unwrap_or(0) + 1
    }
    /// Pizzas that nobody took out: longer in than any bake of this programme.
    pub fn forgotten(&self, chars_s: u32, now: Timestamp) -> Vec<&Pizza> {
        let limit = 2.0 * f64::from(chars_s) + 900.0;
        self.inside()
            .filter(|p| now.duration_since(p.in_at).as_secs_f64() > limit)
            .collect()
    }

    fn free_spot(&self) -> u32 {
        let taken: Vec<u32> = self.inside().map(|p| p.spot).collect();
        (0..).find(|s| !taken.contains(s)).unwrap_or(0)
    }

    /// Adds a tap, or says why it cannot be.
    fn fold(&mut self, tap: &Tap) -> Result<(), TapRefused> {
        if tap.kind == TapKind::In {
            if let Some(p) = self.pizzas.iter_mut().find(|p| p.number == tap.pizza) {
                p.also_in_at = Some(tap.at);
                return Err(TapRefused::WentIn(tap.pizza));
            }
            // One goes in after the other: a finger that tapped twice must not fill two spots.
            if self.pizzas.iter().any(|p| is_double(p.in_at, tap.at)) {
                return Err(TapRefused::Double);
            }
            let spot = self.free_spot();
            self.pizzas.push(Pizza {
                number: tap.pizza,
                spot,
                in_at: tap.at,
                turned_at: vec![],
                out_at: None,
                verdict: None,
                also_in_at: None,
            });
            return Ok(());
        }
        let Some(i) = self.pizzas.iter().position(|p| p.number == tap.pizza) else {
            return Err(match tap.kind {
                TapKind::Verdict(_) => TapRefused::Unknown(tap.pizza),
                TapKind::Undone => TapRefused::NothingToUndo(tap.pizza),
                _ => TapRefused::NoneIn,
            });
        };
        let p = &mut self.pizzas[i];
        match tap.kind {
            TapKind::In => {}
            TapKind::Turned | TapKind::Out if p.out_at.is_some() => {
                return Err(TapRefused::AlreadyOut(p.number));
            }
            TapKind::Turned | TapKind::Out if tap.at < p.in_at => {
                return Err(TapRefused::BeforeIn(p.number));
            }
            TapKind::Turned | TapKind::Out if is_double(p.last_act(), tap.at) => {
                return Err(TapRefused::Double);
            }
            TapKind::Turned => p.turned_at.push(tap.at),
            TapKind::Out => p.out_at = Some(tap.at),
            TapKind::Verdict(v) => p.verdict = Some(v),
            TapKind::Undone => {
                if p.out_at.is_some() {
                    (p.out_at, p.verdict) = (None, None);
                } else if p.turned_at.pop().is_none() {
                    self.pizzas.remove(i);
                }
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

    /// How many spots were used.
    fn spots_used(&self) -> usize {
        let spots = self.pizzas.iter().map(|p| p.spot as usize + 1);
        spots.max().unwrap_or(1)
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
            // Those that went in together are no pace: one more must have followed them.
            (Some(a), Some(b)) if self.pizzas.len() > self.spots_used() => {
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
        let kept = [
            tap(1, 0, TapKind::In),
            tap(1, 80, TapKind::Out),
            tap(2, 100, TapKind::In),
        ];
        let says = |t: Tap| Run::admits(&kept, &t, 1, false).err();
        assert_eq!(says(tap(3, 5, TapKind::Turned)), Some(TapRefused::NoneIn));
        assert_eq!(says(tap(3, 110, TapKind::In)), Some(TapRefused::StillIn(2)));
        assert_eq!(
            says(tap(2, 90, TapKind::Out)),
            Some(TapRefused::NoneIn),
            "not in yet by then"
        );
        assert_eq!(
            says(tap(1, 85, TapKind::Out)),
            Some(TapRefused::AlreadyOut(1))
        );
        assert_eq!(
            says(tap(1, 60, TapKind::Out)),
            Some(TapRefused::AlreadyOut(1)),
            "two people ended it, the earlier one is told later"
        );
        assert_eq!(
            says(tap(1, 90, TapKind::In)),
            Some(TapRefused::AlreadyOut(1))
        );
        assert_eq!(
            says(tap(9, 90, TapKind::Verdict(Verdict::RIGHT))),
            Some(TapRefused::Unknown(9))
        );
        assert_eq!(
            says(tap(9, 90, TapKind::Undone)),
            Some(TapRefused::NothingToUndo(9))
        );
        assert_eq!(says(tap(2, 130, TapKind::Turned)), None);
        // A turn that was made before another tablet said Out comes late and still counts.
        assert_eq!(says(tap(1, 40, TapKind::Turned)), None);
    }

    #[test]
    fn a_deck_takes_three_at_once_and_each_has_its_spot() {
        let kept = [
            tap(1, 0, TapKind::In),
            tap(2, 20, TapKind::In),
            tap(3, 40, TapKind::In),
            tap(2, 200, TapKind::Out),
            tap(4, 210, TapKind::In),
        ];
        let run = Run::of(&kept);
        let spots: Vec<_> = run.pizzas.iter().map(|p| (p.number, p.spot)).collect();
        assert_eq!(spots, [(1, 0), (2, 1), (3, 2), (4, 1)]);
        assert_eq!(
            Run::admits(&kept, &tap(5, 220, TapKind::In), 3, false),
            Err(TapRefused::Full(3))
        );
        assert_eq!(
            Run::admits(&kept, &tap(5, 220, TapKind::In), 4, false),
            Ok(())
        );
        assert_eq!(
            Run::admits(&kept, &tap(4, 215, TapKind::In), 4, false),
            Err(TapRefused::WentIn(4)),
            "two tablets put in a fourth"
        );
    }

    #[test]
    fn nothing_that_was_kept_is_dropped_by_an_earlier_tap_that_comes_late() {
        // Tablet A had no line: its pizza 1 arrives after B's pizza 2 at the same time.
        let run = Run::of(&[
            tap(2, 10, TapKind::In),
            tap(2, 90, TapKind::Out),
            tap(1, 0, TapKind::In),
            tap(1, 85, TapKind::Out),
        ]);
        assert_eq!(run.summary().out, 2);
    }

    #[test]
    fn the_last_tap_is_taken_back_step_by_step() {
        let mut taps = vec![
            tap(1, 0, TapKind::In),
            tap(1, 30, TapKind::Turned),
            tap(1, 80, TapKind::Out),
        ];
        let back = |taps: &mut Vec<Tap>, s: i64| {
            taps.push(tap(1, s, TapKind::Undone));
            Run::of(taps)
        };
        let run = back(&mut taps, 81);
        assert!(run.pizzas[0].out_at.is_none() && run.pizzas[0].turned_at.len() == 1);
        assert!(back(&mut taps, 82).pizzas[0].turned_at.is_empty());
        assert!(back(&mut taps, 83).pizzas.is_empty());
    }

    #[test]
    fn a_run_left_open_over_night_is_noticed() {
        let run = Run::of(&[
            tap(1, 0, TapKind::In),
            tap(1, 80, TapKind::Out),
            tap(2, 100, TapKind::In),
        ]);
        let at = |s: i64| Timestamp::from_second(1_800_000_000 + s).unwrap();
        assert!(run.forgotten(100, at(400)).is_empty());
        let found: Vec<u32> = run
            .forgotten(100, at(36_000))
            .iter()
            .map(|p| p.number)
            .collect();
        assert_eq!(found, [2]);
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

    #[test]
    fn of_two_devices_on_one_pizza_the_earlier_in_stands() {
        let kept = [tap(5, 30, TapKind::In)];
        let earlier = tap(5, 20, TapKind::In);
        assert_eq!(Run::admits(&kept, &earlier, 1, false), Ok(()));
        let run = Run::of(&[kept[0], earlier]);
        assert_eq!(run.pizzas.len(), 1);
        assert_eq!(run.pizzas[0].in_at, earlier.at);
        assert_eq!(
            run.pizzas[0].also_in_at,
            Some(kept[0].at),
            "both can be told"
        );
        assert_eq!(
            Run::admits(&kept, &tap(5, 40, TapKind::In), 2, false),
            Err(TapRefused::WentIn(5))
        );
        // Not when another lay there meanwhile.
        let between = [
            tap(4, 22, TapKind::In),
            tap(4, 28, TapKind::Out),
            tap(5, 30, TapKind::In),
        ];
        assert_eq!(
            Run::admits(&between, &earlier, 1, false),
            Err(TapRefused::Full(1))
        );
        assert_eq!(Run::admits(&between, &earlier, 2, false), Ok(()));
    }

    #[test]
    fn a_double_tap_counts_once() {
        let ms = |pizza, ms: i64, kind| Tap {
            pizza,
            at: Timestamp::from_millisecond(1_800_000_000_000 + ms).unwrap(),
            kind,
        };
        let kept = [ms(1, 0, TapKind::In)];
        let says = |t: Tap| Run::admits(&kept, &t, 3, false);
        assert_eq!(says(ms(2, 300, TapKind::In)), Err(TapRefused::Double));
        assert_eq!(says(ms(1, 300, TapKind::Out)), Err(TapRefused::Double));
        assert_eq!(says(ms(1, 790, TapKind::Turned)), Err(TapRefused::Double));
        assert_eq!(says(ms(2, 900, TapKind::In)), Ok(()));
        // Thirty alternating taps in four seconds make no six pizzas.
        let wild: Vec<Tap> = (0..30)
            .map(|i| {
                let kind = if i % 2 == 0 {
                    TapKind::In
                } else {
                    TapKind::Out
                };
                ms(1 + i / 2, i64::from(i) * 133, kind)
            })
            .collect();
        let run = Run::of(&wild);
        assert!(
            run.pizzas
                .iter()
                .all(|p| p.baked_s().is_none_or(|s| s >= DOUBLE_S))
        );
    }

    #[test]
    fn a_closed_run_takes_verdicts_only() {
        let kept = [tap(1, 0, TapKind::In), tap(1, 80, TapKind::Out)];
        assert_eq!(
            Run::admits(&kept, &tap(2, 100, TapKind::In), 1, true),
            Err(TapRefused::Closed)
        );
        let verdict = tap(1, 5000, TapKind::Verdict(Verdict::RIGHT));
        assert_eq!(Run::admits(&kept, &verdict, 1, true), Ok(()));
    }
}
