//! The database: connections when they are needed, and acts that are done again when another act got in their way.

use crate::{Result, StoreError};
use sqlx::{Connection as _, MySql, MySqlPool, Transaction};
use std::time::Duration;

/// Connections of one program. Cheap to clone.
#[derive(Debug, Clone)]
pub struct Db(MySqlPool);

/// One connection, given back when it is dropped.
pub type Connection = sqlx::pool::PoolConnection<MySql>;

/// A statement waits this long for another's lock, s; then its act is done again or the maker is asked to send again.
const LOCK_WAIT: &str = "SET SESSION innodb_lock_wait_timeout = 2";
/// An act that was in another's way is done again so often.
pub(crate) const TRIES: u32 = 4;

impl Db {
    /// Connections are opened when they are first needed, so that the program starts and goes on while the database is
    /// away. At most 16; who gets none within three seconds is told so.
    pub fn at(url: &str) -> Result<Db> {
        let options: sqlx::mysql::MySqlConnectOptions = url.parse()?;
        Ok(Db(sqlx::mysql::MySqlPoolOptions::new()
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
            .after_connect(|db, _| {
                Box::pin(async move {
                    sqlx::raw_sql(LOCK_WAIT).execute(db).await?;
                    Ok(())
                })
            })
            .connect_lazy_with(options)))
    }
    pub async fn acquire(&self) -> Result<Connection> {
        Ok(self.0.acquire().await?)
    }
    pub async fn begin(&self) -> Result<Transaction<'static, MySql>> {
        Ok(self.0.begin().await?)
    }
    pub async fn close(&self) {
        self.0.close().await;
    }
}

/// A pause before an act is done again, a little longer each time.
pub(crate) async fn pause(tries: u32) {
    tokio::time::sleep(Duration::from_millis(15 * u64::from(tries * tries) + 5)).await;
}

/// Whether an act may be done again, and how often it was: collisions only, and [`TRIES`] in all.
pub(crate) fn again(e: &StoreError, tries: &mut u32) -> bool {
    *tries += 1;
    matches!(e, StoreError::Collided(_)) && *tries < TRIES
}

/// Does an act in a transaction of its own; one that another act got in the way of is done again from its beginning.
/// The block ends in `Ok(value)`; the transaction is committed with it, and rolled back by any error.
#[macro_export]
macro_rules! act {
    ($db:expr, $tx:ident => $body:block) => {{
        let mut tries = 0;
        loop {
            let done: $crate::Result<_> = async {
                let mut tx = $db.begin().await?;
                let out = {
                    let $tx: &mut $crate::MySqlConnection = &mut tx;
                    let body: $crate::Result<_> = $body;
                    body?
                };
                tx.commit().await?;
                Ok(out)
            }
            .await;
            match done {
                Err(e) if $crate::may_try_again(&e, &mut tries).await => {}
                done => break done,
            }
        }
    }};
}
