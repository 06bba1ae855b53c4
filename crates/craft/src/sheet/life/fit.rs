//! The search: lengths of the legs from the serve time backward, those that keep clear of the hours away, the dose
//! solved for the nearest of them, the one that is likeliest to be met at the serve time first.

use super::spans::{Life, Why, words};
use crate::fact;
use crate::fact::Fact;
use crate::learn::{OwnKitchen, chance_met};
use crate::path::Leg;
use crate::refusal::ValidationError;
use crate::rise::Event;
use crate::rise::PrefermentRuns;
use crate::sheet::margin_h;
use crate::sheet::{ReadyWindow, SheetRequest, chance, hours, work_out_whole};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use std::cell::Cell;

/// Plans are laid on the quarter hour, s.
const SLOT_S: i64 = 900;
/// So many of the nearest plans are worked out.
const TRIED: usize = 9;
const SHOWN: usize = 3;
/// Chances that differ by less are the same: then the nearer to the usual hours is the better plan.
const ALIKE_CHANCE: f64 = 0.03;
/// Plans that differ by less than this in every leg are the same, share of its limits.
const ALIKE: f64 = 0.12;
/// No more lengths than this are tried in all, whether they lead to a plan or not.
const MOST_LOOKED: usize = 200_000;

/// What is asked: a dough with a serve time, and the hours away.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LifeFitRequest {
    /// The dough.
    pub request: SheetRequest,
    /// The hours of its makers.
    pub life: Life,
}

/// A plan that fits.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FittedPlan {
    /// Where it lies, and how long.
    pub legs: Vec<Leg>,
    /// Hours warm of each preferment.
    pub preferment_warm_h: Vec<f64>,
    /// When the first thing is mixed.
    pub start_at: Timestamp,
    /// When it is ready; absent when never.
    pub window: Option<ReadyWindow>,
    /// The chance, 0 to 1, that it is ready and not past at the serve time: by this kitchen's log, else by how far kitchens differ
    /// from the book.
    pub chance: f64,
    /// How far the serve time lies within the window, h.
    pub margin_h: f64,
    /// % of the flour, in the form of the dough.
    pub yeast_percent: f64,
    /// Strength left at the serve time, %.
    pub reserve_at_serve: f64,
    /// At the serve time: 100 is as intended.
    pub rise_at_serve: f64,
    /// How far its hours are from the usual ones, h.
    pub off_usual_h: f64,
}

/// The hour that is in the way when nothing fits.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct InTheWay {
    /// "Divide and ball".
    pub step: Fact,
    /// When.
    pub at: Timestamp,
    /// What stands there.
    pub why: Why,
    /// "22:30-06:30".
    pub span: String,
}

/// The best plan and two runners-up, or what is in the way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FitResult {
    /// Plans that keep the hours, the best first.
    pub plans: Vec<FittedPlan>,
    /// What keeps every plan from them; absent when one does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub in_the_way: Option<InTheWay>,
}

/// A step that needs hands: what, hours before serving, for how long.
struct Hand {
    word: Fact,
    before_h: f64,
    min: f64,
}

/// What is known of this kitchen for a plan; `None` where it goes by the book.
pub type OwnOf<'a> = &'a dyn Fn(&SheetRequest) -> Option<OwnKitchen>;

struct Search<'a> {
    own: OwnOf<'a>,
    r: &'a SheetRequest,
    life: &'a Life,
    zone: TimeZone,
    /// For each quarter hour back from the serve time, whether somebody is away in it.
    away: Vec<bool>,
    usual: Vec<Leg>,
    pieces: f64,
    looked: Cell<usize>,
    /// Preferments that were run: many plans have the same.
    runs: PrefermentRuns,
}

