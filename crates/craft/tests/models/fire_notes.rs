//! What is said at the fire: before it is lit, while it is charged, between two pizzas.

use crate::oven::plan;
use craft::fact::{Fact, Value};
use craft::fire::firing::FloorRead;
use craft::fire::judge::{OvenSeen, at_oven};
use craft::fire::overview::{FireOverview, OverviewRequest, launch_test, look, of_readings};
use craft::fire::{FireChoice, FirePlan, Run, Tap, TapKind};
use craft::note::{Level, Note};
use craft::units::Celsius;
use jiff::{SignedDuration, Timestamp};

fn serve() -> Timestamp {
    "2026-11-27T19:00:00Z".parse().unwrap()
}

fn min(m: f64) -> SignedDuration {
    SignedDuration::from_secs_f64(60.0 * m)
}

/// Everything asked of a plan at a moment before the serve time.
struct Moment {
    plan: FirePlan,
    before_min: f64,
    lit_before_min: Option<f64>,
    baking_before_min: Option<f64>,
    /// Minutes before the serve time, and °C.
    readings: Vec<(f64, f64)>,
}

impl Moment {
    fn of(plan: FirePlan, before_min: f64) -> Moment {
        Moment {
            plan,
            before_min,
            lit_before_min: None,
            baking_before_min: None,
            readings: vec![],
        }
    }
    fn looked(&self) -> FireOverview {
        look(&OverviewRequest {
            plan: &self.plan,
            room_c: 20.0,
            serve_at: serve(),
            lit_at: self.lit_before_min.map(|m| serve() - min(m)),
            readings: self
                .readings
                .iter()
                .map(|&(m, c)| FloorRead {
                    at: serve() - min(m),
                    c,
                })
                .collect(),
            baking_since: self.baking_before_min.map(|m| serve() - min(m)),
            pieces: 12,
            hands: 2,
            work: craft::fire::work::Work::default(),
            closes_at: Some(serve() + min(180.0)),
            now: serve() - min(self.before_min),
        })
        .unwrap()
    }
    fn note(&self, code: &str) -> Option<Note> {
        self.looked().notes.into_iter().find(|n| n.code == code)
    }
}

fn wood() -> FirePlan {
    plan("hot_round", "wood_dome")
}

#[test]
fn the_window_is_said_first_and_what_burns_after_it() {
    let m = Moment::of(wood(), 600.0);
    let x = m.looked();
    let w = x.planned.race.window.unwrap();
    let note = m.note("bake_window").or(m.note("narrow_window")).unwrap();
    assert_eq!(note.what.number("from"), Some(w.from_s), "{note:?}");
    assert!(note.why.code.starts_with("ready-last"), "{note:?}");
    // Judgements stand in the order of their urgency.
    assert!(x.notes.windows(2).all(|n| n[0].level <= n[1].level));
    // Long before it is lit there is nothing to do yet.
    assert!(
        x.notes.iter().all(|n| n.level != Level::Act),
        "{:?}",
        x.notes
    );
}

#[test]
fn a_base_that_stays_pale_names_the_change_that_does_most() {
    let m = Moment::of(plan("home_round", "home_tray"), 600.0);
    let note = m.note("no_bake_window").unwrap();
    assert_eq!(note.level, Level::Act);
    let said = note.what.brief() + &note.why.brief();
    assert!(said.contains("item-base"), "{note:?}");
    // A cold tray takes no heat off any floor.
    assert!(m.note("own_tray").is_some() && m.note("floor_gap").is_none());
    let best = m.looked().remedies.into_iter().next().unwrap();
    let names = Value::from(best.change.words());
    assert!(best.helps && note.todo.unwrap().value("what") == Some(&names));
}

