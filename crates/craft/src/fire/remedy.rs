//! What to change when base and top disagree: each remedy tried alone, ranked by what it does.
//!
//! Source: bake model, section 12. The direction of a remedy is what the model knows best. None goes above the oven's own
//! maximum. Where the bake is right already they are options, not fixes.

use super::bake::{Parts, follow};
use super::heat::Fineness;
use super::material::Material;
use super::race::{BakeWindow, Race, Targets, race};
use super::setup::{Aim, Back, BakeRequest};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// One change, as data.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Change {
    Grill,
    Fan,
    BottomElement,
    /// Another floor on the rack.
    Floor {
        material: Material,
        mm: f64,
    },
    SteelAndGrill,
    /// Floor and dome of an oven with one setting, K.
    Setting {
        by_c: f64,
    },
    FloorBy {
        by_c: f64,
    },
    DomeBy {
        by_c: f64,
    },
    Sugar {
        percent: f64,
    },
    Malt {
        percent: f64,
    },
    Oil {
        percent: f64,
    },
    LessSauce,
    SmallerBall,
    LateCheese,
}

/// Grill elements at the food, W/m², at about 12 cm.
pub const GRILL_W_M2: f64 = 5000.0;
/// A fan's air, W/m²K.
pub const FAN_W_M2K: f64 = 22.0;
/// The element under a rack on the lowest shelf, W/m².
pub const BOTTOM_W_M2: f64 = 2500.0;

impl Change {
    /// What can be tried in a home oven, and in a fired one.
    fn all(r: &BakeRequest) -> Vec<Change> {
        let home = r.oven.back == Back::Air;
        let mut list = if home {
            vec![
                Change::Grill,
                Change::Fan,
                Change::BottomElement,
                Change::Floor {
                    material: Material::CarbonSteel,
                    mm: 8.0,
                },
                Change::Floor {
                    material: Material::CarbonSteel,
                    mm: 12.0,
                },
                Change::Floor {
                    material: Material::Cordierite,
                    mm: 15.0,
                },
                Change::SteelAndGrill,
                Change::Setting { by_c: 20.0 },
                Change::Setting { by_c: -20.0 },
            ]
        } else {
            vec![
                Change::FloorBy { by_c: 30.0 },
                Change::FloorBy { by_c: -30.0 },
                Change::DomeBy { by_c: 40.0 },
                Change::DomeBy { by_c: -40.0 },
                Change::Floor {
                    material: Material::Biscuit,
                    mm: 50.0,
                },
            ]
        };
        list.extend([
            Change::Sugar { percent: 2.0 },
            Change::Malt { percent: 0.5 },
            Change::Oil { percent: 3.0 },
            Change::LessSauce,
            Change::SmallerBall,
            Change::LateCheese,
        ]);
        list
    }

    /// A name for programs and buttons.
    pub fn key(self) -> String {
        match self {
            Change::Grill => "grill".into(),
            Change::Fan => "fan".into(),
            Change::BottomElement => "bottom_element".into(),
            Change::Floor { material, mm } => format!("floor:{}:{mm}", material.key()),
            Change::SteelAndGrill => "steel_and_grill".into(),
            Change::Setting { by_c } => format!("setting:{by_c}"),
            Change::FloorBy { by_c } => format!("floor_by:{by_c}"),
            Change::DomeBy { by_c } => format!("dome_by:{by_c}"),
            Change::Sugar { percent } => format!("sugar:{percent}"),
            Change::Malt { percent } => format!("malt:{percent}"),
            Change::Oil { percent } => format!("oil:{percent}"),
            Change::LessSauce => "less_sauce".into(),
            Change::SmallerBall => "smaller_ball".into(),
            Change::LateCheese => "late_cheese".into(),
        }
    }

    /// What a maker does, in a few words.
    pub fn words(self) -> String {
        match self {
            Change::Grill => "Grill on during the bake".into(),
            Change::Fan => "Fan on".into(),
            Change::BottomElement => "Bottom element on, lowest shelf".into(),
            Change::Floor { material, mm } => format!("Bake on {mm:.0} mm {}", material.name()),
            Change::SteelAndGrill => "8 mm steel, and the grill on".into(),
            Change::Setting { by_c } => format!("Oven {}", by(by_c)),
            Change::FloorBy { by_c } => format!("Floor {}", by(by_c)),
            Change::DomeBy { by_c } => format!("Dome {}", by(by_c)),
            Change::Sugar { percent } => format!("{percent} % more sugar in the dough"),
            Change::Malt { percent } => format!("{percent} % more active malt in the dough"),
            Change::Oil { percent } => format!("{percent} % more oil in the dough"),
            Change::LessSauce => "A third less sauce".into(),
            Change::SmallerBall => "Balls 15 % smaller".into(),
            Change::LateCheese => "Cheese for the last 90 s only".into(),
        }
    }

    /// Whether it changes the dough, so that a plan's dough becomes another one.
    pub fn is_dough(self) -> bool {
        matches!(
            self,
            Change::Sugar { .. } | Change::Malt { .. } | Change::Oil { .. } | Change::SmallerBall
        )
    }

