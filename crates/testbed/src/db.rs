//! A database of one's own.

use anyhow::{Context, Result};
use sqlx::{AssertSqlSafe, Connection, MySqlConnection};
use std::sync::atomic::{AtomicU32, Ordering};

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
