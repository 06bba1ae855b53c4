//! Day and night: the lamp. The choice is kept in a cookie of this browser.

use crate::access::doors::{Asks, Doors};
use axum::extract::{Form, FromRequestParts};
use axum::http::request::Parts;
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Redirect, Response};
use serde::Deserialize;
use std::convert::Infallible;
use strum::{EnumString, IntoStaticStr};

#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, EnumString, IntoStaticStr)]
#[strum(serialize_all = "snake_case")]
pub enum Theme {
    #[default]
    Day,
    Night,
}

impl Theme {
    /// "day" or "night", as the cookie and the styles say it.
    pub fn word(self) -> &'static str {
        self.into()
    }
    pub fn other(self) -> Theme {
        match self {
            Theme::Day => Theme::Night,
            Theme::Night => Theme::Day,
        }
    }
    pub fn of(headers: &HeaderMap) -> Theme {
        let night = headers
            .get_all(header::COOKIE)
            .iter()
            .filter_map(|c| c.to_str().ok())
            .flat_map(|c| c.split(';'))
            .any(|c| c.trim() == "theme=night");
        if night { Theme::Night } else { Theme::Day }
    }
}

impl<S: Sync> FromRequestParts<S> for Theme {
    type Rejection = Infallible;
    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Infallible> {
        Ok(Theme::of(&parts.headers))
    }
}

#[derive(Deserialize)]
struct Lamp {
    theme: String,
    back: String,
}

pub fn routes() -> Doors {
    Doors::new().post(Asks::Nothing, "/lamp", lamp)
}

async fn lamp(Form(l): Form<Lamp>) -> Response {
    let theme: Theme = l.theme.parse().unwrap_or_default();
    let cookie = format!(
        "theme={}; Path=/; Max-Age=31536000; SameSite=Lax",
        theme.word()
    );
    (
        [(header::SET_COOKIE, cookie)],
        Redirect::to(own_path(&l.back)),
    )
        .into_response()
}

/// A path of this server, or the Bench: a form must not send anyone elsewhere.
pub fn own_path(path: &str) -> &str {
    let own =
        path.starts_with('/') && !path.starts_with("//") && !path.contains(['\\', '\n', '\r']);
    if own { path } else { "/" }
}

#[cfg(test)]
mod tests {
    use super::own_path;

    #[test]
    fn only_own_paths_are_gone_back_to() {
        assert_eq!(own_path("/ledger?skip=10"), "/ledger?skip=10");
        for bad in [
            "//elsewhere",
            "http://elsewhere",
            "",
            "/\\elsewhere",
            "/a\nb",
        ] {
            assert_eq!(own_path(bad), "/", "{bad}");
        }
    }
}
