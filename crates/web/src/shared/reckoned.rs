//! Sheets that were worked out a moment ago: the same question has the same answer, and a page that is opened, previewed
//! and opened again asks the same several times.

use craft::refusal::Refused;
use craft::sheet::{SheetRequest, SheetResult, work_out};
use moka::sync::Cache;
use std::sync::Arc;

/// Answers by their whole question.
#[derive(Debug, Clone)]
pub struct Reckoned(Cache<String, Arc<SheetResult>>);

/// So many answers are kept.
const MOST: u64 = 128;

impl Default for Reckoned {
    fn default() -> Self {
        Reckoned(Cache::new(MOST))
    }
}

impl Reckoned {
    /// The sheet of a request, worked out where no answer is kept.
    ///
    /// Errors: as [`work_out`]; a refusal is worked out each time.
    pub fn sheet(&self, r: &SheetRequest) -> Result<Arc<SheetResult>, Refused> {
        let Ok(question) = serde_json::to_string(r) else {
            return work_out(r).map(Arc::new);
        };
        if let Some(known) = self.0.get(&question) {
            return Ok(known);
        }
        let result = Arc::new(work_out(r)?);
        self.0.insert(question, result.clone());
        Ok(result)
    }
}
