//! Shape over HTTP: a dough on the scale, pieces that make sense and those that do not, boxes that leave the cold in rounds.

use crate::site::{Answer, Site, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;
use jiff::{SignedDuration, Timestamp};
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
    // A digit too many, one too few, and what is no piece of this dough.
    no(
        &[("act", "piece"), ("g", "2500")],
        "2,500 g for a piece of 250 g: was it 250 g?",
    )
    .await?;
    no(&[("act", "piece"), ("g", "25.2")], "was it 252 g?").await?;
    no(&[("act", "piece"), ("g", "990")], "no piece of 250 g").await?;
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
    assert_eq!(page.matches("spread over all").count(), 1);
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
    // All are out two hours too soon: those that wait long are sent back, by one tap.
    let others = (2..=10)
        .map(|n| n.to_string())
        .collect::<Vec<_>>()
        .join(",");
    let all = [("act", "moved"), ("box", others.as_str()), ("to", "warm")];
    let before = s.get(&format!("/batches/{code}/shape")).await?.body;
    assert!(!before.contains("Back into the cold until"));
    kept(&s, &code, &all).await?;
    let out = s.get(&format!("/batches/{code}/shape")).await?.body;
    assert!(out.contains("Back into the cold until"), "{}", said(&out));
    kept(
        &s,
        &code,
        &[
            ("act", "moved"),
            ("box", "2,3,4,5,6,7,8,9,10"),
            ("to", "cold"),
        ],
    )
    .await?;
    // Ten labels, each with its own hours.
    let labels = said(&s.get(&format!("/batches/{code}/labels")).await?.body);
    assert!(labels.contains("box 10 of 10") && labels.contains("no. 55 to 60"));
    assert_eq!(labels.matches("out of the cold").count(), 9);
    s.close().await
}

#[tokio::test]
async fn a_dough_to_the_gram_has_one_way_and_one_that_is_used_up_says_so() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/shape");
    kept(&s, &code, &[("act", "whole"), ("g", "1500")]).await?;
    // Six of 250 g: to spread it and to keep the weight are one and the same.
    let page = s.get(&path).await?.body;
    assert_eq!(
        page.matches("data-what=\"Divided\"").count(),
        1,
        "{}",
        said(&page)
    );
    for _ in 0..5 {
        kept(&s, &code, &[("act", "piece"), ("g", "300")]).await?;
    }
    let page = said(&s.get(&path).await?.body);
    assert!(
        page.contains("Nothing is left for the 1 to come."),
        "{page}"
    );
    assert!(page.contains("Nothing is left for the last 1"), "{page}");
    s.close().await
}

