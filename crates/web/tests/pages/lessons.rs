//! Lessons over HTTP: what is said with one tap, what is refused, and a log that makes the next dose its own.

use crate::site::{Answer, Site, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;
use jiff::{SignedDuration, Timestamp};

const JSON: [(&str, &str); 1] = [("accept", "application/json")];

async fn tap(s: &Site, code: &str, what: &str, fields: &[(&str, &str)]) -> Result<Answer> {
    s.post_with(&format!("/batches/{code}/{what}"), &pairs(fields), &JSON)
        .await
}

/// A dough that is served in so many hours and was mixed as planned.
async fn mixed(s: &Site, in_h: i64) -> Result<String> {
    let (date, time) = s.local_in_hours(in_h);
    s.begun(&[("serve_date", &date), ("serve_time", &time)])
        .await
}

fn refused(a: &Answer, says: &str) {
    assert!(!a.status.is_success(), "{says}");
    let told = a.json()["refused"].to_string();
    assert!(told.contains(says), "{told} against {says}");
}

#[tokio::test]
async fn a_tap_is_kept_and_one_that_makes_no_sense_gets_its_sentence() -> Result<()> {
    let s = Site::open().await?;
    let planned = s.keep(&[]).await?;
    for (what, fields) in [("stood", &[("is", "right")][..]), ("ready", &[][..])] {
        refused(&tap(&s, &planned, what, fields).await?, "not mixed yet");
    }
    // Nothing is asked of a dough that is not there.
    let page = said(&s.get(&format!("/batches/{planned}")).await?.body);
    assert!(!page.contains("How does it open?"));

    let code = mixed(&s, 1).await?;
    let page = said(&s.get(&format!("/batches/{code}/shape")).await?.body);
    assert!(page.contains("How does it open?") && page.contains("Ready now"));
    refused(
        &tap(&s, &code, "stood", &[("is", "middling")]).await?,
        "one of the five",
    );
    for what in ["ready", "stood"] {
        let kept = tap(&s, &code, what, &[("is", "over")]).await?;
        assert_eq!(kept.status, StatusCode::OK, "{what}");
    }
    let page = said(&s.get(&format!("/batches/{code}/shape")).await?.body);
    assert!(
        page.contains("Opened ") && page.contains("ready at "),
        "{page}"
    );
    assert!(!page.contains("How does it open?") && !page.contains("Ready now"));

    // What excludes another, what was said before, what nobody knows, a pizza that never went in.
    assert_eq!(
        tap(&s, &code, "noticed", &[("what", "slack")])
            .await?
            .status,
        StatusCode::OK
    );
    for (fields, says) in [
        (&[("what", "tight")][..], "cannot both be"),
        (&[("what", "slack")][..], "was noticed already"),
        (&[("what", "haunted")][..], "what you noticed"),
        (
            &[("what", "wet_centre"), ("pizza", "4")][..],
            "No pizza of that number",
        ),
        (
            &[("what", "wet_centre"), ("pizza", "-1")][..],
            "No pizza of that number",
        ),
    ] {
        refused(&tap(&s, &code, "noticed", fields).await?, says);
    }
    // What was noticed of one pizza says nothing of another.
    for (n, kind, ago_s) in [
        ("1", "in", 300),
        ("1", "out", 220),
        ("2", "in", 200),
        ("2", "out", 120),
    ] {
        let at = (Timestamp::now() - SignedDuration::from_secs(ago_s)).to_string();
        let fields = [("kind", kind), ("pizza", n), ("at", &at)];
        assert_eq!(
            tap(&s, &code, "taps", &fields).await?.status,
            StatusCode::OK
        );
    }
    for (n, what) in [
        ("1", "pale_below"),
        ("2", "dark_below"),
        ("2", "wet_centre"),
        ("1", "wet_centre"),
    ] {
        let kept = tap(&s, &code, "noticed", &[("what", what), ("pizza", n)]).await?;
        assert_eq!(kept.status, StatusCode::OK, "{what} of {n}");
    }
    refused(
        &tap(
            &s,
            &code,
            "noticed",
            &[("what", "dark_below"), ("pizza", "1")],
        )
        .await?,
        "cannot both be",
    );
    refused(
        &tap(&s, &code, "lessons", &[("learn", "perhaps")]).await?,
        "whether it is to be learned from",
    );
    s.close().await
}

#[tokio::test]
async fn two_bakes_make_the_next_dose_ones_own_and_the_book_is_one_press_away() -> Result<()> {
    let s = Site::open().await?;
    let sheet = async || -> Result<String> { Ok(said(&s.get("/dough/new").await?.body)) };
    let taught = async || -> Result<String> { Ok(said(&s.get("/ledger/taught").await?.body)) };
    assert!(sheet().await?.contains("good to a factor of 1.6"));
    assert!(taught().await?.contains("Nothing was said yet"));

    let mut codes = vec![];
    for in_h in [1, 2] {
        let code = mixed(&s, in_h).await?;
        let stood = tap(&s, &code, "stood", &[("is", "much_over")]).await?;
        assert_eq!(stood.status, StatusCode::OK);
        codes.push(code);
        // One bake alone stays a proposal.
        let own = sheet().await?.contains("yours, from");
        assert_eq!(own, codes.len() == 2);
    }
    let page = sheet().await?;
    assert!(page.contains("yours, from 2 bakes, good to ×/÷"), "{page}");
    let page = taught().await?;
    assert!(
        page.contains("Two bakes") && page.contains("Use the book"),
        "{page}"
    );

    // The book, and back.
    let choose = async |what: &str| s.post("/ledger/taught", &pairs(&[("use", what)])).await;
    let neither = choose("neither").await?;
    assert_eq!(neither.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(choose("book").await?.status, StatusCode::SEE_OTHER);
    assert!(sheet().await?.contains("good to a factor of 1.6"));
    choose("yours").await?;
    assert!(sheet().await?.contains("yours, from 2 bakes"));

    // A batch that is not learned from, and again; a tap taken back.
    tap(&s, &codes[0], "lessons", &[("learn", "no")]).await?;
    assert!(taught().await?.contains("One bake"));
    assert!(sheet().await?.contains("good to a factor of 1.6"));
    tap(&s, &codes[0], "lessons", &[("learn", "yes")]).await?;
    assert!(sheet().await?.contains("yours, from 2 bakes"));
    s.close().await
}

/// From a word to the end of the sentence that holds another.
fn between(page: &str, from: &str, last: &str) -> String {
    let after = page.split_once(from).map_or("", |(_, rest)| rest);
    let Some((head, tail)) = after.split_once(last) else {
        return String::new();
    };
    let end = tail.split_once('.').map_or(tail, |(end, _)| end);
    [head, last, end].concat()
}

#[tokio::test]
async fn what_the_log_says_of_a_window_is_one_thing_on_every_page() -> Result<()> {
    let s = Site::open().await?;
    let page = async |path: &str| -> Result<String> { Ok(said(&s.get(path).await?.body)) };
    let band = async |path: &str| -> Result<String> {
        let all = page(path).await?;
        Ok(between(
            &all,
            "Becomes ready",
            "By the book this dough is ready",
        ))
    };
    assert_eq!(band("/dough/new").await?, "", "nothing was logged");
    for in_h in [1, 2] {
        let code = mixed(&s, in_h).await?;
        tap(&s, &code, "stood", &[("is", "much_over")]).await?;
    }
    assert!(band("/dough/new").await?.contains("From 2 bakes"));

    let code = s.keep(&[]).await?;
    let on_batch = band(&format!("/batches/{code}")).await?;
    let on_rise = band(&format!("/batches/{code}/rise")).await?;
    assert!(on_batch.contains("Ready and not past when it is served"));
    assert_eq!(on_batch, on_rise);
    // The Bench has the same chance and the same window of the book.
    let bench = page("/").await?;
    let met = between(&on_rise, "when it is served: ", "");
    assert!(bench.contains(&format!("ready {met}")), "{met}");
    let hours: Vec<&str> = on_rise
        .rsplit("By the book")
        .next()
        .unwrap_or("")
        .split(' ')
        .filter(|w| w.contains(':'))
        .collect();
    let [from, to] = hours[..] else {
        anyhow::bail!("no window of the book: {on_rise}")
    };
    assert!(
        bench.contains(&format!("by the book {from}–{to}")),
        "{from}, {to}"
    );
    let file = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    assert_eq!(file["worked_out"]["by_log"]["bakes"], 2);

    // What is over expects nothing.
    let code = mixed(&s, 1).await?;
    let path = format!("/batches/{code}");
    assert_ne!(band(&path).await?, "");
    let closed = s.post(&format!("{path}/finish"), "sure=1").await?;
    assert_eq!(closed.status, StatusCode::SEE_OTHER);
    assert_eq!(band(&path).await?, "");
    s.close().await
}
