//! What is tapped at the bowl, and why a tap is refused.

use crate::fact;
use crate::fact::{Fact, Minutes};
use crate::mix::{Machine, MixProgramme, ReadySign};
use crate::reading;
use crate::refusal::FieldError;
use crate::units::{Celsius, TemperatureUnit};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What is measured before, or wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum MixInput {
    /// The dough that is wanted.
    Wanted,
    /// The flour.
    Flour,
    /// The room.
    Room,
    /// The bowl.
    Bowl,
    /// What a preferment has when it goes in.
    Preferment,
    /// The cold tap.
    Tap,
    /// The kettle.
    Kettle,
    /// Water from the fridge.
    Chilled,
    /// The water as it was put together.
    Water,
}

impl MixInput {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            MixInput::Wanted => fact!("mixin-wanted"),
            MixInput::Flour => fact!("mixin-flour"),
            MixInput::Room => fact!("mixin-room"),
            MixInput::Bowl => fact!("mixin-bowl"),
            MixInput::Preferment => fact!("mixin-preferment"),
            MixInput::Tap => fact!("mixin-tap"),
            MixInput::Kettle => fact!("mixin-kettle"),
            MixInput::Chilled => fact!("mixin-chilled"),
            MixInput::Water => fact!("mixin-water"),
        }
    }
    /// Temperatures that it can have, °C; a kettle none above boiling.
    fn range_c(self, boiling_c: f64) -> (f64, f64) {
        match self {
            MixInput::Wanted => (5.0, 35.0),
            MixInput::Flour => (-20.0, 45.0),
            MixInput::Room | MixInput::Preferment => (-2.0, 42.0),
            MixInput::Bowl => (-25.0, 45.0),
            MixInput::Tap => (0.0, 35.0),
            MixInput::Kettle => (50.0, boiling_c.max(50.0)),
            MixInput::Chilled => (0.0, 10.0),
            MixInput::Water => (0.0, boiling_c),
        }
    }
    /// Takes a number read in a unit; refuses what cannot be, and offers the other unit where that fits.
    ///
    /// Errors: [`FieldError`] with the range.
    pub fn take(
        self,
        value: f64,
        unit: TemperatureUnit,
        boiling_c: f64,
    ) -> Result<Celsius, FieldError> {
        reading::taken(self.name(), self.range_c(boiling_c), value, unit)
    }
}

/// Something is wrong with the dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum MixTrouble {
    /// Dry flour is left.
    DryFlour,
    /// It tears.
    Tears,
    /// It climbs the hook.
    Climbs,
    /// It shines and is wet again.
    WetAgain,
}

impl MixTrouble {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            MixTrouble::DryFlour => fact!("trouble-dry-flour"),
            MixTrouble::Tears => fact!("trouble-tears"),
            MixTrouble::Climbs => fact!("trouble-climbs"),
            MixTrouble::WetAgain => fact!("trouble-wet-again"),
        }
    }
}

/// What was tapped.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "act", rename_all = "snake_case")]
pub enum MixAct {
    /// What it is mixed in and by which programme: copies, so that no later change moves them.
    Chosen {
        /// The steps.
        programme: Box<MixProgramme>,
        /// The machine.
        machine: Box<Machine>,
        /// Its number in the pantry.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        machine_id: Option<u64>,
        /// In how many runs the dough is mixed.
        runs: u16,
    },
    /// A temperature before it begins.
    Measured {
        /// Of what.
        what: MixInput,
        /// °C.
        c: f64,
    },
    /// A line of what is weighed was weighed, or not after all.
    Weighed {
        /// Which.
        line: u16,
        /// Whether it was.
        done: bool,
    },
    /// A step begins, and what went before it ends; the one after the last ends it all.
    Step {
        /// Which, from 1.
        step: u16,
    },
    /// A step takes longer.
    More {
        /// Which, from 1.
        step: u16,
        /// By so much.
        minutes: f64,
    },
    /// A part of the water went in.
    Poured {
        /// Which, from 1.
        part: u16,
        /// Its temperature, where it was measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        c: Option<f64>,
    },
    /// The dough was measured.
    Read {
        /// °C.
        c: f64,
    },
    /// A sign was seen.
    Sign {
        /// Which.
        sign: ReadySign,
    },
    /// Something is wrong.
    Trouble {
        /// What.
        trouble: MixTrouble,
    },
}

