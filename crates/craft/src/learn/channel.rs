//! The few ways in which a kitchen can differ from the book, and how far that is expected.
//!
//! Each channel has a value per batch, 0 as the book says: kelvin, or the natural logarithm of a factor. Source: learning,
//! section 1.1 (set from practice notes and from the twin experiment; marks there).

use serde::{Deserialize, Serialize};
use strum::VariantArray;

/// A way to differ.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, VariantArray,
)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub enum Channel {
    /// How lively commercial yeast is, ln.
    #[serde(rename = "vig")]
    Yeast,
    /// How lively the leaven is, ln.
    #[serde(rename = "lev")]
    Leaven,
    /// How much warmer the fridge stands than planned, K.
    #[serde(rename = "F")]
    Fridge,
    /// How much warmer the room is than planned, K.
    #[serde(rename = "H")]
    Room,
    /// How much warmer the dough leaves the mixer than planned, K.
    #[serde(rename = "T0")]
    Dough,
    /// Gas in the cold, ln.
    #[serde(rename = "cold")]
    Cold,
    /// Growth of yeast and leaven, ln.
    #[serde(rename = "grow")]
    Growth,
    /// How long the gluten lasts, ln.
    #[serde(rename = "cap")]
    Gluten,
    /// Time that a shaped piece needs to relax, ln.
    #[serde(rename = "relax")]
    Relaxing,
    /// The ripeness that this maker calls ready, ln.
    #[serde(rename = "ready")]
    Ready,
    /// What the model gets wrong, as a factor on ripeness, ln.
    #[serde(rename = "disc")]
    Model,
    /// Bias of the fridge's thermometer, K.
    #[serde(rename = "bF")]
    FridgeBias,
    /// Bias of the room's thermometer, K.
    #[serde(rename = "bH")]
    RoomBias,
    /// Bias of the dough's thermometer, K.
    #[serde(rename = "bT")]
    DoughBias,
    /// Bias of readings of a marked tub, in ln(V−1).
    #[serde(rename = "tub")]
    TubBias,
}

/// So many there are.
pub const CHANNELS: usize = 15;
/// Those that a run must know; they come first.
pub(crate) const RUN_CHANNELS: usize = 7;

/// A value, or a slope, per channel.
pub type Offsets = [f64; CHANNELS];

/// What two batches must have in common for a channel to be one thing in both.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum SharedBy {
    /// Every batch of the kitchen shares all of it.
    Kitchen,
    /// The yeast out of one tin.
    Tin,
    /// One leaven.
    Leaven,
    /// One fridge.
    Fridge,
    /// One room.
    Room,
    /// One mixer.
    Mixer,
    /// One flour.
    Flour,
    /// One kind of dough.
    Path,
}

/// How far a channel is expected off, as standard deviations of its parts.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Expected {
    /// For good, in this kitchen.
    pub perm: f64,
    /// For as long as what it is shared by is the same.
    pub ent: f64,
    /// Drifting.
    pub slow: f64,
    /// How long the drift remembers, weeks.
    pub weeks: f64,
    /// From batch to batch.
    pub batch: f64,
    pub shared: SharedBy,
}

impl Channel {
    pub(crate) const ALL: &'static [Channel] = Channel::VARIANTS;

    /// Its place in [`Offsets`].
    pub(crate) const fn at(self) -> usize {
        self as usize
    }

    /// What is expected before anything is logged.
    pub(crate) const fn expected(self) -> Expected {
        use SharedBy::{Flour, Fridge, Kitchen, Leaven, Mixer, Path, Room, Tin};
        let (shared, perm, ent, slow, weeks, batch) = match self {
            Channel::Yeast => (Tin, 0.16, 0.16, 0.12, 8.0, 0.12),
            Channel::Leaven => (Leaven, 0.0, 0.40, 0.15, 4.0, 0.15),
            Channel::Fridge => (Fridge, 0.0, 1.30, 0.40, 10.0, 0.50),
            Channel::Room => (Room, 0.0, 0.80, 0.80, 10.0, 0.80),
            Channel::Dough => (Mixer, 0.0, 1.20, 0.0, 1.0, 0.80),
            Channel::Cold => (Kitchen, 0.28, 0.0, 0.0, 1.0, 0.0),
            Channel::Growth => (Kitchen, 0.25, 0.0, 0.0, 1.0, 0.0),
            Channel::Gluten => (Flour, 0.0, 0.25, 0.0, 1.0, 0.08),
            Channel::Relaxing => (Kitchen, 0.20, 0.0, 0.0, 1.0, 0.10),
            Channel::Ready => (Kitchen, 0.20, 0.0, 0.0, 1.0, 0.08),
            Channel::Model => (Path, 0.0, 0.15, 0.0, 1.0, 0.12),
            Channel::FridgeBias => (Kitchen, 0.90, 0.0, 0.0, 1.0, 0.0),
            Channel::RoomBias => (Kitchen, 0.70, 0.0, 0.0, 1.0, 0.0),
            Channel::DoughBias => (Kitchen, 0.90, 0.0, 0.0, 1.0, 0.0),
            Channel::TubBias => (Kitchen, 0.20, 0.0, 0.0, 1.0, 0.12),
        };
        Expected {
            perm,
            ent,
            slow,
            weeks,
            batch,
            shared,
        }
    }

    /// The step by which a response card puts it up and down; 0 for those that need no run (section 2.2).
    pub(crate) const fn step(self) -> f64 {
        match self {
            Channel::Yeast | Channel::Cold | Channel::Growth => 0.3,
            Channel::Leaven => 0.4,
            Channel::Fridge | Channel::Room => 1.5,
            Channel::Dough => 2.0,
            _ => 0.0,
        }
    }
}
