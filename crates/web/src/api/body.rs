//! What programs send: JSON that is read strictly, and what is wrong with it in the words of JSON.

use crate::batch::entries;
use crate::shared::tongue::{phrase, say};
use axum::body::Bytes;
use axum::extract::{FromRequest, Request};
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::de::DeserializeOwned;

/// Where a request cannot be read, and why.
pub struct NotJson {
    /// The field; empty where it is all of it.
    pub field: String,
    pub sentence: String,
}

/// Whether a request says that it brings JSON.
pub fn is_json(headers: &HeaderMap) -> bool {
    let kind = headers
        .get(header::CONTENT_TYPE)
        .and_then(|v| v.to_str().ok());
    let kind = kind.and_then(|t| t.split(';').next());
    kind.is_some_and(|t| t.trim() == "application/json")
}

/// Reads a request, all of it.
pub fn parsed<A: DeserializeOwned>(request: &[u8]) -> Result<A, NotJson> {
    let mut reader = serde_json::Deserializer::from_slice(request);
    let asked: A = serde_path_to_error::deserialize(&mut reader).map_err(|e| {
        let path = e.path().to_string();
        NotJson {
            field: if path == "." { String::new() } else { path },
            sentence: sentence(&e.inner().to_string()),
        }
    })?;
    reader.end().map_err(|e| NotJson {
        field: String::new(),
        sentence: sentence(&e.to_string()),
    })?;
    Ok(asked)
}

/// What a program sent.
pub struct SentJson<A>(pub A);

impl<A: DeserializeOwned, S: Send + Sync> FromRequest<S> for SentJson<A> {
    type Rejection = Response;
    async fn from_request(request: Request, state: &S) -> Result<Self, Response> {
        if !is_json(request.headers()) {
            return Err(StatusCode::UNSUPPORTED_MEDIA_TYPE.into_response());
        }
        let bytes = Bytes::from_request(request, state).await;
        let bytes = bytes.map_err(IntoResponse::into_response)?;
        let read = parsed(&bytes).map(SentJson);
        read.map_err(|e| entries::wrong(&e.field, e.sentence))
    }
}

/// The reader's message as a sentence, in the words of JSON and not of this program.
fn sentence(message: &str) -> String {
    let types = message
        .strip_prefix("invalid type: ")
        .and_then(|m| m.split_once(", expected "));
    let mut s = match types {
        Some((found, rest)) => {
            let (wanted, place) = match rest.rfind(" at line ") {
                Some(i) => rest.split_at(i),
                None => (rest, ""),
            };
            say!(
                "api-this-must-be-not",
                wanted = kind(wanted),
                found = kind(found),
                place = place
            )
        }
        // A list that is too short for what an object says by names.
        None if message.starts_with("invalid length") => {
            let place = message.rfind(" at line ").map_or("", |i| &message[i..]);
            say!("api-this-must-be-an-object", place = place)
        }
        None => message.to_string(),
    };
    if let Some(first) = s.get_mut(0..1) {
        first.make_ascii_uppercase();
    }
    s + "."
}

/// A type in the words of JSON.
fn kind(word: &str) -> String {
    let whole = [
        "u8", "u16", "u32", "u64", "usize", "i8", "i16", "i32", "i64",
    ];
    match word {
        "f64" | "f32" => phrase("api-a-number").into(),
        w if whole.contains(&w) => phrase("api-a-whole-number").into(),
        "a sequence" | "sequence" => phrase("api-a-list").into(),
        "a string" => phrase("api-a-text").into(),
        "a boolean" => phrase("api-true-or-false").into(),
        "null" | "unit value" => phrase("api-nothing").into(),
        "map" | "a map" => phrase("api-an-object").into(),
        w if w.contains("struct ") || w.contains("enum ") || w.contains("tuple") => {
            phrase("api-an-object-with-named-fields").into()
        }
        w => w.to_string(),
    }
}
