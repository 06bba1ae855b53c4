//! Another number of pieces of a planned batch: weighed anew while it is not mixed, and afterwards the same dough cut
//! otherwise; the fire of a piece of another size is worked out anew.

use super::SheetRequest;
use crate::fire::FireChoice;
use crate::formula::Formula;
use crate::refusal::Refused;

impl SheetRequest {
    /// The request for `n` pieces. `mixed` is the dose that is in the bowl, % of the flour, once it is.
    ///
    /// Errors: at `count`, a number that cannot be, pieces that the oven does not bake.
    pub fn recounted(&self, n: u32, mixed: Option<f64>) -> Result<SheetRequest, Refused> {
        let Some(percent) = mixed else {
            return Ok(self.of_formula(self.formula.scaled_to(n)?));
        };
        let larger = f64::from(self.formula.pieces.count().max(1)) / f64::from(n.max(1));
        let cut = self.formula.cut_into(n)?.in_the_bowl(percent);
        let mut out = self.of_formula(cut);
        if let Some(f) = self.fire.as_deref() {
            let mut plan = f.plan.clone();
            plan.piece.ball_g *= larger;
            // Opened as thin as before.
            plan.piece.disc_mm *= larger.sqrt();
            let fire = FireChoice::of(plan, f.oven_id, f.hands, self.room_c);
            out.fire = Some(Box::new(fire.map_err(|e| {
                let said = e.0.into_iter().map(|e| e.message).collect::<Vec<_>>();
                let message = format!("The oven does not bake them: {}", said.join(" "));
                Refused::one("count", message)
            })?));
        }
        Ok(out)
    }

    pub(super) fn of_formula(&self, formula: Formula) -> SheetRequest {
        SheetRequest {
            formula,
            ..self.clone()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fire::{of_formula, oven};
    use crate::formula::{Dose, Pieces};
    use crate::sheet::tests::friday;
    use crate::sheet::work_out;

    #[test]
    fn larger_pieces_of_the_same_dough_bake_as_larger_pieces() {
        let mut r = friday(crate::style::first());
        r.formula.pieces = Pieces::Balls {
            count: 6,
            ball_g: 250.0,
        };
        let sheet = work_out(&r).unwrap();
        let oven = oven::for_style(&r.formula.style);
        let portion = sheet.formula.main_portion().unwrap();
        let at = (r.room_c, r.altitude_m);
        let plan = of_formula::plan(&r.formula, portion, oven, oven.usual(), None, at);
        r.fire = Some(Box::new(FireChoice::of(plan, None, 2, r.room_c).unwrap()));
        let five = r.recounted(5, Some(0.2)).unwrap();
        let fire = |r: &SheetRequest| r.fire.as_deref().unwrap().clone();
        assert!((fire(&five).plan.piece.ball_g - 300.0).abs() < 1e-9);
        assert!(fire(&five).programme.out_s > fire(&r).programme.out_s);
        assert_eq!(five.formula.yeast.dose, Dose::Given { percent: 0.2 });
        // While it is not mixed the piece stays as it is, and so does its fire.
        let nine = r.recounted(9, None).unwrap();
        assert_eq!((nine.formula.pieces.count(), fire(&nine)), (9, fire(&r)));
        assert!(r.recounted(0, None).is_err() && r.recounted(1000, Some(0.2)).is_err());
    }
}
