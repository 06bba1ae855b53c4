//! The sheet on paper: A4 or Letter, black and white, to read at arm's length with floury hands.

use super::{ShownAs, ShownSheet};
use crate::shared::error::AppError;
use crate::shared::format::{day, day_hm, portions};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::say;
use crate::shared::tongue::shipped;
use askama::Template;
use axum::response::{IntoResponse, Response};
use craft::fact;
use craft::sheet::{SheetRequest, SheetResult};
use craft::units::Celsius;

struct PaperStep {
    when: String,
    title: String,
    detail: String,
}

#[derive(Template)]
#[template(path = "rooms/sheet/paper.html")]
struct Paper {
    name: String,
    code: Option<String>,
    style: String,
    serve: String,
    made: String,
    kitchen: String,
    divide: String,
    v: ShownSheet,
    steps: Vec<PaperStep>,
    /// How cold perishables are kept.
    cold: String,
}

/// The page that is printed.
pub fn page(
    name: &str,
    code: Option<&str>,
    request: &SheetRequest,
    sheet: &SheetResult,
    here: &RequestKitchen,
) -> Result<Response, AppError> {
    let mut v = ShownSheet::of(request, sheet, here, ShownAs::Draft);
    // On paper nothing can be typed.
    v.editable = false;
    let paper = Paper {
        name: name.into(),
        code: code.map(Into::into),
        style: shipped(&request.formula.style.name),
        serve: day_hm(&here.local(request.serve_at)),
        // Paper does not follow the clock: it says what it shows, and of when.
        made: if sheet.notes.iter().any(|n| n.code == "as_it_goes") {
            say!("figures-as-it-goes", now = day_hm(&here.local(here.now)))
        } else {
            say!("figures-as-planned", now = day(&here.local(here.now)))
        },
        kitchen: here.kitchen.name.clone(),
        divide: portions(&sheet.formula.portions, &here.measures),
        steps: sheet
            .steps
            .iter()
            .map(|s| PaperStep {
                when: day_hm(&here.local(s.at)),
                title: here.say(&s.title),
                detail: here.say(&s.detail),
            })
            .collect(),
        cold: here.say(&fact!("keep-cold", c = Celsius(5.0))),
        v,
    };
    Ok(crate::shared::layout::page(&paper)?.into_response())
}
