//! Programmes of a kitchen's own: steps as their maker wrote them, and the programme that they make.
//!
//! They have the shape of those that ship and are laid, timed and judged by the same code. What dough they suit is not
//! judged: their maker knows. Source: mixing and shaping, section 5.

use super::bowl::{LONGEST_STEP_MIN, MOST_MACHINE_MIN, MOST_STEPS};
use super::programmes::{MixHazard, MixProgramme, MixShares, ProgrammeStep, programmes};
use super::{Mixer, Speed};
use crate::fact;
use crate::fact::{Fact, Percent, minutes};
use crate::refusal::{Check, ValidationError};
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What is done in a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "snake_case")]
#[derive(EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum StepWork {
    /// A machine on slow.
    Slow,
    /// A machine on medium.
    Medium,
    /// A machine on fast.
    Fast,
    /// Hands that stir.
    Stir,
    /// Hands that knead.
    Knead,
    /// Slap and fold.
    Slap,
    /// A round of folds.
    Fold,
    /// It rests, covered.
    Rest,
}

impl StepWork {
    /// What it is called.
    pub fn name(self) -> Fact {
        match self {
            StepWork::Slow => Speed::Slow.name(),
            StepWork::Medium => Speed::Medium.name(),
            StepWork::Fast => Speed::Fast.name(),
            StepWork::Stir => fact!("stepwork-stir"),
            StepWork::Knead => fact!("stepwork-knead"),
            StepWork::Slap => fact!("stepwork-slap"),
            StepWork::Fold => Speed::Fold.name(),
            StepWork::Rest => Speed::Off.name(),
        }
    }
    /// The speed at which the bowl is heated by it.
    pub fn speed(self) -> Speed {
        match self {
            StepWork::Slow => Speed::Slow,
            StepWork::Medium => Speed::Medium,
            StepWork::Fast => Speed::Fast,
            StepWork::Stir | StepWork::Knead | StepWork::Slap => Speed::Hand,
            StepWork::Fold => Speed::Fold,
            StepWork::Rest => Speed::Off,
        }
    }
    /// The work of a step.
    pub fn of(s: &ProgrammeStep) -> StepWork {
        match s.speed {
            Speed::Slow => StepWork::Slow,
            Speed::Medium => StepWork::Medium,
            Speed::Fast => StepWork::Fast,
            Speed::Fold => StepWork::Fold,
            Speed::Off => StepWork::Rest,
            Speed::Hand if s.stir => StepWork::Stir,
            Speed::Hand if s.slap => StepWork::Slap,
            Speed::Hand => StepWork::Knead,
        }
    }
}

/// A step as a maker wrote it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OwnStep {
    /// What is done.
    pub work: StepWork,
    /// How long, 0 to 1440 min.
    pub minutes: f64,
    /// What goes in at its start, as shares of the recipe.
    #[serde(default)]
    pub add: MixShares,
    /// What to do, in the maker's words; empty: the work says it.
    #[serde(default)]
    pub say: String,
    /// What ends it, in the maker's words; empty: the minutes do.
    #[serde(default)]
    pub until: String,
}

/// A programme of a kitchen's own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct OwnProgramme {
    /// As its owner calls it.
    pub name: String,
    /// Its name for programs.
    pub key: String,
    /// The tool that it is for.
    pub kind: Mixer,
    /// In their order, 1 to 40.
    pub steps: Vec<OwnStep>,
}

const LONGEST_WORDS: usize = 120;

