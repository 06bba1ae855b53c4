//! At the mixer in a browser: a spiral with water in six parts, a dough by hand, two tablets of which one loses its line, a
//! phone.

use crate::maker::Bench;
use anyhow::{Context, Result};
use testbed::wait::until;

/// Sends taps of so many minutes ago, as a script of another device would.
async fn tapped(b: &Bench, batch: &str, taps: &[(f64, &str)]) -> Result<()> {
    for (ago_min, fields) in taps {
        let js = format!(
            "const at = new Date(Date.now() - {ago_min} * 60000).toISOString();
             const body = new URLSearchParams('{fields}'); body.set('at', at); body.set('entry_key', crypto.randomUUID());
             if (!body.has('bowl')) body.set('bowl', 0); if (!body.has('run')) body.set('run', 1);
             const a = await fetch('{batch}/mix', {{method: 'POST', headers: {{accept: 'application/json'}}, body}});
             return a.status + ' ' + await a.text()"
        );
        let said = b.script(&js).await?;
        let said = said.as_str().context("an answer")?;
        assert!(said.starts_with("200"), "{fields}: {said}");
    }
    Ok(())
}

/// The step that is on, as the page has it.
async fn on_step(b: &Bench, n: u32) -> Result<()> {
    until(&format!("step {n}"), async || {
        let js = "return document.querySelector('.run-steps .on')?.dataset.step ?? ''";
        let on = b.script(js).await;
        on.is_ok_and(|v| v.as_str() == Some(n.to_string().as_str()))
    })
    .await
}

