//! The pages and the API over HTTP, without a browser: what is refused, what is kept, what is written once.

use crate::site;
use crate::site::{Site, form, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;
use craft::units::{TemperatureUnit, WeightUnit};

#[tokio::test]
async fn every_page_opens_and_obeys_the_policy() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    for path in [
        "/",
        "/dough/new",
        "/dough/new?style=home_round",
        "/dough/new?style=wet_tray",
        "/ledger",
        "/words",
        &format!("/batches/{code}"),
        &format!("/batches/{code}/bake"),
    ] {
        let page = s.get(path).await?;
        assert_eq!(page.status, StatusCode::OK, "{path}");
        assert!(
            page.header("content-security-policy")
                .contains("default-src 'self'"),
            "{path}"
        );
        // The policy forbids both: they would silently do nothing.
        for forbidden in [" style=\"", " onclick=", "<script>"] {
            assert!(!page.body.contains(forbidden), "{path} holds {forbidden}");
        }
    }
    s.close().await
}

#[tokio::test]
async fn an_empty_kitchen_says_what_to_do() -> Result<()> {
    let s = Site::open().await?;
    let bench = s.get("/").await?;
    assert!(
        bench.body.contains("The bench is clear.") && bench.body.contains("When do you serve?")
    );
    assert!(
        s.get("/ledger")
            .await?
            .body
            .contains("Two bakes of one dough make the first comparison.")
    );
    assert_eq!(s.get("/bake").await?.header("location"), "/");
    s.close().await
}

#[tokio::test]
async fn bad_input_gets_its_sentence_keeps_what_was_typed_and_writes_nothing() -> Result<()> {
    let s = Site::open().await?;
    let cases = [
        (
            "hydration_percent",
            "340",
            "Water 40 to 130 %; 340 % is outside.",
        ),
        ("salt_percent", "-1", "Salt 0 to 5 %; -1 % is outside."),
        ("pieces.count", "0", "Balls 1 to 1000; 0 is outside."),
        (
            "pieces.count",
            "2.5",
            "Balls must be a whole number, such as 6.",
        ),
        (
            "pieces.ball_g",
            "heavy",
            "Each must be a number, such as 64.5 or 64,5.",
        ),
        ("oil_percent", "", "Oil is missing."),
        ("name", "", "A name is missing."),
        (
            "name",
            &"x".repeat(120),
            "A name holds up to 80 letters; this has 120.",
        ),
        ("serve_date", "2020-01-01", "Serve within a year from now."),
        ("serve_time", "soon", "Say when you serve"),
        ("style", "calzone", "Choose a style."),
        ("mixer", "spoon", "Choose how you mix."),
        ("bulk_h", "nan", "Bulk must be a number"),
    ];
    for (field, value, sentence) in cases {
        let page = s.post("/dough", &form(&s, &[(field, value)])).await?;
        assert_eq!(
            page.status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{field}={value}"
        );
        assert!(
            page.body.contains(sentence),
            "{field}={value}: no «{sentence}»"
        );
        // What a choice does not offer cannot stay chosen; all that is typed stays.
        if field != "style" && field != "mixer" {
            assert!(
                page.body.contains(&format!("value=\"{value}\"")),
                "{field}={value} is not kept"
            );
        }
        assert!(
            page.body.contains("value=\"Trial &#60;b&#62;\"") || field == "name",
            "the name is kept beside {field}"
        );
    }
    assert_eq!(s.batches().await?, 0);
    s.close().await
}

#[tokio::test]
async fn a_serve_time_in_the_past_or_too_near_is_said_at_its_field() -> Result<()> {
    let s = Site::open().await?;
    let yesterday = s.local_in_hours(-24);
    let page = s
        .post(
            "/dough",
            &form(
                &s,
                &[("serve_date", &yesterday.0), ("serve_time", &yesterday.1)],
            ),
        )
        .await?;
    assert!(
        page.body.contains("is past; it is now"),
        "{}",
        page.errors()
    );
    let soon = s.local_in_hours(1);
    let page = s
        .post(
            "/dough",
            &form(&s, &[("serve_date", &soon.0), ("serve_time", &soon.1)]),
        )
        .await?;
    assert!(
        page.body.contains("Too near for any yeast"),
        "{}",
        page.errors()
    );
    let late = s.local_in_hours(12);
    let page = s
        .post(
            "/dough",
            &form(&s, &[("serve_date", &late.0), ("serve_time", &late.1)]),
        )
        .await?;
    assert!(
        page.body.contains("Work would have had to begin"),
        "{}",
        page.errors()
    );
    assert_eq!(s.batches().await?, 0);
    s.close().await
}

