//! Giving away: invitations, a crew's link, a tablet's place on the wall, a link for a new password; and ending them.

use super::view::{GivenAway, Where};
use super::{PEOPLE, shown};
use crate::App;
use crate::access::doors::{Doors, OWN, PLAN};
use crate::access::secret;
use crate::batch::load;
use crate::shared::error::{AppError, ErrorSaid};
use crate::shared::form::FormData;
use crate::shared::format::day_hm;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::theme::Theme;
use crate::shared::tongue::{day_of, phrase, say};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::keyed::Keyed;
use craft::people::{Lasting, Role, check_name, evening, evening_of};
use jiff::{SignedDuration, Timestamp};
use store::people::PersonId;
use store::people::pass::{self, NewPass, PassId, PassKind};
use store::people::person;
use tower_sessions::Session;

pub fn routes() -> Doors {
    Doors::new()
        .post(OWN, "/people/invite", invite)
        .post(OWN, "/people/tablet", take_in)
        .post(OWN, "/people/token", token)
        .post(OWN, "/people/{id}/password", password)
        .post(OWN, "/people/passes/{id}/end", end)
        .post(PLAN, "/batches/{code}/crew", crew)
}

fn until(now: Timestamp, lasts: Lasting) -> Timestamp {
    now + SignedDuration::from_secs(lasts.seconds().into())
}

/// Writes into the server's log what somebody gave away or took back.
fn noted(here: &RequestKitchen, what: &'static str, kind: &str, of: &str) {
    let (kitchen, by) = (here.id().0, here.asker.whom.name.as_str());
    tracing::info!(target: "people", kitchen, by, kind, of, "{what}");
}

/// A pass of this kitchen, made by who asks; what it is beyond that stands over it.
fn from_here(here: &RequestKitchen, kind: PassKind) -> NewPass<'_> {
    NewPass {
        kind,
        kitchen: Some(here.id()),
        person: None,
        role: Role::Looker,
        batch: None,
        name: "",
        made_by: &here.asker.whom.name,
        ends_at: here.now,
    }
}

/// Makes a pass and says its address, this once.
async fn given(
    app: &App,
    here: &RequestKitchen,
    new: &NewPass<'_>,
    below: &str,
    what: String,
) -> Result<GivenAway, AppError> {
    let secret = secret::fresh();
    let mut db = app.db.acquire().await?;
    pass::make(&mut db, new, &secret, here.now).await?;
    noted(here, "given", new.kind.key(), new.name);
    // Who was alone here is so no longer.
    app.askers.forget();
    let address = app.site.address(&format!("/{below}/{secret}"));
    Ok(GivenAway {
        what,
        qr: match app.site.only_here() {
            None => Some(crate::shared::qr::code_of(&address)?),
            Some(_) => None,
        },
        only_here: app.site.only_here(),
        ends: day_hm(&here.local(new.ends_at)),
        address: Some(address),
        ..GivenAway::default()
    })
}

async fn invite(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let role = Role::from_key(typed.text("role"));
    let Some(role) = role.filter(|r| Role::OF_PEOPLE.contains(r)) else {
        return Ok(StatusCode::BAD_REQUEST.into_response());
    };
    let new = NewPass {
        role,
        ends_at: until(here.now, Lasting::Invitation),
        ..from_here(&here, PassKind::Invitation)
    };
    let what = say!("people-an-invitation-as", role = here.words(&role.named()));
    let given = given(&app, &here, &new, "join", what).await?;
    shown(&app, theme, &session, &here, Some(given), StatusCode::OK).await
}

/// A link for a crew: one batch, or all of its evening, until the morning after.
async fn crew(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let role = Role::from_key(typed.text("role")).filter(|r| r.is_crew());
    let told = load::told(&app, &here, &code).await?;
    let served = told.batch.sheet.request.serve_at.max(here.now);
    let day = evening_of(told.batch.sheet.request.serve_at, &here.zone);
    let whole = evening(day, &here.zone).filter(|_| typed.has("whole"));
    let name = match whole {
        Some(_) => day.to_string(),
        None => code.clone(),
    };
    let new = NewPass {
        role: role.unwrap_or(Role::CrewTaps),
        batch: Some(told.batch.id).filter(|_| whole.is_none()),
        name: &name,
        ends_at: until(
            whole.map_or(served, |(_, to)| to.max(here.now)),
            Lasting::CrewAfterwards,
        ),
        ..from_here(&here, PassKind::Crew)
    };
    let what = match whole {
        Some(_) => say!("people-a-link-for-the-evening", day = day_of(day)),
        None => say!("people-a-link-for-the-crew", code = code),
    };
    let given = given(&app, &here, &new, "crew", what).await?;
    shown(&app, theme, &session, &here, Some(given), StatusCode::OK).await
}

