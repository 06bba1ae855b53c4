//! How the program ends, and what half a request and many watchers may hold: nothing.

use crate::program::{Program, run};
use anyhow::{Context, Result};
use std::io::{Read, Write};
use std::net::TcpStream;
use std::process::Command;
use std::time::{Duration, Instant};
use testbed::db::TestDb;

fn open(program: &Program) -> Result<TcpStream> {
    let at = program.address.trim_start_matches("http://");
    let stream = TcpStream::connect(at)?;
    stream.set_read_timeout(Some(Duration::from_secs(15)))?;
    Ok(stream)
}

#[tokio::test]
async fn term_ends_it_whatever_hangs_and_half_a_head_is_not_held() -> Result<()> {
    let db = TestDb::new().await?;
    run(&db.url, &["migrate"])?;
    run(&db.url, &["demo"])?;
    let mut program = Program::serve(&db.url)?;
    let page = reqwest::get(program.url("/")).await?.text().await?;
    let code = page
        .split("/batches/LR-")
        .nth(1)
        .and_then(|r| r.get(..2))
        .context("a batch")?
        .to_string();
    // Half a head: it is given up after ten seconds, not held for ever.
    let mut half = open(&program)?;
    half.write_all(b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")?;
    // One that watches and never reads, one that posts and never ends its body.
    let mut watcher = open(&program)?;
    write!(
        watcher,
        "GET /batches/LR-{code}/run HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"
    )?;
    let mut body = open(&program)?;
    write!(
        body,
        "POST /batches/LR-{code}/remarks HTTP/1.1\r\nHost: 127.0.0.1\r\nOrigin: http://127.0.0.1\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 100\r\n\r\nremark="
    )?;
    let began = Instant::now();
    let mut rest = Vec::new();
    let _ = half.read_to_end(&mut rest);
    assert!(
        began.elapsed() < Duration::from_secs(14),
        "{:?}",
        began.elapsed()
    );
    let mut body_again = open(&program)?;
    body_again.write_all(b"POST /lamp HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9\r\n\r\n")?;
    let mut half_again = open(&program)?;
    half_again.write_all(b"GET / HTTP/1.1\r\nHost: ")?;

    let began = Instant::now();
    let killed = Command::new("kill")
        .args(["-TERM", &program.id().to_string()])
        .status()?;
    assert!(killed.success());
    program.wait()?;
    assert!(
        began.elapsed() < Duration::from_secs(10),
        "{:?}",
        began.elapsed()
    );
    db.close().await
}

#[tokio::test]
async fn ready_waits_for_the_schema_and_health_for_nothing() -> Result<()> {
    // A database that is there and empty: the program brings it up to date by itself.
    let db = TestDb::new().await?;
    let program = Program::serve(&db.url)?;
    testbed::wait::until("ready", async || {
        reqwest::get(program.url("/ready"))
            .await
            .is_ok_and(|a| a.status().is_success())
    })
    .await?;
    // One that is not there at all: the process lives, nothing is ready, and pages say so.
    let away = Program::serve("mysql://nobody:x@127.0.0.1:1/none")?;
    let status = async |path: &str| -> Result<u16> {
        Ok(reqwest::get(away.url(path)).await?.status().as_u16())
    };
    assert_eq!(status("/health").await?, 200);
    assert_eq!(status("/ready").await?, 503);
    assert_eq!(status("/").await?, 503);
    drop(program);
    db.close().await
}
