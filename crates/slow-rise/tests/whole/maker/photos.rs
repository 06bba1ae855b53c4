//! Photos in a browser: a large one is made small before it is sent, one of fifty megabytes and one that is none are said, one that finds no
//! line waits and comes by itself.

use crate::maker::Bench;
use anyhow::Result;
use testbed::wait::until;

/// Chooses a file for a side, as a camera's picker does: `made` is JavaScript that gives a Blob.
async fn choose(b: &Bench, of: &str, made: &str) -> Result<()> {
    b.script(&format!(
        "const blob = await (async () => {{ {made} }})();
         const files = new DataTransfer();
         files.items.add(new File([blob], 'IMG_1.jpg', {{ type: blob.type }}));
         const input = document.querySelector('#photo-form input[data-of={of}]');
         input.files = files.files;
         input.dispatchEvent(new Event('change', {{ bubbles: true }}));"
    ))
    .await?;
    Ok(())
}

/// A photo as a phone takes it: twelve megapixels, and noisy enough to be large.
const PHOTO: &str = "const c = new OffscreenCanvas(4000, 3000), on = c.getContext('2d');
    for (let i = 0; i < 9000; i += 1) {
      on.fillStyle = `hsl(${(i * 37) % 60} 70% ${(i * 53) % 90}%)`;
      on.fillRect((i * 7919) % 4000, (i * 104729) % 3000, 60, 50);
    }
    return c.convertToBlob({ type: 'image/jpeg', quality: 0.95 });";

const SHOWN: &str = "return [...document.querySelectorAll('#photo-rows img')].map((i) => i.complete && i.naturalWidth)";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_crumb_is_photographed_in_one_tap_and_comes_when_the_line_does() -> Result<()> {
    let b = Bench::open(390, 844).await?;
    let batch = b.batch("HR").await?;
    b.go(&format!("{batch}/bakes")).await?;
    b.says("#photo-rows", "None yet").await?;
    choose(&b, "crumb", PHOTO).await?;
    until("the photo to be shown", async || {
        b.script(SHOWN)
            .await
            .is_ok_and(|v| v == serde_json::json!([320]))
    })
    .await?;
    let whole = "const a = await fetch(document.querySelector('#photo-rows a').href);
        const blob = await a.blob(); const p = await createImageBitmap(blob);
        return [p.width, p.height, blob.size < 600000]";
    assert_eq!(b.script(whole).await?, serde_json::json!([1280, 960, true]));
    // What is none, and what no phone should open.
    choose(
        &b,
        "rim",
        "return new Blob(['a list'], { type: 'image/jpeg' })",
    )
    .await?;
    b.says("#photo-error", "cannot be read as a photo").await?;
    choose(
        &b,
        "rim",
        "return new Blob([new Uint8Array(50e6)], { type: 'image/jpeg' })",
    )
    .await?;
    b.says("#photo-error", "This file has 50 MB").await?;
    // No line: it waits in this browser, through a page that is closed meanwhile, and comes when the line does.
    b.offline(true).await?;
    choose(&b, "rim", PHOTO).await?;
    b.says("#photo-says", "waits in this browser").await?;
    b.says("#held-back", "Photo: Rim").await?;
    b.browser.driver.goto("about:blank").await?;
    b.offline(false).await?;
    b.go(&format!("{batch}/bakes")).await?;
    until("both to be shown", async || {
        b.script("return document.querySelectorAll('#photo-rows img').length")
            .await
            .is_ok_and(|v| v == 2)
    })
    .await?;
    let wide = "return document.documentElement.scrollWidth <= innerWidth";
    b.browser.resize(320, 700).await?;
    assert_eq!(b.script(wide).await?, true);
    // The line was away: the browser says so in its console.
    b.close_whatever_it_said().await
}