/// A share of the recipe: which column of a step, and what it is called in the sentence that refuses it.
type ShareOf = (&'static str, fn(&MixShares) -> f64);
const MUST_ADD_UP: [ShareOf; 4] = [
    ("flour", |a| a.flour),
    ("water", |a| a.water),
    ("salt", |a| a.salt),
    (YEAST, |a| a.leaven),
];
const YEAST: &str = "yeast";

impl OwnProgramme {
    /// A programme that is there as one of a kitchen's own, to be changed; `say` puts its facts into words.
    pub fn copy_of(p: &MixProgramme, key: String, say: impl Fn(&Fact) -> String) -> OwnProgramme {
        let step = |s: &ProgrammeStep| OwnStep {
            work: StepWork::of(s),
            minutes: s.minutes,
            add: s.add,
            say: say(&s.say),
            until: say(&s.cue),
        };
        OwnProgramme {
            name: say(&p.name),
            key,
            kind: p.kind,
            steps: p.steps.iter().map(step).collect(),
        }
    }

    fn minutes(&self, is: impl Fn(Speed) -> bool) -> f64 {
        let of = |s: &&OwnStep| is(s.work.speed());
        self.steps.iter().filter(of).map(|s| s.minutes).sum()
    }

    /// Refuses what is no programme.
    ///
    /// Errors: [`ValidationError`] with the fields, `steps[0].minutes` for a step's.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        if self.steps.is_empty() || self.steps.len() > MOST_STEPS {
            c.refuse("kind", fact!("mix-steps-count", most = MOST_STEPS));
        }
        for (i, s) in self.steps.iter().enumerate() {
            let at = |field: &str| format!("steps[{i}].{field}");
            let longest = (0.0, LONGEST_STEP_MIN);
            let name = fact!("f-mixing");
            c.range(
                &at("minutes"),
                name,
                s.minutes,
                longest.0,
                longest.1,
                minutes,
            );
            let hands = matches!(s.work.speed(), Speed::Hand | Speed::Fold);
            if s.work.speed().is_machine() && self.kind == Mixer::Hand {
                c.refuse(&at("work"), fact!("programme-no-machine"));
            } else if hands && self.kind != Mixer::Hand && s.work != StepWork::Fold {
                c.refuse(&at("work"), fact!("programme-no-hands"));
            }
            for (field, of) in MUST_ADD_UP.iter().chain(&[BIGA]) {
                if !(0.0..=1.0).contains(&of(&s.add)) {
                    c.refuse(&at(field), fact!("programme-share"));
                }
            }
            for (field, words) in [("say", &s.say), ("until", &s.until)] {
                let letters = words.chars().count();
                if letters > LONGEST_WORDS {
                    c.refuse(&at(field), fact!("programme-words", letters = letters));
                }
            }
        }
        if self.minutes(Speed::is_machine) > MOST_MACHINE_MIN {
            let most = fact!("mix-most-machine", most = minutes(MOST_MACHINE_MIN));
            c.refuse("kind", most);
        }
        if self.minutes(|s| s != Speed::Off) <= 0.0 {
            c.refuse("kind", fact!("programme-no-work"));
        }
        for (field, of) in MUST_ADD_UP.iter().chain(&[BIGA]) {
            let whole: f64 = self.steps.iter().map(|s| of(&s.add)).sum();
            // A programme need not know of a preferment: then it goes in with the first flour. One that does may leave the
            // yeast to it.
            let ripe = self.steps.iter().any(|s| s.add.preferment > 0.0);
            let may_lack = *field == BIGA.0 || *field == YEAST && ripe;
            let none_is_right = may_lack && whole == 0.0;
            if (whole - 1.0).abs() > 1e-6 && !none_is_right && whole.is_finite() {
                let last = self.steps.iter().rposition(|s| of(&s.add) > 0.0);
                let at = format!("steps[{}].{field}", last.unwrap_or(0));
                let percent = Percent((1000.0 * whole).round() / 10.0);
                c.refuse(&at, fact!("programme-adds-up", percent = percent));
            }
        }
        c.done()
    }

    /// The programme. Its hazards and the most work of its tool are those of the programmes that ship for that tool.
    pub fn programme(&self) -> MixProgramme {
        let shipped = || programmes().iter().filter(|p| p.kind == self.kind);
        let mut hazards: Vec<MixHazard> = vec![];
        for h in shipped().flat_map(|p| &p.hazards) {
            if !hazards.contains(h) {
                hazards.push(*h);
            }
        }
        let most = shipped().map(|p| p.most_work_min);
        let low = shipped().map(|p| p.dough_c[0]);
        let high = shipped().map(|p| p.dough_c[1]);
        let work = self.minutes(|s| s != Speed::Off);
        let words = |text: &str, else_say: Fact| match text.trim() {
            "" => else_say,
            text => Fact::as_written(text),
        };
        let steps = self.steps.iter().map(|s| ProgrammeStep {
            say: words(&s.say, s.work.name()),
            cue: words(&s.until, fact!("mixcue-by-the-clock")),
            speed: s.work.speed(),
            minutes: s.minutes,
            add: s.add,
            stir: s.work == StepWork::Stir,
            slap: s.work == StepWork::Slap,
        });
        MixProgramme {
            key: self.key.clone(),
            name: Fact::as_written(&self.name),
            kind: self.kind,
            work_min: [work, work],
            fits: Default::default(),
            styles: vec![],
            most_work_min: most.fold(0.0, f64::max),
            dough_c: [low.fold(f64::MAX, f64::min), high.fold(0.0, f64::max)],
            hazards,
            steps: steps.collect(),
        }
    }
}

