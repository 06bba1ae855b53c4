use super::*;
use craft::sheet::KitchenUsual;
use craft::units::TemperatureUnit;
use craft::units::WeightUnit;
use store::KitchenId;
use store::kitchen::Kitchen;

fn here(temperature_unit: TemperatureUnit, weight_unit: WeightUnit) -> Here {
    let usual = KitchenUsual {
        time_zone: "Europe/London".into(),
        altitude_m: 0.0,
        room_c: 20.0,
        fridge_c: 5.0,
        tap_water_c: 11.0,
        kitchen_scale_g: 1.0,
        fine_scale_g: 0.1,
    };
    let kitchen = Kitchen {
        id: KitchenId(1),
        name: "Here".into(),
        usual,
        temperature_unit,
        weight_unit,
    };
    Here::of(kitchen, "2026-11-23T09:00:00Z".parse().unwrap())
}

#[test]
fn every_style_starts_with_a_form_that_reads_back() {
    let here = here(TemperatureUnit::Celsius, WeightUnit::Grams);
    for style in StyleKey::ALL {
        let sheet =
            read(&sensible(style, &here), &here).unwrap_or_else(|e| panic!("{style:?}: {e:?}"));
        assert_eq!(sheet.request.serve_at.to_string(), "2026-11-27T19:00:00Z");
        let usual = SheetRequest {
            now_at: Some(here.now),
            ..SheetRequest::of_style(style, &here.kitchen.usual, sheet.request.serve_at)
        };
        assert_eq!(sheet.request, usual);
    }
}

#[test]
fn a_kitchen_of_ounces_and_fahrenheit_types_its_own_units() {
    let here = here(TemperatureUnit::Fahrenheit, WeightUnit::Ounces);
    let mut typed = sensible(StyleKey::HotRound, &here);
    assert_eq!(typed.text("room_c"), "68");
    assert_eq!(typed.text("ball_g"), "8.82");
    let sheet = read(&typed, &here).unwrap_or_else(|e| panic!("{e:?}"));
    assert!((sheet.request.room_c - 20.0).abs() < 1e-9);
    assert!((sheet.request.pieces.piece_g() - 250.0).abs() < 0.1);
    typed.set("room_c", "200");
    let errors = read(&typed, &here).err().unwrap();
    assert_eq!(errors[0].message, "Room 28.4 to 107.6 °F; 200 is outside.");
}

#[test]
fn what_is_wrong_is_said_at_its_field() {
    let here = here(TemperatureUnit::Celsius, WeightUnit::Grams);
    let mut typed = sensible(StyleKey::HotRound, &here);
    for (field, value) in [
        ("hydration_percent", "340"),
        ("salt_percent", "-1"),
        ("count", "0"),
        ("oil_percent", "abc"),
        ("serve_time", "late"),
        ("name", ""),
    ] {
        typed.set(field, value);
    }
    let errors = read(&typed, &here).err().unwrap();
    let fields: Vec<_> = errors.iter().map(|e| e.field.as_str()).collect();
    assert_eq!(
        fields,
        [
            "name",
            "count",
            "serve_at",
            "hydration_percent",
            "salt_percent",
            "oil_percent"
        ]
    );
    typed = sensible(StyleKey::HotRound, &here);
    typed.set("hydration_percent", "64,5");
    assert_eq!(
        read(&typed, &here)
            .unwrap_or_else(|e| panic!("{e:?}"))
            .request
            .hydration_percent,
        64.5
    );
}
