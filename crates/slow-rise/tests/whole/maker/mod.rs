//! What a maker does in a browser: the demo program, a page, and hands.

mod begin;
mod fire;
mod fold;
mod formulate;
mod learn;
mod ledger;
mod mix;
mod offline;
mod oven;
mod photos;
mod rise;
mod secured;
mod shape;
mod ui;
mod us_kitchen;

use crate::program::{Program, run};
use anyhow::{Context, Result};
use std::time::UNIX_EPOCH;
use testbed::browser::Browser;
use testbed::db::TestDb;
use testbed::wait::until;
use thirtyfour::prelude::*;

/// The demo program with a browser of a size.
pub struct Bench {
    db: Option<TestDb>,
    program: Option<Program>,
    address: String,
    pub browser: Browser,
}

/// When the program was built: what an older one wrote is not taken for its own.
fn built() -> Result<String> {
    let at = std::fs::metadata(env!("CARGO_BIN_EXE_slow-rise"))?.modified()?;
    Ok(format!(
        "demo{}",
        at.duration_since(UNIX_EPOCH)?.as_millis()
    ))
}

impl Bench {
    pub async fn open(width: u32, height: u32) -> Result<Bench> {
        let db = TestDb::filled(&built()?, |url| {
            run(url, &["migrate"])?;
            run(url, &["demo"])
        })
        .await?;
        let program = Program::serve(&db.url)?;
        let browser = Browser::start(width, height).await?;
        Ok(Bench {
            address: program.url(""),
            db: Some(db),
            program: Some(program),
            browser,
        })
    }
    /// The program on an empty database, as it first starts; `guarded` asks who comes.
    pub async fn on_nothing(width: u32, height: u32, guarded: bool) -> Result<Bench> {
        let db = TestDb::new().await?;
        run(&db.url, &["migrate"])?;
        let program = match guarded {
            true => Program::guarded(&db.url)?,
            false => Program::serve(&db.url)?,
        };
        Ok(Bench {
            address: program.url(""),
            db: Some(db),
            program: Some(program),
            browser: Browser::start(width, height).await?,
        })
    }
    /// A browser on a program that runs elsewhere.
    pub fn at(address: &str, browser: Browser) -> Bench {
        Bench {
            address: address.into(),
            db: None,
            program: None,
            browser,
        }
    }
    /// Another browser on the same program.
    pub async fn beside(&self, width: u32, height: u32) -> Result<Bench> {
        Ok(Bench {
            address: self.address.clone(),
            db: None,
            program: None,
            browser: Browser::start(width, height).await?,
        })
    }
    /// Kills the program as a power cut would, and starts it again on the same port.
    pub async fn restart_program(&mut self) -> Result<()> {
        self.stop_program();
        self.start_program()
    }
    /// Kills the program: no page of it can be reached.
    pub fn stop_program(&mut self) {
        // Dropping it kills it.
        drop(self.program.take());
    }
    /// Starts it again on the same port.
    pub fn start_program(&mut self) -> Result<()> {
        let port = self
            .address
            .rsplit(':')
            .next()
            .context("a port")?
            .trim_end_matches('/')
            .to_string();
        let db = self.db.as_ref().context("the database")?;
        self.program = Some(Program::serve_on(&db.url, &port)?);
        Ok(())
    }
    /// A first start that skips to its plan: the batch's path.
    pub async fn begin(&self, name: &str, password: &str) -> Result<String> {
        self.go("/").await?;
        self.fill("name", name).await?;
        self.fill("password", password).await?;
        self.click(".leaf-stop[value=plan]").await?;
        self.says("h1", "Your first plan").await?;
        self.submit("#keep-plan").await?;
        self.path().await
    }
    /// Invites a cook by a link, who comes in with another browser.
    pub async fn with_cook(&self, name: &str, password: &str) -> Result<Bench> {
        self.go("/people").await?;
        self.submit("#invite").await?;
        let link = "return new URL(document.getElementById('given').href).pathname";
        let link = self.script(link).await?;
        let cook = self.beside(390, 844).await?;
        cook.go(link.as_str().context("an address")?).await?;
        cook.says("h1", "invites you").await?;
        cook.fill("name", name).await?;
        cook.fill("password", password).await?;
        cook.submit(".entrance-form .btn.go").await?;
        Ok(cook)
    }
    /// Takes a tablet in by the code that it shows.
    pub async fn with_tablet(&self, name: &str) -> Result<Bench> {
        let tablet = self.beside(1024, 768).await?;
        tablet.go("/tablet").await?;
        tablet.submit(".btn.huge").await?;
        let code = tablet.text("#device-code").await?;
        self.go("/people").await?;
        self.fill("code", &code).await?;
        self.fill("tablet-name", name).await?;
        self.submit("form[action='/people/tablet'] .btn").await?;
        tablet.says("body", "Whose hands?").await?;
        Ok(tablet)
    }
    pub async fn go(&self, path: &str) -> Result<()> {
        self.browser.open(&format!("{}{path}", self.address)).await
    }
    pub async fn find(&self, css: &str) -> Result<WebElement> {
        self.browser
            .driver
            .query(By::Css(css))
            .first()
            .await
            .with_context(|| css.to_string())
    }
    pub async fn text(&self, css: &str) -> Result<String> {
        Ok(self.find(css).await?.text().await?)
    }
    /// Clicks; a page that is just being drawn anew is looked at again.
    pub async fn click(&self, css: &str) -> Result<()> {
        let click = async || -> Result<()> {
            let e = self.find(css).await?;
            e.scroll_into_view().await?;
            Ok(e.click().await?)
        };
        again_if_stale(click).await
    }
    /// Taps at the oven, once the last tap is so long ago that this is no double one.
    pub async fn tap(&self, css: &str) -> Result<()> {
        self.no_tap_is_fresh().await?;
        self.click(css).await
    }
    pub async fn no_tap_is_fresh(&self) -> Result<()> {
        until("a moment after the last tap", async || {
            self.script("return !document.getElementById('bake').hasAttribute('data-soon')")
                .await
                .is_ok_and(|v| v == true)
        })
        .await
    }
    /// Clicks what sends a form, and waits for the page that answers: leaving sooner would take the post back.
    pub async fn submit(&self, css: &str) -> Result<()> {
        self.script("window.beforeThePost = true").await?;
        self.click(css).await?;
        until("the page after the post", async || {
            self.script(
                "return window.beforeThePost === undefined && document.readyState === 'complete'",
            )
            .await
            .is_ok_and(|v| v == true)
        })
        .await?;
        self.browser.ready().await
    }
    pub async fn fill(&self, id: &str, value: &str) -> Result<()> {
        let fill = async || -> Result<()> {
            let e = self.find(&format!("#{id}")).await?;
            e.clear().await?;
            Ok(e.send_keys(value).await?)
        };
        again_if_stale(fill).await
    }
    /// Waits until an element says something; shows what it said instead when it never does.
    pub async fn says(&self, css: &str, part: &str) -> Result<()> {
        let waited = until(&format!("«{part}» in {css}"), async || {
            self.text(css).await.is_ok_and(|t| t.contains(part))
        })
        .await;
        if waited.is_err() {
            let said = self.text(css).await.unwrap_or_default();
            return waited.with_context(|| format!("{css} says «{part}», not «{said}»"));
        }
        waited
    }
    pub async fn path(&self) -> Result<String> {
        Ok(self.browser.driver.current_url().await?.path().to_string())
    }
    pub async fn script(&self, code: &str) -> Result<serde_json::Value> {
        Ok(self
            .browser
            .driver
            .execute(code, vec![])
            .await?
            .json()
            .clone())
    }
    pub async fn close(self) -> Result<()> {
        let log = self.browser.console().await?;
        assert!(log.is_empty(), "the console is clean: {log:#?}");
        self.close_whatever_it_said().await
    }
    /// As [`Bench::close`], where lost lines left their words on the console.
    pub async fn close_whatever_it_said(self) -> Result<()> {
        self.browser.quit().await?;
        drop(self.program);
        match self.db {
            Some(db) => db.close().await,
            None => Ok(()),
        }
    }
    /// Opens a leaf of the Dough sheet.
    pub async fn leaf(&self, key: &str) -> Result<()> {
        self.script(&format!(
            "document.querySelector('input[name=tab][value={key}]').click()"
        ))
        .await?;
        Ok(())
    }
    /// Takes a choice by its words.
    pub async fn choose(&self, id: &str, words: &str) -> Result<()> {
        let js = format!(
            "const s = document.getElementById('{id}'); const o = [...s.options].find((o) => o.text.includes('{words}')); s.value = o.value; s.dispatchEvent(new Event('change', {{bubbles: true}}))"
        );
        self.script(&js).await?;
        Ok(())
    }
    pub async fn value(&self, id: &str) -> Result<String> {
        Ok(self
            .find(&format!("#{id}"))
            .await?
            .prop("value")
            .await?
            .unwrap_or_default())
    }
    /// Waits until a field holds a value.
    pub async fn holds(&self, id: &str, value: &str) -> Result<()> {
        until(&format!("{value} in {id}"), async || {
            self.value(id).await.is_ok_and(|v| v == value)
        })
        .await
        .with_context(|| format!("{id} holds {value}"))
    }
    /// The race on Fire, as a sentence.
    pub async fn race(&self) -> Result<String> {
        self.find("#picture .wide .race")
            .await?
            .attr("aria-label")
            .await?
            .context("the race says itself")
    }
    /// Waits until a race other than `before` is drawn.
    pub async fn race_changes(&self, before: &str) -> Result<String> {
        until("another race", async || {
            self.race().await.is_ok_and(|now| now != before)
        })
        .await?;
        self.race().await
    }
    /// The address of the demo batch whose code begins so.
    pub async fn batch(&self, letters: &str) -> Result<String> {
        self.go("/").await?;
        let js = format!(
            "return [...document.querySelectorAll('a')].map((a) => a.getAttribute('href')).find((h) => h?.startsWith('/batches/{letters}-'))"
        );
        let href = self.script(&js).await?;
        let href = href.as_str().context("a batch")?;
        Ok(href.split('/').take(3).collect::<Vec<_>>().join("/"))
    }
    /// Waits until everything that was entered here is on the server.
    pub async fn all_sent(&self) -> Result<()> {
        until("all entries to be sent", async || {
            self.script("return document.documentElement.dataset.waiting")
                .await
                .is_ok_and(|v| v == "0")
        })
        .await
    }
    /// Takes the line away, or gives it back.
    pub async fn offline(&self, offline: bool) -> Result<()> {
        let network = serde_json::json!({"offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1});
        let cdp = self.browser.driver.cdp();
        cdp.send_raw("Network.enable", serde_json::json!({}))
            .await?;
        cdp.send_raw("Network.emulateNetworkConditions", network)
            .await?;
        Ok(())
    }
}

/// What is said of an element that was replaced a moment ago.
const GONE: [&str; 3] = [
    "stale",
    "not interactable",
    "does not belong to the document",
];

/// Does it again when the element was replaced between finding and using it.
async fn again_if_stale(mut act: impl AsyncFnMut() -> Result<()>) -> Result<()> {
    let mut last = Ok(());
    for _ in 0..5 {
        last = act().await;
        match &last {
            Err(e) if GONE.iter().any(|w| format!("{e:#}").contains(w)) => {}
            _ => break,
        }
    }
    last
}
