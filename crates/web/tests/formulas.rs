//! Formulas, pantry and files over HTTP: what goes without a script, and what is refused.

mod site;

use anyhow::Result;
use axum::http::StatusCode;
use site::{Site, form, pairs};

/// The form after a press: every field of the page, as a browser would send them.
fn fields_of(body: &str) -> Vec<(String, String)> {
    let mut out = Vec::new();
    let form = body.split("id=\"sheet\"").nth(1).unwrap_or(body);
    for tag in form.split("<input ").skip(1) {
        let tag = tag.split('>').next().unwrap_or("");
        let get = |name: &str| {
            tag.split(&format!("{name}=\""))
                .nth(1)
                .and_then(|r| r.split('"').next())
                .map(|v| {
                    v.replace("&#34;", "\"")
                        .replace("&#60;", "<")
                        .replace("&#62;", ">")
                        .replace("&#39;", "'")
                        .replace("&#38;", "&")
                })
        };
        let ticked = !tag.contains("type=\"checkbox\"") && !tag.contains("type=\"radio\"")
            || tag.contains(" checked");
        if let (Some(name), Some(value), true) = (get("name"), get("value"), ticked) {
            out.push((name, value));
        }
    }
    for select in form.split("<select ").skip(1) {
        let name = select
            .split("name=\"")
            .nth(1)
            .and_then(|r| r.split('"').next())
            .unwrap_or("");
        let list = select.split("</select>").next().unwrap_or("");
        let chosen = list
            .split("<option value=\"")
            .skip(1)
            .find(|o| o.split('>').next().is_some_and(|t| t.contains("selected")))
            .or(list.split("<option value=\"").nth(1));
        if let Some(v) = chosen.and_then(|o| o.split('"').next()) {
            out.push((name.into(), v.into()));
        }
    }
    out
}

/// The fields of a page, some of them changed, as a body.
fn changed(body: &str, with: &[(&str, &str)]) -> String {
    let mut fields = fields_of(body);
    for (name, value) in with {
        fields.retain(|(n, _)| n != name);
        fields.push((name.to_string(), value.to_string()));
    }
    let all: Vec<(&str, &str)> = fields
        .iter()
        .map(|(n, v)| (n.as_str(), v.as_str()))
        .collect();
    pairs(&all)
}

async fn press(s: &Site, body: &str, with: &[(&str, &str)]) -> Result<String> {
    Ok(s.post("/dough/look", &changed(body, with)).await?.body)
}

#[tokio::test]
async fn a_dough_is_built_and_saved_without_a_script() -> Result<()> {
    let s = Site::open().await?;
    let page = s.get("/dough/new").await?.body;
    let page = press(&s, &page, &[("act", "add:flours")]).await?;
    assert!(page.contains("name=\"flours[1].name\" value=\"Flour 2\""));
    let page = press(
        &s,
        &page,
        &[("act", "add:preferments"), ("new_preferments", "levain")],
    )
    .await?;
    assert!(page.contains("Feed the levain"), "its feeding is said");
    let page = press(&s, &page, &[("act", "add:extras"), ("new_extras", "honey")]).await?;
    assert!(page.contains("True hydration"));
    let page = press(&s, &page, &[("act", "mode:flour")]).await?;
    assert!(page.contains("name=\"pieces.flour_g\""));
    let page = press(&s, &page, &[("act", "drop:extras:0")]).await?;
    assert!(!page.contains("extras[0].amount"));
    // A weight typed into the sheet; nonsense there is said and nothing is lost.
    let odd = press(&s, &page, &[("g:salt", "heavy")]).await?;
    assert!(odd.contains("A weight must be a number."));
    let page = press(&s, &page, &[("g:salt", "30")]).await?;
    assert!(
        page.contains("name=\"g:salt\" id=\"g-3\" value=\"30\""),
        "{}",
        page.len()
    );
    let body = changed(
        &page,
        &[
            ("name", "Levain <script>alert(1)</script> 🍕"),
            ("why", "because"),
        ],
    );
    let kept = s.post("/formulas", &body).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    // The same form again is the same version.
    assert_eq!(
        s.post("/formulas", &body).await?.header("location"),
        kept.header("location")
    );
    let one = s.get(kept.header("location")).await?.body;
    assert!(one.contains("version 1") && one.contains("🍕") && !one.contains("<script>alert"));
    s.close().await
}

