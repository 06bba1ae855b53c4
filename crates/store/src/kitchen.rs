//! The kitchen: what every other row belongs to, and what is usual in it.

use crate::{Result, StoreError, instant};
use craft::sheet::KitchenUsual;
use craft::units::{TemperatureUnit, WeightUnit};
use jiff::Timestamp;
use sqlx::MySqlConnection;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct KitchenId(pub u64);

#[derive(Debug, Clone, PartialEq)]
pub struct Kitchen {
    pub id: KitchenId,
    pub name: String,
    pub usual: KitchenUsual,
    pub temperature_unit: TemperatureUnit,
    pub weight_unit: WeightUnit,
}

/// The kitchen that was made first: the only one until there is sign-in.
pub async fn first(db: &mut MySqlConnection) -> Result<Option<Kitchen>> {
    let row = sqlx::query!(
        "SELECT id, name, time_zone, altitude_m, temperature_unit, weight_unit, room_c, fridge_c, tap_water_c,
                kitchen_scale_g, fine_scale_g
         FROM kitchen ORDER BY id LIMIT 1"
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
                kitchen_scale_g: r.kitchen_scale_g,
                fine_scale_g: r.fine_scale_g,
            },
            temperature_unit: match r.temperature_unit.as_str() {
                "celsius" => TemperatureUnit::Celsius,
                "fahrenheit" => TemperatureUnit::Fahrenheit,
                other => return Err(StoreError::Unreadable(format!("temperature unit {other}"))),
            },
            weight_unit: match r.weight_unit.as_str() {
                "grams" => WeightUnit::Grams,
                "ounces" => WeightUnit::Ounces,
                other => return Err(StoreError::Unreadable(format!("weight unit {other}"))),
            },
        })
    })
    .transpose()
}

/// A kitchen to be made.
#[derive(Debug, Clone)]
pub struct NewKitchen {
    pub name: String,
    pub usual: KitchenUsual,
    pub temperature_unit: TemperatureUnit,
    pub weight_unit: WeightUnit,
}

pub async fn add(db: &mut MySqlConnection, k: &NewKitchen, now: Timestamp) -> Result<KitchenId> {
    let temperature = match k.temperature_unit {
        TemperatureUnit::Celsius => "celsius",
        TemperatureUnit::Fahrenheit => "fahrenheit",
    };
    let weight = match k.weight_unit {
        WeightUnit::Grams => "grams",
        WeightUnit::Ounces => "ounces",
    };
    let done = sqlx::query!(
        "INSERT INTO kitchen (name, time_zone, altitude_m, temperature_unit, weight_unit, room_c, fridge_c, tap_water_c,
                              kitchen_scale_g, fine_scale_g, created_at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        k.name,
        k.usual.time_zone,
        k.usual.altitude_m,
        temperature,
        weight,
        k.usual.room_c,
        k.usual.fridge_c,
        k.usual.tap_water_c,
        k.usual.kitchen_scale_g,
        k.usual.fine_scale_g,
        instant::to_row(now)
    )
    .execute(db)
    .await?;
    Ok(KitchenId(done.last_insert_id()))
}
