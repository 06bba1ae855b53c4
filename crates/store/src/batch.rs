//! The batch: a dough that was asked for, as it was asked and as it was worked out.

use crate::formula::VersionId;
use crate::held::Held;
use crate::lifted;
use crate::observation::{self, Observation};
use crate::{KitchenId, Result, StoreError, instant, is_duplicate, tap};
use craft::fire::Tap;
use craft::sheet::{SheetRequest, SheetResult};
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use std::sync::Arc;
use uuid::Uuid;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct BatchId(pub u64);

/// What was asked and what was worked out. A change makes another plan; the former one is kept beside it.
#[derive(Debug, PartialEq)]
pub struct Sheet {
    pub request: SheetRequest,
    pub result: SheetResult,
}

/// What was entered about a batch, in the order of the clock.
#[derive(Debug, Default, PartialEq)]
pub struct Entries {
    pub seen: Vec<Observation>,
    pub taps: Vec<Tap>,
}

#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    pub id: BatchId,
    pub code: String,
    pub name: String,
    pub created_at: Timestamp,
    pub finished_at: Option<Timestamp>,
    /// Counts its plans from 0.
    pub plan: u32,
    /// When the plan was made that it follows now.
    pub planned_at: Timestamp,
    pub sheet: Arc<Sheet>,
    pub entries: Arc<Entries>,
}

/// Who made a batch: only the demo's own may be made anew.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Origin {
    Maker,
    Demo,
}

impl Origin {
    pub(crate) fn key(self) -> &'static str {
        match self {
            Origin::Maker => "maker",
            Origin::Demo => "demo",
        }
    }
}

/// A batch to be kept.
#[derive(Debug, Clone)]
pub struct NewBatch<'a> {
    pub form_key: Uuid,
    pub name: &'a str,
    pub request: &'a SheetRequest,
    pub result: &'a SheetResult,
    pub origin: Origin,
    /// The formula that it was made from.
    pub from: Option<VersionId>,
}

struct Row {
    id: u64,
    code: String,
    name: String,
    revision: u64,
    plan: u32,
    created_at: chrono::NaiveDateTime,
    planned_at: Option<chrono::NaiveDateTime>,
    finished_at: Option<chrono::NaiveDateTime>,
}

pub(crate) fn written<T: serde::Serialize>(value: &T) -> Result<String> {
    serde_json::to_string(value).map_err(|e| StoreError::Unreadable(e.to_string()))
}

impl Row {
    async fn batch(
        self,
        db: &mut MySqlConnection,
        kitchen: KitchenId,
        held: &Held,
    ) -> Result<Batch> {
        let id = BatchId(self.id);
        let (sheet, entries) = match held.get(id, self.plan, self.revision) {
            (Some(sheet), Some(entries)) => (sheet, entries),
            (sheet, _) => {
                let sheet = match sheet {
                    Some(sheet) => sheet,
                    None => Arc::new(sheet_of(db, kitchen, id, &self.code).await?),
                };
                // Read after the revision: what is held under a number is never older than it.
                let seen = observation::of_batch(db, kitchen, id).await?;
                let entries = Arc::new(Entries {
                    seen,
                    taps: tap::of_batch(db, kitchen, id).await?,
                });
                held.put(id, (self.plan, self.revision), &sheet, &entries);
                (sheet, entries)
            }
        };
        Ok(Batch {
            id,
            code: self.code,
            name: self.name,
            created_at: instant::from_row(self.created_at),
            finished_at: self.finished_at.map(instant::from_row),
            plan: self.plan,
            planned_at: instant::from_row(self.planned_at.unwrap_or(self.created_at)),
            sheet,
            entries,
        })
    }
}

