//! What is entered on a batch over HTTP: steps, readings, remarks, taps; and what is taken away from it.

use crate::site;
use crate::site::{Site, pairs};
use anyhow::Result;
use axum::http::StatusCode;

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
    let tap = |kind: &'static str, key: &'static str| {
        let ago = if kind == "out" { 2 } else { 60 };
        let at = jiff::Timestamp::now() - jiff::SignedDuration::from_secs(ago);
        pairs(&[("kind", kind), ("entry_key", key), ("at", &at.to_string())])
    };
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
            (page.status, &page.json()["inside"][0]["number"]),
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
    // Closing asks once when something is open, and closes nothing meanwhile.
    let asks = s.post(&format!("/batches/{code}/finish"), "").await?;
    assert_eq!(asks.status, StatusCode::OK);
    assert!(asks.body.contains("Pizza 1 is still in the oven."));
    assert!(s.get("/").await?.body.contains(&code));
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
        s.post(&format!("/batches/{code}/finish"), "sure=1")
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
        (&serde_json::json!("slow-rise-batch"), &serde_json::json!(2))
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
    assert_eq!(a.json()["inside"], b.json()["inside"]);
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
    let out = |more: &[(&str, &str)]| {
        let at = ahead.to_string();
        let mut all = vec![("kind", "out"), ("at", at.as_str())];
        all.extend(more);
        pairs(&all)
    };
    // A moment to come is refused, not turned into now.
    let page = s.post(&path, &out(&[])).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.body.contains("is still to come"));
    // A device that also says what its clock reads now is shifted as a whole.
    let sent = (ahead + jiff::SignedDuration::from_secs(1)).to_string();
    let page = s.post(&path, &out(&[("sent_at", &sent)])).await?;
    assert_eq!(page.status, StatusCode::SEE_OTHER);
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let baked = taken["run"]["mean_s"].as_f64().unwrap();
    assert!((88.0..119.0).contains(&baked), "{baked}");
    s.close().await
}

#[tokio::test]
async fn the_ledger_turns_its_pages() -> Result<()> {
    let s = Site::open().await?;
    for i in 0..22 {
        let code = s.keep(&[("name", &format!("Halt {i}"))]).await?;
        s.post(&format!("/batches/{code}/finish"), "sure=1").await?;
    }
    let first = s.get("/ledger").await?;
    assert_eq!(
        first.body.matches("<tr>").count(),
        21,
        "a head and twenty lines"
    );
    assert!(first.body.contains("href=\"/ledger?skip=20\"") && !first.body.contains(">Before<"));
    assert!(first.body.contains("Halt 21") && !first.body.contains("name\">Halt 1<"));
    let second = s.get("/ledger?skip=20").await?;
    assert_eq!(second.body.matches("<tr>").count(), 3);
    assert!(second.body.contains(">Before<") && !second.body.contains(">After<"));
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
    for (kind, ago) in [("in", 90), ("turned", 60), ("out", 20)] {
        let at = jiff::Timestamp::now() - jiff::SignedDuration::from_secs(ago);
        assert_eq!(
            s.post(&taps, &pairs(&[("kind", kind), ("at", &at.to_string())]))
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
    ] {
        let page = s.post(&taps, &wrong).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.body.contains("That cannot be done"));
    }
    let page = s.post(&taps, &pairs(&[("kind", "out")])).await?;
    assert_eq!(page.status, StatusCode::CONFLICT);
    assert!(page.body.contains("That was not kept"));
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

#[tokio::test]
async fn a_step_marked_done_by_a_slip_is_taken_back_from_the_bench() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/steps/0");
    assert!(!s.get("/").await?.body.contains(">Undo<"));
    s.post(&path, &pairs(&[("do", "done"), ("back", "/")]))
        .await?;
    let bench = s.get("/").await?;
    assert!(bench.body.contains("Done: <b>Weigh and mix") && bench.body.contains("mixed, resting"));
    s.post(&path, &pairs(&[("do", "undo"), ("back", "/")]))
        .await?;
    let bench = s.get("/").await?;
    assert!(!bench.body.contains(">Undo<") && bench.body.contains(">planned<"));
    s.close().await
}

#[tokio::test]
async fn a_reading_of_the_fridge_counts_for_every_batch_and_a_power_cut_is_an_entry() -> Result<()>
{
    let s = Site::open().await?;
    // Two doughs in the fridge since last night.
    let soon = s.local_in_hours(9);
    let serve = [
        ("serve_date", soon.0.as_str()),
        ("serve_time", soon.1.as_str()),
    ];
    let (one, two) = (s.begun(&serve).await?, s.begun(&serve).await?);
    let window = async |code: &str| -> Result<String> {
        let page = s.get(&format!("/batches/{code}")).await?;
        let head = page.body.split("<h1>").nth(1).unwrap_or("");
        Ok(head.split("</h1>").next().unwrap_or("").to_string())
    };
    let before = (window(&one).await?, window(&two).await?);
    let then = s.local_in_hours(-10);
    let when = format!("{}T{}", then.0, then.1);
    let warm = pairs(&[("subject", "fridge"), ("degrees", "11"), ("when", &when)]);
    let a = s.post(&format!("/batches/{one}/readings"), &warm).await?;
    assert_eq!(a.status, StatusCode::SEE_OTHER, "{}", a.errors());
    let after = (window(&one).await?, window(&two).await?);
    assert_ne!(after.0, before.0);
    assert_ne!(
        after.1, before.1,
        "entered once, it counts for the other, too"
    );
    assert_eq!(after.0, after.1);
    // A cut of the power warms both further.
    let until = s.local_in_hours(-2);
    let cut = pairs(&[
        (
            "when",
            &format!("{}T{}", s.local_in_hours(-8).0, s.local_in_hours(-8).1),
        ),
        ("until", &format!("{}T{}", until.0, until.1)),
    ]);
    let a = s.post(&format!("/batches/{two}/power"), &cut).await?;
    assert_eq!(a.status, StatusCode::SEE_OTHER, "{}", a.errors());
    assert_ne!(window(&one).await?, after.0);
    // One that ends before it begins is none.
    let wrong = pairs(&[("when", &when), ("until", "2020-01-01T00:00")]);
    let a = s.post(&format!("/batches/{two}/power"), &wrong).await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(a.body.contains("A power cut ends after it begins"));
    s.close().await
}

