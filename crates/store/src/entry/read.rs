//! Reading entries: of a batch, of a kitchen's places, by their key.

use super::said::{AT_THE_BOWL, ON_THE_SCALE, Observation, SaidEntry, Seen};
use super::{KeptEntry, Standing};
use crate::id::BatchId;
use crate::sheet::Entries;
use crate::{KitchenId, Result, instant};
use craft::fire::Tap;
use jiff::Timestamp;
use sqlx::MySqlConnection;
use std::collections::HashSet;
use uuid::Uuid;

/// The entry that stands under a key, and its batch. One that this program cannot read stands there, too.
pub(super) async fn by_key(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    key: Uuid,
) -> Result<Option<(KeptEntry, BatchId)>> {
    let row = sqlx::query!(
        "SELECT batch_id, kind, facts, at FROM entry WHERE kitchen_id = ? AND entry_key = ?",
        kitchen.0,
        key.to_string()
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|r| {
        let unknown = || {
            SaidEntry::Seen(Seen::Remark {
                remark: format!("an entry of the kind “{}”", r.kind),
            })
        };
        let kept = KeptEntry {
            key,
            at: instant::from_row(r.at),
            said: SaidEntry::from_row(&r.kind, &r.facts).unwrap_or_else(unknown),
            elsewhere: false,
        };
        (kept, BatchId(r.batch_id))
    }))
}

/// What is kept of a batch that is locked.
pub(super) async fn standing(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    finished: bool,
    cancelled: bool,
) -> Result<Standing> {
    let all = of_batch(db, kitchen, batch).await?;
    let seen = all
        .seen
        .iter()
        .map(|o| (o.key, false))
        .chain(all.taken_back.iter().map(|o| (o.key, true)))
        .collect();
    let photo = |o: &&Observation| matches!(o.seen, Seen::Photo { .. });
    Ok(Standing {
        photos: all.seen.iter().chain(&all.taken_back).filter(photo).count(),
        entries: all.seen.len() + all.taken_back.len() + all.unreadable,
        mix: all.seen.iter().filter_map(Observation::mix_tap).collect(),
        shape: all.seen.iter().filter_map(Observation::shape_tap).collect(),
        taps: all.taps,
        finished,
        cancelled,
        seen,
    })
}

struct EntryRow {
    id: u64,
    entry_key: String,
    kind: String,
    facts: String,
    at: chrono::NaiveDateTime,
    by_name: String,
}

fn sorted(rows: Vec<EntryRow>) -> Entries {
    let mut out = Entries::default();
    for r in rows {
        let at = instant::from_row(r.at);
        match SaidEntry::from_row(&r.kind, &r.facts) {
            Some(SaidEntry::Seen(seen)) => out.seen.push(Observation {
                id: r.id,
                key: Uuid::parse_str(&r.entry_key).unwrap_or_default(),
                at,
                seen,
                by: r.by_name,
            }),
            Some(SaidEntry::Tapped { pizza, kind }) => {
                out.taps.push(Tap { pizza, at, kind });
                out.taps_by.push(r.by_name);
            }
            None => out.unreadable += 1,
        }
    }
    let back: HashSet<Uuid> = out
        .seen
        .iter()
        .filter_map(|o| match o.seen {
            Seen::TakenBack { entry } => Some(entry),
            _ => None,
        })
        .collect();
    if !back.is_empty() {
        let (gone, kept) = out.seen.into_iter().partition(|o| back.contains(&o.key));
        (out.taken_back, out.seen) = (gone, kept);
    }
    out
}

/// All that was entered about a batch, in the order of the clock.
pub async fn of_batch(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
) -> Result<Entries> {
    let rows = sqlx::query_as!(
        EntryRow,
        "SELECT id, entry_key, kind, facts, at, by_name FROM entry WHERE kitchen_id = ? AND batch_id = ? ORDER BY at, id",
        kitchen.0,
        batch.0
    )
    .fetch_all(db)
    .await?;
    Ok(sorted(rows))
}

/// What was said of a kitchen's places since a moment, in the order of the clock; what was taken back counts no longer.
pub async fn of_places(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    from: Timestamp,
) -> Result<Vec<Observation>> {
    let rows = sqlx::query_as!(
        EntryRow,
        "SELECT e.id, e.entry_key, e.kind, e.facts, e.at, e.by_name FROM entry e
         WHERE e.kitchen_id = ? AND e.place IN ('room', 'fridge', 'own', 'taken back') AND e.at >= ? ORDER BY e.at DESC, e.id DESC LIMIT 4000",
        kitchen.0,
        instant::to_row(from)
    )
    .fetch_all(db)
    .await?;
    let mut seen = sorted(rows).seen;
    seen.retain(|o| !matches!(o.seen, Seen::TakenBack { .. }));
    seen.reverse();
    Ok(seen)
}

/// The codes of batches that were mixed tap by tap, the latest first.
pub async fn codes_at_the_bowl(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    most: u32,
) -> Result<Vec<String>> {
    codes_at(db, kitchen, AT_THE_BOWL, most).await
}

/// The codes of batches whose dough was weighed whole, the latest first.
pub async fn codes_on_the_scale(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    most: u32,
) -> Result<Vec<String>> {
    codes_at(db, kitchen, ON_THE_SCALE, most).await
}

async fn codes_at(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    place: &str,
    most: u32,
) -> Result<Vec<String>> {
    let codes = sqlx::query_scalar!(
        "SELECT b.code FROM entry e JOIN batch b ON b.id = e.batch_id AND b.kitchen_id = e.kitchen_id
         WHERE e.kitchen_id = ? AND e.place = ? GROUP BY b.id, b.code ORDER BY MAX(e.at) DESC LIMIT ?",
        kitchen.0,
        place,
        most
    )
    .fetch_all(db)
    .await?;
    Ok(codes)
}
