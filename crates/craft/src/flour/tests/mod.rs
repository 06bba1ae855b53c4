use super::substitute::{Target, differences, substitutes};
use super::*;
use proptest::prelude::*;

fn flour(name: &str, w: Option<f64>, protein: f64, absorption: f64) -> FlourPart {
    FlourPart {
        name: name.into(),
        share_percent: 100.0,
        facts: FlourFacts {
            w,
            protein_percent: Some(protein),
            absorption_percent: Some(absorption),
            ..FlourFacts::default()
        },
        pantry: None,
    }
}

fn gluten() -> FlourPart {
    FlourPart {
        facts: FlourFacts {
            kind: FlourKind::Gluten,
            w: None,
            protein_percent: Some(75.0),
            absorption_percent: Some(150.0),
            ..FlourFacts::default()
        },
        ..flour("Gluten", None, 75.0, 150.0)
    }
}

#[test]
fn a_blend_is_the_mean_by_share() {
    let soft = FlourPart {
        share_percent: 70.0,
        ..flour("Soft", Some(240.0), 11.0, 54.0)
    };
    let strong = FlourPart {
        share_percent: 25.0,
        ..flour("Strong", Some(380.0), 14.5, 60.0)
    };
    let mut whole = FlourPart {
        share_percent: 5.0,
        ..flour("Whole", Some(180.0), 13.0, 66.0)
    };
    whole.facts.kind = FlourKind::Wholemeal;
    let b = blend(&[soft, strong, whole]);
    // 0.70 × 240 + 0.25 × 380 + 0.05 × 180 = 272; 7.7 + 3.625 + 0.65 = 11.975; 37.8 + 15 + 3.3 = 56.1.
    assert!((b.w - 272.0).abs() < 1e-9);
    assert!((b.protein_percent.unwrap() - 11.975).abs() < 1e-9);
    assert!((b.absorption_percent.unwrap() - 56.1).abs() < 1e-9);
    assert!((b.whole_percent - 5.0).abs() < 1e-9);
    assert_eq!(b.w_spread, 0.0);
    assert!((b.carries_percent - (64.0 + 0.06 * 72.0)).abs() < 1e-9);
}

#[test]
fn protein_alone_gives_a_guess_with_its_spread() {
    let s = flour("Bag", None, 12.0, 56.0).facts.strength();
    // 150 + 45 × 3; three quarters of a point either way.
    assert!((s.w - 285.0).abs() < 1e-9 && (s.spread - 33.75).abs() < 1e-9);
    let nothing = FlourFacts::default().strength();
    assert!(nothing.spread > s.spread);
    let half = blend(&[
        FlourPart {
            share_percent: 50.0,
            ..flour("Known", Some(300.0), 13.0, 57.0)
        },
        FlourPart {
            share_percent: 50.0,
            ..flour("Guessed", None, 12.0, 56.0)
        },
    ]);
    assert!((half.w_spread - 33.75 / 2.0).abs() < 1e-9);
}

#[test]
fn gluten_lifts_protein_and_keeps_absorption_low() {
    // Soft flour of 10 % with gluten of 75 % to 12 %: share of gluten is 2 / 65.
    let found = substitutes(
        Target::Protein { percent: 12.0 },
        &[flour("Soft", Some(190.0), 10.0, 53.0), gluten()],
        None,
    )
    .unwrap();
    assert!(found.reached);
    let way = &found.ways[0];
    assert!((way.flours[1].share_percent - 200.0 / 65.0).abs() < 1e-9);
    assert!((way.blend.protein_percent.unwrap() - 12.0).abs() < 1e-9);
    assert_eq!(way.off, 0.0);
}

#[test]
fn what_cannot_be_reached_says_how_near_one_gets() {
    let hand = [
        flour("A", Some(220.0), 10.5, 53.0),
        flour("B", Some(300.0), 12.5, 56.0),
    ];
    let found = substitutes(Target::Strength { w: 380.0 }, &hand, None).unwrap();
    assert!(!found.reached);
    assert_eq!(found.ways.len(), 1);
    assert_eq!(found.ways[0].off, -80.0);
    assert_eq!(
        found.says.brief(),
        "target-not-reached(flours=B, off=80, target=target-w(w=380))"
    );
    assert!(substitutes(Target::Strength { w: 900.0 }, &hand, None).is_err());
    assert!(substitutes(Target::Strength { w: 300.0 }, &[], None).is_err());
}

#[test]
fn of_several_ways_the_one_most_like_the_old_flour_comes_first() {
    let old = blend(&[flour("Old", Some(300.0), 12.5, 56.0)]);
    let hand = [
        flour("Weak soft", Some(200.0), 10.5, 53.0),
        flour("Strong soft", Some(380.0), 14.2, 58.5),
        flour("Strong hard", Some(380.0), 15.5, 66.0),
    ];
    let found = substitutes(Target::Strength { w: 300.0 }, &hand, Some(&old)).unwrap();
    assert_eq!(found.ways.len(), 2);
    assert_eq!(found.ways[0].flours[1].name, "Strong soft");
    assert!(
        found.ways[1]
            .differs
            .iter()
            .any(|d| d.code == "differs-more-water")
    );
}

#[test]
fn differences_say_stickier_tighter_browner() {
    let a = blend(&[flour("A", Some(300.0), 12.0, 58.0)]);
    let b = blend(&[flour("B", Some(250.0), 13.5, 54.0)]);
    let codes = |a, b| -> Vec<String> {
        let all = differences(a, b).into_iter();
        all.map(|d| d.code.to_string()).collect()
    };
    assert_eq!(
        codes(&a, &b),
        [
            "differs-weaker",
            "differs-less-water",
            "differs-more-protein"
        ]
    );
    assert_eq!(
        codes(&b, &a),
        [
            "differs-stronger",
            "differs-more-water",
            "differs-less-protein"
        ]
    );
    assert_eq!(differences(&a, &a).len(), 1);
}

#[test]
fn nonsense_on_a_bag_is_refused_by_field() {
    let mut c = Check::new();
    FlourFacts {
        w: Some(3000.0),
        protein_percent: Some(40.0),
        ..FlourFacts::default()
    }
    .check_into(&mut c, "flours[2].facts");
    let errors = c.done().unwrap_err().0;
    assert_eq!(errors[0].field, "flours[2].facts.w");
    assert_eq!(
        errors[1].message.brief(),
        "outside-range(range=5%..18%, value=40%, what=f-protein)"
    );
}

proptest! {
    #[test]
    fn every_blend_that_is_called_reached_meets_its_target(
        ws in prop::collection::vec((80.0..450.0f64, 8.0..16.0f64, 48.0..70.0f64), 2..6),
        wanted in 80.0..450.0f64,
    ) {
        let hand: Vec<_> = ws.iter().map(|(w, p, a)| flour("x", Some(*w), *p, *a)).collect();
        let found = substitutes(Target::Strength { w: wanted }, &hand, None).unwrap();
        for way in &found.ways {
            let sum: f64 = way.flours.iter().map(|f| f.share_percent).sum();
            prop_assert!((sum - 100.0).abs() < 1e-9);
            prop_assert!(way.flours.iter().all(|f| (0.0..=100.0).contains(&f.share_percent)));
            if found.reached {
                prop_assert!((way.blend.w - wanted).abs() <= 2.0 + 1e-6);
            }
        }
        let between = ws.iter().any(|f| f.0 <= wanted) && ws.iter().any(|f| f.0 >= wanted);
        prop_assert!(!between || found.reached);
    }
}
