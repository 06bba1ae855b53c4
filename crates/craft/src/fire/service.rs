//! A run of pizzas before it begins: the gap that keeps bases right, the pace of the hands, when the last one is out.
//!
//! Source: bake model, section 11; craft notes, section 7 (spares of 5 to 8 %); the hands by `Work`. The floor's
//! answer is the weakest of the model: very sensitive to the power below and to what a bare floor takes up. It is shown
//! as a range, ±25 % of the gap.

use super::oven::is_tray;
use super::plan::{FirePlan, PlannedBake};
use super::recover::{HANDS_S, LONGEST_GAP_S, Recovery, gap, recovery, row};
use super::words::rough_time;
use super::work::Work;
use crate::fact;
use crate::fact::{Kelvin, Seconds, Value, tenth};
use crate::note::{Note, by_urgency};
use crate::refusal::{Check, ValidationError};
use jiff::{SignedDuration, Timestamp};
use serde::{Deserialize, Serialize};

/// Who bakes how many.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct ServiceRequest {
    /// 1 to 1000.
    pub pieces: u32,
    /// People at bench and oven, 1 to 8.
    pub hands: u32,
    /// What one pizza takes of a person.
    #[serde(default)]
    pub work: Work,
    /// When the first one goes in.
    pub first_at: Timestamp,
    /// Until when the dough is ready.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub closes_at: Option<Timestamp>,
}

impl ServiceRequest {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.range(
            "pieces",
            fact!("f-pizzas"),
            f64::from(self.pieces),
            1.0,
            1000.0,
            Value::Number,
        );
        hands_into(&mut c, self.hands);
        self.work.check_into(&mut c);
        c.done()
    }
}

/// The run as it should go.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Service {
    /// How the floor comes back after one.
    pub recovery: Recovery,
    /// The pause of one spot that keeps bases right, s; absent when no pause within 25 min does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gap_s: Option<f64>,
    /// Places of the floor that take turns.
    pub areas: u32,
    /// One pizza out every so many seconds: by the floor (with a place more and a place less), by the hands, and the slower
    /// of both.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_pace_s: Option<f64>,
    /// By the floor with a place more and with a place less, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_pace_range_s: Option<(f64, f64)>,
    /// By the hands, s.
    pub hands_pace_s: f64,
    /// By the slower of both, s.
    pub pace_s: f64,
    /// When the last one is out.
    pub last_out_at: Timestamp,
    /// Balls to make besides.
    pub spares: u32,
    /// Launch temperature of one spot's floor, pizza after pizza, at that pace, °C; the colour of each base.
    pub launches: Vec<(f64, f64)>,
    /// Judgements, the gravest first.
    pub notes: Vec<Note>,
}

/// How many pizzas of one spot are followed.
const FOLLOWED: u32 = 8;

/// Seconds from one pizza to the next where `spots` bake at once and each is filled again as soon as hands can.
pub fn spots_pace_s(bake_s: f64, spots: u32) -> f64 {
    (bake_s + HANDS_S) / f64::from(spots.max(1))
}

/// Seconds from one pizza to the next where `spots` bake at once and `areas` of the floor take turns, each resting `gap_s`
/// between two; then the same with a place more and one less (but never fewer than bake at once).
pub fn floor_pace(bake_s: f64, gap_s: f64, spots: u32, areas: u32) -> (f64, (f64, f64)) {
    let of = |areas: u32| spots_pace_s(bake_s, spots).max((bake_s + gap_s) / f64::from(areas));
    (of(areas), (of(areas + 1), of((areas - 1).max(spots))))
}

/// Plans a run. `plan` was planned, `r` is checked here.
///
/// Errors: what is outside its range.
pub fn service(
    plan: &FirePlan,
    planned: &PlannedBake,
    r: &ServiceRequest,
) -> Result<Service, ValidationError> {
    r.check()?;
    let targets = plan.targets();
    let bake = &planned.request;
    let bake_s = planned.race.best_s;
    let tray = is_tray(&plan.setting);
    // A cold tray is taken anew each time: the floor sets no pause.
    let gap_s = if tray {
        Some(0.0)
    } else {
        gap(bake, &targets, bake_s, FOLLOWED)
    };
    let spots = plan.oven.spots.max(1);
    // Each goes in on a tray of its own: no place of the floor is waited for.
    let areas = if tray {
        spots
    } else {
        plan.oven.areas(plan.piece.disc_mm)
    };
    let by_floor = gap_s.map(|g| {
        let (usual, range) = floor_pace(bake_s, g, spots, areas);
        // A floor of one place has no place more and none less.
        let one_place = tray || plan.oven.has_one_place();
        (usual, if one_place { (usual, usual) } else { range })
    });
    let floor_pace_s = by_floor.map(|(usual, _)| usual);
    let hands_pace_s = r.work.of_pizza_s(planned.programme.turns.len()) / f64::from(r.hands);
    let pace_s = floor_pace_s
        .unwrap_or(bake_s + LONGEST_GAP_S)
        .max(hands_pace_s);
    let real_gap = (pace_s * f64::from(areas) - bake_s).max(0.0);
    let followed = r.pieces.div_ceil(areas).min(12);
    let launches = if tray {
        vec![]
    } else {
        row(bake, followed, bake_s, real_gap, None)
            .iter()
            .map(|x| (x.launch_c, x.base))
            .collect()
    };
    let last = f64::from(r.pieces.saturating_sub(1)) * pace_s + bake_s;
    // "By 20:26" has no seconds: the minute in which it is out is over then.
    let out = (r.first_at + SignedDuration::from_secs_f64(last.round())).as_second();
    let last_out_at = Timestamp::from_second((out + 59).div_euclid(60) * 60).unwrap_or(r.first_at);
    let mut out = Service {
        recovery: recovery(bake, bake_s),
        gap_s,
        areas,
        floor_pace_s,
        floor_pace_range_s: by_floor.map(|(_, range)| range),
        hands_pace_s,
        pace_s,
        last_out_at,
        spares: if r.pieces < 8 {
            0
        } else {
            (0.06 * f64::from(r.pieces)).ceil() as u32
        },
        launches,
        notes: vec![],
    };
    out.notes = by_urgency(notes(&out, plan, r, planned));
    Ok(out)
}

