//! Mix over HTTP: bowls and runs of a batch, taps that make sense and those that do not, what a mixer taught.

use crate::site::{Answer, BIGA, Site, pairs};
use anyhow::Result;
use axum::http::StatusCode;
use jiff::{SignedDuration, Timestamp};
use uuid::Uuid;

/// A tap of so many minutes ago, sent as a script sends it.
async fn tap(s: &Site, code: &str, ago_min: f64, fields: &[(&str, &str)]) -> Result<Answer> {
    let at = (Timestamp::now() - SignedDuration::from_secs_f64(60.0 * ago_min)).to_string();
    let key = Uuid::new_v4().to_string();
    let mut all = vec![("at", at.as_str()), ("entry_key", key.as_str())];
    if !fields.iter().any(|f| f.0 == "bowl") {
        all.push(("bowl", "0"));
    }
    if !fields.iter().any(|f| f.0 == "run") {
        all.push(("run", "1"));
    }
    all.extend_from_slice(fields);
    let script = [("accept", "application/json")];
    s.post_with(&format!("/batches/{code}/mix"), &pairs(&all), &script)
        .await
}

/// What stands between two texts.
fn between<'a>(page: &'a str, before: &str, after: &str) -> &'a str {
    let from = page.find(before).unwrap_or_else(|| panic!("{before}")) + before.len();
    &page[from..from + page[from..].find(after).unwrap()]
}

fn head(page: &str) -> String {
    let h1 = between(page, "<h1 aria-live=\"polite\">", "</h1>");
    h1.replace("<em>", "").replace("</em>", "")
}

async fn mixer(s: &Site, kind: &str, holds_g: &str) -> Result<()> {
    let facts = [
        ("name", "Great bowl"),
        ("kind", kind),
        ("capacity_kg", holds_g),
        ("bowl_comes_off", "no"),
        ("form_key", "0f1e2d3c-4b5a-6978-8796-a5b4c3d2e1f0"),
    ];
    let kept = s.post("/pantry/mixers", &pairs(&facts)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    Ok(())
}

#[tokio::test]
async fn water_is_the_same_on_the_sheet_and_at_the_mixer() -> Result<()> {
    let s = Site::open().await?;
    mixer(&s, "spiral", "12000").await?;
    let code = s.keep(&[("mixer", "spiral")]).await?;
    let mix = s.get(&format!("/batches/{code}/mix")).await?.body;
    let poured = between(&mix, "<div class=\"solve\"><b>", "<").to_string();
    let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let planned = json["worked_out"]["water"]["pour_c"].as_f64().unwrap();
    assert_eq!(format!("{planned:.1}"), poured);
    // The plan keeps as long for the mixing as its steps take, and what is weighed before.
    let result = &json["worked_out"];
    let at = |v: &serde_json::Value| v.as_str().unwrap().parse::<Timestamp>().unwrap();
    let begins = at(&result["steps"][0]["at"]);
    let kept = at(&result["mixed_at"]).duration_since(begins).as_mins();
    assert_eq!(
        kept, 25,
        "18.5 min of steps, and 5 of weighing, to the next five"
    );
    s.close().await
}

#[tokio::test]
async fn taps_that_make_no_sense_are_refused_in_words() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let read = |degrees: &'static str| [("act", "read"), ("degrees", degrees)];
    let says = |a: Answer| (a.status.as_u16(), a.body);
    let (status, body) = says(tap(&s, &code, 9.0, &read("22")).await?);
    assert_eq!(status, 409);
    assert!(body.contains("needs dough in the bowl"), "{body}");
    let step = |n: &'static str| [("act", "step"), ("step", n)];
    let (status, body) = says(tap(&s, &code, 9.0, &step("2")).await?);
    assert!(status == 409 && body.contains("is not done yet"), "{body}");
    assert_eq!(
        tap(&s, &code, 9.0, &step("1")).await?.status,
        StatusCode::OK
    );
    let (status, body) = says(tap(&s, &code, 8.9, &step("1")).await?);
    assert!(
        status == 409 && body.contains("on already"),
        "two people on one run: {body}"
    );
    let (status, body) = says(tap(&s, &code, 8.0, &read("72")).await?);
    assert!(
        status == 422 && body.contains("22.2"),
        "offers the other unit: {body}"
    );
    let (status, body) = says(tap(&s, &code, 20.0, &read("22")).await?);
    assert!(
        status == 409 && body.contains("needs dough"),
        "before it began: {body}"
    );
    for odd in [
        vec![("act", "step"), ("step", "99999")],
        vec![("act", "poured"), ("part", "7")],
        vec![("act", "more"), ("step", "1"), ("minutes", "1e99")],
        vec![("act", "more"), ("step", "1"), ("minutes", "NaN")],
        vec![("act", "dance")],
        vec![("act", "sign"), ("sign", "moon")],
        vec![("act", "chosen"), ("way", "spiral_direct:777")],
        vec![("act", "measured"), ("what", "flour"), ("c", "720")],
        vec![("act", "step"), ("step", "1"), ("run", "2")],
        vec![("act", "step"), ("step", "1"), ("bowl", "3")],
    ] {
        let a = tap(&s, &code, 7.0, &odd).await?;
        assert!(
            a.status.is_client_error(),
            "{odd:?}: {} {}",
            a.status,
            a.body
        );
    }
    // A browser without scripts gets its page back, with what was typed beside the sentence.
    let form = pairs(&[
        ("bowl", "0"),
        ("run", "1"),
        ("act", "read"),
        ("degrees", "72"),
    ]);
    let page = s.post(&format!("/batches/{code}/mix"), &form).await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.body.contains("value=\"72\"") && page.body.contains("22.2"));
    s.close().await
}

