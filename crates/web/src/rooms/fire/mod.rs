//! Fire: the oven for a dough. The race with its window, the cut through oven and piece, the firing with its readings, what
//! to change; for a style that is thought of, and for a batch whose plan it becomes part of.

mod calibration;
mod form;
mod kept;
mod made;
mod picture;
mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::form::SaidError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use craft::fact;
use craft::fact::Fact;
use craft::fire::overview::FireOverview;
use craft::fire::remedy::FireChange;
use craft::fire::set_points::solve_plan;
use craft::formula::{Formula, FormulaRequest, formulate};
use craft::refusal::FieldError;
use craft::sheet::StepKind;
use form::{Dough, Read};
use jiff::ToSpan;
use made::Made;
use serde::Serialize;
use std::collections::HashMap;
use view::{FireView, Wants};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/fire", new)
        .post(LOOK, "/fire", look)
        .post(LOOK, "/fire/preview", preview)
        .merge(kept::routes())
}

#[derive(Template)]
#[template(path = "rooms/fire/page.html")]
struct FirePage {
    frame: Frame,
    v: FireView,
    extra: FireExtra,
}
#[derive(Template)]
#[template(path = "rooms/fire/answer.html")]
struct FireAnswer<'a> {
    v: &'a FireView,
}
#[derive(Template)]
#[template(path = "rooms/fire/picture.html")]
struct FirePictures<'a> {
    v: &'a FireView,
}
#[derive(Template)]
#[template(path = "rooms/fire/desk.html")]
struct FireDesk<'a> {
    v: &'a FireView,
    extra: &'a FireExtra,
}

/// What a page holds besides its plan.
#[derive(Default)]
struct FireExtra {
    batch: Option<String>,
    /// The batch's own number.
    batch_id: u64,
    plan: u32,
    /// The step "light the oven", while it is not done; its key.
    light: Option<(u16, String)>,
    lit: Option<String>,
    reading_key: String,
    /// What was typed as a reading and refused, with what was probably meant.
    reading: Option<(String, String, String, Option<String>)>,
    stale: Option<String>,
    /// Said after something was kept.
    done: Option<String>,
    mixed: bool,
    kept: bool,
    calibration: Option<calibration::CalibrationView>,
    degree_unit: &'static str,
}

/// What a live recomputation returns.
#[derive(Serialize)]
struct FirePreview {
    answer: Option<String>,
    picture: Option<String>,
    /// Absent in the first of two answers.
    desk: Option<String>,
    errors: Vec<SaidError>,
}

/// A dough that is thought of: a style's own, served tomorrow.
fn of_style(formula: Formula, larder: &Larder, here: &RequestKitchen) -> Result<Dough, AppError> {
    let result = formulate(&FormulaRequest {
        formula: formula.clone(),
        scales: larder.scales(here),
        doses: None,
    })
    .map_err(|e| AppError::Asked(e.to_string()))?;
    let usual = &here.kitchen.usual;
    let evening = here
        .local(here.now)
        .checked_add(1.day())
        .ok()
        .and_then(|d| {
            d.with()
                .hour(19)
                .minute(0)
                .second(0)
                .subsec_nanosecond(0)
                .build()
                .ok()
        });
    Ok(Dough {
        portion: result
            .main_portion()
            .cloned()
            .ok_or_else(|| AppError::Asked(phrase("fire-that-dough-has-no-pieces").into()))?,
        pieces: result.pieces,
        formula,
        room_c: usual.room_c,
        altitude_m: usual.altitude_m,
        serve_at: evening.map_or(here.now, |z| z.timestamp()),
        closes_at: None,
        baking_since: None,
        mixed: false,
    })
}

