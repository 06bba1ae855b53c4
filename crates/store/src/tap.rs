//! Taps at the oven: In, Turned, Out, verdict. They are only ever added.

use crate::batch::{BatchId, entered};
use crate::{KitchenId, Result, StoreError, instant, is_duplicate};
use craft::fire::{Shade, Tap, TapKind, Verdict};
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

struct Row {
    id: u64,
    pizza: u32,
    kind: String,
    base: Option<String>,
    top: Option<String>,
    at: chrono::NaiveDateTime,
}

impl Row {
    fn read(self) -> Result<Tap> {
        let lacks = || StoreError::Unreadable(format!("tap {}", self.id));
        let shade = |s: &Option<String>| s.as_deref().and_then(Shade::from_key).ok_or_else(lacks);
        let kind = match self.kind.as_str() {
            "in" => TapKind::In,
            "turned" => TapKind::Turned,
            "out" => TapKind::Out,
            "undone" => TapKind::Undone,
            "verdict" => TapKind::Verdict(Verdict {
                base: shade(&self.base)?,
                top: shade(&self.top)?,
            }),
            _ => return Err(lacks()),
        };
        Ok(Tap {
            pizza: self.pizza,
            at: instant::from_row(self.at),
            kind,
        })
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
        TapKind::Undone => ("undone", None, None),
        TapKind::Verdict(v) => ("verdict", Some(v.base.key()), Some(v.top.key())),
    };
    let mut tx = db.begin().await?;
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
    .execute(&mut *tx)
    .await;
    match done {
        Ok(_) => {}
        Err(e) if is_duplicate(&e) => return Ok(()),
        Err(e) => return Err(e.into()),
    }
    entered(&mut tx, kitchen, batch, by_demo).await?;
    Ok(tx.commit().await?)
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
        "SELECT id, pizza, kind, base, top, at FROM tap WHERE kitchen_id = ? AND batch_id = ? ORDER BY at, id",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(Row::read).collect()
}
