//! The Rise picture: both clocks over the hours, the legs with edges that can be moved, temperatures below, the ready
//! window with its band against the serve flag.

mod edges;
mod heat;

use crate::shared::format::named;
use crate::shared::tongue::{date, decimal, phrase, say};
pub use edges::leg_field;

use super::{Hold, HourLine, Svg, curve, hatch, whisker};
use crate::shared::format::{Measures, hm, quarter};
use craft::path::Spot;
use craft::rise::ripeness::{READY, SLACK};
use craft::rise::{RipenessPart, Shuts};
use craft::sheet::{BlockKind, SheetRequest, SheetResult, Sure, hours};
use jiff::Timestamp;
use jiff::tz::TimeZone;

/// What is drawn.
pub struct RiseDrawing<'a> {
    pub request: &'a SheetRequest,
    pub sheet: &'a SheetResult,
    pub sure: Option<&'a Sure>,
    pub now: Timestamp,
    pub zone: &'a TimeZone,
    pub measures: &'a Measures,
    /// Edges can be moved.
    pub live: bool,
    /// What was measured: when, °C, of the dough or of a place.
    pub read: &'a [(Timestamp, f64, bool)],
}

/// The picture's layout: wide for a desk, narrow for a phone.
struct RiseLayout {
    width: f64,
    left: f64,
    right: f64,
    tick_every: i8,
    narrow: bool,
}

const WIDE: RiseLayout = RiseLayout {
    width: 1240.0,
    left: 60.0,
    right: 1226.0,
    tick_every: 3,
    narrow: false,
};
const NARROW: RiseLayout = RiseLayout {
    width: 720.0,
    left: 46.0,
    right: 712.0,
    tick_every: 6,
    narrow: true,
};
const HEIGHT: f64 = 396.0;
const HEAD: f64 = 46.0;
/// Rise clock and reserve run between these; 0 to `TOP`.
const CLOCK_FOOT: f64 = 206.0;
const CLOCK_HEAD: f64 = 54.0;
const TOP: f64 = 140.0;
const LANE: f64 = 218.0;
const LANE_H: f64 = 52.0;
const HEAT_HEAD: f64 = 308.0;
const HEAT_FOOT: f64 = 384.0;

fn clock_y(v: f64) -> f64 {
    CLOCK_FOOT + (CLOCK_HEAD - CLOCK_FOOT) * v.clamp(0.0, TOP) / TOP
}

pub fn wide(p: &RiseDrawing) -> String {
    draw(p, &WIDE)
}
pub fn narrow(p: &RiseDrawing) -> String {
    draw(p, &NARROW)
}

fn axis(p: &RiseDrawing, l: &RiseLayout) -> HourLine {
    let serve = p.request.serve_at;
    let last = p
        .sheet
        .window
        .and_then(|w| w.to_at)
        .unwrap_or(serve)
        .min(serve + hours(14.0))
        .max(serve);
    let begins = p.sheet.start_at;
    let whole = last.duration_since(begins).as_secs_f64() / 3600.0;
    HourLine {
        from: begins - hours(whole * 0.02),
        to: last + hours(whole * 0.09 + 0.3),
        left: l.left,
        right: l.right,
    }
}

fn draw(p: &RiseDrawing, l: &RiseLayout) -> String {
    let axis = axis(p, l);
    let label = say!(
        "page-rise-and-strength-left-from",
        zone = at(p.sheet.start_at, p.zone),
        zone2 = at(p.request.serve_at, p.zone)
    );
    let mut svg = Svg::of_links(
        l.width,
        HEIGHT,
        if l.narrow { "rise narrow" } else { "rise" },
        &label,
    );
    svg.raw(&format!(
        r#"<g data-px-per-h="{:.3}" data-left="{}"></g>"#,
        axis.px_per_h(),
        axis.left
    ));
    ground(&mut svg, p, &axis, l);
    window(&mut svg, p, &axis, l);
    legs(&mut svg, p, &axis);
    clocks(&mut svg, p, &axis, l);
    heat::draw(&mut svg, p, &axis, l);
    flag_and_values(&mut svg, p, &axis);
    now(&mut svg, p, &axis);
    if p.live {
        edges::draw(&mut svg, p, &axis);
    }
    svg.end()
}

fn at(t: Timestamp, zone: &TimeZone) -> String {
    date(&t.to_zoned(zone.clone()), "%a %H:%M")
}

