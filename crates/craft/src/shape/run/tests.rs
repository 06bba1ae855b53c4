use super::*;
use crate::path::Spot;
use crate::shape::{LaidBoxes, PressSign, lay_boxes};
use jiff::{SignedDuration, Timestamp};

fn at(s: i64) -> Timestamp {
    "2026-11-27T12:00:00Z".parse::<Timestamp>().unwrap() + SignedDuration::from_secs(s)
}
fn tap(s: i64, act: ShapeAct) -> ShapeTap {
    ShapeTap { at: at(s), act }
}
fn piece(g: f64) -> ShapeAct {
    ShapeAct::Piece { g: Some(g) }
}
fn four_boxes() -> LaidBoxes {
    lay_boxes(24, 6, 25.0).unwrap()
}

#[test]
fn taps_are_folded_by_the_clock_whatever_order_they_came_in() {
    let mut taps = vec![
        tap(60, piece(262.0)),
        tap(0, ShapeAct::Whole { g: 6290.0 }),
        tap(90, piece(264.0)),
        tap(
            200,
            ShapeAct::Moved {
                number: 1,
                to: Spot::Room,
            },
        ),
        tap(
            100,
            ShapeAct::Moved {
                number: 1,
                to: Spot::Fridge,
            },
        ),
    ];
    let run = ShapeRun::of(&taps);
    taps.reverse();
    assert_eq!(run, ShapeRun::of(&taps));
    assert_eq!(run.weighed(), [262.0, 264.0]);
    assert_eq!(run.boxes[&1].moved.last().unwrap().1, Spot::Room);
    assert!(run.is_told() && !ShapeRun::default().is_told());
}

#[test]
fn pieces_never_weigh_more_than_the_whole_and_never_more_than_wanted() {
    let laid = lay_boxes(4, 6, 25.0).unwrap();
    let mut taps = vec![tap(0, ShapeAct::Whole { g: 1000.0 })];
    for i in 0..3 {
        let run = ShapeRun::of(&taps);
        assert_eq!(run.admits(&piece(262.0), 4, &laid), Ok(()));
        taps.push(tap(30 * i + 30, piece(262.0)));
    }
    let run = ShapeRun::of(&taps);
    assert_eq!(
        run.admits(&piece(262.0), 4, &laid),
        Err(ShapeRefused::MoreThanTheWhole(214.0))
    );
    assert_eq!(run.admits(&piece(214.0), 4, &laid), Ok(()));
    let smaller = ShapeAct::Whole { g: 700.0 };
    assert!(run.admits(&smaller, 4, &laid).is_err());
    assert_eq!(
        run.admits(&piece(20.0), 3, &laid),
        Err(ShapeRefused::AllMade(3))
    );
    let fewer = ShapeAct::Divided {
        count: 2,
        ball_g: 300.0,
        of: None,
    };
    assert_eq!(
        run.admits(&fewer, 4, &laid),
        Err(ShapeRefused::FewerThanMade(3))
    );
}

#[test]
fn what_is_said_of_a_box_must_be_of_one_that_holds_something() {
    let laid = four_boxes();
    let of = |number| ShapeAct::Pressed {
        number,
        sign: PressSign::Holds,
    };
    let nobody_counted = ShapeRun::default();
    assert_eq!(nobody_counted.admits(&of(4), 24, &laid), Ok(()));
    assert_eq!(
        nobody_counted.admits(&of(5), 24, &laid),
        Err(ShapeRefused::NoSuchBox(5))
    );
    let seven: Vec<_> = (0..7).map(|i| tap(30 * i, piece(262.0))).collect();
    let run = ShapeRun::of(&seven);
    assert_eq!(run.admits(&of(2), 24, &laid), Ok(()));
    assert_eq!(
        run.admits(&of(3), 24, &laid),
        Err(ShapeRefused::EmptyBox(3))
    );
    let frozen = tap(
        900,
        ShapeAct::Moved {
            number: 1,
            to: Spot::Freezer,
        },
    );
    let all: Vec<_> = seven.into_iter().chain([frozen.clone()]).collect();
    let run = ShapeRun::of(&all);
    assert_eq!(run.admits(&of(1), 24, &laid), Err(ShapeRefused::Frozen(1)));
    assert_eq!(
        run.admits(&frozen.act, 24, &laid),
        Err(ShapeRefused::ThereAlready(1))
    );
    assert!(run.boxes[&1].frozen_at().is_some());
}

#[test]
fn boxes_are_not_exchanged_under_the_balls_that_lie_in_them() {
    let kind = |gap_cm| ShapeAct::Boxed {
        into: BoxKind {
            name: "Grey box".into(),
            length_cm: 60.0,
            width_cm: 40.0,
            height_cm: 8.0,
            round: false,
            gap_cm,
        },
    };
    let laid = four_boxes();
    let run = ShapeRun::of(&[tap(0, kind(7.0)), tap(30, piece(262.0))]);
    assert_eq!(
        run.admits(&kind(4.0), 24, &laid),
        Err(ShapeRefused::InTheirBoxes)
    );
    assert_eq!(run.admits(&kind(7.0), 24, &laid), Ok(()));
    let nothing = kind(7.0);
    let ShapeAct::Boxed { into: mut kind } = nothing else {
        unreachable!()
    };
    kind.length_cm = 0.0;
    assert!(
        ShapeAct::Boxed { into: kind }.check().is_err(),
        "a box of no size"
    );
    let many = ShapeAct::Divided {
        count: 5000,
        ball_g: 262.0,
        of: None,
    };
    assert!(many.check().is_err());
}

#[test]
fn pieces_that_went_another_way_since_are_not_counted() {
    let five_of_six = ShapeAct::Divided {
        count: 5,
        ball_g: 250.0,
        of: Some(6),
    };
    let run = ShapeRun::of(&[tap(60, five_of_six), tap(90, piece(250.0))]);
    assert_eq!(run.clone().under_plan_of(6).divided, Some((5, 250.0)));
    let two_were_frozen = run.under_plan_of(4);
    assert_eq!(two_were_frozen.divided, Some((3, 250.0)));
    assert_eq!(two_were_frozen.pieces.len(), 1, "what was made was made");
}
