//! The kitchen: what every other row belongs to, and what is usual in it.

use crate::error::written;
use crate::people::secret_hash;
use crate::{Result, StoreError, instant};
use craft::fire::work::Work;
use craft::formula::Scales;
use craft::sheet::KitchenUsual;
use craft::sheet::life::Life;
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
use jiff::Timestamp;
use sqlx::MySqlConnection;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct KitchenId(pub u64);

/// How a kitchen reads and pays.
#[derive(Debug, Clone, PartialEq)]
pub struct Reads {
    pub temperature: TemperatureUnit,
    pub weight: WeightUnit,
    pub length: LengthUnit,
    /// A sign or three letters.
    pub currency: String,
}

impl Default for Reads {
    fn default() -> Self {
        Reads {
            temperature: TemperatureUnit::Celsius,
            weight: WeightUnit::Grams,
            length: LengthUnit::Centimetres,
            currency: "€".into(),
        }
    }
}

#[derive(Debug, Clone, PartialEq)]
pub struct Kitchen {
    pub id: KitchenId,
    pub name: String,
    pub usual: KitchenUsual,
    pub reads: Reads,
    pub rhythm: Rhythm,
    /// What one pizza takes of a person here.
    pub work: Work,
    /// What the secret part of its calendar feed's address hashes to; none until it was first asked for.
    pub feed_hash: Option<Vec<u8>>,
    /// The demo's: it can be looked at and left for one of one's own.
    pub is_demo: bool,
    /// It plans by the book alone, whatever its log says.
    pub uses_book: bool,
    /// Counts its changes.
    pub revision: u64,
    /// Which epoch of the database it was read in: a restore begins another.
    pub epoch: String,
}

/// When nobody is at the bench, and how well the temperatures are known.
#[derive(Debug, Clone, PartialEq)]
pub struct Rhythm {
    pub life: Life,
    /// Whether somebody put a thermometer into the fridge.
    pub fridge_measured: bool,
    /// How far off fridge and room may be, K.
    pub fridge_off_k: f64,
    pub room_off_k: f64,
}

impl Default for Rhythm {
    fn default() -> Self {
        Rhythm {
            life: Life::default(),
            fridge_measured: false,
            fridge_off_k: 1.0,
            room_off_k: 2.0,
        }
    }
}

fn life_of(json: Option<&str>) -> Result<Life> {
    match json {
        None => Ok(Life::default()),
        Some(json) => {
            serde_json::from_str(json).map_err(|e| StoreError::Unreadable(format!("life: {e}")))
        }
    }
}

fn work_of(json: Option<&str>) -> Result<Work> {
    match json {
        None => Ok(Work::default()),
        Some(json) => {
            serde_json::from_str(json).map_err(|e| StoreError::Unreadable(format!("work: {e}")))
        }
    }
}

struct KitchenRow {
    id: u64,
    name: String,
    time_zone: String,
    altitude_m: f64,
    temperature_unit: String,
    weight_unit: String,
    length_unit: String,
    currency: String,
    room_c: f64,
    fridge_c: f64,
    tap_water_c: f64,
    kitchen_scale_g: f64,
    fine_scale_g: Option<f64>,
    mixer_holds_g: Option<f64>,
    life: Option<String>,
    fridge_measured: bool,
    fridge_off_c: f64,
    room_off_c: f64,
    work: Option<String>,
    feed_hash: Option<Vec<u8>>,
    origin: String,
    uses_book: bool,
    revision: u64,
    epoch: Option<String>,
}

/// A kitchen by its number.
pub async fn by_id(db: &mut MySqlConnection, id: KitchenId) -> Result<Option<Kitchen>> {
    let row = sqlx::query_as!(
        KitchenRow,
        r#"SELECT id, name, time_zone, altitude_m, temperature_unit, weight_unit, length_unit, currency, room_c, fridge_c,
                tap_water_c, kitchen_scale_g, fine_scale_g, mixer_holds_g, life, fridge_measured AS "fridge_measured: bool",
                fridge_off_c, room_off_c, work, feed_hash, origin, uses_book AS "uses_book: bool", revision,
                (SELECT epoch FROM site WHERE id = 1) AS "epoch: String"
         FROM kitchen WHERE id = ?"#,
        id.0
    )
    .fetch_optional(db)
    .await?;
    row.map(read).transpose()
}

