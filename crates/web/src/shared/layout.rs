//! A page of a kitchen in its frame, and how a page is written.

use crate::shared::error::AppError;
use crate::shared::format;
pub use crate::shared::frame::Frame;
use crate::shared::frame::{HouseView, StopView};
use crate::shared::kitchen::RequestKitchen;
use crate::shared::marks;
pub use crate::shared::stop::Stop;
use crate::shared::theme::Theme;
use crate::shared::tongue;
use askama::Template;
use axum::response::Html;
use craft::keyed::Keyed;
use craft::people::Right;
use craft::sheet::progress::Stand;
use speech::Language;
use std::sync::atomic::{AtomicUsize, Ordering};

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
            date: tongue::date(&now, "%a %-d %B"),
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
            house: Some(house(here)),
        }
    }
}

fn house(here: &RequestKitchen) -> HouseView {
    let asker = &here.asker;
    let role = asker.role().map(|r| here.words(&r.named()));
    let whose = match (asker.whom.name.as_str(), role) {
        ("", Some(role)) => role,
        (name, Some(role)) => format!("{name}, {role}"),
        (name, None) => name.into(),
    };
    HouseView {
        kitchen: here.kitchen.name.clone(),
        whose,
        crew: asker.role().is_some_and(|r| r.is_crew()),
        batches: match asker.place.as_ref().and_then(|p| p.only.clone()) {
            Some(codes) if codes.len() > 1 => codes,
            _ => vec![],
        },
        looks_on: !here.may(Right::Tap),
        several: asker.kitchens > 1,
        signs_out: asker.by_session,
        demo: here.kitchen.is_demo && asker.person.is_some(),
        languages: match asker.person {
            Some(_) => others(here.measures.language),
            None => vec![],
        },
        hands: asker.hands.as_ref().map(|h| h.others.clone()),
        in_hands: asker
            .hands
            .as_ref()
            .map_or(String::new(), |h| h.now.clone()),
    }
}

/// The languages besides one.
fn others(read: Language) -> Vec<(&'static str, &'static str)> {
    let all = Language::READ.into_iter().filter(|l| *l != read);
    all.map(|l| (l.key(), l.own_name())).collect()
}

tokio::task_local! {
    /// The kitchen that a page is written for, where whoever asks has several.
    pub static PAGE_OF: Option<u64>;
}

/// Says in every form of a page whose kitchen it is of: somebody may go into another one before it is sent.
fn marked(html: &str, kitchen: u64) -> String {
    const FORM: &str = " method=\"post\" action=\"";
    let mut out = String::with_capacity(html.len() + 1024);
    let mut rest = html;
    while let Some(i) = rest.find(FORM) {
        let (before, action) = rest.split_at(i + FORM.len());
        out.push_str(before);
        let end = action.find('"').unwrap_or(0);
        let address = &action[..end];
        out.push_str(address);
        let joint = if address.contains('?') { "&amp;" } else { "?" };
        out.push_str(&format!("{joint}k={kitchen}"));
        rest = &action[end..];
    }
    out.push_str(rest);
    out
}

/// Writes a template.
pub fn page<T: Template>(t: &T) -> Result<Html<String>, AppError> {
    // A page is much longer than its template: room for all of it at once, as long as the longest lately.
    static LONGEST: AtomicUsize = AtomicUsize::new(32 * 1024);
    let mut out = String::with_capacity(LONGEST.load(Ordering::Relaxed).min(MOST_AT_ONCE));
    t.render_into(&mut out)?;
    LONGEST.fetch_max(out.len() + out.len() / 8, Ordering::Relaxed);
    if let Ok(Some(kitchen)) = PAGE_OF.try_with(|k| *k) {
        out = marked(&out, kitchen);
    }
    Ok(Html(out))
}

/// No more room is taken before a page is written, bytes.
const MOST_AT_ONCE: usize = 256 * 1024;
