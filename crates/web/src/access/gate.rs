//! The gate before the rooms: looks who comes, compares with what the door asks, and hands the kitchen on.

use super::asker::{self, AskedAs, Asker, AskerPlace};
use super::doors::{Asks, DoorBook};
use super::visit::{VISIT, Visit};
use crate::App;
use crate::shared::error::{AppError, ErrorSaid, wants_json};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue;
use crate::shared::tongue::{phrase, say};
use axum::body::to_bytes;
use axum::extract::{MatchedPath, Request, State};
use axum::http::{HeaderMap, HeaderName, HeaderValue, Method, StatusCode, Uri, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Redirect, Response};
use craft::keyed::Keyed;
use craft::people::Lasting;
use jiff::Timestamp;
use std::sync::Arc;
use store::KitchenId;
use store::people::{person, secret_hash};
use tower_sessions::{Expiry, Session};

/// What the gate needs.
#[derive(Clone)]
pub struct Gate {
    pub app: App,
    pub book: Arc<DoorBook>,
}

/// Where somebody signs in, and where the first one begins.
pub const SIGN_IN: &str = "/sign-in";
pub const BEGIN: &str = "/begin";
/// Below it programs ask.
const API: &str = "/api/";

/// How long a session goes on without a sign of life before it is noted again, ms.
const NOTED_MS: i64 = 10 * 60 * 1000;
/// What a form holds at most; it was read within this limit already.
const MOST_BYTES: usize = 256 * 1024;

/// The kitchen whose page asks, where the page says so: somebody with several kitchens may have gone into another one
/// meanwhile, and what was typed belongs to the first.
fn of_page(uri: &Uri) -> Option<KitchenId> {
    let query = uri.query()?;
    let k = query.split('&').find_map(|p| p.strip_prefix("k="))?;
    k.parse().ok().map(KitchenId)
}

/// Who asks. Without sign-in it is the one at home.
pub async fn who(
    app: &App,
    session: Option<&Session>,
    page: Option<KitchenId>,
    now: Timestamp,
) -> Result<Option<Arc<Asker>>, AppError> {
    let session = session.filter(|_| app.signs_in);
    let asked = match (session.and_then(Session::id), app.signs_in) {
        (Some(id), true) => AskedAs::Session(id.0, page),
        (None, true) => return Ok(None),
        (_, false) => AskedAs::Home(page),
    };
    if let Some(known) = app.askers.get(&asked) {
        return Ok(Some(known));
    }
    let mut db = app.db.acquire().await?;
    let found = match session {
        None => match person::at_home(&mut db).await? {
            Some(p) => Some(asker::of_person(&mut db, p, page).await?),
            None => None,
        },
        Some(session) => match session.get::<Visit>(VISIT).await? {
            None => None,
            Some(visit) => {
                let page_visit = Visit {
                    kitchen: page.map(|k| k.0).or(visit.kitchen),
                    ..visit.clone()
                };
                let found = asker::of_visit(&mut db, &page_visit, now).await?;
                if found.is_some() {
                    noted(session, visit, now).await?;
                }
                found
            }
        },
    };
    let found = found.map(Arc::new);
    if let Some(asker) = &found {
        app.askers.put(asked, asker);
    }
    Ok(found)
}

/// The program that shows a token.
async fn program(app: &App, secret: &str, now: Timestamp) -> Result<Option<Arc<Asker>>, AppError> {
    let asked = AskedAs::Token(secret_hash(secret));
    if let Some(known) = app.askers.get(&asked) {
        return Ok(Some(known));
    }
    let mut db = app.db.acquire().await?;
    let found = asker::of_token(&mut db, secret, now).await?.map(Arc::new);
    if let Some(asker) = &found {
        app.askers.put(asked, asker);
    }
    Ok(found)
}

/// The token that a request of the API shows; a header that shows none is no token of ours either, and lets nobody in.
fn token<'a>(path: &str, headers: &'a HeaderMap) -> Option<&'a str> {
    let shown = headers
        .get(header::AUTHORIZATION)
        .filter(|_| path.starts_with(API))?;
    let bearer = shown.to_str().ok().and_then(|h| h.split_once(' '));
    let bearer = bearer.filter(|(scheme, _)| scheme.eq_ignore_ascii_case("bearer"));
    Some(bearer.map_or("", |(_, secret)| secret.trim()))
}

/// Notes now and then that a session is in use, so that it does not end while it is.
async fn noted(session: &Session, visit: Visit, now: Timestamp) -> Result<(), AppError> {
    if now.as_millisecond() - visit.seen_ms < NOTED_MS {
        return Ok(());
    }
    if visit.pass.is_some() {
        session.set_expiry(Some(idle(Lasting::DeviceSession)));
    }
    let seen_ms = now.as_millisecond();
    session.insert(VISIT, Visit { seen_ms, ..visit }).await?;
    Ok(())
}

/// When a session ends that nobody uses.
pub fn idle(lasts: Lasting) -> Expiry {
    Expiry::OnInactivity(time::Duration::seconds(lasts.seconds().into()))
}

