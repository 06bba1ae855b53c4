//! The water that brings a dough to its temperature.

use super::balance::{COLDEST_WATER_C, DoughResponse, HOTTEST_WATER_C, WaterRequest, WaterResult};
use super::extremes::{ice_for, too_hot, with_ice};
use super::worked::WorkedIn;
use crate::fact;
use crate::fact::whole;
use crate::note::{Note, by_urgency};
use crate::refusal::ValidationError;
use crate::units::{Celsius, Grams};

/// Gluten suffers in dough warmer than this, °C.
const WARM_DOUGH_C: f64 = 28.0;

/// Solves the water for a dough temperature.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
///
/// ```
/// use craft::mix::{WaterRequest, water};
///
/// let asked: WaterRequest = serde_json::from_str(
///     r#"{"target_dough_c": 24, "room_c": 20, "flour_c": 20, "tap_water_c": 12,
///         "flour_g": 1000, "water_g": 620, "salt_g": 28, "mixer": "spiral", "mixing_min": 15}"#,
/// )?;
/// let poured = water(&asked).unwrap();
/// assert!(poured.reached && poured.ice_g == 0.0);
/// // A spiral warms the dough, so the water goes in colder than the dough is wanted.
/// assert!(poured.friction_k > 3.0 && poured.pour_c < 24.0);
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn water(r: &WaterRequest) -> Result<WaterResult, ValidationError> {
    r.check()?;
    Ok(poured(r, &r.plain_response()))
}

/// The same for a dough that is worked by a programme in a bowl, in a room: what they take or give on the way counts.
///
/// Errors: [`ValidationError`] with the fields outside their ranges.
pub fn water_worked(r: &WaterRequest, by: &WorkedIn) -> Result<WaterResult, ValidationError> {
    r.check()?;
    Ok(poured(r, &by.response(r)))
}

fn poured(r: &WaterRequest, d: &DoughResponse) -> WaterResult {
    let friction_k = d.friction_k;
    if r.poured_g() < 1.0 {
        return nothing_to_pour(r, d);
    }
    let needed_c = d.water_for(r.target_dough_c);
    let (terms, preferment_c) = base_terms(r);
    let base = terms * (r.target_dough_c - friction_k);
    let mut out = WaterResult {
        needed_c,
        base_rule_c: base - r.room_c - r.flour_c - preferment_c,
        base,
        pour_c: needed_c,
        pour_g: r.poured_g(),
        ice_g: 0.0,
        friction_k,
        dough_c: r.target_dough_c,
        reached: true,
        notes: vec![],
    };
    if needed_c < COLDEST_WATER_C {
        with_ice(r, d, &mut out);
    } else if needed_c > HOTTEST_WATER_C {
        too_hot(r, d, &mut out);
    } else if needed_c < r.tap_water_c - 0.5 {
        // Reachable without ice only by cooling the water beforehand: say how much ice does it at once.
        let ice = ice_for(d, needed_c, r.tap_water_c);
        out.notes.push(
            Note::holds(
                "colder_than_tap",
                fact!("colder-than-tap", c = Celsius(whole(needed_c))),
                fact!("colder-than-tap-why", c = Celsius(r.tap_water_c)),
            )
            .todo(fact!(
                "colder-than-tap-todo",
                ice = Grams(whole(ice)),
                water = Grams(whole(r.poured_g() - ice))
            )),
        );
    }
    if r.target_dough_c > WARM_DOUGH_C {
        out.notes.push(Note::watch(
            "dough_warm",
            fact!("dough-warm", c = Celsius(r.target_dough_c)),
            fact!("dough-warm-why", c = Celsius(WARM_DOUGH_C)),
        ));
    }
    out.notes = by_urgency(out.notes);
    out
}

/// How many temperatures the base rule weighs, and the preferment's.
fn base_terms(r: &WaterRequest) -> (f64, f64) {
    if r.preferment_g > 0.0 {
        (4.0, r.preferment_c)
    } else {
        (3.0, 0.0)
    }
}

/// All the water is in the preferment: the dough comes as it comes.
fn nothing_to_pour(r: &WaterRequest, d: &DoughResponse) -> WaterResult {
    let friction_k = d.friction_k;
    let (terms, preferment_c) = base_terms(r);
    let base = terms * (r.target_dough_c - friction_k);
    let dough_c = d.at_zero_c;
    WaterResult {
        needed_c: r.tap_water_c,
        base_rule_c: base - r.room_c - r.flour_c - preferment_c,
        base,
        pour_c: r.tap_water_c,
        pour_g: r.poured_g(),
        ice_g: 0.0,
        friction_k,
        dough_c,
        reached: (dough_c - r.target_dough_c).abs() < 0.5,
        notes: vec![
            Note::watch(
                "no_water_to_pour",
                fact!("no-water-to-pour", c = Celsius(whole(dough_c))),
                fact!("no-water-to-pour-why"),
            )
            .todo(fact!("no-water-to-pour-todo")),
        ],
    }
}
