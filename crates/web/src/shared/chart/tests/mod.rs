//! What the drawings say, in words and in places.

mod fire;

use super::heatline::{Pin, heatline};
use super::ribbon::{self, RibbonRow};
use super::*;
use crate::shared::format::Measures;
use craft::formula::Scales;
use craft::sheet::{KitchenUsual, SheetRequest, work_out};
use craft::units::TemperatureUnit;

const METRIC: Measures = Measures::METRIC;

fn london() -> TimeZone {
    TimeZone::get("Europe/London").unwrap()
}

fn at(text: &str) -> Timestamp {
    text.parse().unwrap()
}

fn sheet(change: impl Fn(SheetRequest) -> SheetRequest) -> (SheetRequest, SheetResult) {
    let kitchen = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    };
    let request = change(SheetRequest::of_style(
        craft::style::first(),
        &kitchen,
        at("2026-11-27T19:00:00Z"),
    ));
    let result = work_out(&request).unwrap();
    (request, result)
}

fn row<'a>(name: &'a str, request: &SheetRequest, result: &'a SheetResult) -> RibbonRow<'a> {
    RibbonRow {
        name,
        code: "HR-01",
        size: "6 × 250 g".into(),
        state: "cold, fridge 4.5°".into(),
        sheet: result,
        serve_at: request.serve_at,
        by_log: None,
        oven_lit: false,
        outs: vec![],
    }
}

fn hours(from: &str, to: &str) -> HourLine {
    HourLine {
        from: at(from),
        to: at(to),
        left: 100.0,
        right: 340.0,
    }
}

#[test]
fn a_day_on_the_line() {
    let h = hours("2026-11-27T00:00:00Z", "2026-11-28T00:00:00Z");
    assert_eq!(h.px_per_h(), 10.0);
    assert_eq!(h.x(at("2026-11-27T19:00:00Z")), 290.0);
    assert_eq!(h.nights(&TimeZone::UTC), [(100.0, 160.0), (310.0, 340.0)]);
    let ticks: Vec<i8> = h
        .ticks(&TimeZone::UTC, 6)
        .into_iter()
        .map(|t| t.1)
        .collect();
    assert_eq!(ticks, [0, 6, 12, 18, 0]);
}

#[test]
fn ticks_stand_at_local_hours_across_the_change_of_summer_time() {
    let h = hours("2026-10-24T12:00:00Z", "2026-10-25T18:00:00Z");
    let at: Vec<String> = h
        .ticks(&london(), 12)
        .into_iter()
        .map(|t| t.0.to_string())
        .collect();
    assert_eq!(at, ["2026-10-24T23:00:00Z", "2026-10-25T12:00:00Z"]);
}

#[test]
fn names_cannot_break_out_of_the_picture() {
    let mut svg = Svg::new(10.0, 10.0, "", "<b>");
    svg.text(0.0, 0.0, "", Hold::Start, "<script>\"&");
    let out = svg.end();
    assert!(!out.contains("<script>") && !out.contains("<b>"));
    assert!(out.contains("&lt;script&gt;&quot;&amp;"));
    let (request, result) = sheet(|r| r);
    let drawn = ribbon::wide(
        &[row("<i>Halt</i>", &request, &result)],
        at("2026-11-27T09:00:00Z"),
        &london(),
    );
    assert!(!drawn.contains("<i>") && drawn.contains("&lt;i&gt;Halt"));
}

#[test]
fn a_length_is_written_as_the_formatter_would() {
    for v in [0.0, 0.04, 0.05, 1.25, 12.349, 999.99, -0.4, -12.36] {
        let mut out = String::new();
        push_tenths(&mut out, v);
        let direct = out.parse::<f64>().unwrap();
        assert!((direct - v).abs() <= 0.0501, "{v} became {out}");
    }
}

