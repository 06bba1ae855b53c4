//! What is said of a run at the mixer: each judgement where it is due, and none where nothing is wrong.

use craft::formula::Scales;
use craft::formula::{Formula, Pieces};
use craft::mix::BowlPart;
use craft::mix::run::{MixAct, MixRun, MixTap, MixTrouble};
use craft::mix::{Machine, MixLook, MixProgramme, ReadySign, look, programmes, usual_minutes};
use craft::note::Level;
use craft::sheet::{BowlToMix, KitchenUsual, SheetRequest, SheetResult, work_out};
use jiff::{SignedDuration, Timestamp};

const BEGAN: &str = "2026-11-26T08:00:00Z";

fn kitchen() -> KitchenUsual {
    KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 0.0,
        room_c: 20.0,
        fridge_c: 5.0,
        tap_water_c: 11.0,
        scales: Scales::default(),
    }
}

fn programme(key: &str) -> MixProgramme {
    programmes().iter().find(|p| p.key == key).unwrap().clone()
}

/// A run of the dough of a sheet, with the minutes at which something was tapped.
struct Run {
    request: SheetRequest,
    sheet: SheetResult,
    programme: MixProgramme,
    machine: Machine,
    taps: Vec<MixTap>,
    now_min: f64,
}

impl Run {
    fn of(key: &str, capacity_kg: f64, water: f64, w: f64) -> Run {
        let mut formula = Formula::of_style(craft::style::first());
        formula.pieces = Pieces::Balls {
            count: 24,
            ball_g: 260.0,
        };
        formula.hydration_percent = water;
        formula.flours = vec![craft::flour::FlourPart::only(w)];
        let serve_at = "2026-11-27T19:00:00Z".parse().unwrap();
        let request = SheetRequest::of(formula, &kitchen(), serve_at);
        let sheet = work_out(&request).unwrap();
        let programme = programme(key);
        let machine = Machine {
            capacity_kg,
            bowl_comes_off: true,
            ..Machine::usual(programme.kind)
        };
        Run {
            request,
            sheet,
            programme,
            machine,
            taps: vec![],
            now_min: 0.0,
        }
    }
    fn at(min: f64) -> Timestamp {
        let began: Timestamp = BEGAN.parse().unwrap();
        began + SignedDuration::from_secs_f64(60.0 * min)
    }
    fn tap(mut self, min: f64, act: MixAct) -> Run {
        self.now_min = self.now_min.max(min);
        self.taps.push(MixTap {
            bowl: 0,
            run: 1,
            at: Run::at(min),
            act,
        });
        self
    }
    /// Steps until this one, each as long as planned; the present lies so many minutes within it.
    fn in_step(mut self, step: u16, within_min: f64) -> Run {
        let mut min = 0.0;
        for n in 1..=step {
            self = self.tap(min, MixAct::Step { step: n });
            if n < step {
                min += self.programme.steps[usize::from(n) - 1].minutes;
            }
        }
        self.now_min = min + within_min;
        self
    }
    fn said(self, act: MixAct) -> Run {
        let now = self.now_min;
        self.tap(now, act)
    }
    fn look(&self) -> MixLook {
        let planned: BowlToMix = self.request.to_mix(&self.sheet.formula, 0).unwrap();
        let planned = planned.in_machine(self.machine.clone(), self.programme.clone());
        let told = MixRun::of(&self.taps, 0, 1);
        let asked = planned.asked(&told, usual_minutes(&[]), Run::at(self.now_min));
        look(&asked).unwrap()
    }
    fn codes(&self) -> Vec<String> {
        self.look()
            .notes
            .iter()
            .map(|n| n.code.to_string())
            .collect()
    }
    fn level(&self, code: &str) -> Option<Level> {
        let found = self.look().notes.into_iter().find(|n| n.code == code)?;
        Some(found.level)
    }
}

fn spiral() -> Run {
    Run::of("spiral_direct", 12.0, 62.0, 300.0)
}
fn read(c: f64) -> MixAct {
    MixAct::Read { c }
}
fn trouble(trouble: MixTrouble) -> MixAct {
    MixAct::Trouble { trouble }
}

#[test]
fn a_run_that_goes_as_planned_is_told_what_a_minute_more_adds_and_nothing_to_worry_about() {
    let codes = spiral().in_step(3, 2.0).codes();
    assert!(codes.contains(&"minute_more".to_string()), "{codes:?}");
    let worries = [
        "ends_warm",
        "ends_cold",
        "over_mixed",
        "dough_hot",
        "over_capacity",
        "small_batch",
    ];
    assert!(
        !codes.iter().any(|c| worries.contains(&c.as_str())),
        "{codes:?}"
    );
}

