//! The dough on the scale against its plan.
//!
//! Source: mixing and shaping, section 8; the loss is calibrated to doughs that were weighed whole.

use crate::fact;
use crate::fact::Value;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// What stays on bowl, hook and hands, learned: % at 2 kg.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Loss {
    /// Of a dough of 2 kg, %.
    pub at_2kg_percent: f64,
    /// One standard deviation, %.
    pub sd_percent: f64,
    /// Doughs that it was learned from.
    pub doughs: usize,
}

impl Loss {
    /// Of a dough of so much, %: it is a film on walls, which grow slower than what is in them.
    pub fn of_percent(&self, dough_g: f64) -> f64 {
        (self.at_2kg_percent * (dough_g / 2000.0).powf(-1.0 / 3.0)).clamp(0.3, 6.0)
    }
    /// Whether weighed doughs say something else than what a formula adds, by more than its tenths, for a dough of so much.
    pub fn differs_from(&self, adds_percent: f64, dough_g: f64) -> bool {
        self.doughs > 0 && (self.formula_percent(dough_g) - adds_percent).abs() >= SAME_LOSS
    }
    /// What a formula adds to its pieces so that they come out of the bowl, %, to a tenth: the loss of a dough is counted over
    /// all that went in, a formula's over the pieces.
    pub fn formula_percent(&self, dough_g: f64) -> f64 {
        let of = self.of_percent(dough_g);
        (10.0 * 100.0 * of / (100.0 - of)).round() / 10.0
    }
}

/// A formula that adds so nearly the learned loss keeps its own, %.
const SAME_LOSS: f64 = 0.15;
/// Prior: the loss of a dough of 2 kg and how far it differs, %; the share by which one dough differs from the next.
const PRIOR: (f64, f64) = (1.5, 0.8);
const EACH: f64 = 0.5;

/// The loss from doughs that were weighed whole: put into the bowl, weighed, g. One that cannot be is passed over.
pub fn learn_loss(weighed: &[(f64, f64)]) -> Loss {
    let mut precision = 1.0 / (PRIOR.1 * PRIOR.1);
    let mut sum = PRIOR.0 * precision;
    let mut doughs = 0;
    for &(put_g, whole_g) in weighed {
        let percent = 100.0 * (1.0 - whole_g / put_g);
        if !(-1.0..=8.0).contains(&percent) {
            continue;
        }
        let s = (put_g / 2000.0).cbrt();
        let p = 1.0 / (EACH * s).powi(2);
        precision += p;
        sum += percent * s * p;
        doughs += 1;
    }
    Loss {
        at_2kg_percent: sum / precision,
        sd_percent: (1.0 / precision).sqrt(),
        doughs,
    }
}

/// A dough that is divided.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct DividePlan {
    /// What was put into the bowl, 50 to 300,000 g.
    pub put_g: f64,
    /// What the scale says of the whole, 50 to 300,000 g.
    pub weighed_g: f64,
    /// The piece that is wanted, 20 to 3,000 g.
    pub ball_g: f64,
    /// How many, 1 to 2,000.
    pub count: u32,
    /// What the scale resolves, 0.01 to 20 g.
    pub scale_g: f64,
}

/// Whole pieces, and what is left.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WholePieces {
    /// So many.
    pub count: u32,
    /// Of so much each, g.
    pub ball_g: f64,
    /// What is left, g.
    pub remainder_g: f64,
}

/// All of it spread over so many pieces.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct OnTheScale {
    /// So many.
    pub count: u32,
    /// Of so much each, as the scale reads, g.
    pub ball_g: f64,
    /// Against the plan, %.
    pub change_percent: f64,
    /// So many of them take one step of the scale more.
    pub one_step_more: u32,
    /// What is left before that, g.
    pub left_g: f64,
}

/// What is proposed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum DivideChoice {
    /// All pieces a little smaller or larger.
    Spread,
    /// The weight is kept, the last one is smaller.
    OneSmaller,
    /// Fewer pieces, with all of it.
    SpreadFewer,
    /// The weight is kept, the rest is for bread, sticks or a tester.
    KeepAndBread,
    /// One piece more.
    OneMore,
    /// One piece more, a smaller one.
    OneSmallerMore,
}

/// The dough against its plan.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Divided {
    /// All of it over the planned pieces.
    pub spread: OnTheScale,
    /// The planned weight, at most the planned count.
    pub keep: WholePieces,
    /// The planned weight, as many as there are.
    pub most: WholePieces,
    /// What is proposed.
    pub choice: DivideChoice,
    /// Fewer pieces with all of it, where that is proposed.
    pub fewer: Option<OnTheScale>,
}

