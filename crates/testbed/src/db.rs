//! A database of one's own.

use anyhow::{Context, Result};
use sqlx::{AssertSqlSafe, Connection, MySqlConnection};
use std::sync::atomic::{AtomicU32, Ordering};
use std::time::{Duration, SystemTime, UNIX_EPOCH};

static NEXT: AtomicU32 = AtomicU32::new(0);

/// An empty database, dropped by [`TestDb::close`] or thrown away with the whole server after the run.
pub struct TestDb {
    pub url: String,
    name: String,
    server: String,
}

impl TestDb {
    /// Makes it on the server that bin/test started.
    pub async fn new() -> Result<TestDb> {
        let server = std::env::var("TEST_DATABASE_URL")
            .context("TEST_DATABASE_URL is not set: run the tests with bin/test")?;
        let name = format!(
            "t_{}_{}",
            std::process::id(),
            NEXT.fetch_add(1, Ordering::Relaxed)
        );
        let mut c = MySqlConnection::connect(&server).await?;
        let make = format!(
            "SET foreign_key_checks = 0; DROP DATABASE IF EXISTS `{name}`; CREATE DATABASE `{name}`"
        );
        sqlx::raw_sql(AssertSqlSafe(make)).execute(&mut c).await?;
        c.close().await?;
        Ok(TestDb {
            url: format!("{server}/{name}"),
            name,
            server,
        })
    }

    /// A database that holds what `fill` writes into an empty one. What was written a moment ago by this or another
    /// test is copied: to write the same data for every test takes far longer than to copy them.
    ///
    /// `what` names the data and the program that wrote it; they are at most [`FRESH`] old, since they tell of now.
    pub async fn filled(what: &str, fill: impl FnOnce(&str) -> Result<()>) -> Result<TestDb> {
        let db = TestDb::new().await?;
        let mut c = MySqlConnection::connect(&db.server).await?;
        // One at a time: others wait for what is being written. The lock ends with the connection, as a test may.
        sqlx::query("SELECT GET_LOCK('t_written', 120)")
            .execute(&mut c)
            .await?;
        let now = SystemTime::now().duration_since(UNIX_EPOCH)?.as_secs();
        let written: Vec<String> = sqlx::query_scalar(
            "SELECT CAST(schema_name AS CHAR) FROM information_schema.schemata WHERE schema_name LIKE 't\\_written\\_%'",
        )
        .fetch_all(&mut c)
        .await?;
        let fresh = written.iter().find_map(|name| {
            let (of, at) = name.strip_prefix("t_written_")?.rsplit_once('_')?;
            let age = now.saturating_sub(at.parse().ok()?);
            (of == what && age < FRESH.as_secs()).then(|| name.clone())
        });
        let from = match fresh {
            Some(name) => name,
            None => {
                fill(&db.url)?;
                let name = format!("t_written_{what}_{now}");
                copy(&mut c, &db.name, &name).await?;
                c.close().await?;
                return Ok(db);
            }
        };
        copy(&mut c, &from, &db.name).await?;
        c.close().await?;
        Ok(db)
    }

    /// Drops it.
    pub async fn close(self) -> Result<()> {
        let mut c = MySqlConnection::connect(&self.server).await?;
        sqlx::raw_sql(AssertSqlSafe(format!(
            "SET foreign_key_checks = 0; DROP DATABASE `{}`",
            self.name
        )))
        .execute(&mut c)
        .await?;
        c.close().await?;
        Ok(())
    }
}

/// So old may data be that are copied instead of written anew.
const FRESH: Duration = Duration::from_secs(60);

/// Copies every table of a database, with its keys, into one that is made anew.
async fn copy(c: &mut MySqlConnection, from: &str, to: &str) -> Result<()> {
    let tables: Vec<String> = sqlx::query_scalar(
        "SELECT CAST(table_name AS CHAR) FROM information_schema.tables WHERE table_schema = ?",
    )
    .bind(from)
    .fetch_all(&mut *c)
    .await?;
    let mut all = format!(
        "SET foreign_key_checks = 0; DROP DATABASE IF EXISTS `{to}`; CREATE DATABASE `{to}`; USE `{to}`;"
    );
    for table in &tables {
        let show = format!("SHOW CREATE TABLE `{from}`.`{table}`");
        let (_, made): (String, String) = sqlx::query_as(AssertSqlSafe(show))
            .fetch_one(&mut *c)
            .await?;
        all += &format!("{made}; INSERT INTO `{table}` SELECT * FROM `{from}`.`{table}`;");
    }
    sqlx::raw_sql(AssertSqlSafe(all)).execute(c).await?;
    Ok(())
}
