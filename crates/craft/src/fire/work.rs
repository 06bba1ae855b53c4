//! The work of one pizza: seconds of a person's hands for each thing done to it, a fact of the kitchen.
//!
//! Source: service model, section 2 (usual figures of practised people). Everybody is taken to do everything; people who
//! can only do some of it are a matter of the service's plan.

use crate::fact;
use crate::fact::{Fact, Value};
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};

/// Seconds of one person for one pizza.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Work {
    /// Opening the ball, 5 to 300 s.
    pub open_s: f64,
    /// Topping it, 0 to 600 s.
    pub top_s: f64,
    /// Onto the peel and in, 2 to 120 s.
    pub load_s: f64,
    /// Each turn, 0 to 60 s.
    pub turn_s: f64,
    /// Out of the oven, 2 to 120 s.
    pub pull_s: f64,
    /// Cutting it, onto a plate or into a box, 0 to 300 s.
    pub cut_s: f64,
}

impl Default for Work {
    fn default() -> Work {
        Work {
            open_s: 40.0,
            top_s: 35.0,
            load_s: 10.0,
            turn_s: 5.0,
            pull_s: 6.0,
            cut_s: 15.0,
        }
    }
}

/// Field, what it is called, least, most.
type WorkField = (&'static str, Fact, f64, f64);

impl Work {
    /// The parts as a form and a refusal name them, in the order of the work.
    pub fn parts() -> [WorkField; 6] {
        [
            ("open_s", fact!("work-open"), 5.0, 300.0),
            ("top_s", fact!("work-top"), 0.0, 600.0),
            ("load_s", fact!("work-load"), 2.0, 120.0),
            ("turn_s", fact!("work-turn"), 0.0, 60.0),
            ("pull_s", fact!("work-pull"), 2.0, 120.0),
            ("cut_s", fact!("work-cut"), 0.0, 300.0),
        ]
    }

    /// In the order of [`Work::parts`].
    pub fn seconds(&self) -> [f64; 6] {
        [
            self.open_s,
            self.top_s,
            self.load_s,
            self.turn_s,
            self.pull_s,
            self.cut_s,
        ]
    }

    /// From seconds in the order of [`Work::parts`].
    pub fn of(s: [f64; 6]) -> Work {
        let [open_s, top_s, load_s, turn_s, pull_s, cut_s] = s;
        Work {
            open_s,
            top_s,
            load_s,
            turn_s,
            pull_s,
            cut_s,
        }
    }

    /// What one pizza that is turned so often takes of a person, s.
    pub fn of_pizza_s(&self, turns: usize) -> f64 {
        self.open_s
            + self.top_s
            + self.load_s
            + self.turn_s * turns as f64
            + self.pull_s
            + self.cut_s
    }

    pub(crate) fn check_into(&self, c: &mut Check) {
        for ((field, name, least, most), s) in Work::parts().into_iter().zip(self.seconds()) {
            c.range(field, name, s, least, most, Value::Seconds);
        }
    }

    /// Errors: the parts outside their ranges.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        self.check_into(&mut c);
        c.done()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pizza_takes_its_parts_and_its_turns() {
        let w = Work::default();
        assert_eq!(w.of_pizza_s(3), 121.0);
        assert_eq!(w.of_pizza_s(0), 106.0);
        assert_eq!(Work::of(w.seconds()), w);
        assert!(w.check().is_ok());
        let bad = Work {
            open_s: 1.0,
            turn_s: f64::NAN,
            ..w
        };
        let fields: Vec<String> = bad
            .check()
            .unwrap_err()
            .0
            .into_iter()
            .map(|e| e.field)
            .collect();
        assert_eq!(fields, ["open_s", "turn_s"]);
    }
}