#[tokio::test]
async fn a_decimal_comma_is_read_and_two_saves_of_one_form_are_one_batch() -> Result<()> {
    let s = Site::open().await?;
    let body = form(&s, &[("hydration_percent", "64,5")]);
    let (first, second) = tokio::join!(s.post("/dough", &body), s.post("/dough", &body));
    let (first, second) = (first?, second?);
    assert_eq!(first.status, StatusCode::SEE_OTHER, "{}", first.errors());
    assert_eq!(first.header("location"), second.header("location"));
    assert_eq!(
        s.post("/dough", &body).await?.header("location"),
        first.header("location")
    );
    assert_eq!(s.batches().await?, 1);
    let page = s.get(first.header("location")).await?;
    assert!(page.body.contains(">64.5<"), "the sheet shows 64.5 %");
    assert!(page.body.contains("Trial &#60;b&#62;") && !page.body.contains("Trial <b>"));
    s.close().await
}

#[tokio::test]
async fn a_preview_answers_with_figures_or_with_sentences() -> Result<()> {
    let s = Site::open().await?;
    let good: serde_json::Value =
        serde_json::from_str(&s.post("/dough/preview", &form(&s, &[])).await?.body)?;
    assert!(good["figures"].as_str().unwrap().contains("Instant yeast"));
    assert_eq!(good["errors"].as_array().unwrap().len(), 0);
    let bad: serde_json::Value = serde_json::from_str(
        &s.post("/dough/preview", &form(&s, &[("salt_percent", "9")]))
            .await?
            .body,
    )?;
    assert!(bad["figures"].is_null());
    assert_eq!(bad["errors"][0]["field"], "salt_percent");
    s.close().await
}

#[tokio::test]
async fn a_remedy_sets_its_field_without_javascript() -> Result<()> {
    let s = Site::open().await?;
    let mut body = form(&s, &[("sugar_percent", "2")]);
    let page = s.post("/dough/look", &body).await?;
    assert!(
        page.body.contains("value=\"sugar_percent=0\""),
        "the remedy is offered"
    );
    body.push_str("&set=sugar_percent%3D0");
    let page = s.post("/dough/look", &body).await?;
    assert!(!page.body.contains("value=\"sugar_percent=0\""));
    assert!(page.body.contains("name=\"sugar_percent\" value=\"0\""));
    assert_eq!(s.batches().await?, 0);
    s.close().await
}

#[tokio::test]
async fn what_is_not_there_is_a_page_with_a_way_on() -> Result<()> {
    let s = Site::open().await?;
    for path in [
        "/batches/ZZ-99",
        "/batches/%3Cscript%3E",
        "/batches/ZZ-99/bake",
        "/batches/ZZ-99/batch.json",
        "/nowhere",
    ] {
        let page = s.get(path).await?;
        assert_eq!(page.status, StatusCode::NOT_FOUND, "{path}");
        assert!(
            page.body.contains("Back to the Bench") && page.body.contains("reference"),
            "{path}"
        );
        assert!(!page.body.contains("<script>"));
    }
    let page = s.get("/batches/ZZ-99/taps").await?;
    assert_eq!(page.status, StatusCode::METHOD_NOT_ALLOWED);
    assert!(page.body.contains("Not from here"));
    s.close().await
}

#[tokio::test]
async fn ten_megabytes_and_foreign_pages_are_refused_with_a_page() -> Result<()> {
    let s = Site::open().await?;
    let big = format!("name={}", "x".repeat(10 * 1024 * 1024));
    for path in ["/dough", "/dough/preview", "/api/v1/reckon/formula"] {
        let page = s.post(path, &big).await?;
        assert_eq!(page.status, StatusCode::PAYLOAD_TOO_LARGE, "{path}");
        assert!(page.body.contains("256 kB"), "{path}: {}", page.body);
    }
    let page = s
        .post_with(
            "/dough",
            &form(&s, &[]),
            &[("origin", "http://elsewhere.example")],
        )
        .await?;
    assert_eq!(page.status, StatusCode::FORBIDDEN);
    let page = s
        .post_with(
            "/dough",
            &form(&s, &[]),
            &[("sec-fetch-site", "cross-site")],
        )
        .await?;
    assert_eq!(page.status, StatusCode::FORBIDDEN);
    assert_eq!(s.batches().await?, 0);
    let own = s
        .post_with(
            "/dough",
            &form(&s, &[]),
            &[
                ("origin", "http://127.0.0.1:8080"),
                ("host", "127.0.0.1:8080"),
            ],
        )
        .await?;
    assert_eq!(own.status, StatusCode::SEE_OTHER);
    s.close().await
}

