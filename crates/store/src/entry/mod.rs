//! Entries: everything that is entered about a batch, in one table and by one way in.
//!
//! [`enter`] locks the batch, asks whether the entry makes sense among those that are kept, writes it and raises the
//! batch's revision in one transaction; when another act is in the way it does so again. An entry is only ever added: what
//! was wrong is taken back by another entry. Its key is the device's own, so that what is sent twice is written once.

mod read;
mod said;

pub use read::{codes_at_the_bowl, codes_on_the_scale, of_batch, of_places};

/// What stands as the place of an entry that is said of a place of the kitchen's own; its name is among the facts.
const OWN_PLACE: &str = "own";
pub use said::{Observation, SaidEntry, Seen, Went};

use crate::db::{Db, again, pause};
use crate::error::is_duplicate;
use crate::id::BatchId;
use crate::{Author, KitchenId, Result, StoreError, instant, stock, words};
use craft::fact::Fact;
use craft::fire::{Tap, TapKind};
use craft::mix::run::MixTap;
use craft::shape::run::ShapeTap;
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

/// An entry to be kept.
#[derive(Debug, Clone, PartialEq)]
pub struct NewEntry {
    pub key: Uuid,
    /// On the server's clock.
    pub at: Timestamp,
    /// What the device's own clock said, where it said anything.
    pub device_at: Option<Timestamp>,
    pub said: SaidEntry,
}

impl NewEntry {
    /// The `nth` that follows from a form: sent twice, it is the same one.
    pub fn of_form(form_key: Uuid, nth: usize, at: Timestamp, said: SaidEntry) -> NewEntry {
        NewEntry {
            key: Uuid::from_u128(form_key.as_u128() ^ (nth as u128 + 1)),
            ..NewEntry::own(at, said)
        }
    }
    /// One that this program makes itself, under a key of its own.
    pub fn own(at: Timestamp, said: SaidEntry) -> NewEntry {
        NewEntry {
            key: Uuid::new_v4(),
            at,
            device_at: None,
            said,
        }
    }
}

/// An entry that is kept.
#[derive(Debug, Clone, PartialEq)]
pub struct KeptEntry {
    pub key: Uuid,
    pub at: Timestamp,
    pub said: SaidEntry,
    /// Of another batch than the one that was meant.
    pub elsewhere: bool,
}

impl KeptEntry {
    /// Whether it is a tap of this kind on the batch that was meant.
    pub fn is_tap(&self, kind: TapKind) -> bool {
        !self.elsewhere && matches!(self.said, SaidEntry::Tapped { kind: k, .. } if k == kind)
    }
}

/// What became of an entry. What could not be kept now is an error that [`StoreError::may_come_again`].
#[derive(Debug, Clone, PartialEq)]
pub enum EntryOutcome {
    New,
    /// The same key with the same content: it was kept before.
    Before,
    /// Another entry stands under this key; nothing was written.
    Other(Box<KeptEntry>),
    /// It makes no sense among what is kept: the reason.
    Refused(Fact),
    /// The batch is gone.
    NoBatch,
}

/// What is kept of a batch when an entry comes.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Standing {
    pub taps: Vec<Tap>,
    /// Taps at the bowl.
    pub mix: Vec<MixTap>,
    /// Taps at the scale and at the boxes.
    pub shape: Vec<ShapeTap>,
    /// Entries other than taps.
    pub entries: usize,
    /// Photos among them, those taken back with them.
    pub photos: usize,
    pub finished: bool,
    pub cancelled: bool,
    /// Keys of what was entered, with whether each was taken back.
    pub seen: Vec<(Uuid, bool)>,
}

/// Whether an entry may be kept among those that are.
pub type Admits<'a> = &'a (dyn Fn(&Standing) -> std::result::Result<(), Fact> + Sync);

/// Keeps an entry in a transaction of its own.
pub async fn enter(
    db: &Db,
    author: impl Into<Author<'_>>,
    batch: BatchId,
    new: &NewEntry,
    now: Timestamp,
    admits: Admits<'_>,
) -> Result<EntryOutcome> {
    let author = author.into();
    let mut tries = 0;
    loop {
        let mut c = db.acquire().await?;
        let done = write(&mut c, author, batch, new, now, By::Maker, admits).await;
        drop(c);
        match done {
            Err(e) if again(&e, &mut tries) => pause(tries).await,
            done => return done,
        }
    }
}

/// Who enters: what the demo enters leaves the batch the demo's.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum By {
    Maker,
    Demo,
}