impl Search<'_> {
    fn free(&self, hand: &Hand) -> bool {
        // Back from the serve time: a step lies in the slots that end at its begin minus its length.
        let from = hand.before_h - hand.min / 60.0;
        let (a, b) = (
            (from.max(0.0) * 4.0 + 1e-6).floor() as usize,
            (hand.before_h * 4.0 - 1e-6).ceil().max(0.0) as usize,
        );
        (a..b.max(a + 1)).all(|i| self.away.get(i).is_none_or(|away| !away))
    }

    fn of_leg(&self, i: usize, leg: &Leg, began_h: f64) -> Vec<Hand> {
        let mut out = Vec::new();
        if i > 0 {
            let (word, min) = match leg.event {
                Event::Ball => (fact!("step-ball"), (self.pieces * 0.75).clamp(5.0, 120.0)),
                Event::Reball => (
                    fact!("step-ball-again"),
                    (self.pieces * 0.75).clamp(5.0, 120.0),
                ),
                Event::Pan => (fact!("step-pan"), 10.0),
                Event::Degas => (fact!("step-press"), 4.0),
                _ if leg.spot.is_cold() || leg.spot.is_frozen() => (fact!("into-the-cold"), 2.0),
                _ => (fact!("out-of-the-cold"), 3.0),
            };
            out.push(Hand {
                word,
                before_h: began_h,
                min,
            });
        }
        for n in 1..=leg.folds_that_fit() {
            out.push(Hand {
                word: fact!("step-fold"),
                before_h: began_h - f64::from(n) * leg.fold_every_h,
                min: 3.0,
            });
        }
        out
    }

    /// Mixing, and the preferments with their hours, stretched where their start would fall into hours away.
    fn start(&self, total_h: f64) -> (Hand, Option<Vec<f64>>) {
        let mixing = self.r.mixing_min();
        let mix = Hand {
            word: fact!("step-mix"),
            before_h: total_h + mixing / 60.0,
            min: mixing,
        };
        let warm = self
            .r
            .formula
            .preferments
            .iter()
            .map(|p| {
                let offsets = [0.0, -0.5, 0.5, -1.0, 1.0, -1.5, 1.5, -2.0, 2.0, -3.0, 3.0];
                offsets
                    .iter()
                    .map(|o| p.warm_h + o)
                    .filter(|h| *h >= 0.7 * p.warm_h && *h <= 1.3 * p.warm_h && *h > 0.0)
                    .chain((p.warm_h <= 0.0).then_some(p.warm_h))
                    .find(|h| {
                        self.free(&Hand {
                            word: fact!("step-mix"),
                            before_h: mix.before_h + h + p.cold_h,
                            min: 10.0,
                        }) && (p.cold_h <= 0.0
                            || *h <= 0.0
                            || self.free(&Hand {
                                word: fact!("step-mix"),
                                before_h: mix.before_h + p.cold_h,
                                min: 2.0,
                            }))
                    })
            })
            .collect();
        (mix, warm)
    }

    /// Every combination of lengths: hours from usual, lengths, steps in hours away.
    fn combinations(&self) -> Vec<Combination> {
        let choices: Vec<Vec<f64>> = self.usual.iter().map(lengths).collect();
        let mut out = Vec::new();
        let mut lengths = vec![0.0; self.usual.len()];
        self.walk(self.usual.len(), 0.0, 0, &choices, &mut lengths, &mut out);
        out
    }

    fn walk(
        &self,
        i: usize,
        after_h: f64,
        clashes: usize,
        choices: &[Vec<f64>],
        lengths: &mut Vec<f64>,
        out: &mut Vec<Combination>,
    ) {
        self.looked.set(self.looked.get() + 1);
        if self.looked.get() > MOST_LOOKED {
            return;
        }
        if i == 0 {
            let (mix, warm) = self.start(after_h);
            let lead = warm.as_ref().map_or(0.0, |w| {
                w.iter()
                    .zip(&self.r.formula.preferments)
                    .map(|(h, p)| h + p.cold_h)
                    .fold(0.0, f64::max)
            });
            let in_time = self
                .r
                .now_at
                .is_none_or(|now| self.r.serve_at - hours(mix.before_h + lead) >= now);
            if in_time && after_h <= crate::path::LONGEST_H {
                let clashes = clashes + usize::from(!self.free(&mix)) + usize::from(warm.is_none());
                out.push(Combination {
                    off: self.off(lengths),
                    lengths: lengths.clone(),
                    warm: warm.unwrap_or_default(),
                    clashes,
                });
            }
            return;
        }
        for h in &choices[i - 1] {
            lengths[i - 1] = *h;
            let leg = Leg {
                hours: *h,
                ..self.usual[i - 1].clone()
            };
            let began_h = after_h + h;
            let bad = self
                .of_leg(i - 1, &leg, began_h)
                .iter()
                .filter(|x| !self.free(x))
                .count();
            // One clash is kept in sight, to say what is in the way; more only where nothing else is found.
            if clashes + bad <= 2 {
                self.walk(i - 1, began_h, clashes + bad, choices, lengths, out);
            }
        }
    }

    fn off(&self, lengths: &[f64]) -> f64 {
        self.usual
            .iter()
            .zip(lengths)
            .map(|(l, h)| ((h - l.hours) / (0.25 + 0.5 * (l.most_h - l.least_h))).powi(2))
            .sum()
    }

    fn request(&self, c: &Combination) -> SheetRequest {
        let mut r = self.r.clone();
        let legs = self.usual.iter().zip(&c.lengths);
        let legs = legs.map(|(l, h)| Leg {
            hours: *h,
            ..l.clone()
        });
        // The limits stay with the legs.
        r.formula.legs = legs.collect();
        for (p, h) in r.formula.preferments.iter_mut().zip(&c.warm) {
            p.warm_h = *h;
        }
        r
    }

    fn in_the_way(&self, c: &Combination) -> Option<InTheWay> {
        let mut began = 0.0;
        let mut hands = Vec::new();
        for (i, (leg, h)) in self.usual.iter().zip(&c.lengths).enumerate().rev() {
            began += h;
            let leg = Leg {
                hours: *h,
                ..leg.clone()
            };
            hands.extend(self.of_leg(i, &leg, began));
        }
        let (mix, warm) = self.start(began);
        if warm.is_none()
            && let Some(p) = self.r.formula.preferments.first()
        {
            hands.push(Hand {
                word: fact!("start-preferment"),
                before_h: mix.before_h + p.hours(),
                min: 10.0,
            });
        }
        hands.push(mix);
        let hand = hands.iter().find(|h| !self.free(h))?;
        let begin = self.r.serve_at - hours(hand.before_h);
        // The hour of the clash, or the end of the work where that is what falls into it.
        let end = begin + hours((hand.min - 1.0).max(0.0) / 60.0);
        let (at, (why, span)) = [begin, end]
            .into_iter()
            .find_map(|t| Some((t, self.life.away(t, &self.zone)?)))?;
        Some(InTheWay {
            step: hand.word.clone(),
            at,
            why,
            span: words(std::slice::from_ref(span)),
        })
    }
}