#[tokio::test]
async fn with_the_database_away_the_entries_come_back_to_be_sent_again() -> Result<()> {
    let away = web::router(store::Db::at("mysql://nobody:x@127.0.0.1:1/none")?);
    let page = site::ask(
        &away,
        "POST",
        "/dough",
        "name=Friday+%22round%22&count=6&form_key=k",
        &[],
    )
    .await?;
    assert_eq!(page.status, StatusCode::SERVICE_UNAVAILABLE);
    for kept in [
        "name=\"name\" value=\"Friday &#34;round&#34;\"",
        "name=\"count\" value=\"6\"",
        "action=\"/dough\"",
        "Send it again",
    ] {
        assert!(page.body.contains(kept), "no {kept}");
    }
    let page = site::ask(&away, "GET", "/", "", &[]).await?;
    assert_eq!(page.status, StatusCode::SERVICE_UNAVAILABLE);
    assert!(page.body.contains("The records are out of reach") && !page.body.contains("nobody"));
    assert_eq!(
        site::ask(&away, "GET", "/words", "", &[]).await?.status,
        StatusCode::OK
    );
    Ok(())
}

#[tokio::test]
async fn the_lamp_is_remembered_and_leads_back_only_to_own_pages() -> Result<()> {
    let s = Site::open().await?;
    let page = s
        .post("/lamp", &pairs(&[("theme", "night"), ("back", "/ledger")]))
        .await?;
    assert_eq!(page.header("location"), "/ledger");
    assert!(page.header("set-cookie").starts_with("theme=night"));
    let page = s
        .get_with("/", &[("cookie", "other=1; theme=night")])
        .await?;
    assert!(page.body.contains("data-theme=\"night\""));
    assert_eq!(
        s.post("/lamp", "theme=day&back=//elsewhere")
            .await?
            .header("location"),
        "/"
    );
    s.close().await
}

#[tokio::test]
async fn assets_are_kept_for_ever_under_their_tag() -> Result<()> {
    let s = Site::open().await?;
    let page = s.get("/words").await?;
    let address = page
        .body
        .split('"')
        .find(|p| p.ends_with("css/app.css"))
        .unwrap()
        .to_string();
    let css = s.get(&address).await?;
    assert!(css.header("cache-control").contains("immutable"));
    assert_eq!(
        s.get("/assets/old/css/app.css")
            .await?
            .header("cache-control"),
        "no-cache"
    );
    assert_eq!(
        s.get("/assets/old/none.css").await?.status,
        StatusCode::NOT_FOUND
    );
    s.close().await
}

#[tokio::test]
async fn a_kitchen_of_ounces_and_fahrenheit_reads_and_writes_its_own_units() -> Result<()> {
    let s = Site::reading_in(TemperatureUnit::Fahrenheit, WeightUnit::Ounces).await?;
    let page = s.get("/dough/new").await?;
    assert!(
        page.body.contains("name=\"pieces.ball_g\" value=\"8.82\"")
            && page.body.contains("name=\"room_c\" value=\"67.1\"")
    );
    let typed = [
        ("pieces.ball_g", "9"),
        ("room_c", "68"),
        ("fridge_c", "40"),
        ("target_dough_c", "73.4"),
        ("flour_c", "68"),
        ("tap_water_c", "50"),
    ];
    let code = s.keep(&typed).await?;
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let kept = |field: &str| taken["asked"][field].as_f64().unwrap();
    assert!(
        (taken["asked"]["formula"]["pieces"]["ball_g"]
            .as_f64()
            .unwrap()
            - 255.146)
            .abs()
            < 0.001
    );
    assert!((kept("room_c") - 20.0).abs() < 1e-9 && (kept("tap_water_c") - 10.0).abs() < 1e-9);
    let page = s.get(&format!("/batches/{code}")).await?;
    assert!(page.body.contains("<span class=\"u\">°F</span>"));
    s.post(
        &format!("/batches/{code}/readings"),
        "subject=dough&degrees=74",
    )
    .await?;
    assert!(
        s.get(&format!("/batches/{code}"))
            .await?
            .body
            .contains("74.0°")
    );
    let page = s
        .post(
            &format!("/batches/{code}/readings"),
            "subject=dough&degrees=24",
        )
        .await?;
    assert_eq!(
        page.status,
        StatusCode::SEE_OTHER,
        "24 °F is a frozen dough, and can be"
    );
    let page = s.post("/dough", &form(&s, &[("room_c", "20")])).await?;
    assert!(
        page.body
            .contains("Room 28.4 to 107.6 °F; 20 °F is outside."),
        "{}",
        page.errors()
    );
    s.close().await
}

/// What stands between the frame's head and foot.
fn main_part(page: &str) -> String {
    let main = page.split("<main id=\"main\">").nth(1).unwrap_or(page);
    said(main.split("</main>").next().unwrap_or(main)).replace(" | ", "\n")
}

/// A change of these pages' words is seen here as one.
#[tokio::test]
async fn pages_that_hang_on_nothing_say_what_they_said() -> Result<()> {
    let s = Site::open().await?;
    insta::assert_snapshot!("words", main_part(&s.get("/words").await?.body));
    insta::assert_snapshot!("empty_ledger", main_part(&s.get("/ledger").await?.body));
    insta::assert_snapshot!("paste", main_part(&s.get("/formulas/paste").await?.body));
    s.close().await
}
