//! The race: one lane per part, rising to the second it is ready, solid while it is right, cross-hatched from where it is
//! too much. And the cross-section: floor, piece and dome with their temperatures at one second of the bake.

use super::{Hold, Svg};
use crate::shared::format::word;
use crate::shared::format::{Measures, min_s};
use crate::shared::tongue::{decimal, phrase, say};
use craft::fire::race::{Race, RaceItem};
use std::fmt::Write;

/// A part with its way.
pub struct DrawnLane {
    pub item: RaceItem,
    pub name: &'static str,
    pub cue: &'static str,
    pub progress: Vec<f64>,
    pub ready_s: Option<f64>,
    pub spoils_s: Option<f64>,
}

/// What is drawn.
pub struct RaceDrawing<'a> {
    pub lanes: Vec<DrawnLane>,
    pub times: &'a [f64],
    pub race: &'a Race,
    /// Where the axis ends, s.
    pub end_s: f64,
}

const LANE: f64 = 46.0;
const TOP: f64 = 48.0;

/// Seconds for a short bake, minutes for a long one.
fn said(s: f64, end: f64) -> String {
    if end > 200.0 {
        min_s(s)
    } else {
        format!("{s:.0}")
    }
}

pub fn race(d: &RaceDrawing, width: f64) -> String {
    let narrow = width < 500.0;
    let left = if narrow { 78.0 } else { 128.0 };
    let right = width - 12.0;
    let height = TOP + LANE * d.lanes.len() as f64 + 40.0;
    let x = |s: f64| left + (right - left) * (s / d.end_s).clamp(0.0, 1.0);
    let mut say = String::new();
    for l in &d.lanes {
        let _ = match l.ready_s {
            Some(s) => write!(say, "{} ", say!("page-ready-at-s", name = l.name, s = s)),
            None => write!(say, "{} ", say!("page-never-ready", name = l.name)),
        };
    }
    let mut svg = Svg::new(
        width,
        height,
        "race",
        &say!(
            "page-the-race-pull-at-s",
            value = say,
            best_s = decimal(d.race.best_s, 0)
        ),
    );
    let every = [5.0, 10.0, 20.0, 30.0, 60.0, 120.0, 240.0]
        .into_iter()
        .find(|e| d.end_s / e <= if narrow { 5.5 } else { 11.5 })
        .unwrap_or(300.0);
    let bottom = TOP + LANE * d.lanes.len() as f64;
    let mut t = 0.0;
    while t <= d.end_s {
        svg.path(
            &format!("M{:.1} {}V{bottom:.1}", x(t), TOP - 8.0),
            r#"stroke="var(--rule)" stroke-width="1""#,
        );
        // The plate of the pull stands over the axis: a figure under it would be cut.
        if (x(t) - x(d.race.best_s)).abs() > if narrow { 40.0 } else { 68.0 } || t == 0.0 {
            let unit = if t == 0.0 && d.end_s <= 200.0 {
                " s"
            } else {
                ""
            };
            svg.text(
                x(t),
                TOP - 14.0,
                "tk",
                Hold::Middle,
                &format!("{}{unit}", said(t, d.end_s)),
            );
        }
        t += every;
    }
    if let Some(w) = d.race.window {
        svg.rect(
            x(w.from_s),
            TOP - 8.0,
            x(w.to_s) - x(w.from_s),
            bottom - TOP + 8.0,
            r#"class="f-larch" opacity=".32""#,
        );
    }
    for (i, l) in d.lanes.iter().enumerate() {
        lane(&mut svg, d, l, TOP + LANE * i as f64, x, left, narrow);
    }
    foot(&mut svg, d, bottom, x, right);
    let at = x(d.race.best_s);
    let word = if narrow {
        String::new()
    } else {
        [phrase("page-pull"), " "].concat()
    };
    let text = format!(
        "{word}{}{}",
        said(d.race.best_s, d.end_s),
        if d.end_s > 200.0 { "" } else { " s" }
    );
    let half = 5.0 * text.len() as f64 + 4.0;
    let middle = at.clamp(left + half, right - half);
    svg.rect(
        middle - half,
        12.0,
        2.0 * half,
        24.0,
        r#"fill="var(--ink)""#,
    );
    svg.text(middle, 29.5, "tx b on-ink", Hold::Middle, &text);
    svg.path(
        &format!("M{at:.1} 36V{:.1}", bottom + 5.0),
        r#"stroke="var(--ink)" stroke-width="3""#,
    );
    // The second that the cross-section shows; the script moves it.
    svg.raw(&format!(
        r#"<path data-scrub data-left="{left:.1}" data-scale="{:.5}" d="M{at:.1} {}V{bottom:.1}" stroke="var(--ember)" stroke-width="1.6" stroke-dasharray="3 3"/>"#,
        (right - left) / d.end_s,
        TOP - 8.0
    ));
    svg.end()
}