fn ground(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine, l: &RiseLayout) {
    let y = clock_y(100.0);
    for (a, b) in axis.nights(p.zone) {
        svg.rect(
            a,
            HEAD - 16.0,
            b - a,
            HEIGHT - HEAD + 16.0,
            r#"class="f-night""#,
        );
        if b - a > 40.0 {
            svg.text(
                0.5 * (a + b),
                HEIGHT - 3.0,
                "tk halo",
                Hold::Middle,
                phrase("page-night"),
            );
        }
    }
    // Ready from 90, as intended at 100.
    svg.rect(
        axis.left,
        clock_y(TOP),
        axis.right - axis.left,
        clock_y(100.0 * READY) - clock_y(TOP),
        r#"class="f-ready""#,
    );
    // Finer hours where there is room.
    let px = axis.px_per_h();
    let every = [1i8, 2, 3, 6, 12]
        .into_iter()
        .find(|e| {
            f64::from(*e) * px >= 56.0 && *e >= if px > 56.0 { 1 } else { l.tick_every.min(3) }
        })
        .unwrap_or(24);
    for (t, hour) in axis.ticks(p.zone, every) {
        let x = axis.x(t);
        let class = if hour == 0 { "l-day" } else { "l-rule" };
        svg.path(
            &format!("M{x:.1} {:.1}V{HEAT_FOOT}", HEAD - 8.0),
            &format!(r#"class="{class}""#),
        );
        let serve = axis.x(p.request.serve_at);
        let flagged = x > serve - 42.0 && x < serve + 66.0;
        let plated = axis.holds(p.now) && (x - axis.x(p.now) + 14.0).abs() < 48.0;
        if x < axis.right - 18.0 && x > axis.left + 8.0 && !flagged && !plated {
            svg.text(
                x + 3.0,
                HEAD - 3.0,
                "tk halo",
                Hold::Start,
                &format!("{hour:02}:00"),
            );
        }
    }
    let days: Vec<Timestamp> = std::iter::once(axis.from)
        .chain(axis.ticks(p.zone, 24).into_iter().map(|t| t.0))
        .collect();
    for (i, t) in days.iter().enumerate() {
        let x = axis.x(*t).max(axis.left);
        let next = days.get(i + 1).map_or(axis.right, |d| axis.x(*d));
        let z = t.to_zoned(p.zone.clone());
        let long = date(&z, "%A %-d");
        let short = date(&z, "%a %-d");
        let fits = |s: &str| next - x > 10.0 * s.len() as f64 + 10.0;
        let word = if fits(&long) { long } else { short };
        if fits(&word) {
            svg.text(x + 6.0, 20.0, "dsp d16", Hold::Start, &word);
        }
    }
    for v in [0.0, 50.0, 100.0] {
        let y = clock_y(v);
        svg.path(
            &format!("M{} {y:.1}H{}", axis.left, axis.right),
            if v == 0.0 {
                r#"class="l-axis""#
            } else {
                r#"class="l-axis" stroke-dasharray="2 4""#
            },
        );
        svg.text(
            axis.left - 7.0,
            y + 4.0,
            "tk",
            Hold::End,
            &format!("{v:.0}"),
        );
    }
    if !l.narrow {
        svg.text(
            axis.left + 0.34 * (axis.right - axis.left),
            y - 5.0,
            "tk halo",
            Hold::Start,
            &say!(
                "page-rise-ready-from-100-as",
                value = decimal(100.0 * READY, 0),
                value2 = decimal(100.0 * SLACK, 0)
            ),
        );
    }
}

/// The window in larch within an ink bracket, and the band of each edge as a whisker.
fn window(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine, l: &RiseLayout) {
    let Some(w) = p.sheet.window else { return };
    let (a, b) = (
        axis.clamped(w.from_at),
        axis.clamped(w.to_at.unwrap_or(axis.to)),
    );
    let top = CLOCK_HEAD - 4.0;
    let by_log = p.sheet.by_log.map(|l| [l.ready, l.past]);
    let by_doubts = p.sure.map(|s| [Some(s.ready), s.past]);
    for band in by_log.or(by_doubts).into_iter().flatten().flatten() {
        whisker(svg, axis, &band, CLOCK_FOOT + 2.0);
    }
    svg.rect(
        a,
        top + 14.0,
        b - a,
        HEAT_FOOT - top - 14.0,
        r#"class="f-larch" opacity=".42""#,
    );
    let shut = if w.to_at.is_some() {
        format!("V{HEAT_FOOT}")
    } else {
        String::new()
    };
    svg.path(
        &format!(
            "M{a:.1} {value}V{top:.1}H{b:.1}{shut}",
            value = HEAT_FOOT,
            top = top + 14.0
        ),
        r#"class="s-ink" stroke-width="1.9""#,
    );
    let said = |t: Timestamp| hm(&quarter(&t.to_zoned(p.zone.clone())));
    let opens = match w.opens_by {
        Some(RipenessPart::Dose) => phrase("page-word-risen"),
        Some(RipenessPart::Piece) => phrase("page-risen-since-shaped"),
        Some(RipenessPart::Mature) => phrase("page-word-relaxed"),
        None => "",
    };
    let y = CLOCK_HEAD + 34.0;
    if a > axis.left + 120.0 {
        svg.text(
            a - 8.0,
            y,
            "tx b halo",
            Hold::End,
            &say!("page-ready-2", from_at = said(w.from_at)),
        );
        if !l.narrow {
            svg.text(a - 8.0, y + 17.0, "tk halo", Hold::End, opens);
        }
    }
    if let Some(to) = w.to_at {
        let word = match w.shuts_by {
            Some(Shuts::Gluten) => phrase("page-strength-spent"),
            Some(Shuts::Sugar) => phrase("page-sugar-spent"),
            Some(Shuts::Gas) => phrase("page-risen-too-far"),
            None => "",
        };
        let room = axis.right - b;
        let (x, hold) = if room > 92.0 {
            (b + 8.0, Hold::Start)
        } else {
            (b - 6.0, Hold::End)
        };
        let y = if room > 92.0 { y } else { LANE + LANE_H + 16.0 };
        svg.text(x, y, "tx b halo", hold, &say!("page-until", to = said(to)));
        svg.text(x, y + 16.0, "tk halo", hold, word);
    }
}

fn legs(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine) {
    let path = p.request.formula.path();
    let mut small = Vec::new();
    for b in &p.sheet.blocks {
        let (x0, x1) = (axis.clamped(b.from_at), axis.clamped(b.to_at));
        let (fill, word, ground) = hatch(b.kind);
        svg.rect(
            x0,
            LANE,
            (x1 - x0).max(2.0),
            LANE_H,
            &format!(r#"fill="{fill}" stroke="var(--ink)" stroke-width="1.4""#),
        );
        let leg = b.leg.and_then(|i| path.get(i));
        let span = b.to_at.duration_since(b.from_at);
        let (h, m) = (span.as_secs() / 3600, span.as_secs() % 3600 / 60);
        let long = if h == 0 {
            say!("page-min", value = m)
        } else if m == 0 {
            format!("{h} h")
        } else {
            format!("{h} h {m:02}")
        };
        let word = leg.map_or(word.to_string(), |x| {
            if b.kind == BlockKind::Temper {
                hatch(b.kind).1.to_string()
            } else {
                named(&x.word())
            }
        });
        let place = leg.map_or(String::new(), |x| match &x.spot {
            Spot::Room => [
                " ",
                &say!("page-at", room_c = p.measures.degrees(p.request.room_c, 1)),
                "",
            ]
            .concat(),
            Spot::Fridge => [
                " ",
                &say!(
                    "page-at-2",
                    fridge_c = p.measures.degrees(p.request.fridge_c, 1)
                ),
                "",
            ]
            .concat(),
            Spot::Freezer => String::new(),
            Spot::Own(x) => [" ", &say!("page-at-3", c = p.measures.degrees(x.c, 1)), ""].concat(),
        });
        let handle = if p.live { 22.0 } else { 8.0 };
        if x1 - x0 > 11.0 * word.len() as f64 + handle && b.kind != BlockKind::Mix {
            svg.text(
                x0 + handle - 6.0 + 4.0,
                LANE + 24.0,
                &format!("dsp d18 halo {ground}"),
                Hold::Start,
                &word,
            );
            let second = format!("{long}{place}");
            let fits = x1 - x0 > 8.4 * second.len() as f64 + handle;
            svg.text(
                x0 + handle - 2.0,
                LANE + 45.0,
                &format!("tx b halo {ground}"),
                Hold::Start,
                if fits { &second } else { &long },
            );
        } else {
            small.push((x0, word, long));
        }
    }
    // What is too short for its word is said below, in order.
    if let Some((x, _, _)) = small.first() {
        let words: Vec<String> = small
            .iter()
            .map(|(_, w, long)| format!("{w} {long}"))
            .collect();
        let said = words.join(", ");
        let x = x.min(axis.right - 7.6 * said.len() as f64).max(axis.left);
        svg.text(x, LANE + LANE_H + 17.0, "tx b halo", Hold::Start, &said);
    }
}

fn clocks(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine, l: &RiseLayout) {
    svg.path(
        &curve(axis, p.sheet, |c| c.reserve, CLOCK_FOOT, CLOCK_HEAD, TOP),
        r#"class="l-res""#,
    );
    svg.path(
        &curve(axis, p.sheet, |c| c.rise, CLOCK_FOOT, CLOCK_HEAD, TOP),
        r#"class="l-rise""#,
    );
    let whole = p.request.total_h();
    for (share, class, word, value) in [
        (0.22, "c-mature", phrase("page-strength-left"), true),
        (
            if l.narrow { 0.45 } else { 0.36 },
            "c-rise",
            phrase("page-word-rise"),
            false,
        ),
    ] {
        let t = p.sheet.mixed_at + hours(whole * share);
        if let Some(c) = p.sheet.clocks_at(t) {
            let v = if value { c.reserve } else { c.rise };
            let lift = if value { -7.0 } else { -9.0 };
            svg.text(
                axis.x(t),
                clock_y(v) + lift,
                &format!("b halo f d16 {class}"),
                Hold::Start,
                word,
            );
        }
    }
}

fn flag_and_values(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine) {
    let x = axis.clamped(p.request.serve_at);
    svg.path(
        &format!("M{x:.1} {HEAT_FOOT}V{:.1}", HEAD - 8.0),
        r#"class="s-ink" stroke-width="2.8""#,
    );
    let word = phrase("page-word-serve");
    // As long as its word: "serve" is the shortest.
    let w = 22.0 + 8.0 * word.chars().count() as f64;
    svg.path(
        &format!("M{x:.1} {:.1}h{w:.0}l-8 9 8 9h-{w:.0}z", HEAD - 8.0),
        r#"class="f-ink""#,
    );
    svg.text(x + 8.0, HEAD + 6.0, "tx b on-slate", Hold::Start, word);
    if let Some(c) = p.sheet.clocks_at(p.request.serve_at) {
        let (yr, ym) = (clock_y(c.rise), clock_y(c.reserve.max(0.0)));
        for (y, class) in [(yr, "c-rise"), (ym, "c-mature")] {
            svg.raw(&format!(
                r#"<circle cx="{x:.1}" cy="{y:.1}" r="5.5" class="f {class}"/>"#
            ));
        }
        // Two figures that fall together are set apart.
        let (tr, tm) = if (yr - ym).abs() < 18.0 {
            if yr <= ym {
                (yr - 8.0, ym + 18.0)
            } else {
                (yr + 18.0, ym - 8.0)
            }
        } else {
            (yr + 5.0, ym + 5.0)
        };
        svg.text(
            x + 11.0,
            tr,
            "b halo f d16 c-rise",
            Hold::Start,
            &format!("{:.0}", c.rise),
        );
        svg.text(
            x + 11.0,
            tm,
            "b halo f d16 c-mature",
            Hold::Start,
            &format!("{:.0}", c.reserve.max(0.0)),
        );
        svg.text(
            x + 9.0,
            HEAT_HEAD + 44.0,
            "tx b halo f c-ember",
            Hold::Start,
            &format!("{}°", p.measures.degrees(c.dough_c, 1)),
        );
    }
}

fn now(svg: &mut Svg, p: &RiseDrawing, axis: &HourLine) {
    if !axis.holds(p.now) {
        return;
    }
    let x = axis.x(p.now);
    svg.path(
        &format!("M{x:.1} {:.1}V{HEAT_FOOT}", HEAD - 4.0),
        r#"class="l-now""#,
    );
    let half = 26.0;
    let plate = x.max(half + 1.0);
    svg.rect(
        plate - half,
        HEAD - 20.0,
        2.0 * half,
        20.0,
        r#"class="f-larch""#,
    );
    svg.text(
        plate,
        HEAD - 5.0,
        "b onlarch tx",
        Hold::Middle,
        &hm(&p.now.to_zoned(p.zone.clone())),
    );
}
