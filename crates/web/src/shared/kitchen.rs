//! The kitchen of the request. Every handler receives it here and nowhere else; the gate put it there, with who asks.

use crate::App;
use crate::access::asker::Asker;
use crate::shared::error::AppError;
use crate::shared::form::SaidError;
use crate::shared::reckoned::Reckoned;
use crate::shared::tongue;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use craft::fact::Fact;
use craft::note::Note;
use craft::people::Right;
use craft::refusal::{FieldError, ValidationError};
use craft::rise::{Doubts, PrefermentRuns};
use craft::sheet::{SheetRequest, SheetResult, Sure, work_out, work_out_surely};
use jiff::tz::TimeZone;
use jiff::{Timestamp, Zoned};
use moka::sync::Cache;
use speech::Measures;
use speech::{Judgement, Reader};
use std::sync::{Arc, RwLock};
use std::time::Duration;
use store::kitchen::Kitchen;
use store::{Author, KitchenId};

/// The kitchen, with its clock and its measures.
#[derive(Debug, Clone)]
pub struct RequestKitchen {
    pub kitchen: Arc<Kitchen>,
    pub zone: TimeZone,
    /// When the request came: one present for all of its answer.
    pub now: Timestamp,
    pub measures: Measures,
    /// Who asks.
    pub asker: Arc<Asker>,
    /// Where answers are kept; outside of a server nowhere.
    reckoned: Option<Reckoned>,
}

impl RequestKitchen {
    pub fn of(kitchen: Kitchen, now: Timestamp) -> RequestKitchen {
        RequestKitchen {
            zone: TimeZone::get(&kitchen.usual.time_zone).unwrap_or(TimeZone::UTC),
            measures: Measures {
                temperature: kitchen.reads.temperature,
                weight: kitchen.reads.weight,
                length: kitchen.reads.length,
                language: tongue::language(),
            },
            asker: Arc::new(Asker::of_the_program(kitchen.id)),
            kitchen: Arc::new(kitchen),
            now,
            reckoned: None,
        }
    }
    /// The sheet of a request.
    ///
    /// Errors: as [`work_out`].
    pub fn worked_out(&self, r: &SheetRequest) -> Result<Arc<SheetResult>, ValidationError> {
        match &self.reckoned {
            Some(kept) => kept.sheet(r),
            None => work_out(r).map(Arc::new),
        }
    }
    /// The same, with how sure its window is.
    ///
    /// Errors: as [`work_out`].
    pub fn worked_out_surely(
        &self,
        r: &SheetRequest,
        doubts: &Doubts,
    ) -> Result<(SheetResult, Option<Sure>), ValidationError> {
        match &self.reckoned {
            Some(kept) => kept.surely(r, doubts),
            None => work_out_surely(r, doubts, &PrefermentRuns::default()),
        }
    }
    /// The present to the minute, for questions that ask whether there is time.
    pub fn now_at(&self) -> Timestamp {
        Timestamp::from_second(60 * self.minute()).unwrap_or(self.now)
    }
    pub fn id(&self) -> KitchenId {
        self.kitchen.id
    }
    /// Who writes what is asked for here.
    pub fn author(&self) -> Author<'_> {
        Author::of(self.id(), &self.asker.whom)
    }
    /// Who did something, as it stands beside it; nothing where nobody else could have.
    pub fn by(&self, name: &str) -> String {
        match self.asker.alone {
            true => String::new(),
            false => name.into(),
        }
    }
    /// Whether who asks may do that here.
    pub fn may(&self, right: Right) -> bool {
        self.asker.role().is_some_and(|r| r.may(right))
    }
    /// The minute of the present: what is drawn to the minute holds as long.
    pub fn minute(&self) -> i64 {
        self.now.as_second().div_euclid(60)
    }
    /// Who reads here: in the kitchen's units, on its clock.
    pub fn reader(&self) -> Reader<'_> {
        Reader {
            measures: self.measures,
            zone: &self.zone,
            now: Some(self.now),
        }
    }
    /// A fact as a sentence or a heading.
    pub fn say(&self, fact: &Fact) -> String {
        self.reader().say(fact)
    }
    /// A fact as a part of a sentence.
    pub fn words(&self, fact: &Fact) -> String {
        self.reader().words(fact)
    }
    /// What was refused, each in words.
    pub fn said(&self, errors: &[FieldError]) -> Vec<SaidError> {
        let one = |e: &FieldError| SaidError {
            field: e.field.clone(),
            message: self.say(&e.message),
        };
        errors.iter().map(one).collect()
    }
    /// What was refused, one sentence after the other.
    pub fn say_all(&self, errors: &[FieldError]) -> String {
        let said: Vec<String> = errors.iter().map(|e| self.say(&e.message)).collect();
        said.join(" ")
    }
    /// Judgements in words.
    pub fn judgements<'n>(&self, notes: impl IntoIterator<Item = &'n Note>) -> Vec<Judgement> {
        self.reader().judgements(notes)
    }
    /// An instant on the kitchen's clock.
    pub fn local(&self, t: Timestamp) -> Zoned {
        t.to_zoned(self.zone.clone())
    }
}