#[tokio::test]
async fn a_run_tells_its_step_and_a_slip_goes_back() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/mix");
    let all = pairs(&[
        ("act", "all_measured"),
        ("bowl", "0"),
        ("run", "1"),
        ("flour", "24"),
        ("room", "19.5"),
    ]);
    let before = head(&s.get(&path).await?.body);
    assert_eq!(s.post(&path, &all).await?.status, StatusCode::SEE_OTHER);
    let warmer = head(&s.get(&path).await?.body);
    assert!(
        before != warmer && warmer.starts_with("Pour at"),
        "{before} {warmer}"
    );
    for (ago, step) in [(40.0, "1"), (36.0, "2"), (20.0, "3"), (13.0, "4")] {
        tap(&s, &code, ago, &[("act", "step"), ("step", step)]).await?;
    }
    assert!(s.get("/").await?.body.contains("in the mixer"));
    tap(&s, &code, 12.5, &[("act", "read"), ("degrees", "23.7")]).await?;
    let page = s.get(&path).await?.body;
    assert!(head(&page).starts_with("Dough is 23."), "{}", head(&page));
    // It was step 3 still: the last tap but one goes back.
    let key = between(&page, &format!("/batches/{code}/entries/"), "/back");
    let back = format!("/batches/{code}/entries/{key}/back");
    assert!(
        s.post(&back, &pairs(&[("back", &path)]))
            .await?
            .status
            .is_redirection()
    );
    let page = s.get(&path).await?.body;
    assert!(
        head(&page).starts_with("Dough should be"),
        "{}",
        head(&page)
    );
    for (ago, step) in [(3.0, "5"), (0.2, "6")] {
        tap(&s, &code, ago, &[("act", "step"), ("step", step)]).await?;
    }
    let page = s.get(&path).await?.body;
    assert!(
        head(&page).starts_with("Out of the bowl"),
        "{}",
        head(&page)
    );
    assert!(s.get("/").await?.body.contains("mixed, resting"));
    s.close().await
}