/// Keeps an entry, within the transaction of whoever calls where there is one.
pub async fn write(
    db: &mut MySqlConnection,
    author: impl Into<Author<'_>>,
    batch: BatchId,
    new: &NewEntry,
    now: Timestamp,
    by: By,
    admits: Admits<'_>,
) -> Result<EntryOutcome> {
    let author = author.into();
    let kitchen = author.kitchen;
    let mut tx = db.begin().await?;
    // The batch first, always: two devices enter one after the other, and nobody waits crosswise.
    let Some(row) = sqlx::query!(
        "SELECT finished_at, cancelled_at FROM batch WHERE kitchen_id = ? AND id = ? FOR UPDATE",
        kitchen.0,
        batch.0
    )
    .fetch_optional(&mut *tx)
    .await?
    else {
        return Ok(EntryOutcome::NoBatch);
    };
    if let Some((kept, of)) = read::by_key(&mut tx, kitchen, new.key).await? {
        let same = of == batch && kept.said == new.said;
        return Ok(if same {
            EntryOutcome::Before
        } else {
            EntryOutcome::Other(Box::new(KeptEntry {
                elsewhere: of != batch,
                ..kept
            }))
        });
    }
    let standing = read::standing(
        &mut tx,
        kitchen,
        batch,
        row.finished_at.is_some(),
        row.cancelled_at.is_some(),
    )
    .await?;
    if let Err(sentence) = admits(&standing) {
        return Ok(EntryOutcome::Refused(sentence));
    }
    let (kind, facts) = new.said.to_row()?;
    let done = sqlx::query!(
        "INSERT INTO entry (kitchen_id, batch_id, entry_key, kind, facts, place, at, device_at, recorded_at, by_person, by_name)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        kitchen.0,
        batch.0,
        new.key.to_string(),
        kind,
        facts,
        new.said.place(),
        instant::to_row(new.at),
        new.device_at.map(instant::to_row),
        instant::to_row(now),
        author.person(),
        author.name()
    )
    .execute(&mut *tx)
    .await;
    match done {
        Ok(done) if done.rows_affected() == 1 => {}
        Ok(_) => return Err(StoreError::Unreadable("an entry wrote no row".into())),
        // The same key came for another batch in this moment.
        Err(e) if is_duplicate(&e) => return Err(StoreError::Collided(e)),
        Err(e) => return Err(e.into()),
    }
    mark(&mut tx, kitchen, batch, new, by).await?;
    let of_the_dough = [said::AT_THE_BOWL, said::ON_THE_SCALE];
    if new.said.place().is_some_and(|p| !of_the_dough.contains(&p)) {
        sqlx::query!(
            "INSERT INTO place_said (kitchen_id, revision) VALUES (?, 1) ON DUPLICATE KEY UPDATE revision = revision + 1",
            kitchen.0
        )
        .execute(&mut *tx)
        .await?;
    }
    if new.said.moves_stock() {
        stock::follow(&mut tx, kitchen, batch).await?;
    }
    if new.said.moves_words(row.finished_at.is_some()) {
        words::follow(&mut tx, kitchen, batch).await?;
    }
    tx.commit().await?;
    Ok(EntryOutcome::New)
}

/// What an entry changes of its batch's row: the revision always, and whether it is done.
async fn mark(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    new: &NewEntry,
    by: By,
) -> Result<()> {
    let at = instant::to_row(new.at);
    let (finished, cancelled, reopened) = match new.said {
        SaidEntry::Seen(Seen::Closed { .. }) => (Some(at), None, false),
        SaidEntry::Seen(Seen::Cancelled) => (None, Some(at), false),
        SaidEntry::Seen(Seen::Reopened) => (None, None, true),
        _ => (None, None, false),
    };
    let done = sqlx::query!(
        "UPDATE batch SET revision = revision + 1, origin = IF(?, origin, 'maker'),
                finished_at = IF(?, NULL, COALESCE(finished_at, ?)), cancelled_at = IF(?, NULL, COALESCE(cancelled_at, ?))
         WHERE kitchen_id = ? AND id = ?",
        by == By::Demo,
        reopened,
        finished,
        reopened,
        cancelled,
        kitchen.0,
        batch.0
    )
    .execute(db)
    .await?;
    match done.rows_affected() {
        1 => Ok(()),
        _ => Err(StoreError::Unreadable(
            "a batch went away under its lock".into(),
        )),
    }
}

/// An entry that nothing speaks against: what the program itself or the demo writes.
pub const ANY: Admits<'static> = &|_| Ok(());
