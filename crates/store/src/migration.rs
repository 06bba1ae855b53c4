//! The schema: brought up to date at start, by whichever program comes first, and gone on with after a crash in its middle.

use crate::error::was_done_before;
use crate::{Db, Result, StoreError};
use sqlx::migrate::{MigrateError, Migration, Migrator};
use sqlx::{Executor, MySqlConnection};
use std::sync::LazyLock;

static SHIPPED: LazyLock<Migrator> = LazyLock::new(|| {
    let mut m = sqlx::migrate!("../../migrations");
    // A newer program may have gone further on the same database: what it added is left alone.
    m.set_ignore_missing(true);
    m
});

/// Brings the schema up to date. Safe to run twice, by two programs at once, and after one that was killed in the middle.
pub async fn migrate(db: &Db) -> Result<()> {
    let mut db = db.acquire().await?;
    // sqlx's own lock waits "for ever" with a negative time, which MariaDB takes as no lock at all.
    let got =
        sqlx::query_scalar!(r#"SELECT GET_LOCK(CONCAT(DATABASE(), '.migrate'), 60) AS "got: i64""#)
            .fetch_one(&mut *db)
            .await?;
    if got != Some(1) {
        return Err(StoreError::Unreadable(
            "another program is still bringing the schema up to date".into(),
        ));
    }
    let done = match run(&mut db).await {
        Ok(()) => caught_up(&mut db).await,
        e => e,
    };
    sqlx::query!("DO RELEASE_LOCK(CONCAT(DATABASE(), '.migrate'))")
        .execute(&mut *db)
        .await?;
    done
}

/// What the schema cannot do by itself for rows from before it.
async fn caught_up(db: &mut MySqlConnection) -> Result<()> {
    crate::stock::catch_up(db).await?;
    crate::words::catch_up(db).await?;
    crate::people::person::give_owners(db, jiff::Timestamp::now()).await
}

async fn run(db: &mut MySqlConnection) -> Result<()> {
    loop {
        match SHIPPED.run(&mut *db).await {
            Ok(()) => return Ok(()),
            Err(MigrateError::Dirty(version)) => {
                let found = SHIPPED.iter().find(|m| m.version == version);
                go_on(db, found.ok_or(MigrateError::VersionMissing(version))?).await?;
            }
            Err(e) => return Err(e.into()),
        }
    }
}

/// Goes on with a migration that was cut off. Each of its statements was done as a whole or not at all; one that was is
/// passed over.
async fn go_on(db: &mut MySqlConnection, m: &Migration) -> Result<()> {
    tracing::warn!(
        version = m.version,
        "the schema's change was cut off in the middle; going on with it"
    );
    for statement in statements(m.sql.as_str()) {
        match db.execute(sqlx::AssertSqlSafe(statement)).await {
            Ok(_) => {}
            Err(e) if was_done_before(&e) => {}
            Err(e) => return Err(e.into()),
        }
    }
    sqlx::query("UPDATE _sqlx_migrations SET success = TRUE WHERE version = ?")
        .bind(m.version)
        .execute(db)
        .await?;
    Ok(())
}

/// The statements of a migration, without its comments. None of ours holds a semicolon inside a text.
fn statements(sql: &str) -> Vec<String> {
    let bare: Vec<&str> = sql
        .lines()
        .filter(|l| !l.trim_start().starts_with("--"))
        .collect();
    bare.join("\n")
        .split(';')
        .map(|s| s.trim().to_string())
        .filter(|s| !s.is_empty())
        .collect()
}

/// Whether the database answers.
pub async fn ping(db: &Db) -> Result<()> {
    let mut db = db.acquire().await?;
    sqlx::query!("SELECT 1 AS one").fetch_one(&mut *db).await?;
    Ok(())
}

/// The number of the last change of the schema that this program needs.
pub(crate) fn needed() -> i64 {
    SHIPPED.iter().map(|m| m.version).max().unwrap_or(0)
}

/// Whether the database is there with the schema that this program needs; a newer one will do.
pub async fn is_ready(db: &Db) -> Result<bool> {
    let mut db = db.acquire().await?;
    let has: std::result::Result<Option<i64>, sqlx::Error> =
        sqlx::query_scalar("SELECT MAX(version) FROM _sqlx_migrations WHERE success")
            .fetch_one(&mut *db)
            .await;
    match has {
        Ok(has) => Ok(has.unwrap_or(0) >= needed()),
        // No table yet: nothing was migrated.
        Err(sqlx::Error::Database(_)) => Ok(false),
        Err(e) => Err(e.into()),
    }
}

/// What of the database's settings would let entries be lost or falsified, a sentence each.
pub async fn unfit(db: &Db) -> Result<Vec<String>> {
    let mut db = db.acquire().await?;
    let row = sqlx::query!(
        r#"SELECT @@GLOBAL.sql_mode AS "mode!: String", CAST(@@GLOBAL.innodb_flush_log_at_trx_commit AS SIGNED) AS "flush!: i64",
                  @@default_storage_engine AS "engine!: String", CAST(@@GLOBAL.read_only AS SIGNED) AS "read_only!: i64""#
    )
    .fetch_one(&mut *db)
    .await?;
    let mut out = vec![];
    if !row.mode.contains("STRICT_ALL_TABLES") && !row.mode.contains("STRICT_TRANS_TABLES") {
        out.push("sql_mode has no STRICT_ALL_TABLES: what does not fit a column would be cut off instead of refused".into());
    }
    if row.flush != 1 {
        out.push(format!(
            "innodb_flush_log_at_trx_commit is {}, not 1: entries of the last second may be lost when the power fails",
            row.flush
        ));
    }
    if !row.engine.eq_ignore_ascii_case("InnoDB") {
        out.push(format!(
            "the storage engine is {}, not InnoDB: acts would not be whole",
            row.engine
        ));
    }
    if row.read_only != 0 {
        out.push("the database is read-only: nothing can be kept".into());
    }
    Ok(out)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_statement_of_a_migration_holds_a_semicolon_inside() {
        for m in SHIPPED.iter() {
            for s in statements(m.sql.as_str()) {
                let word = s.split_whitespace().next().unwrap_or("");
                assert!(
                    ["CREATE", "ALTER", "INSERT", "UPDATE", "DROP", "DELETE"].contains(&word),
                    "{} begins with {word}",
                    m.version
                );
                assert_eq!(s.matches('\'').count() % 2, 0, "{s}");
            }
        }
    }
}
