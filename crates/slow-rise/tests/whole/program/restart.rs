//! What was entered is there after a power cut, and a database that is gone for a moment loses nothing.

use crate::database::Database;
use crate::program::{Program, run};
use anyhow::Result;
use std::path::PathBuf;
use testbed::wait::until;

fn form(serve: &jiff::Zoned, key: &str) -> Vec<(&'static str, String)> {
    [
        ("form_key", key),
        ("style", "hot_round"),
        ("name", "Halt round"),
        ("pieces.count", "6"),
        ("mode", "balls"),
        ("pieces.ball_g", "250"),
        ("loss_percent", "1.5"),
        ("hydration_percent", "62"),
        ("salt_percent", "2.8"),
        ("oil_percent", "0"),
        ("sugar_percent", "0"),
        ("flours[0].name", "Flour"),
        ("flours[0].share_percent", "100"),
        ("flours[0].facts.w", "300"),
        ("yeast.form", "instant"),
        ("mixer", "hand"),
        ("room_c", "19.5"),
        ("fridge_c", "4.5"),
        ("target_dough_c", "23"),
        ("flour_c", "19.5"),
        ("tap_water_c", "9.5"),
        ("bulk_h", "2"),
        ("cold_h", "24"),
        ("temper_h", "4"),
    ]
    .into_iter()
    .map(|(k, v)| (k, v.to_string()))
    .chain([
        ("serve_date", serve.date().to_string()),
        ("serve_time", serve.strftime("%H:%M").to_string()),
    ])
    .collect()
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn nothing_entered_is_lost_by_a_power_cut_or_a_database_that_is_away() -> Result<()> {
    let folder =
        PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join(format!("restart-{}", std::process::id()));
    let database = Database::start(&folder, None)?;
    run(&database.url, &["migrate"])?;
    run(&database.url, &["demo"])?;
    let program = Program::serve(&database.url)?;
    let web = reqwest::Client::new();
    let get = async |url: String| -> Result<(u16, String)> {
        let answer = web.get(url).send().await?;
        Ok((answer.status().as_u16(), answer.text().await?))
    };
    let serve = jiff::Zoned::now().with_time_zone(jiff::tz::TimeZone::get("Europe/London")?)
        + jiff::SignedDuration::from_hours(72);

    // Save a batch, mark a step, write a remark.
    let saved = web
        .post(program.url("/dough"))
        .header("origin", &program.address)
        .form(&form(&serve, "4a1e9a36-0000-4000-8000-000000000001"))
        .send()
        .await?;
    let path = saved.url().path().to_string();
    assert!(
        path.starts_with("/batches/HR-"),
        "{path}: {}",
        saved.text().await?
    );
    web.post(program.url(&format!("{path}/steps/0")))
        .header("origin", &program.address)
        .form(&[("do", "done")])
        .send()
        .await?
        .error_for_status()?;
    web.post(program.url(&format!("{path}/remarks")))
        .header("origin", &program.address)
        .form(&[("remark", "Written before the cut")])
        .send()
        .await?
        .error_for_status()?;

    // kill -9 of both, then start both again.
    let url = database.url.clone();
    program.kill()?;
    let (folder, port) = database.kill()?;
    let database = Database::start(&folder, Some(&port))?;
    let program = Program::serve(&url)?;
    let (status, page) = get(program.url(&path)).await?;
    assert_eq!(status, 200);
    assert!(page.contains("Written before the cut") && page.contains("mixed, resting"));

    // The database goes away under the running program: a clear page that holds what was typed.
    let (folder, port) = database.kill()?;
    let body = form(&serve, "4a1e9a36-0000-4000-8000-000000000002");
    let answer = web
        .post(program.url("/dough"))
        .header("origin", &program.address)
        .form(&body)
        .send()
        .await?;
    assert_eq!(answer.status().as_u16(), 503);
    let page = answer.text().await?;
    assert!(
        page.contains("The records are out of reach")
            && page.contains("name=\"hydration_percent\" value=\"62\""),
        "{page}"
    );
    assert_eq!(get(program.url("/health")).await?.0, 200);

    // It comes back; the program works again by itself, and what was typed can be sent again.
    let database = Database::start(&folder, Some(&port))?;
    until("the Bench to come back", async || {
        get(program.url("/"))
            .await
            .is_ok_and(|(status, _)| status == 200)
    })
    .await?;
    let again = web
        .post(program.url("/dough"))
        .header("origin", &program.address)
        .form(&body)
        .send()
        .await?;
    assert!(
        again.url().path().starts_with("/batches/HR-"),
        "{}",
        again.url()
    );
    assert_ne!(again.url().path(), path);

    // The demo of the next day leaves alone what a maker entered.
    run(&database.url, &["demo"])?;
    assert_eq!(get(program.url(&path)).await?.0, 200);
    program.kill()?;
    drop(database);
    std::fs::remove_dir_all(&folder)?;
    Ok(())
}
