//! Whether the program is well: `/health` of the process alone, `/ready` with its database and the schema that it needs.

use crate::App;
use crate::access::doors::{Asks, Doors};
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};

pub fn routes() -> Doors {
    Doors::new()
        .get(Asks::Nothing, "/health", || async { "ok" })
        .get(Asks::Nothing, "/ready", ready)
}

async fn ready(State(app): State<App>) -> Response {
    match store::is_ready(&app.db).await {
        Ok(true) => "ready".into_response(),
        Ok(false) => (
            StatusCode::SERVICE_UNAVAILABLE,
            "the schema is not up to date yet",
        )
            .into_response(),
        Err(e) => {
            tracing::warn!(cause = %e, "not ready");
            (
                StatusCode::SERVICE_UNAVAILABLE,
                "the database does not answer",
            )
                .into_response()
        }
    }
}
