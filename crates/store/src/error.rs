//! What can go wrong in the store, told apart by what whoever asked can do about it.

/// What can go wrong in the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// The database does not answer, or lost the connection; what was asked may be asked again.
    #[error("the database does not answer: {0}")]
    Away(#[source] sqlx::Error),
    /// Another act got in the way, or there is no room: nothing was written, and it may be sent again.
    #[error("another act was in the way: {0}")]
    Collided(#[source] sqlx::Error),
    #[error("the database has no room: {0}")]
    Full(#[source] sqlx::Error),
    #[error("the database refused: {0}")]
    Refused(#[source] sqlx::Error),
    #[error("a kept row cannot be read: {0}")]
    Unreadable(String),
    #[error("the schema could not be brought up to date: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl StoreError {
    /// Whether the same may be sent again later: nothing of it was kept now.
    pub fn may_come_again(&self) -> bool {
        matches!(
            self,
            StoreError::Away(_) | StoreError::Collided(_) | StoreError::Full(_)
        )
    }
}

/// The number that MariaDB gives an error.
fn number(e: &sqlx::Error) -> Option<u16> {
    let sqlx::Error::Database(d) = e else {
        return None;
    };
    d.try_downcast_ref::<sqlx::mysql::MySqlDatabaseError>()
        .map(|m| m.number())
}

impl From<sqlx::Error> for StoreError {
    fn from(e: sqlx::Error) -> Self {
        use sqlx::Error::{Io, PoolClosed, PoolTimedOut, Protocol};
        match (&e, number(&e)) {
            (Io(_) | PoolTimedOut | PoolClosed | Protocol(_), _) => StoreError::Away(e),
            // 1053 shutdown in progress, 1927 connection killed, 1290/1040 not taking connections now.
            (_, Some(1053 | 1927 | 1290 | 1040)) => StoreError::Away(e),
            // No such database, table or column: it is being set up, or brought up to date.
            (_, Some(1049 | 1146 | 1054)) => StoreError::Away(e),
            // Deadlock, lock wait, and a row that changed since this transaction's view of it.
            (_, Some(1213 | 1205 | 1020)) => StoreError::Collided(e),
            // Disk full, table full, out of memory, a file that cannot be written.
            (_, Some(1021 | 1114 | 1037 | 1041 | 1026 | 1030)) => StoreError::Full(e),
            _ => StoreError::Refused(e),
        }
    }
}

pub(crate) fn is_duplicate(e: &sqlx::Error) -> bool {
    matches!(e, sqlx::Error::Database(d) if d.is_unique_violation())
}

/// Whether a statement of a migration fails because it was done before: 1050 table, 1060 column, 1061 key, 1826
/// constraint already there; 1091 nothing to drop.
pub(crate) fn was_done_before(e: &sqlx::Error) -> bool {
    matches!(number(e), Some(1050 | 1060 | 1061 | 1091 | 1826))
}

/// A value as it is kept in a column.
pub(crate) fn written<T: serde::Serialize>(value: &T) -> Result<String, StoreError> {
    serde_json::to_string(value).map_err(|e| StoreError::Unreadable(e.to_string()))
}
