//! Entries by programs: what a thermometer reads, what was done, what was tapped at the oven.

use super::body::SentJson;
use crate::App;
use crate::access::doors::{DoorTold, Doors, REPORT, TAP};
use crate::batch::entries::{self, EntryAnswer, Sent};
use crate::batch::record::BatchRecord;
use crate::batch::taps::{self, Tapped};
use crate::batch::{load, measured};
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use axum::extract::{Path, State};
use axum::response::Response;
use craft::fire::{Shade, TapKind, Verdict};
use craft::reading::Subject;
use craft::sheet::progress::StepSaid;
use craft::units::TemperatureUnit;
use jiff::Timestamp;
use schemars::JsonSchema;
use serde::Deserialize;
use store::entry::Seen;
use uuid::Uuid;

pub fn routes() -> Doors {
    let told = |text: fn() -> &'static str| {
        DoorTold::by(text)
            .gives::<EntryAnswer>()
            .refuses::<EntryAnswer>()
    };
    Doors::new()
        .post(REPORT, "/batches/{code}/readings", reading)
        .told(told(|| phrase("api-door-reading")).takes::<SentReading>())
        .post(TAP, "/batches/{code}/steps/{number}", step)
        .told(told(|| phrase("api-door-step")).takes::<SentStep>())
        .post(TAP, "/batches/{code}/taps", tap)
        .told(told(|| phrase("api-door-tap")).takes::<SentTap>())
}

/// What was measured: `of` or `place` with `celsius`, or `grown` alone.
#[derive(Debug, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct SentReading {
    /// A number of the program's own for this reading: sent twice under it, it is kept once.
    key: Option<Uuid>,
    /// When it was read; now without it.
    at: Option<Timestamp>,
    /// What was read.
    of: Option<Subject>,
    /// A place of the kitchen's own, by its name.
    place: Option<String>,
    /// The temperature, degrees Celsius.
    celsius: Option<f64>,
    /// The dough in a marked tub stands at so many times its first volume.
    grown: Option<f64>,
}

impl SentReading {
    /// Errors: the field and a sentence.
    fn seen(&self, here: &RequestKitchen) -> Result<Seen, (&'static str, String)> {
        let celsius = |subject: Subject| {
            let read = self.celsius.ok_or_else(|| {
                let missing = phrase("batch-the-temperature-is-missing");
                ("celsius", missing.to_string())
            })?;
            let taken = subject.take(read, TemperatureUnit::Celsius);
            let taken = taken.map_err(|e| ("celsius", here.say(&e.message)))?;
            Ok(taken.0)
        };
        match (self.of, &self.place, self.grown) {
            (Some(subject), None, None) => Ok(Seen::Reading {
                subject,
                celsius: celsius(subject)?,
            }),
            (None, Some(name), None) => {
                measured::place(name, celsius(Subject::Room)?).map_err(|e| ("place", e))
            }
            (None, None, Some(times)) if self.celsius.is_none() => {
                measured::grown(times).map_err(|e| ("grown", e))
            }
            _ => Err(("of", phrase("api-one-reading").into())),
        }
    }
}

/// What was said of a step.
#[derive(Debug, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct SentStep {
    /// A number of the program's own: sent twice under it, it is kept once.
    key: Option<Uuid>,
    /// When it happened; now without it.
    at: Option<Timestamp>,
    /// What happened.
    #[serde(default)]
    said: StepSaid,
}

/// What was tapped.
#[derive(Debug, Clone, Copy, Deserialize, JsonSchema)]
#[serde(rename_all = "snake_case")]
enum TapWord {
    In,
    Turned,
    Out,
    Verdict,
    Undone,
}

