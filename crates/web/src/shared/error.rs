//! What goes wrong, as a page: a clear sentence, a reference, a way on. The cause is logged, not shown.

use crate::shared::cut::shortened;
use crate::shared::form::SaidError;
use crate::shared::frame::Frame;
use crate::shared::stop::Stop;
use crate::shared::theme::Theme;
use crate::shared::tongue;
use crate::shared::tongue::{phrase, say};
use askama::Template;
use axum::body::Body;
use axum::extract::Request;
use axum::http::{HeaderMap, StatusCode, header};
use axum::middleware::Next;
use axum::response::{Html, IntoResponse, Response};
use schemars::JsonSchema;
use serde::Serialize;
use speech::Language;
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
    #[error("no trial {0}")]
    NoTrial(String),
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
    /// What it is said in.
    pub language: Language,
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
            language: tongue::language(),
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
                        phrase("page-somebody-else-was-entering-just"),
                        phrase("page-too-many-enter-at-once"),
                    ),
                    StoreError::Full(_) => ErrorSaid::new(
                        phrase("page-the-records-have-no-room"),
                        phrase("page-the-disk-of-the-database"),
                    ),
                    _ => ErrorSaid::new(
                        phrase("page-the-records-are-out-of"),
                        phrase("page-the-database-does-not-answer"),
                    ),
                };
                said.again = true;
                not_now(said)
            }
            AppError::Busy => not_now(ErrorSaid {
                again: true,
                ..ErrorSaid::new(
                    phrase("page-too-much-is-being-worked"),
                    phrase("page-the-models-have-more-to"),
                )
            }),
            AppError::NoBatch(code) => ErrorSaid::new(
                phrase("page-no-batch-of-that-code"),
                say!(
                    "page-nothing-in-this-kitchen-is",
                    code = shortened(code, 25)
                ),
            )
            .with(StatusCode::NOT_FOUND),
            AppError::NoFormula(id) => ErrorSaid::new(
                phrase("page-no-formula-of-that-number"),
                say!(
                    "page-nothing-in-this-kitchens-library",
                    id = shortened(id, 25)
                ),
            )
            .with(StatusCode::NOT_FOUND),
            AppError::NoTrial(code) => ErrorSaid::new(
                phrase("page-no-trial-of-that-code"),
                say!("page-no-trial-in-this-kitchen", code = shortened(code, 25)),
            )
            .with(StatusCode::NOT_FOUND),
            AppError::Asked(sentence) => {
                ErrorSaid::new(phrase("page-that-cannot-be-done"), sentence.clone())
                    .with(StatusCode::UNPROCESSABLE_ENTITY)
            }
            AppError::Session(tower_sessions::session::Error::Store(e)) => {
                tracing::error!(cause = %e, "a session was out of reach");
                let mut said = ErrorSaid::new(
                    phrase("page-the-records-are-out-of"),
                    phrase("page-the-database-does-not-answer"),
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
        phrase("page-something-went-wrong-here"),
        phrase("page-it-is-not-your-doing"),
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
    ErrorSaid::new(
        phrase("page-nothing-is-kept-here"),
        phrase("page-this-address-leads-nowhere-the"),
    )
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

/// What a program or a script is told of what went wrong.
#[derive(Debug, Serialize, JsonSchema)]
pub struct ErrorAnswer {
    pub errors: Vec<SaidError>,
    /// The same may be sent again later.
    pub again: bool,
    /// Under which the server's log has the cause.
    pub reference: String,
    /// Nobody is signed in.
    #[serde(default, skip_serializing_if = "is_not")]
    pub signed_out: bool,
}

fn is_not(b: &bool) -> bool {
    !b
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
        let answer = ErrorAnswer {
            errors: vec![SaidError {
                field: String::new(),
                message: said.sentence,
            }],
            again: said.again,
            reference,
            signed_out: said.signed_out,
        };
        return (status, headers, axum::Json(answer)).into_response();
    }
    // Whoever said it may have known who reads.
    tongue::wording(said.language, || {
        let page = ErrorPage {
            frame: Frame::bare(theme, Stop::Bench, &said.headline),
            status: status.as_u16(),
            said: &said,
            reference: &reference,
            from: came_from(&path).filter(|_| status != StatusCode::NOT_FOUND),
        };
        match page.render() {
            Ok(html) => (status, headers, Html(html)).into_response(),
            Err(_) => (status, headers, said.sentence.clone()).into_response(),
        }
    })
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
            phrase("page-that-is-too-much-at"),
            phrase("page-a-form-holds-up-to"),
        ),
        StatusCode::METHOD_NOT_ALLOWED => ErrorSaid::new(
            phrase("page-not-from-here"),
            phrase("page-this-address-is-used-by"),
        ),
        StatusCode::SERVICE_UNAVAILABLE => ErrorSaid::new(
            phrase("page-that-took-too-long"),
            phrase("page-the-answer-did-not-come"),
        ),
        StatusCode::UNSUPPORTED_MEDIA_TYPE
        | StatusCode::BAD_REQUEST
        | StatusCode::UNPROCESSABLE_ENTITY => ErrorSaid::new(
            phrase("page-that-could-not-be-read"),
            phrase("page-what-arrived-is-not-what"),
        ),
        s if s.is_server_error() => failed(),
        _ => ErrorSaid::new(
            phrase("page-that-cannot-be-done"),
            phrase("page-the-request-was-refused"),
        ),
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
