//! The ledger over HTTP: bakes written down later, found again, set side by side and taken out as a table; and trials.

use crate::site::{Answer, Site, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;

const TABLE: &str = "date;time;formula;pieces;cold;fridge;stood;bake;base;top;remark
2026-09-05;19:00;Lean round;8;24;6,5;over;80;pale;right;floor was cold
2026-09-12;;;;44;;right;78;right;right;
2026-09-19;12:30;Wet tray;2;;;right;;;dark;stuck in one corner
";

async fn by_csv(s: &Site, text: &str, key: &str) -> Result<Answer> {
    let fields = [("as", "csv"), ("csv", text), ("form_key", key)];
    s.post("/ledger/late", &pairs(&fields)).await
}

fn key() -> String {
    uuid::Uuid::new_v4().to_string()
}

/// The codes that a page of the ledger lists.
fn codes(page: &str) -> Vec<String> {
    let parts = page.split("name=\"b\" value=\"").skip(1);
    parts
        .filter_map(|p| p.split('"').next())
        .map(Into::into)
        .collect()
}

async fn found(s: &Site, query: &str) -> Result<Vec<String>> {
    let page = s.get(&format!("/ledger?{query}")).await?;
    assert_eq!(page.status, StatusCode::OK, "{query}");
    Ok(codes(&page.body))
}

#[tokio::test]
async fn bakes_of_long_ago_are_kept_found_and_taken_out() -> Result<()> {
    let s = Site::open().await?;
    let key = key();
    let kept = by_csv(&s, TABLE, &key).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", said(&kept.body));
    // Sent twice, kept once.
    by_csv(&s, TABLE, &key).await?;
    let all = found(&s, "").await?;
    assert_eq!(all.len(), 3, "{all:?}");
    let told = s.get(kept.header("location")).await?;
    assert!(said(&told.body).contains("3 bakes are kept"));
    // Another table under the same form is told, kept as it was typed, and comes with a key of its own.
    let more = format!("{TABLE}2026-09-26;;Lean round;6;;;right;;;;fourth\n");
    let page = by_csv(&s, &more, &key).await?;
    assert_eq!(page.status, StatusCode::CONFLICT);
    assert!(said(&page.body).contains("kept before with other lines"));
    assert!(page.body.contains("fourth") && !page.body.contains(&key));
    assert_eq!(found(&s, "").await?.len(), 3);

    for (query, n) in [
        ("q=corner", 1),
        ("q=cold", 1),
        ("q=%25", 0),
        ("q=Lean+round", 2),
        ("style=Wet+tray", 1),
        ("turned=base_pale", 1),
        ("turned=right", 1),
        ("turned=unjudged", 1),
        ("from=2026-09-12&until=2026-09-12", 1),
        ("from=2026-09-12", 2),
        ("from=nonsense", 3),
        ("style=Wet+tray&turned=base_pale", 0),
    ] {
        assert_eq!(found(&s, query).await?.len(), n, "{query}");
    }
    let none = said(&s.get("/ledger?q=zeppelin").await?.body);
    assert!(none.contains("Leave something out"), "{none}");

    // The table that is taken out can be written down again elsewhere.
    let csv = s.get("/ledger/bakes.csv").await?;
    assert!(csv.header("content-type").starts_with("text/csv"));
    assert_eq!(csv.body.lines().count(), 4, "{}", csv.body);
    let line = csv.body.lines().nth(3).unwrap();
    assert!(line.starts_with("2026-09-05,19:00,Lean round,8,"), "{line}");
    // Nothing was said of its steps: it went as planned, and was ripe when it was served.
    let head: Vec<&str> = csv.body.lines().next().unwrap().split(',').collect();
    let rise = head.iter().position(|c| *c == "rise").unwrap();
    let second: Vec<&str> = csv.body.lines().nth(2).unwrap().split(',').collect();
    let rise: f64 = second[rise].parse()?;
    assert!((95.0..105.0).contains(&rise), "{rise}: {second:?}");
    let one = s.get("/ledger/bakes.csv?q=corner").await?;
    assert_eq!(one.body.lines().count(), 2);
    let other = Site::open().await?;
    let again = by_csv(&other, &csv.body, &self::key()).await?;
    assert_eq!(again.status, StatusCode::SEE_OTHER, "{}", said(&again.body));
    assert_eq!(found(&other, "").await?.len(), 3);
    other.close().await?;
    s.close().await
}

#[tokio::test]
async fn what_cannot_be_read_is_said_cell_by_cell_and_nothing_is_kept() -> Result<()> {
    let s = Site::open().await?;
    let form = s.get("/ledger/late").await?;
    assert!(form.body.contains("late[11].remark"));
    let fields = [
        ("as", "grid"),
        ("late[0].date", "2026-09-05"),
        ("late[0].formula", "Lean round"),
        ("late[1].date", "2126-09-05"),
        ("late[2].date", "2026-09-06"),
        ("late[2].dough", "hot <b>"),
        ("late[3].date", "2026-09-07"),
        ("late[3].formula", "Moon pie"),
    ];
    let page = s.post("/ledger/late", &pairs(&fields)).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    let words = said(&page.body);
    assert!(
        words.contains("still to come") && words.contains("is not between"),
        "{words}"
    );
    // What was typed stands there still, and is text.
    assert!(page.body.contains("hot &#60;b&#62;") || page.body.contains("hot &lt;b&gt;"));
    assert!(page.body.contains("Moon pie"));
    // Only once its cells can be read is a formula looked for.
    let fields = [
        ("as", "grid"),
        ("late[0].date", "2026-09-05"),
        ("late[0].formula", "Lean round"),
        ("late[1].date", "2026-09-07"),
        ("late[1].formula", "Moon pie"),
    ];
    let page = s.post("/ledger/late", &pairs(&fields)).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(said(&page.body).contains("No formula and no style is called"));
    assert_eq!(found(&s, "").await?.len(), 0);

    // Five hundred lines, three of them wrong: each is named, none is kept.
    let mut text = String::from("date,formula,stood\n");
    for i in 0..500 {
        text += match i {
            7 => "2026-13-41,Lean round,right\n",
            99 => "2026-09-05,Lean round,ready\n",
            499 => "2126-01-01,Lean round,right\n",
            _ => "2026-09-05,Lean round,right\n",
        };
    }
    let page = by_csv(&s, &text, &key()).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    let words = said(&page.body);
    for line in ["Line 9,", "Line 101,", "Line 501,"] {
        assert!(words.contains(line), "{line}");
    }
    assert_eq!(found(&s, "").await?.len(), 0);
    for text in ["", "nothing", "date;moon\n1;2", "date;formula\n\"2026"] {
        let page = by_csv(&s, text, &key()).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{text}");
    }
    s.close().await
}

#[tokio::test]
async fn bakes_stand_side_by_side_by_what_differs() -> Result<()> {
    let s = Site::open().await?;
    by_csv(&s, TABLE, &key()).await?;
    let all = found(&s, "").await?;
    let (tray, late, early) = (&all[0], &all[1], &all[2]);
    let page = s
        .get(&format!("/ledger/side-by-side?b={late}&b={early}"))
        .await?;
    let words = said(&page.body);
    assert!(words.contains("one difference: cold"), "{words}");
    // By the hours, however they were ticked.
    assert!(words.find("24 h").unwrap() < words.find("44 h").unwrap());
    assert!(words.contains("Yeast, of the flour"));
    let page = s
        .get(&format!("/ledger/side-by-side?b={tray}&b={early}"))
        .await?;
    assert!(said(&page.body).contains("No comparison says which of them did it"));
    for (query, status) in [
        (String::new(), StatusCode::UNPROCESSABLE_ENTITY),
        (format!("b={tray}"), StatusCode::UNPROCESSABLE_ENTITY),
        // Twice the same is one.
        (
            format!("b={tray}&b={tray}"),
            StatusCode::UNPROCESSABLE_ENTITY,
        ),
        (format!("b={tray}&b=ZZ-99"), StatusCode::NOT_FOUND),
        (
            "b=A-1&b=A-2&b=A-3&b=A-4&b=A-5".into(),
            StatusCode::UNPROCESSABLE_ENTITY,
        ),
    ] {
        let page = s.get(&format!("/ledger/side-by-side?{query}")).await?;
        assert_eq!(page.status, status, "{query}");
    }
    s.close().await
}

/// The letters of a table in the order of its buttons, with what each says.
fn buttons(page: &str, begins: &str) -> Vec<String> {
    let parts = page.split("name=\"say\" value=\"").skip(1);
    let all = parts.filter_map(|p| p.split('"').next());
    all.filter(|v| v.starts_with(begins))
        .map(Into::into)
        .collect()
}

#[tokio::test]
async fn a_trial_goes_from_its_design_to_its_answer() -> Result<()> {
    let s = Site::open().await?;
    let base = s.keep(&[]).await?;
    let (date, time) = s.local_in_hours(24 * 6);
    let design = |values: &str, tasters: &str| {
        vec![
            ("way".to_string(), "sisters".to_string()),
            ("of".into(), base.clone()),
            ("varied".into(), "water".into()),
            ("values".into(), values.to_string()),
            ("each".into(), "4".into()),
            ("serve_date".into(), date.clone()),
            ("serve_time".into(), time.clone()),
            ("tasters".into(), tasters.into()),
            ("name".into(), "Water".into()),
            ("form_key".into(), key()),
        ]
    };
    let post = async |fields: Vec<(String, String)>| {
        let fields: Vec<(&str, &str)> = fields.iter().map(|(a, b)| (&**a, &**b)).collect();
        s.post("/trials", &pairs(&fields)).await
    };
    // One arm, five, none that is a number, nobody to taste, more water than any dough takes.
    for (values, tasters, says) in [
        ("60", "8", "two to 4"),
        ("60, 61, 62, 63, 64", "8", "two to 4"),
        ("much, more", "8", "as numbers"),
        ("60, 60", "8", "twice"),
        ("60, 65", "0", "Between 1 and 40"),
        ("60, 650", "8", "650"),
    ] {
        let page = post(design(values, tasters)).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{values}");
        let words = said(&page.body);
        assert!(words.contains(says), "{values}: {words}");
        assert!(page.body.contains(values), "{values} is kept");
    }
    assert_eq!(s.batches().await?, 1);

    let made = post(design("60, 65", "8")).await?;
    assert_eq!(made.status, StatusCode::SEE_OTHER, "{}", said(&made.body));
    let trial = made.header("location").to_string();
    // Sent again it is the same; with other values it is told, and makes nothing.
    let mut again = design("60, 65", "8");
    let form = key();
    again.last_mut().unwrap().1 = form.clone();
    let once = post(again.clone()).await?;
    assert_eq!(
        post(again.clone()).await?.header("location"),
        once.header("location")
    );
    again[3].1 = "60, 70".into();
    let page = post(again).await?;
    assert_eq!(page.status, StatusCode::CONFLICT);
    assert!(said(&page.body).contains("was kept before, as T-02") && !page.body.contains(&form));
    // Two sisters each beside the one that they were made of.
    assert_eq!(s.batches().await?, 5);
    let words = said(&s.get(&trial).await?.body);
    assert!(
        words.contains("nobody has tasted yet") && words.contains("Water"),
        "{words}"
    );
    assert!(
        !words.contains("plate A"),
        "letters are told only after a tasting"
    );

    let tap = async |taster: u32, say: &str| {
        let fields = [("taster", taster.to_string()), ("say", say.to_string())];
        let fields: Vec<(&str, &str)> = fields.iter().map(|(a, b)| (*a, &**b)).collect();
        s.post_with(
            &format!("{trial}/tasted"),
            &pairs(&fields),
            &[("accept", "application/json")],
        )
        .await
    };
    for (taster, say) in [
        (0, "like:A:B:A"),
        (9, "like:A:B:A"),
        (1, "like:A:C:A"),
        (1, "like:A:B:C"),
        (1, "score:A:chew:6"),
        (1, "score:A:moon:3"),
        (1, "nonsense"),
        (1, ""),
    ] {
        let a = tap(taster, say).await?;
        assert!(a.status.is_client_error(), "{taster} {say}: {}", a.status);
    }
    // All like the one behind A; each is served in an order of its own.
    let mut orders = std::collections::BTreeSet::new();
    for taster in 1..=8 {
        let page = s.get(&format!("{trial}/taste?taster={taster}")).await?;
        orders.insert(buttons(&page.body, "score:")[0].clone());
        assert_eq!(tap(taster, "like:A:B:A").await?.status, StatusCode::OK);
        tap(taster, "score:A:taste:4").await?;
        tap(taster, "score:B:taste:3").await?;
    }
    assert_eq!(orders.len(), 2, "{orders:?}");
    let words = said(&s.get(&trial).await?.body);
    assert!(words.contains("is liked better"), "{words}");
    assert!(words.contains("8 of 8 like"), "{words}");
    assert!(words.contains("Beyond"), "{words}");
    // Two who take it back leave too few.
    for taster in [1, 2, 3] {
        tap(taster, "like:A:B:").await?;
    }
    let words = said(&s.get(&trial).await?.body);
    assert!(words.contains("No winner"), "{words}");
    assert_eq!(s.get("/trials/T-77").await?.status, StatusCode::NOT_FOUND);
    s.close().await
}

#[tokio::test]
async fn parts_of_one_dough_and_bakes_that_are_there_are_trials_too() -> Result<()> {
    let s = Site::open().await?;
    by_csv(&s, TABLE, &key()).await?;
    let all = found(&s, "").await?;
    let split = [
        ("way", "split"),
        ("of", &*all[2]),
        ("part[0]", "60 s"),
        ("part[1]", "90 s"),
        ("tasters", "6"),
        ("form_key", &key()),
    ];
    let made = s.post("/trials", &pairs(&split)).await?;
    assert_eq!(made.status, StatusCode::SEE_OTHER, "{}", said(&made.body));
    let words = said(&s.get(made.header("location")).await?.body);
    assert!(
        words.contains("Parts of one dough") && words.contains("90 s"),
        "{words}"
    );
    assert!(!words.contains("evenings"), "{words}");
    let alone = [&split[..3], &split[4..]].concat();
    let page = s.post("/trials", &pairs(&alone)).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);

    let there = [
        ("way", "there"),
        ("b", &*all[1]),
        ("b", &*all[2]),
        ("tasters", "6"),
        ("form_key", &key()),
    ];
    let made = s.post("/trials", &pairs(&there)).await?;
    assert_eq!(made.status, StatusCode::SEE_OTHER, "{}", said(&made.body));
    let words = said(&s.get(made.header("location")).await?.body);
    assert!(
        words.contains("Hours in the cold") && words.contains("44 h"),
        "{words}"
    );
    assert!(words.contains("Served on 2 evenings"), "{words}");
    assert!(said(&s.get("/trials").await?.body).contains("T-02"));
    s.close().await
}
