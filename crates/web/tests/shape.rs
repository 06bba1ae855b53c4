//! Shape over HTTP: a dough on the scale, pieces that make sense and those that do not, boxes that leave the cold in rounds.

mod site;

use anyhow::Result;
use axum::http::StatusCode;
use jiff::{SignedDuration, Timestamp};
use site::{Answer, Site, pairs, said};
use uuid::Uuid;

/// A tap of so many minutes ago, sent as a script sends it.
async fn tap(s: &Site, code: &str, ago_min: f64, fields: &[(&str, &str)]) -> Result<Answer> {
    let at = (Timestamp::now() - SignedDuration::from_secs_f64(60.0 * ago_min)).to_string();
    let key = Uuid::new_v4().to_string();
    let mut all = vec![("at", at.as_str()), ("entry_key", key.as_str())];
    all.extend_from_slice(fields);
    let script = [("accept", "application/json")];
    s.post_with(&format!("/batches/{code}/shape"), &pairs(&all), &script)
        .await
}

async fn kept(s: &Site, code: &str, fields: &[(&str, &str)]) -> Result<()> {
    let a = tap(s, code, 0.0, fields).await?;
    assert_eq!(a.status, StatusCode::OK, "{fields:?}: {}", a.body);
    Ok(())
}

async fn refused(s: &Site, code: &str, fields: &[(&str, &str)], says: &str) -> Result<()> {
    let a = tap(s, code, 0.0, fields).await?;
    let status = a.status.as_u16();
    assert!(status == 409 || status == 422, "{fields:?}: {status}");
    assert!(a.body.contains(says), "{fields:?}: {}", a.body);
    Ok(())
}

#[tokio::test]
async fn what_makes_no_sense_at_the_scale_is_refused_in_words() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[("pieces.count", "4")]).await?;
    let no = async |fields: &[(&str, &str)], says: &str| refused(&s, &code, fields, says).await;
    no(&[("act", "whole"), ("g", "20")], "50 to").await?;
    no(
        &[("act", "whole"), ("g", "heavy")],
        "Type what the scale says",
    )
    .await?;
    no(&[("act", "piece"), ("g", "2")], "5 to").await?;
    no(
        &[("act", "piece"), ("g", "NaN")],
        "Type what the scale says",
    )
    .await?;
    no(
        &[("act", "divided"), ("count", "5000"), ("ball_g", "250")],
        "1 to 2000",
    )
    .await?;
    no(
        &[("act", "divided"), ("count", "2.5"), ("ball_g", "250")],
        "how many",
    )
    .await?;
    no(&[("act", "boxed"), ("kind", "0:99")], "not a tap").await?;
    no(
        &[("act", "pressed"), ("box", "9"), ("sign", "holds")],
        "no box 9",
    )
    .await?;
    no(
        &[("act", "pressed"), ("box", "1"), ("sign", "sings")],
        "not a tap",
    )
    .await?;
    no(
        &[("act", "moved"), ("box", "1"), ("to", "own:99")],
        "not a tap",
    )
    .await?;
    no(&[("act", "dance")], "not a tap").await?;
    no(&[("act", "whole"), ("g", "400")], "Is this all of it?").await?;
    no(
        &[("act", "whole"), ("g", "1300")],
        "was the tub on the scale?",
    )
    .await?;
    kept(&s, &code, &[("act", "whole"), ("g", "1000")]).await?;
    for _ in 0..3 {
        kept(&s, &code, &[("act", "piece"), ("g", "250")]).await?;
    }
    no(
        &[("act", "piece"), ("g", "400")],
        "more than the whole: 250 g are left",
    )
    .await?;
    no(&[("act", "whole"), ("g", "620")], "more than the whole").await?;
    kept(&s, &code, &[("act", "piece"), ("g", "250")]).await?;
    no(&[("act", "piece"), ("g", "10")], "All 4 pieces are made").await?;
    no(
        &[("act", "divided"), ("count", "3"), ("ball_g", "250")],
        "4 pieces are made already",
    )
    .await?;
    kept(
        &s,
        &code,
        &[("act", "moved"), ("box", "1"), ("to", "freezer")],
    )
    .await?;
    no(
        &[("act", "pressed"), ("box", "1"), ("sign", "holds")],
        "frozen",
    )
    .await?;
    no(
        &[("act", "moved"), ("box", "1"), ("to", "freezer")],
        "there already",
    )
    .await?;
    s.close().await
}

