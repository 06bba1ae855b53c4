//! One grammar for all charts: hours on a line, hatches, labels with a halo, plates and flags.

pub mod blend;
pub mod firing;
pub mod heatline;
pub mod race;
pub mod ribbon;
pub mod rise;
pub mod strip;

use crate::shared::tongue::phrase;
use craft::sheet::{BlockKind, ClockPoint, Likely, SheetResult};
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// An SVG being written.
pub struct Svg {
    out: String,
}

/// Where a text is held.
#[derive(Clone, Copy)]
pub enum Hold {
    Start,
    Middle,
    End,
}

/// Text made safe for SVG.
pub fn safe(text: &str) -> String {
    // Most texts are plain.
    if !text.contains(['&', '<', '>', '"']) {
        return text.to_string();
    }
    text.replace('&', "&amp;")
        .replace('<', "&lt;")
        .replace('>', "&gt;")
        .replace('"', "&quot;")
}

impl Svg {
    /// A picture: one thing, said in a sentence.
    pub fn new(width: f64, height: f64, class: &str, label: &str) -> Svg {
        Svg::with_role(width, height, class, label, "img")
    }
    /// A picture whose parts can be opened.
    pub fn of_links(width: f64, height: f64, class: &str, label: &str) -> Svg {
        Svg::with_role(width, height, class, label, "group")
    }
    fn with_role(width: f64, height: f64, class: &str, label: &str, role: &str) -> Svg {
        let label = safe(label);
        Svg {
            out: format!(
                r#"<svg viewBox="0 0 {width} {height}" class="{class}" role="{role}" aria-label="{label}">"#
            ),
        }
    }
    /// Anything else.
    pub fn raw(&mut self, markup: &str) {
        self.out.push_str(markup);
    }
    pub fn rect(&mut self, x: f64, y: f64, w: f64, h: f64, attributes: &str) {
        self.at("<rect x=\"", x, y);
        self.out.push_str("\" width=\"");
        push_tenths(&mut self.out, w.max(0.0));
        self.out.push_str("\" height=\"");
        push_tenths(&mut self.out, h);
        for part in ["\" ", attributes, "/>"] {
            self.out.push_str(part);
        }
    }
    pub fn path(&mut self, d: &str, attributes: &str) {
        for part in ["<path d=\"", d, "\" ", attributes, "/>"] {
            self.out.push_str(part);
        }
    }
    pub fn text(&mut self, x: f64, y: f64, class: &str, hold: Hold, text: &str) {
        let anchor = match hold {
            Hold::Start => "start",
            Hold::Middle => "middle",
            Hold::End => "end",
        };
        self.at("<text x=\"", x, y);
        for part in ["\" text-anchor=\"", anchor, "\" class=\"", class, "\">"] {
            self.out.push_str(part);
        }
        self.out.push_str(&safe(text));
        self.out.push_str("</text>");
    }
    /// The begin of an element with its place.
    fn at(&mut self, begin: &str, x: f64, y: f64) {
        self.out.push_str(begin);
        push_tenths(&mut self.out, x);
        self.out.push_str("\" y=\"");
        push_tenths(&mut self.out, y);
    }
    pub fn end(mut self) -> String {
        self.out.push_str("</svg>");
        self.out
    }
}

/// The hatches of all charts, once a page: a pattern inside a hidden chart would hide with it.
pub const HATCHES: &str = r##"<svg class="hatches" width="0" height="0" aria-hidden="true"><defs><pattern id="h-bulk" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect width="7" height="7" fill="var(--rise-wash)"/><path d="M0 0V7" stroke="var(--rise)" stroke-width="1.6" opacity=".55"/></pattern><pattern id="h-ball" width="7" height="7" patternUnits="userSpaceOnUse"><rect width="7" height="7" fill="var(--inset)"/><circle cx="3.5" cy="3.5" r="1.7" fill="var(--ink)" opacity=".6"/></pattern><pattern id="h-cold" width="8" height="6" patternUnits="userSpaceOnUse"><rect width="8" height="6" fill="var(--tarn-wash)"/><path d="M0 3H8" stroke="var(--tarn)" stroke-width="1.2" opacity=".5"/></pattern><pattern id="h-temper" width="6" height="8" patternUnits="userSpaceOnUse"><rect width="6" height="8" fill="var(--ember-wash)"/><path d="M3 0V8" stroke="var(--ember)" stroke-width="1.3" opacity=".5"/></pattern><pattern id="h-pref" width="11" height="11" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)"><rect width="11" height="11" fill="var(--sheet)"/><path d="M0 0V11" stroke="var(--rise)" stroke-width="1.6" opacity=".6"/></pattern><pattern id="h-frozen" width="9" height="9" patternUnits="userSpaceOnUse"><rect width="9" height="9" fill="var(--sheet)"/><path d="M0 0L9 9M9 0L0 9" stroke="var(--tarn)" stroke-width="1.1" opacity=".55"/></pattern><pattern id="h-late" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)"><path d="M0 0V6" stroke="var(--ember)" stroke-width="2.2"/></pattern><pattern id="h-char" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><path d="M0 0V6M0 0H6" stroke="var(--char)" stroke-width="1.5" opacity=".75"/></pattern></defs></svg>"##;

