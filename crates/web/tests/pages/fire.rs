//! Fire over HTTP: ovens, what cannot be baked, remedies, a fire kept with its plan, readings, what bakes say of an oven.

use crate::site::{Answer, Site, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;
use craft::units::{TemperatureUnit, WeightUnit};

/// A fire in the shipped wood dome, as the page sends it, with changes.
fn fire(changes: &[(&str, &str)]) -> String {
    let mut fields: Vec<(&str, &str)> = vec![
        ("style", "hot_round"),
        ("oven", "shipped:wood_dome"),
        ("floor", "biscuit:50"),
        ("floor_c", "420"),
        ("dome_c", "475"),
        ("most_c", "500"),
        ("shelf", "top"),
        ("shape", "quarters"),
        ("hands", "2"),
        ("ball_g", "250"),
        ("sugar", "0"),
        ("malt", "0"),
        ("oil", "0"),
        ("sauce_g", "70"),
        ("cheese_g", "90"),
    ];
    for (name, value) in changes {
        fields.retain(|(n, _)| n != name);
        fields.push((name, value));
    }
    pairs(&fields)
}

/// A cold 1 mm tray in the shipped home oven.
fn tray(changes: &[(&str, &str)]) -> String {
    let mut all = vec![
        ("style", "home_round"),
        ("oven", "shipped:home_steel"),
        ("floor", "carbon_steel:1"),
        ("dome_c", "270"),
        ("most_c", "275"),
        ("shape", "still"),
        ("sauce_g", "80"),
        ("cheese_g", "80"),
    ];
    all.extend(changes);
    fire(&all)
}

async fn preview(s: &Site, body: &str) -> Result<serde_json::Value> {
    let a = s.post("/fire/preview", body).await?;
    assert_eq!(a.status, StatusCode::OK, "{}", a.body);
    Ok(a.json())
}

/// The number of the plan that a Fire page was opened on.
fn plan_of(page: &Answer) -> &str {
    let rest = page.body.split("name=\"plan\" value=\"").nth(1).unwrap();
    rest.split('"').next().unwrap()
}

#[tokio::test]
async fn every_oven_and_every_style_has_its_race() -> Result<()> {
    let s = Site::open().await?;
    let mut paths: Vec<String> = craft::fire::oven::all()
        .iter()
        .map(|o| format!("/fire?style=hot_round&oven=shipped:{}", o.key))
        .collect();
    paths.extend(
        craft::style::all()
            .iter()
            .map(|x| format!("/fire?style={}", x.key)),
    );
    paths.push("/fire?style=none&oven=shipped:none".into());
    for path in paths {
        let page = s.get(&path).await?;
        let gone = path.ends_with("none");
        let expected = if gone {
            StatusCode::UNPROCESSABLE_ENTITY
        } else {
            StatusCode::OK
        };
        assert_eq!(page.status, expected, "{path}");
        assert!(gone || page.body.contains("Pull "), "{path}");
        assert!(
            !page.body.contains("NaN") && !page.body.contains(">inf"),
            "{path}"
        );
    }
    s.close().await
}

#[tokio::test]
async fn what_cannot_be_fired_is_said_at_its_field_and_stays_typed() -> Result<()> {
    let s = Site::open().await?;
    for (field, typed, says) in [
        ("dome_c", "1200", "dome"),
        ("dome_c", "hot", "must be a number"),
        ("floor_c", "-40", "floor"),
        ("floor_c", "", "missing"),
        ("most_c", "5000", "hottest"),
        ("ball_g", "5", "80"),
        ("sugar", "40", "12"),
        ("sauce_g", "9999", "600"),
        ("hands", "99", "People 1 to 8"),
        ("oven", "own:999", "no longer there"),
        ("floor", "cheese:3", "Choose what the pizza lies on"),
        ("floor", "biscuit:1e9", "thickness"),
        ("shape", "twirl", "Choose how it is turned"),
    ] {
        let page = s.post("/fire", &fire(&[(field, typed)])).await?;
        assert_eq!(
            page.status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{field} {typed}"
        );
        let said = page.body.to_lowercase();
        assert!(
            said.contains(&says.to_lowercase()),
            "{field} {typed}: {}",
            page.errors()
        );
        let is_choice = ["oven", "floor", "shape"].contains(&field);
        assert!(
            is_choice
                || page
                    .body
                    .contains(&format!("name=\"{field}\" value=\"{typed}\"")),
            "{field} {typed} stays"
        );
        // The live answer says the same and draws nothing wrong.
        let live = preview(&s, &fire(&[(field, typed)])).await?;
        assert!(!live["errors"].as_array().unwrap().is_empty() && live["picture"].is_null());
    }
    // Turns in disorder, beyond any bake, or no number.
    for cues in [
        [
            ("own", "1"),
            ("cue[0].s", "soon"),
            ("cue[0].say", "half_turn"),
        ],
        [("own", "1"), ("cue[0].s", "0"), ("cue[0].say", "half_turn")],
        [
            ("own", "1"),
            ("cue[0].s", "99999"),
            ("cue[0].say", "half_turn"),
        ],
    ] {
        let page = s.post("/fire", &fire(&cues)).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{cues:?}");
    }
    s.close().await
}

#[tokio::test]
async fn a_remedy_and_a_solved_setting_come_back_in_the_form() -> Result<()> {
    let s = Site::open().await?;
    let pale = preview(&s, &tray(&[])).await?;
    let desk = pale["desk"].as_str().unwrap();
    assert!(desk.contains("too much before the base is done"), "{desk}");
    assert!(desk.contains("remedy:steel_and_grill") && desk.contains("What to change"));
    let better = preview(&s, &tray(&[("act", "remedy:steel_and_grill")])).await?;
    let desk = better["desk"].as_str().unwrap();
    assert!(desk.contains("value=\"carbon_steel:8\" selected"), "{desk}");
    assert!(desk.contains("name=\"grill\" value=\"on\" checked"));
    assert_ne!(pale["picture"], better["picture"]);
    // Set points for a dome: both come out inside what it may reach.
    let solved = preview(
        &s,
        &fire(&[("floor_c", "300"), ("dome_c", "350"), ("act", "solve")]),
    )
    .await?;
    let desk = solved["desk"].as_str().unwrap();
    let of = |name: &str| -> f64 {
        let rest = desk
            .split(&format!("name=\"{name}\" value=\""))
            .nth(1)
            .unwrap();
        rest.split('"').next().unwrap().parse().unwrap()
    };
    assert!((340.0..=500.0).contains(&of("floor_c")) && (400.0..=600.0).contains(&of("dome_c")));
    assert!(desk.contains("All of it right from"), "{desk}");
    // Another oven brings its usual setting; what is no act changes nothing and breaks nothing.
    let other = preview(
        &s,
        &fire(&[("oven", "shipped:electric_deck"), ("act", "oven")]),
    )
    .await?;
    assert!(
        other["desk"]
            .as_str()
            .unwrap()
            .contains("name=\"floor_c\" value=\"300\"")
    );
    for act in [
        "remedy:",
        "remedy:zzz",
        "remedy:grill",
        "solve:x",
        "zzz",
        "model",
        "own",
        "shape",
    ] {
        preview(&s, &fire(&[("act", act)])).await?;
    }
    // Solved for an oven that reaches less than its setting: within its limits, and it says where they bind.
    let weak = preview(&s, &fire(&[("most_c", "300"), ("act", "solve")])).await?;
    assert_eq!(weak["errors"], serde_json::json!([]));
    assert!(
        weak["desk"]
            .as_str()
            .unwrap()
            .contains("of this oven is at its limit")
    );
    let over = preview(&s, &fire(&[("most_c", "300"), ("act", "remedy:sugar-2")])).await?;
    let said = over["errors"].as_array().unwrap();
    assert_eq!(said.len(), 2, "floor and dome, each once: {said:?}");
    // An oven that tops out below what it is usually set to is planned at what it reaches.
    let cool = preview(&s, &tray(&[("dome_c", "240"), ("most_c", "240")])).await?;
    assert_eq!(cool["errors"], serde_json::json!([]));
    assert!(
        cool["desk"]
            .as_str()
            .unwrap()
            .contains("remedy:steel_and_grill")
    );
    // No remedy goes above what the oven tops out at.
    let at_limit = preview(&s, &tray(&[("dome_c", "270"), ("most_c", "270")])).await?;
    assert!(
        !at_limit["desk"]
            .as_str()
            .unwrap()
            .contains("remedy:setting+20")
    );
    s.close().await
}

#[tokio::test]
async fn a_kept_fire_becomes_the_plan_and_a_stale_one_is_refused() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/fire");
    let opened = s.get(&path).await?;
    assert!(opened.body.contains("Keep with the plan") && opened.body.contains("Light it at"));
    let with = |plan: &str, x: &[(&str, &str)]| {
        let mut all = vec![("batch", code.as_str()), ("plan", plan)];
        all.extend(x);
        fire(&all)
    };
    let kept = s.post(&path, &with(plan_of(&opened), &[])).await?;
    assert_eq!(
        (kept.status, kept.header("location")),
        (StatusCode::SEE_OTHER, path.as_str())
    );
    let again = s.get(&path).await?;
    assert!(again.body.contains("Keep this fire"));
    // The bench bakes by its turns, and the oven is lit so long before.
    let bake = s.get(&format!("/batches/{code}/bake")).await?;
    assert!(
        bake.body.matches("&#34;quarter&#34;:true").count() == 3,
        "three quarter turns"
    );
    let sheet = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let steps = sheet["worked_out"]["steps"].as_array().context("steps")?;
    let light = steps
        .iter()
        .find(|x| x["kind"] == "light_oven")
        .context("a step to light it")?;
    let served = sheet["asked"]["serve_at"].as_str().context("served")?;
    let min = served
        .parse::<jiff::Timestamp>()?
        .duration_since(light["at"].as_str().context("at")?.parse()?)
        .as_secs()
        / 60;
    assert!(
        (60..=240).contains(&min),
        "a 50 mm floor takes its time: {min} min"
    );
    // A tablet that still shows the plan of before does not overwrite; what it typed stays.
    let stale = s
        .post(&path, &with(plan_of(&opened), &[("floor_c", "395")]))
        .await?;
    assert_eq!(stale.status, StatusCode::CONFLICT);
    assert!(
        stale.body.contains("Somebody changed this plan")
            && stale.body.contains("name=\"floor_c\" value=\"395\"")
    );
    assert!(
        s.get(&path)
            .await?
            .body
            .contains("name=\"floor_c\" value=\"420\"")
    );
    // A turn of one's own is kept to the second.
    let own = [
        ("own", "1"),
        ("cue[0].s", "31"),
        ("cue[0].say", "half_turn"),
    ];
    let kept = s.post(&path, &with(plan_of(&again), &own)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    assert!(
        s.get(&format!("/batches/{code}/bake"))
            .await?
            .body
            .contains("&#34;at_s&#34;:31")
    );
    s.close().await
}

#[tokio::test]
async fn sugar_makes_another_formula_and_once_mixed_only_the_next_one() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[("name", "Halt sweet")]).await?;
    let path = format!("/batches/{code}/fire");
    let plan = |page: &Answer| plan_of(page).to_string();
    let of = plan(&s.get(&path).await?);
    let body = |of: &str, sugar: &str| fire(&[("batch", &code), ("plan", of), ("sugar", sugar)]);
    assert!(!s.get("/formulas").await?.body.contains("Halt sweet"));
    let kept = s.post(&path, &body(&of, "2")).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    assert!(s.get("/formulas").await?.body.contains("Halt sweet"));
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    assert_eq!(taken["asked"]["formula"]["sugar_percent"], 2.0);
    // Mixed: the dough in the tub cannot be changed any more.
    s.post(
        &format!("/batches/{code}/steps/0"),
        &pairs(&[("do", "done")]),
    )
    .await?;
    let of = plan(&s.get(&path).await?);
    let refused = s.post(&path, &body(&of, "4")).await?;
    assert_eq!(refused.status, StatusCode::CONFLICT);
    assert!(
        refused.body.contains("This dough is mixed")
            && refused.body.contains("name=\"sugar\" value=\"4\"")
    );
    let next = s.post(&format!("{path}/formula"), &body(&of, "4")).await?;
    assert_eq!(next.status, StatusCode::SEE_OTHER);
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    assert_eq!(
        taken["asked"]["formula"]["sugar_percent"], 2.0,
        "the batch stays"
    );
    assert!(
        s.get(next.header("location"))
            .await?
            .body
            .contains("for Wood dome")
    );
    s.close().await
}

