//! The pantry: flours, leavens, scales, pans, boxes, goods, ovens, mixers, programmes of mixing, places and the maker's own styles and methods. Each is a row of facts; a change
//! that began from an older one is refused with the newer one shown.

use crate::error::written;
use crate::once::{self, Once};
use crate::{KitchenId, Result, StoreError, instant};
use craft::fire::Oven;
use craft::mix::{Machine, OwnProgramme};
use craft::pantry::{DoughBox, Flour, Good, Leaven, Pan, Scale};
use craft::path::{Method, Place};
use craft::style::Style;
use jiff::Timestamp;
use serde::Serialize;
use serde::de::DeserializeOwned;
use sqlx::{Connection, MySqlConnection};
use uuid::Uuid;

/// Something that a pantry holds.
pub trait Facts: Serialize + DeserializeOwned {
    const KIND: &'static str;
    fn name(&self) -> &str;
}

macro_rules! facts {
    ($($type:ty => $kind:literal),*) => {$(
        impl Facts for $type {
            const KIND: &'static str = $kind;
            fn name(&self) -> &str {
                &self.name
            }
        }
    )*};
}
facts!(Flour => "flour", Leaven => "leaven", Scale => "scale", Pan => "pan", DoughBox => "box", Good => "good", Style => "style", Place => "place", Method => "method", Oven => "oven", Machine => "mixer", OwnProgramme => "programme");

/// A row of the pantry.
#[derive(Debug, Clone, PartialEq)]
pub struct PantryItem<F> {
    pub id: u64,
    pub revision: u64,
    pub facts: F,
}

/// What became of a change.
#[derive(Debug, Clone, PartialEq)]
pub enum Put<F> {
    Done(u64),
    /// Somebody changed it meanwhile: as it is now; `None` when it was put away.
    Stale(Option<Box<PantryItem<F>>>),
    /// Something else was added by the same form: its id. Nothing was written.
    Other(u64),
}

/// What is put: something more, under the key of its form, or the row that is still at a revision.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum At {
    New(Uuid),
    Row { id: u64, revision: u64 },
}

fn item<F: Facts>(id: u64, revision: u64, json: &str) -> Result<PantryItem<F>> {
    let facts = serde_json::from_str(json)
        .map_err(|e| StoreError::Unreadable(format!("{} {id}: {e}", F::KIND)))?;
    Ok(PantryItem {
        id,
        revision,
        facts,
    })
}

/// All that a pantry holds, by name within each kind.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Everything {
    pub flours: Vec<PantryItem<Flour>>,
    pub leavens: Vec<PantryItem<Leaven>>,
    pub scales: Vec<PantryItem<Scale>>,
    pub pans: Vec<PantryItem<Pan>>,
    pub boxes: Vec<PantryItem<DoughBox>>,
    pub goods: Vec<PantryItem<Good>>,
    pub styles: Vec<PantryItem<Style>>,
    pub places: Vec<PantryItem<Place>>,
    pub methods: Vec<PantryItem<Method>>,
    pub ovens: Vec<PantryItem<Oven>>,
    pub machines: Vec<PantryItem<Machine>>,
    pub programmes: Vec<PantryItem<OwnProgramme>>,
    pub unreadable: Vec<Unreadable>,
    /// There are more than are read.
    pub more: bool,
}

/// A row whose facts cannot be read.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Unreadable {
    pub id: u64,
    pub kind: String,
    pub name: String,
    pub why: String,
}

/// So many items of a kitchen are read: more than a pantry ever held.
const MOST: u32 = 10_000;

