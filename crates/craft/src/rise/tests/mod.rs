use super::recipe::Recipe;
use super::request::tests::{ball, bulk, plain_dough};
use super::*;
use crate::note::Level;
use proptest::prelude::*;

fn at_bake(r: &RiseRequest) -> RisePoint {
    forecast(r, Temperatures::InsideTheDough).unwrap().at_bake
}

fn dose(r: &RiseRequest) -> Option<f64> {
    match solve_yeast(r, Temperatures::InsideTheDough).unwrap() {
        YeastAnswer::Found { yeast_percent, .. } => Some(yeast_percent),
        YeastAnswer::None { .. } => None,
    }
}

fn dough(hours: f64, place_c: f64) -> RiseRequest {
    RiseRequest {
        stages: vec![bulk(hours / 4.0, place_c), ball(hours * 0.75, place_c)],
        ..plain_dough()
    }
}

#[test]
fn the_solved_dose_is_ready_at_the_bake() {
    for hours in [4.0, 9.0, 24.0] {
        let r = dough(hours, 21.0);
        let yeast_percent = dose(&r).unwrap();
        let p = at_bake(&RiseRequest { yeast_percent, ..r });
        assert!(
            (p.ripeness_dose.min(p.ripeness_piece) - 1.0).abs() < 0.002,
            "{hours} h: {p:?}"
        );
    }
}

#[test]
fn both_answers_of_no_say_which_way_to_go() {
    let too_short = solve_yeast(&dough(1.0, 12.0), Temperatures::InsideTheDough).unwrap();
    let YeastAnswer::None { reason, notes, .. } = too_short else {
        panic!("{too_short:?}")
    };
    assert_eq!(reason, NoYeast::CannotReachEvenAtMax);
    assert_eq!(
        (
            notes[0].level,
            notes[0].todo.as_ref().map(|t| t.code.as_ref())
        ),
        (Level::Act, Some("no-yeast-todo"))
    );
    let leaven = RiseRequest {
        leaven_fraction: 0.3,
        ..dough(14.0, 26.0)
    };
    let too_much = solve_yeast(&leaven, Temperatures::InsideTheDough).unwrap();
    let YeastAnswer::None { reason, .. } = too_much else {
        panic!("{too_much:?}")
    };
    assert_eq!(reason, NoYeast::RipeWithoutAddedYeast);
}

#[test]
fn a_weak_flour_is_warned_of_and_has_no_window() {
    let r = RiseRequest {
        flour_w: 180.0,
        ..dough(24.0, 21.0)
    };
    let YeastAnswer::Found {
        warnings,
        notes,
        forecast,
        ..
    } = solve_yeast(&r, Temperatures::InsideTheDough).unwrap()
    else {
        panic!("a dose exists")
    };
    assert!(warnings.contains(&YeastWarning::FlourTooWeakForTheHours));
    assert!(notes.iter().any(|n| n.code == "flour_too_weak"));
    assert!(forecast.window.is_none() && forecast.notes[0].code == "no_window");
}

#[test]
fn every_forecast_carries_a_judgement() {
    for (hours, level) in [(3.0, Level::Watch), (9.5, Level::Holds), (23.0, Level::Act)] {
        let f = forecast(
            &RiseRequest {
                yeast_percent: 0.14,
                ..dough(hours, 22.0)
            },
            Temperatures::InsideTheDough,
        )
        .unwrap();
        assert_eq!(f.notes[0].level, level, "{hours} h: {:#?}", f.notes);
    }
}

