//! A batch from now on: the one place where its forecast is asked of the core and kept. It is reckoned when something was
//! entered or time made it untrue, not for each page.

use super::record::BatchRecord;
use crate::App;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use craft::path::Place;
use craft::refusal::ValidationError;
use craft::rise::Doubts;
use craft::sheet::ahead::{Ahead, AheadRequest, PartWay, Parted, from_now, part};
use craft::sheet::{SheetRequest, SheetResult, carry_numbers, work_out};
use jiff::{SignedDuration, Timestamp};
use moka::sync::Cache;
use std::sync::Arc;
use store::batch::BatchId;
use store::entry::{Observation, Went};

/// So long a forecast holds while a step is overdue or the serve time is missed: then each minute moves it.
const MOVING_S: i64 = 120;
/// So many are held at most.
const MOST: u64 = 512;

/// How far off the kitchen's temperatures may be.
pub fn doubts(here: &RequestKitchen) -> Doubts {
    let rhythm = &here.kitchen.rhythm;
    Doubts {
        fridge_k: rhythm.fridge_off_k,
        room_k: rhythm.room_off_k,
        ..Doubts::default()
    }
}

/// The plan of a batch for a request, its steps numbered as before.
///
/// Errors: the fields of the request outside their ranges.
pub fn replanned(told: &BatchRecord, r: &SheetRequest) -> Result<SheetResult, ValidationError> {
    let mut result = work_out(r)?;
    carry_numbers(&told.batch.sheet.result.steps, &mut result.steps);
    Ok(result)
}

/// The forecast of a batch from now on by a plan, with what can still be done in these places.
///
/// Errors: what was entered stretches it beyond what is followed.
pub fn ahead(
    told: &BatchRecord,
    r: &SheetRequest,
    planned: &SheetResult,
    here: &RequestKitchen,
    places: &[Place],
) -> Result<Ahead, ValidationError> {
    // What is still to do falls into the hours of today.
    let request = SheetRequest {
        life: here.kitchen.rhythm.life.clone(),
        ..r.clone()
    };
    from_now(&AheadRequest {
        request: &request,
        planned,
        happened: &told.happened(),
        // One that was closed before its forecast was kept goes on no further than that.
        now: told.batch.finished_at.unwrap_or(here.now),
        places,
        doubts: doubts(here),
    })
}

/// The two requests of a dough of which some pieces go another way from now on.
///
/// Errors: what cannot be, at the fields of that question.
pub fn parted(
    told: &BatchRecord,
    here: &RequestKitchen,
    (n, way, serve_at): (u32, PartWay, Timestamp),
) -> Result<Parted, ValidationError> {
    let sheet = &told.batch.sheet;
    let asked = AheadRequest {
        request: &sheet.request,
        planned: &sheet.result,
        happened: &told.happened(),
        now: here.now,
        places: &[],
        doubts: doubts(here),
    };
    part(&asked, n, way, serve_at)
}

/// A batch as it stands now, and until when that holds: its plan, with the forecast from now on in it once anything of it
/// began or should have begun. One that cannot be followed shows its plan.
fn reckoned(told: &BatchRecord, here: &RequestKitchen) -> (Arc<SheetResult>, Timestamp) {
    let sheet = &told.batch.sheet;
    if let Some(went) = told.went() {
        let result = SheetResult {
            mixed_at: went.mixed_at,
            window: went.window,
            rise_at_serve: went.rise_at_serve,
            reserve_at_serve: went.reserve_at_serve,
            label_at_serve: went.label_at_serve,
            clocks: went.clocks.clone(),
            // It is over: nothing is left to judge but its bake, and nothing to expect.
            notes: vec![],
            by_log: None,
            ..SheetResult::clone(&sheet.result)
        };
        return (Arc::new(result), Timestamp::MAX);
    }
    if told.batch.cancelled_at.is_some() {
        // It was given up: nothing follows it.
        return (sheet.result.clone(), Timestamp::MAX);
    }
    if !told.is_under_way(here.now) {
        // Until it should begin, or what is read of places begins to count.
        let from = told.places_count_from();
        let until = [from, sheet.result.start_at]
            .into_iter()
            .find(|t| *t > here.now);
        return (sheet.result.clone(), until.unwrap_or(here.now));
    }
    let soon = here.now + SignedDuration::from_secs(MOVING_S);
    match ahead(told, &sheet.request, &sheet.result, here, &[]) {
        Ok(a) => {
            let goes = sheet.result.as_it_goes(&a);
            (Arc::new(goes), holds_until(&a, here.now, soon))
        }
        Err(_) => (sheet.result.clone(), soon),
    }
}

