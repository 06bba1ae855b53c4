//! What was practised: the number of the next case for each hand and level, and how it went so far.

use crate::{KitchenId, Result};
use sqlx::MySqlConnection;

/// How practice at one level went.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct PractisedLevel {
    /// The number of the next case: each comes once.
    pub next_case: u32,
    pub answered: u32,
    /// So many were answered as the models say.
    pub hit: u32,
}

/// How it went for somebody, by level from 1.
pub async fn of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    who: &str,
) -> Result<[PractisedLevel; 3]> {
    let rows = sqlx::query!(
        "SELECT level, next_case, answered, hit FROM practised WHERE kitchen_id = ? AND who = ?",
        kitchen.0,
        who
    )
    .fetch_all(db)
    .await?;
    let mut out = [PractisedLevel::default(); 3];
    for r in rows {
        if let Some(at) = out.get_mut(usize::from(r.level).wrapping_sub(1)) {
            *at = PractisedLevel {
                next_case: r.next_case,
                answered: r.answered,
                hit: r.hit,
            };
        }
    }
    Ok(out)
}

/// Notes the answer to a case; one that was answered before, or is not the next, counts no more. Whether it counted.
pub async fn answered(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    who: &str,
    (level, case): (u8, u32),
    hit: bool,
) -> Result<bool> {
    sqlx::query!(
        "INSERT IGNORE INTO practised (kitchen_id, who, level, next_case, answered, hit) VALUES (?, ?, ?, 0, 0, 0)",
        kitchen.0,
        who,
        level
    )
    .execute(&mut *db)
    .await?;
    let done = sqlx::query!(
        "UPDATE practised SET next_case = next_case + 1, answered = answered + 1, hit = hit + ?
         WHERE kitchen_id = ? AND who = ? AND level = ? AND next_case = ?",
        hit,
        kitchen.0,
        who,
        level,
        case
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}
