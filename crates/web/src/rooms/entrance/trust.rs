//! Trusting this server: where it speaks https by an authority of its own, a tablet is shown how to trust that.

use crate::App;
use crate::access::doors::{Asks, Doors};
use crate::shared::error::AppError;
use crate::shared::layout::{Frame, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::{Html, IntoResponse, Response};

pub fn routes() -> Doors {
    Doors::new().get(Asks::Nothing, TRUST, show).get(
        Asks::Nothing,
        "/trust/authority.crt",
        authority,
    )
}

/// Where a tablet is shown how to trust this server; open in the clear, too, for it trusts nothing yet.
pub const TRUST: &str = "/trust";

struct TrustView {
    names: String,
    fingerprint: String,
}

#[derive(Template)]
#[template(path = "rooms/entrance/trust.html")]
struct TrustPage {
    frame: Frame,
    /// Nothing where there is nothing to trust.
    t: Option<TrustView>,
}

async fn show(State(app): State<App>, theme: Theme) -> Result<Html<String>, AppError> {
    let trust = app.site.trust();
    page(&TrustPage {
        frame: Frame::entrance(theme, phrase("entrance-trust-this-server")),
        t: trust.map(|t| TrustView {
            names: t.names.join(", "),
            fingerprint: t.fingerprint(),
        }),
    })
}

/// The authority's certificate, as devices take it in.
async fn authority(State(app): State<App>) -> Response {
    let Some(trust) = app.site.trust() else {
        return StatusCode::NOT_FOUND.into_response();
    };
    let headers = [
        (header::CONTENT_TYPE, "application/x-x509-ca-cert"),
        (
            header::CONTENT_DISPOSITION,
            "attachment; filename=\"slow-rise-authority.crt\"",
        ),
    ];
    (headers, trust.der).into_response()
}
