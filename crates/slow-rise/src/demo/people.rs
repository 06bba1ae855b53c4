//! Who works at Larchfold Halt.

use anyhow::{Context, Result};
use craft::people::Role;
use jiff::Timestamp;
use store::people::person::{add, be_at_home, by_name, join};
use store::{KitchenId, MySqlConnection};

/// Names and roles; the first is the one at home. None can sign in before they set a password.
const PEOPLE: [(&str, Role); 3] = [
    ("Ines Marlow", Role::Owner),
    ("Tove Birk", Role::Planner),
    ("Rafi Oduya", Role::Cook),
];

pub async fn move_in(db: &mut MySqlConnection, kitchen: KitchenId, now: Timestamp) -> Result<()> {
    for (name, role) in PEOPLE {
        let id = match add(db, name, None, "", now).await? {
            Some(id) => id,
            None => by_name(db, name).await?.context(name)?.id,
        };
        join(db, kitchen, id, role, now).await?;
        if role == Role::Owner {
            be_at_home(db, id).await?;
        }
    }
    Ok(())
}
