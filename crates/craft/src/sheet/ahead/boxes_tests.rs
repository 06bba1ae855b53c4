//! Boxes as paths of their own: alike they are the dough of the plan, apart each has its own rise and its own hour.

use super::tests::happened_until;
use super::*;
use crate::formula::Pieces;
use crate::path::{Leg, Lies, Spot};
use crate::rise::Event;
use crate::shape::run::{BoxKind, ShapeAct, ShapeRun, ShapeTap};
use crate::shape::{Loss, OutState, PressSign, learn_loss};
use crate::sheet::ahead::timeline::h_between;

use crate::sheet::tests::friday;
use crate::sheet::{StepKind, hours, work_out};

struct Kept {
    request: SheetRequest,
    sheet: SheetResult,
    happened: Happened,
    now: Timestamp,
    taps: Vec<ShapeTap>,
}

fn usual_loss() -> Loss {
    learn_loss(&[])
}

impl Kept {
    /// So many balls, everything done as planned until so many hours before serving.
    fn new(count: u32, before_serving_h: f64) -> Kept {
        let mut request = friday(crate::style::first());
        request.formula.pieces = Pieces::Balls {
            count,
            ball_g: 260.0,
        };
        let sheet = work_out(&request).unwrap();
        let now = request.serve_at - hours(before_serving_h);
        let h = now.duration_since(sheet.mixed_at).as_secs_f64() / 3600.0;
        Kept {
            happened: happened_until(&sheet, h),
            request,
            sheet,
            now,
            taps: vec![],
        }
    }
    fn step(&self, kind: StepKind) -> Timestamp {
        self.sheet.steps.iter().find(|s| s.kind == kind).unwrap().at
    }
    fn tap(mut self, at: Timestamp, act: ShapeAct) -> Kept {
        self.taps.push(ShapeTap { at, act });
        self
    }
    fn look(&self) -> ShapeLook {
        let run = ShapeRun::of(&self.taps);
        look_at_boxes(&ShapeQuestion {
            ahead: AheadRequest {
                request: &self.request,
                planned: &self.sheet,
                happened: &self.happened,
                now: self.now,
                places: &[],
                doubts: Doubts::default(),
            },
            run: &run,
            usual_box: BoxKind {
                name: "Grey box".into(),
                length_cm: 60.0,
                width_cm: 40.0,
                height_cm: 10.0,
                round: false,
                gap_cm: 7.0,
            },
            scale_g: 1.0,
            loss: usual_loss(),
            pace_s: 150.0,
            used: 0,
            noted: &[],
            lively: None,
        })
        .unwrap()
    }
}

#[test]
fn one_box_that_nobody_moved_is_the_dough_of_the_plan() {
    let kept = Kept::new(4, 12.0);
    let look = kept.look();
    assert_eq!(look.boxes.len(), 1);
    let b = &look.boxes[0];
    assert_eq!((b.balls, b.made, b.left, b.order), (4, 4, 4, Some(1)));
    let q = AheadRequest {
        request: &kept.request,
        planned: &kept.sheet,
        happened: &kept.happened,
        now: kept.now,
        places: &[],
        doubts: Doubts::default(),
    };
    let whole = from_now(&q).unwrap();
    // Four balls in ten minutes: nobody walks twice for that, it leaves the cold when the plan says.
    assert!(!look.worth_it);
    let out = b.out.unwrap().at;
    assert_eq!(out, kept.step(StepKind::Temper));
    assert!(
        (100.0 * b.at_use.rise - whole.rise_at_serve).abs() < 1.0,
        "{} {}",
        b.at_use.rise,
        whole.rise_at_serve
    );
    assert!((100.0 * b.at_use.reserve - whole.reserve_at_serve).abs() < 1.0);
}

