//! What stands around every page: the line of work, the clock, the lamp.

use crate::shared::marks;
use crate::shared::stop::Stop;
use crate::shared::theme::Theme;

pub struct StopView {
    pub name: &'static str,
    pub mark: &'static str,
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