struct Combination {
    off: f64,
    lengths: Vec<f64>,
    warm: Vec<f64>,
    clashes: usize,
}

/// Lengths of a leg: its usual one and steps from there within its limits, finer for short legs.
fn lengths(leg: &Leg) -> Vec<f64> {
    let span = leg.most_h - leg.least_h;
    let step = match span {
        s if s <= 4.0 => 0.25,
        s if s <= 12.0 => 0.5,
        s if s <= 40.0 => 1.0,
        s if s <= 100.0 => 2.0,
        _ => 12.0,
    };
    let mut out = vec![leg.hours];
    let mut k = 1.0;
    while k * step <= span + 1e-9 {
        for h in [leg.hours - k * step, leg.hours + k * step] {
            if h >= leg.least_h - 1e-9 && h <= leg.most_h + 1e-9 {
                out.push(h);
            }
        }
        k += 1.0;
    }
    out
}

/// Fits a dough into a life.
///
/// Errors: [`ValidationError`] as [`crate::sheet::work_out`] for what no length of a leg could mend.
///
/// ```
/// use craft::formula::Scales;
/// use craft::sheet::life::{LifeFitRequest, Life, fit, spans};
/// use craft::sheet::{KitchenUsual, SheetRequest};
///
/// let kitchen = KitchenUsual {
///     time_zone: "Europe/London".into(),
///     altitude_m: 0.0,
///     room_c: 20.0,
///     fridge_c: 4.0,
///     tap_water_c: 12.0,
///     scales: Scales::default(),
/// };
/// let friday = "2026-11-27T19:00:00Z".parse().unwrap();
/// let round = craft::style::by_key("hot_round").unwrap();
/// let life = Life {
///     quiet: spans("23:00-07:00").unwrap(),
///     busy: spans("Mon-Fri 09:00-17:00").unwrap(),
/// };
/// let request = SheetRequest::of_style(round, &kitchen, friday);
/// let found = fit(&LifeFitRequest { request, life }).unwrap();
/// // The best plan first; each is served at the hour that was asked for.
/// assert!(found.plans[0].window.unwrap().holds(friday));
/// ```
pub fn fit(q: &LifeFitRequest) -> Result<FitResult, ValidationError> {
    fit_by(q, &|r| r.own.as_deref().copied())
}

