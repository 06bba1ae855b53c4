//! A kitchen of ounces, °F and inches: no page, paper, label or calendar of it says °C, grams or centimetres.

use crate::site;
use crate::site::{Site, pairs, said};
use anyhow::Result;
use axum::http::StatusCode;
use craft::units::{TemperatureUnit, WeightUnit};
use std::collections::{BTreeSet, VecDeque};

/// Figures in a unit of another kitchen, with what stands around them.
fn foreign(text: &str) -> Vec<String> {
    const UNITS: [&str; 11] = [
        "K", "g", "kg", "cm", "mm", "l", "ml", "m²", "g/cm²", "kg/h", "g/l",
    ];
    let words: Vec<&str> = text.split(' ').collect();
    let mut found = Vec::new();
    for (i, word) in words.iter().enumerate() {
        let bare = word.trim_matches(|c: char| ".,;:()|".contains(c));
        let after_number = i > 0
            && words[i - 1]
                .trim_start_matches('(')
                .starts_with(|c: char| c.is_ascii_digit());
        // What a scale reads stays in the scale's own unit, and says so.
        let around = words[i.saturating_sub(8)..(i + 4).min(words.len())].join(" ");
        let of_scale = around.contains("scale") || around.contains("Scale");
        if word.contains("°C") || (after_number && UNITS.contains(&bare) && !of_scale) {
            found.push(around);
        }
    }
    found
}

/// Words that gave way to others (`docs/words.md`), with what stands around them.
fn given_up(text: &str) -> Vec<String> {
    let words: Vec<String> = text
        .split(' ')
        .map(|w| {
            w.trim_matches(|c: char| !c.is_alphanumeric())
                .to_lowercase()
        })
        .collect();
    let mut found = vec![];
    for (i, word) in words.iter().enumerate() {
        let next = words.get(i + 1).map_or("", String::as_str);
        let old = matches!(
            word.as_str(),
            "reserve" | "temper" | "tempered" | "tempering"
        ) || (matches!(word.as_str(), "rise" | "its" | "both" | "two")
            && matches!(next, "clock" | "clocks"));
        if old {
            let around = i.saturating_sub(4)..(i + 4).min(words.len());
            found.push(words[around].join(" "));
        }
    }
    found
}

/// The addresses that a page leads to; what changes something is asked by post.
fn links(page: &str) -> impl Iterator<Item = String> {
    page.split("href=\"/").skip(1).filter_map(|rest| {
        let path = rest.split(['"', '#']).next()?;
        Some(format!("/{}", path.replace("&amp;", "&")))
    })
}

/// Files for programs are in grams and °C, whoever reads the pages.
fn for_programs(path: &str) -> bool {
    let ends = [".json", ".jsonld", ".csv", ".zip", ".svg", ".css", ".js"];
    path.starts_with("/assets") || ends.iter().any(|e| path.ends_with(e))
}

