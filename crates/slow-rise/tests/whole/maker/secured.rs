//! https by an authority of the server's own, in a browser: what does not know it warns and is shown how to trust it; what
//! trusts it has all that a tablet at the oven needs.

use crate::maker::Bench;
use crate::program::{Program, run};
use anyhow::{Context, Result};
use base64::Engine;
use rcgen::{KeyPair, PublicKeyData};
use serde_json::json;
use sha2::{Digest, Sha256};
use std::net::TcpListener;
use std::path::Path;
use testbed::browser::Browser;
use testbed::db::TestDb;
use testbed::wait::until_within;
use thirtyfour::prelude::*;

/// A name that is no loopback one: a browser trusts those without https.
const NAME: &str = "kitchen.test";

/// A port that is free now.
fn free_port() -> Result<u16> {
    Ok(TcpListener::bind("127.0.0.1:0")?.local_addr()?.port())
}

/// The hash by which a test browser knows the authority's key.
fn key_hash(dir: &Path) -> Result<String> {
    let text = std::fs::read_to_string(dir.join("authority.pem"))?;
    let key = KeyPair::from_pem(&text)?;
    let hash = Sha256::digest(key.subject_public_key_info());
    Ok(base64::engine::general_purpose::STANDARD.encode(hash))
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_tablet_is_shown_how_to_trust_and_then_has_all_that_the_oven_needs() -> Result<()> {
    let db = TestDb::new().await?;
    run(&db.url, &["migrate"])?;
    let port = free_port()?;
    let dir = std::env::temp_dir().join(format!("slow-rise-secured-{port}"));
    let (public, port) = (format!("https://{NAME}:{port}"), port.to_string());
    let folder = dir.display().to_string();
    let arguments = [
        "serve",
        "--tls",
        "--tls-dir",
        &folder,
        "--public-url",
        &public,
        "--port",
        &port,
    ];
    let program = Program::serve_as(&db.url, &arguments)?;
    assert_eq!(program.address, format!("https://127.0.0.1:{port}"));
    let led = format!("--host-resolver-rules=MAP {NAME} 127.0.0.1");
    let clear = format!("http://{NAME}:{port}");

    // A browser that does not know the authority refuses, in the clear it is led to https, and the one page that it can
    // open says what to compare.
    let stranger = Browser::start_with(1024, 768, &[&led]).await?;
    for address in [&public, &clear] {
        // Some versions tell the driver, others only show the warning.
        let told = stranger.driver.goto(address).await.err();
        let said = format!("{told:?} {}", stranger.driver.source().await?);
        assert!(said.contains("ERR_CERT_AUTHORITY_INVALID"), "{said}");
    }
    stranger.open(&format!("{clear}/trust")).await?;
    let secure = "return window.isSecureContext";
    let is = stranger.driver.execute(secure, vec![]).await?;
    assert_eq!(is.json(), &false);
    let shown = stranger
        .driver
        .find(By::Id("fingerprint"))
        .await?
        .text()
        .await?;
    assert_eq!(shown.len(), 95, "{shown}");
    let size = "return fetch('/trust/authority.crt').then((a) => a.arrayBuffer()).then((b) => b.byteLength)";
    let size = stranger.driver.execute(size, vec![]).await?;
    assert!(size.json().as_u64().context("a file")? > 300);
    // Nothing is taken in the clear.
    let post = "return fetch('/sign-in', {method: 'POST', body: 'name=x'}).then((a) => a.status)";
    let post = stranger.driver.execute(post, vec![]).await?;
    assert_eq!(post.json(), &403);
    stranger.quit().await?;

    // One that trusts it begins a kitchen there and is signed in by a cookie that never travels in the clear.
    let trusts = format!("--ignore-certificate-errors-spki-list={}", key_hash(&dir)?);
    let tablet = Browser::start_with(1024, 768, &[&led, &trusts]).await?;
    let tablet = Bench::at(&public, tablet);
    tablet.go("/").await?;
    assert_eq!(tablet.script(secure).await?, true);
    tablet.fill("name", "Nora Vale").await?;
    tablet.fill("password", "seven slow loaves at dawn").await?;
    tablet.click(".leaf-stop[value=plan]").await?;
    tablet.says("h1", "Your first plan").await?;
    tablet.submit("#keep-plan").await?;
    assert!(tablet.path().await?.starts_with("/batches/"));
    let cookies = tablet.browser.driver.get_all_cookies().await?;
    let session = cookies
        .iter()
        .find(|c| c.name == "__Host-slow-rise")
        .context("a session")?;
    assert_eq!(session.secure, Some(true));
    // Wake lock, pages without a line, notifications.
    let has = "return ['wakeLock' in navigator, 'serviceWorker' in navigator, 'Notification' in window, 'caches' in window]";
    assert_eq!(tablet.script(has).await?, json!([true, true, true, true]));
    let long = std::time::Duration::from_secs(60);
    until_within(long, "the service worker", async || {
        let js = "return navigator.serviceWorker.ready.then(() => true)";
        tablet.script(js).await.is_ok_and(|v| v == true)
    })
    .await?;
    // People has the same fingerprint to compare.
    tablet.go("/people").await?;
    assert_eq!(tablet.text("#fingerprint").await?, shown);
    // An invitation is a code for a telephone, too, and its address is the public one: a cook comes in by it.
    tablet.submit("#invite").await?;
    assert!(tablet.find(".qr svg").await?.is_displayed().await?);
    let link = tablet.script("return document.getElementById('given').href");
    let link = link.await?;
    let link = link.as_str().context("an address")?;
    let path = link.strip_prefix(&public).context("the public address")?;
    let phone = Browser::start_with(390, 844, &[&led, &trusts]).await?;
    let phone = Bench::at(&public, phone);
    phone.go(path).await?;
    phone.says("h1", "Nora Vale invites you").await?;
    phone.fill("name", "Rafi Oduya").await?;
    phone.fill("password", "eight slow loaves at dusk").await?;
    phone.submit(".entrance-form .btn.go").await?;
    assert_eq!(phone.path().await?, "/");
    phone.close().await?;
    tablet.close().await?;
    drop(program);
    let _ = std::fs::remove_dir_all(dir);
    db.close().await
}
