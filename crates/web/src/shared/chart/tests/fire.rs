//! The race, the cut and the firing: figures stand where they can be read, and the drawing says what it shows.

use super::METRIC;
use crate::shared::chart::firing::{self, firing};
use crate::shared::chart::race::{DrawnLane, RaceDrawing, RaceRow, depths, race, section};
use craft::fire::firing::{FiringRequest, FloorRead};
use craft::fire::race::progress;
use craft::fire::{FirePlan, PlannedBake, RaceItem, of_formula, oven};
use craft::formula::{Formula, FormulaRequest, Scales, formulate};
use craft::keyed::Keyed;
use jiff::tz::TimeZone;
use jiff::{SignedDuration, Timestamp};

fn plan(style: &str, oven_key: &str) -> FirePlan {
    let f = Formula::of_style(craft::style::by_key(style).unwrap());
    let made = formulate(&FormulaRequest {
        formula: f.clone(),
        scales: Scales::default(),
        doses: None,
    })
    .unwrap();
    let o = oven::all().iter().find(|o| o.key == oven_key).unwrap();
    of_formula::plan(&f, &made.portions[0], o, o.usual(), None, (20.0, 0.0))
}

fn drawn(p: &FirePlan, planned: &PlannedBake, width: f64) -> String {
    let lanes = progress(&planned.request, &planned.course, &p.targets())
        .into_iter()
        .map(|(item, progress)| {
            let lane = planned.race.lane(item);
            DrawnLane {
                item,
                name: item.key(),
                cue: "",
                progress,
                ready_s: lane.and_then(|l| l.ready_s),
                spoils_s: lane.and_then(|l| l.spoils_s),
            }
        })
        .collect();
    let times: Vec<f64> = planned.course.moments.iter().map(|m| m.t).collect();
    race(
        &RaceDrawing {
            lanes,
            times: &times,
            race: &planned.race,
            end_s: 1.3 * planned.race.best_s,
        },
        width,
    )
}

/// Where a finish figure is held: its x, and whether that is its end.
fn finish(svg: &str, text: &str) -> Option<(f64, bool)> {
    let tag = svg
        .split("<text ")
        .find(|p| p.contains("class=\"n22") && p.contains(&format!(">{text}</text>")))?;
    let x = tag.split("x=\"").nth(1)?.split('"').next()?.parse().ok()?;
    Some((x, tag.contains("text-anchor=\"end\"")))
}

#[test]
fn the_race_says_itself_and_every_figure_stands_inside() {
    for (style, key) in [
        ("hot_round", "wood_dome"),
        ("home_round", "home_steel"),
        ("wet_tray", "electric_deck"),
    ] {
        let p = plan(style, key);
        let planned = p.planned().unwrap();
        for width in [810.0, 366.0] {
            let svg = drawn(&p, &planned, width);
            assert!(svg.contains("aria-label=\"The race: "), "{style}");
            for lane in &planned.race.lanes {
                let s = lane.ready_s.unwrap();
                assert!(
                    svg.contains(&format!("{} ready at {s} s", lane.item.key())),
                    "{style}"
                );
            }
            for piece in svg.split("<text ").skip(1) {
                let x: f64 = piece
                    .split("x=\"")
                    .nth(1)
                    .unwrap()
                    .split('"')
                    .next()
                    .unwrap()
                    .parse()
                    .unwrap();
                assert!((0.0..=width).contains(&x), "{style} at {width}: {piece}");
            }
            assert!(!svg.contains("NaN") && !svg.contains("inf"), "{style}");
        }
    }
}

#[test]
fn a_part_that_never_gets_there_is_said_in_words() {
    let mut p = plan("home_round", "home_tray");
    p.setting.dome_c = 180.0;
    let planned = p.planned().unwrap();
    let svg = drawn(&p, &planned, 810.0);
    assert!(planned.race.lane(RaceItem::Base).unwrap().ready_s.is_none());
    assert!(svg.contains("base never ready") && svg.contains(">never ready</text>"));
    assert!(svg.contains("One part never gets there"));
}

