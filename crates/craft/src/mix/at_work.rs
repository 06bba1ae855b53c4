//! At the mixer: what is asked of one run, and all that a maker is told of it.

use super::run::MixRun;
use super::{
    Aimed, BlendFrom, Blended, BowlTrace, Development, MixHazard, MixProgramme, Mixing, TracePoint,
    UsualMinutes, WaterRequest, WaterResult, WorkedIn,
};
use crate::note::Note;
use jiff::Timestamp;

/// What is asked of one run.
#[derive(Debug, Clone)]
pub struct MixQuestion<'a> {
    /// What goes in, with the temperatures of now.
    pub water: WaterRequest,
    /// By which programme, in which machine.
    pub by: WorkedIn<'a>,
    /// What water is made of.
    pub blend_from: BlendFrom,
    /// Strength of the flour, W.
    pub w: f64,
    /// Water of the whole dough, % of all flour.
    pub hydration_percent: f64,
    /// The lightest piece that the dough is divided into, g; none of a preferment.
    pub piece_g: Option<f64>,
    /// What this mixer and flour usually need.
    pub usual: UsualMinutes,
    /// How warm the water was measured to be, °C.
    pub water_measured_c: Option<f64>,
    /// What was tapped.
    pub run: &'a MixRun,
    /// The present.
    pub now: Timestamp,
}

/// The water that is still to come.
#[derive(Debug, Clone, PartialEq)]
pub struct NextWater {
    /// Parts that are not in yet, from 1.
    pub parts: Vec<u16>,
    /// All of them at one temperature.
    pub all: Aimed,
    /// The next alone, the others as they were planned.
    pub next_only: Aimed,
}

/// What is known of a run now.
#[derive(Debug, Clone, PartialEq)]
pub struct MixLook {
    /// The water, as the sheet says it.
    pub water: WaterResult,
    /// What it is made of; nothing where none is poured.
    pub blended: Option<Blended>,
    /// The steps as they were laid out, with their grams.
    pub laid: Mixing,
    /// The steps as they go.
    pub goes: Mixing,
    /// What is left of them, with the dough as it was last read; before any reading, all of them.
    pub left: Mixing,
    /// Their course from the first addition.
    pub trace: BowlTrace,
    /// Minutes from the begin; none before it.
    pub now_min: Option<f64>,
    /// From the last reading, or from now, to the end.
    pub ahead: Vec<TracePoint>,
    /// The dough now, as the last reading and the course since have it, °C.
    pub dough_now_c: Option<f64>,
    /// The dough at the end, °C.
    pub end_c: f64,
    /// How sure that is, K.
    pub end_sd_k: f64,
    /// Whether a reading of this run speaks for it.
    pub measured: bool,
    /// What a minute more adds, K.
    pub one_minute_more_k: Option<f64>,
    /// Minute from the begin at which the dough passes what is wanted and a degree.
    pub passes_warm_min: Option<f64>,
    /// How the end answers the water that is to come; none where all is in.
    pub next: Option<NextWater>,
    /// How far the gluten is.
    pub development: Development,
    /// Readings that do not fit, by their place.
    pub doubtful: Vec<usize>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

/// A reading further off its course does not fit, K.
pub(super) const DOUBTFUL_K: f64 = 2.5;

/// So near to what is wanted a dough is right, K.
pub const RIGHT_K: f64 = 1.0;
/// Who lifts more is told so, kg.
const HEAVY_KG: f64 = 20.0;

impl MixLook {
    /// Hazards of the work as it is done now: the programme's own, and those of what is lifted and poured.
    pub fn hazards(&self, programme: &MixProgramme) -> Vec<MixHazard> {
        let mut all = programme.hazards.clone();
        all.retain(|h| *h != MixHazard::Lifting && *h != MixHazard::RawFlour);
        if self.laid.contents().weight_g > 1000.0 * HEAVY_KG {
            all.push(MixHazard::Lifting);
        }
        if let Some(b) = self.blended {
            if b.kettle_g > 0.0 {
                all.push(MixHazard::Scald);
            }
            if b.ice_g > 0.0 {
                all.push(MixHazard::CrushedIce);
            }
        }
        all.push(MixHazard::RawFlour);
        all
    }
}