/// The dough of a batch.
fn of_batch(told: &BatchRecord) -> Result<Dough, AppError> {
    let sheet = &told.batch.sheet;
    let r = &sheet.request;
    Ok(Dough {
        formula: r.formula.clone(),
        portion: sheet
            .result
            .formula
            .main_portion()
            .cloned()
            .ok_or_else(|| AppError::Asked(phrase("fire-that-dough-has-no-pieces").into()))?,
        pieces: sheet.result.formula.pieces,
        room_c: r.room_c,
        altitude_m: r.altitude_m,
        serve_at: r.serve_at,
        closes_at: sheet.result.window.and_then(|w| w.to_at),
        baking_since: told.run.pizzas.iter().map(|p| p.in_at).min(),
        mixed: told.is_mixed(),
    })
}

/// Everything that a page of Fire is made from.
struct OpenFire {
    larder: Larder,
    told: Option<BatchRecord>,
    dough: Dough,
}

impl OpenFire {
    async fn of(
        app: &App,
        here: &RequestKitchen,
        code: &str,
        style: &str,
    ) -> Result<OpenFire, AppError> {
        let larder = Larder::of(app, here).await?;
        if code.is_empty() {
            let found = larder.style(style);
            let style = found.as_ref().unwrap_or(larder.usual_style());
            let dough = of_style(Formula::of_style(style), &larder, here)?;
            return Ok(OpenFire {
                larder,
                told: None,
                dough,
            });
        }
        let told = crate::batch::load::told(app, here, code).await?;
        let dough = of_batch(&told)?;
        Ok(OpenFire {
            larder,
            told: Some(told),
            dough,
        })
    }

    /// The form as it stands: the fire that was kept, or what the style usually has.
    fn typed(&self, here: &RequestKitchen) -> FormData {
        let mut t = FormData::default();
        match self
            .told
            .as_ref()
            .and_then(|t| t.batch.sheet.request.fire.as_deref())
        {
            Some(fire) => {
                let known = self.larder.ovens();
                let found = known
                    .iter()
                    .find(|o| match fire.oven_id {
                        Some(id) => o.1 == Some(id),
                        None => o.2.key == fire.plan.oven.key,
                    })
                    .unwrap_or(&known[0]);
                form::write(&mut t, &fire.plan, &found.0, fire.hands, here);
            }
            None => {
                let (name, _, oven) = self.larder.oven_for(&self.dough.formula.style);
                let plan = self.dough.plan(&oven, &self.larder);
                form::write(&mut t, &plan, &name, 1, here);
            }
        }
        t.set("style", self.dough.formula.style.key.clone());
        t
    }

    /// The batch that the page is of.
    fn batch(&self, code: &str) -> Result<&BatchRecord, AppError> {
        self.told
            .as_ref()
            .ok_or_else(|| AppError::NoBatch(code.into()))
    }

    fn lit_at(&self) -> Option<jiff::Timestamp> {
        self.told.as_ref().and_then(BatchRecord::lit_at)
    }

    fn extra(&self, here: &RequestKitchen) -> FireExtra {
        let Some(told) = &self.told else {
            return FireExtra {
                degree_unit: here.measures.degree_unit(),
                ..FireExtra::default()
            };
        };
        let steps = &told.batch.sheet.result.steps;
        let light = steps.iter().find(|s| s.kind == StepKind::LightOven);
        let lit = self.lit_at();
        let key = || uuid::Uuid::new_v4().to_string();
        FireExtra {
            batch: Some(told.batch.code.clone()),
            batch_id: told.batch.id.0,
            plan: told.batch.plan,
            light: light.filter(|_| lit.is_none()).map(|s| (s.number, key())),
            lit: lit.map(|t| crate::shared::format::hm(&here.local(t))),
            reading_key: key(),
            mixed: self.dough.mixed,
            kept: told.batch.sheet.request.fire.is_some(),
            degree_unit: here.measures.degree_unit(),
            ..FireExtra::default()
        }
    }

