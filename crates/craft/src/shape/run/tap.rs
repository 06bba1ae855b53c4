//! What is tapped at the scale and at the boxes, and why a tap is refused.

use crate::fact;
use crate::fact::{Fact, Value, tenth};
use crate::path::Spot;
use crate::refusal::{Check, ValidationError};
use crate::shape::{BoxSpace, BoxedBall, PressSign, ROOMY_GAP_CM, TrayWork};
use crate::units::Grams;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// How much flour the bench gives a ball that is balled again.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum BenchFlour {
    /// Hardly any.
    Gentle,
    /// As usual.
    Usual,
    /// A sticky dough takes more.
    Sticky,
}

impl BenchFlour {
    /// % of the dough's flour (mixing and shaping, section 12).
    pub fn percent(self) -> f64 {
        match self {
            BenchFlour::Gentle => 2.0,
            BenchFlour::Usual => 3.0,
            BenchFlour::Sticky => 5.0,
        }
    }
}

/// What balls lie in: a copy, so that no later change of the pantry moves them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BoxKind {
    /// As its owner calls it.
    pub name: String,
    /// Inside, cm; a round one as long as it is wide.
    pub length_cm: f64,
    /// Inside, cm.
    pub width_cm: f64,
    /// Inside, cm.
    pub height_cm: f64,
    /// It is round.
    #[serde(default)]
    pub round: bool,
    /// Between fresh balls, cm.
    pub gap_cm: f64,
}

impl BoxKind {
    /// The box that balls go into where a kitchen described none, under the name that it is shown by.
    pub fn usual(name: impl Into<String>) -> BoxKind {
        BoxKind {
            name: name.into(),
            length_cm: 60.0,
            width_cm: 40.0,
            height_cm: 8.0,
            round: false,
            gap_cm: ROOMY_GAP_CM,
        }
    }
    /// Room that balls of a dough take in it.
    pub fn space(&self, ball: BoxedBall) -> BoxSpace {
        BoxSpace {
            ball_g: ball.ball_g,
            volume: ball.volume,
            hydration_percent: ball.hydration_percent,
            gap_cm: self.gap_cm,
            length_cm: self.length_cm,
            width_cm: self.width_cm,
            round: self.round,
        }
    }
}

/// What was tapped.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "act", rename_all = "snake_case")]
pub enum ShapeAct {
    /// The whole dough on the scale.
    Whole {
        /// What it reads, g.
        g: f64,
    },
    /// How it is divided.
    Divided {
        /// So many pieces.
        count: u32,
        /// Of so much each, g.
        ball_g: f64,
        /// How many the plan had then.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        of: Option<u32>,
    },
    /// What the balls go into.
    Boxed {
        /// The box.
        into: BoxKind,
    },
    /// A piece went into its place; without a weight where nobody weighed it.
    Piece {
        /// What the scale said, g.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        g: Option<f64>,
    },
    /// A ball was pressed with a finger.
    Pressed {
        /// Which box, from 1.
        number: u16,
        /// What was seen.
        sign: PressSign,
    },
    /// A box went to another place.
    Moved {
        /// Which, from 1.
        number: u16,
        /// Where.
        to: Spot,
    },
    /// A box stands with another above and below it, or no more.
    Stacked {
        /// Which, from 1.
        number: u16,
        /// Whether it does.
        stacked: bool,
    },
    /// The balls of a box have a skin.
    Skin {
        /// Which, from 1.
        number: u16,
    },
    /// The balls of a box were balled again.
    Reballed {
        /// Which, from 1.
        number: u16,
        /// With how much flour.
        bench: BenchFlour,
        /// Tightly.
        #[serde(default)]
        tight: bool,
    },
    /// Something was done to a dough in its tray.
    Tray {
        /// Which, from 1.
        number: u16,
        /// What.
        did: TrayWork,
    },
}

