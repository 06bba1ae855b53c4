//! Both clocks of one dough over its hours: stages at the foot, curves above, the window, the flag.

use super::{Hold, HourLine, Svg, curve, hatch, whisker};
use crate::shared::format::Measures;
use crate::shared::format::{day_hm, hm, quarter, weekday_hm};
use crate::shared::tongue::{date, decimal, phrase, say};
use craft::sheet::{ReadyWindow, SheetResult, hours};
use jiff::Timestamp;
use jiff::tz::TimeZone;

const WIDTH: f64 = 1240.0;
const HEIGHT: f64 = 92.0;
const LEFT: f64 = 176.0;
const RIGHT: f64 = 1222.0;
const LANE_Y: f64 = 64.0;
const LANE_H: f64 = 22.0;

/// The strip of a sheet. `now` draws the now line when it lies on it.
pub fn strip(
    sheet: &SheetResult,
    serve_at: Timestamp,
    now: Option<Timestamp>,
    (zone, m): (&TimeZone, &Measures),
) -> String {
    let until = sheet
        .window
        .and_then(|w| w.to_at)
        .unwrap_or(serve_at)
        .max(serve_at)
        + hours(1.0);
    let whole = until.duration_since(sheet.start_at).as_secs_f64() / 3600.0;
    // Room for the label at the right of the window.
    let axis = HourLine {
        from: sheet.start_at - hours(whole * 0.02),
        to: until + hours(whole * 0.16),
        left: LEFT,
        right: RIGHT,
    };
    let serve = serve_at.to_zoned(zone.clone());
    let mut svg = Svg::new(WIDTH, HEIGHT, "strip", &label(sheet, serve_at, zone));
    for (a, b) in axis.nights(zone) {
        svg.rect(a, 0.0, b - a, HEIGHT, r#"class="f-night""#);
    }
    // As often as the labels have room.
    let every = [6, 12, 24]
        .into_iter()
        .find(|h| axis.px_per_h() * f64::from(*h) >= LABEL_PX)
        .unwrap_or(24);
    for (at, hour) in axis.ticks(zone, every) {
        let x = axis.x(at);
        let class = if hour == 0 { "l-day" } else { "l-rule" };
        svg.path(
            &format!("M{x:.1} 0V{HEIGHT}"),
            &format!(r#"class="{class}""#),
        );
        let text = if hour == 0 {
            date(&at.to_zoned(zone.clone()), "%a %-d")
        } else {
            format!("{hour:02}:00")
        };
        let covered = sheet.window.is_some_and(|w| {
            x > axis.x(w.from_at) - 44.0 && x < axis.clamped(w.to_at.unwrap_or(until))
        });
        if x < RIGHT - 130.0 && !covered {
            svg.text(x + 5.0, 13.0, "tk halo", Hold::Start, &text);
        }
    }
    window(&mut svg, sheet, &axis, LANE_Y + LANE_H, 5.0);
    blocks(&mut svg, sheet, &axis, LANE_Y, LANE_H, now);
    if let Some(band) = sheet.by_log.and_then(|l| l.ready) {
        whisker(&mut svg, &axis, &band, LANE_Y - 11.0);
    }
    svg.path(
        &curve(&axis, sheet, |p| p.rise, LANE_Y - 4.0, 12.0, 130.0),
        r#"class="l-rise""#,
    );
    svg.path(
        &curve(&axis, sheet, |p| p.reserve, LANE_Y - 4.0, 12.0, 130.0),
        r#"class="l-res""#,
    );
    words_on_curves(&mut svg, sheet, &axis);
    flag(&mut svg, axis.x(serve_at), LANE_Y + LANE_H, 4.0);
    if let Some(now) = now.filter(|n| axis.holds(*n)) {
        let x = axis.x(now);
        svg.path(&format!("M{x:.1} 0V{HEIGHT}"), r#"class="l-now""#);
    }
    let x = axis.clamped(until) + 4.0;
    svg.text(
        x,
        40.0,
        "tx b halo",
        Hold::Start,
        &window_words(sheet, zone),
    );
    svg.text(
        x,
        58.0,
        "tx halo",
        Hold::Start,
        &say!("page-serve-2", serve = hm(&serve)),
    );
    svg.text(
        14.0,
        40.0,
        "dsp d17",
        Hold::Start,
        phrase("page-rise-strength"),
    );
    let (from, to) = (
        sheet.start_at.to_zoned(zone.clone()),
        until.to_zoned(zone.clone()),
    );
    svg.text(
        14.0,
        60.0,
        "tk",
        Hold::Start,
        &say!("page-to", from = weekday_hm(&from), to = weekday_hm(&to)),
    );
    svg.end() + values(sheet, serve_at, zone, m).as_str()
}

/// The same figures as a table, for those who do not use the picture.
fn values(sheet: &SheetResult, serve_at: Timestamp, zone: &TimeZone, m: &Measures) -> String {
    let mut rows = String::new();
    let moments = sheet
        .blocks
        .iter()
        .map(|b| (hatch(b.kind).1, b.from_at))
        .chain([(phrase("bench-serve"), serve_at)]);
    for (word, at) in moments {
        let when = day_hm(&at.to_zoned(zone.clone()));
        let (rise, reserve, dough) = sheet.clocks_at(at).map_or(Default::default(), |p| {
            (
                format!("{:.0}", p.rise),
                format!("{:.0}", p.reserve.max(0.0)),
                m.degrees(p.dough_c, 1),
            )
        });
        rows += &format!(
            "<tr><th>{word}</th><td>{when}</td><td>{rise}</td><td>{reserve}</td><td>{dough}</td></tr>"
        );
    }
    let heads = [
        phrase("page-strip-from").to_string(),
        phrase("page-strip-time").into(),
        phrase("page-strip-rise").into(),
        phrase("page-strip-strength").into(),
        say!("page-strip-dough", degree = m.degree_unit()),
    ];
    let heads: String = heads.map(|h| format!("<th>{h}</th>")).concat();
    let caption = phrase("page-strip-table");
    format!(
        r#"<div class="visually-hidden"><table><caption>{caption}</caption><thead><tr>{heads}</tr></thead><tbody>{rows}</tbody></table></div>"#
    )
}

/// "17:45–20:45", or what is wrong.
pub fn window_words(sheet: &SheetResult, zone: &TimeZone) -> String {
    said(sheet.window, zone)
}

/// "17:45–20:45" of any window.
pub fn said(window: Option<ReadyWindow>, zone: &TimeZone) -> String {
    match window {
        None => phrase("batch-never-ready").into(),
        Some(w) => {
            let from = hm(&quarter(&w.from_at.to_zoned(zone.clone())));
            match w.to_at {
                Some(to) => format!("{from}–{}", hm(&quarter(&to.to_zoned(zone.clone())))),
                None => say!("page-from", from = from),
            }
        }
    }
}

/// Room of an hour's label.
const LABEL_PX: f64 = 48.0;

fn label(sheet: &SheetResult, serve_at: Timestamp, zone: &TimeZone) -> String {
    let serve = serve_at.to_zoned(zone.clone());
    say!(
        "page-rise-and-strength-left-over",
        zone = window_words(sheet, zone),
        serve = day_hm(&serve),
        rise_at_serve = decimal(sheet.rise_at_serve, 0),
        reserve_at_serve = decimal(sheet.reserve_at_serve, 0)
    )
}

/// The ready window: larch inside an ink bracket.
pub fn window(svg: &mut Svg, sheet: &SheetResult, axis: &HourLine, foot: f64, top: f64) {
    let Some(w) = sheet.window else { return };
    let a = axis.clamped(w.from_at);
    let b = axis.clamped(w.to_at.unwrap_or(axis.to));
    if b <= axis.left || a >= axis.right {
        return;
    }
    svg.rect(
        a,
        top + 3.0,
        b - a,
        foot - top - 3.0,
        r#"class="f-larch" opacity=".5""#,
    );
    svg.path(
        &format!("M{a:.1} {foot:.1}V{top:.1}H{b:.1}V{foot2:.1}", foot2 = foot),
        r#"class="s-ink" stroke-width="1.8""#,
    );
}

/// The stages at the foot; those not begun have a dashed outline.
pub fn blocks(
    svg: &mut Svg,
    sheet: &SheetResult,
    axis: &HourLine,
    y: f64,
    h: f64,
    now: Option<Timestamp>,
) {
    for b in &sheet.blocks {
        if b.to_at <= axis.from || b.from_at >= axis.to {
            continue;
        }
        let (x0, x1) = (axis.clamped(b.from_at), axis.clamped(b.to_at));
        let (fill, word, ground) = hatch(b.kind);
        let ahead = now.is_some_and(|n| b.from_at > n);
        let outline = if ahead {
            r#" stroke-dasharray="4 3""#
        } else {
            ""
        };
        svg.rect(
            x0,
            y,
            (x1 - x0).max(2.0),
            h,
            &format!(r#"fill="{fill}" stroke="var(--ink)"{outline}"#),
        );
        if x1 - x0 > 9.0 * word.len() as f64 && !ground.is_empty() {
            svg.text(
                x0 + 7.0,
                y + h - 6.0,
                &format!("tx b halo {ground}"),
                Hold::Start,
                word,
            );
        }
    }
}

/// The serve flag: an ink post with a swallow tail.
pub fn flag(svg: &mut Svg, x: f64, foot: f64, top: f64) {
    svg.path(
        &format!("M{x:.1} {foot:.1}V{top:.1}"),
        r#"class="s-ink" stroke-width="2.6""#,
    );
    svg.path(
        &format!("M{x:.1} {top:.1}h13l-4 6 4 6h-13z"),
        r#"class="f-ink""#,
    );
}

fn words_on_curves(svg: &mut Svg, sheet: &SheetResult, axis: &HourLine) {
    let span = sheet.blocks.last().map_or(1.0, |b| {
        b.to_at.duration_since(sheet.mixed_at).as_secs_f64() / 3600.0
    });
    for (share, class, word, is_rise) in [
        (0.42, "c-mature", phrase("page-strength-left"), false),
        (0.6, "c-rise", phrase("page-word-rise"), true),
    ] {
        let at = sheet.mixed_at + hours(span * share);
        if let Some(p) = sheet.clocks_at(at) {
            let v = if is_rise { p.rise } else { p.reserve };
            let y = (LANE_Y - 4.0) + (12.0 - (LANE_Y - 4.0)) * v.clamp(0.0, 130.0) / 130.0;
            svg.text(
                axis.x(at),
                y + 4.0,
                &format!("tx b halo f {class}"),
                Hold::Middle,
                word,
            );
        }
    }
}