#[test]
fn a_fire_that_was_due_is_lit_now_and_one_lit_late_says_how_late() {
    let due = Moment::of(wood(), 40.0);
    let note = due.note("light_now").unwrap();
    // The run waits for the oven, too: it ends so much later than one that was lit in time.
    let last = |m: &Moment| m.looked().service.unwrap().last_out_at;
    let light_at = due.looked().firing.light_at;
    let overdue = (serve() - min(due.before_min)).duration_since(light_at);
    let in_time = Moment::of(due.plan.clone(), 600.0);
    assert_eq!(last(&due), last(&in_time) + overdue);
    assert_eq!(note.what.code, "light-now");
    let electric = Moment::of(plan("home_round", "home_stone"), 5.0);
    assert!(
        electric
            .note("light_now")
            .unwrap()
            .what
            .code
            .starts_with("switch-on-now")
    );
    let mut late = Moment::of(wood(), 40.0);
    late.lit_before_min = Some(60.0);
    let note = late.note("charged_late").unwrap();
    assert_eq!(note.what.code, "charged-late");
    let mut early = Moment::of(wood(), 40.0);
    early.lit_before_min = Some(230.0);
    assert!(early.note("charged_in_time").is_some());
}

#[test]
fn once_the_first_is_in_the_firing_is_over() {
    let mut m = Moment::of(wood(), -20.0);
    m.lit_before_min = Some(60.0);
    m.readings = vec![(20.0, 260.0), (-15.0, 300.0)];
    assert!(m.note("charged_late").or(m.note("never_charged")).is_some());
    m.baking_before_min = Some(-2.0);
    let x = m.looked();
    let of_firing = [
        "charged_late",
        "charged_in_time",
        "never_charged",
        "core_behind",
    ];
    assert!(
        x.notes
            .iter()
            .all(|n| !of_firing.contains(&n.code.as_str())),
        "{:?}",
        x.notes
    );
    // What is read from then on is of a floor in use: it says nothing of the oven's pace.
    assert_eq!(x.firing.fitted.unwrap().readings, 1);
    assert!(x.notes.iter().any(|n| n.code == "floor_behind"));
}

#[test]
fn the_floor_that_is_planned_lies_in_the_band_to_launch_in() {
    for (style, key) in [
        ("hot_round", "wood_dome"),
        ("hot_round", "gas_dome"),
        ("wet_tray", "electric_deck"),
    ] {
        let p = craft::fire::set_points::solve_plan(&plan(style, key))
            .unwrap()
            .plan;
        let race = p.planned().unwrap().race;
        let (low, high) = p.floor_band(&race).unwrap();
        let floor = p.setting.floor_c;
        assert!(
            low - 5.0 <= floor && floor <= high,
            "{style} in {key}: {floor} in {low} to {high}"
        );
    }
    // As it is usually set, too, as long as the base is right there; a floor that is too hot for it stays outside.
    let mut p = plan("home_round", "home_steel");
    let at = |p: &FirePlan| p.floor_band(&p.planned().unwrap().race).unwrap();
    let floor = p.planned().unwrap().request.oven.floor_c;
    let (low, high) = at(&p);
    assert!(
        low < floor - 20.0 && (high - floor).abs() <= 2.5,
        "{floor} in {low} to {high}"
    );
    p = plan("hot_round", "wood_dome");
    p.setting.floor_c = 500.0;
    let (low, high) = at(&p);
    assert!(high < 480.0, "{low} to {high}");
}

#[test]
fn a_face_that_runs_ahead_of_its_core_is_said_before_it_is_lit() {
    let m = Moment::of(wood(), 600.0);
    let (low, high) = m.looked().band.unwrap();
    let note = m.note("face_ahead").unwrap();
    let band = Value::from((Celsius(low), Celsius(high)));
    assert_eq!(note.what.value("band"), Some(&band));
    // A thermostat holds its floor.
    assert!(
        Moment::of(plan("home_round", "home_steel"), 600.0)
            .note("face_ahead")
            .is_none()
    );
}

