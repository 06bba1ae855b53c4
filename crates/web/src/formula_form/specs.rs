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
    spec("pieces.count", "Pieces", "", Count, 1.0, 1.0, 1000.0),
    spec("pieces.ball_g", "Each", "a ball", Weight, 5.0, 30.0, 2000.0),
    spec("pieces.diameter_cm", "Across", "opened", Length, 1.0, 8.0, 80.0),
    spec("pieces.dough_g_per_cm2", "Thick", "", PerArea, 0.01, 0.2, 2.0),
    spec("pieces.dough_g", "In all", "in the bowl", Weight, 50.0, 50.0, 300_000.0),
    spec("pieces.flour_g", "Flour", "to use up", Weight, 50.0, 20.0, 250_000.0),
    spec("pieces.pans[].count", "Pans", "", Count, 1.0, 1.0, 200.0),
    spec("pieces.pans[].length_cm", "Long", "inside", Length, 1.0, 8.0, 120.0),
    spec("pieces.pans[].width_cm", "Wide", "inside", Length, 1.0, 8.0, 120.0),
    spec("pieces.pans[].diameter_cm", "Across", "inside", Length, 1.0, 8.0, 80.0),
    spec("pieces.pans[].dough_g_per_cm2", "Thick", "", PerArea, 0.05, 0.2, 2.0),
    spec("pieces.balls.count", "Balls", "besides", Count, 1.0, 1.0, 1000.0),
    spec("pieces.balls.ball_g", "Each", "a ball", Weight, 5.0, 30.0, 2000.0),
    spec("loss_percent", "Loss", "bowl, hands", Percent, 0.5, 0.0, 10.0),
    spec("hydration_percent", "Water", "", Percent, 0.5, 40.0, 130.0),
    spec("salt_percent", "Salt", "1.8 to 3.2", Percent, 0.1, 0.0, 5.0),
    spec("oil_percent", "Oil", "", Percent, 0.5, 0.0, 20.0),
    spec("sugar_percent", "Sugar", "", Percent, 0.5, 0.0, 20.0),
    spec("extras[].amount", "Amount", "", Percent, 0.1, 0.0, 100.0),
    spec("yeast.percent", "Dose", "of the flour", Percent, 0.05, 0.0, 6.0),
    spec("flours[].share_percent", "Share", "of all flour", Percent, 5.0, 0.0, 100.0),
    spec("flours[].facts.w", "W", "strength", Bare, 10.0, 80.0, 450.0),
    spec("flours[].facts.protein_percent", "Protein", "", Percent, 0.5, 5.0, 90.0),
    spec("flours[].facts.absorption_percent", "Absorption", "water it takes", Percent, 0.5, 40.0, 200.0),
    spec("flours[].facts.whole_percent", "Whole grain", "", Percent, 5.0, 0.0, 100.0),
    spec("flours[].facts.pl", "P/L", "", Bare, 0.05, 0.2, 3.0),
    spec("preferments[].flour_percent", "Flour in it", "of all flour", Percent, 5.0, 0.5, 100.0),
    spec("preferments[].hydration_percent", "Water", "of its flour", Percent, 1.0, 40.0, 130.0),
    spec("preferments[].salt_percent", "Salt", "of its flour", Percent, 0.1, 0.0, 5.0),
    spec("preferments[].yeast.percent", "Dose", "of its flour", Percent, 0.01, 0.0, 6.0),
    spec("preferments[].flours[]", "Share", "of its flour", Percent, 5.0, 0.0, 100.0),
    spec("preferments[].warm_h", "Left for", "warm", Hours, 1.0, 0.0, 48.0),
    spec("preferments[].cold_h", "then", "in the fridge", Hours, 1.0, 0.0, 120.0),
    spec("preferments[].warm_c", "at", "empty: the room", Temperature, 0.5, 2.0, 40.0),
    spec("begun_dough_c", "It measured", "off the mixer; empty when not", Temperature, 0.5, 0.0, 40.0),
    spec("preferments[].target_c", "Off the bowl", "empty: as its place", Temperature, 0.5, 5.0, 35.0),
    spec("preferments[].feed.flour_parts", "Fed 1 to", "seed to flour", Bare, 0.5, 0.2, 10.0),
    spec("preferments[].feed.keep_back_g", "Keep back", "for next time", Weight, 5.0, 0.0, 5000.0),
    spec("preferments[].feed.spare_g", "Spare jar", "", Weight, 5.0, 0.0, 5000.0),
    spec("toppings[].g_per_disc", "On 30 cm", "", Weight, 5.0, 0.0, 500.0),
    spec("legs[].hours", "Leg", "", Hours, 0.25, 0.25, 240.0),
    spec("yeast_vigour", "Yeast works", "1: by the book", Bare, 0.05, 0.2, 1.5),
    spec("leaven_vigour", "Starter works", "1: by the book", Bare, 0.05, 0.2, 1.5),
    spec("bulk_h", "Bulk", "in the room", Hours, 0.5, 0.25, 48.0),
    spec("cold_h", "Cold", "in the fridge", Hours, 1.0, 0.0, 168.0),
    spec("temper_h", "Warm up", "in the room, to bake", Hours, 0.5, 0.5, 24.0),
    spec("room_c", "Room", "", Temperature, 0.5, -2.0, 42.0),
    spec("fridge_c", "Fridge", "measured", Temperature, 0.5, -2.0, 20.0),
    spec("target_dough_c", "Dough", "off the mixer", Temperature, 0.5, 5.0, 35.0),
    spec("flour_c", "Flour", "temperature", Temperature, 0.5, -20.0, 45.0),
    spec("tap_water_c", "Tap", "cold water", Temperature, 0.5, 0.0, 35.0),
    spec("oven_top_c", "It reaches", "top heat", Temperature, 10.0, 150.0, 550.0),
    spec("extras[].per_litre", "Amount", "", PerLitre, 5.0, 0.0, 300.0),
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
