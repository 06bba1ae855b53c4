//! Why did it come out of the oven as it did? Every mishap changes the bake; what was seen says which change it fits.
//!
//! Source: learning, section 9.2. The bake is followed at draft fineness: some twenty of them.

use super::cause::Cause;
use super::dough::ORDINARY;
use super::verdict::Ranked;
use crate::fire::{Back, BakeRequest, Fineness, Material, RaceItem, Targets, bake_finely, race};
use crate::learn::likelihood::{below, chance_said};
use serde::{Deserialize, Serialize};

/// What was said of a pizza.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BakedAs {
    /// Its base: −1 pale, 0 right, 1 dark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base: Option<i8>,
    /// Its top, the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub top: Option<i8>,
    /// Its centre was wet: 1, or not: 0.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wet: Option<i8>,
}

impl BakedAs {
    /// Whether there is anything to explain.
    pub fn has_symptoms(&self) -> bool {
        [self.base, self.top, self.wet]
            .into_iter()
            .flatten()
            .any(|v| v != 0)
    }
}

/// It is followed for so many times the seconds that it was in.
const FOLLOWED: f64 = 1.7;
/// How surely colours and a wet centre are told.
const BASE_SD: f64 = 0.4;
const RIM_SD: f64 = 0.5;
const WET_SD: f64 = 0.22;
/// Colours beyond this are told alike.
const DARKEST: f64 = 4.0;
const SLIPS: f64 = 0.04;
/// A lane that is never ready stands for so many times the seconds it was in.
const NEVER_READY: f64 = 2.0;
/// A tray in place of the floor.
const TRAY_MM: f64 = 1.0;
const TRAY_C: f64 = 60.0;
/// Sugar left out is asked about only where so much was in it, %.
const SUGAR_IN_IT: f64 = 1.0;

/// How it came out, by the model.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct CameOut {
    /// Colour of the base, 0 pale to 3 charred.
    pub base: f64,
    /// Colour of the rim.
    pub rim: f64,
    /// ln of the seconds in against those that crumb and topping needed; below 0 the centre is wet.
    pub wet: f64,
}

/// How a bake of `out_s` seconds comes out; `None` where the model cannot take it.
pub(crate) fn came_out(r: &BakeRequest, targets: &Targets, out_s: f64) -> Option<CameOut> {
    let course = bake_finely(r, Fineness::Draft).ok()?;
    let race = race(r, &course, targets)?;
    let m = course.near(out_s)?;
    let needed = [RaceItem::Crumb, RaceItem::Topping]
        .iter()
        .filter_map(|&item| race.lane(item))
        .map(|lane| lane.ready_s.unwrap_or(NEVER_READY * out_s))
        .fold(0.0, f64::max);
    Some(CameOut {
        base: m.base,
        rim: m.rim,
        wet: (out_s / needed.max(1e-9)).ln(),
    })
}

fn told(v: f64, (lo, hi): (f64, f64), sd: f64, said: i8) -> f64 {
    let v = v.min(DARKEST);
    let (pale, dark) = (below((lo - v) / sd), below((v - hi) / sd));
    let p = match said.signum() {
        -1 => pale,
        1 => dark,
        _ => 1.0 - pale - dark,
    };
    (1.0 - SLIPS) * p + SLIPS / 3.0
}

/// The chance of what was said, where it came out so: base, top, wet.
pub(super) fn chances(said: &BakedAs, out: &CameOut, targets: &Targets) -> [Option<f64>; 3] {
    let wet = |is: i8| {
        let p = chance_said(out.wet, WET_SD);
        if is != 0 { p } else { 1.0 - p }
    };
    [
        said.base.map(|b| told(out.base, targets.base, BASE_SD, b)),
        said.top.map(|t| told(out.rim, targets.rim, RIM_SD, t)),
        said.wet.map(wet),
    ]
}

fn ln_chance(said: &BakedAs, out: &CameOut, targets: &Targets) -> f64 {
    chances(said, out, targets)
        .into_iter()
        .flatten()
        .map(f64::ln)
        .sum()
}

type Change = fn(&mut BakeRequest, f64);

