//! Planning a rise in a real browser: around the hours of a life, by mouse and by keys, and again when the dough turns out
//! warmer than it was meant.

use crate::maker::Bench;
use anyhow::{Context, Result};
use serde_json::Value;
use testbed::wait::until;
use thirtyfour::prelude::*;

const EDGE: &str = ".wide .handle[data-edge='1']";

/// Waits until a hidden field of the form holds another value, and returns it.
async fn other(b: &Bench, field: &str, than: &str) -> Result<String> {
    let css = format!("#carried input[name='{field}']");
    let read = async || -> Result<String> {
        Ok(b.find(&css).await?.prop("value").await?.unwrap_or_default())
    };
    until(&format!("{field} is no longer {than}"), async || {
        read().await.is_ok_and(|v| v != than)
    })
    .await?;
    read().await
}

async fn held(b: &Bench, field: &str) -> Result<String> {
    other(b, field, "nothing yet").await
}

/// Takes an edge with the mouse and lets it go so many pixels on.
async fn drag(b: &Bench, css: &str, by_px: i64) -> Result<()> {
    let e = b.find(css).await?;
    e.scroll_into_view().await?;
    b.browser
        .driver
        .action_chain()
        .click_and_hold_element(&e)
        .move_by_offset(by_px / 2, 0)
        .move_by_offset(by_px - by_px / 2, 0)
        .release()
        .perform()
        .await?;
    Ok(())
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_cold_days_around_quiet_hours_moved_by_mouse_and_by_keys() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/kitchen").await?;
    b.fill("quiet", "22:30-06:30").await?;
    b.fill("busy", "Mon-Fri 08:30-16:30").await?;
    b.submit("main .btn.go").await?;
    b.go("/rise?style=hot_round&method=room_then_cold_balls")
        .await?;
    // Of a Friday a week ahead the date is said too.
    b.says("#answer h1", "Ready Fri").await?;

    // Around the hours away: three plans, none of them at night or at work.
    b.click("#fit").await?;
    b.says("#desk .plans", "taken").await?;
    let plans = b
        .script("return document.querySelectorAll('.plans li').length")
        .await?;
    assert_eq!(plans, 3);
    let notes = b.text("#desk").await?;
    assert!(!notes.contains("falls at"), "{notes}");

    // By mouse: the cold ends earlier, the temper begins earlier; the window moves.
    let field = |i: usize| if i == 1 { "cold_h" } else { "temper_h" };
    let (cold, temper) = (held(&b, field(1)).await?, held(&b, field(2)).await?);
    let answer = b.text("#answer h1").await?;
    drag(&b, EDGE, -40).await?;
    let shorter = other(&b, field(1), &cold).await?;
    assert!(
        shorter.parse::<f64>()? < cold.parse::<f64>()?,
        "{cold} to {shorter}"
    );
    let longer = other(&b, field(2), &temper).await?;
    let sum = |a: &str, z: &str| -> Result<f64> { Ok(a.parse::<f64>()? + z.parse::<f64>()?) };
    assert_eq!(
        sum(&cold, &temper)?,
        sum(&shorter, &longer)?,
        "the serve time stands"
    );
    until("the window moved", async || {
        b.text("#answer h1").await.is_ok_and(|t| t != answer)
    })
    .await?;

    // By keys: a quarter of an hour a press, an hour with Shift; the edge stays in hand.
    until("the last answer", async || {
        b.script("return !document.getElementById('rise').classList.contains('working')")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    let before = held(&b, field(1)).await?;
    b.script(&format!("document.querySelector(\"{EDGE}\").focus()"))
        .await?;
    b.browser
        .driver
        .active_element()
        .await?
        .send_keys(Key::Right)
        .await?;
    let after = other(&b, field(1), &before).await?;
    assert_eq!(after.parse::<f64>()? - before.parse::<f64>()?, 0.25);
    let edge = b
        .script("return document.activeElement.dataset.edge")
        .await?;
    assert_eq!(edge, "1");
    b.browser
        .driver
        .active_element()
        .await?
        .send_keys(Key::Shift + Key::Left)
        .await?;
    let back = other(&b, field(1), &after).await?;
    assert_eq!(after.parse::<f64>()? - back.parse::<f64>()?, 1.0);

    // From the key to the picture it takes a part of a tenth of a second; the figure is read, not judged.
    let took = b
        .script("return document.getElementById('rise').dataset.took")
        .await?;
    eprintln!(
        "from the move to the redrawn picture: {} ms",
        took.as_str().unwrap_or("?")
    );

    // Solved for the cold hours, then for the serve time, then again for the yeast.
    b.click("button[value='solve:1']").await?;
    b.says(".seg [aria-pressed=true]", "Cold hours").await?;
    b.click("button[value='solve:yeast']").await?;
    b.says(".seg [aria-pressed=true]", "Yeast").await?;

    // Kept, its steps stand on the Bench.
    b.click("#keep").await?;
    until("the batch", async || {
        b.path().await.is_ok_and(|p| p.starts_with("/batches/"))
    })
    .await?;
    b.says(".does", "Divide and ball").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_warm_mixer_is_seen_and_mended_and_the_yeast_is_fitted() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    // A dough for tonight, mixed already: everything is dated from now.
    b.go("/rise?style=hot_round&method=same_day").await?;
    let soon: Value = b
        .script(
            "const t = new Date(Number(document.getElementById('now').dataset.now) + 10 * 36e5);
             const f = new Intl.DateTimeFormat('sv-SE', {timeZone: document.getElementById('now').dataset.zone, dateStyle: 'short', timeStyle: 'short'});
             return f.format(t)",
        )
        .await?;
    let (day, time) = soon
        .as_str()
        .context("a time")?
        .split_once(' ')
        .context("a time")?;
    b.script(&format!(
        "const set = (n, v) => document.querySelector(`#carried input[name=${{n}}]`).value = v; set('serve_date', '{day}'); set('serve_time', '{time}'); set('name', 'Evening round')"
    ))
    .await?;
    b.click("#keep").await?;
    until("the batch", async || {
        b.path().await.is_ok_and(|p| p.starts_with("/batches/"))
    })
    .await?;
    let path = b.path().await?;
    // Mixed and set to rest, by taps; then the thermometer.
    for (word, then) in [("Begin", "since"), ("Finished", "Done"), ("Done", "Done")] {
        let button = "const b = document.querySelector('.does .next form .btn'); return b.innerText + '|' + document.querySelector('.does').innerText";
        let shown = b.script(button).await?;
        let shown = shown.as_str().unwrap_or_default().to_string();
        assert!(shown.starts_with(word), "{word}: {shown}");
        b.click(".does .next form .btn").await?;
        until("the next word of the step", async || {
            b.script(button)
                .await
                .is_ok_and(|v| v.as_str().is_some_and(|t| t != shown && t.contains(then)))
        })
        .await?;
        b.browser.ready().await?;
    }
    for (subject, degrees, said) in [("dough", "33", "Dough 33.0°"), ("room", "33", "Room 33.0°")]
    {
        b.script(&format!(
            "document.getElementById('subject').value = '{subject}'"
        ))
        .await?;
        b.fill("degrees", degrees).await?;
        b.click("#reading .btn").await?;
        until(said, async || {
            let js = "return document.readyState === 'complete' && document.querySelector('.log')?.innerText.replace(/\\s+/g, ' ')";
            b.script(js)
                .await
                .is_ok_and(|v| v.as_str().is_some_and(|t| t.contains(said)))
        })
        .await?;
        b.browser.ready().await?;
    }
    b.go(&format!("{path}/rise")).await?;
    b.says("#desk", "Dough off the mixer 33.0° instead of")
        .await?;
    b.says("#answer h1", "misses").await?;
    b.click(".remedies li:first-child .btn").await?;
    b.says("#answer h1", "fits").await?;

    // Another dough is ready already: one number, shown before it is noted.
    b.go("/").await?;
    let halt = b
        .script("return [...document.querySelectorAll('.ribbon a')].find((a) => a.textContent.includes('Halt round')).getAttribute('href')")
        .await?;
    b.go(&format!(
        "{}/rise",
        halt.as_str().context("the Halt round")?
    ))
    .await?;
    b.script(
        "const t = new Date(Number(document.getElementById('now').dataset.now));
         const f = new Intl.DateTimeFormat('sv-SE', {timeZone: document.getElementById('now').dataset.zone, dateStyle: 'short', timeStyle: 'short'});
         document.querySelector('#vigour [name=when]').value = f.format(t).replace(' ', 'T')",
    )
    .await?;
    b.click("#vigour form > .btn").await?;
    b.says("#vigour .fitted", "times as fast as planned")
        .await?;
    b.says("#vigour .fitted", "The same dough would next take")
        .await?;
    b.click("#vigour .fitted .btn").await?;
    until("the leaven's page", async || {
        b.path()
            .await
            .is_ok_and(|p| p.starts_with("/pantry/leavens/"))
    })
    .await?;
    assert_ne!(b.value("vigour").await?, "1");
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn methods_are_compared_a_step_is_done_from_the_bench_and_the_feed_opens() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/rise?style=garden_round").await?;
    b.click("button[formaction='/rise/compare']").await?;
    b.says(".columns", "Strength left").await?;
    b.script("document.getElementById('m2').value = 'poolish_cold'")
        .await?;
    b.click("#again").await?;
    b.says(".columns", "Take Poolish, cold").await?;
    b.click(".column:first-child .btn.go").await?;
    b.says("#new_method", "Same day").await?;

    // On the Bench: one step left out, another done.
    b.go("/").await?;
    let first = b.text(".acts li:first-child .what b").await?;
    b.click(".acts li:first-child .else summary").await?;
    b.click(".acts li:first-child [value=skip]").await?;
    until("another act is first", async || {
        b.text(".acts li:first-child .what b")
            .await
            .is_ok_and(|t| t != first)
    })
    .await?;
    let second = b.text(".acts li:first-child .what b").await?;
    b.click(".acts li:first-child [value=done]").await?;
    b.says(".just", &second).await?;

    // The feed, at an address that nobody guesses.
    b.go("/calendar").await?;
    b.click("#renew").await?;
    b.says("main", "Subscribe to this address").await?;
    let feed = b
        .browser
        .driver
        .execute_async(
            "const done = arguments[0]; fetch(document.getElementById('feed').href).then((r) => r.text()).then(done)",
            vec![],
        )
        .await?;
    let feed = feed.json().as_str().unwrap_or("").to_string();
    assert!(
        feed.starts_with("BEGIN:VCALENDAR") && feed.contains("SUMMARY:"),
        "{feed}"
    );
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn rise_and_bench_are_at_home_on_a_telephone() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    for path in [
        "/rise?style=hot_round&method=room_then_cold_balls",
        "/",
        "/calendar",
    ] {
        b.go(path).await?;
        let wide = b
            .script("return document.documentElement.scrollWidth")
            .await?;
        assert!(wide.as_i64().unwrap_or(999) <= 390, "{path} is {wide} wide");
        let small = b
            .script(
                "return [...document.querySelectorAll('main button, main a.btn, main select, main summary')]
                   .filter((e) => e.checkVisibility()).map((e) => [e.textContent.trim().slice(0, 20), e.getBoundingClientRect().height])
                   .filter(([, h]) => h < 43.5)",
            )
            .await?;
        assert_eq!(small.as_array().map(Vec::len), Some(0), "{path}: {small}");
    }
    // A step of a leg works by touch.
    b.go("/rise?style=hot_round&method=room_then_cold_balls")
        .await?;
    let before = held(&b, "bulk_h").await?;
    b.click("[data-leg='0'] .step:last-child").await?;
    assert_ne!(other(&b, "bulk_h", &before).await?, before);
    b.close().await
}