/// A tap at the oven.
#[derive(Debug, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct SentTap {
    /// A number of the program's own: sent twice under it, it is kept once.
    key: Option<Uuid>,
    /// When it happened; now without it.
    at: Option<Timestamp>,
    kind: TapWord,
    /// Which pizza, from 1; without it the next one, the one in the oven, or the last one out.
    pizza: Option<u32>,
    /// With a verdict: how the base came out.
    base: Option<Shade>,
    /// With a verdict: how the top came out.
    top: Option<Shade>,
}

impl SentTap {
    fn kind(&self) -> Result<TapKind, (&'static str, String)> {
        match (self.kind, self.base, self.top) {
            (TapWord::Verdict, Some(base), Some(top)) => {
                Ok(TapKind::Verdict(Verdict { base, top }))
            }
            (TapWord::In, None, None) => Ok(TapKind::In),
            (TapWord::Turned, None, None) => Ok(TapKind::Turned),
            (TapWord::Out, None, None) => Ok(TapKind::Out),
            (TapWord::Undone, None, None) => Ok(TapKind::Undone),
            _ => Err(("base", phrase("api-a-verdict-alone").into())),
        }
    }
}

/// The batch that is meant, and the entry's key and moment.
///
/// Errors: a moment that cannot be, as a sentence.
async fn meant(
    app: &App,
    here: &RequestKitchen,
    code: &str,
    (key, at): (Option<Uuid>, Option<Timestamp>),
) -> Result<(BatchRecord, Result<Sent, Response>), AppError> {
    let told = load::told(app, here, code).await?;
    let sent = Sent::by_program(key, at, here).admitted(&told, here);
    Ok((told, sent.map_err(|e| entries::wrong("at", e))))
}

async fn reading(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    SentJson(read): SentJson<SentReading>,
) -> Result<Response, AppError> {
    let (told, sent) = meant(&app, &here, &code, (read.key, read.at)).await?;
    match (sent, read.seen(&here)) {
        (Ok(sent), Ok(seen)) => enter(&app, &here, &told, &sent, seen).await,
        (Err(no), _) => Ok(no),
        (_, Err((field, sentence))) => Ok(entries::wrong(field, sentence)),
    }
}

async fn step(
    State(app): State<App>,
    here: RequestKitchen,
    Path((code, number)): Path<(String, u16)>,
    SentJson(past): SentJson<SentStep>,
) -> Result<Response, AppError> {
    let (told, sent) = meant(&app, &here, &code, (past.key, past.at)).await?;
    let steps = &told.batch.sheet.result.steps;
    if !steps.iter().any(|s| s.number == number) {
        let sentence = say!("api-no-such-step", code = code, number = number);
        return Ok(entries::wrong("", sentence));
    }
    match sent {
        Ok(sent) => enter(&app, &here, &told, &sent, Seen::step(number, past.said)).await,
        Err(no) => Ok(no),
    }
}

async fn enter(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    sent: &Sent,
    seen: Seen,
) -> Result<Response, AppError> {
    let said = seen.into();
    let words = entries::words(&said, here);
    let kept = entries::keep(app, here, told, sent, said, &entries::open).await?;
    Ok(entries::answer(kept, sent, here, &words, ""))
}

async fn tap(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    SentJson(tap): SentJson<SentTap>,
) -> Result<Response, AppError> {
    let (told, sent) = meant(&app, &here, &code, (tap.key, tap.at)).await?;
    let (sent, kind) = match (sent, tap.kind()) {
        (Ok(sent), Ok(kind)) => (sent, kind),
        (Err(no), _) => return Ok(no),
        (_, Err((field, sentence))) => return Ok(entries::wrong(field, sentence)),
    };
    if tap.pizza == Some(0) {
        return Ok(entries::wrong(
            "pizza",
            phrase("api-pizzas-from-one").into(),
        ));
    }
    let tapped = Tapped {
        kind,
        pizza: tap.pizza,
        baked_ms: None,
    };
    let kept = taps::keep(&app, &here, &told, &sent, &tapped).await?;
    Ok(entries::answer_tap(kept, &here))
}
