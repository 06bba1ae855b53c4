//! A kitchen turns to ounces, °F and inches in its browser, and meets no gram and no °C from then on.

use crate::maker::Bench;
use anyhow::{Result, ensure};
use serde_json::json;
use testbed::wait::until;

/// Figures in a foreign unit that can be read on the page or are read aloud, with what stands before them. What a scale
/// reads stays in the scale's own unit and says so.
const FOREIGN: &str = r#"
const said = [];
const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (walk.nextNode()) {
  const parent = walk.currentNode.parentElement;
  if (!parent.closest("script,style")) said.push(walk.currentNode.textContent);
}
for (const e of document.querySelectorAll("[aria-label],[title],[placeholder]")) {
  for (const name of ["aria-label", "title", "placeholder"]) said.push(e.getAttribute(name) ?? "");
}
const text = said.join(" ").replace(/\s+/g, " ");
return [...text.matchAll(/°C|\d (?:K|g|kg|cm|mm|ml|l|m²|g\/cm²|kg\/h|g\/l)(?![\w/²])/g)]
  .map((m) => text.slice(Math.max(0, m.index - 40), m.index + 30))
  .filter((t) => !/scale/i.test(t));
"#;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn every_page_of_a_kitchen_of_ounces_is_in_ounces_fahrenheit_and_inches() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/dough/new").await?;
    let met = b.script(FOREIGN).await?;
    ensure!(
        met.as_array().is_some_and(|m| !m.is_empty()),
        "a metric page is known by its figures"
    );
    b.go("/kitchen").await?;
    b.choose("weight", "ounces").await?;
    b.choose("temperature", "Fahrenheit").await?;
    b.choose("length", "inches").await?;
    b.submit("main .btn.go").await?;

    let mut pages: Vec<String> = [
        "/",
        "/dough/new",
        "/dough/new?style=wet_tray",
        "/formulas",
        "/formulas/4",
        "/formulas/4/compare?a=1&b=2",
        "/formulas/paste",
        "/pantry",
        "/pantry/ovens/new",
        "/pantry/flours/new",
        "/rise",
        "/fire",
        "/fire?style=wall_pan",
        "/bake",
        "/ledger",
        "/calendar",
        "/kitchen",
        "/words",
    ]
    .map(String::from)
    .into();
    b.go("/").await?;
    let batches = b
        .script("return [...new Set([...document.querySelectorAll('main a[href^=\"/batches/\"]')].map((a) => a.getAttribute('href').split(/[?#]/)[0]))].filter((p) => p.split('/').length === 3)")
        .await?;
    let batches: Vec<String> = serde_json::from_value(batches)?;
    ensure!(batches.len() > 2, "{batches:?}");
    for batch in &batches {
        for page in [
            "", "/print", "/labels", "/mix", "/shape", "/rise", "/fire", "/bake", "/bakes",
        ] {
            pages.push(format!("{batch}{page}"));
        }
    }
    let mut wrong = vec![];
    for path in &pages {
        b.go(path).await?;
        let found = b.script(FOREIGN).await?;
        if found != json!([]) {
            wrong.push(format!("{path}: {found}"));
        }
    }
    ensure!(wrong.is_empty(), "{}", wrong.join("\n"));

    // Typing in the other unit is understood and shown back, live and beside the figures.
    b.go("/dough/new").await?;
    b.fill("pieces_ball_g", "250 g").await?;
    b.says("#answer h1", "Six balls take").await?;
    let found = b.script(FOREIGN).await?;
    ensure!(found == json!([]), "{found}");
    // Scrubbing the oven keeps its unit.
    b.go("/fire?style=hot_round").await?;
    b.find("#second")
        .await?
        .send_keys(thirtyfour::Key::Left)
        .await?;
    b.says("#scrub-says", "inside").await?;
    let says = b.text("#scrub-says").await?;
    let inside = says.split(['°', ' ']).filter_map(|w| w.parse::<f64>().ok());
    ensure!(
        inside.clone().any(|v| v > 150.0),
        "the middle in °F: {says}"
    );
    let found = b.script(FOREIGN).await?;
    ensure!(found == json!([]), "{found}");
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn from_set_up_to_bake_a_kitchen_of_ounces_meets_no_gram() -> Result<()> {
    let b = Bench::on_nothing(1280, 800, false).await?;
    let met = async |at: &str| -> Result<()> {
        let found = b.script(FOREIGN).await?;
        ensure!(found == json!([]), "{at}: {found}");
        Ok(())
    };
    b.go("/begin").await?;
    b.fill("name", "Nora Vale").await?;
    // What was typed is drawn before the next press: what moves under a press is not what is tested here.
    b.script("document.getElementById('name').blur()").await?;
    until("what was typed is drawn", async || {
        b.script("const f = document.getElementById('begin').dataset; return f.looked === f.asked")
            .await
            .is_ok_and(|v| v == true)
    })
    .await?;
    b.click("label:has(> input[name=units][value=us])").await?;
    b.says(".begin-plan", "oz").await?;
    let leaves = [
        ("bakes_in", "What you bake in"),
        ("has", "What you have"),
        ("hours", "Your hours"),
        ("likes", "What you like"),
    ];
    for (leaf, title) in leaves {
        b.click(&format!(".leaf-stop[value={leaf}]")).await?;
        b.says(".leaf-stop.here", title).await?;
        met(leaf).await?;
        if leaf == "bakes_in" {
            b.click("label:has(> input[name=bakes_in][value=home_steel])")
                .await?;
            b.says("h1", "Home oven, steel").await?;
            b.click("[data-dial='-5'], [data-dial='-10']").await?;
            met("the oven's dial").await?;
        }
        if leaf == "has" {
            b.click("label:has(> input[name=fridge][value=measured])")
                .await?;
            b.says(".begin-leaf", "It stands at").await?;
            met("the fridge's dial").await?;
        }
    }
    b.click(".leaf-stop[value=plan]").await?;
    b.says("h1", "Your first plan").await?;
    met("the first plan").await?;
    b.submit("#keep-plan").await?;
    let batch = b.path().await?;
    let rooms = ["", "/print", "/labels", "/mix", "/shape", "/rise", "/fire"];
    for room in rooms {
        b.go(&format!("{batch}{room}")).await?;
        met(room).await?;
    }
    // Read in °F, and read back so.
    b.go(&batch).await?;
    b.choose("subject", "ridge").await?;
    b.fill("degrees", "41").await?;
    b.submit("form[action$='/readings'] button").await?;
    b.says(".log", "41").await?;
    met("a reading").await?;
    b.go(&format!("{batch}/bake")).await?;
    b.click("#tap-in").await?;
    b.says("#place", "in at").await?;
    b.tap("#tap-out").await?;
    b.says("#last-small", "What do you see?").await?;
    b.click("#verdict button.mid").await?;
    b.says("#count", "1 of 1 right").await?;
    met("the bake").await?;
    for page in ["/bakes", "/fire"]
        .map(|r| format!("{batch}{r}"))
        .iter()
        .map(String::as_str)
        .chain([
            "/",
            "/dough/new",
            "/pantry",
            "/ledger",
            "/formulas",
            "/kitchen",
        ])
    {
        b.go(page).await?;
        met(page).await?;
    }
    b.close().await
}
