//! The scale at the bench says what it reads.

use super::body::SentJson;
use crate::App;
use crate::access::doors::{DoorTold, Doors, REPORT};
use crate::batch::entries::{self, EntryAnswer};
use crate::rooms::scale::{ScaleRead, can_weigh};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::tongue::phrase;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};

pub fn routes() -> Doors {
    Doors::new().post(REPORT, "/scale", reads).told(
        DoorTold::by(|| phrase("api-door-scale"))
            .takes::<ScaleRead>()
            .refuses::<EntryAnswer>(),
    )
}

async fn reads(
    State(app): State<App>,
    here: RequestKitchen,
    SentJson(read): SentJson<ScaleRead>,
) -> Response {
    if !can_weigh(&read) {
        return entries::wrong("g", phrase("scale-a-scale-at-the-bench").into());
    }
    app.scale.says(here.id(), read);
    StatusCode::NO_CONTENT.into_response()
}
