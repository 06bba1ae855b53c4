//! Parts of pages that are drawn once and kept while all that they hang on is the same: pictures and tables of batches.
//!
//! What a part hangs on is its key, whole and compared; nothing of another kitchen, plan, entry or minute can be shown.

use crate::shared::tongue;
use jiff::Timestamp;
use moka::sync::Cache;
use speech::Language;
use std::sync::Arc;
use store::KitchenId;
use store::batch::BatchId;

/// What a batch looks like hangs on this, besides the minute: its plan, all that was entered about it, what was said of places,
/// and the kitchen's units and places.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Stands {
    pub kitchen: (KitchenId, u64),
    pub batch: BatchId,
    pub plan: u32,
    pub revision: u64,
    pub places: u64,
    /// Its forecast, which time moves, too: when it is ready, and both clocks at the serve time.
    pub goes: (Timestamp, Option<ReadyKey>, u64, u64),
}

/// When it is ready.
pub type ReadyKey = (Timestamp, Option<Timestamp>);

/// One kind of part, by batches, the minute of the present (0 where it does not hang on it) and the language of the page.
pub struct Drawn<T>(Cache<(Vec<Stands>, i64, Language), Arc<T>>);

/// So many parts of a kind are kept.
const MOST: u64 = 256;

impl<T: Send + Sync + 'static> Default for Drawn<T> {
    fn default() -> Self {
        Drawn(Cache::new(MOST))
    }
}

impl<T: Send + Sync + 'static> Drawn<T> {
    /// The part, drawn where none is kept.
    pub fn of(&self, of: Vec<Stands>, minute: i64, draw: impl FnOnce() -> T) -> Arc<T> {
        self.0
            .get_with((of, minute, tongue::language()), || Arc::new(draw()))
    }
    /// Throws all away.
    pub fn clear(&self) {
        self.0.invalidate_all();
    }
}
