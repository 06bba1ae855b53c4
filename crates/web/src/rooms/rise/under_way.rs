//! A batch under way: its plan changed, a remedy taken, its leaven's vigour fitted.

use super::acts;
use super::looked;
use super::{RiseExtra, render};
use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN};
use crate::batch::entries::Sent;
use crate::batch::forecast::{ahead, doubts, replanned};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::batch::replan::keep;
use crate::formula_form::Bench;
use crate::formula_form::reading;
use crate::shared::error::AppError;
use crate::shared::form::{FormData, number};
use crate::shared::format::day_hm;
use crate::shared::format::leg_hours;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::theme::Theme;
use crate::shared::tongue::{decimal, phrase, plain, say, two_digits};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact;
use craft::fact::Fact;
use craft::formula::Dose;
use craft::keyed::Keyed;
use craft::refusal::FieldError;
use craft::rise::vigour::to_note;
use craft::rise::{Sign, Temperatures, VigourRequest, fit_vigour};
use craft::sheet::ahead::{AheadRequest, as_it_went};
use craft::sheet::{SheetRequest, work_out};
use store::batch::Replanned;
use store::pantry::{self, At, Put};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches/{code}/rise", show)
        .post(PLAN, "/batches/{code}/plan", plan)
        .post(PLAN, "/batches/{code}/remedy", remedy)
        .post(PLAN, "/batches/{code}/vigour", vigour)
}

/// A vigour that was fitted, to be taken or left.
pub struct FitView {
    pub says: String,
    pub changes: String,
    pub limit: Option<String>,
    /// The pantry's leaven that it is for, with the vigour it would have.
    pub leaven: Option<(u64, String, String)>,
}

/// A batch with what its page needs.
struct OpenRise {
    told: BatchRecord,
    larder: Larder,
}

impl OpenRise {
    async fn of(app: &App, here: &RequestKitchen, code: &str) -> Result<OpenRise, AppError> {
        Ok(OpenRise {
            told: load::told(app, here, code).await?,
            larder: Larder::of(app, here).await?,
        })
    }
    fn bench<'a>(&'a self, here: &'a RequestKitchen) -> Bench<'a> {
        Bench {
            here,
            larder: &self.larder,
        }
    }
    /// The page as the batch is, with a sentence on what was pressed.
    async fn refuse(
        &self,
        app: &App,
        here: &RequestKitchen,
        theme: Theme,
        status: StatusCode,
        message: String,
    ) -> Result<Response, AppError> {
        let bench = self.bench(here);
        let extra = RiseExtra {
            status,
            pressed: vec![FieldError {
                field: "pressed".into(),
                message: Fact::as_written(message),
            }],
            ..RiseExtra::default()
        };
        let work = || {
            let typed = acts::of_batch(&self.told, &bench);
            render(&typed, &bench, theme, Some(&self.told), extra)
        };
        app.models.at_length(work).await?
    }
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let open = OpenRise::of(&app, &here, &code).await?;
    let (told, bench) = (&open.told, open.bench(&here));
    let work = || {
        let typed = acts::of_batch(told, &bench);
        render(&typed, &bench, theme, Some(told), RiseExtra::default())
    };
    app.models.at_length(work).await?
}

