//! The kitchen of the request. Every handler receives it here and nowhere else, so that sign-in will
//! change this file alone.

use crate::App;
use crate::shared::error::AppError;
use crate::shared::form::SaidError;
use crate::shared::reckoned::Reckoned;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use craft::fact::Fact;
use craft::note::Note;
use craft::refusal::{FieldError, ValidationError};
use craft::rise::{Doubts, PrefermentRuns};
use craft::sheet::{SheetRequest, SheetResult, Sure, work_out, work_out_surely};
use jiff::tz::TimeZone;
use jiff::{Timestamp, Zoned};
use speech::Measures;
use speech::{Judgement, Language, Reader};
use std::sync::{Arc, RwLock};
use std::time::{Duration, Instant};
use store::KitchenId;
use store::kitchen::Kitchen;

/// The kitchen, with its clock and its measures.
#[derive(Debug, Clone)]
pub struct RequestKitchen {
    pub kitchen: Arc<Kitchen>,
    pub zone: TimeZone,
    /// When the request came: one present for all of its answer.
    pub now: Timestamp,
    pub measures: Measures,
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
            },
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
    /// The minute of the present: what is drawn to the minute holds as long.
    pub fn minute(&self) -> i64 {
        self.now.as_second().div_euclid(60)
    }
    /// Who reads here: in the kitchen's units, on its clock.
    pub fn reader(&self) -> Reader<'_> {
        Reader {
            language: Language::English,
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

/// The kitchen as it was read last, with its clock: it changes rarely, and every page needs it.
#[derive(Debug, Default)]
pub struct LastKitchen(RwLock<Option<(Instant, RequestKitchen)>>, RwLock<String>);

impl LastKitchen {
    /// So long it is believed.
    const FRESH: Duration = Duration::from_secs(5);

    fn fresh(&self, now: Timestamp) -> Option<RequestKitchen> {
        let held = self.0.read().unwrap_or_else(|e| e.into_inner());
        held.as_ref()
            .filter(|(at, _)| at.elapsed() < Self::FRESH)
            .map(|(_, here)| RequestKitchen {
                now,
                ..here.clone()
            })
    }
    /// It was changed here: the next page reads it anew.
    pub fn forget(&self) {
        *self.0.write().unwrap_or_else(|e| e.into_inner()) = None;
    }
    /// Whether the database is in another epoch than when it was read last.
    fn is_of_another_epoch(&self, epoch: &str) -> bool {
        let mut known = self.1.write().unwrap_or_else(|e| e.into_inner());
        let other = !known.is_empty() && *known != epoch;
        *known = epoch.to_string();
        other
    }
    fn hold(&self, here: &RequestKitchen) {
        *self.0.write().unwrap_or_else(|e| e.into_inner()) = Some((Instant::now(), here.clone()));
    }
}

impl FromRequestParts<App> for RequestKitchen {
    type Rejection = AppError;
    async fn from_request_parts(_: &mut Parts, app: &App) -> Result<Self, AppError> {
        let now = Timestamp::now();
        if let Some(here) = app.kitchen.fresh(now) {
            return Ok(here);
        }
        let mut db = app.db.acquire().await?;
        let kitchen = store::kitchen::first(&mut db)
            .await?
            .ok_or(AppError::NoKitchen)?;
        if app.kitchen.is_of_another_epoch(&kitchen.epoch) {
            // The database was restored: copies of what was in it are of no use.
            app.held.clear();
            app.folds.clear();
            app.forecasts.clear();
            app.box_looks.clear();
            app.places.clear();
            app.drawn.clear();
        }
        let here = RequestKitchen {
            reckoned: Some(app.reckoned.clone()),
            ..RequestKitchen::of(kitchen, now)
        };
        app.kitchen.hold(&here);
        Ok(here)
    }
}
