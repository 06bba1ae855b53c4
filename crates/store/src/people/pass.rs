//! What opens something to whoever has its secret. Only the hash of the secret is kept.

use super::{PersonId, secret_hash};
use crate::id::BatchId;
use crate::{KitchenId, Result, StoreError, instant};
use craft::keyed::Keyed;
use craft::people::Role;
use jiff::Timestamp;
use jiff::civil::Date;
use sqlx::MySqlConnection;
use strum::{EnumString, IntoStaticStr, VariantArray};

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct PassId(pub u64);

impl Pass {
    /// The evening that a crew's link is for, where it is for no single batch.
    pub fn evening(&self) -> Option<Date> {
        let of_crew = self.kind == PassKind::Crew && self.batch.is_none();
        self.name.parse().ok().filter(|_| of_crew)
    }
}

/// What a pass opens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum PassKind {
    /// A kitchen, to a person; once.
    Invitation,
    /// One batch, or the evening of the day that is its name, to a crew without accounts.
    Crew,
    /// A kitchen, to the tablet that shows its code.
    Device,
    /// A new password; once.
    Password,
    /// The API of a kitchen, to a program.
    Token,
}

/// A pass that is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Pass {
    pub id: PassId,
    pub kind: PassKind,
    pub kitchen: Option<KitchenId>,
    pub person: Option<PersonId>,
    pub role: Role,
    pub batch: Option<BatchId>,
    pub name: String,
    pub made_by: String,
    pub made_at: Timestamp,
    pub ends_at: Timestamp,
    pub used_at: Option<Timestamp>,
}

/// A pass to be made.
#[derive(Debug, Clone)]
pub struct NewPass<'a> {
    pub kind: PassKind,
    pub kitchen: Option<KitchenId>,
    pub person: Option<PersonId>,
    pub role: Role,
    pub batch: Option<BatchId>,
    pub name: &'a str,
    pub made_by: &'a str,
    pub ends_at: Timestamp,
}

struct PassRow {
    id: u64,
    kind: String,
    kitchen_id: Option<u64>,
    person_id: Option<u64>,
    role: String,
    batch_id: Option<u64>,
    name: String,
    made_by: String,
    made_at: chrono::NaiveDateTime,
    ends_at: chrono::NaiveDateTime,
    used_at: Option<chrono::NaiveDateTime>,
}

fn read(r: PassRow) -> Result<Pass> {
    let unknown = |what: &str| StoreError::Unreadable(format!("a pass of {what}"));
    Ok(Pass {
        id: PassId(r.id),
        kind: PassKind::from_key(&r.kind).ok_or_else(|| unknown(&r.kind))?,
        kitchen: r.kitchen_id.map(KitchenId),
        person: r.person_id.map(PersonId),
        role: Role::from_key(&r.role).ok_or_else(|| unknown(&r.role))?,
        batch: r.batch_id.map(BatchId),
        name: r.name,
        made_by: r.made_by,
        made_at: instant::from_row(r.made_at),
        ends_at: instant::from_row(r.ends_at),
        used_at: r.used_at.map(instant::from_row),
    })
}

pub async fn make(
    db: &mut MySqlConnection,
    new: &NewPass<'_>,
    secret: &str,
    now: Timestamp,
) -> Result<PassId> {
    let done = sqlx::query!(
        "INSERT INTO pass (kind, hash, kitchen_id, person_id, role, batch_id, name, made_by, made_at, ends_at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        new.kind.key(),
        secret_hash(secret),
        new.kitchen.map(|k| k.0),
        new.person.map(|p| p.0),
        new.role.key(),
        new.batch.map(|b| b.0),
        new.name,
        new.made_by,
        instant::to_row(now),
        instant::to_row(new.ends_at)
    )
    .execute(db)
    .await?;
    Ok(PassId(done.last_insert_id()))
}

/// The pass of a secret, while it lasts.
pub async fn by_secret(
    db: &mut MySqlConnection,
    kind: PassKind,
    secret: &str,
    now: Timestamp,
) -> Result<Option<Pass>> {
    let row = sqlx::query_as!(
        PassRow,
        "SELECT id, kind, kitchen_id, person_id, role, batch_id, name, made_by, made_at, ends_at, used_at
         FROM pass WHERE hash = ? AND kind = ? AND ends_at > ?",
        secret_hash(secret),
        kind.key(),
        instant::to_row(now)
    )
    .fetch_optional(db)
    .await?;
    row.map(read).transpose()
}