#[tokio::test]
async fn a_biga_and_its_dough_have_bowls_of_their_own() -> Result<()> {
    let s = Site::open().await?;
    let spiral = [("mixer", "spiral"), ("hydration_percent", "70")];
    let code = s.keep(&[&BIGA[..], &spiral].concat()).await?;
    let first = s.get(&format!("/batches/{code}/mix")).await?.body;
    assert!(first.contains("barely mixed"), "the biga is next");
    let water = between(&first, "<div class=\"solve\"><b>", "<").to_string();
    let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let planned = json["worked_out"]["preferments"][0]["water"]["pour_c"]
        .as_f64()
        .unwrap();
    assert_eq!(
        format!("{planned:.1}"),
        water,
        "its own water, as the sheet has it"
    );
    tap(
        &s,
        &code,
        5.0,
        &[("act", "step"), ("step", "1"), ("bowl", "1")],
    )
    .await?;
    tap(
        &s,
        &code,
        1.0,
        &[("act", "step"), ("step", "2"), ("bowl", "1")],
    )
    .await?;
    let then = s.get(&format!("/batches/{code}/mix")).await?.body;
    assert!(!then.contains("barely mixed"), "the dough is next");
    assert!(then.contains("preferment") && !then.contains("Run 1 of"));
    assert!(s.get("/").await?.body.contains("preferment stands"));
    s.close().await
}

#[tokio::test]
async fn a_dough_that_is_too_much_is_mixed_in_runs() -> Result<()> {
    let s = Site::open().await?;
    mixer(&s, "spiral", "18000").await?;
    let code = s
        .keep(&[
            ("mixer", "spiral"),
            ("pieces.count", "120"),
            ("pieces.ball_g", "270"),
        ])
        .await?;
    let one = s.get(&format!("/batches/{code}/mix")).await?.body;
    assert!(
        one.contains("Run 1 of 2") && one.contains("Run 2 of 2"),
        "two runs"
    );
    // Each run weighs its half.
    let flour: f64 = between(&one, "<br>", " g flour").replace(',', "").parse()?;
    assert!(
        (flour - 120.0 * 270.0 * 1.015 / 2.0 / 1.65).abs() < 400.0,
        "{flour}"
    );
    let second = |step: &'static str| [("act", "step"), ("step", step), ("run", "2")];
    let early = tap(&s, &code, 30.0, &second("1")).await?;
    assert!(early.body.contains("Run 1 is not out"), "{}", early.body);
    for (ago, step) in [
        (40.0, "1"),
        (36.0, "2"),
        (34.0, "3"),
        (28.0, "4"),
        (22.0, "5"),
        (21.0, "6"),
    ] {
        tap(&s, &code, ago, &[("act", "step"), ("step", step)]).await?;
    }
    assert!(
        s.get("/").await?.body.contains("in the mixer"),
        "one run is out, one is to come"
    );
    for (ago, step) in [
        (20.0, "1"),
        (16.0, "2"),
        (14.0, "3"),
        (8.0, "4"),
        (2.0, "5"),
        (1.0, "6"),
    ] {
        let a = tap(&s, &code, ago, &second(step)).await?;
        assert_eq!(a.status, StatusCode::OK, "{}", a.body);
    }
    assert!(s.get("/").await?.body.contains("mixed, resting"));
    let three = tap(
        &s,
        &code,
        0.5,
        &[("act", "step"), ("step", "1"), ("run", "3")],
    )
    .await?;
    assert!(three.status.is_client_error());
    s.close().await
}

