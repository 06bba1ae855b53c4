//! Doughs that were weighed whole and divided ball by ball on the house's scale, each ball into its box.

use super::{DemoWriter, minutes, uneven};
use anyhow::Result;
use craft::mix::Mixer;
use craft::shape::PressSign;
use craft::shape::ROOMY_GAP_CM;
use craft::shape::run::ShapeAct;
use craft::sheet::StepKind;
use jiff::Timestamp;
use store::batch::Batch;
use store::entry::Seen;
use store::pantry::everything;

/// What really stays in the house's spiral: of two kilograms, %. Nobody knows it; doughs that are weighed whole teach it.
const STAYS_PERCENT: f64 = 1.3;
/// A practised hand balls one in so many seconds.
const EACH_MIN: f64 = 0.42;

impl DemoWriter<'_> {
    /// Weighs the dough of a batch and divides it as it was planned: most balls within the scale's own step, two of them off.
    pub(super) async fn divided(&mut self, b: &Batch, nth: u32) -> Result<()> {
        let result = &b.sheet.result;
        let Some(ball) = result.steps.iter().find(|s| s.kind == StepKind::Ball) else {
            return Ok(());
        };
        let all = everything(self.db, self.here.id).await?;
        let boxes = all.boxes.iter().max_by_key(|x| x.facts.balls());
        let put_g = result.formula.dough_g;
        let stays = STAYS_PERCENT + 0.1 * f64::from(uneven(nth, 4));
        let lost = stays * (put_g / 2000.0).powf(-1.0 / 3.0);
        let whole_g = (put_g * (1.0 - lost / 100.0)).round();
        self.shape(b, ball.at - minutes(1.0), ShapeAct::Whole { g: whole_g })
            .await?;
        let count = result.formula.pieces;
        let ball_g = (whole_g / f64::from(count)).floor();
        self.shape(
            b,
            ball.at - minutes(0.5),
            ShapeAct::Divided {
                count,
                ball_g,
                of: Some(count),
            },
        )
        .await?;
        if let Some(x) = boxes {
            let kind = x.facts.kind(ROOMY_GAP_CM);
            self.shape(b, ball.at - minutes(0.2), ShapeAct::Boxed { into: kind })
                .await?;
        }
        let mut left = whole_g;
        for i in 0..count {
            let off = match (i + nth) % 11 {
                7 => 4.0,
                10 => -5.0,
                _ => f64::from(uneven(i + nth, 5)).clamp(-2.0, 2.0),
            };
            let g = (ball_g + off).min(left);
            left -= g;
            let at = ball.at + minutes(EACH_MIN * f64::from(i));
            self.shape(b, at, ShapeAct::Piece { g: Some(g) }).await?;
        }
        Ok(())
    }

    /// A ball of a box was pressed with a finger.
    pub(super) async fn pressed(
        &mut self,
        b: &Batch,
        at: Timestamp,
        number: u16,
        sign: PressSign,
    ) -> Result<()> {
        self.shape(b, at, ShapeAct::Pressed { number, sign }).await
    }

    async fn shape(&mut self, b: &Batch, at: Timestamp, act: ShapeAct) -> Result<()> {
        self.see(b, at, Seen::Shape { act }).await
    }
}

/// Whether a batch is divided ball by ball: then its step is told by the pieces.
pub(super) fn by_pieces(b: &Batch, kind: StepKind) -> bool {
    let f = &b.sheet.request.formula;
    kind == StepKind::Ball && f.mixer == Mixer::Spiral && !f.in_pans()
}
