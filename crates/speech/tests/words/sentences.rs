//! What a maker reads of a sheet, whole, in a metric kitchen and in one of ounces: a change of words is seen here as one.

use craft::formula::Scales;
use craft::sheet::{KitchenUsual, SheetRequest, SheetResult, work_out};
use jiff::Timestamp;
use jiff::tz::TimeZone;
use speech::{Measures, Reader};
use std::fmt::Write;

fn friday() -> Timestamp {
    "2026-11-27T19:00:00Z".parse().unwrap()
}

fn request(style: &str) -> SheetRequest {
    let kitchen = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Scales::default(),
    };
    SheetRequest::of_style(craft::style::by_key(style).unwrap(), &kitchen, friday())
}

/// Everything that the sheet says, line by line.
fn told(sheet: &SheetResult, measures: Measures) -> String {
    let zone = TimeZone::get("Europe/London").unwrap();
    let reader = Reader {
        measures,
        zone: &zone,
        now: Some(friday() - jiff::SignedDuration::from_hours(80)),
    };
    let mut out = String::new();
    for s in &sheet.steps {
        let (title, detail) = (reader.say(&s.title), reader.say(&s.detail));
        writeln!(out, "{title}. {detail}").unwrap();
    }
    for n in reader.judgements(&sheet.notes) {
        writeln!(out, "{:?}: {}. {}", n.level, n.what, n.why).unwrap();
        if let Some(todo) = n.todo {
            writeln!(out, "  {todo}").unwrap();
        }
        if let Some(b) = n.remedy {
            writeln!(out, "  [{}]", b.say).unwrap();
        }
    }
    out
}

#[test]
fn a_sheet_in_a_metric_kitchen() {
    let sheet = work_out(&request("hot_round")).unwrap();
    insta::assert_snapshot!(told(&sheet, Measures::METRIC));
}

#[test]
fn the_same_sheet_in_a_kitchen_of_ounces() {
    let sheet = work_out(&request("hot_round")).unwrap();
    insta::assert_snapshot!(told(&sheet, Measures::US));
}

#[test]
fn a_tray_in_a_kitchen_of_ounces() {
    let sheet = work_out(&request("wet_tray")).unwrap();
    insta::assert_snapshot!(told(&sheet, Measures::US));
}

#[test]
fn what_is_refused() {
    let mut r = request("hot_round");
    r.room_c = 60.0;
    r.fridge_c = -9.0;
    r.formula.hydration_percent = 20.0;
    r.formula.salt_percent = 9.0;
    let refused = work_out(&r).unwrap_err();
    let zone = TimeZone::UTC;
    let mut out = String::new();
    for measures in [Measures::METRIC, Measures::US] {
        let reader = Reader::plain(measures, &zone);
        for e in &refused.0 {
            writeln!(out, "{}: {}", e.field, reader.say(&e.message)).unwrap();
        }
    }
    insta::assert_snapshot!(out);
}
