//! What a maker saw of a batch, with one tap each.
//!
//! Source: learning, sections 3, 8 and 9.1.

use super::place::{Among, DoughPath, MadeWith};
use crate::fact;
use crate::fact::{Fact, Value, hours};
use crate::reading::GROWN;
use crate::refusal::{Check, ValidationError};
use crate::rise::RiseRequest;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// How a dough stood when it was opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum StoodAs {
    /// Much under.
    MuchUnder,
    /// A little under.
    Under,
    /// Right.
    Right,
    /// A little over.
    Over,
    /// Much over.
    MuchOver,
}

impl StoodAs {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            StoodAs::MuchUnder => fact!("stood-much-under"),
            StoodAs::Under => fact!("stood-under"),
            StoodAs::Right => fact!("stood-right"),
            StoodAs::Over => fact!("stood-over"),
            StoodAs::MuchOver => fact!("stood-much-over"),
        }
    }
}

/// How many answers there were to choose from.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(try_from = "u8", into = "u8")]
pub enum Answers {
    /// Under, right, over.
    Three,
    /// All of [`StoodAs`].
    #[default]
    Five,
}

impl TryFrom<u8> for Answers {
    type Error = &'static str;
    fn try_from(n: u8) -> Result<Answers, &'static str> {
        match n {
            3 => Ok(Answers::Three),
            5 => Ok(Answers::Five),
            _ => Err("3 or 5"),
        }
    }
}
impl From<Answers> for u8 {
    fn from(a: Answers) -> u8 {
        match a {
            Answers::Three => 3,
            Answers::Five => 5,
        }
    }
}

/// One thing that was seen. Hours are since the end of mixing; a state without one is of the hour at which the batch was
/// opened.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Observed {
    /// The state at opening.
    State {
        /// When, h since mixing.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        at_h: Option<f64>,
        /// How it stood.
        is: StoodAs,
        /// Of how many answers.
        #[serde(default)]
        answers: Answers,
    },
    /// It was ready then.
    Ready {
        /// When, h since mixing.
        at_h: f64,
    },
    /// A marked tub stood at so many times its first volume.
    Tub {
        /// When, h since mixing.
        at_h: f64,
        /// Of its first volume.
        times: f64,
    },
    /// The fridge against the plan.
    Fridge {
        /// K above it.
        over_planned_k: f64,
    },
    /// The room against the plan.
    Room {
        /// K above it.
        over_planned_k: f64,
    },
    /// The dough off the mixer against the plan.
    Dough {
        /// K above it.
        over_planned_k: f64,
    },
    /// Discs sprang back.
    Tight {
        /// Whether that was said.
        said: bool,
    },
    /// The dough was slack or sticky.
    Slack {
        /// Whether that was said.
        said: bool,
    },
    /// It was sour or smelled of alcohol.
    Sour {
        /// Whether that was said.
        said: bool,
    },
}

/// A reading further off the plan than this is asked about instead of learned, K.
pub const FAR_OFF_K: f64 = 15.0;
/// A tub that has hardly moved says nothing.
pub(crate) const LEAST_TUB: f64 = 1.15;

impl Observed {
    /// Whether it says something of how the dough rose, as doses and windows need (section 7).
    pub fn is_of_the_rise(&self) -> bool {
        matches!(
            self,
            Observed::State { .. } | Observed::Ready { .. } | Observed::Tub { .. }
        )
    }
    /// A remark: it finds causes, and teaches nothing.
    pub(crate) fn is_remark(&self) -> bool {
        matches!(
            self,
            Observed::Tight { .. } | Observed::Slack { .. } | Observed::Sour { .. }
        )
    }
    /// Whether a fit reads it.
    pub(crate) fn teaches(&self) -> bool {
        !self.is_remark() && !matches!(self, Observed::Tub { times, .. } if *times < LEAST_TUB)
    }
    /// A reading of a thermometer.
    pub(crate) fn is_reading(&self) -> bool {
        matches!(
            self,
            Observed::Fridge { .. } | Observed::Room { .. } | Observed::Dough { .. }
        )
    }
}

