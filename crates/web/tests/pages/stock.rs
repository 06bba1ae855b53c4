//! What a kitchen has: reserved by plans, taken by mixing, bought for what is missing.

use crate::site::{Site, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;

/// The row of a flour in the pantry.
async fn row(s: &Site, name: &str) -> Result<String> {
    let page = s.get("/pantry").await?.body;
    let rest = page.split(name).nth(1).context("no such flour")?;
    Ok(rest.split("</tr>").next().unwrap_or("").to_string())
}

/// The values of the fields of that name on a page.
fn values<'a>(page: &'a str, name: &str) -> Option<&'a str> {
    let at = page.split(&format!("name=\"{name}\" value=\"")).nth(1)?;
    at.split('"').next()
}

#[tokio::test]
async fn a_plan_reserves_its_flour_mixing_takes_it_and_the_bag_that_keeps_least_goes_first()
-> Result<()> {
    let s = Site::open().await?;
    let flour = [
        ("name", "Quernside No. 4"),
        ("kind", "soft_fine"),
        ("w", "290"),
        ("bags[0].left_g", "5 kg"),
        ("bags[0].best_before", "2028-05-01"),
        ("bags[1].left_g", "600"),
        ("bags[1].best_before", "2028-02-01"),
    ];
    let kept = s.post("/pantry/flours", &pairs(&flour)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let id = kept
        .header("location")
        .split(['=', '#'])
        .nth(1)
        .context("its number")?
        .to_string();
    let said = s.get(kept.header("location")).await?.body;
    assert!(said.contains("<b>Quernside No. 4</b> is kept."));
    assert!(row(&s, "Quernside No. 4").await?.contains("<b>5,600</b>"));
    // Its plan keeps what it will take, and the next dough is told what is free.
    let own = [
        ("flours[0].name", "Quernside No. 4"),
        ("flours[0].pantry", id.as_str()),
    ];
    let code = s.keep(&own).await?;
    let planned = row(&s, "Quernside No. 4").await?;
    assert!(
        planned.contains("<b>5,600</b>") && planned.contains("g planned"),
        "{planned}"
    );
    let path = format!("/batches/{code}");
    let say = async |word: &str| {
        s.post(&format!("{path}/steps/0"), &pairs(&[("do", word)]))
            .await
            .map(|a| assert_eq!(a.status, StatusCode::SEE_OTHER, "{word}"))
    };
    say("begin").await?;
    let mixed = row(&s, "Quernside No. 4").await?;
    assert!(
        !mixed.contains("planned") && !mixed.contains("<b>5,600</b>"),
        "{mixed}"
    );
    let page = s.get(&format!("/pantry/flours/{id}")).await?.body;
    let (first, second) = (
        values(&page, "bags[0].left_g").context("bag")?.to_string(),
        values(&page, "bags[1].left_g").context("bag")?.to_string(),
    );
    assert_eq!(second, "0", "the one that keeps least is used first");
    assert!(
        first.starts_with("46") || first.starts_with("47"),
        "{first}"
    );
    // A slip gives it back.
    say("undo").await?;
    assert!(row(&s, "Quernside No. 4").await?.contains("<b>5,600</b>"));
    say("begin").await?;
    // Another price is no count: what was taken stays taken, once.
    let mut changed = flour.to_vec();
    changed[3].1 = &first;
    changed[5].1 = &second;
    let counted = values(&page, "counted_at").context("when")?.to_string();
    changed.extend([
        ("price_per_kg", "1.35"),
        ("revision", "1"),
        ("counted_at", &counted),
    ]);
    let saved = s
        .post(&format!("/pantry/flours/{id}"), &pairs(&changed))
        .await?;
    assert_eq!(saved.status, StatusCode::SEE_OTHER, "{}", saved.errors());
    let after = s.get(&format!("/pantry/flours/{id}")).await?.body;
    // The begin after the slip lies after what was shown: it comes off again, from what was given back meanwhile.
    assert!(values(&after, "bags[0].left_g").is_some_and(|g| g != first));
    s.close().await
}

#[tokio::test]
async fn a_kitchen_says_how_long_its_hands_take_and_may_have_no_fine_scale() -> Result<()> {
    let s = Site::open().await?;
    let page = s.get("/kitchen").await?.body;
    assert_eq!(values(&page, "open_s"), Some("40"));
    let of = |name: &str| values(&page, name).unwrap_or("").to_string();
    let mut fields: Vec<(String, String)> = [
        "name",
        "currency",
        "time_zone",
        "altitude_m",
        "room_c",
        "fridge_c",
        "fridge_off_c",
        "room_off_c",
        "quiet",
        "busy",
        "tap_water_c",
        "kitchen_scale_g",
        "mixer_holds_g",
        "open_s",
        "top_s",
        "load_s",
        "turn_s",
        "pull_s",
        "cut_s",
    ]
    .map(|n| (n.to_string(), of(n)))
    .into();
    for (name, v) in [
        ("weight", "grams"),
        ("temperature", "celsius"),
        ("length", "centimetres"),
        ("fridge_measured", "no"),
        ("fine_scale_g", ""),
        ("revision", "0"),
        ("busy", "lun-ven 09:00-12:00"),
        ("mixer_holds_g", "25 kg"),
        ("room_c", "68 °F"),
    ] {
        fields.retain(|(n, _)| n != name);
        fields.push((name.into(), v.into()));
    }
    let send = |fields: &[(String, String)]| {
        let all: Vec<(&str, &str)> = fields
            .iter()
            .map(|(n, v)| (n.as_str(), v.as_str()))
            .collect();
        pairs(&all)
    };
    let mut wrong = fields.clone();
    wrong.push(("open_s".into(), "2".into()));
    let refused = s.post("/kitchen", &send(&wrong)).await?;
    assert!(
        refused
            .body
            .contains("Opening one 5 s to 5 min; 2 s is outside."),
        "{}",
        refused.errors()
    );
    let kept = s.post("/kitchen", &send(&fields)).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let page = s.get(kept.header("location")).await?.body;
    assert!(page.contains(">Saved.<"));
    assert_eq!(values(&page, "fine_scale_g"), Some(""));
    assert_eq!(values(&page, "busy"), Some("Mon-Fri 09:00-12:00"));
    assert_eq!(values(&page, "mixer_holds_g"), Some("25000"));
    assert_eq!(values(&page, "room_c"), Some("20"));
    // Without a fine scale the dose is weighed by the gram, or told another way.
    let sheet = s.get("/dough/new").await?.body;
    assert!(
        sheet.contains("aria-label=\"Dilution\""),
        "a dose below the scale"
    );
    s.close().await
}