/// The pass that a session came by, while it lasts.
pub async fn by_id(db: &mut MySqlConnection, id: PassId, now: Timestamp) -> Result<Option<Pass>> {
    let row = sqlx::query_as!(
        PassRow,
        "SELECT id, kind, kitchen_id, person_id, role, batch_id, name, made_by, made_at, ends_at, used_at
         FROM pass WHERE id = ? AND ends_at > ?",
        id.0,
        instant::to_row(now)
    )
    .fetch_optional(db)
    .await?;
    row.map(read).transpose()
}

/// What was given away in a kitchen and still lasts, the latest first.
pub async fn of_kitchen(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    now: Timestamp,
) -> Result<Vec<Pass>> {
    let rows = sqlx::query_as!(
        PassRow,
        "SELECT id, kind, kitchen_id, person_id, role, batch_id, name, made_by, made_at, ends_at, used_at
         FROM pass WHERE kitchen_id = ? AND ends_at > ? AND (used_at IS NULL OR kind IN ('device', 'token')) ORDER BY id DESC LIMIT 200",
        kitchen.0,
        instant::to_row(now)
    )
    .fetch_all(db)
    .await?;
    rows.into_iter().map(read).collect()
}

/// How many tablets wait to be taken in.
pub async fn waiting(db: &mut MySqlConnection, now: Timestamp) -> Result<u64> {
    let n = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM pass WHERE kind = 'device' AND kitchen_id IS NULL AND ends_at > ?",
        instant::to_row(now)
    )
    .fetch_one(db)
    .await?;
    Ok(n as u64)
}

/// How many tokens of a kitchen last.
pub async fn tokens(db: &mut MySqlConnection, kitchen: KitchenId, now: Timestamp) -> Result<u64> {
    let n = sqlx::query_scalar!(
        "SELECT COUNT(*) FROM pass WHERE kind = 'token' AND kitchen_id = ? AND ends_at > ?",
        kitchen.0,
        instant::to_row(now)
    )
    .fetch_one(db)
    .await?;
    Ok(n as u64)
}

/// Notes that a token was used.
pub async fn used(db: &mut MySqlConnection, id: PassId, now: Timestamp) -> Result<()> {
    sqlx::query!(
        "UPDATE pass SET used_at = ? WHERE id = ? AND kind = 'token'",
        instant::to_row(now),
        id.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Uses up a pass that opens once; `false` when somebody did before.
pub async fn use_up(db: &mut MySqlConnection, id: PassId, now: Timestamp) -> Result<bool> {
    let now = instant::to_row(now);
    let done = sqlx::query!(
        "UPDATE pass SET used_at = ? WHERE id = ? AND used_at IS NULL AND ends_at > ?",
        now,
        id.0,
        now
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Takes a tablet that waits into a kitchen, under a name and for so long; `false` when it no longer waits.
pub async fn take_in(
    db: &mut MySqlConnection,
    id: PassId,
    kitchen: KitchenId,
    (name, made_by): (&str, &str),
    (now, ends_at): (Timestamp, Timestamp),
) -> Result<bool> {
    let now = instant::to_row(now);
    let done = sqlx::query!(
        "UPDATE pass SET kitchen_id = ?, name = ?, made_by = ?, used_at = ?, ends_at = ?
         WHERE id = ? AND kind = 'device' AND kitchen_id IS NULL AND ends_at > ?",
        kitchen.0,
        name,
        made_by,
        now,
        instant::to_row(ends_at),
        id.0,
        now
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Ends a pass of a kitchen; whoever came by it is signed out. `false` when there is none.
pub async fn end(db: &mut MySqlConnection, kitchen: KitchenId, id: PassId) -> Result<bool> {
    let done = sqlx::query!(
        "DELETE FROM pass WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        id.0
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Clears away what ended.
pub async fn clear(db: &mut MySqlConnection, before: Timestamp) -> Result<()> {
    sqlx::query!(
        "DELETE FROM pass WHERE ends_at < ?",
        instant::to_row(before)
    )
    .execute(db)
    .await?;
    Ok(())
}