/// A batch as it was really run, with what was seen of it. Temperatures are those that were planned: a reading says how far
/// they were off, and is never written over them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct LoggedBatch {
    /// Weeks since any fixed day.
    pub week: f64,
    /// What it was made with.
    #[serde(default, rename = "keys")]
    pub made_with: MadeWith,
    /// Its dough.
    pub dough: RiseRequest,
    /// What was seen.
    #[serde(default)]
    pub observed: Vec<Observed>,
    /// When it was opened, h since mixing, where that was noted; else its plan's end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opened_at_h: Option<f64>,
}

/// A batch not yet made.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct NextBatch {
    /// Weeks since the same fixed day.
    pub week: f64,
    /// What it will be made with.
    #[serde(default, rename = "keys")]
    pub made_with: MadeWith,
    /// Its dough.
    pub dough: RiseRequest,
}

impl NextBatch {
    pub(crate) fn among(&self) -> Among {
        Among {
            week: self.week,
            made_with: self.made_with.clone(),
            path: DoughPath::of(&self.dough),
        }
    }
}

impl LoggedBatch {
    pub(crate) fn among(&self) -> Among {
        Among {
            week: self.week,
            made_with: self.made_with.clone(),
            path: DoughPath::of(&self.dough),
        }
    }

    /// When it was opened, h since mixing: as noted, else its plan's end.
    pub(crate) fn opened_h(&self) -> f64 {
        self.opened_at_h.unwrap_or_else(|| self.dough.total_hours())
    }

    /// The hour of what was seen, where it has one.
    pub(crate) fn hour_of(&self, seen: &Observed) -> f64 {
        match *seen {
            Observed::State { at_h, .. } => at_h.unwrap_or_else(|| self.opened_h()),
            Observed::Ready { at_h } | Observed::Tub { at_h, .. } => at_h,
            _ => self.opened_h(),
        }
    }

    /// Refuses what is outside its range.
    pub fn check(&self) -> Result<(), ValidationError> {
        self.dough.check(true).map_err(|e| e.below("dough"))?;
        let mut c = Check::new();
        week(&mut c, self.week);
        let at = |c: &mut Check, name: &str, h: f64| {
            c.range(name, fact!("f-hours-after-mixing"), h, 0.0, 400.0, hours);
        };
        if let Some(h) = self.opened_at_h {
            at(&mut c, "opened_at_h", h);
        }
        for (i, seen) in self.observed.iter().enumerate() {
            c.within(&format!("observed[{i}]"));
            match *seen {
                Observed::State { at_h, .. } => {
                    if let Some(h) = at_h {
                        at(&mut c, "at_h", h);
                    }
                }
                Observed::Ready { at_h } => at(&mut c, "at_h", at_h),
                Observed::Tub { at_h, times } => {
                    at(&mut c, "at_h", at_h);
                    c.range(
                        "times",
                        fact!("f-the-tub"),
                        times,
                        *GROWN.start(),
                        *GROWN.end(),
                        Value::Number,
                    );
                }
                Observed::Fridge { over_planned_k }
                | Observed::Room { over_planned_k }
                | Observed::Dough { over_planned_k } => c.range(
                    "over_planned_k",
                    fact!("f-reading-against-the-plan"),
                    over_planned_k,
                    -FAR_OFF_K,
                    FAR_OFF_K,
                    Value::Kelvin,
                ),
                Observed::Tight { .. } | Observed::Slack { .. } | Observed::Sour { .. } => {}
            }
        }
        c.done()
    }
}

fn week(c: &mut Check, week: f64) {
    c.range(
        "week",
        fact!("f-week"),
        week,
        -10_000.0,
        10_000.0,
        Value::Number,
    );
}