const BIGA: ShareOf = ("preferment", |a| a.preferment);

#[cfg(test)]
mod tests {
    use super::*;

    fn own_of(key: &str) -> OwnProgramme {
        let p = programmes().iter().find(|p| p.key == key).unwrap();
        OwnProgramme::copy_of(p, "own-1".into(), |f| f.code.to_string())
    }

    #[test]
    fn every_programme_can_be_made_ones_own_and_keeps_its_steps() {
        for p in programmes() {
            let own = own_of(&p.key);
            own.check().unwrap_or_else(|e| panic!("{}: {e:?}", p.key));
            let again = own.programme();
            assert_eq!(again.minutes(), p.minutes(), "{}", p.key);
            assert_eq!(again.wants_preferment(), p.wants_preferment());
            for (a, b) in again.steps.iter().zip(&p.steps) {
                assert_eq!((a.speed, a.stir, a.slap), (b.speed, b.stir, b.slap));
                assert_eq!((a.minutes, a.add), (b.minutes, b.add));
            }
            assert!(again.most_work_min >= p.most_work_min);
            assert!(p.hazards.iter().all(|h| again.hazards.contains(h)));
        }
    }

    #[test]
    fn what_is_no_programme_is_refused_at_its_field() {
        type Spoil = fn(&mut OwnProgramme);
        let cases: [(Spoil, &str); 10] = [
            (|p| p.name.clear(), "name"),
            (|p| p.steps.clear(), "kind"),
            (|p| p.steps[0].minutes = f64::NAN, "steps[0].minutes"),
            (|p| p.steps[0].minutes = 1441.0, "steps[0].minutes"),
            (|p| p.steps[0].work = StepWork::Knead, "steps[0].work"),
            (|p| p.steps[0].add.water = 0.5, "steps[1].water"),
            (|p| p.steps[0].add.flour = -0.1, "steps[0].flour"),
            (|p| p.steps[0].add.preferment = 0.5, "steps[0].preferment"),
            (|p| p.steps[2].until = "x".repeat(121), "steps[2].until"),
            (|p| p.steps[2].minutes = 61.0, "kind"),
        ];
        for (spoil, field) in cases {
            let mut p = own_of("spiral_direct");
            spoil(&mut p);
            let e = p.check().unwrap_err();
            assert!(e.0.iter().any(|e| e.field == field), "{field}: {e:?}");
        }
        let mut by_hand = own_of("hand");
        by_hand.steps[2].work = StepWork::Medium;
        assert_eq!(by_hand.check().unwrap_err().0[0].field, "steps[2].work");
    }
}
