//! Which formulas are refused, and why: a sentence for each field.

use super::formula::Formula;
use super::parts;
use crate::fact;
use crate::fact::{Percent, Value, hours};
use crate::kitchen;
use crate::refusal::{Check, LONGEST_NAME, ValidationError};

/// Names may be so long.
const MOST_FLOURS: usize = 8;
const MOST_EXTRAS: usize = 16;
const MOST_PREFERMENTS: usize = 3;
const MOST_TOPPINGS: usize = 20;

impl Formula {
    /// Adds everything that is wrong with this formula.
    pub fn check_into(&self, c: &mut Check) {
        self.pieces.check_into(c);
        c.range(
            "loss_percent",
            fact!("f-loss"),
            self.loss_percent,
            0.0,
            10.0,
            Value::Percent,
        );
        c.percentages(
            self.hydration_percent,
            self.salt_percent,
            self.sugar_percent,
            self.oil_percent,
        );
        self.check_flours(c);
        self.check_extras(c);
        self.yeast.check_into(c, "yeast");
        self.check_preferments(c);
        if self.toppings.len() > MOST_TOPPINGS {
            c.refuse("toppings", fact!("toppings-at-most", most = MOST_TOPPINGS));
        }
        for (i, t) in self.toppings.iter().enumerate() {
            c.name(&format!("toppings[{i}].name"), &t.name);
            c.range(
                &format!("toppings[{i}].g_per_disc"),
                fact!("f-topping-on-a-30-cm-disc"),
                t.g_per_disc,
                0.0,
                500.0,
                Value::Grams,
            );
        }
        kitchen::target_dough_into(c, self.target_dough_c);
        c.range("bulk_h", fact!("f-bulk"), self.bulk_h, 0.25, 48.0, hours);
        c.range("cold_h", fact!("f-cold"), self.cold_h, 0.0, 168.0, hours);
        c.range(
            "temper_h",
            fact!("f-before-the-bake"),
            self.temper_h,
            0.5,
            24.0,
            hours,
        );
        super::way::check_path_into(self, c);
        self.style.check_into(c);
        if c.is_clean() {
            parts::check_into(self, c);
        }
    }

    fn check_flours(&self, c: &mut Check) {
        if self.flours.is_empty() {
            return c.refuse("flours", fact!("needs-flour-named"));
        }
        if self.flours.len() > MOST_FLOURS {
            return c.refuse("flours", fact!("blend-at-most", most = MOST_FLOURS));
        }
        for (i, f) in self.flours.iter().enumerate() {
            c.name(&format!("flours[{i}].name"), &f.name);
            c.range(
                &format!("flours[{i}].share_percent"),
                fact!("f-share"),
                f.share_percent,
                0.0,
                100.0,
                Value::Percent,
            );
            f.facts.check_into(c, &format!("flours[{i}].facts"));
        }
        let sum: f64 = self.flours.iter().map(|f| f.share_percent).sum();
        let in_range = self
            .flours
            .iter()
            .all(|f| (0.0..=100.0).contains(&f.share_percent));
        if in_range && (sum - 100.0).abs() > 0.05 {
            let sum = fact::tenth(sum);
            c.refuse("flours", fact!("flours-sum", sum = Percent(sum)));
        }
    }

    fn check_extras(&self, c: &mut Check) {
        if self.extras.len() > MOST_EXTRAS {
            return c.refuse(
                "extras",
                fact!("extras-at-most", most = MOST_EXTRAS, n = self.extras.len()),
            );
        }
        for (i, e) in self.extras.iter().enumerate() {
            if e.name.chars().count() > LONGEST_NAME {
                c.name(&format!("extras[{i}].name"), &e.name);
            }
            c.range(
                &format!("extras[{i}].amount"),
                e.called(),
                e.amount,
                0.0,
                e.kind.most(),
                e.kind.measure(),
            );
        }
    }

    fn check_preferments(&self, c: &mut Check) {
        if self.preferments.len() > MOST_PREFERMENTS {
            return c.refuse(
                "preferments",
                fact!("preferments-at-most", most = MOST_PREFERMENTS),
            );
        }
        for (i, p) in self.preferments.iter().enumerate() {
            if p.name.chars().count() > LONGEST_NAME {
                c.name(&format!("preferments[{i}].name"), &p.name);
            }
            p.check_into(c, &format!("preferments[{i}]"), self.flours.len());
        }
    }

    /// Refuses what is outside its range.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_into(&mut c);
        c.done()
    }
}