#[test]
fn each_of_many_boxes_meets_its_first_ball_at_a_hundred() {
    let look = Kept::new(60, 20.0).look();
    assert_eq!(look.boxes.len(), 10);
    assert!(look.worth_it);
    let mut last = None;
    for b in &look.boxes {
        let out = b.out.unwrap();
        assert_eq!(out.at.as_second() % 300, 0, "to five minutes");
        assert!(
            last.is_none_or(|t| t <= out.at),
            "never before one that is used earlier"
        );
        last = Some(out.at);
        assert!(out.at < b.use_at);
        if out.state == OutState::Ok {
            assert!(
                (b.at_use.rise - 1.0).abs() < 0.08,
                "box {}: {}",
                b.number,
                b.at_use.rise
            );
        }
    }
    let with = look.boxes.iter().map(|b| b.rise_last).fold(0.0, f64::max);
    assert!(look.rise_last_at_once.unwrap() > with + 0.1, "{with}");
    // Every ball lies in exactly one box.
    let sum: u32 = look.boxes.iter().map(|b| b.balls).sum();
    assert_eq!(sum, 60);
}

#[test]
fn a_box_put_back_into_the_fridge_has_its_own_rise_and_its_own_hour() {
    let kept = Kept::new(24, 0.75);
    let out_at = kept.step(StepKind::Temper);
    let back = out_at + hours(0.5);
    assert!(back < kept.now);
    let look = kept
        .tap(
            back,
            ShapeAct::Moved {
                number: 2,
                to: Spot::Fridge,
            },
        )
        .look();
    let (a, b) = (&look.boxes[0], &look.boxes[1]);
    assert!(!a.is_cold && b.is_cold);
    assert!(
        a.out.is_none() && b.out.is_some(),
        "it leaves the cold again"
    );
    assert!(
        b.now.rise < a.now.rise - 0.02,
        "{} {}",
        b.now.rise,
        a.now.rise
    );
    assert!(b.now.dough_c < a.now.dough_c - 1.0);
    // What rose further is used first.
    assert!(a.order < b.order);
    assert_eq!(look.boxes[2].now, a.now, "the others share one run");
}

#[test]
fn boxes_that_all_came_out_are_sent_back_until_their_turn() {
    // Two hours and a half of service, all ten boxes in the room an hour and a half before it.
    let all_out = Kept::new(60, 1.5);
    let now = all_out.now;
    let look = all_out.look();
    let last = look.boxes.last().unwrap();
    assert!(
        !last.is_cold && last.at_use.rise > 1.25,
        "{}",
        last.at_use.rise
    );
    let back = last.back.expect("it is sent back");
    assert!(back.at > now && back.at < last.use_at);
    assert_eq!(look.boxes[0].back, None, "the first is used at once");
    // Said once for all that wait too long.
    let said: Vec<_> = look
        .notes
        .iter()
        .filter(|n| n.code == "box_early")
        .collect();
    assert_eq!(said.len(), 1, "{said:?}");
    // Whoever does so gets the hour that was said, and a riper box no more.
    let done = all_out.tap(
        now,
        ShapeAct::Moved {
            number: 10,
            to: Spot::Fridge,
        },
    );
    let after = done.look();
    let last_now = after.boxes.last().unwrap();
    assert!(
        last_now.at_use.rise < last.at_use.rise - 0.1,
        "{} {}",
        last_now.at_use.rise,
        last.at_use.rise
    );
    let off_min = 60.0 * h_between(last_now.out.unwrap().at, back.at).abs();
    assert!(off_min <= 15.0, "{off_min}");
    assert_eq!(last_now.back, None);
}

#[test]
fn boxes_that_were_balled_early_lie_where_they_were_put() {
    // A dough that was to lie in the fridge and be balled later is balled before it went there, and its first box goes instead.
    let mut kept = Kept::new(12, 30.0);
    kept.request.formula.legs = vec![
        Leg::of(Lies::Bulk, Spot::Room, 2.0, Event::None),
        Leg::of(Lies::Bulk, Spot::Fridge, 24.0, Event::None),
        Leg::of(Lies::Balls, Spot::Room, 4.0, Event::Ball),
    ];
    kept.sheet = work_out(&kept.request).unwrap();
    let begun = kept.sheet.mixed_at + hours(2.0);
    kept.now = begun + hours(0.2);
    // Nobody said that the tub went into the fridge: it did not.
    kept.happened = happened_until(&kept.sheet, 1.9);
    for i in 0..11 {
        kept = kept.tap(
            begun + hours(f64::from(i) / 240.0),
            ShapeAct::Piece { g: Some(260.0) },
        );
    }
    let to = |number| ShapeAct::Moved {
        number,
        to: Spot::Fridge,
    };
    let now = kept.now;
    let look = kept.tap(now, to(1)).look();
    let (a, b) = (&look.boxes[0], &look.boxes[1]);
    assert!(a.is_cold && !b.is_cold, "{:?} {:?}", a.place, b.place);
    assert!(
        a.closes_at > b.closes_at,
        "{:?} {:?}",
        a.closes_at,
        b.closes_at
    );
    assert!(a.out.is_some() && a.at_use.rise < b.at_use.rise);
    // The other one stays in the room for a day: it is said that it is past by its turn.
    assert!(b.closes_at.unwrap() < b.use_at && b.back.is_none());
    let past = |n: &&Note| n.what.code == "shape-box-past";
    assert_eq!(look.notes.iter().filter(past).count(), 1);
}

