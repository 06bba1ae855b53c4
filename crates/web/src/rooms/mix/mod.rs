//! Mix: what to weigh and pour, the run step by step with its times, where the dough ends, and what the mixer taught.

mod asked;
mod lists;
mod picture;
mod taught;
mod view;
mod words;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN, TAP};
use crate::batch::arrived::Arrived;
use crate::batch::entries::{self, Sent};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::{FormData, number};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use asked::AskedRun;
use axum::Json;
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::{Html, IntoResponse, Redirect, Response};
use craft::fact::Fact;
use craft::fire::boiling_c;
use craft::keyed::Keyed;
use craft::mix::run::{MixAct, MixInput, MixRefused, MixTap, MixTrouble};
use craft::mix::{Machine, Mixer, ReadySign};
use craft::refusal::FieldError;
use craft::sheet::progress::Stand;
use serde::{Deserialize, Serialize};
use store::entry::{EntryOutcome, Seen, Standing};
use taught::{alike, take_over, taught_by};
use view::{MixState, MixView};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/mix", nearest)
        .get(LOOK, "/batches/{code}/mix", show)
        .post(TAP, "/batches/{code}/mix", take)
        .get(LOOK, "/batches/{code}/mix/now", now)
        .post(PLAN, "/batches/{code}/mix/taught", take_over)
}

#[derive(Template)]
#[template(path = "rooms/mix/page.html")]
struct MixPage {
    frame: Frame,
    b: MixView,
}

macro_rules! parts {
    ($($name:ident => $path:literal),+ $(,)?) => {$(
        #[derive(Template)]
        #[template(path = $path)]
        struct $name<'a> {
            b: &'a MixView,
        }
    )+};
}
parts!(MixHead => "rooms/mix/head.html", MixWater => "rooms/mix/water.html", MixSteps => "rooms/mix/steps.html", MixWeigh => "rooms/mix/weigh.html", MixSeen => "rooms/mix/seen.html",
    MixCourse => "rooms/mix/course.html", MixJudged => "rooms/mix/judged.html");

#[derive(Deserialize)]
struct MixQuery {
    bowl: Option<u16>,
    run: Option<u16>,
}

/// The batch that is in the mixer, or the one that is mixed next.
async fn nearest(State(app): State<App>, here: RequestKitchen) -> Result<Redirect, AppError> {
    let live = load::live(&app, &here).await?;
    let to_mix = |t: &&BatchRecord| t.progress.stand <= Stand::Mixing;
    let found = live
        .iter()
        .find(|t| t.progress.stand == Stand::Mixing)
        .or_else(|| {
            live.iter()
                .filter(to_mix)
                .min_by_key(|t| t.batch.sheet.result.start_at)
        })
        .or_else(|| live.first());
    Ok(Redirect::to(&found.map_or("/".into(), |t| {
        format!("/batches/{}/mix", t.batch.code)
    })))
}

/// The run that is asked for, with the kitchen's own mixer where nothing was chosen.
fn asked(
    told: &BatchRecord,
    larder: &Larder,
    bowl: Option<u16>,
    run: Option<u16>,
) -> Result<AskedRun, AppError> {
    AskedRun::of(told, larder, bowl, run)
        .ok_or_else(|| AppError::Asked(phrase("mix-there-is-no-such-bowl").into()))
}

async fn viewed(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    bowl: Option<u16>,
    run: Option<u16>,
) -> Result<MixView, AppError> {
    let larder = Larder::of(app, here).await?;
    let mut a = asked(told, &larder, bowl, run)?;
    alike(app, here, &larder, &mut a).await?;
    let taught = match a.ended() && a.to_mix.machine.kind != Mixer::Hand {
        true => Some(taught_by(app, here, &larder, &a).await?),
        false => None,
    };
    let work = || MixView::of(told, &a, &larder, here, taught);
    let b = app.models.at_length(work).await?;
    b.map_err(|e| AppError::Asked(here.say_all(&e.0)))
}

async fn show(
    State(app): State<App>,
    here: RequestKitchen,
    theme: Theme,
    Path(code): Path<String>,
    Query(q): Query<MixQuery>,
) -> Result<Html<String>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let b = viewed(&app, &here, &told, q.bowl, q.run).await?;
    shown(&told, &here, theme, b)
}

fn shown(
    told: &BatchRecord,
    here: &RequestKitchen,
    theme: Theme,
    b: MixView,
) -> Result<Html<String>, AppError> {
    let code = &told.batch.code;
    let frame = Frame::of(
        here,
        theme,
        Stop::Mix,
        &say!("mix-mix", code = code),
        Some((code, told.progress.stand)),
        &b.href(),
    );
    page(&MixPage { frame, b })
}

/// The parts of the page that change with the run, drawn.
#[derive(Serialize)]
struct MixNow {
    state: MixState,
    head: String,
    water: String,
    steps: String,
    weigh: String,
    seen: String,
    course: String,
    judged: String,
}

