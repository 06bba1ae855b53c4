//! Learning in a browser: taps where the work is, what was taught, the book one press away, and why a bake came out so.

use crate::maker::Bench;
use anyhow::Result;

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn one_tap_says_how_it_opened_and_another_what_was_noticed() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    let batch = b.batch("LR").await?;
    b.go(&format!("{batch}/bake")).await?;
    b.says("#opened", "How does it open?").await?;
    b.submit("#opened button[value=over]").await?;
    b.says("#opened", "Opened").await?;
    b.submit("#opened button[value=slack]").await?;
    b.says("#opened .chip.on[value=slack]", "slack").await?;
    // What excludes it is refused with its reason, and what was said stands.
    b.click("#opened button[value=tight]").await?;
    b.says("#held-back", "cannot both be").await?;
    b.go(&format!("{batch}/bake")).await?;
    b.says("#opened .chip.on[value=over]", "a little over")
        .await?;
    // Pressed again, it is taken back.
    b.submit("#opened .chip.on[value=slack]").await?;
    b.says("#opened", "Opened").await?;
    let on = b
        .script("return document.querySelectorAll('#opened .chip.on').length")
        .await?;
    assert_eq!(on, 1);
    let wide = b
        .script("return document.documentElement.scrollWidth <= innerWidth")
        .await?;
    assert_eq!(wide, true);
    b.close_whatever_it_said().await
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn what_was_taught_makes_the_dose_and_the_book_is_one_press_away() -> Result<()> {
    let b = Bench::open(1280, 800).await?;
    b.go("/ledger").await?;
    b.submit("a[href='/ledger/taught']").await?;
    b.says("h1", "Seven bakes").await?;
    b.says(".lessons", "fridge").await?;
    b.go("/dough/new").await?;
    b.says("#main", "yours, from 7 bakes, good to ×/÷").await?;
    b.go("/ledger/taught").await?;
    b.submit("button[name=use][value=book]").await?;
    b.says("button[name=use][aria-pressed=true]", "Use the book")
        .await?;
    b.go("/dough/new").await?;
    b.says("#main", "good to a factor of 1.6").await?;
    b.go("/ledger/taught").await?;
    b.submit("button[name=use][value=yours]").await?;

    // A cold floor is found, and nothing is called proven.
    b.go("/batches/HR-01/why").await?;
    b.says("h1", "it fits a floor").await?;
    b.says("h1", "Not proven").await?;
    b.says(".why-page", "Read the floor").await?;
    // Not learned from any more.
    b.submit("button[name=learn][value=no]").await?;
    b.says(".answer", "Learn from it again").await?;
    b.go("/ledger/taught").await?;
    b.says("h1", "Six bakes").await?;
    b.close().await
}
