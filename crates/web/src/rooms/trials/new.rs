//! A new trial: its form, and how its arms come to be.

use super::asked::{self, Way};
use crate::App;
use crate::batch::load::{self, codes};
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::{FormData, SaidError};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{RawQuery, State};
use axum::http::StatusCode;
use axum::response::{Html, IntoResponse, Redirect, Response};
use craft::fact::Fact;
use craft::flour::FlourPart;
use craft::keyed::Keyed;
use craft::refusal::ValidationError;
use craft::sheet::apart::apart;
use craft::sheet::{SheetRequest, SheetResult, work_out};
use craft::trial::design::fewest_tasters;
use craft::trial::{MOST_ARMS, TrialArm, TrialDesign, Varied};
use store::batch::{self, KeptBatch, NewBatch, Origin};
use store::once::{self, Once};
use uuid::Uuid;

/// Bakes and plans that a trial can be made from.
const OFFERED: u32 = 30;

struct TrialOption {
    value: String,
    name: String,
    chosen: bool,
}

#[derive(Template)]
#[template(path = "rooms/trials/new.html")]
struct NewTrialPage {
    frame: Frame,
    form_key: Uuid,
    name: String,
    tasters: String,
    /// Bakes that were picked, with what each is.
    there: Vec<(String, String)>,
    way: &'static str,
    bases: Vec<TrialOption>,
    varied: Vec<TrialOption>,
    values: String,
    each: String,
    serve_date: String,
    serve_time: String,
    parts: Vec<String>,
    flours: String,
    /// How many it takes to show anything, of two, three and four arms.
    fewest: [u8; 3],
    errors: Vec<SaidError>,
}

impl NewTrialPage {
    fn error(&self, field: &str) -> Option<&str> {
        let found = self.errors.iter().find(|e| {
            e.field == field
                || e.field
                    .strip_prefix(field)
                    .is_some_and(|r| r.starts_with('['))
        });
        found.map(|e| e.message.as_str())
    }
}

/// What can be made a trial of: the latest bakes and what is planned.
async fn offered(app: &App, here: &RequestKitchen) -> Result<Vec<BatchRecord>, AppError> {
    let mut all = load::some_live(app, here, 0, OFFERED).await?.told;
    all.extend(load::finished(app, here, 0, OFFERED).await?.told);
    Ok(all)
}

async fn rendered(
    app: &App,
    here: &RequestKitchen,
    theme: Theme,
    typed: &FormData,
    there: Vec<BatchRecord>,
    errors: Vec<SaidError>,
) -> Result<Html<String>, AppError> {
    let bases = offered(app, here).await?;
    let larder = Larder::of(app, here).await?;
    let names = arm_names(&there, here);
    let of = typed.text("of");
    let friday = here.local(here.now + jiff::SignedDuration::from_hours(5 * 24));
    let or = |field: &str, usual: &str| match typed.text(field) {
        "" => usual.to_string(),
        text => text.to_string(),
    };
    let way = Way::from_key(typed.text("way")).unwrap_or(match (there.len(), of) {
        (2.., _) => Way::There,
        _ => Way::Sisters,
    });
    let name = match (typed.text("name"), names.first()) {
        ("", Some(_)) => there[0].batch.name.clone(),
        (name, _) => name.to_string(),
    };
    page(&NewTrialPage {
        frame: Frame::of(
            here,
            theme,
            Stop::Ledger,
            phrase("trial-new"),
            None,
            "/trials/new",
        ),
        form_key: typed.key("form_key"),
        name,
        tasters: or("tasters", &fewest_tasters(MOST_ARMS).to_string()),
        there: there
            .iter()
            .zip(&names)
            .map(|(t, is)| (t.batch.code.clone(), here.words(is)))
            .collect(),
        way: way.key(),
        bases: bases
            .iter()
            .map(|t| TrialOption {
                value: t.batch.code.clone(),
                name: format!(
                    "{} {}, {}",
                    t.batch.code,
                    t.batch.name,
                    crate::shared::format::day(&here.local(t.batch.sheet.request.serve_at))
                ),
                chosen: t.batch.code == of,
            })
            .collect(),
        varied: Varied::ALL
            .iter()
            .map(|v| TrialOption {
                value: v.key().into(),
                name: here.words(&v.name()),
                chosen: v.key() == typed.text("varied"),
            })
            .collect(),
        values: typed.text("values").into(),
        each: typed.text("each").into(),
        serve_date: or("serve_date", &friday.date().to_string()),
        serve_time: or("serve_time", "19:00"),
        parts: (0..MOST_ARMS)
            .map(|i| typed.text(&format!("part[{i}]")).to_string())
            .collect(),
        flours: larder
            .0
            .flours
            .iter()
            .map(|f| f.facts.name.clone())
            .collect::<Vec<_>>()
            .join(", "),
        fewest: [2, 3, 4].map(fewest_tasters),
        errors,
    })
}

