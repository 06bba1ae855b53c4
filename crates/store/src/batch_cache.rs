//! Copies of batches that were read before, each true for one revision of its row.
//!
//! A page then costs one statement: the rows with their revisions. A sheet is believed under the number of
//! its plan, entries under the revision they were read for; ids are never used again.

use crate::id::BatchId;
use crate::sheet::{Entries, Sheet};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, MutexGuard};

/// So many batches are held at most, some 30 kB each.
const MOST: usize = 512;

#[derive(Debug)]
struct Copy {
    plan: u32,
    revision: u64,
    sheet: Arc<Sheet>,
    entries: Arc<Entries>,
}

/// The copies of one program.
#[derive(Debug, Default)]
pub struct BatchCache(Mutex<HashMap<BatchId, Copy>>);

impl BatchCache {
    fn copies(&self) -> MutexGuard<'_, HashMap<BatchId, Copy>> {
        // A panic elsewhere leaves the map whole: it is only ever filled and cleared.
        self.0.lock().unwrap_or_else(|e| e.into_inner())
    }

    /// Throws all copies away.
    pub fn clear(&self) {
        self.copies().clear();
    }

    /// The sheet of a batch if it is held for this plan, and its entries if they are held for this revision.
    pub(crate) fn get(
        &self,
        batch: BatchId,
        plan: u32,
        revision: u64,
    ) -> (Option<Arc<Sheet>>, Option<Arc<Entries>>) {
        let copies = self.copies();
        let copy = copies.get(&batch);
        let entries = copy
            .filter(|c| c.revision == revision)
            .map(|c| c.entries.clone());
        let sheet = copy.filter(|c| c.plan == plan).map(|c| c.sheet.clone());
        (sheet, entries)
    }

    pub(crate) fn put(
        &self,
        batch: BatchId,
        (plan, revision): (u32, u64),
        sheet: &Arc<Sheet>,
        entries: &Arc<Entries>,
    ) {
        let mut copies = self.copies();
        if copies.len() >= MOST && !copies.contains_key(&batch) {
            copies.clear();
        }
        copies.insert(
            batch,
            Copy {
                plan,
                revision,
                sheet: sheet.clone(),
                entries: entries.clone(),
            },
        );
    }
}
