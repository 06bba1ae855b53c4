//! The pages and the API over HTTP, without a browser: what is refused, what is kept, what is written once.

mod site;

use anyhow::Result;
use axum::http::StatusCode;
use craft::units::{TemperatureUnit, WeightUnit};
use site::{Site, form, pairs};

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
        "/about",
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
            "Water 40 to 130 %; 340 is outside.",
        ),
        ("salt_percent", "-1", "Salt 0 to 5 %; -1 is outside."),
        ("count", "0", "Balls 1 to 1000; 0 is outside."),
        ("count", "2.5", "Balls must be a whole number, such as 6."),
        (
            "ball_g",
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
        if field != "style" && field != "mixer" {
            assert!(
                page.body.contains(sentence),
                "{field}={value}: no «{sentence}»"
            );
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
        page.body.contains("Mixing would have had to begin"),
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
    let away = web::router(store::pool("mysql://nobody:x@127.0.0.1:1/none")?);
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
        site::ask(&away, "GET", "/about", "", &[]).await?.status,
        StatusCode::OK
    );
    Ok(())
}

#[tokio::test]
async fn steps_readings_and_remarks_are_kept_on_the_batch() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let at = |p: &str| format!("/batches/{code}{p}");
    assert_eq!(
        s.post(&at("/steps/0"), &pairs(&[("do", "done")]))
            .await?
            .status,
        StatusCode::SEE_OTHER
    );
    let page = s.get(&at("")).await?;
    assert!(page.body.contains("mixed, resting"), "the dough is mixed");
    s.post(&at("/steps/0"), &pairs(&[("do", "undo")])).await?;
    assert!(s.get(&at("")).await?.body.contains(", planned"));
    assert_eq!(
        s.post(&at("/steps/99"), "do=done").await?.status,
        StatusCode::UNPROCESSABLE_ENTITY
    );

    s.post(
        &at("/readings"),
        &pairs(&[("subject", "dough"), ("degrees", "23,6")]),
    )
    .await?;
    s.post(
        &at("/remarks"),
        &pairs(&[("remark", "Sticky <i>today</i>")]),
    )
    .await?;
    let page = s.get(&at("")).await?;
    assert!(page.body.contains("23.6°") && page.body.contains("Sticky &#60;i&#62;today"));

    for (degrees, sentence) in [
        ("75", "If you read 75 °F, that is 23.9 °C."),
        ("warm", "must be a number"),
        ("", "is missing"),
    ] {
        let page = s
            .post(
                &at("/readings"),
                &pairs(&[("subject", "dough"), ("degrees", degrees)]),
            )
            .await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.body.contains(sentence), "{degrees}");
        assert!(
            page.body
                .contains(&format!("name=\"degrees\" value=\"{degrees}\"")),
            "{degrees} is kept"
        );
    }
    let long = "x".repeat(2001);
    let page = s
        .post(&at("/remarks"), &pairs(&[("remark", &long)]))
        .await?;
    assert!(page.body.contains("this has 2001") && page.body.contains(&long));
    s.close().await
}

