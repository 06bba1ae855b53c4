//! Rise over HTTP: methods, edges, plans around a life, a batch under way, feed and labels.

use crate::site::{Answer, Site, form, pairs};
use anyhow::Result;
use axum::http::StatusCode;

/// The fields that a page of Rise carries, as a form again.
fn carried(page: &str) -> Vec<(String, String)> {
    let inside = page.split("id=\"carried\">").nth(1).unwrap();
    let inside = inside.split("</div>").next().unwrap();
    inside
        .split("<input type=\"hidden\" name=\"")
        .skip(1)
        .map(|p| {
            let (name, rest) = p.split_once("\" value=\"").unwrap();
            (plain(name), plain(rest.split_once("\">").unwrap().0))
        })
        .collect()
}

fn plain(s: &str) -> String {
    s.replace("&#34;", "\"")
        .replace("&#39;", "'")
        .replace("&#60;", "<")
        .replace("&#62;", ">")
        .replace("&#38;", "&")
}

fn again(fields: &[(String, String)], more: &[(&str, &str)]) -> String {
    let mut all: Vec<(&str, &str)> = fields
        .iter()
        .map(|(n, v)| (n.as_str(), v.as_str()))
        .filter(|(n, _)| !more.iter().any(|(m, _)| m == n))
        .collect();
    all.extend(more);
    pairs(&all)
}

fn value<'a>(fields: &'a [(String, String)], name: &str) -> &'a str {
    fields
        .iter()
        .find(|(n, _)| n == name)
        .map_or("", |(_, v)| v.as_str())
}

fn whole(a: &Answer) -> &str {
    assert_eq!(
        a.status,
        StatusCode::OK,
        "{}",
        a.body.chars().take(3000).collect::<String>()
    );
    &a.body
}

#[tokio::test]
async fn an_edge_moves_hours_from_one_leg_to_the_next() -> Result<()> {
    let s = Site::open().await?;
    let before = form(&s, &[]);
    let moved = s
        .post("/rise/preview", &format!("{before}&act=edge:0:0.5"))
        .await?
        .json();
    assert_eq!(moved["errors"].as_array().unwrap().len(), 0, "{moved}");
    let fields: Vec<(String, String)> = serde_json::from_value(moved["fields"].clone())?;
    assert_eq!(
        (value(&fields, "bulk_h"), value(&fields, "cold_h")),
        ("2.5", "23.5")
    );
    assert!(
        moved["picture"]
            .as_str()
            .unwrap()
            .contains("role=\"slider\"")
    );
    // A leg never vanishes, however far its edge is pulled.
    let pulled = s
        .post("/rise/preview", &format!("{before}&act=edge:0:-90"))
        .await?
        .json();
    let fields: Vec<(String, String)> = serde_json::from_value(pulled["fields"].clone())?;
    assert_eq!(value(&fields, "bulk_h"), "0.25");
    // Nonsense changes nothing.
    for act in [
        "edge:9:1",
        "edge:x:y",
        "edge:2:1e300",
        "serve:1e300",
        "serve:-inf",
        "leg:1:1e300",
        "leg:0:NaN",
        "spot:0:zzz",
        "solve:9",
        "method:none",
        "fit:",
        "zzz",
    ] {
        let a = s
            .post(
                "/rise/preview",
                &format!("{before}&{}", pairs(&[("act", act)])),
            )
            .await?;
        assert_eq!(a.status, StatusCode::OK, "{act}");
    }
    s.close().await
}