/// Keeps a changed plan, unless somebody changed it meanwhile.
async fn plan(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let open = OpenRise::of(&app, &here, &code).await?;
    let (told, bench) = (&open.told, open.bench(&here));
    let mut typed = FormData::parse(&body);
    typed.set("batch", &code);
    let work = || {
        looked::request(&typed, &bench, Some(told)).and_then(|r| {
            let result = replanned(told, &r).map_err(reading::at_fields)?;
            Ok((result, r))
        })
    };
    let (result, request) = match app.models.at_length(work).await? {
        Ok(w) => w,
        Err(_) => {
            let extra = RiseExtra {
                status: StatusCode::UNPROCESSABLE_ENTITY,
                ..RiseExtra::default()
            };
            let render = || render(&typed, &bench, theme, Some(told), extra);
            return app.models.at_length(render).await?;
        }
    };
    let of = typed.text("plan").parse().unwrap_or(u32::MAX);
    match keep(
        &app,
        &here,
        told,
        of,
        (&request, &result),
        &fact!("plan-hours"),
    )
    .await?
    {
        Replanned::Done => Ok(Redirect::to(&format!("/batches/{code}/rise")).into_response()),
        Replanned::Stale(_) => {
            let theirs = &told.batch.sheet;
            let hours: Vec<String> = theirs
                .request
                .formula
                .path()
                .iter()
                .map(|l| leg_hours(l, &here))
                .collect();
            let stale = say!(
                "rise-somebody-changed-this-plan-at",
                planned_at = day_hm(&here.local(told.batch.planned_at)),
                join = hours.join(", "),
                serve_at = day_hm(&here.local(theirs.request.serve_at))
            );
            typed.set("plan", told.batch.plan.to_string());
            let extra = RiseExtra {
                status: StatusCode::CONFLICT,
                stale: Some(stale),
                ..RiseExtra::default()
            };
            let render = || render(&typed, &bench, theme, Some(told), extra);
            app.models.at_length(render).await?
        }
    }
}

/// Takes a remedy: what it changes becomes the plan.
async fn remedy(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let open = OpenRise::of(&app, &here, &code).await?;
    let (told, bench) = (&open.told, open.bench(&here));
    let pressed = FormData::parse(&body);
    let back = |message: String| open.refuse(&app, &here, theme, StatusCode::CONFLICT, message);
    let sheet = &told.batch.sheet;
    let found = app
        .models
        .at_length(|| {
            let places = bench.larder.places();
            ahead(told, &sheet.request, &sheet.result, &here, &places)
        })
        .await?;
    let found = found.ok().and_then(|a| {
        a.remedies
            .into_iter()
            .find(|r| r.code == pressed.text("take"))
    });
    let Some(r) = found else {
        return back(phrase("rise-that-remedy-no-longer-helps").into()).await;
    };
    let mut request = SheetRequest::clone(&sheet.request);
    request.now_at = None;
    request.formula = request.formula.on_path(r.change.legs);
    request.serve_at = r.change.serve_at;
    request.formula = sheet.result.weighed(request.formula);
    if let Some(percent) = r.change.yeast_percent {
        request.formula = request.formula.in_the_bowl(percent);
    }
    let result = match app.models.at_length(|| replanned(told, &request)).await? {
        Ok(x) => x,
        Err(e) => return back(here.say_all(&e.0)).await,
    };
    let of = pressed.text("plan").parse().unwrap_or(u32::MAX);
    match keep(&app, &here, told, of, (&request, &result), &r.say).await? {
        Replanned::Done => Ok(Redirect::to(&format!("/batches/{code}/rise")).into_response()),
        Replanned::Stale(_) => back(phrase("rise-somebody-changed-this-plan-a").into()).await,
    }
}

