//! The two clocks: yeast making gas, enzymes and acid using up the gluten, over a temperature series.
//!
//! Scalars only; the series carries averages over the piece. Amounts in mmol CO2 per kg of flour, yeast in
//! % fresh equivalent, maturation in hours at 20 °C. Source: fermentation model, sections 6 and 7.

use super::recipe::Recipe;
use super::request::{DoughKind, Event, RiseRequest};
use super::responses::ResponseTable;
use super::ripeness::{Label, Ripeness, RipenessPart};
use super::series::{Series, SeriesStep};

// Yeast: gas mmol/(g·h) at 30 °C unsalted (textbook), growth 1/h and its ceiling (calibrated).
const YEAST_GAS: f64 = 3.6;
const YEAST_GROWTH: f64 = 0.38;
const YEAST_GROWN_BASE: f64 = 0.45;
const YEAST_GROWN_PER_DOSE: f64 = 0.07;
const GROWTH_LAG_H: f64 = 0.60;
// Leaven (calibrated): gas, growth, equivalent of a ripe leaven, its lag.
const LEAVEN_GAS: f64 = 4.0;
const LEAVEN_GROWTH: f64 = 0.30;
const LEAVEN_RIPE: f64 = 6.0;
const LEAVEN_LAG_H: f64 = 0.25;
const PREFERMENT_LAG_H: f64 = 0.05;
const SHORTEST_LAG_H: f64 = 0.03;
// Sugars (textbook order, assumed): free, from wholegrain, per % sucrose, half saturation, bound, release 1/h.
const SUGAR_FREE: f64 = 130.0;
const SUGAR_WHOLE: f64 = 60.0;
const SUGAR_ADDED: f64 = 113.0;
const SUGAR_HALF: f64 = 8.0;
const SUGAR_BOUND: f64 = 240.0;
const MALTOSE_RATE: f64 = 0.050;
/// Sugar counts as short where less than this share of what the yeast wants is made (assumed).
const STARVED_SHARE: f64 = 0.75;
// Acid index (assumed): of flour, of a ripe leaven, growth 1/h, its brake on gas, its push on maturation.
const ACID_FLOUR: f64 = 0.002;
const ACID_RIPE: f64 = 0.8;
const ACID_GROWTH: f64 = 0.40;
const ACID_ON_GAS: f64 = 0.45;
const ACID_ON_MATURATION: f64 = 0.8;
// Losses per hour: through the skin (×Q̄, at 250 g) and above the ceiling (calibrated and assumed).
const SKIN_LOSS: f64 = 0.015;
const SKIN_PIECE_KG: f64 = 0.25;
const BREAK_LOSS: f64 = 2.0;
const BREAK_WIDTH: f64 = 0.08;
/// Ripening: share of the gluten's hours to mature (calibrated).
pub(crate) const MATURE_SHARE: f64 = 0.08;
/// Share of the yeast that still works after the freezer (craft notes, section 4: a fifth to a third more is planned).
const FREEZING_LEAVES: f64 = 0.80;
/// Heat of fermentation, J per mmol CO2 (textbook ±25 %).
const HEAT_J: f64 = 48.0;

/// Everything that a run carries from step to step.
#[derive(Debug, Clone, PartialEq)]
pub struct State {
    /// Commercial yeast, yeast grown in this dough, leaven yeast; % fresh equivalent.
    pub yeast: f64,
    /// Yeast grown in this dough, % fresh equivalent.
    pub grown: f64,
    /// Yeast of a leaven, % fresh equivalent.
    pub leaven: f64,
    thermal_h: f64,
    /// Sugar that yeast can take, mmol per kg flour.
    pub sugar: f64,
    /// Sugar still bound, mmol per kg flour.
    pub bound_sugar: f64,
    /// CO2 made, mmol per kg flour.
    pub made: f64,
    /// CO2 held, free and dissolved.
    pub held: f64,
    /// CO2 held at the last shaping plus made since.
    pub piece: f64,
    /// Gas that the yeast would have made since the last shaping, had there been sugar.
    pub starved: f64,
    /// Maturation, hours at 20 °C.
    pub matured_h: f64,
    /// The same since the last shaping.
    pub matured_since_shaping_h: f64,
    /// Index of acid.
    pub acid: f64,
    /// So many folds.
    pub folds: u32,
    /// Its mean temperature, °C.
    pub mean_c: f64,
}

