//! A batch by its code, with all that was seen of it.

use crate::App;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use crate::shared::progress::Told;
use store::{batch, observation, tap};

/// Loads a batch of this kitchen; a code that does not exist is [`Trouble::NoBatch`].
pub async fn told(app: &App, here: &Here, code: &str) -> Result<Told, Trouble> {
    let mut db = app.db.acquire().await?;
    let missing = || Trouble::NoBatch(code.to_string());
    if !craft::code::is_code(code) {
        return Err(missing());
    }
    let found = batch::by_code(&mut db, here.id(), code, &app.sheets)
        .await?
        .ok_or_else(missing)?;
    let seen = observation::of_batch(&mut db, here.id(), found.id).await?;
    let taps = tap::of_batch(&mut db, here.id(), found.id).await?;
    Ok(Told::of(found, seen, &taps))
}

/// Loads all batches that are not finished, the earliest served first.
pub async fn live(app: &App, here: &Here) -> Result<Vec<Told>, Trouble> {
    let mut db = app.db.acquire().await?;
    let batches = batch::live(&mut db, here.id(), &app.sheets).await?;
    let seen = observation::of_live(&mut db, here.id()).await?;
    let taps = tap::of_live(&mut db, here.id()).await?;
    Ok(batches
        .into_iter()
        .map(|b| {
            let of_it = seen
                .iter()
                .filter(|o| o.batch == b.id)
                .map(|o| o.observation.clone())
                .collect();
            let its_taps: Vec<_> = taps
                .iter()
                .filter(|(id, _)| *id == b.id)
                .map(|(_, t)| *t)
                .collect();
            Told::of(b, of_it, &its_taps)
        })
        .collect())
}