#[tokio::test]
async fn floor_readings_are_taken_refused_or_turned_into_the_other_unit() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/fire/reading");
    for (typed, says) in [
        ("-40", "-40 °C is outside"),
        ("1200", "1200 is outside"),
        ("warm", "must be a number"),
        ("", "missing"),
        ("1e400", "must be a number"),
    ] {
        let page = s.post(&path, &pairs(&[("degrees", typed)])).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{typed}");
        assert!(page.body.contains(says), "{typed}: {}", page.errors());
        assert!(
            page.body.contains(&format!("value=\"{typed}\"")),
            "{typed} stays"
        );
        assert_eq!(
            page.body.contains("id=\"meant\""),
            typed == "1200",
            "{typed}"
        );
    }
    let later = s.local_in_hours(3);
    let page = s
        .post(
            &path,
            &pairs(&[
                ("degrees", "400"),
                ("when", &format!("{}T{}", later.0, later.1)),
            ]),
        )
        .await?;
    assert!(page.body.contains("is still to come"), "{}", page.errors());
    // The button beside the refused reading sends what was meant, after what was typed.
    let taken = s
        .post(&path, &pairs(&[("degrees", "1200"), ("degrees", "649")]))
        .await?;
    assert_eq!(taken.status, StatusCode::SEE_OTHER);
    s.post(
        &path,
        &pairs(&[("degrees", "421,5"), ("back", "bake"), ("subject", "floor")]),
    )
    .await?;
    s.post(&path, &pairs(&[("degrees", "480"), ("subject", "dome")]))
        .await?;
    let log = s.get(&format!("/batches/{code}/bakes")).await?;
    for said in ["Oven floor 649°", "Oven floor 422°", "Oven dome 480°"] {
        assert!(log.body.contains(said), "{said}");
    }
    s.close().await
}

