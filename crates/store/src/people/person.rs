//! Persons and the kitchens that they belong to.

use super::PersonId;
use crate::error::is_duplicate;
use crate::{KitchenId, Result, StoreError, instant};
use craft::keyed::Keyed;
use craft::people::{Role, initials, name_key};
use jiff::Timestamp;
use sqlx::{Connection, MySqlConnection};

#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Person {
    pub id: PersonId,
    pub name: String,
    pub initials: String,
    /// As `argon2` writes it; none where nobody can sign in by a password yet.
    pub password_hash: Option<String>,
    /// The code of the language that they chose; empty while their browser says it.
    pub language: String,
    /// The kitchen that they were in last.
    pub kitchen: Option<KitchenId>,
}

/// A person in a kitchen.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Member {
    pub person: PersonId,
    pub name: String,
    pub initials: String,
    pub role: Role,
    pub since: Timestamp,
    pub has_password: bool,
}

/// A kitchen that somebody belongs to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Belonging {
    pub kitchen: KitchenId,
    pub name: String,
    pub role: Role,
}

fn role_of(word: &str) -> Result<Role> {
    Role::from_key(word).ok_or_else(|| StoreError::Unreadable(format!("role {word}")))
}

struct PersonRow {
    id: u64,
    name: String,
    initials: String,
    password_hash: Option<String>,
    language: String,
    kitchen_id: Option<u64>,
}

impl From<PersonRow> for Person {
    fn from(r: PersonRow) -> Person {
        Person {
            id: PersonId(r.id),
            name: r.name,
            initials: r.initials,
            password_hash: r.password_hash,
            language: r.language,
            kitchen: r.kitchen_id.map(KitchenId),
        }
    }
}

/// Makes a person; `None` when there is one of that name.
pub async fn add(
    db: &mut MySqlConnection,
    name: &str,
    password_hash: Option<&str>,
    language: &str,
    now: Timestamp,
) -> Result<Option<PersonId>> {
    let now = instant::to_row(now);
    let done = sqlx::query!(
        "INSERT INTO person (name, name_key, initials, password_hash, password_at, language, made_at) VALUES (?, ?, ?, ?, ?, ?, ?)",
        name,
        name_key(name),
        initials(name),
        password_hash,
        password_hash.map(|_| now),
        language,
        now
    )
    .execute(db)
    .await;
    match done {
        Ok(done) => Ok(Some(PersonId(done.last_insert_id()))),
        Err(e) if is_duplicate(&e) => Ok(None),
        Err(e) => Err(e.into()),
    }
}

pub async fn by_name(db: &mut MySqlConnection, name: &str) -> Result<Option<Person>> {
    let row = sqlx::query_as!(
        PersonRow,
        "SELECT id, name, initials, password_hash, language, kitchen_id FROM person WHERE name_key = ?",
        name_key(name)
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(Into::into))
}

pub async fn by_id(db: &mut MySqlConnection, id: PersonId) -> Result<Option<Person>> {
    let row = sqlx::query_as!(
        PersonRow,
        "SELECT id, name, initials, password_hash, language, kitchen_id FROM person WHERE id = ?",
        id.0
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(Into::into))
}

/// Who there is, the first made first.
pub async fn all(db: &mut MySqlConnection) -> Result<Vec<Person>> {
    let rows = sqlx::query_as!(
        PersonRow,
        "SELECT id, name, initials, password_hash, language, kitchen_id FROM person ORDER BY id LIMIT 10000"
    )
    .fetch_all(db)
    .await?;
    Ok(rows.into_iter().map(Into::into).collect())
}

/// Whether there is nobody yet: then the first start makes somebody.
pub async fn nobody(db: &mut MySqlConnection) -> Result<bool> {
    let any = sqlx::query_scalar!("SELECT id FROM person LIMIT 1")
        .fetch_optional(db)
        .await?;
    Ok(any.is_none())
}

