//! People at the console: who there is, and a new password for somebody who lost theirs.

use anyhow::{Context, Result, bail};
use craft::keyed::Keyed;
use craft::people::{Lasting, Role};
use jiff::{SignedDuration, Timestamp};
use speech::Language;
use store::people::pass::{self, NewPass, PassKind};
use store::people::person::{self, Person};
use store::{Db, MySqlConnection};

#[derive(clap::Subcommand)]
pub enum PeopleAct {
    /// Prints who there is.
    List,
    /// Chooses the language that somebody reads.
    Language {
        /// As they sign in.
        name: String,
        /// en, it, or long: English made longer, to find words that a page cuts.
        language: String,
    },
    /// Prints the end of an address with which somebody sets a new password, once and within a day.
    Reset {
        /// As they sign in.
        name: String,
    },
}

async fn called(c: &mut MySqlConnection, name: &str) -> Result<Person> {
    match person::by_name(c, name).await? {
        Some(p) => Ok(p),
        None => bail!("nobody is called {name}; slow-rise people list says who there is"),
    }
}

pub async fn run(db: &Db, act: PeopleAct) -> Result<()> {
    store::migrate(db).await?;
    let mut c = db.acquire().await?;
    match act {
        PeopleAct::List => {
            for p in person::all(&mut c).await? {
                let signs_in = if p.password_hash.is_some() {
                    ""
                } else {
                    " (no password yet)"
                };
                println!("{}{signs_in}", p.name);
            }
        }
        PeopleAct::Language { name, language } => {
            let p = called(&mut c, &name).await?;
            let language = Language::from_key(&language)
                .with_context(|| format!("there are no texts in {language}"))?;
            person::set_language(&mut c, p.id, language.key()).await?;
            println!("{} reads {}", p.name, language.own_name());
        }
        PeopleAct::Reset { name } => {
            let p = called(&mut c, &name).await?;
            let now = Timestamp::now();
            let lasts = SignedDuration::from_secs(Lasting::PasswordLink.seconds().into());
            let new = NewPass {
                kind: PassKind::Password,
                kitchen: None,
                person: Some(p.id),
                role: Role::Looker,
                batch: None,
                name: &p.name,
                made_by: "the console",
                ends_at: now.checked_add(lasts).context("a day from now")?,
            };
            let secret = web::access::secret::fresh();
            pass::make(&mut c, &new, &secret, now).await?;
            println!(
                "{} opens this address of the server within a day, once:",
                p.name
            );
            println!("/password/{secret}");
        }
    }
    Ok(())
}
