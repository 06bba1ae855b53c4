//! A changed plan in place of the one that a batch follows.

use super::BatchRecord;
use crate::App;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use craft::fact::Fact;
use craft::sheet::{SheetRequest, SheetResult};
use store::batch::{self, NewPlan, Replanned};

/// Keeps it, unless somebody changed the plan meanwhile; `of` is the number of the plan that it began from.
pub async fn keep(
    app: &App,
    here: &RequestKitchen,
    told: &BatchRecord,
    of: u32,
    (request, result): (&SheetRequest, &SheetResult),
    why: &Fact,
) -> Result<Replanned, AppError> {
    let new = NewPlan {
        of,
        request,
        result,
        why,
    };
    Ok(store::act!(app.db, db => {
        batch::replan(db, here.author(), told.batch.id, &new, here.now).await
    })?)
}