#[tokio::test]
async fn another_method_and_a_place_of_the_pantry_make_another_plan() -> Result<()> {
    let s = Site::open().await?;
    let made = s
        .post(
            "/pantry/places",
            &pairs(&[
                ("name", "Lamp room"),
                ("air", "room"),
                ("c", "14"),
                ("day", "hour;temp\r\n6;12\r\n15;16"),
                ("off_c", "1"),
            ]),
        )
        .await?;
    assert_eq!(made.status, StatusCode::SEE_OTHER, "{}", made.errors());
    let page = s
        .post(
            "/rise",
            &format!("{}&act=method:cold_bulk_then_ball", form(&s, &[])),
        )
        .await?;
    let fields = carried(whole(&page));
    assert_eq!(value(&fields, "method"), "Bulk cold, then ball");
    assert!(page.body.contains("Cold bulk"));
    let id = page
        .body
        .split(">Lamp room")
        .next()
        .unwrap()
        .rsplit("value=\"")
        .next()
        .unwrap();
    let id: String = id.chars().take_while(char::is_ascii_digit).collect();
    let page = s
        .post(
            "/rise",
            &again(&fields, &[("act", &format!("spot:2:{id}"))]),
        )
        .await?;
    let fields = carried(whole(&page));
    assert!(value(&fields, "legs[2].data").contains("Lamp room"));
    // Kept, it is a batch whose steps follow the legs.
    let kept = s.post("/dough", &again(&fields, &[])).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let batch = s.get(kept.header("location")).await?;
    assert!(batch.body.contains("Tub into the fridge") && batch.body.contains("lamp room"));
    // The place is changed in the pantry: the plan says which copy it goes by, and offers the new one.
    let batch = kept.header("location").to_string();
    let changed = s
        .post(
            &format!("/pantry/places/{id}"),
            &pairs(&[
                ("name", "Lamp room"),
                ("air", "room"),
                ("c", "18"),
                ("revision", "1"),
            ]),
        )
        .await?;
    assert_eq!(
        changed.status,
        StatusCode::SEE_OTHER,
        "{}",
        changed.errors()
    );
    let page = s.get(&format!("{batch}/rise")).await?;
    assert!(page.body.contains("Lamp room 14.0°, as planned"));
    assert!(page.body.contains("Lamp room 18.0°"));
    // And as a method of one's own.
    let kept = s
        .post(
            "/rise/methods",
            &again(&fields, &[("method_name", "House way")]),
        )
        .await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER);
    let page = s.get(kept.header("location")).await?;
    assert!(whole(&page).contains("House way"));
    // Said anew, and put away: then it is no longer offered.
    let id = kept
        .header("location")
        .rsplit('/')
        .next()
        .unwrap()
        .to_string();
    let one = format!("/pantry/methods/{id}");
    let words = [
        ("name", "House way"),
        ("line", "overnight"),
        ("taste", "ours"),
        ("revision", "1"),
    ];
    assert_eq!(
        s.post(&one, &pairs(&words)).await?.status,
        StatusCode::SEE_OTHER
    );
    assert!(s.get("/pantry").await?.body.contains("overnight"));
    s.post(&format!("{one}/away"), "").await?;
    assert!(!s.get("/rise").await?.body.contains(">House way</option>"));
    let nameless = s
        .post("/rise/methods", &again(&fields, &[("method_name", " ")]))
        .await?;
    assert_eq!(nameless.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(nameless.body.contains("A name is missing."));
    s.close().await
}

#[tokio::test]
async fn what_cannot_be_planned_is_said_in_the_makers_words() -> Result<()> {
    let s = Site::open().await?;
    for (changes, sentence) in [
        (
            vec![("fridge_c", "14")],
            "A fridge of 14 °C is no fridge: the dough would be over by",
        ),
        (vec![("cold_h", "400")], "400 h is outside"),
        (vec![("bulk_h", "0")], "0 min is outside"),
        (
            vec![("legs[0].data", "{nonsense"), ("legs[0].hours", "3")],
            "cannot be read",
        ),
    ] {
        let page = s.post("/rise", &form(&s, &changes)).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{changes:?}");
        assert!(page.body.contains(sentence), "{changes:?}");
        // What was typed is still carried.
        let fields = carried(&page.body);
        for (name, v) in changes {
            assert_eq!(value(&fields, name), v);
        }
    }
    for (day, sentence) in [
        ("18 19", "these are 2"),
        ("06:00 14", "One point makes no day"),
    ] {
        let page = s
            .post(
                "/pantry/places",
                &pairs(&[
                    ("name", "Porch"),
                    ("air", "room"),
                    ("c", "14"),
                    ("day", day),
                ]),
            )
            .await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(page.body.contains(sentence), "{day}");
    }
    s.close().await
}

