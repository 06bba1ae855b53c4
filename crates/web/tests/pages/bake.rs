//! A run over HTTP: what makes no sense, two tablets, a run left open, the caution, the stream that tells every tablet.

use crate::site::{Answer, Site, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;
use http_body_util::BodyExt;
use jiff::{SignedDuration, Timestamp};
use std::time::Duration;
use tower::ServiceExt;

const JSON: [(&str, &str); 1] = [("accept", "application/json")];

async fn tap(s: &Site, code: &str, kind: &str, pizza: u32, ago_s: i64) -> Result<Answer> {
    let at = (Timestamp::now() - SignedDuration::from_secs(ago_s)).to_string();
    let body = pairs(&[
        ("kind", kind),
        ("pizza", &pizza.to_string()),
        ("at", &at),
        ("verdict", "right/right"),
    ]);
    s.post_with(&format!("/batches/{code}/taps"), &body, &JSON)
        .await
}

#[tokio::test]
async fn taps_that_make_no_sense_get_a_sentence_and_the_run_as_it_is() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let refused = |a: Answer, says: &str| {
        assert_eq!(a.status, StatusCode::CONFLICT, "{says}");
        assert_eq!(a.json()["refused"], says);
    };
    refused(
        tap(&s, &code, "turned", 1, 300).await?,
        "No pizza is in the oven. Tap In first.",
    );
    refused(
        tap(&s, &code, "out", 1, 300).await?,
        "No pizza is in the oven. Tap In first.",
    );
    assert_eq!(tap(&s, &code, "in", 1, 200).await?.status, StatusCode::OK);
    // A clock that jumped back: before it went in.
    let early = tap(&s, &code, "turned", 1, 250).await?;
    assert_eq!(early.status, StatusCode::CONFLICT);
    refused(
        tap(&s, &code, "in", 2, 150).await?,
        "Pizza 1 is still in the oven. Tap Out first.",
    );
    assert_eq!(tap(&s, &code, "out", 1, 100).await?.status, StatusCode::OK);
    refused(
        tap(&s, &code, "out", 1, 90).await?,
        "Pizza 1 is already out.",
    );
    // Taken back by a slip, and ended again.
    let back = tap(&s, &code, "undone", 1, 80).await?.json();
    assert_eq!(
        (&back["inside"][0]["number"], &back["out"]),
        (&1.into(), &0.into())
    );
    assert_eq!(tap(&s, &code, "out", 1, 70).await?.json()["out"], 1);
    // A device that lives in another year, and says nothing of its clock.
    let old = tap(&s, &code, "in", 2, 3600 * 24 * 400).await?;
    assert_eq!(old.status, StatusCode::UNPROCESSABLE_ENTITY);
    let sentence = old.json()["refused"].to_string();
    assert!(
        sentence.contains("more than two weeks before"),
        "{sentence}"
    );
    refused(
        tap(&s, &code, "undone", 7, 60).await?,
        "There is nothing of pizza 7 to take back.",
    );
    s.close().await
}

#[tokio::test]
async fn without_a_script_a_refused_tap_leads_back_to_the_oven_and_a_bake_that_began_is_not_late()
-> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}");
    let refused = s
        .post(&format!("{path}/taps"), &pairs(&[("kind", "out")]))
        .await?;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(
        refused
            .body
            .contains(&format!("href=\"{path}/bake\">Back to {code}</a>"))
    );
    assert_eq!(tap(&s, &code, "in", 1, 60).await?.status, StatusCode::OK);
    for step in 0..6 {
        s.post(&format!("{path}/steps/{step}"), &pairs(&[("do", "done")]))
            .await?;
    }
    let page = s.get(&path).await?.body;
    assert!(
        page.contains("Now: bake, 0 of 6 out."),
        "no word of the run"
    );
    // What the oven model says is there without a script, too.
    assert_eq!(tap(&s, &code, "out", 1, 20).await?.status, StatusCode::OK);
    let judge = pairs(&[("kind", "verdict"), ("verdict", "pale/right")]);
    s.post(&format!("{path}/taps"), &judge).await?;
    let bake = s.get(&format!("{path}/bake")).await?.body;
    assert!(bake.contains("href=\"?whole=1\"") && !bake.contains("Next one"));
    s.close().await
}

