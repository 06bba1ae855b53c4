//! Arriving: a session of one's own for whoever just showed who they are.

use super::gate::idle;
use super::visit::{VISIT, Visit};
use crate::App;
use crate::shared::error::AppError;
use axum::http::{HeaderMap, header};
use craft::people::Lasting;
use jiff::Timestamp;
use store::people::{pass, session, tries};
use tower_sessions::Session;

/// How a browser names itself.
pub fn agent(headers: &HeaderMap) -> &str {
    let named = headers.get(header::USER_AGENT);
    named.and_then(|v| v.to_str().ok()).unwrap_or("")
}

/// Begins a session: the former secret is worth nothing from now on. What ended of others is cleared away by the way.
pub async fn welcome(
    app: &App,
    session: &Session,
    visit: Visit,
    lasts: Lasting,
) -> Result<(), AppError> {
    session.clear().await;
    session.cycle_id().await?;
    session.set_expiry(Some(idle(lasts)));
    session.insert(VISIT, visit).await?;
    let now = Timestamp::now();
    let mut db = app.db.acquire().await?;
    session::clear(&mut db, now).await?;
    tries::clear(&mut db, now).await?;
    pass::clear(&mut db, now).await?;
    Ok(())
}
