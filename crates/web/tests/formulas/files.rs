//! Formulas as files and pasted recipes.

use super::*;

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
