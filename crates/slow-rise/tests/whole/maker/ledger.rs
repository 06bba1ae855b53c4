//! The ledger in a browser: bakes written down later, a log that makes the next dose its own, a warm fridge found, an entry set
//! aside, a trial from its design to its answer, and a case to practise on.

use crate::maker::Bench;
use anyhow::Result;
use serde_json::json;
use testbed::wait::until;

/// Pastes a table from a spreadsheet into the first cell of the grid.
async fn paste(b: &Bench, lines: &[String]) -> Result<()> {
    let text = json!(lines.join("\n"));
    b.script(&format!(
        "const d = new DataTransfer(); d.setData('text/plain', {text});
         document.querySelector('.late-grid input').dispatchEvent(new ClipboardEvent('paste', {{ clipboardData: d, bubbles: true, cancelable: true }}));"
    ))
    .await?;
    Ok(())
}

/// A day so many days ago, as a grid has it.
fn days_ago(n: i64) -> String {
    let now = jiff::Timestamp::now() - jiff::SignedDuration::from_hours(24 * n);
    now.to_zoned(jiff::tz::TimeZone::UTC).date().to_string()
}

/// The share of yeast that a new dough of the first style asks for, as its page says it.
async fn dose(b: &Bench) -> Result<String> {
    b.go("/dough/new").await?;
    let of = "return document.querySelector('.solved-value').textContent.trim()";
    Ok(b.script(of).await?.as_str().unwrap_or_default().to_string())
}

