//! Methods as data: the schools of fermenting, each a path with its preferments, its limits and what it tastes of.
//!
//! The table is `methods.json`; makers copy one, alter it and keep it as their own. Source: craft notes, sections 2 and 4.

use super::{Leg, Lies};
use crate::fact;
use crate::fact::Fact;
use crate::formula::{Dose, Formula, Preferment};
use crate::refusal::{Check, ValidationError};
use crate::rise::Event;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;

/// A school of fermenting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(deny_unknown_fields)]
pub struct Method {
    /// Its name for programs.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// Where it lies and how long, in one line.
    pub line: Fact,
    /// What it tastes of and how it handles.
    pub taste: String,
    /// Where the dough lies, and how long.
    pub legs: Vec<Leg>,
    /// What is mixed before it.
    #[serde(default)]
    pub preferments: Vec<Preferment>,
    /// In the final dough.
    #[serde(default)]
    pub dose: Dose,
}

static ALL: LazyLock<Vec<Method>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("methods.json")).expect("methods.json holds methods")
});

/// The methods that ship with the product.
pub fn all() -> &'static [Method] {
    &ALL
}

/// A shipped method by its key.
pub fn by_key(key: &str) -> Option<&'static Method> {
    ALL.iter().find(|m| m.key == key)
}

impl Method {
    /// The dough by this method: its flours, water, salt and pieces stay, its path and preferments become the method's.
    pub fn applied(&self, f: &Formula) -> Formula {
        let pans = f.in_pans();
        let last = self.legs.len().saturating_sub(1);
        let legs = self
            .legs
            .iter()
            .enumerate()
            .map(|(i, l)| {
                let mut l = l.clone();
                if pans && i == last {
                    (l.lies, l.event) = (Lies::Pans, Event::Pan);
                } else if pans && l.lies == Lies::Balls {
                    l.lies = Lies::Bulk;
                    if l.event == Event::Ball {
                        l.event = Event::None;
                    }
                }
                l
            })
            .collect();
        let mut out = f.clone();
        out.preferments = self.preferments.clone();
        out.yeast.dose = self.dose;
        out.method = Some(self.name.clone());
        out.on_path(legs)
    }

    /// A formula's way as a method of a maker's own.
    pub fn of(f: &Formula, key: String, name: String) -> Method {
        let legs = f.path();
        let said = |l: &Leg| fact!("so-long-leg", time = fact::hours(l.hours), leg = l.word());
        let line = fact!("just", value = legs.iter().map(said).collect::<Vec<_>>());
        Method {
            key,
            name,
            line,
            taste: String::new(),
            legs,
            preferments: f.preferments.clone(),
            dose: match f.yeast.dose {
                Dose::None => Dose::None,
                _ => Dose::Solve,
            },
        }
    }

    /// Refuses what no dough could follow.
    pub fn check(&self) -> Result<(), ValidationError> {
        let mut c = Check::new();
        c.name("name", &self.name);
        c.done()?;
        let mut f = Formula::of_style(crate::style::first());
        f.legs = self.legs.clone();
        f.preferments = self.preferments.clone();
        f.check()
    }
}
