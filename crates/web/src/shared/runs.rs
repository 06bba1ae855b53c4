//! Runs that somebody watches: whoever looks at a bake is told when something was entered, and when the server goes.

use std::collections::HashMap;
use std::sync::Mutex;
use store::batch::BatchId;
use tokio::sync::watch;

/// Who watches which batch.
#[derive(Debug)]
pub struct Runs {
    watched: Mutex<HashMap<BatchId, watch::Sender<u64>>>,
    closing: watch::Sender<bool>,
}

impl Default for Runs {
    fn default() -> Self {
        Runs {
            watched: Mutex::default(),
            closing: watch::Sender::new(false),
        }
    }
}

/// One who watches.
pub struct Watcher {
    pub changed: watch::Receiver<u64>,
    pub closing: watch::Receiver<bool>,
}

impl Runs {
    pub fn watch(&self, batch: BatchId) -> Watcher {
        let mut all = self.watched.lock().unwrap_or_else(|e| e.into_inner());
        // Runs that nobody looks at any more are dropped on the way.
        all.retain(|id, s| *id == batch || s.receiver_count() > 0);
        let sender = all.entry(batch).or_insert_with(|| watch::Sender::new(0));
        Watcher {
            changed: sender.subscribe(),
            closing: self.closing.subscribe(),
        }
    }
    /// Something was entered about a batch.
    pub fn changed(&self, batch: BatchId) {
        let all = self.watched.lock().unwrap_or_else(|e| e.into_inner());
        if let Some(s) = all.get(&batch) {
            s.send_modify(|n| *n += 1);
        }
    }
    /// The server stops: open streams end, so that it need not wait for them.
    pub fn close(&self) {
        self.closing.send_replace(true);
    }
}