/// What a preferment hands over.
#[derive(Debug, Clone, PartialEq)]
pub struct HandOver {
    /// What it is.
    pub kind: DoughKind,
    /// Its flour of all flour, 0 to 1.
    pub flour_fraction: f64,
    /// How it ended.
    pub end: State,
    /// Its ripeness of gas alone.
    pub gas_ripeness: f64,
    /// How lively its leaven is; 1 is the book's.
    pub leaven_vigour: f64,
    /// CO2 that stays dissolved when it is broken up.
    pub dissolved: f64,
    /// Volume against just mixed.
    pub volume: f64,
}

/// One step's outcome, as the searches and pictures need it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RiseMoment {
    /// By gas, piece and maturation.
    pub ripeness: Ripeness,
    /// Against just mixed, before this step's losses.
    pub volume: f64,
    /// Volume above which cells break.
    pub ceiling: f64,
    /// Gluten reserve, 1 falling to 0 and below.
    pub reserve: f64,
    /// How it stands.
    pub label: Label,
    /// It is past by the gas that it wanted, not by what it made.
    pub is_starved: bool,
    /// Fermentation heat, W per kg dough.
    pub heat: f64,
}

/// A dough ready to run: recipe constants, start values, lag.
pub struct Kinetics {
    /// The dough as the equations need it.
    pub recipe: Recipe,
    /// How fast it works at a temperature.
    pub table: ResponseTable,
    /// Growth, and losses through the skin, against the book's.
    growth: f64,
    skin: f64,
    start: State,
    lag_h: f64,
    grown_most: f64,
    leaven_most: f64,
}

impl Kinetics {
    /// Prepares a run; `preferments` are the end states of the request's preferments.
    pub fn new(r: &RiseRequest, preferments: &[HandOver]) -> Kinetics {
        let departs = &r.departs;
        let recipe = Recipe::of(r);
        let dose = r.yeast_percent
            * r.yeast_form.fresh_equivalent()
            * r.yeast_vigour
            * departs.yeast.exp();
        let leaven_vigour = r.leaven_vigour * departs.leaven.exp();
        let mut s = State {
            yeast: dose,
            grown: 0.0,
            leaven: 0.0,
            thermal_h: 0.0,
            sugar: SUGAR_FREE
                + SUGAR_WHOLE * r.whole_grain_percent / 100.0
                + SUGAR_ADDED * r.sugar_percent,
            bound_sugar: SUGAR_BOUND,
            made: 0.0,
            held: 0.0,
            piece: 0.0,
            starved: 0.0,
            matured_h: 0.0,
            matured_since_shaping_h: 0.0,
            acid: ACID_FLOUR,
            folds: 0,
            mean_c: r.dough_c,
        };
        let mut lag = dose * r.yeast_form.lag_h();
        if r.leaven_fraction > 0.0 {
            let f = r.leaven_fraction;
            let x = LEAVEN_RIPE * f * leaven_vigour;
            s.leaven += x;
            s.acid += f * (ACID_RIPE - ACID_FLOUR);
            s.sugar -= 0.8 * SUGAR_FREE * f;
            s.bound_sugar -= 0.5 * SUGAR_BOUND * f;
            s.matured_h += 6.0 * f;
            lag += x * LEAVEN_LAG_H;
        }
        for p in preferments {
            let (f, e) = (p.flour_fraction, &p.end);
            let (mut leaven, mut acid) = (e.leaven, e.acid);
            if p.kind == DoughKind::Levain {
                // A built leaven hands over by its ripeness: its X counts gas, not cells.
                let ripe = p.gas_ripeness.min(1.0);
                leaven = leaven.max(LEAVEN_RIPE * p.leaven_vigour * ripe);
                acid = acid.max(ACID_RIPE * ripe);
            }
            s.yeast += f * e.yeast;
            s.leaven += f * leaven;
            s.grown += 0.5 * f * e.grown;
            s.acid += f * (acid - ACID_FLOUR);
            s.matured_h += f * e.matured_h;
            s.sugar += f * (e.sugar - SUGAR_FREE);
            s.bound_sugar += f * (e.bound_sugar - SUGAR_BOUND);
            s.held += 0.5 * f * p.dissolved;
            lag += f * (e.yeast + leaven) * PREFERMENT_LAG_H;
        }
        s.sugar = s.sugar.max(0.0);
        s.made = s.held;
        s.piece = s.held;
        Kinetics {
            lag_h: (lag / (s.yeast + s.leaven).max(1e-9)).max(SHORTEST_LAG_H),
            grown_most: YEAST_GROWN_BASE + YEAST_GROWN_PER_DOSE * dose,
            leaven_most: LEAVEN_RIPE * leaven_vigour,
            table: ResponseTable::departing(departs),
            growth: departs.growth.exp(),
            skin: departs.skin.exp(),
            recipe,
            start: s,
        }
    }