/// The kitchen's form with hours away.
fn kitchen_form(quiet: &str, busy: &str, revision: &str) -> String {
    pairs(&[
        ("name", "Larchfold Halt"),
        ("weight", "grams"),
        ("temperature", "celsius"),
        ("length", "centimetres"),
        ("currency", "€"),
        ("time_zone", "Europe/London"),
        ("altitude_m", "310"),
        ("room_c", "19.5"),
        ("fridge_c", "4.5"),
        ("tap_water_c", "9.5"),
        ("kitchen_scale_g", "1"),
        ("fine_scale_g", "0.01"),
        ("mixer_holds_g", ""),
        ("fridge_measured", "yes"),
        ("fridge_off_c", "1"),
        ("room_off_c", "2"),
        ("quiet", quiet),
        ("busy", busy),
        ("revision", revision),
    ])
}

async fn with_life(s: &Site, quiet: &str, busy: &str) -> Result<StatusCode> {
    Ok(s.post("/kitchen", &kitchen_form(quiet, busy, "0"))
        .await?
        .status)
}

#[tokio::test]
async fn a_plan_is_laid_around_the_hours_away() -> Result<()> {
    let s = Site::open().await?;
    let none = s
        .post("/rise", &format!("{}&act=fit:", form(&s, &[])))
        .await?;
    assert!(none.body.contains("no quiet and no busy hours yet"));
    assert_eq!(
        with_life(&s, "at night", "").await?,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    assert_eq!(
        with_life(&s, "23:00-06:30", "").await?,
        StatusCode::SEE_OTHER
    );
    let serve = s.local_in_hours(96);
    let asked = form(
        &s,
        &[
            ("serve_date", &serve.0),
            ("serve_time", "19:00"),
            ("cold_h", "44"),
        ],
    );
    let page = s.post("/rise", &format!("{asked}&act=fit:")).await?;
    assert!(whole(&page).contains("<ol class=\"plans\">"));
    assert_eq!(page.body.matches("<b>Begin ").count(), 3);
    let page = s.get("/kitchen").await?;
    assert!(page.body.contains("23:00-06:30"));
    // Away nearly all day long: it says what is in the way, and the hours typed stay.
    s.post("/kitchen", &kitchen_form("06:00-05:30", "", "1"))
        .await?;
    let page = s.post("/rise", &format!("{asked}&act=fit:")).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.body.contains("Nothing fits:") && page.body.contains("quiet hours 06:00-05:30"));
    assert_eq!(value(&carried(&page.body), "cold_h"), "44");
    s.close().await
}