#[test]
fn a_dough_as_warm_as_its_place_needs_no_heat_pass() {
    let r = RiseRequest {
        dough_c: 22.0,
        ..dough(8.0, 22.0)
    };
    let (inside, of_place) = (
        forecast(&r, Temperatures::InsideTheDough).unwrap(),
        forecast(&r, Temperatures::OfThePlace).unwrap(),
    );
    // What is left between them is the heat of fermentation: some tenths of a degree.
    assert!((inside.at_bake.mean_c - 22.0).abs() < 0.5);
    assert!((inside.at_bake.ripeness / of_place.at_bake.ripeness - 1.0).abs() < 0.03);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn free_gas_is_never_more_than_all_gas(held in 0.0..400.0f64, t in -5.0..46.0f64, water in 40.0..130.0f64, alt in -400.0..4500.0f64) {
        let r = Recipe::of(&RiseRequest { hydration_percent: water, altitude_m: alt, ..plain_dough() });
        let free = r.free_gas(held, t);
        prop_assert!((0.0..=held + 1e-9).contains(&free), "{free} of {held}");
        prop_assert!(r.volume(free, t) > 0.85);
    }

    #[test]
    fn more_yeast_never_ripens_later_while_there_is_sugar(percent in 0.02..0.4f64, hours in 4.0..12.0f64, place in 12.0..26.0f64) {
        let with = |yeast_percent: f64| at_bake(&RiseRequest { yeast_percent, ..dough(hours, place) });
        let (less, more) = (with(percent), with(1.3 * percent));
        prop_assume!(more.free_sugar_mmol > 40.0);
        prop_assert!(more.ripeness_dose >= less.ripeness_dose && more.ripeness_piece >= less.ripeness_piece - 1e-9);
    }

    #[test]
    fn longer_is_never_less_mature(hours in 3.0..40.0f64, more in 0.2..8.0f64, place in 2.0..28.0f64) {
        let short = at_bake(&RiseRequest { yeast_percent: 0.05, ..dough(hours, place) });
        let long = at_bake(&RiseRequest { yeast_percent: 0.05, ..dough(hours + more, place) });
        prop_assert!(long.matured_h > short.matured_h && long.reserve < short.reserve && long.acid >= short.acid);
    }

    #[test]
    fn a_warmer_room_never_rises_slower(place in 8.0..30.0f64, hours in 3.0..16.0f64) {
        let (cool, warm) = (at_bake(&dough(hours, place)), at_bake(&dough(hours, place + 2.0)));
        prop_assert!(warm.gas_made_mmol >= cool.gas_made_mmol);
        prop_assert!(warm.matured_h >= cool.matured_h);
    }

    #[test]
    fn more_salt_never_ferments_faster(salt in 0.0..4.5f64, hours in 3.0..16.0f64) {
        let of = |salt_percent| at_bake(&RiseRequest { salt_percent, ..dough(hours, 21.0) }).gas_made_mmol;
        prop_assert!(of(salt + 0.5) <= of(salt));
    }

    #[test]
    fn a_stronger_flour_never_has_less_reserve(w in 80.0..420.0f64, hours in 3.0..30.0f64) {
        let of = |flour_w| at_bake(&RiseRequest { flour_w, ..dough(hours, 21.0) });
        let (weak, strong) = (of(w), of(w + 30.0));
        prop_assert!(strong.reserve > weak.reserve);
        prop_assert!((strong.gas_made_mmol - weak.gas_made_mmol).abs() < 1e-9, "strength does not move the gas");
    }

    #[test]
    fn a_mountain_never_takes_more_yeast(alt in 0.0..3500.0f64, hours in 6.0..20.0f64) {
        let of = |altitude_m| dose(&RiseRequest { altitude_m, ..dough(hours, 21.0) });
        if let (Some(low), Some(high)) = (of(alt), of(alt + 500.0)) {
            prop_assert!(high < low, "{high} at {} m, {low} at {alt} m", alt + 500.0);
        }
    }

    #[test]
    fn any_dough_is_refused_or_stays_within_bounds(
        water in 30.0..140.0f64, salt in -0.5..5.5f64, sugar in -1.0..22.0f64, w in 60.0..470.0f64, yeast in 0.0..2.5f64,
        t0 in -2.0..42.0f64, place in -4.0..44.0f64, hours in 0.1..60.0f64, grams in 10.0..30_000.0f64,
    ) {
        let mut r = dough(hours, place);
        for s in &mut r.stages {
            s.piece_g = grams;
        }
        let r = RiseRequest { hydration_percent: water, salt_percent: salt, sugar_percent: sugar, flour_w: w, yeast_percent: yeast, dough_c: t0, ..r };
        if let Ok(f) = forecast(&r, Temperatures::InsideTheDough) {
            for p in f.points.iter().chain(&f.beyond) {
                prop_assert!(p.ripeness.is_finite() && p.ripeness >= 0.0);
                prop_assert!(p.free_sugar_mmol >= 0.0 && (0.0..=1.0).contains(&p.acid));
                prop_assert!(p.volume > 0.5 && p.volume < 12.0, "{}", p.volume);
                prop_assert!(p.core_c > -5.0 && p.core_c < 60.0);
            }
            if let Some(w) = f.window {
                prop_assert!(w.to_h.is_none_or(|to| to > w.from_h));
            }
        }
    }
}

#[test]
fn a_length_is_the_shortest_that_ripens_and_keeps_the_hour_of_the_bake() {
    let r = RiseRequest {
        yeast_percent: 0.25,
        ..dough(9.0, 21.0)
    };
    let asked = HoursRequest { dough: r, stage: 1 };
    let HoursAnswer::Found {
        hours,
        longest_hours,
        forecast: f,
    } = solve_hours(&asked, Temperatures::InsideTheDough).unwrap()
    else {
        panic!("an answer")
    };
    assert!((f.at_bake.ripeness_dose.min(f.at_bake.ripeness_piece) - 1.0).abs() < 0.01);
    let longest = longest_hours.unwrap();
    assert!(longest > hours);
    let with = |h: f64| {
        let mut r = asked.dough.clone();
        r.start_clock_h = (r.start_clock_h - (h - r.stages[1].hours)).rem_euclid(24.0);
        r.stages[1].hours = h;
        at_bake(&r)
    };
    assert!(!with(longest - 0.2).label.is_past() && with(longest + 0.2).label.is_past());
}