#[test]
fn the_pull_never_crosses_a_finish() {
    let p = plan("hot_round", "wood_dome");
    let planned = p.planned().unwrap();
    let svg = drawn(&p, &planned, 810.0);
    let mut before = 0;
    let pull = 128.0 + (810.0 - 12.0 - 128.0) / 1.3;
    for lane in &planned.race.lanes {
        let text = format!("{:.0}", lane.ready_s.unwrap());
        let Some((x, at_end)) = finish(&svg, &text) else {
            panic!("{text} is drawn");
        };
        // Held at its start inside the block, or at its end before it: never on both sides of the pull.
        let wide = 12.0 * text.len() as f64;
        before += u32::from(at_end);
        let span = if at_end { (x - wide, x) } else { (x, x + wide) };
        assert!(
            pull < span.0 || pull > span.1,
            "{text}: {span:?} around {pull}"
        );
    }
    assert!(before > 0, "a finish near the pull stands before its block");
}

#[test]
fn the_cut_names_each_depth_once() {
    assert_eq!(depths(50.0), [0.0, 10.0, 30.0, 50.0]);
    assert_eq!(depths(8.0).first(), Some(&0.0));
    assert_eq!(depths(8.0).last(), Some(&8.0));
    for mm in [0.5, 4.0, 8.0, 15.0, 20.0, 30.0, 60.0, 100.0] {
        let all = depths(mm);
        assert!(
            all.windows(2).all(|w| w[0] < w[1]) && all.len() <= 4,
            "{mm}: {all:?}"
        );
    }
    let rows = [RaceRow {
        key: "dome",
        y: 25.0,
        name: "Dome".into(),
        celsius: 475.4,
    }];
    let svg = section(&rows, &METRIC, false);
    assert!(svg.contains("475°") && svg.contains("data-c=\"dome\""));
    let fahrenheit = crate::shared::format::Measures {
        temperature: craft::units::TemperatureUnit::Fahrenheit,
        ..METRIC
    };
    assert!(section(&rows, &fahrenheit, true).contains("888°"));
}

#[test]
fn the_firing_shows_what_was_fed_what_was_read_and_when_it_is_there() {
    let o = oven::all()[0].clone();
    let serve_at: Timestamp = "2026-11-27T19:00:00Z".parse().unwrap();
    let lit = serve_at - SignedDuration::from_mins(150);
    let readings = [FloorRead {
        at: lit + SignedDuration::from_mins(60),
        c: 300.0,
    }];
    let fired = craft::fire::firing::firing(&FiringRequest {
        setting: o.usual(),
        oven: o,
        room_c: 20.0,
        ready_by: serve_at,
        for_min: None,
        lit_at: Some(lit),
        readings: readings.to_vec(),
    });
    let draw = |now: Timestamp, width: f64| {
        firing(
            &firing::FiringDrawing {
                firing: &fired,
                band: Some((420.0, 460.0)),
                readings: &readings,
                now,
                serve_at,
                lit: true,
                zone: &TimeZone::UTC,
                fired: true,
                baking: false,
            },
            &METRIC,
            width,
        )
    };
    let svg = draw(lit + SignedDuration::from_mins(70), 770.0);
    for part in [
        ">serve</text>",
        "floor 420 to 460°",
        ">dome</text>",
        ">floor face</text>",
        ">3 kg<",
        ">17:40</text>",
    ] {
        assert!(svg.contains(part), "{part}");
    }
    assert_eq!(svg.matches("<circle").count(), 1, "one reading");
    // What was fed is solid, what is due is hollow.
    let fed = svg
        .matches("fill=\"var(--ember)\" stroke=\"var(--ember)\"")
        .count();
    assert_eq!(fed, 3, "at 0, 30 and 60 minutes");
    let ready = fired
        .ready_at
        .map(|t| t.strftime("ready %H:%M").to_string());
    assert!(ready.is_none_or(|r| svg.contains(&r)));
    for width in [770.0, 366.0] {
        let svg = draw(serve_at, width);
        assert!(!svg.contains("NaN"), "{width}");
    }
}
