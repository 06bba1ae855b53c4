//! Stock: what batches take of the pantry. The rows of a batch follow its plan and what happened to it; they are written
//! anew, in the transaction that changed either.

use crate::id::BatchId;
use crate::pantry::everything;
use crate::sheet::{said_of_steps, sheet_of};
use crate::{KitchenId, Result, StoreError, entry, instant};
use craft::pantry::{InStock, StockItem};
use craft::sheet::stock::{Ended, TakenStock, taken};
use sqlx::MySqlConnection;
use std::collections::HashMap;

/// Writes anew what a batch takes. It is locked by whoever calls.
pub(crate) async fn follow(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<()> {
    let row = sqlx::query!(
        "SELECT code, finished_at, cancelled_at FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_one(&mut *db)
    .await?;
    let sheet = match sheet_of(db, kitchen, batch, &row.code).await {
        // What cannot be read takes nothing; its page says why. An entry about it is kept all the same.
        Err(StoreError::Unreadable(why)) => {
            tracing::warn!(batch = row.code, cause = why, "its stock is not followed");
            return Ok(());
        }
        read => read?,
    };
    let entries = entry::of_batch(db, kitchen, batch).await?;
    let ended = Ended {
        closed_at: row.finished_at.map(instant::from_row),
        cancelled: row.cancelled_at.is_some(),
    };
    let all = taken(
        &sheet.request,
        &sheet.result,
        &said_of_steps(&entries, &sheet.result),
        ended,
    );
    let kept = everything(db, kitchen).await?.kept();
    sqlx::query!("DELETE FROM stock_use WHERE batch_id = ?", batch.0)
        .execute(&mut *db)
        .await?;
    for (n, TakenStock { need, at }) in all.iter().enumerate().take(usize::from(u16::MAX)) {
        let item = kept.iter().find(|k| k.answers(need)).map(|k| k.id);
        sqlx::query!(
            "INSERT INTO stock_use (batch_id, row_no, kitchen_id, item_id, name, grams, used_at) VALUES (?, ?, ?, ?, ?, ?, ?)",
            batch.0,
            n as u16,
            kitchen.0,
            item,
            need.name,
            need.grams,
            at.map(instant::to_row)
        )
        .execute(&mut *db)
        .await?;
    }
    Ok(())
}

/// Writes what the batches of a kitchen take that were kept before this was followed; how many.
pub async fn catch_up(db: &mut MySqlConnection) -> Result<usize> {
    let open = sqlx::query!(
        "SELECT b.id, b.kitchen_id FROM batch b
         WHERE b.finished_at IS NULL AND b.cancelled_at IS NULL
           AND NOT EXISTS (SELECT 1 FROM stock_use u WHERE u.batch_id = b.id)
         ORDER BY b.id"
    )
    .fetch_all(&mut *db)
    .await?;
    let mut done = 0;
    for b in open {
        follow(db, KitchenId(b.kitchen_id), BatchId(b.id)).await?;
        done += 1;
    }
    Ok(done)
}

/// What was taken of each item since it was counted, and what plans keep of it.
pub async fn standing(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
) -> Result<HashMap<u64, InStock>> {
    let rows = sqlx::query!(
        r#"SELECT u.item_id AS "item_id!", SUM(IF(u.used_at IS NULL, u.grams, 0)) AS "planned_g!: f64",
                SUM(IF(u.used_at IS NULL, 0, u.grams)) AS "taken_g!: f64"
         FROM stock_use u JOIN pantry_item p ON p.id = u.item_id
         WHERE u.kitchen_id = ? AND (u.used_at IS NULL OR u.used_at >= COALESCE(p.counted_at, p.created_at))
         GROUP BY u.item_id"#,
        kitchen.0
    )
    .fetch_all(db)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| {
            let s = InStock {
                taken_g: r.taken_g,
                planned_g: r.planned_g,
            };
            (r.item_id, s)
        })
        .collect())
}

impl crate::pantry::Everything {
    /// What of the pantry is used up.
    pub fn kept(&self) -> Vec<StockItem> {
        let flours = self.flours.iter().map(|f| StockItem::flour(f.id, &f.facts));
        let goods = self.goods.iter().map(|g| StockItem::good(g.id, &g.facts));
        let leavens = self
            .leavens
            .iter()
            .map(|l| StockItem::leaven(l.id, &l.facts));
        flours.chain(goods).chain(leavens).collect()
    }
}