#[test]
fn no_length_does_without_yeast_to_speak_of_and_says_the_best() {
    let r = RiseRequest {
        yeast_percent: 0.0005,
        ..dough(9.0, 4.0)
    };
    let answer = solve_hours(
        &HoursRequest { dough: r, stage: 1 },
        Temperatures::InsideTheDough,
    )
    .unwrap();
    let HoursAnswer::None {
        best_ripeness,
        notes,
        ..
    } = answer
    else {
        panic!("{answer:?}")
    };
    assert!(best_ripeness < 1.0 && notes[0].code == "no_length");
}

#[test]
fn more_doubt_makes_a_wider_band_and_none_makes_none() {
    let r = RiseRequest {
        yeast_percent: 0.05,
        ..dough(24.0, 20.0)
    };
    let of = |d: Doubts| {
        spread(&r, &d, Temperatures::InsideTheDough)
            .unwrap()
            .unwrap()
    };
    let (some, none) = (
        of(Doubts::default()),
        of(Doubts {
            fridge_k: 0.0,
            room_k: 0.0,
            yeast_percent: 0.0,
            dough_k: 0.0,
        }),
    );
    let width = |b: &Band| b.late_h - b.early_h;
    assert_eq!(width(&none.ready), 0.0);
    assert!(width(&some.ready) > 1.0);
    // In a room dough two degrees of the room weigh most; the fridge nothing.
    assert_eq!(some.weights[0].doubt, Doubt::Room);
    assert!(some.weights[0].up_h < 0.0 && some.weights[0].down_h > 0.0);
    let fridge = some
        .weights
        .iter()
        .find(|w| w.doubt == Doubt::Fridge)
        .unwrap();
    assert_eq!((fridge.up_h, fridge.down_h), (0.0, 0.0));
}

#[test]
fn a_vigour_is_found_again_from_what_it_would_show() {
    let book = dough(10.0, 21.0);
    let book = RiseRequest {
        yeast_percent: dose(&book).unwrap(),
        ..book
    };
    // Livelier yeast is ready earlier: from that hour the fit finds how lively.
    let lively = RiseRequest {
        yeast_percent: 1.3 * book.yeast_percent,
        ..book.clone()
    };
    let f = forecast(&lively, Temperatures::InsideTheDough).unwrap();
    let ready = f
        .points
        .iter()
        .find(|p| p.ripeness_dose.min(p.ripeness_piece) >= 1.0)
        .unwrap()
        .hours;
    let ask = |sign, at_h| {
        let q = VigourRequest {
            dough: book.clone(),
            at_h,
            sign,
        };
        fit_vigour(&q, Temperatures::InsideTheDough).unwrap()
    };
    let fit = ask(Sign::Ready, ready);
    assert!((fit.factor - 1.3).abs() < 0.04 && !fit.at_limit, "{fit:?}");
    assert!(fit.foreseen < 1.0);
    let limit = ask(Sign::Ready, 1.0);
    assert_eq!((limit.factor, limit.at_limit), (2.0, true));
    let grown = ask(Sign::Grown { times: 1.3 }, 2.4);
    assert!(grown.factor > 1.0);
    let q = VigourRequest {
        dough: book,
        at_h: 2.0,
        sign: Sign::Grown { times: 9.0 },
    };
    assert_eq!(
        fit_vigour(&q, Temperatures::InsideTheDough).unwrap_err().0[0].field,
        "sign.times"
    );
}

/// Twelve shells of time: the standard grid against the grid of trials, and one answer for one question.
#[test]
fn the_step_hardly_matters_and_the_same_question_has_the_same_answer() {
    let r = RiseRequest {
        yeast_percent: 0.2,
        stages: vec![
            bulk(2.0, 22.0),
            Stage {
                air: Air::Fridge,
                ..ball(44.0, 4.0)
            },
            Stage {
                event: Event::None,
                ..ball(4.0, 22.0)
            },
        ],
        ..plain_dough()
    };
    let whole = at_bake(&r);
    let (quick, label) = super::forecast::quick_end(&r, Temperatures::InsideTheDough, &[]);
    assert!((quick / whole.ripeness_dose.min(whole.ripeness_piece) - 1.0).abs() < 0.003);
    assert_eq!(label, whole.label);
    assert_eq!(at_bake(&r), whole);
}

#[test]
fn a_noted_vigour_is_as_coarse_as_what_was_seen() {
    use super::vigour::to_note;
    assert_eq!(to_note(1.0, 1.183), 1.2);
    assert_eq!(to_note(0.9, 0.5), 0.45);
    assert_eq!((to_note(1.2, 2.0), to_note(0.3, 0.5)), (1.5, 0.2));
}
