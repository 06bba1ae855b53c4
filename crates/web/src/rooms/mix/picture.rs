//! What Mix draws: temperatures on one line, what the water is made of to scale, and the dough over the run.

use crate::shared::chart::{Hold, Svg};
use crate::shared::format::Measures;
use crate::shared::tongue::{phrase, say};
use craft::mix::{Blended, MixLook, MixReading, TracePoint};
use craft::units::TemperatureUnit;

/// A temperature on the line.
pub struct LinePin {
    pub name: String,
    pub c: f64,
    pub water: bool,
}

const LINE_W: f64 = 700.0;
const LEFT: f64 = 20.0;
const RIGHT: f64 = 676.0;

/// Flour, room, tap and the water on one line, with the dough that is wanted.
pub fn line(pins: &[LinePin], wanted_c: f64, m: &Measures) -> String {
    let all = pins.iter().map(|p| p.c).chain([wanted_c]);
    let (mut low, mut high) = all.fold((f64::MAX, f64::MIN), |(a, b), c| (a.min(c), b.max(c)));
    (low, high) = (low - 3.0, high + 3.0);
    let high = high.max(low + 12.0);
    let x = |c: f64| LEFT + (RIGHT - LEFT) * (c - low) / (high - low);
    let said: Vec<String> = pins
        .iter()
        .map(|p| format!("{} {}°", p.name, m.degrees(p.c, 1)))
        .collect();
    let wanted = m.degrees(wanted_c, 1);
    // Near ones stand one above the other.
    let mut sorted: Vec<LinePin> = vec![];
    for p in pins {
        // What is equally warm is one pin.
        match sorted.iter_mut().find(|s| (s.c - p.c).abs() < 0.05) {
            Some(same) => same.name = format!("{}, {}", same.name, p.name.to_lowercase()),
            None => sorted.push(LinePin {
                name: p.name.clone(),
                ..*p
            }),
        }
    }
    sorted.sort_by(|a, b| a.c.total_cmp(&b.c));
    let mut ends = [f64::MIN; 3];
    let rows: Vec<usize> = sorted
        .iter()
        .map(|p| {
            let at = x(p.c).clamp(LEFT + 28.0, RIGHT - 28.0);
            let row = ends.iter().position(|e| at - 38.0 > *e).unwrap_or(2);
            ends[row] = at + 38.0;
            row
        })
        .collect();
    let axis_y = 66.0 + 22.0 * rows.iter().max().copied().unwrap_or(0) as f64;
    let mut svg = Svg::new(
        LINE_W,
        axis_y + 58.0,
        "mix-line",
        &say!("mix-dough-wanted", join = said.join(", "), wanted = wanted),
    );
    svg.path(
        &format!("M{LEFT} {axis_y}H{RIGHT}"),
        r#"class="s-ink" stroke-width="2.4""#,
    );
    let step = if high - low > 50.0 { 10.0 } else { 5.0 };
    for c in m.degree_ticks(low, high, step) {
        svg.path(
            &format!("M{:.1} {}v10", x(c), axis_y - 5.0),
            r#"class="s-ink" stroke-width="1.5""#,
        );
        svg.text(x(c), axis_y + 19.0, "tk", Hold::Middle, &m.degrees(c, 0));
    }
    svg.rect(
        x(wanted_c - 1.0),
        axis_y - 11.0,
        x(wanted_c + 1.0) - x(wanted_c - 1.0),
        22.0,
        r#"fill="var(--larch)" opacity=".6""#,
    );
    for (p, row) in sorted.iter().zip(rows) {
        let at = x(p.c).clamp(LEFT + 28.0, RIGHT - 28.0);
        // The first row says name and degrees on two lines, those above it on one.
        let text_y = [axis_y - 48.0, axis_y - 70.0, axis_y - 91.0][row];
        let stem_y = [axis_y - 24.0, axis_y - 66.0, axis_y - 87.0][row];
        let class = if p.water { "c-tarn" } else { "c-ink" };
        svg.raw(&format!(
            r#"<g class="{class}"><path d="M{0:.1} {2}V{1:.1}" class="s" stroke-width="2"/><circle cx="{0:.1}" cy="{axis_y}" r="6" class="f"/></g>"#,
            x(p.c),
            stem_y,
            axis_y - 4.0
        ));
        if row == 0 {
            svg.text(at, text_y, "tx b halo", Hold::Middle, &p.name);
            let degrees = format!("{}°", m.degrees(p.c, 1));
            svg.text(at, text_y + 19.0, "b halo d18", Hold::Middle, &degrees);
        } else {
            let one = format!("{} {}°", p.name, m.degrees(p.c, 1));
            svg.text(at, text_y, "tx b halo", Hold::Middle, &one);
        }
    }
    let at = x(wanted_c);
    svg.path(
        &format!("M{at:.1} {}V{}", axis_y - 14.0, axis_y + 26.0),
        r#"class="s-ink" stroke-width="3""#,
    );
    let says = say!(
        "mix-dough-wanted-within",
        wanted = wanted,
        one_kelvin = one_kelvin(m)
    );
    let half = 120.0;
    let at = at.clamp(LEFT + half, RIGHT - half);
    svg.text(at, axis_y + 46.0, "b d17", Hold::Middle, &says);
    svg.end()
}

