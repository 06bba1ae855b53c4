//! Reckoning by JSON: the same requests and results as the pages, and nothing kept.

use super::body::{NotJson, is_json, parsed};
use crate::App;
use crate::access::doors::{Asks, DoorTold, Doors, KindBodies, SchemaOf};
use crate::shared::error::AppError;
use crate::shared::tongue::phrase;
use axum::Json;
use axum::body::Bytes;
use axum::extract::{Path, Query, State};
use axum::http::{HeaderMap, StatusCode};
use axum::response::{IntoResponse, Response};
use craft::fact::Fact;
use craft::fire::firing::{Firing, FiringRequest};
use craft::fire::reckon::{Baked, Fired, baked, charged, fired};
use craft::fire::set_points::{SetPointRequest, SetPoints, set_points};
use craft::fire::{BakeRequest, FirePlan};
use craft::flour::substitute::{SubstituteRequest, Substitutes, substitute};
use craft::formula::{FormulaRequest, FormulaResult, formulate};
use craft::keyed::Keyed;
use craft::learn::{DiagnoseRequest, Diagnosed, LearnRequest, Learned, diagnose, learn};
use craft::mix::{WaterRequest, WaterResult, water};
use craft::paste::{self, PasteRequest, Pasted};
use craft::refusal::{FieldError, ValidationError};
use craft::rise::{
    HoursAnswer, HoursRequest, RiseRequest, RiseResult, Temperatures, VigourAnswer, VigourRequest,
    YeastAnswer, fit_vigour, forecast, solve_hours, solve_yeast,
};
use craft::sheet::{SheetRequest, SheetResult, life, work_out};
use craft::style::oven_fit::{FittedFormula, OvenFitRequest, fit_request};
use jiff::tz::TimeZone;
use schemars::generate::SchemaGenerator;
use schemars::{JsonSchema, Schema};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use speech::{Language, Measures, Reader};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What can be reckoned.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "kebab-case")]
pub enum ReckonKind {
    Formula,
    Water,
    Rise,
    SolveYeast,
    Sheet,
    Paste,
    Substitute,
    Fit,
    SolveHours,
    Vigour,
    Learn,
    Diagnose,
    FitLife,
    Bake,
    Fire,
    Firing,
    SetPoints,
}

/// How an answer is worded: the `text` beside each fact of it.
#[derive(Debug, Clone, Copy, Default)]
pub struct Worded {
    pub language: Language,
    /// Ounces, °F and inches instead of grams, °C and centimetres.
    pub us: bool,
}

impl Worded {
    /// Puts the texts into an answer; clock times are of the zone that the request names.
    fn into(self, mut answer: Value, request: &[u8]) -> Value {
        let asked: Value = serde_json::from_slice(request).unwrap_or_default();
        let named = asked
            .get("time_zone")
            .or_else(|| asked.get("request")?.get("time_zone"));
        let zone = named
            .and_then(Value::as_str)
            .and_then(|z| TimeZone::get(z).ok())
            .unwrap_or(TimeZone::UTC);
        let units = if self.us {
            Measures::US
        } else {
            Measures::METRIC
        };
        let reader = Reader {
            measures: Measures {
                language: self.language,
                ..units
            },
            zone: &zone,
            now: None,
        };
        reader.spoken(&mut answer);
        answer
    }
}

/// Reckons a JSON request to a JSON result with its texts; both the API and the command line come here.
///
/// Errors: `{"errors": […]}`, what is wrong field by field.
pub fn reckon(kind: ReckonKind, request: &[u8], worded: Worded) -> Result<Value, Value> {
    match reckoned(kind, request) {
        Ok(result) => Ok(worded.into(result, request)),
        Err(errors) => Err(worded.into(serde_json::json!({ "errors": errors }), request)),
    }
}