/// The same where this kitchen is asked for each plan anew: other hours are another dough to it.
///
/// Errors: as [`fit`].
pub fn fit_by(q: &LifeFitRequest, own: OwnOf) -> Result<FitResult, ValidationError> {
    q.request.check()?;
    let zone = q.request.zone()?;
    let usual = q.request.formula.path();
    let most_h: f64 = usual.iter().map(|l| l.most_h).sum::<f64>() + 130.0;
    let slots = (most_h * 4.0) as i64 + 8;
    let away = (0..slots)
        .map(|i| {
            let at = q.request.serve_at - jiff::SignedDuration::from_secs((i + 1) * SLOT_S);
            q.life.away(at, &zone).is_some()
        })
        .collect();
    let search = Search {
        own,
        r: &q.request,
        life: &q.life,
        zone,
        away,
        pieces: f64::from(q.request.formula.pieces.count()),
        looked: Cell::new(0),
        usual,
        runs: PrefermentRuns::default(),
    };
    let mut all = search.combinations();
    all.sort_by(|a, b| {
        (a.clashes.min(1), a.off)
            .partial_cmp(&(b.clashes.min(1), b.off))
            .unwrap_or(std::cmp::Ordering::Equal)
    });
    let free: Vec<&Combination> = all.iter().filter(|c| c.clashes == 0).collect();
    if free.is_empty() {
        let least = all.iter().map(|c| c.clashes).min().unwrap_or(0);
        let nearest = all.iter().find(|c| c.clashes == least);
        return Ok(FitResult {
            plans: vec![],
            in_the_way: nearest.and_then(|c| search.in_the_way(c)),
        });
    }
    let mut plans: Vec<(f64, FittedPlan)> = distinct(&free, &search.usual)
        .into_iter()
        .filter_map(|c| Some((c.off, worked(&search, c)?)))
        .collect();
    if plans.is_empty() {
        // Free hours there are, but the dough cannot be made in them: say why of the nearest.
        let refused = work_out_whole(&search.request(free[0]), &search.runs).err();
        return match refused {
            Some(e) => Err(e),
            None => Ok(FitResult {
                plans: vec![],
                in_the_way: None,
            }),
        };
    }
    let step = |p: &FittedPlan| (p.chance / ALIKE_CHANCE).round() as i64;
    plans.sort_by(|(oa, a), (ob, b)| step(b).cmp(&step(a)).then(oa.total_cmp(ob)));
    Ok(FitResult {
        plans: plans.into_iter().take(SHOWN).map(|(_, p)| p).collect(),
        in_the_way: None,
    })
}

/// The nearest plans that are not alike.
fn distinct<'c>(free: &[&'c Combination], usual: &[Leg]) -> Vec<&'c Combination> {
    let mut out: Vec<&Combination> = Vec::new();
    for c in free {
        let alike = |o: &&Combination| {
            o.lengths
                .iter()
                .zip(&c.lengths)
                .zip(usual)
                .all(|((a, b), l)| (a - b).abs() <= (ALIKE * (l.most_h - l.least_h)).max(0.3))
        };
        if !out.iter().any(alike) {
            out.push(c);
        }
        if out.len() >= TRIED {
            break;
        }
    }
    out
}

fn worked(search: &Search, c: &Combination) -> Option<FittedPlan> {
    let mut request = search.request(c);
    request.now_at = None;
    request.own = (search.own)(&request).map(Box::new);
    let (result, dough) = work_out_whole(&request, &search.runs).ok()?;
    let by_the_book = || {
        let sd = OwnKitchen::unlogged(&dough).sd;
        chance_met(&dough, dough.total_hours(), sd)
    };
    Some(FittedPlan {
        chance: chance(&request, &dough, result.mixed_at).unwrap_or_else(by_the_book),
        margin_h: margin_h(result.window, request.serve_at),
        preferment_warm_h: c.warm.clone(),
        start_at: result.start_at,
        window: result.window,
        yeast_percent: result.yeast.percent,
        reserve_at_serve: result.reserve_at_serve,
        rise_at_serve: result.rise_at_serve,
        off_usual_h: search
            .usual
            .iter()
            .zip(&c.lengths)
            .map(|(l, h)| (l.hours - h).abs())
            .sum(),
        legs: request.formula.legs,
    })
}
