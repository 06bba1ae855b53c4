//! Photos of pizzas. What each shows is an entry like any other; the picture itself lies beside it, under the entry's key.

use crate::entry::{self, Admits, By, EntryOutcome, NewEntry};
use crate::id::BatchId;
use crate::{Author, Db, KitchenId, Result, act};
use jiff::Timestamp;
use sqlx::MySqlConnection;
use uuid::Uuid;

/// A picture as it is kept: JPEG, with a small one for lists.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Picture {
    pub width: u16,
    pub height: u16,
    pub picture: Vec<u8>,
    pub small: Vec<u8>,
}

/// Keeps a photo with what is said of it, both or neither. The same key is kept once.
pub async fn enter(
    db: &Db,
    author: impl Into<Author<'_>>,
    batch: BatchId,
    (new, picture): (&NewEntry, &Picture),
    now: Timestamp,
    admits: Admits<'_>,
) -> Result<EntryOutcome> {
    let author = author.into();
    act!(db, tx => {
        let kept = entry::write(tx, author, batch, new, now, By::Maker, admits).await?;
        if kept == EntryOutcome::New {
            add(tx, author.kitchen, batch, new.key, picture).await?;
        }
        Ok(kept)
    })
}

/// Lays a picture beside its entry, within the transaction of whoever calls.
pub async fn add(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    key: Uuid,
    p: &Picture,
) -> Result<()> {
    sqlx::query!(
        "INSERT INTO photo (kitchen_id, batch_id, entry_key, width, height, picture, small) VALUES (?, ?, ?, ?, ?, ?, ?)",
        kitchen.0,
        batch.0,
        key.to_string(),
        p.width,
        p.height,
        p.picture,
        p.small
    )
    .execute(db)
    .await?;
    Ok(())
}

/// The picture of an entry of the batch of that code, as JPEG: the small one for a list, or the whole.
pub async fn by_entry(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    code: &str,
    key: Uuid,
    small: bool,
) -> Result<Option<Vec<u8>>> {
    let found = sqlx::query_scalar!(
        "SELECT IF(?, p.small, p.picture) AS `jpeg!: Vec<u8>` FROM photo p JOIN batch b ON b.id = p.batch_id
         WHERE p.kitchen_id = ? AND b.kitchen_id = p.kitchen_id AND b.code = ? AND p.entry_key = ?",
        small,
        kitchen.0,
        code,
        key.to_string()
    )
    .fetch_optional(db)
    .await?;
    Ok(found)
}
