//! At the scale and at the boxes in a browser: twenty-four balls with three off, a press test, a box that goes back to the
//! fridge, take-out on the Bench, labels, two tablets of which one loses its line, a phone.

use crate::maker::Bench;
use anyhow::{Context, Result};
use testbed::wait::until;

/// Keeps a dough of so many balls of 255 g for tomorrow; returns its page.
async fn dough(b: &Bench, count: u32) -> Result<String> {
    let js = format!(
        "const at = new Date(Date.now() + 64 * 3600000).toISOString();
         const body = new URLSearchParams({{form_key: crypto.randomUUID(), style: 'hot_round', name: 'Bench trial', serve_date: at.slice(0, 10),
           serve_time: at.slice(11, 16), mode: 'balls', 'pieces.count': '{count}', 'pieces.ball_g': '255', 'flours[0].name': 'Flour W 300',
           'flours[0].share_percent': '100', 'flours[0].facts.w': '300', loss_percent: '1.5', hydration_percent: '62', salt_percent: '2.8',
           oil_percent: '0', sugar_percent: '0', 'yeast.form': 'instant', 'yeast.dose': 'solve', mixer: 'hand', room_c: '20', fridge_c: '4.5',
           target_dough_c: '23', flour_c: '20', tap_water_c: '10', bulk_h: '2', cold_h: '24', temper_h: '4'}});
         const a = await fetch('/dough', {{method: 'POST', body}});
         return new URL(a.url).pathname"
    );
    b.go("/").await?;
    let path = b.script(&js).await?;
    let path = path.as_str().context("a page")?.to_string();
    assert!(path.starts_with("/batches/BT-"), "{path}");
    Ok(path)
}

/// Types what the scale says and puts the piece into its box.
async fn piece(b: &Bench, g: u32, then: &str) -> Result<()> {
    let js = "return document.getElementById('shape').dataset.fresh === undefined";
    until("a moment after the last piece", async || {
        b.script(js).await.is_ok_and(|v| v == true)
    })
    .await?;
    b.fill("piece-g", &g.to_string()).await?;
    b.click("#into").await?;
    b.says("#shape-scale", then).await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn twenty_four_balls_with_three_of_them_off() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = dough(&b, 24).await?;
    // From the batch, by the step that divides it.
    b.go(&batch).await?;
    b.click("a[href$='/shape'].open-mix").await?;
    b.says("#shape-head", "24 × 255 g").await?;
    b.fill("whole-g", "6140").await?;
    b.click(".whole-row form[data-what='The whole dough'] button")
        .await?;
    b.says(".choices", "24 × 255 g: spread over all").await?;
    b.click(".choices .go").await?;
    b.says("h1", "Ball 1").await?;
    // What is off is said while it lies on the scale, before it goes anywhere.
    b.fill("piece-g", "261").await?;
    b.says("#off", "take off").await?;
    b.says("#off", "−6").await?;
    b.fill("piece-g", "257").await?;
    b.says("#off", "right").await?;
    for i in 1..=24_u32 {
        let g = match i {
            7 => 261,
            12 => 249,
            20 => 262,
            n => 254 + n % 3,
        };
        let then = match i {
            24 => "24 made".to_string(),
            n => format!("Ball {} of 24", n + 1),
        };
        let then = if i == 24 { "Take back ball 24" } else { &then };
        piece(&b, g, then).await?;
    }
    b.says(".tally-line", "24 made").await?;
    b.says(".tally-line", "3 are off").await?;
    let off = "return [...document.querySelectorAll('.dough-box')].map((d) => d.querySelectorAll('.off').length)";
    assert_eq!(b.script(off).await?, serde_json::json!([0, 2, 0, 1]));
    // Just balled it is tight.
    let opens = b.text(".open h3").await?;
    assert!(opens.contains("Not yet, with care from"), "{opens}");
    // The last one was wrong: it is taken back, and another one made.
    b.click("[data-back-piece] button").await?;
    b.says("#shape-scale", "Ball 24 of 24").await?;
    piece(&b, 255, "Take back ball 24").await?;
    // The plan's own step is told by the pieces.
    b.go(&batch).await?;
    let js = "return [...document.querySelectorAll('li[data-step]')].some((li) => li.querySelector(\"a[href$='/shape']\") && li.textContent.includes('Done'))";
    assert_eq!(b.script(js).await?, true);
    b.close().await
}

