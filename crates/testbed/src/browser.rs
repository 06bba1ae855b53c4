//! A real browser: a ChromeDriver on a port of its own choosing, in its own process group, with one session.

use anyhow::{Context, Result, bail};
use std::io::{BufRead, BufReader};
use std::os::unix::process::CommandExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};
use thirtyfour::common::log::LoggingPrefsLogLevel;
use thirtyfour::prelude::*;

/// What makes Chromium quiet, quick and able to run as root.
const FLAGS: [&str; 18] = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-quic",
    "--no-first-run",
    "--no-default-browser-check",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-default-apps",
    "--disable-extensions",
    "--mute-audio",
    "--hide-scrollbars",
    "--force-device-scale-factor=1",
    "--force-color-profile=srgb",
    "--lang=en-GB",
    "--disable-features=Translate,OptimizationHints,MediaRouter",
];

pub struct Browser {
    pub driver: WebDriver,
    child: Child,
    profile: PathBuf,
}

/// A driver that finds its port taken at the last moment is started again.
fn start_driver() -> Result<(Child, u16)> {
    let mut last = anyhow::anyhow!("chromedriver was not tried");
    for _ in 0..3 {
        match start_once() {
            Ok(started) => return Ok(started),
            Err(e) => last = e,
        }
    }
    Err(last)
}

fn start_once() -> Result<(Child, u16)> {
    let mut child = Command::new("chromedriver")
        .arg("--port=0")
        .stdin(Stdio::null())
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .process_group(0)
        .spawn()
        .context("chromedriver: install Debian's chromium-driver")?;
    let out = child.stdout.take().context("chromedriver's output")?;
    let (tx, rx) = std::sync::mpsc::channel();
    std::thread::spawn(move || {
        for line in BufReader::new(out).lines().map_while(|l| l.ok()) {
            if let Some(port) = line.split("started successfully on port ").nth(1) {
                let _ = tx.send(port.trim_end_matches('.').parse::<u16>());
            }
        }
    });
    match rx.recv_timeout(Duration::from_secs(30)) {
        Ok(Ok(port)) => Ok((child, port)),
        _ => {
            let _ = child.kill();
            let _ = child.wait();
            bail!("chromedriver did not start")
        }
    }
}

impl Browser {
    /// Opens a browser whose page is exactly so large.
    pub async fn start(width: u32, height: u32) -> Result<Browser> {
        Browser::start_with(width, height, &[]).await
    }

    /// The same, told more at its start.
    pub async fn start_with(width: u32, height: u32, flags: &[&str]) -> Result<Browser> {
        let (child, port) = tokio::task::spawn_blocking(start_driver).await??;
        let profile =
            std::env::temp_dir().join(format!("slow-rise-chromium-{}-{port}", std::process::id()));
        let mut caps = DesiredCapabilities::chrome();
        for &flag in FLAGS.iter().chain(flags) {
            caps.add_arg(flag)?;
        }
        caps.add_arg(&format!("--user-data-dir={}", profile.display()))?;
        caps.set_browser_log_level(LoggingPrefsLogLevel::All)?;
        let driver = WebDriver::new(format!("http://127.0.0.1:{port}"), caps).await?;
        let browser = Browser {
            driver,
            child,
            profile,
        };
        browser.resize(width, height).await?;
        Ok(browser)
    }

    /// Makes the page exactly so large; the window's own size would count its frame.
    pub async fn resize(&self, width: u32, height: u32) -> Result<()> {
        let size = serde_json::json!({"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 600});
        self.driver
            .cdp()
            .send_raw("Emulation.setDeviceMetricsOverride", size)
            .await?;
        Ok(())
    }

    /// Opens a page and waits until its scripts have run and its fonts are there.
    pub async fn open(&self, url: &str) -> Result<()> {
        self.driver.goto(url).await?;
        self.ready().await
    }

    /// Waits until the page's scripts have run and its fonts are there.
    pub async fn ready(&self) -> Result<()> {
        self.driver
            .query(By::Css("html[data-ready='1']"))
            .first()
            .await?;
        self.driver
            .execute("return document.fonts.ready.then(() => true)", vec![])
            .await?;
        Ok(())
    }

    /// A picture of the page.
    pub async fn picture(&self, path: &Path) -> Result<()> {
        Ok(self.driver.screenshot(path).await?)
    }

    /// Errors that the page wrote to the console since the last call, failed loads too.
    pub async fn console(&self) -> Result<Vec<String>> {
        let log = self.driver.browser_log().await?;
        Ok(log
            .into_iter()
            .map(|e| format!("{} {}", e.level, e.message))
            .collect())
    }

    pub async fn quit(mut self) -> Result<()> {
        self.driver.clone().quit().await?;
        self.stop();
        Ok(())
    }

    fn stop(&mut self) {
        // Driver and browser share a process group: end it by its id.
        let group = format!("-{}", self.child.id());
        let _ = Command::new("kill")
            .args(["-TERM", "--", &group])
            .stderr(Stdio::null())
            .status();
        let until = Instant::now() + Duration::from_secs(3);
        while Instant::now() < until && !matches!(self.child.try_wait(), Ok(Some(_))) {
            std::thread::sleep(Duration::from_millis(20));
        }
        let _ = Command::new("kill")
            .args(["-KILL", "--", &group])
            .stderr(Stdio::null())
            .status();
        let _ = self.child.wait();
        let _ = std::fs::remove_dir_all(&self.profile);
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        if matches!(self.child.try_wait(), Ok(None)) {
            self.stop();
        }
    }
}
