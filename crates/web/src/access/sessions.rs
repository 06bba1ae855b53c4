//! Sessions in the database: what `tower-sessions` asks of a store. The secret of the cookie is kept as its hash.

use super::visit::{VISIT, Visit};
use jiff::Timestamp;
use std::collections::HashMap;
use store::Db;
use store::people::PersonId;
use store::people::pass::PassId;
use store::people::session::{self, NewSession};
use time::OffsetDateTime;
use tower_sessions::SessionStore;
use tower_sessions::session::{Id, Record};
use tower_sessions::session_store::{Error, Result};

/// The sessions of one database; every program on it knows them.
#[derive(Debug, Clone)]
pub struct Sessions(pub Db);

fn away(e: impl std::fmt::Display) -> Error {
    Error::Backend(e.to_string())
}

fn instant(t: OffsetDateTime) -> Timestamp {
    let ms = t.unix_timestamp_nanos() / 1_000_000;
    i64::try_from(ms)
        .ok()
        .and_then(|ms| Timestamp::from_millisecond(ms).ok())
        .unwrap_or(Timestamp::MAX)
}

fn visit_of(r: &Record) -> Option<Visit> {
    serde_json::from_value(r.data.get(VISIT)?.clone()).ok()
}

/// The record as a row: whose it is stands beside it, so that it ends with them.
async fn written<T>(
    r: &Record,
    write: impl AsyncFnOnce(&NewSession<'_>) -> store::Result<T>,
) -> Result<T> {
    let data = serde_json::to_string(&r.data).map_err(|e| Error::Encode(e.to_string()))?;
    let visit = visit_of(r);
    let new = NewSession {
        person: visit.as_ref().and_then(|v| v.person).map(PersonId),
        pass: visit.as_ref().and_then(|v| v.pass).map(PassId),
        data: &data,
        agent: visit.as_ref().map_or("", |v| &v.agent),
        ends_at: instant(r.expiry_date),
    };
    write(&new).await.map_err(away)
}

#[async_trait::async_trait]
impl SessionStore for Sessions {
    async fn create(&self, r: &mut Record) -> Result<()> {
        let mut db = self.0.acquire().await.map_err(away)?;
        loop {
            let secret = r.id.to_string();
            let begun = written(r, async |new| {
                session::begin(&mut db, &secret, new, Timestamp::now()).await
            });
            if begun.await? {
                return Ok(());
            }
            r.id = Id::default();
        }
    }
    async fn save(&self, r: &Record) -> Result<()> {
        let mut db = self.0.acquire().await.map_err(away)?;
        let secret = r.id.to_string();
        written(r, async |new| {
            session::keep(&mut db, &secret, new, Timestamp::now()).await
        })
        .await
    }
    async fn load(&self, id: &Id) -> Result<Option<Record>> {
        let mut db = self.0.acquire().await.map_err(away)?;
        let secret = id.to_string();
        let kept = session::of_secret(&mut db, &secret, Timestamp::now()).await;
        let Some(kept) = kept.map_err(away)? else {
            return Ok(None);
        };
        let data: HashMap<String, serde_json::Value> =
            serde_json::from_str(&kept.data).map_err(|e| Error::Decode(e.to_string()))?;
        let ends = i128::from(kept.ends_at.as_millisecond()) * 1_000_000;
        let expiry_date = OffsetDateTime::from_unix_timestamp_nanos(ends)
            .map_err(|e| Error::Decode(e.to_string()))?;
        Ok(Some(Record {
            id: *id,
            data,
            expiry_date,
        }))
    }
    async fn delete(&self, id: &Id) -> Result<()> {
        let mut db = self.0.acquire().await.map_err(away)?;
        session::end(&mut db, &id.to_string()).await.map_err(away)
    }
}
