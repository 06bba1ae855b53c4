use super::*;
use crate::path::methods;
use crate::sheet::life::spans;
use crate::sheet::tests::friday;
use crate::style;

#[test]
fn a_longer_cold_leg_for_less_yeast_and_back() {
    let r = friday(style::first());
    let mut less = with_yeast_as_it_is(&r).unwrap();
    let Dose::Given { percent } = less.formula.yeast.dose else {
        panic!("a dose was found")
    };
    less.formula.yeast.dose = Dose::Given {
        percent: 0.7 * percent,
    };
    let longer = solve_leg(&less, 1).unwrap();
    assert!(
        longer.formula.cold_h > r.formula.cold_h + 4.0,
        "{}",
        longer.formula.cold_h
    );
    let out = work_out(&longer).unwrap();
    assert!(
        (out.rise_at_serve - 100.0).abs() < 2.0,
        "{}",
        out.rise_at_serve
    );
    // And back: solved for the cold hours at the dose of the start, the hours of the start.
    let same = solve_leg(&r, 1).unwrap();
    assert!((same.formula.cold_h - r.formula.cold_h).abs() <= 0.5);
    let limits = leg_hours(&r, 1).unwrap();
    assert!(limits.longest_h.unwrap() > limits.shortest_h);
}

#[test]
fn the_serve_time_moves_to_where_the_dough_is_ready() {
    let mut r = with_yeast_as_it_is(&friday(style::first())).unwrap();
    r.room_c += 4.0;
    let mixed_at = r.mixed_at();
    let moved = solve_serve(&r).unwrap();
    assert!(moved.serve_at < r.serve_at);
    assert_eq!(moved.mixed_at(), mixed_at);
    assert!(work_out(&moved).unwrap().fits(moved.serve_at));
}

#[test]
fn no_length_is_refused_with_the_best_that_it_reached() {
    let mut r = friday(style::first());
    r.formula.yeast.dose = Dose::Given { percent: 0.0005 };
    let e = solve_leg(&r, 1).unwrap_err();
    assert_eq!(e.0[0].field, "formula.legs[1].hours");
    assert_eq!(e.0[0].message.code, "no-length-of-leg");
    assert!(solve_leg(&friday(style::first()), 9).is_err());
}

#[test]
fn methods_stand_side_by_side_in_the_same_life() {
    let life = Life {
        quiet: spans("22:30-06:30").unwrap(),
        busy: vec![],
    };
    let two = ["same_day", "room_then_cold_balls"].map(|k| methods::by_key(k).unwrap().clone());
    let r = friday(style::first()).with(|r| r.formula = r.formula.clone().on_flour_w(330.0));
    let both = compare(&r, &two, &life);
    let out = both
        .iter()
        .map(|c| c.outcome.as_ref().unwrap())
        .collect::<Vec<_>>();
    assert!(both.iter().all(|c| c.fits_life));
    // More hours, less yeast, less reserve.
    assert!(out[0].yeast.percent > out[1].yeast.percent);
    assert!(out[0].start_at > out[1].start_at);
    for c in &both {
        assert_eq!(
            c.request.formula.hydration_percent,
            r.formula.hydration_percent
        );
    }
}