#[test]
fn a_short_preheat_says_what_it_leaves_and_when_to_switch_on_instead() {
    let mut p = plan("home_round", "home_stone");
    p.preheat_min = Some(15.0);
    let m = Moment::of(p, 600.0);
    let note = m.note("short_preheat").unwrap();
    assert_eq!(note.what.number("time"), Some(15.0 * 60.0), "{note:?}");
    let todo = note.todo.unwrap();
    assert_eq!(todo.code, "switch-on-at");
    let Some(Value::Instant(at)) = todo.value("at") else {
        panic!("{todo:?}")
    };
    assert!(*at < serve() - min(15.0), "{todo:?}");
    assert_eq!(m.looked().firing.light_at, serve() - min(15.0));
}

#[test]
fn readings_of_the_floor_are_held_against_its_band() {
    let (low, high) = Moment::of(wood(), 600.0).looked().band.unwrap();
    let mut m = Moment::of(wood(), 10.0);
    m.lit_before_min = Some(200.0);
    m.readings = vec![(12.0, high + 25.0)];
    let ahead = m.note("floor_ahead").unwrap();
    let by = |f: &Fact| f.number("by").unwrap();
    assert!((by(&ahead.what) - 25.0).abs() < 1e-9, "{ahead:?}");
    let read_at = Value::Instant(serve() - min(12.0));
    assert_eq!(ahead.why.value("at"), Some(&read_at));
    m.readings = vec![(12.0, low - 40.0)];
    let behind = m.note("floor_behind").unwrap();
    assert_eq!(behind.level, Level::Watch);
    assert!((by(&behind.what) - 40.0).abs() < 1e-9, "{behind:?}");
    // An old reading says nothing of the launch.
    m.readings = vec![(80.0, high + 25.0)];
    assert!(m.note("floor_ahead").is_none());
    let read = of_readings(&m.looked().firing).unwrap();
    assert_eq!(read.number("n"), Some(1.0));
    let test = launch_test((420.0, 460.0)).brief();
    assert_eq!(test, "launch-test(band=420°C..460°C, by=30K)");
}

#[test]
fn a_fierce_flame_at_one_side_is_turned_from_sooner_and_says_so() {
    let mut p = plan("hot_round", "portable_gas");
    p.shape = Some("half".into());
    assert!(Moment::of(p.clone(), 600.0).note("turn_sooner").is_none());
    p.oven.side = 0.6;
    p.setting.dome_c = 560.0;
    let m = Moment::of(p, 600.0);
    let planned = m.looked().planned;
    let note = m.note("turn_sooner").unwrap();
    let at = planned.programme.turns[0].at_s;
    assert_eq!(note.what.number("time"), Some(f64::from(at)));
    assert!(
        f64::from(at) < 0.7 * planned.race.best_s,
        "{at} of {}",
        planned.race.best_s
    );
}

#[test]
fn spots_follow_the_flame_and_the_cold() {
    let word = |change: &dyn Fn(&mut FirePlan)| {
        let mut p = wood();
        change(&mut p);
        Moment::of(p, 600.0).note("spots").unwrap().what.code
    };
    assert_eq!(word(&|_| {}), "spots-many");
    assert_ne!(
        word(&|p| {
            p.piece.cold = false;
            p.setting.dome_c = 380.0;
            p.setting.floor_c = 360.0;
        }),
        "spots-many"
    );
    // Other styles aim at an even brown: nothing is promised there.
    assert!(
        Moment::of(plan("home_round", "home_steel"), 600.0)
            .note("spots")
            .is_none()
    );
}

#[test]
fn what_lies_outside_of_what_was_checked_is_said() {
    let mut p = wood();
    p.setting.floor_c = 495.0;
    p.setting.dome_c = 420.0;
    let m = Moment::of(p, 600.0);
    let doubts = m
        .looked()
        .notes
        .iter()
        .filter(|n| n.code == "outside_checked")
        .count();
    assert_eq!(doubts, 2, "too hot a floor, too cool a dome");
}

/// A fire that was kept, and a run of taps so many seconds before `now`.
fn kept(p: FirePlan) -> FireChoice {
    FireChoice::of(p, None, 1, 20.0).unwrap()
}

