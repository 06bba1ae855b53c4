//! Boxes: how wide a ball is now and when it is ripe, how many lie in a box, and which ball lies in which.
//!
//! A ball is a flattened spheroid. How flat is assumed, calibrated to 9 cm fresh and 13 cm ripe of 250 g; gaps are practice.
//! Source: mixing and shaping, section 9.

use crate::fact;
use crate::fact::Value;
use crate::refusal::{Check, ValidationError};
use crate::units::Cm;
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;

/// Between fresh balls that are to stay apart, cm.
pub const ROOMY_GAP_CM: f64 = 7.0;

/// How high a fresh ball is for its width.
const FRESH_FLATNESS: f64 = 0.60;
/// Dough, kg/m³ without gas.
const DENSITY: f64 = 1100.0;
/// From this gap on balls are to stay apart when they are ripe, cm.
const ROOMY_CM: f64 = 7.0;
/// Closer ones may lie nearer the wall by so much on each side, cm.
const NEAR_THE_WALL_CM: f64 = 1.5;

/// Share of a round floor that balls cover, against the square of their pitch.
const ROUND_COVER: f64 = 0.7;

/// Balls that are to be boxed.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct BoxSpace {
    /// One of them, 20 to 3,000 g.
    pub ball_g: f64,
    /// How large it grows, 1 to 3.5 times.
    pub volume: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
    /// Between fresh ones, 0.5 to 15 cm: 7 roomy, 4 usual in service, 2 tight.
    pub gap_cm: f64,
    /// The box inside, 10 to 200 cm.
    pub length_cm: f64,
    /// The box inside, 10 to 200 cm.
    pub width_cm: f64,
    /// It is round, and as long as it is wide.
    #[serde(default)]
    pub round: bool,
}

/// A ball that lies in a box.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BoxedBall {
    /// g.
    pub ball_g: f64,
    /// Times its first volume when it is ripe.
    pub volume: f64,
    /// Water, % of the flour.
    pub hydration_percent: f64,
}

/// How balls lie in one box.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct BoxGrid {
    /// A fresh ball, cm.
    pub fresh_cm: f64,
    /// A ripe one, cm.
    pub risen_cm: f64,
    /// How high a ripe one stands, cm; the box wants a centimetre more inside.
    pub height_cm: f64,
    /// From middle to middle, cm.
    pub pitch_cm: f64,
    /// In straight rows: along the length, along the width.
    pub rows: (u32, u32),
    /// So many in straight rows: the count that is used.
    pub grid: u32,
    /// So many in rows that are set off by half; worth it where it is more.
    pub offset: u32,
}

/// The width of a ball, cm.
fn ball_cm(ball_g: f64, volume: f64, flatness: f64) -> f64 {
    100.0 * (6.0 * volume * ball_g / 1000.0 / (DENSITY * PI * flatness)).cbrt()
}

impl BoxSpace {
    /// How flat a ripe ball is: wet ones run.
    fn risen_flatness(&self) -> f64 {
        (0.45 - 0.008 * (self.hydration_percent - 62.0)).clamp(0.28, 0.50)
    }

