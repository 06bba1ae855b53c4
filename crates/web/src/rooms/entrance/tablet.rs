//! The tablet on the wall: it shows a code, an owner types it, and the tablet is in. It asks whose hands it is in by one tap.

use crate::App;
use crate::access::arrive::{agent, welcome};
use crate::access::doors::{Asks, Doors, TAP};
use crate::access::secret::legible;
use crate::access::visit::{Hands, VISIT, Visit};
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, page};
use crate::shared::theme::{Theme, own_path};
use crate::shared::tongue::phrase;
use askama::Template;
use axum::body::Bytes;
use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::{IntoResponse, Redirect, Response};
use craft::people::{Lasting, Role};
use jiff::{SignedDuration, Timestamp};
use store::people::pass::{self, NewPass, PassId, PassKind};
use store::people::person;
use tower_sessions::Session;

pub fn routes() -> Doors {
    Doors::new()
        .get(Asks::Nothing, "/tablet", wait)
        .post(Asks::Nothing, "/tablet", ask)
        .post(TAP, "/hands", take)
}

/// Under which name a session remembers what it waits for.
const WAITS: &str = "waits";

#[derive(Template)]
#[template(path = "rooms/entrance/tablet.html")]
struct TabletPage {
    frame: Frame,
    /// The code in two halves, while one is shown.
    code: Option<(String, String)>,
    busy: bool,
}

#[derive(serde::Serialize, serde::Deserialize)]
struct TabletWaits {
    pass: u64,
    code: String,
}

/// Shows the code, or goes in when an owner took the tablet in meanwhile. The page asks again by itself.
async fn wait(
    State(app): State<App>,
    theme: Theme,
    session: Session,
    headers: HeaderMap,
) -> Result<Response, AppError> {
    let now = Timestamp::now();
    let mut code = None;
    if let Some(w) = session.get::<TabletWaits>(WAITS).await? {
        let mut db = app.db.acquire().await?;
        match pass::by_id(&mut db, PassId(w.pass), now).await? {
            Some(p) if p.kitchen.is_some() => {
                let kitchen = p.kitchen.ok_or(AppError::NoKitchen)?;
                let visit = Visit::by_pass(p.id, kitchen, agent(&headers), now);
                drop(db);
                welcome(&app, &session, visit, Lasting::DeviceSession).await?;
                return Ok(Redirect::to("/").into_response());
            }
            Some(_) => code = Some((w.code[..4].to_string(), w.code[4..].to_string())),
            None => {}
        }
    }
    let view = TabletPage {
        frame: Frame::entrance(theme, phrase("entrance-the-tablet-on-the-wall")),
        code,
        busy: false,
    };
    Ok(page(&view)?.into_response())
}

/// So many tablets wait at a time.
const MOST_WAITING: u64 = 20;

async fn ask(State(app): State<App>, theme: Theme, session: Session) -> Result<Response, AppError> {
    let now = Timestamp::now();
    let mut db = app.db.acquire().await?;
    if pass::waiting(&mut db, now).await? >= MOST_WAITING {
        let view = TabletPage {
            frame: Frame::entrance(theme, phrase("entrance-the-tablet-on-the-wall")),
            code: None,
            busy: true,
        };
        return Ok(page(&view)?.into_response());
    }
    let code = legible();
    let new = NewPass {
        kind: PassKind::Device,
        kitchen: None,
        person: None,
        role: Role::Device,
        batch: None,
        name: "",
        made_by: "",
        ends_at: now + SignedDuration::from_secs(Lasting::DeviceCode.seconds().into()),
    };
    let id = pass::make(&mut db, &new, &code, now).await?;
    session
        .insert(WAITS, TabletWaits { pass: id.0, code })
        .await?;
    Ok(Redirect::to("/tablet").into_response())
}

/// Notes whose hands a tablet is in.
async fn take(
    State(app): State<App>,
    session: Session,
    here: RequestKitchen,
    body: Bytes,
) -> Result<Response, AppError> {
    let typed = FormData::parse(&body);
    let back = Redirect::to(own_path(typed.text("back")));
    let Some(visit) = session.get::<Visit>(VISIT).await? else {
        return Ok(back.into_response());
    };
    let mut db = app.db.acquire().await?;
    let all = person::members(&mut db, here.id()).await?;
    let whose = all
        .into_iter()
        .find(|m| m.person.0.to_string() == typed.text("person"));
    let hands = whose.map(|m| Hands {
        person: Some(m.person.0),
        name: m.name,
    });
    if visit.pass.is_some() {
        session.insert(VISIT, Visit { hands, ..visit }).await?;
        app.askers.forget();
    }
    Ok(back.into_response())
}
