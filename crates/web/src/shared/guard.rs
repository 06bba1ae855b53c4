//! Guards around the pages: posts come from our own pages, are not too large, and what they held is not
//! lost when the database is away.

use crate::shared::error::{Said, reference};
use axum::body::{Body, Bytes};
use axum::extract::Request;
use axum::http::{HeaderMap, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use futures_util::StreamExt;

/// A form is a few kilobytes; this is ample.
const MOST_BYTES: usize = 256 * 1024;

/// The span of a request in the log, with the reference that error pages show.
pub fn span(request: &axum::http::Request<Body>) -> tracing::Span {
    tracing::info_span!(
        "request",
        method = %request.method(),
        path = request.uri().path(),
        reference = reference(request.headers())
    )
}

/// Refuses posts that another site's page sends.
pub async fn own_pages_only(request: Request, next: Next) -> Response {
    if request.method() == Method::POST && is_foreign(request.headers()) {
        return Said::new(
            "Not from here",
            "This was sent by a page of another site. Nothing was kept.",
        )
        .with(StatusCode::FORBIDDEN);
    }
    next.run(request).await
}

fn is_foreign(headers: &HeaderMap) -> bool {
    let text = |name: &str| headers.get(name).and_then(|v| v.to_str().ok());
    let site = text("sec-fetch-site").is_some_and(|s| s == "cross-site");
    // Browsers send an origin with every post; it must be the host that was asked.
    let origin =
        text("origin").is_some_and(|o| o.split_once("://").map(|(_, host)| host) != text("host"));
    site || origin
}

/// More than this is not even listened to.
const MOST_IGNORED: usize = 128 * 1024 * 1024;

/// The body, or `None` when it is too large. What is too large is still read to its end and dropped: a browser that
/// is not listened to shows its own page instead of ours.
async fn within_limit(body: Body) -> Option<Bytes> {
    let mut stream = body.into_data_stream();
    let mut kept = Vec::new();
    let mut seen = 0;
    while let Some(piece) = stream.next().await {
        let piece = piece.ok()?;
        seen += piece.len();
        if seen > MOST_IGNORED {
            return None;
        }
        if seen <= MOST_BYTES {
            kept.extend_from_slice(&piece);
        }
    }
    (seen <= MOST_BYTES).then(|| kept.into())
}

/// Reads the body of a post within its limit and, when the answer is "the database is away", hands the
/// entries to the error page so that they can be sent again.
pub async fn keep_entries(request: Request, next: Next) -> Response {
    if request.method() != Method::POST {
        return next.run(request).await;
    }
    let path = request.uri().path().to_string();
    let (parts, body) = request.into_parts();
    let Some(bytes) = within_limit(body).await else {
        return StatusCode::PAYLOAD_TOO_LARGE.into_response();
    };
    let is_form = parts
        .headers
        .get(header::CONTENT_TYPE)
        .and_then(|v| v.to_str().ok())
        .is_some_and(|t| t.starts_with("application/x-www-form-urlencoded"));
    let mut response = next
        .run(Request::from_parts(parts, Body::from(bytes.clone())))
        .await;
    if is_form
        && let Some(said) = response.extensions_mut().get_mut::<Said>()
        && said.again
    {
        said.entries = form_urlencoded::parse(&bytes).into_owned().collect();
        said.action = path;
    }
    response
}
