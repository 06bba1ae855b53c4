use super::*;
use proptest::prelude::*;

fn six_balls() -> FormulaRequest {
    FormulaRequest {
        pieces: Pieces::Balls {
            count: 6,
            ball_g: 262.0,
        },
        loss_percent: 1.0,
        hydration_percent: 64.0,
        salt_percent: 2.8,
        oil_percent: 1.5,
        sugar_percent: 0.0,
        yeast_percent: 0.048,
        yeast_form: YeastForm::Instant,
        kitchen_scale_g: 1.0,
        fine_scale_g: 0.1,
    }
}

#[test]
fn six_balls_worked_by_hand() {
    // 6 × 262 g and 1 % loss = 1587.72 g; 168.348 % in all; 9.4312 g per percent.
    let f = formulate(&six_balls()).unwrap();
    assert!((f.dough_g - 1587.72).abs() < 1e-9);
    assert!((f.sum_percent - 168.348).abs() < 1e-9);
    let weigh = |i| f.row(i).unwrap().weigh_g;
    assert_eq!(weigh(Ingredient::Flour), 943.0);
    assert_eq!(weigh(Ingredient::Water), 604.0);
    assert_eq!(weigh(Ingredient::Salt), 26.4);
    assert_eq!(weigh(Ingredient::Oil), 14.1);
    assert_eq!(weigh(Ingredient::Yeast), 0.5);
    assert_eq!(f.weighed_g, 1588.0);
    assert!(f.row(Ingredient::Sugar).is_none());
}

#[test]
fn trays_weigh_area_times_thickness() {
    let r = FormulaRequest {
        pieces: Pieces::Trays {
            count: 2,
            length_cm: 40.0,
            width_cm: 30.0,
            dough_g_per_cm2: 0.65,
        },
        loss_percent: 0.0,
        ..six_balls()
    };
    let f = formulate(&r).unwrap();
    assert!((f.piece_g - 780.0).abs() < 1e-9);
    assert!((f.dough_g - 1560.0).abs() < 1e-9);
}

#[test]
fn a_dose_below_the_scale_gets_a_dilution_that_holds_it() {
    let r = FormulaRequest {
        yeast_percent: 0.02,
        ..six_balls()
    };
    let f = formulate(&r).unwrap();
    let d = f.dilution.expect("0.19 g on a 0.1 g scale");
    let wanted = f.exact_g(Ingredient::Yeast);
    assert!(
        (d.holds_g / wanted - 1.0).abs() < 0.01,
        "{d:?} for {wanted}"
    );
    assert!(d.less_water_g < f.exact_g(Ingredient::Water));
    assert_eq!(f.notes[0].code, "yeast_below_scale");
    // A weighable dose needs none.
    let f = formulate(&FormulaRequest {
        yeast_percent: 0.3,
        ..six_balls()
    })
    .unwrap();
    assert!(f.dilution.is_none() && f.notes.is_empty());
}

#[test]
fn nonsense_is_refused_field_by_field() {
    let r = FormulaRequest {
        pieces: Pieces::Balls {
            count: 0,
            ball_g: 250.0,
        },
        hydration_percent: 340.0,
        salt_percent: -1.0,
        oil_percent: f64::INFINITY,
        ..six_balls()
    };
    let fields: Vec<_> = formulate(&r)
        .unwrap_err()
        .0
        .into_iter()
        .map(|e| e.field)
        .collect();
    assert_eq!(
        fields,
        [
            "pieces.count",
            "hydration_percent",
            "salt_percent",
            "oil_percent"
        ]
    );
    let r = FormulaRequest {
        pieces: Pieces::Balls {
            count: 1000,
            ball_g: 2000.0,
        },
        ..six_balls()
    };
    assert!(formulate(&r).unwrap_err().to_string().contains("300 kg"));
}

#[test]
fn salt_outside_the_usual_offers_the_nearest_usual() {
    let f = formulate(&FormulaRequest {
        salt_percent: 4.0,
        yeast_percent: 0.3,
        ..six_balls()
    })
    .unwrap();
    assert_eq!(f.notes[0].remedy.as_ref().unwrap().value, 3.2);
}

fn any_formula() -> impl Strategy<Value = FormulaRequest> {
    (
        1u32..400,
        30.0..600.0f64,
        0.0..10.0f64,
        40.0..130.0f64,
        0.0..5.0f64,
        0.0..20.0f64,
        0.0..20.0f64,
        0.001..2.0f64,
    )
        .prop_map(
            |(count, ball_g, loss, water, salt, oil, sugar, yeast)| FormulaRequest {
                pieces: Pieces::Balls { count, ball_g },
                loss_percent: loss,
                hydration_percent: water,
                salt_percent: salt,
                oil_percent: oil,
                sugar_percent: sugar,
                yeast_percent: yeast,
                ..six_balls()
            },
        )
}

proptest! {
    #[test]
    fn grams_sum_to_the_dough(r in any_formula()) {
        let f = formulate(&r).unwrap();
        let exact: f64 = f.rows.iter().map(|r| r.exact_g).sum();
        prop_assert!((exact - f.dough_g).abs() < 1e-6 * f.dough_g);
        let rounding: f64 = f.rows.iter().map(|r| r.scale_g / 2.0).sum();
        prop_assert!((f.weighed_g - f.dough_g).abs() <= rounding + 1e-6);
    }

    #[test]
    fn percent_to_grams_to_percent_is_the_same(r in any_formula()) {
        let f = formulate(&r).unwrap();
        let flour = f.exact_g(Ingredient::Flour);
        for row in &f.rows {
            prop_assert!((100.0 * row.exact_g / flour - row.percent).abs() < 1e-9 * row.percent.max(1.0));
        }
    }

    #[test]
    fn twice_the_balls_is_twice_of_everything(r in any_formula()) {
        let Pieces::Balls { count, ball_g } = r.pieces else { unreachable!() };
        let twice = FormulaRequest { pieces: Pieces::Balls { count: 2 * count, ball_g }, ..r.clone() };
        let (a, b) = (formulate(&r).unwrap(), formulate(&twice));
        if let Ok(b) = b {
            for (a, b) in a.rows.iter().zip(&b.rows) {
                prop_assert!((2.0 * a.exact_g - b.exact_g).abs() < 1e-6 * b.exact_g);
            }
        }
    }

    #[test]
    fn a_dilution_never_takes_more_water_than_there_is(r in any_formula()) {
        let f = formulate(&r).unwrap();
        if let Some(d) = f.dilution {
            prop_assert!(d.less_water_g <= f.exact_g(Ingredient::Water));
            prop_assert!((d.holds_g / f.exact_g(Ingredient::Yeast) - 1.0).abs() <= 0.06);
        }
    }
}
