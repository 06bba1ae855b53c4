//! The batch: a dough that was asked for, as it was asked and as it was worked out.

use crate::batch_cache::BatchCache;
use crate::entry::{self};
use crate::error::written;
use crate::formula::VersionId;
pub use crate::id::BatchId;
use crate::lifted;
use crate::once::{self, Once};
use crate::sheet::sheet_of;
pub use crate::sheet::{Entries, KeptSheet, Origin, said_of_steps};
use crate::{Author, KitchenId, Result, StoreError, instant, stock, words};
use craft::fact::Fact;
use craft::keyed::Keyed;
use craft::sheet::{SheetRequest, SheetResult};
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use std::sync::Arc;
use uuid::Uuid;

#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    pub id: BatchId,
    pub code: String,
    pub name: String,
    pub created_at: Timestamp,
    /// Who planned it first; empty where nobody is known.
    pub by: String,
    pub finished_at: Option<Timestamp>,
    /// When it was given up, never mixed.
    pub cancelled_at: Option<Timestamp>,
    /// Counts what was entered about it.
    pub revision: u64,
    /// Counts its plans from 0.
    pub plan: u32,
    /// When the plan was made that it follows now.
    pub planned_at: Timestamp,
    pub sheet: Arc<KeptSheet>,
    pub entries: Arc<Entries>,
    /// Counts what was said of the kitchen's places.
    pub places: u64,
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

struct BatchRow {
    id: u64,
    code: String,
    name: String,
    revision: u64,
    plan: u32,
    created_at: chrono::NaiveDateTime,
    planned_at: Option<chrono::NaiveDateTime>,
    finished_at: Option<chrono::NaiveDateTime>,
    cancelled_at: Option<chrono::NaiveDateTime>,
    places: Option<u64>,
    by_name: String,
}

/// A batch in a list: one whose row cannot be read is marked, and the others are shown.
#[derive(Debug, Clone, PartialEq)]
pub enum ListedBatch {
    Read(Box<Batch>),
    Unreadable {
        code: String,
        name: String,
        why: String,
    },
}

/// Batches of one page, and how many there are in all.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct BatchList {
    pub listed: Vec<ListedBatch>,
    pub in_all: u64,
}

impl BatchList {
    /// Those that can be read.
    pub fn read(self) -> Vec<Batch> {
        let read = |l| match l {
            ListedBatch::Read(b) => Some(*b),
            ListedBatch::Unreadable { .. } => None,
        };
        self.listed.into_iter().filter_map(read).collect()
    }
}

impl BatchRow {
    async fn batch(
        self,
        db: &mut MySqlConnection,
        kitchen: KitchenId,
        held: &BatchCache,
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
                let entries = Arc::new(entry::of_batch(db, kitchen, id).await?);
                held.put(id, (self.plan, self.revision), &sheet, &entries);
                (sheet, entries)
            }
        };
        Ok(Batch {
            id,
            code: self.code,
            name: self.name,
            created_at: instant::from_row(self.created_at),
            by: self.by_name,
            finished_at: self.finished_at.map(instant::from_row),
            cancelled_at: self.cancelled_at.map(instant::from_row),
            revision: self.revision,
            plan: self.plan,
            planned_at: instant::from_row(self.planned_at.unwrap_or(self.created_at)),
            sheet,
            entries,
            places: self.places.unwrap_or(0),
        })
    }
}

async fn all(
    rows: Vec<BatchRow>,
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    held: &BatchCache,
) -> Result<Vec<ListedBatch>> {
    let mut out = Vec::with_capacity(rows.len());
    for row in rows {
        let (code, name) = (row.code.clone(), row.name.clone());
        out.push(match row.batch(db, kitchen, held).await {
            Ok(b) => ListedBatch::Read(Box::new(b)),
            Err(StoreError::Unreadable(why)) => ListedBatch::Unreadable { code, name, why },
            Err(e) => return Err(e),
        });
    }
    Ok(out)
}

/// What a form made when it made a batch.
const MADE: &str = "batch";