#[tokio::test]
async fn a_stale_save_shows_both_versions_and_overwrites_nothing() -> Result<()> {
    let s = Site::open().await?;
    let first = s.post("/formulas", &form(&s, &[])).await?;
    let at = first.header("location").to_string();
    let id = at.trim_start_matches("/formulas/").to_string();
    let from = format!("{id}@1");
    let second = s
        .post(
            "/formulas",
            &form(
                &s,
                &[
                    ("from", &from),
                    ("hydration_percent", "64"),
                    ("why", "wetter"),
                ],
            ),
        )
        .await?;
    assert_eq!(second.status, StatusCode::SEE_OTHER);
    let late = s
        .post(
            "/formulas",
            &form(&s, &[("from", &from), ("salt_percent", "3")]),
        )
        .await?;
    assert_eq!(late.status, StatusCode::CONFLICT);
    assert!(late.body.contains("Somebody saved version 2 meanwhile"));
    assert!(late.body.contains("<td>64 %</td><td>62 %</td>") && late.body.contains("value=\"3\""));
    let page = s.get(&at).await?.body;
    assert!(page.contains("version 2") && page.contains("wetter"));
    let compared = s.get(&format!("{at}/compare?a=1&b=2")).await?.body;
    assert!(compared.contains("62 %") && compared.contains("64 %"));
    assert_eq!(
        s.get(&format!("{at}/compare?a=1&b=7")).await?.status,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    // Put away, it is not listed, and nothing of it is lost.
    s.post(&format!("{at}/away"), "").await?;
    assert!(!s.get("/formulas").await?.body.contains("Trial &#60;b&#62;"));
    assert!(
        s.get("/formulas?archived=1")
            .await?
            .body
            .contains("Trial &#60;b&#62;")
    );
    s.post(&format!("{at}/away"), "back=1").await?;
    assert!(
        s.get("/formulas?q=wetter")
            .await?
            .body
            .contains("Trial &#60;b&#62;")
    );
    let copy = s.post(&format!("{at}/copy"), "").await?;
    assert!(
        s.get(copy.header("location"))
            .await?
            .body
            .contains("Copy of Trial")
    );
    assert_eq!(s.get("/formulas/999").await?.status, StatusCode::NOT_FOUND);
    s.close().await
}

#[tokio::test]
async fn a_formula_goes_out_as_a_file_and_comes_back_the_same() -> Result<()> {
    let s = Site::open().await?;
    let kept = s
        .post(
            "/formulas",
            &form(&s, &[("hydration_percent", "63.3333333")]),
        )
        .await?;
    let at = kept.header("location").to_string();
    let file = s.get(&format!("{at}/versions/1/formula.json")).await?;
    assert_eq!(
        file.header("content-disposition"),
        "attachment; filename=\"trial-b.json\""
    );
    let page = s.upload("/formulas/import", file.body.as_bytes()).await?;
    assert_eq!(page.status, StatusCode::OK, "{}", page.errors());
    // What is kept from there is exactly what went out.
    let form = page
        .body
        .split("What was read")
        .last()
        .unwrap_or("")
        .replace("action=\"/dough/look\"", "id=\"sheet\"");
    let again = s.post("/formulas", &changed(&form, &[])).await?;
    assert_eq!(again.status, StatusCode::SEE_OTHER, "{}", again.errors());
    let back = s
        .get(&format!(
            "{}/versions/1/formula.json",
            again.header("location")
        ))
        .await?;
    assert_eq!(back.json()["formula"], file.json()["formula"]);
    let csv = s.get(&format!("{at}/versions/1/sheet.csv")).await?;
    assert!(
        csv.body
            .starts_with("ingredient,percent_of_flour,dough_g,all_g")
    );
    let ld = s.get(&format!("{at}/versions/1/recipe.jsonld")).await?;
    assert_eq!(ld.json()["@type"], "Recipe");
    let page = s.upload("/formulas/import", ld.body.as_bytes()).await?;
    assert!(page.body.contains("What was read"), "{}", page.errors());
    s.close().await
}

#[tokio::test]
async fn hostile_files_are_refused_with_a_sentence_and_nothing_is_kept() -> Result<()> {
    let s = Site::open().await?;
    let good = {
        let kept = s.post("/formulas", &form(&s, &[])).await?;
        s.get(&format!(
            "{}/versions/1/formula.json",
            kept.header("location")
        ))
        .await?
        .body
    };
    let deep = "[".repeat(100_000);
    for (file, part) in [
        ("", "Choose a file first"),
        ("nonsense", "cannot be read"),
        (deep.as_str(), "cannot be read"),
        (
            &good.replace("\"version\": 1", "\"version\": 9"),
            "version 9; this program reads version 1",
        ),
        (
            &good.replace(
                "\"hydration_percent\": 62.0",
                "\"hydration_percent\": 1e308",
            ),
            "Water 40 to 130 %",
        ),
        (&good.replace("\"pieces\"", "\"peaces\""), "unknown field"),
        ("{\"@type\": \"Recipe\"}", "Paste a recipe"),
    ] {
        let page = s.upload("/formulas/import", file.as_bytes()).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{part}");
        assert!(page.body.contains(part), "no «{part}»: {}", page.errors());
    }
    let page = s
        .upload("/formulas/import", &vec![b'x'; 50_000_000])
        .await?;
    assert_eq!(page.status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(page.body.contains("That is too much at once"));
    assert_eq!(
        s.get("/formulas")
            .await?
            .body
            .matches("<tr><th scope=\"row\">")
            .count(),
        1,
        "only the good one"
    );
    s.close().await
}

#[tokio::test]
async fn bad_formulas_get_a_sentence_at_their_field() -> Result<()> {
    let s = Site::open().await?;
    let long = "x".repeat(300);
    let poolish = |share: &'static str| {
        vec![
            ("preferments[0].kind", "poolish"),
            ("preferments[0].flour_percent", share),
            ("preferments[0].hydration_percent", "100"),
            ("preferments[0].yeast.form", "instant"),
            ("preferments[0].yeast.dose", "solve"),
            ("preferments[0].warm_h", "12"),
            ("preferments[0].cold_h", "0"),
        ]
    };
    let forty: Vec<(String, String)> = (0..40)
        .flat_map(|i| {
            [
                (format!("extras[{i}].kind"), "seeds".to_string()),
                (format!("extras[{i}].amount"), "1".into()),
            ]
        })
        .collect();
    let forty: Vec<(&str, &str)> = forty
        .iter()
        .map(|(a, b)| (a.as_str(), b.as_str()))
        .collect();
    let pan = vec![
        ("mode", "pans"),
        ("pieces.pans[0].count", "2"),
        ("pieces.pans[0].shape", "rectangle"),
        ("pieces.pans[0].length_cm", "0"),
        ("pieces.pans[0].width_cm", "30"),
        ("pieces.pans[0].dough_g_per_cm2", "0.6"),
    ];
    for (changes, sentence) in [
        (
            vec![("flours[0].share_percent", "80")],
            "The flours sum to 80 %, not 100.",
        ),
        (
            poolish("90"),
            "The poolish brings more water than the formula wants: 90 %",
        ),
        (
            poolish("120"),
            "Flour in it 0.5 to 100 %; 120 % is outside.",
        ),
        (pan, "Long 8 to 120 cm; 0 cm is outside."),
        (forty, "these are 40"),
        (
            vec![("flours[0].name", long.as_str())],
            "holds up to 80 letters; this has 300.",
        ),
        (
            vec![("flours[0].facts.w", "9000")],
            "W 80 to 450; 9000 is outside.",
        ),
        (
            vec![("yeast.dose", "given"), ("yeast.percent", "9")],
            "Instant yeast 0 to 6 %; 9 % is outside.",
        ),
        (vec![("yeast.dose", "none")], "Nothing raises this dough"),
    ] {
        for path in ["/dough", "/formulas"] {
            // The library keeps a dough that nothing raises yet; a plan cannot.
            if path == "/formulas" && sentence.starts_with("Nothing raises") {
                continue;
            }
            let page = s.post(path, &form(&s, &changes)).await?;
            assert_eq!(
                page.status,
                StatusCode::UNPROCESSABLE_ENTITY,
                "{path} {sentence}"
            );
            assert!(
                page.body.contains(sentence),
                "{path}: no «{sentence}»: {}",
                page.errors()
            );
        }
    }
    assert!(
        !s.get("/formulas").await?.body.contains("Trial"),
        "nothing is kept"
    );
    s.close().await
}

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
        "8 balls each",
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
async fn a_pasted_recipe_is_shown_line_by_line() -> Result<()> {
    let s = Site::open().await?;
    let page = s
        .post(
            "/formulas/paste",
            &pairs(&[
                (
                    "text",
                    "500 g flour\n320 g water\n<b>30 g stardust</b>\n12 g salt",
                ),
                ("style", "home_round"),
            ]),
        )
        .await?;
    assert_eq!(page.status, StatusCode::OK);
    assert!(page.body.contains("not understood") && page.body.contains("&#60;b&#62;30 g stardust"));
    assert!(
        page.body
            .contains("name=\"hydration_percent\" value=\"64\"")
    );
    let page = s
        .post("/formulas/paste", &pairs(&[("text", "hello there")]))
        .await?;
    assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.body.contains("No flour was found") && page.body.contains("hello there"));
    s.close().await
}

#[tokio::test]
async fn paper_carries_the_sheet_without_its_buttons() -> Result<()> {
    let s = Site::open().await?;
    let page = s.post("/dough/print", &form(&s, &[])).await?;
    assert_eq!(page.status, StatusCode::OK);
    assert!(page.body.contains("steps-on-paper") && !page.body.contains("name=\"g:water\""));
    let code = s.keep(&[]).await?;
    assert!(
        s.get(&format!("/batches/{code}/print"))
            .await?
            .body
            .contains(&code)
    );
    assert_eq!(
        s.post("/dough/print", &form(&s, &[("salt_percent", "99")]))
            .await?
            .status,
        StatusCode::UNPROCESSABLE_ENTITY
    );
    // A batch is used again as a sheet.
    assert!(
        s.get(&format!("/dough/new?batch={code}"))
            .await?
            .body
            .contains("Six balls take")
    );
    s.close().await
}
