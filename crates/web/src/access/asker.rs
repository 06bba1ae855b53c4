//! Who asks: a person, a tablet or a crew, in which kitchen and with which role.

use super::visit::Visit;
use crate::shared::tongue;
use craft::keyed::Keyed;
use craft::people::{Lasting, Right, Role, evening};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use moka::sync::Cache;
use speech::Language;
use std::sync::Arc;
use std::time::Duration;
use store::people::PersonId;
use store::people::pass::{self, Pass, PassId, PassKind};
use store::people::person::{self, Person};
use store::{KitchenId, MySqlConnection, Whom};

/// Somebody who came in.
#[derive(Debug, Clone, PartialEq)]
pub struct Asker {
    /// None for tablets and crews.
    pub person: Option<PersonId>,
    /// Who it is, as it stands beside what they do.
    pub whom: Whom,
    pub initials: String,
    /// The language that they chose; else it is as their browser says.
    pub language: Option<Language>,
    /// Where they are and as what; none while they belong to no kitchen.
    pub place: Option<AskerPlace>,
    /// Of how many kitchens they are.
    pub kitchens: usize,
    /// Nobody else writes in this kitchen: who did what goes without saying.
    pub alone: bool,
    /// Whether they came by a session, and can sign out.
    pub by_session: bool,
    /// On a shared tablet: whose hands it is in, and whose it may be.
    pub hands: Option<SharedHands>,
}

/// Whose hands a shared tablet is in.
#[derive(Debug, Clone, PartialEq)]
pub struct SharedHands {
    /// Their name; empty while nobody said so.
    pub now: String,
    /// Who else may take it: number, name and initials.
    pub others: Vec<(u64, String, String)>,
}

/// A kitchen with the role that somebody has there.
#[derive(Debug, Clone, PartialEq)]
pub struct AskerPlace {
    pub kitchen: KitchenId,
    pub role: Role,
    /// The batches that a crew sees; there is at least one.
    pub only: Option<Vec<String>>,
}

/// A person in the kitchen that they chose, else in the one that they were in last.
pub async fn of_person(
    db: &mut MySqlConnection,
    p: Person,
    chosen: Option<KitchenId>,
) -> store::Result<Asker> {
    let all = person::kitchens(db, p.id).await?;
    let of = |k: Option<KitchenId>| all.iter().find(|b| Some(b.kitchen) == k);
    let place = of(chosen).or_else(|| of(p.kitchen)).or(all.first());
    let alone = match place {
        Some(b) => person::company(db, b.kitchen).await? < 2,
        None => true,
    };
    Ok(Asker {
        person: Some(p.id),
        whom: Whom {
            person: Some(p.id),
            name: p.name,
        },
        initials: p.initials,
        language: Language::from_key(&p.language),
        place: place.map(|b| AskerPlace {
            kitchen: b.kitchen,
            role: b.role,
            only: None,
        }),
        kitchens: all.len(),
        alone,
        by_session: false,
        hands: None,
    })
}

/// Who a session belongs to; nobody when it outlived its time, its person or its pass.
pub async fn of_visit(
    db: &mut MySqlConnection,
    v: &Visit,
    now: Timestamp,
) -> store::Result<Option<Asker>> {
    let lasts = match v.pass {
        Some(_) => Lasting::DeviceSession,
        None => Lasting::Session,
    };
    if now.as_millisecond() - v.began_ms > 1000 * i64::from(lasts.seconds()) {
        return Ok(None);
    }
    if let Some(id) = v.person {
        let Some(p) = person::by_id(db, PersonId(id)).await? else {
            return Ok(None);
        };
        let asker = of_person(db, p, v.kitchen.map(KitchenId)).await?;
        return Ok(Some(Asker {
            by_session: true,
            ..asker
        }));
    }
    let Some(id) = v.pass else { return Ok(None) };
    let Some(pass) = pass::by_id(db, PassId(id), now).await? else {
        return Ok(None);
    };
    let Some(kitchen) = pass.kitchen else {
        return Ok(None);
    };
    let only = match pass.kind {
        PassKind::Crew => Some(of_crew(db, kitchen, &pass).await?),
        _ => None,
    };
    if only.as_ref().is_some_and(Vec::is_empty) {
        return Ok(None);
    }
    let hands = match pass.kind {
        PassKind::Device => Some(shared(db, kitchen, v).await?),
        _ => None,
    };
    // A tablet's own name, and whose hands it is in.
    let whom = match &v.hands {
        Some(h) => Whom {
            person: h.person.map(PersonId),
            name: h.name.clone(),
        },
        None => Whom {
            person: None,
            name: pass.name.clone(),
        },
    };
    Ok(Some(Asker {
        person: None,
        initials: craft::people::initials(&whom.name),
        whom,
        language: None,
        place: Some(AskerPlace {
            kitchen,
            role: pass.role,
            only,
        }),
        kitchens: 1,
        alone: false,
        by_session: true,
        hands,
    }))
}

