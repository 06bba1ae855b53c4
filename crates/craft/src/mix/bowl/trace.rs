//! Dough and bowl over the steps of a mixing.
//!
//! Two lumps: the dough takes the heat of the work, gives some to bowl and room; the bowl gives some to the room, or to ice.
//! Implicit trapezoid rule on both together in steps of 5 s, which stays within 0.001 K of the exact course.
//! Source: mixing and shaping, section 2. Film coefficients are orders of magnitude (textbook), the rest is assumed.

use super::kinds::{USUAL_FILL, bowl_capacity, fill, stiffness};
use super::{BowlStep, Contents, FrictionFigures, Mixing, Speed};
use crate::mix::Mixer;
use crate::mix::mixer::MOST_FRICTION_K;
use crate::refusal::ValidationError;
use serde::{Deserialize, Serialize};

/// One substep, s.
const SUBSTEP_S: f64 = 5.0;
/// Surface of a dough on its bowl, and under the air, m² for one kg (half a sphere of 0.9 l a kg).
const ON_BOWL_M2: f64 = 0.036;
const UNDER_AIR_M2: f64 = 0.025;
/// Heat between dough and bowl, dough and room, bowl and room, W/m²K: while it is worked, and at rest.
const BOWL_WORKED: f64 = 150.0;
const BOWL_AT_REST: f64 = 40.0;
const AIR_WORKED: f64 = 12.0;
const AIR_AT_REST: f64 = 5.0;
const OUTSIDE: f64 = 8.0;
/// A bowl on ice, W/m²K.
const ON_ICE: f64 = 150.0;
/// By hand it is 1 K in all (assumed); a round of folds is a minute of 0.1 K.
const HAND_K: f64 = 1.0;
const FOLD_K: f64 = 0.1;
/// Points that a trace keeps in one step at the most, beside its ends.
const POINTS_OF_A_STEP: f64 = 60.0;

/// A moment of a mixing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TracePoint {
    /// Minutes from the first step.
    pub at_min: f64,
    /// The dough, °C.
    pub dough_c: f64,
    /// The bowl, °C.
    pub bowl_c: f64,
}

/// The course of a mixing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BowlTrace {
    /// The dough after the first addition, °C.
    pub start_c: f64,
    /// The dough at the end, °C.
    pub end_c: f64,
    /// The bowl at the end, °C.
    pub bowl_end_c: f64,
    /// What work adds in all, K.
    pub friction_k: f64,
    /// What of the friction is believed of a mixer that was never measured: 1, or less where it would add more than 12 K.
    pub cap_scale: f64,
    /// What one more minute of the last step adds, K; none while the cap binds and after a fold.
    pub one_minute_more_k: Option<f64>,
    /// K a minute of each step, on the dough that is in the bowl then.
    pub step_k_per_min: Vec<f64>,
    /// The dough at each step's end, °C.
    pub step_end_c: Vec<f64>,
    /// The course; at an addition, first the dough before it, then after it.
    pub points: Vec<TracePoint>,
}

impl BowlTrace {
    /// The dough at a minute, °C; at an addition the dough before it. None before the first addition.
    pub fn at(&self, min: f64) -> Option<f64> {
        self.point(min).map(|p| p.dough_c)
    }
    /// Dough and bowl at a minute; at an addition, before it.
    pub fn point(&self, min: f64) -> Option<TracePoint> {
        let first = self.points.first()?;
        if min < first.at_min - 1e-9 {
            return None;
        }
        let mut before = *first;
        for &p in &self.points {
            if p.at_min >= min - 1e-9 {
                let span = p.at_min - before.at_min;
                let share = if span > 1e-9 {
                    (min - before.at_min) / span
                } else {
                    0.0
                };
                let between = |a: f64, b: f64| a + (b - a) * share.clamp(0.0, 1.0);
                return Some(TracePoint {
                    at_min: min,
                    dough_c: between(before.dough_c, p.dough_c),
                    bowl_c: between(before.bowl_c, p.bowl_c),
                });
            }
            before = p;
        }
        Some(before)
    }
    /// The first minute at which the dough passes a temperature upward.
    pub fn passes_min(&self, dough_c: f64) -> Option<f64> {
        let at = self.points.windows(2).find_map(|w| {
            let (a, b) = (w[0], w[1]);
            (a.dough_c < dough_c && b.dough_c >= dough_c).then(|| {
                let share = (dough_c - a.dough_c) / (b.dough_c - a.dough_c);
                a.at_min + share * (b.at_min - a.at_min)
            })
        });
        let first = self.points.first()?;
        if first.dough_c >= dough_c {
            return Some(first.at_min);
        }
        at
    }
}