/// Kitchens as they were read last, with their clocks: they change rarely, and every page needs one.
#[derive(Debug)]
pub struct HeldKitchens(Cache<KitchenId, RequestKitchen>, RwLock<String>);

impl Default for HeldKitchens {
    fn default() -> Self {
        let cache = Cache::builder().max_capacity(Self::MOST);
        HeldKitchens(cache.time_to_live(Self::FRESH).build(), RwLock::default())
    }
}

impl HeldKitchens {
    /// So long one is believed.
    const FRESH: Duration = Duration::from_secs(5);
    const MOST: u64 = 256;

    /// It was changed here: the next page reads it anew.
    pub fn forget(&self, id: KitchenId) {
        self.0.invalidate(&id);
    }
    /// Whether the database is in another epoch than when it was read last.
    fn is_of_another_epoch(&self, epoch: &str) -> bool {
        let mut known = self.1.write().unwrap_or_else(|e| e.into_inner());
        let other = !known.is_empty() && *known != epoch;
        *known = epoch.to_string();
        other
    }
}

impl RequestKitchen {
    /// A kitchen for whoever asks, at a moment.
    pub async fn for_asker(
        app: &App,
        id: KitchenId,
        asker: &Arc<Asker>,
        now: Timestamp,
    ) -> Result<RequestKitchen, AppError> {
        let as_asked = |here: RequestKitchen| RequestKitchen {
            now,
            measures: Measures {
                language: asker.reads(),
                ..here.measures
            },
            asker: asker.clone(),
            ..here
        };
        if let Some(here) = app.kitchens.0.get(&id) {
            return Ok(as_asked(here));
        }
        let mut db = app.db.acquire().await?;
        let kitchen = store::kitchen::by_id(&mut db, id)
            .await?
            .ok_or(AppError::NoKitchen)?;
        if app.kitchens.is_of_another_epoch(&kitchen.epoch) {
            // The database was restored: copies of what was in it are of no use.
            app.kitchens.0.invalidate_all();
            app.askers.forget();
            app.held.clear();
            app.folds.clear();
            app.forecasts.clear();
            app.box_looks.clear();
            app.lessons.clear();
            app.places.clear();
            app.drawn.clear();
        }
        let here = RequestKitchen {
            reckoned: Some(app.reckoned.clone()),
            ..RequestKitchen::of(kitchen, now)
        };
        app.kitchens.0.insert(id, here.clone());
        Ok(as_asked(here))
    }
}

impl FromRequestParts<App> for RequestKitchen {
    type Rejection = AppError;
    async fn from_request_parts(parts: &mut Parts, _: &App) -> Result<Self, AppError> {
        let here = parts.extensions.get::<RequestKitchen>();
        here.cloned().ok_or(AppError::NoKitchen)
    }
}
