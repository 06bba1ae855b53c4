use super::*;
use craft::flour::FlourFacts;
use craft::formula::Scales;
use craft::sheet::KitchenUsual;
use craft::units::{LengthUnit, TemperatureUnit, WeightUnit};
use store::KitchenId;
use store::kitchen::{Kitchen, Reads};

fn here(temperature: TemperatureUnit, weight: WeightUnit, length: LengthUnit) -> RequestKitchen {
    let usual = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 0.0,
        room_c: 20.0,
        fridge_c: 5.0,
        tap_water_c: 11.0,
        scales: Scales::default(),
    };
    let kitchen = Kitchen {
        rhythm: Default::default(),
        work: Default::default(),
        feed_hash: None,
        uses_book: false,
        is_demo: false,
        epoch: String::new(),
        id: KitchenId(1),
        name: "Here".into(),
        usual,
        reads: Reads {
            temperature,
            weight,
            length,
            ..Reads::default()
        },
        revision: 0,
    };
    RequestKitchen::of(kitchen, "2026-11-23T09:00:00Z".parse().unwrap())
}

fn metric() -> RequestKitchen {
    here(
        TemperatureUnit::Celsius,
        WeightUnit::Grams,
        LengthUnit::Centimetres,
    )
}

fn imperial() -> RequestKitchen {
    here(
        TemperatureUnit::Fahrenheit,
        WeightUnit::Ounces,
        LengthUnit::Inches,
    )
}

fn back(typed: &FormData, here: &RequestKitchen) -> SheetForm {
    read(typed, here, KitchenTools::default()).unwrap_or_else(|e| panic!("{e:?}"))
}

#[test]
fn every_style_starts_with_a_form_that_reads_back() {
    for here in [metric(), imperial()] {
        for style in style::all() {
            let f = Formula::of_style(style);
            let sheet = back(&sensible(&f, &here), &here);
            assert_eq!(
                sheet.request.serve_at.to_string(),
                "2026-11-27T19:00:00Z",
                "{}",
                style.key
            );
            assert_eq!(sheet.request.formula, f, "{}", style.key);
        }
    }
}

/// Values that no text of a field holds: thirds, ounces of odd grams, what a weight that was typed left behind.
fn awkward() -> Formula {
    let mut f = Formula::of_style(style::by_key("wet_tray").unwrap());
    f.flours = vec![
        FlourPart {
            name: "A".into(),
            share_percent: 100.0 / 3.0,
            facts: FlourFacts {
                protein_percent: Some(12.345_678),
                ..FlourFacts::default()
            },
            pantry: Some(7),
        },
        FlourPart {
            share_percent: 200.0 / 3.0,
            ..FlourPart::only(301.123_456)
        },
    ];
    f.hydration_percent = 200.0 / 3.0;
    f.target_dough_c = 22.222_222;
    f.pieces = Pieces::Pans {
        pans: vec![PanGroup {
            count: 2,
            pan: PanShape::Round {
                diameter_cm: 26.123,
            },
            dough_g_per_cm2: 0.612_345,
        }],
        balls: Some(LooseBalls {
            count: 3,
            ball_g: 251.17,
        }),
    };
    f.preferments = [
        PrefermentKind::Poolish,
        PrefermentKind::Levain,
        PrefermentKind::OldDough,
    ]
    .map(Preferment::usual)
    .into();
    f.preferments[0].flours = vec![100.0, 0.0];
    f.preferments[0].yeast.dose = Dose::Given {
        percent: 0.012_345_6,
    };
    f.extras = vec![
        Extra {
            kind: ExtraKind::DriedMother,
            name: "Jar <3>".into(),
            amount: 41.000_1,
        },
        Extra {
            kind: ExtraKind::Honey,
            name: String::new(),
            amount: 1.0 / 7.0,
        },
    ];
    f.style.name = "Mine".into();
    f
}

#[test]
fn values_do_not_drift_through_repeated_edits_in_any_unit() {
    for here in [
        metric(),
        imperial(),
        here(
            TemperatureUnit::Celsius,
            WeightUnit::Pounds,
            LengthUnit::Inches,
        ),
    ] {
        let f = awkward();
        let mut typed = sensible(&f, &here);
        for round in 0..5 {
            typed.set("name", format!("round {round}"));
            let sheet = back(&typed, &here);
            assert_eq!(sheet.request.formula, f, "round {round}");
            typed = sensible(&sheet.request.formula, &here);
        }
        // What was touched counts as it was typed; the rest stays exact.
        typed.set("pieces.balls.ball_g", here.measures.weight_field(300.0));
        let touched = back(&typed, &here).request.formula;
        assert_eq!(touched.hydration_percent, f.hydration_percent);
        let Pieces::Pans { balls: Some(b), .. } = touched.pieces else {
            panic!()
        };
        assert!((b.ball_g - 300.0).abs() < 0.3);
    }
}

#[test]
fn a_kitchen_of_ounces_fahrenheit_and_inches_types_its_own_units() {
    let here = imperial();
    let mut typed = sensible(&Formula::of_style(style::first()), &here);
    assert_eq!(typed.text("room_c"), "68");
    assert_eq!(typed.text("pieces.ball_g"), "8.82");
    let sheet = back(&typed, &here);
    assert!((sheet.request.room_c - 20.0).abs() < 1e-9);
    typed.set("room_c", "200");
    let errors = read(&typed, &here, KitchenTools::default()).err().unwrap();
    assert_eq!(
        here.say(&errors[0].message),
        "Room 28.4 to 107.6 °F; 200 °F is outside."
    );
    let tray = sensible(
        &Formula::of_style(style::by_key("wet_tray").unwrap()),
        &here,
    );
    assert_eq!(tray.text("pieces.pans[0].length_cm"), "15.7");
}

#[test]
fn what_is_wrong_is_said_at_its_field() {
    let here = metric();
    let fresh = || sensible(&Formula::of_style(style::first()), &here);
    let mut typed = fresh();
    for (field, value) in [
        ("hydration_percent", "340"),
        ("salt_percent", "-1"),
        ("pieces.count", "0"),
        ("oil_percent", "abc"),
        ("serve_time", "late"),
        ("name", ""),
        ("flours[0].name", ""),
    ] {
        typed.set(field, value);
    }
    let errors = read(&typed, &here, KitchenTools::default()).err().unwrap();
    let fields: Vec<_> = errors.iter().map(|e| e.field.as_str()).collect();
    assert_eq!(
        fields,
        [
            "name",
            "serve_at",
            "pieces.count",
            "flours[0].name",
            "hydration_percent",
            "salt_percent",
            "oil_percent"
        ]
    );
    typed = fresh();
    typed.set("hydration_percent", "64,5");
    assert_eq!(back(&typed, &here).request.formula.hydration_percent, 64.5);
    typed.set("style", "nothing");
    assert_eq!(
        read(&typed, &here, KitchenTools::default()).err().unwrap()[0].field,
        "style"
    );
    // A style that a hostile page makes up is checked like everything else.
    typed = fresh();
    let mut odd = style::first().clone();
    odd.target_volume = 1e300;
    typed.set("style_data", serde_json::to_string(&odd).unwrap());
    assert_eq!(
        formula(&typed, &here).unwrap_err()[0].field,
        "style.target_volume"
    );
}