/// Who is asked for where nobody signs in.
pub async fn at_home(db: &mut MySqlConnection) -> Result<Option<Person>> {
    let row = sqlx::query_as!(
        PersonRow,
        "SELECT p.id, p.name, p.initials, p.password_hash, p.language, p.kitchen_id
         FROM site s JOIN person p ON p.id = s.home_person WHERE s.id = 1"
    )
    .fetch_optional(db)
    .await?;
    Ok(row.map(Into::into))
}

/// Makes somebody the one who is asked for where nobody signs in, unless there is one.
pub async fn be_at_home(db: &mut MySqlConnection, person: PersonId) -> Result<()> {
    sqlx::query!(
        "UPDATE site s LEFT JOIN person p ON p.id = s.home_person SET s.home_person = ? WHERE s.id = 1 AND p.id IS NULL",
        person.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// The name of whoever owns a kitchen from before there were people.
const OWNER: &str = "Owner";

/// Gives every kitchen without people an owner: the one at home, or somebody who has no password yet.
pub async fn give_owners(db: &mut MySqlConnection, now: Timestamp) -> Result<()> {
    let bare = sqlx::query_scalar!(
        "SELECT k.id FROM kitchen k WHERE NOT EXISTS (SELECT 1 FROM member m WHERE m.kitchen_id = k.id) ORDER BY k.id"
    )
    .fetch_all(&mut *db)
    .await?;
    if bare.is_empty() {
        return Ok(());
    }
    let owner = match at_home(db).await? {
        Some(p) => p.id,
        None => match add(db, OWNER, None, "", now).await? {
            Some(id) => id,
            None => by_name(db, OWNER)
                .await?
                .map(|p| p.id)
                .ok_or_else(|| StoreError::Unreadable("no owner could be made".into()))?,
        },
    };
    be_at_home(db, owner).await?;
    for id in bare {
        join(db, KitchenId(id), owner, Role::Owner, now).await?;
    }
    Ok(())
}

/// Remembers the language that somebody chose.
pub async fn set_language(
    db: &mut MySqlConnection,
    person: PersonId,
    language: &str,
) -> Result<()> {
    sqlx::query!(
        "UPDATE person SET language = ? WHERE id = ?",
        language,
        person.0
    )
    .execute(db)
    .await?;
    Ok(())
}

pub async fn set_password(
    db: &mut MySqlConnection,
    person: PersonId,
    hash: &str,
    now: Timestamp,
) -> Result<()> {
    sqlx::query!(
        "UPDATE person SET password_hash = ?, password_at = ? WHERE id = ?",
        hash,
        instant::to_row(now),
        person.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Gives somebody another name; `false` when it is another's.
pub async fn rename(db: &mut MySqlConnection, person: PersonId, name: &str) -> Result<bool> {
    let done = sqlx::query!(
        "UPDATE person SET name = ?, name_key = ?, initials = ? WHERE id = ?",
        name,
        name_key(name),
        initials(name),
        person.0
    )
    .execute(db)
    .await;
    match done {
        Ok(_) => Ok(true),
        Err(e) if is_duplicate(&e) => Ok(false),
        Err(e) => Err(e.into()),
    }
}

/// Remembers the kitchen that somebody is in.
pub async fn go_into(db: &mut MySqlConnection, person: PersonId, kitchen: KitchenId) -> Result<()> {
    sqlx::query!(
        "UPDATE person SET kitchen_id = ? WHERE id = ?",
        kitchen.0,
        person.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// Takes a person into a kitchen, or gives them another role there.
pub async fn join(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    person: PersonId,
    role: Role,
    now: Timestamp,
) -> Result<()> {
    sqlx::query!(
        "INSERT INTO member (kitchen_id, person_id, role, since) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE role = VALUES(role)",
        kitchen.0,
        person.0,
        role.key(),
        instant::to_row(now)
    )
    .execute(&mut *db)
    .await?;
    sqlx::query!(
        "UPDATE person SET kitchen_id = ? WHERE id = ? AND kitchen_id IS NULL",
        kitchen.0,
        person.0
    )
    .execute(db)
    .await?;
    Ok(())
}

/// What became of a change among the members.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Changed {
    Done,
    /// A kitchen keeps an owner: nothing was changed.
    LastOwner,
    /// Nobody of that number is in it.
    Nobody,
}

/// Gives a member another role, or with `None` takes them out. A kitchen keeps an owner.
pub async fn change(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    person: PersonId,
    role: Option<Role>,
) -> Result<Changed> {
    let mut tx = db.begin().await?;
    let all = sqlx::query!(
        "SELECT person_id, role FROM member WHERE kitchen_id = ? FOR UPDATE",
        kitchen.0
    )
    .fetch_all(&mut *tx)
    .await?;
    let owner = Role::Owner.key();
    if !all.iter().any(|m| m.person_id == person.0) {
        return Ok(Changed::Nobody);
    }
    let others_own = all
        .iter()
        .any(|m| m.person_id != person.0 && m.role == owner);
    if role != Some(Role::Owner) && !others_own {
        return Ok(Changed::LastOwner);
    }
    match role {
        Some(role) => {
            sqlx::query!(
                "UPDATE member SET role = ? WHERE kitchen_id = ? AND person_id = ?",
                role.key(),
                kitchen.0,
                person.0
            )
            .execute(&mut *tx)
            .await?;
        }
        None => {
            sqlx::query!(
                "DELETE FROM member WHERE kitchen_id = ? AND person_id = ?",
                kitchen.0,
                person.0
            )
            .execute(&mut *tx)
            .await?;
            sqlx::query!(
                "UPDATE person SET kitchen_id = (SELECT MIN(m.kitchen_id) FROM member m WHERE m.person_id = person.id)
                 WHERE id = ? AND kitchen_id = ?",
                person.0,
                kitchen.0
            )
            .execute(&mut *tx)
            .await?;
        }
    }
    tx.commit().await?;
    Ok(Changed::Done)
}

/// The people of a kitchen, the first to come first.
pub async fn members(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<Vec<Member>> {
    let rows = sqlx::query!(
        r#"SELECT p.id, p.name, p.initials, m.role, m.since, p.password_hash IS NOT NULL AS "has_password: bool"
           FROM member m JOIN person p ON p.id = m.person_id WHERE m.kitchen_id = ? ORDER BY m.since, p.id LIMIT 500"#,
        kitchen.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(Member {
                person: PersonId(r.id),
                name: r.name,
                initials: r.initials,
                role: role_of(&r.role)?,
                since: instant::from_row(r.since),
                has_password: r.has_password,
            })
        })
        .collect()
}

/// How many may write in a kitchen: its people, tablets, crews and programs.
pub async fn company(db: &mut MySqlConnection, kitchen: KitchenId) -> Result<u64> {
    let n = sqlx::query_scalar!(
        r#"SELECT (SELECT COUNT(*) FROM member WHERE kitchen_id = ?)
                + (SELECT COUNT(*) FROM pass WHERE kitchen_id = ? AND kind IN ('device', 'crew', 'token')) AS "n: i64""#,
        kitchen.0,
        kitchen.0
    )
    .fetch_one(db)
    .await?;
    Ok(n.unwrap_or(0) as u64)
}

/// The kitchens of a person, by name.
pub async fn kitchens(db: &mut MySqlConnection, person: PersonId) -> Result<Vec<Belonging>> {
    let rows = sqlx::query!(
        "SELECT k.id, k.name, m.role FROM member m JOIN kitchen k ON k.id = m.kitchen_id WHERE m.person_id = ?
         ORDER BY k.name, k.id LIMIT 200",
        person.0
    )
    .fetch_all(db)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(Belonging {
                kitchen: KitchenId(r.id),
                name: r.name,
                role: role_of(&r.role)?,
            })
        })
        .collect()
}
