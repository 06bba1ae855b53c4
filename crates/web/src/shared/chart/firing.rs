//! The firing: floor and dome over the clock, the band to launch in, what is fed, what was read.

use super::{Hold, HourLine, Svg};
use crate::shared::format::{Measures, hm};
use crate::shared::tongue::{phrase, say};
use craft::fact::Value;
use craft::fire::firing::{Firing, FloorRead};
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};
use speech::Reader;
use std::fmt::Write;

pub struct FiringDrawing<'a> {
    pub firing: &'a Firing,
    pub band: Option<(f64, f64)>,
    pub readings: &'a [FloorRead],
    pub now: Timestamp,
    pub serve_at: Timestamp,
    pub lit: bool,
    pub zone: &'a TimeZone,
    pub fired: bool,
    /// Pizzas went in: when it would be charged is no matter any more.
    pub baking: bool,
}

const HEIGHT: f64 = 268.0;
const TOP: f64 = 36.0;
const FOOT: f64 = 228.0;

pub fn firing(d: &FiringDrawing, m: &Measures, width: f64) -> String {
    let narrow = width < 500.0;
    let last =
        d.serve_at.max(d.firing.ready_at.unwrap_or(d.serve_at)) + SignedDuration::from_mins(25);
    let hours = HourLine {
        from: d.firing.light_at - SignedDuration::from_mins(8),
        to: last,
        left: 50.0,
        right: width - 14.0,
    };
    let until = last.duration_since(d.firing.light_at).as_secs_f64();
    let shown: Vec<_> = d.firing.course.iter().filter(|c| c.t <= until).collect();
    let most = shown
        .iter()
        .map(|c| c.around_c.max(c.face_c))
        .chain(d.readings.iter().map(|r| r.c))
        .chain(d.band.map(|b| b.1))
        .fold(200.0, f64::max);
    let top_c = (most / 50.0).ceil() * 50.0;
    let y = |c: f64| FOOT - (FOOT - TOP) * (c / top_c).clamp(0.0, 1.0);
    let ready = d
        .firing
        .ready_at
        .map_or(phrase("page-not-within-4-h").into(), |t| {
            hm(&t.to_zoned(d.zone.clone()))
        });
    let mut svg = Svg::new(
        width,
        HEIGHT,
        "firing",
        &say!("page-floor-and-dome-while-it", ready = ready),
    );
    let step = if top_c > 300.0 { 100.0 } else { 50.0 };
    for c in m.degree_ticks(0.0, top_c, step) {
        svg.path(
            &format!("M50 {:.1}H{:.1}", y(c), hours.right),
            r#"stroke="var(--rule)" stroke-width="1""#,
        );
        svg.text(
            44.0,
            y(c) + 4.5,
            "tk",
            Hold::End,
            &format!("{}°", m.degrees(c, 0)),
        );
    }
    if let Some((low, high)) = d.band {
        svg.rect(
            50.0,
            y(high),
            hours.right - 50.0,
            (y(low) - y(high)).max(2.0),
            r#"class="f-larch" opacity=".6""#,
        );
        svg.text(
            58.0,
            y(high) - 6.0,
            "tx halo",
            Hold::Start,
            &say!(
                "page-floor-to",
                low = m.degrees(low, 0),
                high = m.degrees(high, 0)
            ),
        );
    }
    // A short firing is read by quarter hours.
    let every = if until < 5400.0 { 15 } else { 60 };
    for t in marks(&hours, every) {
        svg.path(
            &format!("M{:.1} {TOP}V{FOOT}", hours.x(t)),
            r#"stroke="var(--rule)" stroke-width="1""#,
        );
        if hours.x(t) < hours.right - 16.0 {
            let text = hm(&t.to_zoned(d.zone.clone()));
            svg.text(hours.x(t), FOOT + 34.0, "tk", Hold::Middle, &text);
        }
    }
    let at = |t: f64| d.firing.light_at + SignedDuration::from_secs_f64(t);
    let line = |of: &dyn Fn(&craft::fire::preheat::Charge) -> f64,
                keep: &dyn Fn(Timestamp) -> bool| {
        let mut p = String::new();
        for c in shown.iter().filter(|c| keep(at(c.t))) {
            let _ = write!(
                p,
                "{}{:.1} {:.1}",
                if p.is_empty() { "M" } else { "L" },
                hours.x(at(c.t)),
                y(of(c))
            );
        }
        p
    };
    svg.path(
        &line(&|c| c.around_c, &|_| true),
        r#"fill="none" stroke="var(--ink)" stroke-width="2" stroke-dasharray="2 4""#,
    );
    let past = |t: Timestamp| d.lit && t <= d.now;
    svg.path(
        &line(&|c| c.core_c, &|_| true),
        r#"fill="none" stroke="var(--ember)" stroke-width="1.4" stroke-dasharray="1 4""#,
    );
    svg.path(
        &line(&|c| c.face_c, &past),
        r#"fill="none" stroke="var(--ember)" stroke-width="3.2""#,
    );
    svg.path(
        &line(&|c| c.face_c, &|t| !past(t)),
        r#"fill="none" stroke="var(--ember)" stroke-width="2" stroke-dasharray="7 5""#,
    );
    // The words sit on their lines, a third of the way.
    if let Some(c) = shown.get(shown.len() / 3) {
        let (x, word) = (
            hours.x(at(c.t)),
            if d.fired {
                phrase("page-word-dome")
            } else {
                phrase("page-word-oven")
            },
        );
        svg.text(x - 8.0, y(c.around_c) - 8.0, "tx b halo", Hold::End, word);
        svg.text(
            x + 14.0,
            y(c.face_c) + 14.0,
            "tx b c-ember halo",
            Hold::Start,
            phrase("page-floor-face"),
        );
        if c.face_c - c.core_c > 0.08 * top_c {
            svg.text(
                x + 30.0,
                (y(c.core_c) + 16.0).min(FOOT - 6.0),
                "tx c-ember halo",
                Hold::Start,
                phrase("page-core"),
            );
        }
    }
    feeds(&mut svg, (d, m), &hours, narrow);
    for r in d.readings.iter().filter(|r| hours.holds(r.at)) {
        svg.raw(&format!(
            r#"<circle cx="{:.1}" cy="{:.1}" r="5" fill="var(--sheet)" stroke="var(--ember)" stroke-width="2.4"/>"#,
            hours.x(r.at),
            y(r.c)
        ));
    }
    posts(&mut svg, d, &hours);
    svg.end()
}