/// Lets in who may.
pub async fn pass(
    State(gate): State<Gate>,
    door: MatchedPath,
    mut request: Request,
    next: Next,
) -> Response {
    let Some(asks) = gate.book.asks(request.method(), door.as_str()) else {
        return StatusCode::METHOD_NOT_ALLOWED.into_response();
    };
    if asks == Asks::Nothing || (asks == Asks::Known && !gate.app.signs_in) {
        return next.run(request).await;
    }
    let now = Timestamp::now();
    let session = request.extensions().get::<Session>().cloned();
    let page = of_page(request.uri());
    // A token counts before anything else that came along, also where nobody signs in: it is of one kitchen.
    let token = token(request.uri().path(), request.headers());
    let found = match token {
        Some(secret) => program(&gate.app, secret, now).await,
        None => who(&gate.app, session.as_ref(), page, now).await,
    };
    let asker = match found {
        Ok(Some(asker)) => asker,
        Ok(None) if token.is_some() => return no_token(),
        Ok(None) => return turned_away(&gate.app, request).await,
        Err(e) => return e.into_response(),
    };
    match (asks, &asker.place) {
        (Asks::Of(right), Some(place)) => {
            if let Some(no) = refused(place, right, request.uri().path(), request.headers()) {
                return no;
            }
        }
        // Nothing is here for who belongs to no kitchen but to begin one.
        (Asks::Of(_), None) => return Redirect::to(BEGIN).into_response(),
        (Asks::Person, _) if asker.person.is_none() => return not_yours(None),
        (Asks::Person | Asks::Nothing | Asks::Known, _) => {}
    }
    if let Some(place) = &asker.place {
        match RequestKitchen::for_asker(&gate.app, place.kitchen, &asker, now).await {
            Ok(here) => request.extensions_mut().insert(here),
            Err(e) => return e.into_response(),
        };
    }
    let many = (asker.kitchens > 1)
        .then(|| asker.place.as_ref().map(|p| p.kitchen.0))
        .flatten();
    let read_in = asker.reads();
    let whose = HeaderValue::from_str(&whose(&asker));
    request.extensions_mut().insert(asker);
    let answer = crate::shared::layout::PAGE_OF.scope(many, next.run(request));
    let mut response = tongue::answering(read_in, answer).await;
    if let Ok(whose) = whose {
        response.headers_mut().insert(WHOSE, whose);
    }
    response
}

/// Says whose page it is, so that a browser keeps none of it for the next one.
const WHOSE: HeaderName = HeaderName::from_static("x-whose");

fn whose(asker: &Asker) -> String {
    let kitchen = asker.place.as_ref().map_or(0, |p| p.kitchen.0);
    let language = asker.reads().key();
    match asker.person {
        Some(p) => format!("{}.{kitchen}.{language}", p.0),
        None => format!("link.{kitchen}.{language}"),
    }
}

/// Why somebody may not, or nothing.
fn refused(
    place: &AskerPlace,
    right: craft::people::Right,
    path: &str,
    headers: &HeaderMap,
) -> Option<Response> {
    if let Some(codes) = &place.only {
        let below = path.strip_prefix("/batches/");
        let asked = below.and_then(|p| p.split('/').next());
        let own = asked.is_some_and(|code| codes.iter().any(|c| c == code));
        let first = codes.first().filter(|_| !own);
        if let Some(code) = first {
            // Where a crew goes astray, its first batch is.
            return Some(match wants_json(headers) || path.starts_with(API) {
                true => not_yours(Some(place)),
                false => Redirect::to(&format!("/batches/{code}")).into_response(),
            });
        }
    }
    (!place.role.may(right)).then(|| not_yours(Some(place)))
}

fn not_yours(place: Option<&AskerPlace>) -> Response {
    let is = place.map_or(phrase("access-here-by-a-link"), |p| match p.role {
        craft::people::Role::Looker | craft::people::Role::CrewLooks => {
            phrase("access-here-to-look-on")
        }
        role if role.is_program() => phrase("access-a-program-with-a-token"),
        _ => phrase("access-at-work-here-and-this"),
    });
    ErrorSaid::new(
        phrase("access-not-yours-to-do"),
        say!("access-you-are-whoever-owns-the", is = is),
    )
    .with(StatusCode::FORBIDDEN)
}

/// A token that opens nothing, or no longer.
fn no_token() -> Response {
    let mut r = ErrorSaid::new(
        phrase("access-not-a-token"),
        phrase("access-this-token-opens-nothing"),
    )
    .with(StatusCode::UNAUTHORIZED);
    let scheme = HeaderValue::from_static("Bearer");
    r.headers_mut().insert(header::WWW_AUTHENTICATE, scheme);
    r
}

/// Where who is not signed in goes; what they typed goes with them.
async fn turned_away(app: &App, request: Request) -> Response {
    if !app.somebody_is_there().await {
        return match request.method() {
            &Method::GET | &Method::HEAD => Redirect::to(BEGIN).into_response(),
            _ => StatusCode::UNAUTHORIZED.into_response(),
        };
    }
    let path = request.uri().path().to_string();
    if path.starts_with(API) || wants_json(request.headers()) {
        return signed_out(String::new(), vec![]);
    }
    if request.method().is_safe() {
        let to = request.uri().path_and_query().map_or("/", |p| p.as_str());
        let back: String = form_urlencoded::byte_serialize(to.as_bytes()).collect();
        return Redirect::to(&format!("{SIGN_IN}?back={back}")).into_response();
    }
    let is_form = request
        .headers()
        .get(header::CONTENT_TYPE)
        .is_some_and(|t| {
            t.as_bytes()
                .starts_with(b"application/x-www-form-urlencoded")
        });
    let bytes = to_bytes(request.into_body(), MOST_BYTES)
        .await
        .unwrap_or_default();
    let held = match is_form {
        true => form_urlencoded::parse(&bytes).into_owned().collect(),
        false => vec![],
    };
    signed_out(path, held)
}

fn signed_out(action: String, entries: Vec<(String, String)>) -> Response {
    let sentence = match entries.is_empty() {
        true => phrase("access-sign-in-to-go-on"),
        false => phrase("access-all-that-you-entered-is"),
    };
    ErrorSaid {
        signed_out: true,
        action,
        entries,
        ..ErrorSaid::new(phrase("access-your-sign-in-has-ended"), sentence)
    }
    .with(StatusCode::UNAUTHORIZED)
}
