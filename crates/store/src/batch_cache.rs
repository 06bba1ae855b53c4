//! Copies of batches that were read before, each true for one revision of its row.
//!
//! A page then costs one statement: the rows with their revisions. A sheet is believed under the number of
//! its plan, entries under the revision they were read for; ids are never used again.

use crate::id::BatchId;
use crate::sheet::{Entries, KeptSheet};
use moka::sync::Cache;
use std::sync::Arc;

/// So many batches are held at most, some 30 kB each.
const MOST: u64 = 512;

#[derive(Debug, Clone)]
struct Copy {
    plan: u32,
    revision: u64,
    sheet: Arc<KeptSheet>,
    entries: Arc<Entries>,
}

/// The copies of one program.
#[derive(Debug)]
pub struct BatchCache(Cache<BatchId, Copy>);

impl Default for BatchCache {
    fn default() -> Self {
        BatchCache(Cache::new(MOST))
    }
}

impl BatchCache {
    /// Throws all copies away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }

    /// The sheet of a batch if it is held for this plan, and its entries if they are held for this revision.
    pub(crate) fn get(
        &self,
        batch: BatchId,
        plan: u32,
        revision: u64,
    ) -> (Option<Arc<KeptSheet>>, Option<Arc<Entries>>) {
        let Some(copy) = self.0.get(&batch) else {
            return (None, None);
        };
        let sheet = (copy.plan == plan).then_some(copy.sheet);
        (sheet, (copy.revision == revision).then_some(copy.entries))
    }

    pub(crate) fn put(
        &self,
        batch: BatchId,
        (plan, revision): (u32, u64),
        sheet: &Arc<KeptSheet>,
        entries: &Arc<Entries>,
    ) {
        let copy = Copy {
            plan,
            revision,
            sheet: sheet.clone(),
            entries: entries.clone(),
        };
        self.0.insert(batch, copy);
    }
}
