//! Photos over HTTP: kept small with what they show, never needed, refused with a sentence that leaves the form as it was.

use crate::site::{Answer, Site, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;
use image::{ImageFormat, Rgb, RgbImage};
use std::io::Cursor;

const JSON: [(&str, &str); 1] = [("accept", "application/json")];
const KEY: &str = "6f1c1d52-7a63-4d0b-9d6b-1f5c9f0b7a11";

/// A crumb of a sort, as a browser would send it.
fn crumb(shade: u8) -> Vec<u8> {
    let drawn = RgbImage::from_fn(640, 480, |x, y| Rgb([shade, (x / 8) as u8, (y / 8) as u8]));
    let mut out = Cursor::new(Vec::new());
    drawn.write_to(&mut out, ImageFormat::Jpeg).unwrap();
    out.into_inner()
}

async fn send(s: &Site, code: &str, fields: &[(&str, &str)], file: &[u8]) -> Result<Answer> {
    let path = format!("/batches/{code}/photos");
    s.upload_with(&path, fields, file, &JSON).await
}

/// Addresses of the small photos of a batch, as its bake log shows them.
async fn shown(s: &Site, code: &str) -> Result<Vec<String>> {
    let page = s.get(&format!("/batches/{code}/bakes")).await?.body;
    let of = format!("src=\"/batches/{code}/photos/");
    let at = page.match_indices(&of).map(|(i, _)| i + 5);
    Ok(at
        .map(|i| page[i..].split('"').next().unwrap_or_default().to_string())
        .collect())
}

#[tokio::test]
async fn a_photo_is_kept_once_shown_small_and_taken_back() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let of_crumb = [("entry_key", KEY), ("pizza", "2"), ("of", "crumb")];
    for word in ["now", "before"] {
        let kept = send(&s, &code, &of_crumb, &crumb(200)).await?;
        assert_eq!(kept.status, StatusCode::OK, "{}", kept.body);
        assert_eq!(kept.json()["kept"], word);
    }
    // Another under the same key is told, not passed over.
    let other = [("entry_key", KEY), ("pizza", "3"), ("of", "base")];
    let other = send(&s, &code, &other, &crumb(90)).await?;
    assert_eq!(other.status, StatusCode::CONFLICT);
    let all = shown(&s, &code).await?;
    assert_eq!(all.len(), 1);
    for (path, width) in [(all[0].clone(), 320), (all[0].replace("?small=1", ""), 640)] {
        let got = s.get(&path).await?;
        assert_eq!(got.header("content-type"), "image/jpeg", "{path}");
        assert!(got.header("cache-control").starts_with("private"));
        let picture = image::load_from_memory(&got.bytes).context("a picture")?;
        assert_eq!(picture.width(), width, "{path}");
    }
    // A later one of the same side stands in its place; the batch may be in the ledger already.
    s.post(&format!("/batches/{code}/finish"), "").await?;
    let later = [("pizza", "2"), ("of", "crumb")];
    assert_eq!(
        send(&s, &code, &later, &crumb(30)).await?.status,
        StatusCode::OK
    );
    let now = shown(&s, &code).await?;
    assert_eq!(now.len(), 1);
    assert_ne!(now, all);
    // Taken back, the former one counts again.
    let entry = now[0].split(['/', '?']).nth(4).context("its key")?;
    let back = format!("/batches/{code}/entries/{entry}/back");
    s.post(&back, &pairs(&[("back", "/")])).await?;
    assert_eq!(shown(&s, &code).await?, all);
    // Another batch shows none of it, and its address leads nowhere there.
    let elsewhere = s.keep(&[]).await?;
    let strange = all[0].replace(&code, &elsewhere);
    assert_eq!(s.get(&strange).await?.status, StatusCode::NOT_FOUND);
    s.close().await
}

#[tokio::test]
async fn what_cannot_be_kept_is_said_beside_the_field() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let good = crumb(120);
    let of = |pizza: &'static str, of: &'static str| [("pizza", pizza), ("of", of)];
    let noise = vec![7u8; 250_000];
    for (fields, file, says) in [
        (of("1", "rim"), &b""[..], "Choose a photo first"),
        (
            of("1", "rim"),
            b"a shopping list",
            "cannot be read as a photo",
        ),
        (of("1", "rim"), &good[..30], "cannot be read as a photo"),
        (of("1", "ear"), &good, "base, rim or crumb"),
        (of("0", "rim"), &good, "which pizza"),
        (of("4000", "rim"), &good, "which pizza"),
        (of("1", "rim"), &noise, "may be sent with 240 kB"),
    ] {
        let refused = send(&s, &code, &fields, file).await?;
        assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY, "{says}");
        assert!(refused.body.contains(says), "{says}: {}", refused.body);
    }
    // Without a script the page comes back with its sentence, and with what was chosen.
    let path = format!("/batches/{code}/photos");
    let page = s
        .upload_with(&path, &of("3", "crumb"), b"no picture", &[])
        .await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.body.contains("cannot be read as a photo"));
    assert!(page.body.contains("value=\"3\" selected"));
    assert!(page.body.contains("value=\"crumb\" selected"));
    let kept = s.upload_with(&path, &of("3", "crumb"), &good, &[]).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER);
    // Fifty megabytes are listened to, dropped, and answered.
    let huge = vec![0u8; 50_000_000];
    let answer = s.upload_with(&path, &of("3", "rim"), &huge, &[]).await?;
    assert_eq!(answer.status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(answer.body.contains("may have 240 kB"), "{}", answer.body);
    assert_eq!(shown(&s, &code).await?.len(), 1);
    s.close().await
}