fn reckoned(kind: ReckonKind, request: &[u8]) -> Result<Value, Vec<FieldError>> {
    match kind {
        ReckonKind::Formula => run(request, formulate),
        ReckonKind::Water => run(request, water),
        ReckonKind::Rise => run(request, |r: &RiseRequest| {
            forecast(r, Temperatures::InsideTheDough)
        }),
        ReckonKind::SolveYeast => run(request, |r: &RiseRequest| {
            solve_yeast(r, Temperatures::InsideTheDough)
        }),
        ReckonKind::Sheet => run(request, work_out),
        ReckonKind::Paste => run(request, paste::read),
        ReckonKind::Substitute => run(request, substitute),
        ReckonKind::Fit => run(request, fit_request),
        ReckonKind::SolveHours => run(request, |r: &HoursRequest| {
            solve_hours(r, Temperatures::InsideTheDough)
        }),
        ReckonKind::Vigour => run(request, |r: &VigourRequest| {
            fit_vigour(r, Temperatures::InsideTheDough)
        }),
        ReckonKind::Learn => run(request, learn),
        ReckonKind::Diagnose => run(request, diagnose),
        ReckonKind::FitLife => run(request, life::fit),
        ReckonKind::Bake => run(request, baked),
        ReckonKind::Fire => run(request, fired),
        ReckonKind::Firing => run(request, charged),
        ReckonKind::SetPoints => run(request, |r: &SetPointRequest| {
            set_points(r, &r.bake.aim.targets())
        }),
    }
}

