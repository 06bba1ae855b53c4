//! Entries on their way in: what a form or a browser's queue sent, when it happened by the server's clock, and what is
//! answered. All rooms enter through here, and [`store::entry`] keeps.

use crate::App;
use crate::batch::record::BatchRecord;
use crate::shared::error::{AppError, ErrorSaid as SaidPage};
use crate::shared::form::FormData;
use crate::shared::form::SaidError;
use crate::shared::format::day_hm;
use crate::shared::format::word;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{phrase, say};
use axum::Json;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::entry;
use craft::fact;
use craft::fact::Fact;
use craft::fire::{TapKind, Verdict};
use jiff::{SignedDuration, Timestamp};
use schemars::JsonSchema;
use serde::Serialize;
use store::entry::{EntryOutcome, KeptEntry, NewEntry, SaidEntry, Seen, Standing};
use store::photo::Picture;
use uuid::Uuid;

/// A clock that is off by less is only slow on the line, s.
const ON_THE_WAY_S: i64 = 2;

/// What came with an entry besides what it says.
#[derive(Debug, Clone, Copy)]
pub struct Sent {
    pub key: Uuid,
    /// On the server's clock.
    pub at: Timestamp,
    pub device_at: Option<Timestamp>,
    /// The batch that a browser's queue means: codes may be given anew.
    batch: Option<u64>,
    /// Whether a script asked, which wants JSON.
    pub by_script: bool,
}

impl Sent {
    /// Reads key and moment. `when` is a day and a time that a maker typed; `at` is the moment that a device took, with
    /// `sent_at` on the same clock: when that clock is off, the moment is shifted as a whole, so that spans between a
    /// device's entries stay what they were.
    ///
    /// Errors: a sentence for a time that cannot be read.
    pub fn of(typed: &FormData, by_script: bool, here: &RequestKitchen) -> Result<Sent, String> {
        let instant = |name: &str| typed.text(name).parse::<Timestamp>().ok();
        let taken = instant("at");
        if taken.is_none() && !typed.text("at").is_empty() {
            return Err(phrase("batch-the-moment-that-came-with").into());
        }
        let shift = instant("sent_at")
            .map(|sent| here.now.duration_since(sent))
            .filter(|d| d.abs() > SignedDuration::from_secs(ON_THE_WAY_S))
            .unwrap_or_default();
        let at = match (typed.text("when"), taken) {
            ("", None) => here.now,
            // A clock of the year 9999 has no later moment.
            ("", Some(at)) => at
                .checked_add(shift)
                .map_err(|_| here.say(&fact!("entry-moment-to-come")))?,
            (text, _) => typed_moment(text, here)?,
        };
        Ok(Sent {
            key: Uuid::parse_str(typed.text("entry_key")).unwrap_or_else(|_| Uuid::new_v4()),
            at,
            device_at: instant("device_at").or(taken),
            batch: typed.text("batch_id").parse().ok(),
            by_script,
        })
    }

    /// What a program sent: its key, and when it happened by its clock, if it says so.
    pub fn by_program(key: Option<Uuid>, at: Option<Timestamp>, here: &RequestKitchen) -> Sent {
        Sent {
            key: key.unwrap_or_else(Uuid::new_v4),
            at: at.unwrap_or(here.now),
            device_at: at,
            batch: None,
            by_script: true,
        }
    }

    /// The `nth` entry that follows from the same form: sent twice, it is the same one.
    pub fn nth(&self, nth: usize) -> Sent {
        Sent {
            key: Uuid::from_u128(self.key.as_u128() ^ (nth as u128)),
            ..*self
        }
    }

    /// Whether it can have happened then.
    ///
    /// Errors: a sentence that names the moment.
    pub fn admitted(self, told: &BatchRecord, here: &RequestKitchen) -> Result<Sent, String> {
        if self.batch.is_some_and(|id| id != told.batch.id.0) {
            return Err(say!(
                "batch-is-another-batch-by-now",
                code = told.batch.code
            ));
        }
        let start_at = told.batch.sheet.result.start_at;
        entry::moment(start_at, here.now, self.at).map_err(|e| here.say(&e.fact(self.at)))?;
        Ok(self)
    }
}

/// A day and a time on the kitchen's clock, as a maker types them.
///
/// Errors: a sentence for what is none.
pub fn typed_moment(text: &str, here: &RequestKitchen) -> Result<Timestamp, String> {
    let day = text.parse::<jiff::civil::DateTime>().ok();
    day.and_then(|d| d.to_zoned(here.zone.clone()).ok())
        .map(|z| z.timestamp())
        .ok_or(phrase("batch-say-when-a-day-and").into())
}

