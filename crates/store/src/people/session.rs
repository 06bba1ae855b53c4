//! Where somebody is signed in.

use super::pass::PassId;
use super::{PersonId, secret_hash};
use crate::error::is_duplicate;
use crate::{Result, instant};
use jiff::Timestamp;
use sqlx::MySqlConnection;

/// A session as it is kept.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptSession {
    /// Whatever the server remembers in it, as JSON.
    pub data: String,
    pub ends_at: Timestamp,
}

/// A session to be kept.
#[derive(Debug, Clone)]
pub struct NewSession<'a> {
    pub person: Option<PersonId>,
    pub pass: Option<PassId>,
    pub data: &'a str,
    /// The browser, as it names itself.
    pub agent: &'a str,
    pub ends_at: Timestamp,
}

/// One of a person's sessions.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ListedSession {
    pub number: u64,
    pub agent: String,
    pub made_at: Timestamp,
    pub seen_at: Timestamp,
    /// Whether it is the one of this secret.
    pub own: bool,
}

/// No browser names itself longer.
const LONGEST_AGENT: usize = 200;

/// Begins a session; `false` when its secret is taken.
pub async fn begin(
    db: &mut MySqlConnection,
    secret: &str,
    new: &NewSession<'_>,
    now: Timestamp,
) -> Result<bool> {
    let now = instant::to_row(now);
    let agent: String = new.agent.chars().take(LONGEST_AGENT).collect();
    let done = sqlx::query!(
        "INSERT INTO session (hash, person_id, pass_id, data, agent, made_at, seen_at, ends_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        secret_hash(secret),
        new.person.map(|p| p.0),
        new.pass.map(|p| p.0),
        new.data,
        agent,
        now,
        now,
        instant::to_row(new.ends_at)
    )
    .execute(db)
    .await;
    match done {
        Ok(_) => Ok(true),
        Err(e) if is_duplicate(&e) => Ok(false),
        Err(e) => Err(e.into()),
    }
}

/// Keeps what a session remembers now; one that was ended stays so.
pub async fn keep(
    db: &mut MySqlConnection,
    secret: &str,
    new: &NewSession<'_>,
    now: Timestamp,
) -> Result<()> {
    sqlx::query!(
        "UPDATE session SET person_id = ?, pass_id = ?, data = ?, seen_at = ?, ends_at = ? WHERE hash = ?",
        new.person.map(|p| p.0),
        new.pass.map(|p| p.0),
        new.data,
        instant::to_row(now),
        instant::to_row(new.ends_at),
        secret_hash(secret)
    )
    .execute(db)
    .await?;
    Ok(())
}

pub async fn of_secret(
    db: &mut MySqlConnection,
    secret: &str,
    now: Timestamp,
) -> Result<Option<KeptSession>> {
    let row = sqlx::query!(
        "SELECT data, ends_at FROM session WHERE hash = ? AND ends_at > ?",
        secret_hash(secret),
        instant::to_row(now)
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(|r| KeptSession {
        data: r.data,
        ends_at: instant::from_row(r.ends_at),
    }))
}

pub async fn end(db: &mut MySqlConnection, secret: &str) -> Result<()> {
    sqlx::query!("DELETE FROM session WHERE hash = ?", secret_hash(secret))
        .execute(db)
        .await?;
    Ok(())
}

/// The sessions of a person, the one that was seen last first.
pub async fn of_person(
    db: &mut MySqlConnection,
    person: PersonId,
    secret: Option<&str>,
    now: Timestamp,
) -> Result<Vec<ListedSession>> {
    let rows = sqlx::query!(
        "SELECT id, hash, agent, made_at, seen_at FROM session WHERE person_id = ? AND ends_at > ? ORDER BY seen_at DESC LIMIT 100",
        person.0,
        instant::to_row(now)
    )
    .fetch_all(db)
    .await?;
    let own = secret.map(secret_hash);
    Ok(rows
        .into_iter()
        .map(|r| ListedSession {
            number: r.id,
            agent: r.agent,
            made_at: instant::from_row(r.made_at),
            seen_at: instant::from_row(r.seen_at),
            own: own.as_ref() == Some(&r.hash),
        })
        .collect())
}

/// Ends one of a person's sessions by its number; `false` when it is none of theirs.
pub async fn end_of(db: &mut MySqlConnection, person: PersonId, number: u64) -> Result<bool> {
    let done = sqlx::query!(
        "DELETE FROM session WHERE person_id = ? AND id = ?",
        person.0,
        number
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Ends all sessions of a person but the one of this secret.
pub async fn end_others(
    db: &mut MySqlConnection,
    person: PersonId,
    but: Option<&str>,
) -> Result<()> {
    let but = but.map(secret_hash).unwrap_or_default();
    sqlx::query!(
        "DELETE FROM session WHERE person_id = ? AND hash <> ?",
        person.0,
        but
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Clears away what ended.
pub async fn clear(db: &mut MySqlConnection, now: Timestamp) -> Result<()> {
    sqlx::query!(
        "DELETE FROM session WHERE ends_at < ?",
        instant::to_row(now)
    )
    .execute(db)
    .await?;
    Ok(())
}