/// What each of these bakes is: the one thing that differs, else its day.
fn arm_names(there: &[BatchRecord], here: &RequestKitchen) -> Vec<Fact> {
    let pairs: Vec<_> = there
        .iter()
        .map(|t| (&*t.batch.sheet.request, &*t.batch.sheet.result))
        .collect();
    match apart(&pairs).the_one() {
        Some(one) => one.values.clone(),
        None => there
            .iter()
            .map(|t| {
                let at = here.local(t.batch.sheet.request.serve_at);
                Fact::as_written(format!(
                    "{} {}",
                    t.batch.code,
                    crate::shared::format::day(&at)
                ))
            })
            .collect(),
    }
}

async fn loaded(
    app: &App,
    here: &RequestKitchen,
    codes: &[String],
) -> Result<Vec<BatchRecord>, AppError> {
    let mut out = vec![];
    for code in codes.iter().take(MOST_ARMS + 1) {
        out.push(load::told(app, here, code).await?);
    }
    Ok(out)
}

pub async fn form(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    RawQuery(query): RawQuery,
) -> Result<Html<String>, AppError> {
    let typed = FormData::parse(query.as_deref().unwrap_or("").as_bytes());
    let there = loaded(&app, &here, &codes(query.as_deref())).await?;
    rendered(&app, &here, theme, &typed, there, vec![]).await
}

/// What a form made when it made a trial.
const MADE: &str = "trial";

/// What became of a trial to be kept.
enum TrialKept {
    /// Its code; also when the same was kept before.
    Done(String),
    /// Another one was kept from the same form: its code. Nothing was written.
    Other(String),
}

/// A dough that is to be kept as an arm.
type Sister = (Fact, SheetRequest, SheetResult);

pub async fn keep(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let query = String::from_utf8_lossy(&body).into_owned();
    let there = loaded(&app, &here, &codes(Some(&query))).await?;
    let made = made(&app, &here, &typed, &there).await?;
    let (trial, sisters) = match made {
        Ok(made) => made,
        Err(e) => {
            let errors = asked::said(e, &here);
            let html = rendered(&app, &here, theme, &typed, there, errors).await?;
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, html).into_response());
        }
    };
    let form_key = typed.key("form_key");
    let name: String = match typed.text("name") {
        "" => phrase("trial-trial").into(),
        name => name
            .chars()
            .take(crate::shared::form::LONGEST_NAME)
            .collect(),
    };
    let sent = typed.content();
    let kept = store::act!(app.db, db => {
        // The form as a whole: sent twice it is one trial, and another one under its key is told, not taken for it.
        let form = (MADE, form_key);
        match once::take(db, here.id(), form, &[&sent], here.now).await? {
            Once::First => {}
            Once::Before(code) => return Ok(TrialKept::Done(code)),
            Once::Other(code) => return Ok(TrialKept::Other(code)),
        }
        let mut trial = trial.clone();
        for (i, (is, request, result)) in sisters.iter().enumerate() {
            let new = NewBatch {
                form_key: Uuid::from_u128(form_key.as_u128() ^ ((i as u128 + 1) << 64)),
                name: &name,
                request,
                result,
                origin: Origin::Maker,
                from: None,
            };
            let (KeptBatch::Done(batch) | KeptBatch::Other(batch)) =
                batch::keep(db, here.author(), &new, here.now).await?;
            trial.arms[i] = TrialArm { batch, is: is.clone() };
        }
        let code = store::trial::keep(db, here.author(), &name, &trial, here.now).await?;
        once::made(db, here.id(), form, &code).await?;
        Ok(TrialKept::Done(code))
    })?;
    match kept {
        TrialKept::Done(code) => Ok(Redirect::to(&format!("/trials/{code}")).into_response()),
        TrialKept::Other(code) => {
            let mut typed = typed;
            typed.set("form_key", Uuid::new_v4().to_string());
            let errors = asked::said(
                ValidationError::one(
                    "arms",
                    Fact::as_written(say!("trial-kept-before", code = code)),
                ),
                &here,
            );
            let html = rendered(&app, &here, theme, &typed, there, errors).await?;
            Ok((StatusCode::CONFLICT, html).into_response())
        }
    }
}