impl MixAct {
    /// What it says, for a list of what was entered.
    pub fn fact(&self) -> Fact {
        match self {
            MixAct::Chosen { programme, .. } => {
                fact!("mixlog-chosen", programme = programme.name.clone())
            }
            MixAct::Measured { what, c } => {
                fact!("mixlog-measured", what = what.name(), c = Celsius(*c))
            }
            MixAct::Weighed { line, done: true } => fact!("mixlog-weighed", n = *line),
            MixAct::Weighed { line, .. } => fact!("mixlog-not-weighed", n = *line),
            MixAct::Step { step } => fact!("mixlog-step", n = *step),
            MixAct::More { step, minutes } => {
                fact!("mixlog-more", n = *step, more = Minutes(*minutes))
            }
            MixAct::Poured { part, c: Some(c) } => {
                fact!("mixlog-poured-at", n = *part, c = Celsius(*c))
            }
            MixAct::Poured { part, c: None } => fact!("mixlog-poured", n = *part),
            MixAct::Read { c } => fact!("mixlog-read", c = Celsius(*c)),
            MixAct::Sign { sign } => fact!("mixlog-seen", sign = sign.name()),
            MixAct::Trouble { trouble } => fact!("mixlog-seen", sign = trouble.name()),
        }
    }
    /// Whether it tells of the dough, rather than of getting ready.
    pub fn is_of_the_dough(&self) -> bool {
        !matches!(
            self,
            MixAct::Chosen { .. } | MixAct::Measured { .. } | MixAct::Weighed { .. }
        )
    }
}

/// A tap: which bowl, which run of it, when.
#[derive(Debug, Clone, PartialEq)]
pub struct MixTap {
    /// 0 the dough, else the preferment of that number.
    pub bowl: u16,
    /// Which run of it, from 1.
    pub run: u16,
    /// When.
    pub at: Timestamp,
    /// What.
    pub act: MixAct,
}

/// Why a tap is not kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum MixRefused {
    /// Nothing is in the bowl yet.
    NotBegun,
    /// It began: programme and machine stand.
    Begun,
    /// It is over.
    Ended,
    /// That step is on already, or past.
    OnAlready(u16),
    /// So many steps before it are not done.
    OutOfOrder(u16),
    /// Earlier than the step before it began.
    BeforeTheLast,
    /// That part is in.
    InAlready(u16),
    /// There is no such part.
    NoSuchPart(u16),
    /// There is no such run.
    NoSuchRun(u16),
    /// The run before it is not out.
    RunBefore(u16),
    /// The batch is closed.
    Closed,
    /// More minutes than a step may have.
    TooLong,
}

impl MixRefused {
    /// What to say.
    pub fn fact(&self) -> Fact {
        match self {
            MixRefused::NotBegun => fact!("mixtap-not-begun"),
            MixRefused::Begun => fact!("mixtap-begun"),
            MixRefused::Ended => fact!("mixtap-ended"),
            MixRefused::OnAlready(n) => fact!("mixtap-on-already", n = *n),
            MixRefused::OutOfOrder(n) => fact!("mixtap-out-of-order", n = *n),
            MixRefused::BeforeTheLast => fact!("mixtap-before-the-last"),
            MixRefused::InAlready(n) => fact!("mixtap-in-already", n = *n),
            MixRefused::NoSuchPart(n) => fact!("mixtap-no-such-part", n = *n),
            MixRefused::NoSuchRun(n) => fact!("mixtap-no-such-run", n = *n),
            MixRefused::RunBefore(n) => fact!("mixtap-run-before", n = *n),
            MixRefused::Closed => fact!("tap-closed"),
            MixRefused::TooLong => fact!("mixtap-too-long"),
        }
    }
}
