//! The batch: a dough that was asked for, as it was asked and as it was worked out.

use crate::{KitchenId, Result, StoreError, instant, is_duplicate};
use craft::sheet::{SheetRequest, SheetResult};
use jiff::Timestamp;
use sqlx::MySqlConnection;
use std::collections::HashMap;
use std::sync::{Arc, Mutex};
use uuid::Uuid;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct BatchId(pub u64);

/// What was asked and what was worked out; neither is ever changed.
#[derive(Debug, PartialEq)]
pub struct Sheet {
    pub request: SheetRequest,
    pub result: SheetResult,
}

#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    pub id: BatchId,
    pub code: String,
    pub name: String,
    pub sheet: Arc<Sheet>,
    pub created_at: Timestamp,
    pub finished_at: Option<Timestamp>,
}

/// Sheets that were read before. They never change and ids are never used again, so they cannot go stale.
#[derive(Debug, Default)]
pub struct Sheets {
    read: Mutex<HashMap<BatchId, Arc<Sheet>>>,
}

impl Sheets {
    /// So many are held at most; a sheet takes some 20 kB.
    const MOST: usize = 256;

    async fn of(
        &self,
        db: &mut MySqlConnection,
        kitchen: KitchenId,
        batch: BatchId,
        code: &str,
    ) -> Result<Arc<Sheet>> {
        let held = |map: &Mutex<HashMap<BatchId, Arc<Sheet>>>| {
            map.lock()
                .unwrap_or_else(|e| e.into_inner())
                .get(&batch)
                .cloned()
        };
        if let Some(sheet) = held(&self.read) {
            return Ok(sheet);
        }
        let row = sqlx::query!(
            "SELECT request, result FROM batch WHERE kitchen_id = ? AND id = ?",
            kitchen.0,
            batch.0
        )
        .fetch_one(db)
        .await?;
        let sheet = Arc::new(Sheet {
            request: read(code, &row.request)?,
            result: read(code, &row.result)?,
        });
        let mut map = self.read.lock().unwrap_or_else(|e| e.into_inner());
        if map.len() >= Self::MOST {
            map.clear();
        }
        map.insert(batch, sheet.clone());
        Ok(sheet)
    }
}

/// Who made a batch: only the demo's own may be made anew.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Origin {
    Maker,
    Demo,
}

/// A batch to be kept.
#[derive(Debug, Clone)]
pub struct NewBatch<'a> {
    pub form_key: Uuid,
    pub name: &'a str,
    pub request: &'a SheetRequest,
    pub result: &'a SheetResult,
    pub origin: Origin,
}

/// One line of the ledger: what was planned, without the curves.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    pub id: BatchId,
    pub code: String,
    pub name: String,
    pub request: SheetRequest,
    pub yeast_percent: f64,
    pub rise_at_serve: f64,
    pub reserve_at_serve: f64,
    pub finished_at: Timestamp,
}

struct Row {
    id: u64,
    code: String,
    name: String,
    created_at: chrono::NaiveDateTime,
    finished_at: Option<chrono::NaiveDateTime>,
}

fn read<T: serde::de::DeserializeOwned>(code: &str, json: &str) -> Result<T> {
    serde_json::from_str(json).map_err(|e| StoreError::Unreadable(format!("batch {code}: {e}")))
}

fn written<T: serde::Serialize>(value: &T) -> Result<String> {
    serde_json::to_string(value).map_err(|e| StoreError::Unreadable(e.to_string()))
}

impl Row {
    async fn batch(
        self,
        db: &mut MySqlConnection,
        kitchen: KitchenId,
        sheets: &Sheets,
    ) -> Result<Batch> {
        let id = BatchId(self.id);
        Ok(Batch {
            id,
            sheet: sheets.of(db, kitchen, id, &self.code).await?,
            code: self.code,
            name: self.name,
            created_at: instant::from_row(self.created_at),
            finished_at: self.finished_at.map(instant::from_row),
        })
    }
}

/// Keeps a batch and gives it a code; a form that was kept before is found again, and nothing is written.
pub async fn keep(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    new: &NewBatch<'_>,
    now: Timestamp,
) -> Result<String> {
    let (request, result) = (written(new.request)?, written(new.result)?);
    let letters = craft::code::letters(new.name);
    let form_key = new.form_key.to_string();
    let origin = match new.origin {
        Origin::Maker => "maker",
        Origin::Demo => "demo",
    };
    // Two people may take the same number at once: the unique key decides, the other takes the next.
    for _ in 0..20 {
        if let Some(code) = by_form(db, kitchen, new.form_key).await? {
            return Ok(code);
        }
        let code = format!("{letters}-{:02}", next_number(db, kitchen, &letters).await?);
        let done = sqlx::query!(
            "INSERT INTO batch (kitchen_id, code, form_key, name, style, serve_at, request, result, origin, created_at)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
            kitchen.0,
            code,
            form_key,
            new.name,
            new.request.style.key(),
            instant::to_row(new.request.serve_at),
            request,
            result,
            origin,
            instant::to_row(now)
        )
        .execute(&mut *db)
        .await;
        match done {
            Ok(_) => return Ok(code),
            Err(e) if is_duplicate(&e) => {}
            Err(e) => return Err(e.into()),
        }
    }
    Err(StoreError::Unreadable(format!(
        "no free code for {letters}"
    )))
}