#[test]
fn the_strip_says_its_window_and_carries_a_table() {
    let (request, result) = sheet(|r| r);
    let drawn = strip::strip(
        &result,
        request.serve_at,
        Some(at("2026-11-27T09:00:00Z")),
        (&london(), &METRIC),
    );
    assert!(
        drawn.contains("ready 18:15–00:00, served Fri 19:00"),
        "{drawn}"
    );
    assert!(drawn.contains(">serve 19:00<"));
    for word in ["Bulk", "Cold", "Warm up", "rise", "strength left"] {
        assert!(drawn.contains(&format!(">{word}<")), "{word}");
    }
    // The table ends with the serve time: rise 100, as solved.
    assert!(
        drawn.contains("<tr><th>Serve</th><td>Fri 19:00</td><td>100</td>"),
        "{drawn}"
    );
    // The tempering is ahead at nine in the morning, the bulk is past.
    assert_eq!(drawn.matches("stroke-dasharray=\"4 3\"").count(), 1);
}

#[test]
fn the_ribbon_shows_rows_in_their_hours_and_what_is_beyond_them() {
    let (request, result) = sheet(|r| r);
    let now = at("2026-11-27T09:00:00Z");
    let rows = [row("Halt round", &request, &result)];
    let drawn = ribbon::wide(&rows, now, &london());
    for part in [
        "Halt round",
        ">HR-01<",
        "6 × 250 g",
        "18:15–00:00",
        "serve 19:00",
        "light for HR-01 Fri 17:30",
        ">09:00<",
    ] {
        assert!(drawn.contains(part), "no {part}");
    }
    assert!(
        !drawn.contains(">rise<"),
        "no room for the words ten hours before the serve time"
    );
    let evening = ribbon::wide(&rows, at("2026-11-26T19:00:00Z"), &london());
    assert!(evening.contains(">rise<") && evening.contains(">strength left<"));
    assert!(drawn.contains("aria-label=\"Open HR-01 Halt round, cold, fridge 4.5°\""));
    // Four days earlier the serve time lies beyond the ribbon and is said in words.
    let early = ribbon::wide(&rows, at("2026-11-23T09:00:00Z"), &london());
    assert!(early.contains("serve Fri 19:00") && !early.contains("light for"));
    let narrow = ribbon::narrow(&rows, now, &london());
    assert!(narrow.contains("Halt round") && !narrow.contains("Ovens"));
}

#[test]
fn a_missed_serve_time_is_said_in_words() {
    let now = at("2026-11-27T09:00:00Z");
    let (request, mut result) = sheet(|r| r);
    let end = result.window.unwrap().to_at.unwrap();
    let late = RibbonRow {
        serve_at: end + craft::sheet::hours(0.75),
        ..row("Late", &request, &result)
    };
    assert!(ribbon::wide(&[late], now, &london()).contains("closes 45 minutes early"));
    let soon = RibbonRow {
        serve_at: result.window.unwrap().from_at - craft::sheet::hours(0.5),
        ..row("Soon", &request, &result)
    };
    assert!(ribbon::wide(&[soon], now, &london()).contains("opens 30 minutes late"));
    result.window = None;
    let never = ribbon::wide(&[row("Never", &request, &result)], now, &london());
    assert!(never.contains("never ready") && never.contains("serve 19:00: strength spent"));
}

#[test]
fn an_empty_ribbon_asks_when_you_serve() {
    assert!(
        ribbon::wide(&[], at("2026-11-27T09:00:00Z"), &london()).contains("When do you serve?")
    );
}

