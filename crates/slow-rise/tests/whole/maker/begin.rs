//! The first start in a browser: from an empty database to a plan that is started, with every tap counted, and to a bake; a
//! cook invited by a link, the tablet on the wall, and what stands of who did what.

use crate::maker::Bench;
use anyhow::{Context, Result};
use std::time::{Duration, Instant};

/// Taps and clicks of a first start, counted.
struct Newcomer<'b> {
    b: &'b Bench,
    taps: u32,
}

impl Newcomer<'_> {
    async fn tap(&mut self, css: &str) -> Result<()> {
        self.taps += 1;
        self.b.click(css).await
    }
    /// A choice whose input is drawn over: what a finger hits is the label.
    async fn choose(&mut self, name: &str, value: &str, then: (&str, &str)) -> Result<()> {
        self.taps += 1;
        self.b
            .click(&format!(
                "label:has(> input[name='{name}'][value='{value}'])"
            ))
            .await?;
        self.b.says(then.0, then.1).await
    }
}

const PASSWORD: &str = "seven slow loaves at dawn";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn from_an_empty_database_to_a_started_plan_in_few_taps_and_on_to_a_bake() -> Result<()> {
    let b = Bench::on_nothing(1280, 800, false).await?;
    let begun = Instant::now();
    let mut n = Newcomer { b: &b, taps: 0 };
    b.go("/").await?;
    b.says("h1", "three minutes").await?;
    b.fill("name", "Nora Vale").await?;
    n.taps += 1;
    n.choose("units", "metric", (".begin-plan", "of 270 g"))
        .await?;
    n.tap("#next-leaf").await?;
    b.says(".leaf-stop.here", "What you bake in").await?;
    n.choose("bakes_in", "home_stone", ("h1", "Home oven, stone"))
        .await?;
    n.tap("[data-dial='-5']").await?;
    b.says("h1", "at 270°").await?;
    n.tap("#next-leaf").await?;
    b.says(".leaf-stop.here", "What you have").await?;
    n.choose("scales", "fine", (".begin-plan", "Ready")).await?;
    n.choose("mixer", "planetary", (".begin-plan", "Ready"))
        .await?;
    n.choose("fridge", "measured", (".begin-leaf", "It stands at"))
        .await?;
    n.tap("[data-dial='-1']").await?;
    n.tap("#next-leaf").await?;
    b.says(".leaf-stop.here", "Your hours").await?;
    n.choose("works", "yes", (".begin-plan", "Ready")).await?;
    n.tap("#next-leaf").await?;
    b.says(".leaf-stop.here", "What you like").await?;
    n.taps += 1;
    b.click("label:has(> input[name='like.same_day_round'])")
        .await?;
    b.says(".begin-plan", "same-day round").await?;
    n.tap("#next-leaf").await?;
    b.says("h1", "Your first plan").await?;
    n.taps += 1;
    b.submit("#keep-plan").await?;
    let batch = b.path().await?;
    assert!(batch.starts_with("/batches/"), "{batch}");
    assert!(n.taps <= 25, "{} taps", n.taps);
    assert!(
        begun.elapsed() < Duration::from_secs(180),
        "{:?}",
        begun.elapsed()
    );
    // It stands on the Bench, its steps can be done, and it comes as far as its bake.
    b.says("main", "Home oven, stone").await?;
    b.go(&format!("{batch}/bake")).await?;
    b.says("body", "Same-day round").await?;
    b.go("/").await?;
    b.says("main", batch.trim_start_matches("/batches/"))
        .await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_italian_begins_and_bakes_with_a_comma() -> Result<()> {
    let b = Bench::on_nothing(1280, 800, false).await?;
    b.go("/begin").await?;
    b.fill("name", "Nora Vale").await?;
    // The choice turns the leaf at once, and all that follows.
    b.click("label:has(> input[name='language'][value='it'])")
        .await?;
    b.says(".leaf-stop.here", "Tu").await?;
    b.click("label:has(> input[name='units'][value='metric'])")
        .await?;
    b.click("#next-leaf").await?;
    b.says(".leaf-stop.here", "In che cosa cuoci").await?;
    b.click("label:has(> input[name='bakes_in'][value='home_steel'])")
        .await?;
    b.says("h1", "Forno di casa, acciaio").await?;
    b.click(".leaf-stop[value=plan]").await?;
    b.says("h1", "Il tuo primo piano").await?;
    b.says(".begin-plan", "Da pesare, in g").await?;
    b.submit("#keep-plan").await?;
    let batch = b.path().await?;
    b.says("main", "Pesa e impasta").await?;
    assert_eq!(
        b.script("return document.documentElement.lang").await?,
        "it"
    );
    // What is typed with a comma is kept, and read back with one.
    b.go("/dough/new").await?;
    b.says("h1", "di farina").await?;
    b.fill("hydration_percent", "63,5").await?;
    b.says(".ft", "63,5").await?;
    b.click("[data-for='hydration_percent'][data-step='0.5']")
        .await?;
    b.says(".ft", "64,0").await?;
    // The bake: tapped, judged, and told in Italian by the page's script.
    b.go(&format!("{batch}/bake")).await?;
    b.says("#place", "Tocca a Pizza 1").await?;
    b.click("#tap-in").await?;
    b.says("#place", "infornata alle").await?;
    b.says("#cue", "fra").await?;
    b.no_tap_is_fresh().await?;
    b.click("#tap-out").await?;
    b.says("#last-small", "Che cosa vedi?").await?;
    b.click("#verdict button.mid").await?;
    b.says("#count", "1 di 1 giuste").await?;
    b.go("/people").await?;
    b.says("main", "titolare").await?;
    // The longer words of it find room on the narrowest telephone.
    let phone = b.beside(320, 700).await?;
    let rooms = ["", "/mix", "/rise", "/shape", "/fire", "/bake"].map(|r| format!("{batch}{r}"));
    let others = [
        "/",
        "/dough/new",
        "/ledger",
        "/formulas",
        "/pantry",
        "/kitchen",
        "/people",
    ];
    for path in rooms.iter().map(String::as_str).chain(others) {
        phone.go(path).await?;
        let wide = phone
            .script("return document.documentElement.scrollWidth")
            .await?;
        assert_eq!(wide, 320, "{path}");
    }
    // Another language is one tap at the foot of every page.
    b.submit(".foot button[value=en]").await?;
    b.says("main", "owner").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_cook_and_a_tablet_come_and_who_did_what_stands_beside_it() -> Result<()> {
    let owner = Bench::on_nothing(1280, 800, true).await?;
    let batch = owner.begin("Nora Vale", PASSWORD).await?;
    // A cook by a link that is shown once; the tablet shows a code, and is in when the owner typed it.
    let cook = owner.with_cook("Rafi Oduya", PASSWORD).await?;
    let tablet = owner.with_tablet("Oven wall").await?;
    tablet.submit(".hands [aria-label='Rafi Oduya']").await?;
    tablet.says(".hands", "In the hands of Rafi Oduya").await?;
    // Both work on the run: what each did stands beside it.
    cook.go(&batch).await?;
    cook.fill("remark", "flour was cold").await?;
    cook.click("form[action$='/remarks'] button").await?;
    cook.says(".log", "flour was cold").await?;
    tablet.go(&batch).await?;
    tablet.fill("remark", "by the wall").await?;
    tablet.click("form[action$='/remarks'] button").await?;
    tablet.says(".log", "by the wall").await?;
    owner.go(&batch).await?;
    owner.says(".log", "Rafi Oduya").await?;
    // Who may tap may not plan: the page says so and loses nothing.
    cook.go("/dough/new").await?;
    let refused = cook.script("return fetch('/dough', {method: 'POST', body: new URLSearchParams()}).then((a) => a.status)").await?;
    assert_eq!(refused, 403);
    // A sign-in that ends while taps wait: they stay, and go on after it.
    owner.go("/people").await?;
    let out = "return fetch('/sign-out', {method: 'POST'}).then((a) => a.status)";
    cook.go(&batch).await?;
    cook.script(out).await?;
    cook.fill("remark", "typed too late").await?;
    cook.click("form[action$='/remarks'] button").await?;
    cook.says("#sign-in-again", "Sign in again").await?;
    cook.submit("#sign-in-again a").await?;
    cook.fill("name", "rafi oduya").await?;
    cook.fill("password", PASSWORD).await?;
    cook.submit(".entrance-form .btn.go").await?;
    cook.says(".log", "typed too late").await?;
    for b in [cook, tablet] {
        b.close_whatever_it_said().await?;
    }
    owner.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_people_bake_a_run_pizza_by_pizza_and_each_tap_says_whose_it_is() -> Result<()> {
    let owner = Bench::on_nothing(1280, 800, true).await?;
    let batch = owner.begin("Nora Vale", PASSWORD).await?;
    let cook = owner.with_cook("Rafi Oduya", PASSWORD).await?;
    let tablet = owner.with_tablet("Oven wall").await?;
    let pieces = "return (await (await fetch('/api/v1/batches')).json()).batches[0].pieces";
    let pieces = owner.script(pieces).await?;
    let pieces = pieces.as_u64().context("pieces")?;
    let bake = format!("{batch}/bake");
    cook.go(&bake).await?;
    tablet.go(&bake).await?;
    for pizza in 1..=pieces {
        // One puts it in, the other sees that and takes it out, the first judges it: no page is opened anew.
        cook.tap("#tap-in").await?;
        let is_in = format!("Pizza {pizza}");
        tablet.says("#place", &is_in).await?;
        tablet.says("#place", "in at").await?;
        tablet.tap("#tap-out").await?;
        cook.says("#last-head", &is_in).await?;
        // On a telephone what is right is one large button.
        cook.click("#verdict .right-one").await?;
        let judged = format!("{pizza} of {pizza} right");
        tablet.says("#count", &judged).await?;
    }
    owner.go(&format!("{batch}/bakes")).await?;
    owner.says("h1", &format!("of {pieces} out")).await?;
    let by = "return [...document.querySelectorAll('.bake-log tbody tr')].map((r) => r.lastElementChild.textContent)";
    let by: Vec<String> = serde_json::from_value(owner.script(by).await?)?;
    assert_eq!(by.len() as u64, pieces);
    for line in by {
        assert_eq!(line, "Rafi Oduya, Oven wall");
    }
    for b in [cook, tablet] {
        b.close().await?;
    }
    owner.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_leaves_fit_a_phone_and_a_narrow_one_and_a_us_kitchen_reads_no_grams() -> Result<()> {
    let b = Bench::on_nothing(390, 844, false).await?;
    b.go("/begin").await?;
    for leaf in ["you", "bakes_in", "has", "hours", "likes", "plan"] {
        b.script(&format!(
            "document.querySelector('.leaf-stop[value={leaf}]').click()"
        ))
        .await?;
        let here = format!(
            "return document.querySelector('[name=leaf]')?.value === '{leaf}' && document.readyState === 'complete'"
        );
        testbed::wait::until(leaf, async || {
            b.script(&here).await.is_ok_and(|v| v == true)
        })
        .await?;
        for width in [390, 320] {
            b.browser.resize(width, 844).await?;
            let over = "return document.documentElement.scrollWidth - innerWidth";
            let over = b.script(over).await?;
            assert!(
                over.as_i64().context("a number")? <= 0,
                "{leaf} at {width}: {over}"
            );
        }
    }
    // In °F and ounces from the first leaf to the batch.
    b.browser.resize(1280, 800).await?;
    b.script("document.querySelector('.leaf-stop[value=you]').click()")
        .await?;
    b.says("h1", "three minutes").await?;
    b.click("label:has(> input[name=units][value=us])").await?;
    b.says(".begin-plan", "oz").await?;
    b.script("document.querySelector('.leaf-stop[value=plan]').click()")
        .await?;
    b.says("h1", "Your first plan").await?;
    let text = b.text("main").await?;
    assert!(
        !text.contains("°C") && !text.contains(" g ") && !text.contains(" cm"),
        "{text}"
    );
    b.submit("#keep-plan").await?;
    let text = b.text("main").await?;
    assert!(text.contains("oz") && !text.contains("°C"), "{text}");
    b.close().await
}
