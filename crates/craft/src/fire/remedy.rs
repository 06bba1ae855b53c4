//! What to change when base and top disagree: each remedy tried alone on the plan, ranked by what it does.
//!
//! Source: bake model, section 12. The direction of a remedy is what the model knows best. None goes above what the oven
//! may reach. Where the bake is right already they are options, not fixes.

use super::heat::Fineness;
use super::material::Material;
use super::oven::{OvenKind, OvenShelf};
use super::plan::FirePlan;
use super::race::{BakeWindow, Race, Targets};
use super::setup::Aim;
use crate::fact;
use crate::fact::{Fact, Kelvin, Mm, Percent, whole};
use crate::keyed::Keyed;
use serde::{Deserialize, Serialize};

/// One change, as data.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum FireChange {
    /// The grill on.
    Grill,
    /// The fan on.
    Fan,
    /// More heat from below.
    BottomElement,
    /// Another floor.
    Floor {
        /// What it is made of.
        material: Material,
        /// How thick, mm.
        mm: f64,
    },
    /// A steel, and the grill on.
    SteelAndGrill,
    /// The one setting of a home oven, K.
    Setting {
        /// By so much, K.
        #[serde(rename = "by_c")]
        by_k: f64,
    },
    /// The floor hotter or cooler.
    FloorBy {
        /// By so much, K.
        #[serde(rename = "by_c")]
        by_k: f64,
    },
    /// The dome hotter or cooler.
    DomeBy {
        /// By so much, K.
        #[serde(rename = "by_c")]
        by_k: f64,
    },
    /// Sugar in the dough.
    Sugar {
        /// Of the flour, %.
        percent: f64,
    },
    /// Malt in the dough.
    Malt {
        /// Of the flour, %.
        percent: f64,
    },
    /// Oil in the dough.
    Oil {
        /// Of the flour, %.
        percent: f64,
    },
    /// Less sauce.
    LessSauce,
    /// A smaller ball on the same disc.
    SmallerBall,
    /// The cheese on later.
    LateCheese,
}

const DOUGH: [FireChange; 6] = [
    FireChange::Sugar { percent: 2.0 },
    FireChange::Malt { percent: 0.5 },
    FireChange::Oil { percent: 3.0 },
    FireChange::LessSauce,
    FireChange::SmallerBall,
    FireChange::LateCheese,
];
const HOME: [FireChange; 9] = [
    FireChange::Grill,
    FireChange::Fan,
    FireChange::BottomElement,
    FireChange::Floor {
        material: Material::CarbonSteel,
        mm: 8.0,
    },
    FireChange::Floor {
        material: Material::CarbonSteel,
        mm: 12.0,
    },
    FireChange::Floor {
        material: Material::Cordierite,
        mm: 15.0,
    },
    FireChange::SteelAndGrill,
    FireChange::Setting { by_k: 20.0 },
    FireChange::Setting { by_k: -20.0 },
];
const FIRED: [FireChange; 5] = [
    FireChange::FloorBy { by_k: 30.0 },
    FireChange::FloorBy { by_k: -30.0 },
    FireChange::DomeBy { by_k: 40.0 },
    FireChange::DomeBy { by_k: -40.0 },
    FireChange::Floor {
        material: Material::Biscuit,
        mm: 50.0,
    },
];

impl FireChange {
    /// What can be tried in an oven of this kind.
    fn tried_in(kind: OvenKind) -> impl Iterator<Item = FireChange> {
        let of_oven: &[FireChange] = match kind {
            OvenKind::Home => &HOME,
            _ => &FIRED,
        };
        of_oven.iter().chain(&DOUGH).copied()
    }

    /// A name for programs and buttons.
    pub fn key(self) -> String {
        match self {
            FireChange::Grill => "grill".into(),
            FireChange::Fan => "fan".into(),
            FireChange::BottomElement => "bottom_element".into(),
            FireChange::Floor { material, mm } => format!("floor-{}-{mm}", material.key()),
            FireChange::SteelAndGrill => "steel_and_grill".into(),
            FireChange::Setting { by_k } => format!("setting{by_k:+}"),
            FireChange::FloorBy { by_k } => format!("floor{by_k:+}"),
            FireChange::DomeBy { by_k } => format!("dome{by_k:+}"),
            FireChange::Sugar { percent } => format!("sugar-{percent}"),
            FireChange::Malt { percent } => format!("malt-{percent}"),
            FireChange::Oil { percent } => format!("oil-{percent}"),
            FireChange::LessSauce => "less_sauce".into(),
            FireChange::SmallerBall => "smaller_ball".into(),
            FireChange::LateCheese => "late_cheese".into(),
        }
    }
    /// The change of that key; `None` for a key of none.
    pub fn from_key(key: &str) -> Option<FireChange> {
        HOME.iter()
            .chain(&FIRED)
            .chain(&DOUGH)
            .copied()
            .find(|c| c.key() == key)
    }

