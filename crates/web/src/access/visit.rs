//! What a session remembers of whoever it belongs to.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use store::KitchenId;
use store::people::PersonId;
use store::people::pass::PassId;
use tower_sessions::Session;
use tower_sessions::session::Error;

/// A signed-in browser. What they may do is not in it: that is looked up.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Visit {
    /// A person, or who came by a pass.
    pub person: Option<u64>,
    pub pass: Option<u64>,
    /// The kitchen that this browser is in.
    pub kitchen: Option<u64>,
    /// Whose hands a shared tablet is in, as they tapped it.
    pub hands: Option<Hands>,
    /// The browser, as it names itself.
    pub agent: String,
    pub began_ms: i64,
    pub seen_ms: i64,
}

/// Who works at a shared tablet.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Hands {
    /// None for a helper without an account.
    pub person: Option<u64>,
    pub name: String,
}

/// Under which name a session keeps it.
pub const VISIT: &str = "visit";

/// Remembers that a browser went into another kitchen.
pub async fn go_into(session: &Session, kitchen: KitchenId) -> Result<(), Error> {
    if let Some(visit) = session.get::<Visit>(VISIT).await? {
        let kitchen = Some(kitchen.0);
        session.insert(VISIT, Visit { kitchen, ..visit }).await?;
    }
    Ok(())
}

impl Visit {
    pub fn of_person(
        person: PersonId,
        kitchen: Option<KitchenId>,
        agent: &str,
        now: Timestamp,
    ) -> Visit {
        Visit {
            person: Some(person.0),
            pass: None,
            kitchen: kitchen.map(|k| k.0),
            hands: None,
            agent: agent.into(),
            began_ms: now.as_millisecond(),
            seen_ms: now.as_millisecond(),
        }
    }
    pub fn by_pass(pass: PassId, kitchen: KitchenId, agent: &str, now: Timestamp) -> Visit {
        Visit {
            person: None,
            pass: Some(pass.0),
            kitchen: Some(kitchen.0),
            hands: None,
            agent: agent.into(),
            began_ms: now.as_millisecond(),
            seen_ms: now.as_millisecond(),
        }
    }
}