/// The course of a mixing with a mixer's figures, or its kind's.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn trace(
    mixing: &Mixing,
    figures: Option<&FrictionFigures>,
) -> Result<BowlTrace, ValidationError> {
    mixing.check()?;
    Ok(course(mixing, figures, true))
}

/// The same for a mixing that was checked, and with the cap of friction or without it.
pub(crate) fn course(
    mixing: &Mixing,
    figures: Option<&FrictionFigures>,
    capped: bool,
) -> BowlTrace {
    let kinds_own = FrictionFigures::of(mixing.kind);
    let figures = figures.unwrap_or(&kinds_own);
    let rates = Rates::of(mixing, figures, capped);
    let mut walk = BowlWalk::begin(mixing, figures.offset_k);
    let mut step_end_c = vec![];
    for (i, s) in mixing.steps.iter().enumerate() {
        walk.add(s);
        walk.work(s, rates.each[i], true);
        step_end_c.push(walk.dough_c);
    }
    let one_minute_more_k = mixing.steps.last().and_then(|last| {
        if rates.scale < 1.0 - 1e-12 || last.speed == Speed::Fold {
            return None;
        }
        let mut more = walk.clone();
        let mut minute = BowlStep::plain(last.speed, 1.0);
        minute.ice_bath = false;
        more.work(&minute, *rates.each.last()?, false);
        Some(more.dough_c - walk.dough_c)
    });
    BowlTrace {
        start_c: walk.start_c,
        end_c: walk.dough_c,
        bowl_end_c: walk.bowl_c,
        friction_k: rates.total_k,
        cap_scale: rates.scale,
        one_minute_more_k,
        step_k_per_min: rates.each,
        step_end_c,
        points: walk.points,
    }
}

/// The course without the cap: what a log is compared with.
pub(crate) fn trace_uncapped(mixing: &Mixing, figures: &FrictionFigures) -> BowlTrace {
    course(mixing, Some(figures), false)
}

/// K a minute of each step.
struct Rates {
    each: Vec<f64>,
    total_k: f64,
    scale: f64,
}

impl Rates {
    fn of(mixing: &Mixing, figures: &FrictionFigures, capped: bool) -> Rates {
        let kinds_own = FrictionFigures::of(mixing.kind);
        let hand = HAND_K / mixing.hand_min().max(1.0);
        let mut so_far: Contents = mixing.from.iter().flat_map(|f| &f.contents).collect();
        let mut each = vec![];
        for s in &mixing.steps {
            s.add.iter().for_each(|i| so_far.put(i));
            each.push(match s.speed {
                Speed::Off => 0.0,
                Speed::Hand => hand,
                Speed::Fold => FOLD_K,
                _ if mixing.kind == Mixer::Hand => hand,
                machine if mixing.plain => figures.at(machine),
                machine => {
                    let full = fill(so_far.weight_g, mixing.holds_kg());
                    let small =
                        figures.fill_effect * kinds_own.at(machine) * (USUAL_FILL / full - 1.0);
                    stiffness(so_far.slackness_percent()) * (figures.at(machine) + small)
                }
            });
        }
        let sum: f64 = each
            .iter()
            .zip(&mixing.steps)
            .map(|(r, s)| r * s.minutes)
            .sum();
        let scale = if capped && sum > MOST_FRICTION_K {
            MOST_FRICTION_K / sum
        } else {
            1.0
        };
        each.iter_mut().for_each(|r| *r *= scale);
        Rates {
            each,
            total_k: sum * scale,
            scale,
        }
    }
}

/// The state while the steps are walked through.
#[derive(Clone)]
struct BowlWalk<'a> {
    mixing: &'a Mixing,
    contents: Contents,
    dough_c: f64,
    bowl_c: f64,
    start_c: f64,
    offset_k: f64,
    /// Whether anything is in the bowl.
    begun: bool,
    at_min: f64,
    points: Vec<TracePoint>,
}