#[test]
fn two_fires_close_together_do_not_write_over_each_other() {
    let (a, ra) = sheet(|r| r);
    let (b, rb) = sheet(|r| {
        r.with(|r| {
            r.serve_at += craft::sheet::hours(2.0);
        })
    });
    let rows = [
        row("One", &a, &ra),
        RibbonRow {
            code: "TR-02",
            ..row("Two", &b, &rb)
        },
    ];
    let drawn = ribbon::wide(&rows, at("2026-11-27T09:00:00Z"), &london());
    let labels: Vec<(f64, bool, usize)> = drawn
        .split("<text ")
        .filter(|t| t.contains(">light for"))
        .map(|t| {
            let x: f64 = t
                .split("x=\"")
                .nth(1)
                .unwrap()
                .split('"')
                .next()
                .unwrap()
                .parse()
                .unwrap();
            let text = t.split('>').nth(1).unwrap().split('<').next().unwrap();
            (x, t.contains("text-anchor=\"end\""), text.len())
        })
        .collect();
    let spans: Vec<(f64, f64)> = labels
        .iter()
        .map(|&(x, at_end, n)| {
            if at_end {
                (x - 7.4 * n as f64, x)
            } else {
                (x, x + 7.4 * n as f64)
            }
        })
        .collect();
    assert!(!spans.is_empty());
    for (i, a) in spans.iter().enumerate() {
        assert!(
            spans[i + 1..].iter().all(|b| a.1 < b.0 || b.1 < a.0),
            "{spans:?}"
        );
    }
}

#[test]
fn the_heat_line_reads_in_the_kitchens_unit() {
    let pin = |name: &str, celsius, age: Option<&str>| Pin {
        name: name.into(),
        celsius,
        age: age.map(Into::into),
        cold: false,
    };
    let pins = [pin("Fridge", 4.5, None), pin("Floor", 402.0, Some("2 h"))];
    let drawn = heatline(&pins, &METRIC);
    assert!(drawn.contains(">4.5°<") && drawn.contains(">402°<") && drawn.contains("Floor · 2 h"));
    assert_eq!(
        drawn.matches("class=\"hollow\"").count(),
        1,
        "an old reading is hollow"
    );
    let imperial = Measures {
        temperature: TemperatureUnit::Fahrenheit,
        ..METRIC
    };
    let drawn = heatline(&pins, &imperial);
    assert!(drawn.contains(">40.1°<") && drawn.contains(">756°<") && drawn.contains("in °F"));
}

#[test]
fn a_blend_is_drawn_by_share_and_said_in_words() {
    let mut a = craft::flour::FlourPart::only(290.0);
    a.name = "Quernside <No. 4>".into();
    a.share_percent = 70.0;
    let mut b = craft::flour::FlourPart::only(370.0);
    b.share_percent = 30.0;
    let svg = blend::bar(&[a, b]);
    assert!(
        svg.contains("Blend: Quernside &lt;No. 4&gt; 70 %, Flour W 370 30 %"),
        "{svg}"
    );
    assert_eq!(svg.matches("<rect").count(), 2);
}

#[test]
fn every_edge_of_a_rise_is_a_slider_and_says_where_it_stands() {
    use super::rise::{RiseDrawing, leg_field, narrow, wide};
    let doubts = craft::rise::Doubts::default();
    let (request, _) = sheet(|r| r);
    let (result, sure) =
        craft::sheet::work_out_surely(&request, &doubts, &craft::rise::PrefermentRuns::default())
            .unwrap();
    let zone = london();
    let picture = |live| RiseDrawing {
        request: &request,
        sheet: &result,
        sure: sure.as_ref(),
        now: at("2026-11-26T09:00:00Z"),
        zone: &zone,
        measures: &METRIC,
        live,
        read: &[],
    };
    let drawn = wide(&picture(true));
    assert_eq!(drawn.matches("role=\"slider\"").count(), 3);
    for field in ["bulk_h", "cold_h", "temper_h"] {
        assert!(
            drawn.contains(&format!("data-before=\"{field}\"")),
            "{field}"
        );
    }
    assert!(drawn.contains("aria-valuetext=\"Fri 15:00, 24 h before\""));
    // The band of each edge, the window's times, what holds it.
    assert_eq!(drawn.matches("class=\"band\"").count(), 2);
    assert!(
        drawn.contains(">ready ") && drawn.contains(">until ") && drawn.contains("risen too far")
    );
    assert!(!wide(&picture(false)).contains("slider"));
    assert!(narrow(&picture(true)).contains("class=\"rise narrow\""));
    let own = craft::path::methods::by_key("freeze_thaw")
        .unwrap()
        .applied(&request.formula);
    assert_eq!(leg_field(&own, 2), "legs[2].hours");
}
