//! Water colder than a tap gives, and hotter than yeast bears: ice, chilled or warmed flour.

use super::balance::{
    C_WATER, COLDEST_WATER_C, DoughResponse, HOTTEST_WATER_C, MELTING, WaterRequest, WaterResult,
};
use crate::fact;
use crate::fact::{Percent, tenth, whole};
use crate::note::Note;
use crate::units::{Celsius, Grams};

/// Ice that replaces part of the water at `water_c` so that all of it is worth `needed_c`, g.
pub(super) fn ice_for(d: &DoughResponse, needed_c: f64, water_c: f64) -> f64 {
    d.poured_g * C_WATER * (water_c - needed_c) / (C_WATER * water_c + MELTING)
}

/// Ice in the water, where it must be colder than a tap gives.
pub(super) fn with_ice(r: &WaterRequest, d: &DoughResponse, out: &mut WaterResult) {
    let pour_c = r.tap_water_c.max(COLDEST_WATER_C);
    let ice = ice_for(d, out.needed_c, pour_c);
    let most = 0.6 * r.poured_g();
    out.pour_c = pour_c;
    out.ice_g = ice.min(most);
    out.pour_g = r.poured_g() - out.ice_g;
    out.dough_c = d.dough_with(pour_c, out.ice_g);
    if ice <= most {
        out.notes.push(
            Note::watch(
                "ice",
                fact!("ice", ice = Grams(whole(out.ice_g))),
                fact!("ice-why", c = Celsius(whole(out.needed_c))),
            )
            .todo(fact!(
                "ice-todo",
                water = Grams(whole(out.pour_g)),
                c = Celsius(whole(pour_c))
            )),
        );
    } else {
        out.reached = false;
        let flour_c = r.flour_c - (out.dough_c - r.target_dough_c) / d.per_flour_k;
        out.notes.push(
            Note::act(
                "too_warm_for_ice",
                fact!(
                    "ice-not-enough",
                    share = Percent(60.0),
                    c = Celsius(tenth(out.dough_c))
                ),
                fact!("ice-not-enough-why"),
            )
            .todo(if r.flour_g >= 1.0 && flour_c > -20.0 {
                fact!("chill-flour-to", c = Celsius(whole(flour_c)))
            } else {
                fact!("chill-flour")
            }),
        );
    }
}

/// Water as hot as yeast bears, where it should be hotter.
pub(super) fn too_hot(r: &WaterRequest, d: &DoughResponse, out: &mut WaterResult) {
    out.pour_c = HOTTEST_WATER_C;
    out.dough_c = d.dough_with(HOTTEST_WATER_C, 0.0);
    out.reached = false;
    let flour_c = r.flour_c + (r.target_dough_c - out.dough_c) / d.per_flour_k;
    out.notes.push(
        Note::act(
            "water_too_hot",
            fact!("water-too-hot", c = Celsius(whole(out.needed_c))),
            fact!(
                "water-too-hot-why",
                most = Celsius(HOTTEST_WATER_C),
                c = Celsius(tenth(out.dough_c))
            ),
        )
        .todo(if r.flour_g >= 1.0 && flour_c < 45.0 {
            fact!("warm-flour-to", c = Celsius(whole(flour_c)))
        } else {
            fact!("warm-flour")
        }),
    );
}
