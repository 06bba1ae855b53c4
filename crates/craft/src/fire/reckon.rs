//! What a program asks of the fire: one bake, a planned one with its remedies, a firing.

use super::bake::{BakeMoment, bake};
use super::firing::{Firing, FiringRequest, LONGEST_BEFORE_H, firing};
use super::plan::FirePlan;
use super::programme::Programme;
use super::race::{Race, race};
use super::remedy::{Tried, remedies};
use super::setup::BakeRequest;
use crate::fact;
use crate::fact::{Value, hours, minutes};
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// One bake: its race, and how it went.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Baked {
    /// What is ready when.
    pub race: Race,
    /// Every second up to 300 s, then every other.
    pub course: Vec<BakeMoment>,
}

/// Bakes as asked and judges by the aim's own targets.
///
/// Errors: what is outside its range.
pub fn baked(r: &BakeRequest) -> Result<Baked, ValidationError> {
    let course = bake(r)?;
    let race = race(r, &course, &r.aim.targets())
        .ok_or_else(|| ValidationError::one("until_s", fact!("bake-too-short")))?;
    Ok(Baked {
        race,
        course: course.moments,
    })
}

/// A planned fire: programme, race, what to change.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Fired {
    /// How it is turned, and when it is out.
    pub programme: Programme,
    /// What is ready when.
    pub race: Race,
    /// Floor temperatures to launch at, °C; absent where the floor cannot be chosen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_band_c: Option<(f64, f64)>,
    /// Each tried alone, best first.
    pub remedies: Vec<Tried>,
}

/// Plans a fire as the page does.
///
/// Errors: what is outside its range.
pub fn fired(plan: &FirePlan) -> Result<Fired, ValidationError> {
    let planned = plan.planned()?;
    Ok(Fired {
        floor_band_c: plan.floor_band(&planned.race),
        remedies: remedies(plan, &planned.race),
        programme: planned.programme,
        race: planned.race,
    })
}

/// Readings of one firing.
const MOST_READINGS: usize = 60;

/// Plans or follows a firing.
///
/// Errors: an oven or a setting that cannot be, readings that cannot.
pub fn charged(r: &FiringRequest) -> Result<Firing, ValidationError> {
    r.oven.check().map_err(|e| e.below("oven"))?;
    let mut c = Check::new();
    c.within("setting");
    r.oven.check_setting(&r.setting, &mut c);
    c.within("");
    c.range(
        "room_c",
        fact!("f-the-room"),
        r.room_c,
        -10.0,
        45.0,
        Value::Celsius,
    );
    c.instant("ready_by", fact!("f-the-hour"), r.ready_by);
    if let Some(lit) = r.lit_at {
        c.instant("lit_at", fact!("f-lighting"), lit);
        let before_h = r.ready_by.duration_since(lit).as_secs_f64() / 3600.0;
        c.range(
            "lit_at",
            fact!("f-lit-before-it-is-wanted"),
            before_h,
            -24.0,
            LONGEST_BEFORE_H,
            hours,
        );
    }
    if let Some(m) = r.for_min {
        c.range("for_min", fact!("f-preheating"), m, 5.0, 240.0, minutes);
    }
    if r.readings.len() > MOST_READINGS {
        c.refuse("readings", fact!("readings-at-most", most = MOST_READINGS));
    }
    for (i, read) in r.readings.iter().enumerate() {
        let field = format!("readings[{i}].c");
        c.range(
            &field,
            fact!("f-the-floor"),
            read.c,
            -20.0,
            650.0,
            Value::Celsius,
        );
    }
    c.done()?;
    Ok(firing(r))
}