/// So much of the whole is nothing that anybody sees.
const UNSEEN: f64 = 0.04;
/// A remainder of so much of a ball makes a smaller one; of less, it goes into the others.
const SMALLER_FROM: f64 = 0.6;
const SPREAD_BELOW: f64 = 0.25;
/// From so much on there is bread in it, g.
const BREAD_FROM_G: f64 = 60.0;

impl DividePlan {
    /// Refuses what is no dough to divide.
    ///
    /// Errors: [`ValidationError`] with every field outside its range, or a whole that cannot be.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        let g = Value::Grams;
        c.range(
            "put_g",
            fact!("f-dough-in-the-bowl"),
            self.put_g,
            50.0,
            300_000.0,
            g,
        );
        c.range(
            "weighed_g",
            fact!("f-dough-weighed"),
            self.weighed_g,
            50.0,
            300_000.0,
            g,
        );
        c.range("ball_g", fact!("f-piece"), self.ball_g, 20.0, 3_000.0, g);
        let count = |n: f64| Value::Count(n as i64);
        c.range(
            "count",
            fact!("f-pieces-divided"),
            f64::from(self.count),
            1.0,
            2_000.0,
            count,
        );
        c.range(
            "scale_g",
            fact!("f-scale-step"),
            self.scale_g,
            0.01,
            20.0,
            g,
        );
        if c.is_clean() {
            if self.weighed_g > 1.05 * self.put_g {
                c.refuse("weighed_g", fact!("divide-more-than-went-in"));
            } else if self.weighed_g < 0.6 * self.put_g {
                c.refuse("weighed_g", fact!("divide-is-this-all"));
            } else if self.weighed_g < self.scale_g.max(20.0) {
                c.refuse("weighed_g", fact!("divide-less-than-a-ball"));
            }
        }
        c.done()
    }
    fn floor(&self, g: f64) -> f64 {
        ((g / self.scale_g) + 1e-9).floor() * self.scale_g
    }
    /// All of it over so many pieces.
    pub fn over(&self, count: u32) -> OnTheScale {
        let count = count.max(1);
        let n = f64::from(count);
        let ball_g = self.floor(self.weighed_g / n);
        let left_g = self.weighed_g - n * ball_g;
        OnTheScale {
            count,
            ball_g,
            change_percent: 100.0 * (ball_g / self.ball_g - 1.0),
            one_step_more: ((left_g / self.scale_g) + 1e-9).floor() as u32,
            left_g,
        }
    }
    fn whole(&self, most: u32) -> WholePieces {
        let count = ((self.weighed_g / self.ball_g).floor() as u32).min(most);
        WholePieces {
            count,
            ball_g: self.ball_g,
            remainder_g: self.weighed_g - f64::from(count) * self.ball_g,
        }
    }
}

/// The dough on the scale against its plan, with what is proposed.
///
/// ```
/// use craft::shape::{DivideChoice, DividePlan, divide};
///
/// let short = DividePlan { put_g: 1064.0, weighed_g: 1000.0, ball_g: 262.0, count: 4, scale_g: 1.0 };
/// let d = divide(&short).unwrap();
/// // Three whole ones, and a smaller one of 214 g.
/// assert_eq!((d.choice, d.keep.count, d.keep.remainder_g), (DivideChoice::OneSmaller, 3, 214.0));
/// ```
///
/// Errors: [`ValidationError`], see [`DividePlan::check`].
pub fn divide(p: &DividePlan) -> Result<Divided, ValidationError> {
    p.check()?;
    let planned = f64::from(p.count) * p.ball_g;
    let diff = p.weighed_g - planned;
    let keep = p.whole(p.count);
    let most = p.whole(u32::MAX);
    let mut fewer = None;
    let choice = if diff.abs() <= UNSEEN * planned {
        DivideChoice::Spread
    } else if diff < 0.0 {
        let share = keep.remainder_g / p.ball_g;
        if share >= SMALLER_FROM {
            DivideChoice::OneSmaller
        } else if share < SPREAD_BELOW {
            fewer = Some(p.over(keep.count));
            DivideChoice::SpreadFewer
        } else {
            DivideChoice::KeepAndBread
        }
    } else if keep.remainder_g >= p.ball_g {
        DivideChoice::OneMore
    } else if keep.remainder_g >= SMALLER_FROM * p.ball_g {
        DivideChoice::OneSmallerMore
    } else if keep.remainder_g >= BREAD_FROM_G {
        DivideChoice::KeepAndBread
    } else {
        DivideChoice::Spread
    };
    Ok(Divided {
        spread: p.over(p.count),
        keep,
        most,
        choice,
        fewer,
    })
}