impl ShapeAct {
    /// The box that it is about, from 1.
    pub fn number(&self) -> Option<u16> {
        match self {
            ShapeAct::Pressed { number, .. }
            | ShapeAct::Moved { number, .. }
            | ShapeAct::Stacked { number, .. }
            | ShapeAct::Skin { number }
            | ShapeAct::Reballed { number, .. }
            | ShapeAct::Tray { number, .. } => Some(*number),
            _ => None,
        }
    }
    /// What it says, for a list of what was entered.
    pub fn fact(&self) -> Fact {
        match self {
            ShapeAct::Whole { g } => fact!("shapelog-whole", g = Grams(tenth(*g))),
            ShapeAct::Divided { count, ball_g, .. } => {
                fact!("shapelog-divided", n = *count, g = Grams(tenth(*ball_g)))
            }
            ShapeAct::Boxed { into: kind } => fact!("shapelog-boxed", name = kind.name.as_str()),
            ShapeAct::Piece { g: Some(g) } => fact!("shapelog-piece", g = Grams(tenth(*g))),
            ShapeAct::Piece { g: None } => fact!("shapelog-piece-unweighed"),
            ShapeAct::Pressed { number, sign } => {
                fact!("shapelog-pressed", n = *number, sign = sign.name())
            }
            ShapeAct::Moved { number, to } => {
                fact!("shapelog-moved", n = *number, place = to.name())
            }
            ShapeAct::Stacked {
                number,
                stacked: true,
            } => fact!("shapelog-stacked", n = *number),
            ShapeAct::Stacked { number, .. } => fact!("shapelog-unstacked", n = *number),
            ShapeAct::Skin { number } => fact!("shapelog-skin", n = *number),
            ShapeAct::Reballed { number, .. } => fact!("shapelog-reballed", n = *number),
            ShapeAct::Tray { number, did } => {
                fact!("shapelog-tray", n = *number, did = did.name())
            }
        }
    }
    /// Refuses numbers that no dough, scale or box has.
    ///
    /// Errors: [`ValidationError`] with every field outside its range.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        let g = Value::Grams;
        match self {
            ShapeAct::Whole { g: whole } => {
                c.range("g", fact!("f-dough-weighed"), *whole, 50.0, 300_000.0, g);
            }
            ShapeAct::Divided { count, ball_g, .. } => {
                let n = |n: f64| Value::Count(n as i64);
                let pieces = f64::from(*count);
                c.range("count", fact!("f-pieces-divided"), pieces, 1.0, 2_000.0, n);
                c.range("ball_g", fact!("f-piece"), *ball_g, 20.0, 3_000.0, g);
            }
            ShapeAct::Piece { g: Some(piece) } => {
                c.range("g", fact!("f-piece"), *piece, 5.0, 6_000.0, g);
            }
            ShapeAct::Boxed { into: kind } => {
                let side = fact!("f-box-side");
                for (field, cm) in [("length_cm", kind.length_cm), ("width_cm", kind.width_cm)] {
                    c.range(field, side.clone(), cm, 10.0, 200.0, Value::Cm);
                }
                let (high, gap) = (fact!("f-box-height"), fact!("f-box-gap"));
                c.range("height_cm", high, kind.height_cm, 2.0, 60.0, Value::Cm);
                c.range("gap_cm", gap, kind.gap_cm, 0.5, 15.0, Value::Cm);
            }
            _ => {}
        }
        c.done()
    }
}

/// A tap, and when.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapeTap {
    /// When.
    pub at: Timestamp,
    /// What.
    pub act: ShapeAct,
}

/// Why a tap is not kept.
#[derive(Debug, Clone, PartialEq)]
pub enum ShapeRefused {
    /// All pieces are made.
    AllMade(u32),
    /// The pieces would weigh more than the whole, g.
    MoreThanTheWhole(f64),
    /// So many are made already.
    FewerThanMade(u32),
    /// There is no such box.
    NoSuchBox(u16),
    /// Nothing is in that box yet.
    EmptyBox(u16),
    /// What is frozen is neither pressed nor balled.
    Frozen(u16),
    /// Another box is no choice while balls lie in these.
    InTheirBoxes,
    /// It lies there already.
    ThereAlready(u16),
    /// The dough of this tray reaches the corners already.
    AtTheCorners(u16),
    /// Balls lie in boxes: there is no tray.
    NoTrays,
}

impl ShapeRefused {
    /// What to say.
    pub fn fact(&self) -> Fact {
        match self {
            ShapeRefused::AllMade(n) => fact!("shapetap-all-made", n = *n),
            ShapeRefused::MoreThanTheWhole(g) => {
                fact!("shapetap-more-than-the-whole", left = Grams(*g))
            }
            ShapeRefused::FewerThanMade(n) => fact!("shapetap-fewer-than-made", n = *n),
            ShapeRefused::NoSuchBox(n) => fact!("shapetap-no-such-box", n = *n),
            ShapeRefused::EmptyBox(n) => fact!("shapetap-empty-box", n = *n),
            ShapeRefused::Frozen(n) => fact!("shapetap-frozen", n = *n),
            ShapeRefused::InTheirBoxes => fact!("shapetap-in-their-boxes"),
            ShapeRefused::ThereAlready(n) => fact!("shapetap-there-already", n = *n),
            ShapeRefused::AtTheCorners(n) => fact!("shapetap-at-the-corners", n = *n),
            ShapeRefused::NoTrays => fact!("shapetap-no-trays"),
        }
    }
}