/// Full multiples of so many minutes; zones lie whole quarter hours apart.
fn marks(hours: &HourLine, every_min: i64) -> impl Iterator<Item = Timestamp> {
    let step = 60 * every_min;
    let first = (hours.from.as_second() + step - 1).div_euclid(step);
    let last = hours.to.as_second().div_euclid(step);
    (first..=last).filter_map(move |n| Timestamp::from_second(n * step).ok())
}

/// Solid triangles for what was fed, hollow for what is due.
fn feeds(svg: &mut Svg, (d, m): (&FiringDrawing, &Measures), hours: &HourLine, narrow: bool) {
    let reader = Reader::plain(*m, d.zone);
    let mut last_end = f64::NEG_INFINITY;
    for f in d.firing.feeds.iter().filter(|f| hours.holds(f.at)) {
        let x = hours.x(f.at);
        let fill = if d.lit && f.at <= d.now {
            "var(--ember)"
        } else {
            "var(--sheet)"
        };
        svg.path(
            &format!("M{:.1} {FOOT}l7 -13 7 13z", x - 7.0),
            &format!(r#"fill="{fill}" stroke="var(--ember)" stroke-width="2""#),
        );
        let text = f.wood_kg.map_or_else(
            || reader.words(&f.say),
            |kg| reader.said(&Value::Kilos(kg)).full,
        );
        let wide = if narrow { 6.4 } else { 7.2 } * text.len() as f64;
        let from = (x - 6.0).clamp(hours.left, hours.right - wide);
        if from > last_end + 6.0 {
            svg.text(from, FOOT + 17.0, "tk", Hold::Start, &text);
            last_end = from + wide;
        }
    }
}

fn posts(svg: &mut Svg, d: &FiringDrawing, hours: &HourLine) {
    if hours.holds(d.serve_at) {
        let x = hours.x(d.serve_at);
        svg.path(
            &format!("M{x:.1} 16V{FOOT}"),
            r#"stroke="var(--ink)" stroke-width="2.6""#,
        );
        let word = phrase("page-word-serve");
        let w = 12.0 + 8.0 * word.chars().count() as f64;
        let side = if x + w + 4.0 > hours.right { -1.0 } else { 1.0 };
        svg.path(
            &format!(
                "M{x:.1} 8h{:.1}l{:.1} 9 {:.1} 9h{:.1}z",
                side * w,
                side * -6.0,
                side * 6.0,
                side * -w
            ),
            r#"fill="var(--ink)""#,
        );
        svg.text(
            x + side * (0.5 * w - 2.0),
            22.0,
            "tx b on-ink",
            Hold::Middle,
            phrase("page-word-serve"),
        );
    }
    if hours.holds(d.now) {
        let x = hours.x(d.now);
        svg.path(
            &format!("M{x:.1} 26V{FOOT}"),
            r#"stroke="var(--ink)" stroke-width="2""#,
        );
        svg.rect(x - 27.0, 6.0, 54.0, 21.0, r#"class="f-larch""#);
        svg.text(
            x,
            21.5,
            "tx b on-larch",
            Hold::Middle,
            &hm(&d.now.to_zoned(d.zone.clone())),
        );
    }
    let ready_at = d.firing.ready_at.filter(|_| !d.baking);
    if let Some(t) = ready_at.filter(|t| hours.holds(*t)) {
        let x = hours.x(t);
        svg.path(
            &format!("M{x:.1} {:.1}V{FOOT}", FOOT - 32.0),
            r#"stroke="var(--ember)" stroke-width="3""#,
        );
        let text = say!("page-ready", zone = hm(&t.to_zoned(d.zone.clone())));
        svg.text(
            (x - 6.0).max(hours.left + 80.0),
            FOOT - 20.0,
            "tx b c-ember halo",
            Hold::End,
            &text,
        );
    }
}