#[tokio::test]
async fn taps_are_kept_once_and_refused_when_they_make_no_sense() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/taps");
    let json = [("accept", "application/json")];
    let tap = |kind: &'static str, key: &'static str| pairs(&[("kind", kind), ("entry_key", key)]);
    let first = "11111111-1111-4111-8111-111111111111";
    let page = s
        .post_with(
            &path,
            &tap("turned", "00000000-0000-4000-8000-000000000000"),
            &json,
        )
        .await?;
    assert_eq!(page.status, StatusCode::CONFLICT);
    assert_eq!(
        page.json()["refused"],
        "No pizza is in the oven. Tap In first."
    );
    for _ in 0..3 {
        let page = s.post_with(&path, &tap("in", first), &json).await?;
        assert_eq!(
            (page.status, &page.json()["current"]["number"]),
            (StatusCode::OK, &serde_json::json!(1))
        );
    }
    let again = s
        .post_with(
            &path,
            &tap("in", "22222222-2222-4222-8222-222222222222"),
            &json,
        )
        .await?;
    assert_eq!(
        again.json()["refused"],
        "Pizza 1 is still in the oven. Tap Out first."
    );
    let shut = s.post(&format!("/batches/{code}/finish"), "").await?;
    assert_eq!(shut.status, StatusCode::UNPROCESSABLE_ENTITY);
    s.post(&path, &tap("out", "33333333-3333-4333-8333-333333333333"))
        .await?;
    let verdict = pairs(&[
        ("kind", "verdict"),
        ("verdict", "pale/dark"),
        ("pizza", "1"),
    ]);
    let page = s.post_with(&path, &verdict, &json).await?.json();
    assert_eq!(
        (&page["out"], &page["last"]["verdict"]),
        (&serde_json::json!(1), &serde_json::json!("pale/dark"))
    );
    assert_eq!(
        s.post(&format!("/batches/{code}/finish"), "")
            .await?
            .header("location"),
        "/ledger"
    );
    let ledger = s.get("/ledger").await?;
    assert!(ledger.body.contains(&code) && ledger.body.contains("1 with base pale and top dark"));
    assert!(s.get("/").await?.body.contains("The bench is clear."));
    s.close().await
}

#[tokio::test]
async fn a_batch_is_taken_away_as_json_and_as_a_calendar() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    s.post(
        &format!("/batches/{code}/readings"),
        "subject=fridge&degrees=4.4",
    )
    .await?;
    let page = s.get(&format!("/batches/{code}/batch.json")).await?;
    assert_eq!(
        page.header("content-disposition"),
        format!("attachment; filename=\"{code}.json\"")
    );
    let taken = page.json();
    assert_eq!(
        (&taken["format"], &taken["version"]),
        (&serde_json::json!("slow-rise-batch"), &serde_json::json!(1))
    );
    assert_eq!(taken["observations"][0]["celsius"], 4.4);
    let steps = taken["worked_out"]["steps"].as_array().unwrap().len();

    let ics = s.get(&format!("/batches/{code}/schedule.ics")).await?;
    assert!(ics.header("content-type").starts_with("text/calendar"));
    assert_eq!(ics.body.matches("BEGIN:VEVENT").count(), steps);
    assert!(
        ics.body
            .starts_with("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Slow Rise//")
    );
    let bake = taken["asked"]["serve_at"]
        .as_str()
        .unwrap()
        .replace(['-', ':'], "");
    assert!(
        ics.body.contains(&format!("DTSTART:{bake}")),
        "the bake starts at the serve time, in UTC"
    );
    assert!(ics.body.lines().all(|l| l.len() <= 75), "lines are folded");
    s.close().await
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
    let page = s.get("/about").await?;
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
        page.body.contains("name=\"ball_g\" value=\"8.82\"")
            && page.body.contains("name=\"room_c\" value=\"67.1\"")
    );
    let typed = [
        ("ball_g", "9"),
        ("room_c", "68"),
        ("fridge_c", "40"),
        ("target_dough_c", "73.4"),
        ("flour_c", "68"),
        ("tap_water_c", "50"),
    ];
    let code = s.keep(&typed).await?;
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let kept = |field: &str| taken["asked"][field].as_f64().unwrap();
    assert!((taken["asked"]["pieces"]["ball_g"].as_f64().unwrap() - 255.146).abs() < 0.001);
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
        page.body.contains("Room 28.4 to 107.6 °F; 20 is outside."),
        "{}",
        page.errors()
    );
    s.close().await
}

#[tokio::test]
async fn two_tablets_on_one_run_put_one_pizza_in() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/taps");
    let json = [("accept", "application/json")];
    let tap = |key: u32| {
        pairs(&[
            ("kind", "in"),
            ("pizza", "1"),
            ("entry_key", &format!("00000000-0000-4000-8000-{key:012}")),
        ])
    };
    let (a, b) = (tap(1), tap(2));
    let (a, b) = tokio::join!(s.post_with(&path, &a, &json), s.post_with(&path, &b, &json));
    let (a, b) = (a?, b?);
    let mut statuses = [a.status, b.status];
    statuses.sort();
    assert_eq!(statuses, [StatusCode::OK, StatusCode::CONFLICT]);
    // Both are told the same run.
    assert_eq!(a.json()["current"]["number"], b.json()["current"]["number"]);
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    assert_eq!(taken["pizzas"].as_array().unwrap().len(), 1);
    s.close().await
}