async fn now(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    Query(q): Query<MixQuery>,
) -> Result<Json<MixNow>, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let b = viewed(&app, &here, &told, q.bowl, q.run).await?;
    Ok(Json(MixNow {
        head: MixHead { b: &b }.render()?,
        water: MixWater { b: &b }.render()?,
        steps: MixSteps { b: &b }.render()?,
        seen: MixSeen { b: &b }.render()?,
        weigh: MixWeigh { b: &b }.render()?,
        course: MixCourse { b: &b }.render()?,
        judged: MixJudged { b: &b }.render()?,
        state: b.state,
    }))
}

/// What a form says: the tap, or what is wrong with a field.
fn read(
    typed: &FormData,
    a: &AskedRun,
    larder: &Larder,
    here: &RequestKitchen,
) -> Result<MixAct, FieldError> {
    let wrong = |field: &str, says: &str| FieldError {
        field: field.into(),
        message: Fact::as_written(says),
    };
    let count = |name: &str| typed.text(name).parse::<u16>().ok().filter(|n| *n > 0);
    let degrees = |what: MixInput, name: &str| {
        let value = number(typed.text(name)).unwrap_or(f64::NAN);
        let boiling = boiling_c(a.to_mix.altitude_m);
        let c = what.take(value, here.measures.temperature, boiling);
        c.map(|c| c.0).map_err(|e| FieldError {
            field: name.into(),
            ..e
        })
    };
    let unknown = || wrong("act", phrase("mix-that-is-not-a-tap"));
    Ok(match typed.text("act") {
        "step" => MixAct::Step {
            step: count("step").ok_or_else(unknown)?,
        },
        "more" => MixAct::More {
            step: count("step").ok_or_else(unknown)?,
            minutes: match typed.text("minutes") {
                "" => 1.0,
                text => number(text).unwrap_or(f64::NAN),
            },
        },
        "poured" => MixAct::Poured {
            part: count("part").ok_or_else(unknown)?,
            c: match typed.text("c") {
                "" => None,
                _ => Some(degrees(MixInput::Water, "c")?),
            },
        },
        "read" => {
            let value = number(typed.text("degrees")).unwrap_or(f64::NAN);
            let c = craft::reading::Subject::Dough.take(value, here.measures.temperature)?;
            MixAct::Read { c: c.0 }
        }
        "measured" => {
            let what = MixInput::from_key(typed.text("what")).ok_or_else(unknown)?;
            MixAct::Measured {
                what,
                c: degrees(what, "c")?,
            }
        }
        "weighed" => MixAct::Weighed {
            line: count("line").ok_or_else(unknown)?,
            done: typed.text("done") != "no",
        },
        "sign" => MixAct::Sign {
            sign: ReadySign::from_key(typed.text("sign")).ok_or_else(unknown)?,
        },
        "trouble" => MixAct::Trouble {
            trouble: MixTrouble::from_key(typed.text("trouble")).ok_or_else(unknown)?,
        },
        "chosen" => chosen(typed.text("way"), a, larder).ok_or_else(unknown)?,
        _ => return Err(unknown()),
    })
}

/// A programme and a machine out of `key:number`.
fn chosen(way: &str, a: &AskedRun, larder: &Larder) -> Option<MixAct> {
    let (key, id) = way.split_once(':')?;
    let all = a.ways(larder);
    let programme = all.iter().find(|p| p.key == key)?;
    let id: Option<u64> = id.parse().ok();
    let own = larder.0.machines.iter().find(|m| Some(m.id) == id);
    let machine = match own {
        Some(m) if m.facts.kind == programme.kind => m.facts.clone(),
        Some(_) => return None,
        None if a.to_mix.machine.kind == programme.kind => a.to_mix.machine.clone(),
        None => Machine::usual(programme.kind),
    };
    let all = a
        .to_mix
        .clone()
        .in_machine(machine.clone(), programme.clone());
    Some(MixAct::Chosen {
        programme: Box::new(programme.clone()),
        machine: Box::new(machine),
        machine_id: own.map(|m| m.id),
        runs: u16::try_from(all.runs).unwrap_or(1),
    })
}

/// What a run begins with where nobody chose anything: as it stands on the page.
fn as_shown(a: &AskedRun) -> MixAct {
    MixAct::Chosen {
        programme: Box::new(a.to_mix.programme.clone()),
        machine: Box::new(a.to_mix.machine.clone()),
        machine_id: a.machine_id,
        runs: u16::try_from(a.to_mix.runs).unwrap_or(1),
    }
}