/// The kitchen that a calendar feed's key opens.
pub async fn of_feed(db: &mut MySqlConnection, key: &str) -> Result<Option<KitchenId>> {
    let id = sqlx::query_scalar!(
        "SELECT id FROM kitchen WHERE feed_hash = ?",
        secret_hash(key)
    )
    .fetch_optional(db)
    .await?;
    Ok(id.map(KitchenId))
}

/// The kitchens of this database, the first made first: number and name.
pub async fn all(db: &mut MySqlConnection) -> Result<Vec<(KitchenId, String)>> {
    let rows = sqlx::query!("SELECT id, name FROM kitchen ORDER BY id LIMIT 1000")
        .fetch_all(db)
        .await?;
    Ok(rows
        .into_iter()
        .map(|r| (KitchenId(r.id), r.name))
        .collect())
}

/// The demo's kitchen.
pub async fn demo(db: &mut MySqlConnection) -> Result<Option<KitchenId>> {
    let id =
        sqlx::query_scalar!("SELECT id FROM kitchen WHERE origin = 'demo' ORDER BY id LIMIT 1")
            .fetch_optional(db)
            .await?;
    Ok(id.map(KitchenId))
}

/// Says that a kitchen is the demo's.
pub async fn be_demo(db: &mut MySqlConnection, id: KitchenId) -> Result<()> {
    sqlx::query!("UPDATE kitchen SET origin = 'demo' WHERE id = ?", id.0)
        .execute(db)
        .await?;
    Ok(())
}

/// Plans by the book alone from now on, or by the log again.
pub async fn use_book(db: &mut MySqlConnection, id: KitchenId, uses_book: bool) -> Result<()> {
    sqlx::query!(
        "UPDATE kitchen SET uses_book = ?, revision = revision + 1 WHERE id = ?",
        uses_book,
        id.0
    )
    .execute(db)
    .await?;
    Ok(())
}

fn read(r: KitchenRow) -> Result<Kitchen> {
    Ok(Kitchen {
        id: KitchenId(r.id),
        name: r.name,
        usual: KitchenUsual {
            time_zone: r.time_zone,
            altitude_m: r.altitude_m,
            room_c: r.room_c,
            fridge_c: r.fridge_c,
            tap_water_c: r.tap_water_c,
            scales: Scales {
                kitchen_scale_g: r.kitchen_scale_g,
                fine_scale_g: r.fine_scale_g,
                mixer_holds_g: r.mixer_holds_g,
            },
        },
        reads: Reads {
            temperature: one_of(&TEMPERATURES, &r.temperature_unit)?,
            weight: one_of(&WEIGHTS, &r.weight_unit)?,
            length: one_of(&LENGTHS, &r.length_unit)?,
            currency: r.currency,
        },
        rhythm: Rhythm {
            life: life_of(r.life.as_deref())?,
            fridge_measured: r.fridge_measured,
            fridge_off_k: r.fridge_off_c,
            room_off_k: r.room_off_c,
        },
        work: work_of(r.work.as_deref())?,
        feed_hash: r.feed_hash,
        revision: r.revision,
        is_demo: r.origin == "demo",
        uses_book: r.uses_book,
        epoch: r.epoch.unwrap_or_default(),
    })
}

const TEMPERATURES: [(TemperatureUnit, &str); 2] = [
    (TemperatureUnit::Celsius, "celsius"),
    (TemperatureUnit::Fahrenheit, "fahrenheit"),
];
const WEIGHTS: [(WeightUnit, &str); 4] = [
    (WeightUnit::Grams, "grams"),
    (WeightUnit::Ounces, "ounces"),
    (WeightUnit::Kilograms, "kilograms"),
    (WeightUnit::Pounds, "pounds"),
];
const LENGTHS: [(LengthUnit, &str); 2] = [
    (LengthUnit::Centimetres, "centimetres"),
    (LengthUnit::Inches, "inches"),
];

fn one_of<T: Copy>(known: &[(T, &str)], text: &str) -> Result<T> {
    known
        .iter()
        .find(|(_, t)| *t == text)
        .map(|(u, _)| *u)
        .ok_or_else(|| StoreError::Unreadable(format!("unit {text}")))
}

