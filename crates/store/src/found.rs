//! How a bake is found again: the words of each batch, which follow from its plan and its entries, and the ledger's lists.

use crate::batch::{BatchList, finished_rows};
use crate::batch_cache::BatchCache;
use crate::id::BatchId;
use crate::sheet::sheet_of;
use crate::{KitchenId, Result, StoreError, entry, instant};
use craft::fire::{Run, RunSummary};
use craft::keyed::Keyed;
use craft::learn::notice::{Turned, how_it_turned_out};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use sqlx::MySqlConnection;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What a word says of its batch.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    Hash,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum WordKind {
    Formula,
    Style,
    Flour,
    Oven,
    /// How its sides came out, by the key of [`Turned`].
    Turned,
    /// Who worked on it.
    By,
    /// A remark.
    Said,
}

/// A word is no longer.
const LONGEST: usize = 190;
/// Choices of a kind that a list offers.
const MOST_CHOICES: u32 = 200;

fn short(text: &str) -> String {
    text.trim().chars().take(LONGEST).collect()
}

/// Writes anew by what a batch is found. It is locked by whoever calls.
pub(crate) async fn follow(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<()> {
    let row = sqlx::query!(
        "SELECT b.code, b.name, b.by_name, v.name AS formula FROM batch b
         LEFT JOIN formula_version v ON v.id = b.formula_version_id
         WHERE b.kitchen_id = ? AND b.id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_one(&mut *db)
    .await?;
    let sheet = match sheet_of(db, kitchen, batch, &row.code).await {
        // What cannot be read is found by its name alone.
        Err(StoreError::Unreadable(why)) => {
            tracing::warn!(batch = row.code, cause = why, "it is found by no word");
            return Ok(());
        }
        read => read?,
    };
    let entries = entry::of_batch(db, kitchen, batch).await?;
    let f = &sheet.request.formula;
    let summary: RunSummary = Run::of(&entries.taps).summary();
    let mut words: Vec<(WordKind, String)> = vec![
        (WordKind::Formula, row.formula.unwrap_or(row.name)),
        (WordKind::Style, f.style.name.clone()),
    ];
    words.extend(f.flours.iter().map(|p| (WordKind::Flour, p.name.clone())));
    words.extend(
        sheet
            .request
            .fire
            .iter()
            .map(|f| (WordKind::Oven, f.plan.oven.name.clone())),
    );
    words.extend(
        how_it_turned_out(&summary)
            .into_iter()
            .map(|t: Turned| (WordKind::Turned, t.key().to_string())),
    );
    let names = entries.names();
    words.extend(
        std::iter::once(row.by_name.as_str())
            .chain(names)
            .map(|n| (WordKind::By, n.to_string())),
    );
    words.extend(entries.seen.iter().filter_map(|o| match &o.seen {
        entry::Seen::Remark { remark } => Some((WordKind::Said, remark.clone())),
        _ => None,
    }));
    sqlx::query!("DELETE FROM batch_word WHERE batch_id = ?", batch.0)
        .execute(&mut *db)
        .await?;
    for (kind, word) in words {
        let word = short(&word);
        if word.is_empty() {
            continue;
        }
        sqlx::query!(
            "INSERT IGNORE INTO batch_word (batch_id, kind, word, kitchen_id) VALUES (?, ?, ?, ?)",
            batch.0,
            kind.key(),
            word,
            kitchen.0
        )
        .execute(&mut *db)
        .await?;
    }
    Ok(())
}

/// Writes the words of batches that were kept before they had any; how many.
pub async fn catch_up(db: &mut MySqlConnection) -> Result<usize> {
    let bare = sqlx::query!(
        "SELECT b.id, b.kitchen_id FROM batch b
         WHERE NOT EXISTS (SELECT 1 FROM batch_word w WHERE w.batch_id = b.id) ORDER BY b.id"
    )
    .fetch_all(&mut *db)
    .await?;
    let mut done = 0;
    for b in bare {
        follow(db, KitchenId(b.kitchen_id), BatchId(b.id)).await?;
        done += 1;
    }
    Ok(done)
}

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

/// A typed per cent sign is a letter, not a wildcard.
pub(crate) fn like(text: &str) -> String {
    let mut out = String::from("%");
    for c in text.trim().chars() {
        if matches!(c, '%' | '_' | '\\') {
            out.push('\\');
        }
        out.push(c);
    }
    out.push('%');
    out
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
    let all = sqlx::query_scalar!(
        "SELECT DISTINCT word FROM batch_word WHERE kitchen_id = ? AND kind = ? ORDER BY word LIMIT ?",
        kitchen.0,
        kind.key(),
        MOST_CHOICES
    )
    .fetch_all(db)
    .await?;
    Ok(all)
}