/// Only a second piece is a finger that tapped twice: a first piece right behind another tap counts.
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_piece_right_behind_another_tap_counts() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = dough(&b, 4).await?;
    b.go(&format!("{batch}/shape")).await?;
    // As soon as the page is there.
    let quick = "performance.now = () => 120;
                 document.getElementById('whole-g').value = '1024';
                 document.querySelector(\".whole-row form[data-what='The whole dough'] button\").click();
                 const g = document.getElementById('piece-g');
                 for (const of of ['256', '254']) { g.value = of; document.getElementById('into').click(); }";
    b.script(quick).await?;
    b.says("#shape-scale", "Ball 2 of 4").await?;
    b.says("#shape-scale", "weighed 1,024 g").await?;
    // The second of two at once stays where it was typed.
    let left = "return document.getElementById('piece-g').value";
    assert_eq!(b.script(left).await?, "254");
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_box_goes_back_to_the_fridge_and_out_again_from_the_bench() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let batch = b.batch("HR").await?;
    b.go(&format!("{batch}/shape")).await?;
    b.says("h1", "All boxes out of the cold").await?;
    // By the book it opens once it is warm; the finger says that it springs back, and the hour moves.
    b.says(".open h3", "Warm it first").await?;
    b.click(".press[value=springs]").await?;
    b.says(".open h3", "Not yet, with care from").await?;
    b.click("button[value=warm].huge").await?;
    b.says("#shape-scale", "Rise of box 1 now").await?;
    // The fourth is held back: it lies in the cold again, with an hour of its own.
    b.click(".box-col:nth-child(4) summary").await?;
    b.script(
        "const s = document.getElementById('to-4'); s.value = 'fridge'; s.form.requestSubmit()",
    )
    .await?;
    b.says(".box-col:nth-child(4)", "out").await?;
    b.says("h1", "Box 4 out of the cold").await?;
    let lies = b.text(".box-col:nth-child(1) .box-words").await?;
    assert!(lies.contains("room"), "{lies}");
    b.go("/").await?;
    b.says(".acts", "Take box 4 out · Halt round").await?;
    b.click(".acts form[action$='/shape'] button").await?;
    until("no box left to take out", async || {
        b.text(".acts")
            .await
            .is_ok_and(|t| !t.contains("Take box 4 out"))
    })
    .await?;
    // Each box has its label, and Bake takes the balls out of their boxes.
    b.go(&format!("{batch}/labels")).await?;
    let labels = b.text("#main").await?;
    assert!(
        labels.contains("box 4 of 4")
            && labels.contains("6 balls of 256 g")
            && labels.contains("no. 19 to 24")
    );
    b.go(&format!("{batch}/bake")).await?;
    b.says("#balls", "box 1").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn trays_are_stretched_with_their_rests_and_a_press_test_is_noted_for_the_flour() -> Result<()>
{
    let b = Bench::open(1280, 800).await?;
    let trays = b.batch("PT").await?;
    b.go(&format!("{trays}/shape")).await?;
    b.says(".box-col:nth-child(1)", "Oil: about 17 g").await?;
    b.click(".box-col:nth-child(1) button[value=oiled]").await?;
    b.says(".box-col:nth-child(1)", "Oiled.").await?;
    // A finger lies on the button while another bench enters something: the tap counts all the same.
    b.fill("piece-g", "780").await?;
    let told = "return Number(document.getElementById('shape').dataset.told ?? 0)";
    let before = b.script(told).await?;
    let into = b.find("#into").await?;
    let driver = &b.browser.driver;
    driver
        .action_chain()
        .click_and_hold_element(&into)
        .perform()
        .await?;
    let other = "const body = new URLSearchParams({entry_key: crypto.randomUUID(), act: 'tray', box: '2', did: 'oiled'});
                 const a = await fetch(location.pathname, {method: 'POST', body, headers: {accept: 'application/json'}});
                 const t = await fetch(location.pathname + '/now'); return (await t.json()).boxes.includes('Oiled')";
    assert_eq!(b.script(other).await?, true);
    until("the page to know of it", async || {
        b.script(told).await.is_ok_and(|v| v != before)
    })
    .await?;
    driver.action_chain().release().perform().await?;
    b.says("#shape-scale", "Tray 2 of 3").await?;
    b.says(".box-col:nth-child(2)", "Oiled.").await?;
    b.says(".box-col:nth-child(1)", "full").await?;
    b.click(".box-col:nth-child(1) button[value=stretched]")
        .await?;
    b.says(".box-col:nth-child(1)", "Rests under its lid: go on from")
        .await?;
    b.click(".box-col:nth-child(1) button[value=corners]")
        .await?;
    b.says(".box-col:nth-child(1)", "In its corners since")
        .await?;
    let halt = b.batch("HR").await?;
    b.go(&format!("{halt}/shape")).await?;
    b.click(".press[value=holds]").await?;
    b.says(".noted", "Note it for the flour").await?;
    b.click(".noted button[value=note]").await?;
    b.says(".noted", "noted").await?;
    b.click(".noted button[value=forget]").await?;
    b.says(".noted", "Note it for").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn pieces_without_a_line_count_at_once_and_arrive_later() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    let other = b.beside(1280, 800).await?;
    let batch = dough(&b, 6).await?;
    b.go(&format!("{batch}/shape")).await?;
    other.go(&format!("{batch}/shape")).await?;
    piece(&b, 255, "Ball 2 of 6").await?;
    other.says("#shape-scale", "Ball 2 of 6").await?;
    b.offline(true).await?;
    piece(&b, 254, "Ball 3 of 6").await?;
    piece(&b, 300, "Ball 4 of 6").await?;
    b.says("#connection", "in this browser").await?;
    b.click("#take-back").await?;
    b.says("#shape-scale", "Ball 3 of 6").await?;
    b.offline(false).await?;
    b.all_sent().await?;
    other.says("#shape-scale", "Ball 3 of 6").await?;
    other.says(".tally-line", "2 made").await?;
    other.close_whatever_it_said().await?;
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn the_scale_and_the_boxes_fit_a_phone_and_a_narrow_one() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    let fresh = dough(&b, 24).await?;
    for batch in [fresh, b.batch("HR").await?, b.batch("PT").await?] {
        for width in [390, 320] {
            b.browser.resize(width, 844).await?;
            b.go(&format!("{batch}/shape")).await?;
            let wide = b
                .script("return document.documentElement.scrollWidth")
                .await?;
            assert_eq!(wide, width, "{batch} at {width}");
            let small = b
                .script(
                    "document.querySelectorAll('details').forEach((d) => (d.open = true));
                     return [...document.querySelectorAll('main button, main a.btn, main input:not([type=hidden]):not([type=checkbox]), main select')]
                     .filter((e) => e.checkVisibility() && e.getBoundingClientRect().height < 44 && !e.closest('.value'))
                     .map((e) => e.outerHTML.slice(0, 80))",
                )
                .await?;
            assert_eq!(
                small,
                serde_json::json!([]),
                "targets of {batch} at {width}"
            );
            let wide = b
                .script("return document.documentElement.scrollWidth")
                .await?;
            assert_eq!(wide, width, "{batch} at {width}, all open");
        }
    }
    b.close().await
}
