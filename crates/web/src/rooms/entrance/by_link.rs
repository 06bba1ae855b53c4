//! Coming by a link: an invitation, a crew's evening, a new password. A link that is looked at opens nothing yet.

use super::{NameTried, tried};
use crate::App;
use crate::access::arrive::{agent, welcome};
use crate::access::doors::{Asks, Doors};
use crate::access::gate;
use crate::access::secret::hashed;
use crate::access::visit::{self, Hands, Visit};
use crate::shared::error::{AppError, ErrorSaid};
use crate::shared::form::FormData;
use crate::shared::format::plain_reader;
use crate::shared::guard::Address;
use crate::shared::layout::{Frame, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::{day_of, phrase};
use askama::Template;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Redirect, Response};
use craft::keyed::Keyed;
use craft::people::{Lasting, check_name, check_password};
use craft::refusal::FieldError;
use jiff::Timestamp;
use store::people::pass::{self, Pass, PassKind};
use store::people::person;
use store::people::session;
use store::{KitchenId, MySqlConnection};
use tower_sessions::Session;

pub fn routes() -> Doors {
    Doors::new()
        .get(Asks::Nothing, "/join/{secret}", show_join)
        .post(Asks::Nothing, "/join/{secret}", join)
        .get(Asks::Nothing, "/crew/{secret}", show_crew)
        .post(Asks::Nothing, "/crew/{secret}", begin_crew)
        .get(Asks::Nothing, "/password/{secret}", show_password)
        .post(Asks::Nothing, "/password/{secret}", set_password)
}

/// A page of the entrance that a link leads to.
#[derive(Template)]
#[template(path = "rooms/entrance/by_link.html")]
struct LinkPage {
    frame: Frame,
    kind: PassKind,
    /// The address that its form is sent to.
    action: String,
    kitchen: String,
    role: String,
    may: String,
    made_by: String,
    batch: String,
    name: String,
    /// Who is signed in here already, and may simply join.
    signed_in: Option<String>,
    name_error: Option<String>,
    password_error: Option<String>,
}

fn over() -> Response {
    ErrorSaid::new(
        phrase("entrance-this-link-has-ended"),
        phrase("entrance-links-end-by-themselves-and"),
    )
    .with(StatusCode::NOT_FOUND)
}

async fn kitchen_name(db: &mut MySqlConnection, id: Option<KitchenId>) -> store::Result<String> {
    let Some(id) = id else {
        return Ok(String::new());
    };
    let k = store::kitchen::by_id(db, id).await?;
    Ok(k.map(|k| k.name).unwrap_or_default())
}

async fn link_page(
    app: &App,
    theme: Theme,
    p: &Pass,
    action: String,
) -> Result<LinkPage, AppError> {
    let mut db = app.db.acquire().await?;
    let batch = match (p.kitchen, p.batch) {
        (Some(k), Some(b)) => store::batch::code_of(&mut db, k, b).await?,
        _ => None,
    };
    let name = match p.person {
        Some(id) => person::by_id(&mut db, id).await?.map(|p| p.name),
        None => None,
    };
    let reader = plain_reader();
    Ok(LinkPage {
        frame: Frame::entrance(theme, phrase("entrance-come-in")),
        kind: p.kind,
        action,
        kitchen: kitchen_name(&mut db, p.kitchen).await?,
        role: reader.words(&p.role.named()),
        may: reader.words(&p.role.explained()),
        made_by: p.made_by.clone(),
        batch: match p.evening() {
            Some(day) => day_of(day),
            None => batch.unwrap_or_default(),
        },
        name: name.unwrap_or_default(),
        signed_in: None,
        name_error: None,
        password_error: None,
    })
}

async fn found(app: &App, kind: PassKind, secret: &str) -> Result<Option<Pass>, AppError> {
    let mut db = app.db.acquire().await?;
    let p = pass::by_secret(&mut db, kind, secret, Timestamp::now()).await?;
    Ok(p.filter(|p| p.used_at.is_none() || kind == PassKind::Crew))
}

/// The page of a link, while it opens something.
async fn shown(
    app: &App,
    theme: Theme,
    (kind, below): (PassKind, &str),
    secret: &str,
) -> Result<Response, AppError> {
    let Some(p) = found(app, kind, secret).await? else {
        return Ok(over());
    };
    let view = link_page(app, theme, &p, format!("/{below}/{secret}")).await?;
    Ok(page(&view)?.into_response())
}

fn says(errors: &[FieldError], field: &str) -> Option<String> {
    let one = errors.iter().find(|e| e.field == field)?;
    Some(plain_reader().say(&one.message))
}

async fn signed_in(app: &App, session: &Session) -> Result<Option<String>, AppError> {
    let asker = gate::who(app, Some(session), None, Timestamp::now()).await?;
    Ok(asker
        .filter(|a| a.person.is_some())
        .map(|a| a.whom.name.clone()))
}

async fn show_join(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    Path(secret): Path<String>,
) -> Result<Response, AppError> {
    let Some(p) = found(&app, PassKind::Invitation, &secret).await? else {
        return Ok(over());
    };
    let view = LinkPage {
        signed_in: signed_in(&app, &session).await?,
        ..link_page(&app, theme, &p, format!("/join/{secret}")).await?
    };
    Ok(page(&view)?.into_response())
}