#[tokio::test]
async fn what_a_mixer_taught_is_shown_before_it_counts_and_can_be_set_back() -> Result<()> {
    let s = Site::open().await?;
    mixer(&s, "spiral", "12000").await?;
    let changes = [
        ("mixer", "spiral"),
        ("pieces.count", "24"),
        ("pieces.ball_g", "262"),
    ];
    let code = s.keep(&changes).await?;
    let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let by_kind = json["worked_out"]["water"]["pour_c"].as_f64().unwrap();
    for (ago, step) in [
        (30.0, "1"),
        (26.0, "2"),
        (24.0, "3"),
        (18.0, "4"),
        (12.0, "5"),
        (11.5, "6"),
    ] {
        tap(&s, &code, ago, &[("act", "step"), ("step", step)]).await?;
    }
    // A machine that warms much more than its kind.
    for (ago, degrees) in [(26.0, "22.3"), (18.0, "29.4"), (12.0, "29.0")] {
        tap(&s, &code, ago, &[("act", "read"), ("degrees", degrees)]).await?;
    }
    let page = s.get(&format!("/batches/{code}/mix")).await?.body;
    let says = between(&page, "What this mixer taught</h2><p><b>", "</b>").to_string();
    assert!(says.contains("a minute on medium"), "{says}");
    let id = between(&page, "name=\"machine\" value=\"", "\"").to_string();
    // Shown is not taken over: the next dough still counts with its kind.
    let water = async |s: &Site| -> Result<f64> {
        let code = s.keep(&changes).await?;
        let json = s.get(&format!("/batches/{code}/batch.json")).await?.json();
        Ok(json["worked_out"]["water"]["pour_c"].as_f64().unwrap())
    };
    assert!((water(&s).await? - by_kind).abs() < 1e-9);
    let act = |act: &'static str| pairs(&[("machine", &id), ("act", act)]);
    let path = format!("/batches/{code}/mix/taught");
    assert!(s.post(&path, &act("use")).await?.status.is_redirection());
    let learned = water(&s).await?;
    assert!(learned < by_kind - 2.0, "{learned} after, {by_kind} before");
    assert!(s.get("/pantry").await?.body.contains("a minute on medium"));
    s.post(&path, &act("back")).await?;
    assert!((water(&s).await? - by_kind).abs() < 1e-9);
    s.close().await
}

#[tokio::test]
async fn a_biga_is_mixed_in_the_machine_when_it_is_chosen() -> Result<()> {
    let s = Site::open().await?;
    mixer(&s, "spiral", "12000").await?;
    let spiral = [("mixer", "spiral"), ("hydration_percent", "70")];
    let code = s.keep(&[&BIGA[..], &spiral].concat()).await?;
    let page = s.get(&format!("/batches/{code}/mix?bowl=1")).await?.body;
    assert!(page.contains("Stirred by hand") && page.contains("Barely mixed, on slow: Great bowl"));
    let way = between(&page, "<option value=\"preferment_stiff_spiral:", "\"");
    let way = format!("preferment_stiff_spiral:{way}");
    let chosen = [("act", "chosen"), ("way", way.as_str()), ("bowl", "1")];
    let a = tap(&s, &code, 1.0, &chosen).await?;
    assert_eq!(a.status, StatusCode::OK, "{}", a.body);
    let page = s.get(&format!("/batches/{code}/mix?bowl=1")).await?.body;
    assert!(page.contains("Everything together, on slow"));
    assert!(page.contains("barely mixed") || page.contains("ragged"));
    // A dough is not mixed as a preferment is.
    let dough = [("act", "chosen"), ("way", way.as_str())];
    assert!(tap(&s, &code, 0.5, &dough).await?.status.is_client_error());
    s.close().await
}