fn run<A: DeserializeOwned, B: Serialize>(
    request: &[u8],
    compute: impl Fn(&A) -> Result<B, ValidationError>,
) -> Result<Value, Vec<FieldError>> {
    let whole = |e: String| FieldError {
        field: String::new(),
        message: Fact::as_written(e),
    };
    let asked: A = parsed(request).map_err(|NotJson { field, sentence }| {
        vec![FieldError {
            field,
            ..whole(sentence)
        }]
    })?;
    let result = compute(&asked).map_err(|ValidationError(errors)| errors)?;
    serde_json::to_value(result).map_err(|e| vec![whole(e.to_string())])
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_wrong_with_a_request_is_said_in_the_words_of_json() {
        let first = |kind, text: &str| {
            reckoned(kind, text.as_bytes())
                .unwrap_err()
                .remove(0)
                .message
                .brief()
        };
        assert_eq!(
            first(ReckonKind::Sheet, r#"{"formula": 3}"#),
            "This must be an object with named fields, not integer `3` at line 1 column 13."
        );
        assert_eq!(
            first(ReckonKind::Rise, r#"{"stages": "x"}"#),
            "This must be a list, not string \"x\" at line 1 column 14."
        );
        for &kind in ReckonKind::ALL {
            for text in [
                "7",
                "[]",
                "\"x\"",
                "null",
                "{\"formula\":[],\"oven\":1,\"bake\":true,\"request\":[2]}",
            ] {
                let all = reckoned(kind, text.as_bytes()).unwrap_err();
                let leaks =
                    |m: &str| m.contains("struct") || m.contains("f64") || m.contains("enum");
                assert!(
                    all.iter().all(|e| !leaks(&e.message.brief())),
                    "{kind:?} {text}: {all:?}"
                );
            }
        }
    }
}

/// What is wrong with the asking itself.
fn refused(status: StatusCode, field: String, message: String) -> Response {
    let errors =
        serde_json::json!({ "errors": [FieldError { field, message: Fact::as_written(message) }] });
    (status, Json(Worded::default().into(errors, b""))).into_response()
}

pub fn routes() -> Doors {
    Doors::new()
        .post(Asks::Known, "/reckon/{kind}", answer)
        .told(
            DoorTold::by(|| phrase("api-door-reckon"))
                .of_kinds(kinds)
                .refuses::<Refused>()
                .worded(),
        )
        .get(Asks::Nothing, "/schema/{kind}", schema)
        .told(DoorTold::by(|| phrase("api-door-schema")).gives::<Value>())
}

/// What is wrong with a request, field by field, each as a fact with its text.
#[derive(Serialize, JsonSchema)]
struct Refused {
    errors: Vec<FieldError>,
}

fn unknown(kind: &str) -> Response {
    let known: Vec<_> = ReckonKind::ALL.iter().map(|k| k.key()).collect();
    let message = format!(
        "Nothing of that kind is reckoned; known are {}.",
        known.join(", ")
    );
    let field = if kind.len() < 40 {
        kind.to_string()
    } else {
        String::new()
    };
    refused(StatusCode::NOT_FOUND, field, message)
}

/// How the texts of an answer are wanted.
#[derive(Debug, Default, Deserialize)]
#[serde(default)]
struct AskedWords {
    language: String,
    units: String,
}

async fn answer(
    State(app): State<App>,
    Path(kind): Path<String>,
    Query(asked): Query<AskedWords>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, AppError> {
    if !is_json(&headers) {
        let message = "Send JSON, with the header content-type: application/json.";
        let status = StatusCode::UNSUPPORTED_MEDIA_TYPE;
        return Ok(refused(status, String::new(), message.into()));
    }
    let Some(kind) = ReckonKind::from_key(&kind) else {
        return Ok(unknown(&kind));
    };
    let worded = Worded {
        language: Language::from_key(&asked.language).unwrap_or_default(),
        us: asked.units == "us",
    };
    let work = || reckon(kind, &body, worded);
    Ok(match app.models.at_length(work).await? {
        Ok(result) => Json(result).into_response(),
        Err(errors) => (StatusCode::UNPROCESSABLE_ENTITY, Json(errors)).into_response(),
    })
}

/// The schemas of what a kind takes and gives: as parts of a document, and each whole by itself.
struct Schemas {
    parts: [SchemaOf; 2],
    wholes: [fn(SchemaGenerator) -> Schema; 2],
}

fn schemas(kind: ReckonKind) -> Schemas {
    fn of<A: JsonSchema, B: JsonSchema>() -> Schemas {
        Schemas {
            parts: [
                SchemaGenerator::subschema_for::<A>,
                SchemaGenerator::subschema_for::<B>,
            ],
            wholes: [
                SchemaGenerator::into_root_schema_for::<A>,
                SchemaGenerator::into_root_schema_for::<B>,
            ],
        }
    }
    match kind {
        ReckonKind::Formula => of::<FormulaRequest, FormulaResult>(),
        ReckonKind::Water => of::<WaterRequest, WaterResult>(),
        ReckonKind::Rise => of::<RiseRequest, RiseResult>(),
        ReckonKind::SolveYeast => of::<RiseRequest, YeastAnswer>(),
        ReckonKind::Sheet => of::<SheetRequest, SheetResult>(),
        ReckonKind::Paste => of::<PasteRequest, Pasted>(),
        ReckonKind::Substitute => of::<SubstituteRequest, Substitutes>(),
        ReckonKind::Fit => of::<OvenFitRequest, FittedFormula>(),
        ReckonKind::SolveHours => of::<HoursRequest, HoursAnswer>(),
        ReckonKind::Vigour => of::<VigourRequest, VigourAnswer>(),
        ReckonKind::Learn => of::<LearnRequest, Learned>(),
        ReckonKind::Diagnose => of::<DiagnoseRequest, Diagnosed>(),
        ReckonKind::FitLife => of::<life::LifeFitRequest, life::FitResult>(),
        ReckonKind::Bake => of::<BakeRequest, Baked>(),
        ReckonKind::Fire => of::<FirePlan, Fired>(),
        ReckonKind::Firing => of::<FiringRequest, Firing>(),
        ReckonKind::SetPoints => of::<SetPointRequest, SetPoints>(),
    }
}

/// Every kind with what it takes and gives.
fn kinds(g: &mut SchemaGenerator) -> Vec<KindBodies> {
    let of = |&kind: &ReckonKind| {
        let [takes, gives] = schemas(kind).parts.map(|part| part(g));
        KindBodies {
            kind: kind.key(),
            takes: Some(takes),
            gives,
        }
    };
    ReckonKind::ALL.iter().map(of).collect()
}

/// JSON Schema of a kind's request and result.
async fn schema(Path(kind): Path<String>) -> Response {
    let Some(kind) = ReckonKind::from_key(&kind) else {
        return unknown(&kind);
    };
    let wholes = schemas(kind).wholes;
    let [request, result] = wholes.map(|whole| whole(SchemaGenerator::default()));
    Json(serde_json::json!({ "request": request, "result": result })).into_response()
}