/// Joins the kitchen: as who is signed in, under a name that there is with its password, or as somebody new.
async fn join(
    State(app): State<App>,
    theme: Theme,
    (session, headers): (Session, HeaderMap),
    address: Address,
    Path(secret): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let now = Timestamp::now();
    let typed = FormData::parse(&body);
    let Some((p, kitchen)) = found(&app, PassKind::Invitation, &secret)
        .await?
        .and_then(|p| p.kitchen.map(|k| (p, k)))
    else {
        return Ok(over());
    };
    let known = gate::who(&app, Some(&session), None, now).await?;
    let known = known
        .and_then(|a| a.person)
        .filter(|_| typed.has("as_known"));
    let (who, fresh) = match known {
        Some(id) => (id, false),
        None => match newcomer(&app, &typed, &address, now).await? {
            Ok(id) => (id, true),
            Err(errors) => {
                let view = LinkPage {
                    name: typed.text("name").into(),
                    signed_in: signed_in(&app, &session).await?,
                    name_error: says(&errors, "name"),
                    password_error: says(&errors, "password"),
                    ..link_page(&app, theme, &p, format!("/join/{secret}")).await?
                };
                return Ok((StatusCode::UNPROCESSABLE_ENTITY, page(&view)?).into_response());
            }
        },
    };
    let mut db = app.db.begin().await?;
    if !pass::use_up(&mut db, p.id, now).await? {
        return Ok(over());
    }
    // Who is in it already keeps their role: an invitation makes nobody less.
    let there = person::kitchens(&mut db, who).await?;
    if !there.iter().any(|b| b.kitchen == kitchen) {
        person::join(&mut db, kitchen, who, p.role, now).await?;
    }
    person::go_into(&mut db, who, kitchen).await?;
    db.commit().await.map_err(store::StoreError::from)?;
    tracing::info!(target: "people", kitchen = kitchen.0, person = who.0, role = p.role.key(), "joined");
    if fresh {
        let visit = Visit::of_person(who, Some(kitchen), agent(&headers), now);
        welcome(&app, &session, visit, Lasting::IdleSession).await?;
    } else {
        visit::go_into(&session, kitchen).await?;
    }
    app.askers.forget();
    Ok(Redirect::to("/").into_response())
}

/// Somebody new, or who has a name here already and shows it.
async fn newcomer(
    app: &App,
    typed: &FormData,
    address: &Address,
    now: Timestamp,
) -> Result<Result<store::people::PersonId, Vec<FieldError>>, AppError> {
    let name = match check_name(typed.text("name")) {
        Ok(name) => name,
        Err(e) => return Ok(Err(e.0)),
    };
    let password = typed.raw("password");
    let mut db = app.db.acquire().await?;
    let there = person::by_name(&mut db, &name).await?;
    drop(db);
    let taken = || {
        let sentence = phrase("entrance-somebody-is-called-so-already");
        Err(vec![FieldError {
            field: "name".into(),
            message: craft::fact::Fact::as_written(sentence),
        }])
    };
    if there.is_some() {
        return match tried(app, (&name, password), &address.0, now).await? {
            NameTried::Right(p) => Ok(Ok(p.id)),
            NameTried::Wrong(_) => Ok(taken()),
        };
    }
    if let Err(e) = check_password(password, &name) {
        return Ok(Err(e.0));
    }
    let hash = hashed(password.into()).await?;
    let mut db = app.db.acquire().await?;
    match person::add(&mut db, &name, Some(&hash), "", now).await? {
        Some(id) => Ok(Ok(id)),
        None => Ok(taken()),
    }
}

async fn show_crew(
    State(app): State<App>,
    theme: Theme,
    Path(secret): Path<String>,
) -> Result<Response, AppError> {
    shown(&app, theme, (PassKind::Crew, "crew"), &secret).await
}

async fn begin_crew(
    State(app): State<App>,
    session: Session,
    headers: HeaderMap,
    Path(secret): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let Some((p, kitchen)) = found(&app, PassKind::Crew, &secret)
        .await?
        .and_then(|p| p.kitchen.map(|k| (p, k)))
    else {
        return Ok(over());
    };
    let now = Timestamp::now();
    let name = check_name(typed.text("name")).ok();
    let visit = Visit {
        hands: name.map(|name| Hands { person: None, name }),
        ..Visit::by_pass(p.id, kitchen, agent(&headers), now)
    };
    welcome(&app, &session, visit, Lasting::IdleSession).await?;
    Ok(Redirect::to("/").into_response())
}

async fn show_password(
    State(app): State<App>,
    theme: Theme,
    Path(secret): Path<String>,
) -> Result<Response, AppError> {
    shown(&app, theme, (PassKind::Password, "password"), &secret).await
}

/// Sets a new password; wherever the person was signed in, they are no longer.
async fn set_password(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    headers: HeaderMap,
    Path(secret): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let Some((p, who)) = found(&app, PassKind::Password, &secret)
        .await?
        .and_then(|p| p.person.map(|w| (p, w)))
    else {
        return Ok(over());
    };
    let view = link_page(&app, theme, &p, format!("/password/{secret}")).await?;
    let password = typed.raw("password");
    if let Err(e) = check_password(password, &view.name) {
        let view = LinkPage {
            password_error: says(&e.0, "password"),
            ..view
        };
        return Ok((StatusCode::UNPROCESSABLE_ENTITY, page(&view)?).into_response());
    }
    let hash = hashed(password.into()).await?;
    let now = Timestamp::now();
    let mut db = app.db.begin().await?;
    if !pass::use_up(&mut db, p.id, now).await? {
        return Ok(over());
    }
    person::set_password(&mut db, who, &hash, now).await?;
    session::end_others(&mut db, who, None).await?;
    db.commit().await.map_err(store::StoreError::from)?;
    tracing::info!(target: "people", person = who.0, "another password, by a link");
    app.askers.forget();
    let visit = Visit::of_person(who, None, agent(&headers), now);
    welcome(&app, &session, visit, Lasting::IdleSession).await?;
    Ok(Redirect::to("/").into_response())
}