#[tokio::test]
async fn a_kitchen_of_fahrenheit_fires_in_fahrenheit() -> Result<()> {
    let s = Site::reading_in(TemperatureUnit::Fahrenheit, WeightUnit::Ounces).await?;
    let page = s.get("/fire?style=hot_round").await?;
    assert_eq!(page.status, StatusCode::OK);
    // The launch test names what this kitchen's thermometer shows.
    let test = page.body.split("all in ").nth(1).context("a launch test")?;
    let low: f64 = test.split(' ').next().context("a figure")?.parse()?;
    assert!((700.0..900.0).contains(&low), "{low}");
    assert!(
        page.body.contains("name=\"dome_c\" value=\"887\""),
        "475 °C at the dome"
    );
    // 475 typed as if it were °C is no dome of 475 °C.
    let cool = s
        .post(
            "/fire",
            &fire(&[
                ("floor_c", "788"),
                ("dome_c", "475"),
                ("most_c", "932"),
                ("ball_g", "8.82"),
                ("sauce_g", "2.5"),
                ("cheese_g", "3.2"),
            ]),
        )
        .await?;
    assert_eq!(cool.status, StatusCode::OK, "{}", cool.errors());
    assert!(
        cool.body.contains("dome 246 °C") || cool.body.contains("475°"),
        "{}",
        cool.errors()
    );
    s.close().await
}