#[tokio::test]
async fn two_people_end_the_same_pizza_and_it_is_out_once() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    tap(&s, &code, "in", 1, 120).await?;
    let (a, b) = tokio::join!(tap(&s, &code, "out", 1, 30), tap(&s, &code, "out", 1, 29));
    let (a, b) = (a?, b?);
    let mut both = [a.status, b.status];
    both.sort();
    assert_eq!(both, [StatusCode::OK, StatusCode::CONFLICT]);
    assert_eq!((&a.json()["out"], &b.json()["out"]), (&1.into(), &1.into()));
    s.close().await
}

#[tokio::test]
async fn a_run_left_open_over_night_is_ended_by_a_tap() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let bake = format!("/batches/{code}/bake");
    tap(&s, &code, "in", 1, 60).await?;
    assert!(!s.get(&bake).await?.body.contains("nobody took it out"));
    tap(&s, &code, "out", 1, 5).await?;
    let left = s.keep(&[("name", "Left open")]).await?;
    tap(&s, &left, "in", 1, 9 * 3600).await?;
    let page = s.get(&format!("/batches/{left}/bake")).await?;
    assert!(page.body.contains("nobody took it out"));
    // The page itself says the second at which it should have come out.
    let at = page
        .body
        .split("name=\"pizza\" value=\"1\"><input type=\"hidden\" name=\"at\" value=\"")
        .nth(1)
        .context("the planned second")?;
    let at = at.split('"').next().context("a moment")?;
    let out = s
        .post(
            &format!("/batches/{left}/taps"),
            &pairs(&[("kind", "out"), ("pizza", "1"), ("at", at)]),
        )
        .await?;
    assert_eq!(out.status, StatusCode::SEE_OTHER);
    let after = s.get(&format!("/batches/{left}/bake")).await?;
    assert!(!after.body.contains("nobody took it out"));
    let log = s.get(&format!("/batches/{left}/bakes")).await?;
    assert!(log.body.contains("as planned") && log.body.contains("not judged"));
    s.close().await
}

#[tokio::test]
async fn the_grave_caution_is_asked_once_for_a_run() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let bake = format!("/batches/{code}/bake");
    let page = s.get(&bake).await?;
    assert!(page.body.contains("id=\"grave\"") && page.body.contains("Carbon monoxide"));
    assert!(
        page.body
            .contains("Your oven&#39;s manual and local fire, gas and food codes decide.")
    );
    let read = s
        .post(
            &format!("/batches/{code}/fire/caution"),
            &pairs(&[("back", "bake")]),
        )
        .await?;
    assert_eq!(read.header("location"), bake);
    let page = s.get(&bake).await?;
    assert!(!page.body.contains("id=\"grave\""));
    assert!(page.body.contains("Carbon monoxide"), "it stays at hand");
    s.close().await
}

/// Reads the stream until an event of the run comes.
async fn event(body: &mut axum::body::Body) -> Result<serde_json::Value> {
    let mut text = String::new();
    loop {
        let frame = tokio::time::timeout(Duration::from_secs(20), body.frame())
            .await?
            .context("the stream goes on")??;
        if let Ok(bytes) = frame.into_data() {
            text.push_str(&String::from_utf8_lossy(&bytes));
        }
        if let Some(at) = text.find("data: ")
            && text[at..].contains("\n\n")
        {
            let line = text[at + 6..].lines().next().context("a line")?;
            return Ok(serde_json::from_str(line)?);
        }
    }
}

#[tokio::test]
async fn every_tablet_is_told_what_another_tapped() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let request = axum::http::Request::get(format!("/batches/{code}/run"))
        .header("host", "localhost")
        .body(axum::body::Body::empty())?;
    let answer = s.router.clone().oneshot(request).await?;
    assert_eq!(answer.headers()["content-type"], "text/event-stream");
    let mut stream = answer.into_body();
    assert_eq!(event(&mut stream).await?["next_number"], 1);
    tap(&s, &code, "in", 1, 3).await?;
    let told = event(&mut stream).await?;
    assert_eq!(
        (&told["next_number"], &told["inside"][0]["number"]),
        (&2.into(), &1.into())
    );
    tap(&s, &code, "out", 1, 1).await?;
    assert_eq!(event(&mut stream).await?["out"], 1);
    drop(stream);
    assert_eq!(
        s.get("/batches/ZZ-99/run").await?.status,
        StatusCode::NOT_FOUND
    );
    s.close().await
}

