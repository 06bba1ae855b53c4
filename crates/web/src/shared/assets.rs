//! The files that ship with the program: fonts, styles, scripts. All are addressed under one tag of the
//! whole set, so that relative addresses inside them keep working and every file may be kept for ever.

use axum::body::Bytes;
use axum::extract::Path;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use rust_embed::{EmbeddedFile, RustEmbed};
use std::borrow::Cow;
use std::hash::{DefaultHasher, Hasher};
use std::sync::LazyLock;

#[derive(RustEmbed)]
#[folder = "assets/"]
struct Shipped;

/// Styles and scripts that live in their rooms.
#[derive(RustEmbed)]
#[folder = "src/"]
#[include = "*.css"]
#[include = "*.js"]
struct OfRooms;

static TAG: LazyLock<String> = LazyLock::new(|| {
    let mut hasher = DefaultHasher::new();
    let mut paths: Vec<_> = Shipped::iter().chain(OfRooms::iter()).collect();
    paths.sort();
    for path in paths {
        hasher.write(path.as_bytes());
        if let Some(f) = file(&path) {
            hasher.write(&f.metadata.sha256_hash());
        }
    }
    format!("{:012x}", hasher.finish() >> 16)
});

fn file(path: &str) -> Option<EmbeddedFile> {
    Shipped::get(path).or_else(|| OfRooms::get(path))
}

/// The address of a shipped file.
pub fn url(path: &str) -> String {
    format!("/assets/{}/{path}", *TAG)
}

pub async fn serve(Path((tag, path)): Path<(String, String)>) -> Response {
    let Some(f) = file(&path) else {
        return StatusCode::NOT_FOUND.into_response();
    };
    let keep = if tag == *TAG {
        "public, max-age=31536000, immutable"
    } else {
        "no-cache"
    };
    let body = match f.data {
        Cow::Borrowed(b) => Bytes::from_static(b),
        Cow::Owned(v) => v.into(),
    };
    let kind = f.metadata.mimetype().to_string();
    (
        [
            (header::CONTENT_TYPE, kind),
            (header::CACHE_CONTROL, keep.to_string()),
        ],
        body,
    )
        .into_response()
}

/// The service worker, at the root: it answers for all pages.
pub async fn service_worker() -> Response {
    let Some(f) = file("js/sw.js") else {
        return StatusCode::NOT_FOUND.into_response();
    };
    (
        [
            (header::CONTENT_TYPE, "text/javascript"),
            (header::CACHE_CONTROL, "no-cache"),
        ],
        f.data.into_owned(),
    )
        .into_response()
}
