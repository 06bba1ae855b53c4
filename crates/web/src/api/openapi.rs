//! What the API is, for programs and those who write them: OpenAPI 3.1, made from the doors themselves.

use super::VERSION_1;
use crate::access::doors::{Asks, Door, DoorBodies, DoorTold, SchemaOf};
use crate::shared::error::ErrorAnswer;
use crate::shared::tongue::{language, phrase};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use craft::keyed::Keyed;
use craft::people::Role;
use moka::sync::Cache;
use schemars::generate::SchemaSettings;
use schemars::{Schema, SchemaGenerator};
use serde_json::{Map, Value, json};
use speech::Language;
use std::sync::{Arc, LazyLock};

/// The document is the same for all who read one language: it is made once for each.
static MADE: LazyLock<Cache<Language, Arc<str>>> = LazyLock::new(|| Cache::new(8));

pub async fn served() -> Response {
    let made = MADE.get_with(language(), || document().to_string().into());
    let kind = (header::CONTENT_TYPE, "application/json");
    ([kind], made.to_string()).into_response()
}

/// The document of the API.
fn document() -> Value {
    let settings = SchemaSettings::draft2020_12().with(|s| {
        s.definitions_path = "/components/schemas".into();
        s.meta_schema = None;
    });
    let mut g = settings.into_generator();
    let error = g.subschema_for::<ErrorAnswer>();
    let mut paths = Map::new();
    for door in super::routes().list() {
        let Some(told) = door.told else { continue };
        for (path, operation) in operations(door, &told, &mut g, &error) {
            let at = paths.entry(path).or_insert_with(|| json!({}));
            at[door.method.as_str().to_lowercase()] = operation;
        }
    }
    json!({
        "openapi": "3.1.0",
        "info": {
            "title": "Slow Rise",
            "version": env!("CARGO_PKG_VERSION"),
            "description": phrase("api-what-it-is"),
        },
        // Wherever it was asked for.
        "servers": [{"url": "/"}],
        "paths": paths,
        "components": {
            "schemas": g.take_definitions(true),
            "securitySchemes": {
                "token": {"type": "http", "scheme": "bearer", "description": phrase("api-what-a-token-is")}
            },
        },
    })
}

/// A door's operations: one, or one for each kind that its path names.
fn operations(
    door: &Door,
    told: &DoorTold,
    g: &mut SchemaGenerator,
    error: &Schema,
) -> Vec<(String, Value)> {
    let refuses = told.refuses.map(|of| of(g));
    let one = |path: &str, takes: Option<Schema>, gives: Option<Schema>| {
        let mut operation = json!({
            "operationId": name(door, path),
            "summary": (told.text)(),
            "parameters": parameters(path, told.worded),
            "responses": responses(gives, refuses.as_ref(), error),
            "security": security(door.asks),
            // Which tokens open it.
            "x-tokens": tokens(door.asks),
        });
        if let Some(takes) = takes {
            operation["requestBody"] = json!({"required": true, "content": json_body(&takes)});
        }
        (path.to_string(), operation)
    };
    match told.bodies {
        DoorBodies::One { takes, gives } => {
            let mut of = |schema: Option<SchemaOf>| schema.map(|of| of(g));
            let (takes, gives) = (of(takes), of(gives));
            vec![one(&door.path, takes, gives)]
        }
        DoorBodies::OfKinds(all) => all(g)
            .into_iter()
            .map(|k| one(&door.path.replace("{kind}", k.kind), k.takes, Some(k.gives)))
            .collect(),
    }
}

/// "post_batches_code_taps".
fn name(door: &Door, path: &str) -> String {
    let below = path.strip_prefix(VERSION_1).unwrap_or(path);
    let words: Vec<String> = below
        .split(|c: char| !c.is_ascii_alphanumeric())
        .filter(|w| !w.is_empty())
        .map(str::to_lowercase)
        .collect();
    format!(
        "{}_{}",
        door.method.as_str().to_lowercase(),
        words.join("_")
    )
}

fn json_body(schema: &Schema) -> Value {
    json!({"application/json": {"schema": schema}})
}

fn responses(gives: Option<Schema>, refuses: Option<&Schema>, error: &Schema) -> Value {
    let done = phrase("api-done");
    let mut all = match gives {
        Some(gives) => json!({"200": {"description": done, "content": json_body(&gives)}}),
        None => json!({"204": {"description": done}}),
    };
    if let Some(refuses) = refuses {
        let texts = [("409", phrase("api-refused")), ("422", phrase("api-wrong"))];
        for (status, text) in texts {
            all[status] = json!({"description": text, "content": json_body(refuses)});
        }
    }
    all["default"] = json!({"description": phrase("api-failed"), "content": json_body(error)});
    all
}

/// What is asked of whoever comes; nothing where it is open.
fn security(asks: Asks) -> Value {
    match asks {
        Asks::Nothing => json!([]),
        Asks::Known | Asks::Person | Asks::Of(_) => json!([{"token": []}]),
    }
}

/// The kinds of tokens that open a door.
fn tokens(asks: Asks) -> Vec<&'static str> {
    let may = |role: &Role| match asks {
        Asks::Of(right) => role.may(right),
        Asks::Known | Asks::Nothing => true,
        Asks::Person => false,
    };
    let all = Role::OF_PROGRAMS.into_iter().filter(may);
    all.map(Keyed::key).collect()
}

/// What a path names, and how words are wanted.
fn parameters(path: &str, worded: bool) -> Vec<Value> {
    let named = path.split('{').skip(1).filter_map(|p| p.split('}').next());
    let mut all: Vec<Value> = named
        .map(|name| {
            let schema = match name {
                "number" => json!({"type": "integer", "minimum": 0}),
                _ => json!({"type": "string"}),
            };
            json!({"name": name, "in": "path", "required": true, "schema": schema})
        })
        .collect();
    if worded {
        let language: Vec<_> = Language::READ.iter().map(|l| l.key()).collect();
        for (name, keys) in [("language", language), ("units", vec!["metric", "us"])] {
            let schema = json!({"type": "string", "enum": keys});
            all.push(json!({"name": name, "in": "query", "schema": schema}));
        }
    }
    all
}