/// The trial that a form asks for, with the doughs that are to be kept for it.
async fn made(
    app: &App,
    here: &RequestKitchen,
    typed: &FormData,
    there: &[BatchRecord],
) -> Result<Result<(TrialDesign, Vec<Sister>), ValidationError>, AppError> {
    let tasters = typed.text("tasters").parse::<u8>().unwrap_or(0);
    let trial = |arms: Vec<TrialArm>| {
        let t = TrialDesign { arms, tasters };
        t.check().map(|()| t)
    };
    let arm = |batch: &str, is: Fact| TrialArm {
        batch: batch.into(),
        is,
    };
    let way = Way::from_key(typed.text("way"));
    if way == Some(Way::There) {
        let arms = there.iter().zip(arm_names(there, here));
        let arms = arms.map(|(t, is)| arm(&t.batch.code, is)).collect();
        return Ok(trial(arms).map(|t| (t, vec![])));
    }
    let code = typed.text("of");
    if code.is_empty() {
        return Ok(Err(ValidationError::one(
            "of",
            Fact::as_written(phrase("trial-say-of-which-dough")),
        )));
    }
    let base = load::told(app, here, code).await?;
    if way == Some(Way::Split) {
        let arms = asked::parts(typed)
            .into_iter()
            .map(|is| arm(&base.batch.code, is))
            .collect();
        return Ok(trial(arms).map(|t| (t, vec![])));
    }
    let larder = Larder::of(app, here).await?;
    let flours: Vec<FlourPart> = larder
        .0
        .flours
        .iter()
        .map(|f| f.facts.part(f.id, 100.0))
        .collect();
    let work = || {
        let mut of = SheetRequest::clone(&base.batch.sheet.request);
        of.serve_at = asked::serve_at(typed, here)?;
        of.now_at = None;
        let all = asked::sister_doughs(typed, &of, &flours)?;
        let arms = all.iter().map(|(is, _)| arm("", is.clone()));
        // Each becomes a batch of its own: they are told apart by their place until then.
        let arms = arms
            .enumerate()
            .map(|(i, a)| TrialArm {
                batch: i.to_string(),
                ..a
            })
            .collect();
        let trial = trial(arms)?;
        let mut worked = vec![];
        for (is, request) in all {
            let result = work_out(&request).map_err(|e| {
                let first = e.0.into_iter().next();
                let message = first.map_or(Fact::nothing(), |e| e.message);
                let said = say!(
                    "trial-value-not-possible",
                    value = here.words(&is),
                    why = here.say(&message)
                );
                ValidationError::one("values", Fact::as_written(said))
            })?;
            worked.push((is, request, result));
        }
        Ok((trial, worked))
    };
    app.models.at_length(work).await
}