    fn worked(
        &self,
        typed: &FormData,
        here: &RequestKitchen,
        wants: Wants,
    ) -> Result<(Read, FireOverview), Vec<FieldError>> {
        let read = form::read(typed, &self.dough, &self.larder, here)?;
        let readings = self.told.as_ref().map_or(vec![], BatchRecord::floor_reads);
        let looked = view::looked(&read, &self.dough, here, &readings, self.lit_at(), wants)?;
        Ok((read, looked))
    }

    fn view(
        &self,
        typed: &FormData,
        here: &RequestKitchen,
        pressed: &[FieldError],
        wants: Wants,
    ) -> FireView {
        let worked = self.worked(typed, here, wants);
        let mut errors = pressed.to_vec();
        let worked = match &worked {
            Ok((r, l)) => Some((r, l)),
            Err(e) => {
                // What a press met already is not said twice.
                let new = e.iter().filter(|e| !pressed.contains(e));
                errors.extend(new.cloned());
                None
            }
        };
        let readings = self.told.as_ref().map_or(vec![], BatchRecord::floor_reads);
        FireView::of(&Made {
            typed,
            dough: &self.dough,
            larder: &self.larder,
            here,
            worked,
            errors,
            readings: &readings,
            lit_at: self.lit_at(),
            free: self.told.is_none(),
        })
    }

    fn render(
        &self,
        typed: &FormData,
        here: &RequestKitchen,
        theme: Theme,
        status: StatusCode,
        pressed: &[FieldError],
        extra: FireExtra,
    ) -> Result<Response, AppError> {
        let v = self.view(typed, here, pressed, Wants::All);
        let status = if v.errors.is_empty() || status != StatusCode::OK {
            status
        } else {
            StatusCode::UNPROCESSABLE_ENTITY
        };
        let code = extra.batch.clone();
        let path = code
            .as_ref()
            .map_or("/fire".into(), |c| format!("/batches/{c}/fire"));
        let open = self
            .told
            .as_ref()
            .map(|t| (t.batch.code.as_str(), t.progress.stand));
        let html = page(&FirePage {
            frame: Frame::of(here, theme, Stop::Fire, phrase("bake-fire"), open, &path),
            v,
            extra,
        })?;
        Ok((status, html).into_response())
    }
}

/// Does to the form what a button asks.
fn press(typed: &mut FormData, open: &OpenFire, here: &RequestKitchen) -> Vec<FieldError> {
    let act = typed.text("act").to_string();
    typed.forget("act");
    // A switch that is off is not sent at all.
    for name in ["grill", "fan", "below"] {
        if !typed.has(name) {
            typed.set(name, "");
        }
    }
    let wrong = |message: &str| {
        vec![FieldError {
            field: "pressed".into(),
            message: Fact::as_written(message),
        }]
    };
    if act.starts_with("oven") {
        let found = open
            .larder
            .ovens()
            .into_iter()
            .find(|o| o.0 == typed.text("oven"));
        let Some((name, _, oven)) = found else {
            return wrong(phrase("fire-that-oven-is-no-longer"));
        };
        let piece = form::read(typed, &open.dough, &open.larder, here)
            .ok()
            .map(|r| r.plan.piece);
        let mut plan = open.dough.plan(&oven, &open.larder);
        if let Some(p) = piece {
            plan.piece = p;
        }
        let hands = typed.text("hands").parse().unwrap_or(1);
        form::write(typed, &plan, &name, hands, here);
        return vec![];
    }
    if act == "model" {
        typed.forget("own");
        typed.forget_all("cue[");
        return vec![];
    }
    if act == "own" {
        typed.set("own", "1");
        return vec![];
    }
    if act == "shape" {
        typed.forget("own");
        typed.forget_all("cue[");
        return vec![];
    }
    if let Some(key) = act.strip_prefix("remedy:") {
        let read = match form::read(typed, &open.dough, &open.larder, here) {
            Ok(r) => r,
            Err(e) => return e,
        };
        let changed = FireChange::from_key(key).and_then(|c| c.applied(&read.plan));
        let Some(plan) = changed else {
            return wrong(phrase("fire-that-changes-nothing-in-this"));
        };
        form::write(typed, &plan, &read.oven_ref, read.hands, here);
        return vec![];
    }
    if act == "solve" {
        return solve(typed, open, here);
    }
    vec![]
}

