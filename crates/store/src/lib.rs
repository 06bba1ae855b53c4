//! Store: what Slow Rise keeps, in MariaDB. One file per aggregate; no rule of the craft lives here.
//!
//! Every statement is checked against the schema when it is compiled, and every function but those of
//! [`kitchen`] takes the [`KitchenId`] whose rows it may touch.

pub mod batch;
pub mod formula;
mod held;
mod instant;
pub mod kitchen;
mod lifted;
pub mod observation;
pub mod pantry;
pub mod tap;

pub use held::Held;
pub use kitchen::KitchenId;
pub use sqlx::{MySqlConnection, MySqlPool};

use sqlx::Connection;
use std::time::Duration;

static MIGRATOR: sqlx::migrate::Migrator = sqlx::migrate!("../../migrations");

/// What can go wrong in the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// The database does not answer, or lost the connection; what was asked may be asked again.
    #[error("the database does not answer: {0}")]
    Away(#[source] sqlx::Error),
    #[error("the database refused: {0}")]
    Refused(#[source] sqlx::Error),
    #[error("a kept row cannot be read: {0}")]
    Unreadable(String),
    #[error("the schema could not be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl From<sqlx::Error> for StoreError {
    fn from(e: sqlx::Error) -> Self {
        use sqlx::Error::{Io, PoolClosed, PoolTimedOut, Protocol};
        match &e {
            Io(_) | PoolTimedOut | PoolClosed | Protocol(_) => StoreError::Away(e),
            // 1053 shutdown in progress, 1927 connection killed, 1290/1040 not taking connections now.
            sqlx::Error::Database(d) => match d
                .try_downcast_ref::<sqlx::mysql::MySqlDatabaseError>()
            {
                Some(m) if matches!(m.number(), 1053 | 1927 | 1290 | 1040) => StoreError::Away(e),
                _ => StoreError::Refused(e),
            },
            _ => StoreError::Refused(e),
        }
    }
}

pub type Result<T> = std::result::Result<T, StoreError>;

/// A pool that opens its connections when they are needed, so that the program starts and goes on while
/// the database is away.
pub fn pool(url: &str) -> Result<MySqlPool> {
    let options: sqlx::mysql::MySqlConnectOptions = url.parse()?;
    Ok(sqlx::mysql::MySqlPoolOptions::new()
        .max_connections(16)
        .acquire_timeout(Duration::from_secs(3))
        // A connection that was busy a moment ago need not be asked whether it lives.
        .test_before_acquire(false)
        .before_acquire(|db, meta| {
            Box::pin(async move {
                if meta.idle_for > Duration::from_secs(1) {
                    db.ping().await?;
                }
                Ok(true)
            })
        })
        .connect_lazy_with(options))
}

/// Brings the schema up to date. Safe to run twice and by two programs at once.
pub async fn migrate(pool: &MySqlPool) -> Result<()> {
    let mut db = pool.acquire().await?;
    // sqlx's own lock waits "for ever" with a negative time, which MariaDB takes as no lock at all.
    let got =
        sqlx::query_scalar!(r#"SELECT GET_LOCK(CONCAT(DATABASE(), '.migrate'), 60) AS "got: i64""#)
            .fetch_one(&mut *db)
            .await?;
    if got != Some(1) {
        return Err(StoreError::Unreadable(
            "another program is still bringing the schema up to date".into(),
        ));
    }
    let done = MIGRATOR.run(&mut *db).await;
    sqlx::query!("DO RELEASE_LOCK(CONCAT(DATABASE(), '.migrate'))")
        .execute(&mut *db)
        .await?;
    Ok(done?)
}

/// Whether the database answers.
pub async fn ping(pool: &MySqlPool) -> Result<()> {
    sqlx::query!("SELECT 1 AS one").fetch_one(pool).await?;
    Ok(())
}

fn is_duplicate(e: &sqlx::Error) -> bool {
    matches!(e, sqlx::Error::Database(d) if d.is_unique_violation())
}
