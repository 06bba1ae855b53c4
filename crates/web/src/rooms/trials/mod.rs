//! Trials: one thing varied, tasted blind, and an answer that says what chance alone would do.

mod asked;
mod list;
mod new;
mod one;
mod one_view;
mod taste;

use crate::App;
use crate::access::doors::{Doors, LOOK, PLAN, TAP};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use craft::trial::{Tasted, Tastings};
use store::entry::Seen;
use store::trial::KeptTrial;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/trials", list::show)
        .get(PLAN, "/trials/new", new::form)
        .post(PLAN, "/trials", new::keep)
        .get(LOOK, "/trials/{code}", one::show)
        .get(LOOK, "/trials/{code}/taste", taste::show)
        .post(TAP, "/trials/{code}/tasted", taste::tasted)
}

/// A trial with the batch of each arm and all that was tasted.
pub(super) struct TrialRecord {
    pub kept: KeptTrial,
    /// In the order of the arms.
    pub arms: Vec<BatchRecord>,
    pub said: Tastings,
}

/// Loads a trial of this kitchen; one that is not there is not found.
pub(super) async fn told(
    app: &App,
    here: &RequestKitchen,
    code: &str,
) -> Result<TrialRecord, AppError> {
    let mut db = app.db.acquire().await?;
    let found = store::trial::by_code(&mut db, here.id(), code).await?;
    drop(db);
    let kept = found.ok_or_else(|| AppError::NoTrial(code.to_string()))?;
    let mut arms: Vec<BatchRecord> = vec![];
    for arm in &kept.trial.arms {
        arms.push(load::told(app, here, &arm.batch).await?);
    }
    let said = Tastings::of(taps(&kept, &arms));
    Ok(TrialRecord { kept, arms, said })
}

/// What was tasted, in the order in which it was entered, each batch once.
fn taps(kept: &KeptTrial, arms: &[BatchRecord]) -> Vec<Tasted> {
    let mut all: Vec<(u64, Tasted)> = vec![];
    for (i, t) in arms.iter().enumerate() {
        if arms[..i].iter().any(|b| b.batch.id == t.batch.id) {
            continue;
        }
        all.extend(t.seen().filter_map(|o| match o.seen {
            Seen::Tasted { trial, tasted } if trial == kept.key => Some((o.id, tasted)),
            _ => None,
        }));
    }
    all.sort_by_key(|(id, _)| *id);
    let (arms, tasters) = (kept.trial.arms.len() as u8, kept.trial.tasters);
    all.into_iter()
        .map(|(_, t)| t)
        .filter(|t| t.fits(arms, tasters))
        .collect()
}

/// What hides which arm stands behind which letter.
pub(super) fn secret(kept: &KeptTrial) -> u64 {
    kept.key.as_u128() as u64
}
