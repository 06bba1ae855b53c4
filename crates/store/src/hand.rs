//! Whose hand writes: in which kitchen, and who it is.

use crate::KitchenId;
use crate::people::PersonId;

/// Who did something, as it stands beside what was done; nobody where nobody is known.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Default)]
pub struct Whom {
    pub person: Option<PersonId>,
    /// As it read then; empty where nobody is known.
    pub name: String,
}

/// A hand that writes in a kitchen.
#[derive(Debug, Clone, Copy)]
pub struct Hand<'a> {
    pub kitchen: KitchenId,
    whom: Option<&'a Whom>,
}

impl<'a> Hand<'a> {
    pub fn of(kitchen: KitchenId, whom: &'a Whom) -> Hand<'a> {
        Hand {
            kitchen,
            whom: Some(whom),
        }
    }
    pub(crate) fn person(&self) -> Option<u64> {
        self.whom.and_then(|w| w.person).map(|p| p.0)
    }
    pub(crate) fn name(&self) -> &'a str {
        self.whom.map_or("", |w| &w.name)
    }
}

/// A hand that nobody is known of: what the program writes itself.
impl From<KitchenId> for Hand<'static> {
    fn from(kitchen: KitchenId) -> Self {
        Hand {
            kitchen,
            whom: None,
        }
    }
}
