//! What must hold of any mixing: heat closes, warmer water never cools, what is solved is reached.

use craft::mix::{
    Aimed, BlendFrom, BowlItem, BowlPart, BowlStep, Friction, FrictionFigures, GlutenWork,
    LoggedMix, Mend, MixReading, MixRecipe, Mixer, Mixing, ObservedSign, PrefermentIn, ReadySign,
    Speed, aim, blend, development, learn_friction, mend, programmes, sure_of_end, trace,
};
use proptest::prelude::*;

fn machine() -> impl Strategy<Value = Mixer> {
    prop_oneof![
        Just(Mixer::Planetary),
        Just(Mixer::Spiral),
        Just(Mixer::Fork),
        Just(Mixer::Hand),
    ]
}

prop_compose! {
    fn any_mixing()(
        kind in machine(),
        capacity in 1.0..40.0_f64,
        room in 5.0..38.0_f64,
        bowl in -10.0..38.0_f64,
        flour in 300.0..12_000.0_f64,
        flour_c in -10.0..36.0_f64,
        water in 0.5..0.85_f64,
        slow in 1.0..8.0_f64,
        rest in 0.0..30.0_f64,
        medium in 0.5..8.0_f64,
        late in 0.0..0.2_f64,
    ) -> Mixing {
        let speed = |s| if kind == Mixer::Hand { Speed::Hand } else { s };
        let mut first = BowlStep::plain(speed(Speed::Slow), slow);
        first.add = vec![
            BowlItem::of(BowlPart::Flour, flour, flour_c),
            BowlItem::of(BowlPart::Water, flour * water * (1.0 - late), 15.0).named("first"),
        ];
        let mut last = BowlStep::plain(speed(Speed::Medium), medium);
        last.add = vec![
            BowlItem::of(BowlPart::Salt, flour * 0.025, room),
            BowlItem::of(BowlPart::Water, flour * water * late, 15.0).named("last"),
        ];
        Mixing {
            kind,
            capacity_kg: Some(capacity),
            room_c: room,
            bowl_c: Some(bowl),
            plain: false,
            steps: vec![first, BowlStep::plain(Speed::Off, rest), last],
            from: None,
        }
    }
}