    /// The bake with this change; `None` where it changes nothing or cannot be done in this oven.
    pub fn applied(self, r: &BakeRequest, most_c: f64, best_s: f64) -> Option<BakeRequest> {
        let mut x = r.clone();
        let o = &mut x.oven;
        match self {
            Change::Grill => o.grill_w_m2 = o.grill_w_m2.max(GRILL_W_M2),
            Change::Fan => o.air_w_m2k = o.air_w_m2k.max(FAN_W_M2K),
            Change::BottomElement => o.back_w_m2 = (o.back_w_m2 + BOTTOM_W_M2).min(BOTTOM_W_M2),
            Change::Floor { material, mm } => lay(o, material, mm),
            Change::SteelAndGrill => {
                lay(o, Material::CarbonSteel, 8.0);
                o.grill_w_m2 = o.grill_w_m2.max(GRILL_W_M2);
            }
            Change::Setting { by_c } => {
                if o.dome_c + by_c > most_c {
                    return None;
                }
                o.dome_c += by_c;
                o.floor_c += if o.floor_c > 100.0 { by_c } else { 0.0 };
                o.air_c = o.air_c.map(|t| t + by_c);
                o.core_c = o.core_c.map(|t| t + by_c);
            }
            Change::FloorBy { by_c } => {
                if o.floor_c + by_c > most_c {
                    return None;
                }
                o.floor_c += by_c;
                o.core_c = o.core_c.map(|t| t + by_c);
                o.back_c = o.back_c.map(|t| t + by_c);
            }
            Change::DomeBy { by_c } => {
                if o.dome_c + by_c > most_c {
                    return None;
                }
                o.dome_c += by_c;
                o.air_c = o.air_c.map(|t| t + by_c);
            }
            Change::Sugar { percent } => x.piece.sugar_percent += percent,
            Change::Malt { percent } => x.piece.malt_percent += percent,
            Change::Oil { percent } => x.piece.oil_percent += percent,
            Change::LessSauce => x.piece.sauce_g *= 0.7,
            Change::SmallerBall => x.piece.ball_g *= 0.85,
            Change::LateCheese => {
                if x.piece.cheese_g <= 0.0 || best_s <= 180.0 {
                    return None;
                }
                x.cheese_at_s = (best_s - 90.0).max(r.cheese_at_s).min(r.until_s);
            }
        }
        (x != *r && x.check().is_ok()).then_some(x)
    }
}

/// Another floor on the rack, charged as it would be at this setting.
fn lay(o: &mut super::setup::OvenNow, material: Material, mm: f64) {
    // A rack's floor follows the setting; a fired floor keeps its temperature.
    if o.back == Back::Air {
        let below = match material {
            Material::Cordierite => 8.0,
            _ => 5.0,
        };
        o.floor_c = o.dome_c - below;
    }
    o.core_c = None;
    o.floor = material;
    o.floor_mm = mm;
}

fn by(c: f64) -> String {
    if c < 0.0 {
        format!("{:.0} °C cooler", -c)
    } else {
        format!("{c:.0} °C hotter")
    }
}

/// What a remedy would do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, JsonSchema)]
pub struct Tried {
    pub change: Change,
    /// How far from right afterwards: less is better.
    pub score: f64,
    pub best_s: f64,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<BakeWindow>,
    /// Changes of colour at the best moment against the bake as it is.
    pub base_by: f64,
    pub rim_by: f64,
    pub race: Race,
}

/// How far from right a race is, with a little for shades.
pub fn score(race: &Race, targets: &Targets) -> f64 {
    let (base, rim) = targets.aims();
    race.amiss
        + 0.02
            * (((race.at.base - base) / base).powi(2)
                + ((race.at.rim.min(race.at.far_rim) - rim) / rim).powi(2))
}

/// Every remedy that can be done here, best first, and only those that make it better. `r` was checked.
pub fn remedies(r: &BakeRequest, now: &Race, targets: &Targets, most_c: f64) -> Vec<Tried> {
    let was = score(now, targets);
    let mut out: Vec<Tried> = Change::all(r)
        .into_iter()
        .filter_map(|change| {
            let mut x = change.applied(r, most_c, now.best_s)?;
            // Longer than this nobody waits; hotter bakes are over sooner.
            x.until_s = x.until_s.min(longest(r.aim));
            let course = follow(&x, Fineness::Draft, Parts::All, None);
            let ran = race(&x, &course, targets)?;
            Some(Tried {
                change,
                score: score(&ran, targets),
                best_s: ran.best_s,
                window: ran.window,
                base_by: ran.at.base - now.at.base,
                rim_by: ran.at.rim - now.at.rim,
                race: ran,
            })
        })
        .filter(|t| t.score < was)
        .collect();
    out.sort_by(|a, b| a.score.total_cmp(&b.score));
    out
}

/// How long a bake of this kind is followed, s.
pub fn longest(aim: Aim) -> f64 {
    match aim {
        Aim::Hot => 180.0,
        Aim::Thin => 400.0,
        Aim::Deck => 600.0,
        Aim::Home => 900.0,
        Aim::Pan => 1500.0,
    }
}