#[tokio::test]
async fn a_plan_is_the_later_word_on_what_was_read_before_it_and_follows_what_is_read_after()
-> Result<()> {
    let s = Site::open().await?;
    let read = async |code: &str, c: &str| -> Result<()> {
        let warm = pairs(&[("subject", "fridge"), ("degrees", c)]);
        let a = s.post(&format!("/batches/{code}/readings"), &warm).await?;
        assert_eq!(a.status, StatusCode::SEE_OTHER, "{}", a.errors());
        Ok(())
    };
    let soon = s.local_in_hours(34);
    let serve = [
        ("serve_date", soon.0.as_str()),
        ("serve_time", soon.1.as_str()),
    ];
    let first = s.keep(&serve).await?;
    let head = async |code: &str| -> Result<String> {
        let page = s.get(&format!("/batches/{code}")).await?.body;
        let h1 = page.split("<h1>").nth(1).unwrap_or("");

        Ok(format!(
            "{} {}",
            h1.split("</h1>").next().unwrap_or(""),
            page.contains("<small>as it goes</small>")
        ))
    };
    let planned = head(&first).await?;
    assert!(planned.ends_with("false"), "{planned}");
    // Read after it was planned, hours before it begins: it is seen at once, not only when mixing is due.
    read(&first, "9").await?;
    let warmer = head(&first).await?;
    assert!(
        warmer.ends_with("true") && warmer[..30] != planned[..30],
        "{planned} and {warmer}"
    );
    // Who plans now was told how warm the fridge is: the plan stands until something new is read.
    let second = s.keep(&serve).await?;
    assert_eq!(head(&second).await?, planned);
    read(&first, "9").await?;
    assert_eq!(head(&second).await?, warmer);
    // One that begins another day is not moved by today's fridge.
    assert!(head(&s.keep(&[]).await?).await?.ends_with("false"));
    read(&first, "8").await?;
    s.close().await
}

#[tokio::test]
async fn another_content_under_a_key_that_was_used_is_told_with_both() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/remarks");
    let key = "11111111-1111-4111-8111-111111111119";
    let send = |text: &'static str| pairs(&[("entry_key", key), ("remark", text)]);
    let json = [("accept", "application/json")];
    let first = s.post_with(&path, &send("slack"), &json).await?;
    assert_eq!(
        (first.status, &first.json()["kept"]),
        (StatusCode::OK, &"now".into())
    );
    let again = s.post_with(&path, &send("slack"), &json).await?;
    assert_eq!(again.json()["kept"], "before");
    let other = s.post_with(&path, &send("tight"), &json).await?;
    assert_eq!(other.status, StatusCode::CONFLICT);
    let said = other.json()["refused"].to_string();
    assert!(said.contains("tight") && said.contains("slack"), "{said}");
    // The same for a whole dough: it is not taken for the first one.
    let form_key = "22222222-2222-4222-8222-222222222229";
    let dough =
        |ball: &'static str| site::form(&s, &[("form_key", form_key), ("pieces.ball_g", ball)]);
    let one = s.post("/dough", &dough("250")).await?;
    assert_eq!(one.status, StatusCode::SEE_OTHER);
    let same = s.post("/dough", &dough("250")).await?;
    assert_eq!(same.header("location"), one.header("location"));
    let another = s.post("/dough", &dough("280")).await?;
    assert_eq!(another.status, StatusCode::CONFLICT);
    assert!(another.body.contains("was kept before, as") && another.body.contains("value=\"280\""));
    s.close().await
}

#[tokio::test]
async fn what_is_added_to_the_pantry_is_added_once() -> Result<()> {
    let s = Site::open().await?;
    let key = "33333333-3333-4333-8333-333333333339";
    for (path, fields) in [
        (
            "/pantry/scales",
            vec![("name", "Bench"), ("reads_g", "1"), ("carries_g", "5000")],
        ),
        ("/pantry/ovens/copy", vec![("oven", "wood_dome")]),
        ("/pantry/styles/copy", vec![("style", "hot_round")]),
    ] {
        let mut all = fields.clone();
        all.push(("form_key", key));
        for _ in 0..2 {
            let a = s.post(path, &pairs(&all)).await?;
            assert_eq!(a.status, StatusCode::SEE_OTHER, "{path}: {}", a.errors());
        }
    }
    let page = s.get("/pantry").await?.body;
    for shelf in ["scales", "ovens", "styles"] {
        let rows = page.matches(&format!("href=\"/pantry/{shelf}/")).count()
            - page
                .matches(&format!("href=\"/pantry/{shelf}/new\""))
                .count();
        assert_eq!(rows, 1, "{shelf}");
    }
    s.close().await
}
