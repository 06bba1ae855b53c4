//! What a row of the ribbon says in words: its window, its serve time or how it misses it, and what the log says.

use super::{RibbonRow, at};
use crate::shared::chart::strip::window_words;
use crate::shared::chart::{Hold, HourLine, Svg, safe};
use crate::shared::format::hm;
use crate::shared::tongue::say;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// A line of words in a narrow row.
pub(super) const LINE_H: f64 = 17.0;

/// "17:45–20:45" and "serve 19:00" beside the window, where there is room for them.
pub(super) fn say_window(svg: &mut Svg, axis: &HourLine, row: &RibbonRow, y: f64, zone: &TimeZone) {
    let end = row
        .sheet
        .window
        .and_then(|w| w.to_at)
        .unwrap_or(row.serve_at)
        .max(row.serve_at);
    let from = row
        .sheet
        .window
        .map_or(row.serve_at, |w| w.from_at)
        .min(row.serve_at);
    let serve = hm(&row.serve_at.to_zoned(zone.clone()));
    if from > axis.to {
        svg.text(
            axis.right - 8.0,
            y + 26.0,
            "tx halo",
            Hold::End,
            &say!("page-serve", zone = at(row.serve_at, zone)),
        );
        return;
    }
    let x = axis.x(end) + 9.0;
    let (x, hold) = if x < axis.right - 96.0 {
        (x, Hold::Start)
    } else {
        (axis.x(from) - 9.0, Hold::End)
    };
    // Four lines stand closer to the row's head than two.
    let y = if row.by_log.is_some() { y - 4.0 } else { y };
    svg.text(
        x,
        y + 25.0,
        "tx b halo",
        hold,
        &window_words(row.sheet, zone),
    );
    if row.sheet.fits(row.serve_at) {
        svg.text(
            x,
            y + 43.0,
            "tx halo",
            hold,
            &say!("page-serve-2", serve = serve),
        );
        if let Some(log) = &row.by_log {
            svg.text(x, y + 59.0, "tk halo", hold, &log.met);
            svg.text(x, y + 74.0, "tk halo", hold, &log.book);
        }
    } else {
        svg.text(x, y + 43.0, "tx b halo f c-ember", hold, &miss(row, &serve));
    }
}

/// The same below the name, where a row is too narrow for words beside the window.
pub(super) fn say_below(svg: &mut Svg, axis: &HourLine, row: &RibbonRow, y: f64, zone: &TimeZone) {
    let serve = match axis.holds(row.serve_at) {
        true => hm(&row.serve_at.to_zoned(zone.clone())),
        false => at(row.serve_at, zone),
    };
    let (class, serve) = match row.sheet.fits(row.serve_at) {
        true => ("", say!("page-serve-2", serve = serve)),
        false => ("b f c-ember", miss(row, &serve)),
    };
    svg.raw(&format!(
        r#"<text x="6" y="{:.1}" class="tk halo"><tspan class="b">{}</tspan><tspan dx="8" class="{class}">{}</tspan></text>"#,
        y + LINE_H,
        safe(&window_words(row.sheet, zone)),
        safe(&serve),
    ));
    if let Some(log) = &row.by_log {
        let said = format!("{}; {}", log.met, log.book);
        svg.text(6.0, y + 2.0 * LINE_H, "tk halo", Hold::Start, &said);
    }
}

fn miss(row: &RibbonRow, serve: &str) -> String {
    let Some(w) = row.sheet.window else {
        return say!("page-serve-strength-spent", serve = serve);
    };
    let minutes =
        |a: Timestamp, b: Timestamp| crate::shared::format::span_words(b.duration_since(a));
    match w.to_at {
        Some(to) if row.serve_at > to => {
            say!("page-closes-early", serve_at = minutes(to, row.serve_at))
        }
        _ => say!(
            "page-opens-late",
            from_at = minutes(row.serve_at, w.from_at)
        ),
    }
}
