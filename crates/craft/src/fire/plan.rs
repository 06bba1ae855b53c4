//! The plan of a fire: this piece in that oven, set so; what it comes to, and the programme for the bench.
//!
//! It joins what a maker decides (oven, setting, how it is turned) with the bake model, and fills the programme from the
//! race. Ranges are shown where the model says that its answer is steep (bake model, section 14).

use super::bake::{BakeCourse, BakeParts, follow};
use super::firing::short_floor;
use super::heat::Fineness;
use super::limits::longest_s;
use super::oven::{Oven, Setting};
use super::programme::{Cue, Programme, Turn, Turning, shape};
use super::race::{Race, Targets, race};
use super::setup::{Aim, BakeRequest, PanNow, Piece};
use super::turning::first_turn;
use crate::fact;
use crate::fact::{Fact, minutes, whole};
use crate::refusal::{Check, ValidationError};
use crate::units::{Celsius, Cm, Grams};
use serde::{Deserialize, Serialize};

/// What a fire is planned as.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct FirePlan {
    /// What kind of bake is looked for.
    pub aim: Aim,
    /// What counts as right; the aim's own when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub targets: Option<Targets>,
    /// What is baked.
    pub piece: Piece,
    /// In which oven.
    pub oven: Oven,
    /// As it is wanted at the launch.
    pub setting: Setting,
    /// The pan it lies in; none on the floor itself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pan: Option<PanNow>,
    /// Key of the way it is turned (`programmes.json`); found from the oven when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shape: Option<String>,
    /// The maker's own cues, which go before the shape's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turns: Option<Vec<Turn>>,
    /// How long it is on before the first one, 5 to 240 min, where that is less than it takes; charged when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub preheat_min: Option<f64>,
    /// A floor that was read instead of the planned one, °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor_read_c: Option<f64>,
    /// Of the kitchen, m.
    #[serde(default)]
    pub altitude_m: f64,
}

/// What it comes to.
#[derive(Debug, Clone)]
pub struct PlannedBake {
    /// What was asked of the bake model.
    pub request: BakeRequest,
    /// The bake, second by second.
    pub course: BakeCourse,
    /// What is ready when.
    pub race: Race,
    /// How it is turned, and when it is out.
    pub programme: Programme,
    /// The way it is turned.
    pub shape: &'static Turning,
    /// The one turn stands sooner than evenness asks: the side at the fire would be near its limit by then.
    pub turned_sooner: bool,
}

/// A cue that counts back is placed anew so often at most, and is near enough within so many seconds.
const MOST_REPLACED: u32 = 4;
const NEAR_END_S: f64 = 2.0;

impl FirePlan {
    /// Errors: what lies outside its range, at its field.
    pub fn check(&self) -> Result<(), ValidationError> {
        self.oven.check().map_err(|e| e.below("oven"))?;
        let mut c = Check::new();
        c.within("setting");
        self.oven.check_setting(&self.setting, &mut c);
        c.within("");
        if let Some(k) = &self.shape
            && shape(k).is_none()
        {
            c.refuse("shape", fact!("no-such-turning"));
        }
        if let Some(turns) = &self.turns {
            let ordered = turns.windows(2).all(|w| w[0].at_s < w[1].at_s);
            if !ordered || turns.first().is_some_and(|t| t.at_s == 0) || turns.len() > 20 {
                c.refuse("turns", fact!("turns-in-order"));
            }
        }
        if let Some(t) = &self.targets {
            t.check_into("targets.", &mut c);
        }
        if let Some(m) = self.preheat_min {
            c.range("preheat_min", fact!("f-preheating"), m, 5.0, 240.0, minutes);
        }
        c.done()?;
        self.bare_request().check()
    }

    /// The floor's cells after a preheat that is too short to charge it; a reading says more than that.
    fn short_floor(&self) -> Option<Vec<f64>> {
        let on_min = self.preheat_min.filter(|_| self.floor_read_c.is_none())?;
        short_floor(&self.oven, &self.setting, self.piece.dough_c, on_min)
    }

    /// The bake without turns and late cheese: what those are found from.
    fn bare_request(&self) -> BakeRequest {
        let mut oven = self.oven.now(&self.setting);
        if let Some(c) = self.floor_read_c {
            let by = c - oven.floor_c;
            oven.floor_c = c;
            // The core lags: a reading of the face moves it half as far.
            oven.core_c = Some(oven.core_c.unwrap_or(oven.floor_c - by) + 0.5 * by);
            oven.back_c = oven.back_c.map(|b| b.max(c));
        } else if let Some(cells) = self.short_floor() {
            oven.floor_c = cells[cells.len() - 1];
            oven.core_c = Some(cells[0]);
        }
        BakeRequest {
            aim: self.aim,
            piece: self.piece.clone(),
            until_s: longest_s(self.aim, &self.piece, &oven),
            oven,
            pan: self.pan.clone(),
            turns_s: vec![],
            quarter_turns_s: vec![],
            lift_s: None,
            cheese_at_s: 0.0,
            altitude_m: self.altitude_m,
        }
    }