/// The hatch of a stage and the word on it.
pub fn hatch(kind: BlockKind) -> (&'static str, &'static str, &'static str) {
    match kind {
        BlockKind::Preferment => ("url(#h-pref)", phrase("mix-preferment"), "on-sheet"),
        BlockKind::Mix => ("var(--ink)", phrase("page-mix"), ""),
        BlockKind::Bulk => ("url(#h-bulk)", phrase("form-bulk"), "on-rise"),
        BlockKind::Ball => ("url(#h-ball)", phrase("bake-balls"), "on-inset"),
        BlockKind::Cold => ("url(#h-cold)", phrase("form-cold"), "on-tarn"),
        BlockKind::Frozen => ("url(#h-frozen)", phrase("page-frozen"), "on-sheet"),
        BlockKind::Temper => ("url(#h-temper)", phrase("form-warm-up"), "on-ember"),
    }
}

/// Hours on a horizontal line.
#[derive(Debug, Clone, Copy)]
pub struct HourLine {
    pub from: Timestamp,
    pub to: Timestamp,
    pub left: f64,
    pub right: f64,
}

impl HourLine {
    pub fn x(&self, t: Timestamp) -> f64 {
        let whole = self.to.duration_since(self.from).as_secs_f64();
        let part = t.duration_since(self.from).as_secs_f64();
        self.left + (self.right - self.left) * part / whole
    }
    pub fn clamped(&self, t: Timestamp) -> f64 {
        self.x(t).clamp(self.left, self.right)
    }
    pub fn px_per_h(&self) -> f64 {
        (self.right - self.left) / (self.to.duration_since(self.from).as_secs_f64() / 3600.0)
    }
    pub fn holds(&self, t: Timestamp) -> bool {
        (self.from..=self.to).contains(&t)
    }

    /// Local hours that are multiples of `every`, with the hour.
    pub fn ticks(&self, zone: &TimeZone, every: i8) -> Vec<(Timestamp, i8)> {
        let mut out = Vec::new();
        let mut t = self.from.as_second();
        t += (3600 - t.rem_euclid(3600)) % 3600;
        while let Ok(at) = Timestamp::from_second(t) {
            if at > self.to {
                break;
            }
            let hour = at.to_zoned(zone.clone()).hour();
            if hour % every == 0 && at.to_zoned(zone.clone()).minute() == 0 {
                out.push((at, hour));
            }
            t += 3600;
        }
        out
    }

    /// Spans of night, 21:00 to 06:00, as pixels.
    pub fn nights(&self, zone: &TimeZone) -> Vec<(f64, f64)> {
        let dark = |h: i8| !(6..21).contains(&h);
        let mut out: Vec<(f64, f64)> = Vec::new();
        let mut began = dark(self.from.to_zoned(zone.clone()).hour()).then_some(self.left);
        for (at, hour) in self.ticks(zone, 1) {
            match (began, dark(hour)) {
                (None, true) => began = Some(self.x(at)),
                (Some(from), false) => {
                    out.push((from, self.x(at)));
                    began = None;
                }
                _ => {}
            }
        }
        if let Some(from) = began {
            out.push((from, self.right));
        }
        out
    }
}

/// A curve of the clocks within the hours, as path data; values run 0 to `top` between `y0` and `y1`.
pub fn curve(
    hours: &HourLine,
    sheet: &SheetResult,
    value: impl Fn(&ClockPoint) -> f64,
    y0: f64,
    y1: f64,
    top: f64,
) -> String {
    let mut d = String::with_capacity(1500);
    let mut last_x = f64::NEG_INFINITY;
    let last = last_shown(sheet);
    let (mixed_x, px_per_h) = (hours.x(sheet.mixed_at), hours.px_per_h());
    let last_x_shown = hours.x(last).min(hours.right);
    for p in &sheet.clocks {
        let x = mixed_x + px_per_h * p.hours;
        if !(hours.left..=last_x_shown).contains(&x) {
            continue;
        }
        // Above the scale the line leaves the picture instead of running along its edge.
        if value(p) > top {
            break;
        }
        let y = y0 + (y1 - y0) * value(p).max(0.0) / top;
        // Points closer than a pixel and a half do not show.
        if x - last_x >= 1.5 {
            d.push_str(if d.is_empty() { "M" } else { " L" });
            push_tenths(&mut d, x);
            d.push(' ');
            push_tenths(&mut d, y);
            last_x = x;
        }
    }
    d
}

/// Writes a length to a tenth, as `{:.1}` would, at a fraction of its cost: curves have hundreds of them.
fn push_tenths(out: &mut String, value: f64) {
    let tenths = (value * 10.0).round() as i64;
    if tenths < 0 {
        out.push('-');
    }
    let tenths = tenths.unsigned_abs();
    out.push_str(itoa::Buffer::new().format(tenths / 10));
    out.push('.');
    out.push(char::from(b'0' + (tenths % 10) as u8));
}

/// The band that an edge of a window lies in.
pub fn whisker(svg: &mut Svg, axis: &HourLine, band: &Likely, y: f64) {
    let (x0, x1) = (axis.clamped(band.early_at), axis.clamped(band.late_at));
    svg.rect(x0, y + 2.0, x1 - x0, 5.0, r#"class="band""#);
    svg.path(
        &format!("M{x0:.1} {y:.1}v9M{x1:.1} {y:.1}v9"),
        r#"class="s-ink" stroke-width="1.4""#,
    );
}

/// The curves end where the ready window ends, or two hours after the plan.
fn last_shown(sheet: &SheetResult) -> Timestamp {
    let planned = sheet.steps.last().map_or(sheet.mixed_at, |s| s.at) + craft::sheet::hours(2.0);
    match sheet.window.and_then(|w| w.to_at) {
        Some(to) => to.max(planned),
        None => planned,
    }
}

#[cfg(test)]
mod tests;