#[tokio::test]
async fn the_log_tells_each_pizza_and_the_ledger_the_run() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let log = format!("/batches/{code}/bakes");
    assert!(s.get(&log).await?.body.contains("Nothing is out yet."));
    s.post(
        &format!("/batches/{code}/fire/reading"),
        &pairs(&[("degrees", "415")]),
    )
    .await?;
    for (kind, n, ago) in [
        ("in", 1, 400),
        ("turned", 1, 370),
        ("out", 1, 315),
        ("verdict", 1, 310),
        ("in", 2, 200),
        ("out", 2, 110),
    ] {
        tap(&s, &code, kind, n, ago).await?;
    }
    let page = s.get(&log).await?;
    for said in [
        "2 of 6 out",
        "1 of 1 right",
        "0:30",
        "1:25",
        "1:30",
        "not judged",
        "one every 3:20",
    ] {
        assert!(page.body.contains(said), "{said}");
    }
    s.post(&format!("/batches/{code}/finish"), "sure=1").await?;
    // Closed, nothing of it is to come.
    let closed = s.get(&format!("/batches/{code}/bake")).await?.body;
    assert!(closed.contains("This run is closed.") && closed.contains("2 of 6 out"));
    for to_come in ["of 6 is next", "Last one out"] {
        assert!(!closed.contains(to_come), "{to_come}");
    }
    let beside = s.get(&format!("/batches/{code}/bake/beside")).await?.json();
    assert!(
        beside["balls"]
            .as_str()
            .unwrap()
            .contains("The run is closed.")
    );
    assert!(!beside["notes"].as_str().unwrap().contains("Last one out"));
    let ledger = s.get("/ledger").await?;
    assert!(ledger.body.contains(&code) && ledger.body.contains(&format!("/batches/{code}/bakes")));
    s.close().await
}

#[tokio::test]
async fn of_two_devices_on_one_pizza_the_earlier_in_stands_and_every_screen_says_so() -> Result<()>
{
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let request = axum::http::Request::get(format!("/batches/{code}/run"))
        .header("host", "localhost")
        .body(axum::body::Body::empty())?;
    let mut stream = s.router.clone().oneshot(request).await?.into_body();
    assert_eq!(tap(&s, &code, "in", 1, 30).await?.status, StatusCode::OK);
    // It was in the oven ten seconds before, by a device that had no line.
    let earlier = tap(&s, &code, "in", 1, 40).await?;
    assert_eq!(earlier.status, StatusCode::OK);
    let inside = earlier.json()["inside"][0]["in_ms"]
        .as_i64()
        .context("a moment")?;
    let ago = Timestamp::now().as_millisecond() - inside;
    assert!((39_000..45_000).contains(&ago), "{ago}");
    let mut text = String::new();
    while !text.contains("event: said") || !text.contains(" stands, not ") {
        let frame = tokio::time::timeout(Duration::from_secs(20), stream.frame())
            .await?
            .context("the stream goes on")??;
        if let Ok(bytes) = frame.into_data() {
            text.push_str(&String::from_utf8_lossy(&bytes));
        }
    }
    assert!(text.contains("Two devices put in pizza 1:"), "{text}");
    // A whole bake that was over before that is no second In of this pizza: the device is told, and takes the next number.
    let at = (Timestamp::now() - SignedDuration::from_secs(200)).to_string();
    let whole = pairs(&[
        ("kind", "in"),
        ("pizza", "1"),
        ("at", &at),
        ("baked_ms", "80000"),
    ]);
    let other = s
        .post_with(&format!("/batches/{code}/taps"), &whole, &JSON)
        .await?;
    assert_eq!(other.status, StatusCode::CONFLICT);
    assert_eq!(other.json()["next_number"], 2);
    // The later one of a third device is refused, and said as well.
    assert_eq!(
        tap(&s, &code, "in", 1, 20).await?.status,
        StatusCode::CONFLICT
    );
    s.close().await
}
