//! One's own: password, where one is signed in, and the kitchen that one is in.

use super::view::{GivenAway, Where};
use super::{PEOPLE, shown};
use crate::App;
use crate::access::asker::Asker;
use crate::access::doors::{Asks, Doors};
use crate::access::secret::{hashed, is_right};
use crate::access::visit;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::theme::{Theme, own_path};
use crate::shared::tongue::phrase;
use axum::Extension;
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use craft::keyed::Keyed;
use craft::people::check_password;
use speech::Language;
use std::sync::Arc;
use store::people::{person, session};
use store::{KitchenId, StoreError};
use tower_sessions::Session;

pub fn routes() -> Doors {
    Doors::new()
        .post(Asks::Person, "/me/language", set_language)
        .post(Asks::Person, "/me/password", set_password)
        .post(Asks::Person, "/me/sessions/{number}/end", end_session)
        .post(Asks::Person, "/kitchens/{id}", go_into)
}

/// Chooses the language that one reads.
async fn set_language(
    State(app): State<App>,
    Extension(asker): Extension<Arc<Asker>>,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let chosen = Language::from_key(typed.text("language"));
    let (Some(me), Some(language)) = (asker.person, chosen) else {
        return Ok(StatusCode::NOT_FOUND.into_response());
    };
    let mut db = app.db.acquire().await?;
    person::set_language(&mut db, me, language.key()).await?;
    app.askers.forget();
    Ok(Redirect::to(own_path(typed.text("back"))).into_response())
}

/// Changes one's own password: the former one is asked, and every other browser is signed out.
async fn set_password(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let mut db = app.db.acquire().await?;
    let me = match here.asker.person {
        Some(id) => person::by_id(&mut db, id).await?,
        None => None,
    };
    drop(db);
    let Some(me) = me else {
        return Ok(StatusCode::NOT_FOUND.into_response());
    };
    let had = me.password_hash.is_some();
    let known = !had || is_right(typed.raw("former").into(), me.password_hash).await?;
    let wrong = if !known {
        Some(phrase("people-that-is-not-your-password").to_string())
    } else {
        let checked = check_password(typed.raw("password"), &me.name);
        checked.err().map(|e| here.say_all(&e.0))
    };
    if let Some(sentence) = wrong {
        let status = StatusCode::UNPROCESSABLE_ENTITY;
        return shown(
            &app,
            theme,
            &session,
            &here,
            Some(GivenAway::wrong(Where::Password, sentence)),
            status,
        )
        .await;
    }
    let hash = hashed(typed.raw("password").into()).await?;
    let mut db = app.db.begin().await?;
    person::set_password(&mut db, me.id, &hash, here.now).await?;
    let secret = session.id().map(|id| id.to_string());
    session::end_others(&mut db, me.id, secret.as_deref()).await?;
    db.commit().await.map_err(StoreError::from)?;
    tracing::info!(target: "people", person = me.id.0, "another password");
    app.askers.forget();
    Ok(Redirect::to(PEOPLE).into_response())
}

async fn end_session(
    State(app): State<App>,
    Extension(asker): Extension<Arc<Asker>>,
    Path(number): Path<u64>,
) -> Result<Response, AppError> {
    if let Some(me) = asker.person {
        let mut db = app.db.acquire().await?;
        session::end_of(&mut db, me, number).await?;
        app.askers.forget();
    }
    Ok(Redirect::to(PEOPLE).into_response())
}

/// Goes into another of one's kitchens.
async fn go_into(
    State(app): State<App>,
    session: Session,
    Extension(asker): Extension<Arc<Asker>>,
    Path(id): Path<u64>,
) -> Result<Response, AppError> {
    let Some(me) = asker.person else {
        return Ok(StatusCode::NOT_FOUND.into_response());
    };
    let mut db = app.db.acquire().await?;
    let all = person::kitchens(&mut db, me).await?;
    if !all.iter().any(|b| b.kitchen == KitchenId(id)) {
        return Ok(StatusCode::NOT_FOUND.into_response());
    }
    person::go_into(&mut db, me, KitchenId(id)).await?;
    if app.signs_in {
        visit::go_into(&session, KitchenId(id)).await?;
    }
    app.askers.forget();
    Ok(Redirect::to("/").into_response())
}
