//! The words by which a batch is found again: they follow from its plan and its entries.

use crate::id::BatchId;
use crate::sheet::sheet_of;
use crate::{KitchenId, Result, StoreError, entry};
use craft::fire::{Run, RunSummary};
use craft::keyed::Keyed;
use craft::learn::notice::{TurnedOut, how_it_turned_out};
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
    /// How its sides came out, by the key of [`TurnedOut`].
    Turned,
    /// Who worked on it.
    By,
    /// A remark.
    Said,
}

/// A word is no longer.
const LONGEST: usize = 190;

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
            .map(|t: TurnedOut| (WordKind::Turned, t.key().to_string())),
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
