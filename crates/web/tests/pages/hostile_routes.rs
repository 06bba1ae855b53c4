//! Arbitrary requests to every address: each gets an answer that was meant, none breaks the program or leaves a page that
//! cannot be shown. Some hundreds in every run; `HOSTILE_CASES=100000` for a long one.

use crate::site;
use crate::site::Site;
use anyhow::Result;
use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::TestRunner;

/// Every address that takes a request, with `CODE`, `ID` and `KEY` to be filled in.
fn paths() -> Vec<String> {
    let mut all: Vec<String> = web::all_doors().into_iter().map(|d| d.path).collect();
    all.sort();
    all.dedup();
    // Files are tested elsewhere, and the body of a stream has no end.
    all.retain(|p| !p.starts_with("/assets") && !p.ends_with("/run") && !p.ends_with("/stream"));
    for p in &mut all {
        *p = p
            .replace("{code}", "CODE")
            .replace("{entry}", "KEY")
            .replace("{secret}", "KEY")
            .replace("{file}", "KEY");
        for id in ["{id}", "{position}", "{number}"] {
            *p = p.replace(id, "ID");
        }
        *p = p.replace("{kind}", "sheet");
    }
    all
}

/// Fields that forms really have, and values that hurt.
const FIELDS: [&str; 59] = [
    "bowl",
    "run",
    "step",
    "minutes",
    "part",
    "c",
    "what",
    "way",
    "line",
    "done",
    "sign",
    "trouble",
    "machine",
    "capacity_kg",
    "at",
    "count",
    "part_count",
    "part_way",
    "part_serve",
    "first",
    "sent_at",
    "device_at",
    "when",
    "until",
    "entry_key",
    "batch_id",
    "form_key",
    "do",
    "subject",
    "degrees",
    "remark",
    "kind",
    "pizza",
    "verdict",
    "sure",
    "plan",
    "act",
    "take",
    "name",
    "style",
    "oven",
    "serve_date",
    "serve_time",
    "mode",
    "pieces.count",
    "pieces.ball_g",
    "hydration_percent",
    "flours[0].share_percent",
    "flours[0].facts.w",
    "legs[0].data",
    "preferments[0].kind",
    "yeast.form",
    "bulk_h",
    "cold_h",
    "life",
    "revision",
    "text",
    "skip",
    "theme",
];

fn value() -> impl Strategy<Value = String> {
    prop_oneof![
        Just(String::new()),
        Just("0".into()),
        Just("-1".into()),
        Just("4294967295".into()),
        Just("99999999999999999999".into()),
        Just("1e308".into()),
        Just("NaN".into()),
        Just("0001-01-01T00:00:00Z".into()),
        Just("9999-12-30T21:59:59Z".into()),
        Just("2026-11-27T14:30".into()),
        Just("11111111-1111-4111-8111-111111111111".into()),
        Just("<script>\u{202e}\u{0}\r\n'\"--".into()),
        Just("{\"kind\":[[[[".into()),
        Just("hot_round".into()),
        Just("in".into()),
        Just("right/right".into()),
        Just("floor".into()),
        "[0-9]{1,4}",
        "\\PC{0,40}",
        (1usize..30_000).prop_map(|n| "x".repeat(n)),
    ]
}

fn form() -> impl Strategy<Value = Vec<(usize, String)>> {
    prop::collection::vec((0..FIELDS.len(), value()), 0..14)
}

#[tokio::test]
async fn no_request_breaks_the_program() -> Result<()> {
    let cases: u32 = std::env::var("HOSTILE_CASES")
        .ok()
        .and_then(|n| n.parse().ok())
        .unwrap_or(700);
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let good = site::form(&s, &[]);
    let paths = paths();
    let mut runner = TestRunner::deterministic();
    let asked = (
        0..paths.len(),
        any::<bool>(),
        form(),
        prop::sample::select(vec!["form", "good form", "json", "bytes"]),
        prop::sample::select(vec!["1", "2", "0", "18446744073709551616", "x", "-1"]),
    );
    for _ in 0..cases {
        let (path, posts, fields, kind, id) = asked
            .new_tree(&mut runner)
            .map_err(anyhow::Error::msg)?
            .current();
        let path = paths[path]
            .replace("CODE", if id == "x" { "ZZ-99" } else { &code })
            .replace("ID", id)
            .replace("KEY", "11111111-1111-4111-8111-111111111111");
        let pairs: Vec<(&str, &str)> = fields
            .iter()
            .map(|(i, v)| (FIELDS[*i], v.as_str()))
            .collect();
        let body = match kind {
            "good form" => format!("{good}&{}", site::pairs(&pairs)),
            "json" => serde_json::json!({ "a": pairs }).to_string(),
            "bytes" => fields.iter().map(|(_, v)| v.as_str()).collect(),
            _ => site::pairs(&pairs),
        };
        let answer = if posts {
            s.post(&path, &body).await?
        } else {
            let query: String = body.chars().take(4000).filter(char::is_ascii).collect();
            let query = query.replace(
                [
                    ' ', '"', '<', '>', '\\', '{', '}', '|', '^', '`', '#', '\r', '\n', '\0',
                ],
                "",
            );
            s.get(&format!("{path}?{query}")).await?
        };
        let status = answer.status.as_u16();
        assert!(
            status < 500,
            "{status} for {path}, posted {posts}: {}",
            body.chars().take(800).collect::<String>()
        );
    }
    // Whatever was kept of it, every page can be shown.
    // One of them may have begun another kitchen: back into the first.
    s.post("/kitchens/1", "").await?;
    for page in [
        "/",
        "/ledger",
        "/formulas",
        "/pantry",
        "/kitchen",
        "/rise",
        "/fire",
    ] {
        assert!(s.get(page).await?.status.is_success(), "{page}");
    }
    for part in [
        "",
        "/mix",
        "/shape",
        "/rise",
        "/fire",
        "/bake",
        "/bakes",
        "/print",
        "/labels",
        "/batch.json",
    ] {
        let a = s.get(&format!("/batches/{code}{part}")).await?;
        assert!(a.status.is_success(), "{part}: {}", a.status);
    }
    s.close().await
}