#[tokio::test]
async fn a_kitchen_of_ounces_and_fahrenheit_meets_no_gram_and_no_celsius() -> Result<()> {
    let s = Site::reading_in(TemperatureUnit::Fahrenheit, WeightUnit::Ounces).await?;
    let good = [
        ("pieces.ball_g", "9"),
        ("room_c", "68"),
        ("fridge_c", "40"),
        ("target_dough_c", "73.4"),
        ("flour_c", "68"),
        ("tap_water_c", "50"),
    ];
    let code = s.keep(&good).await?;
    // With a fire of its own, and things measured.
    let fire = pairs(&[
        ("style", "hot_round"),
        ("oven", "shipped:wood_dome"),
        ("floor", "biscuit:50"),
        ("floor_c", "788"),
        ("dome_c", "887"),
        ("most_c", "932"),
        ("shelf", "top"),
        ("shape", "quarters"),
        ("hands", "2"),
        ("ball_g", "9"),
        ("sugar", "0"),
        ("malt", "0"),
        ("oil", "0"),
        ("sauce_g", "2.5"),
        ("cheese_g", "3.2"),
        ("plan", "0"),
    ]);
    let kept = s.post(&format!("/batches/{code}/fire"), &fire).await?;
    assert_eq!(kept.status, StatusCode::SEE_OTHER, "{}", kept.errors());
    for (path, body) in [
        ("readings", "subject=dough&degrees=79"),
        ("readings", "subject=fridge&degrees=46"),
        ("fire/reading", "subject=floor&degrees=500"),
    ] {
        let done = s.post(&format!("/batches/{code}/{path}"), body).await?;
        assert_eq!(done.status, StatusCode::SEE_OTHER, "{path} {body}");
    }
    // Another with a poolish, a tray, an oven and a place of the kitchen's own.
    s.keep(&[&good[..], &[("style", "hot_round"), ("cold_h", "60")]].concat())
        .await?;
    // And a pantry and formulas of its own.
    let formula = site::form(&s, &[&good[..], &[("name", "Halt round")]].concat());
    for (path, body) in [
        ("/pantry/places", "name=The+porch&air=room&c=57&off_c=4"),
        ("/pantry/scales", "name=Bench&reads_g=1&carries_g=5000"),
        ("/pantry/ovens/copy", "oven=wood_dome"),
        ("/pantry/styles/copy", "style=hot_round"),
        ("/formulas", &formula),
    ] {
        let kept = s.post(path, body).await?;
        assert_eq!(
            kept.status,
            StatusCode::SEE_OTHER,
            "{path}: {}",
            kept.errors()
        );
    }

    let mut queue: VecDeque<String> = VecDeque::from(["/".to_string()]);
    for more in ["print", "schedule.ics", "labels", "bake?whole=1", "rise"] {
        queue.push_back(format!("/batches/{code}/{more}"));
    }
    let mut seen: BTreeSet<String> = BTreeSet::new();
    let mut wrong = Vec::new();
    while let Some(path) = queue.pop_front() {
        let bare = path.split('?').next().unwrap_or(&path).to_string();
        // The first leaf of a first start names both kinds of units, to choose from; a browser test reads the others.
        let chooses = bare == "/begin";
        if chooses || for_programs(&bare) || !seen.insert(bare.clone()) || seen.len() > 300 {
            continue;
        }
        let page = s.get(&path).await?;
        if page.status != StatusCode::OK {
            continue;
        }
        let text = if path.ends_with(".ics") {
            page.body.replace("\r\n ", "").replace("\\,", ",")
        } else {
            said(&page.body)
        };
        wrong.extend(foreign(&text).into_iter().map(|w| format!("{path}: {w}")));
        wrong.extend(given_up(&text).into_iter().map(|w| format!("{path}: {w}")));
        queue.extend(links(&page.body));
    }
    assert!(seen.len() >= 40, "{seen:?}");
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));

    // What is refused is refused in the kitchen's units, too.
    for (path, body) in [
        (
            format!("/batches/{code}/readings"),
            "subject=dough&degrees=750",
        ),
        (
            format!("/batches/{code}/fire/reading"),
            "subject=floor&degrees=3000",
        ),
        ("/pantry/places".into(), "name=x&air=room&c=400"),
        (
            "/pantry/ovens".into(),
            "name=x&kind=home&fuel=electric&most_c=9000&floor=biscuit&floor_mm=90&floor_c=9000&dome_c=1&fuel_kg_h=999",
        ),
    ] {
        let page = s.post(&path, body).await?;
        assert_eq!(page.status, StatusCode::UNPROCESSABLE_ENTITY, "{path}");
        let found = foreign(&said(&page.body));
        assert!(found.is_empty(), "{path}: {}", found.join("\n"));
    }
    s.close().await
}

#[test]
fn the_walk_knows_a_foreign_figure_when_it_meets_one() {
    let page = "<p>At 23 °C for <b>250</b> g</p><i aria-label=\"30 cm round\"></i>";
    assert_eq!(foreign(&said(page)).len(), 3);
    let old = "<p>Temper the balls: reserve 57, Rise clock 90. Reserved for both.</p>";
    assert_eq!(given_up(&said(old)).len(), 3);
    let fine = "<p>At 73 °F; a 0.1 g scale errs by 3 %. In 12 m.</p><style>a{b:3 g}</style>";
    assert!(
        foreign(&said(fine)).is_empty(),
        "{:?}",
        foreign(&said(fine))
    );
}