/// Two taps of one hand are no closer than half a second: the next one waits for that.
async fn next(b: &Bench, then: u32) -> Result<()> {
    let js = "return document.getElementById('mix').dataset.fresh === undefined";
    until("a moment after the last tap", async || {
        b.script(js).await.is_ok_and(|v| v == true)
    })
    .await?;
    b.click("#mix-next").await?;
    on_step(b, then).await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_spiral_with_water_in_six_parts_and_the_last_of_it_corrected() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("TR").await?;
    let mix = format!("{batch}/mix");
    // From the Bench, by the step that is next.
    b.go(&batch).await?;
    b.click("a.open-mix").await?;
    b.says("h1", "Pour at").await?;
    b.choose("way", "water in six parts").await?;
    until("the six parts", async || {
        b.text(".run-steps")
            .await
            .is_ok_and(|t| t.contains("Water, part 6 of 6"))
    })
    .await?;
    // The flour was measured: the water follows.
    let before = b.text(".solve b").await?;
    b.fill("mix-flour", "23.5").await?;
    b.script("document.getElementById('mix-flour').blur()")
        .await?;
    until("colder water", async || {
        b.text(".solve b").await.is_ok_and(|t| t != before)
    })
    .await?;
    tapped(
        &b,
        &batch,
        &[
            (29.0, "act=step&step=1"),
            (21.0, "act=step&step=2"),
            (21.0, "act=read&degrees=19.6"),
            (11.0, "act=step&step=3"),
            (8.8, "act=read&degrees=19.9"),
            (8.8, "act=step&step=4"),
            (6.6, "act=step&step=5"),
            (4.4, "act=step&step=6"),
            (2.2, "act=step&step=7"),
        ],
    )
    .await?;
    b.go(&mix).await?;
    on_step(&b, 7).await?;
    let five = b.text(".run-steps").await?;
    assert_eq!(five.matches("Water, part").count(), 5, "{five}");
    // Taken back, its part is still to come: the page says how warm it must be, and a measured part moves the end.
    b.click(".tap-log form button").await?;
    b.says("#mix-next-water", "The last part at").await?;
    on_step(&b, 6).await?;
    b.fill("degrees", "22.4").await?;
    b.click("#mix-course form button").await?;
    b.says("h1", "Dough is 22.4").await?;
    let said = b.text("h1").await?;
    next(&b, 7).await?;
    tapped(&b, &batch, &[(0.0, "act=poured&part=6&c=30")]).await?;
    b.go(&mix).await?;
    assert_ne!(b.text("h1").await?, said, "warm water moves the end");
    // A number that only fits in the other unit.
    b.fill("degrees", "72").await?;
    b.click("#mix-course form button").await?;
    b.says("#degrees-err", "22.2").await?;
    assert_eq!(b.value("degrees").await?, "72", "what was typed stays");
    b.click("button[name=sign][value=wall_clean]").await?;
    until("the sign", async || {
        let js = "return document.querySelector('button[name=sign][value=wall_clean]').getAttribute('aria-pressed')";
        b.script(js).await.is_ok_and(|v| v == "true")
    })
    .await?;
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_dough_by_hand_from_the_first_stir_to_rise() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("TR").await?;
    b.go(&format!("{batch}/mix")).await?;
    assert_eq!(b.text("#way option:checked").await?, "By hand");
    b.click(".weigh .check").await?;
    until("the flour is weighed", async || {
        let js = "return document.querySelector('.weigh .check').getAttribute('aria-checked')";
        b.script(js).await.is_ok_and(|v| v == "true")
    })
    .await?;
    // The first tap counts as soon as the page is there.
    b.script("performance.now = () => 120").await?;
    next(&b, 1).await?;
    b.script("delete performance.now").await?;
    for step in 2..=5 {
        next(&b, step).await?;
    }
    // A key does the same as the button.
    b.script("document.activeElement.blur()").await?;
    let js = "return document.getElementById('mix').dataset.fresh === undefined";
    until("a moment after the last tap", async || {
        b.script(js).await.is_ok_and(|v| v == true)
    })
    .await?;
    b.script(
        "document.body.dispatchEvent(new KeyboardEvent('keydown', {key: ' ', bubbles: true}))",
    )
    .await?;
    b.says("h1", "Out of the bowl").await?;
    b.click("#on-to").await?;
    b.says(".here", "Rise").await?;
    b.go("/").await?;
    assert!(b.text("#main").await?.contains("mixed, resting"));
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_tablets_on_one_bowl_and_one_of_them_without_a_line() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let other = b.beside(1280, 800).await?;
    let batch = b.batch("TR").await?;
    let mix = format!("{batch}/mix");
    b.go(&mix).await?;
    other.go(&mix).await?;
    next(&b, 1).await?;
    on_step(&other, 1).await?;
    other.offline(true).await?;
    // Without a line it goes on here, and is told when the line is back; the other tablet takes a temperature meanwhile.
    next(&other, 2).await?;
    other.says("#connection", "waits in this browser").await?;
    tapped(&b, &batch, &[(0.0, "act=read&degrees=24.5")]).await?;
    other.offline(false).await?;
    other.all_sent().await?;
    on_step(&b, 2).await?;
    b.says(".mix-seen", "24.5").await?;
    // Both tap the next step: one of them counts, and the other is told.
    next(&b, 3).await?;
    on_step(&other, 3).await?;
    other.go(&mix).await?;
    on_step(&other, 3).await?;
    other.close_whatever_it_said().await?;
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_mixer_fits_a_phone_and_a_narrow_one() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    for letters in ["TR", "PT"] {
        let batch = b.batch(letters).await?;
        for width in [390, 320] {
            b.browser.resize(width, 844).await?;
            b.go(&format!("{batch}/mix")).await?;
            let wide = b
                .script("return document.documentElement.scrollWidth")
                .await?;
            assert_eq!(wide, width, "{letters} at {width}");
            let small = b
                .script(
                    "return [...document.querySelectorAll('main button, main a.btn, main input:not([type=hidden]), main select')]
                     .filter((e) => e.checkVisibility() && e.getBoundingClientRect().height < 44 && !e.closest('.value'))
                     .map((e) => e.outerHTML.slice(0, 80))",
                )
                .await?;
            assert_eq!(small, serde_json::json!([]), "targets at {width}");
        }
    }
    b.close().await
}
