//! What is kept of a batch: its sheet, its entries, and whose it is.

use crate::entry::Observation;
use crate::id::BatchId;
use crate::{KitchenId, Result, lifted};
use craft::fire::Tap;
use craft::sheet::progress::{FromTheBowl, StepPast};
use craft::sheet::{FromTheBoxes, SheetRequest, SheetResult};
use sqlx::MySqlConnection;
use std::sync::Arc;
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What was asked and what was worked out. A change makes another plan; the former one is kept beside it.
#[derive(Debug, PartialEq)]
pub struct KeptSheet {
    pub request: Arc<SheetRequest>,
    pub result: Arc<SheetResult>,
}

/// What was entered about a batch, in the order of the clock.
#[derive(Debug, Default, PartialEq)]
pub struct Entries {
    pub seen: Vec<Observation>,
    pub taps: Vec<Tap>,
    /// Who made each of them, in their order; empty where nobody is known.
    pub taps_by: Vec<String>,
    /// What was entered and taken back; it counts no longer.
    pub taken_back: Vec<Observation>,
    /// Entries of kinds that this program does not know.
    pub unreadable: usize,
}

impl Entries {
    /// Who entered something, the first first.
    pub fn names(&self) -> Vec<&str> {
        let seen = self.seen.iter().map(|o| o.by.as_str());
        let mut out: Vec<&str> = vec![];
        for name in seen.chain(self.taps_by.iter().map(String::as_str)) {
            if !name.is_empty() && !out.contains(&name) {
                out.push(name);
            }
        }
        out
    }
}

/// Who made a batch: only the demo's own may be made anew.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "snake_case")]
pub enum Origin {
    Maker,
    Demo,
}

/// What was said of its steps, in the order of entering: on its page, at the bowl, or at the boxes.
pub fn said_of_steps(entries: &Entries, planned: &SheetResult) -> Vec<StepPast> {
    let mut entered: Vec<&Observation> = entries.seen.iter().collect();
    entered.sort_by_key(|o| o.id);
    let mut bowl = FromTheBowl::default();
    let mut boxes = FromTheBoxes::default();
    let of = |o: &Observation| {
        if let Some(tap) = o.mix_tap() {
            return bowl.says(planned, &tap);
        }
        if let Some(tap) = o.shape_tap() {
            return boxes.says(planned, &tap);
        }
        let (number, said) = o.seen.of_step()?;
        Some(StepPast {
            number,
            at: o.at,
            said,
        })
    };
    entered.into_iter().filter_map(of).collect()
}

pub(crate) async fn sheet_of(
    db: &mut MySqlConnection,
    kitchen: KitchenId,
    batch: BatchId,
    code: &str,
) -> Result<KeptSheet> {
    let row = sqlx::query!(
        "SELECT request, result FROM batch WHERE kitchen_id = ? AND id = ?",
        kitchen.0,
        batch.0
    )
    .fetch_one(db)
    .await?;
    Ok(KeptSheet {
        request: Arc::new(lifted::request(code, &row.request)?),
        result: Arc::new(lifted::result(code, &row.result)?),
    })
}
