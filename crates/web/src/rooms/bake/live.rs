//! The run as it goes on: a stream of what was entered, for every tablet that looks at it.
//!
//! However many watch a batch, one follower asks the database for it. A change that this server made is told at once; one
//! that another server on the same database made, within two seconds.

use super::view::{RunState, Timed};
use crate::App;
use crate::batch::load;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::runs::{Follower, Watcher};
use axum::extract::{Path, State};
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::response::{IntoResponse, Response};
use futures_util::{StreamExt, stream};
use jiff::Timestamp;
use std::convert::Infallible;
use std::sync::Arc;
use std::time::Duration;
use store::batch::BatchId;

/// So often the database is asked without a sign.
const LOOK: Duration = Duration::from_secs(2);

/// Follows a batch until nobody watches it, or the server goes.
async fn follow(
    app: App,
    here: RequestKitchen,
    code: String,
    id: BatchId,
    mut f: Follower<RunState>,
) {
    let mut known = None;
    while f.told.receiver_count() > 0 && !*f.closing.borrow() {
        // A database that is away is asked again; whoever watches keeps what was known.
        if let Ok(now) = revision(&app, &here, id).await
            && (now != known || known.is_none())
            && let Ok(told) = load::told(&app, &here, &code).await
        {
            known = now;
            let state = RunState::of(&told, None);
            f.told.send_if_modified(|t| {
                let changed = t.state.as_deref() != Some(&state);
                if changed {
                    t.state = Some(Arc::new(state));
                }
                changed
            });
        }
        tokio::select! {
            _ = f.bell.notified() => {}
            _ = f.closing.changed() => return,
            _ = tokio::time::sleep(LOOK) => {}
        }
    }
}

async fn revision(
    app: &App,
    here: &RequestKitchen,
    id: BatchId,
) -> Result<Option<(u32, u64)>, AppError> {
    let mut db = app.db.acquire().await?;
    Ok(store::batch::revision(&mut db, here.id(), id).await?)
}

struct Watching {
    watcher: Watcher<RunState>,
    /// Sentences that were said before this screen looked.
    said: u64,
    /// The state that was told last: what is the same is not told again.
    last: Arc<RunState>,
}

impl Watching {
    /// Waits for the next thing to tell; `None` ends the stream.
    async fn next(&mut self) -> Option<Event> {
        loop {
            if *self.watcher.closing.borrow() {
                return None;
            }
            tokio::select! {
                changed = self.watcher.told.changed() => changed.ok()?,
                _ = self.watcher.closing.changed() => return None,
            }
            let told = self.watcher.told.borrow_and_update().clone();
            if let Some((n, sentence)) = told.sentence
                && n > self.said
            {
                self.said = n;
                return Some(Event::default().event("said").data(&*sentence));
            }
            if let Some(state) = told.state
                && state != self.last
            {
                self.last = state;
                return event(&self.last);
            }
        }
    }
}

fn event(state: &RunState) -> Option<Event> {
    let text = serde_json::to_string(&Timed::of(state, Timestamp::now())).ok()?;
    Some(Event::default().event("run").data(text))
}

pub async fn stream(
    State(app): State<App>,
    here: RequestKitchen,
    Path(code): Path<String>,
) -> Result<Response, AppError> {
    let told = load::told(&app, &here, &code).await?;
    let id = told.batch.id;
    let (watcher, follower) = app.runs.watch(id).ok_or(AppError::Busy)?;
    if let Some(f) = follower {
        tokio::spawn(follow(app.clone(), here.clone(), code, id, f));
    }
    let mut watcher = watcher;
    // What is known now comes at once; changes after it.
    let now = watcher.told.borrow_and_update().clone();
    let known = now
        .state
        .unwrap_or_else(|| Arc::new(RunState::of(&told, None)));
    let watching = Watching {
        said: now.sentence.map_or(0, |s| s.0),
        last: known.clone(),
        watcher,
    };
    // A browser that lost the line asks again after a second.
    let head = Event::default()
        .retry(Duration::from_secs(1))
        .comment("run");
    let first: Vec<_> = [Some(head), event(&known)]
        .into_iter()
        .flatten()
        .map(Ok::<_, Infallible>)
        .collect();
    let events = stream::unfold(watching, |mut w| async move {
        let event = w.next().await?;
        Some((Ok::<_, Infallible>(event), w))
    });
    Ok(Sse::new(stream::iter(first).chain(events))
        .keep_alive(KeepAlive::new().interval(Duration::from_secs(15)))
        .into_response())
}
