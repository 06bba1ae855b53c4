//! The run as it goes on: a stream of what was entered, for every tablet that looks at it.
//!
//! A change that this server made is told at once; one that another server on the same database made, within two seconds.

use super::view::RunState;
use crate::App;
use crate::rooms::batch::load;
use crate::shared::error::Trouble;
use crate::shared::kitchen::Here;
use axum::extract::{Path, State};
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::response::{IntoResponse, Response};
use futures_util::stream;
use std::convert::Infallible;
use std::time::Duration;

/// So often the database is asked without a sign.
const LOOK: Duration = Duration::from_secs(2);

struct Watching {
    app: App,
    here: Here,
    code: String,
    watcher: crate::shared::runs::Watcher,
    /// What was told last.
    told: Option<String>,
}

impl Watching {
    /// Waits for the next state that differs from the last; `None` ends the stream.
    async fn next(&mut self) -> Option<String> {
        loop {
            if *self.watcher.closing.borrow() {
                return None;
            }
            self.here.now = jiff::Timestamp::now();
            match load::told(&self.app, &self.here, &self.code).await {
                Ok(told) => {
                    let state = RunState {
                        now_ms: 0,
                        ..RunState::of(&told, &self.here, None)
                    };
                    let text = serde_json::to_string(&state).ok()?;
                    if self.told.as_ref() != Some(&text) {
                        self.told = Some(text);
                        let now = RunState::of(&told, &self.here, None);
                        return serde_json::to_string(&now).ok();
                    }
                }
                // A batch that is gone, or a database that is away: the browser asks again.
                Err(_) => return None,
            }
            tokio::select! {
                _ = self.watcher.changed.changed() => {}
                _ = self.watcher.closing.changed() => return None,
                _ = tokio::time::sleep(LOOK) => {}
            }
        }
    }
}

pub async fn stream(
    State(app): State<App>,
    here: Here,
    Path(code): Path<String>,
) -> Result<Response, Trouble> {
    let told = load::told(&app, &here, &code).await?;
    let watching = Watching {
        watcher: app.runs.watch(told.batch.id),
        app,
        here,
        code,
        told: None,
    };
    let events = stream::unfold(watching, |mut w| async move {
        let text = w.next().await?;
        Some((
            Ok::<_, Infallible>(Event::default().event("run").data(text)),
            w,
        ))
    });
    // A browser that lost the line asks again after a second.
    let first = stream::once(async {
        Ok::<_, Infallible>(
            Event::default()
                .retry(Duration::from_secs(1))
                .comment("run"),
        )
    });
    Ok(Sse::new(futures_util::StreamExt::chain(first, events))
        .keep_alive(KeepAlive::new().interval(Duration::from_secs(15)))
        .into_response())
}
