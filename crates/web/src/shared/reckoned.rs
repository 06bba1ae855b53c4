//! Sheets that were worked out a moment ago: the same question has the same answer, and a page that is opened, previewed
//! and opened again asks the same several times.

use craft::refusal::ValidationError;
use craft::rise::{Doubts, PrefermentRuns};
use craft::sheet::{SheetRequest, SheetResult, Sure, work_out_surely, work_out_with};
use moka::sync::Cache;
use std::sync::Arc;

/// Answers by their whole question.
#[derive(Debug, Clone)]
pub struct Reckoned {
    sheets: Cache<String, Arc<SheetResult>>,
    /// Preferments that were run: they stay as they are while a dough is changed.
    runs: Arc<PrefermentRuns>,
}

/// So many answers are kept.
const MOST: u64 = 128;

impl Default for Reckoned {
    fn default() -> Self {
        Reckoned {
            sheets: Cache::new(MOST),
            runs: Arc::default(),
        }
    }
}

impl Reckoned {
    /// The sheet of a request, worked out where no answer is kept.
    ///
    /// Errors: as [`work_out_with`]; a refusal is worked out each time.
    pub fn sheet(&self, r: &SheetRequest) -> Result<Arc<SheetResult>, ValidationError> {
        let Ok(question) = serde_json::to_string(r) else {
            return work_out_with(r, &self.runs).map(Arc::new);
        };
        if let Some(known) = self.sheets.get(&question) {
            return Ok(known);
        }
        let result = Arc::new(work_out_with(r, &self.runs)?);
        self.sheets.insert(question, result.clone());
        Ok(result)
    }
    /// The same, with how sure its window is: worked out each time.
    ///
    /// Errors: as [`work_out_with`].
    pub fn surely(
        &self,
        r: &SheetRequest,
        doubts: &Doubts,
    ) -> Result<(SheetResult, Option<Sure>), ValidationError> {
        work_out_surely(r, doubts, &self.runs)
    }
}