#[test]
fn a_dough_that_runs_warm_or_cold_is_said_with_what_it_can_still_take() {
    let hot = spiral().in_step(3, 4.0).said(read(30.0));
    assert_eq!(hot.level("dough_hot"), Some(Level::Act));
    assert_eq!(hot.level("ends_warm"), None, "one thing at a time");
    let target = spiral().request.formula.target_dough_c;
    let warm = spiral().in_step(3, 1.0).said(read(target + 0.8));
    assert!(warm.level("ends_warm").is_some());
    let cold = spiral().in_step(3, 4.0).said(read(target - 4.0));
    assert_eq!(cold.level("ends_cold"), Some(Level::Watch));
    // Six parts of water, the dough far too warm at the second: no water makes that good.
    let staged = Run::of("spiral_staged", 12.0, 72.0, 340.0).in_step(4, 1.9);
    let staged = staged
        .said(MixAct::Poured { part: 2, c: None })
        .said(read(target + 4.0));
    assert!(
        staged.codes().contains(&"last_water_cannot".to_string()),
        "{:?}",
        staged.codes()
    );
}

#[test]
fn a_mixer_too_small_or_too_large_is_said_before_it_turns() {
    let small = Run::of("spiral_direct", 4.0, 62.0, 300.0);
    // Shared over runs it fits; all of it in one does not.
    assert_eq!(small.level("over_capacity"), None);
    let all_in_one = MixAct::Chosen {
        programme: Box::new(small.programme.clone()),
        machine: Box::new(small.machine.clone()),
        machine_id: None,
        runs: 1,
    };
    let told = MixRun::of(
        &[MixTap {
            bowl: 0,
            run: 1,
            at: Run::at(0.0),
            act: all_in_one,
        }],
        0,
        1,
    );
    let planned = small
        .request
        .to_mix(&small.sheet.formula, 0)
        .unwrap()
        .said(&told);
    let looked = look(&planned.asked(&told, usual_minutes(&[]), Run::at(0.0))).unwrap();
    assert!(
        looked
            .notes
            .iter()
            .any(|n| n.code == "over_capacity" && n.level == Level::Act)
    );
    assert_eq!(
        Run::of("spiral_direct", 32.0, 62.0, 300.0).level("small_batch"),
        Some(Level::Watch)
    );
    assert_eq!(
        Run::of("spiral_direct", 60.0, 62.0, 300.0).level("small_batch"),
        Some(Level::Act)
    );
    let by_hand = Run::of("hand", 10.0, 62.0, 300.0);
    assert_eq!(by_hand.level("small_batch"), None);
    // A mixer in which not one ball can be mixed is none for this dough, in whatever number of runs.
    let mut tiny = Run::of("processor", 0.3, 62.0, 300.0);
    tiny.request.formula.pieces = Pieces::Balls {
        count: 4,
        ball_g: 900.0,
    };
    tiny.sheet = work_out(&tiny.request).unwrap();
    let notes = tiny.look().notes;
    let note = notes
        .iter()
        .find(|n| n.code == "over_capacity")
        .expect("it is said");
    assert_eq!(
        (note.level, note.what.code.as_ref()),
        (Level::Act, "mix-no-piece-fits")
    );
}

#[test]
fn yeast_that_a_programme_does_not_speak_of_goes_in_with_the_first_flour() {
    for p in programmes() {
        let at = p.yeast_step().expect("every dough has its flour");
        assert!(
            p.steps[at].add.leaven > 0.0 || p.steps[at].add.flour > 0.0,
            "{}",
            p.key
        );
    }
    assert_eq!(programme("spiral_biga").yeast_step(), Some(0));
    // A stiff dough of strong flour without a rest is spoken of; a fork's programme has none.
    let stiff = Run::of("fork", 30.0, 55.0, 340.0);
    assert_eq!(stiff.level("not_hydrated"), Some(Level::Watch));
}

