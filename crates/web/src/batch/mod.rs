//! A batch with everything that was entered about it: loaded, folded, entered, and followed from now on. Rooms show it; they
//! put nothing of it together themselves.

pub mod arrived;
pub mod boxes;
pub mod entries;
pub mod forecast;
pub mod lessons;
pub mod load;
pub mod measured;
pub mod next_version;
pub mod opened;
pub mod photos;
pub mod record;
pub mod replan;
pub mod taps;

pub use record::BatchRecord;
