//! How a dough is divided and boxed, as it was said or as it was planned: everything of it that needs no run of the models.

use super::SheetResult;
use crate::fact;
use crate::fact::{Value, whole};
use crate::fire::FireChoice;
use crate::fire::service::spots_pace_s;
use crate::fire::work::Work;
use crate::formula::Portion;
use crate::refusal::ValidationError;
use crate::rise::DoughKind;
use crate::shape::run::{BoxKind, ShapeRun};
use crate::shape::{BoxGrid, BoxedBall, DividePlan, LaidBoxes, lay_boxes, tray_oil_g};

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
    /// From one pizza to the next where nobody timed it, s: by the spots of the oven or by the hands, whichever is slower. The
    /// pauses that a floor takes are Fire's to tell.
    pub fn usual_pace_s(&self, fire: Option<&FireChoice>, work: &Work) -> f64 {
        let (spots, hands) = fire.map_or((1, 1), |f| (f.plan.oven.spots, f.hands));
        let programme = fire.map_or(&self.programme, |f| &f.programme);
        let by_oven = spots_pace_s(f64::from(programme.out_s), spots);
        by_oven.max(work.of_pizza_s(programme.turns.len()) / f64::from(hands.max(1)))
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

/// Oil for each tray, g; a piece more than planned goes into a tray like the last.
fn oil(planned: &SheetResult, count: u32) -> Vec<f64> {
    let trays = planned.formula.portions.iter().filter(|p| p.pan.is_some());
    let mut all: Vec<f64> = trays
        .flat_map(|p| std::iter::repeat_n(tray_oil_g(p.area_cm2), p.count as usize))
        .collect();
    if let Some(last) = all.last().copied() {
        all.resize(count as usize, last);
    }
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
    /// Oil for the tray of each, g; nothing where they lie in boxes.
    pub oil_g: Vec<f64>,
    /// What they lie in; none where they go into pans.
    pub boxed: Option<(BoxKind, BoxGrid)>,
    /// Where they lie.
    pub laid: LaidBoxes,
}

/// A piece of more or less than this share of what is wanted is a slip of the keys.
const PIECE_SHARES: (f64, f64) = (0.15, 3.0);

impl Dividing {
    /// Whether a piece can weigh so much, g: the `nth`, from 0.
    ///
    /// Errors: the reason, with what was probably meant where a digit is too many.
    pub fn piece(&self, nth: usize, g: f64) -> Result<(), ValidationError> {
        let wanted = self.wanted_g.get(nth).copied().unwrap_or(self.ball_g);
        let share = g / wanted.max(1.0);
        if (PIECE_SHARES.0..=PIECE_SHARES.1).contains(&share) {
            return Ok(());
        }
        let likely = |m: &f64| (0.7..=1.4).contains(&(m / wanted.max(1.0)));
        let meant = [g / 10.0, 10.0 * g].into_iter().find(likely);
        let wanted = Value::Grams(whole(wanted));
        let g = Value::Grams(whole(g));
        let says = match meant {
            Some(m) => fact!(
                "piece-a-slip",
                g = g,
                ball = wanted,
                meant = Value::Grams(whole(m))
            ),
            None => fact!("piece-unlike", g = g, ball = wanted),
        };
        Err(ValidationError::one("g", says))
    }
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
        oil_g: oil(planned, count),
        boxed: (!in_pans).then_some((kind, grid)),
        laid,
    }
}
