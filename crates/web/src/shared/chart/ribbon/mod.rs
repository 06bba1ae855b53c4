//! The ribbon of time: eight hours back and three days ahead, a row for every live batch, ovens last.

mod ovens;
mod words;

use super::strip::{blocks, flag, window};
use super::{Hold, HourLine, Svg, curve};
use crate::shared::cut::shortened;
use crate::shared::format::hm;
use crate::shared::tongue::{date, phrase, say};
use craft::sheet::{SheetResult, hours};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use ovens::ovens;
use words::{LINE_H, say_below, say_window};

/// One row.
pub struct RibbonRow<'a> {
    pub name: &'a str,
    pub code: &'a str,
    pub size: String,
    pub state: String,
    pub sheet: &'a SheetResult,
    pub serve_at: Timestamp,
    /// What this kitchen's log says of it, where there is one.
    pub by_log: Option<ByLogWords>,
    pub oven_lit: bool,
    /// When boxes leave the cold, and which: "1", "2, 3".
    pub outs: Vec<(Timestamp, String)>,
}

/// What a kitchen's log says, in words.
pub struct ByLogWords {
    /// How likely it is ready when it is served.
    pub met: String,
    /// When the same dough would be ready by the book.
    pub book: String,
}

/// How the ribbon is laid out.
struct RibbonLayout {
    width: f64,
    left: f64,
    back_h: f64,
    ahead_h: f64,
    row_h: f64,
    head_h: f64,
    /// Names stand above the strips instead of at the left.
    narrow: bool,
}

/// Letters of a name that find room.
const NAME_LETTERS: usize = 19;
const WIDE: RibbonLayout = RibbonLayout {
    width: 1240.0,
    left: 206.0,
    back_h: 8.0,
    ahead_h: 72.0,
    row_h: 75.0,
    head_h: 66.0,
    narrow: false,
};
const NARROW: RibbonLayout = RibbonLayout {
    width: 366.0,
    left: 0.0,
    back_h: 2.0,
    ahead_h: 22.0,
    row_h: 117.0,
    head_h: 50.0,
    narrow: true,
};

/// How far ahead of now the two curves are named, h.
const WORDS_AHEAD_H: [f64; 2] = [5.0, 12.0];

pub fn wide(rows: &[RibbonRow], now: Timestamp, zone: &TimeZone) -> String {
    draw(rows, now, zone, &WIDE)
}

pub fn narrow(rows: &[RibbonRow], now: Timestamp, zone: &TimeZone) -> String {
    let logged = rows.iter().any(|r| r.by_log.is_some());
    let row_h = NARROW.row_h + if logged { LINE_H } else { 0.0 };
    draw(rows, now, zone, &RibbonLayout { row_h, ..NARROW })
}

