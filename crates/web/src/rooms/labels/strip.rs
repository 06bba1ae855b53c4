//! Both clocks on a label: ink only, lines wide enough for a thermal printer.

use crate::shared::chart::{Hold, HourLine, Svg};
use crate::shared::tongue::{date, phrase};
use craft::sheet::hours;
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// What the strip is drawn from.
pub struct LabelStrip {
    /// When, rise and strength left, both of 100, in their order.
    pub clocks: Vec<(Timestamp, f64, f64)>,
    /// In the cold from, until.
    pub cold: Option<(Timestamp, Timestamp)>,
    /// When it is used first.
    pub use_at: Timestamp,
    /// Until when it is good.
    pub until: Timestamp,
}

const WIDE: f64 = 420.0;
const HIGH: f64 = 104.0;
const LANE: (f64, f64) = (80.0, 22.0);
const TOP: f64 = 8.0;
/// Rise and strength are drawn up to so much.
const MOST: f64 = 130.0;

impl LabelStrip {
    pub fn draw(&self, zone: &TimeZone) -> Option<String> {
        let from = self.clocks.first()?.0;
        let axis = HourLine {
            from,
            to: self.until.max(self.use_at) + hours(0.5),
            left: 4.0,
            right: WIDE - 4.0,
        };
        let mut svg = Svg::new(
            WIDE,
            HIGH,
            "label-strip",
            phrase("labels-rise-and-strength-left-until"),
        );
        let whole_h = axis.to.duration_since(axis.from).as_secs_f64() / 3600.0;
        let every = if whole_h > 60.0 { 24 } else { 12 };
        for (at, hour) in axis.ticks(zone, every) {
            let x = axis.x(at);
            svg.path(&format!("M{x:.1} 0v6"), r#"class="line""#);
            if hour == 0 && x < WIDE - 40.0 {
                let day = date(&at.to_zoned(zone.clone()), "%a");
                svg.text(x + 4.0, 12.0, "tk", Hold::Start, &day);
            }
        }
        let (y, h) = LANE;
        svg.path(
            &format!(
                "M4 {y}H{use_at:.1}V{h:.1}H4z",
                use_at = axis.clamped(self.use_at),
                h = y + h
            ),
            r#"class="line" fill="none""#,
        );
        if let Some((cold, out)) = self.cold {
            let (a, b) = (axis.clamped(cold), axis.clamped(out));
            for n in 1..4 {
                let y = y + f64::from(n) * h / 4.0;
                svg.path(&format!("M{a:.1} {y}H{b:.1}"), r#"class="hair""#);
            }
            svg.path(
                &format!("M{a:.1} {y}v{h}M{b:.1} {y}v{h}"),
                r#"class="line""#,
            );
            if b - a > 50.0 {
                svg.text(a + 6.0, y + 17.0, "on", Hold::Start, phrase("form-cold"));
            }
        }
        let (a, b) = (axis.clamped(self.use_at), axis.clamped(self.until));
        svg.path(
            &format!(
                "M{a:.1} {h:.1}V{value}H{a2:.1}V{h2:.1}",
                h = y + h,
                value = TOP,
                a2 = b.max(a + 3.0),
                h2 = y + h
            ),
            r#"class="line" fill="none""#,
        );
        for (word, class, of, share) in [
            (phrase("labels-rise"), "line bold", 1, 0.3),
            (phrase("labels-strength"), "line bold dash", 2, 0.62),
        ] {
            let value = |p: &(Timestamp, f64, f64)| if of == 1 { p.1 } else { p.2 };
            let y_of = |v: f64| 74.0 - (74.0 - TOP - 8.0) * v.clamp(0.0, MOST) / MOST;
            let mut d = String::new();
            for p in self.clocks.iter().filter(|p| axis.holds(p.0)) {
                // Above the scale the line leaves the picture instead of running along its edge.
                if value(p) > MOST {
                    break;
                }
                let step = if d.is_empty() { "M" } else { " L" };
                d += &format!("{step}{:.1} {:.1}", axis.x(p.0), y_of(value(p)));
            }
            svg.path(&d, &format!(r#"class="{class}" fill="none""#));
            let n = (share * (self.clocks.len() - 1) as f64) as usize;
            let p = &self.clocks[n];
            svg.text(axis.x(p.0), y_of(value(p)) + 5.0, "on", Hold::Middle, word);
        }
        Some(svg.end())
    }
}
