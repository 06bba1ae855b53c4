//! The boxes of a batch: the one place where the core is asked of them, and where the answer is kept while it holds.

use super::forecast::{Forecasts, Key, ahead, doubts};
use super::record::BatchRecord;
use crate::App;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::phrase;
use craft::refusal::ValidationError;
use craft::shape::ROOMY_GAP_CM;
use craft::shape::run::BoxKind;
use craft::shape::{HowOpened, Loss};
use craft::sheet::ahead::{AheadRequest, Measured, ShapeLook, ShapeQuestion, look_at_boxes};
use jiff::{SignedDuration, Timestamp};
use moka::sync::Cache;
use std::sync::Arc;

/// So long a look at the boxes holds while nothing is entered, s: minutes move it.
const HOLDS_S: i64 = 60;
const MOST: u64 = 256;

impl BatchRecord {
    /// Pieces that went into the oven.
    pub fn baked(&self) -> u32 {
        self.run.pizzas.len() as u32
    }
    /// From one pizza to the next: as it was timed, or as it usually is, s.
    pub fn pace_s(&self, here: &RequestKitchen) -> f64 {
        let (sheet, work) = (&self.batch.sheet, &here.kitchen.work);
        let usual = sheet
            .result
            .usual_pace_s(sheet.request.fire.as_deref(), work);
        let timed = self.run.summary().pace_s;
        timed.unwrap_or(usual).clamp(20.0, 3600.0)
    }
}

impl Larder {
    /// What balls usually go into here: the pantry's box that holds most, else one of the usual size.
    pub fn usual_box(&self) -> BoxKind {
        let own = self.0.boxes.iter().max_by_key(|b| b.facts.balls());
        own.map_or_else(
            || BoxKind::usual(phrase("batch-dough-box")),
            |b| b.facts.kind(ROOMY_GAP_CM),
        )
    }
}

/// The boxes of a batch as they are now.
///
/// Errors: what was entered stretches the dough beyond what is followed.
pub fn boxes_now(
    told: &BatchRecord,
    here: &RequestKitchen,
    larder: &Larder,
    loss: Loss,
) -> Result<ShapeLook, ValidationError> {
    let sheet = &told.batch.sheet;
    let happened = told.happened();
    let grown = |m: &Measured| matches!(m, Measured::Grown { .. });
    let lively = match happened.readings.iter().any(|r| grown(&r.measured)) {
        true => ahead(told, &sheet.request, &sheet.result, here, &[])?.lively,
        false => None,
    };
    let flour = larder.main_flour(&sheet.request.formula);
    let noted = flour.map_or(vec![], |f| f.facts.tests_beside(&told.batch.code));
    look_at_boxes(&ShapeQuestion {
        ahead: AheadRequest {
            request: &sheet.request,
            planned: &sheet.result,
            happened: &happened,
            now: told.batch.finished_at.unwrap_or(here.now),
            places: &[],
            doubts: doubts(here),
        },
        run: &told.shape,
        usual_box: larder.usual_box(),
        scale_g: larder.scales(here).kitchen_scale_g,
        loss,
        pace_s: told.pace_s(here),
        used: told.baked(),
        noted: &noted,
        lively,
    })
}

#[derive(Debug, Clone)]
struct HeldBoxes {
    look: Arc<ShapeLook>,
    from: Timestamp,
}

/// Looks at boxes that still hold, by what they hang on.
#[derive(Debug)]
pub struct BoxLooks(Cache<(Key, u32), HeldBoxes>);

impl Default for BoxLooks {
    fn default() -> Self {
        BoxLooks(Cache::new(MOST))
    }
}

impl BoxLooks {
    /// Throws all away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }
}

/// How long a pizza bakes that is opened narrower, by batch, revision and percent of its width: planned, then so, s.
#[derive(Debug)]
pub struct OpenedBakes(Cache<(u64, u64, u8), Option<(f64, f64)>>);

impl Default for OpenedBakes {
    fn default() -> Self {
        OpenedBakes(Cache::new(MOST))
    }
}

impl App {
    /// How long a pizza bakes that is opened so; `None` where that changes nothing, or no fire is
    /// planned.
    pub async fn bakes_opened_to(
        &self,
        told: &BatchRecord,
        how: &HowOpened,
    ) -> Result<Option<(f64, f64)>, AppError> {
        let size = how.size;
        let fire = told.batch.sheet.request.fire.as_deref();
        let Some(fire) = fire.filter(|_| how.bakes_otherwise()) else {
            return Ok(None);
        };
        let key = (
            told.batch.id.0,
            told.batch.revision,
            (100.0 * size).round() as u8,
        );
        if let Some(held) = self.opened_bakes.0.get(&key) {
            return Ok(held);
        }
        let work = || fire.plan.bakes_opened_to(size).ok();
        let bakes = self.models.at_length(work).await?;
        self.opened_bakes.0.insert(key, bakes);
        Ok(bakes)
    }

    /// The boxes of a batch that was divided tap by tap; `None` where nobody tapped, or where it cannot be followed.
    pub async fn boxes(
        &self,
        told: &BatchRecord,
        here: &RequestKitchen,
    ) -> Result<Option<Arc<ShapeLook>>, AppError> {
        match told.shape.is_told() {
            true => self.boxes_of(told, here).await,
            false => Ok(None),
        }
    }

    /// The same of any batch that is not over, however it is divided.
    pub async fn boxes_of(
        &self,
        told: &BatchRecord,
        here: &RequestKitchen,
    ) -> Result<Option<Arc<ShapeLook>>, AppError> {
        if told.is_ended() {
            return Ok(None);
        }
        let key = (Forecasts::key(told, here), told.baked());
        let fresh = |h: &HeldBoxes| {
            let age = here.now.duration_since(h.from);
            (SignedDuration::ZERO..SignedDuration::from_secs(HOLDS_S)).contains(&age)
        };
        if let Some(held) = self.box_looks.0.get(&key).filter(fresh) {
            return Ok(Some(held.look));
        }
        let larder = Larder::of(self, here).await?;
        let loss = craft::shape::learn_loss(&[]);
        let work = || boxes_now(told, here, &larder, loss);
        let Ok(look) = self.models.at_length(work).await? else {
            return Ok(None);
        };
        let look = Arc::new(look);
        let held = HeldBoxes {
            look: look.clone(),
            from: here.now,
        };
        self.box_looks.0.insert(key, held);
        Ok(Some(look))
    }
}
