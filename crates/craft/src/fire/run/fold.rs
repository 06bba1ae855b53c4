//! Taps folded into a run, by the clock.

use super::pizza::Pizza;
use super::summary::RunSummary;
use super::tap::{Tap, TapKind, TapRefused};
use jiff::Timestamp;

/// Two taps of one hand are no closer than this, s.
pub(super) const DOUBLE_S: f64 = 0.8;

/// The pizzas of a batch.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Run {
    /// In the order in which they went in.
    pub pizzas: Vec<Pizza>,
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