impl<'a> BowlWalk<'a> {
    fn begin(mixing: &'a Mixing, offset_k: f64) -> BowlWalk<'a> {
        let stands = mixing.from.as_ref();
        let mut walk = BowlWalk {
            mixing,
            contents: stands.iter().flat_map(|f| &f.contents).collect(),
            dough_c: stands.map_or(0.0, |f| f.dough_c),
            bowl_c: match stands {
                Some(f) => f.bowl_c,
                None => mixing.bowl_c.unwrap_or(mixing.room_c),
            },
            start_c: stands.map_or(0.0, |f| f.dough_c),
            offset_k,
            begun: stands.is_some(),
            at_min: 0.0,
            points: vec![],
        };
        if walk.begun {
            walk.mark();
        }
        walk
    }

    fn mark(&mut self) {
        self.points.push(TracePoint {
            at_min: self.at_min,
            dough_c: self.dough_c,
            bowl_c: self.bowl_c,
        });
    }

    /// What goes in at the start of a step.
    fn add(&mut self, step: &BowlStep) {
        if step.add.is_empty() {
            return;
        }
        let mut heat = self.contents.capacity * self.dough_c;
        for i in &step.add {
            heat += i.heat();
            self.contents.put(i);
        }
        self.dough_c = heat / self.contents.capacity;
        if !self.begun {
            self.begun = true;
            self.dough_c += self.offset_k;
            self.start_c = self.dough_c;
        }
        self.mark();
    }

    /// A step at so many K a minute.
    fn work(&mut self, step: &BowlStep, k_per_min: f64, keep: bool) {
        let seconds = step.minutes * 60.0;
        let begin_min = self.at_min;
        self.at_min = begin_min + step.minutes;
        if !self.begun || seconds <= 0.0 {
            return;
        }
        let flow = Flow::of(self, step, k_per_min);
        let whole = (seconds / SUBSTEP_S).floor();
        let (n, rest_s) = (whole as usize, seconds - whole * SUBSTEP_S);
        let every = (whole / POINTS_OF_A_STEP).ceil().max(1.0) as usize;
        let map = flow.over(SUBSTEP_S);
        let mut state = (self.dough_c, self.bowl_c);
        for i in 1..=n {
            state = map.apply(state);
            if keep && i % every == 0 && (i < n || rest_s > 1e-6) {
                self.points.push(TracePoint {
                    at_min: begin_min + i as f64 * SUBSTEP_S / 60.0,
                    dough_c: state.0,
                    bowl_c: state.1,
                });
            }
        }
        if rest_s > 1e-6 {
            state = flow.over(rest_s).apply(state);
        }
        (self.dough_c, self.bowl_c) = state;
        if keep {
            self.mark();
        }
    }
}

/// `x' = A x + b` for dough and bowl, in 1/s and K/s.
struct Flow {
    a: [[f64; 2]; 2],
    b: [f64; 2],
}

/// `x → M x + v` over one substep.
struct AffineMap {
    m: [[f64; 2]; 2],
    v: [f64; 2],
}

impl AffineMap {
    fn apply(&self, (t, b): (f64, f64)) -> (f64, f64) {
        (
            self.m[0][0] * t + self.m[0][1] * b + self.v[0],
            self.m[1][0] * t + self.m[1][1] * b + self.v[1],
        )
    }
}

impl Flow {
    fn of(walk: &BowlWalk, step: &BowlStep, k_per_min: f64) -> Flow {
        let mixing = walk.mixing;
        let heating = k_per_min / 60.0;
        if mixing.plain {
            return Flow {
                a: [[0.0; 2]; 2],
                b: [heating, 0.0],
            };
        }
        let surface = (walk.contents.weight_g / 1000.0).powf(2.0 / 3.0);
        let working = step.speed != Speed::Off;
        let pick = |worked: f64, rest: f64| if working { worked } else { rest };
        let to_bowl = pick(BOWL_WORKED, BOWL_AT_REST) * ON_BOWL_M2 * surface;
        let to_air = pick(AIR_WORKED, AIR_AT_REST) * UNDER_AIR_M2 * surface;
        let (outside, outside_c) = if step.ice_bath {
            (ON_ICE, 0.0)
        } else {
            (OUTSIDE, mixing.room_c)
        };
        let out = outside * ON_BOWL_M2 * surface;
        let dough = walk.contents.capacity;
        let bowl = 1000.0 * bowl_capacity(mixing.kind) * mixing.holds_kg();
        Flow {
            a: [
                [-(to_bowl + to_air) / dough, to_bowl / dough],
                [to_bowl / bowl, -(to_bowl + out) / bowl],
            ],
            b: [
                heating + to_air * mixing.room_c / dough,
                out * outside_c / bowl,
            ],
        }
    }

    /// The trapezoid rule: `(I - hA/2) x' = (I + hA/2) x + hb`.
    fn over(&self, h: f64) -> AffineMap {
        let s = h / 2.0;
        let [[a, b], [c, d]] = self.a;
        let (p, q, r, t) = (1.0 - s * a, -s * b, -s * c, 1.0 - s * d);
        let det = p * t - q * r;
        let inverse = [[t / det, -q / det], [-r / det, p / det]];
        let right = [[1.0 + s * a, s * b], [s * c, 1.0 + s * d]];
        let row = |i: usize, j: usize| inverse[i][0] * right[0][j] + inverse[i][1] * right[1][j];
        AffineMap {
            m: [[row(0, 0), row(0, 1)], [row(1, 0), row(1, 1)]],
            v: [
                h * (inverse[0][0] * self.b[0] + inverse[0][1] * self.b[1]),
                h * (inverse[1][0] * self.b[0] + inverse[1][1] * self.b[1]),
            ],
        }
    }
}