    /// Refuses what is no box or no ball.
    ///
    /// Errors: [`ValidationError`] with every field outside its range, and where no ball fits the box.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.range(
            "ball_g",
            fact!("f-piece"),
            self.ball_g,
            20.0,
            3_000.0,
            Value::Grams,
        );
        c.range(
            "volume",
            fact!("f-box-volume"),
            self.volume,
            1.0,
            3.5,
            Value::Number,
        );
        c.range(
            "gap_cm",
            fact!("f-box-gap"),
            self.gap_cm,
            0.5,
            15.0,
            Value::Cm,
        );
        c.range(
            "length_cm",
            fact!("f-box-side"),
            self.length_cm,
            10.0,
            200.0,
            Value::Cm,
        );
        c.range(
            "width_cm",
            fact!("f-box-side"),
            self.width_cm,
            10.0,
            200.0,
            Value::Cm,
        );
        let h = self.hydration_percent;
        c.range(
            "hydration_percent",
            fact!("f-water"),
            h,
            40.0,
            130.0,
            Value::Percent,
        );
        if c.is_clean() && self.grid().grid == 0 {
            let no = fact!(
                "box-no-ball-fits",
                ball = crate::units::Grams(self.ball_g),
                length = Cm(self.length_cm),
                width = Cm(self.width_cm),
                gap = Cm(self.gap_cm)
            );
            c.refuse("length_cm", no);
        }
        c.done()
    }

    /// How balls lie in it.
    pub fn grid(&self) -> BoxGrid {
        let fresh_cm = ball_cm(self.ball_g, 1.0, FRESH_FLATNESS);
        let flatness = self.risen_flatness();
        let risen_cm = ball_cm(self.ball_g, self.volume, flatness);
        let roomy = self.gap_cm >= ROOMY_CM;
        let mut pitch_cm = fresh_cm + self.gap_cm;
        if roomy {
            pitch_cm = pitch_cm.max(risen_cm + 1.0);
        }
        let near = if roomy { 0.0 } else { NEAR_THE_WALL_CM };
        let (u, v) = (self.length_cm + 2.0 * near, self.width_cm + 2.0 * near);
        let along = |cm: f64| (cm / pitch_cm + 1e-9).floor().max(0.0) as u32;
        let rows = (along(u), along(v));
        if self.round {
            // Of a round floor balls cover some seven tenths of the square on their pitch (practice).
            let grid = (ROUND_COVER * (u.min(v) / pitch_cm).powi(2) + 1e-9).floor() as u32;
            let grid = grid.max(u32::from(rows.0 > 0));
            return BoxGrid {
                fresh_cm,
                risen_cm,
                height_cm: flatness * risen_cm,
                pitch_cm,
                rows: (grid, u32::from(grid > 0)),
                grid,
                offset: grid,
            };
        }
        BoxGrid {
            fresh_cm,
            risen_cm,
            height_cm: flatness * risen_cm,
            pitch_cm,
            rows,
            grid: rows.0 * rows.1,
            offset: set_off(u, v, pitch_cm).max(set_off(v, u, pitch_cm)),
        }
    }
}

/// Balls in rows along `u` that are set off by half a pitch.
fn set_off(u: f64, v: f64, pitch: f64) -> u32 {
    if v < pitch || u < pitch {
        return 0;
    }
    let rows = 1 + ((v - pitch) / (0.866 * pitch) + 1e-9).floor() as u32;
    let even = (u / pitch + 1e-9).floor() as u32;
    let odd = ((u - pitch / 2.0) / pitch + 1e-9).floor().max(0.0) as u32;
    (0..rows).map(|r| if r % 2 == 0 { even } else { odd }).sum()
}

/// Balls in their boxes, in the order of making.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct LaidBoxes {
    /// How many lie in each box, in the order of filling and of use.
    pub balls: Vec<u32>,
    /// How much older the first ball is than the last, min.
    pub age_spread_min: f64,
    /// How long one takes, s.
    pub s_per_ball: f64,
}

impl LaidBoxes {
    /// The box of a ball, both from 0.
    pub fn box_of(&self, ball: u32) -> Option<usize> {
        let mut before = 0;
        self.balls.iter().position(|n| {
            before += n;
            ball < before
        })
    }
    /// The first ball of a box, from 0.
    pub fn first_of(&self, index: usize) -> u32 {
        self.balls.iter().take(index).sum()
    }
    /// How much later than the first ball the first one of a box is made, min.
    pub fn made_min(&self, index: usize) -> f64 {
        f64::from(self.first_of(index)) * self.s_per_ball / 60.0
    }
}

/// So many balls over boxes that take `per_box` each: evenly, the fuller ones first; none where none fits.
pub fn lay_boxes(count: u32, per_box: u32, s_per_ball: f64) -> Option<LaidBoxes> {
    if per_box == 0 || count == 0 {
        return None;
    }
    let boxes = count.div_ceil(per_box);
    let (each, more) = (count / boxes, count % boxes);
    Some(LaidBoxes {
        balls: (0..boxes).map(|i| each + u32::from(i < more)).collect(),
        age_spread_min: f64::from(count - 1) * s_per_ball / 60.0,
        s_per_ball,
    })
}
