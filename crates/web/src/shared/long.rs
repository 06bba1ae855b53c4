//! Work that takes a tenth of a second and more: the other requests of this thread go on meanwhile.

use tokio::runtime::{Handle, RuntimeFlavor};

/// Does it here, and lets the runtime move what else waits on this thread to another one.
pub fn at_length<T>(work: impl FnOnce() -> T) -> T {
    match Handle::current().runtime_flavor() {
        RuntimeFlavor::MultiThread => tokio::task::block_in_place(work),
        // A runtime of one thread has nowhere to move it.
        _ => work(),
    }
}
