//! The batch page: the sheet as it was kept, its steps, what was measured and said.

mod ending;
mod part;
mod pieces;
pub(crate) mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries;
use crate::batch::load;
use crate::batch::measured;
use crate::batch::record::BatchRecord;
use crate::figures::{ShownAs, ShownSheet};
use crate::shared::error::AppError;
use crate::shared::form::{self, FormData, NotANumber, number};
use crate::shared::format::day_hm;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use craft::fact;
use craft::fact::Fact;
use craft::keyed::Keyed;
use craft::reading::Subject;
use craft::refusal::FieldError;
use craft::sheet::SheetResult;
use craft::sheet::progress::StepSaid;
use craft::units::{Celsius, Meant};
use std::sync::Arc;
use store::batch;
use store::entry::{Seen, Standing};
use uuid::Uuid;
use view::{BatchView, LeftPlanView};

/// What a marked tub is called among the subjects.
pub const TUB: &str = "tub";
/// What a place of the kitchen's own is called among the subjects, before its name.
const OF_PLACE: &str = "place:";

fn of_place(name: &str) -> String {
    format!("{OF_PLACE}{name}")
}

/// A remark may be so long; the database column holds as much.
const LONGEST_REMARK: usize = 2000;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}", show)
        .get(LOOK, "/batches/{code}/print", print)
        .post(TAP, "/batches/{code}/steps/{position}", step)
        .post(TAP, "/batches/{code}/readings", reading)
        .post(TAP, "/batches/{code}/power", power)
        .post(TAP, "/batches/{code}/remarks", remark)
        .post(TAP, "/batches/{code}/entries/{entry}/back", take_back)
        .merge(ending::routes())
        .merge(pieces::routes())
        .merge(part::routes())
}

#[derive(Template)]
#[template(path = "rooms/batch/page.html")]
struct BatchPage {
    frame: Frame,
    v: Arc<ShownSheet>,
    b: BatchView,
}

fn render(
    app: &App,
    (told, goes): (&BatchRecord, &SheetResult),
    here: &RequestKitchen,
    theme: Theme,
    typed: &FormData,
    errors: &[FieldError],
) -> Result<Response, AppError> {
    render_with(app, (told, goes), here, (theme, typed, errors), &[])
}

/// The page, with the plans that were left.
fn render_with(
    app: &App,
    (told, goes): (&BatchRecord, &SheetResult),
    here: &RequestKitchen,
    (theme, typed, errors): (Theme, &FormData, &[FieldError]),
    left: &[batch::LeftPlan],
) -> Result<Response, AppError> {
    let code = &told.batch.code;
    let path = format!("/batches/{code}");
    let title = format!("{code} {}", told.batch.name);
    let frame = Frame::of(
        here,
        theme,
        Stop::Sheet,
        &title,
        Some((code, told.progress.stand)),
        &path,
    );
    // The strip and the answer show how it goes; the log stays beside what was planned.
    let v = app
        .drawn
        .sheets
        .of(vec![told.stands(here, goes)], here.minute(), || {
            ShownSheet::of(&told.batch.sheet.request, goes, here, ShownAs::Batch)
        });
    let drawn = app
        .drawn
        .told
        .of(vec![told.stands(here, goes)], here.minute(), || {
            view::BatchLines::of(told, goes, here)
        });
    let mut b = BatchView::of(told, (goes, drawn), here, typed, errors);
    b.left = left
        .iter()
        .map(|l| LeftPlanView {
            at: day_hm(&here.local(l.at)),
            why: here.words(&l.why),
            by: here.by(&l.by),
        })
        .collect();
    let status = if errors.is_empty() {
        StatusCode::OK
    } else {
        StatusCode::UNPROCESSABLE_ENTITY
    };
    Ok((status, page(&BatchPage { frame, v, b })?).into_response())
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let left = if told.batch.plan > 0 {
        let mut db = app.db.acquire().await?;
        batch::left_plans(&mut db, here.id(), told.batch.id).await?
    } else {
        vec![]
    };
    let goes = app.goes(&told, &here).await?;
    render_with(
        &app,
        (&told, &goes),
        &here,
        (theme, &FormData::default(), &[]),
        &left,
    )
}

async fn print(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let goes = app.goes(&told, &here).await?;
    crate::figures::paper::page(
        &told.batch.name,
        Some(&told.batch.code),
        &told.batch.sheet.request,
        &goes,
        &here,
    )
}

/// What was typed and is wrong, on its page or for a script.
async fn refuse(a: &Arrived, field: &str, message: String) -> Result<Response, AppError> {
    if a.by_script {
        return Ok(entries::wrong(field, message));
    }
    let errors = [FieldError {
        field: field.into(),
        message: Fact::as_written(message),
    }];
    let goes = a.app.goes(&a.told, &a.here).await?;
    render(
        &a.app,
        (&a.told, &goes),
        &a.here,
        a.theme,
        &a.typed,
        &errors,
    )
}

