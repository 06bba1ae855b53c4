//! Guards around the pages: posts come from our own pages, are not too large, and what they held is not
//! lost when the database is away.

use crate::App;
use crate::shared::error::{ErrorSaid, reference};
use crate::shared::site::Site;
use crate::shared::tongue::{phrase, say};
use axum::body::{Body, Bytes};
use axum::extract::{FromRequestParts, Request, State};
use axum::http::request::Parts;
use axum::http::{HeaderMap, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Redirect, Response};
use craft::photo::MOST_SENT;
use futures_util::StreamExt;
use std::convert::Infallible;
use std::net::IpAddr;
use std::time::Duration;

/// A form is a few kilobytes; this is ample.
const MOST_BYTES: usize = 256 * 1024;

/// Below these an address is a key.
const SECRET: [&str; 4] = ["/feed/", "/join/", "/crew/", "/password/"];

/// A path as the log may hold it.
fn unsecret(path: &str) -> &str {
    match SECRET.iter().find(|s| path.starts_with(**s)) {
        Some(s) => s,
        None => path,
    }
}

/// Who is at the other end of a connection.
#[derive(Debug, Clone, Copy)]
pub struct Peer(pub IpAddr);

/// Came in the clear to a server that speaks https.
#[derive(Debug, Clone, Copy)]
pub struct InTheClear;

/// What is answered in the clear: how to trust this server, what that page looks like, and whether the program lives.
const CLEAR: [&str; 6] = ["/trust", "/assets/", "/sw.js", "/lamp", "/health", "/ready"];

/// Leads whoever came in the clear to https; what was sent in the clear is not taken.
pub async fn secured_alone(request: Request, next: Next) -> Response {
    let path = request.uri().path();
    let in_the_clear = request.extensions().get::<InTheClear>().is_some();
    if !in_the_clear || CLEAR.iter().any(|c| path.starts_with(c)) {
        return next.run(request).await;
    }
    let to = text(request.headers(), "host").filter(|_| request.method().is_safe());
    match to {
        Some(host) => {
            let path = request.uri().path_and_query().map_or("/", |p| p.as_str());
            Redirect::temporary(&format!("https://{host}{path}")).into_response()
        }
        None => ErrorSaid::new(
            phrase("page-not-in-the-clear"),
            phrase("page-this-server-speaks-https"),
        )
        .with(StatusCode::FORBIDDEN),
    }
}

/// The address that somebody asks from, for those who count by it.
pub struct Address(pub String);

impl FromRequestParts<App> for Address {
    type Rejection = Infallible;
    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        let peer = parts.extensions.get::<Peer>();
        let ip = client(&app.site, peer, &parts.headers);
        Ok(Address(ip.map(|ip| ip.to_string()).unwrap_or_default()))
    }
}

/// Who asks: the other end, or whom a proxy that is believed names last.
fn client(site: &Site, peer: Option<&Peer>, headers: &HeaderMap) -> Option<IpAddr> {
    let Peer(peer) = *peer?;
    if !site.believes(peer) {
        return Some(peer);
    }
    let named = text(headers, "x-forwarded-for")
        .and_then(|all| all.rsplit(',').next())
        .and_then(|last| last.trim().parse().ok());
    Some(named.unwrap_or(peer))
}

/// The span of a request in the log, with the reference that error pages show.
pub fn span(site: &Site, request: &axum::http::Request<Body>) -> tracing::Span {
    let peer = request.extensions().get::<Peer>();
    let client = client(site, peer, request.headers()).map(|c| c.to_string());
    tracing::info_span!(
        "request",
        method = %request.method(),
        path = unsecret(request.uri().path()),
        client = client.as_deref().unwrap_or("-"),
        reference = reference(request.headers())
    )
}

/// Takes away what a client calls its request.
pub async fn nameless(mut request: Request) -> Request {
    request.headers_mut().remove("x-request-id");
    request
}

fn text<'a>(headers: &'a HeaderMap, name: &str) -> Option<&'a str> {
    headers.get(name).and_then(|v| v.to_str().ok())
}

