//! The drawings of the first start: six ovens as sections, the dial, and the first plan over its hours.

use crate::shared::chart::strip::{blocks, flag, window};
use crate::shared::chart::{Hold, HourLine, Svg, curve};
use crate::shared::tongue::{date, phrase, say};
use craft::begin::BakesIn;
use craft::sheet::{SheetResult, hours};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use speech::Measures;

/// Glowing rods in a row; hollow where they do not glow.
fn rods(svg: &mut Svg, (from, to): (f64, f64), n: usize, y: f64, glow: bool) {
    let fill = if glow { "f-ember" } else { "f-sheet" };
    for i in 0..n {
        let x = from + (to - from) * i as f64 / (n - 1) as f64;
        svg.raw(&format!(
            r#"<circle cx="{x:.1}" cy="{y}" r="4.5" class="{fill} s-ember" stroke-width="2"/>"#
        ));
    }
}

/// A floor, with lines as close as it is hot.
fn floor(svg: &mut Svg, (x, y, w, h): (f64, f64, f64, f64), c: f64) {
    svg.rect(x, y, w, h, r#"class="f-ember-wash""#);
    let lines = (c / 100.0).round().max(1.0);
    for i in 0..lines as usize {
        let at = y + h * (i as f64 + 0.5) / lines;
        svg.path(
            &format!("M{x} {at:.1}h{w}"),
            r#"class="s-ember" stroke-width="1.5""#,
        );
    }
    svg.rect(
        x,
        y,
        w,
        h,
        r#"fill="none" class="s-ink" stroke-width="2.4""#,
    );
}

/// A pizza from the side, from `x` on, so wide, on a floor at `y`.
fn pizza(svg: &mut Svg, x: f64, w: f64, y: f64) {
    let (a, b) = (x + 22.0, x + w - 22.0);
    svg.path(
        &format!("M{x} {y}C{x2:.1} {y2:.1} {x3:.1} {y3:.1} {a} {y4:.1}H{b}C{b2:.1} {y5:.1} {w:.1} {y6:.1} {w2:.1} {y}z", x2 = x - 4.0, y2 = y - 15.0, x3 = x + 20.0, y3 = y - 17.0, y4 = y - 6.0, b2 = b + 2.0, y5 = y - 17.0, w = x + w + 4.0, y6 = y - 15.0, w2 = x + w),
        r#"class="f-rise-wash s-ink" stroke-width="2""#,
    );
    svg.path(
        &format!("M{:.1} {:.1}H{:.1}", a + 1.0, y - 8.5, b - 1.0),
        r#"class="s-ember" stroke-width="3" stroke-dasharray="9 4""#,
    );
}

/// An oven as a section, with its floor's figure written in.
pub fn oven(kind: BakesIn, floor_c: f64, grill: bool, m: &Measures, name: &str) -> String {
    let mut svg = Svg::new(236.0, 122.0, "oven-section", name);
    let degrees = format!("{}°", m.degrees(floor_c, 0));
    match kind {
        BakesIn::HomeTray | BakesIn::HomeSteel | BakesIn::HomeStone => {
            svg.path(
                "M14 8H222V114H14z",
                r#"class="f-inset s-ink" stroke-width="3""#,
            );
            rods(&mut svg, (44.0, 192.0), 7, 19.0, grill);
            rods(&mut svg, (44.0, 192.0), 7, 105.0, false);
            let (top, thick, word) = match kind {
                BakesIn::HomeTray => (68.0, 0.0, phrase("begin-tray-starts-cold").to_string()),
                BakesIn::HomeSteel => (56.0, 10.0, say!("begin-steel", degrees = degrees)),
                _ => (54.0, 17.0, say!("begin-stone", degrees = degrees)),
            };
            if thick > 0.0 {
                floor(&mut svg, (32.0, top, 172.0, thick), floor_c);
            } else {
                svg.path(
                    "M34 62V70H202V62",
                    r#"fill="none" class="s-ink" stroke-width="3""#,
                );
            }
            pizza(&mut svg, 50.0, 136.0, top);
            svg.text(36.0, top + thick + 18.0, "oven-word", Hold::Start, &word);
        }
        BakesIn::Portable => {
            svg.path(
                "M20 92V52C30 24 74 16 132 18L222 40V52",
                r#"fill="none" class="s-ink" stroke-width="3""#,
            );
            svg.path(
                "M28 86C28 46 42 32 84 30C122 28 160 36 190 44C150 42 110 42 84 48C60 53 50 66 46 86z",
                r#"fill="url(#h-late)" class="s-ember" stroke-width="2""#,
            );
            floor(&mut svg, (52.0, 84.0, 156.0, 13.0), floor_c);
            svg.path(
                "M16 98H222M44 98l-8 18M196 98l8 18",
                r#"class="s-ink" stroke-width="3""#,
            );
            pizza(&mut svg, 64.0, 122.0, 84.0);
            svg.text(
                118.0,
                115.0,
                "oven-word",
                Hold::Middle,
                &say!("begin-stone", degrees = degrees),
            );
        }
        BakesIn::Dome => {
            svg.path(
                "M8 96C8 36 50 6 112 6C170 6 206 30 212 62L200 66C192 42 160 22 112 22C64 22 26 46 26 96z",
                r#"fill="url(#h-temper)" class="s-ink" stroke-width="2.6""#,
            );
            svg.path(
                "M36 92c-8-18 4-26 8-44c10 12 14 8 16-6c12 16 14 34 4 50z",
                r#"fill="url(#h-late)" class="s-ember" stroke-width="2""#,
            );
            svg.path("M32 92h40M38 86h28", r#"class="s-ink" stroke-width="5""#);
            floor(&mut svg, (8.0, 94.0, 204.0, 24.0), floor_c);
            pizza(&mut svg, 84.0, 112.0, 94.0);
            svg.text(
                140.0,
                113.0,
                "oven-word on-floor",
                Hold::Middle,
                &say!("begin-floor", degrees = degrees),
            );
        }
        BakesIn::Deck => {
            svg.path(
                "M8 24H228V104H8z",
                r#"class="f-inset s-ink" stroke-width="3""#,
            );
            svg.path("M228 44L234 80", r#"class="s-ink" stroke-width="2.4""#);
            rods(&mut svg, (34.0, 202.0), 8, 35.0, true);
            rods(&mut svg, (34.0, 202.0), 8, 96.0, true);
            floor(&mut svg, (14.0, 74.0, 208.0, 13.0), floor_c);
            pizza(&mut svg, 20.0, 94.0, 74.0);
            pizza(&mut svg, 122.0, 94.0, 74.0);
            svg.text(
                118.0,
                56.0,
                "oven-word",
                Hold::Middle,
                &say!("begin-stone", degrees = degrees),
            );
        }
    }
    svg.end()
}

/// How hot kinds of ovens get, °C.
const KINDS: [(&str, f64, f64, f64); 4] = [
    ("begin-home-ovens", 230.0, 300.0, 46.0),
    ("begin-decks", 280.0, 350.0, 26.0),
    ("begin-portables", 350.0, 470.0, 46.0),
    ("begin-fired-domes", 380.0, 500.0, 26.0),
];

/// The dial: where one's own oven lies among the kinds.
pub fn dial(most_c: f64, m: &Measures) -> String {
    let x = |c: f64| 20.0 + (c - 200.0) / 320.0 * 450.0;
    let said = |c: f64| format!("{}°", m.degrees(c, 0));
    let label = say!(
        "begin-yours-reaches-home-ovens-to",
        most_c = said(most_c),
        value = said(230.0),
        value2 = said(300.0),
        value3 = said(350.0),
        value4 = said(470.0),
        value5 = said(500.0)
    );
    let mut svg = Svg::new(492.0, 92.0, "dial", &label);
    for (word, from, to, y) in KINDS {
        let (a, b) = (x(from), x(to));
        svg.path(
            &format!(
                "M{a:.1} {y:.1}V{y2}H{b:.1}V{y3:.1}",
                y = y + 6.0,
                y2 = y,
                y3 = y + 6.0
            ),
            r#"fill="none" class="s-ink" stroke-width="1.6""#,
        );
        svg.text(
            0.5 * (a + b),
            y - 5.0,
            "tx halo",
            Hold::Middle,
            phrase(word),
        );
    }
    svg.path(
        &format!("M{:.1} 64H{:.1}", x(200.0), x(520.0)),
        r#"class="s-ink" stroke-width="2.4""#,
    );
    // Round degrees of the dial's own scale.
    let ticks: Vec<f64> = match m.degree_unit() {
        "°F" => (4..10)
            .map(|h| (f64::from(h) * 100.0 - 32.0) / 1.8)
            .collect(),
        _ => (4..11).map(|h| f64::from(h) * 50.0).collect(),
    };
    for c in ticks {
        svg.path(
            &format!("M{:.1} 59v10", x(c)),
            r#"class="s-ink" stroke-width="1.5""#,
        );
        svg.text(x(c), 86.0, "tk", Hold::Middle, &said(c));
    }
    let at = x(most_c.clamp(200.0, 520.0));
    svg.path(
        &format!("M{at:.1} 20V64"),
        r#"class="s-ink" stroke-width="2.4""#,
    );
    svg.raw(&format!(
        r#"<circle cx="{at:.1}" cy="64" r="7" class="f-ember"/>"#
    ));
    svg.rect(at - 28.0, 0.0, 56.0, 22.0, r#"class="f-larch""#);
    svg.text(at, 17.0, "dial-now", Hold::Middle, &said(most_c));
    svg.end()
}

const WIDTH: f64 = 394.0;
const HEIGHT: f64 = 168.0;

/// The first plan over its hours: legs at the foot, both clocks above, the window, the flag.
pub fn plan(sheet: &SheetResult, serve_at: Timestamp, zone: &TimeZone, label: &str) -> String {
    let ready_to = sheet.window.and_then(|w| w.to_at).unwrap_or(serve_at);
    let until = ready_to.max(serve_at) + hours(0.7);
    let axis = HourLine {
        from: sheet.start_at - hours(0.4),
        to: until,
        left: 6.0,
        right: WIDTH - 6.0,
    };
    let mut svg = Svg::new(WIDTH, HEIGHT, "first-plan", label);
    for (a, b) in axis.nights(zone) {
        svg.rect(a, 22.0, b - a, 124.0, r#"class="f-night""#);
    }
    let every = [3, 6, 12, 24]
        .into_iter()
        .find(|h| axis.px_per_h() * f64::from(*h) >= 56.0);
    for (at, hour) in axis.ticks(zone, every.unwrap_or(24)) {
        let x = axis.x(at);
        let class = if hour == 0 { "l-axis" } else { "l-rule" };
        svg.path(&format!("M{x:.1} 22V146"), &format!(r#"class="{class}""#));
        if hour == 0 && x < WIDTH - 60.0 {
            let day = date(&at.to_zoned(zone.clone()), "%a %-d");
            svg.text(x + 4.0, 14.0, "dsp d15", Hold::Start, &day);
        }
        if (20.0..WIDTH - 20.0).contains(&x) {
            svg.text(x, 163.0, "tk", Hold::Middle, &format!("{hour:02}:00"));
        }
    }
    window(&mut svg, sheet, &axis, 146.0, 32.0);
    blocks(&mut svg, sheet, &axis, 126.0, 20.0, None);
    svg.path(
        &curve(&axis, sheet, |p| p.rise, 120.0, 30.0, 130.0),
        r#"class="l-rise""#,
    );
    svg.path(
        &curve(&axis, sheet, |p| p.reserve, 120.0, 30.0, 130.0),
        r#"class="l-res""#,
    );
    flag(&mut svg, axis.x(serve_at), 146.0, 24.0);
    svg.end()
}
