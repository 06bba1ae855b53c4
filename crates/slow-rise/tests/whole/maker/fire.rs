//! What a maker does at the oven, in a real browser.

use crate::maker::Bench;
use anyhow::Result;
use std::time::Duration;
use testbed::wait::{until, until_within};

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_pale_base_in_a_home_oven_finds_its_remedy_and_the_race_changes() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let path = b.batch("TR").await?;
    b.go(&format!("{path}/fire")).await?;
    let on_steel = b.race().await?;
    // A thin tray goes in cold: all else is long done before the base is.
    b.choose("floor", "1 mm steel tray").await?;
    let on_tray = b.race_changes(&on_steel).await?;
    let last = |race: &str| race.contains("Base ready at 1") && race.contains("pull at 1");
    assert!(last(&on_tray), "{on_tray}");
    b.says("#desk", "too much before the base is done").await?;
    b.says("#desk", "What to change").await?;
    // The best remedy lays it onto steel under the grill.
    b.says(".remedies li:first-child", "steel").await?;
    b.click(".remedies li:first-child button").await?;
    let better = b.race_changes(&on_tray).await?;
    assert!(!last(&better), "{better}");
    b.says("#desk", "All of it right from").await?;
    // Scrubbing shows the cut at another second, without the server.
    let asked = b
        .script("return document.getElementById('fire').dataset.answered")
        .await?;
    b.script("const s = document.getElementById('second'); s.value = 20; s.dispatchEvent(new Event('input', {bubbles: true}))").await?;
    b.says("#scrub-says", "At 20 s: base pale").await?;
    assert_eq!(
        b.script("return document.getElementById('fire').dataset.answered")
            .await?,
        asked
    );
    // Sugar belongs to the dough: kept, it makes the batch's dough another and a formula of it.
    b.fill("sugar", "3").await?;
    b.race_changes(&better).await?;
    let pull = b.text("#answer em").await?;
    b.submit("#keep").await?;
    b.says("#keep", "Keep this fire").await?;
    b.says("#answer", &pull).await?;
    assert_eq!(b.value("sugar").await?, "3");
    b.go("/formulas").await?;
    b.says("#main", "Trial round").await?;
    // What cannot be is said beside its field, and what was typed stays.
    b.go(&format!("{path}/fire")).await?;
    b.fill("dome_c", "1200").await?;
    b.says("[data-field=dome_c] .err", "275").await?;
    assert_eq!(b.value("dome_c").await?, "1200");
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn readings_during_the_firing_move_ready_at() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let path = b.batch("HR").await?;
    b.go(&format!("{path}/fire")).await?;
    b.says("#answer h1", "Light it at").await?;
    // It was lit an hour ago: told on the batch's own form for steps.
    let js = format!(
        "const f = document.getElementById('light'); const body = new URLSearchParams(new FormData(f)); const t = new Date(Number(document.getElementById('now').dataset.now) - 3600e3); const p = Object.fromEntries(new Intl.DateTimeFormat('en-GB', {{ timeZone: document.getElementById('now').dataset.zone, year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit' }}).formatToParts(t).map((x) => [x.type, x.value])); body.set('when', `${{p.year}}-${{p.month}}-${{p.day}}T${{p.hour}}:${{p.minute}}`); fetch(f.action, {{ method: 'POST', body }}).then(() => location.assign('{path}/fire'))"
    );
    b.script(&js).await?;
    b.says(".logrow", "Lit at").await?;
    b.says("#answer h1", "Charged at").await?;
    let by_the_book = b.text("#answer h1").await?;
    // It comes slower than the book has it.
    b.fill("degrees", "250").await?;
    b.click(".logrow button[form=reading]:not([name])").await?;
    b.says("#desk", "By 1 reading").await?;
    let after = b.text("#answer h1").await?;
    assert_ne!(after, by_the_book);
    // A floor of 1200 cannot be; what was probably meant is one tap away.
    b.fill("degrees", "1200").await?;
    b.click(".logrow button[form=reading]:not([name])").await?;
    b.says("#reading-error", "1200 is outside").await?;
    assert_eq!(b.value("degrees").await?, "1200");
    b.says("#meant", "Log 649").await?;
    b.close_whatever_it_said().await
}

