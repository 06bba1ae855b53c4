//! Who writes: in which kitchen, and as whom.

use crate::KitchenId;
use crate::people::PersonId;

/// Who did something, as it stands beside what was done; nobody where nobody is known.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Default)]
pub struct Whom {
    pub person: Option<PersonId>,
    /// As it read then; empty where nobody is known.
    pub name: String,
}

/// Who writes in a kitchen.
#[derive(Debug, Clone, Copy)]
pub struct Author<'a> {
    pub kitchen: KitchenId,
    whom: Option<&'a Whom>,
}

impl<'a> Author<'a> {
    pub fn of(kitchen: KitchenId, whom: &'a Whom) -> Author<'a> {
        Author {
            kitchen,
            whom: Some(whom),
        }
    }
    pub(crate) fn person(&self) -> Option<u64> {
        self.whom.and_then(|w| w.person).map(|p| p.0)
    }
    pub fn name(&self) -> &'a str {
        self.whom.map_or("", |w| &w.name)
    }
}

/// Nobody is known: what the program writes itself.
impl From<KitchenId> for Author<'static> {
    fn from(kitchen: KitchenId) -> Self {
        Author {
            kitchen,
            whom: None,
        }
    }
}