async fn kitchen() -> Result<Bench> {
    let b = Bench::on_nothing(1280, 800, false).await?;
    b.go("/").await?;
    b.fill("name", "Nora Vale").await?;
    b.click("label:has(> input[name='units'][value='metric'])")
        .await?;
    b.says(".begin-plan", " g").await?;
    b.click(".leaf-stop[value=plan]").await?;
    b.says("h1", "Your first plan").await?;
    b.submit("#keep-plan").await?;
    Ok(b)
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn five_bakes_with_one_tap_each_make_the_sixth_dose_ones_own() -> Result<()> {
    let b = kitchen().await?;
    let book = dose(&b).await?;
    b.go("/ledger/late").await?;
    // Five days; all else is as in the line above.
    let line = |i: i64| match i {
        0 => format!("{}\t19:00\tLean round\t6", days_ago(40)),
        i => days_ago(40 - 7 * i),
    };
    paste(&b, &(0..5).map(line).collect::<Vec<_>>()).await?;
    b.submit("button[name=as][value=grid]").await?;
    b.says("h1", "Five bakes").await?;
    for n in 1..=5 {
        b.go(&format!("/batches/LR-{n:02}/why")).await?;
        b.submit("#opened button[value=over]").await?;
        b.says("#opened .chip.on", "a little over").await?;
    }
    let own = dose(&b).await?;
    assert_ne!(own, book);
    b.says("#main", "yours, from 5 bakes, good to ×/÷").await?;
    b.go("/ledger/taught").await?;
    b.says("h1", "Five bakes").await?;
    // The book is one press away.
    b.submit("button[name=use][value=book]").await?;
    assert_eq!(dose(&b).await?, book);
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn twelve_bakes_are_typed_by_the_keys_alone() -> Result<()> {
    let b = kitchen().await?;
    b.go("/ledger/late").await?;
    // As hands would: the first line whole, then a day and how it opened.
    for i in 0..12usize {
        let mut cells = vec![("date", days_ago(90 - 7 * i as i64))];
        if i == 0 {
            cells.push(("formula", "Lean round".into()));
            cells.push(("pieces", "6".into()));
        }
        for (column, text) in cells {
            let name = format!("late[{i}].{column}");
            if column == "date" {
                // A date's own keys differ by the language of the browser: its value is what they make.
                b.script(&format!(
                    "const f = document.querySelector('[name=\"{name}\"]'); f.focus(); f.value = '{text}'; f.dispatchEvent(new Event('input', {{ bubbles: true }}))"
                ))
                .await?;
            } else {
                b.find(&format!("[name=\"{name}\"]"))
                    .await?
                    .send_keys(&text)
                    .await?;
            }
        }
        // The first letters of the answer choose it.
        b.find(&format!("[name=\"late[{i}].stood\"]"))
            .await?
            .send_keys(if i % 3 == 0 { "right" } else { "a little o" })
            .await?;
    }
    // A reload takes nothing away; what was kept does not come back.
    let typed = "return [...document.querySelectorAll('.late-grid input[type=date]')].filter((f) => f.value).length";
    b.go("/ledger").await?;
    b.go("/ledger/late").await?;
    assert_eq!(b.script(typed).await?, 12);
    b.submit("button[name=as][value=grid]").await?;
    b.says("h1", "Twelve bakes").await?;
    b.says("#kept", "12 bakes are kept").await?;
    b.go("/ledger/late").await?;
    assert_eq!(b.script(typed).await?, 0);
    b.go("/ledger?q=LR-05").await?;
    b.says(".lt", "LR-05").await?;
    // On a phone the grid is a list of cards, no wider than the screen.
    b.browser.resize(320, 700).await?;
    for path in ["/ledger", "/ledger/late", "/trials/new", "/practice"] {
        b.go(path).await?;
        let wide = "return document.documentElement.scrollWidth <= innerWidth";
        assert_eq!(b.script(wide).await?, true, "{path}");
    }
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_warm_fridge_is_found_and_a_wrong_entry_set_aside() -> Result<()> {
    let b = kitchen().await?;
    b.go("/ledger/late").await?;
    // Seven that agree, one slip of the finger, and one whose fridge stood warm.
    let line = |i: i64| {
        let stood = if i == 4 {
            "much under"
        } else {
            "a little over"
        };
        let day = days_ago(80 - 7 * i);
        match i {
            0 => format!("{day}\t19:00\tLean round\t6\t\t44\t23\t5\t{stood}"),
            8 => format!("{day}\t\t\t\t\t\t23\t9,5\tmuch over"),
            _ => format!("{day}\t\t\t\t\t\t23\t5\t{stood}"),
        }
    };
    paste(&b, &(0..9).map(line).collect::<Vec<_>>()).await?;
    b.submit("button[name=as][value=grid]").await?;
    b.says("h1", "Nine bakes").await?;
    b.go("/ledger/taught").await?;
    b.says(".aside-row", "LR-05").await?;
    b.go("/batches/LR-09/why").await?;
    b.says("h1", "fridge").await?;
    b.says(".why-page", "fits").await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_trial_goes_from_two_bakes_to_an_answer() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/ledger").await?;
    for code in ["HR-03", "HR-04"] {
        b.click(&format!("input[name=b][value={code}]")).await?;
    }
    b.submit("button[form=beside]").await?;
    b.says("h1", "one difference: cold").await?;
    b.submit(".answer .btn.go").await?;
    b.says(".trial-new", "HR-03 (24 h), HR-04 (44 h)").await?;
    b.fill("tasters", "7").await?;
    b.submit(".trial-new .btn.go").await?;
    b.says("h1", "nobody has tasted yet").await?;
    let trial = b.path().await?;
    for taster in 1..=7 {
        b.go(&format!("{trial}/taste?taster={taster}")).await?;
        // Changed once, and a score that is taken back: what was tapped last counts.
        b.click(".like button:nth-of-type(2)").await?;
        b.click(".like button:nth-of-type(1)").await?;
        b.click(".plate-sheet .scale .chip").await?;
        b.click(".plate-sheet .scale .chip").await?;
        b.all_sent().await?;
        let on = b.script("return [...document.querySelectorAll('[aria-pressed=true]')].map(x => x.textContent.trim())").await?;
        assert_eq!(on, json!(["A"]), "{taster}");
    }
    // It comes back as it was said.
    b.go(&format!("{trial}/taste?taster=3")).await?;
    b.says(".like .chip.on", "A").await?;
    b.go(&trial).await?;
    b.says("h1", "is liked better").await?;
    b.says(".found.shown", "7 of 7 like").await?;
    // The next one is planned with its values.
    b.submit("section.nip a.btn").await?;
    until("its values", async || {
        b.value("values").await.is_ok_and(|v| v.contains(';'))
    })
    .await?;
    b.close().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_case_is_answered_and_never_comes_again() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    for level in 1..=3 {
        let mut stories = vec![];
        for _ in 0..2 {
            b.go(&format!("/practice?level={level}")).await?;
            stories.push(b.text(".story").await?);
            b.submit("button.choice").await?;
            b.says(".answers", "the models’ answer").await?;
        }
        assert_ne!(stories[0], stories[1]);
        b.says(".levels .on", "of 2").await?;
    }
    b.close().await
}