fn name_of<T: PartialEq + Copy>(known: &[(T, &'static str)], unit: T) -> &'static str {
    known
        .iter()
        .find(|(u, _)| *u == unit)
        .map_or("", |(_, t)| t)
}

/// A kitchen to be made, or as it shall be.
#[derive(Debug, Clone)]
pub struct NewKitchen {
    pub name: String,
    pub usual: KitchenUsual,
    pub reads: Reads,
    pub rhythm: Rhythm,
    pub work: Work,
}

pub async fn add(db: &mut MySqlConnection, k: &NewKitchen, now: Timestamp) -> Result<KitchenId> {
    let done = sqlx::query!(
        "INSERT INTO kitchen (name, time_zone, altitude_m, temperature_unit, weight_unit, length_unit, currency, room_c,
                              fridge_c, tap_water_c, kitchen_scale_g, fine_scale_g, mixer_holds_g, life, fridge_measured, fridge_off_c,
                              room_off_c, work, created_at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        k.name,
        k.usual.time_zone,
        k.usual.altitude_m,
        name_of(&TEMPERATURES, k.reads.temperature),
        name_of(&WEIGHTS, k.reads.weight),
        name_of(&LENGTHS, k.reads.length),
        k.reads.currency,
        k.usual.room_c,
        k.usual.fridge_c,
        k.usual.tap_water_c,
        k.usual.scales.kitchen_scale_g,
        k.usual.scales.fine_scale_g,
        k.usual.scales.mixer_holds_g,
        written(&k.rhythm.life)?,
        k.rhythm.fridge_measured,
        k.rhythm.fridge_off_k,
        k.rhythm.room_off_k,
        written(&k.work)?,
        instant::to_row(now)
    )
    .execute(db)
    .await?;
    Ok(KitchenId(done.last_insert_id()))
}

/// Changes a kitchen that is still at `revision`; `false` when somebody changed it meanwhile.
pub async fn change(
    db: &mut MySqlConnection,
    id: KitchenId,
    k: &NewKitchen,
    revision: u64,
) -> Result<bool> {
    let done = sqlx::query!(
        "UPDATE kitchen SET name = ?, time_zone = ?, altitude_m = ?, temperature_unit = ?, weight_unit = ?, length_unit = ?,
                currency = ?, room_c = ?, fridge_c = ?, tap_water_c = ?, kitchen_scale_g = ?, fine_scale_g = ?,
                mixer_holds_g = ?, life = ?, fridge_measured = ?, fridge_off_c = ?, room_off_c = ?, work = ?, revision = revision + 1
         WHERE id = ? AND revision = ?",
        k.name,
        k.usual.time_zone,
        k.usual.altitude_m,
        name_of(&TEMPERATURES, k.reads.temperature),
        name_of(&WEIGHTS, k.reads.weight),
        name_of(&LENGTHS, k.reads.length),
        k.reads.currency,
        k.usual.room_c,
        k.usual.fridge_c,
        k.usual.tap_water_c,
        k.usual.scales.kitchen_scale_g,
        k.usual.scales.fine_scale_g,
        k.usual.scales.mixer_holds_g,
        written(&k.rhythm.life)?,
        k.rhythm.fridge_measured,
        k.rhythm.fridge_off_k,
        k.rhythm.room_off_k,
        written(&k.work)?,
        id.0,
        revision
    )
    .execute(db)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Begins another epoch of the database: copies of what was in it before are of no use any more.
pub(crate) async fn begin_anew(db: &mut MySqlConnection) -> Result<()> {
    sqlx::query!("REPLACE INTO site (id, epoch) VALUES (1, UUID())")
        .execute(db)
        .await?;
    Ok(())
}

/// Moves a kitchen to another time zone, as it was made: nobody's change.
pub async fn move_to(db: &mut MySqlConnection, id: KitchenId, time_zone: &str) -> Result<()> {
    sqlx::query!(
        "UPDATE kitchen SET time_zone = ? WHERE id = ?",
        time_zone,
        id.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Gives the calendar feed another address; the former one leads nowhere from then on. Only what the key hashes to is kept.
pub async fn renew_feed(db: &mut MySqlConnection, id: KitchenId, key: &str) -> Result<()> {
    let hash = secret_hash(key);
    sqlx::query!(
        "UPDATE kitchen SET feed_hash = ? WHERE id = ?",
        hash.as_slice(),
        id.0
    )
    .execute(db)
    .await?;
    Ok(())
}