#[tokio::test]
async fn a_tap_keeps_the_moment_of_the_device_but_not_of_the_future() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/taps");
    let ago = jiff::Timestamp::now() - jiff::SignedDuration::from_secs(90);
    s.post(&path, &pairs(&[("kind", "in"), ("at", &ago.to_string())]))
        .await?;
    let ahead = jiff::Timestamp::now() + jiff::SignedDuration::from_hours(5);
    s.post(
        &path,
        &pairs(&[("kind", "out"), ("at", &ahead.to_string())]),
    )
    .await?;
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let baked = taken["run"]["mean_s"].as_f64().unwrap();
    assert!((89.0..120.0).contains(&baked), "{baked}");
    s.close().await
}

#[tokio::test]
async fn the_ledger_turns_its_pages() -> Result<()> {
    let s = Site::open().await?;
    for i in 0..22 {
        let code = s.keep(&[("name", &format!("Halt {i}"))]).await?;
        s.post(&format!("/batches/{code}/finish"), "").await?;
    }
    let first = s.get("/ledger").await?;
    assert_eq!(
        first.body.matches("<tr>").count(),
        21,
        "a head and twenty lines"
    );
    assert!(first.body.contains("href=\"/ledger?skip=20\"") && !first.body.contains(">Newer<"));
    assert!(first.body.contains("Halt 21") && !first.body.contains("Halt 1<"));
    let second = s.get("/ledger?skip=20").await?;
    assert_eq!(second.body.matches("<tr>").count(), 3);
    assert!(second.body.contains(">Newer<") && !second.body.contains(">Older<"));
    assert_eq!(s.get("/ledger?skip=abc").await?.status, StatusCode::OK);
    assert_eq!(s.get("/ledger?skip=-5").await?.status, StatusCode::OK);
    assert!(
        s.get("/ledger?skip=999999999")
            .await?
            .body
            .contains("Two bakes of one dough")
    );
    s.close().await
}

#[tokio::test]
async fn the_whole_job_goes_by_plain_forms() -> Result<()> {
    let s = Site::open().await?;
    let page = s
        .get("/dough/new?style=home_round&serve_time=18%3A30")
        .await?;
    assert!(page.body.contains("value=\"18:30\"") && page.body.contains("value=\"home_round\""));
    assert!(
        page.body.contains("formaction=\"/dough/look\""),
        "a button works it out"
    );
    let code = s
        .keep(&[
            ("style", "home_round"),
            ("oil_percent", "2"),
            ("sugar_percent", "1.5"),
        ])
        .await?;
    let bake = format!("/batches/{code}/bake");
    let taps = format!("/batches/{code}/taps");
    for kind in ["in", "turned", "out"] {
        assert_eq!(
            s.post(&taps, &pairs(&[("kind", kind)]))
                .await?
                .header("location"),
            bake,
            "{kind}"
        );
    }
    assert_eq!(
        s.post(
            &taps,
            &pairs(&[("kind", "verdict"), ("verdict", "right/right")])
        )
        .await?
        .header("location"),
        bake
    );
    assert!(s.get(&bake).await?.body.contains("One out, 1 of 1 right"));
    for wrong in [
        pairs(&[("kind", "verdict"), ("verdict", "burnt")]),
        pairs(&[("kind", "dance")]),
        pairs(&[("kind", "out")]),
    ] {
        let page = s.post(&taps, &wrong).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.body.contains("That cannot be done"));
    }
    let step = s
        .post(
            &format!("/batches/{code}/steps/0"),
            &pairs(&[("do", "done"), ("back", "/")]),
        )
        .await?;
    assert_eq!(
        step.header("location"),
        "/",
        "from the Bench one comes back to the Bench"
    );
    s.close().await
}