#[test]
fn what_is_seen_of_the_dough_is_answered() {
    let dry = spiral().in_step(2, 0.0).said(trouble(MixTrouble::DryFlour));
    assert_eq!(dry.level("not_hydrated"), Some(Level::Watch));
    for t in [MixTrouble::Tears, MixTrouble::Climbs] {
        assert_eq!(
            spiral().in_step(3, 1.0).said(trouble(t)).level("forced"),
            Some(Level::Watch)
        );
    }
    let wet = spiral().in_step(3, 5.0).said(trouble(MixTrouble::WetAgain));
    assert_eq!(wet.level("over_mixed"), Some(Level::Act));
    let mut later = spiral().in_step(3, 0.5).said(trouble(MixTrouble::Tears));
    later.now_min += 16.0;
    assert_eq!(later.level("forced"), None, "it is not said for ever");
    // Gathered before the second part, not before the third.
    let gathered = |r: Run| {
        r.said(MixAct::Sign {
            sign: ReadySign::Gathered,
        })
    };
    let staged = || Run::of("spiral_staged", 12.0, 72.0, 340.0).in_step(3, 1.0);
    let early = gathered(staged().tap(9.0, MixAct::Read { c: 22.0 }));
    assert_eq!(early.level("poured_early"), None);
    let mut early = gathered(staged());
    for (min, n) in [(20.2, 4), (22.4, 5)] {
        early = early.tap(min, MixAct::Step { step: n });
    }
    assert_eq!(early.level("poured_early"), Some(Level::Watch));
    let nobody_says = staged().tap(20.2, MixAct::Step { step: 4 });
    assert_eq!(nobody_says.level("poured_early"), None);
}

#[test]
fn work_beyond_the_programme_is_said_and_by_hand_a_rest_is() {
    // Four on slow, two, six on medium: twelve; nine more are over its twenty.
    let more = |minutes| MixAct::More { step: 3, minutes };
    let long = spiral().in_step(3, 5.0).said(more(12.0));
    let mut within = long;
    assert_eq!(within.level("over_mixed"), None, "not yet");
    within.now_min += 10.0;
    assert_eq!(
        within.level("over_mixed"),
        Some(Level::Act),
        "{:?}",
        within.codes()
    );
    let by_hand = Run::of("hand", 10.0, 62.0, 300.0).in_step(5, 3.0);
    let mut by_hand = by_hand.said(MixAct::More {
        step: 5,
        minutes: 10.0,
    });
    assert_eq!(by_hand.level("over_mixed"), None);
    by_hand.now_min += 9.0;
    assert_eq!(by_hand.level("over_mixed"), Some(Level::Watch));
    // Worked far past what it needs and never a window: it is rested and folded.
    let mut no_window = spiral().in_step(3, 5.0).said(more(20.0));
    no_window.now_min += 19.0;
    assert_eq!(no_window.level("no_window"), Some(Level::Watch));
    let seen = MixAct::Sign {
        sign: ReadySign::Window,
    };
    assert_eq!(no_window.said(seen).level("no_window"), None);
}

#[test]
fn a_reading_that_does_not_fit_and_a_mixer_nobody_measured_are_said() {
    let odd = spiral().in_step(3, 3.0).said(read(14.0));
    assert_eq!(odd.level("reading_doubtful"), Some(Level::Watch));
    assert_eq!(
        spiral().in_step(3, 1.0).level("friction_guess"),
        Some(Level::Holds)
    );
    let folds = Run::of("no_knead", 10.0, 75.0, 300.0);
    assert!(folds.codes().contains(&"rises_in_the_bowl".to_string()));
}

#[test]
fn ice_goes_into_the_first_water_and_none_into_a_gathered_dough() {
    let mut hot = Run::of("spiral_staged", 12.0, 72.0, 340.0);
    (hot.request.room_c, hot.request.flour_c) = (35.0, 33.0);
    hot.request.tap_water_c = 26.0;
    hot.sheet = work_out(&hot.request).unwrap();
    let look = hot.look();
    assert!(look.water.ice_g > 100.0, "{}", look.water.ice_g);
    let ice = |s: &craft::mix::BowlStep| -> f64 {
        let of_it = s.add.iter().filter(|i| i.what == BowlPart::Ice);
        of_it.map(|i| i.weight_g).sum()
    };
    let each: Vec<f64> = look.laid.steps.iter().map(ice).collect();
    assert!((each[0] - look.water.ice_g).abs() < 1e-6, "{each:?}");
    assert!(each[1..].iter().all(|g| *g == 0.0), "{each:?}");
    // As cold as all of it over all parts would make it, but for what bowl and room give meanwhile.
    assert!(
        (look.end_c - look.water.dough_c).abs() < 0.6,
        "{} {}",
        look.end_c,
        look.water.dough_c
    );
}
