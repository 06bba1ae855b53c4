//! The frame of every page: the line of work, the clock, the lamp.

use crate::shared::error::AppError;
use crate::shared::format;
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
use crate::shared::theme::Theme;
use askama::Template;
use axum::response::Html;
use craft::sheet::progress::Stand;
use std::sync::atomic::{AtomicUsize, Ordering};

/// The stops of the line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stop {
    Bench,
    Sheet,
    Mix,
    Rise,
    Shape,
    Fire,
    Bake,
    Ledger,
}

impl Stop {
    const ALL: [Stop; 8] = [
        Stop::Bench,
        Stop::Sheet,
        Stop::Mix,
        Stop::Rise,
        Stop::Shape,
        Stop::Fire,
        Stop::Bake,
        Stop::Ledger,
    ];

    fn name(self) -> &'static str {
        match self {
            Stop::Bench => "Bench",
            Stop::Sheet => "Dough sheet",
            Stop::Mix => "Mix",
            Stop::Rise => "Rise",
            Stop::Shape => "Shape",
            Stop::Fire => "Fire",
            Stop::Bake => "Bake",
            Stop::Ledger => "Ledger",
        }
    }

    /// Where it leads; the stops that are not built yet lead to nothing.
    fn href(self, code: Option<&str>) -> Option<String> {
        match (self, code) {
            (Stop::Bench, _) => Some("/".into()),
            (Stop::Sheet, Some(code)) => Some(format!("/batches/{code}")),
            (Stop::Sheet, None) => Some("/dough/new".into()),
            (Stop::Bake, Some(code)) => Some(format!("/batches/{code}/bake")),
            (Stop::Bake, None) => Some("/bake".into()),
            (Stop::Ledger, _) => Some("/ledger".into()),
            (Stop::Rise, Some(code)) => Some(format!("/batches/{code}/rise")),
            (Stop::Rise, None) => Some("/rise".into()),
            (Stop::Fire, Some(code)) => Some(format!("/batches/{code}/fire")),
            (Stop::Fire, None) => Some("/fire".into()),
            (Stop::Mix | Stop::Shape, _) => None,
        }
    }

    /// How far along the line a batch has come.
    pub fn reached(stand: Stand) -> Stop {
        match stand {
            Stand::Planned | Stand::Begun => Stop::Sheet,
            Stand::Mixing | Stand::Mixed => Stop::Mix,
            Stand::Bulk => Stop::Rise,
            Stand::Balled | Stand::Cold => Stop::Shape,
            Stand::Tempering => Stop::Fire,
            Stand::Baking => Stop::Bake,
            Stand::Finished => Stop::Ledger,
        }
    }
}

pub struct StopView {
    pub name: &'static str,
    pub mark: String,
    pub href: Option<String>,
    pub here: bool,
    pub past: bool,
}

/// What the frame shows around a page.
pub struct Frame {
    pub theme: Theme,
    pub title: String,
    pub clock: String,
    pub date: String,
    pub now_ms: i64,
    pub time_zone: String,
    pub stops: Vec<StopView>,
    pub here: &'static str,
    pub code: Option<String>,
    /// Whose entries this browser may send from here.
    pub kitchen: Option<u64>,
    pub path: String,
}

impl Frame {
    /// A page of the kitchen; `batch` is the open batch with how far it has come.
    pub fn of(
        here: &RequestKitchen,
        theme: Theme,
        stop: Stop,
        title: &str,
        batch: Option<(&str, Stand)>,
        path: &str,
    ) -> Frame {
        let now = here.local(here.now);
        let (code, reached) = match batch {
            Some((code, stand)) => (Some(code), Some(Stop::reached(stand))),
            None => (None, None),
        };
        Frame {
            theme,
            title: title.into(),
            clock: format::hm(&now),
            date: now.strftime("%a %-d %B").to_string(),
            now_ms: here.now.as_millisecond(),
            time_zone: here.kitchen.usual.time_zone.clone(),
            stops: Stop::ALL
                .into_iter()
                .map(|s| StopView {
                    name: s.name(),
                    mark: marks::stop(&s),
                    href: s.href(code),
                    here: s == stop,
                    past: reached.is_some_and(|r| s != Stop::Bench && s <= r),
                })
                .collect(),
            here: stop.name(),
            code: code.map(Into::into),
            kitchen: Some(here.id().0),
            path: path.into(),
        }
    }

    /// A page that needs no kitchen.
    pub fn bare(theme: Theme, stop: Stop, title: &str) -> Frame {
        Frame {
            theme,
            title: title.into(),
            clock: String::new(),
            date: String::new(),
            now_ms: 0,
            time_zone: String::new(),
            stops: Stop::ALL
                .into_iter()
                .map(|s| StopView {
                    name: s.name(),
                    mark: marks::stop(&s),
                    href: s.href(None),
                    here: false,
                    past: false,
                })
                .collect(),
            here: stop.name(),
            code: None,
            kitchen: None,
            path: "/".into(),
        }
    }
}

/// Writes a template.
pub fn page<T: Template>(t: &T) -> Result<Html<String>, AppError> {
    // A page is much longer than its template: room for all of it at once, as long as the longest lately.
    static LONGEST: AtomicUsize = AtomicUsize::new(32 * 1024);
    let mut out = String::with_capacity(LONGEST.load(Ordering::Relaxed).min(MOST_AT_ONCE));
    t.render_into(&mut out)?;
    LONGEST.fetch_max(out.len() + out.len() / 8, Ordering::Relaxed);
    Ok(Html(out))
}

/// No more room is taken before a page is written, bytes.
const MOST_AT_ONCE: usize = 256 * 1024;
