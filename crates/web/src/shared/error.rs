//! What goes wrong, as a page: a clear sentence, a reference, a way on. The cause is logged, not shown.

use crate::shared::cut::shortened;
use crate::shared::frame::Frame;
use crate::shared::stop::Stop;
use crate::shared::theme::Theme;
use askama::Template;
use axum::body::Body;
use axum::extract::Request;
use axum::http::{HeaderMap, StatusCode, header};
use axum::middleware::Next;
use axum::response::{Html, IntoResponse, Response};
use std::any::Any;
use store::StoreError;

/// Why a page cannot be given.
#[derive(Debug, thiserror::Error)]
pub enum AppError {
    #[error(transparent)]
    Store(#[from] StoreError),
    #[error("a page could not be written: {0}")]
    Page(#[from] askama::Error),
    #[error("there is no kitchen in the database")]
    NoKitchen,
    #[error("a session could not be read or kept: {0}")]
    Session(#[from] tower_sessions::session::Error),
    #[error("the models are busy")]
    Busy,
    #[error("no batch {0}")]
    NoBatch(String),
    #[error("no formula {0}")]
    NoFormula(String),
    #[error("{0}")]
    Asked(String),
}

/// Whether a script asked, which reads JSON.
pub fn wants_json(headers: &HeaderMap) -> bool {
    headers
        .get(header::ACCEPT)
        .is_some_and(|a| a.as_bytes().starts_with(b"application/json"))
}

/// What an error page says; put on the response, dressed as a page (or as JSON) by [`dressed`].
#[derive(Debug, Clone)]
pub struct ErrorSaid {
    pub headline: String,
    pub sentence: String,
    /// The database was away: what was posted may be posted again.
    pub again: bool,
    /// Nobody is signed in: the page signs in.
    pub signed_out: bool,
    /// Form fields to send again, filled by the guard.
    pub entries: Vec<(String, String)>,
    pub action: String,
}

impl ErrorSaid {
    pub fn new(headline: &str, sentence: impl Into<String>) -> ErrorSaid {
        ErrorSaid {
            headline: headline.into(),
            sentence: sentence.into(),
            again: false,
            signed_out: false,
            entries: vec![],
            action: String::new(),
        }
    }
    /// A response that carries it.
    pub fn with(self, status: StatusCode) -> Response {
        let mut r = status.into_response();
        r.extensions_mut().insert(self);
        r
    }
}

impl IntoResponse for AppError {
    fn into_response(self) -> Response {
        match &self {
            AppError::Store(e) if e.may_come_again() => {
                tracing::error!(cause = %self, "not now");
                let mut said = match e {
                    StoreError::Collided(_) => ErrorSaid::new(
                        "Somebody else was entering just then",
                        "Too many enter at once just now, and nothing of this was kept. Send it again.",
                    ),
                    StoreError::Full(_) => ErrorSaid::new(
                        "The records have no room",
                        "The disk of the database is full, so nothing of this was kept. What is already kept is safe; send it again when there is room.",
                    ),
                    _ => ErrorSaid::new(
                        "The records are out of reach",
                        "The database does not answer just now. What is already kept is safe; this works again by itself as soon as it is back.",
                    ),
                };
                said.again = true;
                not_now(said)
            }
            AppError::Busy => not_now(ErrorSaid {
                again: true,
                ..ErrorSaid::new(
                    "Too much is being worked out just now",
                    "The models have more to do than they can. Nothing is lost; try again in a moment.",
                )
            }),
            AppError::NoBatch(code) => ErrorSaid::new(
                "No batch of that code",
                format!("Nothing in this kitchen is called {}. Codes are two letters and a number, as written on the boxes.", shortened(code, 25)),
            )
            .with(StatusCode::NOT_FOUND),
            AppError::NoFormula(id) => ErrorSaid::new(
                "No formula of that number",
                format!("Nothing in this kitchen's library is kept as {}. The library lists what there is.", shortened(id, 25)),
            )
            .with(StatusCode::NOT_FOUND),
            AppError::Asked(sentence) => ErrorSaid::new("That cannot be done", sentence.clone()).with(StatusCode::UNPROCESSABLE_ENTITY),
            AppError::Session(tower_sessions::session::Error::Store(e)) => {
                tracing::error!(cause = %e, "a session was out of reach");
                let mut said = ErrorSaid::new(
                    "The records are out of reach",
                    "The database does not answer just now. What is already kept is safe; this works again by itself as soon as it is back.",
                );
                said.again = true;
                not_now(said)
            }
            AppError::Store(_) | AppError::Page(_) | AppError::NoKitchen | AppError::Session(_) => {
                tracing::error!(cause = %self, "a page failed");
                failed().with(StatusCode::INTERNAL_SERVER_ERROR)
            }
        }
    }
}

/// What may be sent again in a moment.
fn not_now(said: ErrorSaid) -> Response {
    let mut r = said.with(StatusCode::SERVICE_UNAVAILABLE);
    r.headers_mut()
        .insert(header::RETRY_AFTER, header::HeaderValue::from_static("1"));
    r
}

fn failed() -> ErrorSaid {
    ErrorSaid::new(
        "Something went wrong here",
        "It is not your doing and nothing that was kept is lost. If it happens again, the reference below leads to the cause in the log.",
    )
}

/// For the layer that catches panics.
pub fn panicked(cause: Box<dyn Any + Send + 'static>) -> Response {
    let text = cause
        .downcast_ref::<String>()
        .map(String::as_str)
        .or_else(|| cause.downcast_ref::<&str>().copied())
        .unwrap_or("no message");
    tracing::error!(cause = text, "a handler panicked");
    failed()
        .with(StatusCode::INTERNAL_SERVER_ERROR)
        .map(|_| Body::empty())
}

/// The page for addresses that lead nowhere.
pub async fn nothing_here() -> Response {
    ErrorSaid::new("Nothing is kept here", "This address leads nowhere. The Bench shows all batches that are under way, the Ledger those that are done.")
        .with(StatusCode::NOT_FOUND)
}

#[derive(Template)]
#[template(path = "shared/error.html")]
struct ErrorPage<'a> {
    frame: Frame,
    status: u16,
    said: &'a ErrorSaid,
    reference: &'a str,
    /// The page of the batch that a form was sent from: its code, and where it stands.
    from: Option<(String, String)>,
}

/// The page that a form of a batch stood on, by the address that it was sent to.
fn came_from(path: &str) -> Option<(String, String)> {
    let (code, form) = path.strip_prefix("/batches/")?.split_once('/')?;
    let page = match form {
        "taps" => "/bake",
        _ => "",
    };
    craft::code::is_code(code).then(|| (code.to_string(), format!("/batches/{code}{page}")))
}

/// Dresses bare errors: as JSON under `/api/`, as a page elsewhere.
pub async fn dressed(request: Request, next: Next) -> Response {
    let theme = Theme::of(request.headers());
    let path = request.uri().path().to_string();
    let reference = reference(request.headers());
    let is_api = path.starts_with("/api/") || wants_json(request.headers());
    let response = next.run(request).await;
    let status = response.status();
    if path.starts_with("/assets/")
        || matches!(path.as_str(), "/health" | "/ready")
        || !(status.is_client_error() || status.is_server_error())
    {
        return response;
    }
    let said = match response.extensions().get::<ErrorSaid>() {
        Some(said) => said.clone(),
        None if response.headers().contains_key(header::CONTENT_TYPE) && is_written(&response) => {
            return response;
        }
        None => plain(status),
    };
    // What the handler said besides its body stays said.
    let mut headers = response.headers().clone();
    for name in [header::CONTENT_TYPE, header::CONTENT_LENGTH] {
        headers.remove(name);
    }
    if is_api {
        let mut errors = serde_json::json!({
            "errors": [{"field": "", "message": said.sentence}],
            "again": said.again,
            "reference": reference,
        });
        if said.signed_out {
            errors["signed_out"] = true.into();
        }
        return (status, headers, axum::Json(errors)).into_response();
    }
    let page = ErrorPage {
        frame: Frame::bare(theme, Stop::Bench, &said.headline),
        status: status.as_u16(),
        said: &said,
        reference: &reference,
        from: came_from(&path).filter(|_| status != StatusCode::NOT_FOUND),
    };
    match page.render() {
        Ok(html) => (status, headers, Html(html)).into_response(),
        Err(_) => (status, headers, said.sentence).into_response(),
    }
}

/// Pages and JSON that a handler wrote itself stay; the short plain texts of the framework do not.
fn is_written(r: &Response) -> bool {
    r.headers()
        .get(header::CONTENT_TYPE)
        .and_then(|v| v.to_str().ok())
        .is_some_and(|t| t.starts_with("text/html") || t.starts_with("application/json"))
}

fn plain(status: StatusCode) -> ErrorSaid {
    match status {
        StatusCode::PAYLOAD_TOO_LARGE => ErrorSaid::new(
            "That is too much at once",
            "A form holds up to 256 kB. Nothing was kept; send less.",
        ),
        StatusCode::METHOD_NOT_ALLOWED => ErrorSaid::new(
            "Not from here",
            "This address is used by a form of Slow Rise; open the page that holds the form.",
        ),
        StatusCode::SERVICE_UNAVAILABLE => ErrorSaid::new(
            "That took too long",
            "The answer did not come in time. Try again.",
        ),
        StatusCode::UNSUPPORTED_MEDIA_TYPE
        | StatusCode::BAD_REQUEST
        | StatusCode::UNPROCESSABLE_ENTITY => ErrorSaid::new(
            "That could not be read",
            "What arrived is not what this page sends. Open the page again and enter it there.",
        ),
        s if s.is_server_error() => failed(),
        _ => ErrorSaid::new("That cannot be done", "The request was refused."),
    }
}

/// The reference that the log carries too.
pub fn reference(headers: &HeaderMap) -> String {
    let id = headers
        .get("x-request-id")
        .and_then(|v| v.to_str().ok())
        .unwrap_or("");
    id.split('-').next().unwrap_or("").to_string()
}
