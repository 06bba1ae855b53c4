//! The table of the number fields: name, label, small word, measure, step, and the range in the core's units.

/// What a field measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Measure {
    Count,
    Percent,
    Weight,
    Temperature,
    Hours,
    Length,
    PerArea,
    Bare,
    PerLitre,
}

/// One number field.
pub struct Spec {
    pub name: &'static str,
    pub label: &'static str,
    pub small: &'static str,
    pub measure: Measure,
    pub step: f64,
    pub low: f64,
    pub high: f64,
}

use Measure::*;

const fn spec(
    name: &'static str,
    label: &'static str,
    small: &'static str,
    measure: Measure,
    step: f64,
    low: f64,
    high: f64,
) -> Spec {
    Spec {
        name,
        label,
        small,
        measure,
        step,
        low,
        high,
    }
}

#[rustfmt::skip]
pub(super) static SPECS: [Spec; 53] = [
    spec("pieces.count", "batch-pieces", "", Count, 1.0, 1.0, 1000.0),
    spec("pieces.ball_g", "form-each", "form-a-ball", Weight, 5.0, 30.0, 2000.0),
    spec("pieces.diameter_cm", "form-across", "form-opened", Length, 1.0, 8.0, 80.0),
    spec("pieces.dough_g_per_cm2", "form-thick", "", PerArea, 0.01, 0.2, 2.0),
    spec("pieces.dough_g", "form-in-all", "form-in-the-bowl", Weight, 50.0, 50.0, 300_000.0),
    spec("pieces.flour_g", "pantry-flour-2", "form-to-use-up", Weight, 50.0, 20.0, 250_000.0),
    spec("pieces.pans[].count", "form-pans", "", Count, 1.0, 1.0, 200.0),
    spec("pieces.pans[].length_cm", "form-long", "form-inside", Length, 1.0, 8.0, 120.0),
    spec("pieces.pans[].width_cm", "form-wide", "form-inside", Length, 1.0, 8.0, 120.0),
    spec("pieces.pans[].diameter_cm", "form-across", "form-inside", Length, 1.0, 8.0, 80.0),
    spec("pieces.pans[].dough_g_per_cm2", "form-thick", "", PerArea, 0.05, 0.2, 2.0),
    spec("pieces.balls.count", "bake-balls", "form-besides", Count, 1.0, 1.0, 1000.0),
    spec("pieces.balls.ball_g", "form-each", "form-a-ball", Weight, 5.0, 30.0, 2000.0),
    spec("loss_percent", "form-loss", "form-bowl-hands", Percent, 0.5, 0.0, 10.0),
    spec("hydration_percent", "mix-water", "", Percent, 0.5, 40.0, 130.0),
    spec("salt_percent", "figures-salt", "form-salt-usual", Percent, 0.1, 0.0, 5.0),
    spec("oil_percent", "figures-oil", "", Percent, 0.5, 0.0, 20.0),
    spec("sugar_percent", "figures-sugar", "", Percent, 0.5, 0.0, 20.0),
    spec("extras[].amount", "form-amount", "", Percent, 0.1, 0.0, 100.0),
    spec("yeast.percent", "form-dose", "form-of-the-flour", Percent, 0.05, 0.0, 6.0),
    spec("flours[].share_percent", "form-share", "form-of-all-flour", Percent, 5.0, 0.0, 100.0),
    spec("flours[].facts.w", "W", "form-strength", Bare, 10.0, 80.0, 450.0),
    spec("flours[].facts.protein_percent", "form-protein", "", Percent, 0.5, 5.0, 90.0),
    spec("flours[].facts.absorption_percent", "form-absorption", "form-water-it-takes", Percent, 0.5, 40.0, 200.0),
    spec("flours[].facts.whole_percent", "form-whole-grain", "", Percent, 5.0, 0.0, 100.0),
    spec("flours[].facts.pl", "P/L", "", Bare, 0.05, 0.2, 3.0),
    spec("preferments[].flour_percent", "form-flour-in-it", "form-of-all-flour", Percent, 5.0, 0.5, 100.0),
    spec("preferments[].hydration_percent", "mix-water", "form-of-its-flour", Percent, 1.0, 40.0, 130.0),
    spec("preferments[].salt_percent", "figures-salt", "form-of-its-flour", Percent, 0.1, 0.0, 5.0),
    spec("preferments[].yeast.percent", "form-dose", "form-of-its-flour", Percent, 0.01, 0.0, 6.0),
    spec("preferments[].flours[]", "form-share", "form-of-its-flour", Percent, 5.0, 0.0, 100.0),
    spec("preferments[].warm_h", "form-left-for", "form-warm", Hours, 1.0, 0.0, 48.0),
    spec("preferments[].cold_h", "form-then", "form-in-the-fridge", Hours, 1.0, 0.0, 120.0),
    spec("preferments[].warm_c", "form-at", "form-empty-the-room", Temperature, 0.5, 2.0, 40.0),
    spec("begun_dough_c", "form-it-measured", "form-off-the-mixer-empty-when", Temperature, 0.5, 0.0, 40.0),
    spec("preferments[].target_c", "form-off-the-bowl", "form-empty-as-its-place", Temperature, 0.5, 5.0, 35.0),
    spec("preferments[].feed.flour_parts", "form-fed-1-to", "form-seed-to-flour", Bare, 0.5, 0.2, 10.0),
    spec("preferments[].feed.keep_back_g", "form-keep-back", "form-for-next-time", Weight, 5.0, 0.0, 5000.0),
    spec("preferments[].feed.spare_g", "form-spare-jar", "", Weight, 5.0, 0.0, 5000.0),
    spec("toppings[].g_per_disc", "form-on-30-cm", "", Weight, 5.0, 0.0, 500.0),
    spec("legs[].hours", "form-leg", "", Hours, 0.25, 0.25, 240.0),
    spec("yeast_vigour", "form-yeast-works", "form-1-by-the-book", Bare, 0.05, 0.2, 1.5),
    spec("leaven_vigour", "form-starter-works", "form-1-by-the-book", Bare, 0.05, 0.2, 1.5),
    spec("bulk_h", "form-bulk", "form-in-the-room", Hours, 0.5, 0.25, 48.0),
    spec("cold_h", "form-cold", "form-in-the-fridge", Hours, 1.0, 0.0, 168.0),
    spec("temper_h", "form-warm-up", "form-in-the-room-to-bake", Hours, 0.5, 0.5, 24.0),
    spec("room_c", "form-room", "", Temperature, 0.5, -2.0, 42.0),
    spec("fridge_c", "form-fridge", "form-measured", Temperature, 0.5, -2.0, 20.0),
    spec("target_dough_c", "rise-dough", "form-off-the-mixer", Temperature, 0.5, 5.0, 35.0),
    spec("flour_c", "pantry-flour-2", "form-temperature", Temperature, 0.5, -20.0, 45.0),
    spec("tap_water_c", "form-tap", "form-cold-water", Temperature, 0.5, 0.0, 35.0),
    spec("oven_top_c", "begin-it-reaches", "form-top-heat", Temperature, 10.0, 150.0, 550.0),
    spec("extras[].per_litre", "form-amount", "", PerLitre, 5.0, 0.0, 300.0),
];

