//! The trial: what is compared, by whom. What was tasted stands among the entries of its batches.

use crate::error::written;
use crate::{Author, KitchenId, Result, StoreError, instant};
use craft::trial::TrialDesign;
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

/// A trial that is kept.
#[derive(Debug, Clone, PartialEq)]
pub struct KeptTrial {
    pub code: String,
    /// What its tastings name it by.
    pub key: Uuid,
    pub name: String,
    pub created_at: Timestamp,
    /// Who made it; empty where nobody is known.
    pub by: String,
    pub trial: TrialDesign,
}

struct TrialRow {
    code: String,
    trial_key: String,
    name: String,
    design: String,
    created_at: chrono::NaiveDateTime,
    by_name: String,
}

impl TrialRow {
    fn kept(self) -> Result<KeptTrial> {
        let unreadable = |why: String| StoreError::Unreadable(format!("{}: {why}", self.code));
        Ok(KeptTrial {
            key: Uuid::parse_str(&self.trial_key).map_err(|e| unreadable(e.to_string()))?,
            trial: serde_json::from_str(&self.design).map_err(|e| unreadable(e.to_string()))?,
            created_at: instant::from_row(self.created_at),
            code: self.code,
            name: self.name,
            by: self.by_name,
        })
    }
}

/// Keeps a trial and gives it a code. Within the transaction of whoever calls where there is one.
pub async fn keep(
    db: &mut MySqlConnection,
    author: impl Into<Author<'_>>,
    name: &str,
    trial: &TrialDesign,
    now: Timestamp,
) -> Result<String> {
    let author = author.into();
    let kitchen = author.kitchen;
    let design = written(trial)?;
    let mut tx = db.begin().await?;
    // The kitchen first: numbers are given one after the other.
    sqlx::query!("SELECT id FROM kitchen WHERE id = ? FOR UPDATE", kitchen.0)
        .fetch_one(&mut *tx)
        .await?;
    let n = sqlx::query_scalar!(
        "SELECT CAST(COALESCE(MAX(CAST(SUBSTRING(code, 3) AS UNSIGNED)), 0) AS UNSIGNED) FROM trial WHERE kitchen_id = ?",
        kitchen.0
    )
    .fetch_one(&mut *tx)
    .await?;
    let code = format!("T-{:02}", n + 1);
    sqlx::query!(
        "INSERT INTO trial (kitchen_id, code, trial_key, name, design, created_at, by_person, by_name)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        kitchen.0,
        code,
        Uuid::new_v4().to_string(),
        name,
        design,
        instant::to_row(now),
        author.person(),
        author.name()
    )
    .execute(&mut *tx)
    .await?;
    tx.commit().await?;
    Ok(code)
}

/// The trial that a code is.
pub async fn by_code(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    code: &str,
) -> Result<Option<KeptTrial>> {
    let row = sqlx::query_as!(
        TrialRow,
        "SELECT code, trial_key, name, design, created_at, by_name FROM trial WHERE kitchen_id = ? AND code = ?",
        kitchen.0,
        code
    )
    .fetch_optional(db)
    .await?;
    row.map(TrialRow::kept).transpose()
}

/// Trials, the latest first, and how many there are.
pub async fn list(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (skip, most): (u32, u32),
) -> Result<(Vec<KeptTrial>, u64)> {
    let rows = sqlx::query_as!(
        TrialRow,
        "SELECT code, trial_key, name, design, created_at, by_name FROM trial WHERE kitchen_id = ?
         ORDER BY created_at DESC, id DESC LIMIT ? OFFSET ?",
        kitchen.0,
        most,
        skip
    )
    .fetch_all(&mut *db)
    .await?;
    let in_all = sqlx::query_scalar!("SELECT COUNT(*) FROM trial WHERE kitchen_id = ?", kitchen.0)
        .fetch_one(db)
        .await?;
    let mut out = Vec::with_capacity(rows.len());
    for row in rows {
        match row.kept() {
            Ok(t) => out.push(t),
            // One that cannot be read does not hide the others.
            Err(e) => tracing::error!(cause = %e, "a trial cannot be read"),
        }
    }
    Ok((out, in_all as u64))
}
