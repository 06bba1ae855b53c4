//! A maker does the whole job once, in a real browser: from a new dough to a line in the ledger.

use crate::maker::Bench;
use anyhow::Result;
use testbed::wait::until;
use thirtyfour::prelude::*;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn from_six_balls_for_friday_to_a_logged_bake() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/").await?;
    assert!(b.text("#main").await?.contains("Temperatures"));
    b.click(".answer a[href='/dough/new']").await?;
    b.browser.ready().await?;

    // The figures follow what is typed; a decimal comma is read.
    b.says("#answer h1", "Six balls take").await?;
    let before = b.text("#solved-yeast").await?;
    b.fill("hydration_percent", "64,5").await?;
    b.says(".ft tbody tr:nth-child(2) .pc", "64.5").await?;
    b.leaf("hours").await?;
    b.click("button[data-for=cold_h][data-step='1']").await?;
    assert_eq!(
        b.find("#cold_h").await?.prop("value").await?.as_deref(),
        Some("25")
    );
    // An hour may be less than the scale shows; a second night is not.
    b.fill("cold_h", "40").await?;
    until("less yeast for a longer night", async || {
        b.text("#solved-yeast").await.is_ok_and(|t| t != before)
    })
    .await?;

    // Nonsense gets its sentence beside the field; the figures wait.
    b.leaf("dough").await?;
    b.fill("salt_percent", "-1").await?;
    b.says("#salt_percent-error", "Salt 0 to 5 %; -1 % is outside.")
        .await?;
    b.says("#answer h1", "needs another look").await?;
    // Figures of before are marked as such until they follow again.
    let marked = "const f = document.querySelector('.figures'); return getComputedStyle(f, '::before').content + getComputedStyle(f).opacity";
    let mark = b.script(marked).await?;
    assert_eq!(
        mark,
        "\"Figures of before: a field needs another look.\"0.55"
    );
    b.fill("salt_percent", "2.8").await?;
    b.says("#answer h1", "Six balls take").await?;
    assert_eq!(b.script(marked).await?, "none1");

    // A remedy by one tap.
    b.fill("sugar_percent", "2").await?;
    b.says("[data-note=sugar_unusual]", "Set 0 %").await?;
    b.click("[data-note=sugar_unusual] button").await?;
    until("the note to go", async || {
        b.browser
            .driver
            .find_all(By::Css("[data-note=sugar_unusual]"))
            .await
            .is_ok_and(|n| n.is_empty())
    })
    .await?;

    // What is typed survives a reload.
    b.leaf("keep").await?;
    b.fill("name", "Halt supper").await?;
    until("the entry to be held", async || {
        b.script("return Object.values(sessionStorage).some((v) => v.includes('Halt+supper'))")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.browser.driver.refresh().await?;
    b.browser.ready().await?;
    assert_eq!(
        b.find("#name").await?.prop("value").await?.as_deref(),
        Some("Halt supper")
    );
    assert_eq!(
        b.find("#hydration_percent")
            .await?
            .prop("value")
            .await?
            .as_deref(),
        Some("64,5")
    );

    // Save: a batch with a code, its steps and its sheet.
    b.says("#answer h1", "Six balls take").await?;
    b.click("#keep").await?;
    until("the batch page", async || {
        b.path().await.is_ok_and(|p| p.starts_with("/batches/"))
    })
    .await?;
    b.browser.ready().await?;
    let path = b.path().await?;
    let code = path.trim_start_matches("/batches/").to_string();
    assert!(code.starts_with("HS-"), "{code}");
    b.click("li[data-step='0'] button[value=begin]").await?;
    b.says("li[data-step='0']", "since").await?;
    b.says("#answer, .answer", "Now: weigh and mix").await?;
    b.click("li[data-step='0'] button[value=finish]").await?;
    b.says("li[data-step='1']", "Done").await?;
    b.fill("degrees", "23.4").await?;
    b.click("#reading button").await?;
    b.says(".log", "23.4°").await?;
    b.fill("degrees", "75").await?;
    b.click("#reading button").await?;
    b.says("#degrees-error", "If you read 75 °F").await?;
    // The browser itself notes the refused form; nothing else may stand there.
    let log = b.browser.console().await?;
    assert!(log.iter().all(|l| l.contains("status of 422")), "{log:#?}");
    b.fill("remark", "Smooth after the rest").await?;
    b.click("#remarks button").await?;
    b.says(".log", "Smooth after the rest").await?;

    // Bake two, by buttons and by keys.
    b.go(&format!("{path}/bake")).await?;
    // The grave caution is read once for the run, and is no pop-up: the taps stand below it.
    b.says("#grave", "Carbon monoxide").await?;
    b.click("#grave button").await?;
    until("the caution to be read", async || {
        b.script("return document.getElementById('grave') === null")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 1 of 6, in at").await?;
    b.says("#cue", "Turn 1 in").await?;
    until("the timer to run", async || {
        b.text("#timer").await.is_ok_and(|t| t != "0:00")
    })
    .await?;
    b.tap("#tap-turned").await?;
    b.says("#cue", "Turn 2 in").await?;
    b.tap("#tap-out").await?;
    b.says("#last-head", "Pizza 1").await?;
    b.click(".vc[value='pale/right']").await?;
    until("the verdict", async || {
        b.script("return document.querySelector(\".vc[value='pale/right']\").ariaPressed")
            .await
            .is_ok_and(|v| v == "true")
    })
    .await?;
    let page = b.browser.driver.find(By::Css("body")).await?;
    page.send_keys(" ").await?;
    b.says("#place", "Pizza 2 of 6, in at").await?;
    for key in ["t", "o"] {
        b.no_tap_is_fresh().await?;
        page.send_keys(key).await?;
    }
    b.says("#last-head", "Pizza 2").await?;
    page.send_keys("s").await?;
    b.says("#count", "2 out, 1 of 2 right").await?;
    until("all taps to be sent", async || {
        b.script("return document.documentElement.dataset.waiting")
            .await
            .is_ok_and(|v| v == "0")
    })
    .await?;

    // Close it; the ledger tells what was planned, measured and said.
    b.submit("#finish").await?;
    b.says("#main", "4 of 6 did not go in").await?;
    b.click("#close-sure").await?;
    until("the ledger", async || {
        b.path().await.is_ok_and(|p| p == "/ledger")
    })
    .await?;
    let line = b.text("tbody tr:first-child").await?;
    for part in [
        "Halt supper",
        &code,
        "water 64.5 %",
        "Smooth after the rest",
    ] {
        assert!(line.contains(part), "no «{part}» in {line}");
    }
    let square = b
        .find("tbody tr:first-child .square")
        .await?
        .attr("aria-label")
        .await?
        .unwrap_or_default();
    assert_eq!(
        square,
        "1 with base pale and top right, 1 with base right and top right"
    );
    b.click("tbody tr:first-child a").await?;
    b.says(".answer .code", &code).await?;
    b.says("#main", "Smooth after the rest").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_bake_fits_a_phone_and_a_tap_outlives_a_lost_line() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    b.go("/bake").await?;
    assert!(
        b.path().await?.starts_with("/batches/LR-"),
        "the batch that is baking"
    );
    assert_eq!(
        b.script("return document.documentElement.scrollWidth")
            .await?,
        390
    );
    // Timer, cue, taps and verdict stand on one screen above the line of stops.
    for css in ["#timer", "#cue", "#tap-turned", ".right-one"] {
        let foot = b
            .script(&format!(
                "return document.querySelector('{css}').getBoundingClientRect().bottom"
            ))
            .await?;
        assert!(foot.as_f64().unwrap() <= 784.0, "{css} ends at {foot}");
        let high = b
            .script(&format!(
                "return document.querySelector('{css}').getBoundingClientRect().height"
            ))
            .await?;
        assert!(high.as_f64().unwrap() >= 44.0, "{css} is {high} high");
    }
    let place = b.text("#place").await?;
    assert!(place.contains("Pizza 11 of 18 is next"), "{place}");

    // The line is down: the tap shows at once, is held, and goes out when the line is back.
    b.offline(true).await?;
    b.tap("#tap-in").await?;
    b.says("#place", "Pizza 11 of 18, in at").await?;
    b.says("#connection", "Not saved since").await?;
    b.offline(false).await?;
    until("the strip to go", async || {
        b.script("return document.getElementById('connection').hidden")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.browser.driver.refresh().await?;
    b.browser.ready().await?;
    b.says("#place", "Pizza 11 of 18, in at").await?;
    // The failed sends are the one thing the console may tell of.
    let log = b.browser.console().await?;
    assert!(
        log.iter().all(|l| l.contains("ERR_INTERNET_DISCONNECTED")),
        "{log:#?}"
    );
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn every_page_is_clean_in_both_themes_and_at_both_widths() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("LR").await?;
    let pages = [
        "/".to_string(),
        "/dough/new".into(),
        "/dough/new?style=wet_tray".into(),
        "/dough/new?formula=4".into(),
        "/formulas".into(),
        "/formulas/4".into(),
        "/formulas/4/compare?a=1&b=2".into(),
        "/formulas/paste".into(),
        "/pantry".into(),
        "/pantry/flours/new".into(),
        "/kitchen".into(),
        batch.clone(),
        format!("{batch}/mix"),
        format!("{batch}/shape"),
        "/scale".to_string(),
        format!("{batch}/bake"),
        format!("{batch}/bakes"),
        format!("{batch}/fire"),
        "/fire".into(),
        "/fire?style=wall_pan".into(),
        "/pantry/ovens/new".into(),
        "/ledger".into(),
        "/words".into(),
    ];
    for (width, height) in [(1280, 800), (390, 844)] {
        b.browser.resize(width, height).await?;
        for path in &pages {
            b.go(path).await?;
            let wide = b
                .script("return document.documentElement.scrollWidth")
                .await?;
            assert_eq!(
                wide, width,
                "{path} at {width} is not wider than the screen"
            );
            let small = b
                .script("return [...document.querySelectorAll('a.btn,button,.stop,select,input:not([type=hidden]):not([type=checkbox])')].filter((e) => !(innerWidth > 767 && e.closest('td.all'))).filter((e) => { const r = e.getBoundingClientRect(); return r.width > 0 && r.height > 0 && r.height < 43.5; }).map((e) => e.outerHTML.slice(0, 90))")
                .await?;
            assert_eq!(
                small,
                serde_json::json!([]),
                "targets under 44 px on {path} at {width}"
            );
            let twice = b
                .script("const ids = [...document.querySelectorAll('[id]')].map((e) => e.id); return ids.filter((id, i) => ids.indexOf(id) !== i)")
                .await?;
            assert_eq!(
                twice,
                serde_json::json!([]),
                "names that stand twice on {path}"
            );
            let fonts = b.script("return document.fonts.check('700 20px \"Besley Variable\"') && document.fonts.check('16px \"Atkinson Hyperlegible Next Variable\"')").await?;
            assert_eq!(fonts, true, "{path}");
        }
    }
    // The lamp changes at once and is remembered; the key does the same.
    b.browser.resize(1280, 800).await?;
    b.go("/").await?;
    b.click("#lamp").await?;
    assert_eq!(
        b.script("return document.documentElement.dataset.theme")
            .await?,
        "night"
    );
    b.go("/ledger").await?;
    assert_eq!(
        b.script("return document.documentElement.dataset.theme")
            .await?,
        "night"
    );
    b.browser
        .driver
        .find(By::Css("body"))
        .await?
        .send_keys("n")
        .await?;
    assert_eq!(
        b.script("return document.documentElement.dataset.theme")
            .await?,
        "day"
    );
    b.browser
        .driver
        .find(By::Css("body"))
        .await?
        .send_keys("b")
        .await?;
    until("the Bench", async || b.path().await.is_ok_and(|p| p == "/")).await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_keyboard_steps_fields_moves_along_the_line_and_a_lost_line_keeps_the_sheet()
-> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/dough/new").await?;
    let field = b.find("#hydration_percent").await?;
    let value = async || {
        b.find("#hydration_percent")
            .await?
            .prop("value")
            .await
            .map_err(anyhow::Error::from)
    };
    field.send_keys(Key::Up).await?;
    assert_eq!(value().await?.as_deref(), Some("62.5"));
    field.send_keys(Key::Shift + Key::Down).await?;
    assert_eq!(value().await?.as_deref(), Some("57.5"));
    b.says(".ft tbody tr:nth-child(2) .pc", "57.5").await?;
    // Letters typed in a field are not keys of the page.
    b.leaf("keep").await?;
    b.fill("name", "bn12?").await?;
    b.leaf("dough").await?;
    assert_eq!(b.path().await?, "/dough/new");
    assert_eq!(
        b.script("return document.getElementById('keys').open")
            .await?,
        false
    );

    // The line is lost while editing: it is said, what was typed stays, the figures follow when it is back.
    b.offline(true).await?;
    b.fill("salt_percent", "2.5").await?;
    b.says("#connection", "No answer from the server").await?;
    assert_eq!(
        b.find("#salt_percent")
            .await?
            .prop("value")
            .await?
            .as_deref(),
        Some("2.5")
    );
    b.offline(false).await?;
    b.says(".ft tbody tr:nth-child(3) .pc", "2.5").await?;
    let log = b.browser.console().await?;
    assert!(
        log.iter().all(|l| l.contains("ERR_INTERNET_DISCONNECTED")),
        "{log:#?}"
    );

    // Off the fields, letters and digits lead along the line.
    b.go("/words").await?;
    let body = b.browser.driver.find(By::Css("body")).await?;
    body.send_keys("?").await?;
    assert_eq!(
        b.script("return document.getElementById('keys').open")
            .await?,
        true
    );
    b.click("#keys button").await?;
    body.send_keys("7").await?;
    until("the ledger", async || {
        b.path().await.is_ok_and(|p| p == "/ledger")
    })
    .await?;
    b.browser.ready().await?;
    b.browser
        .driver
        .find(By::Css("body"))
        .await?
        .send_keys("b")
        .await?;
    until("the Bench", async || b.path().await.is_ok_and(|p| p == "/")).await?;
    b.browser.ready().await?;
    // The first stop of the keyboard is the way past the line, and everything in focus can be seen.
    b.browser
        .driver
        .find(By::Css("body"))
        .await?
        .send_keys(Key::Tab)
        .await?;
    assert_eq!(
        b.script("return document.activeElement.className").await?,
        "skip"
    );
    let order = b
        .script("return [...document.querySelectorAll('a[href],button,input:not([type=hidden])')].every((e) => e.tabIndex <= 0)")
        .await?;
    assert_eq!(order, true, "the order of focus is the order of the page");
    b.close().await
}