fn poured(m: &Mixing, at_c: f64) -> Mixing {
    let mut m = m.clone();
    for i in m.steps.iter_mut().flat_map(|s| &mut s.add) {
        if i.what == BowlPart::Water {
            i.temp_c = at_c;
        }
    }
    m
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// What is solved ends where it was to end.
    #[test]
    fn solved_water_ends_at_the_wanted_temperature(m in any_mixing(), target in 18.0..28.0_f64) {
        let aimed: Aimed = aim(&m, &["first", "last"], target, None).unwrap();
        let end = trace(&poured(&m, aimed.at_c), None).unwrap().end_c;
        prop_assert!((end - target).abs() < 1e-6, "{end} for {target}");
        prop_assert!((aimed.end_c(aimed.at_c) - target).abs() < 1e-6);
    }

    /// Warmer water never makes a colder dough, at any minute.
    #[test]
    fn warmer_water_never_cools(m in any_mixing(), at in 2.0..40.0_f64, more in 0.1..10.0_f64) {
        let cold = trace(&poured(&m, at), None).unwrap();
        let warm = trace(&poured(&m, at + more), None).unwrap();
        for (a, b) in cold.points.iter().zip(&warm.points) {
            prop_assert!(b.dough_c >= a.dough_c - 1e-9);
        }
    }

    /// Without bowl and room the heat of what goes in and of the work is the heat of the dough.
    #[test]
    fn the_plain_balance_closes(m in any_mixing()) {
        let plain = Mixing { plain: true, ..m };
        let t = trace(&plain, None).unwrap();
        let heat: f64 = plain.items().map(BowlItem::heat).sum();
        let end = heat / plain.contents().capacity;
        // The work of a step warms what is in the bowl then: here the first step's dough is smaller than the last.
        let mut capacity = 0.0;
        let mut work = 0.0;
        for (s, k) in plain.steps.iter().zip(&t.step_k_per_min) {
            capacity += s.add.iter().map(BowlItem::capacity).sum::<f64>();
            work += capacity * k * s.minutes;
        }
        let wanted = end + work / plain.contents().capacity;
        prop_assert!((t.end_c - wanted).abs() < 1e-6, "{} {wanted}", t.end_c);
    }

    /// More minutes of work never cool a dough that is below bowl and room.
    #[test]
    fn work_never_cools_a_dough_below_its_surroundings(m in any_mixing(), more in 0.1..10.0_f64) {
        let mut m = poured(&m, 4.0);
        m.room_c = 38.0;
        m.bowl_c = Some(38.0);
        for i in m.steps.iter_mut().flat_map(|s| &mut s.add) {
            if i.what == BowlPart::Flour { i.temp_c = 5.0; }
        }
        let short = trace(&m, None).unwrap();
        prop_assume!(short.end_c < 37.0 && short.cap_scale == 1.0);
        m.steps[2].minutes += more;
        let long = trace(&m, None).unwrap();
        prop_assume!(long.cap_scale == 1.0 && long.end_c < 38.0 && m.kind != Mixer::Hand);
        prop_assert!(long.end_c >= short.end_c - 1e-9);
    }

    /// The grams of a blend are the grams of the water, and its heat is the heat that was asked for.
    #[test]
    fn a_blend_weighs_what_the_water_weighs(
        m in 50.0..20_000.0_f64, x in -40.0..60.0_f64, tap in 3.0..30.0_f64,
        kettle in prop::option::of(80.0..100.0_f64), fridge in prop::option::of(1.0..9.0_f64), ice in any::<bool>(),
    ) {
        let from = BlendFrom { tap_c: tap, kettle_c: kettle, fridge_c: fridge, ice_in_bowl: ice };
        let b = blend(m, x, &from);
        let parts = [b.tap_g, b.kettle_g, b.fridge_g, b.ice_g, b.ice_in_tap_g];
        prop_assert!(parts.iter().all(|g| *g >= -1e-9));
        prop_assert!((parts.iter().sum::<f64>() - m).abs() < 1e-6);
        if b.reached { prop_assert!((b.at_c - x).abs() < 1e-9); }
        let warm_tap = b.at_c > tap && b.kettle_g == 0.0;
        if !warm_tap {
            let tap_c = if b.ice_g > 0.0 { b.pour_c } else { tap };
            let heat = 4.18 * (b.tap_g * tap_c + b.kettle_g * kettle.unwrap_or(0.0)
                + b.fridge_g * fridge.unwrap_or(0.0)) - 334.0 * (b.ice_g + b.ice_in_tap_g);
            prop_assert!((heat / (4.18 * m) - b.at_c).abs() < 1e-6, "{heat} {b:?}");
        }
    }

    /// A further mix never makes the figures less sure; the order of mixes does not matter.
    #[test]
    fn mixes_add_to_what_is_known(a in any_mixing(), b in any_mixing(), off in -1.0..1.0_f64) {
        let spiral = |m: &Mixing| {
            let m = Mixing { kind: Mixer::Spiral, ..m.clone() };
            let mut m = poured(&m, 12.0);
            m.steps.iter_mut().filter(|s| s.speed == Speed::Hand).for_each(|s| s.speed = Speed::Medium);
            let end = trace(&m, Some(&FrictionFigures::of(Mixer::Spiral))).unwrap().end_c;
            let at_min = m.minutes().max(m.begins_min(2) + 1.6);
            LoggedMix { mixing: m, readings: vec![MixReading { at_min, dough_c: end + off }] }
        };
        let (a, b) = (spiral(&a), spiral(&b));
        let one = learn_friction(Mixer::Spiral, std::slice::from_ref(&a));
        let two = learn_friction(Mixer::Spiral, &[a.clone(), b.clone()]);
        let back = learn_friction(Mixer::Spiral, &[b, a]);
        prop_assert!((two.figures.medium - back.figures.medium).abs() < 1e-9);
        // Where every reading keeps its whole weight, more of them never say less.
        if one.smallest_weight == 1.0 && two.smallest_weight == 1.0 {
            prop_assert!(two.sd.medium <= one.sd.medium + 1e-9);
            prop_assert!(two.sd.slow <= one.sd.slow + 1e-9);
        }
    }

    /// Every programme puts the whole recipe into the bowl.
    #[test]
    fn a_programme_lays_the_whole_recipe(
        flour in 0.0..9000.0_f64, water in 200.0..5000.0_f64, biga in prop::option::of(300.0..9000.0_f64), hydration in 44.0..60.0_f64,
    ) {
        prop_assume!(flour > 100.0 || biga.is_some());
        let recipe = MixRecipe {
            flour_g: flour, flour_c: 18.0, water_g: water, salt_g: 60.0, oil_g: 20.0, sugar_g: 5.0, room_c: 20.0, aside_g: 30.0, aside_c: 36.0,
            preferments: biga.map(|weight_g| PrefermentIn { weight_g, temp_c: 18.0, hydration_percent: hydration }).into_iter().collect(),
        };
        for p in programmes() {
            let laid = recipe.laid(p, Some(20.0), None);
            let all = laid.contents();
            prop_assert!((all.weight_g - recipe.dough_g()).abs() < 1e-6, "{}", p.key);
        }
    }
}

