//! What must hold of any dough that is divided, boxed, taken out and opened.

use craft::shape::{
    BoxService, BoxSpace, ColdBox, DividePlan, Relaxing, divide, lay_boxes, minutes_until_open,
    reball, stagger, tally,
};
use proptest::prelude::*;

prop_compose! {
    fn any_boxes()(
        rises in prop::collection::vec(0.3..0.95_f64, 1..8),
        balls in 1_u32..14,
        dough_c in 2.0..8.0_f64,
    ) -> Vec<ColdBox> {
        rises.into_iter().map(|rise| ColdBox {
            balls, rise, dough_c, rate_per_h: 0.264, tau_h: 1.7, tau_cold_h: 2.0,
        }).collect()
    }
}
prop_compose! {
    fn any_service()(first in 60.0..400.0_f64, pace in 60.0..300.0_f64, room in 17.0..32.0_f64) -> BoxService {
        BoxService { first_use_min: first, pace_s: pace, cold_c: 4.0, room_c: room, fade: 1.5, want: 1.0 }
    }
}

fn relaxing(w: f64, dough_c: f64) -> Relaxing {
    Relaxing {
        shaped_h: 0.0,
        matured: None,
        w,
        dough_c,
        place_c: dough_c,
        tau_h: 1.7,
        f_mature: 1.0,
        kappa: 1.0,
        tight: 1.0,
        acid: 0.002,
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Pieces and what is left of them are the whole.
    #[test]
    fn pieces_and_remainder_are_the_whole(
        put in 600.0..20_000.0_f64, lost in 0.0..0.08_f64, ball in 150.0..450.0_f64, count in 1_u32..60, scale in prop::sample::select(vec![0.1, 1.0, 5.0]),
    ) {
        let weighed = put * (1.0 - lost);
        prop_assume!(weighed > ball);
        let d = divide(&DividePlan { put_g: put, weighed_g: weighed, ball_g: ball, count, scale_g: scale }).unwrap();
        for w in [d.keep, d.most] {
            prop_assert!((f64::from(w.count) * w.ball_g + w.remainder_g - weighed).abs() < 1e-6);
            prop_assert!(w.remainder_g >= -1e-9);
        }
        prop_assert!(d.keep.count <= count && d.most.remainder_g < ball);
        let s = d.spread;
        prop_assert!((f64::from(s.count) * s.ball_g + s.left_g - weighed).abs() < 1e-6);
        prop_assert!(s.left_g >= -1e-6 && s.one_step_more <= s.count);
    }

    /// Every ball is in exactly one box, and the boxes differ by one at the most.
    #[test]
    fn every_ball_is_in_one_box(count in 1_u32..300, per_box in 1_u32..30) {
        let laid = lay_boxes(count, per_box, 25.0).unwrap();
        prop_assert_eq!(laid.balls.iter().sum::<u32>(), count);
        prop_assert!(laid.balls.iter().all(|n| *n <= per_box && *n > 0));
        prop_assert!(laid.balls.first().unwrap() - laid.balls.last().unwrap() <= 1);
        for ball in 0..count {
            let index = laid.box_of(ball).unwrap();
            prop_assert!(laid.first_of(index) <= ball && ball < laid.first_of(index) + laid.balls[index]);
        }
        prop_assert_eq!(laid.box_of(count), None);
    }

    /// Heavier balls and wider gaps never fit more.
    #[test]
    fn more_room_for_each_never_fits_more(ball in 120.0..500.0_f64, more in 1.0..200.0_f64, gap in 1.0..9.0_f64, wider in 0.0..4.0_f64) {
        let space = |ball_g, gap_cm| BoxSpace { ball_g, volume: 2.2, hydration_percent: 64.0, gap_cm, length_cm: 60.0, width_cm: 40.0, round: false };
        let now = space(ball, gap).grid().grid;
        prop_assert!(space(ball + more, gap).grid().grid <= now);
        prop_assert!(space(ball, gap + wider).grid().grid <= now);
    }

    /// A warmer room or a riper box never leaves the cold earlier; equal boxes leave in the order of use.
    #[test]
    fn boxes_leave_in_a_sensible_order(boxes in any_boxes(), s in any_service(), warmer in 0.1..5.0_f64, riper in 0.01..0.3_f64) {
        let now = stagger(&boxes, &s);
        let hot = stagger(&boxes, &BoxService { room_c: s.room_c + warmer, ..s });
        let risen: Vec<ColdBox> = boxes.iter().map(|b| ColdBox { rise: b.rise + riper, ..*b }).collect();
        let ripe = stagger(&risen, &s);
        for ((a, b), c) in now.boxes.iter().zip(&hot.boxes).zip(&ripe.boxes) {
            prop_assert!(b.out_min >= a.out_min - 1e-6, "{} in the warmer room, {}", b.out_min, a.out_min);
            prop_assert!(c.out_min >= a.out_min - 1e-6);
        }
        let equal = vec![boxes[0]; 5];
        let all = stagger(&equal, &s);
        prop_assert!(all.boxes.windows(2).all(|w| w[1].out_min >= w[0].out_min - 1e-6));
        // A round goes when its first one goes: never later than any of its members.
        for round in &now.rounds {
            let goes = now.boxes[round[0]].said_min;
            prop_assert!(round.iter().all(|i| goes <= now.boxes[*i].said_min + 1e-9));
        }
        let mut all: Vec<usize> = now.rounds.concat();
        all.sort_unstable();
        prop_assert_eq!(all, (0..boxes.len()).collect::<Vec<_>>());
    }

    /// Strong flour relaxes longer, warmth shortens it, bench flour never adds water.
    #[test]
    fn rest_follows_strength_and_warmth(w in 180.0..400.0_f64, c in 6.0..26.0_f64, more in 1.0..60.0_f64, pick in 0.0..6.0_f64) {
        let min = |w, c| minutes_until_open(&relaxing(w, c)).with_care_min.unwrap_or(1e9);
        prop_assert!(min(w + more, c) >= min(w, c));
        prop_assert!(min(w, c + more / 20.0) <= min(w, c));
        let r = reball(262.0, 65.0, 2.6, 167.8, pick, &relaxing(w, c));
        prop_assert!(r.hydration_percent <= 65.0 && r.ball_g >= 262.0);
    }
}

#[test]
fn a_tally_says_what_the_last_ones_come_to() {
    let made = [262.0, 261.0, 264.0, 259.0, 262.0, 263.0, 261.0, 266.0];
    let t = tally(6290.0, &made, 262.0, 24, 1.0, 2.5);
    assert_eq!(t.marked, [7]);
    assert!(t.off.is_empty() && !t.does_not_sum);
    assert!((t.next_g.unwrap() - (6290.0 - 2098.0) / 16.0).abs() < 1e-9);
    // All are made, and one was not weighed.
    let all = tally(1048.0, &[262.0, 262.0, 262.0], 262.0, 3, 1.0, 2.5);
    assert!(all.next_g.is_none() && all.does_not_sum);
}

#[test]
fn what_cannot_be_divided_is_refused() {
    let p = DividePlan {
        put_g: 1064.0,
        weighed_g: 1048.0,
        ball_g: 262.0,
        count: 4,
        scale_g: 1.0,
    };
    let code = |p: DividePlan| divide(&p).unwrap_err().0[0].message.code.to_string();
    assert!(divide(&p).is_ok());
    let over = DividePlan {
        weighed_g: 1130.0,
        ..p
    };
    assert_eq!(code(over), "divide-more-than-went-in");
    let under = DividePlan {
        weighed_g: 600.0,
        ..p
    };
    assert_eq!(code(under), "divide-is-this-all");
    assert_eq!(code(DividePlan { count: 5000, ..p }), "outside-range");
    assert_eq!(
        code(DividePlan {
            ball_g: f64::NAN,
            ..p
        }),
        "must-be-a-number"
    );
    let nothing = BoxSpace {
        ball_g: 430.0,
        volume: 2.2,
        hydration_percent: 64.0,
        gap_cm: 7.0,
        length_cm: 28.0,
        width_cm: 16.0,
        round: false,
    };
    let refused = nothing.check().unwrap_err().0[0].message.code.to_string();
    assert_eq!(refused, "box-no-ball-fits");
    let flat = BoxSpace {
        length_cm: 0.0,
        ..nothing
    };
    assert_eq!(flat.check().unwrap_err().0[0].message.code, "outside-range");
}