async fn next_number(db: &mut MySqlConnection, kitchen: KitchenId, letters: &str) -> Result<u64> {
    let highest = sqlx::query_scalar!(
        "SELECT CAST(COALESCE(MAX(CAST(SUBSTRING(code, 4) AS UNSIGNED)), 0) AS UNSIGNED)
         FROM batch WHERE kitchen_id = ? AND code LIKE CONCAT(?, '-%')",
        kitchen.0,
        letters
    )
    .fetch_one(db)
    .await?;
    Ok(highest + 1)
}

/// The code of the batch that a form was kept as.
pub async fn by_form(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    form_key: Uuid,
) -> Result<Option<String>> {
    Ok(sqlx::query_scalar!(
        "SELECT code FROM batch WHERE kitchen_id = ? AND form_key = ?",
        kitchen.0,
        form_key.to_string()
    )
    .fetch_optional(db)
    .await?)
}

pub async fn by_code(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    code: &str,
    sheets: &Sheets,
) -> Result<Option<Batch>> {
    let row = sqlx::query_as!(
        Row,
        "SELECT id, code, name, created_at, finished_at FROM batch WHERE kitchen_id = ? AND code = ?",
        kitchen.0,
        code
    )
    .fetch_optional(&mut *db)
    .await?;
    match row {
        Some(row) => Ok(Some(row.batch(db, kitchen, sheets).await?)),
        None => Ok(None),
    }
}

/// Takes the batch for this transaction, so that two tablets enter one after the other.
pub async fn lock(db: &mut MySqlConnection, kitchen: KitchenId, batch: BatchId) -> Result<()> {
    sqlx::query!(
        "SELECT id FROM batch WHERE kitchen_id = ? AND id = ? FOR UPDATE",
        kitchen.0,
        batch.0
    )
    .fetch_optional(db)
    .await?;
    Ok(())
}

/// Batches that are not finished, the earliest served first.
pub async fn live(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    sheets: &Sheets,
) -> Result<Vec<Batch>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT id, code, name, created_at, finished_at FROM batch
         WHERE kitchen_id = ? AND finished_at IS NULL ORDER BY serve_at, id LIMIT 60",
        kitchen.0
    )
    .fetch_all(&mut *db)
    .await?;
    let mut out = Vec::with_capacity(rows.len());
    for row in rows {
        out.push(row.batch(db, kitchen, sheets).await?);
    }
    Ok(out)
}

/// Finished batches, the latest first.
pub async fn finished(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    skip: u32,
    most: u32,
) -> Result<Vec<Entry>> {
    let rows = sqlx::query!(
        r#"SELECT id, code, name, request, finished_at AS "finished_at!",
                  yeast_percent AS "yeast_percent!",
                  rise_at_serve AS "rise_at_serve!",
                  reserve_at_serve AS "reserve_at_serve!"
           FROM batch WHERE kitchen_id = ? AND finished_at IS NOT NULL
           ORDER BY finished_at DESC, id DESC LIMIT ? OFFSET ?"#,
        kitchen.0,
        most,
        skip
    )
    .fetch_all(db)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(Entry {
                id: BatchId(r.id),
                request: read(&r.code, &r.request)?,
                code: r.code,
                name: r.name,
                yeast_percent: r.yeast_percent,
                rise_at_serve: r.rise_at_serve,
                reserve_at_serve: r.reserve_at_serve,
                finished_at: instant::from_row(r.finished_at),
            })
        })
        .collect()
}

/// Marks a batch finished; one that was finished before keeps its moment. `by_demo` leaves it the demo's.
pub async fn finish(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    at: Timestamp,
    by_demo: bool,
) -> Result<()> {
    sqlx::query!(
        "UPDATE batch SET finished_at = COALESCE(finished_at, ?) WHERE kitchen_id = ? AND id = ?",
        instant::to_row(at),
        kitchen.0,
        batch.0
    )
    .execute(&mut *db)
    .await?;
    if by_demo {
        Ok(())
    } else {
        belongs_to_maker(db, kitchen, batch).await
    }
}

/// A maker entered something: the demo must not make this batch anew.
pub(crate) async fn belongs_to_maker(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<()> {
    sqlx::query!(
        "UPDATE batch SET origin = 'maker' WHERE kitchen_id = ? AND id = ? AND origin = 'demo'",
        kitchen.0,
        batch.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// When the demo's youngest untouched batch was made.
pub async fn demo_made_at(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
) -> Result<Option<Timestamp>> {
    let at = sqlx::query_scalar!(
        "SELECT MAX(created_at) FROM batch WHERE kitchen_id = ? AND origin = 'demo'",
        kitchen.0
    )
    .fetch_one(db)
    .await?;
    Ok(at.map(instant::from_row))
}

/// Whether the kitchen has any batch.
pub async fn any(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<bool> {
    let n = sqlx::query_scalar!("SELECT COUNT(*) FROM batch WHERE kitchen_id = ?", kitchen.0)
        .fetch_one(db)
        .await?;
    Ok(n > 0)
}

/// Removes the demo's batches that no maker touched.
pub async fn clear_demo(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<u64> {
    Ok(sqlx::query!(
        "DELETE FROM batch WHERE kitchen_id = ? AND origin = 'demo'",
        kitchen.0
    )
    .execute(db)
    .await?
    .rows_affected())
}
