//! Wrong passwords lately; kept here so that a restart forgives nobody.

use super::secret_hash;
use crate::{Result, instant};
use craft::people::{Tries, wait_s};
use jiff::Timestamp;
use sqlx::MySqlConnection;

/// What tries are counted under: a name or an address, which nobody reads here.
fn counted_as(of: Tries, what: &str) -> Vec<u8> {
    let kind = match of {
        Tries::OfName => "name",
        Tries::OfAddress => "address",
    };
    secret_hash(&format!("{kind} {what}"))
}

/// How long one still waits, s.
pub async fn waits_s(
    db: &mut MySqlConnection,
    of: Tries,
    what: &str,
    now: Timestamp,
) -> Result<u32> {
    let row = sqlx::query!(
        "SELECT tries, last_at FROM wrong_try WHERE hash = ?",
        counted_as(of, what)
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map_or(0, |r| {
        let ago = now.duration_since(instant::from_row(r.last_at)).as_secs();
        wait_s(of, r.tries, ago.clamp(0, i64::from(u32::MAX)) as u32)
    }))
}

/// Counts a wrong one.
pub async fn count(db: &mut MySqlConnection, of: Tries, what: &str, now: Timestamp) -> Result<()> {
    let now = instant::to_row(now);
    sqlx::query!(
        "INSERT INTO wrong_try (hash, tries, last_at) VALUES (?, 1, ?)
         ON DUPLICATE KEY UPDATE tries = IF(last_at < ? - INTERVAL 1 DAY, 1, LEAST(tries + 1, 1000000)), last_at = ?",
        counted_as(of, what),
        now,
        now,
        now
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Forgets them: the right one was typed.
pub async fn forgive(db: &mut MySqlConnection, of: Tries, what: &str) -> Result<()> {
    sqlx::query!("DELETE FROM wrong_try WHERE hash = ?", counted_as(of, what))
        .execute(db)
        .await?;
    Ok(())
}

/// Clears away what is forgiven by time.
pub async fn clear(db: &mut MySqlConnection, now: Timestamp) -> Result<()> {
    sqlx::query!(
        "DELETE FROM wrong_try WHERE last_at < ? - INTERVAL 1 DAY",
        instant::to_row(now)
    )
    .execute(db)
    .await?;
    Ok(())
}