    /// What a maker does, in a few words.
    pub fn words(self) -> Fact {
        match self {
            FireChange::Grill => fact!("change-grill"),
            FireChange::Fan => fact!("change-fan"),
            FireChange::BottomElement => fact!("change-below"),
            FireChange::Floor { material, mm } => {
                fact!("change-floor", mm = Mm(whole(mm)), floor = material.name())
            }
            FireChange::SteelAndGrill => fact!("change-steel-and-grill", mm = Mm(8.0)),
            FireChange::Setting { by_k } => fact!("change-setting", by = by(by_k)),
            FireChange::FloorBy { by_k } => fact!("change-floor-by", by = by(by_k)),
            FireChange::DomeBy { by_k } => fact!("change-dome", by = by(by_k)),
            FireChange::Sugar { percent } => fact!("change-sugar", share = Percent(percent)),
            FireChange::Malt { percent } => fact!("change-malt", share = Percent(percent)),
            FireChange::Oil { percent } => fact!("change-oil", share = Percent(percent)),
            FireChange::LessSauce => fact!("change-sauce"),
            FireChange::SmallerBall => fact!("change-ball"),
            FireChange::LateCheese => fact!("change-cheese"),
        }
    }

    /// Whether it changes the dough itself, so that the formula becomes another one.
    pub fn is_dough(self) -> bool {
        matches!(
            self,
            FireChange::Sugar { .. }
                | FireChange::Malt { .. }
                | FireChange::Oil { .. }
                | FireChange::SmallerBall
        )
    }

    /// The plan with this change; `None` where it changes nothing or cannot be done in this oven.
    pub fn applied(self, plan: &FirePlan) -> Option<FirePlan> {
        let mut x = plan.clone();
        let s = &mut x.setting;
        match self {
            FireChange::Grill => (s.grill, s.shelf, s.below) = (true, OvenShelf::Top, false),
            FireChange::Fan => s.fan = true,
            FireChange::BottomElement => (s.below, s.shelf) = (true, OvenShelf::Low),
            FireChange::Floor { material, mm } => (s.floor, s.floor_mm) = (material, mm),
            FireChange::SteelAndGrill => {
                (s.floor, s.floor_mm) = (Material::CarbonSteel, 8.0);
                (s.grill, s.shelf, s.below) = (true, OvenShelf::Top, false);
            }
            FireChange::Setting { by_k } => s.dome_c += by_k,
            FireChange::FloorBy { by_k } => s.floor_c += by_k,
            FireChange::DomeBy { by_k } => s.dome_c += by_k,
            FireChange::Sugar { percent } => x.piece.sugar_percent += percent,
            FireChange::Malt { percent } => x.piece.malt_percent += percent,
            FireChange::Oil { percent } => x.piece.oil_percent += percent,
            FireChange::LessSauce => x.piece.sauce_g = (0.7 * x.piece.sauce_g).round(),
            FireChange::SmallerBall => x.piece.ball_g = (0.85 * x.piece.ball_g).round(),
            FireChange::LateCheese => {
                if x.piece.cheese_g <= 0.0 || x.aim == Aim::Hot {
                    return None;
                }
                x.shape = Some("double".into());
                x.turns = None;
            }
        }
        x.setting.floor_c = x.oven.floor_at(&x.setting);
        // What was read of the floor was read of the old plan.
        x.floor_read_c = None;
        (x != *plan && x.check().is_ok()).then_some(x)
    }
}

fn by(c: f64) -> Fact {
    if c < 0.0 {
        fact!("cooler-by", by = Kelvin(whole(-c)))
    } else {
        fact!("hotter-by", by = Kelvin(whole(c)))
    }
}

/// What a remedy would do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Tried {
    /// What is changed.
    pub change: FireChange,
    /// How far from right afterwards: less is better.
    pub score: f64,
    /// Its best moment, s.
    pub best_s: f64,
    /// When all is right at once; absent when never.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub window: Option<BakeWindow>,
    /// Changes of colour at the best moment against the bake as it is.
    pub base_by: f64,
    /// Change of the rim's colour.
    pub rim_by: f64,
    /// Whether it makes it better at all.
    pub helps: bool,
    /// What is ready when.
    pub race: Race,
}

/// How far from right a race is, with a little for shades.
pub fn score(race: &Race, targets: &Targets) -> f64 {
    let (base, rim) = targets.aims();
    race.amiss
        + 0.02
            * (((race.at.base - base) / base).powi(2) + ((race.at.rim_palest - rim) / rim).powi(2))
}

/// Every remedy that can be done in this oven, best first; `now` is the race of the plan as it is.
pub fn remedies(plan: &FirePlan, now: &Race) -> Vec<Tried> {
    let targets = plan.targets();
    let was = score(now, &targets);
    // Two changes that come to the same (steel and grill, where steel lies already) are one.
    let mut plans: Vec<(FireChange, FirePlan)> = Vec::new();
    for change in FireChange::tried_in(plan.oven.kind) {
        if let Some(x) = change.applied(plan)
            && plans.iter().all(|(_, other)| *other != x)
        {
            plans.push((change, x));
        }
    }
    let mut out: Vec<Tried> = plans
        .into_iter()
        .filter_map(|(change, x)| {
            let ran = x.planned_at(Fineness::Draft).ok()?.race;
            let score = score(&ran, &targets);
            Some(Tried {
                change,
                score,
                helps: score < was - 1e-4,
                best_s: ran.best_s,
                window: ran.window,
                base_by: ran.at.base - now.at.base,
                rim_by: ran.at.rim - now.at.rim,
                race: ran,
            })
        })
        .collect();
    out.sort_by(|a, b| a.score.total_cmp(&b.score));
    out
}
