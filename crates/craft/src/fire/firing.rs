//! Firing: when to light or switch on, what to feed when, and when the floor is really there.
//!
//! Source: bake model, section 10, and craft notes, section 6. Fuel is a guide from the oven's own full fire; what a
//! thermometer says corrects it: readings re-fit the oven's pace and the end it climbs to, and move "ready at".

use super::oven::{Fuel, Oven, OvenKind, Setting, is_tray};
use super::preheat::{Charge, FROM_C, Preheat, PreheatRequest, THERE, cells_after, charge};
use crate::fact;
use crate::fact::{Fact, whole};
use crate::units::Celsius;
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};

/// A floor reading during the firing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FloorRead {
    /// When it was read.
    pub at: Timestamp,
    /// What was read, °C.
    pub c: f64,
}

/// One firing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FiringRequest {
    /// Which oven.
    pub oven: Oven,
    /// As it is wanted at the launch.
    pub setting: Setting,
    /// What it starts at: the room, °C.
    pub room_c: f64,
    /// When the floor is wanted.
    pub ready_by: Timestamp,
    /// How long it is on before, 5 to 240 min; until it is charged when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub for_min: Option<f64>,
    /// When it was lit or switched on, once it was.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lit_at: Option<Timestamp>,
    /// What its floor read since it was lit, in the order of the clock.
    #[serde(default)]
    pub readings: Vec<FloorRead>,
}

/// Something to feed or set.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FuelFeed {
    /// When.
    pub at: Timestamp,
    /// Dry wood, kg; absent for gas and current.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wood_kg: Option<f64>,
    /// "full", "low"; what is done.
    pub say: Fact,
}

/// How a firing goes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Firing {
    /// When to light it or switch it on.
    pub light_at: Timestamp,
    /// When the face, and when the core is there; absent when not within 4 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face_at: Option<Timestamp>,
    /// When the core is there; absent when not within 4 h.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub core_at: Option<Timestamp>,
    /// When to bake: both there.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ready_at: Option<Timestamp>,
    /// Charge at the wanted time against full.
    pub charged: f64,
    /// What to burn, and when.
    pub feeds: Vec<FuelFeed>,
    /// Dry wood in all or gas in all, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fuel_kg: Option<f64>,
    /// Every minute, from lighting.
    pub course: Vec<Charge>,
    /// What the readings said of this oven: pace against the book, and how far its end lies off, K.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fitted: Option<FittedFiring>,
    /// A tray goes in cold with the pizza: only the oven's air is heated.
    pub tray: bool,
}

/// An oven's own pace, from readings.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct FittedFiring {
    /// How fast it heats against the book.
    pub pace: f64,
    /// How far its end lies off the book's, K.
    #[serde(rename = "end_off_c")]
    pub end_off_k: f64,
    /// So many readings were asked.
    pub readings: u32,
    /// What is left between curve and readings, K.
    #[serde(rename = "off_c")]
    pub off_k: f64,
}

/// How unsure the book is before any reading: pace as a ratio, end in K; and what a reading is worth, K.
const PACE_DOUBT: f64 = 0.35;
const END_DOUBT_K: f64 = 45.0;
const READING_K: f64 = 12.0;
/// Wood is laid on this often, min; the first load lights it.
const LOAD_MIN: f64 = 30.0;
const FIRST_LOAD: f64 = 1.2;
/// Share of the full fire that holds a charged dome (assumed).
const HOLD_SHARE: f64 = 0.35;
/// An oven's air is hot after this, s: for a tray there is nothing else to charge.
const AIR_S: f64 = 20.0 * 60.0;
/// A firing is looked at this long, s.
const LONGEST_S: f64 = 4.0 * 3600.0;
/// A fire that was lit longer than this before its floor is wanted is not fed for it, h.
pub(crate) const LONGEST_BEFORE_H: f64 = 24.0;

impl FiringRequest {
    fn preheat(&self, pace: f64, end_off_k: f64, from_c: f64) -> PreheatRequest {
        let floor_c = self.oven.floor_at(&self.setting);
        PreheatRequest {
            warming: self.oven.kind.warming(),
            floor: self.setting.floor,
            floor_mm: self.setting.floor_mm,
            // A rack's floor climbs to its oven's setting, a fired floor to what it is wanted at.
            set_c: if self.oven.kind == OvenKind::Home {
                self.setting.dome_c
            } else {
                floor_c.clamp(100.0, 550.0)
            },
            from_c,
            pace: (self.oven.pace * pace).clamp(0.3, 3.0),
            end_off_k: end_off_k.clamp(-250.0, 250.0),
        }
    }

