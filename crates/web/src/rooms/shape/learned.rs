//! What Shape taught: press tests for the flour, what stays in the bowl for the formula. Nothing enters a figure until it is
//! pressed.

use crate::App;
use crate::batch::load;
use crate::batch::next_version::{latest, next_version};
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::form::FormData;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::larder::Larder;
use crate::shared::tongue::{decimal, phrase, say};
use axum::body::Bytes;
use axum::extract::{Path, State};
use axum::response::Redirect;
use craft::shape::{FlourTest, Loss, PressedDough};
use craft::sheet::ahead::ShapeLook;
use store::formula::KeptFormula;
use store::pantry;

/// Press tests and the flour that they can be noted for.
pub struct FlourTaught {
    pub flour: String,
    /// How much was noted of it, from all doughs; empty: nothing.
    pub noted: String,
    /// This dough has tests that are not noted yet.
    pub may_note: bool,
}

pub fn flour(told: &BatchRecord, look: &ShapeLook, larder: &Larder) -> Option<FlourTaught> {
    let item = larder.main_flour(&told.batch.sheet.request.formula)?;
    let pressed = &item.facts.pressed;
    let of_this = pressed.iter().find(|d| d.batch == told.batch.code);
    let noted = match pressed.iter().map(|d| d.tests.len()).sum::<usize>() {
        0 => String::new(),
        1 => phrase("shape-1-press-test-is-noted").into(),
        n => say!("shape-press-tests-are-noted", n = n),
    };
    // What was noted may have been taken back since, and another one made.
    let signs = |tests: &[FlourTest]| tests.iter().map(|t| t.sign).collect::<Vec<_>>();
    let new = of_this.is_none_or(|d| signs(&d.tests) != signs(&look.tests));
    let may_note = !look.tests.is_empty() && new;
    (may_note || !noted.is_empty()).then(|| FlourTaught {
        flour: item.facts.name.clone(),
        noted,
        may_note,
    })
}

/// What the formula adds for what stays behind, and what the weighed doughs say instead: in words and %. None where they agree,
/// or nothing was weighed.
pub fn loss(told: &BatchRecord, look: &ShapeLook, loss: &Loss) -> Option<(String, String)> {
    let adds = told.batch.sheet.request.formula.loss_percent;
    let learned = loss.formula_percent(look.put_g);
    loss.differs_from(adds, look.put_g).then(|| {
        (
            say!("shape-the-formula-adds-for-it", adds = decimal(adds, 1)),
            decimal(learned, 1),
        )
    })
}

async fn opened(
    app: &App,
    here: &RequestKitchen,
    code: &str,
) -> Result<(BatchRecord, Larder), AppError> {
    let told = load::told(app, here, code).await?;
    Ok((told, Larder::of(app, here).await?))
}

/// Notes this dough's press tests for its flour, or forgets all that were noted.
pub async fn note_flour(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let (told, larder) = opened(&app, &here, &code).await?;
    let formula = &told.batch.sheet.request.formula;
    let gone = || AppError::Asked(phrase("shape-that-flour-is-no-longer").into());
    let item = larder.main_flour(formula).ok_or_else(gone)?;
    let mut facts = item.facts.clone();
    match typed.text("act") {
        "forget" => facts.pressed.clear(),
        _ => {
            let look = super::looked(&app, &here, &told, &larder).await?.0;
            facts = facts.noted(PressedDough {
                batch: told.batch.code.clone(),
                tests: look.tests,
            });
        }
    }
    let mut db = app.db.acquire().await?;
    if !pantry::teach(&mut db, here.id(), (item.id, item.revision), &facts).await? {
        return Err(AppError::Asked(
            phrase("shape-somebody-is-changing-this-flour").into(),
        ));
    }
    app.box_looks.clear();
    Ok(Redirect::to(&format!("/batches/{code}/shape")))
}

/// Puts the learned loss into the formula: its next version.
pub async fn keep_loss(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
    body: Bytes,
) -> Result<Redirect, AppError> {
    let typed = FormData::parse(&body);
    let (told, larder) = opened(&app, &here, &code).await?;
    let (look, loss) = super::looked(&app, &here, &told, &larder).await?;
    let percent = loss.formula_percent(look.put_g);
    let says = match loss.doughs {
        0 => {
            let none = phrase("shape-no-dough-of-this-mixer");
            return Err(AppError::Asked(none.into()));
        }
        1 => phrase("shape-a-dough-weighed-whole-says").to_string(),
        n => say!("shape-doughs-weighed-whole-say", n = n),
    };
    let why = say!(
        "shape-stays-in-the-bowl-as",
        percent = decimal(percent, 1),
        says = says
    );
    let form_key = typed.key("form_key");
    let kept = store::act!(app.db, db => {
        let mut formula = latest(db, &here, &told).await?;
        formula.loss_percent = percent;
        next_version(db, &here, &told, (&formula, &why), form_key).await
    })?;
    match kept {
        KeptFormula::Done { of, .. } | KeptFormula::Other { of, .. } => {
            Ok(Redirect::to(&format!("/formulas/{}", of.0)))
        }
        KeptFormula::Stale { .. } => Err(AppError::Asked(
            phrase("shape-somebody-is-changing-this-formula").into(),
        )),
    }
}
