//! Batches with all that was entered about them, folded.

use crate::App;
use crate::batch::record::{BatchRecord, SaidOfPlaces};
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use jiff::Timestamp;
use moka::sync::Cache;
use std::sync::Arc;
use store::KitchenId;
use store::batch::{self, ListedBatch};
use store::entry::{self, Observation};
use store::found::FindBakes;

/// Where all that is under way is wanted at once, so many at most.
const MOST_LIVE: u32 = 500;

/// Loads a batch of this kitchen; a code that does not exist is [`AppError::NoBatch`].
pub async fn told(app: &App, here: &RequestKitchen, code: &str) -> Result<BatchRecord, AppError> {
    let missing = || AppError::NoBatch(code.to_string());
    if !craft::code::is_code(code) {
        return Err(missing());
    }
    let mut db = app.db.acquire().await?;
    let found = batch::by_code(&mut db, here.id(), code, &app.held).await?;
    let told = app.folds.record(found.ok_or_else(missing)?);
    let mut one = [told];
    among_places(app, &mut db, here, &mut one).await?;
    let [told] = one;
    Ok(told)
}

/// What was said of a kitchen's places, as it was read last: it holds as long as nothing more was said.
#[derive(Debug)]
pub struct HeldPlaces(Cache<KitchenId, PlacesRead>);

#[derive(Debug, Clone)]
struct PlacesRead {
    revision: u64,
    from: Timestamp,
    said: Arc<Vec<Observation>>,
}

/// Kitchens whose places are held.
const MOST_KITCHENS: u64 = 256;

impl Default for HeldPlaces {
    fn default() -> Self {
        HeldPlaces(Cache::new(MOST_KITCHENS))
    }
}

impl HeldPlaces {
    /// Throws all away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }
    fn since(
        &self,
        id: KitchenId,
        from: Timestamp,
        revision: u64,
    ) -> Option<Arc<Vec<Observation>>> {
        let held = self.0.get(&id)?;
        (held.revision == revision && held.from <= from).then_some(held.said)
    }
}

/// Gives each batch what was said of the kitchen's places since it began: one statement for all, and none while nothing more
/// was said.
async fn among_places(
    app: &App,
    db: &mut store::Connection,
    here: &RequestKitchen,
    all: &mut [BatchRecord],
) -> Result<(), AppError> {
    // One that was closed with its forecast needs none, nor one that begins another day.
    let asks = |t: &&mut BatchRecord| t.places_count_from() <= here.now && t.went().is_none();
    let mut open: Vec<&mut BatchRecord> = all.iter_mut().filter(asks).collect();
    let Some(from) = open.iter().map(|t| t.places_count_from()).min() else {
        return Ok(());
    };
    let revision = open.iter().map(|t| t.batch.places).max().unwrap_or(0);
    let said = match app.places.since(here.id(), from, revision) {
        Some(said) => said,
        None => {
            let said = Arc::new(entry::of_places(db, here.id(), from).await?);
            let read = PlacesRead {
                revision,
                from,
                said: said.clone(),
            };
            app.places.0.insert(here.id(), read);
            said
        }
    };
    for told in &mut open {
        // Each sees what concerns it, whichever page it stands on.
        let first = told.places_count_from();
        told.places = SaidOfPlaces {
            from: said.partition_point(|o| o.at < first),
            all: said.clone(),
        };
    }
    Ok(())
}

/// Loads all batches that are not finished, the earliest served first.
pub async fn live(app: &App, here: &RequestKitchen) -> Result<Vec<BatchRecord>, AppError> {
    Ok(some_live(app, here, 0, MOST_LIVE).await?.told)
}

/// Batches of a page, folded.
#[derive(Debug, Default)]
pub struct Some {
    pub told: Vec<BatchRecord>,
    /// Code, name and cause of those whose row cannot be read.
    pub unreadable: Vec<(String, String)>,
    pub in_all: u64,
}

fn folded(app: &App, page: batch::BatchList) -> Some {
    let mut out = Some {
        in_all: page.in_all,
        ..Some::default()
    };
    for listed in page.listed {
        match listed {
            ListedBatch::Read(b) => out.told.push(app.folds.record(*b)),
            ListedBatch::Unreadable { code, name, why } => {
                tracing::error!(batch = code, cause = why, "a batch cannot be read");
                out.unreadable.push((code, name));
            }
        }
    }
    out
}

/// Loads batches that are not finished, a page of them.
pub async fn some_live(
    app: &App,
    here: &RequestKitchen,
    skip: u32,
    most: u32,
) -> Result<Some, AppError> {
    let mut db = app.db.acquire().await?;
    let page = batch::live(&mut db, here.id(), skip, most, &app.held).await?;
    let mut some = folded(app, page);
    among_places(app, &mut db, here, &mut some.told).await?;
    Ok(some)
}

/// Loads finished batches, the latest first.
pub async fn finished(
    app: &App,
    here: &RequestKitchen,
    skip: u32,
    most: u32,
) -> Result<Some, AppError> {
    let mut db = app.db.acquire().await?;
    let page = batch::finished(&mut db, here.id(), skip, most, &app.held).await?;
    Ok(folded(app, page))
}

/// Loads finished batches that are asked for, the latest first.
pub async fn found(
    app: &App,
    here: &RequestKitchen,
    find: &FindBakes,
    page: (u32, u32),
) -> Result<Some, AppError> {
    let mut db = app.db.acquire().await?;
    let page = store::found::bakes(&mut db, here.id(), find, page, &app.held).await?;
    Ok(folded(app, page))
}

/// The codes of batches in an address: `?b=TT-09&b=TT-10`, each once.
pub fn codes(query: Option<&str>) -> Vec<String> {
    let mut out: Vec<String> = vec![];
    for (name, code) in form_urlencoded::parse(query.unwrap_or("").as_bytes()) {
        if name == "b" && !out.iter().any(|c| *c == code) {
            out.push(code.into_owned());
        }
    }
    out
}