#[tokio::test]
async fn an_oven_is_copied_changed_calibrated_from_its_bakes_and_set_back() -> Result<()> {
    let s = Site::open().await?;
    let copied = s
        .post("/pantry/ovens/copy", &pairs(&[("oven", "wood_dome")]))
        .await?;
    let oven = copied.header("location").to_string();
    let id = oven.rsplit('/').next().context("an id")?.to_string();
    let page = s.get(&oven).await?;
    let field = |page: &Answer, name: &str| {
        let rest = page
            .body
            .split(&format!("name=\"{name}\" value=\""))
            .nth(1)
            .unwrap_or_default();
        rest.split('"').next().unwrap_or_default().to_string()
    };
    assert_eq!(
        (field(&page, "floor_mm"), field(&page, "floor_factor")),
        ("50".into(), "1".into())
    );
    let facts = |revision: &str, changes: &[(&str, &str)]| {
        let mut all = vec![
            ("revision", revision),
            ("name", "Yard oven"),
            ("kind", "wood_dome"),
            ("fuel", "wood"),
            ("most_c", "480"),
            ("floor", "biscuit"),
            ("floor_mm", "50"),
            ("floor_c", "420"),
            ("dome_c", "475"),
            ("spots", "1"),
            ("opening_cm", "45"),
            ("side", "0.25"),
            ("view", "0.85"),
            ("air_w_m2k", "10"),
            ("fan_w_m2k", ""),
            ("grill_w", "0"),
            ("below_w_m2", "0"),
            ("door_drop_c", "0"),
            ("fuel_kg_h", "5"),
            ("floor_factor", "1"),
            ("top_factor", "1"),
            ("pace", "1"),
        ];
        for (n, v) in changes {
            all.retain(|(m, _)| m != n);
            all.push((n, v));
        }
        pairs(&all)
    };
    for (name, value, says) in [
        ("most_c", "900", "550"),
        ("floor_mm", "0", "0.5"),
        ("view", "3", "1"),
        ("spots", "0", "1"),
        ("pace", "x", "must be a number"),
        ("name", "", "name"),
        ("kind", "dragon", "Choose a kind"),
    ] {
        let bad = s
            .post(&oven, &facts(&field(&page, "revision"), &[(name, value)]))
            .await?;
        assert_eq!(
            bad.status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{name} {value}"
        );
        assert!(
            bad.errors().contains(says),
            "{name} {value}: {}",
            bad.errors()
        );
    }
    let first = field(&page, "revision");
    assert_eq!(
        s.post(&oven, &facts(&first, &[])).await?.status,
        StatusCode::SEE_OTHER
    );
    let stale = s.post(&oven, &facts(&first, &[("floor_mm", "60")])).await?;
    assert_eq!(
        stale.status,
        StatusCode::CONFLICT,
        "somebody else was first"
    );

    // A batch fired in it, four pizzas with pale bases at the planned second.
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}/fire");
    let calibrate = format!("{path}/calibrate");
    assert!(
        s.post(&calibrate, "")
            .await?
            .body
            .contains("Keep the fire first")
    );
    let of = plan_of(&s.get(&path).await?).to_string();
    let own = format!("own:{id}");
    let body = fire(&[
        ("batch", &code),
        ("plan", &of),
        ("oven", &own),
        ("most_c", "480"),
    ]);
    assert_eq!(s.post(&path, &body).await?.status, StatusCode::SEE_OTHER);
    assert!(
        s.post(&calibrate, "")
            .await?
            .body
            .contains("three at least")
    );
    let taken = s.get(&format!("/batches/{code}/batch.json")).await?.json();
    let out_s = taken["worked_out"]["programme"]["out_s"]
        .as_i64()
        .context("out")?;
    let taps = format!("/batches/{code}/taps");
    let began = jiff::Timestamp::now() - jiff::SignedDuration::from_mins(40);
    for n in 1..=4i64 {
        let at = |s: i64| (began + jiff::SignedDuration::from_secs(240 * n + s)).to_string();
        let number = n.to_string();
        for (kind, when) in [("in", at(0)), ("out", at(out_s))] {
            let body = pairs(&[("kind", kind), ("pizza", &number), ("at", &when)]);
            assert_eq!(
                s.post(&taps, &body).await?.status,
                StatusCode::SEE_OTHER,
                "{kind} {n}"
            );
        }
        let seen = pairs(&[
            ("kind", "verdict"),
            ("pizza", &number),
            ("verdict", "pale/right"),
            ("at", &at(out_s + 5)),
        ]);
        s.post(&taps, &seen).await?;
    }
    let shown = s.post(&calibrate, "").await?;
    assert!(
        shown.body.contains("4 judged bakes: floor ×0.") && shown.body.contains("top ×1"),
        "its base gets less than by the book"
    );
    assert_eq!(
        field(&s.get(&oven).await?, "floor_factor"),
        "1",
        "only shown so far"
    );
    let noted = s.post(&calibrate, &pairs(&[("keep", "1")])).await?;
    assert_eq!(noted.header("location"), oven);
    let page = s.get(&oven).await?;
    let factor: f64 = field(&page, "floor_factor").parse()?;
    assert!((0.5..0.97).contains(&factor), "{factor}");
    // Set back to the book.
    s.post(
        &oven,
        &facts(&field(&page, "revision"), &[("floor_factor", "1")]),
    )
    .await?;
    assert_eq!(field(&s.get(&oven).await?, "floor_factor"), "1");
    s.close().await
}

#[tokio::test]
async fn a_change_is_answered_in_two_the_race_first_and_both_say_the_same_of_it() -> Result<()> {
    let s = Site::open().await?;
    let first = preview(&s, &fire(&[("floor_c", "400"), ("first", "1")])).await?;
    let whole = preview(&s, &fire(&[("floor_c", "400")])).await?;
    assert!(first["desk"].is_null() && whole["desk"].is_string());
    assert_eq!(first["answer"], whole["answer"]);
    assert_eq!(first["picture"], whole["picture"]);
    // What cannot be is said in the first already.
    let wrong = preview(&s, &fire(&[("floor_c", "38"), ("first", "1")])).await?;
    assert_eq!(wrong["errors"][0]["field"], "floor_c");
    s.close().await
}
