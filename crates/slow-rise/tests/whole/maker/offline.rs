//! Without a line: what is entered in any room waits in the browser and comes once each, pages open as they were last seen,
//! and a clock that jumps falsifies nothing. How a batch ends, and comes back.

use crate::maker::Bench;
use anyhow::{Context, Result};
use serde_json::Value;
use testbed::wait::{until, until_within};

/// What the server keeps of a batch.
async fn kept(b: &Bench, batch: &str) -> Result<Value> {
    let js = format!("const a = await fetch('{batch}/batch.json'); return a.json()");
    b.script(&js).await
}

fn remarks(kept: &Value, text: &str) -> usize {
    let all = kept["observations"]
        .as_array()
        .map_or(&[][..], Vec::as_slice);
    all.iter().filter(|o| o["remark"] == text).count()
}

/// Opens pages twice: the first time the service worker comes, the second time it sees them.
async fn seen(b: &Bench, pages: &[&str]) -> Result<()> {
    b.go("/").await?;
    // A browser starts it when it has nothing else to do: on a busy machine that takes its time.
    let longest = std::time::Duration::from_secs(60);
    until_within(longest, "the service worker", async || {
        b.script("return navigator.serviceWorker.controller !== null")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    for page in pages {
        b.go(page).await?;
        let js = format!("return (await caches.match('{page}')) !== undefined");
        until(&format!("{page} to be kept"), async || {
            b.script(&js).await.is_ok_and(|v| v == true)
        })
        .await?;
    }
    Ok(())
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_tabs_without_a_line_one_closed_and_every_entry_comes_once() -> Result<()> {
    let mut b = Bench::open(1280, 800).await?;
    let batch = b.batch("HR").await?;
    let bake = format!("{batch}/bake");
    seen(&b, &["/", &batch, &bake]).await?;
    b.go(&batch).await?;
    let first = b.browser.driver.window().await?;
    let second = b.browser.driver.new_tab().await?;
    b.browser.driver.switch_to_window(second.clone()).await?;
    b.browser.resize(1280, 800).await?;
    b.go("/").await?;

    b.stop_program();
    // The Bench: a step, on the page as it was.
    b.click(".tt form button[value=done]").await?;
    b.says("#connection", "One entry waits in this browser")
        .await?;
    // The other tab, opened anew without a line: the batch as it was last seen, a reading and a remark.
    b.browser.driver.switch_to_window(first.clone()).await?;
    b.go(&batch).await?;
    b.says("#connection", "as it was last seen at").await?;
    b.fill("degrees", "5.25").await?;
    b.choose("subject", "Fridge").await?;
    b.click("#reading button").await?;
    b.says("#held-back", "5.25").await?;
    b.fill("remark", "Held through the night").await?;
    b.click("#remarks button").await?;
    b.says("#held-back", "Held through the night").await?;
    // Bake, too; a reading of the floor there.
    b.go(&bake).await?;
    b.says("#connection", "as it was last seen at").await?;
    b.fill("degrees", "412").await?;
    b.click("#floor-reading button").await?;
    b.says("#held-back", "412").await?;
    b.says("#held-back", "Held through the night").await?;
    // One tab is closed; what it entered is not lost with it.
    b.browser.driver.switch_to_window(second.clone()).await?;
    b.browser.driver.close_window().await?;
    b.browser.driver.switch_to_window(first).await?;

    b.start_program()?;
    b.all_sent().await?;
    b.go(&batch).await?;
    let now = kept(&b, &batch).await?;
    assert_eq!(remarks(&now, "Held through the night"), 1);
    let all = now["observations"].as_array().context("observations")?;
    let read = |subject: &str, c: f64| {
        all.iter()
            .filter(|o| o["subject"] == subject && o["celsius"] == c)
            .count()
    };
    assert_eq!((read("fridge", 5.25), read("floor", 412.0)), (1, 1));
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_the_server_refuses_stays_in_sight_and_holds_nothing_up() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    let batch = b.batch("HR").await?;
    b.go(&batch).await?;
    // As a queue of yesterday would hold it: a batch that is gone, before an entry that is good.
    let js = format!(
        "const q = await import(document.querySelector('script[src*=\"js/app.js\"]').src.replace('app.js', 'queue.js'));
         q.put({{url: '/batches/ZZ-99/remarks', batch: '999', fields: {{remark: 'lost'}}, what: 'A remark'}});
         q.put({{url: '{batch}/remarks', batch: document.querySelector('form[data-batch]').dataset.batch, fields: {{remark: 'after it'}}, what: 'A remark'}});
         await q.send(); return true"
    );
    b.script(&js).await?;
    b.says("#held-back", "was not kept").await?;
    b.all_sent().await?;
    assert_eq!(remarks(&kept(&b, &batch).await?, "after it"), 1);
    let wide = b
        .script("return document.documentElement.scrollWidth")
        .await?;
    assert_eq!(wide, 390);
    // It is there on other pages, too, until somebody dismisses it.
    b.go("/ledger").await?;
    b.says("#held-back", "was not kept").await?;
    b.click("#held-back button").await?;
    until("it to go", async || {
        b.script("return document.getElementById('held-back').hidden")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_clock_that_jumps_an_hour_in_the_middle_of_a_bake_falsifies_nothing() -> Result<()> {
    let mut b = Bench::open(1280, 800).await?;
    let batch = b.batch("HR").await?;
    let bake = format!("{batch}/bake");
    seen(&b, &[&bake]).await?;
    let pause = async |b: &Bench, from: &str| {
        until("two seconds of the counter", async || {
            b.script(&format!("return performance.now() - {from} > 2000"))
                .await
                .is_ok_and(|v| v == true)
        })
        .await
    };
    // In on the right clock; then the device's clock is an hour ahead.
    b.script("window.began = performance.now()").await?;
    b.tap("#tap-in").await?;
    b.script("const now = Date.now; Date.now = () => now() + 3600e3; return true")
        .await?;
    pause(&b, "window.began").await?;
    b.tap("#tap-out").await?;
    let took = b.script("return performance.now() - window.began").await?;
    b.says("#last-head", "Pizza 1").await?;
    b.all_sent().await?;
    let first = &kept(&b, &batch).await?["pizzas"][0];
    let baked = span(first)?;
    let real = took.as_f64().context("a number")? / 1000.0;
    assert!((baked - real).abs() < 1.0, "{baked} s, in truth {real} s");

    // The same without a line, on a page that was opened under the wrong clock.
    b.tap("#tap-in").await?;
    b.all_sent().await?;
    let went_in = std::time::Instant::now();
    b.stop_program();
    let jump = "const now = Date.now; Date.now = () => now() - 3600e3;";
    let cdp = b.browser.driver.cdp();
    cdp.send_raw(
        "Page.addScriptToEvaluateOnNewDocument",
        serde_json::json!({ "source": jump }),
    )
    .await?;
    b.go(&bake).await?;
    b.says("#connection", "as it was last seen").await?;
    b.start_program()?;
    // The page as it was last seen knows nothing of the second; the server tells it as soon as it is back.
    b.says("#place", "Pizza 2 of").await?;
    until("the second to be in", async || {
        b.script("return !document.getElementById('tap-out').disabled")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.stop_program();
    b.tap("#tap-out").await?;
    let real = went_in.elapsed().as_secs_f64();
    b.says("#last-head", "Pizza 2").await?;
    b.start_program()?;
    b.all_sent().await?;
    let second = &kept(&b, &batch).await?["pizzas"][1];
    let baked = span(second)?;
    assert!((baked - real).abs() < 1.5, "{baked} s, in truth {real} s");
    b.close_whatever_it_said().await
}

/// Seconds in the oven.
fn span(pizza: &Value) -> Result<f64> {
    let at = |name: &str| -> Result<jiff::Timestamp> {
        Ok(pizza[name].as_str().context("a moment")?.parse()?)
    };
    Ok(at("out_at")?.duration_since(at("in_at")?).as_secs_f64())
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn on_a_phone_with_several_spots_a_wrong_in_is_taken_back() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    let batch = b.batch("PT").await?;
    b.go(&format!("{batch}/bake")).await?;
    b.tap("#tap-in").await?;
    b.says("[data-lane='0']", "Tray 1").await?;
    // A double tap fills no further spot: all in one turn of the page, however slow the machine is.
    b.no_tap_is_fresh().await?;
    b.script(
        "const tap = document.getElementById('tap-in'); tap.click(); tap.click(); tap.click()",
    )
    .await?;
    b.says("[data-lane='1']", "Tray 2").await?;
    assert!(b.text("[data-lane='2']").await?.contains("free"));
    let place = b
        .script("const r = document.getElementById('undo').getBoundingClientRect(); return [r.height, r.bottom, r.right]")
        .await?;
    let at = |i: usize| place[i].as_f64().unwrap_or(0.0);
    assert!(at(0) >= 44.0 && at(1) <= 844.0 && at(2) <= 390.0, "{place}");
    b.click("#undo").await?;
    b.says("[data-lane='1']", "free").await?;
    b.says("[data-lane='0']", "Tray 1").await?;
    b.all_sent().await?;
    let pizzas = kept(&b, &batch).await?;
    assert_eq!(pizzas["pizzas"].as_array().map(Vec::len), Some(1));
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_plan_is_cancelled_a_batch_closed_and_each_taken_up_again() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    // Never mixed: it is cancelled, and leaves no bake.
    let trial = b.batch("TR").await?;
    b.go(&trial).await?;
    b.submit("#cancel").await?;
    b.says("#main", "never mixed").await?;
    b.go("/").await?;
    let code = trial.trim_start_matches("/batches/").to_string();
    assert!(!b.text("#main").await?.contains(&code));
    b.go("/ledger").await?;
    assert!(!b.text("#main").await?.contains(&code));
    b.go(&trial).await?;
    b.submit("#reopen").await?;
    b.go("/").await?;
    b.says("#main", &code).await?;

    // Half baked: closing asks once, keeps the forecast, and can be taken back.
    let round = b.batch("LR").await?;
    b.go(&round).await?;
    let ready = b.text(".answer h1").await?;
    b.submit("#finish").await?;
    b.says("#main", "did not go in").await?;
    b.submit("#close-sure").await?;
    assert_eq!(b.path().await?, "/ledger");
    b.go(&round).await?;
    assert_eq!(b.text(".answer h1").await?, ready, "as it was last known");
    // A verdict that was forgotten is given later; nothing else goes in.
    b.go(&format!("{round}/bake")).await?;
    assert_eq!(
        b.script("return document.getElementById('tap-in').disabled")
            .await?,
        true
    );
    b.submit("#reopen").await?;
    b.go(&format!("{round}/bake")).await?;
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 11 of 18, in at").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_reading_is_taken_back_and_a_verdict_given_later() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("HR").await?;
    b.go(&batch).await?;
    b.fill("degrees", "38").await?;
    b.click("#reading button").await?;
    b.says(".log", "38.0°").await?;
    b.click(".log li:first-child form button").await?;
    b.says(".log li.gone", "taken back").await?;
    b.go(&format!("{batch}/bake")).await?;
    for n in 1..=2 {
        b.tap("#tap-in").await?;
        b.says("#place", &format!("Pizza {n} of 24, in at")).await?;
        b.tap("#tap-out").await?;
        b.says("#last-head", &format!("Pizza {n}")).await?;
    }
    // The first was never judged: it is chosen, and the verdict is its own.
    b.click("#unjudged button").await?;
    b.says("#last-head", "Pizza 1").await?;
    b.click(".vc[value='dark/right']").await?;
    b.all_sent().await?;
    let run = kept(&b, &batch).await?;
    assert_eq!(run["pizzas"][0]["verdict"]["base"], "dark");
    assert!(run["pizzas"][1]["verdict"].is_null());
    b.close().await
}
