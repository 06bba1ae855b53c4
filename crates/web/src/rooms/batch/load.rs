//! Batches with all that was entered about them, folded.

use crate::App;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use crate::shared::progress::Told;
use store::batch;

/// Loads a batch of this kitchen; a code that does not exist is [`Trouble::NoBatch`].
pub async fn told(app: &App, here: &Here, code: &str) -> Result<Told, Trouble> {
    let missing = || Trouble::NoBatch(code.to_string());
    if !craft::code::is_code(code) {
        return Err(missing());
    }
    let mut db = app.db.acquire().await?;
    let found = batch::by_code(&mut db, here.id(), code, &app.held).await?;
    Ok(Told::of(found.ok_or_else(missing)?))
}

/// Loads all batches that are not finished, the earliest served first.
pub async fn live(app: &App, here: &Here) -> Result<Vec<Told>, Trouble> {
    let mut db = app.db.acquire().await?;
    let batches = batch::live(&mut db, here.id(), &app.held).await?;
    Ok(batches.into_iter().map(Told::of).collect())
}

/// Loads finished batches, the latest first.
pub async fn finished(app: &App, here: &Here, skip: u32, most: u32) -> Result<Vec<Told>, Trouble> {
    let mut db = app.db.acquire().await?;
    let batches = batch::finished(&mut db, here.id(), skip, most, &app.held).await?;
    Ok(batches.into_iter().map(Told::of).collect())
}