/// Bakes one pizza by taps: In, its turns, Out, what was seen.
async fn bake_one(b: &Bench, number: u32) -> Result<()> {
    b.tap("#tap-in").await?;
    b.says("#place", &format!("Pizza {number} of 18, in at"))
        .await?;
    for turn in 2..=3 {
        b.tap("#tap-turned").await?;
        b.says("#cue", &format!("Turn {turn} in")).await?;
    }
    b.tap("#tap-turned").await?;
    b.says("#cue", "Out in").await?;
    b.tap("#tap-out").await?;
    b.says("#last-head", &format!("Pizza {number}")).await?;
    b.click(".vc[value='right/right']").await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_run_of_five_loses_nothing_and_counts_nothing_twice() -> Result<()> {
    let mut b = Bench::open(1280, 800).await?;
    let path = b.batch("LR").await?;
    b.go(&format!("{path}/bake")).await?;
    b.says("#place", "Pizza 11 of 18 is next").await?;
    bake_one(&b, 11).await?;
    // A tap by mistake is taken back.
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 12 of 18, in at").await?;
    b.click("#undo").await?;
    b.says("#place", "Pizza 12 of 18 is next").await?;
    b.all_sent().await?;
    bake_one(&b, 12).await?;
    // Thirty seconds without a line: the timer goes on, taps are held.
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 13 of 18, in at").await?;
    b.offline(true).await?;
    b.tap("#tap-turned").await?;
    b.says("#connection", "Not saved since").await?;
    until_within(
        Duration::from_secs(50),
        "half a minute on the timer",
        async || b.text("#timer").await.is_ok_and(|t| t.as_str() >= "0:31"),
    )
    .await?;
    b.tap("#tap-out").await?;
    b.says("#last-head", "Pizza 13").await?;
    b.click(".vc[value='right/dark']").await?;
    b.offline(false).await?;
    b.all_sent().await?;
    // The server is killed with a pizza in the oven, and comes back.
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 14 of 18, in at").await?;
    b.all_sent().await?;
    b.restart_program().await?;
    b.tap("#tap-turned").await?;
    b.says("#cue", "Turn 2 in").await?;
    b.tap("#tap-out").await?;
    b.all_sent().await?;
    bake_one(&b, 15).await?;
    b.all_sent().await?;
    // The log tells all five, each once.
    b.go(&format!("{path}/bakes")).await?;
    let rows = b
        .script("return [...document.querySelectorAll('.bake-log tbody tr')].slice(10).map((r) => r.innerText.replace(/\\s+/g, ' '))")
        .await?;
    let rows: Vec<String> = serde_json::from_value(rows)?;
    assert_eq!(rows.len(), 5, "{rows:#?}");
    for (i, row) in rows.iter().enumerate() {
        assert!(row.starts_with(&format!("{} ", 11 + i)), "{row}");
        assert!(!row.contains("still in"), "{row}");
    }
    assert!(
        rows[2].contains("0:3") && rows[2].contains("base right, top dark"),
        "{}",
        rows[2]
    );
    assert!(rows[3].contains("not judged"), "{}", rows[3]);
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_tablets_on_one_run_see_each_other() -> Result<()> {
    let a = Bench::open(1280, 800).await?;
    let path = a.batch("LR").await?;
    let b = a.beside(390, 844).await?;
    for x in [&a, &b] {
        x.go(&format!("{path}/bake")).await?;
        x.says("#place", "Pizza 11 of 18 is next").await?;
        until("the stream", async || {
            x.script("return Number(document.getElementById('bake').dataset.told ?? 0) > 0")
                .await
                .is_ok_and(|v| v == true)
        })
        .await?;
    }
    a.tap("#tap-in").await?;
    b.says("#place", "Pizza 11 of 18, in at").await?;
    b.tap("#tap-turned").await?;
    a.says("#cue", "Turn 2 in").await?;
    // Both end it; the second one is told so and nothing counts twice.
    b.offline(true).await?;
    b.tap("#tap-out").await?;
    b.says("#connection", "Not saved").await?;
    a.tap("#tap-out").await?;
    a.says("#count", "11 out").await?;
    b.offline(false).await?;
    b.says("#held-back", "Pizza 11 is already out").await?;
    // It stays in sight until somebody dismisses it.
    b.click("#held-back button").await?;
    b.says("#left", "7").await?;
    a.says("#place", "Pizza 12 of 18 is next").await?;
    // Without a line both bake a twelfth, one after the other: none is lost, the later news gets the next number.
    b.offline(true).await?;
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 12 of 18, in at").await?;
    b.tap("#tap-out").await?;
    b.says("#last-head", "Pizza 12").await?;
    a.tap("#tap-in").await?;
    a.says("#place", "Pizza 12 of 18, in at").await?;
    a.tap("#tap-out").await?;
    a.says("#count", "12 out").await?;
    b.offline(false).await?;
    b.says("#connection", "yours is 13").await?;
    a.says("#count", "13 out").await?;
    b.close_whatever_it_said().await?;
    a.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_deck_bakes_three_at_once_each_in_its_lane() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let path = b.batch("PT").await?;
    b.go(&format!("{path}/bake")).await?;
    for n in 1..=3u32 {
        b.tap("#tap-in").await?;
        b.says(&format!("[data-lane='{}']", n - 1), &format!("Tray {n}"))
            .await?;
    }
    until("no fourth", async || {
        b.script("return document.getElementById('tap-in').disabled")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    // The second is turned and comes out; its spot is free, the others go on.
    b.tap("[data-lane='1'] [data-lane-act=turned]").await?;
    b.tap("[data-lane='1'] [data-lane-act=out]").await?;
    b.says("[data-lane='1']", "free").await?;
    b.says("[data-lane='0']", "Tray 1").await?;
    b.says("#count", "1 out").await?;
    b.all_sent().await?;
    b.browser.driver.refresh().await?;
    b.browser.ready().await?;
    b.says("[data-lane='2']", "Tray 3").await?;
    b.says("[data-lane='1']", "free").await?;
    b.go(&format!("{path}/bakes")).await?;
    b.says(".bake-log thead", "Spot").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn fire_and_bake_fit_a_phone() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    for (letters, page) in [
        ("HR", "fire"),
        ("TR", "fire"),
        ("PT", "bake"),
        ("LR", "bakes"),
    ] {
        let path = b.batch(letters).await?;
        b.go(&format!("{path}/{page}")).await?;
        let wide = b
            .script("return document.documentElement.scrollWidth")
            .await?;
        assert_eq!(wide, 390, "{letters} {page}");
    }
    let path = b.batch("PT").await?;
    b.go(&format!("{path}/bake")).await?;
    b.tap("#tap-in").await?;
    b.says("[data-lane='0']", "Tray 1").await?;
    let foot = b
        .script("return document.querySelector(\"[data-lane='2']\").getBoundingClientRect().bottom")
        .await?;
    assert!(
        foot.as_f64().is_some_and(|f| f <= 784.0),
        "all lanes on one screen: {foot}"
    );
    b.close().await
}