/// Keeps a tap. The same key is kept once; one that makes no sense is refused.
async fn take(a: Arrived) -> Result<Response, AppError> {
    let larder = Larder::of(&a.app, &a.here).await?;
    let count = |name: &str| a.typed.text(name).parse::<u16>().ok();
    let run = asked(
        &a.told,
        &larder,
        count("bowl").or(Some(0)),
        count("run").or(Some(1)),
    )?;
    let sent = match &a.sent {
        Ok(sent) => *sent,
        Err(e) => return Ok(entries::refused(e.clone(), a.by_script)),
    };
    if a.typed.text("act") == "all_measured" {
        return measured(&a, &run, &larder, sent).await;
    }
    let act = match read(&a.typed, &run, &larder, &a.here) {
        Ok(act) => act,
        Err(e) => return wrong(&a, vec![e]).await,
    };
    let begins = matches!(act, MixAct::Step { step: 1 }) && run.chosen_nothing();
    if begins {
        let kept = keep(&a, &run, &larder, &sent.nth(1), as_shown(&run)).await?;
        if let EntryOutcome::Refused(_) = kept {
            return Ok(answered(&a, &run, kept, &sent, phrase("bake-this-tap")));
        }
    }
    let words = a.here.words(&act.fact());
    let kept = keep(&a, &run, &larder, &sent, act).await?;
    Ok(answered(&a, &run, kept, &sent, &words))
}

async fn keep(
    a: &Arrived,
    run: &AskedRun,
    larder: &Larder,
    sent: &Sent,
    act: MixAct,
) -> Result<EntryOutcome, AppError> {
    let tap = MixTap {
        bowl: run.bowl,
        run: run.run,
        at: sent.at,
        act: act.clone(),
    };
    let admits = |s: &Standing| {
        entries::open(s)?;
        let Some(now) = AskedRun::standing(&a.told, larder, s, tap.bowl, tap.run) else {
            return Err(MixRefused::NoSuchRun(tap.run).fact());
        };
        if matches!(tap.act, MixAct::Step { step: 1 })
            && let Some(before) = now.not_out_before()
        {
            return Err(MixRefused::RunBefore(before).fact());
        }
        let parts = now.parts();
        now.told
            .admits(&tap, now.steps(), parts, false)
            .map_err(|e| e.fact())
    };
    let said = Seen::Mix {
        bowl: run.bowl,
        run: run.run,
        act,
    };
    a.keep(sent, said, &admits).await
}

fn answered(a: &Arrived, run: &AskedRun, kept: EntryOutcome, sent: &Sent, words: &str) -> Response {
    let back = lists::href(a.code(), run.bowl, run.run);
    entries::answer(kept, sent, &a.here, words, &back)
}

/// All temperatures of the form at once, as a browser without scripts sends them: those that differ are entered.
async fn measured(
    a: &Arrived,
    run: &AskedRun,
    larder: &Larder,
    sent: Sent,
) -> Result<Response, AppError> {
    let mut acts = vec![];
    let mut errors = vec![];
    let shown = lists::fields(run, &a.here);
    for f in &shown {
        let typed = a.typed.text(f.key);
        if typed.is_empty() || typed == f.value {
            continue;
        }
        let what = MixInput::from_key(f.key).unwrap_or(MixInput::Wanted);
        let value = number(typed).unwrap_or(f64::NAN);
        let boiling = boiling_c(run.to_mix.altitude_m);
        match what.take(value, a.here.measures.temperature, boiling) {
            Ok(c) => acts.push(MixAct::Measured { what, c: c.0 }),
            Err(e) => errors.push(FieldError {
                field: f.key.into(),
                ..e
            }),
        }
    }
    if !errors.is_empty() {
        return wrong(a, errors).await;
    }
    let mut last = EntryOutcome::New;
    for (n, act) in acts.into_iter().enumerate() {
        last = keep(a, run, larder, &sent.nth(n + 2), act).await?;
    }
    Ok(answered(
        a,
        run,
        last,
        &sent,
        phrase("mix-the-temperatures"),
    ))
}

/// A number that cannot be: for a script a sentence, else the page with what was typed and the sentence beside it.
async fn wrong(a: &Arrived, errors: Vec<FieldError>) -> Result<Response, AppError> {
    if a.by_script {
        let first = &errors[0];
        return Ok(entries::wrong(&first.field, a.here.say(&first.message)));
    }
    let count = |name: &str| a.typed.text(name).parse::<u16>().ok();
    let mut b = viewed(&a.app, &a.here, &a.told, count("bowl"), count("run")).await?;
    for f in &mut b.fields {
        if a.typed.has(f.key) {
            f.value = a.typed.raw(f.key).to_string();
        }
        let said = errors.iter().find(|e| e.field == f.key);
        f.error = said.map(|e| a.here.say(&e.message));
    }
    b.reading = a.typed.raw("degrees").to_string();
    let other = errors
        .iter()
        .find(|e| b.fields.iter().all(|f| f.key != e.field));
    b.reading_error = other.map(|e| a.here.say(&e.message));
    let html = shown(&a.told, &a.here, a.theme, b)?;
    Ok((StatusCode::UNPROCESSABLE_ENTITY, html).into_response())
}