#[test]
fn staged_water_first_wets_all_of_the_flour() {
    let biga = programmes()
        .iter()
        .find(|p| p.key == "spiral_biga")
        .unwrap();
    let recipe = MixRecipe {
        flour_g: 1500.0,
        flour_c: 18.0,
        water_g: 1700.0,
        room_c: 20.0,
        salt_g: 80.0,
        preferments: vec![PrefermentIn {
            weight_g: 3000.0,
            temp_c: 18.0,
            hydration_percent: 50.0,
        }],
        ..MixRecipe::default()
    };
    let laid = recipe.laid(biga, None, None);
    let first: craft::mix::Contents = laid.steps[0].add.iter().collect();
    assert!((first.hydration_percent() - 56.0).abs() < 1e-6);
    let later: Vec<f64> = laid.steps[1..6]
        .iter()
        .map(|s| {
            s.add
                .iter()
                .find(|i| i.what == BowlPart::Water)
                .unwrap()
                .weight_g
        })
        .collect();
    assert!(later.iter().all(|g| (g - later[0]).abs() < 1e-9));
}

#[test]
fn printed_values_of_the_gluten() {
    let needs = |w, hydration_percent| {
        let work = GlutenWork {
            kind: Mixer::Hand,
            w,
            hydration_percent,
            usual: 1.0,
        };
        work.needed_min()
    };
    assert!((needs(300.0, 62.0) - 14.0_f64).abs() < 0.005);
    assert!((needs(350.0, 72.0) - 21.05_f64).abs() < 0.005);
    let rested = |min: f64| {
        let mut s = BowlStep::plain(Speed::Off, min);
        s.add = vec![BowlItem::of(BowlPart::Flour, 1000.0, 20.0)];
        let m = Mixing {
            kind: Mixer::Hand,
            capacity_kg: None,
            room_c: 20.0,
            bowl_c: None,
            plain: false,
            steps: vec![s],
            from: None,
        };
        let work = GlutenWork {
            kind: Mixer::Hand,
            w: 300.0,
            hydration_percent: 62.0,
            usual: 1.0,
        };
        development(&work, &m, min, &[], |_| 20.0).rest
    };
    for (min, wanted) in [
        (10.0, 0.130),
        (20.0, 0.221),
        (60.0, 0.398),
        (240.0, 0.611),
        (1080.0, 0.904),
    ] {
        assert!(
            (rested(min) - wanted).abs() < 0.0006,
            "{min}: {}",
            rested(min)
        );
    }
}

#[test]
fn a_sign_overrules_the_index_and_a_lower_one_changes_nothing() {
    let m = Mixing {
        kind: Mixer::Spiral,
        capacity_kg: None,
        room_c: 20.0,
        bowl_c: None,
        plain: false,
        steps: vec![BowlStep::plain(Speed::Medium, 12.0)],
        from: None,
    };
    let work = GlutenWork {
        kind: Mixer::Spiral,
        w: 300.0,
        hydration_percent: 62.0,
        usual: 1.0,
    };
    let seen = |at_min, sign| ObservedSign { at_min, sign };
    let at = |min, signs: &[ObservedSign]| development(&work, &m, min, signs, |_| 22.0);
    let early = at(4.0, &[seen(4.0, ReadySign::WallClean)]);
    assert_eq!(early.index, 0.65);
    let by_book = at(4.0, &[]).index;
    assert!((by_book - 0.65).abs() > 0.05, "the book says {by_book}");
    // Seen again, or less than was seen: nothing changes.
    let all = [
        seen(4.0, ReadySign::Smooth),
        seen(5.0, ReadySign::WallClean),
        seen(6.0, ReadySign::Smooth),
    ];
    assert_eq!(at(7.0, &all), at(7.0, &all[..1]));
    let window = at(5.0, &[seen(5.0, ReadySign::Window)]);
    assert!(window.window);
    assert_eq!(window.words().code, "gluten-done");
}

