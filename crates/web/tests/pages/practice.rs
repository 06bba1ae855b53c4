//! Practice over HTTP: a case counts once, and what no case has is asked again.

use crate::site::{Site, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;

#[tokio::test]
async fn a_case_counts_once_and_nothing_else_counts() -> Result<()> {
    let s = Site::open().await?;
    let first = said(&s.get("/practice?level=1").await?.body);
    assert!(first.contains("Case 1") && !first.contains("the models’ answer"));
    let post = async |fields: &[(&str, &str)]| s.post("/practice", &pairs(fields)).await;
    // No choice, one that is not there, words: the same case is asked again.
    for choice in ["", "9", "-1", "first"] {
        let page = post(&[("level", "1"), ("case", "0"), ("choice", choice)]).await?;
        assert_eq!(page.status, StatusCode::OK, "{choice}");
        assert!(said(&page.body).contains("not tried yet"), "{choice}");
    }
    for _ in 0..2 {
        let page = post(&[("level", "1"), ("case", "0"), ("choice", "0")]).await?;
        let words = said(&page.body);
        assert!(words.contains("the models’ answer"), "{words}");
        assert!(
            words.contains("0 of 1") || words.contains("1 of 1"),
            "{words}"
        );
    }
    // One from far ahead is the next one.
    post(&[("level", "1"), ("case", "4000000000"), ("choice", "0")]).await?;
    let words = said(&s.get("/practice?level=1").await?.body);
    assert!(
        words.contains("Case 3") && words.contains("of 2"),
        "{words}"
    );
    // A level that there is not is the first.
    for level in ["0", "4", "x"] {
        let words = said(&s.get(&format!("/practice?level={level}")).await?.body);
        assert!(words.contains("Case 3"), "{level}");
    }
    s.close().await
}
