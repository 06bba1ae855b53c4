//! What is asked of the rise model: one dough, its leavening and the stages it goes through.
//!
//! Source: fermentation model, section 2. Percentages are baker's percentages on all flour. Every
//! input has an accepted range; outside it the request is refused with a sentence for its field.

use super::departure::Departure;
use crate::fact;
use crate::fact::{Value, hours};
use crate::leaven::YeastForm;
use crate::refusal::{Check, ValidationError};
use crate::units::Celsius;
use serde::{Deserialize, Serialize};

/// What kind of dough it is: its full-rise target and lag follow from it.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum DoughKind {
    /// The dough itself.
    #[default]
    Dough,
    /// A poolish.
    Poolish,
    /// A biga.
    Biga,
    /// A levain.
    Levain,
}

impl DoughKind {
    /// Volume, against just mixed, at which this kind is ready as intended (calibrated).
    pub fn target_volume(self) -> f64 {
        match self {
            DoughKind::Dough => 2.25,
            DoughKind::Poolish => 1.65,
            DoughKind::Biga => 2.9,
            DoughKind::Levain => 2.15,
        }
    }
}

/// How a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum DoughShape {
    /// A ball, or balls.
    Ball,
    /// All in one.
    Bulk,
    /// Flat in a pan; needs `thickness_mm`.
    Slab,
}

/// What a piece lies in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Container {
    /// Nothing around it.
    Open,
    /// A tub with a lid.
    Tub,
    /// A box of balls with a lid.
    Box,
    /// A box within a stack.
    Stack,
    /// A bag.
    Bag,
}

/// How the air around the container moves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Air {
    /// Still, as in a room.
    Room,
    /// Moved, as in a fridge.
    Fridge,
    /// A fridge with a fan.
    Fan,
    /// Frozen: both clocks stand still; `place_c` is −30 to −5 °C.
    Freezer,
}

/// What is done to the dough at the start of a stage.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
pub enum Event {
    /// Nothing.
    #[default]
    None,
    /// A fold.
    Fold,
    /// Divided and balled.
    Ball,
    /// Balled once more.
    Reball,
    /// Pressed flat.
    Degas,
    /// Laid into its pan.
    Pan,
}

impl Event {
    /// Share of the free gas that survives it (assumed).
    pub fn keeps(self) -> f64 {
        match self {
            Event::None => 1.0,
            Event::Fold => 0.75,
            Event::Pan => 0.60,
            Event::Ball => 0.30,
            Event::Reball => 0.25,
            Event::Degas => 0.20,
        }
    }
    /// Whether the piece is shaped anew, so that its relaxing starts again.
    pub fn shapes(self) -> bool {
        !matches!(self, Event::None | Event::Fold)
    }
    /// Whether it mixes the dough so that its temperature evens out.
    pub fn evens_out(self) -> bool {
        matches!(self, Event::Ball | Event::Reball | Event::Degas)
    }
}

/// One stage: so many hours, in one piece size and one place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Stage {
    /// 0 to 240 h.
    pub hours: f64,
    /// Weight of one piece, 20 to 60,000 g.
    pub piece_g: f64,
    /// As what it lies there.
    pub shape: DoughShape,
    /// Thickness of a slab, 4 to 150 mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thickness_mm: Option<f64>,
    /// In what.
    pub container: Container,
    /// How the air takes and gives heat.
    pub air: Air,
    /// Constant temperature of the place, −2 to 42 °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place_c: Option<f64>,
    /// 24 hourly temperatures from midnight instead of `place_c`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place_profile_c: Option<Vec<f64>>,
    /// How far off the place may be, K, where it is known better or worse than others of its kind.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[serde(rename = "place_off_c")]
    pub place_off_k: Option<f64>,
    /// What is done at the start of the stage.
    #[serde(default)]
    pub event: Event,
    /// The dough's temperature when the stage begins, where it was measured, 0 to 40 °C; else it follows from before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub starts_at_c: Option<f64>,
}

impl Stage {
    /// Whether both clocks stand still in it.
    pub fn is_frozen(&self) -> bool {
        self.air == Air::Freezer
    }
    /// Temperature of the place at a clock hour (24 hourly values, linear between, wrapping), °C.
    pub fn place_at(&self, clock_h: f64) -> f64 {
        match (&self.place_profile_c, self.place_c) {
            (Some(p), _) => {
                let h = clock_h.rem_euclid(24.0);
                let i = (h as usize).min(23);
                let f = h - i as f64;
                p[i] + f * (p[(i + 1) % 24] - p[i])
            }
            (None, Some(c)) => c,
            (None, None) => unreachable!("checked: a stage has a place temperature"),
        }
    }
    /// Mean temperature of the place over a day, °C.
    pub fn mean_place_c(&self) -> f64 {
        match &self.place_profile_c {
            Some(p) => p.iter().sum::<f64>() / p.len() as f64,
            None => self.place_at(0.0),
        }
    }
}

