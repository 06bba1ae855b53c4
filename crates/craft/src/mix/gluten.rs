//! How far the gluten is: an index from work and rest, overruled by what is seen, and never shown as a number.
//!
//! Source: mixing and shaping, section 6. Minutes of plain hand kneading that a dough needs are calibrated to usual times; what
//! a minute of each way of working counts is assumed.

use super::{Mixer, Mixing, Speed};
use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// A sign that a maker sees, feels or hears.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum ReadySign {
    /// The wall of the bowl is clean.
    WallClean,
    /// It has gathered round the hook.
    Gathered,
    /// It pops.
    Popping,
    /// A smooth skin.
    Smooth,
    /// A poke springs back.
    Poke,
    /// A window without tearing.
    Window,
}

impl ReadySign {
    /// What the index is when it is first seen.
    pub fn development(self) -> f64 {
        match self {
            ReadySign::WallClean => 0.65,
            ReadySign::Gathered => 0.70,
            ReadySign::Popping => 0.80,
            ReadySign::Smooth => 0.85,
            ReadySign::Poke => 0.90,
            ReadySign::Window => 1.00,
        }
    }
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            ReadySign::WallClean => fact!("sign-wall-clean"),
            ReadySign::Gathered => fact!("sign-gathered"),
            ReadySign::Popping => fact!("sign-popping"),
            ReadySign::Smooth => fact!("sign-smooth"),
            ReadySign::Poke => fact!("sign-poke"),
            ReadySign::Window => fact!("sign-window"),
        }
    }
}

/// Over so much work a machine has worked a dough too long: watch, act.
const OVER_MIXED_WATCH: f64 = 1.6;
const OVER_MIXED_ACT: f64 = 2.0;
/// A dough that shows no window by here will not.
pub(super) const NO_WINDOW_AFTER: f64 = 1.3;

/// What a dough needs, and how far it is by work and by rest.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Development {
    /// Work done, as a share of what the dough needs.
    pub work: f64,
    /// What rest did.
    pub rest: f64,
    /// Both, or what was seen.
    pub index: f64,
    /// The window was seen: it is done whatever the index says.
    pub window: bool,
}

/// How far past what a dough needs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum OverMixed {
    /// Not at all.
    No,
    /// Keep an eye on it.
    Watch,
    /// Stop.
    Act,
}

impl Development {
    /// In words; an index is no measurement, so it is never said as a number.
    pub fn words(&self) -> Fact {
        let d = self.index;
        if self.window {
            fact!("gluten-done")
        } else if d < 0.25 {
            fact!("gluten-begun")
        } else if d < 0.45 {
            fact!("gluten-a-third")
        } else if d < 0.65 {
            fact!("gluten-half-way")
        } else if d < 0.9 {
            fact!("gluten-most")
        } else if d <= NO_WINDOW_AFTER {
            fact!("gluten-look")
        } else {
            fact!("gluten-should-be-done")
        }
    }
    /// Whether it was worked too long: by what its gluten needs, and by the most minutes of its programme. By hand nobody gets
    /// there; over the programme's minutes a rest does more than the work.
    pub fn over_mixed(&self, kind: Mixer, worked_min: f64, most_min: f64) -> OverMixed {
        let over = worked_min > most_min + 1e-9;
        match self.work {
            _ if kind == Mixer::Hand && over => OverMixed::Watch,
            _ if kind == Mixer::Hand => OverMixed::No,
            w if w > OVER_MIXED_ACT || over => OverMixed::Act,
            w if w > OVER_MIXED_WATCH => OverMixed::Watch,
            _ => OverMixed::No,
        }
    }
}

/// The dough that is worked, and how.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct GlutenWork {
    /// What works it.
    pub kind: Mixer,
    /// The flour's strength, W.
    pub w: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
    /// What this mixer and this flour usually need, as a factor on the book's.
    #[serde(default = "by_the_book")]
    pub usual: f64,
}

fn by_the_book() -> f64 {
    1.0
}

impl GlutenWork {
    /// Minutes of plain hand kneading that the dough needs.
    pub fn needed_min(&self) -> f64 {
        14.0 * (self.w / 300.0).powf(0.7)
            * (0.03 * (self.hydration_percent - 62.0).max(0.0)).exp()
            * self.usual
    }
    /// What a minute counts, in minutes of plain hand kneading.
    fn minute(&self, speed: Speed, stir: bool, slap: bool) -> f64 {
        let by_speed = |slow: f64, medium: f64, fast: f64| match speed {
            Speed::Slow => slow,
            Speed::Medium => medium,
            Speed::Fast => fast,
            _ => 0.0,
        };
        match (speed, self.kind) {
            (Speed::Off, _) => 0.0,
            (Speed::Fold, _) => 1.2,
            (Speed::Hand, _) if stir => 0.4,
            (Speed::Hand, _) if slap => 1.3,
            (Speed::Hand, _) | (_, Mixer::Hand) => 1.0,
            (_, Mixer::Planetary) => by_speed(0.5, 1.3, 1.9),
            (_, Mixer::Spiral) => by_speed(0.7, 1.4, 2.2),
            (_, Mixer::Fork) => by_speed(0.6, 0.8, 1.1),
            (_, Mixer::FoodProcessor) => by_speed(6.0, 10.0, 12.0),
        }
    }
}

/// A sign and when it was seen.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct ObservedSign {
    /// Minutes from the first step.
    pub at_min: f64,
    /// What was seen.
    pub sign: ReadySign,
}

/// What rest of so many minutes at 20 °C does.
fn rest_of(min: f64) -> f64 {
    0.35 * (1.0 - (-min / 25.0).exp()) + 0.6 * (1.0 - (-min / 420.0).exp())
}