/// Until when a forecast says the same while nothing is entered: the next step that is due, or soon where time moves it.
fn holds_until(a: &Ahead, now: Timestamp, soon: Timestamp) -> Timestamp {
    if !a.remedies.is_empty() || a.due.iter().any(|d| d.at <= now) {
        return soon;
    }
    let next = a.due.iter().map(|d| d.at).min();
    next.unwrap_or(soon)
}

/// A batch as it stands now.
pub fn as_it_goes(told: &BatchRecord, here: &RequestKitchen) -> Arc<SheetResult> {
    reckoned(told, here).0
}

/// How a batch went by now, to be kept when it is closed.
pub fn went(told: &BatchRecord, here: &RequestKitchen) -> Went {
    let mut told = told.clone();
    told.batch.finished_at.get_or_insert(here.now);
    let goes = as_it_goes(&told, here);
    Went {
        mixed_at: goes.mixed_at,
        window: goes.window,
        rise_at_serve: goes.rise_at_serve,
        reserve_at_serve: goes.reserve_at_serve,
        label_at_serve: goes.label_at_serve,
        clocks: goes.clocks.clone(),
    }
}

/// What a forecast hangs on: the batch, its plan, the kitchen's revision, what was said of the batch and of places. Taps at
/// the oven move nothing of it.
pub(super) type Key = (BatchId, u32, u64, Newest, Newest);

/// How many entries there are, how many were taken back, and the last of them.
pub(super) type Newest = (usize, usize, u64);

#[derive(Debug, Clone)]
struct Held {
    result: Arc<SheetResult>,
    from: Timestamp,
    until: Timestamp,
}

/// Forecasts that still hold.
#[derive(Debug)]
pub struct Forecasts(Cache<Key, Held>);

impl Default for Forecasts {
    fn default() -> Self {
        Forecasts(Cache::new(MOST))
    }
}

impl Forecasts {
    /// Throws all away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }

    pub(super) fn key(told: &BatchRecord, here: &RequestKitchen) -> Key {
        let b = &told.batch;
        let newest = |all: &[Observation]| all.iter().map(|o| o.id).max().unwrap_or(0);
        let (seen, back) = (&b.entries.seen, &b.entries.taken_back);
        let said = (seen.len(), back.len(), newest(seen));
        let places = told.places.as_slice();
        let places = (places.len(), 0, newest(places));
        (b.id, b.plan, here.kitchen.revision, said, places)
    }

    fn held(&self, key: &Key, now: Timestamp) -> Option<Arc<SheetResult>> {
        let held = self.0.get(key)?;
        (held.from <= now && now < held.until).then_some(held.result)
    }
}

impl App {
    /// A batch as it stands now; reckoned at length where nothing held says it.
    pub async fn goes(
        &self,
        told: &BatchRecord,
        here: &RequestKitchen,
    ) -> Result<Arc<SheetResult>, AppError> {
        let key = Forecasts::key(told, here);
        if let Some(held) = self.forecasts.held(&key, here.now) {
            return Ok(held);
        }
        let (result, until) = self.models.at_length(|| reckoned(told, here)).await?;
        let held = Held {
            result: result.clone(),
            from: here.now,
            until,
        };
        self.forecasts.0.insert(key, held);
        Ok(result)
    }
}

impl BatchRecord {
    /// The batch with its forecast in place of the plan's figures.
    pub fn following(mut self, goes: &Arc<SheetResult>) -> BatchRecord {
        self.batch.sheet = Arc::new(store::batch::KeptSheet {
            request: self.batch.sheet.request.clone(),
            result: goes.clone(),
        });
        self
    }
}
