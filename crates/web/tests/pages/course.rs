//! A batch follows what happens, over HTTP: work that begins and ends, preferments, places of the kitchen's own.

use crate::site;
use crate::site::{BIGA, Site, pairs};
use anyhow::Result;
use axum::http::StatusCode;

/// The markup of one step of a batch page.
fn step(page: &str, n: usize) -> &str {
    let from = page.find(&format!("data-step=\"{n}\"")).unwrap();
    let rest = &page[from..];
    &rest[..rest.find("</li>").unwrap()]
}

#[tokio::test]
async fn work_that_takes_its_time_begins_and_ends_and_is_not_late_meanwhile() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}");
    let say = async |word: &str| {
        s.post(&format!("{path}/steps/0"), &pairs(&[("do", word)]))
            .await
            .map(|a| assert_eq!(a.status, StatusCode::SEE_OTHER, "{word}"))
    };
    let page = s.get(&path).await?.body;
    assert!(step(&page, 0).contains(">Begin<") && !step(&page, 0).contains(">Done<"));
    assert!(step(&page, 1).contains(">Done<"), "rest is of a moment");
    say("begin").await?;
    let page = s.get(&path).await?.body;
    assert!(step(&page, 0).contains(">Finished<") && step(&page, 0).contains("since "));
    assert!(page.contains("Now: weigh and mix"));
    assert!(
        step(&page, 0).contains("Finished then"),
        "its end may be entered late"
    );
    let bench = s.get("/").await?.body;
    assert!(bench.contains("in the mixer") && bench.contains("Under way since "));
    assert!(!bench.contains("class=\"late\""));
    // In the mixer three days before it was planned: what hangs on its end is due after it.
    assert!(step(&page, 1).contains("planned "), "{}", step(&page, 1));
    say("finish").await?;
    let page = s.get(&path).await?.body;
    assert!(step(&page, 0).contains("early") && page.contains("mixed, resting"));
    // Two slips back, one after the other.
    say("undo").await?;
    assert!(s.get("/").await?.body.contains("in the mixer"));
    say("undo").await?;
    assert!(step(&s.get(&path).await?.body, 0).contains(">Begin<"));
    s.close().await
}

#[tokio::test]
async fn a_preferment_has_its_own_water_and_its_reading_its_own_plan() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&BIGA).await?;
    let path = format!("/batches/{code}");
    let page = s.get(&path).await?.body;
    assert!(
        step(&page, 0).contains("Aim for 21 °C."),
        "{}",
        step(&page, 0)
    );
    s.post(&format!("{path}/steps/0"), &pairs(&[("do", "done")]))
        .await?;
    let read = pairs(&[("subject", "dough"), ("degrees", "26")]);
    s.post(&format!("{path}/readings"), &read).await?;
    let page = s.get(&path).await?.body;
    // Mixed days before its hour: its plan has no figure for now, and the dough's is not put in its place.
    assert!(!page.contains("planned 23.0°"), "the dough's own target");
    let rise = s.get(&format!("{path}/rise")).await?.body;
    assert!(rise.contains("Biga 26.0°"), "no reading on Rise");
    s.close().await
}

#[tokio::test]
async fn a_place_of_ones_own_is_read_by_its_name() -> Result<()> {
    let s = Site::open().await?;
    let bulk =
        r#"{"lies": "bulk", "hours": 4, "least_h": 1, "most_h": 12, "spot": {"kind": "room"}}"#;
    let balls = r#"{"lies": "balls", "hours": 20, "least_h": 1, "most_h": 72, "event": "ball",
        "spot": {"kind": "own", "name": "Cellar", "air": "room", "c": 12}}"#;
    let legs = [
        ("legs[0].data", bulk),
        ("legs[0].hours", "4"),
        ("legs[1].data", balls),
        ("legs[1].hours", "20"),
    ];
    let code = s.keep(&legs).await?;
    let path = format!("/batches/{code}");
    let page = s.get(&path).await?.body;
    assert!(page.contains("value=\"place:Cellar\""), "no such subject");
    let read = |degrees: &'static str| pairs(&[("subject", "place:Cellar"), ("degrees", degrees)]);
    let odd = s.post(&format!("{path}/readings"), &read("warm")).await?;
    assert_eq!(odd.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(odd.body.contains("value=\"place:Cellar\" selected"));
    s.post(&format!("{path}/readings"), &read("15.5")).await?;
    let page = s.get(&path).await?.body;
    assert!(
        page.contains("Cellar</span><b>15.5°</b><i>planned 12.0°</i>"),
        "not in the log"
    );
    s.close().await
}

