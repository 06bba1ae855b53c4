use super::*;
use crate::formula::Dose;
use crate::formula::Formula;
use crate::refusal::ValidationError;
use crate::sheet::{KitchenUsual, SheetRequest, StepKind, work_out};
use crate::style;

fn kitchen() -> KitchenUsual {
    KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 310.0,
        room_c: 19.5,
        fridge_c: 4.5,
        tap_water_c: 9.5,
        scales: Default::default(),
    }
}

fn asked(f: Formula) -> SheetRequest {
    SheetRequest::of(f, &kitchen(), "2026-11-27T19:00:00Z".parse().unwrap())
}

fn fields(f: &Formula) -> Vec<String> {
    match f.check() {
        Ok(()) => vec![],
        Err(ValidationError(e)) => e.into_iter().map(|e| e.field).collect(),
    }
}

#[test]
fn fifteen_schools_each_make_a_dough_that_is_ready_when_it_is_served() {
    let all = methods::all();
    assert!(all.len() >= 12);
    let strong = Formula::of_style(style::first()).on_flour_w(390.0);
    for m in all {
        m.check().unwrap();
        let r = asked(m.applied(&strong));
        let out = work_out(&r).unwrap_or_else(|e| panic!("{}: {e}", m.key));
        assert!(
            out.rise_at_serve > 85.0,
            "{}: rise {} {:?}",
            m.key,
            out.rise_at_serve,
            out.label_at_serve
        );
        assert!(out.window.is_some(), "{}", m.key);
        // Every leg is a block of the picture and keeps within its own limits.
        assert_eq!(
            out.blocks.iter().filter(|b| b.leg.is_some()).count(),
            m.legs.len()
        );
        for l in &m.legs {
            assert!(l.least_h <= l.hours && l.hours <= l.most_h, "{}", m.key);
        }
    }
}

#[test]
fn a_method_keeps_flour_water_and_salt_and_a_tray_ends_in_its_pan() {
    let tray = Formula::of_style(style::by_key("wet_tray").unwrap());
    let m = methods::by_key("cold_bulk_then_ball").unwrap();
    let f = m.applied(&tray);
    assert_eq!(
        (f.hydration_percent, f.salt_percent, &f.pieces),
        (tray.hydration_percent, tray.salt_percent, &tray.pieces)
    );
    let path = f.path();
    assert_eq!(path.last().unwrap().lies, Lies::Pans);
    assert!(path[..2].iter().all(|l| l.lies == Lies::Bulk));
    let steps = work_out(&asked(f)).unwrap().steps;
    assert!(steps.iter().any(|s| s.kind == StepKind::Pan));
    assert!(!steps.iter().any(|s| s.kind == StepKind::Ball));
}

#[test]
fn a_plain_bulk_cold_and_temper_is_said_by_its_three_hours() {
    let f = Formula::of_style(style::first());
    let mut legs = f.path();
    legs[1].hours = 30.0;
    let g = f.clone().on_path(legs.clone());
    assert!(g.legs.is_empty());
    assert_eq!((g.bulk_h, g.cold_h, g.temper_h), (2.0, 30.0, 4.0));
    legs[1].spot = Spot::Own(Place {
        name: "Walk-in".into(),
        air: Air::Fan,
        c: 4.0,
        profile_c: None,
        off_k: None,
        holds_h: None,
    });
    let g = f.on_path(legs.clone());
    assert_eq!(g.legs, legs);
    assert_eq!(g.total_h(), 36.0);
}

#[test]
fn paths_that_lead_nowhere_are_refused_with_their_field() {
    let with = |change: &dyn Fn(&mut Vec<Leg>)| {
        let mut f = methods::by_key("freeze_thaw")
            .unwrap()
            .applied(&Formula::of_style(style::first()));
        change(&mut f.legs);
        fields(&f)
    };
    assert!(with(&|_| {}).is_empty());
    assert_eq!(with(&|l| l[0].hours = 0.0), ["legs[0].hours"]);
    assert_eq!(with(&|l| l[1].hours = 400.0), ["legs[1].hours", "legs"]);
    assert_eq!(with(&|l| l.truncate(2)), ["legs[1].spot"]);
    assert_eq!(with(&|l| l[0].spot = Spot::Freezer), ["legs[0].spot"]);
    assert_eq!(with(&|l| l[0].least_h = 9.0), ["legs[0].least_h"]);
    let hot_fridge = Spot::Own(Place {
        name: "Fridge".into(),
        air: Air::Fridge,
        c: 14.0,
        profile_c: None,
        off_k: None,
        holds_h: None,
    });
    assert_eq!(
        with(&|l| l[2].spot = hot_fridge.clone()),
        ["legs[2].spot.c"]
    );
    let short_day = Spot::Own(Place {
        name: "Porch".into(),
        air: Air::Room,
        c: 14.0,
        profile_c: Some(vec![14.0; 20]),
        off_k: None,
        holds_h: None,
    });
    assert_eq!(
        with(&|l| l[0].spot = short_day.clone()),
        ["legs[0].spot.profile_c"]
    );
    let nine = |l: &mut Vec<Leg>| {
        let first = l[0].clone();
        l.extend(vec![first; 5]);
    };
    assert_eq!(with(&nine), ["legs"]);
}

#[test]
fn freezing_stops_both_clocks_and_takes_a_fifth_of_the_yeast() {
    let direct = Formula::of_style(style::first());
    let m = methods::by_key("freeze_thaw").unwrap();
    let frozen = work_out(&asked(m.applied(&direct))).unwrap();
    let mut thawed = m.clone();
    thawed.legs.remove(1);
    thawed.legs[1].event = Event::Ball;
    let never = work_out(&asked(thawed.applied(&direct))).unwrap();
    let more = frozen.yeast.percent / never.yeast.percent;
    assert!((1.15..1.6).contains(&more), "{more}");
    // In the freezer nothing moves.
    let b = frozen.blocks.iter().find(|b| b.leg == Some(1)).unwrap();
    let at = |t| frozen.clocks_at(t).unwrap();
    let (a, z) = (
        at(b.from_at + crate::sheet::hours(1.0)),
        at(b.to_at - crate::sheet::hours(1.0)),
    );
    assert!((a.reserve - z.reserve).abs() < 0.1 && (a.rise - z.rise).abs() < 0.1);
}

#[test]
fn an_own_method_is_what_the_formula_does() {
    let f = Formula::of_style(style::first());
    let m = Method::of(&f, "mine".into(), "House way".into());
    m.check().unwrap();
    let said = |h: f64, leg| format!("so-long-leg(leg={leg}, time={}s)", h * 3600.0);
    assert_eq!(
        m.line.brief(),
        format!(
            "just(value={}; {}; {})",
            said(2.0, "leg-bulk"),
            said(24.0, "leg-cold"),
            said(4.0, "leg-balls")
        )
    );
    let g = m.applied(&f);
    assert_eq!(g.path(), f.path());
    assert_eq!(g.method.as_deref(), Some("House way"));
    let nameless = Method {
        name: " ".into(),
        ..m.clone()
    };
    assert!(nameless.check().is_err());
    let levain = methods::by_key("levain_day").unwrap().applied(&f);
    assert_eq!(levain.yeast.dose, Dose::None);
}

#[test]
fn a_method_survives_its_file() {
    for m in methods::all() {
        let json = serde_json::to_string(m).unwrap();
        assert_eq!(&serde_json::from_str::<Method>(&json).unwrap(), m);
    }
}