/// "1:35", or "1:30 to 2:23, likely 1:35".
fn paced(low: f64, likely: f64, high: f64) -> Value {
    if high - low < 5.0 {
        return Seconds(likely).into();
    }
    let range = (Seconds(low), Seconds(high));
    fact!("paced", range = range, likely = Seconds(likely)).into()
}

fn notes(s: &Service, plan: &FirePlan, r: &ServiceRequest, planned: &PlannedBake) -> Vec<Note> {
    let (bake, bake_s) = (&planned.request, planned.race.best_s);
    let targets = plan.targets();
    let many = if plan.pan.is_some() {
        fact!("trays")
    } else {
        fact!("pizzas")
    };
    let mut out = Vec::new();
    match s.gap_s {
        _ if is_tray(&plan.setting) => out.push(Note::holds(
            "own_tray",
            fact!("own-tray"),
            fact!("own-tray-why"),
        )),
        None => out.push(
            Note::act(
                "floor_never_back",
                fact!("floor-never-back", many = many.clone()),
                fact!("floor-never-back-why", base = tenth(targets.base.0)),
            )
            .todo(fact!("floor-never-back-todo")),
        ),
        Some(g) if g > HANDS_S && s.areas > plan.oven.spots.max(1) => out.push(Note::holds(
            "floor_turns",
            fact!("floor-turns", n = s.areas),
            fact!("floor-turns-why", by = Kelvin(s.recovery.drop_k)),
        )),
        Some(g) if g > HANDS_S => {
            // What gives when nobody waits.
            let hurried = row(bake, FOLLOWED, bake_s, HANDS_S, Some(targets.base.0));
            let first_pale = hurried.iter().position(|x| x.base < targets.base.0);
            let why = match first_pale {
                Some(i) => fact!("floor-gap-pale", n = i + 1, base = tenth(hurried[i].base)),
                None => fact!("floor-takes", by = Kelvin(s.recovery.drop_k)),
            };
            // What a place needs to come back, not what it needs to go on for ever.
            let wait = s.recovery.wait_s.unwrap_or(g);
            out.push(Note::watch(
                "floor_gap",
                if plan.oven.spots > 1 {
                    fact!(
                        "floor-gap-spot",
                        time = rough_time(0.75 * wait, 1.25 * wait),
                        many = many.clone()
                    )
                } else {
                    fact!(
                        "floor-gap",
                        time = rough_time(0.75 * wait, 1.25 * wait),
                        many = many.clone()
                    )
                },
                why,
            ));
        }
        Some(_) => out.push(Note::holds(
            "floor_gap",
            fact!("floor-keeps-up"),
            fact!("floor-keeps-up-why", by = Kelvin(s.recovery.drop_k)),
        )),
    }
    if let (true, Some(floor)) = (r.pieces > 1, s.floor_pace_s) {
        let by_hands = s.hands_pace_s > floor;
        let by_floor = match s.floor_pace_range_s {
            Some((a, b)) => paced(a, floor, b),
            None => Seconds(floor).into(),
        };
        let why = fact!(
            "run-why",
            floor = by_floor,
            hands = r.hands,
            time = Seconds(s.hands_pace_s)
        );
        let what = fact!(
            "run-last-out",
            n = r.pieces,
            many = many.clone(),
            at = s.last_out_at
        );
        let late = r.closes_at.is_some_and(|c| s.last_out_at > c);
        out.push(if late {
            Note::act(
                "run_too_long",
                fact!(
                    "run-after-window",
                    n = r.pieces,
                    many = many.clone(),
                    at = s.last_out_at
                ),
                why,
            )
            .todo(if by_hands {
                fact!("more-hands")
            } else {
                fact!("another-spot")
            })
        } else {
            Note::holds("run_fits", what, why)
        });
    }
    if s.spares > 0 {
        out.push(Note::holds(
            "spares",
            fact!("spares", n = s.spares, pieces = r.pieces),
            fact!("spares-why"),
        ));
    }
    out
}

/// People at the oven.
pub(super) fn hands_into(c: &mut Check, hands: u32) {
    let n = f64::from(hands);
    c.range("hands", fact!("f-people"), n, 1.0, 8.0, Value::Number);
}
