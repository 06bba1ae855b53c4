//! Another number of pieces: scaled while the dough is not mixed, and afterwards the same dough cut otherwise.

use super::dose::Dose;
use super::formula::Formula;
use super::size::Pieces;
use crate::fact;
use crate::fact::Fact;
use crate::refusal::ValidationError;

/// Most pieces of a dough.
const MOST: u32 = 1000;

fn refuse<T>(message: Fact) -> Result<T, ValidationError> {
    Err(ValidationError::one("count", message))
}

fn in_range(count: u32) -> Result<(), ValidationError> {
    if (1..=MOST).contains(&count) {
        Ok(())
    } else {
        refuse(fact!("pieces-1-1000"))
    }
}

impl Formula {
    /// What is in the bowl: its dose, % of the flour, is no question any more.
    pub fn in_the_bowl(mut self, yeast_percent: f64) -> Formula {
        self.yeast.dose = if yeast_percent > 0.0 {
            Dose::Given {
                percent: yeast_percent,
            }
        } else {
            Dose::None
        };
        self
    }

    /// The same pieces, another number of them: everything is weighed anew.
    ///
    /// Errors: a number that cannot be; pans of several kinds.
    pub fn scaled_to(&self, n: u32) -> Result<Formula, ValidationError> {
        in_range(n)?;
        let mut out = self.clone();
        let more = f64::from(n) / f64::from(self.pieces.count().max(1));
        match &mut out.pieces {
            Pieces::Balls { count, .. } | Pieces::Discs { count, .. } => *count = n,
            Pieces::Total { count, dough_g } => (*count, *dough_g) = (n, *dough_g * more),
            Pieces::Flour { count, flour_g } => (*count, *flour_g) = (n, *flour_g * more),
            Pieces::Pans { pans, balls: None } if pans.len() == 1 => pans[0].count = n,
            Pieces::Pans { .. } => {
                return refuse(fact!("pans-plan-anew"));
            }
        }
        out.check()?;
        Ok(out)
    }

    /// The dough that is in the bowl, cut into another number of pieces: they get larger or smaller.
    ///
    /// Errors: a number that cannot be, pieces too large or too small; pans, which ask for their own weight.
    pub fn cut_into(&self, n: u32) -> Result<Formula, ValidationError> {
        in_range(n)?;
        let mut out = self.clone();
        let larger = f64::from(self.pieces.count().max(1)) / f64::from(n);
        match &mut out.pieces {
            Pieces::Balls { count, ball_g } => (*count, *ball_g) = (n, *ball_g * larger),
            Pieces::Discs {
                count, diameter_cm, ..
            } => (*count, *diameter_cm) = (n, *diameter_cm * larger.sqrt()),
            Pieces::Total { count, .. } | Pieces::Flour { count, .. } => *count = n,
            Pieces::Pans { .. } => {
                return refuse(fact!("pan-own-weight"));
            }
        }
        out.check()?;
        Ok(out)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formula::{FormulaRequest, Scales, formulate};
    use crate::style;

    fn six() -> Formula {
        Formula {
            pieces: Pieces::Balls {
                count: 6,
                ball_g: 250.0,
            },
            ..Formula::of_style(style::first())
        }
    }

    fn dough_g(formula: Formula) -> f64 {
        let asked = FormulaRequest {
            formula,
            scales: Scales::default(),
            doses: None,
        };
        formulate(&asked).unwrap().dough_g
    }

    #[test]
    fn before_mixing_all_is_weighed_anew_and_afterwards_the_dough_stays() {
        let all = dough_g(six());
        assert!((dough_g(six().scaled_to(9).unwrap()) / all - 1.5).abs() < 1e-9);
        let five = six().cut_into(5).unwrap();
        assert_eq!(
            five.pieces,
            Pieces::Balls {
                count: 5,
                ball_g: 300.0
            }
        );
        assert!((dough_g(five) - all).abs() < 1e-6);
        for style in style::all() {
            let f = Formula::of_style(style);
            let n = f.pieces.count() + 1;
            if let Ok(cut) = f.cut_into(n) {
                assert!(
                    (dough_g(cut) / dough_g(f) - 1.0).abs() < 1e-9,
                    "{}",
                    style.key
                );
            }
        }
    }

    #[test]
    fn what_cannot_be_is_refused() {
        for n in [0, 1001] {
            assert!(six().scaled_to(n).is_err() && six().cut_into(n).is_err());
        }
        assert!(six().cut_into(1000).is_err(), "1.5 g a piece");
    }
}