async fn sheet_of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    code: &str,
) -> Result<Sheet> {
    let row = sqlx::query!(
        "SELECT request, result FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_one(db)
    .await?;
    Ok(Sheet {
        request: lifted::request(code, &row.request)?,
        result: lifted::result(code, &row.result)?,
    })
}

async fn all(
    rows: Vec<Row>,
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    held: &Held,
) -> Result<Vec<Batch>> {
    let mut out = Vec::with_capacity(rows.len());
    for row in rows {
        out.push(row.batch(db, kitchen, held).await?);
    }
    Ok(out)
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
    let origin = new.origin.key();
    // Two people may take the same number at once: the unique key decides, the other takes the next.
    for _ in 0..20 {
        if let Some(code) = by_form(db, kitchen, new.form_key).await? {
            return Ok(code);
        }
        let code = format!("{letters}-{:02}", next_number(db, kitchen, &letters).await?);
        let done = sqlx::query!(
            "INSERT INTO batch (kitchen_id, code, form_key, name, style, serve_at, request, result, origin, created_at,
                                formula_version_id)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
            kitchen.0,
            code,
            form_key,
            new.name,
            new.request.formula.style.key,
            instant::to_row(new.request.serve_at),
            request,
            result,
            origin,
            instant::to_row(now),
            new.from.map(|v| v.0)
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
    held: &Held,
) -> Result<Option<Batch>> {
    let row = sqlx::query_as!(
        Row,
        "SELECT id, code, name, revision, plan, created_at, planned_at, finished_at FROM batch WHERE kitchen_id = ? AND code = ?",
        kitchen.0,
        code
    )
    .fetch_optional(&mut *db)
    .await?;
    match row {
        Some(row) => Ok(Some(row.batch(db, kitchen, held).await?)),
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

/// The formula version that a batch was made from: its formula's id, its number and its name.
pub async fn made_from(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Option<(u64, u32, String)>> {
    let row = sqlx::query!(
        "SELECT v.formula_id, v.number, v.name FROM batch b JOIN formula_version v ON v.id = b.formula_version_id
         WHERE b.kitchen_id = ? AND b.id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|r| (r.formula_id, r.number, r.name)))
}

/// Batches that are not finished, the earliest served first.
pub async fn live(db: &mut MySqlConnection, kitchen: KitchenId, held: &Held) -> Result<Vec<Batch>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT id, code, name, revision, plan, created_at, planned_at, finished_at FROM batch
         WHERE kitchen_id = ? AND finished_at IS NULL ORDER BY serve_at, id LIMIT 60",
        kitchen.0
    )
    .fetch_all(&mut *db)
    .await?;
    all(rows, db, kitchen, held).await
}

/// Finished batches, the latest first.
pub async fn finished(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    skip: u32,
    most: u32,
    held: &Held,
) -> Result<Vec<Batch>> {
    let rows = sqlx::query_as!(
        Row,
        "SELECT id, code, name, revision, plan, created_at, planned_at, finished_at FROM batch
         WHERE kitchen_id = ? AND finished_at IS NOT NULL ORDER BY finished_at DESC, id DESC LIMIT ? OFFSET ?",
        kitchen.0,
        most,
        skip
    )
    .fetch_all(&mut *db)
    .await?;
    all(rows, db, kitchen, held).await
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
    entered(db, kitchen, batch, by_demo).await
}

/// Something was entered: copies of the batch are out of date. Unless the demo did it, the batch is the
/// maker's from now on.
pub(crate) async fn entered(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    by_demo: bool,
) -> Result<()> {
    sqlx::query!(
        "UPDATE batch SET revision = revision + 1, origin = IF(?, origin, 'maker') WHERE kitchen_id = ? AND id = ?",
        by_demo,
        kitchen.0,
        batch.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// What became of a changed plan.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Replanned {
    Done,
    /// Somebody changed it meanwhile: the number of the plan that it follows now.
    Stale(u32),
}

/// A plan to take the place of another.
#[derive(Debug, Clone, Copy)]
pub struct NewPlan<'a> {
    /// The number of the plan that it began from.
    pub of: u32,
    pub request: &'a SheetRequest,
    pub result: &'a SheetResult,
    pub why: &'a str,
}

/// Puts another plan in place of the one that a batch follows; the former is kept.
pub async fn replan(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    new: &NewPlan<'_>,
    now: Timestamp,
) -> Result<Replanned> {
    let mut tx = db.begin().await?;
    lock(&mut tx, kitchen, batch).await?;
    let plan = sqlx::query_scalar!(
        "SELECT plan FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_one(&mut *tx)
    .await?;
    if plan != new.of {
        return Ok(Replanned::Stale(plan));
    }
    let now = instant::to_row(now);
    sqlx::query!(
        "INSERT INTO batch_plan (kitchen_id, batch_id, plan, request, result, why, replaced_at)
         SELECT kitchen_id, id, plan, request, result, ?, ? FROM batch WHERE kitchen_id = ? AND id = ?",
        new.why,
        now,
        kitchen.0,
        batch.0
    )
    .execute(&mut *tx)
    .await?;
    sqlx::query!(
        "UPDATE batch SET request = ?, result = ?, serve_at = ?, plan = plan + 1, planned_at = ?
         WHERE kitchen_id = ? AND id = ?",
        written(new.request)?,
        written(new.result)?,
        instant::to_row(new.request.serve_at),
        now,
        kitchen.0,
        batch.0
    )
    .execute(&mut *tx)
    .await?;
    entered(&mut tx, kitchen, batch, false).await?;
    tx.commit().await?;
    Ok(Replanned::Done)
}

/// Why each former plan of a batch was left, the first one first.
pub async fn left_plans(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Vec<(Timestamp, String)>> {
    let rows = sqlx::query!(
        "SELECT replaced_at, why FROM batch_plan WHERE kitchen_id = ? AND batch_id = ? ORDER BY plan",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| (instant::from_row(r.replaced_at), r.why))
        .collect())
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
