//! Labels for boxes and tubs: what it is, when it was made, from when to when it is used, what is in it, and a code that
//! a telephone opens at the batch's page on this server.

use crate::App;
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::format::word;
use crate::shared::format::{day_hm, from_to};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::layout::page;
use askama::Template;
use axum::Router;
use axum::extract::{Path, Query, State};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use qrcode::QrCode;
use qrcode::render::svg;
use std::collections::HashMap;

/// So many labels at most on one print.
const MOST: u32 = 96;

pub fn routes() -> Router<App> {
    Router::new().route("/batches/{code}/labels", get(labels))
}

#[derive(Template)]
#[template(path = "rooms/labels/page.html")]
struct LabelsPage {
    code: String,
    name: String,
    made: String,
    usable: String,
    allergens: String,
    contents: String,
    qr: String,
    address: String,
    /// Said where no telephone reaches the address.
    only_here: Option<String>,
    /// "1 of 4".
    each: Vec<String>,
    count: u32,
}

/// What is in the dough that somebody may not bear: the flours' own words, and those of milk and the like.
fn allergens(told: &BatchRecord, larder: &Larder) -> String {
    let f = &told.batch.sheet.request.formula;
    let of_flours = f.flours.iter().map(|x| {
        let own = larder
            .0
            .flours
            .iter()
            .find(|p| Some(p.id) == x.pantry)
            .map(|p| p.facts.allergens.clone());
        own.filter(|a| !a.is_empty())
            .unwrap_or_else(|| "gluten".into())
    });
    let of_extras = f
        .extras
        .iter()
        .filter_map(|e| e.kind.allergen().map(|a| word(&a)));
    let mut all: Vec<String> = of_flours
        .chain(of_extras)
        .flat_map(|a| {
            a.split(',')
                .map(|a| a.trim().to_lowercase())
                .collect::<Vec<_>>()
        })
        .filter(|a| !a.is_empty())
        .collect();
    all.sort();
    all.dedup();
    all.join(", ")
}

async fn labels(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    Query(query): Query<HashMap<String, String>>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let larder = Larder::of(&app, &here).await?;
    let sheet = app.goes(&told, &here).await?;
    let pieces = sheet.formula.pieces;
    let each = larder
        .0
        .boxes
        .iter()
        .map(|b| b.facts.balls())
        .max()
        .unwrap_or(6)
        .max(1);
    let usual = if told.batch.sheet.request.formula.in_pans() {
        1
    } else {
        pieces.div_ceil(each)
    };
    let count = query
        .get("n")
        .and_then(|n| n.parse().ok())
        .unwrap_or(usual)
        .clamp(1, MOST);
    let address = app.site.address(&format!("/batches/{}", told.batch.code));
    let qr = QrCode::new(address.as_bytes())
        .map_err(|e| AppError::Asked(format!("No code can be drawn for {address}: {e}.")))?
        .render::<svg::Color>()
        .min_dimensions(120, 120)
        .quiet_zone(true)
        .build();
    // Only the drawing: a page holds no XML heading.
    let qr = qr
        .find("<svg")
        .map_or(String::new(), |i| qr[i..].to_string());
    let m = here.measures;
    let f = &told.batch.sheet.request.formula;
    let html = page(&LabelsPage {
        name: told.batch.name.clone(),
        made: day_hm(&here.local(sheet.mixed_at)),
        usable: sheet.window.map_or("never ready".into(), |w| {
            let to = w.to_at.map(|t| here.local(t));
            from_to(&here.local(w.from_at), to.as_ref())
        }),
        allergens: allergens(&told, &larder),
        contents: format!(
            "{}; {} % water, {} % salt",
            crate::shared::format::portions(&sheet.formula.portions, &m),
            craft::number::plain((10.0 * sheet.formula.true_hydration_percent).round() / 10.0),
            craft::number::plain(f.salt_percent)
        ),
        qr,
        address,
        only_here: app.site.only_here(),
        each: (1..=count).map(|i| format!("{i} of {count}")).collect(),
        count,
        code: told.batch.code,
    })?;
    Ok(html.into_response())
}
