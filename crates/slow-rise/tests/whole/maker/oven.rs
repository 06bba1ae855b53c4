//! An oven that is made one's own, and what its page keeps: in a real browser.

use crate::maker::Bench;
use anyhow::{Context, Result};
use testbed::wait::until;
use thirtyfour::Key;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_oven_is_asked_of_its_log_takes_its_own_factors_and_forgets_them() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let path = b.batch("HR").await?;
    b.go(&format!("{path}/fire")).await?;
    b.click("#calibration .btn").await?;
    b.says("#calibration", "judged bakes: floor ×").await?;
    // Two numbers are offered where they explain these bakes better, and where they do not the book stays.
    let says = b.text("#calibration").await?;
    let stays = says.contains("The book stays");
    assert_ne!(stays, says.contains("instead of"), "{says}");
    let offered = "return document.querySelector('#calibration button[name=keep]') !== null";
    assert_eq!(b.script(offered).await?, !stays, "{says}");
    // Numbers of one's own stand in the pantry all the same.
    b.go("/pantry").await?;
    let to_it = "return [...document.querySelectorAll('#oven li a')].find((a) => a.textContent === 'Lamp room oven').getAttribute('href')";
    let oven = b.script(to_it).await?;
    let oven = oven.as_str().context("its address")?.to_string();
    b.go(&oven).await?;
    b.fill("floor_factor", "0.9").await?;
    b.click(".answer .btn.go").await?;
    b.says("#oven", "fitted: floor ×0.9").await?;
    b.says(".saved", "Lamp room oven is kept.").await?;
    b.go(&oven).await?;
    // Wrong input stays beside its sentence; 1 sets it back.
    b.fill("most_c", "900").await?;
    b.click(".answer .btn.go").await?;
    b.says("#most_c-error", "550").await?;
    assert_eq!(b.value("most_c").await?, "900");
    b.fill("most_c", "500").await?;
    b.fill("floor_factor", "1").await?;
    b.fill("top_factor", "1").await?;
    b.click(".answer .btn.go").await?;
    until("the pantry", async || {
        b.path().await.is_ok_and(|p| p == "/pantry")
    })
    .await?;
    b.find("#copy-oven").await?;
    assert!(!b.text("body").await?.contains("fitted: floor ×"));
    // A shipped one is copied and stands among the ovens of Fire.
    b.choose("copy-oven", "Stone-lined deck").await?;
    b.click("#copy-oven + .btn").await?;
    until("the copy", async || {
        b.path()
            .await
            .is_ok_and(|p| p.starts_with("/pantry/ovens/") && p != oven)
    })
    .await?;
    b.fill("name", "Goods shed deck").await?;
    b.click(".answer .btn.go").await?;
    b.says("#main", "Goods shed deck").await?;
    until("the pantry", async || {
        b.path().await.is_ok_and(|p| p == "/pantry")
    })
    .await?;
    b.go("/fire").await?;
    let before = b.race().await?;
    b.choose("oven", "Goods shed deck").await?;
    b.race_changes(&before).await?;
    // The refused post left its word on the console.
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_short_preheat_and_turns_of_ones_own_are_kept() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let path = b.batch("TR").await?;
    b.go(&format!("{path}/fire")).await?;
    let charged = b.race().await?;
    b.fill("preheat_min", "12").await?;
    let short = b.race_changes(&charged).await?;
    b.says("#desk", "12 min leave the core at").await?;
    // A turn at another second is mine; the model's is one press away.
    let model = b.value("cue0").await?;
    b.fill("cue0", "2:00").await?;
    b.says("#desk", "Back to the model's seconds").await?;
    b.click("button[value=model]").await?;
    b.holds("cue0", &model).await?;
    b.fill("cue0", "2:10").await?;
    b.says("#desk", "Back to the model's seconds").await?;
    b.submit("#keep").await?;
    b.says("#keep", "Keep this fire").await?;
    b.holds("cue0", "2:10").await?;
    b.holds("preheat_min", "12").await?;
    assert_eq!(b.race().await?, short);
    // The bench turns by it.
    b.go(&format!("{path}/bake")).await?;
    b.tap("#tap-in").await?;
    b.says("#cue", "in 2:0").await?;
    // Sound off is remembered; a slip is taken back.
    b.click("#sound").await?;
    b.says("#sound", "Sound off").await?;
    b.click("#undo").await?;
    b.says("#place", "Pizza 1 of 6 is next").await?;
    b.all_sent().await?;
    b.browser.driver.refresh().await?;
    b.browser.ready().await?;
    b.says("#sound", "Sound off").await?;
    b.says("#place", "Pizza 1 of 6 is next").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_cut_is_scrubbed_by_keys_and_no_second_asks_the_server() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/fire?style=hot_round").await?;
    let at = b
        .script("return Number(document.getElementById('second').value)")
        .await?;
    let at = at.as_f64().context("a second")? as u32;
    let base = |js: &'static str| async { b.script(js).await };
    let shown = "return document.querySelector('#cut [data-c=base]').textContent";
    let before = base(shown).await?;
    let slider = b.find("#second").await?;
    for _ in 0..20 {
        slider.send_keys(Key::Left).await?;
    }
    b.says("#scrub-says", &format!("At {} s:", at - 20)).await?;
    assert_ne!(base(shown).await?, before, "the base was cooler then");
    let asked = b
        .script("return document.getElementById('fire').dataset.answered ?? ''")
        .await?;
    assert_eq!(asked, "");
    b.close().await
}
