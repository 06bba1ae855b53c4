//! Taps at the oven: In, Turned, Out, verdict. They are only ever added.

use crate::batch::{BatchId, belongs_to_maker};
use crate::{KitchenId, Result, StoreError, instant, is_duplicate};
use craft::fire::{Shade, Tap, TapKind, Verdict};
use jiff::Timestamp;
use sqlx::MySqlConnection;
use uuid::Uuid;

struct Row {
    id: u64,
    batch_id: u64,
    pizza: u32,
    kind: String,
    base: Option<String>,
    top: Option<String>,
    at: chrono::NaiveDateTime,
}

impl Row {
    fn read(self) -> Result<(BatchId, Tap)> {
        let lacks = || StoreError::Unreadable(format!("tap {}", self.id));
        let shade = |s: &Option<String>| s.as_deref().and_then(Shade::from_key).ok_or_else(lacks);
        let kind = match self.kind.as_str() {
            "in" => TapKind::In,
            "turned" => TapKind::Turned,
            "out" => TapKind::Out,
            "verdict" => TapKind::Verdict(Verdict {
                base: shade(&self.base)?,
                top: shade(&self.top)?,
            }),
            _ => return Err(lacks()),
        };
        Ok((
            BatchId(self.batch_id),
            Tap {
                pizza: self.pizza,
                at: instant::from_row(self.at),
                kind,
            },
        ))
    }
}

/// Adds a tap; the same entry key is written once. `by_demo` leaves the batch the demo's.
pub async fn add(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    entry_key: Uuid,
    tap: &Tap,
    now: Timestamp,
    by_demo: bool,
) -> Result<()> {
    let (kind, base, top) = match tap.kind {
        TapKind::In => ("in", None, None),
        TapKind::Turned => ("turned", None, None),
        TapKind::Out => ("out", None, None),
        TapKind::Verdict(v) => ("verdict", Some(v.base.key()), Some(v.top.key())),
    };
    let done = sqlx::query!(
        "INSERT INTO tap (kitchen_id, batch_id, entry_key, pizza, kind, base, top, at, recorded_at)
         SELECT kitchen_id, id, ?, ?, ?, ?, ?, ?, ? FROM batch WHERE kitchen_id = ? AND id = ?",
        entry_key.to_string(),
        tap.pizza,
        kind,
        base,
        top,
        instant::to_row(tap.at),
        instant::to_row(now),
        kitchen.0,
        batch.0
    )
    .execute(&mut *db)
    .await;
    match done {
        Ok(_) => {}
        Err(e) if is_duplicate(&e) => return Ok(()),
        Err(e) => return Err(e.into()),
    }
    if by_demo {
        Ok(())
    } else {
        belongs_to_maker(db, kitchen, batch).await
    }
}

/// Whether a tap with this key was written before.
pub async fn is_known(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    entry_key: Uuid,
) -> Result<bool> {
    let n = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM tap WHERE kitchen_id = ? AND entry_key = ?",
        kitchen.0,
        entry_key.to_string()
    )
    .fetch_one(db)
    .await?;
    Ok(n > 0)
}

/// The taps of a batch, in the order of the clock.
pub async fn of_batch(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Vec<Tap>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT id, batch_id, pizza, kind, base, top, at FROM tap WHERE kitchen_id = ? AND batch_id = ? ORDER BY at, id",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(|r| Ok(r.read()?.1)).collect()
}

/// The taps of the batches finished between two moments.
pub async fn of_finished(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    since: Timestamp,
    until: Timestamp,
) -> Result<Vec<(BatchId, Tap)>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT t.id, t.batch_id, t.pizza, t.kind, t.base, t.top, t.at FROM tap t JOIN batch b ON b.id = t.batch_id
         WHERE t.kitchen_id = ? AND b.finished_at BETWEEN ? AND ? ORDER BY t.at, t.id",
        kitchen.0,
        instant::to_row(since),
        instant::to_row(until)
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(Row::read).collect()
}

/// The taps of the batches that are not finished.
pub async fn of_live(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<Vec<(BatchId, Tap)>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT t.id, t.batch_id, t.pizza, t.kind, t.base, t.top, t.at FROM tap t JOIN batch b ON b.id = t.batch_id
         WHERE t.kitchen_id = ? AND b.finished_at IS NULL ORDER BY t.at, t.id",
        kitchen.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(Row::read).collect()
}
