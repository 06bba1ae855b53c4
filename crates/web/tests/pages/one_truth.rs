//! One batch through pages, print, labels, calendar, CSV and JSON: each figure is one figure.

use crate::site::{Site, pairs};
use anyhow::{Context, Result};
use axum::http::StatusCode;

/// The text between two marks.
fn between<'a>(text: &'a str, from: &str, to: &str) -> &'a str {
    let rest = text.split_once(from).map_or("", |(_, r)| r);
    rest.split_once(to).map_or("", |(t, _)| t)
}

/// Without tags, spaces single.
fn plain(html: &str) -> String {
    let mut out = String::new();
    let mut inside = false;
    for c in html.chars() {
        match c {
            '<' => inside = true,
            '>' => {
                inside = false;
                out.push(' ');
            }
            c if !inside => out.push(c),
            _ => {}
        }
    }
    out.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Kitchen with one scale that reads a gram: small doses go in dissolved.
async fn coarse_scale(s: &Site) -> Result<()> {
    let scale = pairs(&[("name", "Bench"), ("reads_g", "1"), ("carries_g", "5000")]);
    let kept = s.post("/pantry/scales", &scale).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    Ok(())
}

#[tokio::test]
async fn a_dose_below_the_scale_is_one_dose_with_one_water_everywhere() -> Result<()> {
    let s = Site::open().await?;
    coarse_scale(&s).await?;
    let code = s.keep(&[("pieces.count", "4")]).await?;
    let path = format!("/batches/{code}");
    let page = s.get(&path).await?.body;
    let text = plain(&page);
    let dose = between(&page, "id=\"solved-yeast\">", "<").to_string();
    let grams: f64 = dose.parse().context(dose.clone())?;
    assert!(grams > 0.0 && grams < 5.0, "{dose}");
    // The cups and the steps: the same part of the mixture, the same water besides.
    let take =
        between(&text, "goes in", "").to_string() + between(&page, "class=\"b d18\">take ", " g<");
    let poured = between(&text, "pour ", " g water besides").to_string();
    assert!(!poured.is_empty(), "no water besides");
    let step = plain(between(&page, "data-step=\"0\"", "</li>"));
    assert!(
        step.contains(&format!("{take} g of the yeast water")),
        "{take}: {step}"
    );
    assert!(
        step.contains(&format!("{} g water at ", poured.replace(',', ""))),
        "{poured}: {step}"
    );
    assert!(step.contains(" g salt") && !step.contains("dry"), "{step}");
    // The row of the table, print, Rise, CSV and JSON say the same dose.
    let print = s.get(&format!("{path}/print")).await?.body;
    let row = plain(between(
        &print,
        "<th scope=\"row\">Instant yeast</th>",
        "</tr>",
    ));
    assert!(row.contains(&format!("{dose}*")), "{dose}: {row}");
    let said = between(&step, "Weigh and mix ", ". Aim").to_string();
    assert!(!said.is_empty() && plain(&print).contains(&said), "{said}");
    let rise = plain(&s.get(&format!("{path}/rise")).await?.body);
    assert!(
        rise.contains(&format!("{dose} g")) || rise.contains(&format!("{dose}g")),
        "{dose} on Rise"
    );
    let calendar = s
        .get(&format!("{path}/schedule.ics"))
        .await?
        .body
        .replace("\r\n ", "");
    assert!(
        calendar.contains(&format!("{take} g of the yeast water")),
        "calendar"
    );
    let json = s.get(&format!("{path}/batch.json")).await?.json();
    let rows = json["worked_out"]["formula"]["rows"]
        .as_array()
        .context("rows")?
        .clone();
    let yeast = rows
        .iter()
        .find(|r| r["ingredient"] == "yeast")
        .context("yeast")?;
    assert_eq!(yeast["weigh_g"].as_f64(), Some(grams));
    s.close().await
}

#[tokio::test]
async fn what_the_fire_keeps_is_said_by_every_page() -> Result<()> {
    let s = Site::open().await?;
    let code = s.keep(&[]).await?;
    let path = format!("/batches/{code}");
    // Without an oven a style knows a range and says so.
    let step = |page: &str| {
        let at = page.rfind("data-step=").unwrap();
        plain(&page[at..][..page[at..].find("</li>").unwrap()])
    };
    let bare = step(&s.get(&path).await?.body);
    assert!(
        bare.contains("by the style; plan the fire for your oven"),
        "{bare}"
    );
    let fire = pairs(&[
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
        ("plan", "0"),
    ]);
    let kept = s.post(&format!("{path}/fire"), &fire).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    let json = s.get(&format!("{path}/batch.json")).await?.json();
    let out_s = json["worked_out"]["programme"]["out_s"]
        .as_u64()
        .context("out")?;
    let said = format!("about {} each", speech::value::span(out_s as f64));
    assert!(step(&s.get(&path).await?.body).contains(&said), "{said}");
    for at in ["print", "schedule.ics"] {
        let text = s
            .get(&format!("{path}/{at}"))
            .await?
            .body
            .replace("\r\n ", "");
        assert!(plain(&text).contains(&said), "{at}: {said}");
    }
    let light = plain(&s.get(&format!("{path}/fire")).await?.body);
    let lit_at = between(&light, "Light it at ", ".").to_string();
    let steps = plain(&s.get(&path).await?.body);
    assert!(
        !lit_at.is_empty() && steps.contains(&format!("{lit_at} Light the oven")),
        "{lit_at}"
    );
    let preheat = json["asked"]["fire"]["preheat_min"]
        .as_f64()
        .context("preheat")?;
    let page = s.get(&path).await?.body;
    assert!(
        plain(&page).contains(&format!(
            "{} to charge the floor",
            speech::value::span(60.0 * preheat)
        )),
        "{preheat}"
    );
    s.close().await
}

#[tokio::test]
async fn a_dough_made_again_begins_from_what_was_learnt() -> Result<()> {
    let s = Site::open().await?;
    let serve = s.local_in_hours(20);
    let code = s
        .begun(&[("serve_date", &serve.0), ("serve_time", &serve.1)])
        .await?;
    let path = format!("/batches/{code}");
    let read = pairs(&[("subject", "fridge"), ("degrees", "9")]);
    s.post(&format!("{path}/readings"), &read).await?;
    let again = s.get(&format!("/dough/new?batch={code}")).await?;
    assert_eq!(again.status, StatusCode::OK);
    let head = |page: &str| between(page, "<h1>", "</h1>").to_string();
    let field = |page: &str| {
        let from = page.find("name=\"fridge_c\"").map_or("", |i| &page[i..]);
        between(from, "value=\"", "\"").to_string()
    };
    assert!(plain(&again.body).contains("the fridge 9.0° where 4.5° was planned"));
    let solved = between(&again.body, "name=\"yeast.dose\"", "</select>");
    assert!(solved.contains("value=\"solve\" selected"), "{solved}");
    assert_eq!(field(&again.body), "4.5");
    // One press takes what was measured: the same dough for a fridge of nine degrees, with less yeast.
    let take = format!("/dough/new?batch={code}&measured=yes");
    assert!(
        again.body.contains(&take.replace('&', "&#38;")),
        "no way to take it"
    );
    let taken = s.get(&take).await?;
    assert_eq!(
        (taken.status, field(&taken.body)),
        (StatusCode::OK, "9".into())
    );
    assert!(plain(&taken.body).contains("The places below are as they were measured."));
    assert_ne!(head(&taken.body), head(&again.body));
    s.close().await
}