/// Keeps an entry about a batch. `admits` says whether it makes sense among what is kept, besides what holds for all.
pub async fn keep(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    sent: &Sent,
    said: impl Into<SaidEntry>,
    admits: &(dyn Fn(&Standing) -> Result<(), Fact> + Sync),
) -> Result<EntryOutcome, AppError> {
    keep_with(app, here, told, sent, (said.into(), None), admits).await
}

/// The same with the picture that belongs to it, both or neither.
pub async fn keep_with(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    sent: &Sent,
    (said, picture): (SaidEntry, Option<&Picture>),
    admits: &(dyn Fn(&Standing) -> Result<(), Fact> + Sync),
) -> Result<EntryOutcome, AppError> {
    let new = NewEntry {
        key: sent.key,
        at: sent.at,
        device_at: sent.device_at,
        said: said.clone(),
    };
    let pieces = told.batch.sheet.result.formula.pieces;
    let fits = move |s: &Standing| {
        admits(s)?;
        match said {
            SaidEntry::Tapped { pizza, .. } => entry::one_more_tap(pieces, pizza, s.taps.len()),
            SaidEntry::Seen(_) => entry::one_more(s.entries),
        }
        .map_err(|e| e.fact(new.at))
    };
    let id = told.batch.id;
    let (db, author, now) = (&app.db, here.author(), here.now);
    let kept = match picture {
        Some(p) => store::photo::enter(db, author, id, (&new, p), now, &fits).await?,
        None => store::entry::enter(db, author, id, &new, now, &fits).await?,
    };
    if kept == EntryOutcome::New {
        app.runs.changed(id);
    }
    Ok(kept)
}

/// For entries that nothing but the general limits speaks against while a batch is under way.
pub fn open(s: &Standing) -> Result<(), Fact> {
    match (s.finished, s.cancelled) {
        (_, true) => Err(fact!("batch-cancelled")),
        (true, _) => Err(fact!("batch-closed")),
        _ => Ok(()),
    }
}

/// For entries that may come at any time.
pub fn always(_: &Standing) -> Result<(), Fact> {
    Ok(())
}

/// What a script or a program is told of an entry.
#[derive(Debug, Default, Serialize, JsonSchema)]
pub struct EntryAnswer {
    /// The server's clock, ms since 1970, for the device to learn.
    pub now_ms: i64,
    /// "now", or "before" when the same key had brought it already.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kept: Option<&'static str>,
    /// The pizza that a tap was about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pizza: Option<u32>,
    /// Why nothing was kept, though it could be read.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub refused: Option<String>,
    /// What is wrong with it, field by field.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<SaidError>,
}

/// The answer to whoever sent an entry: back to a page, or as JSON for a script.
pub fn answer(
    kept: EntryOutcome,
    sent: &Sent,
    here: &RequestKitchen,
    said: &str,
    back: &str,
) -> Response {
    match became(kept, said, here) {
        Ok(word) if sent.by_script => Json(EntryAnswer {
            now_ms: here.now.as_millisecond(),
            kept: Some(word),
            ..EntryAnswer::default()
        })
        .into_response(),
        Ok(_) => Redirect::to(back).into_response(),
        Err(sentence) => refused(sentence, sent.by_script),
    }
}

/// What became of an entry: when it was kept, or why it was not.
fn became(kept: EntryOutcome, said: &str, here: &RequestKitchen) -> Result<&'static str, String> {
    match kept {
        EntryOutcome::New => Ok("now"),
        EntryOutcome::Before => Ok("before"),
        EntryOutcome::Other(other) => Err(clash(said, &other, here)),
        EntryOutcome::Refused(why) => Err(here.say(&why)),
        EntryOutcome::NoBatch => Err(phrase("batch-this-batch-is-gone-nothing").into()),
    }
}

/// The answer to a program that sent a tap, with the pizza that it was about.
pub fn answer_tap((pizza, kept): (u32, EntryOutcome), here: &RequestKitchen) -> Response {
    match became(kept, phrase("bake-this-tap"), here) {
        Ok(word) => Json(EntryAnswer {
            now_ms: here.now.as_millisecond(),
            kept: Some(word),
            pizza: Some(pizza),
            ..EntryAnswer::default()
        })
        .into_response(),
        Err(sentence) => refused(sentence, true),
    }
}