/// A preferment and its share of the flour. Its own recipe must not hold another one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct RisePreferment {
    /// Flour in it / all flour, 0 to 1.
    pub flour_fraction: f64,
    /// The preferment as a dough of its own.
    pub recipe: RiseRequest,
}

/// A dough and its stages.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct RiseRequest {
    /// What it is.
    #[serde(default)]
    pub kind: DoughKind,
    /// Water, 40 to 130 %.
    pub hydration_percent: f64,
    /// 0 to 5 %.
    #[serde(default)]
    pub salt_percent: f64,
    /// Sucrose or its equivalent, 0 to 20 %.
    #[serde(default)]
    pub sugar_percent: f64,
    /// 0 to 20 %.
    #[serde(default)]
    pub oil_percent: f64,
    /// Wholegrain share of the flour, 0 to 100 %.
    #[serde(default)]
    pub whole_grain_percent: f64,
    /// Flour strength W (1e-4 J), 80 to 450.
    pub flour_w: f64,
    /// Yeast in its own form; at most 6 % in fresh equivalent. Ignored when yeast is solved for.
    #[serde(default)]
    pub yeast_percent: f64,
    /// The form of its yeast.
    #[serde(default = "instant")]
    pub yeast_form: YeastForm,
    /// Age and storage of the yeast, 0.2 to 1.5.
    #[serde(default = "one")]
    pub yeast_vigour: f64,
    /// Flour inside ripe leaven / all flour, 0 to 0.6.
    #[serde(default)]
    pub leaven_fraction: f64,
    /// 0.2 to 1.5.
    #[serde(default = "one")]
    pub leaven_vigour: f64,
    /// At most 8, one level deep.
    #[serde(default)]
    pub preferments: Vec<RisePreferment>,
    /// Dough temperature leaving the mixer, 0 to 40 °C.
    pub dough_c: f64,
    /// −400 to 4500 m.
    #[serde(default)]
    pub altitude_m: f64,
    /// Volume wanted at the bake against just mixed, 1.4 to 3.5; by kind when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub target_volume: Option<f64>,
    /// Local clock hour at the end of mixing, 0 to 24; matters with hourly place temperatures.
    #[serde(default = "eight")]
    pub start_clock_h: f64,
    /// At least one; 0.25 to 336 h in all.
    pub stages: Vec<Stage>,
    /// How this kitchen departs from the book; learned, and nothing by the book.
    #[serde(default, skip_serializing_if = "Departure::is_book")]
    pub departs: Departure,
}

fn instant() -> YeastForm {
    YeastForm::Instant
}
fn one() -> f64 {
    1.0
}
fn eight() -> f64 {
    8.0
}

impl RiseRequest {
    /// Checks every input; `needs_leavening` is false where the yeast is what is solved for.
    pub fn check(&self, needs_leavening: bool) -> Result<(), ValidationError> {
        let mut check = Check::new();
        self.check_into(&mut check, "", needs_leavening, true);
        check.done()
    }