/// A flour of the pantry; returns its number.
async fn flour(s: &Site) -> Result<String> {
    let facts = [
        ("name", "Quernside strong"),
        ("kind", "wheat"),
        ("w", "300"),
        ("bags[0].left_g", "20000"),
        ("form_key", "0f1e2d3c-4b5a-6978-8796-a5b4c3d2e1f0"),
    ];
    let kept = s.post("/pantry/flours", &pairs(&facts)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let pantry = s.get("/pantry").await?.body;
    let id = pantry.split("/pantry/flours/").find_map(|rest| {
        let id = rest.split('"').next()?;
        id.parse::<u64>().ok().map(|_| id.to_string())
    });
    Ok(id.expect("the flour's number"))
}

#[tokio::test]
async fn a_press_test_is_noted_for_its_flour_when_pressed_and_counts_for_the_next_dough()
-> Result<()> {
    let s = Site::open().await?;
    let id = flour(&s).await?;
    let serve = s.local_in_hours(5);
    let changes = [
        ("serve_date", serve.0.as_str()),
        ("serve_time", serve.1.as_str()),
        ("flours[0].name", "Quernside strong"),
        ("flours[0].pantry", id.as_str()),
    ];
    let code = s.begun(&changes).await?;
    let path = format!("/batches/{code}/shape");
    let left = |page: &str| -> f64 {
        let field = page
            .split("name=\"bags[0].left_g\" value=\"")
            .nth(1)
            .unwrap();
        let text = field.split('"').next().unwrap().to_string();
        text.parse().unwrap_or_else(|e| panic!("{text}: {e}"))
    };
    assert!(!said(&s.get(&path).await?.body).contains("Note it for"));
    kept(
        &s,
        &code,
        &[("act", "pressed"), ("box", "1"), ("sign", "springs")],
    )
    .await?;
    let page = said(&s.get(&path).await?.body);
    assert!(page.contains("Note it for the flour"), "{page}");
    assert!(page.contains("relaxes"), "what it would change: {page}");
    // Shown is not noted: another dough of this flour goes by the book.
    let other = s.begun(&changes).await?;
    let there = format!("/batches/{other}/shape");
    assert!(!said(&s.get(&there).await?.body).contains("is noted"));
    // A third one is mixed now, and takes of the bag.
    let third = s.keep(&changes[2..]).await?;
    for word in ["begun", "finished"] {
        let step = format!("/batches/{third}/steps/0");
        s.post(&step, &pairs(&[("do", word)])).await?;
    }
    let before = s.get(&format!("/pantry/flours/{id}")).await?.body;
    for _ in 0..2 {
        let noted = s
            .post(&format!("{path}/flour"), &pairs(&[("act", "note")]))
            .await?;
        assert_eq!(noted.status, StatusCode::SEE_OTHER);
    }
    let page = said(&s.get(&there).await?.body);
    assert!(
        page.contains("Quernside strong: 1 press test is noted"),
        "{page}"
    );
    assert!(
        page.contains("This flour relaxes"),
        "it counts there: {page}"
    );
    // Noting leaves the stock as it was counted, and editing the flour keeps what was noted.
    let flour = s.get(&format!("/pantry/flours/{id}")).await?.body;
    assert!(left(&before) < 19_500.0, "a dough took of it");
    assert_eq!(left(&before), left(&flour));
    let revision = flour.split("name=\"revision\" value=\"").nth(1).unwrap();
    let left_g = left(&flour).to_string();
    let changed = [
        ("name", "Quernside strong"),
        ("kind", "wheat"),
        ("w", "300"),
        ("milling", "stone"),
        ("bags[0].left_g", left_g.as_str()),
        ("revision", revision.split('"').next().unwrap()),
    ];
    let changed = s
        .post(&format!("/pantry/flours/{id}"), &pairs(&changed))
        .await?;
    assert_eq!(
        changed.status,
        StatusCode::SEE_OTHER,
        "{}",
        changed.errors()
    );
    assert!(said(&s.get(&there).await?.body).contains("is noted"));
    let forgotten = s
        .post(&format!("{there}/flour"), &pairs(&[("act", "forget")]))
        .await?;
    assert_eq!(forgotten.status, StatusCode::SEE_OTHER);
    assert!(!said(&s.get(&there).await?.body).contains("noted"));
    s.close().await
}

#[tokio::test]
async fn what_stays_in_the_bowl_enters_the_formula_only_when_pressed() -> Result<()> {
    let s = Site::open().await?;
    let adds = [("loss_percent", "0.2")];
    let first = s.keep(&adds).await?;
    let none = s.post(&format!("/batches/{first}/shape/loss"), "").await?;
    assert!(none.status.is_client_error() && none.body.contains("nothing to keep"));
    for _ in 0..3 {
        let code = s.keep(&adds).await?;
        // 1503 g went in.
        kept(&s, &code, &[("act", "whole"), ("g", "1440")]).await?;
    }
    let code = s.keep(&adds).await?;
    let path = format!("/batches/{code}/shape");
    let page = said(&s.get(&path).await?.body);
    assert!(page.contains("by 3 that were weighed whole"), "{page}");
    assert!(page.contains("The formula adds 0.2 % for it."), "{page}");
    let key = Uuid::new_v4().to_string();
    let done = s
        .post(&format!("{path}/loss"), &pairs(&[("form_key", &key)]))
        .await?;
    assert_eq!(done.status, StatusCode::SEE_OTHER, "{}", done.body);
    let formula = done.header("location").to_string();
    let page = said(&s.get(&formula).await?.body);
    assert!(
        page.contains("stays in the bowl, as 3 doughs weighed whole say"),
        "{page}"
    );
    // What was planned with the old figure is not touched.
    let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    assert_eq!(json["asked"]["formula"]["loss_percent"], 0.2);
    // Sent twice it is one version.
    let again = s
        .post(&format!("{path}/loss"), &pairs(&[("form_key", &key)]))
        .await?;
    assert_eq!(again.header("location"), formula);
    s.close().await
}

const TRAYS: [(&str, &str); 6] = [
    ("mode", "pans"),
    ("pieces.pans[0].count", "2"),
    ("pieces.pans[0].shape", "rectangle"),
    ("pieces.pans[0].length_cm", "40"),
    ("pieces.pans[0].width_cm", "30"),
    ("pieces.pans[0].dough_g_per_cm2", "0.6"),
];

#[tokio::test]
async fn a_tray_is_oiled_and_stretched_with_rests_until_it_reaches_the_corners() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&TRAYS).await?;
    let path = format!("/batches/{code}/shape");
    // 1200 cm² under a film of 0.15 mm.
    assert!(said(&s.get(&path).await?.body).contains("Oil: about 17 g, floor and wall."));
    let tray = |n: &'static str, did: &'static str| [("act", "tray"), ("box", n), ("did", did)];
    refused(&s, &code, &tray("9", "oiled"), "no box 9").await?;
    refused(&s, &code, &tray("1", "danced"), "not a tap").await?;
    kept(&s, &code, &tray("1", "oiled")).await?;
    kept(&s, &code, &[("act", "piece"), ("g", "720")]).await?;
    kept(&s, &code, &[("act", "piece"), ("g", "721")]).await?;
    let a = tap(&s, &code, 16.0, &tray("1", "stretched")).await?;
    assert_eq!(a.status, StatusCode::OK, "{}", a.body);
    let page = said(&s.get(&path).await?.body);
    assert!(page.contains("Tray 1 has rested: stretch it on"), "{page}");
    kept(&s, &code, &tray("1", "stretched")).await?;
    let page = said(&s.get(&path).await?.body);
    assert!(page.contains("Rests under its lid: go on from"), "{page}");
    kept(&s, &code, &tray("1", "corners")).await?;
    let page = said(&s.get(&path).await?.body);
    assert!(page.contains("In its corners since"), "{page}");
    refused(&s, &code, &tray("1", "stretched"), "in its corners already").await?;
    // Balls have no tray.
    let balls = s.keep(&[]).await?;
    refused(&s, &balls, &tray("1", "oiled"), "there is no tray").await?;
    s.close().await
}

#[tokio::test]
async fn the_scale_says_what_it_reads_and_nothing_that_no_scale_reads() -> Result<()> {
    let s = Site::open().await?;
    let json = [("content-type", "application/json")];
    let reads = async |body: &str| s.post_with("/api/v1/scale", body, &json).await;
    assert_eq!(
        reads(r#"{"g": 254.5}"#).await?.status,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        reads(r#"{"g": -3, "still": false}"#).await?.status,
        StatusCode::NO_CONTENT
    );
    let heavy = reads(r#"{"g": 300001}"#).await?;
    assert_eq!(heavy.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(heavy.body.contains("up to 300,000 g"));
    for odd in [r#"{"g": "heavy"}"#, r#"{"g": 1, "tare": 2}"#, "{}"] {
        assert!(reads(odd).await?.status.is_client_error(), "{odd}");
    }
    let page = s.get("/scale").await?;
    assert_eq!(page.status, StatusCode::OK);
    s.close().await
}
