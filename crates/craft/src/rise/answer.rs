//! What the rise models answer: the points of a run, its window, and a dose or an honest no.

use super::request::DoughKind;
use super::ripeness::{Handling, Label, RipenessPart};
use crate::note::Note;
use serde::{Deserialize, Serialize};

/// One point of the curves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RisePoint {
    /// Hours since the end of mixing.
    pub hours: f64,
    /// In its core, °C.
    pub core_c: f64,
    /// Its mean, °C.
    pub mean_c: f64,
    /// At its surface, °C.
    pub surface_c: f64,
    /// Where it lies, °C.
    pub place_c: f64,
    /// Living yeast, % fresh equivalent on flour.
    pub yeast_fresh_percent: f64,
    /// CO2 made, mmol per kg flour.
    pub gas_made_mmol: f64,
    /// Volume against just mixed.
    pub volume: f64,
    /// Volume above which cells break.
    pub volume_ceiling: f64,
    /// R; 1 is ready as intended.
    pub ripeness: f64,
    /// By the gas that this dose was meant to make.
    pub ripeness_dose: f64,
    /// By the gas in the piece since its last shaping.
    pub ripeness_piece: f64,
    /// By maturation.
    pub ripeness_mature: f64,
    /// Which of them holds it back.
    pub limiting: RipenessPart,
    /// Maturation, hours at 20 °C.
    pub matured_h: f64,
    /// Gluten reserve, 1 falling to 0 and below.
    pub reserve: f64,
    /// Index of acid, 0 for none.
    pub acid: f64,
    /// Sugar that yeast can take, mmol per kg flour.
    pub free_sugar_mmol: f64,
    /// Gas in the piece against a full rise.
    pub inflation: f64,
    /// How it stands.
    pub label: Label,
}

/// From when to when the dough is ready, h since the end of mixing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Window {
    /// From when it is ready, h since mixing.
    pub from_h: f64,
    /// Absent when it is still ready at the end of what was looked at (`looked_to_h`).
    pub to_h: Option<f64>,
    /// Until when it was looked at, h since mixing.
    pub looked_to_h: f64,
    /// From here on a dough is far past what was intended, whatever its label says; absent when not within what was looked at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub far_h: Option<f64>,
    /// What held it back until then.
    pub opens_by: RipenessPart,
    /// What ends it.
    pub shuts_by: Shuts,
}

/// What ends a window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Shuts {
    /// Too much gas: it would collapse.
    Gas,
    /// The gluten is spent.
    Gluten,
    /// The yeast has no sugar left: the pieces would not rise again.
    Sugar,
}

/// What a preferment handed over.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct PrefermentEnd {
    /// What it is.
    pub kind: DoughKind,
    /// 1 is ready as intended.
    pub ripeness: f64,
    /// Living yeast, % fresh equivalent on its flour.
    pub yeast_fresh_percent: f64,
    /// Of a levain, % fresh equivalent on its flour.
    pub leaven_fresh_percent: f64,
    /// Index of acid.
    pub acid: f64,
    /// Maturation, hours at 20 °C.
    pub matured_h: f64,
    /// Sugar that yeast can take, mmol per kg of its flour.
    pub free_sugar_mmol: f64,
    /// Sugar still bound in its starch, mmol per kg of its flour.
    pub bound_sugar_mmol: f64,
    /// CO2 that stays dissolved in it, mmol per kg of its flour.
    pub dissolved_mmol: f64,
    /// Volume against just mixed.
    pub volume: f64,
}

/// The answer to a rise request.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct RiseResult {
    /// Every step up to the end of the plan, thinned for the picture, the last one always there.
    pub points: Vec<RisePoint>,
    /// The same beyond the end of the plan, with the last stage prolonged.
    pub beyond: Vec<RisePoint>,
    /// The state at the end of the plan.
    pub at_bake: RisePoint,
    /// Absent when the dough never gets ready or its gluten is spent before the gas is there.
    pub window: Option<Window>,
    /// How it will behave at opening and in the oven.
    pub handling: Vec<Handling>,
    /// Gas made in the core against the mean; above 1.25 the middle runs ahead.
    pub core_ratio: f64,
    /// CO2 for a full rise, and in the piece since shaping, mmol per kg flour.
    pub gas_needed_mmol: f64,
    /// CO2 for a full rise of the piece since shaping, mmol per kg flour.
    pub gas_needed_in_piece_mmol: f64,
    /// How long the gluten lasts, h at 20 °C.
    pub gluten_capacity_h: f64,
    /// How each preferment ended.
    pub preferments: Vec<PrefermentEnd>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

/// Why no dose can be given.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum NoYeast {
    /// The preferment or leaven does it alone: shorten or cool.
    RipeWithoutAddedYeast,
    /// Too short, too cold, or the sugar is spent before balling.
    CannotReachEvenAtMax,
}

/// What to mind although a dose was found.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum YeastWarning {
    /// The hours are too few for a dough to relax or mature.
    TooShortToRelaxOrMature,
    /// The flour is too weak for the hours.
    FlourTooWeakForTheHours,
    /// The dose is too small to weigh.
    DoseTooSmallToWeigh,
}

/// The answer: a dose with its forecast, or an honest no.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "outcome", rename_all = "snake_case")]
pub enum YeastAnswer {
    /// A dose that is ready when it is wanted.
    Found {
        /// In the form that was asked for, % of flour. Good to about ×/÷ 1.6; show two digits.
        yeast_percent: f64,
        /// As fresh yeast, % of the flour.
        fresh_equivalent_percent: f64,
        /// What to know of it.
        warnings: Vec<YeastWarning>,
        /// What to mind about the dose; the forecast carries its own.
        notes: Vec<Note>,
        /// How the dough goes with it.
        forecast: Box<RiseResult>,
    },
    /// No dose does.
    None {
        /// Why.
        reason: NoYeast,
        /// The best gas ripeness that was found at the bake.
        ripeness_at_limit: f64,
        /// The same as judgements.
        notes: Vec<Note>,
    },
}
