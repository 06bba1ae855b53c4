//! Whether the program is well: `/health` of the process alone, `/ready` with its database and the schema that it needs.

use crate::App;
use axum::Router;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use axum::routing::get;

pub fn routes() -> Router<App> {
    Router::new()
        .route("/health", get(|| async { "ok" }))
        .route("/ready", get(ready))
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