/// Fits the vigour to what a maker saw; kept in the pantry only when that is pressed too.
async fn vigour(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let open = OpenRise::of(&app, &here, &code).await?;
    let (told, bench) = (&open.told, open.bench(&here));
    let pressed = FormData::parse(&body);
    let typed = acts::of_batch(told, &bench);
    let refuse = |message: String| {
        open.refuse(
            &app,
            &here,
            theme,
            StatusCode::UNPROCESSABLE_ENTITY,
            message,
        )
    };
    if pressed.text("when").is_empty() {
        return refuse(phrase("rise-say-when-it-was-ready").into()).await;
    }
    let sent = Sent::of(&pressed, false, &here).and_then(|s| s.admitted(told, &here));
    let at = match sent {
        Ok(sent) => sent.at,
        Err(e) => return refuse(e).await,
    };
    let sign = match pressed.text("times") {
        "" => Sign::Ready,
        text => match number(text) {
            Ok(times) => Sign::Grown { times },
            Err(_) => return refuse(phrase("rise-the-tubs-growth-is-a").into()).await,
        },
    };
    let sheet = &told.batch.sheet;
    let went = || {
        as_it_went(&AheadRequest {
            request: &sheet.request,
            planned: &sheet.result,
            happened: &told.happened(),
            now: here.now,
            places: &[],
            doubts: doubts(&here),
        })
    };
    let went = app.models.at_length(went).await?;
    let Ok((dough, mixed_at)) = went else {
        return refuse(phrase("rise-this-batch-cannot-be-followed").into()).await;
    };
    let asked = VigourRequest {
        dough,
        at_h: at.duration_since(mixed_at).as_secs_f64() / 3600.0,
        sign,
    };
    let fitted = app
        .models
        .at_length(|| fit_vigour(&asked, Temperatures::InsideTheDough))
        .await?;
    let fit = match fitted {
        Ok(f) => f,
        Err(e) if e.0.iter().any(|e| e.field == "at_h") => {
            return refuse(say!(
                "rise-is-not-after-the-mixing",
                at = day_hm(&here.local(at)),
                mixed_at = day_hm(&here.local(mixed_at))
            ))
            .await;
        }
        Err(e) => return refuse(here.say_all(&e.0)).await,
    };
    let form = sheet.request.formula.yeast.form;
    let own = open
        .larder
        .0
        .leavens
        .iter()
        .find(|l| l.facts.form.key() == form.key());
    let vigour = to_note(sheet.request.yeast_vigour, fit.factor);
    if !pressed.text("keep").is_empty()
        && let Some(l) = own
    {
        let mut facts = l.facts.clone();
        facts.vigour = vigour;
        let mut db = app.db.acquire().await?;
        let at = At::Row {
            id: l.id,
            revision: l.revision,
        };
        let put = pantry::put(&mut db, here.id(), at, &facts, here.now).await?;
        drop(db);
        return match put {
            Put::Done(id) | Put::Other(id) => {
                Ok(Redirect::to(&format!("/pantry/leavens/{id}")).into_response())
            }
            Put::Stale(_) => {
                refuse(phrase("rise-somebody-changed-that-leaven-meanwhile").into()).await
            }
        };
    }
    let next = SheetRequest {
        yeast_vigour: vigour,
        now_at: None,
        formula: craft::formula::Formula {
            yeast: craft::formula::Yeast {
                form,
                dose: Dose::Solve,
            },
            ..sheet.request.formula.clone()
        },
        ..SheetRequest::clone(&sheet.request)
    };
    let next = app.models.at_length(|| work_out(&next)).await?;
    let changes = match next {
        Ok(n) => say!(
            "rise-the-same-dough-would-next",
            percent = two_digits(n.yeast.percent),
            percent2 = two_digits(sheet.result.yeast.percent)
        ),
        Err(_) => phrase("rise-the-same-hours-would-then").into(),
    };
    let foreseen = match sign {
        Sign::Ready => say!(
            "rise-the-book-had-the-rise",
            foreseen = decimal(100.0 * fit.foreseen, 0)
        ),
        Sign::Grown { .. } => say!(
            "rise-the-book-had-it-at",
            foreseen = decimal(fit.foreseen, 2)
        ),
    };
    let view = FitView {
        says: say!(
            "rise-your-works-times-as-fast",
            name = here.words(&form.name()),
            factor = two_digits(fit.factor),
            foreseen = foreseen
        ),
        changes,
        limit: fit
            .at_limit
            .then(|| phrase("rise-that-is-beyond-half-or").to_string()),
        leaven: own.map(|l| (l.id, l.facts.name.clone(), plain(vigour))),
    };
    let mut typed = typed;
    typed.set("vigour_when", pressed.text("when"));
    typed.set("vigour_times", pressed.text("times"));
    let extra = RiseExtra {
        fit: Some(view),
        ..RiseExtra::default()
    };
    let render = || render(&typed, &bench, theme, Some(told), extra);
    app.models.at_length(render).await?
}