#[tokio::test]
async fn a_dough_that_is_mixed_already_is_kept_with_what_happened() -> Result<()> {
    let s = Site::open().await?;
    let zone = jiff::tz::TimeZone::get("Europe/London")?;
    let ago = |h: f64| {
        let at = jiff::Timestamp::now() - craft::sheet::hours(h);
        at.to_zoned(zone.clone())
            .strftime("%Y-%m-%dT%H:%M")
            .to_string()
    };
    let (mixed, cold) = (ago(3.0), ago(2.0));
    let serve = s.local_in_hours(20);
    let form = |dose: &'static str, mixed: &str| {
        site::form(
            &s,
            &[
                ("form_key", "44444444-4444-4444-8444-444444444449"),
                ("serve_date", &serve.0),
                ("serve_time", &serve.1),
                ("yeast.dose", dose),
                ("yeast.percent", "0.2"),
                ("begun_at", mixed),
                ("begun_cold_at", &cold),
                ("begun_dough_c", "26"),
            ],
        )
    };
    // What cannot be is said beside its field, and what was typed stays.
    let unsaid = s.post("/dough", &form("solve", &mixed)).await?;
    assert_eq!(unsaid.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(unsaid.body.contains("It is in the bowl") && unsaid.body.contains(&mixed));
    let later = s.post("/dough", &form("given", &ago(-1.0))).await?;
    assert!(later.body.contains("later than now"), "{}", later.errors());
    // Kept twice, it is one batch with one of each entry.
    let kept = s.post("/dough", &form("given", &mixed)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let again = s.post("/dough", &form("given", &mixed)).await?;
    assert_eq!(again.header("location"), kept.header("location"));
    let page = s.get(kept.header("location")).await?.body;
    assert_eq!(
        page.matches("<b>26.0°</b>").count(),
        1,
        "the dough off the mixer"
    );
    let left = jiff::civil::DateTime::strptime("%Y-%m-%dT%H:%M", &mixed)?;
    let at = left.strftime("%H:%M").to_string();
    assert!(step(&page, 0).contains(&at), "{}", step(&page, 0));
    assert!(page.contains("cold, fridge"), "it lies in the cold");
    let rise = s
        .get(&format!("{}/rise", kept.header("location")))
        .await?
        .body;
    assert!(rise.contains("26.0°"), "off the mixer on Rise");
    s.close().await
}

#[tokio::test]
async fn another_number_of_pieces_is_weighed_anew_before_and_cut_otherwise_after_mixing()
-> Result<()> {
    let s = Site::open().await?;
    let code = s
        .keep(&[("pieces.count", "6"), ("pieces.ball_g", "250")])
        .await?;
    let path = format!("/batches/{code}");
    let dough = async || -> Result<(u64, f64, f64, f64)> {
        let f = s.get(&format!("{path}/batch.json")).await?.json()["worked_out"]["formula"].clone();
        Ok((
            f["pieces"].as_u64().unwrap(),
            f["dough_g"].as_f64().unwrap(),
            f["piece_g"].as_f64().unwrap(),
            f["rows"].as_array().unwrap().last().unwrap()["exact_g"]
                .as_f64()
                .unwrap(),
        ))
    };
    let change = async |count: &str, plan: &str| {
        s.post(
            &format!("{path}/pieces"),
            &pairs(&[("count", count), ("plan", plan)]),
        )
        .await
    };
    let before = dough().await?;
    for odd in ["", "many", "0", "5000", "-3"] {
        let a = change(odd, "0").await?;
        assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY, "{odd}");
    }
    assert_eq!(change("16", "0").await?.status, StatusCode::SEE_OTHER);
    let more = dough().await?;
    assert_eq!(more.0, 16);
    assert!((more.1 / before.1 - 16.0 / 6.0).abs() < 1e-6 && (more.2 - 250.0).abs() < 1e-9);
    // From the plan of before it is refused: somebody changed it.
    assert_eq!(
        change("20", "0").await?.status,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    // Heavier ones, in whatever unit it is typed; what cannot be a ball stays typed beside its sentence.
    let size = async |each: &str, plan: &str| {
        let asked = pairs(&[("count", "16"), ("each", each), ("plan", plan)]);
        s.post(&format!("{path}/pieces"), &asked).await
    };
    for odd in ["heavy", "3", "0.3 kg 5"] {
        let a = size(odd, "1").await?;
        assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY, "{odd}");
        assert!(a.body.contains(&format!("name=\"each\" value=\"{odd}\"")));
    }
    assert_eq!(size("0.3 kg", "1").await?.status, StatusCode::SEE_OTHER);
    assert!((dough().await?.2 - 300.0).abs() < 1e-9);
    let page = s.get(&path).await?.body;
    assert!(
        page.contains("of 300 g instead of 250 g"),
        "no word of the size"
    );
    // As it is already: nothing is written anew, and the plan is still the second.
    assert_eq!(size("300", "2").await?.status, StatusCode::SEE_OTHER);
    assert_eq!(size("250", "2").await?.status, StatusCode::SEE_OTHER);
    // Mixed: the dough stays, a guest less makes them larger.
    s.post(&format!("{path}/steps/0"), &pairs(&[("do", "finish")]))
        .await?;
    assert_eq!(change("15", "3").await?.status, StatusCode::SEE_OTHER);
    let cut = dough().await?;
    assert_eq!(cut.0, 15);
    assert!((cut.1 - more.1).abs() < 1e-6 && (cut.2 - 250.0 * 16.0 / 15.0).abs() < 1e-6);
    assert!((cut.3 - more.3).abs() < 1e-6, "its yeast is in the bowl");
    let page = s.get(&path).await?.body;
    assert!(page.contains("15 × 266.7 g"), "the step follows");
    assert!(page.contains("15 pieces instead of 16"));
    // Balled, the number changes nothing of it.
    let ball = page.find("Divide and ball").unwrap();
    let at = page[..ball].rfind("data-step=\"").unwrap() + 11;
    let n = page[at..].split('"').next().unwrap().to_string();
    s.post(&format!("{path}/steps/{n}"), &pairs(&[("do", "done")]))
        .await?;
    let late = change("10", "4").await?;
    assert!(
        late.body.contains("They are cut already"),
        "{}",
        late.status
    );
    s.close().await
}

