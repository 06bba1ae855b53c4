//! The kitchen: what every other row belongs to, and what is usual in it.

use crate::error::written;
use crate::{Result, StoreError, instant};
use craft::fire::work::Work;
use craft::formula::Scales;
use craft::sheet::KitchenUsual;
use craft::sheet::life::Life;
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
use jiff::Timestamp;
use sha2::{Digest, Sha256};
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
    pub feed_hash: Option<[u8; 32]>,
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

/// The kitchen that was made first: the only one until there is sign-in.
pub async fn first(db: &mut MySqlConnection) -> Result<Option<Kitchen>> {
    let row = sqlx::query!(
        r#"SELECT id, name, time_zone, altitude_m, temperature_unit, weight_unit, length_unit, currency, room_c, fridge_c,
                tap_water_c, kitchen_scale_g, fine_scale_g, mixer_holds_g, life, fridge_measured AS "fridge_measured: bool",
                fridge_off_c, room_off_c, work, feed_hash, revision,
                (SELECT epoch FROM site WHERE id = 1) AS "epoch: String"
         FROM kitchen ORDER BY id LIMIT 1"#
    )
    .fetch_optional(db)
    .await?;
    row.map(|r| {
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
            feed_hash: r.feed_hash.and_then(|h| h.try_into().ok()),
            revision: r.revision,
            epoch: r.epoch.unwrap_or_default(),
        })
    })
    .transpose()
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
    let hash = feed_hash(key);
    sqlx::query!(
        "UPDATE kitchen SET feed_hash = ? WHERE id = ?",
        hash.as_slice(),
        id.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// What a feed's key is kept as.
pub fn feed_hash(key: &str) -> [u8; 32] {
    Sha256::digest(key.as_bytes()).into()
}