/// The changes that are tried: cause, prior, levels, and what a level does.
const CHANGES: &[(Cause, f64, &[f64], Change)] = &[
    (Cause::FloorCold, 0.08, &[-25.0, -50.0, -80.0], floor),
    (Cause::FloorHot, 0.05, &[25.0, 50.0], floor),
    (Cause::TopCold, 0.05, &[-25.0, -50.0], dome),
    (Cause::TopHot, 0.04, &[25.0, 50.0], dome),
    (Cause::ThinTray, 0.04, &[TRAY_MM], tray),
    (Cause::ToppingMuch, 0.07, &[1.4, 1.8], topping),
    (Cause::SugarLittle, 0.02, &[-1.5, -3.0], sugar),
    (Cause::SugarMuch, 0.03, &[1.5, 3.0], sugar),
    (Cause::Thick, 0.04, &[0.88, 0.8], disc),
    (Cause::Thin, 0.02, &[1.12], disc),
    (Cause::Spent, 0.03, &[0.5, 0.1], maturity),
];
/// Out sooner or later than noted: the same bake, looked at another second.
const OFF_NOTE: [(Cause, f64, &[f64]); 2] = [
    (Cause::Short, 0.04, &[0.8, 0.65]),
    (Cause::Long, 0.03, &[1.2, 1.4]),
];
/// The dough's sugars were spent by its own account: so much likelier (assumed).
const SPENT_TIMES: f64 = 4.0;

fn floor(r: &mut BakeRequest, by: f64) {
    r.oven.floor_c += by;
}
fn dome(r: &mut BakeRequest, by: f64) {
    r.oven.dome_c += by;
}
fn tray(r: &mut BakeRequest, mm: f64) {
    r.oven.floor = Material::CarbonSteel;
    r.oven.floor_mm = mm;
    r.oven.floor_c = TRAY_C;
    r.oven.core_c = None;
}
fn topping(r: &mut BakeRequest, times: f64) {
    r.piece.sauce_g *= times;
    r.piece.cheese_g *= times;
}
fn sugar(r: &mut BakeRequest, by: f64) {
    r.piece.sugar_percent = (r.piece.sugar_percent + by).max(0.0);
}
fn disc(r: &mut BakeRequest, times: f64) {
    r.piece.disc_mm *= times;
}
fn maturity(r: &mut BakeRequest, to: f64) {
    r.piece.maturity = to;
}

fn applies(cause: Cause, r: &BakeRequest) -> bool {
    match cause {
        Cause::ThinTray => r.oven.back == Back::Air && r.pan.is_none(),
        Cause::SugarLittle => r.piece.sugar_percent >= SUGAR_IN_IT,
        _ => true,
    }
}

/// A pizza to explain.
pub(super) struct BakeCase<'a> {
    pub bake: BakeRequest,
    pub targets: Targets,
    pub out_s: f64,
    pub timed: bool,
    pub said: &'a BakedAs,
    /// The rise run says that the dough's sugars were spent.
    pub spent: bool,
}

impl BakeCase<'_> {
    fn base_request(&self) -> BakeRequest {
        BakeRequest {
            until_s: FOLLOWED * self.out_s,
            ..self.bake.clone()
        }
    }

    /// How it comes out as set, or with a cause at a level.
    pub fn with(&self, cause: Cause, level: f64) -> Option<CameOut> {
        let mut r = self.base_request();
        let mut out_s = self.out_s;
        if let Some((_, _, _, change)) = CHANGES.iter().find(|(c, ..)| *c == cause) {
            change(&mut r, level);
        } else if matches!(cause, Cause::Short | Cause::Long) {
            out_s *= level;
        }
        came_out(&r, &self.targets, out_s)
    }

    /// All causes by their share; `None` where the model cannot take the bake as set.
    pub fn ranked(&self) -> Option<Vec<Ranked>> {
        let as_set = ln_chance(self.said, &self.with(Cause::Ordinary, 0.0)?, &self.targets);
        let mut found = vec![Ranked::new(Cause::Ordinary, ORDINARY, 0.0)];
        let tried = |cause: Cause, levels: &[f64]| {
            levels
                .iter()
                .filter_map(|&level| {
                    let out = self.with(cause, level)?;
                    Some((level, ln_chance(self.said, &out, &self.targets) - as_set))
                })
                .collect::<Vec<_>>()
        };
        for (cause, prior, levels, _) in CHANGES {
            if !applies(*cause, &self.bake) {
                continue;
            }
            let prior = if *cause == Cause::Spent && self.spent {
                prior * SPENT_TIMES
            } else {
                *prior
            };
            let all = tried(*cause, levels);
            if !all.is_empty() {
                found.push(Ranked::over(*cause, prior, all.into_iter()));
            }
        }
        if !self.timed {
            for (cause, prior, levels) in OFF_NOTE {
                let all = tried(cause, levels);
                if !all.is_empty() {
                    found.push(Ranked::over(cause, prior, all.into_iter()));
                }
            }
        }
        Ranked::normalise(&mut found);
        Ranked::sort(&mut found);
        Some(found)
    }
}