fn run(taps: &[(u32, f64, TapKind)]) -> Run {
    let all: Vec<Tap> = taps
        .iter()
        .map(|&(pizza, ago_s, kind)| Tap {
            pizza,
            at: serve() - SignedDuration::from_secs_f64(ago_s),
            kind,
        })
        .collect();
    Run::of(&all)
}

fn codes(fire: &FireChoice, run: &Run, floor: Option<(f64, f64)>) -> Vec<(String, Fact)> {
    let read = |(ago_min, c): (f64, f64)| FloorRead {
        at: serve() - min(ago_min),
        c,
    };
    lit(fire, run, floor.map(read).as_slice(), None)
}

fn lit(
    fire: &FireChoice,
    run: &Run,
    floors: &[FloorRead],
    lit_at: Option<Timestamp>,
) -> Vec<(String, Fact)> {
    let seen = OvenSeen {
        floors,
        lit_at,
        room_c: 20.0,
    };
    at_oven(fire, run, &seen, serve())
        .into_iter()
        .map(|n| (n.code, n.what))
        .collect()
}

#[test]
fn the_floor_between_two_pizzas() {
    let fire = kept(wood());
    let (low, high) = fire.floor_band_c.unwrap();
    let none = Run::default();
    // One was baked a good while before.
    let before = run(&[(1, 1800.0, TapKind::In), (1, 1720.0, TapKind::Out)]);
    let of = |run: &Run, floor: (f64, f64)| {
        let all = codes(&fire, run, Some(floor));
        assert_eq!(all.len(), 1, "{all:?}");
        all.into_iter().next().unwrap()
    };
    let only = |floor: (f64, f64)| of(&before, floor);
    assert_eq!(only((1.0, 0.5 * (low + high))).0, "floor_right");
    assert_eq!(only((1.0, high + 30.0)).0, "floor_over");
    let (code, what) = only((0.2, low - 60.0));
    assert_eq!(code, "floor_short");
    // Its face is back within the minute: no clock time that is now.
    assert_eq!(what.code, "floor-wait-moment");
    // By now it had its time; nobody read it since.
    assert_eq!(only((14.0, low - 10.0)).0, "floor_back");
    // Before any pizza it is being charged, and no recovery says when it is there; nor for one that no pizza leaves so cold.
    assert_eq!(of(&none, (1.0, low - 10.0)).0, "floor_heating");
    assert_eq!(only((1.0, 180.0)).0, "floor_heating");
    assert_eq!(of(&none, (1.0, 38.0)).0, "floor_cold");
    let reads = [FloorRead {
        at: serve() - min(2.0),
        c: 230.0,
    }];
    let lit_at = Some(serve() - min(25.0));
    let (code, what) = lit(&fire, &none, &reads, lit_at).remove(0);
    assert_eq!(code, "floor_heating");
    assert_eq!(what.code, "floor-heating-ready");
    // The oven's own usual floor is right for it.
    assert_eq!(of(&none, (1.0, fire.plan.setting.floor_c)).0, "floor_right");
    // A quarter of an hour later the reading is of another floor.
    assert!(codes(&fire, &none, Some((16.0, high + 30.0))).is_empty());
    assert!(codes(&fire, &none, None).is_empty());
    // A pizza lay on it since: that reading is no promise.
    let baked = run(&[(1, 200.0, TapKind::In), (1, 120.0, TapKind::Out)]);
    let all = codes(&fire, &baked, Some((5.0, low - 20.0)));
    assert_eq!(all[0].0, "floor_unread", "{all:?}");
}

#[test]
fn a_pizza_that_nobody_took_out_is_named() {
    let fire = kept(plan("home_round", "home_steel"));
    let forgotten = run(&[(3, 9.0 * 3600.0, TapKind::In)]);
    let all = codes(&fire, &forgotten, None);
    assert_eq!(all[0].0, "forgotten");
    assert_eq!(all[0].1.number("n"), Some(3.0), "{all:?}");
    assert!(codes(&fire, &run(&[(3, 60.0, TapKind::In)]), None).is_empty());
}
