//! What a batch taught its formula: kept as the next version.

use super::record::BatchRecord;
use crate::shared::kitchen::RequestKitchen;
use craft::formula::Formula;
use store::batch;
use store::formula::{self, FormulaId, KeptFormula, NewVersion};
use uuid::Uuid;

/// The next version of the formula that a batch was made from, or a new formula where it was made from none.
pub async fn next_version(
    db: &mut store::MySqlConnection,
    here: &RequestKitchen,
    told: &BatchRecord,
    (formula, why): (&Formula, &str),
    form_key: Uuid,
) -> store::Result<KeptFormula> {
    let from = batch::made_from(db, here.id(), told.batch.id).await?;
    let (name, of) = match &from {
        Some((id, _, name)) => {
            // The latest, taken for this act: nobody makes another meanwhile.
            let head = formula::head_for_update(db, here.id(), FormulaId(*id)).await?;
            (name.clone(), head.map(|h| (FormulaId(*id), h)))
        }
        None => (told.batch.name.clone(), None),
    };
    let new = NewVersion {
        form_key,
        name: &name,
        why,
        formula,
        of,
        origin: batch::Origin::Maker,
    };
    formula::keep(db, here.author(), &new, here.now).await
}

/// The formula as it is kept now; as this batch has it where it was made from none.
pub async fn latest(
    db: &mut store::MySqlConnection,
    here: &RequestKitchen,
    told: &BatchRecord,
) -> store::Result<Formula> {
    let kept = match batch::made_from(db, here.id(), told.batch.id).await? {
        Some((id, ..)) => formula::version(db, here.id(), FormulaId(id), None).await?,
        None => None,
    };
    Ok(kept.map_or_else(|| told.batch.sheet.request.formula.clone(), |v| v.formula))
}
