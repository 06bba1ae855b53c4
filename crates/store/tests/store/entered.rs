//! What the store's tests enter: by the one way in, without a word against it.

use anyhow::{Result, bail};
use craft::fire::Tap;
use craft::formula::Scales;
use craft::sheet::KitchenUsual;
use jiff::Timestamp;
use store::batch::{self, BatchId, KeptBatch, NewBatch};
use store::entry::{self, By, EntryOutcome, NewEntry, SaidEntry, Seen};
use store::{KitchenId, MySqlConnection};
use uuid::Uuid;

/// Where something is entered.
pub type On = (KitchenId, BatchId);

pub async fn enter(
    c: &mut MySqlConnection,
    (kitchen, batch): On,
    key: Uuid,
    at: Timestamp,
    said: SaidEntry,
) -> Result<EntryOutcome> {
    let new = NewEntry {
        key,
        at,
        device_at: None,
        said,
    };
    Ok(entry::write(c, kitchen, batch, &new, at, By::Maker, entry::ANY).await?)
}

pub async fn see(
    c: &mut MySqlConnection,
    on: On,
    at: Timestamp,
    seen: Seen,
) -> Result<EntryOutcome> {
    enter(c, on, Uuid::new_v4(), at, seen.into()).await
}

pub async fn tap(c: &mut MySqlConnection, on: On, t: Tap) -> Result<EntryOutcome> {
    enter(c, on, Uuid::new_v4(), t.at, t.into()).await
}

pub async fn close(c: &mut MySqlConnection, on: On, at: Timestamp) -> Result<EntryOutcome> {
    see(c, on, at, Seen::Closed { went: None }).await
}

/// Keeps a batch: its code.
pub async fn keep(
    c: &mut MySqlConnection,
    kitchen: KitchenId,
    new: &NewBatch<'_>,
    now: Timestamp,
) -> Result<String> {
    match batch::keep(c, kitchen, new, now).await? {
        KeptBatch::Done(code) => Ok(code),
        KeptBatch::Other(code) => bail!("{code} stands under this key"),
    }
}

/// What the kitchen of these tests usually has.
pub fn usual() -> KitchenUsual {
    KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    }
}
