//! Work of the models: as many at once as there are cores, a short queue before them, and a plain no beyond that. What only
//! keeps or shows an entry never waits for it.

use crate::shared::error::AppError;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;
use tokio::runtime::{Handle, RuntimeFlavor};
use tokio::sync::Semaphore;

/// So many may wait for each that works.
const WAITING_EACH: usize = 16;
/// Who waited this long is told to come again.
const PATIENCE: Duration = Duration::from_secs(5);

/// Who works and who waits.
#[derive(Debug)]
pub struct Models {
    free: Semaphore,
    waiting: AtomicUsize,
    most_waiting: usize,
}

impl Default for Models {
    fn default() -> Self {
        let cores = std::thread::available_parallelism().map_or(2, usize::from);
        Models {
            free: Semaphore::new(cores),
            waiting: AtomicUsize::new(0),
            most_waiting: WAITING_EACH * cores,
        }
    }
}

/// One who waits; gone when it is dropped, also when the browser went away meanwhile.
struct Waiting<'a>(&'a AtomicUsize);

impl Drop for Waiting<'_> {
    fn drop(&mut self) {
        self.0.fetch_sub(1, Ordering::Relaxed);
    }
}

impl Models {
    /// Does work that takes milliseconds and more, on this thread; what else waited on it goes on on another.
    ///
    /// Errors: [`AppError::Busy`] when too many wait already.
    pub async fn at_length<T>(&self, work: impl FnOnce() -> T) -> Result<T, AppError> {
        let waiting = Waiting(&self.waiting);
        if self.waiting.fetch_add(1, Ordering::Relaxed) >= self.most_waiting {
            return Err(AppError::Busy);
        }
        let turn = tokio::time::timeout(PATIENCE, self.free.acquire()).await;
        let Ok(Ok(_permit)) = turn else {
            return Err(AppError::Busy);
        };
        drop(waiting);
        Ok(match Handle::current().runtime_flavor() {
            RuntimeFlavor::MultiThread => tokio::task::block_in_place(work),
            // A runtime of one thread has nowhere to move the others to.
            _ => work(),
        })
    }
}