/// Refuses requests that are meant for another name: a foreign page may have made its own name lead here.
pub async fn own_host(State(app): State<App>, request: Request, next: Next) -> Response {
    let host = text(request.headers(), "host");
    let named = request.uri().authority().map(|a| a.as_str());
    let own = |name: Option<&str>| name.is_none_or(|n| app.site.answers_to(n));
    if host.or(named).is_none() || !own(host) || !own(named) {
        return ErrorSaid::new(
            phrase("page-not-the-address-of-this"),
            phrase("page-it-answers-to-this-machines"),
        )
        .with(StatusCode::MISDIRECTED_REQUEST);
    }
    next.run(request).await
}

fn not_from_here() -> Response {
    ErrorSaid::new(
        phrase("page-not-from-here"),
        phrase("page-this-was-not-sent-by"),
    )
    .with(StatusCode::FORBIDDEN)
}

/// Whether the origin that a request names is ours; `None` where it names none.
fn is_own(app: &App, headers: &HeaderMap) -> Option<bool> {
    let origin = headers.get("origin")?.to_str().unwrap_or("");
    Some(
        app.site
            .is_own_origin(origin, text(headers, "host").unwrap_or("")),
    )
}

/// Refuses what changes something unless one of our own pages sent it: by its origin, or, from a browser that names none,
/// by its word that the page is of the same origin.
pub async fn own_pages_only(State(app): State<App>, request: Request, next: Next) -> Response {
    if request.method().is_safe() {
        return next.run(request).await;
    }
    let headers = request.headers();
    let same = text(headers, "sec-fetch-site") == Some("same-origin");
    if !is_own(&app, headers).unwrap_or(same) {
        return not_from_here();
    }
    next.run(request).await
}

/// Refuses what a page of another site asks of the API; programs name no origin.
pub async fn no_foreign_origin(State(app): State<App>, request: Request, next: Next) -> Response {
    if is_own(&app, request.headers()) == Some(false) {
        return not_from_here();
    }
    next.run(request).await
}

/// Between two pieces of a body no more time may pass.
const SLOWEST: Duration = Duration::from_secs(10);
/// More than this is not even listened to.
const MOST_IGNORED: usize = 128 * 1024 * 1024;

/// The body, or `None` when it is too large. What is too large is still read to its end and dropped: a browser that
/// is not listened to shows its own page instead of ours.
async fn within_limit(body: Body) -> Option<Bytes> {
    let mut stream = body.into_data_stream();
    let mut kept = Vec::new();
    let mut seen = 0;
    while let Some(piece) = tokio::time::timeout(SLOWEST, stream.next()).await.ok()? {
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
        let too_large = StatusCode::PAYLOAD_TOO_LARGE;
        return match path.ends_with("/photos") {
            true => ErrorSaid::new(
                phrase("page-that-is-too-much-at"),
                say!("photo-too-much-at-once", kb = MOST_SENT / 1000),
            )
            .with(too_large),
            false => too_large.into_response(),
        };
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
        && let Some(said) = response.extensions_mut().get_mut::<ErrorSaid>()
        && said.again
    {
        said.entries = form_urlencoded::parse(&bytes).into_owned().collect();
        said.action = path;
    }
    response
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn who_asks_is_believed_from_a_proxy_that_was_named_alone() {
        let site = Site::new(None, vec!["10.0.0.2".parse().unwrap()]).unwrap();
        let asked = |peer: &str, says: &str| {
            let mut r = axum::http::Request::new(Body::empty());
            r.extensions_mut().insert(Peer(peer.parse().unwrap()));
            r.headers_mut()
                .insert("x-forwarded-for", says.parse().unwrap());
            client(&site, r.extensions().get(), r.headers()).map(|c| c.to_string())
        };
        let of = |s: &str| Some(s.to_string());
        assert_eq!(asked("10.0.0.9", "1.2.3.4"), of("10.0.0.9"));
        assert_eq!(asked("10.0.0.2", "6.6.6.6, 1.2.3.4"), of("1.2.3.4"));
        assert_eq!(asked("10.0.0.2", "nonsense"), of("10.0.0.2"));
    }
}
