//! What a trial compares, and by how many tasters.

use super::chance::fewest_that_prove;
use crate::fact;
use crate::fact::Fact;
use crate::people::evening_of;
use crate::refusal::{FieldError, LONGEST_NAME, ValidationError};
use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use std::collections::HashSet;

/// A trial has so many arms at most: a palate tells no more apart.
pub const MOST_ARMS: usize = 4;
/// So many taste at most.
pub const MOST_TASTERS: u8 = 40;

/// One of the things that are compared.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TrialArm {
    /// The code of its batch.
    pub batch: String,
    /// What it is: a value of what is varied, or a maker's words.
    pub is: Fact,
}

/// What is compared, and by how many.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct TrialDesign {
    /// Two to [`MOST_ARMS`]: sister doughs, or parts of one dough.
    pub arms: Vec<TrialArm>,
    /// How many taste, 1 to [`MOST_TASTERS`].
    pub tasters: u8,
}

impl TrialDesign {
    /// Whether all arms are parts of one dough.
    pub fn is_split(&self) -> bool {
        self.arms.windows(2).all(|w| w[0].batch == w[1].batch)
    }
    /// Pairs of arms, the earlier one first.
    pub fn pairs(&self) -> Vec<(u8, u8)> {
        let n = self.arms.len() as u8;
        (0..n)
            .flat_map(|a| (a + 1..n).map(move |b| (a, b)))
            .collect()
    }
    /// So many tasters who all say the same are the fewest that can show anything; fewer can show nothing, whatever they say.
    pub fn fewest_tasters(&self) -> u8 {
        fewest_tasters(self.arms.len())
    }

    /// Refuses what is no trial.
    ///
    /// Errors: of one arm, of more than four, two arms that are one and the same, arms of which some are parts of a dough and
    /// some are not, nobody to taste.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut errors: Vec<FieldError> = vec![];
        let mut refuse = |field: String, message: Fact| errors.push(FieldError { field, message });
        let n = self.arms.len();
        if !(2..=MOST_ARMS).contains(&n) {
            refuse("arms".into(), fact!("trial-arms", n = n, most = MOST_ARMS));
        }
        let codes: HashSet<_> = self.arms.iter().map(|a| &a.batch).collect();
        if codes.len() != 1 && codes.len() != n {
            refuse("arms".into(), fact!("trial-arms-mixed"));
        }
        for (i, arm) in self.arms.iter().enumerate() {
            if arm.is.is_nothing() {
                refuse(format!("arms[{i}].is"), fact!("trial-arm-says-nothing"));
            } else if self.arms[..i]
                .iter()
                .any(|b| b.is == arm.is && codes.len() == 1)
            {
                refuse(format!("arms[{i}].is"), fact!("trial-arm-twice"));
            }
        }
        if !(1..=MOST_TASTERS).contains(&self.tasters) {
            refuse(
                "tasters".into(),
                fact!("trial-tasters", most = MOST_TASTERS),
            );
        }
        match errors.is_empty() {
            true => Ok(()),
            false => Err(ValidationError(errors)),
        }
    }
}

/// So many tasters who all say the same are the fewest that can show anything between so many arms.
pub fn fewest_tasters(arms: usize) -> u8 {
    fewest_that_prove(arms * arms.saturating_sub(1) / 2)
}

/// On how many evenings arms were served that were served at these moments: where it is more than one, what each evening did is
/// in what differs, too.
pub fn evenings(served: impl Iterator<Item = Timestamp>, zone: &TimeZone) -> usize {
    let days: HashSet<Date> = served.map(|at| evening_of(at, zone)).collect();
    days.len()
}

/// A maker's own words for an arm, as many as fit.
pub fn in_own_words(text: &str) -> Fact {
    match text.trim() {
        "" => Fact::nothing(),
        t => Fact::as_written(t.chars().take(LONGEST_NAME).collect::<String>()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of(arms: &[(&str, &str)], tasters: u8) -> TrialDesign {
        TrialDesign {
            arms: arms
                .iter()
                .map(|(batch, is)| TrialArm {
                    batch: (*batch).into(),
                    is: in_own_words(is),
                })
                .collect(),
            tasters,
        }
    }
    fn fields(t: &TrialDesign) -> Vec<String> {
        let wrong = t.check().err().map_or(vec![], |e| e.0);
        wrong.into_iter().map(|e| e.field).collect()
    }

    #[test]
    fn a_trial_has_two_to_four_arms_and_somebody_who_tastes() {
        let two = [("TT-01", "24 h"), ("TT-02", "40 h")];
        assert_eq!(of(&two, 6).check(), Ok(()));
        assert_eq!(fields(&of(&two[..1], 6)), ["arms"]);
        assert_eq!(fields(&of(&[], 6)), ["arms"]);
        let five = ["a", "b", "c", "d", "e"].map(|w| ("TT-01", w));
        assert_eq!(fields(&of(&five, 6)), ["arms"]);
        assert_eq!(fields(&of(&two, 0)), ["tasters"]);
        assert_eq!(fields(&of(&two, 41)), ["tasters"]);
    }

    #[test]
    fn arms_are_sisters_or_parts_of_one_dough_and_told_apart() {
        assert!(of(&[("TT-01", "60 s"), ("TT-01", "90 s")], 6).is_split());
        let mixed = [("TT-01", "a"), ("TT-01", "b"), ("TT-02", "c")];
        assert_eq!(fields(&of(&mixed, 6)), ["arms"]);
        let twice = [("TT-01", "a"), ("TT-01", "a")];
        assert_eq!(fields(&of(&twice, 6)), ["arms[1].is"]);
        assert_eq!(
            fields(&of(&[("TT-01", "a"), ("TT-01", " ")], 6)),
            ["arms[1].is"]
        );
    }

    #[test]
    fn arms_of_two_evenings_are_counted_past_midnight_too() {
        let of = |all: &[&str]| {
            let served = all.iter().map(|t| t.parse().unwrap());
            evenings(served, &TimeZone::UTC)
        };
        assert_eq!(of(&["2026-11-28T19:00:00Z", "2026-11-29T00:30:00Z"]), 1);
        assert_eq!(of(&["2026-11-28T19:00:00Z", "2026-11-29T19:00:00Z"]), 2);
    }

    #[test]
    fn few_tasters_show_nothing_and_that_is_said_before() {
        assert_eq!(of(&[("A", "1"), ("B", "2")], 4).fewest_tasters(), 6);
        assert_eq!(
            of(&[("A", "1"), ("B", "2"), ("C", "3")], 4).fewest_tasters(),
            7
        );
        let four = [("A", "1"), ("B", "2"), ("C", "3"), ("D", "4")];
        assert_eq!(of(&four, 4).fewest_tasters(), 8);
    }
}
