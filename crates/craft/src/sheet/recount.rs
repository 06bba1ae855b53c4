//! Another number of pieces of a planned batch: weighed anew while it is not mixed, and afterwards the same dough cut
//! otherwise; the fire of a piece of another size is worked out anew.

use super::SheetRequest;
use crate::fact;
use crate::fact::Value;
use crate::fire::FireChoice;
use crate::formula::{Formula, Pieces};
use crate::refusal::ValidationError;

/// Hours that differ by less are the same.
const SAME_H: f64 = 1.0 / 3600.0;
/// No leg gives more than down to this, h.
const SHORTEST_H: f64 = 0.25;

impl SheetRequest {
    /// The request for `n` pieces, and balls of `each_g` where another weight is wanted. `mixed` is the dose that is in the
    /// bowl, % of the flour, once it is: then the weight of each follows from their number.
    ///
    /// Errors: at `count`, a number or a weight that cannot be, pieces that the oven does not bake.
    pub fn recounted(
        &self,
        n: u32,
        each_g: Option<f64>,
        mixed: Option<f64>,
    ) -> Result<SheetRequest, ValidationError> {
        let (formula, larger) = match mixed {
            Some(percent) => {
                let was = f64::from(self.formula.pieces.count().max(1));
                let cut = self.formula.cut_into(n)?.in_the_bowl(percent);
                (cut, was / f64::from(n.max(1)))
            }
            None => {
                let mut formula = self.formula.scaled_to(n)?;
                let mut larger = 1.0;
                if let (Some(g), Pieces::Balls { ball_g, .. }) = (each_g, &mut formula.pieces) {
                    larger = g / ball_g.max(1.0);
                    *ball_g = g;
                }
                formula.check()?;
                (formula, larger)
            }
        };
        let mut out = self.of_formula(formula);
        if larger == 1.0 {
            return Ok(out);
        }
        if let Some(f) = self.fire.as_deref() {
            let mut plan = f.plan.clone();
            plan.piece.ball_g *= larger;
            // Opened as thin as before.
            plan.piece.disc_mm *= larger.sqrt();
            let fire = FireChoice::of(plan, f.oven_id, f.hands, self.room_c);
            out.fire = Some(Box::new(fire.map_err(|e| {
                let said = Value::Sentences(e.0.into_iter().map(|e| e.message).collect());
                let message = fact!("oven-bakes-not", why = said);
                ValidationError::one("count", message)
            })?));
        }
        Ok(out)
    }

    /// The request of a dough that is in the bowl, with its begin where it was: a leg that was made longer takes from those
    /// after it, one that was made shorter gives to the next; what is left moves the serve time. A serve time that was moved
    /// alone is waited for in the last leg.
    pub fn begun_as(&self, was: &SheetRequest) -> SheetRequest {
        let begins_sooner = was.mixed_at().duration_since(self.mixed_at());
        let mut over = begins_sooner.as_secs_f64() / 3600.0;
        if over.abs() < SAME_H {
            return self.clone();
        }
        let (mut path, before) = (self.formula.path(), was.formula.path());
        let last = path.len() - 1;
        let differs = |i: &usize| {
            before
                .get(*i)
                .is_none_or(|b| (b.hours - path[*i].hours).abs() > SAME_H)
        };
        let first = (0..path.len()).find(differs).map_or(last, |i| i + 1);
        for leg in path.iter_mut().skip(first) {
            let to = (leg.hours - over).max(SHORTEST_H.min(leg.hours));
            over -= leg.hours - to;
            leg.hours = to;
        }
        let mut out = self.of_formula(self.formula.clone().on_path(path));
        out.serve_at += super::hours(over);
        out
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
    fn hours_of_a_live_dough_move_what_comes_after_and_never_its_begin() {
        let was = friday(crate::style::first());
        let path = was.formula.path();
        assert!(path.len() >= 3, "bulk, cold, temper");
        let with = |i: usize, h: f64| {
            let mut p = path.clone();
            p[i].hours = h;
            was.clone()
                .with(|r| r.formula = r.formula.clone().on_path(p))
        };
        let same = |r: &SheetRequest| {
            let off = r.mixed_at().duration_since(was.mixed_at()).as_secs_f64();
            assert!(off.abs() < 2.0, "begins {off} s off");
        };
        for i in 0..path.len() {
            for h in [0.25, 1.0, 3.5, 9.0, 40.0, 100.0] {
                let moved = with(i, h).begun_as(&was);
                same(&moved);
                assert!((moved.formula.path()[i].hours - h).abs() < 1e-6, "{i} {h}");
            }
        }
        // An hour more in bulk is an hour less in the cold, and those who eat wait for nothing.
        let longer = with(0, path[0].hours + 1.0).begun_as(&was);
        assert_eq!(longer.serve_at, was.serve_at);
        assert!((longer.formula.path()[1].hours - path[1].hours + 1.0).abs() < 1e-6);
        // The serve time alone: the last leg waits.
        let mut later = was.clone();
        later.serve_at += crate::sheet::hours(2.0);
        let waits = later.begun_as(&was);
        same(&waits);
        let last = path.len() - 1;
        assert_eq!(waits.serve_at, later.serve_at);
        assert!((waits.formula.path()[last].hours - path[last].hours - 2.0).abs() < 1e-6);
        assert_eq!(was.begun_as(&was), was);
    }

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
        let five = r.recounted(5, None, Some(0.2)).unwrap();
        let fire = |r: &SheetRequest| r.fire.as_deref().unwrap().clone();
        assert!((fire(&five).plan.piece.ball_g - 300.0).abs() < 1e-9);
        assert!(fire(&five).programme.out_s > fire(&r).programme.out_s);
        assert_eq!(five.formula.yeast.dose, Dose::Given { percent: 0.2 });
        // While it is not mixed the piece stays as it is, and so does its fire.
        let nine = r.recounted(9, None, None).unwrap();
        assert_eq!((nine.formula.pieces.count(), fire(&nine)), (9, fire(&r)));
        // Balls of another size before it is mixed: weighed anew, and baked as they are then.
        let sized = r.recounted(6, Some(300.0), None).unwrap();
        let weighed = |r: &SheetRequest| work_out(r).unwrap().formula.dough_g;
        assert!((weighed(&sized) / weighed(&r) - 1.2).abs() < 1e-6);
        assert_eq!(fire(&sized).plan.piece, fire(&five).plan.piece);
        assert_eq!(sized.formula.yeast.dose, r.formula.yeast.dose);
        assert!(r.recounted(6, Some(3.0), None).is_err());
        assert!(r.recounted(0, None, None).is_err() && r.recounted(1000, None, Some(0.2)).is_err());
    }
}