/// Keeps what was seen and goes back to where it was entered; a moment that cannot be is said beside `field`.
async fn kept(
    a: &Arrived,
    field: &str,
    seen: Seen,
    admits: &(dyn Fn(&Standing) -> Result<(), Fact> + Sync),
) -> Result<Response, AppError> {
    if let Err(e) = &a.sent {
        return refuse(a, field, e.clone()).await;
    }
    a.entered(seen, &entries::back(&a.typed, a.code()), admits)
        .await
}

async fn step(Path((_, position)): Path<(String, u16)>, a: Arrived) -> Result<Response, AppError> {
    let steps = &a.told.batch.sheet.result.steps;
    if !steps.iter().any(|s| s.number == position) {
        return Err(AppError::Asked(say!(
            "batch-has-no-step",
            code = a.code(),
            position = u32::from(position) + 1
        )));
    }
    let said = match a.typed.text("do") {
        "skip" => StepSaid::LeftOut,
        "begin" => StepSaid::Begun,
        "finish" => StepSaid::Finished,
        "undo" => StepSaid::Undone,
        _ => StepSaid::Done,
    };
    let seen = Seen::step(position, said);
    kept(&a, "step", seen, &entries::open).await
}

/// Reads what was measured: a temperature, or a tub.
///
/// Errors: the field and a sentence.
fn seen_of(typed: &FormData, here: &RequestKitchen) -> Result<Seen, (&'static str, String)> {
    let value = number(typed.text("degrees"));
    if typed.text("subject") == TUB {
        return measured::grown(value.unwrap_or(f64::NAN)).map_err(|e| ("degrees", e));
    }
    if let Some(name) = typed.text("subject").strip_prefix(OF_PLACE) {
        let celsius = degrees(typed, Subject::Room, here)?;
        return measured::place(name, celsius).map_err(|e| ("subject", e));
    }
    let subject = Subject::from_key(typed.text("subject")).ok_or((
        "subject",
        phrase("batch-choose-what-you-measured").to_string(),
    ))?;
    degrees(typed, subject, here).map(|celsius| Seen::Reading { subject, celsius })
}

/// A temperature as the kitchen reads it, in °C.
fn degrees(
    typed: &FormData,
    subject: Subject,
    here: &RequestKitchen,
) -> Result<f64, (&'static str, String)> {
    let unit = here.measures.temperature;
    match form::measured(typed.text("degrees"), Meant::Temperature(unit)) {
        Err(NotANumber::Empty) => {
            Err(("degrees", phrase("batch-the-temperature-is-missing").into()))
        }
        Err(NotANumber::Text) => Err(("degrees", phrase("batch-the-temperature-must-be-a").into())),
        Ok(c) => subject
            .take(Celsius(c).reads(unit), unit)
            .map(|c| c.0)
            .map_err(|e| ("degrees", here.say(&e.message))),
    }
}

async fn reading(a: Arrived) -> Result<Response, AppError> {
    if let Err(e) = &a.sent {
        return refuse(&a, "when", e.clone()).await;
    }
    match seen_of(&a.typed, &a.here) {
        Ok(seen) => kept(&a, "when", seen, &entries::open).await,
        Err((field, message)) => refuse(&a, field, message).await,
    }
}

async fn remark(a: Arrived) -> Result<Response, AppError> {
    let text = a.typed.text("remark").to_string();
    let length = text.chars().count();
    if text.is_empty() {
        return refuse(&a, "remark", phrase("batch-write-something-first").into()).await;
    }
    if length > LONGEST_REMARK {
        let message = say!(
            "batch-a-remark-holds-up-to",
            value = LONGEST_REMARK,
            length = length
        );
        return refuse(&a, "remark", message).await;
    }
    // A closed batch still takes what comes to mind the day after.
    kept(
        &a,
        "remark",
        Seen::Remark { remark: text },
        &entries::always,
    )
    .await
}

/// The fridge had no power from `when` until `until`: it counts for every batch in a fridge of this kitchen.
async fn power(a: Arrived) -> Result<Response, AppError> {
    let until = match (a.typed.text("until"), &a.sent) {
        (_, Err(e)) => Err(e.clone()),
        ("", Ok(_)) => Ok(a.here.now),
        (text, Ok(_)) => entries::typed_moment(text, &a.here),
    };
    let from = a.sent.as_ref().map_or(a.here.now, |s| s.at);
    let read = until.and_then(|until| {
        craft::entry::power_cut(from, until, a.here.now).map_err(|e| a.here.say(&e.fact(from)))?;
        Ok(until)
    });
    match read {
        Ok(until) => kept(&a, "power", Seen::PowerCut { until }, &entries::open).await,
        Err(e) => refuse(&a, "power", e).await,
    }
}

/// Takes an entry back: a reading, a tub, a remark. It stays in the log, and counts no longer.
async fn take_back(
    Path((_, entry)): Path<(String, Uuid)>,
    a: Arrived,
) -> Result<Response, AppError> {
    let may = a
        .told
        .seen()
        .any(|o| o.key == entry && o.seen.may_be_taken_back());
    let admits = |s: &Standing| match s.seen.iter().find(|(k, _)| *k == entry) {
        Some((_, true)) => Err(fact!("entry-taken-back")),
        Some(_) if may => Ok(()),
        _ => Err(fact!("entry-none-to-take-back")),
    };
    kept(&a, "when", Seen::TakenBack { entry }, &admits).await
}