#[cfg(test)]
mod tests {
    use super::*;
    use craft::refusal::ValidationError;
    use craft::sheet::{KitchenUsual, SheetRequest, work_out};
    use serde_json::{Value, json};

    /// Fields of the form whose range the core asks for, too, and where the request has them.
    const ALIKE: [(&str, &str); 13] = [
        ("pieces.count", "/formula/pieces/count"),
        ("pieces.ball_g", "/formula/pieces/ball_g"),
        ("loss_percent", "/formula/loss_percent"),
        ("hydration_percent", "/formula/hydration_percent"),
        ("salt_percent", "/formula/salt_percent"),
        ("oil_percent", "/formula/oil_percent"),
        ("sugar_percent", "/formula/sugar_percent"),
        ("target_dough_c", "/formula/target_dough_c"),
        ("room_c", "/room_c"),
        ("fridge_c", "/fridge_c"),
        ("flour_c", "/flour_c"),
        ("tap_water_c", "/tap_water_c"),
        ("yeast_vigour", "/yeast_vigour"),
    ];

    /// The core's refusal of a field at a value, where it refuses it.
    fn refused(pointer: &str, value: f64) -> bool {
        let kitchen = KitchenUsual {
            time_zone: "UTC".into(),
            altitude_m: 0.0,
            room_c: 20.0,
            fridge_c: 5.0,
            tap_water_c: 12.0,
            scales: Default::default(),
        };
        let serve_at = "2026-11-27T19:00:00Z".parse().unwrap();
        let request = SheetRequest::of_style(craft::style::first(), &kitchen, serve_at);
        let mut json = serde_json::to_value(&request).unwrap();
        let field = json
            .pointer_mut(pointer)
            .unwrap_or_else(|| panic!("{pointer}"));
        *field = match pointer.ends_with("count") {
            true => json!(value.round() as u32),
            false => Value::from(value),
        };
        let request: SheetRequest = serde_json::from_value(json).unwrap();
        let named = pointer.trim_start_matches('/').replace('/', ".");
        match work_out(&request) {
            Ok(_) => false,
            Err(ValidationError(all)) => all
                .iter()
                .any(|e| e.field == named && e.message.code == "outside-range"),
        }
    }

    #[test]
    fn the_form_and_the_core_ask_for_the_same_ranges() {
        for (name, pointer) in ALIKE {
            let s = SPECS
                .iter()
                .find(|s| s.name == name)
                .unwrap_or_else(|| panic!("{name}"));
            for end in [s.low, s.high] {
                assert!(!refused(pointer, end), "the core refuses {name} at {end}");
            }
            let step = s.step.max(0.01);
            assert!(
                refused(pointer, s.high + step),
                "the core takes {name} over {}",
                s.high
            );
            // A count below one is none, whatever refuses it.
            if s.low - step >= 0.0 || s.measure == Temperature {
                assert!(
                    refused(pointer, s.low - step),
                    "the core takes {name} under {}",
                    s.low
                );
            }
        }
    }
}
