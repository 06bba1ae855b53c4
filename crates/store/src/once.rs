//! Forms that make something: sent twice, they make it once; another content under a key that was used is told, not taken.

use crate::error::is_duplicate;
use crate::{KitchenId, Result, instant};
use jiff::Timestamp;
use sha2::{Digest, Sha256};
use sqlx::MySqlConnection;
use uuid::Uuid;

/// What was sent under this key before.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Once {
    First,
    /// The same content: where it leads.
    Before(String),
    /// Another content: where that leads.
    Other(String),
}

fn hash(content: &[&str]) -> [u8; 32] {
    let mut h = Sha256::new();
    for part in content {
        h.update((part.len() as u64).to_be_bytes());
        h.update(part.as_bytes());
    }
    h.finalize().into()
}

/// Takes a key for a content, within a transaction; whoever sends the same meanwhile waits for its end. When it is
/// [`Once::First`], say with [`made`] what came of it.
pub async fn take(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (what, key): (&str, Uuid),
    content: &[&str],
    now: Timestamp,
) -> Result<Once> {
    let hash = hash(content);
    let taken = sqlx::query!(
        "INSERT INTO made (kitchen_id, what, form_key, content, leads_to, made_at) VALUES (?, ?, ?, ?, '', ?)",
        kitchen.0,
        what,
        key.to_string(),
        hash.as_slice(),
        instant::to_row(now)
    )
    .execute(&mut *db)
    .await;
    match taken {
        Ok(_) => return Ok(Once::First),
        Err(e) if is_duplicate(&e) => {}
        Err(e) => return Err(e.into()),
    }
    let was = sqlx::query!(
        "SELECT content, leads_to FROM made WHERE kitchen_id = ? AND what = ? AND form_key = ? FOR UPDATE",
        kitchen.0,
        what,
        key.to_string()
    )
    .fetch_one(db)
    .await?;
    Ok(if was.content == hash {
        Once::Before(was.leads_to)
    } else {
        Once::Other(was.leads_to)
    })
}

/// Says what came of a key.
pub async fn made(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (what, key): (&str, Uuid),
    leads_to: &str,
) -> Result<()> {
    sqlx::query!(
        "UPDATE made SET leads_to = ? WHERE kitchen_id = ? AND what = ? AND form_key = ?",
        leads_to,
        kitchen.0,
        what,
        key.to_string()
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Nothing came of a key after all: what is sent under it next is new.
pub(crate) async fn free(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (what, key): (&str, Uuid),
) -> Result<()> {
    sqlx::query!(
        "DELETE FROM made WHERE kitchen_id = ? AND what = ? AND form_key = ?",
        kitchen.0,
        what,
        key.to_string()
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Where a form led that was kept before.
pub(crate) async fn led(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (what, key): (&str, Uuid),
) -> Result<Option<String>> {
    Ok(sqlx::query_scalar!(
        "SELECT leads_to FROM made WHERE kitchen_id = ? AND what = ? AND form_key = ?",
        kitchen.0,
        what,
        key.to_string()
    )
    .fetch_optional(db)
    .await?)
}
