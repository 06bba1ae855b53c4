//! What floor and dome this piece wants.
//!
//! Source: bake model, section 12. First the dome so that the rim is coloured in time, then the floor so that the base
//! is; where crumb or topping need longer, the time is stretched and both are looked for again.

use super::bake::{BakeParts, follow};
use super::heat::Fineness;
use super::limits::expected_s;
use super::plan::FirePlan;
use super::race::{Race, RaceItem, Targets, race};
use super::setup::BakeRequest;
use crate::fact;
use crate::fact::Value;
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// What is looked for, and within what.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct SetPointRequest {
    /// The bake that is looked for; its own floor and dome are where the search begins.
    pub bake: BakeRequest,
    /// What the oven can do, °C.
    pub floor_c: (f64, f64),
    /// Between which the dome may stand, °C.
    pub dome_c: (f64, f64),
    /// Wanted bake time, s; the style's when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bake_s: Option<f64>,
}

/// The answer: settings, time and the race they give.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct SetPoints {
    /// The floor, °C.
    pub floor_c: f64,
    /// The dome, °C.
    pub dome_c: f64,
    /// The time it was looked for at, s.
    pub bake_s: f64,
    /// A limit of the oven was in the way.
    pub floor_at_limit: bool,
    /// A limit of the dome was in the way.
    pub dome_at_limit: bool,
    /// What is ready when.
    pub race: Race,
}

const ROUNDS: u32 = 4;
const HALVINGS: u32 = 8;
/// A colour this near to the aim counts as met at a limit.
const NEAR: f64 = 0.02;

impl SetPointRequest {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        self.bake.check().map_err(|e| e.below("bake"))?;
        let mut c = Check::new();
        let (f, d) = (self.floor_c, self.dome_c);
        c.range(
            "floor_c",
            fact!("f-the-coolest-floor"),
            f.0,
            10.0,
            550.0,
            Value::Celsius,
        );
        c.range(
            "floor_c",
            fact!("f-the-hottest-floor"),
            f.1,
            f.0,
            550.0,
            Value::Celsius,
        );
        c.range(
            "dome_c",
            fact!("f-the-coolest-dome"),
            d.0,
            100.0,
            600.0,
            Value::Celsius,
        );
        c.range(
            "dome_c",
            fact!("f-the-hottest-dome"),
            d.1,
            d.0,
            600.0,
            Value::Celsius,
        );
        if let Some(s) = self.bake_s {
            c.range(
                "bake_s",
                fact!("f-the-bake"),
                s,
                30.0,
                1800.0,
                Value::Seconds,
            );
        }
        c.done()
    }
}

/// Bisects `of`, which rises with its argument, for `aim` between two limits.
fn bisect((mut lo, mut hi): (f64, f64), aim: f64, of: impl Fn(f64) -> f64) -> (f64, bool) {
    if of(hi) <= aim {
        return (hi, true);
    }
    if of(lo) >= aim {
        return (lo, true);
    }
    for _ in 0..HALVINGS {
        let mid = 0.5 * (lo + hi);
        if of(mid) < aim { lo = mid } else { hi = mid }
    }
    (0.5 * (lo + hi), false)
}

