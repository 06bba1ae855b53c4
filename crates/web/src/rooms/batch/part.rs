//! Some pieces of a dough go another way: a batch of its own is kept for them, with what happened to both so far.

use super::refuse;
use crate::access::doors::{Doors, PLAN};
use crate::batch::BatchRecord;
use crate::batch::arrived::Arrived;
use crate::batch::entries::typed_moment;
use crate::batch::forecast::{parted, replanned};
use crate::shared::error::AppError;
use crate::shared::form::LONGEST_NAME;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::{date, phrase, say};
use axum::response::{IntoResponse, Redirect, Response};
use craft::fact;
use craft::reading::Subject;
use craft::refusal::ValidationError;
use craft::sheet::ahead::PartWay;
use craft::sheet::{SheetRequest, SheetResult};
use jiff::Timestamp;
use store::batch::{self, KeptBatch, NewBatch, NewPlan, Origin, Replanned};
use store::entry::{self, By, NewEntry, Seen};

pub fn routes() -> Doors {
    Doors::new().post(PLAN, "/batches/{code}/part", change)
}

/// Whether pieces of it can still go another way.
pub fn may_be_parted(told: &BatchRecord) -> bool {
    told.is_mixed() && !told.is_ended() && told.batch.sheet.request.formula.pieces.count() > 1
}

/// The name of what was parted: when it is served, by its day where that is another.
fn named(told: &BatchRecord, here: &RequestKitchen, serve_at: Timestamp) -> String {
    let (was, is) = (
        here.local(told.batch.sheet.request.serve_at),
        here.local(serve_at),
    );
    let same_day = was.date() == is.date();
    let word = date(&is, if same_day { ", %H:%M" } else { ", %-d %b" });
    let most = LONGEST_NAME - word.chars().count();
    let name: String = told.batch.name.chars().take(most).collect();
    name + word.as_str()
}

/// What happened to both: steps, and what was measured of the dough. What was read of room and fridge counts for every
/// batch there already; a copy would go on counting when the reading is taken back.
fn shared_past(told: &BatchRecord, key: uuid::Uuid) -> Vec<NewEntry> {
    let of_dough = |seen: &Seen| {
        seen.of_step().is_some()
            || matches!(
                seen,
                Seen::Grown { .. }
                    | Seen::Reading {
                        subject: Subject::Dough | Subject::Water,
                        ..
                    }
            )
    };
    let mut all: Vec<_> = told.seen().filter(|o| of_dough(&o.seen)).collect();
    // The last word about a step holds: they are entered as they were.
    all.sort_by_key(|o| o.id);
    let entries = all.into_iter().enumerate();
    entries
        .map(|(i, o)| NewEntry::of_form(key, i, o.at, o.seen.clone().into()))
        .collect()
}

struct Plans {
    rest: (SheetRequest, SheetResult),
    part: (SheetRequest, SheetResult),
}

fn planned(
    told: &BatchRecord,
    here: &RequestKitchen,
    way: (u32, PartWay, Timestamp),
) -> Result<Plans, ValidationError> {
    let parted = parted(told, here, way)?;
    let with = |r: SheetRequest| replanned(told, &r).map(|result| (r, result));
    Ok(Plans {
        rest: with(parted.rest)?,
        part: with(parted.part)?,
    })
}

async fn change(a: Arrived) -> Result<Response, AppError> {
    let told = &a.told;
    let text = |field| a.typed.text(field);
    let Ok(n) = text("part_count").parse::<u32>() else {
        let message = phrase("batch-how-many-pieces-a-whole");
        return refuse(&a, "part_count", message.into()).await;
    };
    if !may_be_parted(told) {
        let message = phrase("batch-only-a-dough-that-is");
        return refuse(&a, "part_count", message.into()).await;
    }
    let baked = told.run.pizzas.len() as u32;
    let left = told
        .batch
        .sheet
        .request
        .formula
        .pieces
        .count()
        .saturating_sub(baked);
    if n > left {
        let message = match baked {
            0 => say!("batch-there-are-of-them", left = left),
            _ => say!("batch-went-into-the-oven-are", baked = baked, left = left),
        };
        return refuse(&a, "part_count", message).await;
    }
    let way = match text("part_way") {
        "freezer" => PartWay::Freezer,
        "apart" => PartWay::Apart,
        _ => {
            return refuse(
                &a,
                "part_count",
                phrase("batch-choose-where-they-go").into(),
            )
            .await;
        }
    };
    let serve_at = match typed_moment(text("part_serve"), &a.here) {
        Ok(at) if at > a.here.now => at,
        Ok(_) => return refuse(&a, "part_serve", phrase("batch-that-hour-is-over").into()).await,
        Err(e) => return refuse(&a, "part_serve", e).await,
    };
    let work = || planned(told, &a.here, (n, way, serve_at));
    let plans = match a.app.models.at_length(work).await? {
        Ok(x) => x,
        Err(e) => {
            let known = ["part_count", "part_serve"];
            let field = e.0.first().map_or("part_count", |e| {
                known
                    .into_iter()
                    .find(|k| *k == e.field)
                    .unwrap_or("part_count")
            });
            return refuse(&a, field, a.here.say_all(&e.0)).await;
        }
    };
    match kept(&a, &plans, way, n).await? {
        Some(code) => Ok(Redirect::to(&format!("/batches/{code}")).into_response()),
        None => {
            let message = phrase("batch-somebody-changed-this-plan-a");
            refuse(&a, "part_count", message.into()).await
        }
    }
}

/// Keeps both in one act: the code of the new batch; `None` when the plan is another by now.
async fn kept(
    a: &Arrived,
    plans: &Plans,
    way: PartWay,
    n: u32,
) -> Result<Option<String>, AppError> {
    let (told, here) = (&a.told, &a.here);
    let form_key = a.typed.key("form_key");
    let of: u32 = a.typed.text("plan").parse().unwrap_or(u32::MAX);
    let name = named(told, here, plans.part.0.serve_at);
    let past = shared_past(told, form_key);
    let why = match way {
        PartWay::Freezer => fact!("plan-freezer", n = n),
        PartWay::Apart => fact!("plan-apart", n = n),
    };
    Ok(store::act!(a.app.db, db => {
        let from = batch::version_of(db, here.id(), told.batch.id).await?;
        let new = NewBatch {
            form_key,
            name: &name,
            request: &plans.part.0,
            result: &plans.part.1,
            origin: Origin::Maker,
            from,
        };
        // A form that was sent before leads where it led.
        if let Some(code) = batch::by_form(db, here.id(), form_key).await? {
            return Ok(Some(code));
        }
        let rest = NewPlan {
            of,
            request: &plans.rest.0,
            result: &plans.rest.1,
            why: &why,
        };
        match batch::replan(db, here.author(), told.batch.id, &rest, here.now).await? {
            Replanned::Stale(_) => Ok(None),
            Replanned::Done => {
                let (KeptBatch::Done(code) | KeptBatch::Other(code)) =
                    batch::keep(db, here.author(), &new, here.now).await?;
                if let Some(id) = batch::id_of(db, here.id(), &code).await? {
                    for entry in &past {
                        entry::write(db, here.author(), id, entry, here.now, By::Maker, entry::ANY).await?;
                    }
                }
                Ok(Some(code))
            }
        }
    })?)
}
