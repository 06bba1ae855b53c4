//! The entrance: signing in and out, coming by a link, a tablet on the wall.

mod by_link;
mod tablet;
mod trust;

use crate::App;
use crate::access::arrive::{agent, welcome};
use crate::access::doors::{Asks, Doors};
use crate::access::gate::SIGN_IN;
use crate::access::secret::is_right;
use crate::access::visit::Visit;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::guard::Address;
use crate::shared::layout::{Frame, page};
use crate::shared::theme::{Theme, own_path};
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Query, State};
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Redirect, Response};
use craft::people::{Lasting, Tries, name_key};
use jiff::Timestamp;
use std::collections::HashMap;
use store::people::person::{self, Person};
use store::people::tries;
use tower_sessions::Session;
pub use trust::TRUST;

pub fn routes() -> Doors {
    Doors::new()
        .get(Asks::Nothing, SIGN_IN, show)
        .post(Asks::Nothing, SIGN_IN, sign_in)
        .post(Asks::Nothing, "/sign-out", sign_out)
        .merge(by_link::routes())
        .merge(tablet::routes())
        .merge(trust::routes())
}

/// What a form held when its sign-in ended: where it goes, and its fields.
#[derive(Debug, Clone, Default)]
pub struct HeldForm {
    pub action: String,
    pub fields: Vec<(String, String)>,
}

/// Before the names of fields that are held over a sign-in.
const HELD: &str = "held.";

impl HeldForm {
    fn of(typed: FormData) -> HeldForm {
        let action = own_path(typed.text("held-action")).to_string();
        let held = typed.into_entries().into_iter();
        HeldForm {
            action,
            fields: held
                .filter_map(|(k, v)| Some((k.strip_prefix(HELD)?.to_string(), v)))
                .collect(),
        }
    }
}

#[derive(Template)]
#[template(path = "rooms/entrance/sign_in.html")]
struct SignInPage {
    frame: Frame,
    name: String,
    back: String,
    error: Option<String>,
    held: HeldForm,
}

/// Signed in: what was typed before is sent with one tap.
#[derive(Template)]
#[template(path = "rooms/entrance/go_on.html")]
struct GoOnPage {
    frame: Frame,
    name: String,
    held: HeldForm,
}

async fn show(
    State(app): State<App>,
    theme: Theme,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    if !app.signs_in {
        return Ok(Redirect::to("/").into_response());
    }
    let back = own_path(query.get("back").map_or("/", String::as_str));
    let html = page(&SignInPage {
        frame: Frame::entrance(theme, phrase("entrance-sign-in")),
        name: String::new(),
        back: back.into(),
        error: None,
        held: HeldForm::default(),
    })?;
    Ok(html.into_response())
}

/// A password is not looked at beyond this.
const LONGEST_TYPED: usize = 1024;

/// What became of a name and a password.
pub enum NameTried {
    Right(Box<Person>),
    /// A sentence that does not say which of both was wrong.
    Wrong(String),
}

/// Looks whether a name and a password belong together; wrong tries are counted by name and by address.
pub async fn tried(
    app: &App,
    (name, password): (&str, &str),
    address: &str,
    now: Timestamp,
) -> Result<NameTried, AppError> {
    let name = name_key(name);
    let counted = [(Tries::OfName, name.as_str()), (Tries::OfAddress, address)];
    let mut db = app.db.acquire().await?;
    let mut wait = 0;
    for (of, what) in counted {
        wait = wait.max(tries::waits_s(&mut db, of, what, now).await?);
    }
    if wait > 0 {
        tracing::warn!(wait, "too many wrong passwords");
        return Ok(NameTried::Wrong(say!(
            "entrance-too-many-wrong-tries-try",
            wait = wait
        )));
    }
    let found = person::by_name(&mut db, &name).await?;
    drop(db);
    let kept = found.as_ref().and_then(|p| p.password_hash.clone());
    let right = password.len() <= LONGEST_TYPED && is_right(password.into(), kept).await?;
    let mut db = app.db.acquire().await?;
    match found.filter(|_| right) {
        Some(p) => {
            tries::forgive(&mut db, Tries::OfName, &name).await?;
            Ok(NameTried::Right(Box::new(p)))
        }
        None => {
            for (of, what) in counted {
                tries::count(&mut db, of, what, now).await?;
            }
            tracing::warn!("a wrong name or password");
            Ok(NameTried::Wrong(
                phrase("entrance-this-name-and-this-password").into(),
            ))
        }
    }
}

async fn sign_in(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    headers: HeaderMap,
    address: Address,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let name = typed.text("name").to_string();
    let back = own_path(typed.text("back")).to_string();
    let now = Timestamp::now();
    let password = typed.raw("password").to_string();
    let p = match tried(&app, (&name, &password), &address.0, now).await? {
        NameTried::Right(p) => p,
        NameTried::Wrong(sentence) => {
            let html = page(&SignInPage {
                frame: Frame::entrance(theme, phrase("entrance-sign-in")),
                name,
                back,
                error: Some(sentence),
                held: HeldForm::of(typed),
            })?;
            return Ok((StatusCode::UNPROCESSABLE_ENTITY, html).into_response());
        }
    };
    let visit = Visit::of_person(p.id, p.kitchen, agent(&headers), now);
    welcome(&app, &session, visit, Lasting::IdleSession).await?;
    let held = HeldForm::of(typed);
    if held.fields.is_empty() {
        return Ok(Redirect::to(&back).into_response());
    }
    let html = page(&GoOnPage {
        frame: Frame::entrance(theme, phrase("entrance-go-on")),
        name: p.name,
        held,
    })?;
    Ok(html.into_response())
}

async fn sign_out(State(app): State<App>, session: Session) -> Result<Response, AppError> {
    session.flush().await?;
    app.askers.forget();
    Ok(Redirect::to(SIGN_IN).into_response())
}
