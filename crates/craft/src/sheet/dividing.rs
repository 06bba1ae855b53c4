//! How a dough is divided and boxed, as it was said or as it was planned: everything of it that needs no run of the models.

use super::SheetResult;
use crate::formula::Portion;
use crate::refusal::ValidationError;
use crate::rise::DoughKind;
use crate::shape::run::{BoxKind, ShapeRun};
use crate::shape::{BoxGrid, BoxedBall, DividePlan, LaidBoxes, lay_boxes};

/// How long a ball takes where nobody was timed, and the limits of what counts, s.
const S_PER_BALL: (f64, f64, f64) = (25.0, 10.0, 90.0);
impl SheetResult {
    /// The ball that lies in a box, as it will be when it is ripe.
    pub fn boxed_ball(&self) -> BoxedBall {
        let pieces = f64::from(self.formula.pieces.max(1));
        let sum: f64 = self.formula.portions.iter().map(weight).sum();
        BoxedBall {
            ball_g: (sum / pieces).clamp(20.0, 3000.0),
            volume: DoughKind::Dough.target_volume(),
            hydration_percent: self.formula.true_hydration_percent.clamp(40.0, 130.0),
        }
    }
    /// From one pizza to the next where nobody timed it, s.
    pub fn usual_pace_s(&self) -> f64 {
        f64::from(self.programme.out_s) + 60.0
    }
}

fn weight(p: &Portion) -> f64 {
    f64::from(p.count) * p.piece_g
}

/// What each piece is to weigh when all together weigh so much otherwise than planned, g.
fn wanted(planned: &SheetResult, count: u32, ball_g: f64, mean_g: f64) -> Vec<f64> {
    let each = planned.formula.portions.iter();
    let each = each.flat_map(|p| std::iter::repeat_n(p.piece_g, p.count as usize));
    let mut all: Vec<f64> = each.map(|g| g * ball_g / mean_g).collect();
    all.resize(count as usize, ball_g);
    all
}

/// Seconds from ball to ball: the median of what was tapped.
fn s_per_ball(run: &ShapeRun) -> f64 {
    let (usual, low, high) = S_PER_BALL;
    let apart = run.pieces.windows(2);
    let mut apart: Vec<f64> = apart
        .map(|p| p[1].at.duration_since(p[0].at).as_secs_f64())
        .filter(|s| *s > 1.0)
        .collect();
    if apart.len() < 3 {
        return usual;
    }
    apart.sort_by(f64::total_cmp);
    apart[apart.len() / 2].clamp(low, high)
}

/// What a dough is divided into and lies in: everything that needs no run.
pub struct Dividing {
    /// Pieces, and their mean weight, g.
    pub count: u32,
    /// g.
    pub ball_g: f64,
    /// What each is to weigh, g.
    pub wanted_g: Vec<f64>,
    /// What they lie in; none where they go into pans.
    pub boxed: Option<(BoxKind, BoxGrid)>,
    /// Where they lie.
    pub laid: LaidBoxes,
}

impl Dividing {
    /// Whether the scale can say so of a dough of which so much went into the bowl, g.
    ///
    /// Errors: the reason: more than went in, or hardly more than half of it.
    pub fn weighs(&self, put_g: f64, weighed_g: f64) -> Result<(), ValidationError> {
        let plan = DividePlan {
            put_g,
            weighed_g,
            ball_g: self.ball_g.clamp(20.0, 3_000.0),
            count: self.count.clamp(1, 2_000),
            scale_g: 1.0,
        };
        plan.check()
    }
}

/// How a dough is divided as it was said, or as it was planned.
pub fn dividing(
    planned: &SheetResult,
    in_pans: bool,
    run: &ShapeRun,
    usual_box: &BoxKind,
) -> Dividing {
    let ball = planned.boxed_ball();
    let pieces = planned.formula.pieces.max(1);
    let (count, ball_g) = run.divided.unwrap_or((pieces, ball.ball_g));
    let kind = run.boxed.clone().unwrap_or_else(|| usual_box.clone());
    let grid = kind.space(BoxedBall { ball_g, ..ball }).grid();
    let per_box = if in_pans { 1 } else { grid.grid.max(1) };
    let pace = s_per_ball(run);
    let laid = lay_boxes(count.max(1), per_box, pace).unwrap_or(LaidBoxes {
        balls: vec![count.max(1)],
        age_spread_min: 0.0,
        s_per_ball: pace,
    });
    Dividing {
        count,
        ball_g,
        wanted_g: wanted(planned, count, ball_g, ball.ball_g),
        boxed: (!in_pans).then_some((kind, grid)),
        laid,
    }
}