/// Sets floor and dome to what this piece wants, within what the oven can do.
fn solve(typed: &mut FormData, open: &OpenFire, here: &RequestKitchen) -> Vec<FieldError> {
    form::hold_below_most(typed);
    let read = match form::read(typed, &open.dough, &open.larder, here) {
        Ok(r) => r,
        Err(e) => return e,
    };
    match solve_plan(&read.plan) {
        Ok(found) => {
            form::write(typed, &found.plan, &read.oven_ref, read.hands, here);
            if found.floor_at_limit || found.dome_at_limit {
                let message = if found.dome_at_limit {
                    fact!("limit-top")
                } else {
                    fact!("limit-floor")
                };
                return vec![FieldError {
                    field: "limit".into(),
                    message,
                }];
            }
            vec![]
        }
        Err(e) => form::at_fields(e.0),
    }
}

async fn new(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let style = query.get("style").map_or("", String::as_str);
    let open = OpenFire::of(&app, &here, "", style).await?;
    let work = || {
        let mut typed = open.typed(&here);
        if let Some(oven) = query.get("oven") {
            typed.set("oven", oven.clone());
            typed.set("act", "oven");
            press(&mut typed, &open, &here);
        }
        let extra = open.extra(&here);
        open.render(&typed, &here, theme, StatusCode::OK, &[], extra)
    };
    app.models.at_length(work).await?
}

async fn look(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    body: Bytes,
) -> Result<Response, AppError> {
    let mut typed = FormData::parse(&body);
    let open = OpenFire::of(&app, &here, typed.text("batch"), typed.text("style")).await?;
    let work = || {
        let pressed = press(&mut typed, &open, &here);
        let (extra, wrong) = after(&open, &typed, &here, pressed);
        open.render(&typed, &here, theme, StatusCode::OK, &wrong, extra)
    };
    app.models.at_length(work).await?
}

/// What a page says besides its plan after a press, and what of the press is wrong.
fn after(
    open: &OpenFire,
    typed: &FormData,
    here: &RequestKitchen,
    pressed: Vec<FieldError>,
) -> (FireExtra, Vec<FieldError>) {
    let extra = open.extra(here);
    let (limits, wrong): (Vec<_>, Vec<_>) = pressed.into_iter().partition(|e| e.field == "limit");
    let extra = FireExtra {
        plan: typed.text("plan").parse().unwrap_or(extra.plan),
        done: limits.into_iter().next().map(|e| here.say(&e.message)),
        ..extra
    };
    (extra, wrong)
}

async fn preview(
    State(app): State<App>,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Json<FirePreview>, AppError> {
    let mut typed = FormData::parse(&body);
    let open = OpenFire::of(&app, &here, typed.text("batch"), typed.text("style")).await?;
    // Asked in two: what a change moves at once, and then the rest.
    let wants = match typed.text("first") {
        "" => Wants::All,
        _ => Wants::First,
    };
    let work = || {
        let pressed = press(&mut typed, &open, &here);
        let (extra, wrong) = after(&open, &typed, &here, pressed);
        (open.view(&typed, &here, &wrong, wants), extra)
    };
    let (v, extra) = app.models.at_length(work).await?;
    let whole = v.picture.is_some();
    Ok(Json(FirePreview {
        answer: whole.then(|| FireAnswer { v: &v }.render()).transpose()?,
        picture: whole.then(|| FirePictures { v: &v }.render()).transpose()?,
        desk: match wants {
            Wants::First => None,
            Wants::All => Some(
                FireDesk {
                    v: &v,
                    extra: &extra,
                }
                .render()?,
            ),
        },
        errors: v.errors,
    }))
}
