//! Runs that somebody watches: one who follows the batch in the database, and everybody who looks at the bake told by it.

use std::collections::HashMap;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, MutexGuard};
use store::batch::BatchId;
use tokio::sync::{Notify, watch};

/// So many watch at most, all runs together.
const MOST_WATCHERS: usize = 600;

/// What a watcher is told.
#[derive(Debug, Clone, Default)]
pub struct Told<T> {
    /// The run as it is; none before it was read first.
    pub state: Option<Arc<T>>,
    /// A sentence that every screen shows, and how many there were.
    pub sentence: Option<(u64, Arc<str>)>,
}

#[derive(Debug)]
struct Watched<T> {
    told: watch::Sender<Told<T>>,
    /// Rung when something was entered here: whoever follows need not wait for its next look.
    bell: Arc<Notify>,
}

/// Who watches which batch.
#[derive(Debug)]
pub struct WatchedRuns<T> {
    watched: Mutex<HashMap<BatchId, Watched<T>>>,
    watchers: AtomicUsize,
    closing: watch::Sender<bool>,
}

impl<T> Default for WatchedRuns<T> {
    fn default() -> Self {
        WatchedRuns {
            watched: Mutex::default(),
            watchers: AtomicUsize::new(0),
            closing: watch::Sender::new(false),
        }
    }
}

/// One who watches; gone when it is dropped.
pub struct Watcher<T> {
    pub told: watch::Receiver<Told<T>>,
    pub closing: watch::Receiver<bool>,
    runs: Arc<WatchedRuns<T>>,
}

impl<T> Drop for Watcher<T> {
    fn drop(&mut self) {
        self.runs.watchers.fetch_sub(1, Ordering::Relaxed);
    }
}

/// One who follows a batch for all its watchers.
pub struct Follower<T> {
    pub told: watch::Sender<Told<T>>,
    pub bell: Arc<Notify>,
    pub closing: watch::Receiver<bool>,
}

impl<T> WatchedRuns<T> {
    fn all(&self) -> MutexGuard<'_, HashMap<BatchId, Watched<T>>> {
        self.watched.lock().unwrap_or_else(|e| e.into_inner())
    }

    /// Watches a batch; the first one who does also gets the post of the follower. `None` when too many watch already.
    pub fn watch(self: &Arc<Self>, batch: BatchId) -> Option<(Watcher<T>, Option<Follower<T>>)> {
        if self.watchers.fetch_add(1, Ordering::Relaxed) >= MOST_WATCHERS {
            self.watchers.fetch_sub(1, Ordering::Relaxed);
            return None;
        }
        let mut all = self.all();
        // Runs that nobody looks at any more are dropped on the way; their followers end by themselves.
        all.retain(|_, w| w.told.receiver_count() > 0);
        let mut follower = None;
        let watched = all.entry(batch).or_insert_with(|| {
            let new = Watched {
                told: watch::Sender::new(Told {
                    state: None,
                    sentence: None,
                }),
                bell: Arc::default(),
            };
            follower = Some(Follower {
                told: new.told.clone(),
                bell: new.bell.clone(),
                closing: self.closing.subscribe(),
            });
            new
        });
        let watcher = Watcher {
            told: watched.told.subscribe(),
            closing: self.closing.subscribe(),
            runs: self.clone(),
        };
        Some((watcher, follower))
    }
    /// Something was entered about a batch.
    pub fn changed(&self, batch: BatchId) {
        if let Some(w) = self.all().get(&batch) {
            w.bell.notify_one();
        }
    }
    /// Something that every screen on this run shows, where anybody watches.
    pub fn say(&self, batch: BatchId, sentence: Option<String>) {
        let Some(sentence) = sentence else { return };
        if let Some(w) = self.all().get(&batch) {
            w.told.send_modify(|t| {
                let n = t.sentence.as_ref().map_or(0, |s| s.0);
                t.sentence = Some((n + 1, sentence.into()));
            });
        }
    }
    /// The server stops: open streams end, so that it need not wait for them.
    pub fn close(&self) {
        self.closing.send_replace(true);
    }
}
