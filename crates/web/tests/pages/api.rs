//! The API: the examples of docs/api.md are run as they stand; errors are lists of field and message.

use crate::excerpt::assert_holds;
use crate::site::ask;
use anyhow::Result;
use axum::http::StatusCode;
use serde_json::Value;

/// `(kind, request, excerpt of the result)` for each example in the document.
fn examples() -> Vec<(String, String, Value)> {
    let text = include_str!("../../../../docs/api.md");
    text.split("\n## `")
        .skip(1)
        .map(|section| {
            let kind = section.split('`').next().unwrap().to_string();
            let mut blocks = section
                .split("```json\n")
                .skip(1)
                .map(|b| b.split("```").next().unwrap());
            let request = blocks.next().unwrap().to_string();
            let result = serde_json::from_str(blocks.next().unwrap()).unwrap();
            (kind, request, result)
        })
        .collect()
}

/// The API needs no database.
fn router() -> axum::Router {
    web::router(store::Db::at("mysql://nobody:x@127.0.0.1:1/none").unwrap())
}

#[tokio::test]
async fn the_documented_examples_give_the_documented_results() -> Result<()> {
    let mut kinds = Vec::new();
    for (kind, request, excerpt) in examples() {
        let answer = ask(
            &router(),
            "POST",
            &format!("/api/v1/reckon/{kind}"),
            &request,
            &[],
        )
        .await?;
        assert_eq!(answer.status, StatusCode::OK, "{kind}: {}", answer.body);
        assert_holds(&kind, &excerpt, &answer.json());
        kinds.push(kind);
    }
    assert_eq!(
        kinds,
        [
            "formula",
            "water",
            "rise",
            "solve-yeast",
            "sheet",
            "paste",
            "substitute",
            "fit",
            "solve-hours",
            "vigour",
            "learn",
            "diagnose",
            "fit-life",
            "bake",
            "fire",
            "firing",
            "set-points"
        ]
    );
    Ok(())
}

#[tokio::test]
async fn every_kind_has_a_schema_that_names_the_fields_of_its_example() -> Result<()> {
    for (kind, request, _) in examples() {
        let schema = ask(&router(), "GET", &format!("/api/v1/schema/{kind}"), "", &[])
            .await?
            .json();
        let known = schema["request"]["properties"].as_object().unwrap();
        let asked: Value = serde_json::from_str(&request)?;
        for field in asked.as_object().unwrap().keys() {
            assert!(known.contains_key(field), "{kind}: {field}");
        }
        assert!(schema["result"].is_object());
    }
    Ok(())
}

#[tokio::test]
async fn errors_are_a_list_of_field_and_message() -> Result<()> {
    let good = examples().remove(0).1;
    let path = "/api/v1/reckon/formula";
    let bad = good.replacen("\"hydration_percent\": 64", "\"hydration_percent\": 340", 1);
    let answer = ask(&router(), "POST", path, &bad, &[]).await?;
    assert_eq!(answer.status, StatusCode::UNPROCESSABLE_ENTITY);
    let expected = serde_json::json!({"errors": [{"field": "formula.hydration_percent", "message": {
        "code": "outside-range",
        "values": {
            "what": {"fact": {"code": "f-water", "values": {}}},
            "range": {"range": [{"percent": 40.0}, {"percent": 130.0}]},
            "value": {"percent": 340.0},
        },
        "text": "Water 40 to 130 %; 340 % is outside.",
    }}]});
    assert_eq!(answer.json(), expected);
    let cases = [
        (
            good.replacen("64", "\"wet\"", 1),
            "formula.hydration_percent",
        ),
        (
            good.replacen("\"count\": 6", "\"count\": -6", 1),
            "formula.pieces",
        ),
        (good.replacen("salt_percent", "salt", 1), "formula.salt"),
        (
            good.replacen("hot_round", "cold_square", 1),
            "formula.style",
        ),
        ("{".into(), ""),
        (String::new(), ""),
        ("[".repeat(100_000), ""),
    ];
    for (body, field) in cases {
        let answer = ask(&router(), "POST", path, &body, &[]).await?;
        assert_eq!(answer.status, StatusCode::UNPROCESSABLE_ENTITY);
        let error = &answer.json()["errors"][0];
        let named = error["field"].as_str().unwrap();
        assert!(named.starts_with(field), "{named} for {field}: {error}");
        assert!(error["message"]["text"].as_str().unwrap().ends_with('.'));
    }
    let answer = ask(&router(), "POST", "/api/v1/reckon/toast", "{}", &[]).await?;
    assert_eq!(answer.status, StatusCode::NOT_FOUND);
    assert!(
        answer.json()["errors"][0]["message"]["text"]
            .as_str()
            .unwrap()
            .contains("solve-yeast")
    );
    assert_eq!(
        ask(&router(), "GET", "/api/v1/nothing", "", &[])
            .await?
            .status,
        StatusCode::NOT_FOUND
    );
    Ok(())
}