    /// Readings since it was lit, as seconds and °C, and what it began at.
    fn since_lit(&self) -> (f64, Vec<(f64, f64)>) {
        let Some(lit) = self.lit_at else {
            return (self.room_c.clamp(-10.0, 45.0), vec![]);
        };
        let mut all: Vec<(f64, f64)> = self
            .readings
            .iter()
            .map(|r| (r.at.duration_since(lit).as_secs_f64(), r.c))
            .filter(|(t, _)| *t <= LONGEST_S)
            .collect();
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
        // A floor that was still warm when it was lit starts there.
        let before = all
            .iter()
            .rev()
            .find(|(t, _)| (-1800.0..=120.0).contains(t));
        let from = before.map_or(self.room_c, |(_, c)| *c);
        all.retain(|(t, _)| *t > 120.0);
        (from.clamp(-10.0, 500.0), all)
    }
}

/// The charge at a time, s, read between the minutes.
pub fn at(course: &[Charge], t: f64) -> Option<Charge> {
    let i = course.iter().position(|c| c.t >= t)?;
    if i == 0 {
        return Some(course[0]);
    }
    let (a, b) = (course[i - 1], course[i]);
    let f = (t - a.t) / (b.t - a.t);
    let mix = |x: f64, y: f64| x + f * (y - x);
    Some(Charge {
        t,
        face_c: mix(a.face_c, b.face_c),
        core_c: mix(a.core_c, b.core_c),
        bottom_c: mix(a.bottom_c, b.bottom_c),
        around_c: mix(a.around_c, b.around_c),
        charged: mix(a.charged, b.charged),
    })
}

/// An oven is lit on the five minutes, early rather than late: the same on every page and in every plan.
fn to_five_min(s: f64) -> f64 {
    (s / 300.0 - 1e-9).ceil() * 300.0
}

/// Plans a firing, or follows one that was lit. The request's oven and setting were checked.
pub fn firing(r: &FiringRequest) -> Firing {
    let (from_c, read) = r.since_lit();
    let fitted = fit(r, from_c, &read);
    let (pace, off) = fitted.map_or((1.0, 0.0), |f| (f.pace, f.end_off_k));
    let run: Preheat = charge(&r.preheat(pace, off, from_c), LONGEST_S);
    let tray = is_tray(&r.setting);
    let (face_s, core_s) = if tray {
        (Some(AIR_S), Some(AIR_S))
    } else {
        there(r, &run)
    };
    let needs = face_s.zip(core_s).map(|(a, b)| a.max(b));
    let before_s = r.for_min.map(|m| 60.0 * m).or(needs.map(to_five_min));
    let light_at = r
        .lit_at
        .unwrap_or_else(|| r.ready_by - seconds(before_s.unwrap_or(LONGEST_S)));
    let after = |s: Option<f64>| s.map(|s| light_at + seconds(s));
    // A lighting that was logged under a wrong hour must not feed the oven for years.
    let by = r
        .ready_by
        .duration_since(light_at)
        .as_secs_f64()
        .min(3600.0 * LONGEST_BEFORE_H);
    let charged = at(&run.course, by.clamp(0.0, LONGEST_S)).map_or(0.0, |c| c.charged);
    let (feeds, fuel_kg) = feeds(r, light_at, needs.unwrap_or(LONGEST_S), by);
    Firing {
        light_at,
        face_at: after(face_s),
        core_at: after(core_s),
        ready_at: after(needs),
        charged,
        feeds,
        fuel_kg,
        course: run.course,
        fitted,
        tray,
    }
}

/// When face and core are where they are wanted, s. A home floor is wanted some degrees below its oven's setting.
fn there(r: &FiringRequest, run: &Preheat) -> (Option<f64>, Option<f64>) {
    let wanted = r.oven.floor_at(&r.setting);
    let set = FROM_C + THERE * (wanted - FROM_C);
    let first = |of: fn(&Charge) -> f64| {
        let i = run.course.iter().position(|c| of(c) >= set)?;
        if i == 0 {
            return Some(0.0);
        }
        let (a, b) = (run.course[i - 1], run.course[i]);
        Some(a.t + (b.t - a.t) * (set - of(&a)) / (of(&b) - of(&a)))
    };
    (first(|c| c.face_c), first(|c| c.core_c))
}

/// The cells of a floor that was on for less than it takes to charge; `None` where that is enough, and for a tray.
/// No cell is hotter than the floor is wanted.
pub(crate) fn short_floor(
    oven: &Oven,
    setting: &Setting,
    room_c: f64,
    on_min: f64,
) -> Option<Vec<f64>> {
    if is_tray(setting) {
        return None;
    }
    let r = FiringRequest {
        oven: oven.clone(),
        setting: *setting,
        room_c,
        ready_by: Timestamp::UNIX_EPOCH,
        for_min: None,
        lit_at: None,
        readings: vec![],
    };
    let warming = r.preheat(1.0, 0.0, room_c);
    let on_s = 60.0 * on_min;
    let (face, core) = there(&r, &charge(&warming, on_s));
    if face.is_some() && core.is_some() {
        return None;
    }
    let wanted = oven.floor_at(setting);
    let cells = cells_after(&warming, on_s);
    Some(cells.into_iter().map(|c| c.min(wanted)).collect())
}

