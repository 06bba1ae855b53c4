//! What the page of the people shows.

use crate::App;
use crate::rooms::entrance::TRUST;
use crate::shared::error::AppError;
use crate::shared::format::{self, day_hm};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop};
use crate::shared::theme::Theme;
use crate::shared::tongue::{day_of, phrase, say};
use askama::Template;
use craft::keyed::Keyed;
use craft::people::{Lasting, Right, Role};
use jiff::Timestamp;
use store::people::pass::{self, PassKind};
use store::people::{person, session};
use tower_sessions::Session;

/// What was just given away, or why not.
#[derive(Debug, Clone, Default)]
pub struct GivenAway {
    pub what: String,
    pub address: Option<String>,
    pub qr: Option<String>,
    /// A program's token.
    pub token: Option<String>,
    pub only_here: Option<String>,
    pub ends: String,
    pub error: Option<(Where, String)>,
}

/// Beside which field a sentence stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Where {
    Tablet,
    Token,
    Password,
}

impl GivenAway {
    /// Nothing was given away, and beside which field it says why.
    pub fn wrong(at: Where, sentence: impl Into<String>) -> GivenAway {
        GivenAway {
            error: Some((at, sentence.into())),
            ..GivenAway::default()
        }
    }
}

pub struct MemberView {
    pub id: u64,
    pub name: String,
    pub initials: String,
    /// Key and name of each role, with whether it is theirs.
    pub roles: Vec<(&'static str, String, bool)>,
    pub role: String,
    pub since: String,
    pub may_sign_in: bool,
    pub own: bool,
}

pub struct PassView {
    pub id: u64,
    pub what: String,
    /// By whom, until when, and of tokens when it was used last.
    pub said: String,
}

pub struct SessionView {
    pub number: u64,
    pub agent: String,
    pub seen: String,
    pub own: bool,
}

pub struct KitchenView {
    pub id: u64,
    pub name: String,
    pub role: String,
    pub here: bool,
}

#[derive(Template)]
#[template(path = "rooms/people/page.html")]
pub struct PeoplePage {
    pub frame: Frame,
    pub kitchen: String,
    pub members: Vec<MemberView>,
    pub passes: Vec<PassView>,
    pub sessions: Vec<SessionView>,
    pub kitchens: Vec<KitchenView>,
    /// Key, name and what it may, of the roles that an owner gives.
    pub roles: Vec<(&'static str, String, String)>,
    /// The same, of those that an owner gives to programs.
    pub program_roles: Vec<(&'static str, String, String)>,
    /// Key and name of how long a token may last.
    pub token_ends: Vec<(&'static str, String)>,
    pub owns: bool,
    pub signs_in: bool,
    /// A person, not a tablet or a crew.
    pub person: bool,
    pub has_password: bool,
    pub me: String,
    pub given: Option<GivenAway>,
    /// What a tablet compares before it trusts this server, and where; nothing where it need not.
    pub trust: Option<(String, String)>,
    pub tablet_error: Option<String>,
    pub token_error: Option<String>,
    pub password_error: Option<String>,
}

/// A browser in a few words: what it calls itself is long.
fn browser(agent: &str) -> String {
    let kinds = [
        ("Firefox/", "Firefox"),
        ("Edg/", "Edge"),
        ("Chrome/", "Chrome"),
        ("Safari/", "Safari"),
    ];
    let systems = [
        ("Android", "Android"),
        ("iPad", "iPad"),
        ("iPhone", "iPhone"),
        ("Windows", "Windows"),
        ("Mac OS", "Mac"),
        ("Linux", "Linux"),
    ];
    let found =
        |all: &[(&str, &'static str)]| all.iter().find(|(k, _)| agent.contains(k)).map(|(_, n)| *n);
    match (found(&kinds), found(&systems)) {
        (Some(k), Some(s)) => say!("people-on", k = k, s = s),
        (Some(k), None) => k.into(),
        (None, Some(s)) => say!("people-a-browser-on", s = s),
        (None, None) => phrase("people-a-browser").into(),
    }
}

impl PeoplePage {
    pub async fn of(
        app: &App,
        theme: Theme,
        session: &Session,
        here: &RequestKitchen,
        given: Option<GivenAway>,
    ) -> Result<PeoplePage, AppError> {
        let now = Timestamp::now();
        let owns = here.may(Right::Own);
        let mut db = app.db.acquire().await?;
        let day = |t| day_hm(&here.local(t));
        let members = person::members(&mut db, here.id()).await?;
        let me = here.asker.person;
        let has_password = members
            .iter()
            .any(|m| Some(m.person) == me && m.has_password);
        let members = members.into_iter().map(|m| MemberView {
            id: m.person.0,
            own: me == Some(m.person),
            roles: Role::OF_PEOPLE
                .into_iter()
                .map(|r| (r.key(), here.words(&r.named()), r == m.role))
                .collect(),
            role: here.words(&m.role.named()),
            since: format::day(&here.local(m.since)),
            may_sign_in: m.has_password,
            name: m.name,
            initials: m.initials,
        });
        let members = members.collect();
        let passes = match owns {
            true => pass::of_kitchen(&mut db, here.id(), now).await?,
            false => vec![],
        };
        let passes = passes.into_iter().map(|p| PassView {
            id: p.id.0,
            what: match p.kind {
                PassKind::Invitation => {
                    say!("people-invitation-as", role = here.words(&p.role.named()))
                }
                PassKind::Crew => say!(
                    "people-of",
                    role = here.words(&p.role.named()),
                    name = p.evening().map_or(p.name.clone(), day_of)
                ),
                PassKind::Device => say!("people-a-tablet", name = p.name),
                PassKind::Password => say!("people-new-password-for", name = p.name),
                PassKind::Token => {
                    say!(
                        "people-token-of",
                        name = p.name,
                        role = here.words(&p.role.named())
                    )
                }
            },
            said: match (p.kind, p.used_at) {
                (PassKind::Token, Some(used)) => say!(
                    "people-by-ends-used",
                    by = p.made_by,
                    ends = day(p.ends_at),
                    used = day(used)
                ),
                _ => say!("people-by-ends", by = p.made_by, ends = day(p.ends_at)),
            },
        });
        let passes = passes.collect();
        let (mut sessions, mut kitchens) = (vec![], vec![]);
        if let Some(me) = me {
            let secret = session.id().map(|id| id.to_string());
            sessions = session::of_person(&mut db, me, secret.as_deref(), now).await?;
            kitchens = person::kitchens(&mut db, me).await?;
        }
        let roles = |all: &[Role]| {
            let one = |r: &Role| (r.key(), here.words(&r.named()), here.words(&r.explained()));
            all.iter().map(one).collect()
        };
        let says = |at: Where| {
            let error = given.as_ref().and_then(|g| g.error.as_ref());
            error.filter(|(w, _)| *w == at).map(|(_, s)| s.clone())
        };
        Ok(PeoplePage {
            frame: Frame::of(
                here,
                theme,
                Stop::Bench,
                phrase("entrance-people"),
                None,
                "/people",
            ),
            kitchen: here.kitchen.name.clone(),
            members,
            passes,
            sessions: sessions
                .into_iter()
                .map(|s| SessionView {
                    number: s.number,
                    agent: browser(&s.agent),
                    seen: day(s.seen_at),
                    own: s.own,
                })
                .collect(),
            kitchens: kitchens
                .into_iter()
                .map(|b| KitchenView {
                    id: b.kitchen.0,
                    here: b.kitchen == here.id(),
                    role: here.words(&b.role.named()),
                    name: b.name,
                })
                .collect(),
            roles: roles(&Role::OF_PEOPLE),
            program_roles: roles(&Role::OF_PROGRAMS),
            token_ends: Lasting::OF_TOKENS
                .into_iter()
                .map(|l| (l.key(), say!("people-days", days = l.days())))
                .collect(),
            owns,
            signs_in: app.signs_in,
            person: me.is_some(),
            has_password,
            me: here.asker.whom.name.clone(),
            trust: app
                .site
                .trust()
                .map(|t| (app.site.in_the_clear(TRUST), t.fingerprint())),
            tablet_error: says(Where::Tablet),
            token_error: says(Where::Token),
            password_error: says(Where::Password),
            given: given.filter(|g| g.error.is_none()),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::browser;

    #[test]
    fn a_browser_is_said_in_a_few_words() {
        let chrome = "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0 Safari/537.36";
        assert_eq!(browser(chrome), "Chrome on Linux");
        let tablet =
            "Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/156.0 Safari/537.36";
        assert_eq!(browser(tablet), "Chrome on Android");
        assert_eq!(browser("curl/8"), "A browser");
    }
}
