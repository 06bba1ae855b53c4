//! Steps as a calendar: of one batch, and of the whole kitchen at a secret address.
//!
//! Events are known by batch and step number, so that a changed plan moves them instead of adding others; the sequence
//! is the number of the plan. Instants are UTC: a calendar shows them at the right local time across a change of summer
//! time.

use crate::App;
use crate::access::asker::Asker;
use crate::access::doors::{Asks, Doors, LOOK, OWN};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::one_line;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use chrono::DateTime;
use craft::sheet::StepKind;
use icalendar::{Alarm, Calendar, Component, Event, EventLike, Trigger};
use jiff::Timestamp;
use std::sync::Arc;
use store::kitchen;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/schedule.ics", of_batch)
        .get(LOOK, "/calendar", show)
        .post(OWN, "/calendar/renew", renew)
        .get(Asks::Nothing, "/feed/{file}", feed)
}

async fn of_batch(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let goes = app.goes(&told, &here).await?;
    let told = told.following(&goes);
    let mut calendar = begun(&format!("{code} {}", told.batch.name), &here);
    add(&mut calendar, &told, &here, false);
    Ok(super::attachment(
        calendar.done().to_string().into_bytes(),
        "text/calendar; charset=utf-8",
        format!("{code}.ics"),
    ))
}

fn begun(name: &str, here: &RequestKitchen) -> Calendar {
    let mut calendar = Calendar::empty();
    for (name, value) in [
        ("VERSION", "2.0"),
        ("PRODID", "-//Slow Rise//Batch schedule//EN"),
        ("CALSCALE", "GREGORIAN"),
    ] {
        calendar.append_property((name, value));
    }
    calendar.name(&one_line(name));
    calendar.timezone(here.kitchen.usual.time_zone.as_str());
    calendar
}

/// A plan has fewer entries than this.
const ENTRIES_A_PLAN: u32 = 10_000;

/// The steps of a batch; a feed leaves out what is done.
fn add(calendar: &mut Calendar, told: &BatchRecord, here: &RequestKitchen, only_open: bool) {
    let utc = |t: Timestamp| DateTime::from_timestamp(t.as_second(), 0).unwrap_or_default();
    let batch = &told.batch;
    // What is entered moves what is still to do: each entry makes it a later word of the same event.
    let entered = batch.entries.seen.len() + batch.entries.taken_back.len();
    let sequence = batch.plan * ENTRIES_A_PLAN + (entered as u32).min(ENTRIES_A_PLAN - 1);
    for (step, state) in batch.sheet.result.steps.iter().zip(&told.progress.steps) {
        if only_open && state.done.is_some() {
            continue;
        }
        let minutes = step.hands_on_min.max(5.0) as i64;
        let mut event = Event::new();
        event
            .uid(&format!(
                "{}-{}-{}@{}.slow-rise",
                batch.code,
                batch.id.0,
                step.number,
                here.id().0
            ))
            .timestamp(utc(batch.planned_at))
            .sequence(sequence)
            .starts(utc(step.at))
            .ends(utc(step.at) + chrono::Duration::minutes(minutes))
            // A name that was kept with a line break must not become lines of the calendar.
            .summary(&one_line(&format!(
                "{}: {}",
                batch.code,
                here.say(&step.title)
            )))
            .description(&one_line(&format!(
                "{}. {}",
                batch.name,
                here.say(&step.detail)
            )));
        if !matches!(step.kind, StepKind::Rest | StepKind::Bulk) {
            event.alarm(Alarm::display(
                &here.say(&step.title),
                Trigger::before_start(chrono::Duration::minutes(10)),
            ));
        }
        calendar.push(event.done());
    }
}

/// The feed of the kitchen, at its secret address. A wrong one looks like any page that does not exist.
async fn feed(State(app): State<App>, Path(file): Path<String>) -> Result<Response, AppError> {
    let key = file.strip_suffix(".ics").unwrap_or("");
    let mut db = app.db.acquire().await?;
    let Some(id) = kitchen::of_feed(&mut db, key).await? else {
        return Ok(crate::shared::error::nothing_here().await);
    };
    drop(db);
    let nobody = Arc::new(Asker::of_the_program(id));
    let here = RequestKitchen::for_asker(&app, id, &nobody, Timestamp::now()).await?;
    let mut calendar = begun(&here.kitchen.name, &here);
    for told in load::live(&app, &here).await? {
        let goes = app.goes(&told, &here).await?;
        let told = told.following(&goes);
        add(&mut calendar, &told, &here, true);
    }
    let head = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (header::CACHE_CONTROL, "private, no-cache"),
    ];
    Ok((head, calendar.done().to_string()).into_response())
}

#[derive(Template)]
#[template(path = "rooms/takeaway/calendar.html")]
struct CalendarPage {
    frame: Frame,
    /// The whole address, right after it was made: only its hash is kept.
    address: Option<String>,
    known: bool,
    /// Said where no other machine reaches the address.
    only_here: Option<String>,
}

async fn show(
    State(app): State<App>,
    theme: Theme,
    here: RequestKitchen,
) -> Result<Response, AppError> {
    let mut db = app.db.acquire().await?;
    let now = kitchen::by_id(&mut db, here.id()).await?;
    drop(db);
    let known = now.is_some_and(|k| k.feed_hash.is_some());
    shown(&app, theme, &here, known, None)
}

fn shown(
    app: &App,
    theme: Theme,
    here: &RequestKitchen,
    known: bool,
    key: Option<&str>,
) -> Result<Response, AppError> {
    let html = page(&CalendarPage {
        frame: Frame::of(
            here,
            theme,
            Stop::Bench,
            phrase("batch-calendar"),
            None,
            "/calendar",
        ),
        address: key.map(|key| app.site.address(&format!("/feed/{key}.ics"))),
        known,
        only_here: app.site.only_here(),
    })?;
    Ok(html.into_response())
}

/// Another secret address; the former leads nowhere from now on. It is shown this once: only what it hashes to is kept.
async fn renew(
    State(app): State<App>,
    theme: Theme,
    here: RequestKitchen,
) -> Result<Response, AppError> {
    let key = format!(
        "{}{}",
        uuid::Uuid::new_v4().simple(),
        uuid::Uuid::new_v4().simple()
    );
    let key = &key[..48];
    let mut db = app.db.acquire().await?;
    kitchen::renew_feed(&mut db, here.id(), key).await?;
    drop(db);
    app.kitchens.forget(here.id());
    shown(&app, theme, &here, true, Some(key))
}