fn draw(rows: &[RibbonRow], now: Timestamp, zone: &TimeZone, l: &RibbonLayout) -> String {
    let axis = HourLine {
        from: now - hours(l.back_h),
        to: now + hours(l.ahead_h),
        left: l.left,
        right: l.width - 2.0,
    };
    let foot = l.head_h + l.row_h * rows.len().max(1) as f64;
    let oven_h = if l.narrow { 0.0 } else { 40.0 };
    let height = foot + oven_h;
    let label = say!(
        "page-ribbon-of-time-with-batches",
        rows = rows.len(),
        join = rows
            .iter()
            .map(|r| say!(
                "page-row-serve",
                code = r.code,
                state = r.state,
                serve = at(r.serve_at, zone)
            ))
            .collect::<Vec<_>>()
            .join("; ")
    );
    let mut svg = Svg::of_links(
        l.width,
        height,
        if l.narrow { "ribbon narrow" } else { "ribbon" },
        &label,
    );
    ground(&mut svg, &axis, zone, l, height);
    if rows.is_empty() {
        empty(&mut svg, &axis, now, zone, l);
    }
    // The words stand on the first row whose curves have room for them.
    let worded = rows
        .iter()
        .position(|r| now.max(r.sheet.mixed_at) + hours(WORDS_AHEAD_H[1]) < r.serve_at);
    for (i, row) in rows.iter().enumerate() {
        let y = l.head_h + l.row_h * i as f64;
        draw_row(&mut svg, &axis, row, y, now, zone, l, worded == Some(i));
    }
    if !l.narrow {
        ovens(&mut svg, &axis, rows, foot, zone);
    }
    let x = axis.x(now);
    svg.path(
        &format!("M{x:.1} {:.1}V{height:.1}", l.head_h - 18.0),
        r#"class="l-now""#,
    );
    let half = 29.0;
    let plate = x.max(half + 1.0);
    svg.raw(r#"<g class="now-plate">"#);
    svg.rect(
        plate - half,
        l.head_h - 36.0,
        2.0 * half,
        21.0,
        r#"class="f-larch""#,
    );
    svg.path(
        &format!("M{:.1} {:.1}h14l-7 8z", x - 7.0, l.head_h - 15.0),
        r#"class="f-larch""#,
    );
    svg.text(
        plate,
        l.head_h - 20.0,
        "b onlarch d16",
        Hold::Middle,
        &hm(&now.to_zoned(zone.clone())),
    );
    svg.raw("</g>");
    svg.end()
}

fn at(t: Timestamp, zone: &TimeZone) -> String {
    date(&t.to_zoned(zone.clone()), "%a %H:%M")
}

fn ground(svg: &mut Svg, axis: &HourLine, zone: &TimeZone, l: &RibbonLayout, height: f64) {
    let top = l.head_h - 16.0;
    for (a, b) in axis.nights(zone) {
        svg.rect(a, top, b - a, height - top, r#"class="f-night""#);
    }
    let now_x = axis.x(axis.from + hours(l.back_h));
    let every = if l.narrow { 4 } else { 6 };
    for (t, hour) in axis.ticks(zone, every) {
        let x = axis.x(t);
        let (from, class) = if hour == 0 {
            (l.head_h - 26.0, "l-day")
        } else {
            (l.head_h - 6.0, "l-rule")
        };
        svg.path(
            &format!("M{x:.1} {from:.1}V{height:.1}"),
            &format!(r#"class="{class}""#),
        );
        if (x - now_x).abs() > 52.0 && x > axis.left + 18.0 && x < l.width - 22.0 {
            svg.text(
                x,
                l.head_h - 22.0,
                "tk",
                Hold::Middle,
                &format!("{hour:02}:00"),
            );
        }
    }
    if !l.narrow {
        let mut first = true;
        let days = std::iter::once((axis.from, 0))
            .chain(axis.ticks(zone, 24))
            .collect::<Vec<_>>();
        for (i, (t, _)) in days.iter().enumerate() {
            let x = axis.x(*t).max(axis.left);
            let next = days.get(i + 1).map_or(axis.right, |d| axis.x(d.0));
            let day = t.to_zoned(zone.clone());
            // A day's name needs room before the next one; where there is little it is short.
            let fits = |name: &String| next - x > 10.5 * name.len() as f64 + 10.0;
            let names = ["%A %-d", "%a %-d", "%a"].map(|f| date(&day, f));
            if let Some(name) = names.into_iter().find(fits) {
                svg.text(
                    x + if first { 0.0 } else { 8.0 },
                    22.0,
                    "dsp d16",
                    Hold::Start,
                    &name,
                );
            }
            first = false;
        }
    }
}

#[allow(clippy::too_many_arguments)] // one row needs its place, its time and its layout
fn draw_row(
    svg: &mut Svg,
    axis: &HourLine,
    row: &RibbonRow,
    y: f64,
    now: Timestamp,
    zone: &TimeZone,
    l: &RibbonLayout,
    words: bool,
) {
    let foot = y + l.row_h - 6.0;
    let lane = 22.0;
    let words_h = match (l.narrow, &row.by_log) {
        (false, _) => 8.0,
        (true, None) => 30.0 + LINE_H,
        (true, Some(_)) => 30.0 + 2.0 * LINE_H,
    };
    let (low, high) = (foot - lane - 2.0, y + words_h);
    svg.path(
        &format!("M0 {:.1}H{}", y + l.row_h, l.width),
        r#"class="l-rule""#,
    );
    let code = super::safe(row.code);
    svg.raw(&format!(
        r#"<a href="/batches/{code}" aria-label="{}">"#,
        super::safe(&say!(
            "page-open-code",
            code = row.code,
            name = row.name,
            state = row.state
        ))
    ));
    window(svg, row.sheet, axis, foot, high - 4.0);
    blocks(svg, row.sheet, axis, foot - lane, lane, Some(now));
    svg.path(
        &curve(axis, row.sheet, |p| p.rise, low, high + 4.0, 130.0),
        r#"class="l-rise thin""#,
    );
    svg.path(
        &curve(axis, row.sheet, |p| p.reserve, low, high + 4.0, 130.0),
        r#"class="l-res thin""#,
    );
    late(svg, axis, row, foot, lane);
    outs(svg, axis, row, foot, lane);
    if axis.holds(row.serve_at) {
        flag(svg, axis.x(row.serve_at), foot, high - 3.0);
    }
    if words && !l.narrow {
        name_curves(svg, axis, row, now, low, high + 4.0);
    }
    if l.narrow {
        let name = shortened(row.name, NAME_LETTERS);
        svg.text(6.0, y + 19.0, "dsp d16 halo", Hold::Start, &name);
        let x = 16.0 + 10.2 * name.chars().count() as f64;
        svg.text(x, y + 19.0, "tk b halo", Hold::Start, row.code);
        svg.text(x + 52.0, y + 19.0, "tk halo", Hold::Start, &row.state);
        say_below(svg, axis, row, y + 19.0, zone);
    } else {
        let name = shortened(row.name, NAME_LETTERS);
        svg.text(14.0, y + 26.0, "dsp d17", Hold::Start, &name);
        svg.raw(&format!(
            r#"<text x="14" y="{:.1}" class="tx"><tspan class="b">{}</tspan><tspan dx="8" class="ink2">{}</tspan></text>"#,
            y + 46.0,
            super::safe(row.code),
            super::safe(&row.size)
        ));
        svg.text(14.0, y + 64.0, "tx ink2", Hold::Start, &row.state);
        say_window(svg, axis, row, y, zone);
    }
    svg.raw("</a>");
}

/// Boxes that leave the cold, each a notch over the strip with its number; where they are close, the first says which.
fn outs(svg: &mut Svg, axis: &HourLine, row: &RibbonRow, foot: f64, lane: f64) {
    let mut free_from = f64::MIN;
    for (at, boxes) in row.outs.iter().filter(|(at, _)| axis.holds(*at)) {
        let x = axis.x(*at);
        svg.path(
            &format!("M{x:.1} {foot:.1}V{:.1}", foot - lane - 5.0),
            r#"class="s-ink" stroke-width="2""#,
        );
        let wide = 8.0 * boxes.chars().count() as f64;
        if x - wide / 2.0 > free_from {
            svg.text(x, foot - lane - 8.0, "tk b halo", Hold::Middle, boxes);
            free_from = x + wide / 2.0 + 3.0;
        }
    }
}

/// Late hatch between the end of the window and a serve time that it misses.
fn late(svg: &mut Svg, axis: &HourLine, row: &RibbonRow, foot: f64, lane: f64) {
    let Some(end) = row.sheet.window.and_then(|w| w.to_at) else {
        return;
    };
    if row.serve_at > end && axis.holds(row.serve_at) {
        let x = axis.clamped(end);
        svg.rect(
            x,
            foot - lane,
            axis.x(row.serve_at) - x,
            lane,
            r#"fill="url(#h-late)" stroke="var(--ink)""#,
        );
    }
}

fn name_curves(
    svg: &mut Svg,
    axis: &HourLine,
    row: &RibbonRow,
    now: Timestamp,
    low: f64,
    high: f64,
) {
    for (ahead, class, word, is_rise) in [
        (
            WORDS_AHEAD_H[0],
            "c-mature",
            phrase("page-strength-left"),
            false,
        ),
        (WORDS_AHEAD_H[1], "c-rise", phrase("page-word-rise"), true),
    ] {
        let t = now.max(row.sheet.mixed_at) + hours(ahead);
        if t >= row.serve_at || !axis.holds(t) {
            continue;
        }
        if let Some(p) = row.sheet.clocks_at(t) {
            let v: f64 = if is_rise { p.rise } else { p.reserve };
            let y = low + (high - low) * v.clamp(0.0, 130.0) / 130.0;
            svg.text(
                axis.x(t),
                y + 4.0,
                &format!("tx b halo f {class}"),
                Hold::Middle,
                word,
            );
        }
    }
}

/// Nothing under way: one dashed strip that ends at the next Friday 19:00.
fn empty(svg: &mut Svg, axis: &HourLine, now: Timestamp, zone: &TimeZone, l: &RibbonLayout) {
    let y = l.head_h + 20.0;
    let to = (now + hours(l.ahead_h * 0.55)).to_zoned(zone.clone());
    let x1 = axis.clamped(to.timestamp());
    let x0 = axis.x(now) + 20.0;
    svg.rect(
        x0,
        y + 18.0,
        x1 - x0,
        22.0,
        r#"fill="none" stroke="var(--rule-strong)" stroke-dasharray="4 3""#,
    );
    flag(svg, x1, y + 40.0, y - 6.0);
    svg.text(
        x1 + 20.0,
        y + 10.0,
        "dsp d17 halo",
        Hold::Start,
        phrase("page-when-do-you-serve"),
    );
}
