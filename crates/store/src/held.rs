//! Copies of batches that were read before, each true for one revision of its row.
//!
//! A page then costs one statement: the rows with their revisions. Sheets never change and ids are never used
//! again; entries are believed only under the revision they were read for.

use crate::batch::{BatchId, Entries, Sheet};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, MutexGuard};

/// So many batches are held at most, some 30 kB each.
const MOST: usize = 512;

#[derive(Debug)]
struct Copy {
    revision: u64,
    sheet: Arc<Sheet>,
    entries: Arc<Entries>,
}

/// The copies of one program.
#[derive(Debug, Default)]
pub struct Held(Mutex<HashMap<BatchId, Copy>>);

impl Held {
    fn copies(&self) -> MutexGuard<'_, HashMap<BatchId, Copy>> {
        // A panic elsewhere leaves the map whole: it is only ever filled and cleared.
        self.0.lock().unwrap_or_else(|e| e.into_inner())
    }

    /// The sheet of a batch, and its entries if they are held for this revision.
    pub(crate) fn get(
        &self,
        batch: BatchId,
        revision: u64,
    ) -> (Option<Arc<Sheet>>, Option<Arc<Entries>>) {
        let copies = self.copies();
        let copy = copies.get(&batch);
        let entries = copy
            .filter(|c| c.revision == revision)
            .map(|c| c.entries.clone());
        (copy.map(|c| c.sheet.clone()), entries)
    }

    pub(crate) fn put(
        &self,
        batch: BatchId,
        revision: u64,
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
                revision,
                sheet: sheet.clone(),
                entries: entries.clone(),
            },
        );
    }
}