#[tokio::test]
async fn a_key_sent_twice_is_one_piece_and_a_wrong_number_keeps_what_was_typed() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/shape");
    let key = Uuid::new_v4().to_string();
    let once = pairs(&[("act", "piece"), ("g", "251"), ("entry_key", &key)]);
    for _ in 0..2 {
        let a = s.post(&path, &once).await?;
        assert_eq!(a.status, StatusCode::SEE_OTHER, "{}", a.errors());
    }
    let page = s.get(&path).await?.body;
    assert!(said(&page).contains("Ball 2 of 6"));
    // Without a script: the page comes back with the number and the sentence beside it.
    let wrong = pairs(&[
        ("act", "piece"),
        ("g", "99999"),
        ("entry_key", &Uuid::new_v4().to_string()),
    ]);
    let a = s.post(&path, &wrong).await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(a.body.contains("value=\"99999\"") && a.body.contains("6,000 g"));
    // So do the pieces that it is to be divided into.
    let wrong = pairs(&[("act", "divided"), ("count", "5000"), ("ball_g", "251.5")]);
    let a = s.post(&path, &wrong).await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(a.body.contains("value=\"5000\"") && a.body.contains("value=\"251.5\""));
    // A piece is taken back, and the plan's own step follows the pieces.
    let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let all = json["observations"].as_array().unwrap();
    let piece = all.iter().find(|e| e["act"] == "piece").unwrap();
    let entry = piece["entry"].as_str().unwrap();
    let back = s
        .post(&format!("/batches/{code}/entries/{entry}/back"), "")
        .await?;
    assert_eq!(back.status, StatusCode::SEE_OTHER);
    assert!(said(&s.get(&path).await?.body).contains("Ball 1 of 6"));
    s.close().await
}

#[tokio::test]
async fn a_dough_that_is_short_is_divided_otherwise_and_bake_counts_what_there_is() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/shape");
    kept(&s, &code, &[("act", "whole"), ("g", "1380")]).await?;
    let page = said(&s.get(&path).await?.body);
    // 1380 g of 1523: five whole ones and the rest for bread, or six smaller ones.
    assert!(page.contains("5 × 250 g, 130 g left"), "{page}");
    assert!(page.contains("6 × 230 g: spread over all"));
    assert!(page.contains("stayed on bowl and hands"));
    kept(
        &s,
        &code,
        &[("act", "divided"), ("count", "5"), ("ball_g", "250")],
    )
    .await?;
    for g in ["250", "251", "249", "250", "256"] {
        kept(&s, &code, &[("act", "piece"), ("g", g)]).await?;
    }
    let page = said(&s.get(&path).await?.body);
    assert!(
        page.contains("5 made, spread ± 2.8 g. One is off."),
        "{page}"
    );
    let bake = said(&s.get(&format!("/batches/{code}/bake")).await?.body);
    assert!(
        bake.contains("Pizza 1 of 5"),
        "Bake counts the five that there are"
    );
    let ledgered = s.get(&format!("/batches/{code}")).await?.body;
    assert!(said(&ledgered).contains("Whole dough on the scale: 1,380 g"));
    s.close().await
}

#[tokio::test]
async fn sixty_balls_leave_the_cold_in_rounds_on_the_bench() -> Result<()> {
    let s = Site::open().await?;
    let serve = s.local_in_hours(5);
    let changes = [
        ("serve_date", serve.0.as_str()),
        ("serve_time", serve.1.as_str()),
        ("pieces.count", "60"),
    ];
    let code = s.begun(&changes).await?;
    kept(
        &s,
        &code,
        &[("act", "pressed"), ("box", "1"), ("sign", "holds")],
    )
    .await?;
    let bench = said(&s.get("/").await?.body);
    assert!(bench.contains("Take box 1 out"), "{bench}");
    let shape = said(&s.get(&format!("/batches/{code}/shape")).await?.body);
    assert!(
        shape.contains("Each box meets its first ball at rise 100"),
        "{shape}"
    );
    assert!(shape.contains("All out at once, as planned: box 10 ends at 1"));
    // One is taken out: the others stay, each with its own hour.
    kept(&s, &code, &[("act", "moved"), ("box", "1"), ("to", "warm")]).await?;
    let bench = said(&s.get("/").await?.body);
    assert!(
        !bench.contains("Take box 1 out") && bench.contains("Take box"),
        "{bench}"
    );
    let now = s.get(&format!("/batches/{code}/shape/now")).await?.json();
    let boxes = now["boxes"].as_str().unwrap();
    assert_eq!(boxes.matches("Out: Room").count(), 9);
    // Ten labels, each with its own hours.
    let labels = said(&s.get(&format!("/batches/{code}/labels")).await?.body);
    assert!(labels.contains("box 10 of 10") && labels.contains("no. 55 to 60"));
    assert_eq!(labels.matches("Out of the cold").count(), 9);
    s.close().await
}
