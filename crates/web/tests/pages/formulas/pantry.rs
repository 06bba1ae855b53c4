//! The pantry, styles of its own, and the kitchen.

use super::*;

#[tokio::test]
async fn the_pantry_is_entered_changed_and_used() -> Result<()> {
    let s = Site::open().await?;
    let empty = s.get("/pantry").await?.body;
    assert!(empty.contains("The pantry is <em>empty</em>"));
    let flour = [
        ("name", "Quernside <No. 4>"),
        ("kind", "soft_fine"),
        ("w", "290"),
        ("protein_percent", "12,4"),
        ("price_per_kg", "1.35"),
        ("bags[0].left_g", "5000"),
        ("bags[0].best_before", "2027-05-01"),
    ];
    let kept = s.post("/pantry/flours", &pairs(&flour)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let page = s.get("/pantry").await?.body;
    assert!(page.contains("Quernside &#60;No. 4&#62;") && page.contains("5,000"));
    let id = page
        .split("/pantry/flours/")
        .nth(2)
        .and_then(|r| r.split('"').next())
        .unwrap_or("")
        .to_string();
    // Bad input keeps what was typed; bags come and go without a script.
    let mut bad = flour.to_vec();
    bad[4] = ("price_per_kg", "-3");
    bad.push(("revision", "1"));
    let page = s
        .post(&format!("/pantry/flours/{id}"), &pairs(&bad))
        .await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        page.body.contains("Price per kg 0 to 1000; -3 is outside.")
            && page.body.contains("value=\"12,4\"")
    );
    bad.push(("act", "add"));
    assert!(
        s.post(&format!("/pantry/flours/{id}"), &pairs(&bad))
            .await?
            .body
            .contains("bags[1].left_g")
    );
    // Two tablets: the second is shown what the first did.
    let mut good = flour.to_vec();
    good[2] = ("w", "300");
    good.push(("revision", "1"));
    assert_eq!(
        s.post(&format!("/pantry/flours/{id}"), &pairs(&good))
            .await?
            .status,
        StatusCode::SEE_OTHER
    );
    good[2] = ("w", "310");
    let clash = s
        .post(&format!("/pantry/flours/{id}"), &pairs(&good))
        .await?;
    assert_eq!(clash.status, StatusCode::CONFLICT);
    assert!(clash.body.contains("<td>300</td><td><b>310</b></td>"));
    // On the sheet: chosen by its number, priced, and counted in the shopping list.
    let sheet = s.get("/dough/new").await?.body;
    let sheet = press(&s, &sheet, &[("act", "add:flours"), ("new_flours", &id)]).await?;
    assert!(
        sheet.contains("Cost €0.2"),
        "a ball of 250 g holds some 150 g of flour at 1.35"
    );
    // Another flour instead: the nearest is said when nothing reaches it.
    let sheet = press(
        &s,
        &sheet,
        &[("act", "look"), ("swap.of", "w"), ("swap.to", "400")],
    )
    .await?;
    assert!(
        sheet
            .contains("W 400 cannot be reached: Quernside &#60;No. 4&#62; comes nearest, 100 off.")
    );
    s.post(&format!("/pantry/flours/{id}/away"), "").await?;
    assert!(
        s.get("/pantry")
            .await?
            .body
            .contains("The pantry is <em>empty</em>")
    );
    for (path, body) in [
        ("/pantry/scales", "name=Pocket&reads_g=0.01&carries_g=200"),
        (
            "/pantry/pans",
            "name=Tray&shape=rectangle&length_cm=40&width_cm=30&height_cm=2.5&count=3&material=carbon_steel&thick_mm=1&oiled=yes",
        ),
        (
            "/pantry/boxes",
            "name=Box&shape=rectangle&length_cm=60&width_cm=40&height_cm=7&count=3",
        ),
        (
            "/pantry/leavens",
            "name=Jar&form=starter&hydration_percent=100&vigour=0.9&left_g=180&opened_on=2026-01-05",
        ),
        (
            "/pantry/goods",
            "name=Salt&price_per_kg=0.5&left_g=900&allergens=",
        ),
    ] {
        let kept = s.post(path, body).await?;
        assert_eq!(
            kept.status,
            StatusCode::SEE_OTHER,
            "{path}: {}",
            kept.errors()
        );
        assert_eq!(s.get(&format!("{path}/new")).await?.status, StatusCode::OK);
    }
    let page = s.get("/pantry").await?.body;
    for part in [
        "reads 0.01 g",
        "3 of 40 × 30 × 2.5 cm, 3 l",
        "6 balls each",
        "Starter at 100 % water",
    ] {
        assert!(page.contains(part), "{part}");
    }
    assert_eq!(
        s.post(
            "/pantry/pans",
            "name=x&shape=round&diameter_cm=0&height_cm=1&count=1"
        )
        .await?
        .status,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    // A box of no size holds nothing, and what was typed stays.
    let none = "name=Flat&shape=rectangle&length_cm=0&width_cm=40&height_cm=7&count=3";
    let none = s.post("/pantry/boxes", none).await?;
    assert_eq!(none.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(none.body.contains("value=\"Flat\"") && !none.errors().is_empty());
    // The new scale weighs at once.
    assert!(
        s.get("/dough/new").await?.body.contains("2.5"),
        "yeast to the hundredth is no dilution"
    );
    s.close().await
}

#[tokio::test]
async fn a_style_is_copied_altered_and_started_from() -> Result<()> {
    let s = Site::open().await?;
    let copied = s.post("/pantry/styles/copy", "style=wet_tray").await?;
    let at = copied.header("location").to_string();
    let page = s.get(&at).await?.body;
    assert!(page.contains("My wet tray"));
    let good = [
        ("name", "Halt tray"),
        ("hydration_percent", "79"),
        ("out_s", "800"),
    ];
    let own = page.clone();
    let kept = s.post(&at, &changed(&own, &good)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let page = s.get("/dough/new").await?.body;
    let key = page
        .split("<option value=\"own-")
        .nth(1)
        .and_then(|r| r.split('"').next())
        .unwrap_or("")
        .to_string();
    let page = press(&s, &page, &[("act", &format!("style:own-{key}"))]).await?;
    assert!(page.contains("name=\"hydration_percent\" value=\"79\""));
    // What counts as right at the oven is the style's own, too.
    let paler = changed(&own, &[("base_from", "0.3"), ("base_to", "1.1")]);
    assert_eq!(
        s.post(&at, &paler).await?.status,
        StatusCode::CONFLICT,
        "it was saved meanwhile"
    );
    let page = s.get(&at).await?.body;
    let kept = s
        .post(
            &at,
            &changed(&page, &[("base_from", "0.3"), ("base_to", "1.1")]),
        )
        .await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let page = s.get(&at).await?.body;
    assert!(page.contains("name=\"base_to\" value=\"1.1\""));
    let fire = s.get(&format!("/fire?style=own-{key}")).await?;
    assert!(fire.body.contains("Pull "), "{}", fire.errors());
    for (field, value) in [
        ("base_from", "9"),
        ("rim_to", "0"),
        ("set_c", "200"),
        ("rim_share", "2"),
    ] {
        let bad = s.post(&at, &changed(&page, &[(field, value)])).await?;
        assert_eq!(
            bad.status,
            StatusCode::UNPROCESSABLE_ENTITY,
            "{field} {value}"
        );
        assert!(!bad.errors().is_empty(), "{field} {value}");
    }
    // Turned upside down, its ranges are refused at their fields.
    let refused = s.post(&at, &changed(&own, &[("salt.low", "4.9")])).await?;
    assert_eq!(refused.status, StatusCode::UNPROCESSABLE_ENTITY);
    // A dough on the sheet becomes a style.
    let made = s
        .post(
            "/pantry/styles/from-dough",
            &form(&s, &[("hydration_percent", "71"), ("name", "From a dough")]),
        )
        .await?;
    let page = s.get(made.header("location")).await?.body;
    assert!(page.contains("From a dough") && page.contains("value=\"71\""));
    s.close().await
}

#[tokio::test]
async fn the_kitchen_changes_its_units_and_no_figure() -> Result<()> {
    let s = Site::open().await?;
    let kept = s
        .post("/formulas", &form(&s, &[("pieces.ball_g", "251")]))
        .await?;
    let at = kept.header("location").to_string();
    let before = s
        .get(&format!("{at}/versions/1/formula.json"))
        .await?
        .json();
    let page = s.get("/kitchen").await?.body;
    let body = changed(
        &page,
        &[
            ("weight", "ounces"),
            ("temperature", "fahrenheit"),
            ("length", "inches"),
            ("currency", "EUR"),
        ],
    );
    let answer = s.post("/kitchen", &body).await?;
    assert_eq!(answer.status, StatusCode::SEE_OTHER, "{}", answer.errors());
    let id = at.trim_start_matches("/formulas/");
    let page = s.get(&format!("/dough/new?formula={id}")).await?.body;
    assert!(page.contains("name=\"pieces.ball_g\" value=\"8.85\"") && page.contains("°F"));
    // Saved again untouched, in other units: nothing changed.
    let again = s.post("/formulas", &changed(&page, &[])).await?;
    assert_eq!(again.status, StatusCode::SEE_OTHER, "{}", again.errors());
    let after = s
        .get(&format!("{at}/versions/2/formula.json"))
        .await?
        .json();
    assert_eq!(before["formula"], after["formula"]);
    let kitchen = s.get("/kitchen").await?.body;
    assert!(kitchen.contains("value=\"67.1\""));
    let wrong = changed(
        &kitchen,
        &[
            ("time_zone", "Nowhere"),
            ("currency", "pounds sterling"),
            ("revision", "1"),
        ],
    );
    assert_eq!(
        s.post("/kitchen", &wrong).await?.status,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    s.close().await
}

#[tokio::test]
async fn a_new_dough_is_of_what_the_kitchens_own_oven_bakes() -> Result<()> {
    let s = Site::open().await?;
    let style = async |path: &str| -> Result<String> {
        let page = s.get(path).await?.body;
        // A hidden field, or a list with one chosen.
        let said = page.split("name=\"style\"").nth(1).unwrap_or("");
        let value = match said.strip_prefix(" value=\"") {
            Some(hidden) => hidden,
            None => {
                let chosen = said.split("\" selected").next().unwrap_or("");
                chosen.rsplit("value=\"").next().unwrap_or("")
            }
        };
        Ok(value.split('"').next().unwrap_or("").into())
    };
    assert_eq!(style("/dough/new").await?, "hot_round");
    for (oven, usual) in [
        ("home_steel", "home_round"),
        // Whoever has a dome, too, begins with what only a dome bakes.
        ("wood_dome", "hot_round"),
    ] {
        let kept = s
            .post("/pantry/ovens/copy", &pairs(&[("oven", oven)]))
            .await?;
        assert_eq!(kept.status, StatusCode::SEE_OTHER);
        for path in ["/dough/new", "/rise", "/fire"] {
            assert_eq!(style(path).await?, usual, "{path}");
        }
    }
    Ok(())
}
