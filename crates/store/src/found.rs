//! Bakes that are looked for in the ledger.

use crate::batch::{BatchList, finished_rows};
use crate::batch_cache::BatchCache;
pub use crate::words::WordKind;
use crate::words::like;
use crate::{KitchenId, Result, instant};
use craft::keyed::Keyed;
use jiff::Timestamp;
use sqlx::MySqlConnection;

/// Choices of a kind that a list offers.
const MOST_CHOICES: u32 = 200;

/// What the ledger is asked for; what is empty asks for nothing.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct FindBakes {
    /// In name, code or remarks.
    pub text: String,
    pub formula: String,
    pub style: String,
    pub flour: String,
    pub oven: String,
    pub turned: String,
    pub by: String,
    /// Closed from then on.
    pub from: Option<Timestamp>,
    /// Closed before.
    pub until: Option<Timestamp>,
}

impl FindBakes {
    /// Whether it asks for all.
    pub fn is_all(&self) -> bool {
        *self == FindBakes::default()
    }
}

/// The bakes that are asked for, the latest first: a page of them, and how many there are.
pub async fn bakes(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    find: &FindBakes,
    (skip, most): (u32, u32),
    held: &BatchCache,
) -> Result<BatchList> {
    let (ids, mut in_all) = numbers(db, kitchen, find, (skip, most)).await?;
    if ids.is_empty() && skip > 0 {
        // Beyond the last page: how many there are is said all the same.
        (_, in_all) = numbers(db, kitchen, find, (0, 1)).await?;
    }
    finished_rows(db, kitchen, &ids, in_all, held).await
}

/// The numbers of a page, and how many there are in all: one statement finds and counts.
async fn numbers(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    find: &FindBakes,
    (skip, most): (u32, u32),
) -> Result<(Vec<u64>, u64)> {
    let like = like(&find.text);
    let (from, until) = (
        find.from.map(instant::to_row),
        find.until.map(instant::to_row),
    );
    let ids = sqlx::query!(
        r#"SELECT b.id AS "id!: u64", COUNT(*) OVER () AS "in_all!: i64" FROM batch b
         WHERE b.kitchen_id = ? AND b.finished_at IS NOT NULL
           AND (? IS NULL OR b.finished_at >= ?) AND (? IS NULL OR b.finished_at < ?)
           AND (? = '%%' OR b.name LIKE ? OR b.code LIKE ? OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'said' AND w.word LIKE ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'formula' AND w.word = ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'style' AND w.word = ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'flour' AND w.word = ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'oven' AND w.word = ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'turned' AND w.word = ?))
           AND (? = '' OR EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id AND w.kind = 'by' AND w.word = ?))
         ORDER BY b.finished_at DESC, b.id DESC LIMIT ? OFFSET ?"#,
        kitchen.0,
        from, from, until, until,
        like, like, like, like,
        find.formula, find.formula,
        find.style, find.style,
        find.flour, find.flour,
        find.oven, find.oven,
        find.turned, find.turned,
        find.by, find.by,
        most,
        skip
    )
    .fetch_all(db)
    .await?;
    let in_all = ids.first().map_or(0, |r| r.in_all as u64);
    Ok((ids.iter().map(|r| r.id).collect(), in_all))
}

/// The words of a kitchen's batches by kind, for lists to choose from; remarks are not among them.
pub async fn choices(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    kind: WordKind,
) -> Result<Vec<String>> {
    // Said as ranges the server hops from word to word of its index; said as equals it reads every row of a hundred thousand bakes.
    let all = sqlx::query_scalar!(
        "SELECT word FROM batch_word WHERE kitchen_id BETWEEN ? AND ? AND kind BETWEEN ? AND ?
         GROUP BY kitchen_id, kind, word ORDER BY kitchen_id, kind, word LIMIT ?",
        kitchen.0,
        kitchen.0,
        kind.key(),
        kind.key(),
        MOST_CHOICES
    )
    .fetch_all(db)
    .await?;
    Ok(all)
}
