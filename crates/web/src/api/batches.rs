//! Batches for programs: what is under way, and one of them whole.

use crate::App;
use crate::access::doors::{DoorTold, Doors, LOOK};
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::rooms::takeaway;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::phrase;
use axum::Json;
use axum::extract::State;
use jiff::Timestamp;
use schemars::JsonSchema;
use serde::Serialize;

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/batches", under_way)
        .told(DoorTold::by(|| phrase("api-door-batches")).gives::<BatchesNow>())
        .get(LOOK, "/batches/{code}", takeaway::json)
        .told(DoorTold::by(|| phrase("api-door-batch")).gives::<serde_json::Value>())
}

/// What is under way in the kitchen.
#[derive(Serialize, JsonSchema)]
struct BatchesNow {
    /// The kitchen's name.
    kitchen: String,
    /// The moment of this answer.
    now: Timestamp,
    /// The earliest served first.
    batches: Vec<BatchNow>,
}

/// One batch.
#[derive(Serialize, JsonSchema)]
struct BatchNow {
    /// Its code, as addresses have it.
    code: String,
    name: String,
    serve_at: Timestamp,
    /// So many pieces it gives.
    pieces: u32,
    /// So many are not in the oven yet.
    pieces_left: u32,
    /// The numbers of those that are in.
    in_oven: Vec<u32>,
    steps: Vec<StepNow>,
}

/// One step of a batch.
#[derive(Serialize, JsonSchema)]
struct StepNow {
    /// What it is known by.
    number: u16,
    /// What to do, in words.
    title: String,
    /// When it is planned.
    planned_at: Timestamp,
    /// Minutes of work.
    hands_on_min: f64,
    begun_at: Option<Timestamp>,
    done_at: Option<Timestamp>,
    left_out: bool,
}

impl BatchNow {
    fn of(told: &BatchRecord, here: &RequestKitchen) -> BatchNow {
        let sheet = &told.batch.sheet;
        let known = sheet.result.steps.iter().zip(&told.progress.steps);
        BatchNow {
            code: told.batch.code.clone(),
            name: told.batch.name.clone(),
            serve_at: sheet.request.serve_at,
            pieces: sheet.result.formula.pieces,
            pieces_left: told.pieces_left(),
            in_oven: told
                .run
                .pizzas
                .iter()
                .filter(|p| p.out_at.is_none())
                .map(|p| p.number)
                .collect(),
            steps: known
                .map(|(step, state)| StepNow {
                    number: step.number,
                    title: here.say(&step.title),
                    planned_at: step.at,
                    hands_on_min: step.hands_on_min,
                    begun_at: state.begun,
                    done_at: state.happened(),
                    left_out: state.left_out,
                })
                .collect(),
        }
    }
}

async fn under_way(
    State(app): State<App>,
    here: RequestKitchen,
) -> Result<Json<BatchesNow>, AppError> {
    let live = load::live(&app, &here).await?;
    Ok(Json(BatchesNow {
        kitchen: here.kitchen.name.clone(),
        now: here.now,
        batches: live.iter().map(|t| BatchNow::of(t, &here)).collect(),
    }))
}
