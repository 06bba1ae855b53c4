//! A formula taken away as a file.

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::formula_form::{opened, reading};
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::say;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use craft::exchange::{FormulaFile, export, sheet_as_csv, to_recipe_ld};
use craft::sheet::{SheetRequest, SheetResult, work_out};
use store::formula::{self, FormulaId, Version};

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/formulas/{id}/versions/{number}/formula.json", own)
        .get(LOOK, "/formulas/{id}/versions/{number}/sheet.csv", csv)
        .get(
            LOOK,
            "/formulas/{id}/versions/{number}/recipe.jsonld",
            recipe,
        )
}

async fn version(
    app: &App,
    here: &RequestKitchen,
    id: u64,
    number: u32,
) -> Result<Version, AppError> {
    let mut db = app.db.acquire().await?;
    formula::version(&mut db, here.id(), FormulaId(id), Some(number))
        .await?
        .ok_or_else(|| AppError::NoFormula(say!("library-version-6", id = id, number = number)))
}

/// A file's name out of a formula's: letters and digits.
fn file_name(name: &str, ending: &str) -> String {
    let plain: String = name
        .to_lowercase()
        .chars()
        .map(|c| if c.is_ascii_alphanumeric() { c } else { '-' })
        .collect();
    let plain = plain
        .split('-')
        .filter(|p| !p.is_empty())
        .collect::<Vec<_>>()
        .join("-");
    let plain = if plain.is_empty() {
        "formula".into()
    } else {
        plain
    };
    format!("attachment; filename=\"{plain}.{ending}\"")
}

fn file(kind: &'static str, name: String, text: String) -> Response {
    (
        [
            (header::CONTENT_TYPE, kind.to_string()),
            (header::CONTENT_DISPOSITION, name),
        ],
        text,
    )
        .into_response()
}

/// The version worked out for its next serving in this kitchen.
async fn worked(
    app: &App,
    here: &RequestKitchen,
    v: &Version,
) -> Result<(SheetRequest, SheetResult), AppError> {
    let larder = Larder::of(app, here).await?;
    let typed = opened(&v.formula, Some(&v.name), None, here);
    let say = |e: Vec<craft::refusal::FieldError>| AppError::Asked(here.say_all(&e));
    let sheet = reading::read(&typed, here, larder.tools(here)).map_err(say)?;
    let result = work_out(&sheet.request).map_err(|e| say(e.0))?;
    Ok((sheet.request, result))
}

async fn own(
    State(app): State<App>,
    here: RequestKitchen,
    Path((id, number)): Path<(u64, u32)>,
) -> Result<Response, AppError> {
    let v = version(&app, &here, id, number).await?;
    let text = export(&FormulaFile::new(&v.name, &v.why, v.formula));
    Ok(file("application/json", file_name(&v.name, "json"), text))
}

async fn csv(
    State(app): State<App>,
    here: RequestKitchen,
    Path((id, number)): Path<(u64, u32)>,
) -> Result<Response, AppError> {
    let v = version(&app, &here, id, number).await?;
    let (r, s) = worked(&app, &here, &v).await?;
    Ok(file(
        "text/csv; charset=utf-8",
        file_name(&v.name, "csv"),
        sheet_as_csv(&r.formula, &s.formula),
    ))
}

async fn recipe(
    State(app): State<App>,
    here: RequestKitchen,
    Path((id, number)): Path<(u64, u32)>,
) -> Result<Response, AppError> {
    let v = version(&app, &here, id, number).await?;
    let (r, s) = worked(&app, &here, &v).await?;
    let steps: Vec<(String, String)> = s
        .steps
        .iter()
        .map(|x| (here.say(&x.title), here.say(&x.detail)))
        .collect();
    let text = to_recipe_ld(&v.name, &r.formula, &s.formula, &steps);
    Ok(file(
        "application/ld+json",
        file_name(&v.name, "jsonld"),
        text,
    ))
}
