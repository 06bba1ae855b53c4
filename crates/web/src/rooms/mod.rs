//! One room per screen, everything of a room in it.

pub mod about;
pub mod bake;
pub mod batch;
pub mod bench;
pub mod ledger;
pub mod sheet;
pub mod takeaway;
