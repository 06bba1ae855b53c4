//! The formula: a named row of versions. A version is never changed; editing makes the next one.

use crate::error::written;
use crate::once::{self, Once};
use crate::sheet::Origin;
use crate::words::like;
use crate::{Author, KitchenId, Result, StoreError, instant};
use craft::formula::Formula;
use craft::keyed::Keyed;
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct FormulaId(pub u64);

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct VersionId(pub u64);

/// A formula in the library's list.
#[derive(Debug, Clone, PartialEq)]
pub struct ListedFormula {
    pub id: FormulaId,
    pub name: String,
    pub style_key: String,
    pub style_name: String,
    /// Number of its latest version.
    pub head: u32,
    pub archived: bool,
    pub changed_at: Timestamp,
    /// What was changed last.
    pub why: String,
}

/// One version.
#[derive(Debug, Clone, PartialEq)]
pub struct Version {
    pub id: VersionId,
    pub of: FormulaId,
    pub number: u32,
    pub name: String,
    pub why: String,
    pub made_at: Timestamp,
    /// Who made it; empty where nobody is known.
    pub by: String,
    pub formula: Formula,
}

/// A version to be kept.
#[derive(Debug, Clone)]
pub struct NewVersion<'a> {
    pub form_key: Uuid,
    pub name: &'a str,
    pub why: &'a str,
    pub formula: &'a Formula,
    /// The formula that it is the next version of, with the number that the maker began from.
    pub of: Option<(FormulaId, u32)>,
    pub origin: Origin,
}

/// What became of a save.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum KeptFormula {
    Done {
        of: FormulaId,
        number: u32,
    },
    /// Somebody made a newer version meanwhile; nothing was written.
    Stale {
        head: u32,
    },
    /// Another version was kept from the same form; nothing was written.
    Other {
        of: FormulaId,
        number: u32,
    },
}

/// Where a key leads: a formula's id and a version's number.
fn leads_to(of: FormulaId, number: u32) -> String {
    format!("{}/{number}", of.0)
}

fn led_to(path: &str) -> Result<(FormulaId, u32)> {
    path.split_once('/')
        .and_then(|(id, n)| Some((FormulaId(id.parse().ok()?), n.parse().ok()?)))
        .ok_or_else(|| StoreError::Unreadable(format!("a form leads to “{path}”")))
}

/// Keeps a version; a form that was kept before is found again. Within the transaction of whoever calls where there is one.
pub async fn keep(
    db: &mut MySqlConnection,
    author: impl Into<Author<'_>>,
    new: &NewVersion<'_>,
    now: Timestamp,
) -> Result<KeptFormula> {
    let author = author.into();
    let kitchen = author.kitchen;
    let json = written(new.formula)?;
    let mut tx = db.begin().await?;
    let db: &mut MySqlConnection = &mut tx;
    if let Some((of, _)) = new.of {
        // The formula first: whoever saves it meanwhile waits here, and sees the newer version then.
        head_for_update(db, kitchen, of).await?;
    }
    let began_from = new.of.map(|(of, n)| leads_to(of, n)).unwrap_or_default();
    let content = [new.name, new.why, &json, &began_from];
    let key = ("version", new.form_key);
    match once::take(db, kitchen, key, &content, now).await? {
        Once::First => {}
        Once::Before(path) => {
            let (of, number) = led_to(&path)?;
            return Ok(KeptFormula::Done { of, number });
        }
        Once::Other(path) => {
            let (of, number) = led_to(&path)?;
            return Ok(KeptFormula::Other { of, number });
        }
    }
    let (of, number) = match new.of {
        None => (begin(db, kitchen, new, now).await?, 1),
        Some((of, began_from)) => {
            let done = sqlx::query!(
                "UPDATE formula SET head = head + 1, name = ?, style_key = ?, style_name = ?, changed_at = ?
                 WHERE kitchen_id = ? AND id = ? AND head = ?",
                new.name,
                new.formula.style.key,
                new.formula.style.name,
                instant::to_row(now),
                kitchen.0,
                of.0,
                began_from
            )
            .execute(&mut *db)
            .await?;
            if done.rows_affected() == 0 {
                let head = head_for_update(db, kitchen, of).await?;
                // Nothing was made: the key is free for what is sent instead.
                once::free(db, kitchen, key).await?;
                return Ok(KeptFormula::Stale {
                    head: head.unwrap_or(0),
                });
            }
            (of, began_from + 1)
        }
    };
    sqlx::query!(
        "INSERT INTO formula_version (kitchen_id, formula_id, number, form_key, name, why, formula, made_at, by_person, by_name)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        kitchen.0,
        of.0,
        number,
        new.form_key.to_string(),
        new.name,
        new.why,
        json,
        instant::to_row(now),
        author.person(),
        author.name()
    )
    .execute(&mut *db)
    .await?;
    once::made(db, kitchen, key, &leads_to(of, number)).await?;
    tx.commit().await?;
    Ok(KeptFormula::Done { of, number })
}

async fn begin(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    new: &NewVersion<'_>,
    now: Timestamp,
) -> Result<FormulaId> {
    let at = instant::to_row(now);
    let done = sqlx::query!(
        "INSERT INTO formula (kitchen_id, name, style_key, style_name, head, origin, created_at, changed_at)
         VALUES (?, ?, ?, ?, 1, ?, ?, ?)",
        kitchen.0,
        new.name,
        new.formula.style.key,
        new.formula.style.name,
        new.origin.key(),
        at,
        at
    )
    .execute(db)
    .await?;
    Ok(FormulaId(done.last_insert_id()))
}