#[tokio::test]
async fn a_changed_plan_keeps_what_was_done_and_two_devices_do_not_overwrite() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let rise = format!("/batches/{code}/rise");
    let ics = s.get(&format!("/batches/{code}/schedule.ics")).await?.body;
    let uid = |text: &str, title: &str| {
        text.split("BEGIN:VEVENT")
            .find(|e| e.contains(title))
            .and_then(|e| e.lines().find(|l| l.starts_with("UID")).map(String::from))
            .unwrap()
    };
    let fields = carried(whole(&s.get(&rise).await?));
    assert_eq!(
        (value(&fields, "batch"), value(&fields, "plan")),
        (code.as_str(), "0")
    );
    let changed = again(&fields, &[("cold_h", "30"), ("exact:cold_h", "")]);
    let kept = s.post(&format!("/batches/{code}/plan"), &changed).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.body);
    let now = carried(whole(&s.get(&rise).await?));
    assert_eq!((value(&now, "cold_h"), value(&now, "plan")), ("30", "1"));
    let page = s.get(&format!("/batches/{code}")).await?.body;
    assert!(page.contains("Plan changed") && page.contains("hours changed"));
    // The other device began from the plan of before.
    let stale = s
        .post(
            &format!("/batches/{code}/plan"),
            &again(&fields, &[("cold_h", "20"), ("exact:cold_h", "")]),
        )
        .await?;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    assert!(stale.body.contains("Somebody changed this plan") && stale.body.contains("cold 30 h"));
    assert_eq!(
        value(&carried(&stale.body), "cold_h"),
        "20",
        "nothing typed is lost"
    );
    // The calendar moves the same events, with the next sequence.
    let after = s.get(&format!("/batches/{code}/schedule.ics")).await?.body;
    assert_eq!(uid(&ics, "Divide and ball"), uid(&after, "Divide and ball"));
    assert!(ics.contains("SEQUENCE:0") && after.contains("SEQUENCE:1"));
    s.close().await
}

#[tokio::test]
async fn a_warm_dough_moves_the_forecast_and_a_remedy_becomes_the_plan() -> Result<()> {
    let s = Site::open().await?;
    let soon = s.local_in_hours(10);
    let code = s
        .keep(&[
            ("cold_h", "0"),
            ("bulk_h", "3"),
            ("temper_h", "5.5"),
            ("serve_date", &soon.0),
            ("serve_time", &soon.1),
        ])
        .await?;
    let at = |p: &str| format!("/batches/{code}{p}");
    let steps = s.get(&at("/batch.json")).await?.json()["worked_out"]["steps"].clone();
    let number = |kind: &str| {
        let step = steps
            .as_array()
            .unwrap()
            .iter()
            .find(|x| x["kind"] == kind)
            .unwrap();
        step["number"].as_u64().unwrap()
    };
    for kind in ["mix", "rest"] {
        let a = s
            .post(&at(&format!("/steps/{}", number(kind))), "do=done")
            .await?;
        assert_eq!(a.status, StatusCode::SEE_OTHER);
    }
    for (subject, degrees) in [("dough", "32"), ("room", "31")] {
        s.post(
            &at("/readings"),
            &pairs(&[("subject", subject), ("degrees", degrees)]),
        )
        .await?;
    }
    let page = s.get(&at("/rise")).await?;
    assert!(whole(&page).contains("Dough off the mixer 32.0° instead of"));
    let take = page
        .body
        .split("name=\"take\" value=\"")
        .nth(1)
        .expect("a remedy")
        .split('"')
        .next()
        .unwrap()
        .to_string();
    let none = s
        .post(
            &at("/remedy"),
            &pairs(&[("take", "made_up"), ("plan", "0")]),
        )
        .await?;
    assert_eq!(none.status, StatusCode::UNPROCESSABLE_ENTITY);
    let stale = s
        .post(&at("/remedy"), &pairs(&[("take", &take), ("plan", "7")]))
        .await?;
    assert!(stale.body.contains("Somebody changed this plan"));
    let done = s
        .post(&at("/remedy"), &pairs(&[("take", &take), ("plan", "0")]))
        .await?;
    assert_eq!(
        done.status,
        StatusCode::SEE_OTHER,
        "{}",
        done.body.chars().take(2500).collect::<String>()
    );
    let after = s.get(&at("/rise")).await?;
    assert!(
        whole(&after).contains(". Serve") && after.body.contains("fits."),
        "{}",
        after
            .body
            .split("<h1>")
            .nth(1)
            .unwrap()
            .split("</h1>")
            .next()
            .unwrap()
    );
    // In the bowl its method is no question any more; its legs still are.
    let fields = carried(&after.body);
    let method = s
        .post("/rise", &again(&fields, &[("act", "method:room_day")]))
        .await?;
    assert!(method.body.contains("This dough is mixed"));
    let leg = s
        .post("/rise", &again(&fields, &[("act", "serve:0.5")]))
        .await?;
    assert_eq!(leg.status, StatusCode::OK);
    // What was done stays done.
    assert!(s.get(&at("")).await?.body.contains("Undo Weigh and mix"));
    s.close().await
}

