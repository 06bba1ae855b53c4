//! Power cuts while others enter: program or database are killed outright again and again, and what was acknowledged is there
//! once, and only once. A few cuts in every run; `CUTS=1000` for a long one (`benches/power-cuts`).

use crate::database::Database;
use crate::program::{Program, run};
use anyhow::{Context, Result};
use std::collections::HashMap;
use std::path::PathBuf;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::time::Duration;
use testbed::wait::until;

const CLIENTS: u64 = 4;

/// What one client was told of what it sent.
#[derive(Default)]
struct Told {
    kept: Vec<String>,
    sent: Vec<String>,
}

/// Sends remarks, each until it is acknowledged, as a browser's queue does.
async fn client(
    n: u64,
    remarks: String,
    origin: String,
    stop: Arc<AtomicBool>,
    done: Arc<AtomicU64>,
) -> Told {
    let web = reqwest::Client::builder()
        .timeout(Duration::from_secs(4))
        .build()
        .expect("a client");
    let mut told = Told::default();
    let mut i = 0u64;
    while !stop.load(Ordering::Relaxed) {
        i += 1;
        let text = format!("{n}/{i}");
        let key = format!("00000000-0000-4000-8000-{:06x}{:06x}", n, i);
        told.sent.push(text.clone());
        loop {
            let sent = web
                .post(&remarks)
                .header("origin", &origin)
                .header("accept", "application/json")
                .form(&[("entry_key", key.as_str()), ("remark", text.as_str())])
                .send()
                .await;
            match sent {
                Ok(a) if a.status().is_success() => {
                    told.kept.push(text);
                    done.fetch_add(1, Ordering::Relaxed);
                    break;
                }
                _ if stop.load(Ordering::Relaxed) => return told,
                _ => tokio::time::sleep(Duration::from_millis(20)).await,
            }
        }
    }
    told
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_was_acknowledged_is_there_once_after_every_cut() -> Result<()> {
    let cuts: u64 = std::env::var("CUTS")
        .ok()
        .and_then(|c| c.parse().ok())
        .unwrap_or(6);
    let name = format!("power-cuts-{}", std::process::id());
    let folder = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join(name);
    let mut database = Database::start(&folder, None)?;
    run(&database.url, &["migrate"])?;
    run(&database.url, &["demo"])?;
    let mut program = Program::serve(&database.url)?;
    let port = program
        .address
        .rsplit(':')
        .next()
        .context("a port")?
        .to_string();
    let (origin, url) = (program.address.clone(), database.url.clone());
    let bench = reqwest::get(&origin).await?.text().await?;
    // A batch holds so many entries at most: rounds take turns on those of the demo.
    let mut codes: Vec<String> = bench
        .split("/batches/")
        .skip(1)
        .filter_map(|r| r.get(..5))
        .map(String::from)
        .collect();
    codes.sort();
    codes.dedup();
    anyhow::ensure!(codes.len() >= 4, "{codes:?}");

    let mut lost = 0;
    let mut doubled = 0;
    let mut acknowledged = 0;
    let rounds = cuts.div_ceil(20).max(1);
    for round in 0..rounds {
        let batch = format!("{origin}/batches/{}", codes[round as usize % codes.len()]);
        let stop = Arc::new(AtomicBool::new(false));
        let done = Arc::new(AtomicU64::new(0));
        let clients: Vec<_> = (0..CLIENTS)
            .map(|n| {
                let n = round * CLIENTS + n;
                tokio::spawn(client(
                    n,
                    format!("{batch}/remarks"),
                    origin.clone(),
                    stop.clone(),
                    done.clone(),
                ))
            })
            .collect();
        for cut in 0..cuts.min(20) {
            // Some entries between two cuts, so that each cut falls into writing.
            let before = done.load(Ordering::Relaxed);
            until("entries between two cuts", async || {
                done.load(Ordering::Relaxed) > before + cut % 5
            })
            .await?;
            if cut % 2 == 0 {
                program.kill()?;
                program = Program::serve_on(&url, &port)?;
            } else {
                let (folder, port) = database.kill()?;
                database = Database::start(&folder, Some(&port))?;
            }
        }
        stop.store(true, Ordering::Relaxed);
        let mut told = Vec::new();
        for c in clients {
            told.push(c.await?);
        }
        until("the batch to be read", async || {
            reqwest::get(format!("{batch}/batch.json"))
                .await
                .is_ok_and(|a| a.status().is_success())
        })
        .await?;
        let kept: serde_json::Value = serde_json::from_str(
            &reqwest::get(format!("{batch}/batch.json"))
                .await?
                .text()
                .await?,
        )?;
        let mut count: HashMap<&str, u32> = HashMap::new();
        let all = kept["observations"].as_array().context("observations")?;
        for text in all.iter().filter_map(|o| o["remark"].as_str()) {
            *count.entry(text).or_default() += 1;
        }
        for t in &told {
            acknowledged += t.kept.len();
            lost += t
                .kept
                .iter()
                .filter(|k| !count.contains_key(k.as_str()))
                .count();
            doubled += t
                .sent
                .iter()
                .filter(|k| count.get(k.as_str()).is_some_and(|n| *n > 1))
                .count();
        }
    }
    println!("{cuts} cuts, {acknowledged} acknowledged, {lost} lost, {doubled} doubled");
    assert!(acknowledged as u64 > cuts);
    assert_eq!((lost, doubled), (0, 0));
    program.kill()?;
    drop(database);
    std::fs::remove_dir_all(&folder)?;
    Ok(())
}