/// Looks for floor and dome.
///
/// Errors: what is outside its range.
pub fn set_points(r: &SetPointRequest, targets: &Targets) -> Result<SetPoints, ValidationError> {
    r.check()?;
    let (aim_base, aim_rim) = targets.aims();
    let usual = || {
        let expected = expected_s(&r.bake.piece, &r.bake.oven, r.dome_c.1);
        r.bake.aim.usual_s().max(expected)
    };
    let mut bake_s = r.bake_s.unwrap_or_else(usual);
    let mut x = r.bake.clone();
    // Both sides alike: turning is a question of its own.
    x.oven.side = 0.0;
    x.turns_s = vec![];
    let mut best: Option<SetPoints> = None;
    for _ in 0..ROUNDS {
        let colour = |x: &BakeRequest, parts: BakeParts| {
            let mut y = x.clone();
            y.until_s = bake_s.max(10.0);
            follow(&y, Fineness::Draft, parts, None)
                .moments
                .last()
                .map_or(0.0, |m| {
                    if parts == BakeParts::Rim {
                        m.rim
                    } else {
                        m.base
                    }
                })
        };
        let with = |x: &BakeRequest, floor: f64, dome: f64| {
            let mut y = x.clone();
            // What stands under the face goes with it.
            let by = floor - x.oven.floor_c;
            y.oven.floor_c = floor;
            y.oven.core_c = y.oven.core_c.map(|c| c + by);
            y.oven.back_c = y.oven.back_c.map(|c| c + by);
            y.oven.dome_c = dome;
            y.oven.air_c = None;
            y
        };
        let held = |dome: f64| r.floor_c.1.min(dome).max(r.floor_c.0);
        let (dome, dome_limit) = bisect(r.dome_c, aim_rim, |d| {
            colour(&with(&x, held(d), d), BakeParts::Rim)
        });
        let (floor, floor_limit) = bisect(r.floor_c, aim_base, |f| {
            colour(&with(&x, f, dome), BakeParts::Centre)
        });
        let mut whole = with(&x, floor, dome);
        whole.until_s = (2.0 * bake_s).max(300.0);
        let course = follow(&whole, Fineness::Usual, BakeParts::All, None);
        let Some(ran) = race(&whole, &course, targets) else {
            break;
        };
        let near = |item: RaceItem, aim: f64| {
            let v = if item == RaceItem::Rim {
                ran.at.rim
            } else {
                ran.at.base
            };
            (v - aim).abs() < NEAR
        };
        let found = SetPoints {
            floor_c: floor,
            dome_c: dome,
            bake_s,
            floor_at_limit: floor_limit && !near(RaceItem::Base, aim_base),
            dome_at_limit: dome_limit && !near(RaceItem::Rim, aim_rim),
            race: ran,
        };
        let late = found
            .race
            .lanes
            .iter()
            .map(|l| l.ready_s.unwrap_or(1.5 * bake_s))
            .fold(0.0, f64::max);
        let open = found.race.window.is_some();
        if best
            .as_ref()
            .is_none_or(|b| found.race.amiss < b.race.amiss)
        {
            best = Some(found);
        }
        if open || late <= bake_s {
            break;
        }
        bake_s = (1.05 * late).min(1.6 * bake_s);
    }
    best.ok_or_else(|| ValidationError::one("bake.until_s", fact!("bake-too-short")))
}

/// A plan at the set points that its piece wants, to 5 °C; and what of its oven was in the way.
#[derive(Debug, Clone, PartialEq)]
pub struct SolvedPlan {
    /// The plan with floor and dome found.
    pub plan: FirePlan,
    /// A limit of the floor was in the way.
    pub floor_at_limit: bool,
    /// A limit of the dome was in the way.
    pub dome_at_limit: bool,
}

/// The coolest that is looked at, °C: a fire, a thermostat, a dome.
const COOLEST_FIRE_C: f64 = 200.0;
const COOLEST_SET_C: f64 = 150.0;

/// Sets floor and dome to what the piece wants of a charged oven, within what that may reach.
///
/// Errors: the fields of the plan outside their ranges.
pub fn solve_plan(plan: &FirePlan) -> Result<SolvedPlan, ValidationError> {
    let mut out = plan.clone();
    out.preheat_min = None;
    out.floor_read_c = None;
    let planned = out.planned()?;
    let (floor_most, dome_most) = (out.oven.most_c, out.oven.dome_most_c());
    let floor_least = if out.oven.kind.is_fired() {
        COOLEST_FIRE_C
    } else {
        COOLEST_SET_C
    };
    let asked = SetPointRequest {
        bake: planned.request,
        floor_c: (floor_least, floor_most),
        dome_c: (COOLEST_SET_C, dome_most),
        bake_s: None,
    };
    let found = set_points(&asked, &out.targets())?;
    let to5 = |c: f64| (c / 5.0).round() * 5.0;
    out.setting.dome_c = to5(found.dome_c).min(dome_most);
    out.setting.floor_c = to5(found.floor_c).min(floor_most);
    out.setting.floor_c = out.oven.floor_at(&out.setting);
    out.preheat_min = plan.preheat_min;
    Ok(SolvedPlan {
        plan: out,
        floor_at_limit: found.floor_at_limit,
        dome_at_limit: found.dome_at_limit,
    })
}
