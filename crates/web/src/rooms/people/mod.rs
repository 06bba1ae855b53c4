//! People: who is in the kitchen and as what, what was given away, and one's own sign-in.

mod giving;
mod own;
mod view;

use crate::App;
use crate::access::doors::{Doors, LOOK, OWN};
use crate::shared::error::{AppError, ErrorSaid};
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::page;
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::keyed::Keyed;
use craft::people::Role;
use store::people::PersonId;
use store::people::person::{self, Changed};
use tower_sessions::Session;
use view::{GivenAway, PeoplePage};

/// Where the people of a kitchen are.
const PEOPLE: &str = "/people";

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, PEOPLE, show)
        .post(OWN, "/people/{id}/role", role)
        .merge(giving::routes())
        .merge(own::routes())
}

async fn show(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
) -> Result<Response, AppError> {
    shown(&app, theme, &session, &here, None, StatusCode::OK).await
}

/// The page, with what was just given away where something was.
async fn shown(
    app: &App,
    theme: Theme,
    session: &Session,
    here: &RequestKitchen,
    given: Option<GivenAway>,
    status: StatusCode,
) -> Result<Response, AppError> {
    let view = PeoplePage::of(app, theme, session, here, given).await?;
    Ok((status, page(&view)?).into_response())
}

/// Gives somebody another role, or takes them out of the kitchen.
async fn role(
    State(app): State<App>,
    here: RequestKitchen,
    Path(id): Path<u64>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let role = match typed.text("role") {
        "out" => None,
        word => match Role::from_key(word).filter(|r| Role::OF_PEOPLE.contains(r)) {
            Some(role) => Some(role),
            None => return Ok(StatusCode::BAD_REQUEST.into_response()),
        },
    };
    let mut db = app.db.acquire().await?;
    let changed = person::change(&mut db, here.id(), PersonId(id), role).await?;
    app.askers.forget();
    if matches!(changed, Changed::Done) {
        let (kitchen, by) = (here.id().0, here.asker.whom.name.as_str());
        let role = role.map_or("out", Keyed::key);
        tracing::info!(target: "people", kitchen, by, person = id, role, "another role");
    }
    Ok(match changed {
        Changed::Done => Redirect::to(PEOPLE).into_response(),
        Changed::LastOwner => ErrorSaid::new(
            phrase("people-a-kitchen-keeps-an-owner"),
            phrase("people-this-is-the-only-one"),
        )
        .with(StatusCode::UNPROCESSABLE_ENTITY),
        Changed::Nobody => ErrorSaid::new(
            phrase("people-nobody-of-that-number"),
            phrase("people-nobody-in-this-kitchen-is"),
        )
        .with(StatusCode::NOT_FOUND),
    })
}
