//! What a machine's mixes teach: its friction, the minutes that it usually needs, its own base. Nothing enters a figure until it
//! is pressed.

use super::asked::{self, AskedRun};
use super::lists;
use super::words::{self, TaughtView};
use crate::App;
use crate::batch::load;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::phrase;
use axum::extract::{Path, State};
use axum::response::Redirect;
use craft::mix::{LoggedMix, Machine, learn_friction, usual_minutes};
use craft::sheet::OwnBase;
use store::pantry;

/// So many batches are looked at for what a machine's mixes teach; for its usual minutes fewer do.
const MOST_TAUGHT: u32 = 60;
const MOST_ALIKE: u32 = 12;

/// Runs of a machine on the batches that were mixed last, the latest last.
async fn runs_of(
    app: &App,
    here: &RequestKitchen,
    larder: &Larder,
    machine: u64,
    most: u32,
) -> Result<Vec<AskedRun>, AppError> {
    let mut db = app.db.acquire().await?;
    let codes = store::entry::codes_at_the_bowl(&mut db, here.id(), most).await?;
    drop(db);
    let mut all = vec![];
    for code in codes.iter().rev() {
        let told = load::told(app, here, code).await?;
        for (bowl, _) in asked::bowls(&told) {
            let Some(first) = AskedRun::of(&told, larder, Some(bowl), Some(1)) else {
                continue;
            };
            for run in 1..=first.over.len() as u16 {
                let of_run = AskedRun::of(&told, larder, Some(bowl), Some(run));
                let own = of_run.filter(|r| r.machine_id == Some(machine) && r.begun());
                all.extend(own);
            }
        }
    }
    Ok(all)
}

/// All runs of a machine that were logged whole.
async fn logged_of(
    app: &App,
    here: &RequestKitchen,
    larder: &Larder,
    machine: u64,
) -> Result<Vec<LoggedMix>, AppError> {
    let all = runs_of(app, here, larder, machine, MOST_TAUGHT).await?;
    Ok(all.iter().filter_map(AskedRun::logged).collect())
}

/// What the runs of this mixer that were alike say: the minutes that it usually needs, and its own base.
pub async fn alike(
    app: &App,
    here: &RequestKitchen,
    larder: &Larder,
    a: &mut AskedRun,
) -> Result<(), AppError> {
    let Some(machine) = a.machine_id else {
        return Ok(());
    };
    let all = runs_of(app, here, larder, machine, MOST_ALIKE).await?;
    let over = all.iter().filter(|r| r.ended());
    let flour = over.clone().filter(|r| a.to_mix.is_alike(&r.to_mix));
    let seen: Vec<_> = flour.flat_map(|r| r.to_mix.seen(&r.told)).collect();
    let way = &a.to_mix.programme.key;
    let same = over.filter(|r| r.to_mix.programme.key == *way);
    let bases: Vec<f64> = same.filter_map(|r| r.to_mix.base_of(&r.told)).collect();
    (a.usual, a.base) = (usual_minutes(&seen), OwnBase::of(&bases));
    Ok(())
}

pub async fn taught_by(
    app: &App,
    here: &RequestKitchen,
    larder: &Larder,
    a: &AskedRun,
) -> Result<TaughtView, AppError> {
    let kind = a.to_mix.machine.kind;
    let mixes = match a.machine_id {
        Some(id) => logged_of(app, here, larder, id).await?,
        None => a.logged().into_iter().collect(),
    };
    let learned = app
        .models
        .at_length(|| learn_friction(kind, &mixes))
        .await?;
    let machines = &larder.0.machines;
    let own = a
        .machine_id
        .and_then(|id| machines.iter().find(|m| m.id == id));
    let own = own.map(|m| (m.id, m.facts.learned.as_deref()));
    Ok(words::taught(&learned, words::main_speed(a), own, here))
}

/// Takes over what a machine's mixes taught, or goes back to the figures of its kind.
pub async fn take_over(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    body: axum::body::Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let id: u64 = typed.text("machine").parse().unwrap_or(0);
    let larder = Larder::of(&app, &here).await?;
    let gone = || AppError::Asked(phrase("mix-that-mixer-is-no-longer").into());
    let item = larder
        .0
        .machines
        .iter()
        .find(|m| m.id == id)
        .ok_or_else(gone)?;
    let learned = match typed.text("act") {
        "back" => None,
        _ => {
            let mixes = logged_of(&app, &here, &larder, id).await?;
            let kind = item.facts.kind;
            let mut f = app
                .models
                .at_length(|| learn_friction(kind, &mixes))
                .await?;
            f.doubtful.clear();
            (f.mixes > 0).then(|| Box::new(f))
        }
    };
    let facts = Machine {
        learned,
        ..item.facts.clone()
    };
    let mut db = app.db.acquire().await?;
    if !pantry::teach(&mut db, here.id(), (id, item.revision), &facts).await? {
        let busy = phrase("mix-somebody-is-changing-this-mixer");
        return Err(AppError::Asked(busy.into()));
    }
    let count = |name: &str| typed.text(name).parse::<u16>().unwrap_or(1);
    let bowl = typed.text("bowl").parse().unwrap_or(0);
    Ok(Redirect::to(&lists::href(&code, bowl, count("run"))))
}