#[tokio::test]
async fn two_balls_into_the_freezer_become_a_batch_of_their_own() -> Result<()> {
    let s = Site::open().await?;
    let planned = s.keep(&[]).await?;
    let page = s.get(&format!("/batches/{planned}")).await?.body;
    assert!(!page.contains("name=\"part_count\""), "it is not mixed yet");
    let (date, time) = s.local_in_hours(9);
    let code = s
        .begun(&[("serve_date", &date), ("serve_time", &time)])
        .await?;
    let path = format!("/batches/{code}");
    s.post(
        &format!("{path}/readings"),
        &pairs(&[("subject", "dough"), ("degrees", "5.5")]),
    )
    .await?;
    s.post(
        &format!("{path}/readings"),
        &pairs(&[("subject", "fridge"), ("degrees", "7.7")]),
    )
    .await?;
    let page = s.get(&path).await?.body;
    assert!(page.contains("name=\"part_count\""));
    let (date, time) = s.local_in_hours(200);
    let serve = format!("{date}T{time}");
    let key = uuid::Uuid::new_v4().to_string();
    let ask = |count: &str, way: &str, serve: &str| {
        pairs(&[
            ("plan", "1"),
            ("form_key", &key),
            ("part_count", count),
            ("part_way", way),
            ("part_serve", serve),
        ])
    };
    // Wrong things are said beside their field, and what was typed stays.
    for (count, at, said) in [
        ("two", serve.as_str(), "How many pieces: a whole number"),
        ("6", serve.as_str(), "1 to 5 of the 6 pieces."),
        ("2", "soon", "Say when: a day and a time"),
        ("2", "2020-01-01T10:00", "That hour is over."),
    ] {
        let wrong = s
            .post(&format!("{path}/part"), &ask(count, "freezer", at))
            .await?;
        assert_eq!(wrong.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(wrong.body.contains(said), "{said}: {}", wrong.errors());
        assert!(
            wrong
                .body
                .contains(&format!("name=\"part_count\" value=\"{count}\""))
        );
    }
    let parted = s
        .post(&format!("{path}/part"), &ask("2", "freezer", &serve))
        .await?;
    assert_eq!(parted.status, StatusCode::SEE_OTHER, "{}", parted.errors());
    let other = parted.header("location").to_string();
    assert_ne!(other, path);
    // Sent twice it leads where it led.
    let again = s
        .post(&format!("{path}/part"), &ask("2", "freezer", &serve))
        .await?;
    assert_eq!(again.header("location"), other);
    assert_eq!(s.batches().await?, 3);
    let (rest, part) = (s.get(&path).await?.body, s.get(&other).await?.body);
    assert!(rest.contains("2 pieces into the freezer") && rest.contains("4 × 250"));
    assert!(part.contains("2 × 250"));
    // It is called by the day that it is for.
    let day: jiff::civil::Date = date.parse()?;
    let named = day.strftime(", %-d %b").to_string();
    assert!(part.contains(&named), "{named}");
    // What happened to both stands on both.
    assert!(part.contains("5.5°") && part.contains("freezer"), "no past");
    assert!(step(&part, 0).contains("Undo"), "{}", step(&part, 0));
    // The fridge was read once, for both: taken back there is no copy that goes on counting.
    assert!(rest.contains("<b>7.7°</b>") && !part.contains("<b>7.7°</b>"));
    s.close().await
}
