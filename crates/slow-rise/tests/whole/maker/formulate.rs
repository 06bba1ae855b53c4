//! Formulating in a real browser: from a blend and a poolish to versions in the library, a pasted recipe, paper.

use crate::maker::Bench;
use anyhow::Result;
use testbed::wait::until;
use thirtyfour::prelude::*;

/// Waits until the formula's table has so many stages.
async fn stages(b: &Bench, n: usize) -> Result<()> {
    until(&format!("{n} stages"), async || {
        b.script("return document.querySelectorAll('.ft thead .col').length")
            .await
            .is_ok_and(|v| v == n as u64)
    })
    .await
}

async fn press(b: &Bench, act: &str) -> Result<()> {
    b.click(&format!("button[name=act][value='{act}']")).await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn three_flours_a_poolish_and_a_second_dose_from_nothing_to_two_versions() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/dough/new?style=garden_round").await?;
    b.says("#answer h1", "Four balls take").await?;

    // Three flours out of the pantry; shares that do not sum are said, and evened out by one press.
    b.leaf("flour").await?;
    b.choose("new_flours", "Quernside No. 4").await?;
    press(&b, "add:flours").await?;
    // What stood in for a flour gives it its place.
    b.says(".ft tbody", "Quernside No. 4").await?;
    b.holds("flours_0__share_percent", "100").await?;
    for flour in ["Alder Ford strong", "Cold Ash spelt"] {
        b.choose("new_flours", flour).await?;
        press(&b, "add:flours").await?;
        b.says(".ft tbody", flour).await?;
    }
    for (i, share) in [(0, "40"), (1, "20"), (2, "20")] {
        b.fill(&format!("flours_{i}__share_percent"), share).await?;
    }
    b.says("[data-field=flours]", "The flours sum to 80 %, not 100.")
        .await?;
    press(&b, "even:flours").await?;
    b.holds("flours_0__share_percent", "50").await?;
    for (i, share) in [(0, "70"), (1, "25"), (2, "5")] {
        b.fill(&format!("flours_{i}__share_percent"), share).await?;
    }
    b.says(".ft tbody tr:nth-child(3) .pc", "5.0").await?;
    assert!(
        b.find(".bar svg")
            .await?
            .attr("aria-label")
            .await?
            .unwrap_or_default()
            .contains("Alder Ford strong 25 %")
    );

    // A poolish on the strong flour alone; the dough keeps a dose of its own.
    b.leaf("leaven").await?;
    b.choose("new_preferments", "Poolish").await?;
    press(&b, "add:preferments").await?;
    stages(&b, 2).await?;
    b.fill("preferments_0__flour_percent", "20").await?;
    b.click("input[name='preferments[0].own_flours']").await?;
    b.find("#preferments_0__flours_1_").await?;
    for (j, share) in [(0, "0"), (1, "100"), (2, "0")] {
        b.fill(&format!("preferments_0__flours_{j}_"), share)
            .await?;
    }
    until("the strong flour alone in the poolish", async || {
        let cell = async |row: u32| {
            b.text(&format!(".ft tbody tr:nth-child({row}) td.c0"))
                .await
                .unwrap_or_default()
        };
        cell(1).await.is_empty() && !cell(2).await.is_empty() && cell(3).await.is_empty()
    })
    .await?;
    b.says("tr.y", "Instant yeast").await?;
    until("two doses", async || {
        b.script("return document.querySelectorAll('tr.y td.g .nil').length === 0 && document.querySelectorAll('tr.y td.g').length === 2")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.says("#answer p", "Begin the poolish").await?;

    // A remedy, undone and done again.
    b.leaf("dough").await?;
    b.fill("salt_percent", "4").await?;
    b.says("[data-note=salt_outside_usual]", "Set 3.2 %")
        .await?;
    b.click("[data-note=salt_outside_usual] button").await?;
    b.holds("salt_percent", "3.2").await?;
    b.click("#undo").await?;
    b.holds("salt_percent", "4").await?;
    b.click("#redo").await?;
    b.holds("salt_percent", "3.2").await?;
    stages(&b, 2).await?;

    // Saved, opened, changed with its reason, saved again: two versions that can be compared.
    b.leaf("keep").await?;
    b.fill("name", "Trial supper").await?;
    b.click("#keep-formula").await?;
    until("the formula's page", async || {
        b.path().await.is_ok_and(|p| p.starts_with("/formulas/"))
    })
    .await?;
    b.says("h1", "Trial supper, version 1").await?;
    b.click(".answer .btn.go").await?;
    b.browser.ready().await?;
    b.says("#answer h1", "Four balls take").await?;
    b.leaf("dough").await?;
    b.fill("hydration_percent", "66").await?;
    b.leaf("keep").await?;
    b.fill("why", "Wetter, for a lighter rim").await?;
    b.click("#keep-formula").await?;
    b.says("h1", "Trial supper, version 2").await?;
    b.says(".versions", "Wetter, for a lighter rim").await?;
    b.click(".find button").await?;
    b.says("h1", "one change").await?;
    let line = b.text(".diff tbody tr").await?;
    for part in ["Water", "63 %", "66 %"] {
        assert!(line.contains(part), "{part} in {line}");
    }
    // Found again in the library.
    b.go("/formulas?q=lighter").await?;
    b.says("tbody tr:first-child", "Trial supper").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn grams_and_percent_follow_each_other_and_a_mode_keeps_the_dough() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/dough/new?formula=4").await?;
    b.says("tfoot", "1,588").await?;
    // A weight typed into the sheet becomes a percentage; what was typed stands there.
    let water = b.find("input[name='g:water']").await?;
    water.send_keys(Key::Control + "a").await?;
    water.send_keys("620" + Key::Tab).await?;
    until("620 g of water as a percentage", async || {
        b.script("return document.querySelector(\"input[name='g:water']\").value === '620' && document.getElementById('hydration_percent').value.startsWith('67.')")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    // Five ways to say one dough.
    for (mode, id) in [
        ("discs", "pieces_diameter_cm"),
        ("total", "pieces_dough_g"),
        ("flour", "pieces_flour_g"),
        ("pans", "pieces_pans_0__length_cm"),
        ("balls", "pieces_ball_g"),
    ] {
        press(&b, &format!("mode:{mode}")).await?;
        b.find(&format!("#{id}")).await?;
        // Rounded rows and a dose that is solved anew leave a gram or two.
        until("the same dough", async || {
            let weighs = b
                .text("tfoot td.all")
                .await
                .unwrap_or_default()
                .replace(',', "");
            weighs
                .parse::<f64>()
                .is_ok_and(|g| (g - 1588.0).abs() <= 4.0)
        })
        .await?;
    }
    // Fit to the oven: several changes by one press, undone by one.
    b.leaf("top").await?;
    b.choose("oven_kind", "steel").await?;
    b.fill("oven_top_c", "260").await?;
    b.script(
        "document.getElementById('oven_top_c').dispatchEvent(new Event('change', {bubbles: true}))",
    )
    .await?;
    b.leaf("dough").await?;
    press(&b, "mode:total").await?;
    b.leaf("top").await?;
    b.says("#fit", "Double bake").await?;
    press(&b, "fit").await?;
    b.says("#fit", "fits an oven of 260").await?;
    b.leaf("dough").await?;
    b.holds("sugar_percent", "2").await?;
    b.click("#undo").await?;
    b.holds("sugar_percent", "0").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_press_without_a_line_waits_and_unsaved_work_survives_a_reload() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/dough/new?formula=4").await?;
    b.says("tfoot", "1,588").await?;
    b.offline(true).await?;
    b.choose("new_extras", "Honey").await?;
    press(&b, "add:extras").await?;
    b.says("#connection", "No answer from the server").await?;
    b.offline(false).await?;
    b.says(".ft tbody", "Honey").await?;
    b.fill("extras_1__amount", "2").await?;
    b.says(".weighs-why", "True hydration").await?;
    b.browser.driver.refresh().await?;
    b.browser.ready().await?;
    b.holds("extras_1__amount", "2").await?;
    b.says(".ft tbody", "Honey").await?;
    // Undo still knows the way back.
    b.click("#undo").await?;
    b.holds("extras_1__amount", "1").await?;
    let log = b.browser.console().await?;
    assert!(
        log.iter().all(|l| l.contains("ERR_INTERNET_DISCONNECTED")),
        "{log:#?}"
    );
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_pasted_recipe_is_checked_kept_and_printed() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/formulas/paste").await?;
    b.fill(
        "text",
        "450 g farina W300\n290 g acqua\n100 g starter\n2 tsp salt\n30 g moonbeams",
    )
    .await?;
    b.click(".pasting .btn").await?;
    b.says("h1", "beside the text").await?;
    b.says("tr.unread", "moonbeams").await?;
    b.says("tr.rough", "2 tsp × 5 ml × 1.2 g/ml").await?;
    b.says(".facts", "water 68 %").await?;
    b.says(".facts", "10 % of the flour at 100 % water").await?;
    b.click("button[formaction='/formulas']").await?;
    b.says("h1", "Pasted recipe, version 1").await?;
    b.click(".answer .btn.go").await?;
    b.browser.ready().await?;
    stages(&b, 2).await?;
    b.says(".build", "Feed the levain").await?;

    // The paper: black on white, the same grams, boxes for the real times.
    let flour = b.text("tfoot td.lastc").await?;
    b.script("document.getElementById('print').removeAttribute('formtarget')")
        .await?;
    b.click("#print").await?;
    until("the paper", async || {
        b.path().await.is_ok_and(|p| p == "/dough/print")
    })
    .await?;
    b.browser.ready().await?;
    b.says(".pt tfoot", &flour).await?;
    b.says(".steps-on-paper", "Feed the levain").await?;
    let cdp = b.browser.driver.cdp();
    cdp.send_raw(
        "Emulation.setEmulatedMedia",
        serde_json::json!({"media": "print"}),
    )
    .await?;
    let look = b
        .script("const s = getComputedStyle(document.body); return [s.color, s.backgroundColor, getComputedStyle(document.querySelector('.screen-only')).display]")
        .await?;
    assert_eq!(
        look,
        serde_json::json!(["rgb(0, 0, 0)", "rgb(255, 255, 255)", "none"])
    );
    // A4 and Letter both take it on two pages at most.
    for (width, height) in [(8.27, 11.69), (8.5, 11.0)] {
        let pdf = cdp
            .send_raw("Page.printToPDF", serde_json::json!({"paperWidth": width, "paperHeight": height, "preferCSSPageSize": false}))
            .await?;
        assert!(pdf["data"].as_str().is_some_and(|d| d.len() > 10_000));
    }
    b.close().await
}
