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
    /// The kitchen around the line; none on pages before it.
    pub house: Option<HouseView>,
}

/// The kitchen, as every page shows it beside the line.
pub struct HouseView {
    pub kitchen: String,
    /// Who is here, and as what.
    pub whose: String,
    /// A helper of one batch, who sees nothing else.
    pub crew: bool,
    /// The batches of a crew that has several.
    pub batches: Vec<String>,
    /// They see, and change nothing.
    pub looks_on: bool,
    pub several: bool,
    pub signs_out: bool,
    pub demo: bool,
    /// On a shared tablet: who else may take it, by number, name and initials.
    /// Languages that whoever reads could choose instead: code and own name.
    pub languages: Vec<(&'static str, &'static str)>,
    pub hands: Option<Vec<(u64, String, String)>>,
    pub in_hands: String,
}

impl Frame {
    /// A page before the kitchen: without the line.
    pub fn entrance(theme: Theme, title: &str) -> Frame {
        Frame {
            stops: vec![],
            here: "",
            ..Frame::bare(theme, Stop::Bench, title)
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
            house: None,
        }
    }
}