    /// Runs over the series; `see` is called after each step. Returns the state after the last step.
    pub fn run(
        &self,
        series: &Series,
        steps: usize,
        mut see: impl FnMut(usize, &State, RiseMoment),
    ) -> State {
        let mut s = self.start.clone();
        let mut capacity = self.recipe.capacity_h(0);
        let mut skin = 0.0;
        for (i, step) in series.steps[..steps].iter().enumerate() {
            let stage = &series.stages[step.stage];
            if step.first && step.stage > 0 && series.stages[step.stage - 1].is_frozen() {
                s.yeast *= FREEZING_LEAVES;
                s.leaven *= FREEZING_LEAVES;
            }
            if step.first && stage.event != Event::None {
                self.handle(&mut s, stage.event);
                capacity = self.recipe.capacity_h(s.folds);
            }
            if step.first {
                skin = self.skin * skin_of(stage.piece_g / 1000.0);
            }
            let moment = self.step(&mut s, step, skin, capacity);
            see(i, &s, moment);
        }
        s
    }

    /// What folding, balling or degassing does to the gas and the tension.
    fn handle(&self, s: &mut State, event: Event) {
        let lost = (1.0 - event.keeps()) * self.recipe.free_gas(s.held, s.mean_c);
        s.held -= lost;
        if event.shapes() {
            s.piece = s.held;
            s.starved = 0.0;
            s.matured_since_shaping_h = 0.0;
        } else {
            s.folds += 1;
            s.piece = s.held.max(s.piece - lost);
        }
    }