/// Nothing was kept, for this reason: 409.
pub fn refused(sentence: String, by_script: bool) -> Response {
    if by_script {
        let answer = EntryAnswer {
            refused: Some(sentence),
            ..EntryAnswer::default()
        };
        return (StatusCode::CONFLICT, Json(answer)).into_response();
    }
    SaidPage::new(phrase("batch-that-was-not-kept"), sentence).with(StatusCode::CONFLICT)
}

/// What a field says is wrong, for a script: 422.
pub fn wrong(field: &str, message: String) -> Response {
    let answer = EntryAnswer {
        errors: vec![SaidError {
            field: field.into(),
            message,
        }],
        ..EntryAnswer::default()
    };
    (StatusCode::UNPROCESSABLE_ENTITY, Json(answer)).into_response()
}

/// Another entry stands under the key that was sent: both are shown.
fn clash(yours: &str, other: &KeptEntry, here: &RequestKitchen) -> String {
    let place = if other.elsewhere {
        [" ", phrase("batch-on-another-batch")].concat()
    } else {
        String::new()
    };
    say!(
        "batch-yours-was-not-kept-this",
        yours = yours,
        place = place,
        other = words(&other.said, here),
        at = day_hm(&here.local(other.at))
    )
}

/// An entry in a few words.
pub fn words(said: &SaidEntry, here: &RequestKitchen) -> String {
    let degrees = |c: f64| {
        format!(
            "{} {}",
            here.measures.degrees(c, 1),
            here.measures.degree_unit()
        )
    };
    match said {
        SaidEntry::Tapped { pizza, kind } => match kind {
            TapKind::In => say!("batch-in-of-pizza", pizza = pizza),
            TapKind::Turned => say!("batch-turned-of-pizza", pizza = pizza),
            TapKind::Out => say!("batch-out-of-pizza", pizza = pizza),
            TapKind::Undone => say!("batch-a-tap-of-pizza-taken", pizza = pizza),
            TapKind::Verdict(Verdict { base, top }) => {
                say!(
                    "batch-the-verdict-on-pizza-base",
                    pizza = pizza,
                    base = word(&base.name()),
                    top = word(&top.name())
                )
            }
        },
        SaidEntry::Seen(seen) => match seen {
            Seen::StepDone { step_position } => {
                say!("batch-step-done", step_position = step_position + 1)
            }
            Seen::StepBegun { step_position } => {
                say!("batch-step-begun", step_position = step_position + 1)
            }
            Seen::StepFinished { step_position } => {
                say!("batch-step-finished", step_position = step_position + 1)
            }
            Seen::StepUndone { step_position } => {
                say!("batch-step-undone", step_position = step_position + 1)
            }
            Seen::StepSkipped { step_position } => {
                say!("batch-step-left-out", step_position = step_position + 1)
            }
            Seen::Reading { subject, celsius } => {
                format!("{} {}", here.words(&subject.name()), degrees(*celsius))
            }
            Seen::PlaceRead { name, celsius } => format!("{name} {}", degrees(*celsius)),
            Seen::Grown { times } => say!("batch-the-dough-in-the-tub", times = times),
            Seen::Remark { remark } => {
                let short: String = remark.chars().take(60).collect();
                say!("batch-the-remark", short = short)
            }
            Seen::Stood { is } => here.words(&is.name()),
            Seen::Ready => phrase("learn-ready").into(),
            Seen::Noticed { what, .. } => here.words(&what.name()),
            Seen::Lessons { learn: true } => phrase("learn-learned-from").into(),
            Seen::Lessons { learn: false } => phrase("learn-not-learned-from").into(),
            Seen::Tasted { .. } => phrase("trial-a-tasting").into(),
            Seen::Photo { pizza, of } => {
                say!("batch-a-photo-of", of = word(&of.name()), pizza = pizza)
            }
            Seen::Cautioned => phrase("batch-the-caution-read").into(),
            Seen::PowerCut { until } => {
                say!("batch-no-power-until", until = day_hm(&here.local(*until)))
            }
            Seen::Mix { act, .. } => here.words(&act.fact()),
            Seen::Shape { act } => here.words(&act.fact()),
            Seen::TakenBack { .. } => phrase("batch-an-entry-taken-back").into(),
            Seen::Closed { .. } => phrase("batch-the-batch-closed").into(),
            Seen::Cancelled => phrase("batch-the-batch-cancelled").into(),
            Seen::Reopened => phrase("batch-the-batch-reopened").into(),
        },
    }
}

/// The way back that a form asked for, or the batch's own page.
pub fn back(typed: &FormData, code: &str) -> String {
    let path = typed.text("back");
    if path.is_empty() {
        format!("/batches/{code}")
    } else {
        crate::shared::theme::own_path(path).to_string()
    }
}