/// The code of the batch that a form was kept as.
pub async fn by_form(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    form_key: Uuid,
) -> Result<Option<String>> {
    once::led(db, kitchen, (MADE, form_key)).await
}

/// What became of a batch to be kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum KeptBatch {
    /// Its code; also when the same was kept before.
    Done(String),
    /// Another batch was kept from the same form: its code. Nothing was written.
    Other(String),
}

/// Keeps a batch and gives it a code; a form that was kept before is found again, and nothing is written. Within the
/// transaction of whoever calls where there is one.
pub async fn keep(
    db: &mut MySqlConnection,
    author: impl Into<Author<'_>>,
    new: &NewBatch<'_>,
    now: Timestamp,
) -> Result<KeptBatch> {
    let author = author.into();
    let kitchen = author.kitchen;
    let (request, result) = (written(new.request)?, written(new.result)?);
    let letters = craft::code::letters(new.name);
    let mut tx = db.begin().await?;
    let db: &mut MySqlConnection = &mut tx;
    // The kitchen first: numbers are given one after the other.
    sqlx::query!("SELECT id FROM kitchen WHERE id = ? FOR UPDATE", kitchen.0)
        .fetch_one(&mut *db)
        .await?;
    match once::take(
        db,
        kitchen,
        (MADE, new.form_key),
        &[new.name, &request],
        now,
    )
    .await?
    {
        Once::First => {}
        Once::Before(code) => return Ok(KeptBatch::Done(code)),
        Once::Other(code) => return Ok(KeptBatch::Other(code)),
    }
    let code = format!("{letters}-{:02}", next_number(db, kitchen, &letters).await?);
    sqlx::query!(
        "INSERT INTO batch (kitchen_id, code, form_key, name, style, serve_at, request, result, origin, created_at,
                            formula_version_id, by_person, by_name)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        kitchen.0,
        code,
        new.form_key.to_string(),
        new.name,
        new.request.formula.style.key,
        instant::to_row(new.request.serve_at),
        request,
        result,
        new.origin.key(),
        instant::to_row(now),
        new.from.map(|v| v.0),
        author.person(),
        author.name()
    )
    .execute(&mut *db)
    .await?;
    once::made(db, kitchen, (MADE, new.form_key), &code).await?;
    let id = sqlx::query_scalar!(
        "SELECT id FROM batch WHERE kitchen_id = ? AND code = ?",
        kitchen.0,
        code
    )
    .fetch_one(&mut *db)
    .await?;
    stock::follow(db, kitchen, BatchId(id)).await?;
    words::follow(db, kitchen, BatchId(id)).await?;
    tx.commit().await?;
    Ok(KeptBatch::Done(code))
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

pub async fn by_code(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    code: &str,
    held: &BatchCache,
) -> Result<Option<Batch>> {
    let row = sqlx::query_as!(
        BatchRow,
        "SELECT id, code, name, revision, plan, created_at, planned_at, finished_at, cancelled_at, by_name,
                (SELECT p.revision FROM place_said p WHERE p.kitchen_id = batch.kitchen_id) AS places
         FROM batch WHERE kitchen_id = ? AND code = ?",
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

/// Which batch a code is.
pub async fn id_of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    code: &str,
) -> Result<Option<BatchId>> {
    let id = sqlx::query_scalar!(
        "SELECT id FROM batch WHERE kitchen_id = ? AND code = ?",
        kitchen.0,
        code
    )
    .fetch_optional(db)
    .await?;
    Ok(id.map(BatchId))
}

/// The code of a batch.
pub async fn code_of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: BatchId,
) -> Result<Option<String>> {
    let code = sqlx::query_scalar!(
        "SELECT code FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        id.0
    )
    .fetch_optional(db)
    .await?;
    Ok(code)
}

/// The codes of batches that are served from a moment until before another, the earliest first; cancelled ones are not.
pub async fn served_between(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (from, to): (Timestamp, Timestamp),
    most: u32,
) -> Result<Vec<String>> {
    let codes = sqlx::query_scalar!(
        "SELECT code FROM batch WHERE kitchen_id = ? AND serve_at >= ? AND serve_at < ? AND cancelled_at IS NULL
         ORDER BY serve_at, id LIMIT ?",
        kitchen.0,
        instant::to_row(from),
        instant::to_row(to),
        most
    )
    .fetch_all(db)
    .await?;
    Ok(codes)
}