#[test]
fn a_reading_makes_the_end_surer() {
    let mut first = BowlStep::plain(Speed::Slow, 4.0);
    first.add = vec![
        BowlItem::of(BowlPart::Flour, 3800.0, 18.0),
        BowlItem::of(BowlPart::Water, 2400.0, 20.0),
    ];
    let whole = Mixing {
        kind: Mixer::Spiral,
        capacity_kg: Some(12.0),
        room_c: 20.0,
        bowl_c: None,
        plain: false,
        steps: vec![first.clone(), BowlStep::plain(Speed::Medium, 8.0)],
        from: None,
    };
    let new = Friction::prior(Mixer::Spiral);
    let before = sure_of_end(&whole, &new);
    assert!(
        (1.5..2.3).contains(&before),
        "about 1.9 K for a new mixer: {before}"
    );
    let left = Mixing {
        steps: vec![BowlStep::plain(Speed::Medium, 3.0)],
        from: Some(craft::mix::StandingDough {
            dough_c: 22.0,
            bowl_c: 21.0,
            contents: first.add.clone(),
        }),
        ..whole
    };
    let after = sure_of_end(&left, &new);
    assert!(after < 1.0 && after < before / 2.0, "{after}");
}

#[test]
fn water_that_was_measured_wrong_is_mended() {
    let from = BlendFrom {
        tap_c: 12.0,
        kettle_c: Some(96.0),
        fridge_c: None,
        ice_in_bowl: true,
    };
    // 2 l at 20 instead of 24: out with so much, in with as much from the kettle.
    let Mend::FromKettle(g) = mend(2000.0, 24.0, 20.0, &from) else {
        panic!()
    };
    let mixed = ((2000.0 - g) * 20.0 + g * 96.0) / 2000.0;
    assert!((mixed - 24.0).abs() < 1e-9);
    let Mend::FromCold(g, c) = mend(2000.0, 16.0, 20.0, &from) else {
        panic!()
    };
    assert!((((2000.0 - g) * 20.0 + g * c) / 2000.0 - 16.0).abs() < 1e-9);
    let Mend::WithIce(g) = mend(2000.0, 8.0, 12.0, &from) else {
        panic!()
    };
    let melted = ((2000.0 - g) * 4.18 * 12.0 - g * 334.0) / (2000.0 * 4.18);
    assert!((melted - 8.0).abs() < 1e-9);
    assert_eq!(mend(2000.0, 20.0, 20.05, &from), Mend::Right);
}

#[test]
fn what_is_no_mixing_is_refused() {
    let refused = |m: &Mixing| trace(m, None).unwrap_err().0[0].message.code.to_string();
    let mut m = Mixing {
        kind: Mixer::Spiral,
        capacity_kg: Some(12.0),
        room_c: 20.0,
        bowl_c: None,
        plain: false,
        steps: vec![BowlStep::plain(Speed::Slow, 4.0)],
        from: None,
    };
    assert_eq!(refused(&m), "mix-nothing-in-the-bowl");
    m.steps[0].add = vec![BowlItem::of(BowlPart::Water, 600.0, 20.0)];
    assert_eq!(refused(&m), "mix-work-without-flour");
    m.steps[0]
        .add
        .push(BowlItem::of(BowlPart::Flour, 1000.0, 20.0));
    assert!(trace(&m, None).is_ok());
    m.steps[0].minutes = 61.0;
    assert_eq!(refused(&m), "mix-most-machine");
    m.steps[0].minutes = f64::NAN;
    assert_eq!(refused(&m), "must-be-a-number");
    m.steps[0].minutes = 4.0;
    m.steps[0].add[0].temp_c = f64::INFINITY;
    assert_eq!(refused(&m), "must-be-a-number");
    m.steps[0].add[0].temp_c = 20.0;
    m.capacity_kg = Some(0.2);
    assert_eq!(refused(&m), "outside-range");
    m.capacity_kg = Some(12.0);
    m.steps = vec![m.steps[0].clone(); 41];
    assert_eq!(refused(&m), "mix-steps-count");
}
