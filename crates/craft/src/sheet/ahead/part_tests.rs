//! Some pieces of a dough go another way: both are the same dough until then.

use super::tests::happened_until;
use super::*;
use crate::formula::Pieces;
use crate::path::{Lies, Spot};
use crate::rise::Event;
use crate::sheet::tests::friday;
use crate::sheet::{hours, work_out};

fn kept() -> (SheetRequest, SheetResult) {
    let mut r = friday(crate::style::first());
    r.formula.pieces = Pieces::Balls {
        count: 4,
        ball_g: 260.0,
    };
    let sheet = work_out(&r).unwrap();
    (r, sheet)
}

fn asked<'a>(
    r: &'a SheetRequest,
    sheet: &'a SheetResult,
    h: &'a Happened,
    at_h: f64,
) -> AheadRequest<'a> {
    AheadRequest {
        request: r,
        planned: sheet,
        happened: h,
        now: sheet.mixed_at + hours(at_h),
        places: &[],
        doubts: Doubts::default(),
    }
}

#[test]
fn two_of_four_balls_into_the_freezer_are_thawed_for_their_own_day() {
    let (r, sheet) = kept();
    let cold_at = r.formula.bulk_h + 3.0;
    let happened = happened_until(&sheet, cold_at);
    let q = asked(&r, &sheet, &happened, cold_at);
    let serve_at = r.serve_at + hours(7.0 * 24.0);
    let p = part(&q, 2, PartWay::Freezer, serve_at).unwrap();
    // The dough is one: two and two of the same weight, the same dose, nothing lost and nothing made.
    let weigh = |r: &SheetRequest| work_out(r).unwrap();
    let (rest, part) = (weigh(&p.rest), weigh(&p.part));
    let all = sheet.formula.dough_g;
    assert!((rest.formula.dough_g + part.formula.dough_g - all).abs() < 1e-6);
    assert_eq!(rest.formula.piece_g, sheet.formula.piece_g);
    assert_eq!(part.formula.piece_g, sheet.formula.piece_g);
    assert_eq!(p.rest.serve_at, r.serve_at);
    assert_eq!(rest.yeast.percent, sheet.yeast.percent);
    // The same hours so far, then the freezer, the fridge and the room until its own hour.
    assert_eq!((part.mixed_at, p.part.serve_at), (sheet.mixed_at, serve_at));
    let legs = p.part.formula.path();
    let spots: Vec<&Spot> = legs.iter().map(|l| &l.spot).collect();
    assert_eq!(
        spots[spots.len() - 3..],
        [&Spot::Freezer, &Spot::Fridge, &Spot::Room]
    );
    assert!(legs.iter().all(|l| l.lies != Lies::Pans));
    let frozen = legs.len() - 3;
    let so_far: f64 = legs[..frozen].iter().map(|l| l.hours).sum();
    assert!((so_far - cold_at).abs() < 0.01, "{so_far}");
    // It stood still meanwhile: at its hour it is not over, though a week passed.
    assert!(part.rise_at_serve < 200.0, "{}", part.rise_at_serve);
}

#[test]
fn a_dough_in_its_tub_is_balled_before_it_is_frozen() {
    let (r, sheet) = kept();
    let in_bulk = 0.6 * r.formula.bulk_h;
    let happened = happened_until(&sheet, in_bulk);
    let q = asked(&r, &sheet, &happened, in_bulk);
    let p = part(&q, 1, PartWay::Freezer, r.serve_at + hours(96.0)).unwrap();
    let legs = p.part.formula.path();
    let frozen = legs.iter().find(|l| l.spot == Spot::Freezer).unwrap();
    assert_eq!((frozen.lies, frozen.event), (Lies::Balls, Event::Ball));
}

#[test]
fn an_hour_of_its_own_moves_the_cold_and_nothing_before() {
    let (r, sheet) = kept();
    let cold_at = r.formula.bulk_h + 3.0;
    let happened = happened_until(&sheet, cold_at);
    let q = asked(&r, &sheet, &happened, cold_at);
    let before = r.formula.path();
    let p = part(&q, 3, PartWay::Apart, r.serve_at + hours(20.0)).unwrap();
    let whole = |legs: &[crate::path::Leg]| legs.iter().map(|l| l.hours).sum::<f64>();
    let legs = p.part.formula.path();
    assert!((whole(&legs) - whole(&before) - 20.0).abs() < 0.01);
    assert_eq!(legs.last().unwrap().hours, before.last().unwrap().hours);
    let hours_of = |legs: &[crate::path::Leg]| legs.iter().map(|l| l.hours).collect::<Vec<_>>();
    assert_eq!(hours_of(&p.rest.formula.path()), hours_of(&before));
}

#[test]
fn what_stays_is_the_same_dough_and_what_goes_was_it_until_now() {
    // A big tub keeps its warmth: half of it would have been another dough.
    let (r, _) = kept();
    let r = r.with(|r| {
        r.formula = r.formula.scaled_to(40).unwrap();
        r.formula.legs = vec![
            crate::path::Leg::of(Lies::Bulk, Spot::Room, 2.0, Event::None),
            crate::path::Leg::of(Lies::Bulk, Spot::Fridge, 12.0, Event::None),
            crate::path::Leg::of(Lies::Balls, Spot::Fridge, 12.0, Event::Ball),
            crate::path::Leg::of(Lies::Balls, Spot::Room, 4.0, Event::None),
        ];
    });
    let sheet = work_out(&r).unwrap();
    let at = 16.0;
    let happened = happened_until(&sheet, at);
    let q = asked(&r, &sheet, &happened, at);
    let was = from_now(&q).unwrap();
    let p = part(&q, 20, PartWay::Freezer, r.serve_at + hours(100.0)).unwrap();
    let (rest, gone) = (work_out(&p.rest).unwrap(), work_out(&p.part).unwrap());
    let stays = happened_until(&rest, at);
    let stays = from_now(&asked(&p.rest, &rest, &stays, at)).unwrap();
    assert_eq!(stays.window, was.window);
    assert_eq!(stays.rise_at_serve, was.rise_at_serve);
    let then = sheet.mixed_at + hours(at - 0.5);
    let (a, b) = (
        gone.clocks_at(then).unwrap().rise,
        sheet.as_it_goes(&was).clocks_at(then).unwrap().rise,
    );
    assert!((a - b).abs() < 1.0, "{a} {b}");
}

#[test]
fn what_cannot_be_parted_is_said() {
    let (r, sheet) = kept();
    let happened = happened_until(&sheet, r.formula.bulk_h + 3.0);
    let q = asked(&r, &sheet, &happened, r.formula.bulk_h + 3.0);
    let field = |n, way, at| part(&q, n, way, at).unwrap_err().0[0].field.clone();
    let later = r.serve_at + hours(200.0);
    assert_eq!(field(0, PartWay::Freezer, later), "part_count");
    assert_eq!(field(4, PartWay::Freezer, later), "part_count");
    assert_eq!(
        field(2, PartWay::Freezer, q.now + hours(20.0)),
        "part_serve"
    );
    assert_eq!(
        field(2, PartWay::Freezer, r.serve_at + hours(900.0)),
        "part_serve"
    );
    assert_eq!(field(2, PartWay::Apart, q.now + hours(0.2)), "part_serve");
    let nothing = Happened::default();
    let planned = asked(&r, &sheet, &nothing, -20.0);
    let e = part(&planned, 2, PartWay::Freezer, later).unwrap_err();
    assert!(e.0[0].message.code == "part-not-mixed");
}
