//! What a diagnosis made of a mishap that was injected, and how often it was right.

use crate::learn::diagnose::{Cause, Diagnosis, MayBeSaid};

/// One diagnosis against the truth.
pub(super) struct Outcome {
    /// Place of the truth among the causes; none when nothing was wrong.
    place: Option<usize>,
    say: MayBeSaid,
    /// The truth is what was named, or is in the group that was.
    right: bool,
}

impl Outcome {
    pub fn of(told: &Diagnosis, truth: Cause) -> Outcome {
        let causes = told.ranking.iter().map(|r| r.cause);
        let mut causes = causes.filter(|c| *c != Cause::Ordinary);
        let mut of = told.of.iter().map(|i| &told.ranking[*i]);
        Outcome {
            place: causes.position(|c| c == truth),
            right: match told.say {
                MayBeSaid::Cause => of.any(|r| r.cause == truth),
                MayBeSaid::Group => of.any(|r| r.group == truth.group()),
                MayBeSaid::CannotTell => false,
            },
            say: told.say,
        }
    }
}

/// How often it was right.
pub(super) struct Rates {
    pub n: usize,
    pub first: f64,
    pub three: f64,
    pub named: f64,
    pub group: f64,
    pub cannot: f64,
    pub wrong: f64,
}

impl Rates {
    pub fn of(all: &[&Outcome]) -> Rates {
        let share = |is: &dyn Fn(&Outcome) -> bool| {
            all.iter().filter(|o| is(o)).count() as f64 / all.len().max(1) as f64
        };
        Rates {
            n: all.len(),
            first: share(&|o| o.place == Some(0)),
            three: share(&|o| o.place.is_some_and(|p| p < 3)),
            named: share(&|o| o.say == MayBeSaid::Cause && o.right),
            group: share(&|o| o.say == MayBeSaid::Group && o.right),
            cannot: share(&|o| o.say == MayBeSaid::CannotTell),
            wrong: share(&|o| o.say != MayBeSaid::CannotTell && !o.right),
        }
    }
    pub fn print(&self, what: &str) {
        println!(
            "| {what} | {} | {:.2} | {:.2} | {:.2} | {:.2} | {:.2} | {:.2} |",
            self.n, self.first, self.three, self.named, self.group, self.cannot, self.wrong
        );
    }
}