    fn step(&self, s: &mut State, step: &SeriesStep, skin: f64, capacity: f64) -> RiseMoment {
        let (r, y, dt) = (&self.recipe, &step.responses, step.hours);
        let thermal = s.thermal_h + y.gas * dt;
        let mid = 0.5 * (s.thermal_h + thermal);
        let active = awake(mid / self.lag_h);
        let growing = awake(mid / GROWTH_LAG_H);
        let fed = s.sugar / (s.sugar + SUGAR_HALF);
        let unsoured = 1.0 - ACID_ON_GAS * s.acid;

        let m = YEAST_GROWTH * self.growth * y.growth * r.f_salt * growing * fed * dt;
        let first = m * s.yeast * (1.0 - s.grown / self.grown_most).max(0.0);
        let grew = m
            * (s.yeast + first / 2.0)
            * (1.0 - (s.grown + first / 2.0) / self.grown_most).max(0.0);
        let m = LEAVEN_GROWTH * self.growth * y.leaven * r.f_salt * r.f_salt * active * fed * dt;
        let first = m * s.leaven * (1.0 - s.leaven / self.leaven_most).max(0.0);
        let leaven_grew = m
            * (s.leaven + first / 2.0)
            * (1.0 - (s.leaven + first / 2.0) / self.leaven_most).max(0.0);

        // What it would make with sugar enough; what it makes.
        let wanted = 10.0
            * r.f_gas
            * active
            * unsoured
            * (YEAST_GAS * y.gas * (s.yeast + grew / 2.0)
                + LEAVEN_GAS * r.f_salt * y.leaven * (s.leaven + leaven_grew / 2.0));
        let made = (wanted * fed * dt).min(s.sugar);
        let freed = MALTOSE_RATE * y.maturation * s.bound_sugar * dt;
        let soured = ACID_GROWTH * y.acid * r.f_salt * s.acid * (1.0 - s.acid) * dt;
        let matured = y.maturation * r.f_mature * (1.0 + ACID_ON_MATURATION * s.acid) * dt;

        s.thermal_h = thermal;
        s.yeast += grew;
        s.grown += grew;
        s.leaven += leaven_grew;
        s.sugar += freed - made;
        s.bound_sugar -= freed;
        s.acid = (s.acid + soured).min(1.0);
        s.matured_h += matured;
        s.matured_since_shaping_h += matured;
        s.made += made;
        s.piece += made;
        s.starved += (STARVED_SHARE * wanted * dt - made).max(0.0);
        s.mean_c = step.mean_c;

        // Retention: through the skin, and by broken cells above the ceiling.
        let reserve = 1.0 - s.matured_h / capacity;
        let free = r.free_of(s.held + made, step.dissolves);
        let volume = r.volume(free, s.mean_c);
        let ceiling = r.volume_ceiling(reserve);
        let over = BREAK_WIDTH * softplus((volume - ceiling) / BREAK_WIDTH);
        let loss = skin * y.maturation + BREAK_LOSS * over;
        s.held += made - free * lost_share(loss * dt);

        let ripeness = self.ripeness(s, capacity);
        let inflation = s.piece / r.c_dose;
        let label_if = |wanted| Label::of(r.kind, &ripeness, reserve, inflation, wanted);
        let label = label_if((s.piece + s.starved) / r.c_dose);
        RiseMoment {
            ripeness,
            volume,
            ceiling,
            reserve,
            is_starved: label.is_past() && s.starved > 0.0 && !label_if(inflation).is_past(),
            label,
            heat: made / dt / r.mass_ratio * HEAT_J / 3600.0,
        }
    }

    fn ripeness(&self, s: &State, capacity: f64) -> Ripeness {
        let r = &self.recipe;
        let mature = match r.kind {
            DoughKind::Dough => {
                (s.matured_h / (MATURE_SHARE * capacity)).min(s.matured_since_shaping_h / r.relax_h)
            }
            _ => RipenessPart::UNLIMITED,
        };
        Ripeness {
            dose: s.made / r.c_dose,
            piece: s.piece / r.c_piece,
            mature,
        }
    }

    /// What this run would hand over as a preferment.
    pub fn hand_over(
        &self,
        r: &RiseRequest,
        flour_fraction: f64,
        end: State,
        last: RiseMoment,
    ) -> HandOver {
        let free = self.recipe.free_gas(end.held, end.mean_c);
        HandOver {
            kind: r.kind,
            flour_fraction,
            gas_ripeness: last.ripeness.gas(),
            leaven_vigour: r.leaven_vigour * r.departs.leaven.exp(),
            dissolved: end.held - free,
            volume: last.volume,
            end,
        }
    }
}

/// What a piece of this weight loses through its skin, per hour and maturation rate.
fn skin_of(piece_kg: f64) -> f64 {
    SKIN_LOSS * (SKIN_PIECE_KG / piece_kg.max(0.05)).cbrt()
}

/// 1 − e^−x. From 37 on that is 1 to the last bit, and the exponential is spared: most steps of a run are there.
fn awake(x: f64) -> f64 {
    if x > 37.0 { 1.0 } else { 1.0 - (-x).exp() }
}

/// 1 − e^−x. Five terms of its series are exact to 1e-13 below 0.005, where the skin's loss of nearly every step lies.
fn lost_share(x: f64) -> f64 {
    if x < 0.005 {
        x * (1.0 - x * (0.5 - x * (1.0 / 6.0 - x * (1.0 / 24.0 - x / 120.0))))
    } else {
        1.0 - (-x).exp()
    }
}

/// ln(1 + e^z). Below −21 that is e^z to a billionth of it, and the logarithm is spared: a dough is there until it is nearly past.
fn softplus(z: f64) -> f64 {
    if z > 0.0 {
        z + (-z).exp().ln_1p()
    } else if z > -21.0 {
        z.exp().ln_1p()
    } else {
        z.exp()
    }
}
