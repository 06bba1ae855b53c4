//! Formulas as files and pasted recipes.

use super::*;
use anyhow::Context;
use craft::people::Role;
use store::kitchen;
use store::people::person;

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
async fn a_formula_goes_into_another_kitchen_of_ones_own_and_into_no_other() -> Result<()> {
    let s = Site::open().await?;
    let a = s
        .post("/formulas", &form(&s, &[("name", "Travelling round")]))
        .await?;
    let at = a
        .header("location")
        .split(['?', '#'])
        .next()
        .unwrap_or("")
        .to_string();
    let now = jiff::Timestamp::now();
    let mut db = s.pool.acquire().await?;
    let me = person::at_home(&mut db).await?.context("an owner")?;
    let mut theirs = vec![];
    for (name, role) in [
        ("Second", Some(Role::Planner)),
        ("Third", Some(Role::Cook)),
        ("Elsewhere", None),
    ] {
        let there = kitchen::add(&mut db, &crate::site::new_kitchen(name), now).await?;
        if let Some(role) = role {
            person::join(&mut db, there, me.id, role, now).await?;
        }
        theirs.push(there.0.to_string());
    }
    drop(db);
    let page = s.get(&at).await?;
    assert!(page.body.contains("Copy into"), "{at}");
    assert!(page.body.contains(">Second<") && !page.body.contains(">Third<"));
    let key = uuid::Uuid::new_v4().to_string();
    let into = |k: &str| pairs(&[("form_key", &key), ("kitchen", k)]);
    let to = format!("{at}/into");
    for no in [theirs[1].as_str(), &theirs[2], "0", "", "x"] {
        let a = s.post(&to, &into(no)).await?;
        assert_eq!(a.status, StatusCode::UNPROCESSABLE_ENTITY, "{no}");
    }
    for _ in 0..2 {
        let a = s.post(&to, &into(&theirs[0])).await?;
        assert_eq!(a.header("location"), format!("{at}?into={}", theirs[0]));
    }
    assert!(
        s.get(&format!("{at}?into={}", theirs[0]))
            .await?
            .body
            .contains("It is in the library of Second")
    );
    let there = s.get(&format!("/formulas?k={}", theirs[0])).await?;
    assert_eq!(
        there.body.matches("<tr><th scope=\"row\">").count(),
        1,
        "sent twice, it is there once"
    );
    assert!(there.body.contains("Travelling round"));
    assert!(
        there.body.contains("version 1"),
        "its first version says where it came from"
    );
    s.close().await
}