/// No evening has more batches.
const MOST_OF_AN_EVENING: u32 = 50;

/// The batches that a crew's link opens: the one that it was made on, or those of its evening as they are planned now.
async fn of_crew(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    pass: &Pass,
) -> store::Result<Vec<String>> {
    if let Some(b) = pass.batch {
        return Ok(store::batch::code_of(db, kitchen, b)
            .await?
            .into_iter()
            .collect());
    }
    let Some(k) = store::kitchen::by_id(db, kitchen).await? else {
        return Ok(vec![]);
    };
    let zone = TimeZone::get(&k.usual.time_zone).unwrap_or(TimeZone::UTC);
    match pass.evening().and_then(|day| evening(day, &zone)) {
        Some(of) => store::batch::served_between(db, kitchen, of, MOST_OF_AN_EVENING).await,
        None => Ok(vec![]),
    }
}

/// The program whose token this is; nobody when it ended, or never was one.
pub async fn of_token(
    db: &mut MySqlConnection,
    secret: &str,
    now: Timestamp,
) -> store::Result<Option<Asker>> {
    let Some(pass) = pass::by_secret(db, PassKind::Token, secret, now).await? else {
        return Ok(None);
    };
    let place = pass.kitchen.filter(|_| pass.role.is_program());
    let Some(kitchen) = place else {
        return Ok(None);
    };
    pass::used(db, pass.id, now).await?;
    Ok(Some(Asker {
        person: None,
        initials: craft::people::initials(&pass.name),
        whom: Whom {
            person: None,
            name: pass.name,
        },
        language: None,
        place: Some(AskerPlace {
            kitchen,
            role: pass.role,
            only: None,
        }),
        kitchens: 1,
        alone: false,
        by_session: false,
        hands: None,
    }))
}

/// Whose hands a tablet is in, and whose it may be: those who work here.
async fn shared(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    v: &Visit,
) -> store::Result<SharedHands> {
    let now = v.hands.as_ref();
    let all = person::members(db, kitchen).await?;
    let others = all
        .into_iter()
        .filter(|m| m.role.may(Right::Tap) && now.and_then(|h| h.person) != Some(m.person.0))
        .map(|m| (m.person.0, m.name, m.initials));
    Ok(SharedHands {
        others: others.collect(),
        now: now.map_or(String::new(), |h| h.name.clone()),
    })
}

impl Asker {
    /// Nobody in particular, who may do all in one kitchen: what the program does itself.
    pub fn of_the_program(kitchen: KitchenId) -> Asker {
        Asker {
            person: None,
            whom: Whom::default(),
            initials: String::new(),
            language: None,
            place: Some(AskerPlace {
                kitchen,
                role: Role::Owner,
                only: None,
            }),
            kitchens: 1,
            alone: false,
            by_session: false,
            hands: None,
        }
    }
    /// The language that they read.
    pub fn reads(&self) -> Language {
        self.language.unwrap_or_else(tongue::language)
    }
    /// What they are in their kitchen.
    pub fn role(&self) -> Option<Role> {
        self.place.as_ref().map(|p| p.role)
    }
}

/// By what somebody asks.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum AskedAs {
    /// The one at home, and in which kitchen the page stood that asks.
    Home(Option<KitchenId>),
    /// A session, and the same.
    Session(i128, Option<KitchenId>),
    /// The hash of a program's token.
    Token(Vec<u8>),
}

/// So long it is believed who asks: a role that was taken away elsewhere ends within it.
const FRESH: Duration = Duration::from_secs(5);
/// Browsers that are remembered.
const MOST: u64 = 4096;

/// Who asked a moment ago.
#[derive(Debug)]
pub struct Askers(Cache<AskedAs, Arc<Asker>>);

impl Default for Askers {
    fn default() -> Self {
        Askers(
            Cache::builder()
                .max_capacity(MOST)
                .time_to_live(FRESH)
                .build(),
        )
    }
}

impl Askers {
    pub fn get(&self, asked: &AskedAs) -> Option<Arc<Asker>> {
        self.0.get(asked)
    }
    pub fn put(&self, asked: AskedAs, asker: &Arc<Asker>) {
        self.0.insert(asked, asker.clone());
    }
    /// Something about people was changed here: all of them are looked up again.
    pub fn forget(&self) {
        self.0.invalidate_all();
    }
}