/// How far a dough is after so many minutes of its steps; its warmth at a minute as `dough_c` has it.
///
/// A sign that is seen sets the index; what follows counts in the proportion of what was seen to what was computed.
pub fn development(
    work: &GlutenWork,
    mixing: &Mixing,
    until_min: f64,
    signs: &[ObservedSign],
    dough_c: impl Fn(f64) -> f64,
) -> Development {
    let needed = work.needed_min();
    let wetted = mixing.first_addition_min().unwrap_or(0.0);
    let mut seen: Vec<ObservedSign> = signs.to_vec();
    seen.retain(|s| s.at_min <= until_min);
    seen.sort_by(|a, b| a.at_min.total_cmp(&b.at_min));
    let mut marks: Vec<f64> = seen.iter().map(|s| s.at_min).collect();
    marks.push(until_min);

    let (mut w, mut rest_min) = (0.0, 0.0);
    let (mut index, mut factor, mut highest) = (0.0, 1.0, 0.0);
    let (mut before_w, mut before_rest) = (0.0, 0.0);
    let mut from = 0.0;
    for (k, &to) in marks.iter().enumerate() {
        let (dw, dt) = between(work, mixing, wetted, from, to, &dough_c);
        w += dw / needed;
        rest_min += dt;
        let rest = rest_of(rest_min);
        index += factor * (w - before_w + rest - before_rest);
        (before_w, before_rest, from) = (w, rest, to);
        if let Some(s) = seen.get(k) {
            let value = s.sign.development();
            if value > highest {
                let model: f64 = w + rest;
                factor = (value / model.max(1e-9)).clamp(0.6, 1.7);
                (index, highest) = (value, value);
            }
        }
    }
    Development {
        work: w,
        rest: rest_of(rest_min),
        index,
        window: seen.iter().any(|s| s.sign == ReadySign::Window),
    }
}

/// From when to when a sign is usually seen, minutes from the first step; none where these steps do not lead there.
///
/// The factor of a mixer and a flour is moved by what it is not known, at least 15 % either way.
pub fn usually_seen(
    work: &GlutenWork,
    mixing: &Mixing,
    sign: ReadySign,
    usual: &UsualMinutes,
    dough_c: impl Fn(f64) -> f64,
) -> Option<(f64, f64)> {
    /// Looked for so finely, min.
    const STEP_MIN: f64 = 0.25;
    let (low, high) = usual.range_min(1.0);
    let seen = |factor: f64| {
        let by = GlutenWork {
            usual: factor,
            ..*work
        };
        let n = (mixing.minutes().min(240.0) / STEP_MIN).ceil() as usize;
        (0..=n)
            .map(|i| i as f64 * STEP_MIN)
            .find(|at| development(&by, mixing, *at, &[], &dough_c).index >= sign.development())
    };
    Some((seen(low)?, seen(high).unwrap_or(mixing.minutes())))
}

/// Minutes of hand kneading, and minutes of rest at 20 °C, from one minute to another.
fn between(
    work: &GlutenWork,
    mixing: &Mixing,
    wetted: f64,
    from: f64,
    to: f64,
    dough_c: &impl Fn(f64) -> f64,
) -> (f64, f64) {
    let (mut kneaded, mut rested) = (0.0, 0.0);
    let mut begin = 0.0;
    for s in &mixing.steps {
        let end = begin + s.minutes;
        let (a, b) = (begin.max(from), end.min(to));
        if b > a {
            kneaded += (b - a) * work.minute(s.speed, s.stir, s.slap);
            rested += rest_min(a.max(wetted), b, dough_c);
        }
        begin = end;
    }
    // After the last step it rests on.
    let (a, b) = (begin.max(from), to);
    if b > a {
        rested += rest_min(a.max(wetted), b, dough_c);
    }
    (kneaded, rested)
}

/// Minutes at 20 °C that a span is worth: half as much again for seven degrees.
fn rest_min(from: f64, to: f64, dough_c: &impl Fn(f64) -> f64) -> f64 {
    if to <= from {
        return 0.0;
    }
    let pieces = ((to - from) / 5.0).ceil().clamp(1.0, 288.0);
    let width = (to - from) / pieces;
    (0..pieces as usize)
        .map(|i| {
            let at = from + (i as f64 + 0.5) * width;
            width * 1.95_f64.powf((dough_c(at) - 20.0) / 10.0)
        })
        .sum()
}

/// What one mixer and one flour usually need, as a factor on the book's minutes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct UsualMinutes {
    /// The factor.
    pub factor: f64,
    /// Standard deviation of its logarithm.
    pub sd_ln: f64,
    /// Mixes that it was learned from.
    pub mixes: usize,
}

impl UsualMinutes {
    /// So many minutes by the book, as they usually are: from, to; never closer than 15 % either way.
    pub fn range_min(&self, book_min: f64) -> (f64, f64) {
        let wide = self.sd_ln.exp().max(1.15);
        let middle = book_min * self.factor;
        (middle / wide, middle * wide)
    }
}

/// What is learned from development by the book at the moments when signs were seen: work, rest, sign.
pub fn usual_minutes(seen: &[(Development, ReadySign)]) -> UsualMinutes {
    const PRIOR: f64 = 0.35;
    const EACH: f64 = 0.25;
    let n = seen.len() as f64;
    let sum: f64 = seen
        .iter()
        .map(|(d, sign)| {
            let by_work = (sign.development() - d.rest).max(0.05);
            (d.work / by_work).clamp(0.4, 2.5).ln()
        })
        .sum();
    let precision = 1.0 / (PRIOR * PRIOR) + n / (EACH * EACH);
    UsualMinutes {
        factor: (sum / (EACH * EACH) / precision).exp(),
        sd_ln: (1.0 / precision).sqrt(),
        mixes: seen.len(),
    }
}