/// All kinds by one statement. Rows that cannot be read are named in `unreadable`; kinds that this program does not know
/// are left alone.
pub async fn everything(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<Everything> {
    let rows = sqlx::query!(
        "SELECT id, kind, name, revision, facts FROM pantry_item
         WHERE kitchen_id = ? AND archived_at IS NULL ORDER BY name, id LIMIT ?",
        kitchen.0,
        MOST + 1
    )
    .fetch_all(db)
    .await?;
    let mut out = Everything {
        more: rows.len() > MOST as usize,
        ..Everything::default()
    };
    for r in rows.into_iter().take(MOST as usize) {
        if let Err(StoreError::Unreadable(why)) =
            out.put(r.id, &r.kind, r.revision, r.facts.as_str())
        {
            out.unreadable.push(Unreadable {
                id: r.id,
                kind: r.kind,
                name: r.name,
                why,
            });
        }
    }
    Ok(out)
}

impl Everything {
    fn put(&mut self, id: u64, kind: &str, rev: u64, facts: &str) -> Result<()> {
        match kind {
            Flour::KIND => self.flours.push(item(id, rev, facts)?),
            Leaven::KIND => self.leavens.push(item(id, rev, facts)?),
            Scale::KIND => self.scales.push(item(id, rev, facts)?),
            Pan::KIND => self.pans.push(item(id, rev, facts)?),
            DoughBox::KIND => self.boxes.push(item(id, rev, facts)?),
            Good::KIND => self.goods.push(item(id, rev, facts)?),
            Style::KIND => self.styles.push(item(id, rev, facts)?),
            Place::KIND => self.places.push(item(id, rev, facts)?),
            Method::KIND => self.methods.push(item(id, rev, facts)?),
            Oven::KIND => self.ovens.push(item(id, rev, facts)?),
            Machine::KIND => self.machines.push(item(id, rev, facts)?),
            OwnProgramme::KIND => self.programmes.push(item(id, rev, facts)?),
            // Of a newer program.
            _ => {}
        }
        Ok(())
    }
}

/// One of a kind, also when it was put away.
pub async fn by_id<F: Facts>(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: u64,
) -> Result<Option<PantryItem<F>>> {
    let row = sqlx::query!(
        "SELECT id, revision, facts FROM pantry_item WHERE kitchen_id = ? AND kind = ? AND id = ?",
        kitchen.0,
        F::KIND,
        id
    )
    .fetch_optional(db)
    .await?;
    row.map(|r| item(r.id, r.revision, &r.facts)).transpose()
}

/// Adds facts, or changes the row that is still at this revision. What they say is left stood there at `counted_at`: what
/// batches took since comes off it.
pub async fn put<F: Facts>(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    at: At,
    facts: &F,
    counted_at: Timestamp,
) -> Result<Put<F>> {
    let json = written(facts)?;
    let (id, revision) = match at {
        At::Row { id, revision } => (id, revision),
        At::New(key) => return add(db, kitchen, key, facts, &json, counted_at).await,
    };
    let done = sqlx::query!(
        "UPDATE pantry_item SET name = ?, facts = ?, counted_at = ?, revision = revision + 1
         WHERE kitchen_id = ? AND kind = ? AND id = ? AND revision = ? AND archived_at IS NULL",
        facts.name(),
        json,
        instant::to_row(counted_at),
        kitchen.0,
        F::KIND,
        id,
        revision
    )
    .execute(&mut *db)
    .await?;
    if done.rows_affected() == 1 {
        return Ok(Put::Done(id));
    }
    Ok(Put::Stale(by_id(db, kitchen, id).await?.map(Box::new)))
}

/// Changes what is known of an item that is still at this revision; what is left of it was counted when it was counted.
pub async fn teach<F: Facts>(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    (id, revision): (u64, u64),
    facts: &F,
) -> Result<bool> {
    let done = sqlx::query!(
        "UPDATE pantry_item SET facts = ?, revision = revision + 1
         WHERE kitchen_id = ? AND kind = ? AND id = ? AND revision = ? AND archived_at IS NULL",
        written(facts)?,
        kitchen.0,
        F::KIND,
        id,
        revision
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

async fn add<F: Facts>(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    key: Uuid,
    facts: &F,
    json: &str,
    now: Timestamp,
) -> Result<Put<F>> {
    let known = |id: String| {
        id.parse()
            .map_err(|_| StoreError::Unreadable(format!("a form leads to “{id}”")))
    };
    let mut tx = db.begin().await?;
    match once::take(&mut tx, kitchen, (F::KIND, key), &[json], now).await? {
        Once::First => {}
        Once::Before(id) => return Ok(Put::Done(known(id)?)),
        Once::Other(id) => return Ok(Put::Other(known(id)?)),
    }
    let done = sqlx::query!(
        "INSERT INTO pantry_item (kitchen_id, kind, name, facts, created_at, counted_at) VALUES (?, ?, ?, ?, ?, ?)",
        kitchen.0,
        F::KIND,
        facts.name(),
        json,
        instant::to_row(now),
        instant::to_row(now)
    )
    .execute(&mut *tx)
    .await?;
    let id = done.last_insert_id();
    once::made(&mut tx, kitchen, (F::KIND, key), &id.to_string()).await?;
    tx.commit().await?;
    Ok(Put::Done(id))
}

/// Puts an item away: it is no longer listed; what was made with it is not touched.
pub async fn put_away<F: Facts>(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    id: u64,
    now: Timestamp,
) -> Result<bool> {
    let done = sqlx::query!(
        "UPDATE pantry_item SET revision = revision + (archived_at IS NULL), archived_at = COALESCE(archived_at, ?)
         WHERE kitchen_id = ? AND kind = ? AND id = ?",
        instant::to_row(now),
        kitchen.0,
        F::KIND,
        id
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}