    fn check_into(&self, c: &mut Check, path: &str, needs_leavening: bool, may_nest: bool) {
        c.within(path);
        c.percentages(
            self.hydration_percent,
            self.salt_percent,
            self.sugar_percent,
            self.oil_percent,
        );
        c.range(
            "whole_grain_percent",
            fact!("f-wholegrain-share"),
            self.whole_grain_percent,
            0.0,
            100.0,
            Value::Percent,
        );
        c.range(
            "flour_w",
            fact!("f-flour-strength-w"),
            self.flour_w,
            80.0,
            450.0,
            Value::Number,
        );
        c.yeast(self.yeast_form, self.yeast_percent);
        c.range(
            "yeast_vigour",
            fact!("f-yeast-vigour"),
            self.yeast_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        c.range(
            "leaven_fraction",
            fact!("f-flour-in-the-leaven"),
            self.leaven_fraction,
            0.0,
            0.6,
            Value::Number,
        );
        c.range(
            "leaven_vigour",
            fact!("f-leaven-vigour"),
            self.leaven_vigour,
            0.2,
            1.5,
            Value::Number,
        );
        c.range(
            "dough_c",
            fact!("f-dough-temperature"),
            self.dough_c,
            0.0,
            40.0,
            Value::Celsius,
        );
        c.range(
            "altitude_m",
            fact!("f-altitude"),
            self.altitude_m,
            -400.0,
            4500.0,
            Value::Metres,
        );
        c.range(
            "start_clock_h",
            fact!("f-clock-hour"),
            self.start_clock_h,
            0.0,
            24.0,
            hours,
        );
        if !self.departs.is_sound() {
            c.refuse("departs", fact!("departs-too-far"));
        }
        if let Some(v) = self.target_volume {
            c.range(
                "target_volume",
                fact!("f-volume-at-the-bake"),
                v,
                1.4,
                3.5,
                Value::Number,
            );
        }
        if needs_leavening
            && self.yeast_percent == 0.0
            && self.leaven_fraction == 0.0
            && self.preferments.is_empty()
        {
            c.refuse("yeast_percent", fact!("nothing-raises-dough"));
        }
        self.check_preferments(c, path, may_nest);
        self.check_stages(c, path);
        c.within("");
    }

    fn check_preferments(&self, c: &mut Check, path: &str, may_nest: bool) {
        if self.preferments.is_empty() {
            return;
        }
        if !may_nest {
            c.refuse("preferments", fact!("preferment-in-preferment"));
            return;
        }
        if self.preferments.len() > 8 {
            c.refuse("preferments", fact!("preferments-8"));
            return;
        }
        let sum: f64 = self.preferments.iter().map(|p| p.flour_fraction).sum();
        if sum + self.leaven_fraction > 1.0 + 1e-9 {
            c.refuse("preferments", fact!("preferments-more-flour"));
        }
        for (i, p) in self.preferments.iter().enumerate() {
            let here = join(path, &format!("preferments[{i}]"));
            c.within(&here);
            c.range(
                "flour_fraction",
                fact!("f-flour-in-the-preferment"),
                p.flour_fraction,
                0.0,
                1.0,
                Value::Number,
            );
            p.recipe.check_into(c, &join(&here, "recipe"), true, false);
            c.within(path);
        }
    }

    fn check_stages(&self, c: &mut Check, path: &str) {
        c.within(path);
        if self.stages.is_empty() || self.stages.len() > 64 {
            c.refuse("stages", fact!("stages-64"));
            return;
        }
        let whole: f64 = self.stages.iter().map(|s| s.hours).sum();
        c.range(
            "stages",
            fact!("f-all-stages-together"),
            whole,
            0.25,
            336.0,
            hours,
        );
        for (i, s) in self.stages.iter().enumerate() {
            c.within(&join(path, &format!("stages[{i}]")));
            c.range("hours", fact!("f-hours"), s.hours, 0.0, 240.0, hours);
            c.range(
                "piece_g",
                fact!("f-piece-weight"),
                s.piece_g,
                20.0,
                60_000.0,
                Value::Grams,
            );
            match (s.shape, s.thickness_mm) {
                (DoughShape::Slab, None) => c.refuse(
                    "thickness_mm",
                    fact!("slab-thickness", range = (fact::Mm(4.0), fact::Mm(150.0))),
                ),
                (DoughShape::Slab, Some(t)) => c.range(
                    "thickness_mm",
                    fact!("f-thickness"),
                    t,
                    4.0,
                    150.0,
                    Value::Mm,
                ),
                _ => {}
            }
            if let Some(off) = s.place_off_k {
                c.range(
                    "place_off_c",
                    fact!("f-how-far-off"),
                    off,
                    0.0,
                    10.0,
                    Value::Kelvin,
                );
            }
            if let Some(t) = s.starts_at_c {
                c.range(
                    "starts_at_c",
                    fact!("f-dough-temperature"),
                    t,
                    0.0,
                    40.0,
                    Value::Celsius,
                );
            }
            let (low, high) = if s.is_frozen() {
                (-30.0, -5.0)
            } else {
                (-2.0, 42.0)
            };
            match (&s.place_profile_c, s.place_c) {
                (Some(p), _) if p.len() != 24 => {
                    c.refuse("place_profile_c", fact!("hourly-profile"))
                }
                (Some(p), _) => {
                    for v in p {
                        c.range(
                            "place_profile_c",
                            fact!("f-place"),
                            *v,
                            low,
                            high,
                            Value::Celsius,
                        );
                    }
                }
                (None, Some(t)) => {
                    c.range("place_c", fact!("f-place"), t, low, high, Value::Celsius)
                }
                (None, None) => c.refuse(
                    "place_c",
                    fact!("say-how-warm", range = (Celsius(-2.0), Celsius(42.0))),
                ),
            }
        }
        c.within(path);
    }

    /// The stages that last, with the event of a dropped zero-hour stage moved to the next one.
    pub fn lasting_stages(&self) -> Vec<Stage> {
        let mut out: Vec<Stage> = Vec::new();
        let mut carried = Event::None;
        for stage in &self.stages {
            let event = if stage.event == Event::None {
                carried
            } else {
                stage.event
            };
            if stage.hours <= 0.0 {
                carried = event;
            } else {
                carried = Event::None;
                out.push(Stage {
                    event,
                    ..stage.clone()
                });
            }
        }
        out
    }

    /// Hours from the mixer to the end of the last stage.
    pub fn total_hours(&self) -> f64 {
        self.stages.iter().map(|s| s.hours).sum()
    }
}

fn join(path: &str, part: &str) -> String {
    if path.is_empty() {
        part.into()
    } else {
        format!("{path}.{part}")
    }
}

#[cfg(test)]
pub(crate) mod tests;