#[tokio::test]
async fn a_vigour_is_shown_first_and_noted_only_when_that_is_pressed() -> Result<()> {
    let s = Site::open().await?;
    s.post(
        "/pantry/leavens",
        &pairs(&[
            ("name", "Tin"),
            ("form", "instant"),
            ("vigour", "1"),
            ("left_g", "100"),
        ]),
    )
    .await?;
    let soon = s.local_in_hours(9);
    let code = s
        .keep(&[
            ("cold_h", "0"),
            ("bulk_h", "2"),
            ("temper_h", "6"),
            ("serve_date", &soon.0),
            ("serve_time", &soon.1),
        ])
        .await?;
    let at = |p: &str| format!("/batches/{code}{p}");
    let now = s.local_in_hours(0);
    let early = s.local_in_hours(-5);
    let when = |d: &(String, String)| format!("{}T{}", d.0, d.1);
    for step in ["/steps/0", "/steps/1"] {
        let a = s
            .post(
                &at(step),
                &pairs(&[("do", "done"), ("when", &when(&early))]),
            )
            .await?;
        assert_eq!(
            a.status,
            StatusCode::SEE_OTHER,
            "{}",
            a.body.chars().take(800).collect::<String>()
        );
    }
    let fitted = s
        .post(
            &at("/vigour"),
            &pairs(&[("when", &when(&now)), ("plan", "0")]),
        )
        .await?;
    assert!(whole(&fitted).contains("times as fast as planned") && fitted.body.contains("for Tin"));
    assert!(
        s.get("/pantry").await?.body.contains("vigour 1,"),
        "nothing was noted silently"
    );
    let noted = s
        .post(
            &at("/vigour"),
            &pairs(&[("when", &when(&now)), ("keep", "1")]),
        )
        .await?;
    assert_eq!(noted.status, StatusCode::SEE_OTHER);
    let pantry = s.get("/pantry").await?.body;
    assert!(
        pantry.contains("vigour 1."),
        "{}",
        pantry
            .split("vigour")
            .nth(1)
            .unwrap()
            .chars()
            .take(20)
            .collect::<String>()
    );
    // The next dough begins with it.
    assert!(
        !s.get("/dough/new")
            .await?
            .body
            .contains("name=\"yeast_vigour\" value=\"1\"")
    );
    let late = s.local_in_hours(4);
    let future = s
        .post(&at("/vigour"), &pairs(&[("when", &when(&late))]))
        .await?;
    assert_eq!(future.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(future.body.contains("is still to come"));
    s.close().await
}

#[tokio::test]
async fn steps_may_be_left_out_or_done_at_another_time_but_not_in_the_future() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let step = format!("/batches/{code}/steps/0");
    s.post(&step, "do=skip").await?;
    assert!(
        s.get(&format!("/batches/{code}"))
            .await?
            .body
            .contains("left out")
    );
    s.post(&step, "do=undo").await?;
    let ahead = s.local_in_hours(5);
    let a = s
        .post(
            &step,
            &pairs(&[
                ("do", "done"),
                ("when", &format!("{}T{}", ahead.0, ahead.1)),
            ]),
        )
        .await?;
    assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(a.body.contains("is still to come"));
    for (v, ok) in [("1.6", true), ("0.5", false), ("9", false), ("big", false)] {
        let a = s
            .post(
                &format!("/batches/{code}/readings"),
                &pairs(&[("subject", "tub"), ("degrees", v)]),
            )
            .await?;
        assert_eq!(a.status == StatusCode::SEE_OTHER, ok, "{v}");
    }
    s.close().await
}