/// The number of the latest version, with the formula taken for this transaction.
pub async fn head_for_update(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: FormulaId,
) -> Result<Option<u32>> {
    Ok(sqlx::query_scalar!(
        "SELECT head FROM formula WHERE kitchen_id = ? AND id = ? FOR UPDATE",
        kitchen.0,
        id.0
    )
    .fetch_optional(db)
    .await?)
}

/// What to list.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Find {
    /// In the name, the style or what was changed; empty for all.
    pub text: String,
    /// A style's key; empty for all.
    pub style_key: String,
    pub archived: bool,
    /// So many are passed over, and so many listed.
    pub skip: u32,
    pub most: u32,
}

/// Formulas of one page, and how many there are in all.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct FormulaList {
    pub listed: Vec<ListedFormula>,
    pub in_all: u64,
}

/// Formulas, the one changed last first.
pub async fn list(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    find: &Find,
) -> Result<FormulaList> {
    let like = like(&find.text);
    let in_all = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM formula f JOIN formula_version v ON v.formula_id = f.id AND v.number = f.head
         WHERE f.kitchen_id = ? AND (f.archived_at IS NOT NULL) = ? AND (? = '' OR f.style_key = ?)
           AND (f.name LIKE ? OR f.style_name LIKE ? OR v.why LIKE ?)",
        kitchen.0,
        find.archived,
        find.style_key,
        find.style_key,
        like,
        like,
        like
    )
    .fetch_one(&mut *db)
    .await?;
    let rows = sqlx::query!(
        "SELECT f.id, f.name, f.style_key, f.style_name, f.head, f.archived_at, f.changed_at, v.why
         FROM formula f JOIN formula_version v ON v.formula_id = f.id AND v.number = f.head
         WHERE f.kitchen_id = ? AND (f.archived_at IS NOT NULL) = ? AND (? = '' OR f.style_key = ?)
           AND (f.name LIKE ? OR f.style_name LIKE ? OR v.why LIKE ?)
         ORDER BY f.changed_at DESC, f.id DESC LIMIT ? OFFSET ?",
        kitchen.0,
        find.archived,
        find.style_key,
        find.style_key,
        like,
        like,
        like,
        find.most,
        find.skip
    )
    .fetch_all(db)
    .await?;
    let listed = rows
        .into_iter()
        .map(|r| ListedFormula {
            id: FormulaId(r.id),
            name: r.name,
            style_key: r.style_key,
            style_name: r.style_name,
            head: r.head,
            archived: r.archived_at.is_some(),
            changed_at: instant::from_row(r.changed_at),
            why: r.why,
        })
        .collect();
    Ok(FormulaList {
        listed,
        in_all: in_all as u64,
    })
}

/// All versions of a formula, the latest first.
pub async fn versions(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: FormulaId,
) -> Result<Vec<Version>> {
    let rows = sqlx::query!(
        "SELECT id, number, name, why, formula, made_at, by_name FROM formula_version
         WHERE kitchen_id = ? AND formula_id = ? ORDER BY number DESC",
        kitchen.0,
        id.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(Version {
                id: VersionId(r.id),
                of: id,
                number: r.number,
                formula: read(id, r.number, &r.formula)?,
                name: r.name,
                why: r.why,
                made_at: instant::from_row(r.made_at),
                by: r.by_name,
            })
        })
        .collect()
}

/// One version; the latest without a number.
pub async fn version(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: FormulaId,
    number: Option<u32>,
) -> Result<Option<Version>> {
    let row = sqlx::query!(
        "SELECT v.id, v.number, v.name, v.why, v.formula, v.made_at, v.by_name
         FROM formula f JOIN formula_version v ON v.formula_id = f.id AND v.number = COALESCE(?, f.head)
         WHERE f.kitchen_id = ? AND f.id = ?",
        number,
        kitchen.0,
        id.0
    )
    .fetch_optional(db)
    .await?;
    row.map(|r| {
        Ok(Version {
            id: VersionId(r.id),
            of: id,
            number: r.number,
            formula: read(id, r.number, &r.formula)?,
            name: r.name,
            why: r.why,
            made_at: instant::from_row(r.made_at),
            by: r.by_name,
        })
    })
    .transpose()
}

fn read(id: FormulaId, number: u32, json: &str) -> Result<Formula> {
    serde_json::from_str(json)
        .map_err(|e| StoreError::Unreadable(format!("formula {} version {number}: {e}", id.0)))
}

/// Whether a formula was put away.
pub async fn is_archived(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: FormulaId,
) -> Result<bool> {
    let n = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM formula WHERE kitchen_id = ? AND id = ? AND archived_at IS NOT NULL",
        kitchen.0,
        id.0
    )
    .fetch_one(db)
    .await?;
    Ok(n > 0)
}

/// Puts a formula away, or takes it back; nothing of it goes.
pub async fn archive(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: FormulaId,
    away_at: Option<Timestamp>,
) -> Result<bool> {
    let done = sqlx::query!(
        "UPDATE formula SET archived_at = ? WHERE kitchen_id = ? AND id = ?",
        away_at.map(instant::to_row),
        kitchen.0,
        id.0
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}