#[tokio::test]
async fn a_way_of_the_kitchens_own_is_copied_changed_chosen_and_run() -> Result<()> {
    let s = Site::open().await?;
    mixer(&s, "spiral", "12000").await?;
    let key = Uuid::new_v4().to_string();
    let form = pairs(&[("programme", "spiral_direct"), ("form_key", &key)]);
    let copied = s.post("/pantry/programmes/copy", &form).await?;
    assert_eq!(copied.status, StatusCode::SEE_OTHER);
    let again = s.post("/pantry/programmes/copy", &form).await?;
    assert_eq!(
        again.header("location"),
        copied.header("location"),
        "copied once"
    );
    let path = copied.header("location").to_string();
    let page = s.get(&path).await?.body;
    // The form as it stands, with its values.
    let mut fields: Vec<(String, String)> = vec![];
    for input in page.split("<input ").skip(1) {
        let of = |name: &str| {
            Some(
                input
                    .split('>')
                    .next()?
                    .split(&format!("{name}=\""))
                    .nth(1)?
                    .split('"')
                    .next()?
                    .to_string(),
            )
        };
        if let (Some(n), Some(v)) = (of("name"), of("value")) {
            fields.push((n, v));
        }
    }
    for select in page.split("<select ").skip(1) {
        let name = between(select, "name=\"", "\"").to_string();
        let all = select.split("</select>").next().unwrap();
        let chosen = all
            .split("<option value=\"")
            .find(|o| o.contains(" selected"));
        fields.push((name, chosen.unwrap().split('"').next().unwrap().to_string()));
    }
    let set = |fields: &mut Vec<(String, String)>, name: &str, value: &str| {
        let f = fields
            .iter_mut()
            .find(|f| f.0 == name)
            .unwrap_or_else(|| panic!("{name}"));
        f.1 = value.into();
    };
    let send = async |fields: &[(String, String)]| {
        let all: Vec<(&str, &str)> = fields
            .iter()
            .map(|(a, b)| (a.as_str(), b.as_str()))
            .collect();
        s.post(&path, &pairs(&all)).await
    };
    // Ninety per cent of the flour is no dough; the sentence stands there and what was typed too.
    set(&mut fields, "steps[0].flour", "90");
    set(&mut fields, "steps[0].say", "Gather it gently");
    let wrong = send(&fields).await?;
    assert_eq!(wrong.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        wrong.body.contains("Over all steps it comes to 90 %"),
        "{}",
        wrong.body
    );
    assert!(wrong.body.contains("Gather it gently"));
    set(&mut fields, "steps[0].flour", "100");
    set(&mut fields, "steps[2].minutes", "7,5");
    set(&mut fields, "name", "Halt spiral");
    let kept = send(&fields).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.body);
    let code = s.keep(&[("mixer", "spiral")]).await?;
    let mix = s.get(&format!("/batches/{code}/mix")).await?.body;
    let id = mix
        .split("<option value=\"own-")
        .nth(1)
        .expect("it is offered");
    let way = format!("own-{}", id.split('"').next().unwrap());
    let a = tap(&s, &code, 20.0, &[("act", "chosen"), ("way", &way)]).await?;
    assert_eq!(a.status, StatusCode::OK, "{}", a.body);
    let mix = s.get(&format!("/batches/{code}/mix")).await?.body;
    assert!(mix.contains("Gather it gently"), "its own words");
    // A run that began keeps its steps, whatever becomes of the programme.
    let begun = tap(&s, &code, 10.0, &[("act", "step"), ("step", "1")]).await?;
    assert_eq!(begun.status, StatusCode::OK, "{}", begun.body);
    let away = s.post(&format!("{path}/away"), "").await?;
    assert_eq!(away.status, StatusCode::SEE_OTHER);
    let mix = s.get(&format!("/batches/{code}/mix")).await?.body;
    assert!(mix.contains("Gather it gently"));
    s.close().await
}

#[tokio::test]
async fn steps_of_a_way_are_added_lifted_and_taken_out_without_a_script() -> Result<()> {
    let s = Site::open().await?;
    let step = |i: usize, work: &str, minutes: &str| {
        vec![
            (format!("steps[{i}].work"), work.to_string()),
            (format!("steps[{i}].minutes"), minutes.to_string()),
        ]
    };
    let mut fields = vec![
        ("name".to_string(), "Own".to_string()),
        ("kind".into(), "hand".into()),
    ];
    fields.extend(step(0, "stir", "3"));
    fields.extend(step(1, "rest", "15"));
    let send = async |act: &str| {
        let mut all: Vec<(&str, &str)> = fields
            .iter()
            .map(|(a, b)| (a.as_str(), b.as_str()))
            .collect();
        all.push(("act", act));
        s.post("/pantry/programmes", &pairs(&all)).await
    };
    let minutes = |a: &Answer, i: usize| {
        between(
            &a.body,
            &format!("name=\"steps[{i}].minutes\" value=\""),
            "\"",
        )
        .to_string()
    };
    let more = send("add").await?;
    assert_eq!(
        (minutes(&more, 1), minutes(&more, 2)),
        ("15".into(), String::new())
    );
    let lifted = send("up:1").await?;
    assert_eq!(
        (minutes(&lifted, 0), minutes(&lifted, 1)),
        ("15".into(), "3".into())
    );
    let fewer = send("drop:0").await?;
    assert_eq!(minutes(&fewer, 0), "15");
    assert!(!fewer.body.contains("steps[1].minutes"));
    s.close().await
}