/// The row of the formula version that a batch was made from.
pub async fn version_of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Option<VersionId>> {
    let found = sqlx::query_scalar!(
        "SELECT formula_version_id FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_optional(db)
    .await?;
    Ok(found.flatten().map(VersionId))
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

/// Batches that are under way or planned, the earliest served first.
pub async fn live(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    skip: u32,
    most: u32,
    held: &BatchCache,
) -> Result<BatchList> {
    let rows = sqlx::query_as!(
        BatchRow,
        "SELECT id, code, name, revision, plan, created_at, planned_at, finished_at, cancelled_at, by_name,
                (SELECT p.revision FROM place_said p WHERE p.kitchen_id = batch.kitchen_id) AS places
         FROM batch
         WHERE kitchen_id = ? AND finished_at IS NULL AND cancelled_at IS NULL ORDER BY serve_at, id LIMIT ? OFFSET ?",
        kitchen.0,
        most,
        skip
    )
    .fetch_all(&mut *db)
    .await?;
    let in_all = match last_page_counts(rows.len(), skip, most) {
        Some(n) => n,
        None => sqlx::query_scalar!(
            "SELECT COUNT(*) FROM batch WHERE kitchen_id = ? AND finished_at IS NULL AND cancelled_at IS NULL",
            kitchen.0
        )
        .fetch_one(&mut *db)
        .await? as u64,
    };
    Ok(BatchList {
        listed: all(rows, db, kitchen, held).await?,
        in_all,
    })
}

/// A page that is not full is the last one: then it says how many there are in all.
fn last_page_counts(rows: usize, skip: u32, most: u32) -> Option<u64> {
    let counted = rows as u32;
    (counted < most && (counted > 0 || skip == 0)).then(|| u64::from(skip + counted))
}

/// Finished batches, the latest first; with those that were given up when they are asked for.
pub async fn finished(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    skip: u32,
    most: u32,
    held: &BatchCache,
) -> Result<BatchList> {
    let rows = sqlx::query_as!(
        BatchRow,
        // The page's numbers come from the index alone; rows are read for these only. Nothing of them hangs on places any more.
        "SELECT b.id, b.code, b.name, b.revision, b.plan, b.created_at, b.planned_at, b.finished_at, b.cancelled_at, b.by_name,
                NULLIF(b.id, b.id) AS places
         FROM batch b JOIN (SELECT id FROM batch WHERE kitchen_id = ? AND finished_at IS NOT NULL
                            ORDER BY finished_at DESC, id DESC LIMIT ? OFFSET ?) page ON page.id = b.id
         ORDER BY b.finished_at DESC, b.id DESC",
        kitchen.0,
        most,
        skip
    )
    .fetch_all(&mut *db)
    .await?;
    let in_all = match last_page_counts(rows.len(), skip, most) {
        Some(n) => n,
        None => {
            sqlx::query_scalar!(
                "SELECT COUNT(*) FROM batch WHERE kitchen_id = ? AND finished_at IS NOT NULL",
                kitchen.0
            )
            .fetch_one(&mut *db)
            .await? as u64
        }
    };
    Ok(BatchList {
        listed: all(rows, db, kitchen, held).await?,
        in_all,
    })
}

/// Finished batches by their numbers, in that order.
pub(crate) async fn finished_rows(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    ids: &[u64],
    in_all: u64,
    held: &BatchCache,
) -> Result<BatchList> {
    let wanted = serde_json::to_string(ids).map_err(|e| StoreError::Unreadable(e.to_string()))?;
    let mut rows = sqlx::query_as!(
        BatchRow,
        "SELECT b.id, b.code, b.name, b.revision, b.plan, b.created_at, b.planned_at, b.finished_at, b.cancelled_at, b.by_name,
                NULLIF(b.id, b.id) AS places
         FROM JSON_TABLE(?, '$[*]' COLUMNS (id BIGINT UNSIGNED PATH '$')) wanted JOIN batch b ON b.id = wanted.id
         WHERE b.kitchen_id = ?",
        wanted,
        kitchen.0
    )
    .fetch_all(&mut *db)
    .await?;
    rows.sort_by_key(|r| ids.iter().position(|id| *id == r.id));
    Ok(BatchList {
        listed: all(rows, db, kitchen, held).await?,
        in_all,
    })
}

/// The revisions of batches, for whoever watches them: one statement however many.
pub async fn revision(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Option<(u32, u64)>> {
    let row = sqlx::query!(
        "SELECT plan, revision FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|r| (r.plan, r.revision)))
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
    pub why: &'a Fact,
}

/// Puts another plan in place of the one that a batch follows; the former is kept. Within the transaction of whoever calls
/// where there is one.
pub async fn replan(
    db: &mut MySqlConnection,
    author: impl Into<Author<'_>>,
    batch: BatchId,
    new: &NewPlan<'_>,
    now: Timestamp,
) -> Result<Replanned> {
    let author = author.into();
    let kitchen = author.kitchen;
    let mut tx = db.begin().await?;
    let plan = sqlx::query_scalar!(
        "SELECT plan FROM batch WHERE kitchen_id = ? AND id = ? FOR UPDATE",
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
        "INSERT INTO batch_plan (kitchen_id, batch_id, plan, request, result, why, replaced_at, by_person, by_name)
         SELECT kitchen_id, id, plan, request, result, ?, ?, ?, ? FROM batch WHERE kitchen_id = ? AND id = ?",
        written(new.why)?,
        now,
        author.person(),
        author.name(),
        kitchen.0,
        batch.0
    )
    .execute(&mut *tx)
    .await?;
    sqlx::query!(
        "UPDATE batch SET request = ?, result = ?, serve_at = ?, plan = plan + 1, planned_at = ?, revision = revision + 1,
                origin = 'maker'
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
    stock::follow(&mut tx, kitchen, batch).await?;
    words::follow(&mut tx, kitchen, batch).await?;
    tx.commit().await?;
    Ok(Replanned::Done)
}

/// A plan that a batch followed before.
#[derive(Debug, Clone, PartialEq)]
pub struct LeftPlan {
    pub at: Timestamp,
    /// Why it was left.
    pub why: Fact,
    /// Who left it; empty where nobody is known.
    pub by: String,
}

/// The plans of a batch that were left, the first one first.
pub async fn left_plans(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Vec<LeftPlan>> {
    let rows = sqlx::query!(
        "SELECT replaced_at, why, by_name FROM batch_plan WHERE kitchen_id = ? AND batch_id = ? ORDER BY plan",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| LeftPlan {
            at: instant::from_row(r.replaced_at),
            why: lifted::why(r.why),
            by: r.by_name,
        })
        .collect())
}

/// What was asked of a batch first, before its plan was changed; `None` while it never was.
pub async fn first_asked(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    code: &str,
) -> Result<Option<SheetRequest>> {
    let row = sqlx::query_scalar!(
        "SELECT request FROM batch_plan WHERE kitchen_id = ? AND batch_id = ? ORDER BY plan LIMIT 1",
        kitchen.0,
        batch.0
    )
    .fetch_optional(db)
    .await?;
    row.map(|request| lifted::request(code, &request))
        .transpose()
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

/// Removes the demo's batches that no maker touched, and the trials whose doughs were among them.
pub async fn clear_demo(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<u64> {
    let gone = sqlx::query!(
        "DELETE FROM batch WHERE kitchen_id = ? AND origin = 'demo'",
        kitchen.0
    )
    .execute(&mut *db)
    .await?
    .rows_affected();
    sqlx::query!(
        "DELETE FROM trial WHERE kitchen_id = ? AND NOT EXISTS
           (SELECT 1 FROM batch b WHERE b.kitchen_id = trial.kitchen_id AND b.code = JSON_VALUE(trial.design, '$.arms[0].batch'))",
        kitchen.0
    )
    .execute(db)
    .await?;
    Ok(gone)
}
