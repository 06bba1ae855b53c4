//! The scale at the bench: whatever weighs there says what it reads, and Shape listens. A stand-in that ships with the program
//! plays one, for kitchens whose scale has no voice.

use crate::App;
use crate::access::doors::{Doors, LOOK};
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::layout::{Frame, Stop, page};
use crate::shared::theme::Theme;
use crate::shared::tongue::phrase;
use askama::Template;
use axum::extract::State;
use axum::response::Html;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::{Stream, stream};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::convert::Infallible;
use std::sync::Mutex;
use std::time::Duration;
use store::KitchenId;
use tokio::sync::watch;

/// So many listen at most.
const MOST_LISTENERS: usize = 200;
/// No bench carries more, g.
const MOST_G: f64 = 300_000.0;

/// What a program sends that reports a weight.
pub const CALL: &str = "POST /api/v1/scale {\"g\": 255}";

pub fn routes() -> Doors {
    Doors::new()
        .get(LOOK, "/scale", stand_in)
        .get(LOOK, "/scale/stream", listen)
}

/// What the scale of each kitchen reads now; nothing before it said anything.
#[derive(Debug, Default)]
pub struct ScaleReads(Mutex<HashMap<KitchenId, watch::Sender<Option<ScaleRead>>>>);

impl ScaleReads {
    /// Notes what the scale of a kitchen reads.
    pub fn says(&self, kitchen: KitchenId, read: ScaleRead) {
        self.of(kitchen).send_replace(Some(read));
    }
    /// The scale of a kitchen.
    fn of(&self, kitchen: KitchenId) -> watch::Sender<Option<ScaleRead>> {
        let mut all = self.0.lock().unwrap_or_else(|e| e.into_inner());
        // Scales that nobody listens to are forgotten when there are many.
        if all.len() >= MOST_SCALES {
            all.retain(|_, s| s.receiver_count() > 0);
        }
        let scale = all.entry(kitchen);
        scale.or_insert_with(|| watch::Sender::new(None)).clone()
    }
}

/// So many kitchens' scales are remembered.
const MOST_SCALES: usize = 1000;

/// What a scale reads.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleRead {
    /// What lies on it, g.
    g: f64,
    /// It has come to rest.
    #[serde(default = "yes")]
    still: bool,
}

fn yes() -> bool {
    true
}

#[derive(Template)]
#[template(path = "rooms/scale/page.html")]
struct ScalePage {
    frame: Frame,
}

async fn stand_in(here: RequestKitchen, theme: Theme) -> Result<Html<String>, AppError> {
    let frame = Frame::of(
        &here,
        theme,
        Stop::Shape,
        phrase("pantry-scale"),
        None,
        "/scale",
    );
    page(&ScalePage { frame })
}

/// Whether any scale reads that.
pub fn can_weigh(read: &ScaleRead) -> bool {
    (-MOST_G..=MOST_G).contains(&read.g)
}

/// What the scale reads, for whoever listens.
async fn listen(
    State(app): State<App>,
    here: RequestKitchen,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, AppError> {
    let scale = app.scale.of(here.id());
    if scale.receiver_count() >= MOST_LISTENERS {
        return Err(AppError::Busy);
    }
    let mut told = scale.subscribe();
    told.mark_changed();
    let events = stream::unfold(told, |mut told| async move {
        loop {
            told.changed().await.ok()?;
            let now = *told.borrow_and_update();
            if let Some(read) = now {
                let text = serde_json::to_string(&read).ok()?;
                return Some((Ok(Event::default().event("read").data(text)), told));
            }
        }
    });
    Ok(Sse::new(events).keep_alive(KeepAlive::new().interval(Duration::from_secs(15))))
}