    /// The way it is turned: as asked, or as this oven wants it.
    pub fn shape(&self) -> &'static Turning {
        let usual = if self.oven.side > 0.0 {
            if self.aim == Aim::Hot {
                "quarters"
            } else {
                "half"
            }
        } else if self.oven.kind == super::oven::OvenKind::Home || self.oven.kind.has_one_setting()
        {
            "half"
        } else {
            "still"
        };
        self.shape
            .as_deref()
            .and_then(shape)
            .or_else(|| shape(usual))
            .unwrap_or(&super::programme::shapes()[0])
    }

    /// What counts as right: the plan's own, else its aim's.
    pub fn targets(&self) -> Targets {
        self.targets.unwrap_or(self.aim.targets())
    }

    /// Computes it. A first run finds when it is done; turns, late cheese and the bare floor are placed by that, and a
    /// second run says what they do.
    ///
    /// Errors: every field outside its range.
    ///
    /// ```
    /// use craft::fire::{of_formula, oven};
    /// use craft::formula::{Formula, FormulaRequest, Scales, formulate};
    ///
    /// let formula = Formula::of_style(craft::style::by_key("home_round").unwrap());
    /// let asked = FormulaRequest { formula, scales: Scales::default(), doses: None };
    /// let weighed = formulate(&asked).unwrap();
    /// let steel = oven::for_style(&asked.formula.style);
    /// let portion = weighed.main_portion().unwrap();
    /// let at = (20.0, 0.0);
    /// let plan = of_formula::plan(&asked.formula, portion, steel, steel.usual(), None, at);
    /// let planned = plan.planned().unwrap();
    /// // Minutes, not seconds: and it is taken out while all of it is right.
    /// assert!(planned.race.best_s > 180.0);
    /// let window = planned.race.window.unwrap();
    /// assert!((window.from_s..=window.to_s).contains(&planned.race.best_s));
    /// ```
    pub fn planned(&self) -> Result<PlannedBake, ValidationError> {
        self.planned_at(Fineness::Usual)
    }

    /// How long a piece bakes that is opened to a share of its planned width, against the planned one, s: planned, then so.
    ///
    /// Errors: as [`FirePlan::planned`]; a disc that is too narrow for the bake model.
    pub fn bakes_opened_to(&self, size: f64) -> Result<(f64, f64), ValidationError> {
        let mut narrower = self.clone();
        narrower.piece.disc_mm *= size;
        Ok((self.planned()?.race.best_s, narrower.planned()?.race.best_s))
    }

    pub(crate) fn planned_at(&self, fineness: Fineness) -> Result<PlannedBake, ValidationError> {
        self.check()?;
        let targets = self.targets();
        let shape = self.shape();
        let mut r = self.bare_request();
        let cells = self.short_floor();
        let floor = cells.as_deref();
        // Both sides alike: how long it takes, turned well.
        let side = std::mem::take(&mut r.oven.side);
        let mut course = follow(&r, fineness, BakeParts::All, floor);
        let too_short = || ValidationError::one("until_s", fact!("bake-too-short"));
        let mut ran = race(&r, &course, &targets).ok_or_else(too_short)?;
        let (mut turns, turned_sooner) = self.placed(shape, &ran, &r, side, &targets);
        r.oven.side = side;
        let end = ran.best_s;
        let moved = self.apply(&mut r, &turns);
        if side > 0.0 || moved {
            course = follow(&r, fineness, BakeParts::All, floor);
            ran = race(&r, &course, &targets).ok_or_else(too_short)?;
        }
        // What counts back from the end moves the end: late cheese bakes otherwise.
        if moved && shape.counts_back() && self.turns.is_none() {
            // Sought is the end by which the cues are placed and at which it then is done: a secant.
            let (mut placed_by, mut off) = (end, ran.best_s - end);
            let mut next = ran.best_s;
            for _ in 0..MOST_REPLACED {
                if off.abs() <= NEAR_END_S {
                    break;
                }
                turns = shape.turns(next);
                self.apply(&mut r, &turns);
                course = follow(&r, fineness, BakeParts::All, floor);
                ran = race(&r, &course, &targets).ok_or_else(too_short)?;
                let now_off = ran.best_s - next;
                let slope = (now_off - off) / (next - placed_by);
                let step = if slope.abs() > 0.05 {
                    -now_off / slope
                } else {
                    now_off
                };
                (placed_by, off) = (next, now_off);
                next = (next + step).clamp(0.5 * ran.best_s, 2.0 * ran.best_s);
            }
        }
        let out = ran.best_s;
        turns.retain(|t| f64::from(t.at_s) < out);
        let programme = programme(&ran, turns, self.why(&r));
        Ok(PlannedBake {
            request: r,
            course,
            race: ran,
            programme,
            shape,
            turned_sooner,
        })
    }

    /// The cues at their seconds, and whether the one turn had to come sooner.
    fn placed(
        &self,
        shape: &Turning,
        ran: &Race,
        r: &BakeRequest,
        side: f64,
        targets: &Targets,
    ) -> (Vec<Turn>, bool) {
        if let Some(own) = &self.turns {
            return (own.clone(), false);
        }
        let mut sooner = false;
        let mut turns = shape.turns(ran.best_s);
        // The one turn of a fire at one side is found, not assumed.
        if side > 0.0
            && let [only] = turns.as_mut_slice()
            && only.say == Cue::HalfTurn
        {
            let mut sided = r.clone();
            sided.oven.side = side;
            let found = first_turn(&sided, targets, ran.best_s);
            only.at_s = found.at_s.round() as u32;
            sooner = found.sooner;
        }
        (turns, sooner)
    }

    /// Puts the cues into the request; whether anything but turns changed.
    fn apply(&self, r: &mut BakeRequest, turns: &[Turn]) -> bool {
        let of = |cue: Cue| {
            turns
                .iter()
                .filter(move |t| t.say == cue)
                .map(|t| f64::from(t.at_s))
        };
        r.turns_s = of(Cue::HalfTurn).collect();
        r.quarter_turns_s = of(Cue::QuarterTurn).collect();
        if r.pan.is_some() {
            r.lift_s = of(Cue::OntoSteel).next();
        }
        if r.piece.cheese_g > 0.0 {
            r.cheese_at_s = of(Cue::CheeseOn).next().unwrap_or(0.0);
        }
        r.lift_s.is_some() || r.cheese_at_s > 0.0
    }

    /// Where the figures come from, in one line.
    fn why(&self, r: &BakeRequest) -> Fact {
        let oven = self.oven.name.as_str();
        let (floor, dome) = (
            Celsius(whole(r.oven.floor_c)),
            Celsius(whole(r.oven.dome_c)),
        );
        let (ball, disc) = (
            Grams(whole(r.piece.ball_g)),
            Cm(whole(r.piece.disc_mm / 10.0)),
        );
        if self.oven.kind.has_one_setting() {
            fact!(
                "plan-why-set",
                oven = oven,
                floor = floor,
                dome = dome,
                ball = ball,
                disc = disc
            )
        } else {
            fact!(
                "plan-why-dome",
                oven = oven,
                floor = floor,
                dome = dome,
                ball = ball,
                disc = disc
            )
        }
    }

    /// The floor temperatures with which this bake comes out near its aim, °C: the band that a thermometer must show.
    /// At its ends the base has just come right, or stands in the middle of its range, at the same bake time, or as far as
    /// the floor that is planned when it is right there; `None` when the floor cannot be chosen.
    pub fn floor_band(&self, ran: &Race) -> Option<(f64, f64)> {
        let (lo, hi) = self.targets().base;
        let base_at = |floor: f64| {
            let mut x = self.clone();
            (x.floor_read_c, x.preheat_min) = (None, None);
            let mut r = x.bare_request();
            r.oven.core_c = r.oven.core_c.map(|c| c + floor - r.oven.floor_c);
            r.oven.back_c = r.oven.back_c.map(|c| c + floor - r.oven.floor_c);
            r.oven.floor_c = floor;
            r.until_s = ran.best_s.max(10.0);
            follow(&r, Fineness::Draft, BakeParts::Centre, None)
                .moments
                .last()
                .map_or(0.0, |m| m.base)
        };
        let find = |aim: f64| {
            let (mut low, mut high) = (150.0, 540.0);
            for _ in 0..8 {
                let mid = 0.5 * (low + high);
                if base_at(mid) < aim {
                    low = mid
                } else {
                    high = mid
                }
            }
            0.5 * (low + high)
        };
        if super::oven::is_tray(&self.setting) {
            return None;
        }
        let to5 = |c: f64| (c / 5.0).round() * 5.0;
        let share = |s: f64| lo + s * (hi - lo);
        let (mut from, mut to) = (to5(find(share(0.05))), to5(find(share(0.55))));
        // The floor that is planned belongs to its own band, wherever its base is right.
        let charged = FirePlan {
            floor_read_c: None,
            preheat_min: None,
            ..self.clone()
        };
        let planned = charged.bare_request().oven.floor_c;
        if (lo..=hi).contains(&base_at(planned)) {
            (from, to) = (from.min(to5(planned)), to.max(to5(planned)));
        }
        (to > from).then_some((from, to))
    }
}

/// The programme that a race makes.
fn programme(ran: &Race, turns: Vec<Turn>, why: Fact) -> Programme {
    let out = ran.best_s;
    let (from, to) = ran
        .window
        .map_or((0.95 * out, 1.05 * out), |w| (w.from_s, w.to_s));
    // What burns is the colour; a topping that gets dry does not char.
    let chars = ran
        .lanes
        .iter()
        .filter_map(|l| l.spoils_s)
        .filter(|s| *s > out)
        .fold(f64::INFINITY, f64::min);
    let from_s = (from.floor() as u32).clamp(20, 7000);
    let out_s = (out.round() as u32).clamp(from_s, 7100);
    let to_s = (to.ceil() as u32).clamp(out_s, 7150);
    let chars_s = if chars.is_finite() {
        (chars.ceil() as u32).clamp(to_s + 1, 7200)
    } else {
        (f64::from(to_s) * 1.15).ceil() as u32
    };
    Programme {
        turns,
        out_s,
        from_s,
        to_s,
        chars_s: chars_s.min(7200),
        why,
    }
}