fn lane(
    svg: &mut Svg,
    d: &RaceDrawing,
    l: &DrawnLane,
    y: f64,
    x: impl Fn(f64) -> f64,
    left: f64,
    narrow: bool,
) {
    let foot = y + LANE - 5.0;
    let full = LANE - 13.0;
    svg.text(
        4.0,
        y + 22.0,
        if narrow { "h f15" } else { "h f19" },
        Hold::Start,
        l.name,
    );
    if !narrow {
        svg.text(4.0, y + 38.0, "tk", Hold::Start, l.cue);
    }
    let ready = l.ready_s.unwrap_or(d.end_s).min(d.end_s);
    let mut area = format!("M{left:.1} {foot:.1}");
    let mut line = String::new();
    for (t, p) in d.times.iter().zip(&l.progress) {
        if *t > ready {
            break;
        }
        let _ = write!(area, "L{:.1} {:.1}", x(*t), foot - full * p);
        let _ = write!(
            line,
            "{}{:.1} {:.1}",
            if line.is_empty() { "M" } else { "L" },
            x(*t),
            foot - full * p
        );
    }
    let _ = write!(area, "L{:.1} {foot:.1}Z", x(ready));
    svg.path(&area, r#"fill="var(--ember-wash)""#);
    svg.path(
        &line,
        r#"fill="none" stroke="var(--ember)" stroke-width="2.6""#,
    );
    if let Some(from) = l.ready_s {
        let to = l.spoils_s.unwrap_or(d.end_s).min(d.end_s);
        svg.rect(
            x(from),
            foot - full,
            x(to) - x(from),
            full,
            r#"fill="var(--ember)""#,
        );
        if to < d.end_s {
            let w = x(d.end_s) - x(to);
            svg.rect(x(to), foot - full, w, full, r#"fill="var(--sheet)""#);
            svg.rect(
                x(to),
                foot - full,
                w,
                full,
                r##"fill="url(#h-char)" stroke="var(--char)" stroke-width="1""##,
            );
            let word = match l.item {
                RaceItem::Topping => phrase("page-word-dries"),
                RaceItem::Cheese => phrase("page-word-splits"),
                _ => phrase("page-word-chars"),
            };
            if w > 64.0 {
                svg.text(
                    x(to) + w / 2.0,
                    foot - full / 2.0 + 5.0,
                    "tx b halo",
                    Hold::Middle,
                    word,
                );
            }
        }
        let text = said(from, d.end_s);
        // The figure stands inside the block, or before it where the block is too narrow or the pull would cross it.
        let wide = 14.0 * text.len() as f64;
        let pull = x(d.race.best_s);
        let crossed = (x(from)..x(from) + 14.0 + wide).contains(&pull);
        let room_before = x(from) - left > wide + 14.0;
        if x(to) - x(from) > wide + 14.0 && !(crossed && room_before) {
            svg.text(
                x(from) + 8.0,
                foot - full / 2.0 + 8.0,
                "n22 w-ember",
                Hold::Start,
                &text,
            );
        } else {
            svg.text(x(from) - 6.0, foot - 9.0, "n22 halo", Hold::End, &text);
        }
    } else {
        svg.text(
            x(d.end_s) - 8.0,
            foot - full - 4.0,
            "tx b c-ember halo",
            Hold::End,
            phrase("batch-never-ready"),
        );
    }
    svg.path(
        &format!("M{left:.1} {foot:.1}H{:.1}", x(d.end_s)),
        r#"stroke="var(--rule-strong)" stroke-width="1""#,
    );
}

/// The bracket under the lanes: from the first part that is ready to the last.
fn foot(svg: &mut Svg, d: &RaceDrawing, bottom: f64, x: impl Fn(f64) -> f64, right: f64) {
    let ready = || {
        d.lanes
            .iter()
            .filter(|l| l.item != RaceItem::Cheese)
            .filter_map(|l| l.ready_s)
    };
    let words = craft::fire::overview::spread_words(d.race);
    let (Some(words), a, b) = (
        words,
        ready().fold(f64::INFINITY, f64::min),
        ready().fold(0.0, f64::max),
    ) else {
        svg.text(
            x(0.0),
            bottom + 28.0,
            "tx ink2",
            Hold::Start,
            phrase("page-one-part-never-gets-there"),
        );
        return;
    };
    svg.path(
        &format!(
            "M{a:.1} {bottom:.1}v8H{b:.1}v-8",
            a = x(a),
            bottom = bottom + 8.0,
            b = x(b)
        ),
        r#"fill="none" stroke="var(--ink)" stroke-width="2""#,
    );
    let middle = (0.5 * (x(a) + x(b))).clamp(90.0, right - 60.0);
    svg.text(middle, bottom + 34.0, "tx b", Hold::Middle, &word(&words));
}

/// What the cross-section says at one second; the script writes the same rows for other seconds.
pub struct RaceRow {
    pub key: &'static str,
    pub y: f64,
    pub name: String,
    pub celsius: f64,
}

/// Floor depths whose temperatures are written, mm.
pub fn depths(floor_mm: f64) -> Vec<f64> {
    let mut d = vec![0.0];
    d.extend(
        [10.0, 30.0, 60.0]
            .into_iter()
            .filter(|m| *m < floor_mm - 2.0),
    );
    if d.len() == 1 || floor_mm - d[d.len() - 1] > 8.0 {
        d.push(floor_mm);
    }
    d.truncate(4);
    d
}

/// How many level lines a layer gets: hotter, denser.
fn lines(svg: &mut Svg, x: f64, y: f64, w: f64, h: f64, celsius: f64, key: &str) {
    let n = ((celsius - 20.0) / 45.0).clamp(1.0, 11.0).round();
    let mut d = String::new();
    let mut i = 0.0;
    while i < n {
        let _ = write!(d, "M{x:.1} {:.1}h{w:.1}", y + h * (i + 0.5) / n);
        i += 1.0;
    }
    svg.raw(&format!(
        r#"<path data-lines="{key}" data-box="{x:.1} {y:.1} {w:.1} {h:.1}" d="{d}" stroke="var(--ember)" stroke-width="{:.1}" opacity=".85"/>"#,
        (0.8 + celsius / 260.0).min(2.6)
    ));
}

/// Floor, piece and dome, cut through; `rows` from the dome down.
pub fn section(rows: &[RaceRow], m: &Measures, in_pan: bool) -> String {
    let say: Vec<String> = rows
        .iter()
        .map(|r| format!("{} {}°", r.name, m.degrees(r.celsius, 0)))
        .collect();
    let mut svg = Svg::new(
        400.0,
        304.0,
        "section",
        &say!("page-cut-through-oven-and-piece", join = say.join(", ")),
    );
    let of = |key: &str| {
        rows.iter()
            .find(|r| r.key == key)
            .map_or(20.0, |r| r.celsius)
    };
    svg.rect(6.0, 4.0, 204.0, 42.0, r#"fill="var(--ember-wash)""#);
    lines(&mut svg, 6.0, 6.0, 204.0, 38.0, of("dome"), "dome");
    svg.rect(6.0, 46.0, 204.0, 144.0, r#"fill="var(--inset)""#);
    // The piece: base, rim, topping.
    svg.path(
        "M6 174V124C60 124 110 122 132 108C146 98 152 74 176 74C202 74 208 104 206 134C204 160 192 174 168 174Z",
        r#"fill="var(--dough,#f4dda4)" stroke="var(--ink)" stroke-width="2.4" class="dough""#,
    );
    svg.path(
        "M6 124C60 124 110 122 132 108L128 94C104 104 60 106 6 106Z",
        r#"fill="var(--ember-wash)" stroke="var(--ink)" stroke-width="1.6""#,
    );
    svg.raw(r#"<ellipse cx="176" cy="112" rx="15" ry="19" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.6"/><ellipse cx="70" cy="148" rx="17" ry="5" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4"/><ellipse cx="146" cy="150" rx="9" ry="7" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.4"/>"#);
    svg.path("M6 174H168", r#"stroke="var(--ink)" stroke-width="5.5""#);
    if in_pan {
        svg.path(
            "M6 180H206V96",
            r#"fill="none" stroke="var(--slate,#555)" stroke-width="4""#,
        );
    }
    svg.rect(
        6.0,
        190.0,
        204.0,
        110.0,
        r#"fill="var(--ember-wash)" stroke="var(--ink)" stroke-width="2""#,
    );
    let floors: Vec<&RaceRow> = rows.iter().filter(|r| r.key.starts_with("floor")).collect();
    let band = 110.0 / floors.len().max(1) as f64;
    for (i, r) in floors.iter().enumerate() {
        lines(
            &mut svg,
            7.0,
            191.0 + band * i as f64,
            202.0,
            band - 1.0,
            r.celsius,
            r.key,
        );
    }
    for r in rows {
        let from = match r.key {
            "topping" => (96.0, 100.0),
            "rim" => (192.0, 84.0),
            "crumb" => (150.0, 150.0),
            "base" => (150.0, 173.0),
            _ => (212.0, r.y),
        };
        svg.path(
            &format!("M{} {}L228 {}H240", from.0, from.1, r.y),
            r#"fill="none" stroke="var(--ink)" stroke-width="1.2" opacity=".7""#,
        );
        if from.0 < 210.0 {
            svg.raw(&format!(
                r#"<circle cx="{}" cy="{}" r="3.4" fill="var(--ink)"/>"#,
                from.0, from.1
            ));
        }
        svg.raw(&format!(
            r#"<text x="296" y="{:.1}" text-anchor="end" class="n20" data-c="{}">{}°</text>"#,
            r.y + 7.0,
            r.key,
            m.degrees(r.celsius, 0)
        ));
        svg.text(304.0, r.y + 5.0, "tx b", Hold::Start, &r.name);
    }
    svg.end()
}