#[test]
fn a_press_test_moves_when_a_ball_opens_and_a_frozen_box_is_out_of_it() {
    let balled = |k: Kept| {
        let at = k.step(StepKind::Ball);
        let now = at + hours(0.25);
        let h = now.duration_since(k.sheet.mixed_at).as_secs_f64() / 3600.0;
        Kept {
            now,
            happened: happened_until(&k.sheet, h),
            ..k
        }
    };
    let before = balled(Kept::new(24, 30.0));
    let now = before.now;
    let opens = |k: &Kept| k.look().boxes[0].opens;
    let by_the_book = opens(&before);
    let care = by_the_book.from.with_care.unwrap();
    assert!(by_the_book.from.easily.unwrap() > care);
    assert!(before.look().flour.is_none());
    assert_eq!(by_the_book.expected, PressSign::Springs);
    let sprang = before.tap(
        now,
        ShapeAct::Pressed {
            number: 1,
            sign: PressSign::Holds,
        },
    );
    // It holds though the book says that it springs: this flour relaxes faster.
    let look = sprang.look();
    let (relaxes, _) = look.flour.unwrap();
    assert!(relaxes.factor < 1.0, "{}", relaxes.factor);
    assert!(look.boxes[0].opens.from.with_care.unwrap() < care);
    assert_eq!(look.boxes[0].opens.pressed.unwrap().1, PressSign::Holds);
    let frozen = sprang.tap(
        now,
        ShapeAct::Moved {
            number: 4,
            to: Spot::Freezer,
        },
    );
    let look = frozen.look();
    assert_eq!(look.boxes[3].order, None);
    assert_eq!(look.boxes[3].frozen_at, Some(now));
    assert!(look.boxes[..3].iter().all(|b| b.order.is_some()));
}

#[test]
fn balling_again_costs_water_and_makes_it_wait() {
    let kept = Kept::new(24, 2.0);
    let at = kept.now - hours(0.1);
    let again = kept
        .tap(
            at,
            ShapeAct::Reballed {
                number: 1,
                bench: crate::shape::run::BenchFlour::Usual,
                tight: true,
            },
        )
        .look();
    let (a, b) = (&again.boxes[0], &again.boxes[1]);
    assert!(a.now.rise < b.now.rise);
    assert!(a.opens.from.with_care > b.opens.from.with_care);
}

#[test]
fn a_short_dough_a_low_box_and_late_boxes_are_said() {
    let kept = Kept::new(4, 30.0);
    let whole = kept.now;
    let short = kept.tap(whole, ShapeAct::Whole { g: 940.0 }).look();
    let codes = |l: &ShapeLook| l.notes.iter().map(|n| n.code.clone()).collect::<Vec<_>>();
    assert!(codes(&short).contains(&"short_dough".to_string()));
    assert!(short.loss_percent > 3.0);
    assert!(codes(&short).contains(&"loss_high".to_string()));
    let flat = Kept::new(4, 30.0);
    let at = flat.now;
    let low = flat
        .tap(
            at,
            ShapeAct::Boxed {
                into: BoxKind {
                    name: "Flat tray".into(),
                    length_cm: 60.0,
                    width_cm: 40.0,
                    height_cm: 5.0,
                    round: false,
                    gap_cm: 2.0,
                },
            },
        )
        .look();
    assert!(codes(&low).contains(&"box_low".to_string()));
    assert!(codes(&low).contains(&"box_crowded".to_string()));
}