fn one_kelvin(m: &Measures) -> &'static str {
    match m.temperature {
        TemperatureUnit::Celsius => "1",
        TemperatureUnit::Fahrenheit => "2",
    }
}

/// What one run's water is put together of, each as long as its grams.
pub fn blend(b: &Blended, tap_c: f64, kettle_c: f64, fridge_c: f64, m: &Measures) -> String {
    let parts: Vec<(f64, &str, &str, String)> = [
        (
            b.fridge_g,
            "url(#h-cold)",
            "on-tarn",
            say!("mix-from-the-fridge", fridge_c = m.degrees(fridge_c, 1)),
        ),
        (
            b.tap_g,
            "url(#h-cold)",
            "on-tarn",
            say!("mix-tap-at", tap_c = m.degrees(tap_c, 1)),
        ),
        (
            b.kettle_g,
            "url(#h-temper)",
            "on-ember",
            say!("mix-kettle", kettle_c = m.degrees(kettle_c, 0)),
        ),
        (
            b.ice_in_tap_g,
            "var(--sheet)",
            "",
            phrase("mix-ice-stirred-until-it-has").into(),
        ),
        (
            b.ice_g,
            "var(--sheet)",
            "",
            phrase("mix-crushed-ice-into-the-bowl").into(),
        ),
    ]
    .into_iter()
    .filter(|(g, ..)| *g > 0.0)
    .collect();
    let whole: f64 = parts.iter().map(|p| p.0).sum::<f64>().max(1e-9);
    let parts = without_crumbs(parts, whole);
    let said: Vec<String> = parts
        .iter()
        .map(|(g, _, _, what)| format!("{} {what}", m.weighed(*g)))
        .collect();
    let mut svg = Svg::new(LINE_W, 66.0, "mix-blend", &said.join(", "));
    let mut at = LEFT;
    let width = RIGHT - LEFT + 4.0;
    for (g, fill, halo, what) in &parts {
        let w = width * g / whole;
        svg.rect(
            at,
            4.0,
            w,
            56.0,
            &format!(r#"fill="{fill}" stroke="var(--ink)" stroke-width="1.8""#),
        );
        let long = w > 300.0;
        let inside = w > 74.0;
        let (x, hold) = if inside {
            (at + 12.0, Hold::Start)
        } else if at > width / 2.0 {
            (at - 8.0, Hold::End)
        } else {
            (at + w + 8.0, Hold::Start)
        };
        let halo = if inside { *halo } else { "on-tarn" };
        let grams = m.weighed(*g);
        if long {
            svg.text(
                x,
                39.0,
                &format!("halo b blend-g {halo}"),
                hold,
                &format!("{grams} {what}"),
            );
        } else {
            svg.text(x, 30.0, &format!("halo b d18 {halo}"), hold, &grams);
            svg.text(x, 50.0, &format!("tx b halo {halo}"), hold, what);
        }
        at += w;
    }
    svg.end()
}

/// A part of less than a hundredth is not worth a vessel: it goes with the largest.
fn without_crumbs<T>(mut parts: Vec<(f64, T, T, String)>, whole: f64) -> Vec<(f64, T, T, String)> {
    let crumbs: f64 = parts
        .iter()
        .map(|p| p.0)
        .filter(|g| *g < 0.01 * whole)
        .sum();
    parts.retain(|p| p.0 >= 0.01 * whole);
    if let Some(largest) = parts.iter_mut().max_by(|a, b| a.0.total_cmp(&b.0)) {
        largest.0 += crumbs;
    }
    parts
}

const TRACE_W: f64 = 470.0;
const TRACE_H: f64 = 222.0;
const T_LEFT: f64 = 44.0;
const T_RIGHT: f64 = 452.0;
const T_TOP: f64 = 18.0;
const T_BOTTOM: f64 = 186.0;

/// A stretch of the run under the chart.
pub struct Stretch {
    pub from_min: f64,
    pub to_min: f64,
    pub name: String,
}

/// The dough over the run: as it was worked out, as it was read, and where it will end.
pub fn trace(
    look: &MixLook,
    readings: &[MixReading],
    stretches: &[Stretch],
    wanted_c: f64,
    m: &Measures,
) -> String {
    let end_min = stretches.last().map_or(1.0, |s| s.to_min).max(1.0);
    let shown = |p: &&TracePoint| p.at_min <= end_min + 1e-6;
    let so_far: Vec<&TracePoint> = look.trace.points.iter().filter(shown).collect();
    let all = so_far
        .iter()
        .map(|p| p.dough_c)
        .chain(look.ahead.iter().map(|p| p.dough_c))
        .chain(readings.iter().map(|r| r.dough_c))
        .chain([wanted_c - 1.5, wanted_c + 1.5]);
    let (low, high) = all.fold((f64::MAX, f64::MIN), |(a, b), c| (a.min(c), b.max(c)));
    let (low, high) = ((low - 0.5).floor(), (high + 0.5).ceil());
    let x = |min: f64| T_LEFT + (T_RIGHT - T_LEFT) * (min / end_min).clamp(0.0, 1.0);
    let y = |c: f64| T_BOTTOM - (T_BOTTOM - T_TOP) * (c - low) / (high - low);
    let end = m.degrees(look.end_c, 1);
    let mut svg = Svg::new(
        TRACE_W,
        TRACE_H,
        "mix-trace",
        &say!("mix-dough-temperature-over-the-run", end = end),
    );
    let step = if high - low > 12.0 { 4.0 } else { 2.0 };
    for c in m.degree_ticks(low, high, step) {
        svg.path(
            &format!("M{T_LEFT} {:.1}H{T_RIGHT}", y(c)),
            r#"class="l-rule""#,
        );
        svg.text(
            T_LEFT - 7.0,
            y(c) + 5.0,
            "tk",
            Hold::End,
            &format!("{}°", m.degrees(c, 0)),
        );
    }
    let (a, b) = (y(wanted_c + 1.0), y(wanted_c - 1.0));
    svg.rect(
        T_LEFT,
        a,
        T_RIGHT - T_LEFT,
        b - a,
        r#"fill="var(--larch)" opacity=".4""#,
    );
    for s in stretches {
        let (from, to) = (x(s.from_min), x(s.to_min));
        svg.path(
            &format!("M{from:.1} {T_TOP}V{T_BOTTOM}"),
            r#"class="l-axis" stroke-dasharray="2 4""#,
        );
        if to - from >= 7.0 * s.name.chars().count() as f64 {
            svg.text(
                (from + to) / 2.0,
                T_BOTTOM + 18.0,
                "tk",
                Hold::Middle,
                &s.name,
            );
        }
    }
    let curve = |points: &mut dyn Iterator<Item = &TracePoint>| {
        let mut d = String::new();
        for p in points {
            let head = if d.is_empty() { 'M' } else { 'L' };
            d.push_str(&format!("{head}{:.1} {:.1} ", x(p.at_min), y(p.dough_c)));
        }
        d
    };
    let now = look.now_min.unwrap_or(0.0);
    if look.now_min.is_some() {
        // What was worked out until now is thin where readings tell better.
        let class = if readings.is_empty() {
            "l-dough"
        } else {
            "l-dough thin"
        };
        let past = curve(&mut so_far.iter().copied().filter(|p| p.at_min <= now + 1e-6));
        svg.path(&past, &format!(r#"class="{class}""#));
    }
    let to_come = curve(&mut look.ahead.iter());
    svg.path(&to_come, r#"class="l-dough" stroke-dasharray="7 5""#);
    // Figures stand as close as they can be read, the last one always.
    let mut free_to = f64::MAX;
    let mut named = vec![false; readings.len()];
    for (i, r) in readings.iter().enumerate().rev() {
        if x(r.at_min) < free_to - 40.0 {
            (named[i], free_to) = (true, x(r.at_min));
        }
    }
    for (i, r) in readings.iter().enumerate() {
        let doubtful = look.doubtful.contains(&i);
        let fill = if doubtful { "none" } else { "var(--sheet)" };
        svg.raw(&format!(
            r#"<circle cx="{:.1}" cy="{:.1}" r="5" fill="{fill}" stroke="var(--ember)" stroke-width="2.5"{}/>"#,
            x(r.at_min),
            y(r.dough_c),
            if doubtful { r#" stroke-dasharray="3 2""# } else { "" }
        ));
        if !named[i] && !doubtful {
            continue;
        }
        let above = y(r.dough_c) - 12.0;
        svg.text(
            x(r.at_min).clamp(T_LEFT + 22.0, T_RIGHT - 22.0),
            if above > T_TOP + 6.0 {
                above
            } else {
                y(r.dough_c) + 24.0
            },
            "b halo d16",
            Hold::Middle,
            &format!("{}°", m.degrees(r.dough_c, 1)),
        );
    }
    let over = look.now_min.is_some_and(|n| n >= end_min - 1e-6);
    if let Some(last) = look.ahead.last().filter(|_| !over || readings.is_empty()) {
        svg.text(
            x(last.at_min).min(T_RIGHT - 2.0),
            (y(last.dough_c) - 10.0).max(T_TOP + 6.0),
            "b halo c-ember f d16",
            Hold::End,
            &format!("{end}°"),
        );
    }
    if look.now_min.is_some_and(|n| n <= end_min) {
        svg.path(&format!("M{:.1} 14V{T_BOTTOM}", x(now)), r#"class="l-now""#);
    }
    svg.end()
}
