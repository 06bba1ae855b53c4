//! The API: what programs ask and send. What they may is asked at the same gate as of everybody; `openapi` says what there is.

mod batches;
mod body;
mod entries;
mod openapi;
mod reckon;
mod scale;

use crate::access::doors::{Asks, DoorTold, Doors};
use crate::shared::tongue::phrase;
use axum::extract::DefaultBodyLimit;
pub use reckon::{ReckonKind, Worded, reckon};

/// Nothing that a program sends is larger.
const MOST_BYTES: usize = 256 * 1024;
/// Below it all of this version stands.
pub const VERSION_1: &str = "/api/v1";

pub fn routes() -> Doors {
    let doors = Doors::new()
        .merge(reckon::routes())
        .merge(batches::routes())
        .merge(entries::routes())
        .merge(scale::routes())
        .get(Asks::Nothing, "/openapi.json", openapi::served)
        .told(DoorTold::by(|| phrase("api-door-openapi")).gives::<serde_json::Value>());
    doors
        .around(|r| r.layer(DefaultBodyLimit::max(MOST_BYTES)))
        .below(VERSION_1)
}