#[tokio::test]
async fn methods_stand_side_by_side_and_one_is_taken() -> Result<()> {
    let s = Site::open().await?;
    let asked = form(&s, &[]);
    let page = s.post("/rise/compare", &asked).await?;
    assert_eq!(whole(&page).matches("class=\"sheet column\"").count(), 3);
    for word in [
        "Same day",
        "Bulk in the room, balls cold",
        "Biga at cool room",
        "Strength left",
        "min of work",
    ] {
        assert!(page.body.contains(word), "{word}");
    }
    let two = s
        .post(
            "/rise/compare",
            &format!("{asked}&m0=same_day&m1=freeze_thaw&m2="),
        )
        .await?;
    assert_eq!(whole(&two).matches("class=\"sheet column\"").count(), 2);
    let taken = s
        .post("/rise", &format!("{asked}&act=method:same_day"))
        .await?;
    assert!(whole(&taken).contains("Same day"));
    s.close().await
}

#[tokio::test]
async fn the_feed_is_found_at_its_secret_address_only_until_it_is_renewed() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let address = |page: &str| {
        let a = page
            .split("id=\"feed\" href=\"")
            .nth(1)
            .expect("an address");
        let a = a.split('"').next().unwrap();
        a[a.find("/feed/").unwrap()..].to_string()
    };
    assert_eq!(s.get("/feed/.ics").await?.status, StatusCode::NOT_FOUND);
    let first = address(&s.post("/calendar/renew", "").await?.body);
    assert!(
        !s.get("/calendar").await?.body.contains("/feed/"),
        "it is shown once: only its hash is kept"
    );
    let feed = s.get(&first).await?;
    assert_eq!(feed.status, StatusCode::OK);
    assert!(feed.header("content-type").starts_with("text/calendar"));
    let steps = feed.body.matches("BEGIN:VEVENT").count();
    assert!(steps >= 6 && feed.body.contains(&code));
    // What is done leaves the feed.
    s.post(&format!("/batches/{code}/steps/0"), "do=done")
        .await?;
    assert_eq!(
        s.get(&first).await?.body.matches("BEGIN:VEVENT").count(),
        steps - 1
    );
    let second = address(&s.post("/calendar/renew", "").await?.body);
    assert_ne!(second, first);
    let gone = s.get(&first).await?;
    let nowhere = s.get("/feed-of-nobody").await?;
    assert_eq!(gone.status, StatusCode::NOT_FOUND);
    let headline = |a: &str| {
        a.split("<h1>")
            .nth(1)
            .map(|h| h.split("</h1>").next().map(String::from))
    };
    assert_eq!(
        headline(&gone.body),
        headline(&nowhere.body),
        "like any other"
    );
    assert_eq!(s.get(&second).await?.status, StatusCode::OK);
    s.close().await
}

#[tokio::test]
async fn labels_say_what_it_is_and_open_the_batch() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[("name", "Halt round")]).await?;
    let here = s.get(&format!("/batches/{code}/labels")).await?;
    assert!(
        here.body.contains("--public-url") && !here.body.contains("class=\"qr\""),
        "no code that no telephone can open"
    );
    let s = s.called("http://kitchen.local:8080");
    let page = s.get(&format!("/batches/{code}/labels?n=3")).await?;
    assert_eq!(whole(&page).matches("class=\"label\"").count(), 3);
    for word in [
        "Halt round",
        "3 of 3",
        "made ",
        "Contains gluten",
        &format!("http://kitchen.local:8080/batches/{code}"),
    ] {
        assert!(page.body.contains(word), "{word}");
    }
    assert_eq!(
        page.body.matches("class=\"qr\"").count(),
        3,
        "one code on each label"
    );
    assert_eq!(
        page.body.matches("class=\"label-strip\"").count(),
        3,
        "both clocks on each label"
    );
    assert_eq!(
        s.get(&format!("/batches/{code}/labels?n=9999"))
            .await?
            .body
            .matches("class=\"label\"")
            .count(),
        96
    );
    s.close().await
}
