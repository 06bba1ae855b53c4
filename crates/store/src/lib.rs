//! Store: what Slow Rise keeps, in MariaDB. One file per aggregate; no rule of the craft lives here.
//!
//! Every statement is checked against the schema when it is compiled, and every function but those of
//! [`kitchen`] takes the [`KitchenId`] whose rows it may touch.

mod author;
pub mod backup;
pub mod batch;
mod batch_cache;
mod db;
pub mod entry;
mod error;
pub mod formula;
pub mod found;
mod id;
mod instant;
pub mod kitchen;
mod lifted;
mod migration;
pub mod once;
pub mod pantry;
pub mod people;
pub mod photo;
pub mod practised;
mod sheet;
pub mod stock;
pub mod takeout;
pub mod trial;
mod words;

pub use author::{Author, Whom};
pub use batch_cache::BatchCache;
pub use db::{Connection, Db};
pub use error::StoreError;
pub use id::BatchId;
pub use kitchen::KitchenId;
pub use migration::{is_ready, migrate, ping, unfit};
pub use sqlx::MySqlConnection;

pub type Result<T> = std::result::Result<T, StoreError>;

/// For [`act`]: whether an act is done again, after a pause.
#[doc(hidden)]
pub async fn may_try_again(e: &StoreError, tries: &mut u32) -> bool {
    let again = db::again(e, tries);
    if again {
        db::pause(*tries).await;
    }
    again
}