fn seconds(s: f64) -> SignedDuration {
    SignedDuration::from_secs_f64(s.round())
}

/// Looks for pace and end that bring the curve to the readings, held back by how sure the book is.
fn fit(r: &FiringRequest, from_c: f64, read: &[(f64, f64)]) -> Option<FittedFiring> {
    let last = read.last()?.0 + 60.0;
    let miss = |pace: f64, off: f64| {
        let run = charge(&r.preheat(pace, off, from_c), last);
        let of_readings: f64 = read
            .iter()
            .filter_map(|(t, c)| Some(((at(&run.course, *t)?.face_c - c) / READING_K).powi(2)))
            .sum();
        of_readings + (pace.ln() / PACE_DOUBT).powi(2) + (off / END_DOUBT_K).powi(2)
    };
    // A coarse net, then three finer ones around its best: smooth in both, so that this finds the bottom.
    let (mut pace, mut off) = (1.0f64, 0.0f64);
    let (mut pace_step, mut off_step) = (0.25f64, 40.0f64);
    for _ in 0..5 {
        let mut best = (miss(pace, off), pace, off);
        for i in -3i32..=3 {
            for j in -3i32..=3 {
                let p = (pace * (pace_step * f64::from(i)).exp()).clamp(0.35, 2.8);
                let o = (off + off_step * f64::from(j)).clamp(-200.0, 200.0);
                let m = miss(p, o);
                if m < best.0 {
                    best = (m, p, o);
                }
            }
        }
        (pace, off) = (best.1, best.2);
        pace_step /= 2.5;
        off_step /= 2.5;
    }
    let run = charge(&r.preheat(pace, off, from_c), last);
    let squares: f64 = read
        .iter()
        .filter_map(|(t, c)| Some((at(&run.course, *t)?.face_c - c).powi(2)))
        .sum();
    Some(FittedFiring {
        pace,
        end_off_k: off,
        readings: read.len() as u32,
        off_k: (squares / read.len() as f64).sqrt(),
    })
}

/// What to feed when: full fire until it is there, then what holds it.
fn feeds(
    r: &FiringRequest,
    light_at: Timestamp,
    needs_s: f64,
    by_s: f64,
) -> (Vec<FuelFeed>, Option<f64>) {
    let rate = r.oven.fuel_kg_h;
    let half = |kg: f64| (kg * 10.0).round() / 10.0;
    let at = |s: f64| light_at + seconds(s);
    let held_s = (by_s - needs_s).max(0.0);
    match r.oven.fuel {
        Fuel::Wood => {
            let mut feeds = vec![];
            let mut total = 0.0;
            let mut add = |s: f64, kg: f64, say: Fact| {
                let kg = half(kg).max(0.1);
                total += kg;
                feeds.push(FuelFeed {
                    at: at(s),
                    wood_kg: Some(kg),
                    say,
                });
            };
            let load = rate * LOAD_MIN / 60.0;
            add(0.0, FIRST_LOAD * load, fact!("feed-light"));
            let mut s = LOAD_MIN * 60.0;
            while s < needs_s - 0.4 * LOAD_MIN * 60.0 {
                add(
                    s,
                    load.min(rate * (needs_s - s) / 3600.0),
                    fact!("feed-more"),
                );
                s += LOAD_MIN * 60.0;
            }
            let until = by_s.max(needs_s) + 1800.0;
            while s < until {
                add(s, HOLD_SHARE * load, fact!("feed-hold"));
                s += LOAD_MIN * 60.0;
            }
            let sum = half(total);
            (feeds, Some(sum))
        }
        Fuel::Gas => {
            let feeds = vec![
                FuelFeed {
                    at: at(0.0),
                    wood_kg: None,
                    say: fact!("feed-full-flame"),
                },
                FuelFeed {
                    at: at(needs_s),
                    wood_kg: None,
                    say: fact!("feed-low"),
                },
            ];
            let kg = rate * (needs_s + HOLD_SHARE * held_s) / 3600.0;
            (feeds, Some(half(kg).max(0.1)))
        }
        Fuel::Electric => (
            vec![FuelFeed {
                at: at(0.0),
                wood_kg: None,
                say: if r.oven.kind.has_one_setting() {
                    fact!("feed-on-at", c = Celsius(whole(r.setting.dome_c)))
                } else {
                    fact!(
                        "feed-top-bottom",
                        top = Celsius(whole(r.setting.dome_c)),
                        bottom = Celsius(whole(r.setting.floor_c))
                    )
                },
            }],
            None,
        ),
    }
}