async fn password(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let mut db = app.db.acquire().await?;
    let all = person::members(&mut db, here.id()).await?;
    let Some(whose) = all.into_iter().find(|m| m.person == PersonId(id)) else {
        return Ok(StatusCode::NOT_FOUND.into_response());
    };
    // Who is in other kitchens, too, is not this owner's alone to let in.
    if person::kitchens(&mut db, whose.person).await?.len() > 1
        && here.asker.person != Some(whose.person)
    {
        return Ok(ErrorSaid::new(
            phrase("people-not-from-this-kitchen-alone"),
            phrase("people-they-belong-to-other-kitchens"),
        )
        .with(StatusCode::UNPROCESSABLE_ENTITY));
    }
    drop(db);
    let new = NewPass {
        person: Some(whose.person),
        role: whose.role,
        name: &whose.name,
        ends_at: until(here.now, Lasting::PasswordLink),
        ..from_here(&here, PassKind::Password)
    };
    let what = say!("people-a-link-with-which-sets", name = whose.name);
    let given = given(&app, &here, &new, "password", what).await?;
    shown(&app, theme, &session, &here, Some(given), StatusCode::OK).await
}

/// Takes the tablet in that shows this code.
async fn take_in(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let code = secret::as_shown(typed.text("code"));
    let name = check_name(typed.text("name")).unwrap_or_else(|_| phrase("people-tablet-2").into());
    let mut db = app.db.acquire().await?;
    let waits = pass::by_secret(&mut db, PassKind::Device, &code, here.now).await?;
    let taken = match waits {
        Some(p) => {
            let lasts = (here.now, until(here.now, Lasting::DeviceSession));
            pass::take_in(
                &mut db,
                p.id,
                here.id(),
                (&name, &here.asker.whom.name),
                lasts,
            )
            .await?
        }
        None => false,
    };
    drop(db);
    if taken {
        noted(&here, "taken", PassKind::Device.key(), &name);
        return Ok(Redirect::to(PEOPLE).into_response());
    }
    let given = GivenAway::wrong(Where::Tablet, phrase("people-no-tablet-shows-this-code"));
    let status = StatusCode::UNPROCESSABLE_ENTITY;
    shown(&app, theme, &session, &here, Some(given), status).await
}

/// So many programs have a token of one kitchen.
const MOST_TOKENS: u64 = 50;

/// Makes a token for a program, and shows it this once.
async fn token(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let role = Role::from_key(typed.text("role")).filter(|r| r.is_program());
    let lasts = Lasting::from_key(typed.text("lasts"));
    let lasts = lasts.filter(|l| Lasting::OF_TOKENS.contains(l));
    let (Some(role), Some(lasts)) = (role, lasts) else {
        return Ok(StatusCode::BAD_REQUEST.into_response());
    };
    let mut db = app.db.acquire().await?;
    let name = match check_name(typed.text("name")) {
        Err(e) => Err(here.say_all(&e.0)),
        Ok(_) if pass::tokens(&mut db, here.id(), here.now).await? >= MOST_TOKENS => {
            Err(say!("people-too-many-tokens", most = MOST_TOKENS))
        }
        Ok(name) => Ok(name),
    };
    let (given, status) = match name {
        Err(sentence) => (
            GivenAway::wrong(Where::Token, sentence),
            StatusCode::UNPROCESSABLE_ENTITY,
        ),
        Ok(name) => {
            let new = NewPass {
                role,
                name: &name,
                ends_at: until(here.now, lasts),
                ..from_here(&here, PassKind::Token)
            };
            // Whoever finds one lying about sees what it is.
            let secret = format!("slowrise_{}", secret::fresh());
            pass::make(&mut db, &new, &secret, here.now).await?;
            noted(&here, "given", new.kind.key(), &name);
            app.askers.forget();
            let given = GivenAway {
                what: say!("people-a-token-for", name = name),
                token: Some(secret),
                ends: day_hm(&here.local(new.ends_at)),
                ..GivenAway::default()
            };
            (given, StatusCode::OK)
        }
    };
    drop(db);
    shown(&app, theme, &session, &here, Some(given), status).await
}

async fn end(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let mut db = app.db.acquire().await?;
    if pass::end(&mut db, here.id(), PassId(id)).await? {
        noted(&here, "ended", "pass", &id.to_string());
    }
    app.askers.forget();
    Ok(Redirect::to(PEOPLE).into_response())
}
