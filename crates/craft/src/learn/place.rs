//! When a batch was made and of what: by that it is told how much two batches say of each other.
//!
//! Source: learning, sections 1 and 1.1.

use super::channel::{Channel, SharedBy};
use crate::rise::{Air, DoughKind, RiseRequest, Stage};
use serde::{Deserialize, Serialize};

/// What a batch was made with. An id left out equals another left out.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields, default)]
pub struct MadeWith {
    /// The tin that its yeast came from.
    pub tin: Option<String>,
    /// Its leaven.
    pub leaven: Option<String>,
    /// The fridge that it lay in.
    pub fridge: Option<String>,
    /// The room.
    pub room: Option<String>,
    /// What mixed it.
    pub mixer: Option<String>,
    /// Its flour.
    pub flour: Option<String>,
}

/// Of what kind a dough is, as far as the model may be wrong in a way of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct DoughPath {
    /// What decides it.
    pub by: PathBy,
    /// All its stages together take more than half a day.
    pub is_long: bool,
}

/// What decides the path of a dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum PathBy {
    /// A leaven raises it.
    Leaven,
    /// It lies in the cold.
    Cold,
    /// Neither.
    Room,
}

/// A stage planned below this is cold, °C.
const COLD_C: f64 = 14.0;
/// A dough of more than so many hours is long.
const LONG_H: f64 = 12.0;

/// The coldest that a stage is planned, °C.
fn lowest_c(s: &Stage) -> f64 {
    match &s.place_profile_c {
        Some(p) => p.iter().copied().fold(f64::INFINITY, f64::min),
        None => s.place_at(0.0),
    }
}

/// Whether any stage of this dough is planned cold.
pub(crate) fn is_cold(r: &RiseRequest) -> bool {
    r.lasting_stages().iter().any(|s| lowest_c(s) < COLD_C)
}

/// Whether a leaven raises it, by itself or by a levain.
pub(crate) fn has_leaven(r: &RiseRequest) -> bool {
    r.leaven_fraction > 0.0
        || r.preferments
            .iter()
            .any(|p| p.recipe.kind == DoughKind::Levain || p.recipe.leaven_fraction > 0.0)
}

/// Whether a stage lies in a fridge, or in the room; neither when frozen.
pub(crate) fn lies_in(s: &Stage, fridge: bool) -> bool {
    match s.air {
        Air::Fridge | Air::Fan => fridge,
        Air::Room => !fridge,
        Air::Freezer => false,
    }
}

impl DoughPath {
    /// The path of a dough.
    pub fn of(r: &RiseRequest) -> DoughPath {
        DoughPath {
            by: if has_leaven(r) {
                PathBy::Leaven
            } else if is_cold(r) {
                PathBy::Cold
            } else {
                PathBy::Room
            },
            is_long: r.total_hours() > LONG_H,
        }
    }
}

/// A batch among others: its week, what it was made with, its path.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Among {
    pub week: f64,
    pub made_with: MadeWith,
    pub path: DoughPath,
}

impl Among {
    fn shares(&self, other: &Among, by: SharedBy) -> bool {
        let (a, b) = (&self.made_with, &other.made_with);
        match by {
            SharedBy::Kitchen => true,
            SharedBy::Tin => a.tin == b.tin,
            SharedBy::Leaven => a.leaven == b.leaven,
            SharedBy::Fridge => a.fridge == b.fridge,
            SharedBy::Room => a.room == b.room,
            SharedBy::Mixer => a.mixer == b.mixer,
            SharedBy::Flour => a.flour == b.flour,
            SharedBy::Path => self.path == other.path,
        }
    }
}

/// How much a channel of two batches is expected to have in common: the lasting part of their covariance.
pub(crate) fn lasting(c: Channel, a: &Among, b: &Among) -> f64 {
    let e = c.expected();
    let mut k = e.perm * e.perm;
    if a.shares(b, e.shared) {
        let apart = (a.week - b.week).abs();
        k += e.ent * e.ent + e.slow * e.slow * (-apart / e.weeks).exp();
    }
    k
}

/// The part of its own, that no other batch shares.
pub(crate) fn own(c: Channel) -> f64 {
    let batch = c.expected().batch;
    batch * batch
}
